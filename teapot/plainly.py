"""What cannot be done is said on a page like all others, where a page was asked for."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

SAID = {
    400: "This request could not be read.",
    403: "This page has expired. Please reload it and try again.",
    404: "There is nothing here: it was deleted, is somebody else's, or the address is mistyped.",
    405: "This address cannot be opened directly: a button on a page leads to it.",
    413: "This is too large.",
    429: "Too many requests at once. Please wait a moment.",
    500: "Something went wrong on our side. Nothing you saved is lost.",
    507: "There is not enough space for this.",
    503: "This cannot be done at the moment. Please try again.",
}
"""What is said where the reply has no sentence of its own."""


class SayPlainly:
    """Django middleware: puts the sentence of a refusal on a page that leads home."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if response.status_code not in SAID or not _wants_page(request):
            return response
        if response.get("Content-Type", "").startswith("text/html") and response.content:
            return response
        return on_a_page(request, response)


def _wants_page(request: HttpRequest) -> bool:
    """Whether a browser goes there, not a script of a page."""
    mode = request.headers.get("Sec-Fetch-Mode")
    if mode is not None:
        return mode == "navigate"
    return "text/html" in request.headers.get("Accept", "")


def on_a_page(request: HttpRequest, response: HttpResponse) -> HttpResponse:
    """The same refusal with its sentence on a page."""
    is_plain = response.get("Content-Type", "").startswith("text/plain")
    said = response.content.decode() if is_plain else ""
    page = render(request, "refusal.html", {"said": said or SAID[response.status_code]})
    page.status_code = response.status_code
    for name, value in response.headers.items():
        if name not in ("Content-Type", "Content-Length"):
            page.headers[name] = value
    page.cookies = response.cookies
    return page


def not_from_here(request: HttpRequest, reason: str = "") -> HttpResponse:
    """What is said to a request without the token of a page."""
    return HttpResponse(SAID[403], status=403, content_type="text/plain; charset=utf-8")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """What is said where there is nothing."""
    return HttpResponse(SAID[404], status=404, content_type="text/plain; charset=utf-8")


def went_wrong(request: HttpRequest) -> HttpResponse:
    """What is said where something failed: nothing else is relied on."""
    return HttpResponse(SAID[500], status=500, content_type="text/plain; charset=utf-8")


def not_read(request: HttpRequest, exception: Exception) -> HttpResponse:
    """What is said to what cannot be read."""
    return HttpResponse(SAID[400], status=400, content_type="text/plain; charset=utf-8")
