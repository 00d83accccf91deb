"""A binary64 as an answer, with the true value and the distance between them."""

from __future__ import annotations

from typing import cast

from teapot.engine.forms.answer import Written, write
from teapot.engine.forms.measures import shown_unit, with_unit
from teapot.engine.forms.trees import number, signed
from teapot.engine.numbers import binary64, measures
from teapot.engine.numbers.values import Angle, Exact, List, Measure, Real, Value
from teapot.engine.reading.forms import Form
from teapot.engine.reading.tree import NOWHERE, ListOf, Name, Node, Postfix
from teapot.engine.sheet.binary64_evaluation import Machine, converted, plain_value, unit_of_value
from teapot.engine.units.unit import Unit

KINDS_OF_TEXT = {"undefined": "undefined", "infinity": "infinity", "-infinity": "infinity"}
"""What a binary64 that is no number is."""

ANOTHER = "→"
"""Stands before a binary64: it is another computation, neither exact nor rounded."""


def write_machine(machine: Machine, true: Value, form: Form) -> Written:
    """A binary64 as an answer, with the true value and the distance between them."""
    own = unit_of_value(true)
    unit = None if own is None else _asked(own, true, form)
    if unit is not None:
        true, machine = _shown_in(true, unit), converted(machine, own, unit)
    shown = write(true if unit else cast(Value, plain_value(true)), Form(digits=form.digits))
    if isinstance(machine, list):
        return _write_list(machine, shown, unit)
    text = binary64.shortest(machine)
    kind = KINDS_OF_TEXT.get(text, "number")
    also = [f"true value {shown.sign} {shown.text}"]
    plain = plain_value(true)
    if isinstance(plain, Exact | Real) and kind == "number":
        away = binary64.distance(machine, plain)
        behind = f" {unit.text}" if unit else ""
        distance = f"distance about {away.str(4, radius=False)}{behind}"
        also.append("no distance" if away == 0 else distance)
    tree = _tree(text, unit)
    if isinstance(true, Angle) and unit is None:
        tree = Postfix(NOWHERE, "rad", tree)
    return Written(kind, ANOTHER, tree, tuple(also))


def _asked(own: Unit, true: Value, form: Form) -> Unit:
    """The unit that a form shows a measure in, or a list of them."""
    first = true.items[0] if isinstance(true, List) else true
    return shown_unit(first, form) if isinstance(first, Measure) else own


def _shown_in(true: Value, unit: Unit) -> Value:
    if isinstance(true, List):
        return List(tuple(_shown_in(item, unit) for item in true.items))
    return measures.in_unit(true, unit)


def _write_list(numbers: list[float], shown: Written, unit: Unit | None) -> Written:
    trees = tuple(_tree(binary64.shortest(number), unit) for number in numbers)
    also = (f"true values {shown.sign} {shown.text}",)
    return Written("list", ANOTHER, ListOf(NOWHERE, trees), also)


def _tree(text: str, unit: Unit | None = None) -> Node:
    """A binary64 as it can be typed in, with its unit."""
    if KINDS_OF_TEXT.get(text) is None:
        return number(text) if unit is None else with_unit(number(text), unit)
    return signed(Name(NOWHERE, text.lstrip("-")), text.startswith("-"))
