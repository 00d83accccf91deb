"""Functions on the two axes of the complex plane, where one part of their value is known.

An odd function that is real for real arguments is imaginary for imaginary ones, an even
one real; beyond the domain of an inverse function one part is a multiple of π/2.  Worked
out through the real functions, that part is exact and the other has digits of its own.
The values on the cuts are those of NIST DLMF 4.23 and 4.37, as mpmath has them: those of
the side from which the cut is reached counter-clockwise around its end (from memory).
"""

from __future__ import annotations

from collections.abc import Callable

from flint import acb, fmpq

from teapot.engine.functions.by_parts import OnPlane
from teapot.engine.functions.helpers import OnReals
from teapot.engine.numbers import complexes
from teapot.engine.numbers.arithmetic import abs_of, divide, negate, sign_of, subtract
from teapot.engine.numbers.circular import HALF_PI, PI, arccosine, arctangent
from teapot.engine.numbers.values import (
    Complex,
    Extended,
    Infinite,
    Number,
    Plane,
    Undefined,
    exact,
    real,
)

ZERO, ONE = exact(0), exact(1)

OnAxis = Callable[[Number], Plane]
"""A function of a number on one of the axes."""


def of_plane(
    elsewhere: Callable[[acb], acb],
    on_reals: OnAxis | None = None,
    on_imaginary: OnAxis | None = None,
) -> OnPlane:
    """The function that ``elsewhere`` gives on complex balls, ``on_reals`` for a number
    on the real axis, and ``on_imaginary`` for y where the number is iy."""

    def function(z: Plane) -> Plane:
        re, im = complexes.parts(z)
        if not isinstance(z, Complex) and on_reals is not None:
            return on_reals(re)
        if isinstance(z, Complex) and re == ZERO and on_imaginary is not None:
            return on_imaginary(im)
        return complexes.through(elsewhere, z)

    return function


def times_i(value: Extended) -> Plane:
    """The value times i; that of a pole stays what it is."""
    if isinstance(value, Undefined):
        return value
    if isinstance(value, Infinite):
        return Undefined("There is a pole here: it grows beyond all bounds.")
    return complexes.complex_of(ZERO, value)


def odd(real: OnReals, sign: int = 1) -> OnAxis:
    """The values at iy of a function that is ``sign`` · i times ``real`` there."""
    return lambda y: times_i(real(y) if sign > 0 else _negative(real(y)))


def _negative(value: Extended) -> Extended:
    return value if isinstance(value, Undefined) else negate(value)


# -- inverse functions beyond their real domain ------------------------------------------


def is_beyond_one(x: Number) -> bool:
    """Whether |x| > 1."""
    return sign_of(subtract(abs_of(x), ONE)) > 0


def arcsine(x: Number, arcosh: OnReals) -> Plane:
    """arcsin(x) for |x| > 1: ±(π/2 − i·arcosh|x|)."""
    size = arcosh(abs_of(x))
    if sign_of(x) > 0:
        return complexes.complex_of(HALF_PI, negate(size))
    return complexes.complex_of(negate(HALF_PI), size)


def arccosine_beyond(x: Number, arcosh: OnReals) -> Plane:
    """arccos(x) for |x| > 1: π/2 less the arcsine."""
    size = arcosh(abs_of(x))
    if sign_of(x) > 0:
        return times_i(size)
    return complexes.complex_of(PI, negate(size))


def arctangent_of_imaginary(y: Number, artanh: OnReals) -> Plane:
    """arctan(iy): imaginary up to the poles at ±i; beyond them with the real part ±π/2."""
    side = sign_of(subtract(abs_of(y), ONE))
    if side == 0:
        return Undefined("The arctangent has its poles at i and −i.")
    if side < 0:
        return times_i(artanh(y))
    half = HALF_PI if sign_of(y) > 0 else negate(HALF_PI)
    return complexes.complex_of(half, artanh(divide(ONE, y)))


def arcosh_of_real(x: Number, arcosh: OnReals) -> Plane:
    """arcosh(x) for x < 1: i·arccos(x) from −1 on, below that arcosh|x| + iπ."""
    if is_beyond_one(x):
        return complexes.complex_of(arcosh(abs_of(x)), PI)
    return times_i(real(arccosine(x)))


def arcosh_of_imaginary(y: Number, arsinh: OnReals) -> Plane:
    """arcosh(iy): its imaginary part is ±π/2."""
    half = HALF_PI if sign_of(y) > 0 else negate(HALF_PI)
    return complexes.complex_of(arsinh(abs_of(y)), half)


def arsinh_of_imaginary(y: Number, arcsin: OnReals, arcosh: OnReals) -> Plane:
    """arsinh(iy): i·arcsin(y) up to ±i; beyond, with the imaginary part ±π/2."""
    if not is_beyond_one(y):
        return times_i(arcsin(y))
    size = arcosh(abs_of(y))
    if sign_of(y) > 0:
        return complexes.complex_of(size, HALF_PI)
    return complexes.complex_of(negate(size), negate(HALF_PI))


def artanh_of_real(x: Number, artanh: OnReals) -> Plane:
    """artanh(x) for |x| > 1: artanh(1/x) ∓ iπ/2."""
    half = negate(HALF_PI) if sign_of(x) > 0 else HALF_PI
    return complexes.complex_of(artanh(divide(ONE, x)), half)


def artanh_of_imaginary(y: Number) -> Plane:
    """artanh(iy) = i·arctan(y)."""
    return times_i(arctangent(y))


def inverse_of(value: Plane, function: str, of: Plane) -> Plane:
    """The value with a note of the function whose inverse it is, and of what."""
    if isinstance(value, Complex):
        return Complex(value.re, value.im, (function, of))
    return value


HALF_TURN_OF_I = complexes.complex_of(ZERO, exact(fmpq(1, 2), 1))
"""iπ/2."""
