"""An angle as the dial shows it: in every unit, with its sine, cosine and tangent."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import cast

from flint import fmpq

from teapot.engine.aids.curve import number_of
from teapot.engine.forms.answer import Written, write
from teapot.engine.numbers import angles, arithmetic
from teapot.engine.numbers.circular import cosine, sine, tangent
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Extended,
    Real,
    Value,
    real,
)
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.reading.tree import Call
from teapot.engine.reading.vocabulary import UNITS_OF_ANGLES
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

EXACT = Form("exact", digits=10)
QUADRANTS = ("first", "second", "third", "fourth")


@dataclass(frozen=True, slots=True, kw_only=True)
class ShownValue:
    """A value under its ``name``: in ``text`` with its sign, typeset, and typeset once more
    ``nearly`` or in ``closed`` form where it has that too."""

    name: str
    sign: str
    text: str
    mathml: str
    nearly: str = ""
    closed: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class DialPoint:
    """The point of ``arctan(y, x)``, and the angle of the ``quotient`` alone."""

    x: float
    y: float
    text: str
    quotient: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Dial:
    """An angle in every unit, the functions of it as ``values``, and how it is typed to be
    used.  ``point`` is that whose direction it is."""

    degrees: float | None
    turns: float | None
    use: str
    units: tuple[ShownValue, ...]
    values: tuple[ShownValue, ...]
    quadrant: str
    tan: float | None
    point: DialPoint | None = None


def angle_from(count: str, unit: str) -> Angle:
    """The angle of a decimal number of units."""
    return cast(Angle, angles.angle_of(Exact(fmpq(*_ratio(count))), unit))


def _ratio(text: str) -> tuple[int, int]:
    sign, text = (-1, text[1:]) if text.startswith("-") else (1, text)
    whole, _, fraction = text.partition(".")
    return sign * int((whole + fraction) or "0"), 10 ** len(fraction)


def dial_of(angle: Angle, point: DialPoint | None = None) -> Dial:
    """What the dial shows of an angle, which is the direction of ``point``."""
    radians = real(angle.size)
    values = {"sin": sine(radians), "cos": cosine(radians), "tan": tangent(radians)}
    return Dial(
        degrees=number_of(angles.count_of(angle, "deg")),
        turns=number_of(angles.count_of(angle, "turn")),
        use=write(angle, STANDARD).text,
        units=tuple(_in_unit(angle, name) for name in (*UNITS_OF_ANGLES, "dms")),
        values=tuple(_value(name, value) for name, value in values.items()),
        quadrant=_quadrant(values["sin"], values["cos"]),
        tan=number_of(values["tan"]),
        point=point,
    )


def shown_as(name: str, written: Written, closed: Written | None = None) -> ShownValue:
    """What is written of a value, and its closed form where it has one."""
    return ShownValue(
        name=name,
        sign=written.sign,
        text=written.text,
        mathml=written.mathml,
        nearly=written.nearly.mathml if written.nearly else "",
        closed=closed.mathml if closed else "",
    )


def _in_unit(angle: Angle, name: str) -> ShownValue:
    return shown_as(name, write(angles.in_unit(angle, name), STANDARD))


def _value(name: str, value: Value) -> ShownValue:
    shown, closed = write(value, STANDARD), write(value, EXACT)
    is_closed = closed.sign == "=" and closed.text != shown.text
    return ShownValue(
        name=name,
        sign=shown.sign,
        text=shown.text,
        mathml=shown.mathml,
        closed=closed.mathml if is_closed else "",
    )


def _quadrant(sine_of: Extended, cosine_of: Extended) -> str:
    """In which quadrant the ray lies, or on which half-axis."""
    up, right = arithmetic.sign_of(sine_of), arithmetic.sign_of(cosine_of)
    if not up:
        return "on the right half of the axis" if right > 0 else "on the left half of the axis"
    if not right:
        return "straight up" if up > 0 else "straight down"
    place = {(1, 1): 0, (1, -1): 1, (-1, -1): 2, (-1, 1): 3}[up, right]
    return f"in the {QUADRANTS[place]} quadrant"


def point_of(y: Value, x: Value) -> DialPoint | None:
    """The point of ``arctan(y, x)``, and the angle that ``arctan(y/x)`` would give."""
    up, right = number_of(y), number_of(x)
    if up is None or right is None or not math.hypot(up, right):
        return None
    from_quotient = None
    if right:
        quotient = math.degrees(math.atan(up / right))
        from_quotient = f"{quotient:.4g}°"
    return DialPoint(x=right, y=up, text=f"({right:.4g}, {up:.4g})", quotient=from_quotient)


def _point_among(node: Call, workings: Workings) -> DialPoint | None:
    if node.function not in ("arctan", "atan2", "atan") or len(node.args) != 2:
        return None
    y, x = map(workings.value_of, node.args)
    return point_of(y, x) if isinstance(y, Exact | Real) and isinstance(x, Exact | Real) else None


def is_of(step: Step) -> bool:
    """Whether a statement is about an angle."""
    return step.angle is not None


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Dial]:
    """The dial of a statement, as its picture gets it."""
    if step.angle is None:
        return []
    point = None
    if step.value is step.angle:
        calls = [node for node in step.nodes if isinstance(node, Call)]
        point = next(filter(None, (_point_among(node, workings) for node in calls)), None)
    return [dial_of(step.angle, point)]
