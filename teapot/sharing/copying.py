"""A copy of what somebody shares, for somebody else: with nothing left of whose it was."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from teapot.accounts.models import Person
from teapot.accounts.room import room_for
from teapot.shelf import things
from teapot.shelf.kinds import kind_of


def copy_for(person: Person, thing: Any) -> Any:
    """The copy, on the shelf of that person."""
    copy = kind_of(thing).copy_for
    assert copy is not None, "it is shared"
    room_for(person, things=1)
    with transaction.atomic():
        made = copy(thing, person)
        things.say_changed(person.pk)
    return made
