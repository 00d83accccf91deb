"""Lines that are answered one after another and printed, in this process and without limits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from pathlib import Path

from teapot.engine.errors import Asks, LineError
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.numbers.context import Conventions
from teapot.engine.numbers.shelf import ProcedureText
from teapot.engine.out.carried import without_carried
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
class WantedLine:
    """A line that is to be answered, and how that is to be printed; ``data`` are the files of
    the tables on its shelf, each with its name, and ``procedures`` those of its procedures.
    ``shown`` is the number that it is printed with, where that is another."""

    number: int
    text: str
    replies: tuple[str, ...] = ()
    json: bool = False
    workings: bool = False
    latex: bool = False
    whole: bool = False
    data: tuple[tuple[str, str], ...] = ()
    procedures: tuple[tuple[str, str], ...] = ()
    shown: int | None = None


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


def procedure_in(name: str, path: str) -> ProcedureText:
    """The lines in a file under a name; none where it cannot be read."""
    try:
        text = Path(path).read_text(encoding="utf-8-sig", errors="replace")
        return ProcedureText(name, without_carried(text))
    except OSError as error:
        return ProcedureText(name, f"# {path} cannot be read: {error.strerror}")


class PrintingSheet:
    """A sheet whose lines are printed as they are answered."""

    def __init__(self) -> None:
        self.sheet = Worksheet()

    def __enter__(self) -> PrintingSheet:
        return self

    def __exit__(self, *_: object) -> None:
        pass

    def answer(self, wanted: WantedLine) -> Printed:
        """The line's answer, printed."""
        sheet = self.sheet
        files = {name: File(path) for name, path in wanted.data}
        texts = {name: procedure_in(name, path) for name, path in wanted.procedures}
        sheet.shelf = shelf_of(
            {name: name for name in files},
            files,
            procedures={name: name for name in texts},
            texts=texts,
        )
        sheet.remove(wanted.number)
        outcome = sheet.answer(wanted.text, wanted.replies, wanted.number)
        steps: list[WorkStep] = []
        if wanted.workings and outcome.answers:
            line = sheet.by_number[outcome.number]
            steps = [step for statement in sheet.workings(line) for step in statement]
        return self._printed(outcome, printed_text(outcome, steps, wanted))

    def stopped(self, wanted: WantedLine, error: LineError) -> Printed:
        """The line as one that could not be answered for this reason."""
        self.sheet.remove(wanted.number)
        outcome = outcome_of(wanted, error)
        return self._printed(outcome, printed_text(outcome, (), wanted))

    def _printed(self, outcome: Outcome, text: str) -> Printed:
        sheet = self.sheet
        failed = outcome.status in (ERROR, UNFINISHED)
        asks = None
        if isinstance(outcome.error, Asks):
            asks = outcome.error.text, outcome.error.taken
        known = None
        if not failed and outcome.number in sheet.by_number:
            line = sheet.by_number[outcome.number]
            known = AnsweredLine(line.number, line.text, line.last, line.conventions, outcome.draws)
        return Printed(text, failed, asks, known, sheet.settings, sheet.last_answered)


def outcome_of(wanted: WantedLine, error: LineError) -> Outcome:
    """What comes of a line that could not be answered."""
    return Outcome(wanted.number, wanted.text, ERROR, error=error)


def printed_text(outcome: Outcome, steps: Sequence[WorkStep], wanted: WantedLine) -> str:
    """An outcome as it is printed."""
    outcome = replace(outcome, number=wanted.shown or outcome.number)
    return (as_json if wanted.json else as_rows)(outcome, steps, wanted.latex, wanted.whole)
