"""All zeros of a term in an interval: each part of it is proved to hold none, or exactly one, or is
told as undecided (interval Newton with subdivision; R. E. Moore, R. B. Kearfott, M. J. Cloud,
Introduction to Interval Analysis, SIAM 2009, chapter 8)."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from typing import cast

from flint import arb, arb_series, ctx, fmpq

from teapot.engine.analysis.rings import (
    QUOTIENTS,
    NotReal,
    Nowhere,
    Quotient,
    whole_power,
    worked_out,
)
from teapot.engine.analysis.terms import Term
from teapot.engine.errors import LineError
from teapot.engine.numbers.precision import precision, series_length
from teapot.engine.numbers.values import Number, Real, rational_of

BITS = 192
"""Binary digits with which zeros are told apart: three times those of the narrowest part, so that a
double zero is narrowed down too."""

MOST_PARTS = 60_000
NARROWEST = 60
"""A part of 2^−60 of the interval is told as undecided."""

LENGTH = 8
"""Terms of a power series by which an enclosure is made narrower."""

ASIDE = fmpq(487, 1000)
"""Where a part is split: not in its middle, where a zero of a textbook is."""


@dataclass(slots=True)
class Zeros:
    """What was found: for each zero an interval that holds it and no other, and the parts in which
    it is not decided whether there is one; whether there were parts in which the term ``is_real``
    nowhere, which are left out; and the widest part that is ``flat``: the term is 0 all
    over it."""

    found: list[tuple[fmpq, fmpq]] = field(default_factory=list)
    undecided: list[tuple[fmpq, fmpq]] = field(default_factory=list)
    flat: tuple[fmpq, fmpq] | None = None
    is_real: bool = True


@dataclass(frozen=True, slots=True)
class Enclosure:
    """A term and its derivative over an interval: what stands above in it, and below."""

    value: arb
    slope: arb
    below: arb


class Search:
    """Looks for the zeros of a term in a name."""

    def __init__(self, term: Term, name: str) -> None:
        self.term = term
        self.name = name

    def between(
        self,
        low: fmpq,
        high: fmpq,
        known: frozenset[fmpq] = frozenset(),
        most: int = MOST_PARTS,
        narrowest: int = NARROWEST,
    ) -> Zeros:
        """The zeros between two ends; at the ``known`` ones it is known that one is.  So many
        parts are looked at ``most``, down to 2^−``narrowest`` of the whole."""
        zeros = Zeros()
        least = abs(high - low) / fmpq(2) ** narrowest
        waiting = deque([(low, high)])  # the widest first
        count = 0
        with precision(BITS):
            while waiting:
                count += 1
                if count > most:
                    zeros.undecided += waiting
                    break
                a, b = waiting.popleft()
                try:
                    way = self._decide(a, b, known, zeros)
                except Nowhere:
                    zeros.is_real = False
                    continue
                if way is None:
                    continue
                if way[1] - way[0] <= least:  # at an end, where it does not change its sign
                    zeros.undecided.append(way)
                    continue
                if (way[1] - way[0]) * 2 < b - a:
                    waiting.append(way)
                    continue
                middle = a + (b - a) * ASIDE
                middle = _short(middle)
                waiting += [(a, middle), (middle, b)]
        zeros.found.sort()
        zeros.undecided = _joined(sorted(zeros.undecided))
        return zeros

    def _decide(
        self, a: fmpq, b: fmpq, known: frozenset[fmpq], zeros: Zeros
    ) -> tuple[fmpq, fmpq] | None:
        """None where it is decided what a part holds; else the part of it that is left."""
        ball = _ball(a, b)
        over = self.enclosure(ball)
        if over is None:
            return a, b
        if over.value.is_zero() and over.slope.is_zero():
            zeros.flat = max(zeros.flat or (a, a), (a, b), key=lambda part: part[1] - part[0])
            return None
        if over.value.contains(0) and over.slope.contains(0):
            over = self.closer(ball, over)
        if over.value.is_finite() and not over.value.contains(0):
            return None
        for end in (a, b):
            if end in known and self._is_alone(end, ball):
                return None
        if not over.slope.is_finite() or over.slope.contains(0):
            return a, b
        # from here on the term rises or falls all through the part: there is one zero at most
        if a in known or b in known:
            return None
        signs = [self.sign(end) for end in (a, b)]
        if 0 not in signs:
            if signs[0] == signs[1]:
                return None
            if self._has_no_value(ball):
                return a, b
            zeros.found.append((a, b))
            return None
        return self._narrowed(a, b, over)

    def _has_no_value(self, ball: arb) -> bool:
        """Whether what stands below may be 0 in all of a part, to the last."""
        over = self.enclosure(ball)
        return over is None or (over.below.contains(0) and over.below.rad().is_zero())

    def _narrowed(self, a: fmpq, b: fmpq, over: Enclosure) -> tuple[fmpq, fmpq] | None:
        middle = (a + b) / 2
        at = self.enclosure(arb(middle))
        if at is None or not at.value.is_finite():
            return a, b
        newton = arb(middle) - at.value / over.slope
        if not newton.is_finite():
            return a, b
        ball = _ball(a, b)
        if not newton.overlaps(ball):
            return None
        low, high = _end(newton.lower(), -1), _end(newton.upper(), 1)
        return max(a, low), min(b, high)

    def enclosure(self, ball: arb) -> Enclosure | None:
        """The term over a ball; None where it cannot be worked out there."""
        found = self.series(ball, 2)
        if found is None:
            return None
        above = found.above
        if not isinstance(above, arb_series):
            return Enclosure(arb(above), arb(0), _first(found.below))
        return Enclosure(above[0], above[1], _first(found.below))

    def series(self, ball: arb, length: int) -> Quotient | None:
        """The power series of the term about each place of a ball."""
        given = {self.name: Quotient(arb_series([ball, 1]))}
        with suppress(ZeroDivisionError, ValueError, NotReal), series_length(length):
            return cast(Quotient, worked_out(self.term, QUOTIENTS, given))
        return None

    def closer(self, ball: arb, over: Enclosure) -> Enclosure:
        """A narrower enclosure, by Taylor's formula about the middle of the ball."""
        middle, last = ball.mid(), LENGTH - 1
        rest = self.series(ball, LENGTH)
        within = None if rest is None else rest.above
        if not isinstance(within, arb_series) or not within[last].is_finite():
            return over
        here = self.series(middle, LENGTH)
        about = None if here is None else here.above
        if not isinstance(about, arb_series):
            return over
        step = ball - middle
        value = within[last] * whole_power(step, last)
        slope = within[last] * last * whole_power(step, last - 1)
        for power in range(last):
            value += about[power] * whole_power(step, power)
            if power:
                slope += about[power] * power * whole_power(step, power - 1)
        return Enclosure(_both(value, over.value), _both(slope, over.slope), over.below)

    def _is_alone(self, zero: fmpq, ball: arb) -> bool:
        """Whether a known zero is the only one in a ball: the term is (x − zero)^k times what is
        not 0 there."""
        here, within = self.series(arb(zero), LENGTH), self.series(ball, LENGTH)
        if here is None or within is None or not arb(zero).is_exact():
            return False
        about, rest = here.above, within.above
        if not (isinstance(about, arb_series) and isinstance(rest, arb_series)):
            return False
        times = next((k for k in range(LENGTH) if not about[k].is_zero()), None)
        return bool(times and rest[times].is_finite() and not rest[times].contains(0))

    def sign(self, at: fmpq) -> int:
        """The sign of what stands above at a place; 0 where it is not told."""
        found: Enclosure | None = None
        for bits in (BITS, 4 * BITS):
            with precision(bits), suppress(Nowhere):
                found = self.enclosure(arb(at))
            if found is not None and found.value > 0:
                return 1
            if found is not None and found.value < 0:
                return -1
        return 0

    def number(self, low: fmpq, high: fmpq) -> Number:
        """The zero in an interval that holds one, as a number."""
        return Real(self._refiner(low, high))

    def _refiner(self, low: fmpq, high: fmpq) -> Callable[[], arb]:
        """Gives the zero for as many digits as FLINT computes with."""
        sign = self.sign(low)

        def refined() -> arb:
            a, b = low, high
            wanted = fmpq(2) ** -(ctx.prec + 4)
            bits = ctx.prec
            with precision(2 * bits + 64):
                while True:
                    width = b - a
                    if width <= wanted * max(abs(a), abs(b), fmpq(1, 2**40)):
                        break
                    a, b = self._step(a, b, sign, bits)
                    if b - a >= width:
                        break
            return _ball(a, b)

        return refined

    def _step(self, a: fmpq, b: fmpq, sign: int, bits: int) -> tuple[fmpq, fmpq]:
        """A narrower interval that holds the zero: by Newton, or by half."""
        over = self.enclosure(_ball(a, b))
        middle = _short((a + b) / 2, 2 * bits + 32)
        at = self.enclosure(arb(middle))
        if over is not None and at is not None:
            newton = arb(middle) - at.value / over.slope
            if newton.is_finite():
                low = max(a, _short(_end(newton.lower(), -1), 2 * bits + 32, down=True))
                high = min(b, _short(_end(newton.upper(), 1), 2 * bits + 32, down=False))
                if low <= high and (high - low) * 2 < b - a:
                    return low, high
        there = self.sign(middle)
        if there == 0:
            return middle, middle
        return (middle, b) if there == sign else (a, middle)


