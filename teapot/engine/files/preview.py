"""What a file is taken for, and the table that it gives."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from teapot.engine.files.books import book_in
from teapot.engine.files.cells import (
    CLOCK,
    CURRENCIES,
    DATE,
    MISSING_MARKS,
    TEXT,
    UNIT_BEHIND,
    TextColumn,
    kind_of,
    values_of,
)
from teapot.engine.files.dialect import (
    SEPARATORS,
    decoded,
    has_head,
    point_of,
    rows_of,
    separator_of,
    unpacked,
)
from teapot.engine.files.layout import KNOWN, OF_COMMENT, RULE, UNIT, layout_of
from teapot.engine.files.moments import has_month_first, is_of_two_readings
from teapot.engine.numbers.arrays import without_missing
from teapot.engine.numbers.tables import head_of
from teapot.engine.numbers.values import List, Table
from teapot.engine.reading.unit_words import BEFORE
from teapot.engine.reading.units import unit_as_written, unit_from
from teapot.engine.sentences.tables import NOT_A_FILE

SAMPLE = 1000
"""Rows by which the kinds of columns are guessed."""

OWN = -1
"""For the lines above a table: it is found anew, as of a file that was just brought in."""

LONGEST_NAME = 60
MOST_MISFITS = 1000
"""Cells that are pointed out."""

_UNIT = re.compile(r"(.*?)\s*(?:\[([^\][]{1,20})\]|\(([^()]{1,20})\))\s*")


@dataclass(frozen=True, slots=True)
class ColumnGuess:
    """A column's name, the unit that its head names, and the kind of its cells; it is guessed
    where it is empty."""

    name: str
    unit: str
    kind: str


@dataclass(frozen=True, slots=True)
class Guess:
    """How a file is read.  Each part can be changed.

    ``point`` is the sign before decimals, then that between thousands, if there is one.
    ``marks`` are the words that stand for no value, apart by spaces; the usual ones where
    it is empty; so is the ``encoding``.  ``above`` and ``below`` are lines of the file that are
    not of the table; with ``has_units`` the row after the names has the units.  In dates such as
    3/4/2024 the month comes first where ``month_first``.  Of a file of several ``sheet``s one is
    read.
    """

    separator: str
    point: str
    has_head: bool
    columns: tuple[ColumnGuess, ...] = ()
    marks: str = ""
    encoding: str = ""
    above: int = 0
    below: int = 0
    has_units: bool = False
    month_first: bool = False
    sheet: str = ""

    @property
    def rows_of_heads(self) -> int:
        """How many of the first rows name the columns and their units."""
        return self.has_head + (self.has_head and self.has_units)

    @property
    def missing_marks(self) -> frozenset[str]:
        """What stands in a cell without a value; nothing always does."""
        return frozenset(["", *self.marks.split()]) if self.marks else MISSING_MARKS


@dataclass(frozen=True, slots=True)
class Misfit:
    """A cell that does not fit its column's kind, counted from 1."""

    row: int
    column: str
    text: str


@dataclass(frozen=True, slots=True)
class Preview:
    """What a file is read as: the ``guess`` with its columns and encoding, the table, and what
    does not fit.  ``ragged`` are rows of another length than the head; ``above`` are the lines
    of the file that stand before the table, ``below`` those after it.  ``has_two_dates`` where day
    and month of a date could change places; ``sheets`` are those of a file of several."""

    guess: Guess
    table: Table
    rows: int
    misfits: tuple[Misfit, ...]
    ragged: tuple[int, ...]
    missing: tuple[int, ...]
    above: tuple[tuple[int, str], ...] = ()
    below: tuple[str, ...] = ()
    has_two_dates: bool = False
    sheets: tuple[str, ...] = ()


def guess_of(text: str) -> Guess:
    """What a file seems to be, its columns left open."""
    found = layout_of(text, SEPARATORS)
    if found is None:
        separator = separator_of(text)
        rows = rows_of(text, separator, SAMPLE)
        return Guess(separator, point_of(rows, separator), has_head(rows))
    guess = Guess(
        found.separator,
        ".",
        found.has_head,
        above=found.above,
        below=found.below,
        has_units=found.has_units,
    )
    rows = rows_of(_of_table(text, guess)[1], found.separator, SAMPLE)
    return replace(guess, point=point_of(rows, found.separator))


