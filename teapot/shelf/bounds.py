"""Files that are too large are refused before they are read."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

from django.http import HttpRequest, HttpResponse
from django.urls import reverse

from teapot.engine.files.dialect import MAX_BYTES, too_large

LARGEST_ZIP = 100 * 1024 * 1024
"""Everything of somebody, zipped."""

SPARE = 1024 * 1024
"""What a request has beside its file."""


@lru_cache(1)
def _of_zips() -> str:
    return reverse("arrive")


def most_at(path: str) -> int:
    """The bytes that a request to ``path`` may have."""
    return (LARGEST_ZIP if path == _of_zips() else MAX_BYTES) + SPARE


def refuse_large(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: no request is read that says it is larger than a file may be."""

    def middleware(request: HttpRequest) -> HttpResponse:
        length = request.META.get("CONTENT_LENGTH") or "0"
        if length.isdecimal() and int(length) > SPARE and int(length) > most_at(request.path):
            said, kind = too_large().text, "text/plain; charset=utf-8"
            return HttpResponse(said, status=413, content_type=kind)
        return get_response(request)

    return middleware
