"""Units that do not go together: the errors of operations with measures, with their mends."""

from __future__ import annotations

import re

from teapot.engine.diagnostics import matrix_products
from teapot.engine.diagnostics.names import Names
from teapot.engine.diagnostics.unknown_names import unit_meant
from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.numbers import levels, measures
from teapot.engine.numbers.values import Angle, List, Measure, Uncertain, Value
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    Binary,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
)
from teapot.engine.reading.vocabulary import UNITS
from teapot.engine.sentences.foreign import BINARY_AT_THE_END, PART_CODE
from teapot.engine.sentences.names import UNKNOWN_NAME
from teapot.engine.sentences.units import (
    DO_NOT_AGREE,
    NUMBER_OVER_ANGLE,
    POWER_IS_MEASURE,
    PREFIX_ALONE,
    RANGE_OF_MEASURES,
    TEMPERATURE_ON_SCALE,
    TWO_TEMPERATURES,
    UNKNOWN_UNIT,
    UNLIKE_MEASURES,
)
from teapot.engine.sentences.values import UNEQUAL_LENGTHS
from teapot.engine.units.table import PREFIXES


def of_sides(node: Binary, first: Value, second: Value, names: Names) -> LineError:
    """The error that two measures are unlike, said of what was typed for them."""
    return of_pair(node, (node.left, node.right), (first, second), DONE[node.op], names)


def of_pair(
    node: Node, sides: tuple[Node, Node], values: tuple[Value, Value], done: str, names: Names
) -> LineError:
    """The same of two sides that cannot be ``done``; a number without a unit is offered the
    other's."""
    first, second = (said(side, one, names) for side, one in zip(sides, values, strict=True))
    mends: tuple[Mend, ...] = ()
    for side, other in ((sides[1], values[0]), (sides[0], values[1])):
        measure = _one_of(other)
        if isinstance(measure, Measure) and _is_number(side):
            place = Span(side.span.end, side.span.end)
            mends = mends or (replace(place, f" {measure.unit.text}"),)
    return DO_NOT_AGREE(node.span, mends, first=first, second=second, done=done)


def _is_number(side: Node) -> bool:
    """Whether it is a number as it is typed, with its sign."""
    return isinstance(side.operand if isinstance(side, Prefix) else side, Literal)


def _one_of(value: Value) -> Value:
    """The value, or the first of a list that has a unit."""
    if not isinstance(value, List):
        return value
    return next((one for one in value.items if isinstance(one, Measure | Angle)), value)


DONE = {"+": "added", "-": "subtracted", "mod": "divided so", "div": "divided so"}


def said(side: Node, value: Value, names: Names) -> str:
    """``Q is an energy (J, line 5)``."""
    text = node_text(side)
    name = text if len(text) <= LONGEST_SIDE else f"{text[: LONGEST_SIDE - 1]}…"
    value = _one_of(value)
    value = value.nominal if isinstance(value, Uncertain) else value
    if isinstance(value, Measure):
        line = names.line_of(side.name) if isinstance(side, Name) else None
        return f"{name} is {measures.named(value, line)}"
    if isinstance(value, Angle):
        return f"{name} is an angle"
    return f"{name} has no unit"


LONGEST_SIDE = 30
"""Characters of a side of an operation that its error quotes."""


def of_operation(
    error: LineError, node: Binary, first: Value, second: Value, names: Names
) -> LineError:
    """What went wrong between two operands, said of them as they are typed."""
    if error.is_a(UNLIKE_MEASURES):
        return of_sides(node, first, second, names)
    if error.is_a(POWER_IS_MEASURE):
        return of_exponent(error, node, second)
    if error.is_a(TEMPERATURE_ON_SCALE):
        return in_kelvin(error, node, first)
    if error.is_a(UNEQUAL_LENGTHS):
        return matrix_products.of_lengths(error, node, first, second)
    return error


def of_exponent(error: LineError, node: Binary, exponent: Value) -> LineError:
    """``2^3 m``, where the unit is the exponent's, and ``10^(L/10)`` of a level."""
    if isinstance(exponent, Measure) and exponent.unit == levels.DB:
        typed = node_text(node.right)
        ratio = f"({typed}/(1 dB))" if isinstance(node.right, Name) else f"({typed})/(1 dB)"
        error.mends = (replace(node.right.span, ratio),)
    elif isinstance(node.right, Measured):
        base, exponent = node_text(node.left), node_text(node.right.number)
        error.mends = (replace(node.span, f"({base}^{exponent}) {node.right.unit.text}"),)
    return error


def mean_of_temperatures(error: LineError, node: Binary) -> LineError:
    """``(20 °C + 30 °C)/2``: what is meant has a function."""
    if not error.is_a(TWO_TEMPERATURES):
        return error
    terms: list[Node] = []
    rest = node.left
    while isinstance(rest, Binary) and rest.op == "+":
        terms.insert(0, rest.right)
        rest = rest.left
    terms.insert(0, rest)
    if node.op == "/" and isinstance(node.right, Literal) and node.right.text == str(len(terms)):
        listed = ", ".join(map(node_text, terms))
        error.mends = (replace(node.span, f"mean([{listed}])"),)
    return error