Numbered = tuple[tuple[int, str], ...]
"""Lines of a file with their numbers, from 1."""


def _of_table(text: str, guess: Guess) -> tuple[Numbered, str, tuple[str, ...]]:
    """The lines above the table, its text, and the lines below it."""
    if not guess.above and not guess.below:
        return (), text, ()
    lines = text.splitlines(keepends=True)
    end = max(guess.above, len(lines) - guess.below)
    above = [(at, line.strip()) for at, line in enumerate(lines[: guess.above], 1) if line.strip()]
    below = [line.strip() for line in lines[end:] if line.strip()]
    inner = lines[guess.above : end]
    if guess.has_head and inner:
        inner[0] = OF_COMMENT.sub("", inner[0])
    return tuple(above[-MOST_METADATA:]), "".join(inner), tuple(below[:MOST_METADATA])


MOST_METADATA = 100
"""Lines above and below a table that are shown with it."""


def preview_of(data: bytes, guess: Guess | None = None) -> Preview:
    """The file as a table, by a guess, or as its own says where there is none.

    Errors: :data:`NOT_A_FILE` where it cannot be read.
    """
    data = unpacked(data)
    book = book_in(data)
    sheet = "" if book is None else book.chosen(guess.sheet if guess else "")
    if book is not None:
        data = book.as_csv(sheet)
    text, encoding = decoded(data, guess.encoding if guess else "")
    if guess is None or guess.above == OWN:
        guess = guess_of(text)
    guess = replace(guess, encoding=encoding, sheet=sheet)
    above, text, below = _of_table(text, guess)
    rows, remarks = _without_remarks(rows_of(text, guess.separator))
    below = (*remarks, *below)
    if not rows:
        raise NOT_A_FILE(why="it has no rows")
    _drop_empty_columns(rows)
    width = max(len(row) for row in rows[:SAMPLE])
    head = rows.pop(0) if guess.has_head else []
    units_row = rows.pop(0) if guess.has_head and guess.has_units and rows else []
    ragged = _made_of_one_width(rows, width)
    cells = list(map(TextColumn, zip(*rows, strict=True))) or [TextColumn(()) for _ in range(width)]
    columns = guess.columns
    if not columns and any(map(has_month_first, cells)):
        guess = replace(guess, month_first=True)
    if len(columns) != width:
        columns = _columns(head, units_row, cells, guess)
    cells = [without_unit(texts, column.unit) for texts, column in zip(cells, columns, strict=True)]
    columns = tuple(
        column if column.kind else replace(column, kind=_kind(texts, guess))
        for column, texts in zip(columns, cells, strict=True)
    )
    made, misfits, missing = [], [], []
    for column, texts in zip(columns, cells, strict=True):
        values, places = values_of(
            texts, column.kind, guess.point, guess.missing_marks, guess.month_first
        )
        made.append(List(values))
        misfits += [Misfit(at + 1, column.name, texts[at]) for at in places[:MOST_MISFITS]]
        missing.append(len(values) - len(without_missing(values)))
    units = tuple(column.unit for column in columns)
    heads = tuple(head_of(column.name) for column in columns)
    table = Table(heads, tuple(made), units if any(units) else ())
    return Preview(
        guess=replace(guess, columns=columns),
        table=table,
        rows=len(rows),
        misfits=tuple(misfits),
        ragged=ragged,
        missing=tuple(missing),
        above=above,
        below=below,
        has_two_dates=_has_two_dates(columns, cells),
        sheets=() if book is None else book.sheets,
    )


def _made_of_one_width(rows: list[list[str]], width: int) -> tuple[int, ...]:
    """Which rows had another number of cells, counted from 1, now that they have this one."""
    if {*map(len, rows)} <= {width}:
        return ()
    ragged = [at for at, row in enumerate(rows, 1) if len(row) != width]
    for at in ragged:
        row = rows[at - 1]
        row[width:] = []
        row.extend([""] * (width - len(row)))
    return tuple(ragged[:MOST_MISFITS])


