"""Hyperbolic functions and their inverses (area functions)."""

from __future__ import annotations

from typing import NoReturn

from flint import acb, arb, fmpq

from teapot.engine.errors import LineError
from teapot.engine.functions import axes, by_parts
from teapot.engine.functions.axes import of_plane
from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.by_parts import OnPlane, of_parts
from teapot.engine.functions.helpers import OnReals, of_one_real, reciprocal_of, side_of
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.arithmetic import divide, is_zero, sign_of
from teapot.engine.numbers.circular import arcsine
from teapot.engine.numbers.operators import operate, plane
from teapot.engine.numbers.values import (
    Bounds,
    Exact,
    Extended,
    Infinite,
    Plane,
    Real,
    Undefined,
    exact,
    real,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import BEYOND_REALS, NOT_REAL

SUBJECT = "hyperbolic functions"
ZERO, ONE, INFINITY, MINUS_INFINITY = exact(0), exact(1), Infinite(1), Infinite(-1)

sinh = of_one_real(arb.sinh, at_zero=ZERO, at_infinity=INFINITY, at_minus_infinity=MINUS_INFINITY)
cosh = of_one_real(arb.cosh, at_zero=ONE, at_infinity=INFINITY, at_minus_infinity=INFINITY)
tanh = of_one_real(
    arb.tanh,
    at_zero=ZERO,
    at_infinity=ONE,
    at_minus_infinity=exact(-1),
    bounds=Bounds(fmpq(-1), fmpq(1), strict=True),
)
arsinh = of_one_real(
    arb.asinh, at_zero=ZERO, at_infinity=INFINITY, at_minus_infinity=MINUS_INFINITY
)


def arcosh(x: Extended) -> Extended:
    """The number ≥ 0 whose hyperbolic cosine is ``x`` ≥ 1."""
    if isinstance(x, Infinite | Undefined):
        return x if x != MINUS_INFINITY else _refuse("arcosh takes numbers from 1.")
    side = side_of(x, 1)
    if side < 0:
        _refuse("arcosh takes numbers from 1.")
    return Real(arb.acosh, x) if side else ZERO


def artanh(x: Extended) -> Extended:
    """The number whose hyperbolic tangent is ``x``, from −1 to 1."""
    if isinstance(x, Undefined):
        return x
    if isinstance(x, Infinite) or side_of(x, 1) > 0 or side_of(x, -1) < 0:
        _refuse("artanh takes numbers from −1 to 1.")
    if isinstance(x, Exact) and x.is_rational and abs(x.coefficient) == 1:
        return Infinite(sign_of(x))
    return ZERO if is_zero(x) else Real(arb.atanh, x)


def _of_reciprocal(of: OnReals, name: str, said: str) -> OnReals:
    """An inverse function of 1/x; its domain is said in its own words."""

    def function(x: Extended) -> Extended:
        if isinstance(x, Undefined):
            return x
        if is_zero(x):
            _refuse(said)
        try:
            return of(divide(ONE, x))
        except LineError as error:
            raise (_not_real(said) if error.is_a(NOT_REAL) else error) from None

    function.__name__ = name
    return function


def _not_real(said: str) -> LineError:
    """The error outside of the domain: there the value is a complex number."""
    return BEYOND_REALS(domain=said)


def _refuse(what: str) -> NoReturn:
    raise _not_real(what)


coth = reciprocal_of(tanh, "The hyperbolic cotangent has its pole at 0.")
csch = reciprocal_of(sinh, "The hyperbolic cosecant has its pole at 0.")
_one_over_cosh = reciprocal_of(cosh, "")


def sech(x: Extended) -> Extended:
    """1 over the hyperbolic cosine: above 0, and at most 1."""
    value = _one_over_cosh(x)
    if isinstance(value, Real) and value.bounds is None:
        value.bounds = Bounds(fmpq(0), None, strict=True)
    return value


# -- among the complex numbers -----------------------------------------------------------


def _of_one_over(of: OnPlane, at_zero: Plane) -> OnPlane:
    """An inverse function of 1/z."""

    def function(z: Plane) -> Plane:
        return at_zero if is_zero(z) else of(plane(operate("/", ONE, z)))

    return function


def _arcsine(x: Extended) -> Extended:
    return real(arcsine(real(x)))


_arsinh = of_plane(acb.asinh, arsinh, lambda y: axes.arsinh_of_imaginary(y, _arcsine, arcosh))
_arcosh = of_plane(
    acb.acosh,
    lambda x: axes.arcosh_of_real(x, arcosh) if side_of(x, 1) < 0 else arcosh(x),
    lambda y: axes.arcosh_of_imaginary(y, arsinh),
)
_artanh = of_plane(
    acb.atanh,
    lambda x: axes.artanh_of_real(x, artanh) if axes.is_beyond_one(x) else artanh(x),
    axes.artanh_of_imaginary,
)

_sine = by_parts.sine_with(sinh, cosh)
_cosine = by_parts.cosine_with(sinh, cosh)
_sinh, _cosh = by_parts.turned(_sine, -1), by_parts.turned(_cosine, 0)

IN_PLANE: dict[str, OnPlane] = {
    "sinh": of_parts(acb.sinh, _sinh),
    "cosh": of_parts(acb.cosh, _cosh),
    "tanh": of_parts(acb.tanh, by_parts.turned(by_parts.tangent_with(sinh, cosh), -1)),
    "coth": of_parts(acb.coth, by_parts.turned(by_parts.cotangent_with(sinh, cosh), 1)),
    "sech": of_parts(acb.sech, by_parts.one_over(_cosh, "There is a pole of sech here.")),
    "csch": of_parts(acb.csch, by_parts.one_over(_sinh, "There is a pole of csch here.")),
    "arsinh": _arsinh,
    "arcosh": _arcosh,
    "artanh": _artanh,
    "arcoth": _of_one_over(_artanh, axes.HALF_TURN_OF_I),
    "arsech": _of_one_over(_arcosh, INFINITY),
    "arcsch": _of_one_over(_arsinh, Undefined("1/x has a pole at 0, and so has arcsch.")),
}
"""Each function of a complex number."""


def _record(
    name: str,
    summary: str,
    compute: OnReals,
    examples: tuple[Example, Example],
    source: str,
    domain: str = "any real number",
    also: tuple[str, ...] = (),
    related: tuple[str, ...] = (),
    special_values: tuple[str, ...] = (),
    confused_with: str = "",
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=(Parameter("x", "a number", domain),),
        compute=compute,
        examples=examples,
        aliases=also,
        special_values=special_values,
        related=related,
        confused_with=confused_with,
        words="inverse area hyperbolic" if name.startswith("ar") else "hyperbolic",
        source=source,
        on_complex=IN_PLANE[name],
        branch=branch_of(name),
    )


FUNCTIONS = (
    _record(
        "sinh", "The hyperbolic sine: half the difference of exp(x) and exp(-x).", sinh,
        (Example("sinh(0)", "=", "0"), Example("sinh(1)", "≈", "1.175201194")),
        "ISO 80000-2", related=("cosh", "arsinh"),
        special_values=("sinh(0) = 0", "sinh(ln(2)) = 3/4", "sinh(infinity) = infinity"),
        confused_with="the sine: this one takes a plain number, and no angle.",
    ),
    _record(
        "cosh", "The hyperbolic cosine: half the sum of exp(x) and exp(-x).", cosh,
        (Example("cosh(0)", "=", "1"), Example("cosh(1)", "≈", "1.543080635")),
        "ISO 80000-2", related=("sinh", "arcosh"),
        special_values=("cosh(0) = 1", "cosh(ln(2)) = 5/4", "cosh(infinity) = infinity"),
        confused_with="the cosine: this one takes a plain number, and no angle.",
    ),
    _record(
        "tanh", "The hyperbolic tangent: sinh(x) over cosh(x).", tanh,
        (Example("tanh(0)", "=", "0"), Example("tanh(1)", "≈", "0.761594156")),
        "ISO 80000-2", related=("artanh",),
        special_values=("tanh(0) = 0", "tanh(ln(2)) = 3/5", "tanh(infinity) = 1"),
        confused_with="the tangent: this one takes a plain number, and no angle.",
    ),
    _record(
        "coth", "The hyperbolic cotangent: cosh(x) over sinh(x).",
        coth,
        (Example("coth(1)", "≈", "1.313035285"), Example("coth(0)", "=", "undefined")),
        "ISO 80000-2", "x ≠ 0", related=("tanh", "arcoth"),
        special_values=("coth(0) = undefined", "coth(ln(2)) = 5/3", "coth(infinity) = 1"),
        confused_with="the cotangent: this one takes a plain number, and no angle.",
    ),
    _record(
        "sech", "The hyperbolic secant: 1 over cosh(x).",
        sech,
        (Example("sech(0)", "=", "1"), Example("sech(1)", "≈", "0.6480542737")),
        "ISO 80000-2", related=("cosh", "arsech"),
        special_values=("sech(0) = 1", "sech(ln(2)) = 4/5", "sech(infinity) = 0"),
        confused_with="the secant: this one takes a plain number, and no angle.",
    ),
    _record(
        "csch", "The hyperbolic cosecant: 1 over sinh(x).",
        csch,
        (Example("csch(1)", "≈", "0.8509181282"), Example("csch(0)", "=", "undefined")),
        "ISO 80000-2", "x ≠ 0", related=("sinh", "arcsch"),
        special_values=("csch(0) = undefined", "csch(ln(2)) = 4/3", "csch(infinity) = 0"),
        confused_with="the cosecant: this one takes a plain number, and no angle.",
    ),
    _record(
        "arsinh", "The number whose hyperbolic sine is x.", arsinh,
        (Example("arsinh(0)", "=", "0"), Example("arsinh(1)", "≈", "0.881373587")),
        "ISO 80000-2", also=("asinh",), related=("sinh",),
        special_values=("arsinh(0) = 0", "arsinh(3/4) = ln(2)", "arsinh(1) = ln(1 + sqrt(2))"),
        confused_with="1/sinh(x), which is csch(x).",
    ),
    _record(
        "arcosh", "The number not below 0 whose hyperbolic cosine is x.", arcosh,
        (Example("arcosh(1)", "=", "0"), Example("arcosh(2)", "≈", "1.316957897")),
        "ISO 80000-2", "x ≥ 1", also=("acosh",), related=("cosh",),
        special_values=("arcosh(1) = 0", "arcosh(5/4) = ln(2)"),
        confused_with="1/cosh(x), which is sech(x).",
    ),
    _record(
        "artanh", "The number whose hyperbolic tangent is x.", artanh,
        (Example("artanh(0.5)", "≈", "0.5493061443"), Example("artanh(1)", "=", "infinity")),
        "ISO 80000-2", "−1 ≤ x ≤ 1", also=("atanh",), related=("tanh",),
        special_values=("artanh(0) = 0", "artanh(3/5) = ln(2)", "artanh(1) = infinity"),
        confused_with="1/tanh(x), which is coth(x).",
    ),
    _record(
        "arcoth", "The number whose hyperbolic cotangent is x.",
        _of_reciprocal(artanh, "arcoth", "arcoth takes numbers up to −1 and from 1."),
        (Example("arcoth(2)", "≈", "0.5493061443"), Example("arcoth(-1)", "=", "-infinity")),
        "ISO 80000-2", "x ≤ −1 or x ≥ 1", also=("acoth",), related=("coth",),
        special_values=("arcoth(5/3) = ln(2)", "arcoth(1) = infinity", "arcoth(infinity) = 0"),
        confused_with="1/coth(x), which is tanh(x).",
    ),
    _record(
        "arsech", "The number not below 0 whose hyperbolic secant is x.",
        _of_reciprocal(arcosh, "arsech", "arsech takes numbers above 0 up to 1."),
        (Example("arsech(1)", "=", "0"), Example("arsech(0.5)", "≈", "1.316957897")),
        "ISO 80000-2", "0 < x ≤ 1", also=("asech",), related=("sech",),
        special_values=("arsech(1) = 0", "arsech(4/5) = ln(2)"),
        confused_with="1/sech(x), which is cosh(x).",
    ),
    _record(
        "arcsch", "The number whose hyperbolic cosecant is x.",
        _of_reciprocal(arsinh, "arcsch", "arcsch takes any number but 0."),
        (Example("arcsch(1)", "≈", "0.881373587"), Example("arcsch(0.5)", "≈", "1.443635475")),
        "ISO 80000-2", "x ≠ 0", also=("acsch",), related=("csch",),
        special_values=("arcsch(4/3) = ln(2)", "arcsch(infinity) = 0"),
        confused_with="1/csch(x), which is sinh(x).",
    ),
)  # fmt: skip
