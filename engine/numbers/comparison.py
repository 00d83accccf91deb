"""Which of two numbers is larger, decided as soon as their intervals part."""

from __future__ import annotations

from engine.numbers.arithmetic import remark, subtract
from engine.numbers.values import Exact, Infinite, Real, Undefined, Value

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
    """
    if isinstance(a, bool | str) or isinstance(b, bool | str):
        equal = type(a) is type(b) and a == b
        return equal if op == "==" else not equal
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


def _reach(a: Exact | Real | Infinite) -> int:
    return a.sign if isinstance(a, Infinite) else 0
