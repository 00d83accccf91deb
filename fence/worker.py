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
from engine.numbers.shelf import Shelf
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
    """The tables on a person's shelf: the newest version by name, the file of each version,
    and when those that are not the newest were replaced."""

    versions: tuple[tuple[str, str], ...]
    files: tuple[tuple[str, File], ...]
    replaced: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class State:
    """Which sheet is meant, at which of its revisions, and how to get there.

    ``lines`` are those that came after revision ``since``; None where the caller
    believes that the evaluator is up to date.  ``moment`` is the time of where the
    person is; ``shelf`` has the tables that can be used.
    """

    sheet: str
    revision: int
    settings: Settings
    moment: datetime
    since: int = 0
    lines: tuple[SheetLine, ...] | None = None
    shelf: ShelfState | None = None


@dataclass(frozen=True, slots=True)
class Refused:
    """The reply to a job that what was typed does not allow."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class Behind:
    """The reply of an evaluator that has the sheet only at ``revision``."""

    revision: int


_sheets: OrderedDict[str, tuple[int, Sheet]] = OrderedDict()


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


def _shelf_of(state: ShelfState | None) -> Shelf:
    if state is None:
        return Shelf()
    return shelf_of(dict(state.versions), dict(state.files), dict(state.replaced))


def _sheet_at(state: State) -> Sheet | Behind:
    revision, sheet = _sheets.get(state.sheet, (0, None))
    if sheet is None or sheet.settings.form != state.settings.form:
        revision, sheet = 0, Sheet(state.settings)
    sheet.settings = state.settings
    moment = state.moment  # alone: the sheet shall not hold the lines of its state
    sheet.now = lambda: moment
    sheet.set_shelf(_shelf_of(state.shelf))
    if revision != state.revision:
        if state.lines is None or state.since > revision:
            return Behind(revision)
        for line in state.lines:
            if line.deleted:
                sheet.remove(line.number)
            else:
                put = sheet.put(
                    line.number,
                    line.text,
                    line.place or line.number,
                    line.last,
                    line.conventions,
                    line.draws,
                )
                put.draw_from(line.seed, line.kept)
    _sheets[state.sheet] = (state.revision, sheet)
    _sheets.move_to_end(state.sheet)
    while len(_sheets) > MAX_SHEETS:
        _sheets.popitem(last=False)
    return sheet
