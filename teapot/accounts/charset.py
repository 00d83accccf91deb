"""What is sent is in UTF-8."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse


def only_utf8(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: refuses what says that it is in another encoding."""

    def middleware(request: HttpRequest) -> HttpResponse:
        charset = request.content_params.get("charset") if request.content_params else None
        if charset and charset.lower() not in ("utf-8", "utf8", "us-ascii"):
            return HttpResponse("UTF-8 is read.", status=415, content_type="text/plain")
        return get_response(request)

    return middleware
