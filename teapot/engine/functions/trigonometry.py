"""Sine, cosine and tangent of angles, and the three that are one over them."""

from __future__ import annotations

from collections.abc import Callable

from flint import acb

from teapot.engine.functions import by_parts
from teapot.engine.functions.branches import branch_of
from teapot.engine.functions.by_parts import OnPlane, of_parts
from teapot.engine.functions.helpers import OnReals, reciprocal_of
from teapot.engine.functions.hyperbolic import cosh, sinh
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import angles
from teapot.engine.numbers.circular import cosine, cotangent, sine, tangent
from teapot.engine.numbers.values import Angle, Complex, Plane, Scalar, Value, real
from teapot.engine.reading.described import Example

SUBJECT = "trigonometric functions"
ANGLE_TEXT = "an angle; a bare number is read in the unit of the sheet"
ANGLE = Parameter("x", ANGLE_TEXT, "any angle")
NOT_ODD_RIGHT = Parameter("x", ANGLE_TEXT, "not 90° and half turns from there")
NOT_HALF_TURN = Parameter("x", ANGLE_TEXT, "not 0° and half turns from there")


def of_angle(radian: OnReals) -> Callable[[Scalar], Plane]:
    """A function of radians as one of angles."""
    return lambda x: radian(real(angles.radians_of(x)))


def of_complex_angle(name: str) -> Callable[[Scalar], Value]:
    """The same for a complex number, in the unit of the conventions too; of what an
    inverse function gave, it is the number that this one was given."""
    in_plane = IN_PLANE[name]

    def function(x: Scalar) -> Value:
        radians = angles.radians_of(x)
        if isinstance(radians, Complex) and radians.inverse_of is not None:
            inverse_of, value = radians.inverse_of
            if inverse_of == name:
                return value
        return in_plane(radians)

    return function


_sine = by_parts.sine_with(sinh, cosh)
_cosine = by_parts.cosine_with(sinh, cosh)

IN_PLANE: dict[str, OnPlane] = {
    "sin": of_parts(acb.sin, _sine),
    "cos": of_parts(acb.cos, _cosine),
    "tan": of_parts(acb.tan, by_parts.tangent_with(sinh, cosh)),
    "cot": of_parts(acb.cot, by_parts.cotangent_with(sinh, cosh)),
    "sec": of_parts(acb.sec, by_parts.one_over(_cosine, "The secant has a pole here.")),
    "csc": of_parts(acb.csc, by_parts.one_over(_sine, "The cosecant has a pole here.")),
}
"""Each function of a complex number of radians."""


def _record(
    name: str,
    summary: str,
    parameter: Parameter,
    compute: OnReals,
    examples: tuple[Example, ...],
    related: tuple[str, ...],
    special_values: tuple[str, ...],
    words: str,
    value: str = "a real number",
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=(parameter,),
        compute=of_angle(compute),
        examples=examples,
        value=value,
        special_values=special_values,
        related=related,
        confused_with="the same of degrees, where the sheet reads bare numbers in radians: "
        f"{name}(30°) says which.",
        words=words,
        source="ISO 80000-2",
        accepts=(Angle,),
        on_complex=of_complex_angle(name),
        branch=branch_of(name),
    )


FUNCTIONS = (
    _record(
        "sin",
        "The sine of an angle: the height of its point on the unit circle.",
        ANGLE,
        sine,
        (
            Example("sin(30°)", "=", "0.5"),
            Example("sin(pi)", "=", "0"),
            Example("sin(1)", "≈", "0.8414709848"),
        ),
        ("cos", "tan", "arcsin"),
        (
            "sin(0) = 0",
            "sin(30°) = 1/2",
            "sin(45°) = sqrt(2)/2",
            "sin(60°) = sqrt(3)/2",
            "sin(90°) = 1",
        ),
        "sine opposite side over hypotenuse height",
        "a number from −1 to 1",
    ),
    _record(
        "cos",
        "The cosine of an angle: how far to the right its point on the unit circle is.",
        ANGLE,
        cosine,
        (
            Example("cos(60°)", "=", "0.5"),
            Example("cos(pi/2)", "=", "0"),
            Example("cos(1)", "≈", "0.5403023059"),
        ),
        ("sin", "tan", "arccos"),
        (
            "cos(0) = 1",
            "cos(30°) = sqrt(3)/2",
            "cos(45°) = sqrt(2)/2",
            "cos(60°) = 1/2",
            "cos(90°) = 0",
        ),
        "cosine adjacent side over hypotenuse",
        "a number from −1 to 1",
    ),
    _record(
        "tan",
        "The tangent of an angle: its sine over its cosine.",
        NOT_ODD_RIGHT,
        tangent,
        (
            Example("tan(45°)", "=", "1"),
            Example("tan(pi/2)", "=", "undefined"),
            Example("tan(1)", "≈", "1.557407725"),
        ),
        ("sin", "cos", "arctan"),
        (
            "tan(0) = 0",
            "tan(30°) = sqrt(3)/3",
            "tan(45°) = 1",
            "tan(60°) = sqrt(3)",
            "tan(90°) = undefined",
        ),
        "tangent opposite over adjacent slope gradient",
    ),
    _record(
        "cot",
        "The cotangent of an angle: its cosine over its sine.",
        NOT_HALF_TURN,
        cotangent,
        (Example("cot(45°)", "=", "1"), Example("cot(1)", "≈", "0.6420926159")),
        ("tan", "csc", "arccot"),
        ("cot(0) = undefined", "cot(30°) = sqrt(3)", "cot(45°) = 1", "cot(90°) = 0"),
        "cotangent cotan adjacent over opposite",
    ),
    _record(
        "sec",
        "The secant of an angle: 1 over its cosine.",
        NOT_ODD_RIGHT,
        reciprocal_of(cosine, "The secant has a pole here."),
        (Example("sec(60°)", "=", "2"), Example("sec(pi/2)", "=", "undefined")),
        ("cos", "csc", "arcsec"),
        ("sec(0) = 1", "sec(45°) = sqrt(2)", "sec(60°) = 2", "sec(90°) = undefined"),
        "secant one over cosine",
    ),
    _record(
        "csc",
        "The cosecant of an angle: 1 over its sine.",
        NOT_HALF_TURN,
        reciprocal_of(sine, "The cosecant has a pole here."),
        (Example("csc(30°)", "=", "2"), Example("csc(0)", "=", "undefined")),
        ("sin", "sec", "arccsc"),
        ("csc(0) = undefined", "csc(30°) = 2", "csc(45°) = sqrt(2)", "csc(90°) = 1"),
        "cosecant cosec one over sine",
    ),
)
