"""What many functions share: their values at 0 and at infinity, and their domain."""

from __future__ import annotations

from collections.abc import Callable

from flint import acb, arb

from teapot.engine.errors import LineError
from teapot.engine.numbers import complexes
from teapot.engine.numbers.arithmetic import divide, is_zero, subtract
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.values import (
    Bounds,
    Exact,
    Extended,
    Infinite,
    Plane,
    Real,
    Undefined,
    Value,
    exact,
    undecided,
)
from teapot.engine.sentences.functions import OUTSIDE_DOMAIN
from teapot.engine.sentences.warnings import MISSING_LEFT_OUT

OnReals = Callable[[Extended], Extended]
"""A function of one real number."""

NO_LIMIT = Undefined("The function has no limit there.")


def of_one_real(
    compute: Callable[[arb], arb],
    *,
    at_zero: Extended | None = None,
    at_infinity: Extended = NO_LIMIT,
    at_minus_infinity: Extended = NO_LIMIT,
    bounds: Bounds | None = None,
) -> OnReals:
    """The function of one real number that ``compute`` gives on balls."""

    def function(x: Extended) -> Extended:
        if isinstance(x, Undefined):
            return x
        if isinstance(x, Infinite):
            return at_infinity if x.sign > 0 else at_minus_infinity
        if at_zero is not None and isinstance(x, Exact) and not x.coefficient:
            return at_zero
        return Real(compute, x, bounds=bounds)

    return function


def reciprocal_of(of: OnReals, pole: str) -> OnReals:
    """1 over a function; undefined where that is 0, for the reason ``pole``."""

    def function(x: Extended) -> Extended:
        value = of(x)
        return Undefined(pole) if is_zero(value) else divide(exact(1), value)

    return function


def side_of(x: Exact | Real, bound: int) -> int:
    """−1, 0 or 1: on which side of the whole number ``bound`` a number is.

    Errors: :class:`LineError` where it cannot be decided.
    """
    difference = subtract(x, exact(bound))
    sign = difference.sign()
    if sign is None:
        raise undecided()
    return sign


def outside(what: str) -> LineError:
    """The error for an argument that a function does not take; ``what`` says which."""
    return OUTSIDE_DOMAIN(domain=what)


def whole(x: Value, what: str) -> int:
    """A whole number as an ``int``.  Errors: :class:`LineError` where it is none."""
    if not (isinstance(x, Exact) and x.is_integer):
        raise outside(f"{what} is a whole number.")
    return int(x.coefficient.p)


def is_pole_of_gamma(x: Value) -> bool:
    """Whether ``x`` is 0 or a negative whole number."""
    return isinstance(x, Exact) and x.is_integer and x.coefficient <= 0


def complex_extension(compute: Callable[..., acb]) -> Callable[..., Plane]:
    """The function of complex numbers that ``compute`` gives on balls."""

    def function(*values: Plane) -> Plane:
        return complexes.through(compute, *values)

    return function


def tell_missing(left_out: int, of: int) -> None:
    """Says in a notice how many missing values a statistic leaves out."""
    if left_out:
        were = "value was" if left_out == 1 else "values were"
        notice(MISSING_LEFT_OUT, left_out=left_out, were=were, of=of)
