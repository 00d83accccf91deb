"""Records as a part of the project."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db import connection
from django.db.models.signals import post_migrate

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
    """Sees to the events after every migration."""

    name = "teapot.records"

    def ready(self) -> None:
        post_migrate.connect(see_that_events_stay, sender=self)
