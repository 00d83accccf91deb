"""Habits that show only once the values are known.  Each is answered as it stands, and
answered with a notice of what may be meant: a function made before what it uses, degrees kept in
a quantity with no unit or added without one, and an angle that is converted by hand.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import nan, pi
from typing import cast

from flint import fmpq

from teapot.engine.diagnostics import indexed_names, matrix_products, vector_products
from teapot.engine.diagnostics.letters_of_constants import constant_for_unit
from teapot.engine.diagnostics.names import Names, Values
from teapot.engine.diagnostics.syntax_warnings import LEAST_DEGREES
from teapot.engine.diagnostics.unknown_names import unknown_function, unknown_name
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS, needs_no_argument
from teapot.engine.mends import Notice, Span, replace, replace_each
from teapot.engine.numbers.angles import SIGNS
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    FunctionValue,
    List,
    Measure,
    Uncertain,
    Value,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    Assignment,
    Binary,
    Call,
    Formatted,
    Literal,
    Measured,
    Name,
    Node,
    Statement,
)
from teapot.engine.reading.vocabulary import TRIGONOMETRIC
from teapot.engine.sentences.warnings import (
    CONVERTED_BY_HAND,
    NOT_CALLED,
    NOT_KNOWN_YET,
    NUMBER_BESIDE_ANGLE,
    QUANTITIES_AS_RADIANS,
    READ_AS_UNITS,
)
from teapot.engine.units.listed import is_listed
from teapot.engine.units.table import atom_of


def warnings_in_values(
    text: str, statement: Statement, nodes: Sequence[Node], names: Names, unit: str, values: Values
) -> Iterator[Notice]:
    """The notices on a statement of the line ``text`` that has a value.

    ``nodes`` are its parts and ``values`` theirs; ``names`` are those that it can see; ``unit`` is
    that of its bare angles.
    """
    if isinstance(statement, Assignment) and statement.parameters is not None:
        said = list(indexed_names.said_of_definition(text, statement, nodes, names))
        yield from said or _not_known_yet(statement, nodes, names)
        return
    expression = statement.expression
    calls = [node for node in nodes if type(node) is Call]
    if any(type(value) is List for value in values.values()):
        yield from matrix_products.said_of(nodes, values)
        yield from vector_products.said_of(text, nodes, values)
    yield from _units_beside_quantities(text, nodes, values.get(id(expression)))
    if unit == "rad" and calls:
        yield from _degrees_in_quantities(text, calls, values)
    if type(expression) is Name:
        yield from _not_called(expression, values)
    if any(type(value) is Angle for value in values.values()):
        yield from _number_beside_angle(nodes, values, unit)
        yield from _converted_by_hand(expression, nodes, values)


def _units_beside_quantities(
    text: str, nodes: Sequence[Node], value: Value | None
) -> Iterator[Notice]:
    """``0.5 m v^2`` before there is an m: the metre, by which the answer is no known quantity."""
    value = value.nominal if isinstance(value, Uncertain) else value
    if not isinstance(value, Measure) or is_listed(value.unit.dimension):
        return
    meant = constant_for_unit(text)
    if meant is not None:  # v^2/(2 g)
        letter, mend = meant
        unit = atom_of(letter)
        assert unit is not None
        yield READ_AS_UNITS.notice((mend,), symbols=letter, read="was", names=unit.names[0])
        return
    for node in nodes:
        if not (isinstance(node, Binary) and node.op == IMPLIED):
            continue
        if isinstance(node.left, Measured) and node.left.unit.alone is not None:
            symbol = text[slice(*node.left.unit_span)].strip()
            name = node.left.unit.alone.names[0].replace("_", " ")
            yield READ_AS_UNITS.notice(symbols=symbol, read="was", names=name)
            return


# -- a function made before what it uses ---------------------------------------------


def _not_known_yet(function: Assignment, nodes: Sequence[Node], names: Names) -> Iterator[Notice]:
    """``f(x) = a*x`` while there is no a: one made with ``=`` will not see it later."""
    if function.live or function.parameters is None:
        return
    name = function.targets[0].name
    own = {"", *function.parameters, name, *CONSTANTS, *BY_NAME}
    used = [node for node in nodes if _name_in(node) not in own]
    known = own | set(names.quantity_names()) if used else own
    missing = next((node for node in used if _name_in(node) not in known), None)
    if missing is None:
        return
    error = (
        unknown_function(missing, known, names.suggested)
        if isinstance(missing, Call)
        else unknown_name(cast(Name, missing), known)
    )
    if error.mends:
        yield Notice(NOT_KNOWN_YET.code, error.text, error.mends)
        return
    sign = Span(function.span.start, function.body.start)
    live = f"{name}({', '.join(function.parameters)}) := "
    yield NOT_KNOWN_YET.notice((replace(sign, live),), name=_name_in(missing))


def _name_in(node: Node | None) -> str:
    match node:
        case Name(name=name) | Call(function=name):
            return name
    return ""


def _not_called(expression: Name, values: Values) -> Iterator[Notice]:
    """``now`` for ``now()``: the function itself, though it needs no argument."""
    value = values.get(id(expression))
    if not isinstance(value, FunctionValue):
        return
    if needs_no_argument(value):
        mends = (replace(expression.span, f"{expression.name}()"),)
        yield NOT_CALLED.notice(mends, name=expression.name)


# -- degrees kept with no unit -----------------------------------------------------------


def _degrees_in_quantities(text: str, calls: Sequence[Call], values: Values) -> Iterator[Notice]:
    """``sin(x)`` where x is 30."""
    arguments = [
        node.args[0] for node in calls if node.function in TRIGONOMETRIC and len(node.args) == 1
    ]
    names = [one for one in arguments if isinstance(one, Name) and _is_of_degrees(one, values)]
    if names:
        names.sort(key=lambda name: name.span.start)
        words = list(dict.fromkeys(name.name for name in names))
        has, was = ("has", "was") if len(words) == 1 else ("have", "were")
        mend = replace_each(text, [(name.span, f"{name.name}°") for name in names])
        yield QUANTITIES_AS_RADIANS.notice((mend,), names=" and ".join(words), has=has, was=was)


def _is_of_degrees(name: Name, values: Values) -> bool:
    value = values.get(id(name))
    items = value.items if isinstance(value, List) else (value,)
    whole = [one.coefficient for one in items if isinstance(one, Exact) and one.is_integer]
    return len(whole) == len(items) and any(abs(one) >= LEAST_DEGREES for one in whole)


# -- a number beside an angle of another unit ----------------------------------------------


def _number_beside_angle(nodes: Sequence[Node], values: Values, unit: str) -> Iterator[Notice]:
    """``30° + 5`` where bare numbers are radians."""
    for node in nodes:
        if isinstance(node, Binary) and node.op in ("+", "-"):
            for number, other in ((node.right, node.left), (node.left, node.right)):
                angle = values.get(id(other))
                if isinstance(number, Literal) and isinstance(angle, Angle) and angle.name != unit:
                    meant = f"{number.text}{SIGNS[angle.name]}"
                    mends = (replace(number.span, meant),)
                    yield NUMBER_BESIDE_ANGLE.notice(mends, number=number.text, unit=unit)
                    return


# -- an angle converted by hand ------------------------------------------------------------

FACTORS = {"deg": (57.2958, "180/π"), "rad": (0.0174533, "π/180")}
"""What a number of radians, or of degrees, is multiplied with to have that of the unit."""

SLACK = 1e-3
"""A factor typed as 57.3 is off by less than this part of itself."""

CONVERTING = {"deg": "degrees", "rad": "radians"}
"""The function that gives the number of units that an angle has."""


def _converted_by_hand(expression: Node, nodes: Sequence[Node], values: Values) -> Iterator[Notice]:
    """``arctan(1)*180/pi``: that is 45 times the angle of a radian."""
    known: dict[int, Multiple] = {}
    for parent in (None, *nodes):
        for product in (expression,) if parent is None else parent.children:
            if _is_product(product):
                angle, factor = _taken_apart(product, values, known)
                unit = _unit_of(factor)
                if angle is not None and unit:
                    meant = _as_meant(node_text(angle), unit, parent)
                    mends = (replace(product.span, meant),)
                    yield CONVERTED_BY_HAND.notice(mends, factor=FACTORS[unit][1])
                    return


def _as_meant(angle: str, unit: str, parent: Node | None) -> str:
    """The angle as it is wanted at its place: shown in the unit, as it is, or as a number."""
    if parent is None:
        return f"{angle} as {unit}"
    if isinstance(parent, Formatted) or _name_in(parent) in TRIGONOMETRIC:
        return angle
    return f"{CONVERTING[unit]}({angle})"


def _unit_of(factor: float) -> str:
    """The unit that a factor converts an angle's number to; empty where it does not."""
    close = (unit for unit, (one, _) in FACTORS.items() if abs(factor / one - 1) < SLACK)
    return next(close, "")


def _is_product(node: Node) -> bool:
    return isinstance(node, Binary) and node.op in ("*", "/", IMPLIED)


Multiple = tuple[Node | None, float]
"""An angle, None where there is none, and the number it is multiplied with."""

NEITHER: Multiple = (None, nan)


def _taken_apart(node: Node, values: Values, known: dict[int, Multiple]) -> Multiple:
    """A product as a multiple of the one angle in it; each part is looked at once."""
    if id(node) not in known:
        known[id(node)] = _multiple(node, values, known)
    return known[id(node)]


def _multiple(node: Node, values: Values, known: dict[int, Multiple]) -> Multiple:
    if isinstance(node, Binary) and _is_product(node):
        angle, times = _taken_apart(node.left, values, known)
        other, by = _taken_apart(node.right, values, known)
        divides = node.op == "/"
        if (other is not None and (divides or angle is not None)) or (divides and not by):
            return NEITHER
        return angle or other, times / by if divides else times * by
    match node:
        case Literal():
            return None, _float(node.value)
        case Name(name="pi"):
            return None, pi
    return (node, 1.0) if isinstance(values.get(id(node)), Angle) else NEITHER


def _float(value: fmpq) -> float:
    try:
        return float(value)
    except OverflowError:
        return nan
