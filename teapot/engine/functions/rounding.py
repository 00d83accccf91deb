"""Rounding, and the whole and fractional part of a number."""

from __future__ import annotations

from collections.abc import Callable

from flint import fmpq, fmpz

from teapot.engine.functions.helpers import outside, whole
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.arithmetic import negate, sign_of, subtract
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.decimal import round_at, to_places
from teapot.engine.numbers.integers import floor_of
from teapot.engine.numbers.sizes import count_of, measure_of
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Extended,
    Infinite,
    Measure,
    Undefined,
    Value,
    exact,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import OPERATOR_FOR_REALS
from teapot.engine.sentences.warnings import TIE, TIE_AWAY
from teapot.engine.units.unit import in_decimals

SUBJECT = "rounding"
X = Parameter("x", "a number")
MAX_PLACES = 10_000


def round_off(x: Extended, places: Value | None = None, ties: Value | None = None) -> Extended:
    """``x`` rounded to ``places`` digits after the point, none where left out.

    A tie goes to the even neighbour (ISO 80000-1, Annex B, rule A) with a notice;
    with ``ties`` "away" to the neighbour that is farther from 0 (rule B).
    Errors: :class:`LineError` for ``places`` or ``ties`` that are neither.
    """
    if isinstance(x, Infinite | Undefined):
        return x
    count = 0 if places is None else whole(places, "The number of places")
    if abs(count) > MAX_PLACES:
        raise outside(f"A number is rounded to at most {MAX_PLACES:,} places.")
    if ties not in (None, "even", "away"):
        raise outside('Ties go to "even" or "away".')
    if not (isinstance(x, Exact) and x.is_rational):
        decimal = to_places(x, count)
        unit = fmpq(fmpz(10) ** abs(decimal.exponent))
        return exact(fmpq(decimal.mantissa) * (unit if decimal.exponent >= 0 else 1 / unit))
    unit = fmpq(fmpz(10) ** abs(count))
    unit = 1 / unit if count >= 0 else unit
    mantissa, _ = round_at(x.coefficient, -count)
    is_tie = abs(x.coefficient / unit - mantissa) == fmpq(1, 2)
    if is_tie:
        mantissa = _at_a_tie(mantissa, x.coefficient / unit, ties)
    return exact(mantissa * unit)


def _at_a_tie(even: fmpz, x: fmpq, ties: str | None) -> fmpz:
    """Where ``x``, halfway between ``even`` and another whole number, is rounded to."""
    away = x.ceil() if x > 0 else x.floor()
    if ties == "away":
        return away
    if ties is None and even == away:
        notice(TIE)
    elif ties is None:
        notice(TIE_AWAY, 'ties="away"', direction="up" if x > 0 else "down")
    return even


def ceiling(x: Extended) -> Extended:
    """The smallest whole number that is not below ``x``."""
    return negate(floor_of(negate(x)))


def truncate(x: Extended) -> Extended:
    """``x`` without its digits after the point."""
    if isinstance(x, Infinite | Undefined):
        return x
    return floor_of(x) if sign_of(x) >= 0 else ceiling(x)


def fraction_part(x: Extended) -> Extended:
    """``x`` less its floor: from 0 up to 1."""
    if isinstance(x, Infinite):
        return Undefined("Infinity has no fractional part.")
    return subtract(x, floor_of(x))


def by_count(compute: Callable[..., Extended]) -> Callable[..., Value]:
    """``compute`` on numbers, for an angle or a measure too: it is done to its number of
    units."""

    def function(x: Value, *others: Value) -> Value:
        if not isinstance(x, Angle | Measure):
            return compute(x, *others)
        if x.is_complex:
            raise OPERATOR_FOR_REALS(op="Rounding")
        return measure_of(compute(count_of(x), *others), in_decimals(x.unit))

    return function


FUNCTIONS = (
    Function(
        name="round",
        jumps=True,
        subject=SUBJECT,
        summary="The nearest whole number, or the nearest with so many places.",
        parameters=(
            X,
            Parameter("places", "digits after the point; 0 if left out", "a whole number", True),
            Parameter("ties", "where a tie goes", '"even" or "away"', True, is_text=True),
        ),
        compute=by_count(round_off),
        accepts=(Angle, Measure),
        examples=(
            Example("round(6.5)", "=", "6"),
            Example("round(7.5)", "=", "8"),
            Example("round(2.34567, 2)", "=", "2.35"),
            Example('round(6.5, ties="away")', "=", "7"),
        ),
        related=("floor", "ceil", "trunc"),
        confused_with='the rule that every tie goes up: ties="away" does so.',
        words="round off nearest half even decimal places bankers",
        source="ISO 80000-1, Annex B",
        special_values=("round(1/2) = 0", "round(3/2) = 2", "round(-1/2) = 0"),
    ),
    Function(
        name="floor",
        jumps=True,
        subject=SUBJECT,
        summary="The largest whole number that is not above x.",
        parameters=(X,),
        compute=by_count(floor_of),
        accepts=(Angle, Measure),
        examples=(Example("floor(2.7)", "=", "2"), Example("floor(-2.7)", "=", "-3")),
        related=("ceil", "trunc", "round"),
        words="round down towards minus infinity integer below",
        source="ISO 80000-2",
        special_values=("floor(-1/2) = -1", "floor(infinity) = infinity"),
        confused_with="trunc, which goes towards 0: floor(-2.5) is −3.",
    ),
    Function(
        name="ceil",
        jumps=True,
        subject=SUBJECT,
        summary="The smallest whole number that is not below x.",
        parameters=(X,),
        compute=by_count(ceiling),
        accepts=(Angle, Measure),
        examples=(Example("ceil(2.1)", "=", "3"), Example("ceil(-2.1)", "=", "-2")),
        aliases=("ceiling",),
        related=("floor",),
        words="round up ceiling towards infinity integer above",
        source="ISO 80000-2",
        special_values=("ceil(-1/2) = 0", "ceil(infinity) = infinity"),
        confused_with="round, which may go down: ceil(2.1) is 3.",
    ),
    Function(
        name="trunc",
        jumps=True,
        subject=SUBJECT,
        summary="The whole part: x without its digits after the point.",
        parameters=(X,),
        compute=by_count(truncate),
        accepts=(Angle, Measure),
        examples=(Example("trunc(2.7)", "=", "2"), Example("trunc(-2.7)", "=", "-2")),
        related=("frac", "floor"),
        words="cut off truncate towards zero whole integer part int fix",
        source="ISO 80000-2",
        special_values=("trunc(-1/2) = 0", "trunc(infinity) = infinity"),
        confused_with="floor, which goes down: trunc(-2.5) is −2.",
    ),
    Function(
        name="frac",
        jumps=True,
        subject=SUBJECT,
        summary="The fractional part: x less its floor.",
        parameters=(X,),
        compute=by_count(fraction_part),
        accepts=(Angle, Measure),
        examples=(Example("frac(2.75)", "=", "0.75"), Example("frac(-2.75)", "=", "0.25")),
        related=("trunc", "floor"),
        words="fractional part after the decimal point",
        source="ISO 80000-2",
        special_values=("frac(3) = 0", "frac(-1/4) = 3/4"),
        confused_with="the figures after the point of a negative number: frac(-2.75) is 0.25.",
    ),
)
