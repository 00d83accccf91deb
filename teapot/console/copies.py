"""Copies of sheets."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4

from django.db import connection
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.console.evaluating import write_over
from teapot.console.models import Line, Sheet
from teapot.shelf.version_refs import copy_of_version, drawn_as, exchanged, thing_of, versions_in


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


def copy_for(sheet: Sheet, person: Person) -> Sheet:
    """A copy for somebody else.  It takes along what its lines used of the shelf: without it they
    would not be worked out again."""
    made = copy_of_sheet(sheet, person)
    if sheet.owner is None or sheet.owner == person:
        return made
    drew = Line.objects.filter(sheet=made, draws__icontains=":")  # as what is of the shelf does
    lines = list(drew)
    drawn = (value for line in lines for values in line.draws for value in values)
    used = [one for one in versions_in(drawn) if thing_of(one).owner_id == sheet.owner_id]
    if used:
        versions = _taken_along(used, person)
        for line in lines:
            line.draws = exchanged(line.draws, versions)
        write_over(lines, ["draws"])
    return made


def _taken_along(used: list[Any], person: Person) -> dict[str, str]:
    """Copies of those versions: as what each was drawn, and its copy is."""
    made: dict[UUID, Any] = {}
    found = {}
    for version in used:
        was, thing = drawn_as(version), thing_of(version)
        if thing.pk not in made:
            made[thing.pk] = type(thing)(owner=person)
            made[thing.pk].name = made[thing.pk].untaken(thing.name)
            made[thing.pk].save()
        copy_of_version(version, made[thing.pk])
        found[was] = drawn_as(version)
    return found
