"""All functions and constants by name, and the closest name to a slip."""

from __future__ import annotations

from collections.abc import Iterable

from flint import fmpq

from teapot.engine.functions import (
    calculus,
    chance,
    complexes,
    conversions,
    distributions,
    hyperbolic,
    integers,
    inverse_trigonometry,
    least_squares,
    list_making,
    lists,
    logarithms,
    matrices,
    measured,
    operations,
    parts,
    physics,
    powers,
    procedures,
    rounding,
    special,
    statistics,
    tables,
    trigonometry,
)
from teapot.engine.functions.record import Constant, Function
from teapot.engine.numbers.arithmetic import exp_of
from teapot.engine.numbers.values import Complex, FunctionValue, Infinite, Undefined, exact
from teapot.engine.reading.described import Example
from teapot.engine.spelling import nearest

SUBJECTS = (
    powers,
    logarithms,
    trigonometry,
    inverse_trigonometry,
    conversions,
    hyperbolic,
    rounding,
    integers,
    parts,
    lists,
    list_making,
    statistics,
    least_squares,
    distributions,
    matrices,
    calculus,
    measured,
    procedures,
    tables,
    complexes,
    special,
    chance,
    operations,
    physics,
)
"""The modules with functions, in the order of the handbook."""

FUNCTIONS: tuple[Function, ...] = tuple(f for module in SUBJECTS for f in module.FUNCTIONS)

BY_NAME: dict[str, Function] = {
    name: function for function in FUNCTIONS for name in (function.name, *function.aliases)
}

_CONSTANTS = (
    Constant(
        name="pi",
        value=exact(1, 1),
        summary="π, the circumference of a circle over its diameter.",
        source="ISO 80000-2",
        words="circle number half turn in radians",
        examples=(Example("2 pi", "≈", "6.283185307"), Example("sin(pi/6)", "=", "0.5")),
    ),
    Constant(
        name="e",
        value=exp_of(exact(1)),
        summary="Euler's number, the base of the natural logarithm.",
        source="ISO 80000-2",
        words="Euler number base of natural logarithm exponential",
        examples=(Example("e^2", "≈", "7.389056099"), Example("ln(e)", "=", "1")),
        confused_with="the e of 4.56e-4, which is a power of ten.",
    ),
    Constant(
        name="i",
        value=Complex(exact(0), exact(1)),
        summary="The imaginary unit: its square is −1.",
        source="ISO 80000-2",
        aliases=("j",),
        words="imaginary unit square root of minus one j",
        examples=(Example("i^2", "=", "-1"), Example("(2 + i)(2 - i)", "=", "5")),
    ),
    Constant(
        name="eps",
        value=exact(fmpq(1, 2**52)),
        summary="2^−52, the spacing of binary64 at 1.",
        source="IEEE 754",
        words="machine epsilon precision spacing",
        examples=(Example("eps", "≈", "2.220446049e-16"), Example("1 + eps == 1", "=", "false")),
    ),
    Constant(
        name="infinity",
        value=Infinite(1),
        summary="∞, beyond every number.",
        source="ISO 80000-2",
        aliases=("inf",),
        words="infinite endless",
        examples=(Example("1/infinity", "=", "0"), Example("infinity + 1", "=", "infinity")),
    ),
    Constant(
        name="undefined",
        value=Undefined("It was typed so."),
        summary="No value: what 0/0 gives.",
        source="IEEE 754",
        aliases=("nan",),
        words="not a number no value",
        examples=(Example("0/0", "=", "undefined"), Example("undefined + 1", "=", "undefined")),
    ),
    Constant(
        name="true",
        value=True,
        summary="The truth value of what holds.",
        source="ISO 80000-2",
        words="yes holds boolean",
        examples=(Example("2 < 3", "=", "true"), Example("true and false", "=", "false")),
    ),
    Constant(
        name="false",
        value=False,
        summary="The truth value of what does not hold.",
        source="ISO 80000-2",
        words="no boolean",
        examples=(Example("2 > 3", "=", "false"), Example("not false", "=", "true")),
    ),
)

CONSTANTS: dict[str, Constant] = {
    name: constant for constant in _CONSTANTS for name in (constant.name, *constant.aliases)
}


ADDED = {
    "date", "value", "uncertainty", "relative", "weighted_mean", "correlated", "append", "join",
    "differences", "unique", "any", "all", "is_missing", "dot", "cross", "norm", "group",
    *(
        name
        for module in (calculus, distributions, least_squares, matrices)
        for function in module.FUNCTIONS
        for name in (function.name, *function.aliases)
    ),
}  # fmt: skip
"""Functions that there are since December 2026: in a line that was kept before, these are names as
any other."""


def is_built_in(name: str, of_old: bool = False) -> bool:
    """Whether the language itself has something of this name, or had it ``of_old``."""
    return name in CONSTANTS or (name in BY_NAME and not (of_old and name in ADDED))


SHORTEST_SLIP = 3
"""Letters of a name that may be a slip for another: shorter ones are near everything."""

NEAR_NAME = 0.7
"""How much of a name one that is taken for a slip must share with it."""

RUN_TOGETHER = 7
"""So many letters may be several words run together, as in squareRoot."""


def called_in_words(word: str) -> str | None:
    """The one function that is looked for by ``word``, None where there are none or several.

    Among several it is the one whose words begin with it.  A single letter counts as a
    capital only, as in C(9, 4).
    """
    if len(word) == 1:
        having = [f for f in FUNCTIONS if word.isupper() and word in f.words.split()]
    else:
        word = word.replace("_", "").lower()
        having = [f for f in FUNCTIONS if _is_among(word, f.words.lower().split())]
    first = [f for f in having if f.words.lower().startswith(f"{word} ")]
    found = first or having
    return found[0].name if len(found) == 1 else None


def _is_among(word: str, words: list[str]) -> bool:
    return word in words or (len(word) >= RUN_TOGETHER and word in "".join(words))


def in_another_case(name: str, known: Iterable[str]) -> str | None:
    """The known name that differs in capitals only, None if there is none."""
    cased = (one for one in known if one.lower() == name.lower() and one != name)
    return min(cased, default=None)


def closest(name: str, known: Iterable[str]) -> str | None:
    """The known name that ``name`` most likely is a slip for, None if there is none.

    Another case comes first, then the name with the most letters in the same order.
    """
    names = {*known}
    cased = in_another_case(name, names)
    if cased is not None:
        return cased
    if len(name) < SHORTEST_SLIP:
        return None
    return nearest(name.lower(), names, NEAR_NAME)


def needs_no_argument(function: FunctionValue) -> bool:
    """Whether it is a built-in that is called with empty brackets: ``today()``."""
    record = BY_NAME.get(function.name) if function.definition is None else None
    return record is not None and all(one.optional for one in record.parameters)
