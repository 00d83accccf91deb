"""Rational multiples of powers of e, kept exactly: 3e², −1/e.

Powers of e with different rational exponents are linearly independent over the
rationals (Lindemann and Weierstrass; cited from memory), so that two such numbers are
equal exactly where both parts are.

Each function gives None where a number is no such multiple: the caller then goes on
with intervals.
"""

from __future__ import annotations

from flint import arb, fmpq

from teapot.engine.numbers.values import Bounds, Exact, Multiple, Number, Real, exact

ONE = fmpq(1)
ZERO = exact(0)
POSITIVE = Bounds(fmpq(0), None, strict=True)
NEGATIVE = Bounds(None, fmpq(0), strict=True)

MAX_COEFFICIENT_BITS = 512
MAX_EXPONENT_BITS = 256


def number_of(coefficient: fmpq, exponent: Exact) -> Number | None:
    """``coefficient`` · e^``exponent``."""
    if not coefficient or not exponent.coefficient:
        return exact(coefficient)
    if coefficient == ONE:
        return Real(arb.exp, exponent, power_of_e=(ONE, exponent), bounds=POSITIVE)
    if coefficient.height_bits() > MAX_COEFFICIENT_BITS:
        return None
    return Real(
        lambda ball: ball.exp() * coefficient,
        exponent,
        power_of_e=(coefficient, exponent),
        bounds=POSITIVE if coefficient > 0 else NEGATIVE,
    )


def multiply(a: Number, b: Number) -> Number | None:
    """The product."""
    return _combined(a, b, 1)


def divide(a: Number, b: Number) -> Number | None:
    """The quotient, of a divisor that is not 0."""
    return _combined(a, b, -1)


def add(a: Number, b: Number) -> Number | None:
    """The sum."""
    parts = _parts_of(a, b)
    if parts is None or parts[0][1] != parts[1][1]:
        return None
    (one, exponent), (other, _) = parts
    return number_of(one + other, exponent)


def _combined(a: Number, b: Number, sign: int) -> Number | None:
    parts = _parts_of(a, b)
    if parts is None:
        return None
    (coefficient, exponent), (other, more) = parts
    kept = more if exponent == ZERO else exponent
    if ZERO not in (exponent, more) and exponent.pi_power != more.pi_power:
        return None
    total = exact(exponent.coefficient + sign * more.coefficient, kept.pi_power)
    if total.coefficient.height_bits() > MAX_EXPONENT_BITS:
        return None
    return number_of(coefficient * other if sign > 0 else coefficient / other, total)


def power(a: Number, n: int) -> Number | None:
    """``a`` to a whole power."""
    if not isinstance(a, Real) or a.power_of_e is None:
        return None
    coefficient, exponent = a.power_of_e
    if coefficient != ONE and coefficient.height_bits() * abs(n) > MAX_COEFFICIENT_BITS:
        return None
    raised = ONE if coefficient == ONE else coefficient**n
    return number_of(raised, exact(exponent.coefficient * n, exponent.pi_power))


def _parts_of(a: Number, b: Number) -> tuple[Multiple, Multiple] | None:
    """Both as multiples, where at least one is no mere rational."""
    one, other = _multiple(a), _multiple(b)
    if one is None or other is None or (isinstance(a, Exact) and isinstance(b, Exact)):
        return None
    return one, other


def _multiple(number: Number) -> Multiple | None:
    if isinstance(number, Real):
        return number.power_of_e
    return (number.coefficient, ZERO) if number.is_rational else None
