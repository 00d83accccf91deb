"""How much of the variance of a measured value each input has (JCGM 100, 5.1.2)."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.numbers import uncertain
from teapot.engine.numbers.uncertain import Share
from teapot.engine.numbers.values import List, Uncertain, Value
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

MOST_BARS = 12
"""Inputs that have a bar each; those with less have one together."""

MOST_VALUES = 6
"""Values of a list of which it is shown."""


@dataclass(frozen=True, slots=True)
class Shares:
    """The inputs, the one with the largest share first; those with the least together."""

    bars: tuple[Share, ...]


def shares_of(value: Uncertain) -> Shares | None:
    """The shares of a value; None where it has a single input."""
    found = uncertain.shares(value)
    if len(found) < 2:
        return None
    if len(found) <= MOST_BARS:
        return Shares(tuple(found))
    bars, rest = found[: MOST_BARS - 1], found[MOST_BARS - 1 :]
    together = Share(f"{len(rest)} others", sum(one.part for one in rest))
    return Shares((*bars, together))


def _values(value: Value | None) -> list[Uncertain]:
    items = value.items[:MOST_VALUES] if isinstance(value, List) else (value,)
    return [one for one in items if isinstance(one, Uncertain)]


def is_of(step: Step) -> bool:
    """Whether what a statement gives has an uncertainty."""
    return any(len(uncertain.sources_of(one)) > 1 for one in _values(step.value))


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Shares]:
    """The shares of a statement's value, or of the first of its values, as their picture gets
    them."""
    found = (shares_of(one) for one in _values(step.value))
    return [one for one in found if one is not None]
