"""Dates against Python's own calendar, the Gregorian one of ISO 8601."""

import datetime

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from tests.engine.answers import answer, error, outcome


def on(date: datetime.date, line: str) -> str:
    """The answer of a line that was first answered on that day."""
    sheet = FullSheet()
    days = [tuple(date.isoformat() for _ in drawn) for drawn in sheet.answer(line).draws]
    sheet.put(2, line, 2.0, draws=tuple(days))
    return sheet.outcome_of(sheet.by_number[2]).answers[-1].text


def test_today_is_the_day_that_it_is():
    before = datetime.date.today()
    [shown] = outcome("today()").answers
    assert shown.kind == "date"
    assert before.isoformat() <= shown.text <= datetime.date.today().isoformat()


DAYS = st.dates(datetime.date(1900, 1, 1), datetime.date(2200, 12, 31))


@example(datetime.date(2000, 2, 28), 1)  # a leap year, as every 400th is
@example(datetime.date(2100, 2, 28), 1)  # none, as every 100th is not
@example(datetime.date(2026, 11, 24), 38)
@given(DAYS, st.integers(-100_000, 100_000))
def test_days_are_counted_as_the_calendar_has_them(day, days):
    assert on(day, f"today() + {days}") == (day + datetime.timedelta(days)).isoformat()
    assert on(day, f"today() - {days}") == (day - datetime.timedelta(days)).isoformat()
    assert on(day, f"(today() + {days}) - today()") == f"{days} d"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("today() < today() + 1", "= true"),
        ("today() == today() + 0", "= true"),
        ("max(today() - today(), 2 d)", "= 2 d"),
        ("if(today() + 1 > today(), 1, 2)", "= 1"),
    ],
)
def test_days_are_compared(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("today() + 0.5", "part-of-a-day"),
        ("today() * 2", "date-operation"),
        ("today() + 10^9", "no-such-date"),
        ("sqrt(today())", "not-a-number"),
        ("today(1)", "too-many-arguments"),
    ],
)
def test_what_dates_have_not(line, code):
    assert error(line) == code


def test_a_date_stays_with_its_line():
    sheet = FullSheet()
    first = sheet.answer("d = now()")
    sheet.by_number[1].forget_values()
    assert sheet.outcome_of(sheet.by_number[1]).answers[0].text == first.answers[0].text
    assert sheet.answer("now() >= d").answers[0].text == "true"
