"""Who is behind a request, for those who share out the work."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import lru_cache
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import salted_hmac

from teapot.accounts.visits import forget, visit_of
from teapot.fence.asking import client
from teapot.fence.turns import Client


def say_who_asks(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: the address that a request comes from; the person is added as soon as
    they are known.  Once what a first visit told of is there, it is told no more."""

    def middleware(request: HttpRequest) -> HttpResponse:
        client.set(Client("", address_of(request)))
        response = get_response(request)
        if hasattr(request, "is_somebodys"):
            response.headers["X-Who"] = who_asks(request) or NOBODY
        has_session = response.status_code < 500  # else none was set, and the visit is all there is
        if has_session and getattr(request, "visit_is_over", False):
            forget(response)
        return response

    return middleware


def counts_for(person: str) -> None:
    """Has the work that the request at hand asks for count for that person."""
    client.set(Client(person, client.get().address))


NOBODY = "nobody"
"""Said where it was asked whose a browser is."""


def who_asks(request: HttpRequest) -> str:
    """A name by which a page tells whether a reply is for whom it was made; it is the same at a
    first visit as when something is kept, and empty where nobody is known."""
    person = client.get().person
    if not person:
        visit = visit_of(request)
        person = "" if visit is None else str(visit.person)
    return named(person) if person else ""


@lru_cache(1000)
def named(person: str) -> str:
    """The name of a person by which pages tell replies."""
    return salted_hmac("who", person).hexdigest()[:16]


def address_of(told: HttpRequest | Mapping[str, Any]) -> str:
    """The address of whoever sent a request, by it or what PEP 3333 tells of it, as the proxy in
    front has it, where there is one."""
    meta = told.META if isinstance(told, HttpRequest) else told
    if settings.BEHIND_PROXY:
        return str(meta.get("HTTP_X_FORWARDED_FOR", "").rpartition(",")[2].strip())
    return str(meta.get("REMOTE_ADDR", ""))
