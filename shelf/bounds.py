"""Files that are too large are refused before they are read."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from engine.files.dialect import MAX_BYTES, too_large

SPARE = 1024 * 1024
"""What a request has beside its file."""


def refuse_large(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: no request is read that says it is larger than a file may be."""

    def middleware(request: HttpRequest) -> HttpResponse:
        length = request.META.get("CONTENT_LENGTH") or "0"
        if length.isdecimal() and int(length) > MAX_BYTES + SPARE:
            said, kind = too_large().text, "text/plain; charset=utf-8"
            return HttpResponse(said, status=413, content_type=kind)
        return get_response(request)

    return middleware
