"""Sign, smallest and largest."""

from __future__ import annotations

from engine.functions.record import Example, Function, Parameter
from engine.numbers.arithmetic import sign_of
from engine.numbers.comparison import compare
from engine.numbers.values import Undefined, Value, exact

SUBJECT = "parts and choices"
X, Y = Parameter("x", "a number"), Parameter("y", "another; more may follow")


def signum(x: Value) -> Value:
    """−1, 0 or 1."""
    return x if isinstance(x, Undefined) else exact(sign_of(x))


def smallest(*values: Value) -> Value:
    """The smallest of the numbers."""
    return _extreme("<", values)


def largest(*values: Value) -> Value:
    """The largest of the numbers."""
    return _extreme(">", values)


def _extreme(op: str, values: tuple[Value, ...]) -> Value:
    best = values[0]
    for value in values:
        if isinstance(value, Undefined):
            return value
        if compare(op, value, best):
            best = value
    return best


FUNCTIONS = (
    Function(
        name="sgn",
        subject=SUBJECT,
        summary="The sign of a number: −1, 0 or 1.",
        parameters=(X,),
        compute=signum,
        examples=(Example("sgn(-3)", "=", "-1"), Example("sgn(0)", "=", "0")),
        also_written=("sign",),
        related=("abs",),
        source="ISO 80000-2",
    ),
    Function(
        name="min",
        subject=SUBJECT,
        summary="The smallest of the numbers.",
        parameters=(X, Y),
        compute=smallest,
        examples=(Example("min(3, 1, 2)", "=", "1"), Example("min(pi, 22/7)", "≈", "3.141592654")),
        related=("max",),
        source="ISO 80000-2",
        any_number=True,
    ),
    Function(
        name="max",
        subject=SUBJECT,
        summary="The largest of the numbers.",
        parameters=(X, Y),
        compute=largest,
        examples=(Example("max(3, 1, 2)", "=", "3"), Example("max(1/3, 0.3)", "≈", "0.3333333333")),
        related=("min",),
        source="ISO 80000-2",
        any_number=True,
    ),
)
