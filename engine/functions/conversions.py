"""Between angles and plain numbers."""

from __future__ import annotations

from engine.functions.record import Example, Function, Parameter
from engine.numbers import angles
from engine.numbers.values import Angle, Infinite, Undefined, Value

SUBJECT = "angles"
ANGLE = Parameter("x", "an angle; a bare number is read in the unit of the sheet", "any angle")


def _count_in(x: Value, name: str) -> Value:
    angle = angles.as_angle(x)
    return angles.count_of(angle, name) if isinstance(angle, Angle) else angle


def degrees(x: Value) -> Value:
    """How many degrees an angle has, as a plain number."""
    return x if isinstance(x, Infinite | Undefined) else _count_in(x, "deg")


def radians(x: Value) -> Value:
    """How many radians an angle has, as a plain number."""
    return x if isinstance(x, Infinite | Undefined) else _count_in(x, "rad")


FUNCTIONS = (
    Function(
        name="degrees",
        subject=SUBJECT,
        summary="How many degrees an angle has, as a plain number.",
        parameters=(ANGLE,),
        compute=degrees,
        examples=(Example("degrees(pi/6)", "=", "30"), Example("degrees(1)", "≈", "57.29577951")),
        related=("radians", "arctan"),
        taken_for="a way to type an angle in degrees: that is 30°.",
        words="convert radians to degrees conversion",
        source="ISO 80000-3",
        takes=(Angle,),
        special_values=("degrees(pi rad) = 180", "degrees(1 turn) = 360"),
    ),
    Function(
        name="radians",
        subject=SUBJECT,
        summary="How many radians an angle has, as a plain number.",
        parameters=(ANGLE,),
        compute=radians,
        examples=(
            Example("radians(180°) as exact", "=", "pi"),
            Example("radians(1°)", "≈", "0.01745329252"),
        ),
        related=("degrees", "sin"),
        taken_for="a reading of its number as degrees: radians(180) in a radian sheet is 180.",
        words="convert degrees to radians conversion",
        source="ISO 80000-3",
        takes=(Angle,),
        special_values=("radians(180°) = pi", "radians(90°) = pi/2"),
    ),
)
