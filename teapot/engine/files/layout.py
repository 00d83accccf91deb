"""Where the table stands in the text of a file: what is above it, how its rows are parted, which
rows name its columns and their units, and what is below it.

Instruments write what they measured with above a table, and sums or sources below it.
"""

from __future__ import annotations

import csv
import itertools
import re
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from teapot.engine.files.cells import is_missing_mark, looks_like_number

SPACES, COLUMNS = " ", "  "
"""Separators: any spaces; two spaces or more, or a tab."""

LOOKED_AT = 400
"""Lines by which a table is found."""

MOST_BELOW = 40
"""Lines at the end that are looked at for what does not belong to the table."""

OF_COMMENT = re.compile(r"^\s*(?:#+|%+|//|!|\*{2,}|--\s)\s*")
"""What stands before a remark."""

RULE = re.compile(r"[\s|:+=_-]*(?:--|==|__)[\s|:+=_-]*")
"""A line that is drawn below the names, or between rows."""

TOTALS = {
    "total", "totals", "sum", "sums", "mean", "average", "avg", "median", "min", "max", "std",
    "stdev", "count", "summe", "gesamt", "mittelwert", "somme", "moyenne",
}  # fmt: skip
"""Words with which a row begins that sums others up (common practice)."""

Split = Callable[[str], list[str]]


@dataclass(frozen=True, slots=True)
class Layout:
    """``above`` and ``below`` are lines of the file that are not of the table; with ``has_head``
    the first of its rows names the columns, with ``has_units`` the next one their units."""

    separator: str
    above: int = 0
    below: int = 0
    has_head: bool = False
    has_units: bool = False


def split_by(separator: str) -> Split:
    """How a line is parted into cells."""
    if separator == SPACES:
        return lambda line: line.split()
    if separator == COLUMNS:
        return lambda line: re.split(r"\s{2,}|\t+", line.strip())
    return lambda line: _as_csv(line, separator)


def _as_csv(line: str, separator: str) -> list[str]:
    try:
        return next(csv.reader([line], delimiter=separator, skipinitialspace=True), [])
    except csv.Error:
        return line.split(separator)


def layout_of(text: str, separators: Sequence[str]) -> Layout | None:
    """Where the table stands; None where no rows with numbers in the same columns are found."""
    lines = text.splitlines()
    is_long = len(lines) > LOOKED_AT + MOST_BELOW
    looked_at = lines[:LOOKED_AT] if is_long else lines
    best, most = None, 0.0
    for separator in (*separators, COLUMNS, SPACES):
        found = _body(looked_at, split_by(separator))
        if found is None:
            continue
        heads = _heads(looked_at, split_by(separator), found)
        weight = found.weight * (WITH_NAMES if heads[0] is not None else 1)
        if weight > most * (1.02 if separator in OF_SPACE else 1):
            best, most = (separator, found, heads), weight
    if best is None:
        return None
    separator, body, (names, units) = best
    split = split_by(separator)
    first = body.first if names is None else names
    last = body.last if looked_at is lines else _last(lines, split, body)
    return Layout(
        separator=separator,
        above=first,
        below=len(lines) - 1 - last,
        has_head=names is not None,
        has_units=units,
    )


OF_SPACE = (COLUMNS, SPACES)

WITH_NAMES = 1.5
"""How much more rows weigh that have a row of names of their width."""

REMARKS = ("#", "%", "//")
"""What a row of a table does not begin with."""


@dataclass(frozen=True, slots=True)
class _Body:
    """The rows of numbers: of which width, in which columns, from which line to which."""

    width: int
    numeric: frozenset[int]
    first: int
    last: int
    weight: float

    def has(self, cells: Sequence[str]) -> bool:
        """Whether a row is one of them: most of its cells in those columns are numbers."""
        if not self.width - 1 <= len(cells) <= self.width + 1 or cells[0].startswith(REMARKS):
            return False
        of_numbers = [cells[at] for at in self.numeric if at < len(cells)]
        fitting = sum(is_missing_mark(cell) or looks_like_number(cell) for cell in of_numbers)
        present = sum(looks_like_number(cell) for cell in of_numbers)
        return bool(present) and fitting >= 0.6 * len(self.numeric) and not _sums_up(cells)

    def is_like(self, cells: Sequence[str]) -> bool:
        """Whether a row beside them is as wide, and no sum of the others."""
        return len(cells) == self.width and not _sums_up(cells)


SIGNS = ("|", ";", ",")
"""What parts the cells of another table."""


def _sums_up(cells: Sequence[str]) -> bool:
    return cells[0].strip(" :").lower() in TOTALS


