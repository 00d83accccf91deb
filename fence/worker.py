"""Inside an evaluator: sheets kept in memory, and the jobs done on them.

A sheet here is a cache: it can be lost at any time and is made again from the
lines that the caller sends.
"""

from __future__ import annotations

import sys
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from engine import LineError, Outcome, Settings, Sheet
from engine.aids.dial import angle_from, angle_in, dial_of
from engine.aids.number_line import number_lines_in
from engine.aids.typing import typed_so_far
from engine.limits import MAX_RECURSION
from engine.numbers.context import Conventions
from engine.reading.plain import statement_text
from engine.reading.rows import lines_in
from engine.sheet.machine import bits_of
from engine.sheet.outcome import ERROR
from engine.sheet.quantities import list_quantities
from engine.sheet.sheet import Drawn
from engine.sheet.workings import box_of
from fence.limits import TimeIsUp, limit_memory, time_limit, too_much_memory, too_slow

MAX_SHEETS = 64
"""Sheets that an evaluator keeps; the one longest unused goes first."""


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it is stored; one that is ``deleted`` is to be taken away."""

    number: int
    text: str
    last: int | None = None
    place: float = 0
    deleted: bool = False
    conventions: Conventions | None = None
    given: Drawn = ()


@dataclass(frozen=True, slots=True)
class State:
    """Which sheet is meant, at which of its revisions, and how to get there.

    ``lines`` are those that came after revision ``since``; None where the caller
    believes that the evaluator is up to date.  ``moment`` is the time of where the
    person is.
    """

    sheet: str
    revision: int
    settings: Settings
    moment: datetime
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
    if job.kind not in ("answer", "typed"):
        return None
    number, text = job.arguments["number"], job.arguments["text"]
    return Outcome(number, text, ERROR, error=error).for_page()


def _sheet_at(state: State) -> Sheet | Behind:
    revision, sheet = _sheets.get(state.sheet, (0, None))
    if sheet is None or sheet.settings.form != state.settings.form:
        revision, sheet = 0, Sheet(state.settings)
    sheet.settings = state.settings
    moment = state.moment  # alone: the sheet shall not hold the lines of its state
    sheet.now = lambda: moment
    if revision != state.revision:
        if state.lines is None or state.since > revision:
            return Behind(revision)
        for line in state.lines:
            if line.deleted:
                sheet.remove(line.number)
            else:
                sheet.put(
                    line.number,
                    line.text,
                    line.place or line.number,
                    line.last,
                    line.conventions,
                    line.given,
                )
    _sheets[state.sheet] = (state.revision, sheet)
    _sheets.move_to_end(state.sheet)
    while len(_sheets) > MAX_SHEETS:
        _sheets.popitem(last=False)
    return sheet


def _answer(
    sheet: Sheet,
    number: int,
    text: str,
    last: int | None,
    place: float | None = None,
    conventions: Conventions | None = None,
    replies: Sequence[str] = (),
    given: Drawn = (),
) -> Any:
    """What a line would answer, at the foot of the sheet or at a place."""
    return sheet.preview(
        text, last, number, place, conventions, may_draw=True, replies=replies, given=given
    ).for_page()


def _typed(sheet: Sheet, **arguments: Any) -> Any:
    """What is shown while a line is typed."""
    return typed_so_far(sheet, **arguments)


def _rows(sheet: Sheet, text: str) -> list[str]:
    """The lines that are pasted at once."""
    return lines_in(text)


def _outcomes(sheet: Sheet, numbers: list[int]) -> dict[int, Any]:
    """The outcomes of lines that the sheet has."""
    known = (sheet.by_number[number] for number in numbers if number in sheet.by_number)
    return {line.number: sheet.outcome_of(line).for_page() for line in known}


def _quantities(sheet: Sheet) -> Any:
    """The quantities as they are at the foot of the sheet."""
    quantities, left_out = list_quantities(sheet)
    listed = [quantity.as_dict() for quantity in quantities]
    return {"quantities": listed, "left_out": left_out}


def _names(sheet: Sheet) -> dict[str, int]:
    """The names of the quantities at the foot, each with its line."""
    return {name: step.line.number for name, step in sheet.definitions.current()}


def _workings(sheet: Sheet, number: int) -> Any:
    """The workings of a line: for each statement its steps, boxes and bits."""
    line = sheet.by_number[number]
    page = []
    for step, made in zip(line.steps, sheet.traced(line), strict=False):
        box = box_of(made)
        bits = bits_of(sheet, step)
        page.append(
            {
                "reading": statement_text(step.statement),
                "steps": [work.for_page() for work in made.steps()],
                "box": box.as_dict() if box else None,
                "number_lines": [asdict(one) for one in number_lines_in(made)],
                "bits": bits,
            }
        )
    return page


def _dial(sheet: Sheet, number: int | None, count: str, unit: str) -> Any:
    """What the dial shows: of an angle, or of the one in a line."""
    if number is None:
        return {"dial": dial_of(angle_from(count, unit)), "point": None}
    found = angle_in(sheet, sheet.by_number[number])
    if found is None:
        return None
    angle, point = found
    return {"dial": dial_of(angle), "point": point}


JOBS = {
    "dial": _dial,
    "answer": _answer,
    "typed": _typed,
    "rows": _rows,
    "outcomes": _outcomes,
    "quantities": _quantities,
    "names": _names,
    "workings": _workings,
}
