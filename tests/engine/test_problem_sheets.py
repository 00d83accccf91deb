"""Whole problem sheets, typed from the look of a printed page: letters that are units stand beside
units.  Each line has beside it what is meant, worked out by Python's floats in the unit that is
named; a name in that is the number of an earlier line.  After ``±`` stands the standard
uncertainty, to first order.  ``?2`` says that a line may be asked back, and that the second mend is
what is meant; ``-`` that nothing is compared.

The sheets are made up, and were written down before they were typed; the formulas are common
practice of the trade.
"""

import math
import re
import unicodedata
from collections import Counter
from pathlib import Path

import pytest

from teapot.engine import FullSheet
from teapot.engine.mends import offers

SHEETS = Path(__file__).with_name("sheets.txt")
NAMES = {
    name: getattr(math, name)
    for name in [
        "pi",
        "sqrt",
        "exp",
        "sin",
        "cos",
        "tan",
        "asin",
        "acos",
        "atan",
        "radians",
        "log",
        "log10",
    ]
}
ASKED = re.compile(r"\?(\d) (.*)")
ASSIGNED = re.compile(r"\s*([^\W\d]\w*)\s*=(?!=)")
LEAST_RIGHT, MOST_ASKED = 0.93, 0.05


def sheets():
    for part in SHEETS.read_text("utf-8").split("== ")[1:]:
        title, *rows = part.strip().splitlines()
        yield title, [row.rpartition(" => ")[::2] for row in rows]


def wanted_of(told, names):
    """The number and the unit: the longest beginning that Python can work out."""
    words = told.split(" ")
    for end in range(len(words), 0, -1):
        try:
            return float(eval(" ".join(words[:end]), dict(names))), " ".join(words[end:])
        except (SyntaxError, NameError, TypeError):
            continue
    raise AssertionError(told)


class Student:
    """Types a sheet, and picks the mend that is meant where it is asked; ``counts`` its lines."""

    def __init__(self):
        self.sheet = FullSheet()
        self.names = dict(NAMES)
        self.counts = Counter()

    def types(self, typed, told):
        asked = ASKED.fullmatch(told)
        told = asked[2] if asked else told
        outcome = self.sheet.answer(typed)
        kind = "right"
        if outcome.status != "ok" and asked:
            kind = "asked"
            mend = offers(tuple(outcome.error.mends), typed)[int(asked[1]) - 1]
            outcome = self.sheet.answer(mend.input)
        self.counts[kind if outcome.status == "ok" else "refused"] += 1
        if told == "-" or outcome.status != "ok":
            return
        self.compare(typed, told, outcome)

    def compare(self, typed, told, outcome):
        nominal, _, uncertainty = told.partition(" ± ")
        if uncertainty:
            wanted, unit = wanted_of(uncertainty, self.names)
            number = float(eval(nominal, dict(self.names)))
            self.is_shown(f"uncertainty(@{outcome.number})", wanted, unit, typed)
        else:
            number, unit = wanted_of(told, self.names)
        value = f"value(@{outcome.number})" if uncertainty else f"@{outcome.number}"
        self.is_shown(value, number, unit, typed)
        assigned = ASSIGNED.match(typed)
        if assigned:
            self.names[unicodedata.normalize("NFKC", assigned[1])] = number

    def is_shown(self, what, number, unit, typed):
        form = f"as {unit}, 12 digits" if unit else "as 12 digits"
        form = form.replace("as %,", "as percent,")
        _, again = self.sheet.entered(f"{what} {form}")
        assert again.status == "ok", (typed, again.error.text)
        # a mass in daltons has an uncertainty in kilograms
        text = re.split("[%° ]", again.answers[-1].text.lstrip("("))[0]
        if ")e" in again.answers[-1].text:
            text += again.answers[-1].text.partition(")")[2].partition(" ")[0]
        assert float(text) == pytest.approx(number, rel=1e-9), typed


def fields():
    found = {}
    for title, rows in sheets():
        field = title.rpartition("(")[2].rstrip(")")
        found.setdefault(field, []).append((title, rows))
    return found


@pytest.mark.parametrize(("field", "of_it"), fields().items())
def test_no_line_is_misread_and_nearly_all_are_right_at_once(field, of_it):
    counts = Counter()
    for title, rows in of_it:
        student = Student()
        for typed, told in rows:
            student.types(typed, told)
        counts += student.counts
        assert not student.counts["refused"], (title, student.counts)
    assert counts["right"] >= LEAST_RIGHT * counts.total(), counts
    assert counts["asked"] <= MOST_ASKED * counts.total(), counts


def test_there_are_sheets_of_each_field():
    rows = [row for _, of_it in sheets() for row in of_it]
    assert len(list(sheets())) >= 60
    assert len(rows) >= 700
    assert {"mechanics", "mechanical", "physics", "chemistry", "electrical", "civil",
            "laboratory"} == set(fields())  # fmt: skip


def entered(lines):
    sheet = FullSheet()
    for line in lines:
        sheet.answer(line)
    return sheet


def answers_of(sheet):
    """The answers of each line, and whether it is one that is answered."""
    outcomes = map(sheet.outcome_of, sheet.lines)
    return [(one.status, [(it.sign, it.text) for it in one.answers]) for one in outcomes]


@pytest.mark.parametrize("way", ["put again", "taken out and put back", "other and back"])
@pytest.mark.parametrize(("title", "rows"), sheets())
def test_a_line_that_is_mended_and_mended_back_leaves_all_as_it_was(title, rows, way):
    """Products side by side, and units beside quantities, are read by what stands before them."""
    sheet = entered(line for line, _ in rows)
    before = answers_of(sheet)
    for line in [*sheet.lines]:
        name, is_definition, _ = line.text.partition("=")
        if way == "taken out and put back":
            sheet.remove(line.number)
        elif way == "other and back" and is_definition:
            sheet.put(line.number, f"{name}= 7", line.place, line.last)
        answers_of(sheet)
        sheet.put(line.number, line.text, line.place, line.last)
        assert answers_of(sheet) == before, (title, line.text)
