"""A value written as an answer: its sign, its plain text and its MathML."""

from __future__ import annotations

from engine.errors import LineError, TooManyFigures
from engine.forms.angles import write_angle
from engine.forms.collections import write_function, write_list, write_table
from engine.forms.complexes import write_complex
from engine.forms.names import STANDARD, Form
from engine.forms.polar import write_polar
from engine.forms.reals import WRITERS
from engine.forms.written import Written
from engine.limits import MAX_FIGURES
from engine.numbers.values import (
    Angle,
    Applied,
    Complex,
    Date,
    Exact,
    Infinite,
    List,
    Real,
    Table,
    Undefined,
    Value,
)
from engine.reading.mathml import math_text

__all__ = ["Written", "write", "write_in_passing"]


def write(value: Value, form: Form = STANDARD) -> Written:
    """``value`` as an answer in that form.

    Errors: :class:`LineError` where the form cannot show the value.
    """
    match value:
        case Exact() | Real():
            return _bounded(WRITERS[form.style](value, form))
        case Angle():
            return write_angle(value, form)
        case Complex():
            return (write_polar if form.shape == "polar" else write_complex)(value, form)
        case List():
            return write_list(value, form, write)
        case Table():
            return write_table(value, form, write)
        case Date():
            text = value.moment.strftime("%Y-%m-%d %H:%M:%S" if value.with_time else "%Y-%m-%d")
            return Written("date", "=", text, math_text(text))
        case Applied():
            return write_function(value)
        case Infinite(sign=sign):
            text = "infinity" if sign > 0 else "-infinity"
            minus = "" if sign > 0 else '<mo form="prefix">−</mo>'
            return Written("infinity", "=", text, f"<mrow>{minus}<mi>∞</mi></mrow>")
        case Undefined(reason=reason):
            return Written("undefined", "=", "undefined", math_text("undefined"), (), reason)
        case bool():
            text = "true" if value else "false"
            return Written("truth", "=", text, math_text(text))
        case str():
            return Written("text", "=", f'"{value}"', math_text(value))
    raise TypeError(value)


def _bounded(written: Written) -> Written:
    """The same.  Errors: :class:`LineError` where it has more figures than the limit."""
    if len(written.text) > MAX_FIGURES + SPARE:
        raise TooManyFigures(figures=len(written.text), limit=MAX_FIGURES)
    return written


SPARE = 20
"""Signs beside the figures of a number: its sign, point, prefix and power of ten."""


def write_in_passing(value: Value, form: Form = STANDARD) -> Written:
    """As :func:`write`, for a value that is not the answer itself: one that cannot be
    written is an ellipsis, and no error."""
    try:
        return write(value, form)
    except LineError as error:
        return Written("undefined", "≈", "…", math_text("…"), (), error.text)