def _end(of: arb, way: int) -> fmpq:
    """An end of a ball as a fraction, or one beyond it where that is too near to 0."""
    try:
        return rational_of(of)
    except LineError:
        return fmpq(way) / fmpq(2) ** TINY


TINY = 2000
"""Binary digits after the point beyond which a place is next to 0."""


def _both(a: arb, b: arb) -> arb:
    """What lies in both of two balls, of which each holds the same."""
    if not a.is_finite():
        return b
    return a.intersection(b) if b.is_finite() else a


def _first(below: object) -> arb:
    return below[0] if isinstance(below, arb_series) else arb(cast(arb, below))


def _ball(a: fmpq, b: fmpq) -> arb:
    return arb(a).union(arb(b))


def _short(place: fmpq, bits: int = 80, down: bool = True) -> fmpq:
    """A place rounded to so many binary digits, so that fractions do not grow."""
    size = max(abs(int(place.p)).bit_length() - int(place.q).bit_length(), -bits)
    scale = fmpq(2) ** (bits - size)
    scaled = place * scale
    whole = int(scaled.p) // int(scaled.q)
    return fmpq(whole if down or scaled.q == 1 else whole + 1) / scale


def _joined(parts: list[tuple[fmpq, fmpq]]) -> list[tuple[fmpq, fmpq]]:
    """Parts that touch as one."""
    made: list[tuple[fmpq, fmpq]] = []
    for a, b in parts:
        if made and a <= made[-1][1]:
            made[-1] = made[-1][0], max(b, made[-1][1])
        else:
            made.append((a, b))
    return made
