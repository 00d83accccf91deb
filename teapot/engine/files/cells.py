"""The cells of a column: what kind they are of, and their values."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from functools import cache
from operator import mul
from typing import NamedTuple
from zlib import crc32

from flint import fmpq, fmpz

from teapot.engine.files.moments import moment_from, seconds_from
from teapot.engine.numbers.common_denominator import CommonDenominatorArray
from teapot.engine.numbers.values import MISSING, Date, Exact, Source, Uncertain, Value, exact

NUMBER, WHOLE, TEXT, DATE, TRUTH = "number", "whole number", "text", "date", "truth"
MEASURED, CLOCK = "measured value", "clock time"
KINDS = (NUMBER, WHOLE, MEASURED, TEXT, DATE, CLOCK, TRUTH)

MISSING_MARKS = frozenset(
    [
        *("", "-", "--", "---", "–", "—", "?", ".", "*", "N/A", "n/a", "NA", "na", "#N/A", "NaN"),
        *("nan", "NAN", "NULL", "Null", "null", "NONE", "None", "none", "MISSING", "Missing"),
        *("missing", "ND", "n.d.", "OL", "#DIV/0!", "#VALUE!"),
    ]
)
"""What stands in a cell for no value (common practice); Na is sodium."""

TRUTHS = {"true": True, "yes": True, "false": False, "no": False}

MAX_FIGURES = 1000
MAX_EXPONENT = 300
"""Figures and powers of ten of a number in a file."""

FEW = 20
TENS = tuple(10**power for power in range(FEW))

_WHOLE = re.compile(r"[-+−]?\d+")
_DECIMAL = re.compile(r"([-+−]?)(\d*)(?:\.(\d*))?(?:[eE]([-+]?\d{1,4})|[dD]([-+]\d{1,3}))?")
_OF_SPACE = "\u00a0\u202f\u2009"
"""Spaces that part thousands, beside the plain one."""


def is_missing_mark(cell: str, marks: frozenset[str] = MISSING_MARKS) -> bool:
    """Whether a cell has no value."""
    return cell.strip() in marks


_LIKE_NUMBER = re.compile(
    r"\s*[-+−]?(?:\d{1,3}(?:[,.'’ \u00a0\u202f\u2009]\d{3})+(?![\d])|\d+)?"
    r"(?:[.,]\d*)?(?:[eE][-+]?\d{1,3}|[dD][-+]\d{1,3})?"
    r"\s*(?:[%€$£¥]|\(\d{1,2}\)|(?:±|\+/-)\s*[\d.,]+|[A-Za-zµ°Ω][\w/°²³^·-]{0,7})?\s*"
)


def looks_like_number(cell: str) -> bool:
    """Whether a cell may be a number in some way of writing it, with a unit or an uncertainty."""
    cell = cell.strip().lstrip(CURRENCIES)
    begins = cell.strip()[:2].lstrip("-+−.,")[:1]
    return begins.isdecimal() and _LIKE_NUMBER.fullmatch(cell) is not None


CURRENCIES = "€$£¥"
"""Signs that stand before an amount, or after it."""

UNIT_BEHIND = rf"[%{CURRENCIES}]|[^\W\d_][^\s\d]{{0,9}}|°[CF]?"
"""What may be a unit after a number in a cell."""


@cache
def _grouped(point: str) -> re.Pattern[str]:
    """A number with thousands apart: the sign before its decimals and that between thousands."""
    decimal, group = re.escape(point[0]), point[1]
    between = f"[ {_OF_SPACE}]" if group == " " else re.escape(group)
    return re.compile(rf"[-+−]?\d{{1,3}}(?:{between}\d{{3}})+(?:{decimal}\d*)?")


def without_groups(cell: str, point: str) -> str:
    """A cell without the signs between thousands, where it is a number with them."""
    text = cell.strip()
    if len(point) < 2 or _grouped(point).fullmatch(text) is None:
        return text
    signs = f" {_OF_SPACE}" if point[1] == " " else point[1]
    return text.translate({ord(sign): None for sign in signs})


def number_from(cell: str, point: str) -> fmpq | None:
    """The exact number in a cell; None where there is none.

    ``point`` is the sign before its decimals, then that between its thousands, if there is one.
    """
    text = without_groups(cell, point)
    if point == ",":
        text = text.replace(".", "").replace(",", ".") if "," in text else text
    elif point[0] == ",":
        text = text.replace(",", ".")
    found = _DECIMAL.fullmatch(text)
    if not found or len(text) > MAX_FIGURES:
        return None
    sign, whole, fraction, *exponents = found.groups()
    figures = (whole or "") + (fraction or "")
    if not figures:
        return None
    power = int(exponents[0] or exponents[1] or 0) - len(fraction or "")
    if abs(power) > MAX_EXPONENT + MAX_FIGURES:
        return None
    number = fmpz(int(figures)) * (-1 if sign in ("-", "−") and sign else 1)
    return fmpq(number * fmpz(10) ** power) if power >= 0 else fmpq(number, fmpz(10) ** -power)


class TextColumn(list[str]):
    """The cells of a column as they are typed.  That they are plain numbers is found out once."""

    def __init__(self, cells: Iterable[str]) -> None:
        super().__init__(cells)
        self._plain: dict[tuple[str, frozenset[str]], PlainNumbers | None] = {}

    def plain(self, point: str, marks: frozenset[str]) -> PlainNumbers | None:
        """The column as numbers that are read at once; None where one is written otherwise."""
        key = point, marks
        if key not in self._plain:
            self._plain[key] = _plain_numbers(self, point, marks)
        return self._plain[key]


class PlainNumbers(NamedTuple):
    """The cells of a column of numbers, with nothing where there is no value, and all in one
    text; ``decimals`` are those of each, or −1 where they differ."""

    cells: Sequence[str]
    text: str
    decimals: int


def _plain_numbers(cells: Sequence[str], point: str, marks: frozenset[str]) -> PlainNumbers | None:
    if len(point) > 1:
        cells = [without_groups(cell, point) for cell in cells]
    found = _as_plain(cells, point[0])
    if found is None:
        blank = {cell for cell in {*cells} if is_missing_mark(cell, marks)}
        found = _as_plain(["" if cell in blank else cell.strip() for cell in cells], point[0])
    return found


def _as_plain(cells: Sequence[str], point: str) -> PlainNumbers | None:
    text = "\n".join(cells)
    decimals = len(cells[0].partition(point)[2]) if cells else 0
    if text.count("\n") != len(cells) - 1:
        return None
    if _plain(str(decimals), point).fullmatch(text):
        return PlainNumbers(cells, text, decimals)
    return PlainNumbers(cells, text, -1) if _plain("*", point).fullmatch(text) else None


def _numbers(found: PlainNumbers, point: str) -> CommonDenominatorArray:
    """The numbers of a column that is read at once."""
    cells, text, same = found
    gaps = frozenset([at for at, cell in enumerate(cells) if not cell]) if "" in cells else ()
    if gaps:
        cells = [cell or "0" for cell in cells]
        text, same = "\n".join(cells), same if same == 0 else -1
    above = list(map(int, text.replace(point, "").split("\n")))
    if same >= 0:
        return CommonDenominatorArray(above, TENS[same], frozenset(gaps))
    decimals = [len(cell.partition(point)[2]) for cell in cells]
    most = max(decimals)
    scales = [TENS[most - one] for one in decimals]
    return CommonDenominatorArray(list(map(mul, above, scales)), TENS[most], frozenset(gaps))


@cache
def _plain(decimals: str, point: str) -> re.Pattern[str]:
    """A column of such numbers as nearly all files of measurements have, and of empty cells;
    each with so many ``decimals``, or ``*``."""
    some = rf"(?:{re.escape(point)}[0-9]{{1,17}}+)?+"
    exactly = rf"{re.escape(point)}[0-9]{{{decimals}}}"
    behind = some if decimals == "*" else "" if decimals == "0" else exactly
    number = rf"(?:-?+[0-9]{{1,17}}+{behind})?+"
    return re.compile(rf"{number}(?:\n{number})*+")


def _number(cell: str, point: str) -> Value | None:
    whole, _, fraction = cell.partition(point[0])
    figures = whole + fraction
    if len(figures) < FEW and figures.isascii() and figures.isdecimal():
        # nearly all cells of a file of measurements
        return Exact(fmpq(int(figures), TENS[len(fraction)]))
    number = number_from(cell, point)
    return None if number is None else exact(number)


_MEASURED = re.compile(
    r"\s*(?P<value>[-+−]?[\d.,]+?(?:[eE][-+]?\d+)?)\s*"
    r"(?:(?:±|\+/-|\+-)\s*(?P<spread>[\d.,]+(?:[eE][-+]?\d+)?)|\((?P<last>\d{1,2})\))\s*"
)
"""``5.32±0.04`` and ``1.00794(7)``: a value with its standard uncertainty."""


def _measured(cell: str, point: str) -> Value | None:
    """A measured value; that of a number alone is the number."""
    found = _MEASURED.fullmatch(cell)
    if found is None:
        return _number(cell.strip(), point)
    value = number_from(found["value"], point)
    if value is None:
        return None
    if found["last"]:
        places = len(found["value"].partition(point[0])[2])
        spread: fmpq | None = fmpq(int(found["last"]), fmpz(10) ** places)
    else:
        spread = number_from(found["spread"], point)
    if spread is None or not spread:
        return exact(value) if spread is not None else None
    return Uncertain(exact(value), {Source(None, cell.strip()): spread})


def _each_its_own(values: Sequence[Value], cells: Sequence[str]) -> tuple[Value, ...]:
    """Measured values of which each is an input of its own, known by its place in the column."""
    column = crc32("\n".join(cells).encode())
    return tuple(
        Uncertain(one.nominal, {
            Source(("cell", column, at), source.name): part for source, part in one.parts.items()
        })
        if isinstance(one, Uncertain) else one
        for at, one in enumerate(values)
    )  # fmt: skip


def _whole(cell: str, point: str) -> Value | None:
    if len(cell) < FEW and cell.isascii() and cell.isdecimal():
        return Exact(fmpq(int(cell)))
    text = without_groups(cell, point)
    is_whole = _WHOLE.fullmatch(text) and len(text) <= MAX_FIGURES
    return exact(fmpq(int(text.replace("−", "-")))) if is_whole else None


def _text(cell: str, point: str) -> Value | None:
    return cell.strip().replace("\x00", "")


def _date(cell: str, point: str) -> Value | None:
    found = moment_from(cell)
    return None if found is None else Date(found[0], with_time=found[1])


def _month_first(cell: str, point: str) -> Value | None:
    found = moment_from(cell, month_first=True)
    return None if found is None else Date(found[0], with_time=found[1])


def _clock(cell: str, point: str) -> Value | None:
    seconds = seconds_from(cell)
    return None if seconds is None else exact(seconds)


def _truth(cell: str, point: str) -> Value | None:
    return TRUTHS.get(cell.strip().lower())


READERS: dict[str, Callable[[str, str], Value | None]] = {
    NUMBER: _number,
    WHOLE: _whole,
    MEASURED: _measured,
    TEXT: _text,
    DATE: _date,
    CLOCK: _clock,
    TRUTH: _truth,
}

GUESSED = (WHOLE, NUMBER, MEASURED, DATE, CLOCK, TRUTH)
"""The kinds that are tried, the narrowest first; what fits none is text."""

_HAS_ZERO = re.compile(r"^\s*0\d+\s*$", re.MULTILINE)

FITTING = 0.9
"""Share of the cells that must fit a kind: the others are pointed out."""


def kind_of(cells: TextColumn, point: str, marks: frozenset[str] = MISSING_MARKS) -> str:
    """The kind of a column by all its cells; figures with a zero before them are text."""
    plain = cells.plain(point, marks)
    if plain is not None and any(plain.cells):
        if point[0] in plain.text:
            return NUMBER
        return TEXT if _HAS_ZERO.search(plain.text) else WHOLE
    values = Counter(cells)
    for cell in [one for one in values if is_missing_mark(one, marks)]:
        del values[cell]
    if not values or any(map(_HAS_ZERO.fullmatch, values)):
        return TEXT
    for kind in GUESSED:
        if all(READERS[kind](cell, point) is not None for cell in values):
            return kind
    fitting = sum(many for cell, many in values.items() if number_from(cell, point) is not None)
    return NUMBER if fitting >= FITTING * values.total() else TEXT


def values_of(
    cells: TextColumn,
    kind: str,
    point: str,
    marks: frozenset[str] = MISSING_MARKS,
    month_first: bool = False,
) -> tuple[Sequence[Value], list[int]]:
    """The values of a column, and the places of cells that do not fit: those are missing."""
    if kind in (NUMBER, WHOLE):
        plain = cells.plain(point, marks)
        if plain is not None and not (kind == WHOLE and point[0] in plain.text):
            return _numbers(plain, point[0]), []
    read = _month_first if kind == DATE and month_first else READERS[kind]
    known = {
        cell: MISSING if is_missing_mark(cell, marks) else read(cell, point) for cell in {*cells}
    }
    misfits: list[int] = []
    unfit = {cell for cell, value in known.items() if value is None}
    if unfit:
        misfits = [at for at, cell in enumerate(cells) if cell in unfit]
    values = {cell: MISSING if value is None else value for cell, value in known.items()}
    column = tuple([values[cell] for cell in cells])
    return (_each_its_own(column, cells) if kind == MEASURED else column), misfits
