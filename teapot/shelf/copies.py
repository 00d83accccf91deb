"""A copy of anything on the shelf that is made to be changed."""

from __future__ import annotations

from shutil import copyfile
from typing import Any
from uuid import uuid4

from django.db import connection, transaction
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.accounts.room import room_for
from teapot.console.models import Line, Sheet
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.shelf import things
from teapot.shelf.models import DataTable, Version


def copied(thing: Any) -> Any:
    """A copy under a name of its own, in the same folder; None of a record, which stays the one
    that it is."""
    room_for(thing.owner, things=1)
    with transaction.atomic():
        for kind, copy in COPIES.items():
            if isinstance(thing, kind):
                made = copy(thing)
                things.say_changed(thing.owner_id)
                return made
    return None


def copy_of_sheet(sheet: Sheet, person: Person | None = None) -> Sheet:
    """Its lines with their numbers, draws and settings, for its owner or for another ``person``;
    what was undone is left behind."""
    made = Sheet.objects.get(pk=sheet.pk)
    made.pk, made.title = uuid4(), f"{sheet.title[:110]} copy"
    made.opened, made.recording = timezone.now(), None
    if person is not None:
        made.owner, made.folder, made.title = person, "", sheet.title
    made._state.adding = True
    made.save()
    _copy_lines(sheet, made, keeps_runs=person is None)
    return made


OTHERWISE = {"id": "NULL", "sheet_id": "%(made)s", "token": "lower(hex(randomblob(16)))"}
"""What a copy of a line has that the line has not."""


def _copy_lines(sheet: Sheet, made: Sheet, keeps_runs: bool) -> None:
    """In one statement, however many there are."""
    otherwise = OTHERWISE if keeps_runs else OTHERWISE | {"run_id": "NULL"}
    columns = [field.column for field in Line._meta.concrete_fields]
    values = ", ".join(otherwise.get(column, column) for column in columns)
    names = ", ".join(columns)
    statement = (
        f"INSERT INTO console_line ({names}) SELECT {values} FROM console_line"  # noqa: S608
        " WHERE sheet_id = %(sheet)s ORDER BY id"
    )
    with connection.cursor() as cursor:
        cursor.execute(statement, {"made": made.pk.hex, "sheet": sheet.pk.hex})


def copy_of_procedure(procedure: Procedure, person: Person | None = None) -> Procedure:
    """Its newest version, for its owner or for another ``person``."""
    made = Procedure(owner=person or procedure.owner)
    if person is None:
        made.folder = procedure.folder
    made.name = things.untaken(made, procedure.name if person else f"{procedure.name} copy")
    made.save()
    copy_of_version(procedure.newest, made)
    return made


def copy_of_table(table: DataTable) -> DataTable:
    """Its newest version, under a name of its own."""
    made = DataTable(owner=table.owner, folder=table.folder)
    made.name = things.untaken(made, f"{table.name} copy")
    made.save()
    copy_of_version(table.newest, made)
    return made


def copy_of_version(version: Version | ProcedureVersion, thing: DataTable | Procedure) -> None:
    """Makes a version once more, the newest one of another ``thing``; it is that from then on."""
    if isinstance(version, Version):
        before = version.path
        version.pk, version.table, version.owner = uuid4(), thing, thing.owner
        copyfile(before, version.path)
    else:
        version.pk, version.procedure = uuid4(), thing
    version._state.adding = True
    version.save()


COPIES = {Sheet: copy_of_sheet, Procedure: copy_of_procedure, DataTable: copy_of_table}
