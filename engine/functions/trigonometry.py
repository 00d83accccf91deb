"""Sine, cosine and tangent.

At rational multiples of π the values that are rational stay exact.  There are
no others than those of the tables below: Niven's theorem.
"""

from __future__ import annotations

from collections.abc import Callable

from flint import arb, ctx, fmpq

from engine.functions.helpers import reciprocal_of
from engine.functions.record import Example, Function, Parameter
from engine.numbers.arithmetic import divide, is_zero
from engine.numbers.values import Exact, Infinite, Number, Real, Undefined, Value, exact

SUBJECT = "trigonometric functions"
ANGLE = Parameter("x", "an angle; a bare number is read in radians")

HALF = fmpq(1, 2)
SINES = {
    fmpq(0): fmpq(0), fmpq(1, 6): HALF, fmpq(1, 2): fmpq(1), fmpq(5, 6): HALF,
    fmpq(1): fmpq(0), fmpq(7, 6): -HALF, fmpq(3, 2): fmpq(-1), fmpq(11, 6): -HALF,
}  # fmt: skip
"""sin(πt) for t in [0, 2), where it is rational."""

TANGENTS = {fmpq(0): fmpq(0), fmpq(1, 4): fmpq(1), fmpq(3, 4): fmpq(-1)}
"""tan(πt) for t in [0, 1), where it is rational."""

NO_LIMIT = Undefined("At infinity an angle has no direction, and so no sine, cosine or tangent.")


def _turns_of_pi(x: Value) -> fmpq | None:
    """t where ``x`` is exactly πt with t rational, else None."""
    if isinstance(x, Exact) and (x.pi_power == 1 or not x.coefficient):
        return x.coefficient
    return None


def circular(compute: Callable[[arb], arb], x: Number) -> Real:
    """``compute`` at ``x``, with so many more digits as ``x`` has before its point:
    they are lost when whole turns are taken off."""
    if not isinstance(x, Exact):
        return Real(compute, x)
    whole = max(0, abs(x.coefficient.p).bit_length() - x.coefficient.q.bit_length())

    def with_more_digits() -> arb:
        bits = ctx.prec
        value = compute(x.ball(bits + whole))
        ctx.prec = bits
        return +value

    return Real(with_more_digits)


def _modulo(t: fmpq, period: int) -> fmpq:
    return t - period * (t / period).floor()


def sine(x: Value) -> Value:
    """The sine of ``x`` radians."""
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is None:
        return circular(arb.sin, x)
    value = SINES.get(_modulo(t, 2))
    return exact(value) if value is not None else Real(lambda: arb.sin_pi_fmpq(t))


def cosine(x: Value) -> Value:
    """The cosine of ``x`` radians."""
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is None:
        return circular(arb.cos, x)
    value = SINES.get(_modulo(t + HALF, 2))
    return exact(value) if value is not None else Real(lambda: arb.cos_pi_fmpq(t))


def tangent(x: Value) -> Value:
    """The tangent of ``x`` radians; undefined at odd multiples of π/2."""
    if isinstance(x, Infinite | Undefined):
        return NO_LIMIT if isinstance(x, Infinite) else x
    t = _turns_of_pi(x)
    if t is None:
        return circular(arb.tan, x)
    t = _modulo(t, 1)
    if t == HALF:
        return Undefined(
            "The tangent has a pole here: it grows above all bounds from one side "
            "and below them from the other."
        )
    value = TANGENTS.get(t)
    return exact(value) if value is not None else Real(lambda: arb.tan_pi(arb(t)))


def cotangent(x: Value) -> Value:
    """The cosine of ``x`` radians over its sine."""
    sin, cos = sine(x), cosine(x)
    if isinstance(sin, Undefined):
        return sin
    if is_zero(sin):
        return Undefined("The cotangent has a pole here.")
    return cos if is_zero(cos) else divide(exact(1), tangent(x))


FUNCTIONS = (
    Function(
        name="sin",
        subject=SUBJECT,
        summary="The sine of an angle.",
        parameters=(ANGLE,),
        compute=sine,
        value="a number from −1 to 1",
        examples=(
            Example("sin(pi/6)", "=", "0.5"),
            Example("sin(pi)", "=", "0"),
            Example("sin(1)", "≈", "0.8414709848"),
        ),
        special_values="sin(0) = 0, sin(π/6) = 1/2, sin(π/2) = 1",
        related=("cos", "tan"),
        source="ISO 80000-2",
    ),
    Function(
        name="cos",
        subject=SUBJECT,
        summary="The cosine of an angle.",
        parameters=(ANGLE,),
        compute=cosine,
        value="a number from −1 to 1",
        examples=(
            Example("cos(pi/2)", "=", "0"),
            Example("cos(pi/3)", "=", "0.5"),
            Example("cos(1)", "≈", "0.5403023059"),
        ),
        special_values="cos(0) = 1, cos(π/3) = 1/2, cos(π/2) = 0",
        related=("sin", "tan"),
        source="ISO 80000-2",
    ),
    Function(
        name="tan",
        subject=SUBJECT,
        summary="The tangent of an angle: its sine over its cosine.",
        parameters=(Parameter("x", ANGLE.text, "not an odd multiple of π/2"),),
        compute=tangent,
        examples=(
            Example("tan(pi/4)", "=", "1"),
            Example("tan(pi/2)", "=", "undefined"),
            Example("tan(1)", "≈", "1.557407725"),
        ),
        special_values="tan(0) = 0, tan(π/4) = 1; undefined at π/2",
        related=("sin", "cos"),
        source="ISO 80000-2",
    ),
    Function(
        name="cot",
        subject=SUBJECT,
        summary="The cotangent of an angle: its cosine over its sine.",
        parameters=(Parameter("x", ANGLE.text, "not a multiple of π"),),
        compute=cotangent,
        examples=(Example("cot(pi/4)", "=", "1"), Example("cot(1)", "≈", "0.6420926159")),
        related=("tan", "csc"),
        source="ISO 80000-2",
    ),
    Function(
        name="sec",
        subject=SUBJECT,
        summary="The secant of an angle: 1 over its cosine.",
        parameters=(Parameter("x", ANGLE.text, "not an odd multiple of π/2"),),
        compute=reciprocal_of(cosine, "The secant has a pole here."),
        examples=(Example("sec(pi/3)", "=", "2"), Example("sec(pi/2)", "=", "undefined")),
        related=("cos", "csc"),
        source="ISO 80000-2",
    ),
    Function(
        name="csc",
        subject=SUBJECT,
        summary="The cosecant of an angle: 1 over its sine.",
        parameters=(Parameter("x", ANGLE.text, "not a multiple of π"),),
        compute=reciprocal_of(sine, "The cosecant has a pole here."),
        examples=(Example("csc(pi/6)", "=", "2"), Example("csc(0)", "=", "undefined")),
        related=("sin", "sec"),
        source="ISO 80000-2",
    ),
)
