"""What a file is taken for, and the table that it gives."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from teapot.engine.files.cells import MISSING_MARKS, kind_of, values_of
from teapot.engine.files.dialect import decoded, has_head, point_of, rows_of, separator_of
from teapot.engine.numbers.common_denominator import without_missing
from teapot.engine.numbers.tables import head_of
from teapot.engine.numbers.values import List, Table
from teapot.engine.sentences.tables import NOT_A_FILE

SAMPLE = 1000
"""Rows by which the kinds of columns are guessed."""

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

    ``marks`` are the words that stand for no value, apart by spaces; the usual ones where
    it is empty; so is the ``encoding``.
    """

    separator: str
    point: str
    has_head: bool
    columns: tuple[ColumnGuess, ...] = ()
    marks: str = ""
    encoding: str = ""

    @property
    def missing_marks(self) -> frozenset[str]:
        """What stands in a cell without a value, in small letters; nothing always does."""
        return frozenset(["", *self.marks.lower().split()]) if self.marks else MISSING_MARKS


@dataclass(frozen=True, slots=True)
class Misfit:
    """A cell that does not fit its column's kind, counted from 1."""

    row: int
    column: str
    text: str


@dataclass(frozen=True, slots=True)
class Preview:
    """What a file is read as: the ``guess`` with its columns and encoding, the table, and what
    does not fit.  ``ragged`` are rows of another length than the head."""

    guess: Guess
    table: Table
    rows: int
    misfits: tuple[Misfit, ...]
    ragged: tuple[int, ...]
    missing: tuple[int, ...]


def guess_of(text: str) -> Guess:
    """What a file seems to be, its columns left open."""
    separator = separator_of(text)
    rows = rows_of(text, separator, SAMPLE)
    return Guess(separator, point_of(rows, separator), has_head(rows))


def preview_of(data: bytes, guess: Guess | None = None) -> Preview:
    """The file as a table, by a guess, or as its own says where there is none.

    Errors: :data:`NOT_A_FILE` where it cannot be read.
    """
    text, encoding = decoded(data, guess.encoding if guess else "")
    guess = replace(guess or guess_of(text), encoding=encoding)
    rows = rows_of(text, guess.separator)
    if not rows:
        raise NOT_A_FILE(why="it has no rows")
    width = max(len(row) for row in rows[:SAMPLE])
    head = rows.pop(0) if guess.has_head else []
    ragged = tuple(at for at, row in enumerate(rows, 1) if len(row) != width)[:MOST_MISFITS]
    for row in rows:
        if len(row) != width:
            row[width:] = []
            row.extend([""] * (width - len(row)))
    cells = [list(column) for column in zip(*rows, strict=True)] or [[] for _ in range(width)]
    columns = guess.columns
    if len(columns) != width:
        columns = _columns(head, cells, guess)
    columns = tuple(
        column if column.kind else replace(column, kind=_kind(texts, guess))
        for column, texts in zip(columns, cells, strict=True)
    )
    made, misfits, missing = [], [], []
    for column, texts in zip(columns, cells, strict=True):
        values, places = values_of(texts, column.kind, guess.point, guess.missing_marks)
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
    )


def _kind(cells: Sequence[str], guess: Guess) -> str:
    return kind_of(cells[:SAMPLE], guess.point, guess.missing_marks)


def _columns(
    head: Sequence[str], cells: Sequence[Sequence[str]], guess: Guess
) -> tuple[ColumnGuess, ...]:
    """What each column is called, and of which kind it is."""
    made: list[ColumnGuess] = []
    taken: set[str] = set()
    for at, texts in enumerate(cells):
        typed = head[at] if at < len(head) else ""
        name, unit = name_and_unit(typed)
        name = _untaken(name or f"column_{at + 1}", taken)
        taken.add(name)
        made.append(ColumnGuess(name, unit, _kind(texts, guess)))
    return tuple(made)


def name_and_unit(head: str) -> tuple[str, str]:
    """``temp [°C]``: what a column is called, and its unit."""
    text = " ".join(head.split())[: 2 * LONGEST_NAME]
    found = _UNIT.fullmatch(text)
    name, unit = (found[1], found[2] or found[3]) if found and found[1] else (text, "")
    unit = _meant(name, unit, is_attached=text[len(name) : len(name) + 1] == "(")
    name = re.sub(r'["{}\x00-\x1f]', "", name)[:LONGEST_NAME].strip()
    if re.fullmatch(r"[^\W\d][\w ]*", name):
        # a space in a plain name becomes _, so that it can be typed without quotation marks
        name = name.replace(" ", "_")
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
