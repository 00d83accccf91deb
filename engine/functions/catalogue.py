"""All functions and constants by name, and the closest name to a slip."""

from __future__ import annotations

from collections.abc import Iterable
from difflib import get_close_matches

from flint import fmpq

from engine.functions import (
    hyperbolic,
    integers,
    logarithms,
    operations,
    parts,
    powers,
    rounding,
    special,
    trigonometry,
)
from engine.functions.record import Constant, Function
from engine.numbers.arithmetic import exp_of
from engine.numbers.values import Infinite, Undefined, exact

SUBJECTS = (
    powers,
    logarithms,
    trigonometry,
    hyperbolic,
    rounding,
    integers,
    parts,
    special,
    operations,
)
"""The modules with functions, in the order of the handbook."""

FUNCTIONS: tuple[Function, ...] = tuple(f for module in SUBJECTS for f in module.FUNCTIONS)

BY_NAME: dict[str, Function] = {
    name: function for function in FUNCTIONS for name in (function.name, *function.also_written)
}

CONSTANTS: dict[str, Constant] = {
    constant.name: constant
    for constant in (
        Constant("pi", exact(1, 1), "π, the circumference of a circle over its diameter"),
        Constant("e", exp_of(exact(1)), "Euler's number, the base of the natural logarithm"),
        Constant("eps", exact(fmpq(1, 2**52)), "2^−52, the spacing of binary64 at 1", "IEEE 754"),
        Constant("infinity", Infinite(1), "∞, beyond every number"),
        Constant("inf", Infinite(1), "∞, beyond every number"),
        Constant("undefined", Undefined("It was typed so."), "no value"),
        Constant("nan", Undefined("It was typed so."), "no value"),
        Constant("true", True, "the truth value of what holds"),
        Constant("false", False, "the truth value of what does not hold"),
    )
}


def closest(name: str, known: Iterable[str]) -> str | None:
    """The known name that ``name`` most likely is a slip for, None if there is none.

    Another case comes first, then the name with the most letters in the same order.
    """
    names = sorted(set(known))
    for candidate in names:
        if candidate.lower() == name.lower() and candidate != name:
            return candidate
    close = get_close_matches(name.lower(), names, n=1, cutoff=0.7)
    return close[0] if close else None
