"""Sums over very many real numbers at once: one number made of all, where a number made of
two each time would take thousands of steps."""

from __future__ import annotations

from collections.abc import Sequence
from operator import mul
from typing import TypeGuard, cast

from flint import arb, fmpq

from teapot.engine.numbers.arithmetic import add, divide
from teapot.engine.numbers.arrays import kinds_of, scaled
from teapot.engine.numbers.measure_array import counted
from teapot.engine.numbers.values import REALS, Bounds, Exact, Number, Real, Value, exact, real

MANY = 200
"""Numbers from which on they are taken together."""


def are_many(values: Sequence[Value]) -> TypeGuard[Sequence[Number]]:
    """Whether these are so many real numbers that they are taken together."""
    return len(values) >= MANY and kinds_of(values) <= REALS


def sum_of_many(numbers: Sequence[Number]) -> Number:
    """The sum: of exact numbers exact.

    >>> sum_of_many([exact(fmpq(1, 3))] * 300)
    Exact(coefficient=100, pi_power=0)
    """
    found_scaled = scaled(numbers)
    if found_scaled is not None:
        return exact(fmpq(sum(found_scaled.above), found_scaled.below))
    by_power: dict[int, fmpq] = {}
    for number in numbers:
        if isinstance(number, Exact):
            power = number.pi_power
            by_power[power] = by_power.get(power, fmpq(0)) + number.coefficient
    others = [number for number in numbers if isinstance(number, Real)]
    found: Number = Real(_added, *others, bounds=_bounds_of(others)) if others else exact(0)
    for power, coefficient in by_power.items():
        found = add(found, exact(coefficient, power))
    return found


def squares_from_mean(numbers: Sequence[Number]) -> Number:
    """The sum of the squares of the distances from the mean.

    >>> squares_from_mean([exact(1), exact(3)])
    Exact(coefficient=2, pi_power=0)
    """
    found = scaled(numbers)
    if found is not None:
        above, below = found.above, found.below
        whole = sum(above)
        squares = sum(map(mul, above, above)) * len(above) - whole * whole
        return exact(fmpq(squares, len(above) * below * below))
    return Real(_squared_away, *numbers, bounds=Bounds(fmpq(0), None))


def products_from_means(first: Sequence[Number], second: Sequence[Number]) -> Number:
    """The sum of the products of the distances from their means of pairs of numbers.

    >>> products_from_means([exact(1), exact(3)], [exact(2), exact(8)])
    Exact(coefficient=6, pi_power=0)
    """
    one, other = scaled(first), scaled(second)
    if one is not None and other is not None:
        both = sum(map(mul, one.above, other.above)) * len(one)
        apart = both - sum(one.above) * sum(other.above)
        return exact(fmpq(apart, len(one) * one.below * other.below))
    return Real(_multiplied_away, *first, *second)


def numbers_in(items: Sequence[Value]) -> tuple[Sequence[Number], str]:
    """The items where all are real numbers; of measures that agree how many units of the first
    they are, and that unit.  None of them where there are others.

    >>> numbers_in((exact(3), exact(4)))[1]
    ''
    """
    if kinds_of(items) <= REALS:
        return cast(Sequence[Number], items), ""
    found = counted(items)
    if found is None or not kinds_of(found.numbers) <= REALS:
        return (), ""
    return cast(Sequence[Number], found.numbers), found.unit.text


def floats_of(numbers: Sequence[Number]) -> list[float]:
    """About how large each is.  Errors: :class:`OverflowError` where a float cannot hold one.

    >>> floats_of([exact(fmpq(1, 4)), exact(3)])
    [0.25, 3.0]
    """
    found = scaled(numbers)
    if found is not None:
        return [above / found.below for above in found.above]
    return [float(number.ball(64).mid()) for number in numbers]


def mean_of(numbers: Sequence[Number]) -> Number:
    """The sum over the count."""
    return real(divide(sum_of_many(numbers), exact(len(numbers))))


def _added(*balls: arb) -> arb:
    return sum(balls, arb(0))


def _squared_away(*balls: arb) -> arb:
    mean = _added(*balls) / len(balls)
    return sum(((ball - mean) ** 2 for ball in balls), arb(0))


def _multiplied_away(*balls: arb) -> arb:
    half = len(balls) // 2
    first, second = balls[:half], balls[half:]
    one, other = _added(*first) / half, _added(*second) / half
    pairs = zip(first, second, strict=True)
    return sum(((a - one) * (b - other) for a, b in pairs), arb(0))


def _bounds_of(numbers: Sequence[Real]) -> Bounds | None:
    """What is known of the sum of numbers of which none is negative."""
    known = [one.bounds for one in numbers if one.bounds is not None]
    lows = [bounds.low for bounds in known if bounds.low is not None and bounds.low >= 0]
    return Bounds(fmpq(0), None) if len(lows) == len(numbers) else None
