"""Where rounding sends a number: its neighbours, and which of them each function takes."""

from __future__ import annotations

from dataclasses import dataclass

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.forms.answer import write
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.helpers import whole
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers import integers as whole_numbers
from teapot.engine.numbers.values import (
    Exact,
    Number,
    Real,
    Value,
    exact,
    real,
)
from teapot.engine.reading.tree import Call
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

ROUNDERS = ("round", "floor", "ceil", "trunc")
MOST_PLACES = 12


@dataclass(frozen=True, slots=True)
class NumberLine:
    """``value`` stands ``part`` of the way from ``below`` to ``above``, in text.

    ``sent`` says for each function whether it takes the number below (−1), the one
    above (1), or the number itself (0); ``here`` is the function at hand.  At a tie
    both are equally near.
    """

    value: str
    below: str
    above: str
    part: float
    is_tie: bool
    sent: dict[str, int]
    here: str


def number_line_of(name: str, x: Value | None, places: Value | None = None) -> NumberLine | None:
    """The number line of a rounding function at ``x``; None where there is none."""
    if name not in ROUNDERS or not isinstance(x, Exact | Real):
        return None
    try:
        count = 0 if places is None else whole(places, "The number of places")
        if abs(count) > MOST_PLACES:
            return None
        unit = exact(fmpq(1, 10**count) if count >= 0 else fmpq(10**-count))
        return _made(name, x, unit)
    except LineError:
        return None


def _made(name: str, x: Number, unit: Exact) -> NumberLine:
    steps = real(arithmetic.divide(x, unit))
    below = real(whole_numbers.floor_of(steps))
    part = arithmetic.subtract(steps, below)
    above = arithmetic.add(below, exact(1))
    sent = {}
    for rounder in ROUNDERS:
        taken = real(BY_NAME[rounder].compute(steps))
        difference = arithmetic.subtract(taken, steps)
        sent[rounder] = difference.sign() or 0
    low, high = (write(arithmetic.multiply(end, unit)).text for end in (below, above))
    share = float(part.ball(64).mid())
    is_tie = isinstance(part, Exact) and part.coefficient == fmpq(1, 2)
    return NumberLine(write(x).text, low, high, share, is_tie, sent, name)


def is_of(step: Step) -> bool:
    """Whether something is rounded in a statement."""
    return any(isinstance(node, Call) and node.function in ROUNDERS for node in step.nodes)


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[NumberLine]:
    """The number lines of the roundings in a statement, as their pictures get them."""
    calls = [node for node in step.nodes if isinstance(node, Call) and node.args]
    lines = (_of_call(node, workings) for node in calls if node.function in ROUNDERS)
    return [line for line in lines if line is not None]


def _of_call(node: Call, workings: Workings) -> NumberLine | None:
    values = [workings.value_of(argument) for argument in node.args[:2]]
    return None if values[0] is None else number_line_of(node.function, *values)
