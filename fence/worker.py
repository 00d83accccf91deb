"""Inside an evaluator: sheets kept in memory, and the jobs done on them.

A sheet here is a cache: it can be lost at any time and is made again from the
lines that the caller sends.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from engine import LineError, Outcome, Settings, Sheet
from engine.aids.dial import angle_from, dial_of
from engine.aids.pictures import shown_in, workings_of
from engine.aids.typing import typed_so_far
from engine.errors import NoQuantity
from engine.limited.bounds import TimeIsUp, time_limit, too_much_memory, too_slow
from engine.numbers.context import Conventions
from engine.reading.rows import lines_in
from engine.sheet import editing
from engine.sheet.dependence import again_for, lines_out_of_date
from engine.sheet.line import Drawn, NewLine
from engine.sheet.outcome import ERROR
from engine.sheet.quantities import list_quantities
from engine.sheet.settings import after

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
class Refused:
    """The reply to a job that what was typed does not allow."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class Behind:
    """The reply of an evaluator that has the sheet only at ``revision``."""

    revision: int


_sheets: OrderedDict[str, tuple[int, Sheet]] = OrderedDict()


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
    except LineError as error:
        return Refused(error.code, error.text)


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


def _answer(
    sheet: Sheet,
    number: int,
    text: str,
    last: int | None,
    place: float | None = None,
    conventions: Conventions | None = None,
    replies: Sequence[str] = (),
    draws: Drawn = (),
) -> Any:
    """What a line would answer, at the foot of the sheet or at a place."""
    return sheet.preview(
        text, last, number, place, conventions, may_draw=True, replies=replies, draws=draws
    ).for_page()


def _answers(
    sheet: Sheet, lines: list[NewLine], last: int | None, conventions: Conventions
) -> list[Any]:
    """What lines would answer that are kept one after another: of as many as there is
    time for, up to the first that is refused."""
    found = []
    try:
        for outcome in sheet.preview_several(lines, last, conventions):
            found.append(outcome.for_page())
    except TimeIsUp:
        pass
    return found


def _typed(sheet: Sheet, **arguments: Any) -> Any:
    """What is shown while a line is typed."""
    return typed_so_far(sheet, **arguments)


def _rows(sheet: Sheet, text: str) -> list[str]:
    """The lines that are pasted at once."""
    return lines_in(text)


def _outcomes(sheet: Sheet, numbers: list[int]) -> dict[int, Any]:
    """The outcomes of lines that the sheet has: of as many as there is time for."""
    found: dict[int, Any] = {}
    try:
        for number in numbers:
            line = sheet.by_number.get(number)
            if line is not None:
                found[number] = sheet.outcome_of(line).for_page()
    except TimeIsUp:
        pass
    return found


def _whole_answer(sheet: Sheet, number: int, place: int) -> dict[str, Any] | None:
    """An answer of a line with all its text and cells, of which the line keeps the head."""
    line = sheet.by_number.get(number)
    answers = sheet.outcome_of(line).answers if line is not None else ()
    if place >= len(answers):
        return None
    return {"text": answers[place].text, "cells": answers[place].cells()}


def _latex(sheet: Sheet, number: int) -> list[str]:
    """The answers of a line as LaTeX."""
    line = sheet.by_number.get(number)
    return [] if line is None else [one.latex for one in sheet.outcome_of(line).answers]


def _quantities(sheet: Sheet) -> Any:
    """The quantities as they are at the foot of the sheet."""
    quantities, left_out = list_quantities(sheet)
    listed = [quantity.as_dict() for quantity in quantities]
    return {
        "quantities": listed,
        "left_out": left_out,
        "out_of_date": [asdict(one) for one in lines_out_of_date(sheet.dependence())],
    }


def _workings(sheet: Sheet, number: int) -> Any:
    """The workings of a line, with the pictures that stand among them."""
    return workings_of(sheet, sheet.by_number[number])


def _picture(sheet: Sheet, number: int, name: str) -> Any:
    """What the pictures of that name show of a line."""
    return shown_in(sheet, sheet.by_number[number], name)


def _dial(sheet: Sheet, count: str, unit: str) -> Any:
    """What the dial shows of an angle."""
    return {"dial": dial_of(angle_from(count, unit)), "point": None}


def _again(sheet: Sheet, number: int | None) -> list[str]:
    """The lines that compute a line again, or all that is out of date."""
    return again_for(sheet.dependence(), number)


def _with_form(sheet: Sheet, text: str, form: str) -> str:
    """A line with a form behind its expressions."""
    return editing.with_form(text, form)


def _with_value(sheet: Sheet, name: str, value: str) -> tuple[int, str]:
    """The number and the new text of the line that gives ``name`` its value, with
    another value."""
    step = sheet.definitions.seen(name)
    if step is None:
        raise NoQuantity(name=name)
    return step.line.number, editing.with_value(step.line.text, name, value)


def _renamed(sheet: Sheet, old: str, new: str) -> dict[int, str]:
    """The lines in which a quantity is named, with its new name."""
    return editing.renamed_throughout(sheet, old, new)


def _settings_after(sheet: Sheet, command: str, argument: str) -> Settings:
    """The settings of the sheet after ``/show FORM`` and its like."""
    return after(sheet.settings, command, argument)


JOBS: dict[str, Callable[..., Any]] = {
    "dial": _dial,
    "picture": _picture,
    "answer": _answer,
    "answers": _answers,
    "typed": _typed,
    "rows": _rows,
    "outcomes": _outcomes,
    "whole_answer": _whole_answer,
    "latex": _latex,
    "quantities": _quantities,
    "again": _again,
    "with_form": _with_form,
    "with_value": _with_value,
    "renamed": _renamed,
    "settings_after": _settings_after,
    "workings": _workings,
}
