"""Dates and clock times in the cells of a file, in the forms that are usual."""

from __future__ import annotations

import re
from collections.abc import Sequence
from datetime import datetime

from flint import fmpq

MONTHS = {
    name: number
    for number, names in enumerate(
        (
            "jan january januar janvier", "feb february februar", "mar march mär märz mars",
            "apr april avril", "may mai", "jun june juni juin", "jul july juli juillet",
            "aug august", "sep sept september", "oct october okt oktober", "nov november",
            "dec december dez dezember",
        ),
        1,
    )
    for name in names.split()
}  # fmt: skip
"""Names of months, in English and as instruments of the neighbours write them."""

_CLOCK = (
    r"(?P<hour>\d{1,2}):(?P<minute>\d\d)(?::(?P<second>\d\d)(?P<part>[.,:]\d+)?)?"
    r"\s*(?P<half>[AaPp]\.?[Mm]\.?)?"
)
_FORMS = tuple(
    re.compile(rf"{day}(?:(?:[T ]|,\s*)\s*{_CLOCK}(?:Z|[-+]\d\d:?\d\d)?)?")
    for day in (
        r"(?P<year>\d{4})(?P<sign>[-/.])(?P<month>\d{1,2})(?P=sign)(?P<day>\d{1,2})",
        r"(?P<first>\d{1,2})(?P<sign>[-/.])(?P<other>\d{1,2})(?P=sign)(?P<year>\d{4}|\d\d)",
        r"(?P<day>\d{1,2})\.?[ -](?P<name>[^\W\d]{3,9})\.?[ -](?P<year>\d{4})",
        r"(?P<name>[^\W\d]{3,9})\.? (?P<day>\d{1,2}),? (?P<year>\d{4})",
    )
)
_TIME = re.compile(_CLOCK)

FIGURES_OF_SECOND = 6
"""Decimals of a second that a moment has."""

CENTURY = 2000
"""What a year of two figures counts from."""


def moment_from(cell: str, month_first: bool = False) -> tuple[datetime, bool] | None:
    """The day in a cell, and whether a time of it is told; None where there is none.

    With ``month_first`` 3/4/2024 is a day in March; with points between, the day comes first.
    """
    text = cell.strip()
    for form in _FORMS:
        found = form.fullmatch(text)
        if found is not None:
            return _moment(found.groupdict(), month_first)
    return None


def _moment(parts: dict[str, str | None], month_first: bool) -> tuple[datetime, bool] | None:
    year = int(parts["year"] or 0)
    if "first" in parts:
        first, other = int(parts["first"] or 0), int(parts["other"] or 0)
        day, month = (other, first) if month_first and parts["sign"] != "." else (first, other)
        if len(parts["year"] or "") == 2:
            year += CENTURY
    elif "name" in parts:
        day, month = int(parts["day"] or 0), MONTHS.get((parts["name"] or "").lower(), 0)
    else:
        day, month = int(parts["day"] or 0), int(parts["month"] or 0)
    clock = int(parts["minute"] or 0), int(parts["second"] or 0)
    micro = int((parts["part"] or ".0")[1:].ljust(FIGURES_OF_SECOND, "0")[:FIGURES_OF_SECOND])
    try:
        return datetime(year, month, day, _hour(parts), *clock, micro), parts["hour"] is not None
    except ValueError:
        return None


def _hour(parts: dict[str, str | None]) -> int:
    hour, half = int(parts["hour"] or 0), (parts["half"] or "").lower()[:1]
    if not half:
        return hour
    return hour % 12 + (12 if half == "p" else 0)


def is_of_two_readings(cell: str) -> bool:
    """Whether day and month of a date could change places."""
    one, other = moment_from(cell), moment_from(cell, month_first=True)
    return one is not None and other is not None and one != other


def has_month_first(cells: Sequence[str]) -> bool:
    """Whether a column has dates that are none unless the month comes first."""
    if not cells or moment_from(cells[0], month_first=True) is None:
        return False
    present = [cell for cell in {*cells} if cell.strip()]
    return any(moment_from(cell) is None for cell in present) and all(
        moment_from(cell, month_first=True) is not None for cell in present
    )


def seconds_from(cell: str) -> fmpq | None:
    """The seconds since midnight of a clock time, exactly; None where it is none."""
    found = _TIME.fullmatch(cell.strip())
    if found is None or int(found["minute"]) > 59 or int(found["second"] or 0) > 59:
        return None
    part = (found["part"] or "").strip(".,:")
    seconds = (
        _hour(found.groupdict()) * 3600 + int(found["minute"]) * 60 + int(found["second"] or 0)
    )
    return fmpq(seconds) + (fmpq(int(part), 10 ** len(part)) if part else fmpq(0))
