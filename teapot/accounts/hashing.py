"""How passwords are hashed: Argon2id (RFC 9106), one at a time in each web process.

A hash takes about a tenth of a second of a processor, on purpose.  It is worked out by a thread of
its own that stands back for others, so that many who try passwords do not take the answers of
those who work; and only a few wait for it, so that they do not take the threads either.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any, TypeVar

from django.contrib.auth.hashers import Argon2PasswordHasher, PBKDF2PasswordHasher

from teapot.accounts.background import one_apart

T = TypeVar("T")

MOST_WAITING = 6
"""Hashes that wait, the one at hand among them: for each a thread of the web waits too."""


class TooManyAtOnce(Exception):
    """So many passwords are being looked at that no more are taken just now."""


_apart = one_apart("hashing")
_places = threading.BoundedSemaphore(MOST_WAITING)


def apart(work: Callable[..., T], *arguments: Any) -> T:
    """The result of work on a password, done by the thread for it.  Errors:
    :class:`TooManyAtOnce`."""
    if not _places.acquire(blocking=False):
        raise TooManyAtOnce
    try:
        return _apart.submit(work, *arguments).result()
    finally:
        _places.release()


class Argon2(Argon2PasswordHasher):
    """64 MB and two passes: 0.09 s on a quiet core of 2024."""

    time_cost = 2
    memory_cost = 64 * 1024
    parallelism = 1

    def encode(self, password: str, salt: str) -> str:
        return apart(super().encode, password, salt)

    def verify(self, password: str, encoded: str) -> bool:
        return apart(super().verify, password, encoded)


class OfBefore(PBKDF2PasswordHasher):
    """Of passwords that were set before December 2026: each is hashed anew when it is used."""

    def encode(self, password: str, salt: str, iterations: int | None = None) -> str:
        return apart(super().encode, password, salt, iterations)
