"""The cells of a column: what kind they are of, and their values."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from datetime import datetime

from flint import fmpq, fmpz

from engine.numbers.values import MISSING, Date, Exact, Value, exact

NUMBER, WHOLE, TEXT, DATE, TRUTH = "number", "whole number", "text", "date", "truth"
KINDS = (NUMBER, WHOLE, TEXT, DATE, TRUTH)

MISSING_MARKS = frozenset(
    ["", "-", "–", "—", "na", "n/a", "nan", "null", "none", "missing", "?", "."]
)
"""What stands in a cell for no value (common practice)."""

TRUTHS = {"true": True, "yes": True, "false": False, "no": False}

MAX_FIGURES = 1000
MAX_EXPONENT = 300
"""Figures and powers of ten of a number in a file."""

FEW = 20
TENS = tuple(10**power for power in range(FEW))

_WHOLE = re.compile(r"[-+−]?\d+")
_DECIMAL = re.compile(r"([-+−]?)(\d*)(?:\.(\d*))?(?:[eE]([-+]?\d{1,4}))?")
_DATE = re.compile(r"(\d{4})-(\d\d)-(\d\d)(?:[T ](\d\d):(\d\d)(?::(\d\d))?)?")


def is_missing_mark(cell: str) -> bool:
    """Whether a cell has no value."""
    return cell.strip().lower() in MISSING_MARKS


def number_from(cell: str, point: str) -> fmpq | None:
    """The exact number in a cell; None where there is none."""
    text = cell.strip()
    if point == ",":
        text = text.replace(".", "").replace(",", ".") if "," in text else text
    found = _DECIMAL.fullmatch(text)
    if not found or len(text) > MAX_FIGURES:
        return None
    sign, whole, fraction, exponent = found.groups()
    figures = (whole or "") + (fraction or "")
    if not figures:
        return None
    power = int(exponent or 0) - len(fraction or "")
    if abs(power) > MAX_EXPONENT + MAX_FIGURES:
        return None
    number = fmpz(int(figures)) * (-1 if sign in ("-", "−") and sign else 1)
    return fmpq(number * fmpz(10) ** power) if power >= 0 else fmpq(number, fmpz(10) ** -power)


def _number(cell: str, point: str) -> Value | None:
    whole, _, fraction = cell.partition(point)
    figures = whole + fraction
    if len(figures) < FEW and figures.isascii() and figures.isdecimal():
        # nearly all cells of a file of measurements
        return Exact(fmpq(int(figures), TENS[len(fraction)]))
    number = number_from(cell, point)
    return None if number is None else exact(number)


def _whole(cell: str, point: str) -> Value | None:
    if len(cell) < FEW and cell.isascii() and cell.isdecimal():
        return Exact(fmpq(int(cell)))
    text = cell.strip()
    is_whole = _WHOLE.fullmatch(text) and len(text) <= MAX_FIGURES
    return exact(fmpq(int(text.replace("−", "-")))) if is_whole else None


def _text(cell: str, point: str) -> Value | None:
    return cell.strip().replace("\x00", "")


def _date(cell: str, point: str) -> Value | None:
    found = _DATE.fullmatch(cell.strip())
    if not found:
        return None
    try:
        moment = datetime(*(int(part or 0) for part in found.groups()))  # type: ignore[arg-type]
    except ValueError:
        return None
    return Date(moment, with_time=found[4] is not None)


def _truth(cell: str, point: str) -> Value | None:
    return TRUTHS.get(cell.strip().lower())


READERS: dict[str, Callable[[str, str], Value | None]] = {
    NUMBER: _number,
    WHOLE: _whole,
    TEXT: _text,
    DATE: _date,
    TRUTH: _truth,
}

GUESSED = (WHOLE, NUMBER, DATE, TRUTH)
"""The kinds that are tried, the narrowest first; what fits none is text."""

FITTING = 0.9
"""Share of the cells that must fit a kind: the others are pointed out."""


def kind_of(cells: Sequence[str], point: str) -> str:
    """The kind of a column by its cells."""
    values = [cell for cell in cells if not is_missing_mark(cell)]
    if not values:
        return TEXT
    for kind in GUESSED:
        fitting = sum(READERS[kind](cell, point) is not None for cell in values)
        if fitting == len(values):
            return kind
    fitting = sum(number_from(cell, point) is not None for cell in values)
    return NUMBER if fitting >= FITTING * len(values) else TEXT


def values_of(cells: Sequence[str], kind: str, point: str) -> tuple[list[Value], list[int]]:
    """The values of a column, and the places of cells that do not fit: those are missing."""
    read = READERS[kind]
    known: dict[str, Value] = {}
    values: list[Value] = []
    misfits: list[int] = []
    for at, cell in enumerate(cells):
        value = known.get(cell)
        if value is None:
            found = MISSING if is_missing_mark(cell) else read(cell, point)
            if found is None:
                misfits.append(at)
                found = MISSING
            else:
                known[cell] = found
            value = found
        values.append(value)
    return values, misfits
