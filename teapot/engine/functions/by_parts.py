"""Circular and hyperbolic functions of a + ib through real functions of a and b.

Where one of the parts is exactly 0, as that of cos(π/2 + ib) is, it is found to be so.
The formulas are those of NIST DLMF 4.21 and 4.35 (from memory).
"""

from __future__ import annotations

from collections.abc import Callable

from flint import acb

from teapot.engine.errors import LineError
from teapot.engine.functions.helpers import OnReals
from teapot.engine.numbers import complexes
from teapot.engine.numbers.arithmetic import add, divide, is_zero, multiply, negate, subtract
from teapot.engine.numbers.circular import cosine, sine
from teapot.engine.numbers.values import Extended, Number, Plane, Undefined, exact
from teapot.engine.sentences.values import TOO_LARGE, UNDECIDED

OfParts = Callable[[Number, Number], Plane]
"""A function of the two parts of a complex number."""

OnPlane = Callable[[Plane], Plane]
"""A function of one complex number."""

ONE, TWO = exact(1), exact(2)


def of_parts(elsewhere: Callable[[acb], acb], compute: OfParts) -> OnPlane:
    """The function of a complex number that ``compute`` gives from its two parts; on
    complex balls as ``elsewhere`` where its steps would be too large on the way."""

    def function(z: Plane) -> Plane:
        try:
            return compute(*complexes.parts(z))
        except LineError as error:
            if not error.is_a(TOO_LARGE, UNDECIDED):
                raise
        return complexes.through(elsewhere, z)

    return function


def sine_with(sinh: OnReals, cosh: OnReals) -> OfParts:
    """sin(a + ib) = sin a cosh b + i cos a sinh b."""
    return lambda a, b: complexes.complex_of(
        multiply(sine(a), cosh(b)), multiply(cosine(a), sinh(b))
    )


def cosine_with(sinh: OnReals, cosh: OnReals) -> OfParts:
    """cos(a + ib) = cos a cosh b − i sin a sinh b."""
    return lambda a, b: complexes.complex_of(
        multiply(cosine(a), cosh(b)), negate(multiply(sine(a), sinh(b)))
    )


def tangent_with(sinh: OnReals, cosh: OnReals) -> OfParts:
    """tan(a + ib) = (sin 2a + i sinh 2b) / (cos 2a + cosh 2b)."""

    def tangent(a: Number, b: Number) -> Plane:
        two_a, two_b = multiply(TWO, a), multiply(TWO, b)
        below = add(cosine(two_a), cosh(two_b))
        return _over(sine(two_a), sinh(two_b), below)

    return tangent


def cotangent_with(sinh: OnReals, cosh: OnReals) -> OfParts:
    """cot(a + ib) = (sin 2a − i sinh 2b) / (cosh 2b − cos 2a)."""

    def cotangent(a: Number, b: Number) -> Plane:
        two_a, two_b = multiply(TWO, a), multiply(TWO, b)
        below = subtract(cosh(two_b), cosine(two_a))
        return _over(sine(two_a), negate(sinh(two_b)), below)

    return cotangent


def turned(of: OfParts, back: int) -> OfParts:
    """The hyperbolic function from the circular one: f(z) = g(iz), times i or −i where
    ``back`` is 1 or −1, as it is where it is 0."""

    def function(a: Number, b: Number) -> Plane:
        value = of(negate(b), a)
        if not back or isinstance(value, Undefined):
            return value
        re, im = complexes.parts(value)
        return complexes.complex_of(*((negate(im), re) if back > 0 else (im, negate(re))))

    return function


def one_over(of: OfParts, pole: str) -> OfParts:
    """1 over the function; undefined, for the reason ``pole``, where that is 0."""

    def function(a: Number, b: Number) -> Plane:
        value = of(a, b)
        if isinstance(value, Undefined):
            return value
        return Undefined(pole) if is_zero(value) else complexes.operate("/", ONE, value)

    return function


def _over(re: Extended, im: Extended, below: Extended) -> Plane:
    if is_zero(below):
        return Undefined("There is a pole here.")
    return complexes.complex_of(divide(re, below), divide(im, below))
