"""What somebody has, whatever it is: all that points to them as its owner."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import QuerySet

from accounts.models import Person
from shelf.things import untaken, word_for

OWNER = "owner"


def _of(person: Person) -> Iterator[QuerySet[Any]]:
    for relation in Person._meta.related_objects:
        if relation.field.name == OWNER:
            yield relation.related_model._base_manager.filter(owner=person)


def has_any(person: Person) -> bool:
    """Whether somebody has anything, be it in the bin."""
    return any(things.exists() for things in _of(person))


@dataclass(frozen=True, slots=True)
class Renamed:
    """A thing of a ``kind`` that was called so ``before`` somebody else had it."""

    kind: str
    before: str
    now: str


def take_along(guest: Person, person: Person) -> list[Renamed]:
    """Gives all that a guest has to a person with an account.  A name that is taken there gets a
    number behind it: those are what is returned."""
    renamed = []
    with transaction.atomic():
        for things in _of(guest):
            for thing in things:
                before = getattr(thing, "name", "")
                now = _give(thing, person)
                if now != before:
                    renamed.append(Renamed(word_for(thing), before, now))
        newest = max(guest.shelf_revision, person.shelf_revision) + 1
        Person.objects.filter(pk=person.pk).update(shelf_revision=newest)
        guest.delete()
    return renamed


def _give(thing: Any, person: Person) -> str:
    """Its name there; empty where it has none."""
    fields: dict[str, Any] = {"owner": person}
    if hasattr(thing, "name"):
        thing.owner = person
        fields["name"] = untaken(thing, thing.name)
    type(thing)._base_manager.filter(pk=thing.pk).update(**fields)
    return str(fields.get("name", ""))
