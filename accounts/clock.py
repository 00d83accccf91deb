"""The clock of where a person is: the browser tells its time zone in a cookie."""

from __future__ import annotations

from collections.abc import Callable
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

COOKIE = "zone"


def local_time(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: within a request, the local time is that of the person.

    A zone that is none is as good as no cookie: the time is then the server's.
    """

    def middleware(request: HttpRequest) -> HttpResponse:
        zone = _zone_of(request)
        if zone is None:
            timezone.deactivate()  # that of the request before, which had one
        else:
            timezone.activate(zone)
        return get_response(request)

    return middleware


def _zone_of(request: HttpRequest) -> ZoneInfo | None:
    try:
        return ZoneInfo(request.COOKIES[COOKIE])
    except (KeyError, ValueError, OSError):
        # a zone that does not exist is a KeyError too
        return None
