"""Many measures of one unit as their numbers: each is made into a measure when it is asked for,
and what is done with all of them is done with the numbers."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import wraps
from typing import cast

from teapot.engine.numbers import common_denominator, levels, measures, sizes
from teapot.engine.numbers.common_denominator import CommonDenominatorArray
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.lazy_sequence import LazySequence
from teapot.engine.numbers.sizes import operated
from teapot.engine.numbers.values import (
    REALS,
    ZERO,
    Exact,
    List,
    Measure,
    Real,
    Scalar,
    Sized,
    Value,
    exact,
    is_missing,
)
from teapot.engine.sentences.warnings import TEMPERATURE_IN_KELVIN
from teapot.engine.units.unit import Unit, is_angle, turns


class MeasureArray(LazySequence):
    """So many units each; a number that is missing is missing as a measure too.

    >>> list(MeasureArray([exact(5)], Unit.of("km")))
    [Measure(size=Exact(coefficient=5000, pi_power=0), unit=Unit('km'))]
    """

    __slots__ = ("numbers", "unit")

    def __init__(self, numbers: Sequence[Value], unit: Unit) -> None:
        self.numbers = numbers
        self.unit = unit

    def __len__(self) -> int:
        return len(self.numbers)

    def one(self, place: int) -> Value:
        return self.made(self.numbers[place])

    def part(self, places: slice) -> MeasureArray:
        return MeasureArray(self.numbers[places], self.unit)

    def __iter__(self) -> Iterator[Value]:
        return map(self.made, self.numbers)

    def made(self, number: Value) -> Value:
        """The measure of so many units."""
        if not isinstance(number, Exact | Real):  # missing, or without a value
            return number
        return sizes.measure_of(number, self.unit)

    @property
    def step(self) -> Value:
        """One unit as it counts between two of them: of a scale of temperature a difference.

        >>> MeasureArray([], Unit.of("°C")).step
        Measure(size=Exact(coefficient=1, pi_power=0), unit=Unit('K'))
        """
        factor = sizes.factor_of(self.unit)
        return sizes.shown_in(factor, measures.KELVIN if self.is_on_scale else self.unit)

    @property
    def is_on_scale(self) -> bool:
        """Whether they are temperatures as a thermometer shows them."""
        return self.unit.zero is not None


def counted(items: Sequence[Value]) -> MeasureArray | None:
    """The items as numbers of the unit that the first of them has; None where they are no
    measures of real size that agree.

    >>> found = counted((sizes.measure_of(exact(5), Unit.of("m")),))
    >>> found.numbers, found.unit
    ((Exact(coefficient=5, pi_power=0),), Unit('m'))
    """
    if isinstance(items, MeasureArray):
        return items
    first = items[0] if len(items) else None
    if not isinstance(first, Sized):
        return None
    numbers = []
    for item in items:
        if not isinstance(item, Sized) or type(item) is not type(first):
            return None
        if item.unit.dimension != first.unit.dimension:
            return None
        number = sizes.count_of(item, first.unit)
        if not isinstance(number, Exact | Real):
            return None
        numbers.append(number)
    return MeasureArray(tuple(numbers), first.unit)


def in_unit(of: MeasureArray, unit: Unit) -> MeasureArray | None:
    """The same as numbers of another unit; None where it is of another kind.

    >>> in_unit(MeasureArray([exact(20)], Unit.of("°C")), Unit.of("K")).numbers
    (Exact(coefficient=5863/20, pi_power=0),)
    """
    if of.unit.dimension != unit.dimension or is_angle(unit) or not len(of):
        return None
    if turns(of.unit) != turns(unit):
        return None
    numbers = _numbers(of, unit)
    apart = (of.unit.zero or ZERO) - (unit.zero or ZERO)
    if apart:
        offset = operated("/", exact(apart), sizes.factor_of(unit))
        numbers = _each("+", numbers, offset)
    return MeasureArray(cast(Sequence[Value], numbers), unit)


def in_numbers(compute: Callable[..., Value]) -> Callable[..., Value]:
    """A function of a list that gives items of it: of many measures it is worked out with their
    numbers."""

    @wraps(compute)
    def function(x: Value, *others: Value) -> Value:
        items = x.items if isinstance(x, List) else None
        if not isinstance(items, MeasureArray):
            return compute(x, *others)
        found = compute(List(items.numbers), *others)
        if isinstance(found, List):
            return List(MeasureArray(found.items, items.unit))
        return items.made(found)

    return function


def operate(op: str, a: Value | MeasureArray, b: Value | MeasureArray) -> MeasureArray | None:
    """``a op b`` item by item, where one is many measures and the other is too, or is a single
    number or measure; None where it has to be done one by one.

    >>> operate("*", MeasureArray([exact(5)], Unit.of("km")), exact(2)).numbers
    (Exact(coefficient=10, pi_power=0),)
    """
    units = [_unit_of(one) for one in (a, b)]
    if None in units or any(is_angle(unit) for unit in units if unit):
        return None
    one, other = cast(list[Unit], units)
    if op in ("+", "-"):
        return _added(op, a, b, one, other)
    if op in ("*", "/") and (one.zero is not None or other.zero is not None):
        return operate(op, _in_kelvin(a), _in_kelvin(b))
    if one.zero is not None or other.zero is not None:
        return None
    if op == "^":
        return _raised(cast(MeasureArray, a), b) if one.parts else None
    if op not in ("*", "/"):
        return None
    below = other.raised(-exact(1).coefficient) if op == "/" else other
    joint = measures.joint(one, below)
    if not joint.parts or is_angle(joint):
        return None
    ratio = operated(op, sizes.factor_of(one), sizes.factor_of(other))
    ratio = operated("/", ratio, sizes.factor_of(joint))
    numbers = _each(op, _numbers(a, one), _numbers(b, other))
    return MeasureArray(numbers if ratio == exact(1) else _each("*", numbers, ratio), joint)


def _in_kelvin(value: Value | MeasureArray) -> Value | MeasureArray:
    """Temperatures on a scale as they count in products, which is said."""
    if not isinstance(value, MeasureArray):
        return measures.in_kelvin(cast(Scalar, value))
    if not value.is_on_scale:
        return value
    notice(TEMPERATURE_IN_KELVIN, unit=value.unit.text)
    return cast(MeasureArray, in_unit(value, measures.KELVIN))


def _raised(of: MeasureArray, exponent: Value | MeasureArray) -> MeasureArray | None:
    if not isinstance(exponent, Exact) or not exponent.is_rational or not exponent.coefficient:
        return None
    if not any(of.unit.dimension):  # the square of a percentage is a plain number
        return None
    unit = of.unit.raised(exponent.coefficient)
    ratio = operated("^", sizes.factor_of(of.unit), exponent)
    ratio = operated("/", ratio, sizes.factor_of(unit))
    numbers = _each("^", of.numbers, exponent)
    return MeasureArray(numbers if ratio == exact(1) else _each("*", numbers, ratio), unit)


def _added(
    op: str, a: Value | MeasureArray, b: Value | MeasureArray, one: Unit, other: Unit
) -> MeasureArray | None:
    if one.dimension != other.dimension or not one.parts or levels.DBM in (one, other):
        return None
    if one.zero is None and other.zero is None:
        return MeasureArray(_each(op, _numbers(a, one), _numbers(b, one)), one)
    if op == "-" and one == other:  # of a scale: the difference is in kelvin
        steps = _each(op, _numbers(a, one), _numbers(b, one))
        return MeasureArray(_each("*", steps, sizes.factor_of(one)), measures.KELVIN)
    return None


def _unit_of(value: Value | MeasureArray) -> Unit | None:
    """The unit of many measures or of one; none of a real number, or of many."""
    if type(value) in REALS or isinstance(value, CommonDenominatorArray):
        return Unit(())
    if isinstance(value, Measure) and value.is_complex:
        return None
    return value.unit if isinstance(value, MeasureArray | Measure) else None


Numbers = Sequence[Value] | Scalar
"""Numbers one after another, or one that is used again for each."""


def _numbers(value: Value | MeasureArray, unit: Unit) -> Numbers:
    if isinstance(value, Measure):
        return sizes.count_of(value, unit)
    if not isinstance(value, MeasureArray):
        return cast(Numbers, value)
    if value.unit == unit:
        return value.numbers
    ratio = operated("/", sizes.factor_of(value.unit), sizes.factor_of(unit))
    return _each("*", value.numbers, ratio)


def _each(op: str, a: Numbers, b: Numbers) -> Sequence[Value]:
    """An operation with each of the numbers; what is missing on one side is missing."""
    at_once = common_denominator.operate(op, a, b)
    if at_once is not None:
        return at_once
    length = next(len(one) for one in (a, b) if isinstance(one, Sequence))
    first, second = (one if isinstance(one, Sequence) else (one,) * length for one in (a, b))
    return tuple(_of_two(op, x, y) for x, y in zip(first, second, strict=True))


def _of_two(op: str, a: Value, b: Value) -> Value:
    for side in (a, b):
        if is_missing(side):
            return side
    return operated(op, cast(Scalar, a), cast(Scalar, b))
