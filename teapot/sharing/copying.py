"""A copy of what somebody shares, for somebody else: with nothing left of whose it was."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from teapot.accounts.models import Person
from teapot.accounts.room import room_for
from teapot.console.evaluating import write_over
from teapot.console.models import Line, Sheet
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.records.data import record_data, record_from
from teapot.records.models import Record
from teapot.shelf import things
from teapot.shelf.copies import copy_of_procedure, copy_of_sheet, copy_of_version
from teapot.shelf.models import DataTable, Version
from teapot.shelf.version_refs import drawn_as, exchanged, thing_of, versions_in


def copy_for(person: Person, thing: Any) -> Any:
    """The copy, on the shelf of that person."""
    room_for(person, things=1)
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


def _taken_along(used: list[Version | ProcedureVersion], person: Person) -> dict[str, str]:
    """Copies of those versions: as what each was drawn, and its copy is."""
    made: dict[UUID, DataTable | Procedure] = {}
    found = {}
    for version in used:
        was, thing = drawn_as(version), thing_of(version)
        if thing.pk not in made:
            made[thing.pk] = type(thing)(owner=person)
            made[thing.pk].name = things.untaken(made[thing.pk], thing.name)
            made[thing.pk].save()
        copy_of_version(version, made[thing.pk])
        found[was] = drawn_as(version)
    return found


def _record(record: Record, person: Person) -> Record:
    made = Record(owner=person)
    made.name = things.untaken(made, record.name)
    record_from(record_data(record), made)
    return made


COPIES = {Sheet: _sheet, Procedure: copy_of_procedure, Record: _record}
