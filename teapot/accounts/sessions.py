"""Sessions in the database, read with a statement that is compiled once, since each key does."""

from __future__ import annotations

import logging
from datetime import UTC, timedelta
from functools import lru_cache
from typing import Any

from django.contrib.sessions.backends.base import UpdateError
from django.contrib.sessions.backends.db import SessionStore as InDatabase
from django.contrib.sessions.models import Session
from django.db import DatabaseError
from django.utils import timezone

from teapot.sqlite.statements import Query

logger = logging.getLogger(__name__)

RENEWED_AFTER = timedelta(days=7)
"""A session that is used ends so much later each time that this has gone by."""

MOST_KNOWN = 1000
"""Sessions of which it is kept what they hold: each key of a person asks for it."""

_DATA = Query(
    lambda key: Session.objects.filter(session_key=key).values_list("session_data", "expire_date"),
    "the key of a session",
)


@lru_cache(MOST_KNOWN)
def _decoded(data: str) -> dict[str, Any]:
    """What a session holds, from what is written of it."""
    decoded: dict[str, Any] = SessionStore().decode(data)
    return decoded


class SessionStore(InDatabase):
    """A session of the database; ``is_renewed`` where it ends later from now on."""

    is_renewed = is_to_be_made = False

    def begin(self) -> None:
        """Gives it a key, if it has none: it is written with that in the end."""
        if self.session_key is None:
            self._session_key = self._get_new_session_key()
            self.is_to_be_made = True

    def save(self, must_create: bool = False) -> None:
        """Writes it down.  That it ends later is done another time where it cannot be written."""
        try:
            super().save(must_create or self.is_to_be_made)
            self.is_to_be_made = False
        except (DatabaseError, UpdateError):
            if not self.is_renewed:
                raise
            logger.warning("a session could not be renewed")

    def load(self) -> dict[str, Any]:
        """What it holds; nothing where it is over."""
        row = _DATA.first(self.session_key) if self.session_key else None
        now = timezone.make_naive(timezone.now(), UTC)  # as the database has it
        if row is None or row[1] <= now:
            self._session_key = None
            return {}
        longest = timedelta(seconds=self.get_session_cookie_age())
        self.modified = self.is_renewed = row[1] < now + longest - RENEWED_AFTER
        return dict(_decoded(row[0]))

    @classmethod
    def get_model_class(cls) -> type[Session]:
        """The model is that of Django."""
        return Session
