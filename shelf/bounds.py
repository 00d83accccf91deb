"""Files that are too large are refused before they are read."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from engine.files.dialect import MAX_BYTES

SPARE = 1024 * 1024
"""What a request has beside its file."""


def refuse_large(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: no request is read that says it is larger than a file may be."""

    def middleware(request: HttpRequest) -> HttpResponse:
        length = request.META.get("CONTENT_LENGTH") or "0"
        if length.isdecimal() and int(length) > MAX_BYTES + SPARE:
            said = f"This file cannot be read: it has more than {MAX_BYTES // 1024**2} megabytes."
            return HttpResponse(said, status=413, content_type="text/plain; charset=utf-8")
        return get_response(request)

    return middleware
