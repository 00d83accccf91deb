"""Measures written in their units."""

from __future__ import annotations

from dataclasses import replace
from math import floor, log10
from typing import cast

from teapot.engine.forms import trees
from teapot.engine.forms.complexes import write_complex
from teapot.engine.forms.polar import write_polar
from teapot.engine.forms.reals import WRITERS
from teapot.engine.forms.written import Written
from teapot.engine.numbers.sizes import count_of
from teapot.engine.numbers.uncertain import nearly
from teapot.engine.numbers.values import Complex, Exact, Measure, Number
from teapot.engine.reading.forms import BASE_UNITS, PREFIXED, Form
from teapot.engine.reading.tree import NOWHERE, Measured, Node, Prefix, Statement
from teapot.engine.reading.units import unit_from
from teapot.engine.sentences.forms import FORM_FOR_PLAIN_NUMBER
from teapot.engine.units.table import NUMBER, atom_of
from teapot.engine.units.unit import NAMED, Unit, base_unit, turns


def write_measure(measure: Measure, form: Form) -> Written:
    """A measure in the unit of the form, where it is one of it, or else in its own."""
    if form.style == "percent" and measure.unit.dimension == NUMBER:
        return WRITERS["percent"](cast(Number, measure.size), form)  # 400 ppm
    if form.style in ("percent", "binary64"):
        raise FORM_FOR_PLAIN_NUMBER(form=form.style)
    unit = shown_unit(measure, form)
    count = count_of(measure, unit)
    if form.style == "" and _is_long_with_zeros(count, form):
        form = replace(form, style="scientific")
    if isinstance(count, Complex):
        write = write_polar if form.shape == "polar" else write_complex
        shown = write(count, replace(form, unit=""))
    else:
        shown = WRITERS[form.style](count, replace(form, unit=""))
    return Written(
        "measure",
        shown.sign,
        with_unit(shown.tree, unit),
        shown.also,
        shown.notice,
        nearly=None if shown.nearly is None else _nearly(shown.nearly, unit),
    )


def _is_long_with_zeros(count: Number | Complex, form: Form) -> bool:
    """Whether it is a whole number such as that of 5.972e24 kg, of few figures and many zeros."""
    if not isinstance(count, Exact) or not count.is_integer or form.is_kept_to:
        return False
    figures = abs(count.coefficient.p).str()
    return len(figures) > LONG_FIGURES and len(figures.rstrip("0")) <= form.figures


LONG_FIGURES = 12


def shown_unit(measure: Measure, form: Form) -> Unit:
    """The unit in which a form shows a measure: its own, where the form's is of another kind."""
    if form.unit == BASE_UNITS:
        return base_unit(measure.unit.dimension)
    if form.unit == PREFIXED:
        return _with_prefix(measure)
    wanted = unit_from(form.unit) if form.unit else None
    fits = (
        wanted is not None
        and wanted.dimension == measure.unit.dimension
        and turns(wanted) == turns(measure.unit)
    )
    return wanted if fits and wanted is not None else measure.unit


STEPS = ("q", "r", "y", "z", "a", "f", "p", "n", "µ", "m", "", "k", "M", "G", "T", "P", "E", "Z",
         "Y", "R", "Q")  # fmt: skip
"""Prefixes a thousand apart, the one for 1 in the middle."""


def _with_prefix(measure: Measure) -> Unit:
    """The coherent unit with a name, and the prefix with which its number is from 1 to 1000; the
    measure's own unit where it has none of those."""
    unit = NAMED.get(measure.unit.dimension)
    if unit is None or unit.alone is None or isinstance(measure.size, Complex):
        return measure.unit
    if measure.is_on_scale:
        return measure.unit
    is_mass = unit == Unit.of("kg")
    size = abs(nearly(measure.size)) * (1000 if is_mass else 1)
    if not size:
        return measure.unit
    step = floor(log10(size) / 3 + 1e-12) + len(STEPS) // 2
    symbol = "g" if is_mass else unit.alone.symbol
    atom = atom_of(STEPS[min(max(step, 0), len(STEPS) - 1)] + symbol)
    return measure.unit if atom is None else Unit.of(atom.symbol)


def _nearly(shown: Written, unit: Unit) -> Written:
    return Written("measure", shown.sign, with_unit(shown.tree, unit), shown.also)


def with_unit(number: Node | Statement, unit: Unit) -> Node:
    """A number with its unit; a minus stands before both."""
    assert isinstance(number, Node)
    if isinstance(number, Prefix) and number.op == "-":
        return trees.minus(Measured(NOWHERE, number.operand, unit))
    return Measured(NOWHERE, number, unit)
