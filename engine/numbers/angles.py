"""Angles: their units, and what may be done with them.

An angle keeps the unit it was given in.  A sum has the unit of its first term; an
angle over an angle is a number.  A bare number beside an angle is read in the unit
of the conventions, which is noticed.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import cast

from flint import fmpq

from engine.errors import OperatorForReals
from engine.numbers import arithmetic, complexes, whole
from engine.numbers.context import conventions, notice, unit
from engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Extended,
    Finite,
    Infinite,
    Plane,
    Scalar,
    Undefined,
    exact,
    is_complex,
    real,
)


@dataclass(frozen=True, slots=True)
class Unit:
    """``one`` is the unit in radians, exactly; ``sign`` stands behind a number."""

    name: str
    one: Exact
    sign: str
    words: str


UNITS: dict[str, Unit] = {
    unit.name: unit
    for unit in (
        Unit("rad", exact(1), " rad", "radians"),
        Unit("deg", exact(fmpq(1, 180), 1), "°", "degrees"),
        Unit("gon", exact(fmpq(1, 200), 1), " gon", "gon, 400 to the full angle"),
        Unit("turn", exact(2, 1), " turn", "turns, full angles"),
        Unit("dms", exact(fmpq(1, 180), 1), "°", "degrees, minutes and seconds"),
    )
}
"""The units of ISO 80000-3: radian, degree and gon; the turn; and the degree with
its minutes and seconds."""

PARTS = {"°": fmpq(1), "′": fmpq(1, 60), "″": fmpq(1, 3600)}
"""The degree, its minute and its second, in degrees."""


def angle_of(count: Scalar, name: str) -> Angle | Undefined:
    """The angle of so many units; what is no finite number is ``undefined``.

    >>> angle_of(exact(30), "deg")
    Angle(radians=Exact(coefficient=1/6, pi_power=1), unit='deg')
    """
    if isinstance(count, Infinite):
        return Undefined("An infinite angle has no direction.")
    if isinstance(count, Undefined):
        return count
    return Angle(cast(Finite, operated("*", count, UNITS[name].one)), name)


def count_of(angle: Angle, name: str = "") -> Finite:
    """How many units an angle has: of its own, or of the one named.

    >>> count_of(angle_of(exact(90), "deg"), "turn")
    Exact(coefficient=1/4, pi_power=0)
    """
    return cast(Finite, operated("/", angle.radians, UNITS[name or angle.unit].one))


def operated(op: str, a: Scalar, b: Scalar) -> Scalar:
    """An operation between numbers of radians, or of units."""
    if isinstance(a, Complex) or isinstance(b, Complex):
        return complexes.operate(op, cast(Plane, a), cast(Plane, b))
    return ON_REALS[op](cast(Extended, a), cast(Extended, b))


ON_REALS: dict[str, Callable[[Extended, Extended], Extended]] = {
    "+": arithmetic.add,
    "-": arithmetic.subtract,
    "*": arithmetic.multiply,
    "/": arithmetic.divide,
    "^": arithmetic.power,
}


def _angle_or_not(radians: Scalar, name: str) -> Scalar:
    """An angle, where there is a number of radians; what is undefined stays so."""
    return Angle(radians, name) if isinstance(radians, Finite) else radians


def in_unit(angle: Angle, name: str) -> Angle:
    """The same angle, shown in another unit.

    >>> in_unit(angle_of(exact(90), "deg"), "gon")
    Angle(radians=Exact(coefficient=1/2, pi_power=1), unit='gon')
    """
    return Angle(angle.radians, name)


def as_angle(value: Scalar) -> Angle | Undefined:
    """``value`` as an angle: a bare number is read in the unit of the conventions."""
    return value if isinstance(value, Angle) else angle_of(value, unit())


def radians_of(value: Scalar) -> Extended | Complex:
    """An angle in radians, as a number, which may be complex; a bare number is read as
    :func:`as_angle` does.

    >>> radians_of(angle_of(exact(180), "deg"))
    Exact(coefficient=1, pi_power=1)
    """
    if isinstance(value, Infinite):
        return value
    angle = as_angle(value)
    return angle.radians if isinstance(angle, Angle) else angle


def computed(radians: Scalar) -> Scalar:
    """An angle that was computed: it is shown in the unit of the conventions."""
    return _angle_or_not(radians, conventions().angle)


def _beside(value: Scalar) -> Angle | Undefined:
    """The other side of a sum or a comparison with an angle, as an angle."""
    if not isinstance(value, Angle):
        name = unit()
        notice("number-beside-angle", f"The number beside the angle was read in {name}.")
        return angle_of(value, name)
    return value


def as_number(value: Scalar) -> Scalar:
    """An angle as its number of radians, which is noticed; anything else as it is."""
    if isinstance(value, Angle):
        notice("angle-as-number", "The angle was taken as its number of radians here.")
        return value.radians
    return value


def operate(op: str, a: Scalar, b: Scalar) -> Scalar:
    """``a op b``, where one or both are angles.

    >>> operate("+", angle_of(exact(30), "deg"), angle_of(exact(1), "turn"))
    Angle(radians=Exact(coefficient=13/6, pi_power=1), unit='deg')
    """
    return OPERATIONS[op](a, b)


def _alike(op: str) -> Callable[[Scalar, Scalar], Scalar]:
    """An operation between two angles that gives an angle."""

    def operation(a: Scalar, b: Scalar) -> Scalar:
        first, second = _beside(a), _beside(b)
        if isinstance(first, Undefined) or isinstance(second, Undefined):
            return first if isinstance(first, Undefined) else second
        radians = operated(op, first.radians, second.radians)
        name = first.unit if isinstance(a, Angle) else second.unit
        return _angle_or_not(radians, name)

    return operation


def _multiply(a: Scalar, b: Scalar) -> Scalar:
    if isinstance(a, Angle) and isinstance(b, Angle):
        return operated("*", as_number(a), as_number(b))
    angle, factor = (a, b) if isinstance(a, Angle) else (cast(Angle, b), a)
    return _angle_or_not(operated("*", angle.radians, factor), angle.unit)


def _divide(a: Scalar, b: Scalar) -> Scalar:
    if isinstance(a, Angle) and isinstance(b, Angle):
        return operated("/", a.radians, b.radians)
    if isinstance(b, Angle):
        return operated("/", a, as_number(b))
    angle = cast(Angle, a)
    return _angle_or_not(operated("/", angle.radians, b), angle.unit)


def _remainder(a: Scalar, b: Scalar) -> Scalar:
    first, second = _beside(a), _beside(b)
    _refuse_complex("mod", first, second)
    if isinstance(first, Undefined) or isinstance(second, Undefined):
        return first if isinstance(first, Undefined) else second
    name = first.unit if isinstance(a, Angle) else second.unit
    return _angle_or_not(whole.mod(real(first.radians), real(second.radians)), name)


def _quotient(a: Scalar, b: Scalar) -> Scalar:
    _refuse_complex("div", a, b)
    first, second = sides(a, b)
    return whole.div(cast(Extended, first), cast(Extended, second))


def _refuse_complex(op: str, *values: Scalar) -> None:
    for value in values:
        if is_complex(value):
            raise OperatorForReals(op=op)


OPERATIONS: dict[str, Callable[[Scalar, Scalar], Scalar]] = {
    "+": _alike("+"),
    "-": _alike("-"),
    "*": _multiply,
    "/": _divide,
    "mod": _remainder,
    "div": _quotient,
}


def sides(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """Two values of which one is an angle, as their numbers of radians."""
    first, second = _beside(a), _beside(b)
    return (
        first.radians if isinstance(first, Angle) else first,
        second.radians if isinstance(second, Angle) else second,
    )


def counts(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """The same as their numbers of units: of the unit that the first angle has.

    >>> counts(angle_of(exact(30), "deg"), exact(30))
    (Exact(coefficient=30, pi_power=0), Exact(coefficient=5400, pi_power=-1))
    """
    name = (a if isinstance(a, Angle) else cast(Angle, b)).unit
    first, second = _beside(a), _beside(b)
    return (
        count_of(first, name) if isinstance(first, Angle) else first,
        count_of(second, name) if isinstance(second, Angle) else second,
    )
