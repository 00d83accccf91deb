"""Sheets that come in: a file becomes a sheet with the same lines, draws and numbers."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any

from teapot.accounts.belongings import staged
from teapot.accounts.models import Person
from teapot.accounts.room import room_for
from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.engine.numbers.context import Conventions
from teapot.engine.out.document import Document, LineOut
from teapot.engine.out.reading import NotASheet, document_from
from teapot.engine.reading.forms import form_from
from teapot.engine.sheet.settings import Settings
from teapot.shelf.arriving import MOST_BYTES
from teapot.shelf.moments import moment_from
from teapot.shelf.version_refs import exchanged, versions_here

MOST_TRIED = 5_000
"""Lines that are worked out before a sheet comes in: the others are when they are looked at."""

MOST_TOLD = 20
"""Lines that are named where they cannot be read."""

AT_ONCE = 500
"""Lines that are written in one go, while others wait."""

UNANSWERED = {"error": None, "answers": [], "notices": [], "note": "", "status": "ok"}


@dataclass(frozen=True, slots=True)
class Brought:
    """What came of a file: the ``sheet``; or, where lines cannot be answered, each with its
    number, text and the reason, and nothing is kept."""

    sheet: Sheet | None
    wrong: list[tuple[int, str, str]]


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

    Where lines have errors nothing is kept, unless they come in ``anyway``: as notes then.  Lines
    are worked out before anything is written.
    """
    lines = lines_of(document, versions_here(person, document.versions))
    wrong = _answered(person, document, lines)
    if wrong and not anyway:
        return Brought(None, wrong[:MOST_TOLD])
    room_for(person, things=1, lines=len(lines))
    _make_notes(lines, {number for number, _, _ in wrong})
    with staged(person) as (stage, _):
        sheet = sheet_of(stage, document)
        for write in writing(sheet, lines):
            write()
    return Brought(Sheet.objects.get(pk=sheet.pk), wrong[:MOST_TOLD])


def sheet_of(owner: Person, document: Document, folder: str = "") -> Sheet:
    """The sheet of a document, with no lines yet, which is not written."""
    return Sheet(
        owner=owner,
        title=document.title,
        form=document.form,
        folder=folder,
        revision=1,
        **document.conventions,
    )


def writing(sheet: Sheet, lines: Sequence[Line]) -> Iterator[Callable[[], object]]:
    """What has to be done, one after another, so that the sheet and its lines are written; each is
    done soon."""
    yield sheet.save
    for start in range(0, len(lines), AT_ONCE):
        some = lines[start : start + AT_ONCE]
        for line in some:
            line.sheet = sheet
        yield partial(Line.objects.bulk_create, some)


def lines_of(
    document: Document, versions: Mapping[str, str], runs: Mapping[str, Any] | None = None
) -> list[Line]:
    """The lines of a document, of no sheet yet and not worked out; ``versions`` are those here of
    what was drawn there, ``runs`` those that lines came with."""
    lines, last = [], None
    for place, one in enumerate(document.lines, 1):
        line = _line(one, place, last, versions)
        line.run = (runs or {}).get(one.run)
        lines.append(line)
        last = one.number
    return lines


def _line(one: LineOut, place: int, last: int | None, versions: Mapping[str, str]) -> Line:
    return Line(
        number=one.number,
        place=place,
        text=one.text,
        last=one.last if one.last is not None else last,
        draws=exchanged(one.draws, versions),
        revision=1,
        outcome=UNANSWERED,
        stale=True,
        kept=moment_from(one.kept),
        **one.conventions,
    )


def _answered(
    person: Person, document: Document, lines: Sequence[Line]
) -> list[tuple[int, str, str]]:
    """Works the lines out; those that have an error which they had not where they come from."""
    had_one = {line.number for line in document.lines if line.said}
    outcomes = evaluating.tried(person, _settings(document), lines[:MOST_TRIED])
    wrong = []
    for line in lines:
        outcome = outcomes.get(line.number)
        if outcome is None:
            continue
        line.take(outcome, 1)
        if outcome.error is not None and line.number not in had_one:
            wrong.append((line.number, line.text, outcome.error.text))
    return wrong


def _settings(document: Document) -> Settings:
    return Settings(form=form_from(document.form), conventions=Conventions(**document.conventions))


def _make_notes(lines: Sequence[Line], numbers: set[int]) -> None:
    for line in lines:
        if line.number in numbers:
            line.text = "# " + line.text.replace("\n", " ")
            line.outcome, line.stale = UNANSWERED, True
