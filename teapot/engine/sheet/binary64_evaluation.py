"""A tree worked out in binary64, operation by operation, beside its true value."""

from __future__ import annotations

import math
import operator
from collections.abc import Callable
from dataclasses import dataclass

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.record import Function
from teapot.engine.numbers import arithmetic, binary64, sizes
from teapot.engine.numbers.context import conventions, working
from teapot.engine.numbers.values import ONE, Angle, Exact, List, Measure, Value, exact
from teapot.engine.reading.tree import (
    Binary,
    Call,
    Formatted,
    ListOf,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Sexagesimal,
    Subscript,
    bound_in,
)
from teapot.engine.reading.vocabulary import TRIGONOMETRIC
from teapot.engine.sentences.values import (
    EMPTY_LIST_IN_BINARY64,
    FUNCTION_NOT_IN_BINARY64,
    NOT_IN_BINARY64,
)
from teapot.engine.sheet.calls import bind_to
from teapot.engine.sheet.evaluation import evaluate
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet_scope import SheetScope
from teapot.engine.sheet.store import Store
from teapot.engine.units.unit import Unit, is_angle


@dataclass(frozen=True, slots=True)
class Truth:
    """What is true of the parts of a line, beside which binary64 is worked out: ``value_of``
    gives the value of one; ``has_units`` is set where a measure may be among them."""

    value_of: Callable[[Node], Value]
    has_units: bool

    def unit_of(self, node: Node) -> Unit | None:
        """The unit in which binary64 counts a part; of a list that of its first item."""
        return unit_of_value(self.value_of(node)) if self.has_units else None


def unit_of_value(value: Value) -> Unit | None:
    if isinstance(value, List) and value.items:
        return unit_of_value(value.items[0])
    return value.unit if isinstance(value, Measure) else None


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


def machine_value(node: Node, truth: Truth) -> Machine:
    """What binary64 gives for ``node``; of a measure the number of its units.

    Errors: :class:`LineError` where an operation has no counterpart there.
    """
    match node:
        case Binary(op=op) if op in binary64.OPERATIONS:
            return _operated(node, truth)
        case Prefix(op=("-" | "+") as op, operand=operand):
            value = machine_value(operand, truth)
            return _each(operator.neg, value) if op == "-" else value
        case Postfix(op="%", operand=operand):
            return _each(lambda x: x / 100, machine_value(operand, truth))
        case Postfix(op="!", operand=operand):
            value = machine_value(operand, truth)
            return _each(lambda x: binary64.call("factorial", [x]), value)
        case Postfix(op=op, operand=operand) if op in RADIANS:
            return _each(lambda x: x * RADIANS[op], machine_value(operand, truth))
        case Sexagesimal(degrees=degrees):
            return binary64.nearest(Exact(degrees)) * RADIANS["°"]
        case Measured(number=inner, unit=unit) if not is_angle(unit):
            return machine_value(inner, truth)
        case Call(function=name) if name in BY_NAME and not node.is_own:
            if any(one.is_text for one in BY_NAME[name].parameters[:1]):  # a constant, by its name
                return _of_value(node, truth)
            return _called(BY_NAME[name], node, truth)
        case Formatted(expression=expression):
            value = machine_value(expression, truth)
            return converted(value, truth.unit_of(expression), truth.unit_of(node))
        case ListOf(items=items):
            return [_counted(item, truth.unit_of(node), truth) for item in items]
        case Subscript(of=of, index=index):
            return _item(machine_value(of, truth), truth.value_of(index), node)
    if node.children:
        raise NOT_IN_BINARY64(node.span)
    return _of_value(node, truth)


def _of_value(node: Node, truth: Truth) -> Machine:
    """The true value of a part, as binary64 has it."""
    found = truth.value_of(node)
    unit_of_all = unit_of_value(found)
    if isinstance(found, List):
        return [_count(item, unit_of_all, node) for item in found.items]
    return _count(found, unit_of_all, node)


def _count(value: Value, unit: Unit | None, node: Node) -> float:
    """A true number as binary64 has it, of a measure how many units it has."""
    if not isinstance(value, Measure):
        return binary64.nearest(value)
    if unit is None or value.unit.dimension != unit.dimension:
        raise NOT_IN_BINARY64(node.span)
    return binary64.nearest(sizes.count_of(value, unit))


def _counted(node: Node, unit: Unit | None, truth: Truth) -> float:
    """What binary64 gives for an item of a list, in the unit of the first."""
    value, own = _number(machine_value(node, truth), node), truth.unit_of(node)
    if own is None or unit is None:
        return value
    if own.dimension != unit.dimension:
        raise NOT_IN_BINARY64(node.span)
    return float(_in_unit(value, own, unit))  # type: ignore[arg-type]


def _in_unit(value: Machine, own: Unit | None, unit: Unit | None, power: fmpq = ONE) -> Machine:
    """So many units, raised to a power, as a number of others: multiplied by one binary64,
    where that is not 1."""
    one, other = (exact(1) if it is None else sizes.factor_of(it) for it in (own, unit))
    ratio = arithmetic.divide(arithmetic.power(one, exact(power)), other)
    if ratio == exact(1):
        return value
    factor = binary64.nearest(ratio)
    return _each(lambda x: x * factor, value)


