"""Ranges, and the sum of many values."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from teapot.engine.limits import MAX_ITEMS
from teapot.engine.mends import counted
from teapot.engine.numbers import operators, sizes
from teapot.engine.numbers.bulk_sums import are_many, sum_of_many
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.values import Exact, Infinite, List, Scalar, Undefined, Value, exact
from teapot.engine.sentences.values import ENDLESS_RANGE, NO_STEP, RANGE_TOO_LONG, STEP_AWAY


def stepped(start: Value, stop: Value, step: Value | None) -> List:
    """``start .. stop by step``: both ends included where the steps meet the last.

    The step is 1 where it is None; downwards it is −1.  Errors: :class:`LineError`
    for ends that are not finite, a step that is 0 or leads away, too many items.

    >>> [int(one.coefficient) for one in stepped(exact(1), exact(7), exact(3)).items]
    [1, 4, 7]
    """
    for end in (start, stop, step):
        if isinstance(end, Infinite | Undefined):
            raise ENDLESS_RANGE()
    span = operators.operate("-", stop, start)
    if step is None:
        step = operators.same_kind(exact(-1 if operators.sign_of(span) < 0 else 1), span)
    if operators.sign_of(step) == 0:
        raise NO_STEP()
    count = operators.operate("div", span, step)
    if not isinstance(count, Exact) or count.coefficient < 0:
        raise STEP_AWAY()
    if count.coefficient >= MAX_ITEMS:
        raise RANGE_TOO_LONG(count=counted(count.coefficient.p + 1), limit=MAX_ITEMS)
    numbers = range(int(count.coefficient.p) + 1)
    if isinstance(start, Exact) and isinstance(step, Exact) and start.pi_power == step.pi_power:
        first, further, power = start.coefficient, step.coefficient, start.pi_power
        return List(tuple(exact(first + further * at, power) for at in numbers))
    places = (exact(place) for place in numbers)
    return List(
        tuple(operators.operate("+", start, operators.operate("*", step, at)) for at in places)
    )


def total(values: Sequence[Value]) -> Value:
    """The sum of the values; of none it is 0.

    >>> total((exact(1), exact(2)))
    Exact(coefficient=3, pi_power=0)
    """
    if are_many(values):
        return sum_of_many(values)
    if isinstance(values, MeasureArray) and len(values) and not values.is_on_scale:
        return sizes.measure_of(cast(Scalar, total(values.numbers)), values.unit)
    result: Value = exact(0)
    for place, value in enumerate(values):
        result = value if not place else operators.operate("+", result, value)
    return result
