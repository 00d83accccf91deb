"""Roots and powers that stay exact."""

from __future__ import annotations

from flint import arb, fmpq, fmpz

from teapot.engine.limits import FIRST_BITS, MAX_BITS
from teapot.engine.numbers.precision import precision

MAX_LOG_BOTTOM = 64
"""The largest denominator of a logarithm that is looked for."""

CLOSE = arb(2) ** -80
"""Nearer than this to a quotient of logarithms, a fraction is tried exactly."""

MAX_ROOT = 10_000
"""The highest root looked for among the rationals."""


def perfect_root(number: fmpq, degree: int) -> fmpq | None:
    """The rational root of that degree of a ``number`` ≥ 0, None where there is none.

    >>> perfect_root(fmpq(8, 27), 3)
    2/3
    >>> perfect_root(fmpq(2), 2) is None
    True
    """
    if degree > MAX_ROOT:
        return number if number in (0, 1) else None
    top = _integer_root(number.p, degree)
    if top is None:
        return None
    bottom = _integer_root(number.q, degree)
    return None if bottom is None else fmpq(top, bottom)


def _integer_root(number: fmpz, degree: int) -> fmpz | None:
    root = number.root(degree) if number > 1 else number
    return root if root**degree == number else None


def rational_log(number: fmpq, base: fmpq) -> fmpq | None:
    """The rational r with ``base``**r = ``number``, None where there is none.

    Both are positive and ``base`` is not 1.  If r = m/n in lowest terms, then
    ``base`` is an n-th power, so n is at most its length in binary digits: the
    quotient of the logarithms is tried against the fractions with such an n.

    >>> rational_log(fmpq(8), fmpq(4))
    3/2
    >>> rational_log(fmpq(3), fmpq(2)) is None
    True
    """
    with precision(FIRST_BITS):
        ratio = (arb(number).log() / arb(base).log()).mid()
        for bottom in range(1, base.height_bits() + 1):
            if bottom > MAX_LOG_BOTTOM:
                return None
            top = (ratio * bottom + arb(0.5)).floor().unique_fmpz()
            if top is None or abs(arb(top) / bottom - ratio) > CLOSE:
                continue
            if abs(int(top)) * base.height_bits() > MAX_BITS:
                return None
            return fmpq(top, bottom) if base ** int(top) == number**bottom else None
        return None
