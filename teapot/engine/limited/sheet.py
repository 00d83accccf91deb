"""A sheet in a process of its own: each line has the limits that the page has."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from teapot.engine.errors import Asks, LineError
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.limited.bounds import (
    LINE_SECONDS,
    LOAD_SECONDS,
    TimeIsUp,
    starved,
    time_limit,
    too_much_memory,
    too_slow,
    unforeseen,
)
from teapot.engine.limited.child import Broke, Child, Failed, Interrupted, Late, Slow
from teapot.engine.numbers.context import Conventions
from teapot.engine.printed import as_json, as_rows
from teapot.engine.sheet.line import Drawn
from teapot.engine.sheet.outcome import ERROR, UNFINISHED, Outcome
from teapot.engine.sheet.settings import Settings
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import WorkStep


@dataclass(frozen=True, slots=True)
class AnsweredLine:
    """A line that was answered, as another process needs it to go on from there."""

    number: int
    text: str
    last: int | None
    conventions: Conventions
    draws: Drawn


@dataclass(frozen=True, slots=True)
class LinesBefore:
    """What a process has to know of the lines before the one at hand."""

    lines: tuple[AnsweredLine, ...]
    settings: Settings
    last_answered: int | None


@dataclass(frozen=True, slots=True)
class WantedLine:
    """A line that is to be answered, and how that is to be printed; ``data`` are the files of
    the tables on its shelf, each with its name."""

    number: int
    text: str
    replies: tuple[str, ...] = ()
    json: bool = False
    workings: bool = False
    latex: bool = False
    whole: bool = False
    data: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Printed:
    """What is printed for a line.

    ``asks`` is its question, if it waits for a reply, with how many it has taken;
    ``known`` is the line where it was answered.
    """

    text: str
    failed: bool
    asks: tuple[str, int] | None = None
    known: AnsweredLine | None = None
    settings: Settings = field(default_factory=Settings)
    last_answered: int | None = None


class LimitedSheet:
    """Lines answered one after another, each within the limits."""

    def __init__(self) -> None:
        self._child = Child("teapot.engine.limited.sheet:answer_in_process")
        self._lines: list[AnsweredLine] = []
        self._settings = Settings()
        self._last_answered: int | None = None
        self._is_lost = False

    def __enter__(self) -> LimitedSheet:
        return self

    def __exit__(self, *_: object) -> None:
        self._child.stop()

    def answer(self, wanted: WantedLine) -> Printed:
        """The line's answer, printed; the error where it goes beyond a limit."""
        try:
            try:
                printed = self._printed(wanted)
            except Interrupted:
                self._is_lost = True
                printed = self._printed(wanted)
        except Slow:
            return self._refused(wanted, too_slow(LINE_SECONDS))
        except Late:
            return self._refused(wanted, starved(LINE_SECONDS))
        except Broke:
            return self._refused(wanted, too_much_memory())
        except (Interrupted, Failed):
            return self._refused(wanted, unforeseen())
        self._is_lost = False
        if printed.known is not None:
            self._lines.append(printed.known)
        self._settings, self._last_answered = printed.settings, printed.last_answered
        return printed

    def _printed(self, wanted: WantedLine) -> Printed:
        """What the process prints; a new one is told of the lines before."""
        before = None
        if self._is_lost:
            before = LinesBefore(tuple(self._lines), self._settings, self._last_answered)
        seconds = LINE_SECONDS + (LOAD_SECONDS if before else 0)
        printed: Printed = self._child.once(seconds, wanted, before)
        return printed

    def _refused(self, wanted: WantedLine, error: LineError) -> Printed:
        self._is_lost = True
        return Printed(_print(_error(wanted, error), (), wanted), failed=True)


def _error(wanted: WantedLine, error: LineError) -> Outcome:
    return Outcome(wanted.number, wanted.text, ERROR, error=error)


def _print(outcome: Outcome, steps: Sequence[WorkStep], wanted: WantedLine) -> str:
    return (as_json if wanted.json else as_rows)(outcome, steps, wanted.latex, wanted.whole)


# -- inside the process ----------------------------------------------------------------

_sheet = Worksheet()


def answer_in_process(wanted: WantedLine, before: LinesBefore | None) -> Printed:
    """Answers the line in this process; where it is a new one, after taking up what was
    ``before``."""
    if before is not None:
        _take_up(before)
    files = {name: File(path) for name, path in wanted.data}
    _sheet.shelf = shelf_of({name: name for name in files}, files)
    _sheet.remove(wanted.number)
    steps: list[WorkStep] = []
    try:
        with time_limit(LINE_SECONDS):
            outcome = _sheet.answer(wanted.text, wanted.replies, wanted.number)
            if wanted.workings and outcome.answers:
                line = _sheet.by_number[outcome.number]
                steps = [step for statement in _sheet.workings(line) for step in statement]
            text = _print(outcome, steps, wanted)
    except TimeIsUp as up:
        outcome = _stopped(wanted, up.error(LINE_SECONDS))
        text = _print(outcome, (), wanted)
    except MemoryError:
        outcome = _stopped(wanted, too_much_memory())
        text = _print(outcome, (), wanted)
    failed = outcome.status in (ERROR, UNFINISHED)
    asks = None
    if isinstance(outcome.error, Asks):
        asks = outcome.error.text, outcome.error.taken
    known = None
    if not failed and outcome.number in _sheet.by_number:
        line = _sheet.by_number[outcome.number]
        known = AnsweredLine(line.number, line.text, line.last, line.conventions, outcome.draws)
    return Printed(text, failed, asks, known, _sheet.settings, _sheet.last_answered)


def _stopped(wanted: WantedLine, error: LineError) -> Outcome:
    _sheet.remove(wanted.number)
    return _error(wanted, error)


def _take_up(before: LinesBefore) -> None:
    _sheet.settings = before.settings
    _sheet.last_answered = before.last_answered
    for line in before.lines:
        _sheet.put(line.number, line.text, line.number, line.last, line.conventions, line.draws)
