"""A tree worked out in binary64, operation by operation, beside its true value."""

from __future__ import annotations

import math
import operator
from collections.abc import Callable
from typing import cast

from engine.errors import EmptyListInBinary64, NotInBinary64
from engine.forms.answer import Written, write
from engine.forms.trees import number, signed
from engine.functions.catalogue import BY_NAME
from engine.functions.record import Function
from engine.numbers import binary64
from engine.numbers.context import conventions, working
from engine.numbers.values import Angle, Exact, List, Real, Value
from engine.reading.forms import Form
from engine.reading.traps import TRIGONOMETRIC
from engine.reading.tree import (
    NOWHERE,
    Binary,
    Call,
    Formatted,
    ListOf,
    Name,
    Node,
    Postfix,
    Prefix,
    Sexagesimal,
    Subscript,
)
from engine.sheet.calls import bind_to
from engine.sheet.evaluation import evaluate
from engine.sheet.line import Step
from engine.sheet.sheet_scope import SheetScope
from engine.sheet.store import Store

ValueOf = Callable[[Node], Value]
"""The true value of a part: a number, a quantity, an answer."""


RADIANS = {
    "rad": 1.0,
    "deg": math.pi / 180,
    "°": math.pi / 180,
    "′": math.pi / 180 / 60,
    "″": math.pi / 180 / 3600,
    "gon": math.pi / 200,
    "turn": 2 * math.pi,
}
"""Units of angles in radians, as binary64 has them."""


Machine = float | list[float]
"""What binary64 gives: a number, or a list of them."""


def machine_value(node: Node, value_of: ValueOf) -> Machine:
    """What binary64 gives for ``node``.

    Errors: :class:`LineError` where an operation has no counterpart there.
    """
    match node:
        case Binary(op=op, left=left, right=right) if op in binary64.OPERATIONS:
            first, second = machine_value(left, value_of), machine_value(right, value_of)
            return _each(binary64.OPERATIONS[op], first, second)
        case Prefix(op=("-" | "+") as op, operand=operand):
            value = machine_value(operand, value_of)
            return _each(operator.neg, value) if op == "-" else value
        case Postfix(op="%", operand=operand):
            return _each(lambda x: x / 100, machine_value(operand, value_of))
        case Postfix(op="!", operand=operand):
            value = machine_value(operand, value_of)
            return _each(lambda x: binary64.call("factorial", [x]), value)
        case Postfix(op=op, operand=operand) if op in RADIANS:
            return _each(lambda x: x * RADIANS[op], machine_value(operand, value_of))
        case Sexagesimal(degrees=degrees):
            return binary64.nearest(Exact(degrees)) * RADIANS["°"]
        case Call(function=name) if name in BY_NAME and not node.is_own:
            return _called(BY_NAME[name], node, value_of)
        case Formatted(expression=expression):
            return machine_value(expression, value_of)
        case ListOf(items=items):
            return [_number(machine_value(item, value_of), item) for item in items]
        case Subscript(of=of, index=index):
            return _item(machine_value(of, value_of), value_of(index), node)
    found = value_of(node)
    if isinstance(found, List):
        return [binary64.nearest(item) for item in found.items]
    if node.children:
        raise NotInBinary64(node.span)
    return binary64.nearest(found)


def _called(function: Function, node: Call, value_of: ValueOf) -> Machine:
    arguments = [arg for arg in bind_to(function, node) if arg is not None]
    values = [machine_value(argument, value_of) for argument in arguments]
    name = function.name
    if name in ANGLES_OF and not isinstance(value_of(arguments[0]), Angle):
        values[0] = _each(lambda x: x * RADIANS[conventions().angle], values[0])
    if name in OF_ALL_ITEMS and any(isinstance(value, list) for value in values):
        values = [[x for one in values for x in (one if isinstance(one, list) else [one])]]
    if len(values) == 1 and isinstance(values[0], list) and name in binary64.OF_LISTS:
        if not values[0]:
            raise EmptyListInBinary64()
        return binary64.OF_LISTS[name](values[0])
    return _each(lambda *row: binary64.call(name, [*row]), *values)


OF_ALL_ITEMS = frozenset({"min", "max"})
"""Functions that take the items of lists among their arguments all together."""

ANGLES_OF = TRIGONOMETRIC
"""Functions whose bare arguments are read in the unit of the sheet."""


def _each(compute: Callable[..., float], *values: Machine) -> Machine:
    """``compute`` item by item, where one of the values is a list."""
    lengths = {len(value) for value in values if isinstance(value, list)}
    if not lengths:
        return compute(*values)
    [length] = lengths
    columns = [value if isinstance(value, list) else [value] * length for value in values]
    return [compute(*row) for row in zip(*columns, strict=True)]


def _number(value: Machine, node: Node) -> float:
    if isinstance(value, list):
        raise NotInBinary64(node.span)
    return value


def _item(of: Machine, index: Value, node: Subscript) -> Machine:
    if isinstance(of, list) and isinstance(index, Exact) and index.is_integer:
        return of[int(index.coefficient.p) - 1]
    raise NotInBinary64(node.span)


def number_of(store: Store, step: Step) -> Machine:
    """What binary64 gives for a step whose value is known.  Errors: as above."""
    scope = SheetScope(store, step, step.place)
    with working(step.work()):
        return machine_value(step.stated.expression, lambda part: evaluate(part, scope))


def plain_value(value: Value | None) -> Value | None:
    """An angle as its number of radians, which is what binary64 has of it."""
    return value.radians if isinstance(value, Angle) else value


KINDS_OF_TEXT = {"undefined": "undefined", "infinity": "infinity", "-infinity": "infinity"}
"""What a binary64 that is no number is."""

ANOTHER = "→"
"""Stands before a binary64: it is another computation, neither exact nor rounded."""


def write_machine(machine: Machine, true: Value, form: Form) -> Written:
    """A binary64 as an answer, with the true value and the distance between them."""
    if isinstance(machine, list):
        return _write_list(machine, true, form)
    true = cast(Value, plain_value(true))
    text = binary64.shortest(machine)
    kind = KINDS_OF_TEXT.get(text, "number")
    shown = write(true, Form(digits=form.digits))
    also = [f"true value {shown.sign} {shown.text}"]
    if isinstance(true, Exact | Real) and kind == "number":
        away = binary64.distance(machine, true)
        also.append("no distance" if away == 0 else f"distance about {away.str(4, radius=False)}")
    return Written(kind, ANOTHER, _tree(text), tuple(also))


def _write_list(numbers: list[float], true: Value, form: Form) -> Written:
    trees = tuple(_tree(binary64.shortest(number)) for number in numbers)
    shown = write(true, Form(digits=form.digits))
    also = (f"true values {shown.sign} {shown.text}",)
    return Written("list", ANOTHER, ListOf(NOWHERE, trees), also)


def _tree(text: str) -> Node:
    """A binary64 as it can be typed in."""
    if KINDS_OF_TEXT.get(text) is None:
        return number(text)
    return signed(Name(NOWHERE, text.lstrip("-")), text.startswith("-"))
