"""What is asked of many items at once, however they are kept."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Sequence
from math import lcm

from teapot.engine.numbers.common_denominator import MAX_BITS, CommonDenominatorArray
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Measure,
    Real,
    Undefined,
    Value,
    is_missing,
)
from teapot.engine.units.unit import is_angle

LONG = 1000
MOST_KNOWN = 32
"""Long lists of which it is remembered what they are over one denominator."""

_known: OrderedDict[int, tuple[Sequence[Value], CommonDenominatorArray | None]] = OrderedDict()
"""By the identity of the items, which are held so that it stays theirs."""


def kinds_of(items: Sequence[Value]) -> set[type]:
    """The kinds of value that are among the items.

    >>> kinds_of(CommonDenominatorArray([1, 0], 1, frozenset({1}))) == {Exact, Undefined}
    True
    """
    if isinstance(items, MeasureArray):
        kind = Angle if is_angle(items.unit) else Measure
        return {kind if one in (Exact, Real) else one for one in kinds_of(items.numbers)}
    if not isinstance(items, CommonDenominatorArray):
        return {*map(type, items)}
    there: set[type] = {Exact} if len(items.gaps) < len(items) else set()
    return there | {Undefined} if items.gaps else there


def without_missing(items: Sequence[Value]) -> Sequence[Value]:
    """The items that have a value; the same sequence where all have one, which is seen at
    once even of a long one."""
    if isinstance(items, CommonDenominatorArray):
        return items.without_gaps()
    if isinstance(items, MeasureArray):
        numbers = without_missing(items.numbers)
        return items if numbers is items.numbers else MeasureArray(numbers, items.unit)
    if Undefined not in kinds_of(items):
        return items
    return tuple(item for item in items if not is_missing(item))


def taken(items: Sequence[Value], places: Sequence[int]) -> Sequence[Value]:
    """The items at these places, counted from 0."""
    if isinstance(items, CommonDenominatorArray):
        return items.at(places)
    if isinstance(items, MeasureArray):
        return MeasureArray(taken(items.numbers, places), items.unit)
    return tuple([items[place] for place in places])


def scaled(values: Sequence[Value]) -> CommonDenominatorArray | None:
    """The numbers over one denominator, of many measures those of their units; None where one is
    no rational number, or they have none that is small.

    >>> from flint import fmpq
    >>> from teapot.engine.numbers.values import exact
    >>> found = scaled([exact(fmpq(1, 2)), exact(fmpq(1, 5)), exact(3)])
    >>> found.above, found.below
    ([5, 2, 30], 10)
    """
    if isinstance(values, MeasureArray):
        return scaled(values.numbers)
    if isinstance(values, CommonDenominatorArray):
        return None if values.gaps else values
    if not isinstance(values, tuple) or len(values) < LONG:
        return _scaled(values)
    key = id(values)
    if key not in _known:
        _known[key] = values, _scaled(values)
        if len(_known) > MOST_KNOWN:
            _known.popitem(last=False)
    return _known[key][1]


def _scaled(values: Sequence[Value]) -> CommonDenominatorArray | None:
    if {*map(type, values)} - {Exact}:
        return None
    fractions = [(one.coefficient.p, one.coefficient.q) for one in values if not one.pi_power]  # type: ignore[union-attr]
    if len(fractions) != len(values):
        return None
    common = 1
    for below in {int(below) for _, below in fractions}:
        common = lcm(common, below)
        if common.bit_length() > MAX_BITS:
            return None
    if common == 1:
        return CommonDenominatorArray([int(above) for above, _ in fractions], 1)
    return CommonDenominatorArray(
        [int(above) * (common // int(below)) for above, below in fractions], common
    )