def _body(lines: Sequence[str], split: Split) -> _Body | None:
    rows = [split(line) if line.strip() else [] for line in lines]
    widths = Counter(len(row) for row in rows if len(row) > 1 and any(map(looks_like_number, row)))
    if not widths:
        return None
    width, _ = max(widths.items(), key=lambda pair: (pair[1] * (pair[0] - 1), pair[0]))
    of_width = [row for row in rows if len(row) == width]
    later = of_width[len(of_width) // 3 :]  # what is above the table is at the beginning
    numeric = frozenset(
        at
        for at in range(width)
        if sum(looks_like_number(row[at]) for row in later) >= 0.5 * len(later)
    )
    of_signs = (all(row[at] in SIGNS for row in later) for at in range(width))
    if not numeric or any(of_signs):
        return None
    body = _Body(width, numeric, 0, 0, 0)
    first, last, count = _longest([bool(row) and body.has(row) for row in rows], rows)
    if count < 1:
        return None
    while first and body.is_like(rows[first - 1]) and any(map(looks_like_number, rows[first - 1])):
        first -= 1  # cells that do not fit are pointed out
    while last + 1 < len(rows) and body.is_like(rows[last + 1]):
        last += 1
    columns = width - 1 + 2 * len(numeric)
    weight = count * count * columns / max(1, sum(map(bool, rows)))
    return _Body(width, numeric, first, last, weight)


GAP = 3
"""Lines of another kind that may stand among those of a table."""


def _longest(fits: Sequence[bool], rows: Sequence[Sequence[str]]) -> tuple[int, int, int]:
    """The longest run of lines that fit, with few others among them."""
    best = (0, -1, 0)
    first, last, count = 0, -1, 0
    for at, does in enumerate(fits):
        if not does:
            continue
        others = sum(bool(row) for row in rows[last + 1 : at]) if count else 0
        if others > GAP:
            first, count = at, 0
        if not count:
            first = at
        last, count = at, count + 1
        if count > best[2]:
            best = (first, last, count)
    return best


def _last(lines: Sequence[str], split: Split, body: _Body) -> int:
    """The last line of a long file that belongs to the table."""
    for at in range(len(lines) - 1, len(lines) - 1 - MOST_BELOW, -1):
        if lines[at].strip() and body.has(split(lines[at])):
            return at
    return len(lines) - 1


def _heads(lines: Sequence[str], split: Split, body: _Body) -> tuple[int | None, bool]:
    """The line that names the columns, and whether the next one names their units."""
    filled = (at for at in range(body.first - 1, -1, -1) if lines[at].strip())
    above = [at for at in filled if not RULE.fullmatch(lines[at])]
    places = list(itertools.dropwhile(lambda at: _is_sum(split(lines[at]), body), above))[:2]
    found = []
    for at in places:
        cells = split(OF_COMMENT.sub("", lines[at]))
        is_wide = len(cells) == body.width or len(cells) == body.width - 1 >= 3
        if not is_wide or any(at < len(cells) and _is_value(cells[at]) for at in body.numeric):
            break
        found.append((at, cells))
    if not found:
        return _years(lines, split, body), False
    if len(found) == 2 and names_units(found[0][1]):
        return found[1][0], True
    if len(found) == 2 and not _names(found[0][1], body) and _names(found[1][1], body):
        return found[1][0], False  # a row below the names that does not fit, as of (12.5)
    return found[0][0], False


def _is_sum(cells: Sequence[str], body: _Body) -> bool:
    """Whether the row is a sum of those below it."""
    return len(cells) == body.width and _sums_up(cells)


def _names(cells: Sequence[str], body: _Body) -> bool:
    """Whether none of the cells over numbers has a figure."""
    return not any(re.search(r"\d", cells[at]) for at in body.numeric if at < len(cells))


def _is_value(cell: str) -> bool:
    return looks_like_number(cell) and not YEAR.fullmatch(cell.strip())


YEAR = re.compile(r"(?:1[5-9]|20)\d\d")


def _years(lines: Sequence[str], split: Split, body: _Body) -> int | None:
    """The first line of the body, where years and words name its columns."""
    head, *below = [split(line) for line in lines[body.first : body.first + 2]]
    if not below or body.width < 3:
        return None
    years = [at for at, cell in enumerate(head) if at and YEAR.fullmatch(cell.strip())]
    words = [cell for at, cell in enumerate(head) if at and at not in years]
    are_names = len(years) > 1 and not any(map(looks_like_number, words))
    has_years = any(YEAR.fullmatch(cell.strip()) for cell in below[0][1:])
    return body.first if are_names and not has_years else None


UNIT = re.compile(r"[\[(]?\s*([^\s\d\[\]()][^\[\]()]{0,14}|1/[a-zA-Zµ]+)\s*[\])]?")
KNOWN = {
    "s", "ms", "µs", "us", "min", "h", "d", "Hz", "kHz", "MHz", "GHz", "m", "mm", "cm", "km", "µm",
    "um", "nm", "g", "kg", "mg", "µg", "K", "°C", "C", "degC", "°F", "F", "V", "mV", "kV", "µV",
    "A", "mA", "µA", "uA", "Ω", "ohm", "Ohm", "kΩ", "kOhm", "MΩ", "W", "mW", "kW", "J", "kJ", "Pa",
    "kPa", "hPa", "MPa", "bar", "mbar", "N", "kN", "%", "ppm", "mol", "L", "mL", "dB", "dBm",
    "rad", "deg", "°", "m/s", "m/s²", "m/s^2", "rpm", "1/min", "1/s", "g/L", "mg/L", "mol/L",
    "a.u.", "-", "au", "S/cm", "µS/cm", "pH", "lx", "counts", "cps", "Abs", "abs",
}  # fmt: skip
"""Units that stand in such rows (common practice)."""


def names_units(cells: Sequence[str]) -> bool:
    """Whether all of a row's cells are units or empty, and half of them known ones."""
    texts = [cell.strip() for cell in cells]
    filled = [UNIT.fullmatch(text) for text in texts if text]
    known = sum(found is not None and found[1].strip() in KNOWN for found in filled)
    return bool(filled) and all(filled) and known * 2 >= len(filled)
