"""How fast anybody may ask: what goes beyond is refused before it costs anything.

The counts are those of one web process; with several of them the rates are as many times as high.
"""

from __future__ import annotations

import threading
import time
from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from math import ceil

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from teapot.accounts.asking import address_of
from teapot.accounts.visits import COOKIE

PER_SECOND, AT_ONCE = 15.0, 90.0
"""Requests of one browser: about three times what somebody sends who types without pause."""

OF_ADDRESS_PER_SECOND, OF_ADDRESS_AT_ONCE = 400.0, 2000.0
"""Requests from one address, behind which a whole class may be."""

NEW_PER_SECOND, NEW_AT_ONCE = 2.0, 400.0
"""People that are made from one address."""

GUESSES_PER_SECOND, GUESSES_AT_ONCE = 1 / 30, 5.0
"""Passwords that are tried by somebody who is signed in, to prove who they are."""

MOST_AT_A_TIME = 4
"""Requests of one browser that a process works on at a time: a quarter of its threads, so that
whoever waits for runaway lines leaves the rest to others."""

TOLD_APART = (settings.SESSION_COOKIE_NAME, COOKIE)
"""Cookies by which browsers behind one address are told apart."""

MOST_REMEMBERED = 10_000
SAID = "Too many requests at once. Please wait a moment. It is taken again in a moment."


@dataclass(slots=True)
class _Left:
    """What may be asked for at once at a moment."""

    tokens: float
    at: float


class Pace:
    """So many things ``per_second`` for each key, after so many ``at_once``."""

    def __init__(self, per_second: float, at_once: float) -> None:
        self.per_second = per_second
        self.at_once = at_once
        self._left: OrderedDict[str, _Left] = OrderedDict()
        self._lock = threading.Lock()

    def allows(self, key: str) -> bool:
        """Whether one more is in time, which is counted then."""
        with self._lock:
            left = self._now(key)
            if left.tokens < 1:
                return False
            left.tokens -= 1
            return True

    def seconds_until(self, key: str) -> int:
        """After how many whole seconds one more is in time: 0 where it is."""
        with self._lock:
            return max(0, ceil((1 - self._now(key).tokens) / self.per_second))

    def give_back(self, key: str) -> None:
        """Takes back that one was counted."""
        with self._lock:
            self._now(key).tokens += 1

    def forget(self, key: str) -> None:
        """Counts anew."""
        with self._lock:
            self._left.pop(key, None)

    def _now(self, key: str) -> _Left:
        now = time.monotonic()
        left = self._left.setdefault(key, _Left(self.at_once, now))
        self._left.move_to_end(key)
        left.tokens = min(self.at_once, left.tokens + (now - left.at) * self.per_second)
        left.at = now
        while len(self._left) > MOST_REMEMBERED:
            self._left.popitem(last=False)
        return left


of_browsers = Pace(PER_SECOND, AT_ONCE)
of_addresses = Pace(OF_ADDRESS_PER_SECOND, OF_ADDRESS_AT_ONCE)
of_newcomers = Pace(NEW_PER_SECOND, NEW_AT_ONCE)
of_guesses = Pace(GUESSES_PER_SECOND, GUESSES_AT_ONCE)

_under_way: dict[str, int] = {}
_counting = threading.Lock()


def keep_pace(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable:
    """Django middleware: refuses what comes too fast, or while too much is under way."""

    def middleware(request: HttpRequest) -> HttpResponse:
        with admitted(address_of(request), request.COOKIES) as is_in_time:
            return get_response(request) if is_in_time else too_fast()

    return middleware


@contextmanager
def admitted(address: str, cookies: Mapping[str, str]) -> Iterator[bool]:
    """Whether a request is in time, which is under way meanwhile."""
    if not settings.PACED:
        yield True
        return
    browser = next(filter(None, map(cookies.get, TOLD_APART)), "")
    # what one browser sends too fast counts for nobody else at that address
    if (browser and not of_browsers.allows(browser)) or not of_addresses.allows(address):
        yield False
        return
    with _counting:
        count = _under_way.get(browser, 0)
        is_in_time = count < MOST_AT_A_TIME or not browser
        _under_way[browser] = count + is_in_time
    try:
        yield is_in_time
    finally:
        with _counting:
            _under_way[browser] -= is_in_time
            if not _under_way[browser]:
                del _under_way[browser]


def too_fast() -> HttpResponse:
    """What is said to it."""
    response = HttpResponse(SAID, status=429, content_type="text/plain; charset=utf-8")
    response["Retry-After"] = "1"
    return response
