"""Sine, cosine and tangent of numbers of radians, and their inverses.

At rational multiples of π the values that are rational stay exact.  There are
no others than those of the tables below: Niven's theorem.  Those with square roots
of whole numbers only, at multiples of π/12, π/10 and, for the tangent, π/8, are kept
as such sums, so that reckoning with them stays exact.  So do the sine and the cosine of
an angle that was found from them.
"""

from __future__ import annotations

from collections.abc import Callable

from flint import arb, fmpq

from teapot.engine.limits import MAX_CIRCULAR_BITS, MAX_CIRCULAR_DIGITS
from teapot.engine.numbers.arithmetic import add, divide, is_zero, negate, power, sign_of, subtract
from teapot.engine.numbers.precision import bits_now, precision
from teapot.engine.numbers.radicals import square_roots
from teapot.engine.numbers.values import (
    Bounds,
    Exact,
    Extended,
    Infinite,
    Number,
    Radical,
    Real,
    Undefined,
    exact,
    real,
    undecided,
)
from teapot.engine.sentences.values import ANGLE_TOO_LARGE

HALF = fmpq(1, 2)
WITHIN_ONE = Bounds(fmpq(-1), fmpq(1))
SINES = {
    fmpq(0): fmpq(0), fmpq(1, 6): HALF, fmpq(1, 2): fmpq(1), fmpq(5, 6): HALF,
    fmpq(1): fmpq(0), fmpq(7, 6): -HALF, fmpq(3, 2): fmpq(-1), fmpq(11, 6): -HALF,
}  # fmt: skip
"""sin(πt) for t in [0, 2), where it is rational."""

TANGENTS = {fmpq(0): fmpq(0), fmpq(1, 4): fmpq(1), fmpq(3, 4): fmpq(-1)}
"""tan(πt) for t in [0, 1), where it is rational."""

NO_LIMIT = Undefined("At infinity an angle has no direction, and so no sine, cosine or tangent.")


ROOT_SINES = {
    fmpq(1, 12): square_roots({6: 1, 2: -1}, over=4),
    fmpq(1, 10): square_roots({5: 1, 1: -1}, over=4),
    fmpq(1, 4): square_roots({2: 1}, over=2),
    fmpq(3, 10): square_roots({5: 1, 1: 1}, over=4),
    fmpq(1, 3): square_roots({3: 1}, over=2),
    fmpq(5, 12): square_roots({6: 1, 2: 1}, over=4),
}
"""sin(πt) for t in (0, 1/2), where it has square roots of whole numbers only."""

ROOT_TANGENTS = {
    fmpq(1, 12): square_roots({1: 2, 3: -1}),
    fmpq(1, 8): square_roots({2: 1, 1: -1}),
    fmpq(1, 6): square_roots({3: 1}, over=3),
    fmpq(1, 3): square_roots({3: 1}),
    fmpq(3, 8): square_roots({2: 1, 1: 1}),
    fmpq(5, 12): square_roots({1: 2, 3: 1}),
}
"""tan(πt) for t in (0, 1/2), likewise."""


def _turns_of_pi(x: Extended) -> fmpq | None:
    """t where ``x`` is exactly πt with t rational, else None."""
    if isinstance(x, Exact) and (x.pi_power == 1 or not x.coefficient):
        return x.coefficient
    return None


def circular(compute: Callable[[arb], arb], x: Number) -> Real:
    """``compute`` at ``x``, with so many more digits as ``x`` has before its point:
    they are lost when whole turns are taken off."""
    bounds = None if compute is arb.tan else WITHIN_ONE
    if not isinstance(x, Exact):
        return Real(compute, x, bounds=bounds)
    whole = max(0, abs(x.coefficient.p).bit_length() - x.coefficient.q.bit_length())
    if whole > MAX_CIRCULAR_BITS:
        raise ANGLE_TOO_LARGE(limit=MAX_CIRCULAR_DIGITS)

    def with_more_digits() -> arb:
        more = bits_now() + whole
        with precision(more):
            value = compute(x.ball(more))
        return +value

    return Real(with_more_digits, name=(compute, x), bounds=bounds)


