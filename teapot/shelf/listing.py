"""What lies on a person's shelf, of whichever kind, as the page of the shelf lists it."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import connection
from django.db.models import Count, OuterRef, Q, QuerySet, Subquery
from django.db.models.functions import Coalesce

from teapot.accounts.models import Person
from teapot.console.models import Line, Sheet
from teapot.procedures.models import Procedure, ProcedureVersion
from teapot.records.models import Event, Record
from teapot.shelf.models import DataTable, Version

KINDS: dict[str, type[Sheet] | type[Procedure] | type[DataTable] | type[Record]] = {
    "sheet": Sheet,
    "procedure": Procedure,
    "table": DataTable,
    "record": Record,
}
"""Each kind of thing by its word."""

USES = re.compile(r'\b(shelf|run)\("([^"]*)"')
"""Where a line names a table, or a procedure."""

USERS = """
    SELECT sheet.title, line.text
      FROM line_words
      JOIN console_line AS line ON line.id = line_words.rowid
      JOIN console_sheet AS sheet ON sheet.id = line.sheet_id
     WHERE line_words MATCH 'text: shelf OR text: run' AND sheet.owner_id = %s
       AND sheet.binned IS NULL AND NOT line.deleted
     ORDER BY sheet.id, line.place
"""
"""Lines that may name a table or a procedure."""

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
    for kind, model in KINDS.items():
        name = "title" if kind == "sheet" else "name"
        things = model.objects.at_hand().filter(owner=person).order_by()
        for word in words:
            if word.casefold() not in kind:
                things = things.filter(
                    Q(**{f"{name}__icontains": word}) | Q(folder__icontains=word)
                )
        found += [
            ShelfName(kind, *row) for row in things.values_list("pk", name, "folder", "opened")
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
            kind=kind,
            pk=thing.pk,
            name=thing.name_shown,
            folder=thing.folder,
            opened=thing.opened,
            size=_size(kind, thing),
            address=thing.get_absolute_url(),
            binned=thing.binned,
        )
        for kind in KINDS
        for thing in _counted(kind).filter(among, owner=person, binned__isnull=not in_bin)
    ]
    if not in_bin and any(one.kind in ("table", "procedure") for one in found):
        uses = uses_of(person)
        for one in found:
            one.used_by = uses.get((one.kind, one.name), [])
    found.sort(key=lambda one: one.opened, reverse=True)
    return found


def _counted(kind: str) -> QuerySet[Any]:
    """The things of a kind, each with what its size is said by."""
    things = KINDS[kind].objects.all()
    if kind == "sheet":
        lines = Line.objects.present().filter(sheet=OuterRef("pk")).order_by()
        counted = lines.values("sheet").annotate(n=Count("pk")).values("n")
        return things.annotate(many=Coalesce(Subquery(counted), 0))
    if kind == "procedure":
        newest = ProcedureVersion.objects.filter(procedure=OuterRef("pk")).order_by("-made")
        return things.annotate(text=Subquery(newest.values("text")[:1]))
    if kind == "table":
        versions = Version.objects.filter(table=OuterRef("pk")).order_by("-made")
        return things.annotate(many=Subquery(versions.values("rows")[:1]))
    events = Event.objects.filter(record=OuterRef("pk")).order_by()
    counted = events.values("record").annotate(n=Count("pk")).values("n")
    return things.annotate(many=Coalesce(Subquery(counted), 0))


def _size(kind: str, thing: Any) -> str:
    count = len((thing.text or "").splitlines()) if kind == "procedure" else thing.many or 0
    unit = {"sheet": "line", "procedure": "line", "table": "row", "record": "event"}[kind]
    return f"{count:,} {unit}{'' if count == 1 else 's'}"


def uses_of(person: Person) -> dict[tuple[str, str], list[str]]:
    """For each table and procedure, by kind and name, the sheets and procedures that use it."""
    named = Q(text__contains='shelf("') | Q(text__contains='run("')
    with connection.cursor() as cursor:
        cursor.execute(USERS, [person.pk.hex])
        texts = cursor.fetchall()
    texts += newest_texts(person).filter(named).values_list("procedure__name", "text")
    uses: dict[tuple[str, str], list[str]] = defaultdict(list)
    for where, text in texts:
        for function, name in USES.findall(text):
            users = uses[USED_AS[function], name]
            if where not in users:
                users.append(where)
    return uses


def newest_texts(person: Person) -> QuerySet[ProcedureVersion]:
    """The newest version of each procedure on the shelf of a person."""
    of_same = ProcedureVersion.objects.filter(procedure=OuterRef("procedure")).order_by("-made")
    return ProcedureVersion.objects.filter(
        procedure__owner=person, procedure__binned=None, pk=Subquery(of_same.values("pk")[:1])
    )


def in_folders(things: list[ShelfEntry]) -> list[Folder]:
    """The things by their folders: those at the top first, then by name."""
    by_folder: dict[str, list[ShelfEntry]] = defaultdict(list)
    for thing in things:
        by_folder[thing.folder].append(thing)
    return [Folder(name, by_folder[name]) for name in sorted(by_folder, key=str.casefold)]
