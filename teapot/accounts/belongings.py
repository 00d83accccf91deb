"""What somebody has, whatever it is: all that points to them as its owner."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import QuerySet

from teapot.accounts.models import Person

OWNER = "owner"


def _of(person: Person) -> Iterator[QuerySet[Any]]:
    for relation in Person._meta.related_objects:
        if relation.field.name == OWNER:
            yield relation.related_model._base_manager.filter(owner=person)


def has_any(person: Person) -> bool:
    """Whether somebody has anything, be it in the bin."""
    return any(things.exists() for things in _of(person))


@dataclass(frozen=True, slots=True)
class RenamedThing:
    """A thing of a ``kind`` that was called so ``before`` somebody else had it."""

    kind: str
    before: str
    now: str


def take_along(guest: Person, person: Person) -> list[RenamedThing]:
    """Gives all that a guest has to a person with an account.  A name that is taken there gets a
    number after it: those are what is returned."""
    with transaction.atomic():
        renamed = [one for things in _of(guest) for one in _give(things, person)]
        newest = max(guest.shelf_revision, person.shelf_revision) + 1
        Person.objects.filter(pk=person.pk).update(shelf_revision=newest)
        guest.delete()
    return renamed


def _give(things: QuerySet[Any], person: Person) -> Iterator[RenamedThing]:
    """Makes things a person's; those that are called otherwise then, which come last, so that none
    gets the name of another."""
    clashing: list[Any] = []
    if any(field.name == "name" for field in things.model._meta.fields):
        taken = things.model.objects.at_hand().filter(owner=person).values("name")
        clashing = list(things.filter(binned=None, name__in=taken))
    things.exclude(pk__in=[thing.pk for thing in clashing]).update(owner=person)
    for thing in clashing:
        before, thing.owner = thing.name, person
        now = thing.untaken(before)
        things.filter(pk=thing.pk).update(name=now, owner=person)
        yield RenamedThing(thing.word, before, now)


@contextmanager
def staged(person: Person) -> Iterator[tuple[Person, list[RenamedThing]]]:
    """Somebody who has what comes in for a ``person`` until it is complete: in the end it is that
    person's, all at once, and nothing is where something went wrong.  What is called otherwise
    then is put into the list.

    So it may be written in many short transactions, and others write between.
    """
    stage = Person.objects.create(stands_for=person)
    renamed: list[RenamedThing] = []
    try:
        yield stage, renamed
        renamed += take_along(stage, person)
    except BaseException:
        clear(stage)
        raise


def clear(stage: Person) -> None:
    """Removes somebody with all that they have, one thing after another."""
    for things in _of(stage):
        for key in list(things.values_list("pk", flat=True)):
            things.filter(pk=key).delete()
    Person.objects.filter(pk=stage.pk).delete()
