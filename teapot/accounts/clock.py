"""The clock of where a person is: the browser tells its time zone in a cookie."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from zoneinfo import ZoneInfo

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

COOKIE = "zone"


def local_time(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: within a request, the local time is that of the person.

    A zone that is none is as good as no cookie: the time is then the server's.
    """

    def middleware(request: HttpRequest) -> HttpResponse:
        set_by(request.COOKIES)
        return get_response(request)

    return middleware


def set_by(cookies: Mapping[str, str]) -> None:
    """Makes the local time that of whoever sent these cookies."""
    zone = _zone_in(cookies)
    if zone is None:
        timezone.deactivate()  # that of the request before, which had one
    else:
        timezone.activate(zone)


def _zone_in(cookies: Mapping[str, str]) -> ZoneInfo | None:
    try:
        return ZoneInfo(cookies[COOKIE])
    except (KeyError, ValueError, OSError):
        # a zone that does not exist is a KeyError too
        return None
