"""What somebody has, whatever it is: all that points to them as its owner."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.db import transaction
from django.db.models import QuerySet

from accounts.models import Person
from shelf.things import untaken

OWNER = "owner"


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
    fields: dict[str, Any] = {"owner": person}
    if hasattr(thing, "name"):
        thing.owner = person
        fields["name"] = untaken(thing, thing.name)
    type(thing)._base_manager.filter(pk=thing.pk).update(**fields)
