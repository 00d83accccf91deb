"""Roots, powers and the absolute value."""

from __future__ import annotations

from flint import arb, fmpq

from engine.functions.record import Example, Function, Parameter
from engine.numbers.arithmetic import abs_of, exp_of, not_real, power, sign_of
from engine.numbers.values import Exact, Infinite, Real, Undefined, Value, exact

SUBJECT = "roots and powers"
HALF = exact(fmpq(1, 2))


def square_root(x: Value) -> Value:
    """The number ≥ 0 whose square is ``x``; exact where it is rational.

    Errors: :class:`LineError` for a negative ``x``.
    """
    if isinstance(x, Infinite | Undefined):
        return power(x, HALF)
    if sign_of(x) < 0:
        raise not_real("The square root of a negative number")
    if (isinstance(x, Exact) and x.is_rational) or (isinstance(x, Real) and x.log is not None):
        return power(x, HALF)
    return Real(arb.sqrt, x)


FUNCTIONS = (
    Function(
        name="sqrt",
        subject=SUBJECT,
        summary="The square root: the number not below 0 whose square is x.",
        parameters=(Parameter("x", "the number under the root", "x ≥ 0"),),
        compute=square_root,
        examples=(
            Example("sqrt(49)", "=", "7"),
            Example("sqrt(2)", "≈", "1.414213562"),
            Example("sqrt(9/16)", "=", "0.75"),
        ),
        related=("abs", "exp"),
        taken_for="x^1/2, which is half of x: the power binds tighter than the fraction.",
        source="ISO 80000-2, 2-10.6",
    ),
    Function(
        name="abs",
        subject=SUBJECT,
        summary="The absolute value: x without its sign. Also written |x|.",
        parameters=(Parameter("x", "a number"),),
        compute=abs_of,
        examples=(Example("abs(-3.5)", "=", "3.5"), Example("|2 - 5|", "=", "3")),
        related=("sqrt",),
        source="ISO 80000-2, 2-10.16",
    ),
    Function(
        name="exp",
        subject=SUBJECT,
        summary="e to the power x.",
        parameters=(Parameter("x", "the exponent"),),
        compute=exp_of,
        examples=(
            Example("exp(1)", "≈", "2.718281828"),
            Example("exp(0)", "=", "1"),
            Example("exp(ln(5))", "≈", "5"),
        ),
        related=("ln",),
        taken_for="the e of 4.56e-4, which is a power of ten.",
        source="ISO 80000-2, 2-13.3",
    ),
)
