"""The unit and the prefix that a textbook of the field prints a result in.

Common practice of the trade: ``textbook_units.txt`` was written down before the engine was asked.
Books go to kilo from a thousand on; here a number keeps its unit up to a million, unless what was
multiplied has the prefix.
"""

import re
from pathlib import Path

import pytest
from flint import fmpq

from teapot.engine import FullSheet
from teapot.engine.reading.units import unit_from
from teapot.engine.units.merging import Part

TEXT = (Path(__file__).parent / "textbook_units.txt").read_text()
FIELDS = {
    title.strip(): rows.strip().splitlines()
    for title, _, rows in (part.partition("\n") for part in TEXT.split("## ")[1:])
}
NUMBER = re.compile(r"(\(.*?\)|-?[\d.]+(?:e-?\d+)?)(?: |$)")


def unit_shown(typed: str) -> str:
    """The unit of an answer; ``1`` of a plain number, nothing of an error."""
    found = FullSheet().answer(typed)
    assert found.answers, (typed, found.error)
    return NUMBER.sub("", found.answers[-1].text.split(" ≈ ")[-1], count=1).strip() or "1"


def parts(text: str) -> frozenset[Part]:
    found = None if text == "1" else unit_from(text)
    return frozenset() if found is None else frozenset(found.parts)


def without_prefix(units: frozenset[Part]) -> frozenset[tuple[tuple[fmpq, ...], int, fmpq]]:
    """By dimension and power; whether a size is a power of ten of the coherent one."""
    return frozenset((atom.dimension, of_ten(atom.factor), power) for atom, power in units)


def of_ten(size: fmpq) -> int:
    return len({int(size.p), int(size.q)} - {1} - {10**n for n in range(25)})


def test_the_list_has_three_hundred_results():
    assert sum(map(len, FIELDS.values())) >= 300


@pytest.mark.parametrize("field", FIELDS)
def test_units_are_those_of_the_book(field):
    rows = [row.split(" => ") for row in FIELDS[field]]
    shown = [(typed, parts(unit_shown(typed)), parts(unit)) for typed, unit in rows]
    others = [
        typed for typed, got, wanted in shown if without_prefix(got) != without_prefix(wanted)
    ]
    assert len(others) <= len(rows) * ALLOWED, others


ALLOWED = 0.25
"""In each field; in all of them one in ten."""


def test_nine_in_ten_units_and_two_in_three_prefixes_are_those_of_the_book():
    rows = [row.split(" => ") for field in FIELDS.values() for row in field]
    shown = [(parts(unit_shown(typed)), parts(unit)) for typed, unit in rows]
    same = sum(got == wanted for got, wanted in shown)
    alike = sum(without_prefix(got) == without_prefix(wanted) for got, wanted in shown)
    assert alike >= 0.9 * len(rows), alike
    assert same >= 0.68 * len(rows), same
