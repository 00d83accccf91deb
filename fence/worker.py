"""Inside an evaluator: sheets kept in memory, and the jobs done on them.

A sheet here is a cache: it can be lost at any time and is made again from the
lines that the caller sends.
"""

from __future__ import annotations

import sys
from collections import OrderedDict
from dataclasses import dataclass, field
from typing import Any

from engine import LineError, Outcome, Settings, Sheet
from engine.limits import MAX_RECURSION
from engine.sheet.outcome import ERROR
from fence.limits import TimeIsUp, limit_memory, time_limit, too_much_memory, too_slow

MAX_SHEETS = 64
"""Sheets that an evaluator keeps; the one longest unused goes first."""


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it is stored."""

    number: int
    text: str
    last: int | None


@dataclass(frozen=True, slots=True)
class State:
    """Which sheet is meant, at which of its revisions, and how to get there.

    ``lines`` are those that came after revision ``since``; None where the caller
    believes that the evaluator is up to date.
    """

    sheet: str
    revision: int
    settings: Settings
    since: int = 0
    lines: tuple[SheetLine, ...] | None = None


@dataclass(frozen=True, slots=True)
class Job:
    """``kind`` is the name of a function in :data:`JOBS`, ``arguments`` its own."""

    kind: str
    seconds: float
    arguments: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Behind:
    """The reply of an evaluator that has the sheet only at ``revision``."""

    revision: int


_sheets: OrderedDict[str, tuple[int, Sheet]] = OrderedDict()


def start() -> None:
    """Prepares a new evaluator process."""
    limit_memory()
    sys.setrecursionlimit(MAX_RECURSION)


def work(state: State, job: Job) -> Any:
    """Does the job on the sheet in that state; :class:`Behind` where lines are missing."""
    sheet = _sheet_at(state)
    if isinstance(sheet, Behind):
        return sheet
    try:
        with time_limit(job.seconds):
            return JOBS[job.kind](sheet, **job.arguments)
    except TimeIsUp:
        return failed(job, too_slow(job.seconds))
    except MemoryError:
        _sheets.clear()
        return failed(job, too_much_memory())


def failed(job: Job, error: LineError) -> Any:
    """What a job gives when it could not be done at all."""
    if job.kind == "answer":
        number, text = job.arguments["number"], job.arguments["text"]
        return Outcome(number, text, ERROR, error=error).for_page()
    return None


def _sheet_at(state: State) -> Sheet | Behind:
    revision, sheet = _sheets.get(state.sheet, (0, None))
    if sheet is None or sheet.settings != state.settings:
        revision, sheet = 0, Sheet(state.settings)
    if revision != state.revision:
        if state.lines is None or state.since > revision:
            return Behind(revision)
        for line in state.lines:
            if line.number not in sheet.by_number:
                sheet.append(line.text, line.number, line.last)
    _sheets[state.sheet] = (state.revision, sheet)
    _sheets.move_to_end(state.sheet)
    while len(_sheets) > MAX_SHEETS:
        _sheets.popitem(last=False)
    return sheet


def _answer(sheet: Sheet, number: int, text: str, last: int | None) -> Any:
    """What a line at the foot of the sheet would answer."""
    return sheet.preview(text, last, number).for_page()


def _outcomes(sheet: Sheet, numbers: list[int]) -> dict[int, Any]:
    """The outcomes of lines that the sheet has."""
    return {n: sheet.outcome_of(sheet.by_number[n]).for_page() for n in numbers}


def _quantities(sheet: Sheet) -> Any:
    """The quantities as they are at the foot of the sheet."""
    return [quantity.as_dict() for quantity in sheet.quantities()]


JOBS = {"answer": _answer, "outcomes": _outcomes, "quantities": _quantities}
