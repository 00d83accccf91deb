"""Files of a spreadsheet, .xlsx and .ods: one of their sheets as rows of text."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from io import BytesIO, StringIO
from typing import Any

from python_calamine import CalamineError, CalamineWorkbook

from teapot.engine.sentences.tables import NOT_A_FILE

SIGNATURE = b"PK\x03\x04"
"""What a file of them begins with: both are zip archives."""


@dataclass(frozen=True, slots=True)
class Book:
    """A file of several sheets."""

    inner: CalamineWorkbook

    @property
    def sheets(self) -> tuple[str, ...]:
        """The names of its sheets."""
        return tuple(self.inner.sheet_names)

    def chosen(self, name: str) -> str:
        """The sheet of that name; the first one that is not empty where there is none.

        Errors: :data:`NOT_A_FILE` where all are empty.
        """
        if name in self.sheets:
            return name
        for one in self.sheets:
            if self.inner.get_sheet_by_name(one).to_python():
                return one
        raise NOT_A_FILE(why="all its sheets are empty")

    def as_csv(self, name: str) -> bytes:
        """A sheet as comma-separated values in UTF-8."""
        written = StringIO()
        rows = self.inner.get_sheet_by_name(name).to_python()
        csv.writer(written).writerows([[as_text(cell) for cell in row] for row in rows])
        return written.getvalue().encode()


def book_in(data: bytes) -> Book | None:
    """The book that a file is; None where it is none.

    Errors: :data:`NOT_A_FILE` where it is damaged.
    """
    if not data.startswith(SIGNATURE):
        return None
    try:
        return Book(CalamineWorkbook.from_filelike(BytesIO(data)))
    except CalamineError:
        raise NOT_A_FILE(why="it is neither text nor a spreadsheet") from None


def as_text(cell: Any) -> str:
    """A cell as it would be typed: whole numbers without decimals, dates as in ISO 8601."""
    if isinstance(cell, bool):
        return "true" if cell else "false"
    if isinstance(cell, float):
        return str(int(cell)) if cell.is_integer() and abs(cell) < 1e15 else repr(cell)
    if isinstance(cell, datetime):
        text = cell.isoformat(" ", "milliseconds").removesuffix(".000")
        return text.removesuffix(" 00:00:00")
    if isinstance(cell, date | time):
        return cell.isoformat()
    if isinstance(cell, timedelta):
        return repr(cell.total_seconds())
    return str(cell)
