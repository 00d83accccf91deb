"""What is at the caret: the function one is in, the argument one is at, and a picture."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache

from teapot.engine.aids.curve import (
    FULL_ANGLE,
    USUAL_REACH,
    Curve,
    Of,
    can_be_drawn,
    curve_of,
    curve_of_function,
    kept_with_others,
    number_of,
    varied,
    with_others,
)
from teapot.engine.aids.number_line import NumberLine, number_line_of
from teapot.engine.errors import LineError
from teapot.engine.forms.answer import write_in_passing
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS
from teapot.engine.functions.record import Function
from teapot.engine.functions.tables import kind_of
from teapot.engine.numbers.angles import WORDS
from teapot.engine.numbers.arrays import without_missing
from teapot.engine.numbers.tables import height, name_of, units_of
from teapot.engine.numbers.values import Angle, FunctionValue, List, Table, Value, is_missing
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.forms import Form
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Call, ColumnOf, Name, Node
from teapot.engine.sheet.calls import applied
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Typed, Worksheet


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class CardParameter:
    """A parameter on the card; ``here`` is that which the caret is at."""

    name: str
    here: bool
    text: str = ""
    domain: str = ""
    optional: bool = False


@compactly_pickled
@dataclass(frozen=True, slots=True)
class CardExample:
    """An example with its answer after its sign."""

    input: str
    answer: str


@dataclass(frozen=True, slots=True)
class CardColumn:
    """A column of a table, with its first few cells as they are written."""

    name: str
    unit: str
    kind: str
    cells: tuple[str, ...]


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class Card:
    """What is told of the name at the caret; ``key`` is that of its page in the handbook.

    A function has ``parameters``, None else; it ``goes_on`` where it takes more of the last
    one.  A table has ``columns``, of which some may be ``left_out``.  There is a curve, or a
    number line, or none.
    """

    key: str
    name: str
    summary: str
    parameters: tuple[CardParameter, ...] | None = None
    goes_on: bool = False
    examples: tuple[CardExample, ...] = ()
    confused_with: str = ""
    columns: tuple[CardColumn, ...] = ()
    left_out: int = 0
    curve: Curve | None = None
    number_line: NumberLine | None = None


UNIT_OF_SHEET = "the unit of the sheet"
"""What a record says of an angle's unit; the card says which one that is."""

LONGEST_VALUE = 60
"""Characters of a value that the card of a quantity shows."""

MOST_COLUMNS, FIRST_CELLS, LONGEST_CELL = 8, 3, 14
"""What the card of a table shows of it."""

KNOWN_BY = 100
"""Cells by which the kind of a column is told."""


def hint_at(sheet: Worksheet, typed: Typed, caret: int) -> Card | None:
    """The card for the place before the code point ``caret``; None where there is
    nothing to say.

    The name of a function or a constant that the caret touches goes before the call
    around it, and that before a quantity in it.
    """
    nodes = typed.line.nodes
    touched = [name for node in nodes if (name := _name_touched(node, caret))]
    cards = (card for name in touched if (card := _of_name(sheet, name)))
    return next(cards, None) or _of_call(sheet, typed, caret) or _of_quantity(sheet, touched)


def _name_touched(node: Node, caret: int) -> str:
    """The name that the caret touches, or that of the table whose column it touches."""
    if isinstance(node, Name) and node.span.start <= caret <= node.span.end:
        return node.name
    if isinstance(node, ColumnOf) and isinstance(node.of, Name):
        start, end = node.name_span
        return node.of.name if start <= caret <= end else ""
    return ""


def _of_name(sheet: Worksheet, name: str) -> Card | None:
    function = _function_named(sheet, name)
    if function is not None:
        return _card_of(sheet, function, [], None)
    if name in CONSTANTS and sheet.calculation.value_named(name) is None:
        constant = CONSTANTS[name]
        return Card(key=constant.name, name=name, summary=constant.summary)
    return None


def _function_named(sheet: Worksheet, name: str) -> Function | FunctionValue | None:
    """The function that is called by that name; None where it means something else."""
    value = sheet.calculation.value_named(name)
    if isinstance(value, FunctionValue):
        return value if value.definition is not None else BY_NAME[value.name]
    return BY_NAME.get(name) if value is None else None


def _of_call(sheet: Worksheet, typed: Typed, caret: int) -> Card | None:
    """The card of the innermost call that the caret is in."""
    inside = [
        (node, function)
        for node in typed.line.nodes
        if isinstance(node, Call) and node.name_span.start <= caret < node.span.end
        if (function := _function_named(sheet, node.function))
    ]
    if not inside:
        return None
    call, function = max(inside, key=lambda found: found[0].span.start)
    place = None
    if caret > call.name_span.end:
        place = _argument_at(typed.line.text[call.name_span.end + 1 : caret])
    values = [_value(sheet, typed, part) for part in call.args]
    return _card_of(sheet, function, values, place)


def _card_of(
    sheet: Worksheet,
    function: Function | FunctionValue,
    values: list[Value | None],
    place: int | None,
) -> Card:
    """The card of a function whose arguments have these values so far."""
    if isinstance(function, FunctionValue):
        return _own_card(sheet, function, values, place)
    return _card(sheet, function, values, place)


def _of_quantity(sheet: Worksheet, names: list[str]) -> Card | None:
    """The value of the first of the names that has one, and what was noted of it."""
    for name in names:
        value = sheet.calculation.value_named(name)
        step = sheet.definitions.seen(name)
        if value is not None and step is not None:
            if isinstance(value, Table):
                return _of_table(name, value, step, sheet.settings.form)
            written = write_in_passing(value, sheet.settings.form)
            shown = written.text if len(written.text) <= LONGEST_VALUE else "a long value"
            said = [
                f"{written.sign} {shown}",
                step.line.note,
                f"line {step.line.number}",
            ]
            return Card(key="", name=name, summary=" · ".join(filter(None, said)))
    return None


