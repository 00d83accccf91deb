"""A first visit: it makes nothing in the database until something is kept.

Until then a signed cookie holds the keys of the person and the sheet that there would be.  It makes
that person once: as soon as the browser has come back with the session that it got for it, the
cookie leads nowhere, so that a copy of it is of no use.
"""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID, uuid4

from django.conf import settings
from django.core.signing import BadSignature, TimestampSigner
from django.http import HttpRequest, HttpResponse

COOKIE = "first-visit"
SECONDS = 7 * 24 * 3600

_signer = TimestampSigner(salt="first visit")


@dataclass(frozen=True, slots=True)
class Visit:
    """The keys of a person and of a sheet that are not there yet."""

    person: UUID
    sheet: UUID

    @classmethod
    def new(cls) -> Visit:
        """Keys that nobody has."""
        return cls(uuid4(), uuid4())

    def say(self, response: HttpResponse) -> None:
        """Has the browser tell of it from now on."""
        response.set_cookie(
            COOKIE,
            _signer.sign(f"{self.person.hex}-{self.sheet.hex}"),
            max_age=SECONDS,
            httponly=True,
            secure=settings.SESSION_COOKIE_SECURE,
            samesite="Lax",
        )


def forget(response: HttpResponse) -> None:
    """Has the browser tell of its first visit no more."""
    response.delete_cookie(COOKIE, samesite="Lax")


def visit_of(request: HttpRequest) -> Visit | None:
    """What the browser tells of a first visit, if it is on one."""
    try:
        told = _signer.unsign(request.COOKIES[COOKIE], max_age=SECONDS)
        person, _, sheet = told.partition("-")
        return Visit(UUID(person), UUID(sheet))
    except (KeyError, BadSignature, ValueError):
        return None
