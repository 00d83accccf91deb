"""Numbers to decimal digits, each digit proved.

A rational is rounded exactly.  A real is computed with more and more precision
until both ends of its interval round to the same digits.  Ties go to the even
neighbour: ISO 80000-1, Annex B, rule A.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flint import arb, fmpq, fmpz

from teapot.engine.limits import FIRST_BITS, LAST_BITS, MAX_DIGITS, MIN_KNOWN
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Exact,
    Number,
    ends_of,
    is_tiny,
    rational_of,
    undecided,
)

TEN = fmpz(10)

MAX_ROUNDED = 20_000
"""Figures before the point of a real number that is rounded to places after it."""

SPARE = 3
"""Digits beyond those wanted that a number has to be known to, where it is called a tie."""


@dataclass(frozen=True, slots=True)
class Decimal:
    """``mantissa`` · 10**``exponent``; ``exact`` where nothing was rounded off.

    ``below`` is set where the number cannot be told from 0: it is smaller than
    10**``below``.
    """

    mantissa: fmpz
    exponent: int
    exact: bool
    below: int | None = None

    @property
    def figures(self) -> str:
        """The digits of the mantissa, without sign and trailing zeros."""
        return (abs(self.mantissa).str() if self.mantissa else "0").rstrip("0") or "0"

    def is_same(self, other: Decimal) -> bool:
        """Whether both show the same digits."""
        return (self.mantissa, self.exponent) == (other.mantissa, other.exponent)

    @property
    def magnitude(self) -> int:
        """The power of ten of the first figure."""
        return len(abs(self.mantissa).str()) - 1 + self.exponent


def magnitude_of(q: fmpq) -> int:
    """The m with 10**m ≤ |``q``| < 10**(m+1), for a ``q`` that is not 0.

    >>> magnitude_of(fmpq(1, 250))
    -3
    >>> magnitude_of(fmpq(999))
    2
    """
    top, bottom = abs(q.p), q.q
    guess = int((top.bit_length() - bottom.bit_length()) * 0.30102999566398)
    while _at_least_power(top, bottom, guess + 1):
        guess += 1
    while not _at_least_power(top, bottom, guess):
        guess -= 1
    return guess


def _at_least_power(top: fmpz, bottom: fmpz, power: int) -> bool:
    if power >= 0:
        return top >= bottom * TEN**power
    return top * TEN**-power >= bottom


def round_at(q: fmpq, place: int) -> tuple[fmpz, bool]:
    """``q`` in whole multiples of 10**``place``, ties to even; whether that is exact.

    >>> round_at(fmpq(5, 2), 0)
    (2, False)
    >>> round_at(fmpq(1234), 2)
    (12, False)
    """
    top, bottom = q.p, q.q
    if place > 0:
        bottom *= TEN**place
    else:
        top *= TEN**-place
    whole, rest = divmod(top, bottom)
    doubled = rest * 2
    if doubled > bottom or (doubled == bottom and whole % 2):
        whole += 1
    return whole, not rest


def significant(number: Number, digits: int) -> Decimal:
    """``number`` correctly rounded to ``digits`` significant digits.

    Where a real number cannot be told from a tie between two such decimals, one
    more digit is given, which can be proved.

    >>> significant(exact(fmpq(2, 3)), 4)
    Decimal(mantissa=6667, exponent=-4, exact=False, below=None)
    >>> significant(exact(1, 1), 6)
    Decimal(mantissa=314159, exponent=-5, exact=False, below=None)
    """

    def rounded(q: fmpq) -> Decimal | None:
        return _round_significant(q, digits) if q else None

    if isinstance(number, Exact) and number.is_rational:
        return _round_significant(number.coefficient, digits)
    if digits <= FEW_DIGITS:
        found = _at_first(number.ball(FIRST_BITS), digits)
        if found is not None:
            return found
    return _proved(number, digits, rounded) or significant(number, digits + 1)


FEW_DIGITS = 25
"""So many the first precision nearly always shows."""

LOG_OF_TWO = 0.30102999566398
HALF = arb(0.5)


def _at_first(ball: arb, digits: int) -> Decimal | None:
    """A real number within ``ball`` rounded to ``digits`` digits, where that is the same
    for every number within; None where it is not, or cannot be told this way."""
    mantissa, exponent = ball.mid().man_exp()
    size = int(exponent) + abs(mantissa).bit_length()
    if not mantissa or ball.is_exact() or abs(size) > LARGEST_AT_FIRST:
        return None
    magnitude = int((size - 1) * LOG_OF_TWO // 1)
    for place in (magnitude - digits + 1, magnitude - digits + 2):
        with precision(FIRST_BITS):
            scaled = ball * TEN**-place if place < 0 else ball / TEN**place
            whole = (scaled + HALF).floor().unique_fmpz()
        if whole is None:
            return None
        if abs(whole) < TEN**digits:
            has_all = abs(whole) >= TEN ** (digits - 1)
            return Decimal(whole, place, False) if has_all else None
    return None


LARGEST_AT_FIRST = 2000
"""Binary digits before or after the point up to which that is tried."""


def to_places(number: Number, places: int) -> Decimal:
    """``number`` correctly rounded to ``places`` digits after the point.

    At what cannot be told from a tie there is one more, as in :func:`significant`.
    Errors: :class:`LineError` where it has more figures than can be known.

    >>> to_places(exact(fmpq(2, 3)), 2)
    Decimal(mantissa=67, exponent=-2, exact=False, below=None)
    """

    def rounded(q: fmpq) -> Decimal:
        mantissa, is_exact = round_at(q, -places)
        return Decimal(mantissa, -places, is_exact)

    if isinstance(number, Exact) and number.is_rational:
        return rounded(number.coefficient)
    digits = max(places + _figures_before_point(number), 0)
    return _proved(number, digits, rounded) or to_places(number, places + 1)


def _figures_before_point(number: Number) -> int:
    with precision(FIRST_BITS):
        largest = rational_of(abs(number.ball(FIRST_BITS)).upper())
    figures = max(magnitude_of(largest) + 1, 0) if largest else 0
    if figures > MAX_ROUNDED:
        raise undecided()
    return figures


def _round_significant(q: fmpq, digits: int) -> Decimal:
    if not q:
        return Decimal(fmpz(0), 0, True)
    place = magnitude_of(q) - digits + 1
    mantissa, is_exact = round_at(q, place)
    if abs(mantissa) == TEN**digits:
        mantissa, place = mantissa // 10, place + 1
    return Decimal(mantissa, place, is_exact)


def _proved(
    number: Number, digits: int, rounded: Callable[[fmpq], Decimal | None]
) -> Decimal | None:
    """What both ends of ``number``'s interval round to, at the first precision at
    which they agree; None at a tie that cannot be decided."""
    wanted = int(digits * 3.33) + 32
    bits = max(FIRST_BITS, wanted)
    last = LAST_BITS + wanted  # what can be shown with few digits can be shown with more
    while True:
        ball = number.ball(bits)
        if is_tiny(ball):
            return Decimal(fmpz(0), 0, False, -MAX_DIGITS)
        low, high = ends_of(ball, bits)
        if low == high == 0:
            return Decimal(fmpz(0), 0, True)
        first, second = rounded(low), rounded(high)
        if first is not None and second is not None and first.is_same(second):
            return Decimal(first.mantissa, first.exponent, False)
        if bits == last:
            break
        bits = min(2 * bits, last)
    if low * high > 0 and (high - low) * TEN ** (digits + SPARE) < min(abs(low), abs(high)):
        return None
    below = magnitude_of(max(abs(low), abs(high))) + 1
    if below > MIN_KNOWN:
        raise undecided()
    return Decimal(fmpz(0), 0, False, below)
