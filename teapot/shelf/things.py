"""What can be done with anything on the shelf: named, moved, put into the bin, brought back."""

from __future__ import annotations

from datetime import timedelta
from typing import Any, TypeVar

from django.db import IntegrityError, models, transaction
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.engine.errors import LineError, Problem
from teapot.shelf.items import LONGEST_FOLDER, LONGEST_NAME, OnShelf, UsedByName
from teapot.sqlite import words

KEPT_IN_BIN = timedelta(days=30)
"""How long what was put into the bin can be brought back."""

Thing = TypeVar("Thing", bound=OnShelf)


NAME_IN_USE = Problem("name-taken", "There is already a {kind} named {name}.")
NAME_WANTED = Problem("name-wanted", "Please give it a name, without quotation marks or braces.")


class NameInUse(LineError):
    """Another thing of the kind has the name."""

    def __init__(self, kind: str, name: str) -> None:
        super().__init__(NAME_IN_USE, kind=kind, name=name)


def name_field(thing: Any) -> str:
    """The field that its name stands in: a sheet has a title."""
    return "title" if hasattr(thing, "title") else "name"


def printable(text: str) -> str:
    """A text on one line without characters that cannot be seen."""
    return " ".join("".join(c for c in text if c.isprintable() or c.isspace()).split())


def cleaned(name: str) -> str:
    """A name as it is kept.  Errors: :data:`NAME_WANTED` where there is nothing left of it."""
    name = printable(name)[:LONGEST_NAME]
    if not name or set(name) & set('"{}'):
        raise NAME_WANTED()
    return name


def free_name(thing: Any, name: str) -> str:
    """A name that a thing can have.

    Errors: :class:`LineError` for one that is none, or that another of its kind has.
    """
    name = cleaned(name)
    if name_field(thing) == "title":
        return name
    if thing.is_taken(name):
        raise NameInUse(kind=thing.word, name=name)
    return name


def rename(thing: Any, name: str) -> None:
    """Gives it another name.  Errors: as :func:`free_name`."""
    fields: dict[str, Any] = {name_field(thing): free_name(thing, name)}
    if isinstance(thing, UsedByName):
        fields["former_names"] = thing.names_after(fields["name"])
    _save(thing, fields)


def move(thing: Any, folder: str) -> None:
    """Puts it into a folder; the top of the shelf where that is empty."""
    _save(thing, {"folder": folder_from(folder)})


def folder_from(typed: str) -> str:
    """A folder as it is kept: names with ``/`` between them, none of them empty or dots."""
    names = ("".join(c for c in part if c.isprintable()).strip() for part in typed.split("/"))
    found = "/".join(name for name in names if name and name.strip("."))
    return found[:LONGEST_FOLDER].rstrip("/")


def put_into_bin(thing: Any) -> None:
    """Takes it off the shelf; :func:`bring_back` undoes it."""
    _save(thing, {"binned": timezone.now()})


def bring_back(thing: Any) -> None:
    """Takes it out of the bin.  Errors: :class:`NameInUse` where its name is taken by now."""
    _save(thing, {"binned": None, name_field(thing): free_name(thing, str(thing.name_shown))})


def empty_bin(kinds: tuple[type[models.Model], ...], owner: Person) -> None:
    """Deletes for good what has been in a person's bin for longer than :data:`KEPT_IN_BIN`."""
    counts = [
        kind.objects.filter(owner=owner, binned__lt=timezone.now() - KEPT_IN_BIN).delete()[0]
        for kind in kinds
    ]
    if any(counts):
        words.forget_deleted()


def _save(thing: Any, fields: dict[str, Any]) -> None:
    """Errors: :class:`NameInUse` where another window was faster."""
    before = {name: getattr(thing, name) for name in fields}
    for name, value in fields.items():
        setattr(thing, name, value)
    try:
        with transaction.atomic():
            thing.save(update_fields=list(fields))
            say_changed(thing.owner_id)
    except IntegrityError:
        for name, value in before.items():
            setattr(thing, name, value)
        raise NameInUse(kind=thing.word, name=fields.get("name", thing.name_shown)) from None


def say_changed(owner: Any) -> None:
    """Lets evaluators know that the shelf of a person is not the one that they have."""
    person = Person.objects.filter(pk=owner)
    person.update(shelf_revision=models.F("shelf_revision") + 1)
