"""Who is behind a request, for those who share out the work."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from accounts.visits import forget
from fence.asking import asker
from fence.turns import Asker


def say_who_asks(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: the address that a request comes from; the person is added as soon as
    they are known.  Once what a first visit told of is there, it is told no more."""

    def middleware(request: HttpRequest) -> HttpResponse:
        asker.set(Asker("", address_of(request)))
        response = get_response(request)
        if getattr(request, "visit_is_over", False):
            forget(response)
        return response

    return middleware


def counts_for(person: str) -> None:
    """Has the work that the request at hand asks for count for that person."""
    asker.set(Asker(person, asker.get().address))


def address_of(request: HttpRequest) -> str:
    """The address of whoever sent a request, as the proxy in front tells it, where there is
    one."""
    if settings.BEHIND_PROXY:
        return str(request.META.get("HTTP_X_FORWARDED_FOR", "").rpartition(",")[2].strip())
    return str(request.META.get("REMOTE_ADDR", ""))
