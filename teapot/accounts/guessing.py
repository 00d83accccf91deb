"""How fast passwords may be tried by whoever is not signed in: each wrong one slows the next down,
and nobody is locked out.

Tries count for the account, for the address that they come from, and for the two together.  A
browser in which the owner was signed in before is let through: whoever guesses elsewhere, even in
the same room, does not keep the owner out.
"""

from __future__ import annotations

from django.core import signing
from django.http import HttpRequest, HttpResponse

from teapot.accounts.asking import address_of
from teapot.accounts.models import Person
from teapot.accounts.pacing import Pace

COOKIE = "known-browser"
SECONDS = 400 * 24 * 3600

_SALT = "known browser"

of_pairs = Pace(1 / 20, 5)
"""Wrong passwords for an account from one address."""

of_places = Pace(1 / 3, 40)
"""Wrong passwords from one address, behind which a whole class may be."""

of_accounts = Pace(1 / 10, 60)
"""Wrong passwords for an account from anywhere."""

of_known = Pace(1 / 20, 10)
"""Wrong passwords for an account in a browser that knows it."""


class TooManyTries(Exception):
    """So many wrong passwords came from one address that a reply costs as little as can be."""


class Tries:
    """What a try to sign in counts for."""

    def __init__(self, request: HttpRequest, email: str) -> None:
        place = address_of(request)
        if _known_in(request) == email:
            self._counts = [(of_known, email)]
        else:
            pair = f"{place} {email}"
            self._counts = [(of_pairs, pair), (of_places, place), (of_accounts, email)]

    def seconds(self) -> int:
        """How long to wait until the next; 0 where one may be made, which is counted.

        Errors: :class:`TooManyTries`.
        """
        if any(pace is of_places and pace.seconds_until(key) for pace, key in self._counts):
            raise TooManyTries
        longest = max(pace.seconds_until(key) for pace, key in self._counts)
        if not longest:
            for pace, key in self._counts:
                pace.allows(key)
        return longest

    def was_right(self) -> None:
        """Takes the try back."""
        for pace, key in self._counts:
            pace.give_back(key)


def forget(email: str, request: HttpRequest) -> None:
    """Lets whoever has a new password by mail try it at once."""
    of_known.forget(email)
    of_accounts.forget(email)
    of_pairs.forget(f"{address_of(request)} {email}")


def know(response: HttpResponse, person: Person, secure: bool) -> None:
    """Has the browser tell from now on that its owner was signed in in it."""
    value = signing.dumps(person.email, salt=_SALT)
    response.set_cookie(
        COOKIE, value, max_age=SECONDS, httponly=True, secure=secure, samesite="Strict"
    )


def _known_in(request: HttpRequest) -> str:
    try:
        return str(signing.loads(request.COOKIES.get(COOKIE, ""), salt=_SALT, max_age=SECONDS))
    except signing.BadSignature:
        return ""
