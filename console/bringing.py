"""Sheets that come in: a file becomes a sheet with the same lines, draws and numbers."""

from __future__ import annotations

import time
from collections.abc import Mapping
from dataclasses import dataclass
from uuid import UUID

from django.db import transaction

from accounts.models import Person
from console import evaluating
from console.models import Line, Sheet
from engine.errors import LineError
from engine.numbers.shelf import OF_PROCEDURE, PREFIX
from engine.out.document import Document, LineOut
from engine.out.reading import NotASheet, document_from
from procedures.models import ProcedureVersion, Run
from shelf.drawn import drawn_as, exchanged
from shelf.models import Version
from shelf.moments import moment_from

MOST_BYTES = 20 * 1024 * 1024
SECONDS = 2.0
"""How long lines are worked out while a sheet comes in: the others are when they are looked
at."""

MOST_TOLD = 20
"""Lines that are named where they cannot be read."""


@dataclass(frozen=True, slots=True)
class Brought:
    """What came of a file: the ``sheet``; or, where lines cannot be answered, each with its
    number, text and the reason, and nothing is kept."""

    sheet: Sheet | None
    wrong: list[tuple[int, str, str]]


class Undone(Exception):
    """Nothing of it is to be kept."""


def document_in(data: bytes, name: str) -> Document:
    """The document in a file.  Errors: :class:`NotASheet` with the place and the reason."""
    if len(data) > MOST_BYTES:
        raise NotASheet(why=f"it has more than {MOST_BYTES // 1024**2} megabytes")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise NotASheet(why=f"it is not in UTF-8 (at byte {error.start:,})") from None
    return document_from(text, name.rpartition(".")[0] or name)


def bring_in(person: Person, document: Document, anyway: bool = False) -> Brought:
    """Makes a sheet of a document.

    Where lines have errors nothing is kept, unless they come in ``anyway``: as notes then.
    """
    wrong: list[tuple[int, str, str]] = []
    try:
        with transaction.atomic():
            sheet = made_of(person, document)
            wrong = _answered(sheet, document)
            if wrong and not anyway:
                raise Undone
            if wrong:
                _make_notes(sheet, {number for number, _, _ in wrong})
    except Undone:
        return Brought(None, wrong[:MOST_TOLD])
    return Brought(sheet, wrong[:MOST_TOLD])


def made_of(
    person: Person,
    document: Document,
    folder: str = "",
    known: Mapping[str, str] | None = None,
    runs: Mapping[str, Run] | None = None,
) -> Sheet:
    """A sheet with the lines of a document, which are not worked out yet; ``known`` are the
    versions here of those that were drawn there, ``runs`` those that lines came with."""
    sheet = Sheet.objects.create(
        owner=person,
        title=document.title,
        form=document.form,
        folder=folder,
        revision=1,
        **document.conventions,
    )
    versions = {**_versions_here(person, document.versions), **(known or {})}
    lines, last = [], None
    for place, one in enumerate(document.lines, 1):
        lines.append(_line(sheet, one, place, last, versions))
        lines[-1].run = (runs or {}).get(one.run)
        last = one.number
    Line.objects.bulk_create(lines)
    return sheet


def _line(
    sheet: Sheet, one: LineOut, place: int, last: int | None, versions: Mapping[str, str]
) -> Line:
    return Line(
        sheet=sheet,
        number=one.number,
        place=place,
        text=one.text,
        last=one.last if one.last is not None else last,
        draws=exchanged(one.draws, versions),
        revision=1,
        outcome={"error": None, "answers": [], "notices": [], "note": "", "status": "ok"},
        stale=True,
        kept=moment_from(one.kept),
        **one.conventions,
    )


def _versions_here(person: Person, versions: Mapping[str, str]) -> dict[str, str]:
    """For the versions that were drawn elsewhere, those of the same names here."""
    found: dict[str, str] = {}
    for key, name in versions.items():
        try:
            UUID(key)
        except ValueError:
            continue
        table = person.tables.at_hand().filter(name=name).first()
        if table is not None and not Version.objects.filter(pk=key, table__owner=person).exists():
            found[PREFIX + key] = drawn_as(table.newest)
        mine = ProcedureVersion.objects.filter(pk=key, procedure__owner=person)
        procedure = person.procedures.at_hand().filter(name=name).first()
        if procedure is not None and not mine.exists():
            found[OF_PROCEDURE + key] = drawn_as(procedure.newest)
    return found


def _answered(sheet: Sheet, document: Document) -> list[tuple[int, str, str]]:
    """Works the lines out; those that have an error which they had not where they come from."""
    had_one = {line.number for line in document.lines if line.said}
    lines = list(sheet.lines.order_by("place"))
    wrong = []
    end = time.monotonic() + SECONDS
    for start in range(0, len(lines), evaluating.AT_ONCE):
        if time.monotonic() > end:
            break
        some = lines[start : start + evaluating.AT_ONCE]
        try:
            evaluating.refresh(sheet, some)
        except LineError as error:
            raise NotASheet(why=error.text) from None
        for line in some:
            if line.outcome.get("error") and line.number not in had_one:
                wrong.append((line.number, line.text, line.outcome["error"]["text"]))
    return wrong


def _make_notes(sheet: Sheet, numbers: set[int]) -> None:
    lines = list(sheet.lines.filter(number__in=numbers))
    for line in lines:
        line.text = "# " + line.text.replace("\n", " ")
        line.stale, line.revision = True, 2
    evaluating.write_over(lines, ["text", "stale", "revision"])
    sheet.revision = 2
    sheet.save(update_fields=["revision"])
    evaluating.refresh(sheet, lines)
