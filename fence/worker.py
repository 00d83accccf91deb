"""Inside an evaluator: sheets kept in memory, on which jobs are done.

A sheet here is a cache: it can be lost at any time and is made again from the
lines that the caller sends.
"""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass
from datetime import datetime
from typing import TypeVar

from engine import LineError, Settings, Sheet
from engine.files.shelf import File, shelf_of
from engine.limited.bounds import TimeIsUp, time_limit, too_much_memory, too_slow
from engine.numbers.context import Conventions
from engine.numbers.shelf import Procedure, Shelf
from engine.sheet.line import Drawn
from fence.jobs import Job

T = TypeVar("T")

MAX_SHEETS = 64
"""Sheets that an evaluator keeps; the one longest unused goes first."""


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it is stored; one that is ``deleted`` is to be taken away.

    ``draws`` is what was drawn for it; what has to be drawn beyond that comes from its
    ``seed``, and dates from the moment at which it was ``kept``.
    """

    number: int
    text: str
    last: int | None = None
    place: float = 0
    deleted: bool = False
    conventions: Conventions | None = None
    draws: Drawn = ()
    seed: str = ""
    kept: datetime | None = None


@dataclass(frozen=True, slots=True)
class ShelfState:
    """The tables and procedures on a person's shelf: the newest version by name, the file or
    the text of each version, and when those that are not the newest were replaced."""

    versions: tuple[tuple[str, str], ...] = ()
    files: tuple[tuple[str, File], ...] = ()
    replaced: tuple[tuple[str, str], ...] = ()
    procedures: tuple[tuple[str, str], ...] = ()
    texts: tuple[tuple[str, Procedure], ...] = ()


@dataclass(frozen=True, slots=True)
class State:
    """Which sheet is meant, at which of its revisions, and how to get there.

    ``lines`` are those that came after revision ``since``; None where the caller
    believes that the evaluator is up to date.  ``shelf_revision`` is that of the person's
    shelf, 0 where none is needed; ``shelf`` is sent as the lines are.  ``moment`` is the
    time of where the person is.
    """

    sheet: str
    revision: int
    settings: Settings
    moment: datetime
    since: int = 0
    lines: tuple[SheetLine, ...] | None = None
    shelf_revision: int = 0
    shelf: ShelfState | None = None


@dataclass(frozen=True, slots=True)
class Refused:
    """The reply to a job that what was typed does not allow."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class Behind:
    """The reply of an evaluator that has the sheet only at ``revision``, or another shelf."""

    revision: int
    lacks_shelf: bool = False


@dataclass(slots=True)
class Known:
    """A sheet in memory, and the revisions that it and its shelf have there."""

    sheet: Sheet
    revision: int = 0
    shelf_revision: int = 0


_sheets: OrderedDict[str, Known] = OrderedDict()


def work(state: State, job: Job[T]) -> T | Behind | Refused | None:
    """Does the job on the sheet in that state; :class:`Behind` where lines are missing."""
    sheet = _sheet_at(state)
    if isinstance(sheet, Behind):
        return sheet
    try:
        with time_limit(job.seconds):
            return job.do(sheet)
    except TimeIsUp:
        return job.failed(too_slow(job.seconds))
    except MemoryError:
        _sheets.clear()
        return job.failed(too_much_memory())
    except LineError as error:
        return Refused(error.code, error.text)


def _shelf_of(state: ShelfState) -> Shelf:
    return shelf_of(
        dict(state.versions),
        dict(state.files),
        dict(state.replaced),
        dict(state.procedures),
        dict(state.texts),
    )


def _sheet_at(state: State) -> Sheet | Behind:
    known = _sheets.get(state.sheet)
    if known is None or known.sheet.settings.form != state.settings.form:
        known = Known(Sheet(state.settings))
    sheet = known.sheet
    lacks_lines = known.revision != state.revision and (
        state.lines is None or state.since > known.revision
    )
    lacks_shelf = known.shelf_revision != state.shelf_revision and state.shelf is None
    if lacks_lines or lacks_shelf:
        return Behind(known.revision, lacks_shelf)
    sheet.settings = state.settings
    moment = state.moment  # alone: the sheet shall not hold the lines of its state
    sheet.now = lambda: moment
    if known.shelf_revision != state.shelf_revision and state.shelf is not None:
        sheet.set_shelf(_shelf_of(state.shelf))
        known.shelf_revision = state.shelf_revision
    if known.revision != state.revision:
        _take_lines(sheet, state.lines or ())
        known.revision = state.revision
    _sheets[state.sheet] = known
    _sheets.move_to_end(state.sheet)
    while len(_sheets) > MAX_SHEETS:
        _sheets.popitem(last=False)
    return sheet


def _take_lines(sheet: Sheet, lines: tuple[SheetLine, ...]) -> None:
    """Brings a sheet up to date."""
    for line in lines:
        if line.deleted:
            sheet.remove(line.number)
            continue
        put = sheet.put(
            line.number,
            line.text,
            line.place or line.number,
            line.last,
            line.conventions,
            line.draws,
        )
        put.draw_from(line.seed, line.kept)
