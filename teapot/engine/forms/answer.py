"""A value written as an answer: its sign and its tree."""

from __future__ import annotations

from teapot.engine.errors import LineError
from teapot.engine.forms import trees
from teapot.engine.forms.angles import write_angle
from teapot.engine.forms.collections import write_function, write_list, write_table
from teapot.engine.forms.complexes import write_complex
from teapot.engine.forms.measures import write_measure
from teapot.engine.forms.polar import write_polar
from teapot.engine.forms.reals import WRITERS
from teapot.engine.forms.uncertain import write_uncertain
from teapot.engine.forms.written import Written
from teapot.engine.limits import MAX_FIGURES
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Date,
    Exact,
    FunctionValue,
    Infinite,
    List,
    Measure,
    Real,
    Table,
    Uncertain,
    Undefined,
    Value,
    parts_of,
)
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.reading.tree import NOWHERE, DateLiteral, Filled, Name, Text, Words
from teapot.engine.sentences.forms import TOO_MANY_FIGURES

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
        case Measure():
            return write_measure(value, form)
        case Uncertain():
            return write_uncertain(value, form)
        case Complex():
            return (write_polar if form.shape == "polar" else write_complex)(value, form)
        case List():
            return write_list(value, form, write)
        case Table():
            return write_table(value, form, write)
        case Date():
            day = value.moment.strftime("%Y-%m-%d")
            if not value.with_time:
                return Written("date", "=", DateLiteral(NOWHERE, day, value.moment))
            part = f".{value.moment:%f}".rstrip("0").rstrip(".")
            return Written("date", "=", Words(NOWHERE, f"{day} {value.moment:%H:%M:%S}{part}"))
        case FunctionValue():
            return write_function(value)
        case Infinite(sign=sign):
            return Written("infinity", "=", trees.signed(Name(NOWHERE, "infinity"), sign < 0))
        case Undefined(reason=reason):
            return Written("undefined", "=", Name(NOWHERE, "undefined"), notice=reason)
        case bool():
            return Written("truth", "=", Name(NOWHERE, "true" if value else "false"))
        case str():
            parts = parts_of(value)
            is_rounded = any(isinstance(part, Filled) and part.sign == "≈" for part in parts)
            return Written("text", "≈" if is_rounded else "=", Text(NOWHERE, parts))
    raise TypeError(value)


def _bounded(written: Written) -> Written:
    """The same.  Errors: :data:`TOO_MANY_FIGURES` where it has more than the limit."""
    if len(written.text) > MAX_FIGURES + SPARE:
        raise TOO_MANY_FIGURES(figures=len(written.text), limit=MAX_FIGURES)
    return written


SPARE = 20
"""Signs beside the figures of a number: its sign, point, prefix and power of ten."""


def write_in_passing(value: Value, form: Form = STANDARD) -> Written:
    """As :func:`write`, for a value that is not the answer itself: one that cannot be
    written is an ellipsis, and no error."""
    try:
        return write(value, form)
    except LineError as error:
        return Written("undefined", "≈", Words(NOWHERE, "…"), notice=error.text)
