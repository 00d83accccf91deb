"""Lines that nobody would type: pieces of the language put together by chance, and slips
with something left out, doubled or changed."""

from __future__ import annotations

import json
import random
from collections.abc import Iterator
from copy import deepcopy
from itertools import product
from pathlib import Path

from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS, FUNCTIONS
from teapot.engine.out.data import as_json
from teapot.engine.out.reading import document_from
from teapot.engine.out.text import as_markdown

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
    "kg", "m", "s", "m/s", "°C", "J/(kg K)", "kWh", "5 kg", "20 °C", "as kWh", "as SI", "N·m",
    "m^2", "rpm", "rad/s", "±", "+/-", "5 ± 0.1 m", "m = 2 kg", "km/h",
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
    "5 m", "20 °C", "[1 m, 2 s]", "[1 m, 2 m]", "(3+4i)*1 V", "90 deg/s", "0 s", "[20 °C, 5 K]",
    "5 ± 0.1", "[5 ± 0.1 m, 2 m]", "0 ± 1", "20 ± 1 °C",
)  # fmt: skip
"""Values at the edges of what operations and functions take."""

BETWEEN = (
    "+",
    "±",
    "-",
    "*",
    "/",
    "^",
    " mod ",
    " div ",
    "<",
    "==",
    "~",
    "∠",
    "..",
    " and ",
    " < 2 < ",
)
BEHIND = (
    "!", "%", "°", " rad", "[1]", "[1..2]", " as fraction", " as polar", " as dms", " as deg",
    " as 3 places", " as binary64", " as hex", " as mixed", " as percent", " as exact",
    " as scientific", " as engineering", " as polar, deg", " as rectangular", " as turn, 3 digits",
    " m", " °C", " as km", " as SI", " as °C", " as rad/s", " as kWh, 4 digits",
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


# -- files ----------------------------------------------------------------------------------

SHEET_AS_TEXT = """\
title: Heating water
angle: deg
m = 1.2  # water, kg
a, b = 3, 4; a + b
r = random()
sin(30°) as 4 digits
1/0
"""

TABLES = (
    b"time;volume\n0;2,5\n1;2,75\n2;\n",
    "Zeit,T/°C\r\n08:00,96.5\r\n08:05,93.1\r\n".encode("latin-1"),
    "a\tb\n1\t\u00bd\n\n3\t4\n".encode("utf-16"),
    b'"x ""1""",y\n1e400,-\n0x1F,2026-02-30\n',
)

ODD_DATA = (
    None, True, -1, 0, 10**30, 1.5, float("nan"), "", "x", "\x00", "9" * 400, [], [[]], {}, {"": 1},
    ["x"] * 50, {"text": 1}, "\ud800", "2026-99-99T99:99",
)  # fmt: skip


def files(count: int, seed: int = 1) -> Iterator[tuple[str, bytes]]:
    """So many files by name, the same in every run: sheets in each format that comes in, and
    tables, with something in them changed, left out, doubled, or of another kind."""
    generator = random.Random(seed)
    document = document_from(SHEET_AS_TEXT, "heating")
    data = json.loads(as_json(document))
    sound = [
        ("sheet.txt", SHEET_AS_TEXT.encode()),
        ("sheet.md", as_markdown(document).encode()),
        *((f"table-{at}.csv", table) for at, table in enumerate(TABLES)),
    ]
    for _ in range(count):
        if generator.random() < 0.4:
            changed = json.loads(json.dumps(data))
            for _ in range(generator.randint(1, 3)):
                _change(generator, changed)
            yield "sheet.json", json.dumps(changed).encode()
        else:
            name, content = generator.choice(sound)
            yield name, _bytes_mangled(generator, content)


def _change(generator: random.Random, data: object) -> None:
    """Changes something somewhere within data."""
    while True:
        places = list(data) if isinstance(data, dict) else list(range(len(data)))
        if not places:
            return
        place = generator.choice(places)
        if isinstance(data[place], dict | list) and data[place] and generator.random() < 0.7:
            data = data[place]
            continue
        if generator.random() < 0.3:
            del data[place]
        else:
            data[place] = deepcopy(generator.choice(ODD_DATA))
        return


def _bytes_mangled(generator: random.Random, content: bytes) -> bytes:
    made = bytearray(content)
    for _ in range(generator.randint(1, 6)):
        at = generator.randrange(len(made) + 1)
        end = min(len(made), at + generator.randint(0, 12))
        piece = generator.choice(
            (b"", b"\x00", b"\xff\xfe", b'"', b"\n", b";,\t|", b"9" * 40, made[at:end] * 3,
             bytes(generator.randrange(256) for _ in range(8)), b"<!-- ", b"{", b"]" * 30)
        )  # fmt: skip
        made[at:end] = piece
    return bytes(made)
