"""The curves of the handbook: made here, since nothing of them was typed by a person."""

from __future__ import annotations

from functools import lru_cache
from threading import Lock

from flint import fmpq

from teapot.engine.aids.curve import curve_of_function
from teapot.engine.aids.number_line import number_line_of
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.handbook.entries import FUNCTION, Entry
from teapot.engine.numbers.values import Exact
from teapot.pictures import curve as curves
from teapot.pictures import number_line

_one_at_a_time = Lock()
"""FLINT's precision is one setting for the whole process."""

ROUNDED = Exact(fmpq(5, 2))
"""What the number lines show: a tie, where the functions differ most."""


@lru_cache(maxsize=256)
def picture_of(entry: Entry) -> str:
    """The picture of a function; empty where it has none."""
    if entry.kind != FUNCTION:
        return ""
    with _one_at_a_time:
        line = number_line_of(BY_NAME[entry.key].name, ROUNDED)
        if line is not None:
            return number_line.draw(line)
        curve = curve_of_function(entry.key)
    return curves.draw(curve, entry.pattern) if curve else ""
