"""An angle as the dial shows it: in every unit, with its sine, cosine and tangent."""

from __future__ import annotations

import math
from typing import Any

from flint import fmpq

from engine.forms.answer import write
from engine.forms.names import STANDARD, Form
from engine.numbers import angles, arithmetic
from engine.numbers.circular import cosine, sine, tangent
from engine.numbers.values import Angle, Exact, Undefined, Value, exact
from engine.sheet.curve import number_of

EXACT = Form("exact", digits=10)
QUADRANTS = ("first", "second", "third", "fourth")


def angle_from(count: str, unit: str) -> Angle:
    """The angle of a decimal number of units."""
    return angles.angle_of(Exact(fmpq(*_ratio(count))), unit)


def _ratio(text: str) -> tuple[int, int]:
    sign, text = (-1, text[1:]) if text.startswith("-") else (1, text)
    whole, _, fraction = text.partition(".")
    return sign * int((whole + fraction) or "0"), 10 ** len(fraction)


def dial_of(angle: Angle) -> dict[str, Any]:
    """What the dial shows of an angle."""
    radians = angle.radians
    turns = number_of(angles.count_of(angle, "turn"))
    values = {"sin": sine(radians), "cos": cosine(radians), "tan": tangent(radians)}
    return {
        "degrees": number_of(angles.count_of(angle, "deg")),
        "turns": turns,
        "use": _typed(angle),
        "units": [_in_unit(angle, name) for name in angles.UNITS],
        "values": [_value(name, value) for name, value in values.items()],
        "quadrant": _quadrant(radians),
        "cos": number_of(values["cos"]),
        "sin": number_of(values["sin"]),
        "tan": None if isinstance(values["tan"], Undefined) else number_of(values["tan"]),
    }


def _typed(angle: Angle) -> str:
    """The angle as it can be typed: exactly, where that is possible."""
    written = write(angle, STANDARD)
    return written.text


def _in_unit(angle: Angle, name: str) -> dict[str, str]:
    written = write(angles.in_unit(angle, name), STANDARD)
    nearly = written.nearly
    return {
        "unit": angles.UNITS[name].words,
        "name": name,
        "sign": written.sign,
        "text": written.text,
        "mathml": written.mathml,
        "nearly": nearly.mathml if nearly else "",
    }


def _value(name: str, value: Value) -> dict[str, str]:
    shown, closed = write(value, STANDARD), write(value, EXACT)
    is_closed = closed.sign == "=" and closed.text != shown.text
    return {
        "name": name,
        "sign": shown.sign,
        "text": shown.text,
        "mathml": shown.mathml,
        "closed": closed.mathml if is_closed else "",
        "remark": shown.remark,
    }


def _quadrant(radians: Value) -> str:
    """In which quadrant the ray lies, or on which half-axis."""
    sines = [arithmetic.sign_of(part) for part in (sine(radians), cosine(radians))]
    up, right = sines
    if not up:
        return "on the right half of the axis" if right > 0 else "on the left half of the axis"
    if not right:
        return "straight up" if up > 0 else "straight down"
    place = {(1, 1): 0, (1, -1): 1, (-1, -1): 2, (-1, 1): 3}[up, right]
    return f"in the {QUADRANTS[place]} quadrant"


def point_of(y: Value, x: Value) -> dict[str, Any] | None:
    """The point of ``arctan(y, x)``, and the angle that ``arctan(y/x)`` would give."""
    up, right = number_of(y), number_of(x)
    if up is None or right is None or not math.hypot(up, right):
        return None
    from_quotient = None
    if right:
        quotient = math.degrees(math.atan(up / right))
        from_quotient = f"{quotient:.4g}°"
    return {"x": right, "y": up, "quotient": from_quotient}


def first_angle() -> Angle:
    """What the dial shows where no angle is at hand: 30°."""
    return angles.angle_of(exact(30), "deg")
