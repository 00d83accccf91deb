"""A sheet in a process of its own: each line has the limits that the page has."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.errors import LineError
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
from teapot.engine.printing_sheet import (
    AnsweredLine,
    Printed,
    PrintingSheet,
    WantedLine,
    outcome_of,
    printed_text,
)
from teapot.engine.sheet.settings import Settings


@dataclass(frozen=True, slots=True)
class LinesBefore:
    """What a process has to know of the lines before the one at hand."""

    lines: tuple[AnsweredLine, ...]
    settings: Settings
    last_answered: int | None


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
        return Printed(printed_text(outcome_of(wanted, error), (), wanted), failed=True)


# -- inside the process ----------------------------------------------------------------

_here = PrintingSheet()


def answer_in_process(wanted: WantedLine, before: LinesBefore | None) -> Printed:
    """Answers the line in this process; where it is a new one, after taking up what was
    ``before``."""
    if before is not None:
        _take_up(before)
    try:
        with time_limit(LINE_SECONDS):
            return _here.answer(wanted)
    except TimeIsUp as up:
        return _here.stopped(wanted, up.error(LINE_SECONDS))
    except MemoryError:
        return _here.stopped(wanted, too_much_memory())


def _take_up(before: LinesBefore) -> None:
    _here.sheet.settings = before.settings
    _here.sheet.last_answered = before.last_answered
    for line in before.lines:
        _here.sheet.put(
            line.number, line.text, line.number, line.last, line.conventions, line.draws
        )
