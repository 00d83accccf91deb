"""Which of two numbers is larger, decided as soon as their intervals part."""

from __future__ import annotations

from engine.errors import LineError
from engine.limits import FIRST_BITS
from engine.numbers import angles
from engine.numbers.arithmetic import subtract
from engine.numbers.complexes import parts
from engine.numbers.context import remark
from engine.numbers.values import (
    KINDS,
    Angle,
    Complex,
    Date,
    Exact,
    Infinite,
    List,
    Real,
    Table,
    Undefined,
    Value,
)

HOLDS = {
    "==": lambda sign: sign == 0,
    "!=": lambda sign: sign != 0,
    "<": lambda sign: sign < 0,
    "<=": lambda sign: sign <= 0,
    ">": lambda sign: sign > 0,
    ">=": lambda sign: sign >= 0,
}
"""What each sign says of the sign of the difference."""


def compare(op: str, a: Value, b: Value) -> bool:
    """Whether ``a op b`` holds.  What is undefined is unequal to everything.

    Two reals that cannot be told apart are taken as equal, with a remark.
    Errors: :class:`LineError` where values that have no order are put in order.
    """
    if isinstance(a, Date) and isinstance(b, Date):
        return HOLDS[op]((a.moment > b.moment) - (a.moment < b.moment))
    if not (_is_ordered(a) and _is_ordered(b)):
        return _compare_unordered(op, a, b)
    if isinstance(a, Angle) or isinstance(b, Angle):
        a, b = angles.sides(a, b)
    if isinstance(a, Undefined) or isinstance(b, Undefined):
        return op == "!="
    if isinstance(a, Infinite) or isinstance(b, Infinite):
        return HOLDS[op](_reach(a) - _reach(b))
    difference = subtract(a, b)
    if isinstance(difference, Exact):
        return HOLDS[op](difference.sign())
    sign = difference.sign()
    if sign is None:
        remark(
            "not-told-apart",
            "With 4,096 binary digits the two sides cannot be told apart; they are taken as equal.",
        )
    return HOLDS[op](sign or 0)


def can_be_told_apart(a: Value, b: Value) -> bool:
    """Whether two values differ, their reals as far as the first precision shows."""
    match a, b:
        case Exact(), Exact():
            return a != b
        case Exact() | Real(), Exact() | Real():
            return not a.ball(FIRST_BITS).overlaps(b.ball(FIRST_BITS))
        case Angle(), Angle():
            return a.unit != b.unit or can_be_told_apart(a.radians, b.radians)
        case Complex(), Complex():
            return can_be_told_apart(a.re, b.re) or can_be_told_apart(a.im, b.im)
        case List(), List():
            if len(a.items) != len(b.items):
                return True
            return any(map(can_be_told_apart, a.items, b.items))
        case Table(), Table():
            return a.names != b.names or any(map(can_be_told_apart, a.columns, b.columns))
    return a != b


def _is_ordered(value: Value) -> bool:
    return isinstance(value, Exact | Real | Infinite | Undefined | Angle)


def _compare_unordered(op: str, a: Value, b: Value) -> bool:
    """Only whether the two are the same."""
    if op not in ("==", "!="):
        kind = KINDS.get(type(b if _is_ordered(a) else a), "a number")
        raise LineError("no-order", f"{op} puts numbers in order, and this is {kind}.")
    if isinstance(a, Complex) or isinstance(b, Complex):
        (a_re, a_im), (b_re, b_im) = (
            parts(value) if isinstance(value, Complex | Exact | Real) else (None, None)
            for value in (a, b)
        )
        both = None not in (a_re, b_re)
        equal = both and compare("==", a_re, b_re) and compare("==", a_im, b_im)
    else:
        equal = type(a) is type(b) and a == b
    return equal if op == "==" else not equal


def _reach(a: Exact | Real | Infinite) -> int:
    return a.sign if isinstance(a, Infinite) else 0
