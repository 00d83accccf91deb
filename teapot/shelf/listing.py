"""What lies on a person's shelf, of whichever kind, as the page of the shelf lists it."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db.models import Q

from teapot.accounts.models import Person
from teapot.shelf.kinds import KINDS, Kind
from teapot.shelf.things import name_field

USES = re.compile(r'\b(shelf|run)\("([^"]*)"')
"""Where a line names a table, or a procedure."""

USED_AS = {"shelf": "table", "run": "procedure"}


@dataclass(slots=True)
class ShelfEntry:
    """A thing on the shelf: its ``size`` in words, where it lies, and what uses it."""

    kind: str
    pk: UUID
    name: str
    folder: str
    opened: datetime
    size: str
    address: str
    binned: datetime | None = None
    used_by: list[str] = field(default_factory=list)
    found: list[Any] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class ShelfName:
    """What a thing is called, and where it is."""

    kind: str
    pk: UUID
    name: str
    folder: str
    opened: datetime


def names_of(person: Person, words: Sequence[str] = ()) -> list[ShelfName]:
    """What all that lies on the shelf is called, or what has all the ``words`` in its name,
    its folder and the word for its kind; what was opened last first."""
    found = []
    for kind in KINDS.values():
        name = name_field(kind.model)
        things = kind.model.objects.at_hand().filter(owner=person).order_by()
        for word in words:
            if word.casefold() not in kind.word:
                things = things.filter(
                    Q(**{f"{name}__icontains": word}) | Q(folder__icontains=word)
                )
        found += [
            ShelfName(kind.word, *row) for row in things.values_list("pk", name, "folder", "opened")
        ]
    return sorted(found, key=lambda one: one.opened, reverse=True)


@dataclass(slots=True)
class Folder:
    """What lies in one folder, what was opened last first."""

    name: str
    things: list[ShelfEntry]


def things_of(
    person: Person, in_bin: bool = False, only: Collection[UUID] | None = None
) -> list[ShelfEntry]:
    """All that lies on the shelf of a person, or in the bin, or ``only`` these; what was
    opened last first."""
    among = Q() if only is None else Q(pk__in=only)
    found = [
        ShelfEntry(
            kind=kind.word,
            pk=thing.pk,
            name=thing.name_shown,
            folder=thing.folder,
            opened=thing.opened,
            size=_size(kind, thing),
            address=thing.get_absolute_url(),
            binned=thing.binned,
        )
        for kind in KINDS.values()
        for thing in kind.counted(
            kind.model.objects.filter(among, owner=person, binned__isnull=not in_bin)
        )
    ]
    if not in_bin and any(KINDS[one.kind].versions for one in found):
        uses = uses_of(person)
        for one in found:
            one.used_by = uses.get((one.kind, one.name), [])
    found.sort(key=lambda one: one.opened, reverse=True)
    return found


def _size(kind: Kind, thing: Any) -> str:
    count = kind.size_of(thing)
    return f"{count:,} {kind.unit}{'' if count == 1 else 's'}"


def uses_of(person: Person) -> dict[tuple[str, str], list[str]]:
    """For each table and procedure, by kind and name, the sheets and procedures that use it."""
    uses: dict[tuple[str, str], list[str]] = defaultdict(list)
    for kind in sorted(KINDS.values(), key=lambda one: -one.rank):
        for where, text in kind.naming(person):
            for function, name in USES.findall(text):
                users = uses[USED_AS[function], name]
                if where not in users:
                    users.append(where)
    return uses


def in_folders(things: list[ShelfEntry]) -> list[Folder]:
    """The things by their folders: those at the top first, then by name."""
    by_folder: dict[str, list[ShelfEntry]] = defaultdict(list)
    for thing in things:
        by_folder[thing.folder].append(thing)
    return [Folder(name, by_folder[name]) for name in sorted(by_folder, key=str.casefold)]