def _sine_of_turns(t: fmpq) -> Exact | Real:
    """sin(πt)."""
    t = _modulo(t, 2)
    value = SINES.get(t)
    if value is not None:
        return exact(value)
    first = _modulo(t, 1)
    root = ROOT_SINES.get(min(first, 1 - first))
    if root is not None:
        return negate(root) if t > 1 else root
    return Real(lambda: arb.sin_pi_fmpq(t), name=("sin π", t), bounds=WITHIN_ONE)


def _known(x: Number) -> tuple[Number, Number] | None:
    """The sine and the cosine of an angle that was made from them."""
    return x.sin_cos() if isinstance(x, Real) and x.sin_cos else None


def _modulo(t: fmpq, period: int) -> fmpq:
    return t - period * (t / period).floor()


def sine(x: Extended) -> Extended:
    """The sine of ``x`` radians.

    >>> sine(exact(fmpq(1, 6), 1))
    Exact(coefficient=1/2, pi_power=0)
    >>> sine(exact(1, 1))
    Exact(coefficient=0, pi_power=0)
    """
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is not None:
        return _sine_of_turns(t)
    known = _known(x)
    return known[0] if known else circular(arb.sin, x)


def cosine(x: Extended) -> Extended:
    """The cosine of ``x`` radians.

    >>> cosine(exact(fmpq(1, 3), 1))
    Exact(coefficient=1/2, pi_power=0)
    """
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is not None:
        return _sine_of_turns(t + HALF)
    known = _known(x)
    return known[1] if known else circular(arb.cos, x)


def tangent(x: Extended) -> Extended:
    """The tangent of ``x`` radians; undefined at odd multiples of π/2.

    >>> tangent(exact(fmpq(1, 4), 1))
    Exact(coefficient=1, pi_power=0)
    >>> isinstance(tangent(exact(fmpq(1, 2), 1)), Undefined)
    True
    """
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is None:
        known = _known(x)
        return divide(*known) if known else circular(arb.tan, x)
    t = _modulo(t, 1)
    if t == HALF:
        return Undefined(
            "The tangent has a pole here: it grows above all bounds from one side "
            "and below them from the other."
        )
    value = TANGENTS.get(t)
    if value is not None:
        return exact(value)
    root = ROOT_TANGENTS.get(min(t, 1 - t))
    if root is not None:
        return negate(root) if t > HALF else root
    return Real(lambda: arb.tan_pi(arb(t)), name=("tan π", t))


def cotangent(x: Extended) -> Extended:
    """The cosine of ``x`` radians over its sine.

    >>> cotangent(exact(fmpq(1, 4), 1))
    Exact(coefficient=1, pi_power=0)
    """
    sin, cos = sine(x), cosine(x)
    if isinstance(sin, Undefined):
        return sin
    if is_zero(sin):
        return Undefined("The cotangent has a pole here.")
    return cos if is_zero(cos) else divide(exact(1), tangent(x))


# -- the inverses --------------------------------------------------------------------


def _where_known(
    number: Extended, rationals: dict[fmpq, fmpq], roots: dict[Radical, fmpq]
) -> fmpq | None:
    """t where ``number`` is a value at πt that the tables hold, else None."""
    if isinstance(number, Real):
        return None if number.radical is None else roots.get(number.radical)
    if isinstance(number, Exact) and number.is_rational:
        return rationals.get(number.coefficient)
    return None


def _both_ways(values: dict[fmpq, Real]) -> dict[Radical, fmpq]:
    """t for each value and, with the other sign, for its negative."""
    both = ((one, s) for t, value in values.items() for one, s in ((value, t), (negate(value), -t)))
    return {one.radical: t for one, t in both if isinstance(one, Real) and one.radical is not None}


