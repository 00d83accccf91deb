"""A long list in a few figures: what is shown of it before it is looked through."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from teapot.engine.numbers.bulk_sums import floats_of, mean_of, numbers_in
from teapot.engine.numbers.sizes import measure_of
from teapot.engine.numbers.values import Number, Sized, Value

PIECES = 60
"""Stretches of a list that its strip shows, each from its least to its greatest."""

PLACES = 3
"""Decimals of a strip: it is 30 pixels high."""


@dataclass(frozen=True, slots=True)
class Summary:
    """``least``, ``greatest`` and ``mean`` as they are written, each with its sign.

    ``strip`` has for each stretch of the list how far up its least and its greatest item lie
    between those of the whole.
    """

    least: str
    greatest: str
    mean: str
    strip: tuple[tuple[float, float], ...]


def summary_of(items: Sequence[Value], said: Callable[[Value], str]) -> Summary | None:
    """The summary of a list of numbers or of angles; None of others, and where some are too
    large.  ``said`` writes a value."""
    numbers, made = _numbers(items)
    if not numbers:
        return None
    try:
        floats = floats_of(numbers)
    except OverflowError:
        return None
    low, high = min(floats), max(floats)
    if not high - low < float("inf"):
        return None

    def as_written(number: Number) -> str:
        return said(made(number))

    return Summary(
        least=as_written(numbers[floats.index(low)]),
        greatest=as_written(numbers[floats.index(high)]),
        mean=as_written(mean_of(numbers)),
        strip=_strip(floats, low, high),
    )


def _numbers(items: Sequence[Value]) -> tuple[Sequence[Number], Callable[[Number], Value]]:
    """The numbers of a list, of quantities those of the unit of the first, and what makes a value
    of such a number; none where it has others too."""
    numbers, _ = numbers_in(items)
    first = items[0]
    if isinstance(first, Sized):
        unit = first.unit
        return numbers, lambda number: measure_of(number, unit)
    return numbers, lambda number: number


def _strip(floats: list[float], low: float, high: float) -> tuple[tuple[float, float], ...]:
    reach = high - low or 1.0
    count = min(PIECES, len(floats))
    ends = [round(at * len(floats) / count) for at in range(count + 1)]
    stretches = (floats[start:end] for start, end in pairwise(ends))
    return tuple(
        (round((min(part) - low) / reach, PLACES), round((max(part) - low) / reach, PLACES))
        for part in stretches
    )
