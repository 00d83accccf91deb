"""Roots, powers and the absolute value."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, reduce
from typing import cast

from flint import fmpq

from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.helpers import outside, whole
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import complexes, measures, operators, radicals, sizes
from teapot.engine.numbers.arithmetic import (
    exp_of,
    negate,
    not_real,
    power,
    sign_of,
)
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Extended,
    Measure,
    Plane,
    Real,
    Undefined,
    Value,
    bare_size,
    exact,
    with_size,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import TAKES_REALS_ONLY

SUBJECT = "roots and powers"
HALF = exact(fmpq(1, 2))


def square_root(x: Extended) -> Extended:
    """The number ≥ 0 whose square is ``x``; exact where it is rational.

    Errors: :class:`LineError` for a negative ``x``.
    """
    found = radicals.square_root(x) if isinstance(x, Exact) else None
    if found is not None:
        return found
    if isinstance(x, Exact | Real) and sign_of(x) < 0:
        raise not_real("The square root of a negative number")
    return power(x, HALF)


def absolute(x: Plane | Angle | Measure) -> Value:
    """``x`` without its sign; of a complex number its distance from 0."""
    measures.refuse_scales("taken without its sign", x)
    return with_size(x, complexes.modulus(cast(Plane, bare_size(x))))


def nth_root(x: Extended, n: Value) -> Extended:
    """The real ``n``-th root of ``x``: of a negative ``x`` for odd ``n`` only.

    Errors: :class:`LineError` where ``n`` is no whole number above 0, or ``x`` is
    negative and ``n`` even.
    """
    degree = whole(n, "The degree of a root")
    if degree < 1:
        raise outside("The degree of a root is 1 or more.")
    if isinstance(x, Undefined):
        return x
    if sign_of(x) >= 0:
        return power(x, exact(fmpq(1, degree)))
    if degree % 2 == 0:
        raise not_real("An even root of a negative number")
    return negate(power(negate(x), exact(fmpq(1, degree))))


def cube_root(x: Extended) -> Extended:
    """The real number whose cube is ``x``."""
    return nth_root(x, exact(3))


def hypotenuse(*sides: Extended | Measure) -> Value:
    """The root of the sum of the squares."""
    squares = [operators.operate("^", side, exact(2)) for side in sides]
    return root_of(reduce(partial(operators.operate, "+"), squares))


def root_of(value: Value) -> Value:
    """The square root, of a measure too."""
    return _SQUARE_ROOT(value)


def _of_measures(
    root: Callable[..., Extended], degree_of: Callable[..., int]
) -> Callable[..., Value]:
    """A root of a number, and of a measure: that of its number, in the root of its unit."""

    def function(x: Value, *others: Value) -> Value:
        if not isinstance(x, Measure):
            return root(x, *others)
        if x.is_complex:
            raise TAKES_REALS_ONLY(function="A root with a unit")
        number = root(x.size, *others)  # first, for what is wrong with it
        positive = measures.negate(x) if operators.sign_of(x) < 0 else x
        unit = measures.power(cast(Measure, positive), exact(fmpq(1, degree_of(*others))))
        return sizes.shown_in(number, unit.unit) if isinstance(unit, Measure) else number

    return function


_SQUARE_ROOT = _of_measures(square_root, lambda: 2)
_CUBE_ROOT = _of_measures(cube_root, lambda: 3)
_NTH_ROOT = _of_measures(nth_root, lambda n: whole(n, "The degree of a root"))


FUNCTIONS = (
    Function(
        name="sqrt",
        subject=SUBJECT,
        summary="The square root: the number not below 0 whose square is x.",
        parameters=(Parameter("x", "the number under the root", "x ≥ 0"),),
        compute=_SQUARE_ROOT,
        accepts=(Measure,),
        on_complex=complexes.square_root,
        branch=branch_of("sqrt"),
        examples=(
            Example("sqrt(49)", "=", "7"),
            Example("sqrt(2)", "≈", "1.414213562"),
            Example("sqrt(9/16)", "=", "0.75"),
        ),
        related=("root", "cbrt", "abs"),
        confused_with="x^1/2, which is half of x: the power binds tighter than the fraction.",
        words="square root",
        source="ISO 80000-2",
        special_values=("sqrt(0) = 0", "sqrt(1/4) = 1/2", "sqrt(-1) = i"),
    ),
    Function(
        name="abs",
        subject=SUBJECT,
        summary="The absolute value: x without its sign. Also written |x|.",
        parameters=(Parameter("x", "a number"),),
        compute=absolute,
        accepts=(Angle, Measure, Complex),
        examples=(Example("abs(-3.5)", "=", "3.5"), Example("|2 - 5|", "=", "3")),
        related=("sqrt",),
        words="absolute value modulus magnitude distance size without sign bars",
        source="ISO 80000-2",
        special_values=("abs(0) = 0", "abs(-infinity) = infinity", "abs(i) = 1"),
        confused_with="the real part: of a complex number it is the distance from 0, "
        "abs(3 + 4i) = 5.",
    ),
    Function(
        name="exp",
        subject=SUBJECT,
        summary="e to the power x.",
        parameters=(Parameter("x", "the exponent"),),
        compute=exp_of,
        on_complex=complexes.exponential,
        branch=branch_of("exp"),
        examples=(
            Example("exp(1)", "≈", "2.718281828"),
            Example("exp(0)", "=", "1"),
            Example("exp(ln(5))", "=", "5"),
        ),
        related=("ln", "power"),
        confused_with="the e of 4.56e-4, which is a power of ten.",
        words="exponential e to the power Euler",
        source="ISO 80000-2",
        special_values=("exp(0) = 1", "exp(1) = e", "exp(-infinity) = 0", "exp(i*pi) = -1"),
    ),
    Function(
        name="cbrt",
        subject=SUBJECT,
        summary="The cube root: the real number whose cube is x.",
        parameters=(Parameter("x", "the number under the root"),),
        compute=_CUBE_ROOT,
        accepts=(Measure,),
        examples=(Example("cbrt(27)", "=", "3"), Example("cbrt(-8)", "=", "-2")),
        related=("sqrt", "root"),
        confused_with="(-8)^(1/3), whose principal value is not real.",
        words="cube root third root",
        source="ISO 80000-2",
        special_values=("cbrt(0) = 0", "cbrt(1/8) = 1/2", "cbrt(-1) = -1"),
    ),
    Function(
        name="root",
        subject=SUBJECT,
        summary="The n-th root: the real number whose n-th power is x.",
        parameters=(
            Parameter("x", "the number under the root", "x ≥ 0 where n is even"),
            Parameter("n", "the degree", "a whole number from 1"),
        ),
        compute=_NTH_ROOT,
        accepts=(Measure,),
        examples=(
            Example("root(32, 5)", "=", "2"),
            Example("root(-32, 5)", "=", "-2"),
            Example("root(2, 3)", "≈", "1.25992105"),
        ),
        related=("sqrt", "cbrt"),
        words="nth root degree radical",
        source="ISO 80000-2",
        special_values=("root(0, 4) = 0", "root(1, 5) = 1", "root(-1, 5) = -1"),
        confused_with="x^(1/n), whose principal value is not real for a negative x.",
    ),
    Function(
        name="hypot",
        subject=SUBJECT,
        summary="The hypotenuse: the root of the sum of the squares.",
        parameters=(Parameter("x", "one leg"), Parameter("y", "the other")),
        variadic=True,
        compute=hypotenuse,
        accepts=(Measure,),
        examples=(Example("hypot(3, 4)", "=", "5"), Example("hypot(1, 2, 2)", "=", "3")),
        related=("sqrt",),
        words="hypotenuse Pythagoras length of a vector",
        source="IEEE 754, 9.2",
        special_values=("hypot(3, 4) = 5", "hypot(5, 12) = 13", "hypot(1, 1) = sqrt(2)"),
        confused_with="the sum of the legs: it is the root of the sum of their squares.",
    ),
)
