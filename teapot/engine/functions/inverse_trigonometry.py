"""The angle of a sine, a cosine, a tangent, and so on.

Each gives an angle in the unit of the sheet.  The ranges are those of the
principal values in NIST DLMF 4.23.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import cast

from flint import acb

from teapot.engine.functions import axes
from teapot.engine.functions.axes import of_plane
from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.by_parts import OnPlane
from teapot.engine.functions.helpers import outside
from teapot.engine.functions.hyperbolic import arcosh, arsinh, artanh
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import angles, circular, measures
from teapot.engine.numbers.arithmetic import divide, is_zero, not_real, subtract
from teapot.engine.numbers.operators import operate, plane
from teapot.engine.numbers.values import (
    Extended,
    Infinite,
    Measure,
    Number,
    Plane,
    Scalar,
    Undefined,
    Value,
    exact,
    real,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.units import TAKES_PLAIN_NUMBER

SUBJECT = "inverse trigonometric functions"
SOURCE = "NIST DLMF 4.23"
ONE = exact(1)


def _angle(radians: Callable[[Number], Number | None], said: str) -> Callable[[Extended], Scalar]:
    """The function that gives an angle, from one that gives radians or None."""

    def function(x: Extended) -> Scalar:
        if isinstance(x, Undefined):
            return x
        found = None if isinstance(x, Infinite) else radians(x)
        if found is None:
            raise not_real(said)
        return angles.computed(found)

    return function


arcsin = _angle(circular.arcsine, "The arcsine of a number beyond −1 to 1")
arccos = _angle(circular.arccosine, "The arccosine of a number beyond −1 to 1")


def arctan(y: Extended | Measure, x: Extended | Measure | None = None) -> Scalar:
    """The angle whose tangent is ``y``; with ``x`` the direction of the point (x, y), which may
    be of two measures that agree.

    Errors: :data:`TAKES_PLAIN_NUMBER` for a measure alone; as :func:`measures.check_alike`.
    """
    if isinstance(y, Measure) and x is None:
        kind, unit = measures.kind(y), y.unit.text
        raise TAKES_PLAIN_NUMBER(function="arctan of one value", kind=kind, unit=unit)
    if isinstance(y, Measure) or isinstance(x, Measure):
        y, x = _sizes(y, x)
    if isinstance(y, Undefined):
        return y
    if x is None:
        return angles.computed(circular.arctangent(y))
    if isinstance(x, Undefined):
        return x
    if isinstance(x, Infinite) or isinstance(y, Infinite):
        return _direction_of_infinite(y, x)
    return angles.computed(circular.direction(y, x))


def _sizes(y: Scalar, x: Scalar | None) -> tuple[Extended, Extended]:
    """The sizes of two measures that agree."""
    for one in (y, x):
        if isinstance(one, Undefined):
            return one, exact(0)
    measures.refuse_scales("taken for a side", y, cast(Scalar, x))
    measures.check_alike(y, cast(Scalar, x), "taken for the sides of a triangle")
    return real(cast(Measure, y).size), real(cast(Measure, x).size)


def _direction_of_infinite(y: Extended, x: Extended) -> Scalar:
    """An infinite part outweighs a finite one; two have no direction."""
    if isinstance(x, Infinite) and isinstance(y, Infinite):
        return Undefined("Two infinite sides have no direction.")
    far_x = exact(x.sign if isinstance(x, Infinite) else 0)
    far_y = exact(y.sign if isinstance(y, Infinite) else 0)
    return angles.computed(circular.direction(far_y, far_x))


# -- among the complex numbers: the angle is complex, and keeps its unit -----------------


def _as_angle(function: str, radians: OnPlane) -> Callable[[Plane], Scalar]:
    """The inverse of ``function`` from one that gives a complex number of radians."""

    def inverse(z: Plane) -> Scalar:
        return angles.computed(axes.inverse_of(radians(z), function, z))

    return inverse


def _of_one_over(of: OnPlane, name: str) -> OnPlane:
    def function(z: Plane) -> Plane:
        if is_zero(z):
            raise outside(f"No angle has the {name} 0.")
        return of(plane(operate("/", ONE, z)))

    return function


_arcsin = of_plane(
    acb.asin,
    lambda x: axes.arcsine(x, arcosh) if axes.is_beyond_one(x) else real(circular.arcsine(x)),
    axes.odd(arsinh),
)
_arccos = of_plane(
    acb.acos,
    lambda x: (
        axes.arccosine_beyond(x, arcosh) if axes.is_beyond_one(x) else real(circular.arccosine(x))
    ),
    lambda y: plane(operate("-", circular.HALF_PI, axes.times_i(arsinh(y)))),
)
_arctan = of_plane(acb.atan, circular.arctangent, lambda y: axes.arctangent_of_imaginary(y, artanh))


def _arccot(z: Plane) -> Plane:
    tangent = _arctan(z)
    if isinstance(tangent, Undefined):
        return tangent
    return plane(operate("-", circular.HALF_PI, tangent))


IN_PLANE: dict[str, OnPlane] = {
    "arcsin": _arcsin,
    "arccos": _arccos,
    "arctan": _arctan,
    "arccot": _arccot,
    "arcsec": _of_one_over(_arccos, "secant"),
    "arccsc": _of_one_over(_arcsin, "cosecant"),
}
"""The number of radians of each function of a complex number."""


def _arctan_of_complex(y: Plane, x: Plane | None = None) -> Scalar:
    if x is not None:
        raise outside("The direction of a point is taken of real numbers; arg takes a complex one.")
    return _as_angle("tan", IN_PLANE["arctan"])(y)


def arccot(x: Extended) -> Scalar:
    """The angle between 0 and a half turn whose cotangent is ``x``."""
    if isinstance(x, Undefined):
        return x
    return angles.computed(subtract(circular.HALF_PI, circular.arctangent(x)))


def _of_reciprocal(
    of: Callable[[Number], Number | None], said: str, name: str
) -> Callable[[Extended], Scalar]:
    def function(x: Extended) -> Scalar:
        if isinstance(x, Undefined):
            return x
        if isinstance(x, Infinite):
            return angles.computed(real(of(exact(0))))
        if is_zero(x):
            raise outside(f"No angle has the {name} 0.")
        found = of(real(divide(ONE, x)))
        if found is None:
            raise not_real(said)
        return angles.computed(found)

    return function


def _record(
    name: str,
    compute: Callable[..., Value],
    of: str,
    domain: str,
    value: str,
    examples: tuple[Example, ...],
    special_values: tuple[str, ...],
    also: tuple[str, ...],
    words: str,
    confused_with: str = "",
) -> Function:
    of_what = name.removeprefix("arc")
    return Function(
        name=name,
        subject=SUBJECT,
        summary=f"The angle whose {of} is x.",
        parameters=(Parameter("x", f"a {of}", domain),),
        compute=compute,
        examples=examples,
        value=value,
        aliases=also,
        special_values=special_values,
        related=(of_what, "degrees"),
        confused_with=confused_with or f"1/{of_what}(x), which is another thing.",
        words=words,
        source=SOURCE,
        on_complex=_as_angle(of_what, IN_PLANE[name]),
        branch=branch_of(name),
    )


FUNCTIONS = (
    _record(
        "arcsin", arcsin, "sine", "−1 ≤ x ≤ 1", "an angle from −90° to 90°",
        (Example("arcsin(1/2) as deg", "=", "30°"), Example("arcsin(0.3)", "≈", "0.304692654 rad")),
        ("arcsin(0) = 0°", "arcsin(1/2) = 30°", "arcsin(sqrt(2)/2) = 45°", "arcsin(1) = 90°"),
        ("asin",), "inverse sine angle",
    ),
    _record(
        "arccos", arccos, "cosine", "−1 ≤ x ≤ 1", "an angle from 0° to 180°",
        (Example("arccos(0) as deg", "=", "90°"), Example("arccos(0.3)", "≈", "1.266103673 rad")),
        ("arccos(1) = 0°", "arccos(1/2) = 60°", "arccos(0) = 90°", "arccos(-1) = 180°"),
        ("acos",), "inverse cosine angle",
    ),
    Function(
        name="arctan",
        subject=SUBJECT,
        summary="The angle whose tangent is y; with x too, the direction of the point (x, y).",
        parameters=(
            Parameter("y", "a tangent, or the height of a point"),
            Parameter("x", "how far to the right the point is", optional=True),
        ),
        compute=arctan,
        examples=(
            Example("arctan(1) as deg", "=", "45°"),
            Example("arctan(-1, -1) as deg", "=", "-135°"),
            Example("arctan(2)", "≈", "1.107148718 rad"),
        ),
        value="an angle from −90° to 90°; with x, above −180° and up to 180°",
        aliases=("atan", "atan2"),
        special_values=(
            "arctan(0) = 0°",
            "arctan(1) = 45°",
            "arctan(sqrt(3)) = 60°",
            "arctan(infinity) = 90°",
            "arctan(0, -1) = 180°",
        ),
        related=("tan", "arg", "degrees"),
        confused_with="arctan(y/x), which is in the wrong quadrant where x is negative: "
        "arctan(y, x) is in the right one.",
        words="inverse tangent angle of a slope quadrant direction of a point bearing atan2",
        source=SOURCE,
        accepts=(Measure,),
        on_complex=_arctan_of_complex,
        branch=branch_of("arctan"),
    ),
    _record(
        "arccot", arccot, "cotangent", "any real number",
        "an angle above 0° and below 180°",
        (Example("arccot(1) as deg", "=", "45°"), Example("arccot(2)", "≈", "0.463647609 rad")),
        ("arccot(1) = 45°", "arccot(0) = 90°", "arccot(-1) = 135°"),
        ("acot",), "inverse cotangent arccotan angle",
        "arctan(1/x), which differs from it for negative x: arccot goes on up to 180°.",
    ),
    _record(
        "arcsec",
        _of_reciprocal(
            circular.arccosine, "The arcsecant of a number between −1 and 1", "secant"
        ),
        "secant", "x ≤ −1 or x ≥ 1", "an angle from 0° to 180°",
        (Example("arcsec(2) as deg", "=", "60°"), Example("arcsec(3)", "≈", "1.230959417 rad")),
        ("arcsec(1) = 0°", "arcsec(2) = 60°", "arcsec(-1) = 180°"),
        ("asec",), "inverse secant angle",
    ),
    _record(
        "arccsc",
        _of_reciprocal(
            circular.arcsine, "The arccosecant of a number between −1 and 1", "cosecant"
        ),
        "cosecant", "x ≤ −1 or x ≥ 1", "an angle from −90° to 90°",
        (Example("arccsc(2) as deg", "=", "30°"), Example("arccsc(3)", "≈", "0.3398369095 rad")),
        ("arccsc(1) = 90°", "arccsc(2) = 30°", "arccsc(-1) = -90°"),
        ("acsc",), "inverse cosecant arccosec angle",
    ),
)  # fmt: skip
