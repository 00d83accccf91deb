"""What is done with tables: brought in, kept under a name, replaced."""

from __future__ import annotations

import csv
from collections.abc import Iterable, Sequence
from dataclasses import asdict
from datetime import timedelta
from shutil import copyfile
from uuid import uuid4

from django.conf import settings
from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.accounts.room import room_for
from teapot.engine.files.dialect import MAX_BYTES, too_large
from teapot.engine.files.preview import Guess, preview_of
from teapot.engine.sentences.tables import NOT_A_FILE
from teapot.shelf import things
from teapot.shelf.kinds import KINDS
from teapot.tables.models import DataTable, Version

LOOKED_AT_FOR = timedelta(hours=1)
"""How long a file is kept that was brought in and not kept under a name."""

MOST_TABLES = 200
MOST_VERSIONS, LOOKED_THROUGH = 20, 5
"""Versions of a table that are kept, used or not, and how many older ones are looked through each
time that there is a newer one."""


def bring_in(person: Person, file_name: str, chunks: Iterable[bytes]) -> Version:
    """Writes a file down, to be looked at.

    Errors: :data:`NOT_A_FILE` where it is too large, :class:`NoRoom`: nothing of it stays then.
    """
    forget_looked_at(person.versions.all())
    room_for(person)
    version = Version(owner=person, file_name=file_name[-200:])
    version.path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    size = 0
    try:
        with version.path.open("wb") as file:
            for chunk in chunks:
                size += len(chunk)
                if size > MAX_BYTES:
                    raise too_large()
                file.write(chunk)
    except BaseException:
        version.path.unlink(missing_ok=True)
        raise
    version.size = size
    try:
        room_for(person, size=size)
        version.save()
    except BaseException:
        version.path.unlink(missing_ok=True)
        raise
    return version


def drop(version: Version) -> None:
    """Takes a file away that was only looked at."""
    version.delete()


def forget_looked_at(versions: QuerySet[Version]) -> None:
    """Takes away what was only looked at, a while ago."""
    for version in versions.filter(table=None, made__lt=timezone.now() - LOOKED_AT_FOR):
        drop(version)


def keep(version: Version, name: str, guess: Guess, rows: int) -> DataTable:
    """Keeps a file under a name, as it is read.

    Errors: :class:`LineError` for a name that is none, or is taken.
    """
    table = DataTable(owner=version.owner)
    table.name = things.free_name(table, name)
    if DataTable.objects.at_hand().filter(owner=version.owner).count() >= MOST_TABLES:
        raise NOT_A_FILE(why=f"the shelf holds {MOST_TABLES} tables, which is the limit")
    try:
        with transaction.atomic():
            table.save()
            _take(version, table, guess, rows)
    except IntegrityError:
        raise things.NameInUse(kind="table", name=table.name) from None
    return table


def replace(version: Version, table: DataTable, guess: Guess, rows: int) -> None:
    """Makes a file the newest version of a table: what used the older one is out of date.  Of the
    older ones only those stay that are young, or that lines or runs have used."""
    _take(version, table, guess, rows)
    for old in table.versions.order_by("-made")[MOST_VERSIONS : MOST_VERSIONS + LOOKED_THROUGH]:
        if not _is_used(old):
            drop(old)


def append(version: Version, table: DataTable, rows: Sequence[Sequence[str]]) -> None:
    """Makes the newest version of a table one with more rows: all of them, below their heads, take
    the place of the file that was brought in."""
    with version.path.open("w", encoding="utf-8", newline="") as file:
        csv.writer(file).writerows(rows)
    version.size = version.path.stat().st_size
    before = table.newest.guess
    guess = Guess(",", ".", has_head=True, columns=before.columns, marks=before.marks)
    replace(version, table, guess, len(rows) - 1)


def _is_used(version: Version) -> bool:
    drawn = str(version.pk)
    return any(kind.has_drawn(version.owner, drawn) for kind in KINDS.values())


def _take(version: Version, table: DataTable, guess: Guess, rows: int) -> None:
    version.table = table
    version.separator, version.point = guess.separator, guess.point
    version.has_head, version.marks = guess.has_head, guess.marks
    version.encoding, version.sheet = guess.encoding, guess.sheet
    version.above, version.below = guess.above, guess.below
    version.has_units, version.month_first = guess.has_units, guess.month_first
    version.columns = [asdict(column) for column in guess.columns]
    version.rows = rows
    version.made = timezone.now()
    with transaction.atomic():
        version.save()
        things.say_changed(table.owner_id)


def load_sample_tables() -> list[DataTable]:
    """Puts the invented tables of the demo where new copies are taken from."""
    made = []
    for file in sorted((settings.ROOT / "teapot" / "console" / "sample_tables").glob("*.csv")):
        known = DataTable.objects.filter(owner=None, name=file.stem, binned=None).first()
        if known is not None and known.newest.path.read_bytes() == file.read_bytes():
            made.append(known)  # sheets that were copied have its version
            continue
        if known is not None:
            things.put_into_bin(known)
        made.append(_kept_as_it_is(None, file.stem, file.name, file.read_bytes()))
    return made


def copy_tables(person: Person) -> None:
    """Gives a person a copy of each table of the demo."""
    for sample in DataTable.objects.filter(owner=None, binned=None):
        if not person.tables.filter(name=sample.name, binned=None).exists():
            newest = sample.newest
            data = newest.path.read_bytes()
            made = _kept_as_it_is(person, sample.name, newest.file_name, data)
            DataTable.objects.filter(pk=made.pk).update(folder="measurements")


def _kept_as_it_is(owner: Person | None, name: str, file_name: str, data: bytes) -> DataTable:
    found = preview_of(data)  # of the demo: nothing that a person brought
    version = Version(owner=owner, file_name=file_name, size=len(data))
    version.path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    version.path.write_bytes(data)
    version.save()
    return keep(version, name, found.guess, found.rows)


def copy_of_version(version: Version, table: DataTable) -> None:
    """Makes a version once more, the newest one of another table; it is that from then on."""
    before = version.path
    version.pk, version.table, version.owner = uuid4(), table, table.owner
    copyfile(before, version.path)
    version._state.adding = True
    version.save()
