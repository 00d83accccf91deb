"""A copy of what somebody shares, for somebody else: with nothing left of whose it was."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from accounts.models import Person
from console.models import Sheet
from procedures.models import Procedure
from records.data import record_data, record_from
from records.models import Record
from shelf import things
from shelf.copies import copy_of_procedure, copy_of_sheet


def copy_for(person: Person, thing: Any) -> Any:
    """The copy, on the shelf of that person."""
    with transaction.atomic():
        made = COPIES[type(thing)](thing, person)
        things.say_changed(person.pk)
    return made


def _record(record: Record, person: Person) -> Record:
    made = Record(owner=person)
    made.name = things.untaken(made, record.name)
    record_from(record_data(record), made)
    return made


COPIES = {Sheet: copy_of_sheet, Procedure: copy_of_procedure, Record: _record}
