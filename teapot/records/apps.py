"""Records as a part of the project."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db import connection
from django.db.models.signals import post_migrate

from teapot.sqlite import words

STAYS = """
CREATE TRIGGER IF NOT EXISTS records_event_stays BEFORE UPDATE ON records_event
BEGIN SELECT RAISE(ABORT, 'what is in a record never changes'); END
"""


def see_that_events_stay(**_: Any) -> None:
    """What is in a record never changes: SQLite itself sees to it."""
    with connection.cursor() as cursor:
        if "records_event" in connection.introspection.table_names(cursor):
            cursor.execute(STAYS)


class RecordsConfig(AppConfig):
    """Registers records as a kind of thing on the shelf, keeps the index of their words, and sees
    to their events after every migration."""

    name = "teapot.records"

    def ready(self) -> None:
        from teapot.records import kind  # noqa: F401 - it registers itself

        words.keep(words.Index("event_words", "records_event", ("text", "said")), self)
        post_migrate.connect(see_that_events_stay, sender=self)
