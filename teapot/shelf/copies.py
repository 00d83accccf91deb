"""A copy of anything on the shelf that is made to be changed."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from teapot.accounts.room import room_for
from teapot.shelf import things
from teapot.shelf.kinds import kind_of


def copied(thing: Any) -> Any:
    """A copy under a name of its own, in the same folder; None of a record, which stays the one
    that it is."""
    room_for(thing.owner, things=1)
    copy = kind_of(thing).copy
    if copy is None:
        return None
    with transaction.atomic():
        made = copy(thing)
        things.say_changed(thing.owner_id)
    return made
