"""Measures written in their units."""

from __future__ import annotations

from dataclasses import replace

from engine.errors import FormForPlainNumber
from engine.forms import trees
from engine.forms.complexes import write_complex
from engine.forms.polar import write_polar
from engine.forms.reals import WRITERS
from engine.forms.written import Written
from engine.numbers.measures import count_of
from engine.numbers.values import Complex, Measure
from engine.reading.forms import Form
from engine.reading.tree import NOWHERE, Measured, Node, Prefix, Statement
from engine.reading.units import unit_from
from engine.units.unit import Unit, base_unit


def write_measure(measure: Measure, form: Form) -> Written:
    """A measure in the unit of the form, where it is one of it, or else in its own."""
    if form.style in ("percent", "binary64"):
        raise FormForPlainNumber(form=form.style)
    unit = _unit(measure, form)
    count = count_of(measure, unit)
    if isinstance(count, Complex):
        write = write_polar if form.shape == "polar" else write_complex
        shown = write(count, replace(form, unit=""))
    else:
        shown = WRITERS[form.style](count, replace(form, unit=""))
    nearly = shown.nearly
    return Written(
        "measure",
        shown.sign,
        _with_unit(shown.tree, unit),
        shown.also,
        shown.notice,
        nearly=None if nearly is None else _nearly(nearly, unit),
    )


def _unit(measure: Measure, form: Form) -> Unit:
    if form.unit == "SI":
        return base_unit(measure.unit.dimension)
    wanted = unit_from(form.unit) if form.unit else None
    fits = wanted is not None and wanted.dimension == measure.unit.dimension
    return wanted if fits and wanted is not None else measure.unit


def _nearly(shown: Written, unit: Unit) -> Written:
    return Written("measure", shown.sign, _with_unit(shown.tree, unit), shown.also)


def _with_unit(number: Node | Statement, unit: Unit) -> Node:
    """A number with its unit; a minus stands before both."""
    assert isinstance(number, Node)
    if isinstance(number, Prefix) and number.op == "-":
        return trees.minus(Measured(NOWHERE, number.operand, unit))
    return Measured(NOWHERE, number, unit)
