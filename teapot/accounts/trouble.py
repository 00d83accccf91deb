"""Trouble that is over by itself has a sentence: that of the storage, and too many people who are
made, or sign in, at once."""

from __future__ import annotations

import logging
from collections.abc import Callable

from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse

from teapot.accounts.guessing import TooManyTries
from teapot.accounts.guests import TooManyNewcomers
from teapot.accounts.hashing import TooManyAtOnce
from teapot.accounts.pacing import too_fast
from teapot.accounts.room import NoRoom

logger = logging.getLogger(__name__)

SENTENCES = {
    "locked": "The storage is busy: nothing was changed. Please try again.",
    "readonly": "The storage cannot be written to at the moment: nothing was changed.",
    "read-only": "The storage cannot be written to at the moment: nothing was changed.",
    "no space left": "The storage is full: nothing was changed.",
    "full": "The storage is full: nothing was changed.",
    "unable to open": "The storage cannot be reached at the moment: nothing was changed.",
    "disk i/o": "The storage does not respond: nothing was changed.",
}
"""What is said, by what stands in the error."""

MANY_SIGN_IN = "Many people are signing in at the moment. Please go back and try again."


class SayTrouble:
    """Django middleware."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """What is said to it; None where it is something else."""
        if isinstance(error, (TooManyNewcomers, TooManyTries)):
            return too_fast()
        if isinstance(error, TooManyAtOnce):
            return _said(MANY_SIGN_IN)
        if isinstance(error, NoRoom):
            return _said(error.text, 507)
        if isinstance(error, (DatabaseError, OSError)):
            return _of_storage(error)
        return None


def _of_storage(error: Exception) -> HttpResponse | None:
    text = str(error).lower()
    said = next((said for part, said in SENTENCES.items() if part in text), None)
    if said is None:
        return None
    logger.error("trouble with the storage: %s", error)
    return _said(said)


def _said(sentence: str, status: int = 503) -> HttpResponse:
    response = HttpResponse(sentence, status=status, content_type="text/plain; charset=utf-8")
    response["Retry-After"] = "2"
    return response
