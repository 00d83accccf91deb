"""How a file of comma-separated values is written: its encoding, its separator, its head."""

from __future__ import annotations

import csv
import re
from collections import Counter
from itertools import islice
from operator import itemgetter

from charset_normalizer import from_bytes

from engine.errors import NotAFile

SEPARATORS = (",", ";", "\t", "|")
LOOKED_AT = 200
"""Rows by which the separator is guessed."""

MAX_BYTES = 50 * 1024 * 1024
MAX_COLUMNS = 500
MAX_ROWS = 200_000
READ_AT_MOST = 2 * MAX_ROWS
"""Rows that are read, blank ones among them."""

MAX_CELL = 10_000
"""Characters of a cell."""

SAMPLE_BYTES = 200_000
"""Bytes by which an encoding is guessed."""

MARKS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
"""Marks at the beginning of a file that name its encoding (Unicode Standard, 23.8)."""

_NUMBER = re.compile(r"[-+−]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][-+]?\d+)?")


def too_large() -> NotAFile:
    """What is said of a file with more than :data:`MAX_BYTES`."""
    return NotAFile(why=f"it has more than {MAX_BYTES // 1024**2} megabytes")


def decoded(data: bytes) -> tuple[str, str]:
    """The text of a file and the encoding that it was in.

    Errors: :class:`NotAFile` where it is empty, too large, or no text.
    """
    if not data.strip():
        raise NotAFile(why="it is empty")
    if len(data) > MAX_BYTES:
        raise too_large()
    for mark, encoding in MARKS:
        if data.startswith(mark):
            return _as_text(data, encoding), encoding
    if b"\x00" in data[:SAMPLE_BYTES]:
        raise NotAFile(why="it holds no text")
    try:
        return data.decode("utf-8"), "utf-8"
    except UnicodeDecodeError:
        found = from_bytes(data[:SAMPLE_BYTES]).best()
    if found is None:
        raise NotAFile(why="it holds no text")
    return _as_text(data, found.encoding), found.encoding


def _as_text(data: bytes, encoding: str) -> str:
    text = data.decode(encoding, errors="replace")
    if "\x00" in text:
        raise NotAFile(why="it holds no text")
    return text


def rows_of(text: str, separator: str, most: int = READ_AT_MOST) -> list[list[str]]:
    """The first rows of a file (RFC 4180), blank ones left out.

    Errors: :class:`NotAFile` where a quotation mark never closes, or there are too many rows
    or columns.
    """
    csv.field_size_limit(MAX_CELL)
    rows: list[list[str]] = []
    reader = csv.reader(text.splitlines(keepends=True), delimiter=separator, strict=True)
    try:
        rows.extend(islice(reader, most))
    except csv.Error as error:
        if "limit" in str(error):
            said = f"a cell near row {len(rows) + 1:,} is longer than {MAX_CELL:,} characters: "
            raise NotAFile(why=f"{said}perhaps a quotation mark is never closed") from None
        why = f"near row {len(rows) + 1:,} a quotation mark is never closed"
        raise NotAFile(why=why) from None
    if len(rows) == READ_AT_MOST:
        raise NotAFile(why=f"it has more than {MAX_ROWS:,} rows")
    if not all(rows) or not all(map(itemgetter(0), rows)):
        rows = [row for row in rows if any(map(str.strip, row))]
    if len(rows) > MAX_ROWS:
        raise NotAFile(why=f"it has more than {MAX_ROWS:,} rows")
    if max(map(len, rows), default=0) > MAX_COLUMNS:
        wide = next(at for at, row in enumerate(rows, 1) if len(row) > MAX_COLUMNS)
        raise NotAFile(why=f"row {wide:,} has more than {MAX_COLUMNS} columns")
    return rows


def separator_of(text: str) -> str:
    """The separator that gives the most columns in the most rows."""
    head = "".join(text.splitlines(keepends=True)[:LOOKED_AT])
    best, most = ",", 0.0
    for separator in SEPARATORS:
        try:
            widths = Counter(map(len, rows_of(head, separator)))
        except NotAFile:
            continue
        width, times = max(widths.items(), key=lambda pair: (pair[1], pair[0]), default=(1, 0))
        share = times * times * (width - 1) / max(1, widths.total())
        if share > most:
            best, most = separator, share
    return best


def point_of(rows: list[list[str]], separator: str) -> str:
    """The sign before the decimals: a comma where more numbers have one than a point."""
    if separator == ",":
        return "."
    cells = [cell.strip() for row in rows for cell in row if _NUMBER.fullmatch(cell.strip())]
    commas = sum("," in cell for cell in cells)
    return "," if commas > sum("." in cell for cell in cells) else "."


def has_head(rows: list[list[str]]) -> bool:
    """Whether the first row names the columns: it has no number, and the others have one."""
    if len(rows) < 2:
        return False
    if any(_NUMBER.fullmatch(cell.strip()) for cell in rows[0]):
        return False
    others = [cell.strip() for row in rows[1:] for cell in row]
    if any(_NUMBER.fullmatch(cell) for cell in others):
        return True
    return len({*rows[0]}) == len(rows[0]) and all(rows[0])
