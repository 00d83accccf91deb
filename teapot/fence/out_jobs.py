"""The job that makes what a sheet's stored answers lack when it goes out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from teapot.engine import FullSheet
from teapot.engine.aids import graph
from teapot.engine.analysis.graphs import Drawn as DrawnGraph
from teapot.engine.limited.bounds import TimeIsUp
from teapot.engine.numbers.shelf import ProcedureText
from teapot.engine.out.document import StepOut
from teapot.engine.out.svg_export import as_svg
from teapot.engine.sheet.dependence import OutOfDate, lines_out_of_date
from teapot.engine.sheet.line import Drawn, WorksheetLine
from teapot.engine.sheet.quantities import Quantity, quantities_of_lines
from teapot.engine.sheet.running import questions_of, replies_by_line
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence.jobs import Job
from teapot.fence.procedure_jobs import empty_for


@dataclass(frozen=True, slots=True)
class MoreOfLine:
    """The answers of a line as LaTeX, the steps of its working, and the graphs that it draws."""

    latex: tuple[str, ...]
    steps: tuple[StepOut, ...]
    graphs: tuple[DrawnGraph, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MoreOfLines(Job[dict[int, MoreOfLine]]):
    """The LaTeX of lines, and their workings where they are wanted: of as many as there is
    time for."""

    numbers: Sequence[int]
    latex: bool = False
    workings: bool = False

    def do(self, sheet: FullSheet) -> dict[int, MoreOfLine]:
        found: dict[int, MoreOfLine] = {}
        try:
            for number in self.numbers:
                line = sheet.by_number.get(number)
                if line is None:
                    continue
                found[number] = _more_of(sheet, line, self.latex, self.workings)
        except TimeIsUp:
            pass
        return found


def _more_of(sheet: FullSheet, line: WorksheetLine, latex: bool, workings: bool) -> MoreOfLine:
    outcome = sheet.outcome_of(line)
    steps = sheet.workings(line) if workings and outcome.error is None else []
    return MoreOfLine(
        tuple(one.latex for one in outcome.answers) if latex else (),
        tuple(
            StepOut(mathml=one.mathml, input=one.input, sign=one.sign, text=one.text)
            for statement in steps
            for one in statement
        ),
        tuple(one for step in line.steps if graph.is_of(step) for one in graph.shown(step)),
    )


@dataclass(frozen=True, slots=True)
class LineOfRun:
    """A line of a procedure as it was run, with what it ``asks`` and what was drawn and replied
    for it."""

    text: str
    asks: str
    draws: Drawn
    outcome: KeptOutcome
    more: MoreOfLine


@dataclass(frozen=True, slots=True, kw_only=True)
class LinesOfRun(Job[list[LineOfRun]]):
    """The lines of a procedure with what was ``drawn`` for them; where nothing was yet, with what
    they suggest."""

    procedure: ProcedureText
    drawn: Sequence[Drawn] = ()
    latex: bool = False
    workings: bool = False

    def do(self, sheet: FullSheet) -> list[LineOfRun]:
        inner = empty_for(self.procedure, sheet)
        found: list[LineOfRun] = []
        asked = {one.line: one.question for one in questions_of(self.procedure)}
        try:
            for at, (text, replies) in enumerate(replies_by_line(self.procedure, {})):
                if self.drawn and at >= len(self.drawn):
                    break
                line = inner.append(text, last=inner.last_answered)
                line.hear(replies)
                line.give(self.drawn[at] if self.drawn else ())
                outcome = inner.outcome_of(line)
                if outcome.answers:
                    inner.last_answered = line.number
                more = _more_of(inner, line, self.latex, self.workings)
                asks = asked.get(at + 1, "")
                if asks:  # a reply has no working
                    more = MoreOfLine(more.latex, (), more.graphs)
                found.append(LineOfRun(text, asks, outcome.draws, outcome.kept(), more))
        except TimeIsUp:
            pass
        return found


@dataclass(frozen=True, slots=True)
class QuantitiesOut:
    """The quantities that lines give or use, and which of these lines are out of date."""

    quantities: list[Quantity]
    out_of_date: list[OutOfDate]


@dataclass(frozen=True, slots=True, kw_only=True)
class QuantitiesOfLines(Job[QuantitiesOut]):
    """All quantities of the lines of these ``numbers``, as they are after the last of them."""

    numbers: Sequence[int]

    def do(self, sheet: FullSheet) -> QuantitiesOut:
        lines = [sheet.by_number[number] for number in self.numbers if number in sheet.by_number]
        quantities = quantities_of_lines(sheet, lines)
        among = set(self.numbers)
        late = [one for one in lines_out_of_date(sheet.dependence()) if one.line in among]
        return QuantitiesOut(quantities, late)


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawing(Job[str]):
    """The answers of a line as SVG; empty where it has none."""

    number: int

    def do(self, sheet: FullSheet) -> str:
        line = sheet.by_number.get(self.number)
        answers = () if line is None else sheet.outcome_of(line).answers
        told = "; ".join(f"{one.reading} {one.sign} {one.text}" for one in answers)
        return as_svg([one.mathml for one in answers], told[:1000]) if answers else ""
