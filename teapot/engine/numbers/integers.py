"""Quotient and remainder: ``a = b·(a div b) + (a mod b)``."""

from __future__ import annotations

from flint import fmpq, fmpz

from teapot.engine.limits import FIRST_BITS, LAST_BITS, MAX_DIGITS
from teapot.engine.numbers.arithmetic import divide, is_zero, multiply, subtract
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Exact,
    Extended,
    Infinite,
    Real,
    Undefined,
    exact,
    undecided,
)
from teapot.engine.sentences.values import DIVISION_BY_ZERO, FACTORIAL_DOMAIN, FACTORIAL_TOO_LARGE


def floor_of(a: Extended) -> Extended:
    """The largest whole number that is not above ``a``.

    >>> floor_of(exact(fmpq(-5, 2)))
    Exact(coefficient=-3, pi_power=0)
    """
    if isinstance(a, Exact) and a.is_rational:
        return exact(fmpq(a.coefficient.floor()))
    if not isinstance(a, Exact | Real):
        return a
    bits = FIRST_BITS
    while bits <= LAST_BITS:
        with precision(bits):
            whole = a.ball(bits).floor().unique_fmpz()
        if whole is not None:
            return exact(fmpq(whole))
        bits *= 2
    raise undecided()


def div(a: Extended, b: Extended) -> Extended:
    """The quotient rounded towards −∞.

    >>> div(exact(-7), exact(2))
    Exact(coefficient=-4, pi_power=0)
    """
    _refuse_zero(b)
    return floor_of(divide(a, b))


def mod(a: Extended, b: Extended) -> Extended:
    """The remainder of :func:`div`; it has the sign of ``b``.

    >>> mod(exact(-7), exact(2))
    Exact(coefficient=1, pi_power=0)
    """
    _refuse_zero(b)
    if isinstance(a, Infinite):
        return Undefined("∞ has no remainder.")
    return subtract(a, multiply(b, floor_of(divide(a, b))))


def _refuse_zero(b: Extended) -> None:
    if is_zero(b):
        raise DIVISION_BY_ZERO()


MAX_FACTORIAL = 205_022
"""The largest n whose factorial has no more digits than the limit of size."""


def factorial(n: Extended) -> Extended:
    """n!, the product of the whole numbers from 1 to n.

    Errors: :class:`LineError` where n is not whole, negative, or above the limit.

    >>> factorial(exact(5))
    Exact(coefficient=120, pi_power=0)
    """
    if (isinstance(n, Infinite) and n.sign > 0) or isinstance(n, Undefined):
        return n
    if not (isinstance(n, Exact) and n.is_integer) or n.coefficient < 0:
        raise FACTORIAL_DOMAIN()
    if n.coefficient > MAX_FACTORIAL:
        raise FACTORIAL_TOO_LARGE(limit=MAX_DIGITS, last=MAX_FACTORIAL)
    return exact(fmpq(fmpz.fac_ui(n.coefficient.p)))
