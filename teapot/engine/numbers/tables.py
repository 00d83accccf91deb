"""Tables: their columns by name, their rows, and the order of those."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from functools import cmp_to_key
from typing import cast

from teapot.engine.mends import counted as in_words
from teapot.engine.numbers import propagation, uncertain
from teapot.engine.numbers.arrays import kinds_of, scaled, taken, without_missing
from teapot.engine.numbers.common_denominator import CommonDenominatorArray
from teapot.engine.numbers.comparison import in_order, order_of
from teapot.engine.numbers.context import conventions
from teapot.engine.numbers.measure_array import MeasureArray, counted
from teapot.engine.numbers.measures import named
from teapot.engine.numbers.sizes import count_of, measure_of
from teapot.engine.numbers.values import (
    REALS,
    Exact,
    InterpolatedText,
    List,
    Measure,
    Scalar,
    Table,
    Uncertain,
    Undefined,
    Value,
    is_missing,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import NOWHERE, Name, Node, Text
from teapot.engine.reading.units import unit_as_written, unit_from
from teapot.engine.sentences.tables import COLUMN_OF_TWO_KINDS, NO_COLUMN, NO_ROW
from teapot.engine.sentences.values import BAD_PLACE, UNEQUAL_LENGTHS
from teapot.engine.units.table import PERCENT
from teapot.engine.units.unit import Unit, is_angle


def name_of(head: Node) -> str:
    """What a column is called by what stands above it."""
    if isinstance(head, Text) and all(isinstance(part, str) for part in head.parts):
        return "".join(map(str, head.parts))
    return node_text(head)


def head_of(name: str) -> Node:
    """What stands above a column of that name."""
    return Name(NOWHERE, name) if name.isidentifier() else Text(NOWHERE, (name,))


def by_name(table: Table) -> dict[str, List]:
    """The columns by their names; of two of one name the first."""
    found: dict[str, List] = {}
    for head, column in zip(table.heads, table.columns, strict=True):
        found.setdefault(name_of(head), column)
    return found


def column(table: Table, name: str) -> List:
    """The column of that name.  Errors: :data:`NO_COLUMN` where there is none."""
    columns = by_name(table)
    if name not in columns:
        raise NO_COLUMN(name=name, known=", ".join(columns))
    return columns[name]


def height(table: Table) -> int:
    """How many rows it has."""
    return len(table.columns[0].items) if table.columns else 0


def rows(table: Table, places: Iterable[int]) -> Table:
    """The rows at these places, counted from 0."""
    wanted = list(places)
    columns = tuple(List(taken(column.items, wanted)) for column in table.columns)
    return Table(table.heads, columns, table.units)


def _in_unit(item: Value, unit: Unit) -> Value:
    """A measured cell as a measure; one that is missing stays so."""
    if is_missing(item):
        return item
    return propagation.through(lambda number: measure_of(cast(Scalar, number), unit), item)


def row(table: Table, index: Value) -> Table:
    """The row at a place, counted from 1, as a table of one row; with a list of places,
    those rows.  Errors: :class:`LineError` where there is none."""
    places = index.items if isinstance(index, List) else (index,)
    return rows(table, [_place(table, place) for place in places])


def _place(table: Table, index: Value) -> int:
    if not isinstance(index, Exact) or not index.is_integer:
        raise BAD_PLACE()
    place, count = int(index.coefficient.p), height(table)
    if not 1 <= place <= count:
        raise NO_ROW(count=count, place=in_words(index.coefficient.p))
    return place - 1


def sorted_by(table: Table, key: Sequence[Value]) -> Table:
    """The rows in the order of a key, which has a value for each; those without come last.

    Errors: :class:`LineError` for a key of another length, or of what has no order.
    """
    count = height(table)
    if len(key) != count:
        raise UNEQUAL_LENGTHS(length=count, other=len(key))
    present, missing = with_and_without(key)
    return rows(table, [*places_in_order(present, key), *missing])


def sorted_places(keys: Sequence[Sequence[Value]]) -> list[int]:
    """The places of rows in the order of their keys, the first of which counts most."""
    places = list(range(len(keys[0])))
    for key in reversed(keys):
        items = taken(key, places)
        present, missing = with_and_without(items)
        places = [places[at] for at in (*places_in_order(present, items), *missing)]
    return places


def with_and_without(key: Sequence[Value]) -> tuple[list[int], list[int]]:
    """The places that have a value, and those where it is missing, counted from 0."""
    if isinstance(key, MeasureArray):
        return with_and_without(key.numbers)
    if isinstance(key, CommonDenominatorArray):
        gaps = key.gaps
        return [place for place in range(len(key)) if place not in gaps], sorted(gaps)
    places: tuple[list[int], list[int]] = [], []
    for place, value in enumerate(key):
        places[is_missing(value)].append(place)
    return places


def places_in_order(places: list[int], key: Sequence[Value]) -> list[int]:
    """The places in the order of their keys; those of one key as they stood."""
    found = scaled(taken(key, places))
    if found is not None:
        keys = dict(zip(places, found.above, strict=True))
        return sorted(places, key=keys.__getitem__)
    kinds = {type(key[place]) for place in places}
    if kinds <= {str, InterpolatedText} or kinds == {bool}:
        words = {place: str(key[place]) for place in places}
        return sorted(places, key=words.__getitem__)
    if kinds <= REALS:
        ordered = in_order([key[place] for place in places])
        by_identity: dict[int, list[int]] = {}
        for place in places:
            by_identity.setdefault(id(key[place]), []).append(place)
        return [by_identity[id(one)].pop(0) for one in ordered]

    def order(a: int, b: int) -> int:
        return order_of(key[a], key[b])

    return sorted(places, key=cmp_to_key(order))


def widened(table: Table, new: Mapping[str, Value]) -> Table:
    """The table with further columns; one of a name that is there takes its place.

    Errors: :class:`LineError` for a list of another length.
    """
    count = height(table)
    heads, made, units = [*table.heads], [*table.columns], [*units_of(table)]
    names = [name_of(head) for head in heads]
    for name, value in new.items():
        items = value.items if isinstance(value, List) else (value,) * count
        if len(items) != count:
            raise UNEQUAL_LENGTHS(length=count, other=len(items))
        if name in names:
            place = names.index(name)
            made[place], units[place] = List(items), ""
            continue
        heads.append(head_of(name))
        made.append(List(items))
        units.append("")
        names.append(name)
    check_columns(heads, made)
    return Table(tuple(heads), tuple(made), tuple(units) if any(units) else ())


def check_columns(heads: Sequence[Node], columns: Sequence[List]) -> None:
    """Errors: :data:`COLUMN_OF_TWO_KINDS` for a column with measures that do not agree."""
    for head, column in zip(heads, columns, strict=True):
        if isinstance(column.items, MeasureArray) or Measure not in kinds_of(column.items):
            continue
        kinds = {one.unit.dimension: one for one in column.items if isinstance(one, Measure)}
        if len(kinds) > 1:
            first, second, *_ = map(named, kinds.values())
            raise COLUMN_OF_TWO_KINDS(name=name_of(head), first=first, second=second)


def unit_of_head(name: str) -> Unit | None:
    """The unit that the head of a column says; None where it says none."""
    if name == PERCENT.symbol:
        return Unit.of(PERCENT.symbol)
    return unit_as_written("deg" if name == "°" else name)


def with_measures(table: Table) -> Table:
    """Columns of numbers whose heads name a unit as measures; what stands in a head that is no
    unit is only said there."""
    columns = []
    is_old = conventions().are_of_old
    for column, name in zip(table.columns, units_of(table), strict=True):
        kinds = kinds_of(column.items)
        read = unit_from if is_old else unit_of_head
        unit = read(name) if kinds <= NUMBERS | {Uncertain} else None
        if unit is None:
            columns.append(column)
        elif Uncertain in kinds:
            columns.append(List(tuple(_in_unit(item, unit) for item in column.items)))
        else:
            columns.append(List(MeasureArray(column.items, unit)))
    return Table(table.heads, tuple(columns), table.units)


def in_numbers(table: Table) -> tuple[tuple[str, ...], Table]:
    """The unit of each column, empty where it has none, and the table with the numbers alone."""
    units, columns = [*units_of(table)], [*table.columns]
    for place, column in enumerate(columns):
        found = counted(uncertain.nominals_of(without_missing(column.items)))
        if found is None:
            continue
        if is_angle(found.unit) and not isinstance(column.items, MeasureArray):
            continue  # their signs stand in the cells
        units[place] = found.unit.text
        if isinstance(column.items, MeasureArray):
            columns[place] = List(column.items.numbers)
            continue
        columns[place] = List(tuple(_counted(one, found.unit) for one in column.items))
    return tuple(units), Table(table.heads, tuple(columns), table.units)


def _counted(one: Value, unit: Unit) -> Value:
    """How many units a cell has, a measured one too; what has no unit as it is."""
    if isinstance(one, Uncertain):
        return propagation.through(lambda nominal: _counted(nominal, unit), one)
    return count_of(one, unit) if isinstance(one, Measure) else one


NUMBERS = REALS | {Undefined}
"""Kinds of cell that a column of numbers has."""


def units_of(table: Table) -> tuple[str, ...]:
    """The unit of each column, empty where it has none."""
    return table.units or ("",) * len(table.heads)