def _without_remarks(rows: list[list[str]]) -> tuple[list[list[str]], tuple[str, ...]]:
    """The rows without the lines drawn between them, and without remarks, which are told."""
    doubtful = [row for row in rows if row[0].strip(OF_RULES)[:1] in ("", "#")]
    remarks = [row for row in doubtful if _is_remark(row, rows[0])]
    rules = [row for row in doubtful if all(not cell or RULE.fullmatch(cell) for cell in row)]
    left_out = {*map(id, remarks), *map(id, rules)}
    told = tuple(" ".join(row) for row in remarks[:MOST_METADATA])
    return [row for row in rows if id(row) not in left_out] if left_out else rows, told


OF_RULES = " \t-=_:+"
"""What lines between rows are drawn with."""


def _is_remark(row: Sequence[str], first: Sequence[str]) -> bool:
    return row[0].lstrip().startswith("#") and len(row) < len(first)


def _drop_empty_columns(rows: list[list[str]]) -> None:
    """Takes out the columns without a name and without any value, as separators at the end of
    each line make them."""
    width = max(len(row) for row in rows[:SAMPLE])
    empty = [at for at in range(width) if not any(row[at].strip() for row in rows if at < len(row))]
    if len(empty) < width:
        for row in rows if empty else ():
            row[:] = [cell for at, cell in enumerate(row) if at not in empty]


def _has_two_dates(columns: Sequence[ColumnGuess], cells: Sequence[Sequence[str]]) -> bool:
    of_dates = (texts for column, texts in zip(columns, cells, strict=True) if column.kind == DATE)
    return any(is_of_two_readings(cell) for texts in of_dates for cell in texts[:SAMPLE])


def _kind(cells: TextColumn, guess: Guess) -> str:
    kind = kind_of(cells, guess.point, guess.missing_marks)
    return DATE if kind == TEXT and guess.month_first and has_month_first(cells) else kind


def _columns(
    head: Sequence[str],
    units_row: Sequence[str],
    cells: Sequence[TextColumn],
    guess: Guess,
) -> tuple[ColumnGuess, ...]:
    """What each column is called, and of which kind it is."""
    made: list[ColumnGuess] = []
    taken: set[str] = set()
    for at, texts in enumerate(cells):
        typed = head[at] if at < len(head) else ""
        name, unit = name_and_unit(typed)
        if at < len(units_row) and not unit:
            found = UNIT.fullmatch(units_row[at].strip())
            unit = IN_HEADS.get(found[1].strip(), found[1].strip()) if found else ""
            unit = "" if unit in ("-", "--") else unit
        name = _untaken(name or f"column_{at + 1}", taken)
        taken.add(name)
        unit = unit or unit_of_cells(texts, guess.missing_marks)
        kind = _kind(without_unit(texts, unit), guess)
        made.append(ColumnGuess(name, "s" if kind == CLOCK and not unit else unit, kind))
    return tuple(made)


_WITH_UNIT = re.compile(
    rf"(?P<before>[{CURRENCIES}])\s*[-+−]?\d[\d.,]*"
    rf"|[-+−]?\d[\d.,]*(?:[eE][-+]?\d+)?\s*(?P<behind>{UNIT_BEHIND})"
)


def unit_of_cells(cells: Sequence[str], marks: frozenset[str]) -> str:
    """The unit that stands in every cell of a column with a number; empty where there is none."""
    first = next((cell.strip() for cell in cells if cell.strip() not in marks), "")
    found = _WITH_UNIT.fullmatch(first)
    if found is None:
        return ""
    unit, stands = (
        (found["before"], str.startswith) if found["before"] else (found["behind"], str.endswith)
    )
    if unit not in ("%", *CURRENCIES) and unit_from(unit) is None:
        return ""
    present = (cell.strip() for cell in cells if cell.strip() not in marks)
    return unit if all(stands(cell, unit) for cell in present) else ""


def without_unit(cells: TextColumn, unit: str) -> TextColumn:
    """The cells of a column without the unit that stands in them."""
    if unit and unit in CURRENCIES:
        cells = TextColumn(cell.strip().removeprefix(unit).strip() for cell in cells)
    if not unit or not any(cell.endswith(unit) for cell in cells[:SAMPLE]):
        return cells
    return TextColumn(cell.strip().removesuffix(unit).strip() for cell in cells)


