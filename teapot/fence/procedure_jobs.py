"""The jobs that are done on procedures: read line by line, asked, run, run over a range."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import ClassVar, cast

from teapot.engine import FullSheet, LineError
from teapot.engine.aids.scatter import Scatter, scatter_of
from teapot.engine.aids.typing import SoFar, typed_so_far
from teapot.engine.errors import Asks
from teapot.engine.forms.answer import write
from teapot.engine.forms.written import Written
from teapot.engine.limited.bounds import PREVIEW_SECONDS, Stopped, TimeIsUp, stopped
from teapot.engine.mends import Span
from teapot.engine.numbers.shelf import ProcedureText
from teapot.engine.numbers.values import Angle, Exact, List, Measure, Real, Value
from teapot.engine.parsing.rows import lines_in
from teapot.engine.sentences.procedures import WANTS_LIST
from teapot.engine.sheet import running
from teapot.engine.sheet.evaluation import value_alone
from teapot.engine.sheet.line import Drawn
from teapot.engine.sheet.outcome import ERROR, UNFINISHED, Outcome
from teapot.engine.sheet.running import Asked, questions_of, replies_by_line, settings_of, values_of
from teapot.engine.sheet.shown import KeptOutcome, ShownError
from teapot.fence.jobs import Job

MOST_OF_RANGE = 400
"""Runs for one range."""


def empty_for(procedure: ProcedureText, sheet: FullSheet) -> FullSheet:
    """A sheet for its lines, with the shelf and the clock of another."""
    inner = FullSheet(settings_of(procedure))
    inner.circle, inner.now = (procedure.name,), sheet.now
    inner.set_shelf(sheet.shelf)
    return inner


@dataclass(frozen=True, slots=True, kw_only=True)
class TypedInProcedure(Job[SoFar]):
    """What is shown of the row that the caret is in, while a procedure is typed; places are
    those in the whole text."""

    gives_way: ClassVar[bool] = True
    seconds: float = PREVIEW_SECONDS
    procedure: ProcedureText
    caret: int

    def do(self, sheet: FullSheet) -> SoFar:
        text = self.procedure.text
        start = text.rfind("\n", 0, self.caret) + 1
        end = text.find("\n", self.caret)
        row = text[start : len(text) if end < 0 else end]
        inner = empty_for(self.procedure, sheet)
        before = replace(self.procedure, text=text[:start])
        for _ in running.run(inner, before, {}, stops=False):
            pass
        found = typed_so_far(inner, row, inner.last_answered, caret=self.caret - start)
        return _moved_on(found, start, text)

    def failed(self, error: LineError) -> SoFar:
        text = self.procedure.text
        return SoFar(input=text, status=ERROR, error=ShownError.of(error, text))


def _moved_on(found: SoFar, by: int, text: str) -> SoFar:
    """The same of a row that begins so far into a text."""

    def on(spans: tuple[Span, ...]) -> tuple[Span, ...]:
        return tuple(Span(start + by, end + by) for start, end in spans)

    completions = tuple(
        replace(one, start=one.start + by, end=one.end + by) for one in found.completions
    )
    return replace(
        found,
        input=text,
        operands=on(found.operands),
        brackets=on(found.brackets),
        parts=on(found.parts),
        completions=completions,
        error=None if found.error is None else replace(found.error, mends=()),
        notices=tuple(replace(one, mends=()) for one in found.notices),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadThrough(Job[list[KeptOutcome]]):
    """Each line of a procedure as it reads, with the values that it suggests: of as many as
    there is time for."""

    seconds: float = 2
    procedure: ProcedureText

    def do(self, sheet: FullSheet) -> list[KeptOutcome]:
        found: list[KeptOutcome] = []
        try:
            lines = running.run(empty_for(self.procedure, sheet), self.procedure, {}, stops=False)
            for outcome in lines:
                found.append(outcome.kept())
        except TimeIsUp:
            pass
        return found


@dataclass(frozen=True, slots=True, kw_only=True)
class Questions(Job[list[Asked]]):
    """What a procedure asks."""

    procedure: ProcedureText

    def do(self, sheet: FullSheet) -> list[Asked]:
        return questions_of(self.procedure)


@dataclass(frozen=True, slots=True, kw_only=True)
class LinesToRun(Job[list[tuple[str, tuple[str, ...]]]]):
    """The lines of a procedure, each with the replies to what it asks: as they were typed, and
    what is suggested for the others."""

    procedure: ProcedureText
    replies: tuple[tuple[str, str], ...]

    def do(self, sheet: FullSheet) -> list[tuple[str, tuple[str, ...]]]:
        return replies_by_line(self.procedure, dict(self.replies))


@dataclass(frozen=True, slots=True)
class Ran:
    """What came of a run: the outcomes of its lines with what was drawn and replied for each,
    up to the one that it ``stopped`` at, if it did, and the ``first`` that is shown; or which
    question was ``wrong``, its ``key`` and why, and nothing was run."""

    outcomes: list[KeptOutcome]
    draws: list[Drawn] = field(default_factory=list)
    stopped: int | None = None
    first: int = 1
    wrong: str = ""
    key: str = ""
    why: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class RunThrough(Job[Ran]):
    """A run with replies as they were typed: of all lines, or of those between two places in
    the text that were ``chosen``; those before them are worked out too, since their quantities
    are used."""

    procedure: ProcedureText
    replies: tuple[tuple[str, str], ...]
    chosen: tuple[int, int] | None = None

    def do(self, sheet: FullSheet) -> Ran:
        replies = dict(self.replies)
        outcomes: list[Outcome] = []
        why = ""
        try:
            values_of(self.procedure, replies)
            inner = empty_for(self.procedure, sheet)
            for text, typed in replies_by_line(self.procedure, replies)[: self._chosen()[1]]:
                outcomes.append(inner.answer(text, typed))
                if outcomes[-1].status in (ERROR, UNFINISHED):
                    break
        except Asks as error:
            return Ran([], wrong=error.question, key=error.key, why=error.said)
        except Stopped:
            why = stopped().text
        last = outcomes[-1] if outcomes else None
        if last is not None and isinstance(last.error, Asks):
            question = last.error.question
            asked = [one for one in questions_of(self.procedure) if one.line == len(outcomes)]
            key = next((one.key for one in asked if one.question == question), question)
            return Ran([], wrong=question, key=key, why=last.error.said or "A value is missing.")
        is_at_error = last is not None and last.status in (ERROR, UNFINISHED)
        return Ran(
            [outcome.kept() for outcome in outcomes],
            [outcome.draws for outcome in outcomes],
            len(outcomes) if is_at_error else None,
            first=self._chosen()[0],
            why=why,
        )

    def _chosen(self) -> tuple[int, int | None]:
        """The numbers of the first line that is shown and of the last that is run."""
        if self.chosen is None:
            return 1, None
        first, last = (_line_at(self.procedure.text, place) for place in self.chosen)
        return first, last

    def failed(self, error: LineError) -> Ran:
        return Ran([], stopped=0, why=error.text)


def _line_at(text: str, place: int) -> int:
    """The number of the line at a place in a text of lines."""
    end = text.find("\n", place)
    return max(1, len(lines_in(text[: len(text) if end < 0 else end])))


@dataclass(frozen=True, slots=True)
class RanOver:
    """What came of a run for each value of one input: rows of the input and the output, the
    name of that, and a curve where both are real numbers."""

    output: str
    rows: list[tuple[str, str]]
    curve: Scatter | None


@dataclass(frozen=True, slots=True, kw_only=True)
class RunOver(Job[RanOver]):
    """Runs for each value of a list that one input goes over; the others as they were typed."""

    procedure: ProcedureText
    replies: tuple[tuple[str, str], ...]
    over: str
    values: str

    def do(self, sheet: FullSheet) -> RanOver:
        values = values_of(self.procedure, {k: v for k, v in self.replies if k != self.over})
        found = value_alone(self.values)
        if not isinstance(found, List):
            raise WANTS_LIST()
        rows: list[tuple[Value, Value]] = []
        output = ""
        for one in found.items[:MOST_OF_RANGE]:
            inner = empty_for(self.procedure, sheet)
            outcome = None
            for outcome in running.run(inner, self.procedure, {**values, self.over: one}):
                if outcome.error is not None:
                    raise outcome.error
            steps = [line.final_step for line in reversed(inner.lines)]
            last = next(step for step in steps if step is not None and step.value is not None)
            output = _called(outcome)
            rows.append((one, cast(Value, last.value)))
        form = settings_of(self.procedure).form
        texts = [(_text(write(x, form)), _text(write(y, form))) for x, y in rows]
        return RanOver(output, texts, _curve(rows, self.over, output))


def _called(outcome: Outcome | None) -> str:
    answers = outcome.answers if outcome is not None else ()
    return (answers[-1].name or answers[-1].reading) if answers else ""


def _text(written: Written) -> str:
    return (written.nearly or written).text


def _curve(rows: list[tuple[Value, Value]], across: str, up: str) -> Scatter | None:
    if not all(isinstance(one, Exact | Real | Measure | Angle) for row in rows for one in row):
        return None
    made = scatter_of([x for x, _ in rows], [y for _, y in rows], across, up)
    return None if made is None else replace(made, line=None)
