"""The straight line of least squares with what the scatter of the points leaves unknown of it.

The line is taken as the mean of y and a slope about the mean of x, which are independent
(JCGM 100, H.3.5): so that the slope and the intercept, used together, keep their correlation.
"""

from __future__ import annotations

from hashlib import sha256
from typing import cast

from flint import fmpq

from teapot.engine.functions.lists import ITEMS, SUBJECT, items_of
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.functions.statistics import intercept, slope
from teapot.engine.numbers import operators, uncertain
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.values import (
    List,
    Source,
    Uncertain,
    Undefined,
    Value,
    is_missing,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import (
    POINTS_WITHOUT_THEIR_OWN,
    TOO_FEW_POINTS,
    UNEQUAL_LENGTHS,
)

FEWEST = 3
"""Points of which it can be seen how far they scatter about a line."""


def least_squares(x: Value, y: Value) -> Value:
    """The slope and the intercept of the line, each with its standard uncertainty.

    Errors: :data:`TOO_FEW_POINTS`, and those of :func:`slope`.
    """
    across, up = _points(x, y)
    rise, start = slope(across, up), intercept(across, up)
    if isinstance(rise, Undefined):
        return rise
    if len(across.items) < FEWEST:
        raise TOO_FEW_POINTS(least=FEWEST)
    first, second = ([_size(one) for one in side.items] for side in (across, up))
    count, middle = len(first), sum(first, fmpq(0)) / len(first)
    spread = sum(((one - middle) ** 2 for one in first), fmpq(0))
    about_line = [_size(one) for one in _above(across, up, rise, start).items]
    scatter = sum((one * one for one in about_line), fmpq(0)) / (count - 2)
    of_level, of_slope = (uncertain.root(scatter / below) for below in (count, spread))
    level, tilt = (Source(("least squares", part, _data(first, second)), f"scatter of the {part}")
                   for part in ("mean", "slope"))  # fmt: skip
    return List((
        uncertain.with_parts(rise, {tilt: of_slope}),
        uncertain.with_parts(start, {level: of_level, tilt: -middle * of_slope}),
    ))  # fmt: skip


def residuals(x: Value, y: Value) -> Value:
    """How far each y lies above the line.

    Errors: those of :func:`slope`.
    """
    across, up = _points(x, y)
    rise, start = slope(across, up), intercept(across, up)
    if isinstance(rise, Undefined):
        return rise
    return _above(across, up, rise, start)


def _above(across: List, up: List, rise: Value, start: Value) -> List:
    line = operators.operate("+", start, operators.operate("*", rise, across))
    return cast(List, operators.operate("-", up, line))


def _points(x: Value, y: Value) -> tuple[List, List]:
    """Two lists of one length without the pairs of which one is missing, and without uncertainties
    of their own.  Errors: :data:`UNEQUAL_LENGTHS`."""
    first, second = items_of(x, 2), items_of(y, 2)
    if len(first) != len(second):
        raise UNEQUAL_LENGTHS(length=len(first), other=len(second))
    pairs = [pair for pair in zip(first, second, strict=True) if not any(map(is_missing, pair))]
    if any(isinstance(one, Uncertain) for pair in pairs for one in pair):
        notice(POINTS_WITHOUT_THEIR_OWN)
    across, up = (uncertain.nominals_of([pair[at] for pair in pairs]) for at in (0, 1))
    return List(tuple(across)), List(tuple(up))


def _size(value: Value) -> fmpq:
    return uncertain.rational(uncertain.size_of(value))


def _data(first: list[fmpq], second: list[fmpq]) -> str:
    """What tells these points from others: the same points scatter the same way."""
    return sha256(f"{first} {second}".encode()).hexdigest()


X = Parameter("x", "the list of what is set", "numbers or measures")
Y = Parameter("y", "the list of what is read off, as long", "numbers or measures")

FUNCTIONS = (
    Function(
        name="least_squares",
        subject=SUBJECT,
        summary="Slope and intercept of the straight line of least squares, each with its "
        "uncertainty.",
        parameters=(X, Y),
        compute=least_squares,
        examples=(
            Example("least_squares([1, 2, 3, 4], [2, 4, 5, 8])", "≈",
                    "[1.90 ± 0.26, 0.00 ± 0.72]"),
            Example("least_squares([0, 1, 2], [1, 3, 5])", "=", "[2, 1]"),
        ),
        value="a list of two: the slope and the intercept",
        related=("slope", "intercept", "residuals", "correlation"),
        words="regression linear fit straight line calibration trend error of slope uncertainty",
        confused_with="slope and intercept, which carry the uncertainties of the points instead of "
        "their scatter.",
        source="JCGM 100:2008 (GUM), H.3",
        accepts=ITEMS,
    ),
    Function(
        name="residuals",
        subject=SUBJECT,
        summary="How far each y lies above the straight line of least squares.",
        parameters=(X, Y),
        compute=residuals,
        examples=(
            Example("residuals([1, 2, 3], [1, 2, 2])", "≈",
                    "[-0.1666666667, 0.3333333333, -0.1666666667]"),
            Example("residuals([0, 1], [1, 3])", "=", "[0, 0]"),
        ),
        value="a list as long as the others",
        related=("least_squares", "slope", "intercept"),
        words="deviation from the line fit error regression difference",
        confused_with="the distances from the mean, which are y - mean(y).",
        source="NIST/SEMATECH e-Handbook of Statistical Methods, 4.4.4",
        accepts=ITEMS,
    ),
)  # fmt: skip
