"""What a statement is about, which pictures show: its angle, and complex numbers."""

from __future__ import annotations

from typing import TypeGuard

from teapot.engine.diagnostics.names import Values
from teapot.engine.numbers import angles
from teapot.engine.numbers.values import Angle, Complex, Exact, List, Real, Value, is_complex
from teapot.engine.reading.tree import Call
from teapot.engine.reading.vocabulary import TRIGONOMETRIC
from teapot.engine.sheet.scope import Trace, value_of_part

MOST_LOOKED_AT = 1000
"""Items of a list that are looked at."""


def angle_met(value: Value, trace: Trace, values: Values) -> Angle | None:
    """The value where it is an angle; else the argument of the first sine or the like,
    or else the first angle that was met on the way.  None where there is none."""
    if _is_real(value):
        return value
    for node, _ in trace:
        if isinstance(node, Call) and node.function in TRIGONOMETRIC and node.args:
            angle = _as_angle(value_of_part(node.args[0], values))
            if angle is not None:
                return angle
    for _, one in trace:
        if type(one) is Angle or type(one) is List:
            first = _first(one)
            if _is_real(first):
                return first
    return None


def _is_real(value: Value | None) -> TypeGuard[Angle]:
    """Whether it is an angle that the dial can show."""
    return isinstance(value, Angle) and not value.is_complex


def _as_angle(value: Value | None) -> Angle | None:
    first = _first(value)
    angle = angles.as_angle(first) if isinstance(first, Exact | Real | Angle) else None
    return angle if _is_real(angle) else None


def _first(value: Value | None) -> Value | None:
    """A value, or the first item of a list."""
    while isinstance(value, List):
        value = value.items[0] if value.items else None
    return value


def met_on_the_way(trace: Trace) -> tuple[bool, bool]:
    """Whether a complex number, and whether a list that takes a while to work out, is among
    the values of the parts of a statement."""
    meets_complex = meets_long = False
    for _, one in trace:
        kind = type(one)
        if kind is Complex or (kind is Angle and is_complex(one)):
            meets_complex = True
        elif kind is List and len(one.items) > MOST_LOOKED_AT:  # type: ignore[union-attr]
            meets_long = True
    return meets_complex, meets_long


def has_complex(value: Value) -> bool:
    """Whether a value is a complex number, or a list with one."""
    if is_complex(value):
        return True
    return type(value) is List and any(map(is_complex, value.items[:MOST_LOOKED_AT]))
