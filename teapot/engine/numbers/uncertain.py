"""Measured values: numbers and measures with a standard uncertainty (JCGM 100, the GUM).

What is computed from them carries it on to first order (JCGM 100, 5.2.2).  Each value knows what
each input contributes to it, with its sign: an input that is used twice is counted once, and what
cancels is gone.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import fsum, hypot, isfinite

from flint import fmpq

from teapot.engine.limits import MAX_DIGITS
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers.values import (
    Exact,
    Infinite,
    List,
    Number,
    Real,
    Source,
    Uncertain,
    Undefined,
    Value,
    bare_size,
    exact,
    real,
    with_size,
)
from teapot.engine.sentences.units import (
    NEGATIVE_UNCERTAINTY,
    NO_UNCERTAINTY_HERE,
    UNCERTAINTY_OF_LIST,
)
from teapot.engine.sentences.values import TOO_LARGE

STEP = 1e-9
"""How far beside a value a function is looked at for its slope, in uncertainties: so near that
it is straight there, and so far that the difference is seen."""

GONE = 1e-7
"""A contribution so much smaller than those that it was made of has cancelled."""

BITS = 192
"""Binary digits of what is only needed for an uncertainty."""


def size_of(value: Value) -> Number:
    """The number of coherent units that a measured value is about.

    Errors: :data:`NO_UNCERTAINTY_HERE` for what has no such number.
    """
    size = bare_size(value.nominal if isinstance(value, Uncertain) else value)
    if not isinstance(size, Exact | Real):
        raise NO_UNCERTAINTY_HERE()
    return size


def nearly(number: Number) -> float:
    """About how large a number is.  Errors: :data:`TOO_LARGE` beyond what a float holds."""
    try:
        found = float(number.ball(BITS).mid())
    except OverflowError:
        found = float("inf")
    if not isfinite(found):
        raise TOO_LARGE(limit=MAX_DIGITS)
    return found


def measured(nominal: Value, uncertainty: Number, name: str) -> Value:
    """A value with a standard uncertainty in coherent units; without one where that is 0.

    Errors: :data:`NEGATIVE_UNCERTAINTY`, and as :func:`size_of`.
    """
    size_of(nominal)
    size = nearly(uncertainty)
    if size < 0:
        raise NEGATIVE_UNCERTAINTY()
    return Uncertain(nominal, {Source(name): size}) if size else nominal


def of(value: Uncertain) -> float:
    """Its standard uncertainty, in coherent units."""
    return hypot(*value.parts.values())


def through(compute: Callable[..., Value], *values: Value) -> Value:
    """What a function gives for values of which some are measured.

    Errors: those of the function, and :data:`UNCERTAINTY_OF_LIST` where it gives several values.
    """
    nominals = [one.nominal if isinstance(one, Uncertain) else one for one in values]
    found = compute(*nominals)
    if isinstance(found, Undefined | Infinite | bool):
        return found
    if isinstance(found, List):
        raise UNCERTAINTY_OF_LIST()
    contributions: dict[Source, list[float]] = {}
    for place, value in enumerate(values):
        if not isinstance(value, Uncertain):
            continue
        slope = _slope(compute, nominals, place, of(value))
        for source, part in value.parts.items():
            contributions.setdefault(source, []).append(slope * part)
    parts = {}
    for source, terms in contributions.items():
        total = fsum(terms)
        if abs(total) > GONE * max(map(abs, terms)):
            parts[source] = total
    return Uncertain(found, parts) if parts else found


def _slope(
    compute: Callable[..., Value], nominals: list[Value], place: int, uncertainty: float
) -> float:
    """The partial derivative by one of the values, where the others stay as they are."""
    size = size_of(nominals[place])
    step = exact(_rational(uncertainty * STEP))
    sides = []
    for sign in (arithmetic.add, arithmetic.subtract):
        beside = with_size(nominals[place], real(sign(size, step)))
        sides.append(size_of(compute(*nominals[:place], beside, *nominals[place + 1 :])))
    difference = arithmetic.subtract(*sides)
    return nearly(real(arithmetic.divide(difference, arithmetic.multiply(exact(2), step))))


def _rational(number: float) -> fmpq:
    above, below = number.as_integer_ratio()
    return fmpq(above, below)


@dataclass(frozen=True, slots=True)
class Share:
    """How much of the variance of a value an input has."""

    name: str
    part: float

    @property
    def text(self) -> str:
        """In percent, with two figures.

        >>> Share("l", 0.9996).text, Share("t", 0.0243).text, Share("m", 0.0001).text
        ('100 %', '2.4 %', 'under 0.1 %')
        """
        hundredths = 100 * self.part
        if hundredths < 0.1:
            return "under 0.1 %"
        return f"{hundredths:.{0 if hundredths >= 9.95 else 1 if hundredths >= 0.995 else 2}f} %"


def shares(value: Uncertain) -> list[Share]:
    """The inputs with their shares, the largest first."""
    largest = max(map(abs, value.parts.values()))
    squares = {source: (part / largest) ** 2 for source, part in value.parts.items()}
    whole = fsum(squares.values())
    found = [Share(source.name, square / whole) for source, square in squares.items()]
    return sorted(found, key=lambda one: -one.part)