def in_kelvin(error: LineError, node: Binary, first: Value) -> LineError:
    """``2*T`` and its like: the temperature in kelvin."""
    of_first = isinstance(first, Measure) and first.is_on_scale
    side = node.left if of_first else node.right
    text = node_text(side)
    error.mends = (replace(side.span, f"({text} as K)"),)
    return error


def refuse_open_unit(node: Binary) -> None:
    """``1/2 turn``: the unit belongs to the 2, which hardly anybody means.

    Errors: :class:`LineError` that shows both meanings, unless brackets do.
    """
    below = node.right
    if node.span.end != below.span.end:
        return
    if isinstance(below, Measured):
        unit, of = f" {below.unit.text}", below.number
    elif isinstance(below, Postfix) and below.op in UNITS:
        unit, of = f" {below.op}" if below.op.isalpha() else below.op, below.operand
    else:
        return
    above, number = node_text(node.left), node_text(of)
    above = f"({above})" if isinstance(node.left, Binary) and node.left.op in "+-" else above
    mends = (
        replace(node.span, f"({above}/{number}){unit}"),
        replace(node.span, f"{above}/({number}{unit})"),
    )
    raise NUMBER_OVER_ANGLE(node.span, mends, number=number)


def unit_behind_number(node: Binary, error: LineError) -> LineError | None:
    """``5 Kg``: a name that has no value, and is nearly a unit."""
    is_behind = node.op == "implied" or (node.op == "/" and isinstance(node.left, Measured))
    if not is_behind or not error.is_a(UNKNOWN_NAME) or not isinstance(node.right, Name):
        return None
    return (
        _code_of_part(node.left, node.right)
        or _binary(node.left, node.right)
        or nearly_unit(node.right)
        or _prefix_alone(node, node.right)
    )


def _prefix_alone(node: Binary, name: Name) -> LineError | None:
    """``4.7k``, as parts are labelled: a number with a prefix and no unit."""
    number = node.left
    while isinstance(number, Binary) and number.op in ("*", "/", "implied"):
        number = number.right
    power = {symbol: power for symbol, _, power in PREFIXES}.get(name.name.replace("u", "µ"))
    if power is None or not isinstance(number, Literal) or "e" in number.text:
        return None
    if number.span.end < name.span.start:
        return None
    mend = replace(number.span.to(name.span), f"{number.text}e{power}")
    return PREFIX_ALONE(name.span, (mend,), name=name.name, power=power)


def _binary(number: Node, name: Name) -> LineError | None:
    """``10110b``: the base at the end of a binary number."""
    is_binary = isinstance(number, Literal) and re.fullmatch("[01]{2,}", number.text)
    if not is_binary or name.name not in ("b", "B") or number.span.end < name.span.start:
        return None
    place = number.span.to(name.span)
    return BINARY_AT_THE_END(place, (replace(place, f"0b{node_text(number)}"),))


CODE_OF_PART = re.compile(r"([RkKMGpnuµ])(\d+)")
UNITS_OF_PARTS = {"R": "Ω", "k": "kΩ", "K": "kΩ", "M": "MΩ", "G": "GΩ"}
FARADS = {"p": "pF", "n": "nF", "u": "µF", "µ": "µF"}


def _code_of_part(number: Node, name: Name) -> LineError | None:
    """``4k7`` and ``2n2``, as resistors and capacitors are marked (IEC 60062, 4)."""
    code = CODE_OF_PART.fullmatch(name.name)
    if not isinstance(number, Literal) or not number.text.isdecimal():
        return None
    if code is None or number.span.end < name.span.start:
        return None
    unit = {**UNITS_OF_PARTS, **FARADS}[code[1]]
    measure = f"{number.text}.{code[2]} {unit}"
    place = number.span.to(name.span)
    mends = (replace(place, measure),)
    return PART_CODE(place, mends, code=f"{number.text}{name.name}", measure=measure)


def nearly_unit(name: Name) -> LineError | None:
    """``Kg``, ``sec``: the error for a name after a number that is nearly a unit."""
    unit = unit_meant(name.name)
    if not unit:
        return None
    return UNKNOWN_UNIT(name.span, (replace(name.span, unit),), name=name.name, unit=unit)


def range_of_measures(node: Range) -> LineError:
    """``1 N..3 N``, which is ``(1..3) N``."""
    last = node.step or node.stop
    units = {end.unit for end in (node.start, node.stop, node.step) if isinstance(end, Measured)}
    if len(units) != 1 or not isinstance(last, Measured):
        return RANGE_OF_MEASURES(node.span)

    def bare(end: Node) -> Node:
        return end.number if isinstance(end, Measured) else end

    step = bare(node.step) if node.step is not None else None
    text = node_text(Range(node.span, bare(node.start), bare(node.stop), step))
    return RANGE_OF_MEASURES(node.span, (replace(node.span, f"({text}) {last.unit.text}"),))
