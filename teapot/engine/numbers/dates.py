"""Days: how far apart they are, and the one so many days on."""

from __future__ import annotations

from datetime import timedelta

from flint import fmpq

from teapot.engine.numbers.values import Date, Exact, Value, exact
from teapot.engine.sentences.values import DATE_OPERATION, NO_SUCH_DATE, PART_OF_A_DAY

SECONDS_A_DAY = 86_400


def operate(op: str, a: Value, b: Value) -> Value:
    """A day less a day, or a day and a number of days.

    Errors: :class:`LineError` for anything else, and beyond the years 1 to 9999.
    """
    if op == "-" and isinstance(a, Date) and isinstance(b, Date):
        return exact(_days_in(a.moment - b.moment))
    if op == "+" and isinstance(b, Date):
        a, b = b, a
    if op in ("+", "-") and isinstance(a, Date) and isinstance(b, Exact) and b.is_rational:
        return _moved(a, b.coefficient if op == "+" else -b.coefficient)
    raise DATE_OPERATION()


def _days_in(span: timedelta) -> fmpq:
    microseconds = span.days * SECONDS_A_DAY * 10**6 + span.seconds * 10**6 + span.microseconds
    return fmpq(microseconds, SECONDS_A_DAY * 10**6)


def _moved(date: Date, days: fmpq) -> Date:
    if days.q != 1 and not date.with_time:
        raise PART_OF_A_DAY()
    try:
        microseconds = int((days * SECONDS_A_DAY * 10**6).floor())
        return Date(date.moment + timedelta(microseconds=microseconds), date.with_time)
    except OverflowError:
        raise NO_SUCH_DATE() from None
