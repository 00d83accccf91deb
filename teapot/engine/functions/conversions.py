"""Between angles and plain numbers."""

from __future__ import annotations

from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import angles
from teapot.engine.numbers.values import Angle, Complex, Infinite, Scalar, Undefined
from teapot.engine.reading.described import Example

SUBJECT = "angles"
IN_RADIANS = Parameter("x", "a number of radians, or an angle with its unit", "any angle")
IN_DEGREES = Parameter("x", "a number of degrees, or an angle with its unit", "any angle")


def _converted(x: Scalar, given: str, wanted: str) -> Scalar:
    if isinstance(x, Infinite | Undefined):
        return x
    angle = x if isinstance(x, Angle) else angles.angle_of(x, given)
    return angle if isinstance(angle, Undefined) else angles.count_of(angle, wanted)


def degrees(x: Scalar) -> Scalar:
    """How many degrees so many radians are, or an angle has, as a plain number."""
    return _converted(x, "rad", "deg")


def radians(x: Scalar) -> Scalar:
    """How many radians so many degrees are, or an angle has, as a plain number."""
    return _converted(x, "deg", "rad")


FUNCTIONS = (
    Function(
        name="degrees",
        subject=SUBJECT,
        summary="The number of degrees in x radians, or in an angle; a plain number.",
        parameters=(IN_RADIANS,),
        compute=degrees,
        examples=(Example("degrees(pi/6)", "=", "30"), Example("degrees(1)", "≈", "57.29577951")),
        related=("radians", "arctan"),
        confused_with="a way to type an angle in degrees: that is 30°.",
        words="convert radians to degrees conversion",
        source="common practice of the trade",
        accepts=(Angle, Complex),
        special_values=("degrees(pi) = 180", "degrees(1 turn) = 360"),
    ),
    Function(
        name="radians",
        subject=SUBJECT,
        summary="The number of radians in x degrees, or in an angle; a plain number.",
        parameters=(IN_DEGREES,),
        compute=radians,
        examples=(
            Example("radians(180) as exact", "=", "pi"),
            Example("radians(100 gon) as exact", "=", "pi/2"),
        ),
        related=("degrees", "sin"),
        confused_with="as rad, which shows an angle in radians: this gives a plain number.",
        words="convert degrees to radians conversion",
        source="common practice of the trade",
        accepts=(Angle, Complex),
        special_values=("radians(180) = pi", "radians(90°) = pi/2"),
    ),
)