def converted(value: Machine, own: Unit | None, unit: Unit | None) -> Machine:
    """A value in another unit, of temperatures on their scales too."""
    if own == unit or own is None or unit is None:
        return value
    if own.dimension != unit.dimension:  # a level of a power
        raise NOT_IN_BINARY64()
    value = _in_unit(value, own, unit)
    apart = (own.zero or fmpq(0)) - (unit.zero or fmpq(0))
    if not apart:
        return value
    offset = binary64.nearest(arithmetic.divide(exact(apart), sizes.factor_of(unit)))
    return _each(lambda x: x + offset, value)


def _operated(node: Binary, truth: Truth) -> Machine:
    """An operation; the sides of a sum are counted in one unit, and what a product or a power
    of units is counted in is made up for."""
    op, sides = node.op, (node.left, node.right)
    values = [machine_value(side, truth) for side in sides]
    compute = binary64.OPERATIONS[op]
    if not truth.has_units:
        return _each(compute, *values)
    whole, units = truth.unit_of(node), [truth.unit_of(side) for side in sides]
    if op in ("+", "-", "mod", "div"):
        one = units[0] if op == "div" else whole
        are_scales = units[0] != units[1] and all(own and own.zero is not None for own in units)
        convert = converted if are_scales else _in_unit
        values = [convert(it, own, one) for it, own in zip(values, units, strict=True)]
        return _each(compute, *values)
    found = _each(compute, *values)
    if op == "^":
        exponent = truth.value_of(node.right)
        power = exponent.coefficient if isinstance(exponent, Exact) else ONE
        return _in_unit(found, units[0], whole, power)
    for unit, power in zip(units, (ONE, -ONE if op == "/" else ONE), strict=True):
        found = _in_unit(found, unit, None, power)
    return _in_unit(found, None, whole)


def _power_of(whole: Unit, unit: Unit) -> fmpq:
    """Which power of a unit's dimension another has."""
    pairs = zip(whole.dimension, unit.dimension, strict=True)
    return next((one / other for one, other in pairs if other), fmpq(0))


def _called(function: Function, node: Call, truth: Truth) -> Machine:
    """A function; of measures it is taken of their numbers of the unit that the first has."""
    if function.bound is not None and bound_in(node):
        raise FUNCTION_NOT_IN_BINARY64(node.span, name=function.name)
    arguments = [arg for arg in bind_to(function, node) if arg is not None]
    values = [machine_value(argument, truth) for argument in arguments]
    units = [truth.unit_of(argument) for argument in arguments]
    first = next((unit for unit in units if unit is not None), None)
    if first is None:
        return _computed(function, arguments, values, truth)
    if any(one and one.dimension != first.dimension for one in units):
        raise NOT_IN_BINARY64(node.span)
    counts = [
        value if own is None else _in_unit(value, own, first)
        for value, own in zip(values, units, strict=True)
    ]
    whole = truth.unit_of(node)
    found = _computed(function, arguments, counts, truth)
    return _in_unit(found, first, whole, _power_of(whole, first)) if whole else found


def _computed(
    function: Function, arguments: list[Node], values: list[Machine], truth: Truth
) -> Machine:
    name = function.name
    if name in ANGLES_OF and not isinstance(truth.value_of(arguments[0]), Angle):
        values[0] = _each(lambda x: x * RADIANS[conventions().angle], values[0])
    if name in OF_ALL_ITEMS and any(isinstance(value, list) for value in values):
        values = [[x for one in values for x in (one if isinstance(one, list) else [one])]]
    if len(values) == 1 and isinstance(values[0], list) and name in binary64.OF_LISTS:
        if not values[0]:
            raise EMPTY_LIST_IN_BINARY64()
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
        raise NOT_IN_BINARY64(node.span)
    return value


def _item(of: Machine, index: Value, node: Subscript) -> Machine:
    if isinstance(of, list) and isinstance(index, Exact) and index.is_integer:
        return of[int(index.coefficient.p) - 1]
    raise NOT_IN_BINARY64(node.span)


def number_of(store: Store, step: Step) -> Machine:
    """What binary64 gives for a step whose value is known.  Errors: as above."""
    scope = SheetScope(store, step, step.place)
    with working(step.work()):
        has_units = isinstance(step.value, Measure) or any(
            isinstance(node, Measured) or (isinstance(node, Name) and _is_measure(node, scope))
            for node in step.nodes
        )
        truth = Truth(lambda part: evaluate(part, scope), has_units)
        return machine_value(step.stated.expression, truth)


def _is_measure(name: Name, scope: SheetScope) -> bool:
    try:
        return unit_of_value(evaluate(name, scope)) is not None
    except LineError:  # the parameter of a function
        return False


def plain_value(value: Value | None) -> Value | None:
    """What binary64 has of a value: of an angle the radians, of a measure the units."""
    if isinstance(value, Measure):
        return sizes.count_of(value)
    return value.size if isinstance(value, Angle) else value
