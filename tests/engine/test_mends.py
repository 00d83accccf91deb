"""Every mend that any line brings: it can be read, is answered, and keeps the meaning.

The lines are those of the table of slips, of the problem sheets, and lines made by chance.
"""

import re
import unicodedata
from pathlib import Path

import pytest

from teapot.engine import FullSheet
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import offers
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.tree import Assignment
from tests.engine.fuzzed import lines
from tests.examples import IS_THOROUGH, part_of

pytestmark = pytest.mark.slow

HERE = Path(__file__).parent
MISSING = frozenset({"unknown-name", "unknown-function", "rest-of-unit", "asks", "no-answer"})
MEANT = {
    "∫": "integral",
    "∞": "infinity",
    "¬": "not",
    "∧": "and",
    "∨": "or",
    "∑": "sum",
    "Σ": "sum",
    "∏": "product",
    "√": "rt(",  # of sqrt, or of cbrt
    "∥": "1/(1/",
}
"""What is written for a sign."""

OPERATORS = frozenset("+<>=|~×÷±^−⁻⋅∕∙∗→≤≥≠≈°")

TAKEN_AWAY = frozenset("?$€£¥'\"‘’`´#…¿¡")
"""Signs that stand for nothing here, which their sentence says."""

BY_CHANCE = 4000

NUMBER = re.compile(r"\d+(?:\.\d+)?")

IN_ANY_CODE = re.compile(r"(?<=\d)[RkKMGpnuµ](?=\d)")
"""The letter at the point of a value on a part: 4k7 (IEC 60062)."""


def sheets_typed():
    """The lines of the tables, each with those before it."""
    for row in (HERE / "slips.txt").read_text("utf-8").splitlines():
        typed, arrow, _ = row.rpartition(" => ")
        if arrow:
            yield typed.split(" | ")
    for sheet in (HERE / "sheets.txt").read_text("utf-8").split("== ")[1:]:
        yield [row.rpartition(" => ")[0] for row in sheet.splitlines()[1:] if " => " in row]
    for line in lines(part_of(BY_CHANCE), seed=7):
        yield ["x = 2", "m = 3 kg", line.partition("#")[0]]


def offered():
    """Each mend with the sheet, what was typed, and what is offered for it."""
    for rows in sheets_typed():
        sheet = FullSheet()
        for typed in rows:
            known = {name for name, _ in sheet.definitions.current()}
            outcome = sheet.answer(typed)
            found = list(outcome.error.mends) if outcome.error is not None else []
            found += [mend for notice in outcome.notices for mend in notice.mends]
            for mend in offers(tuple(found), outcome.input):
                if not mend.input.startswith(("/", typed)):  # a search, or what was open closed
                    yield rows, typed, known, mend.input


def targets(line):
    try:
        statements = parse(line, BY_NAME).statements
    except Exception:
        return set()
    return {one.name for part in statements if isinstance(part, Assignment) for one in part.targets}


def fused(typed, mended):
    """Numbers of the mend whose figures stand apart, or not at all, in what was typed."""
    plain = unicodedata.normalize("NFKC", typed)
    for number in NUMBER.findall(mended):
        figures = number.replace(".", "")
        if len(figures) < 2 or number in plain:
            continue
        if number.replace(".", "R") in IN_ANY_CODE.sub("R", plain):
            continue
        apart = re.compile(r"[,'’_.\s]?".join(figures))
        loose = re.compile(r"\D+".join(figures))
        if not apart.search(plain) and loose.search(plain):
            yield number


@pytest.fixture(scope="module")
def all_of_them():
    return list(offered())


def test_there_are_many(all_of_them):
    assert len(all_of_them) > (1500 if IS_THOROUGH else 700)


def is_changed(name, typed):
    """Whether the line gives a name its value, in another language's way too."""
    word = re.escape(name)
    ways = rf"(?<!\w){word}\s*(?:,\s*\w+\s*)*(?:[-+*/^|:]?=|\+\+|--)|(?:->|→|=)\s*{word}"
    return re.search(ways, typed) is not None


def test_no_mend_overwrites_what_has_a_value(all_of_them):
    wrong = [
        (typed, mended)
        for _, typed, known, mended in all_of_them
        for name in (targets(mended) - targets(typed)) & known
        if not is_changed(name, typed)
    ]
    assert wrong == []


def dropped(typed, mended):
    """Signs with a meaning that are not in the mend, and no word for them is."""
    for sign in typed:
        means_something = unicodedata.category(sign) in ("Sm", "So") and sign not in OPERATORS
        is_there = sign in mended or MEANT.get(sign, "\0") in mended
        if means_something and sign not in TAKEN_AWAY and not is_there:
            yield sign


def test_no_mend_drops_a_sign_that_means_something(all_of_them):
    wrong = [
        (typed, mended, sign)
        for _, typed, _, mended in all_of_them
        for sign in dropped(typed, mended)
    ]
    assert wrong == []


def test_no_mend_fuses_figures(all_of_them):
    wrong = [
        (typed, mended, number)
        for _, typed, _, mended in all_of_them
        for number in fused(typed, mended)
    ]
    assert wrong == []


def test_every_mend_can_be_read(all_of_them):
    wrong = []
    for rows, typed, _, mended in all_of_them:
        sheet = FullSheet()
        for line in rows[: rows.index(typed)]:
            sheet.answer(line)
        again = sheet.answer(mended)
        if again.status not in ("ok", "note") and again.error.code not in MISSING:
            wrong.append((typed, mended, again.error.text))
    assert wrong == []
