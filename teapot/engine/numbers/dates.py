"""Days: how far apart they are, and the one so much later."""

from __future__ import annotations

from datetime import timedelta

from flint import fmpq

from teapot.engine.numbers.context import conventions
from teapot.engine.numbers.sizes import count_of, measure_of
from teapot.engine.numbers.values import Date, Exact, Measure, Value, exact
from teapot.engine.sentences.values import DATE_OPERATION, NO_SUCH_DATE, PART_OF_A_DAY
from teapot.engine.units.unit import Unit

MICROSECONDS_A_DAY = 86_400 * 10**6
DAY = Unit.of("d")


def operate(op: str, a: Value, b: Value) -> Value:
    """A day less a day, which is a time; or a day and a time, or a number of days.

    Errors: :class:`LineError` for anything else, and beyond the years 1 to 9999.
    """
    if op == "-" and isinstance(a, Date) and isinstance(b, Date):
        apart = exact(_days_in(a.moment - b.moment))
        return apart if conventions().are_of_old else measure_of(apart, DAY)
    if op == "+" and isinstance(b, Date):
        a, b = b, a
    if op in ("+", "-") and isinstance(a, Date):
        days = _days(b)
        if days is not None:
            date = Date(a.moment, a.with_time or (isinstance(b, Measure) and days.q != 1))
            return _moved(date, days if op == "+" else -days)
    raise DATE_OPERATION()


def _days(value: Value) -> fmpq | None:
    """How many days a number or a time is; None for what is neither, or not exact."""
    if isinstance(value, Measure) and value.unit.dimension == DAY.dimension:
        counted = count_of(value, DAY)
        return counted.coefficient if isinstance(counted, Exact) and counted.is_rational else None
    return value.coefficient if isinstance(value, Exact) and value.is_rational else None


def _days_in(span: timedelta) -> fmpq:
    microseconds = span.days * MICROSECONDS_A_DAY + span.seconds * 10**6 + span.microseconds
    return fmpq(microseconds, MICROSECONDS_A_DAY)


def _moved(date: Date, days: fmpq) -> Date:
    if days.q != 1 and not date.with_time:
        raise PART_OF_A_DAY()
    try:
        microseconds = int((days * MICROSECONDS_A_DAY).floor())
        return Date(date.moment + timedelta(microseconds=microseconds), date.with_time)
    except OverflowError:
        raise NO_SUCH_DATE() from None
