"""Quantities as numbers: so many units of one table, angles among them."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache, reduce
from typing import cast

from teapot.engine.numbers import arithmetic, complexes
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Extended,
    Finite,
    Infinite,
    Measure,
    Number,
    Plane,
    Scalar,
    Sized,
    Undefined,
    exact,
    real,
)
from teapot.engine.units.unit import Unit, is_angle


def operated(op: str, a: Scalar, b: Scalar) -> Scalar:
    """An operation between numbers of units, real or complex."""
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


@lru_cache(1024)
def factor_of(unit: Unit) -> Number:
    """The unit in coherent SI units; of an angle in radians.

    >>> factor_of(Unit.of("km")), factor_of(Unit.of("deg"))
    (Exact(coefficient=1000, pi_power=0), Exact(coefficient=1/180, pi_power=1))
    """
    steps = (
        arithmetic.power(exact(atom.factor, atom.pi_power), exact(power))
        for atom, power in unit.parts
    )
    return real(reduce(arithmetic.multiply, steps, cast(Extended, exact(1))))


def measure_of(count: Scalar, unit: Unit) -> Scalar:
    """The quantity of so many units; what is no finite number is ``undefined``.

    >>> measure_of(exact(20), Unit.of("°C")).size
    Exact(coefficient=5863/20, pi_power=0)
    """
    if isinstance(count, Infinite):
        if is_angle(unit):
            return Undefined("An infinite angle has no direction.")
        return Undefined("An infinite number of units is no quantity.")
    if isinstance(count, Undefined):
        return count
    size = operated("*", count, factor_of(unit))
    if unit.zero is not None:
        size = operated("+", size, exact(unit.zero))
    return shown_in(size, unit)


def shown_in(size: Scalar, unit: Unit) -> Scalar:
    """So many coherent SI units, in a unit; a plain number or an angle where it is one."""
    if isinstance(size, Infinite | Undefined) or not unit.parts:
        return size
    kind = Angle if is_angle(unit) else Measure
    return kind(cast(Finite, size), unit)


def count_of(quantity: Sized, unit: Unit | None = None) -> Finite:
    """How many units a quantity has: of its own, or of another one.

    >>> count_of(measure_of(exact(72), Unit.of("km")), Unit.of("m"))
    Exact(coefficient=72000, pi_power=0)
    """
    unit = quantity.unit if unit is None else unit
    size = cast(Scalar, quantity.size)
    if unit.zero is not None:
        size = operated("-", size, exact(unit.zero))
    return cast(Finite, operated("/", size, factor_of(unit)))
