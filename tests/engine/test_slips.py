"""Slips and habits of beginners: what is answered, or said, and what is offered first.

A row each, by kind.  ``typed`` may begin with lines that make quantities, each ended by a
bar between spaces; after ``=>`` stands the answer, as ``= 5`` or ``≈ 0.5``, or the first
mend.  They are common practice of the trade, collected at desks and in classrooms; no
source is cited.  Every mend that is offered anywhere here is typed in turn, and has to be
answered or to ask for no more than a value that is missing.
"""

from pathlib import Path

import pytest

from teapot.engine import FullSheet, Outcome
from teapot.engine.mends import offers
from tests.engine.answers import rounded

TABLE = Path(__file__).with_name("slips.txt")
MISSING = frozenset({"unknown-name", "asks", "no-answer"})
LEAST_ROWS = 400


def _rows() -> list[tuple[str, str, str]]:
    kind, found = "", []
    for row in TABLE.read_text(encoding="utf-8").splitlines():
        if row.startswith("== "):
            kind = row.removeprefix("== ")
        elif row.strip():
            typed, _, expected = row.rpartition(" => ")
            found.append((kind, typed, expected.strip()))
    return found


ROWS = _rows()


def typed_in(typed: str) -> tuple[FullSheet, Outcome]:
    """The sheet, and what comes of the last of the lines."""
    sheet = FullSheet()
    *before, last = typed.split(" | ")
    for line in before:
        assert sheet.answer(line).status == "ok", line
    return sheet, sheet.answer(last)


def offered(outcome: Outcome) -> list[str]:
    """The lines that its error and its notices offer."""
    found = list(outcome.error.mends) if outcome.error is not None else []
    found += [mend for notice in outcome.notices for mend in notice.mends]
    return [one.input for one in offers(tuple(found), outcome.input)]


@pytest.mark.parametrize(("kind", "typed", "expected"), ROWS)
def test_the_slip_gets_what_a_teacher_would_want(kind, typed, expected):
    _, outcome = typed_in(typed)
    if expected.startswith(("= ", "≈ ", "→ ")):
        assert outcome.status == "ok", outcome.error.text
        assert ", ".join(map(rounded, outcome.answers)) == expected
        return
    said, _, meant = expected.partition(" · ")
    text = outcome.error.text if outcome.error is not None else ""
    text += " ".join(notice.text for notice in outcome.notices)
    if expected.startswith("! "):
        assert said.removeprefix("! ") in text
    else:
        meant = expected
    if meant:
        assert offered(outcome)[:1] == [meant]


@pytest.mark.parametrize(("kind", "typed", "expected"), ROWS)
def test_every_mend_that_is_offered_works(kind, typed, expected):
    _, outcome = typed_in(typed)
    *before, _ = typed.split(" | ")
    for mend in offered(outcome):
        _, mended = typed_in(" | ".join([*before, mend]))
        works = mended.status in ("ok", "note") or mended.error.code in MISSING
        assert works, f"{typed} offers {mend}: {mended.error.text}"


def test_the_table_is_long_enough():
    assert len(ROWS) >= LEAST_ROWS
    assert len({(kind, typed) for kind, typed, _ in ROWS}) == len(ROWS)
