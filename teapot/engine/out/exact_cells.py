"""Cells of a table as texts: as they are shown, or with all their digits, so that they come back
unchanged from a file."""

from __future__ import annotations

from decimal import Decimal

from flint import fmpq, fmpz

from teapot.engine.forms.answer import write
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.values import Uncertain, Value, is_fraction, is_missing


def cell(value: Value) -> str:
    """A cell as it is shown; empty where it has no value."""
    if is_missing(value):
        return ""
    if isinstance(value, str):
        return value
    written = write(value)
    return written.nearly.text if written.nearly else written.text


def exact_cell(value: Value) -> str:
    """A cell with all its digits; empty where it has no value.

    >>> from teapot.engine.numbers.values import exact
    >>> exact_cell(exact(fmpq(12345678901234, 1000)))
    '12345678901.234'
    """
    if isinstance(value, Uncertain):
        return f"{exact_cell(value.nominal)} ± {exact_cell(uncertain.of(value))}"
    if is_fraction(value):
        digits = _decimal(value.coefficient)
        if digits is not None:
            return str(digits)
    return cell(value)


def _decimal(number: fmpq) -> Decimal | None:
    """A fraction as a decimal that ends; None where there is none."""
    below, places = fmpz(number.q), 0
    for prime in (2, 5):
        count = 0
        while below % prime == 0:
            below //= prime
            count += 1
        places = max(places, count)
    if below != 1:
        return None
    whole = int(number.p) * 10**places // int(number.q)
    sign, figures = int(whole < 0), tuple(map(int, str(abs(whole))))
    return Decimal((sign, figures, -places))