def _of_table(name: str, table: Table, step: Step, form: Form) -> Card:
    """Its columns, their kinds and units, and what stands in its first rows."""
    columns = tuple(
        CardColumn(
            name_of(head),
            unit,
            kind_of(without_missing(column.items[:KNOWN_BY])),
            tuple(_cell(value, form) for value in column.items[:FIRST_CELLS]),
        )
        for head, column, unit in zip(
            table.heads[:MOST_COLUMNS], table.columns, units_of(table), strict=False
        )
    )
    said = [f"a table of {height(table):,} rows", step.line.note, f"line {step.line.number}"]
    return Card(
        key="",
        name=name,
        summary=" · ".join(filter(None, said)),
        columns=columns,
        left_out=len(table.heads) - len(columns),
    )


def _cell(value: Value, form: Form) -> str:
    if isinstance(value, str):
        text = str(value)
    else:
        text = "–" if is_missing(value) else write_in_passing(value, form).text
    return text if len(text) <= LONGEST_CELL else text[: LONGEST_CELL - 1] + "…"


def _argument_at(before: str) -> int:
    """The place of the argument after ``before``, the start of a call's arguments."""
    depth = commas = 0
    for sign in before:
        depth += (sign in "([") - (sign in ")]")
        commas += sign == "," and depth == 0
    return commas


def _card(
    sheet: Worksheet, function: Function, values: list[Value | None], place: int | None
) -> Card:
    at = None if place is None else min(place, len(function.parameters) - 1)
    unit = WORDS[sheet.settings.conventions.angle]
    parameters = tuple(
        CardParameter(
            name=parameter.name,
            here=number == at,
            text=parameter.text.replace(UNIT_OF_SHEET, unit),
            domain=parameter.domain,
            optional=parameter.optional,
        )
        for number, parameter in enumerate(function.parameters)
    )
    line = number_line_of(function.name, *values[:2]) if values else None
    curve = None if line is not None else _curve(sheet, function, values, at)
    return Card(
        key=function.name,
        name=function.name,
        summary=function.summary,
        parameters=parameters,
        goes_on=function.variadic,
        examples=tuple(
            CardExample(example.input, f"{example.sign} {example.text}")
            for example in function.examples[:2]
        ),
        confused_with=function.confused_with,
        curve=curve,
        number_line=line,
    )


def _value(sheet: Worksheet, typed: Typed, part: Node) -> Value | None:
    """The value of an argument, if it has one yet."""
    step = next(step for step in typed.line.steps if any(node is part for node in step.nodes))
    return sheet.calculation.value_of_part(step, part)


def _curve(
    sheet: Worksheet, function: Function, values: list[Value | None], place: int | None
) -> Curve | None:
    """The curve along the argument at hand, with its place on it."""
    if not can_be_drawn(function):
        return None
    unit = sheet.settings.conventions.angle
    if len(values) > len(function.parameters) or any(isinstance(v, List) for v in values):
        values = []
    if len(function.parameters) == 1 or len(values) < 2:
        # of several arguments the first alone says nothing of a curve along another
        has_mark = values and values[0] is not None and not place and not varied(function)
        mark = number_of(values[0], unit) if has_mark else None
        return curve_of_function(function.name, unit, mark)
    along = min(place or 0, len(values) - 1)
    left_out = [None] * (len(function.parameters) - len(values))
    whole = "whole" in function.parameters[along].domain
    if any(value is None for at, value in enumerate(values) if at != along):
        return None
    row = [*values, *left_out]
    row[along] = None
    of = kept_with_others(_applied(function), tuple(row), along, sheet.settings.conventions)
    return _along(sheet, of, values[along], whole, is_kept=True)


@cache
def _applied(function: Function) -> Callable[..., Value]:
    return lambda *row: applied(function, row)


def _along(
    sheet: Worksheet, of: Of, at_hand: Value | None, whole: bool = False, is_kept: bool = False
) -> Curve:
    """The curve of one argument, which is ``at_hand``."""
    unit = sheet.settings.conventions.angle
    mark = None if at_hand is None else number_of(at_hand, unit)
    reach = FULL_ANGLE[unit] if isinstance(at_hand, Angle) else USUAL_REACH
    return curve_of(of, reach, mark, whole, is_kept)


def _own_card(
    sheet: Worksheet, own: FunctionValue, values: list[Value | None], place: int | None
) -> Card:
    at = None if place is None else min(place, len(own.parameters) - 1)
    values = values[: len(own.parameters)]
    if not values and len(own.parameters) == 1:
        values = [None]
    curve = _own_curve(sheet, own, values, at or 0)
    step = sheet.definitions.seen(own.name)
    note = step.line.note if step is not None else ""
    assert own.definition is not None
    definition = f"{own.pattern} = {node_text(own.definition.expression)}"
    return Card(
        key="",
        name=own.name,
        summary=" · ".join(filter(None, (definition, note))),
        parameters=tuple(
            CardParameter(name=name, here=number == at)
            for number, name in enumerate(own.parameters)
        ),
        curve=curve,
    )


def _own_curve(
    sheet: Worksheet, own: FunctionValue, values: list[Value | None], place: int
) -> Curve | None:
    """The curve along the argument at ``place``; none of its points is kept, since they
    may change with what the function uses."""
    others = [value for at, value in enumerate(values) if at != place]
    if len(values) != len(own.parameters) or not values or None in others:
        return None
    of = with_others(own.apply, tuple(values), place, sheet.settings.conventions)
    try:
        return _along(sheet, of, values[place])
    except LineError:
        return None
