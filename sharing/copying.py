"""A copy of what somebody shares, for somebody else: with nothing left of whose it was."""

from __future__ import annotations

import json
from collections.abc import Iterator
from shutil import copyfile
from typing import Any
from uuid import uuid4

from django.db import transaction

from accounts.models import Person
from console.models import Line, Sheet
from procedures.models import Procedure, ProcedureVersion
from records.data import record_data, record_from
from records.models import Record
from shelf import things
from shelf.copies import copy_of_procedure, copy_of_sheet
from shelf.models import DataTable, Version


def copy_for(person: Person, thing: Any) -> Any:
    """The copy, on the shelf of that person."""
    with transaction.atomic():
        made = COPIES[type(thing)](thing, person)
        things.say_changed(person.pk)
    return made


def _sheet(sheet: Sheet, person: Person) -> Sheet:
    """It takes along what its lines used of the shelf: without it they would not be worked out
    again."""
    made = copy_of_sheet(sheet, person)
    if sheet.owner is None or sheet.owner == person:
        return made
    lines = list(Line.objects.filter(sheet=made).exclude(draws=[]))
    drawn = json.dumps([line.draws for line in lines])
    for was, now in _taken_along(sheet.owner, drawn, person):
        drawn = drawn.replace(was, now)
    for line, draws in zip(lines, json.loads(drawn), strict=True):
        line.draws = draws
    Line.objects.bulk_update(lines, ["draws"], batch_size=500)
    return made


def _taken_along(owner: Person, drawn: str, person: Person) -> Iterator[tuple[str, str]]:
    """Copies the versions of tables and procedures whose keys stand in what was drawn; gives the
    key of each and that of its copy."""
    versions = [
        *Version.objects.filter(table__owner=owner).select_related("table").order_by("made"),
        *ProcedureVersion.objects.filter(procedure__owner=owner)
        .select_related("procedure")
        .order_by("made"),
    ]
    made: dict[Any, DataTable | Procedure] = {}
    for version in versions:
        if str(version.pk) not in drawn:
            continue
        field = "table" if isinstance(version, Version) else "procedure"
        thing = getattr(version, field)
        if thing.pk not in made:
            made[thing.pk] = type(thing)(owner=person)
            made[thing.pk].name = things.untaken(made[thing.pk], thing.name)
            made[thing.pk].save()
        was, file = str(version.pk), getattr(version, "path", None)
        version.pk = uuid4()
        setattr(version, field, made[thing.pk])
        if isinstance(version, Version):
            version.owner = person
            copyfile(file, version.path)
        version._state.adding = True
        version.save()
        yield was, str(version.pk)


def _record(record: Record, person: Person) -> Record:
    made = Record(owner=person)
    made.name = things.untaken(made, record.name)
    record_from(record_data(record), made)
    return made


COPIES = {Sheet: _sheet, Procedure: copy_of_procedure, Record: _record}
