"""The operators on values of every kind: each kind's own arithmetic does the work."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import cast

from teapot.engine.errors import LineError
from teapot.engine.numbers import (
    angles,
    arithmetic,
    common_denominator,
    complexes,
    dates,
    integers,
    measure_array,
    measures,
    propagation,
)
from teapot.engine.numbers.common_denominator import CommonDenominatorArray
from teapot.engine.numbers.context import conventions, notice
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.values import (
    REALS,
    Angle,
    Complex,
    Date,
    Exact,
    Extended,
    Infinite,
    List,
    Measure,
    Plane,
    Real,
    Scalar,
    Uncertain,
    Undefined,
    Value,
    bare_size,
    is_complex,
    joined,
    kind_in_words,
    real,
)
from teapot.engine.sentences.units import JUMPS
from teapot.engine.sentences.values import COMPLEX_ORDER, NOT_A_NUMBER, NOT_REAL
from teapot.engine.sentences.warnings import POWER_LEFT_REALS

OF_NUMBERS: dict[str, Callable[[Extended, Extended], Extended]] = {
    "+": arithmetic.add,
    "-": arithmetic.subtract,
    "*": arithmetic.multiply,
    "/": arithmetic.divide,
    "^": arithmetic.power,
    "mod": integers.mod,
    "div": integers.div,
}
"""The operators between real numbers, each by its sign."""

ARRAYS = (MeasureArray, CommonDenominatorArray)
"""Ways to keep many numbers with which something can be done at once."""


NUMBERS = (Exact, Real, Infinite, Undefined, Angle, Measure, Uncertain, Complex)
"""Kinds of value that something can be computed with."""


def operate(op: str, a: Value, b: Value) -> Value:
    """``a op b``.  Errors: :class:`LineError` where the two cannot be put together.

    >>> operate("-", exact(1), exact(fmpq(1, 3)))
    Exact(coefficient=2/3, pi_power=0)
    >>> operate("+", "a", "b")
    'ab'
    """
    if type(a) in REALS and type(b) in REALS:
        return _power(real(a), real(b)) if op == "^" else OF_NUMBERS[op](real(a), real(b))
    if isinstance(a, List) or isinstance(b, List):
        return _with_list(op, a, b)
    if isinstance(a, str) and isinstance(b, str) and op == "+":
        return joined(a, b)
    if isinstance(a, Date) or isinstance(b, Date):
        return dates.operate(op, a, b)
    if isinstance(a, Uncertain) or isinstance(b, Uncertain):
        if op in ("mod", "div"):
            raise JUMPS(function=op)
        return propagation.through(
            lambda x, y: operate(op, x, y),
            number(a),
            number(b),
            is_linear=_is_linear(op, a, b),
        )
    is_of_measures = isinstance(a, Measure) or isinstance(b, Measure)
    if op == "^" and not is_of_measures:
        return _power(angles.as_number(number(a)), angles.as_number(number(b)))
    if is_of_measures or isinstance(a, Angle) or isinstance(b, Angle):
        return measures.operate(op, number(a), number(b))
    if isinstance(a, Complex) or isinstance(b, Complex):
        return complexes.operate(op, plane(a), plane(b))
    return OF_NUMBERS[op](cast(Extended, number(a)), cast(Extended, number(b)))


def _with_list(op: str, a: Value, b: Value) -> Value:
    """An operation where one side is a list, or both: with many measures at once."""
    one, other = (value.items if isinstance(value, List) else value for value in (a, b))
    sides = [side for side in (one, other) if isinstance(side, Sequence)]
    if all(isinstance(side, ARRAYS) and len(side) == len(sides[0]) for side in sides):
        of_measures = any(isinstance(side, MeasureArray | Measure) for side in (one, other))
        at_once = measure_array.operate if of_measures else common_denominator.operate
        found = at_once(op, cast(Value, one), cast(Value, other))
        if found is not None:
            return List(found)
    return item_by_item(lambda x, y: operate(op, x, y), a, b)


def number(value: Value) -> Scalar:
    """``value``, where something can be computed with it.  Errors: :class:`LineError`."""
    if isinstance(value, NUMBERS):
        return value
    raise NOT_A_NUMBER(kind=kind_in_words(value))


def plane(value: Value) -> Plane:
    """A value that is known to be no angle, where something can be computed with it."""
    return cast(Plane, number(value))


def _is_linear(op: str, a: Value, b: Value) -> bool:
    """Whether an operation rises evenly with what is measured of its two sides."""
    if op in ("+", "-"):
        return True
    is_alone = not (isinstance(a, Uncertain) and isinstance(b, Uncertain))
    return (op == "*" and is_alone) or (op == "/" and not isinstance(b, Uncertain))


def _power(a: Scalar, b: Scalar) -> Value:
    """A power; that of real numbers may leave the reals."""
    if isinstance(a, Complex) or isinstance(b, Complex):
        return complexes.operate("^", plane(a), plane(b))
    try:
        return arithmetic.power(cast(Extended, a), cast(Extended, b))
    except LineError as error:
        if not error.is_a(NOT_REAL) or conventions().numbers == "real":
            raise
    value = complexes.operate("^", plane(a), plane(b))
    if isinstance(value, Complex):
        notice(POWER_LEFT_REALS)
    return value


def negate(value: Value) -> Value:
    """``−value``.

    >>> negate(exact(2))
    Exact(coefficient=-2, pi_power=0)
    """
    match value:
        case List(items=items):
            return List(tuple(map(negate, items)))
        case Angle() | Measure():
            return measures.negate(value)
        case Uncertain():
            return propagation.through(negate, value, is_linear=True)
        case Complex(re=re, im=im):
            return Complex(arithmetic.negate(re), arithmetic.negate(im))
    return arithmetic.negate(cast(Extended, number(value)))


def sign_of(value: Value) -> int:
    """−1, 0 or 1, of an angle or a measure too.  Errors: :class:`LineError` where it has none.

    >>> sign_of(exact(-2))
    -1
    """
    if is_complex(value):
        raise COMPLEX_ORDER()
    value = value.nominal if isinstance(value, Uncertain) else value
    return arithmetic.sign_of(cast(Extended, bare_size(value)))


def same_kind(value: Value, like: Value) -> Value:
    """The number as an angle in the unit of ``like``, where that is an angle."""
    return angles.angle_of(number(value), like.name) if isinstance(like, Angle) else value
