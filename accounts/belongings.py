"""What somebody has, whatever it is: all that points to them as its owner."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import QuerySet

from accounts.models import Person

OWNER = "owner"

MOST = 70
"""Characters of a name that a number is put behind."""


def _of(person: Person) -> Iterator[QuerySet[Any]]:
    for relation in Person._meta.related_objects:
        if relation.field.name == OWNER:
            yield relation.related_model._base_manager.filter(owner=person)


def has_any(person: Person) -> bool:
    """Whether somebody has anything, be it in the bin."""
    return any(things.exists() for things in _of(person))


def take_along(guest: Person, person: Person) -> None:
    """Gives all that a guest has to a person with an account.  A name that is taken there gets a
    number behind it."""
    with transaction.atomic():
        for things in _of(guest):
            for thing in things:
                _give(thing, person)
        newest = max(guest.shelf_revision, person.shelf_revision) + 1
        Person.objects.filter(pk=person.pk).update(shelf_revision=newest)
        guest.delete()


def _give(thing: Any, person: Person) -> None:
    mine = type(thing)._base_manager.filter(pk=thing.pk)
    name, number = getattr(thing, "name", ""), 1
    while True:
        try:
            with transaction.atomic():
                mine.update(
                    owner=person, **({} if number == 1 else {"name": f"{name[:MOST]}_{number}"})
                )
        except IntegrityError:
            if not name:
                raise
            number += 1
        else:
            return
