"""What a page holds is a person's own: no browser or proxy keeps it."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse


def not_stored(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: nothing that is made for a person is stored on the way, nor shown again
    as it was when one goes back to it."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.setdefault("Cache-Control", "no-store")
        return response

    return middleware
