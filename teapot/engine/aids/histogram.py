"""How often the values of a list fall into each of even steps."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from flint import fmpq

from teapot.engine.numbers.arrays import scaled
from teapot.engine.numbers.bulk_sums import floats_of, numbers_in
from teapot.engine.numbers.values import Exact, List, Number
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

FEWEST, MOST = 4, 30
"""Steps of a histogram."""

LEAST_ITEMS = 5
"""Items from which on a list has a histogram."""


@dataclass(frozen=True, slots=True)
class Bin:
    """``count`` values from ``low`` on and below ``high``; of the last, ``high`` too."""

    low: float
    high: float
    count: int


@dataclass(frozen=True, slots=True)
class Histogram:
    """The steps in their order, and how many values there are; the ``unit`` that they count."""

    bins: tuple[Bin, ...]
    count: int
    unit: str = ""


def histogram_of(numbers: Sequence[Number], unit: str = "") -> Histogram | None:
    """The histogram of numbers; None where they are too few, all alike or too far apart.

    A value on the border of two steps belongs to the upper one, exactly where it is exact.
    """
    floats = floats_of(numbers)
    low, high = min(floats), max(floats)
    if len(floats) < LEAST_ITEMS or not 0 < high - low < math.inf:
        return None
    step = _step(low, high, len(floats))
    first = int((fmpq_of(low) / step).floor())
    count = int((fmpq_of(high) / step).floor()) - first + 1
    counts = [0] * count
    for at in _steps_of(numbers, floats, step):
        counts[min(max(at - first, 0), count - 1)] += 1
    if count > FEWEST and fmpq_of(high) == step * (first + count - 1):
        # the greatest lies on a border alone: it belongs to the step below
        last = counts.pop()
        counts[-1] += last
    edges = [float_of(step * (first + at)) for at in range(len(counts) + 1)]
    bins = (Bin(edges[at], edges[at + 1], one) for at, one in enumerate(counts))
    return Histogram(tuple(bins), len(floats), unit)


def _steps_of(numbers: Sequence[Number], floats: list[float], step: fmpq) -> list[int]:
    """In which step each number lies, counted from 0 on."""
    found = scaled(numbers)
    if found is not None:
        factor, bound = int(step.q), found.below * int(step.p)
        return [above * factor // bound for above in found.above]
    return [
        int((_exactly(number, near) / step).floor())
        for number, near in zip(numbers, floats, strict=True)
    ]


def _exactly(number: Number, near: float) -> fmpq:
    is_rational = isinstance(number, Exact) and number.is_rational
    return number.coefficient if is_rational else fmpq_of(near)  # type: ignore[union-attr]


def fmpq_of(number: float) -> fmpq:
    """A float as the fraction that it is."""
    return fmpq(*number.as_integer_ratio())


def float_of(number: fmpq) -> float:
    """The float nearest to a fraction."""
    return int(number.p) / int(number.q)


def _step(low: float, high: float, count: int) -> fmpq:
    """One, two or five times a power of ten, so that there are about as many steps as the
    root of the count."""
    wanted = min(max(math.isqrt(count), FEWEST), MOST)
    least = (high - low) / wanted
    power = fmpq(10) ** math.floor(math.log10(least))
    return next(power * part for part in (1, 2, 5, 10) if float_of(power * part) >= least)


def _numbers(step: Step) -> tuple[Sequence[Number], str]:
    if not isinstance(step.value, List) or len(step.value.items) < LEAST_ITEMS:
        return [], ""
    return numbers_in(step.value.items)


def is_of(step: Step) -> bool:
    """Whether the value of a statement is a list of so many numbers."""
    return bool(_numbers(step)[0])


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Histogram]:
    """The histogram of a list, as its picture gets it."""
    found = histogram_of(*_numbers(step))
    return [] if found is None else [found]
