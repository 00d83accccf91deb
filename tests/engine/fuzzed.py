"""Lines that nobody would type: pieces of the language put together by chance, and slips
with something left out, doubled or changed."""

from __future__ import annotations

import random
from collections.abc import Iterator
from pathlib import Path

from engine.functions.catalogue import BY_NAME, CONSTANTS

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
