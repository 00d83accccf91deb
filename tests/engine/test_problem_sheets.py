"""Whole problem sheets, typed from the look of a printed page: letters that are units stand beside
units.  Each line has its answer beside it, worked out by Python's floats in the unit that is named.

The sheets are made up; the formulas are common practice of the trade.
"""

import math
from pathlib import Path

import pytest

from teapot.engine import FullSheet

SHEETS = Path(__file__).with_name("sheets.txt")
NAMES = {name: getattr(math, name) for name in ("pi", "sqrt", "exp", "sin", "cos", "radians")}


def sheets():
    for part in SHEETS.read_text("utf-8").split("== ")[1:]:
        title, *rows = part.strip().splitlines()
        yield title, [row.rpartition(" => ")[::2] for row in rows]


def wanted_of(told):
    """The number and the unit: the longest beginning that Python can work out."""
    words = told.split(" ")
    for end in range(len(words), 0, -1):
        try:
            return float(eval(" ".join(words[:end]), NAMES)), " ".join(words[end:])
        except (SyntaxError, NameError):
            continue
    raise AssertionError(told)


@pytest.mark.parametrize(
    ("title", "rows"), list(sheets()), ids=lambda one: one if isinstance(one, str) else ""
)
def test_every_line_is_right_at_once(title, rows):
    sheet = FullSheet()
    for typed, told in rows:
        outcome = sheet.answer(typed)
        assert outcome.status == "ok", (typed, outcome.error.text)
        number, unit = wanted_of(told)
        shown = f"@ as {unit}, 12 digits" if unit else "@ as 12 digits"
        _, again = sheet.entered(shown, last=outcome.number)
        assert again.status == "ok", (typed, outcome.answers[-1].text, again.error.text)
        text = again.answers[-1].text.split("%")[0].split("°")[0]
        assert float(text.split(" ")[0]) == pytest.approx(number, rel=1e-9), typed