ARCSINES = {-fmpq(1): -HALF, -HALF: -fmpq(1, 6), fmpq(0): fmpq(0), HALF: fmpq(1, 6), fmpq(1): HALF}
"""t where sin(πt) is that rational, for t from −1/2 to 1/2."""

ROOT_ARCSINES = _both_ways(ROOT_SINES)

ARCTANGENTS = {-fmpq(1): -fmpq(1, 4), fmpq(0): fmpq(0), fmpq(1): fmpq(1, 4)}
ROOT_ARCTANGENTS = _both_ways(ROOT_TANGENTS)

PI, ZERO, ONE = exact(1, 1), exact(0), exact(1)
HALF_PI = Exact(HALF, 1)


def _other_leg(x: Number) -> Number:
    """The cosine from 0 to 1 that belongs to a sine, or the other way round."""
    return real(power(subtract(ONE, power(x, exact(2))), Exact(HALF)))


def _ray(y: Number, x: Number) -> tuple[Number, Number]:
    """The sine and the cosine of the direction of a point."""
    length = power(add(power(x, exact(2)), power(y, exact(2))), Exact(HALF))
    return real(divide(y, length)), real(divide(x, length))


def arcsine(x: Number) -> Number | None:
    """The number of radians from −π/2 to π/2 whose sine is ``x``; None where there is
    none, for |``x``| > 1.

    >>> arcsine(exact(fmpq(1, 2)))
    Exact(coefficient=1/6, pi_power=1)
    >>> arcsine(exact(2)) is None
    True
    """
    t = _where_known(x, ARCSINES, ROOT_ARCSINES)
    if t is not None:
        return exact(t, 1)
    if not _is_within_one(x):
        return None
    return Real(arb.asin, x, sin_cos=lambda: (x, _other_leg(x)))


def arccosine(x: Number) -> Number | None:
    """The number of radians from 0 to π whose cosine is ``x``; None for |``x``| > 1.

    >>> arccosine(exact(fmpq(1, 2)))
    Exact(coefficient=1/3, pi_power=1)
    """
    t = _where_known(x, ARCSINES, ROOT_ARCSINES)
    if t is not None:
        return exact(HALF - t, 1)
    if not _is_within_one(x):
        return None
    return Real(arb.acos, x, sin_cos=lambda: (_other_leg(x), x))


def _is_within_one(x: Number) -> bool:
    for bound in (1, -1):
        difference = subtract(x, exact(bound))
        sign = difference.sign()
        if sign is None:
            raise undecided()
        if sign * bound > 0:
            return False
    return True


def arctangent(x: Number | Infinite) -> Number:
    """The number of radians from −π/2 to π/2 whose tangent is ``x``.

    >>> arctangent(exact(1))
    Exact(coefficient=1/4, pi_power=1)
    >>> arctangent(Infinite(-1))
    Exact(coefficient=-1/2, pi_power=1)
    """
    if isinstance(x, Infinite):
        return Exact(HALF * x.sign, 1)
    t = _where_known(x, ARCTANGENTS, ROOT_ARCTANGENTS)
    if t is not None:
        return exact(t, 1)
    return Real(arb.atan, x, sin_cos=lambda: _ray(x, ONE))


def direction(y: Number, x: Number) -> Number | Undefined:
    """The number of radians, above −π and up to π, of the ray from the origin to the
    point (``x``, ``y``): the quadrant is that of the point.

    >>> direction(exact(-1), exact(-1))
    Exact(coefficient=-3/4, pi_power=1)
    """
    if is_zero(x) and is_zero(y):
        return Undefined("From the origin to itself there is no direction.")
    if is_zero(y):
        return ZERO if sign_of(x) > 0 else PI
    if is_zero(x):
        return Exact(HALF * sign_of(y), 1)
    t = _where_known(divide(y, x), ARCTANGENTS, ROOT_ARCTANGENTS)
    if t is not None:
        return exact(t if sign_of(x) > 0 else t + sign_of(y), 1)
    sign_of(y)
    return Real(arb.atan2, y, x, sin_cos=lambda: _ray(y, x))
