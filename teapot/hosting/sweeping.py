"""What processes that were killed left behind: removed at the start, and daily what is old."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from pathlib import Path

from django.conf import settings

from teapot.accounts.belongings import clear
from teapot.accounts.models import Person
from teapot.shelf.importing import INTERRUPTED
from teapot.shelf.models import Arrival
from teapot.tables.models import Version
from teapot.tables.services import LOOKED_AT_FOR, forget_looked_at

NOTHING = timedelta(0)
"""The age of what may go at the start, when nothing else runs yet."""


def sweep(now: datetime, age: timedelta = LOOKED_AT_FOR) -> int:
    """Removes what is at least so old and nobody will use; how many files and people that were.

    It is: what stood for somebody while a zip came in, zips that wait to be settled, uploads that
    were not finished, files of tables that no version names, and files that were looked at.
    """
    before = now - age
    stages = Person.objects.filter(stands_for__isnull=False, created__lte=before)
    count = 0
    for stage in stages:
        clear(stage)
        count += 1
    under_way = Arrival.objects.filter(outcome__isnull=True, touched__lte=before)
    under_way.update(outcome={"error": INTERRUPTED})
    forget_looked_at(Version.objects.all())
    for file in _left_over(before):
        file.unlink(missing_ok=True)
        count += 1
    return count


def _left_over(before: datetime) -> Iterator[Path]:
    named = {str(key) for key in Version.objects.values_list("pk", flat=True)}
    for folder in ("tables", "held", "uploads"):
        for file in (settings.DATA / folder).glob("*"):
            is_used = folder == "tables" and file.name in named
            if not is_used and file.is_file() and file.stat().st_mtime <= before.timestamp():
                yield file
