"""The job that makes what a sheet's stored answers lack when it goes out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from engine import Sheet
from engine.limited.bounds import TimeIsUp
from engine.out.document import StepOut
from fence.jobs import Job


@dataclass(frozen=True, slots=True)
class MoreOfLine:
    """The answers of a line as LaTeX, and the steps of its working."""

    latex: tuple[str, ...]
    steps: tuple[StepOut, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoreOfLines(Job[dict[int, MoreOfLine]]):
    """The LaTeX of lines, and their workings where they are wanted: of as many as there is
    time for."""

    numbers: Sequence[int]
    latex: bool = False
    workings: bool = False

    def do(self, sheet: Sheet) -> dict[int, MoreOfLine]:
        found: dict[int, MoreOfLine] = {}
        try:
            for number in self.numbers:
                line = sheet.by_number.get(number)
                if line is None:
                    continue
                outcome = sheet.outcome_of(line)
                latex = tuple(one.latex for one in outcome.answers) if self.latex else ()
                steps = sheet.workings(line) if self.workings and outcome.error is None else []
                found[number] = MoreOfLine(
                    latex,
                    tuple(
                        StepOut(mathml=s.mathml, input=s.input, sign=s.sign, text=s.text)
                        for statement in steps
                        for s in statement
                    ),
                )
        except TimeIsUp:
            pass
        return found