def name_and_unit(head: str) -> tuple[str, str]:
    """``temp [°C]``, ``temp/°C``, ``temp in °C`` and ``temp °C``: what a column is called, and its
    unit."""
    text = " ".join(head.split())[: 2 * LONGEST_NAME]
    found = _UNIT.fullmatch(text)
    if found and found[1]:
        name, unit = found[1].rstrip(" /"), found[2] or found[3]
        unit = _meant(name, unit, is_attached=text[len(name) : len(name) + 1] == "(")
    else:
        name, unit = _unit_behind(text)
    name = re.sub(r'["{}\x00-\x1f]', "", name)[:LONGEST_NAME].strip()
    if re.fullmatch(r"[^\W\d][\w ]*", name):
        # a space in a plain name becomes _, so that it can be typed without quotation marks
        name = name.replace(" ", "_")
    return name, unit


_BEHIND = re.compile(r"(?P<name>.+?)(?P<sign>\s*/\s*|,? in |, | )(?P<unit>[^\s,]+|\([^()]+\))")

UNITS_ALONE = {
    "m/s", "m/s2", "m/s²", "m/s^2", "m/h", "m/min", "g/L", "g/l", "g/mL", "g/ml", "g/cm3", "g/m3",
    "L/s", "L/h", "L/min", "l/s", "l/h", "l/min", "N/m", "V/m", "A/m", "J/K", "J/g", "W/m2",
    "C/kg", "K/s", "K/min", "V/s",
}  # fmt: skip
"""Heads of one letter over a unit that are units themselves, and no quantity over its unit
(common practice)."""

BARE = {
    "%", "°C", "°F", "mm", "cm", "km", "µm", "nm", "kg", "mg", "µg", "ms", "µs", "kPa", "hPa",
    "MPa", "mbar", "mV", "kV", "µV", "mA", "µA", "kN", "kW", "kWh", "mW", "kJ", "Hz", "kHz",
    "MHz", "GHz", "mL", "µL", "ml", "ppm", "rpm", "Ohm", "kOhm", "Ω", "kΩ", "MΩ",
}  # fmt: skip
"""Units that are known after a name with nothing but a space between (common practice)."""


def _unit_behind(head: str) -> tuple[str, str]:
    """The name and the unit of a head without brackets (ISO 80000-1, 7.1.4: a quantity over its
    unit); no unit where there is none."""
    found = _BEHIND.fullmatch(head)
    if found is None or head in UNITS_ALONE or (head.startswith(("d", "∂")) and "/d" in head):
        return head, ""
    name, sign = found["name"], found["sign"].strip()
    unit = _meant(name, found["unit"].strip("()"), is_attached=False)
    is_over = sign == "/" and (" " in found["sign"] or len(name) == 1 or unit_from(name) is None)
    is_said = is_over or sign.endswith("in") or (not sign and unit in BARE)
    if sign == ",":
        is_said = unit in KNOWN
    if not is_said or (unit not in ("%", "°") and unit_as_written(unit) is None):
        return head, ""
    if name.split()[-1] in ("per", *BEFORE):  # persons per sq km are no kilometres
        return head, ""
    return name, unit


IN_HEADS = {
    "degC": "°C", "deg C": "°C", "℃": "°C", "celsius": "°C", "Celsius": "°C",
    "degF": "°F", "deg F": "°F", "sec": "s", "secs": "s", "hr": "h", "hrs": "h", "mins": "min",
}  # fmt: skip
"""What stands in heads for a unit (common practice)."""

_TEMPERATURE = re.compile(r"t\d*|t[ _].*|temp.*", re.IGNORECASE)
_TIME = re.compile(r"t\d*|t[ _].*|.*time.*|dur.*|elapsed.*|period.*|delay.*", re.IGNORECASE)


def _meant(name: str, unit: str, is_attached: bool) -> str:
    """The unit that a head means: ``temp (C)`` is no charge, and ``cup(s)`` no time."""
    if unit in ("C", "F") and _TEMPERATURE.fullmatch(name):
        return f"°{unit}"
    if unit == "s" and is_attached and not _TIME.fullmatch(name):
        return ""
    return IN_HEADS.get(unit, unit)


def _untaken(name: str, taken: set[str]) -> str:
    """The name, or with a number after it where another column has it."""
    number, found = 2, name
    while found in taken:
        found, number = f"{name}_{number}", number + 1
    return found
