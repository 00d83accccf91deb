"""The graph that a statement draws, over its range or over another."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from flint import fmpq

from teapot.engine.analysis.graphs import Drawn, Graph
from teapot.engine.numbers import operators
from teapot.engine.numbers.values import exact
from teapot.engine.reading.tree import Call, Name, Range
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet

Window = tuple[Fraction, Fraction]
"""Where a graph begins and ends, in the unit of its axis."""

ENDS = ("the left end", "the right end")
"""What the ends of a window are called in its call: no name that can be typed."""


def is_of(step: Step) -> bool:
    """Whether a statement draws a graph."""
    return isinstance(step.value, Graph)


def shown(step: Step) -> list[Drawn]:
    """What it draws."""
    value = step.value
    return [value.drawn] if isinstance(value, Graph) and value.drawn is not None else []


def shown_over(sheet: Worksheet, step: Step, window: Window) -> list[Drawn]:
    """What it draws over a window; where the graph is no call of its own, what it draws as it is.

    Errors: those of a graph where it has nothing to draw there.
    """
    calls = [one for one in step.nodes if isinstance(one, Call) and one.function == "graph"]
    if not isinstance(step.value, Graph) or len(calls) != 1:
        return shown(step)
    [call], one = calls, step.value.one
    [(name, where)] = call.named
    over = Range(where.span, *(Name(where.span, end) for end in ENDS))
    ends = (exact(fmpq(end.numerator, end.denominator)) for end in window)
    given = {end: operators.operate("*", size, one) for end, size in zip(ENDS, ends, strict=True)}
    anew = sheet.calculation.value_of(step, replace(call, named=((name, over),)), given)
    return [anew.drawn] if isinstance(anew, Graph) and anew.drawn is not None else []
