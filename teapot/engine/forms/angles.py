"""Angles written in their units."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeGuard

from flint import fmpz

from teapot.engine.forms import trees
from teapot.engine.forms.complexes import write_complex
from teapot.engine.forms.reals import WHOLE_IN_FULL, WRITERS, positional_text, sign_of
from teapot.engine.forms.written import Written
from teapot.engine.numbers.angles import SIGNS, UNITS, count_of
from teapot.engine.numbers.arithmetic import multiply
from teapot.engine.numbers.decimal import Decimal, to_places
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Number,
    exact,
    real,
)
from teapot.engine.reading.forms import Form
from teapot.engine.reading.literals import sexagesimal_value
from teapot.engine.reading.tree import NOWHERE, Node, Sexagesimal, Statement
from teapot.engine.sentences.forms import FORM_FOR_PLAIN_NUMBER


def write_angle(angle: Angle, form: Form) -> Written:
    """An angle in the unit of the form, or else in its own."""
    name = form.unit if form.unit in UNITS else angle.name
    if name == "dms" and angle.is_complex:
        name = "deg"
    if name == "dms":
        return _sexagesimal(angle, form)
    if form.style in ("percent", "binary64"):
        raise FORM_FOR_PLAIN_NUMBER(form=form.style)
    count = count_of(angle, name)
    if isinstance(count, Complex):
        return _with_unit(write_complex(count, replace(form, shape="", unit="")), name)
    shown = WRITERS[form.style](count, form)
    if name == "rad" and not form.style and not form.asked and _is_shown_as_multiple(count):
        closed = trees.with_unit(trees.multiple_of_pi(count), name)
        return Written("angle", "=", closed, nearly=_with_unit(shown, name))
    return _with_unit(shown, name)


def _is_shown_as_multiple(number: Number) -> TypeGuard[Exact]:
    """Whether it is a multiple of π by a fraction that is not too long to be read."""
    if not (isinstance(number, Exact) and number.pi_power == 1):
        return False
    return bool(max(abs(number.coefficient.p), number.coefficient.q) < 10**WHOLE_IN_FULL)


def _with_unit(number: Written, name: str) -> Written:
    """A number with its unit."""
    sign = SIGNS[name].strip()
    tree = trees.with_unit(_expression(number.tree), sign)
    return Written("angle", number.sign, tree, number.also, number.notice)


def _expression(tree: Node | Statement) -> Node:
    assert isinstance(tree, Node)
    return tree


def _sexagesimal(angle: Angle, form: Form) -> Written:
    """Degrees, minutes and seconds: ``12°30′15″``."""
    seconds = multiply(real(count_of(angle, "deg")), exact(3600))
    places = form.places
    if places is None:
        degrees = to_places(real(count_of(angle, "deg")), 0).mantissa
        places = max(0, form.figures - len(abs(degrees).str()) - 4)
    rounded = to_places(seconds, places)
    unit = fmpz(10) ** max(0, -rounded.exponent)
    total, rest = divmod(abs(rounded.mantissa), 60 * unit)
    part = Decimal(rest, rounded.exponent, rounded.exact)
    least = places if form.asked and form.places is not None else 0
    text = f"{total // 60}°{total % 60}′{positional_text(part, least)}″"
    tree = Sexagesimal(NOWHERE, *sexagesimal_value(text, NOWHERE))
    return Written("angle", sign_of(rounded), trees.signed(tree, rounded.mantissa < 0))
