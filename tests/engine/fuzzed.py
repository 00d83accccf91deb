"""Lines that nobody would type: pieces of the language put together by chance, and slips
with something left out, doubled or changed."""

from __future__ import annotations

import random
from collections.abc import Iterator
from itertools import product
from pathlib import Path

from engine.functions.catalogue import BY_NAME, CONSTANTS, FUNCTIONS

SLIPS = Path(__file__).with_name("slips.txt")

PIECES = [
    *BY_NAME, *CONSTANTS, "+", "-", "*", "/", "^", "**", "mod", "div", "and", "or", "not", "as",
    "==", "=", ":=", "<", "<=", "!=", "~", "!", "%", "°", "′", "″", "deg", "rad", "gon", "turn",
    "(", ")", "[", "]", "|", "{", "}", ",", ";", "..", " by ", "√", "∛", "³√", "∠", "@", "@1", "#",
    '"', "'", "?", ":", "$", "\\", "&&", "||", "0", "1", "2", "3", "7", "0.5", "1e3", "1e-300",
    "1e400", "10^400", "30", "0x1F", "0b101", "12°30′", "½", "²", "⁻¹", "x", "a", "f", "π", "∞",
    "é", "𝛼", "\u202e", "\u00a0", " ", "  ", "4 digits", "hex", "fraction", "exact", "binary64",
    "polar", "dms", "percent", "9 digits, scientific", "1..5", "[1, 2, 3]", "[0.5, 2i]", "3+4i",
    "sin(30°)", "x = ", "f(x) = ", "/angle deg", "/show", "/forget all", "/cover sin", "1/3",
]  # fmt: skip


def lines(count: int, seed: int = 1) -> Iterator[str]:
    """So many lines, the same in every run."""
    generator = random.Random(seed)
    slips = [
        row.rpartition(" => ")[0].replace(" | ", "; ")
        for row in SLIPS.read_text(encoding="utf-8").splitlines()
        if " => " in row
    ]
    for _ in range(count):
        if generator.random() < 0.35:
            pieces = generator.choices(PIECES, k=generator.randint(1, 12))
            yield generator.choice(("", " ")).join(pieces)
        else:
            yield _mangled(generator, generator.choice(slips), generator.choice(slips))


AWKWARD = (
    "arcsin(2)", "[1, arcsin(2), 3]", "[arcsin(2), 30°]", "arccos(3+i)", "[[1, arcsin(2)], 2]",
    "2i", "[2i, 1]", "30°", "[30°, 2]", '"t"', "true", "undefined", "infinity", "[]", "1..3",
    "-infinity", "sin", "infinity*i", "[infinity, 1]", "1e-400", "10^300", "0.5", "[true]",
    '["a"]', "infinity*1°", "undefined*1°",
)  # fmt: skip
"""Values at the edges of what operations and functions take."""

BETWEEN = ("+", "-", "*", "/", "^", " mod ", " div ", "<", "==", "~", "∠", "..", " and ", " < 2 < ")
BEHIND = (
    "!", "%", "°", " rad", "[1]", "[1..2]", " as fraction", " as polar", " as dms", " as deg",
    " as 3 places", " as binary64", " as hex", " as mixed", " as percent", " as exact",
    " as scientific", " as engineering", " as polar, deg", " as rectangular", " as turn, 3 digits",
)  # fmt: skip
BEFORE = ("not ", "-", "√", "∛")


def pairings() -> Iterator[str]:
    """Every function, operator and form with every awkward value in every place of it."""
    for function in FUNCTIONS:
        least = sum(not parameter.optional for parameter in function.parameters)
        for count in range(max(least, 1), len(function.parameters) + 1):
            among = AWKWARD if count <= 2 else AWKWARD[:8] if count == 3 else AWKWARD[:4]
            for values in product(among, repeat=count):
                yield f"{function.name}({', '.join(values)})"
    for (one, other), sign in product(product(AWKWARD, repeat=2), BETWEEN):
        yield f"({one}){sign}({other})"
    for value in AWKWARD:
        yield from (f"({value}){sign}" for sign in BEHIND)
        yield from (f"{sign}({value})" for sign in BEFORE)


def _mangled(generator: random.Random, line: str, other: str) -> str:
    for _ in range(generator.randint(1, 3)):
        at = generator.randrange(len(line) + 1)
        match generator.randrange(4):
            case 0:
                line = line[:at] + line[at + 1 :]
            case 1:
                line = line[:at] + generator.choice(PIECES) + line[at:]
            case 2:
                line = line[:at] + line[max(0, at - 3) :]
            case 3:
                line = line[:at] + other[generator.randrange(len(other)) :]
    return line
