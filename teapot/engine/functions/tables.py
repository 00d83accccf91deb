"""Tables, and what is done with their rows and columns; where and sort do it to lists too."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Mapping, Sequence
from typing import cast

from teapot.engine.errors import LineError
from teapot.engine.functions.helpers import outside
from teapot.engine.functions.lists import (
    ITEMS,
    chosen,
    items_of,
    mean,
    sort,
    standard_deviation,
    truths_of,
)
from teapot.engine.functions.parts import largest, smallest
from teapot.engine.functions.record import Delayed, Function, Parameter
from teapot.engine.numbers import tables
from teapot.engine.numbers.arrays import kinds_of, taken, without_missing
from teapot.engine.numbers.context import current
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.tables import by_name, height, name_of
from teapot.engine.numbers.values import (
    MISSING,
    REALS,
    Angle,
    Complex,
    Date,
    Exact,
    InterpolatedText,
    List,
    Measure,
    Table,
    Uncertain,
    Value,
    exact,
    is_missing,
)
from teapot.engine.reading.described import Example
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import ListOf, Node, Text
from teapot.engine.sentences.functions import LIST_IS_EMPTY, NOT_A_TEXT, TOO_FEW_ITEMS
from teapot.engine.sentences.tables import LIST_OF_GROUP, NO_LIST, WANTS_TABLE
from teapot.engine.sentences.values import UNEQUAL_LENGTHS

SUBJECT = "tables"
SOURCE = "common practice of the trade"
LIST = Parameter("x", "a list, or a table", "a list")
TABLE = Parameter("t", "a table", "a table")
TEST = Parameter("test", "a truth for each item, or for each row with its columns as names",
                 "a list of true and false")  # fmt: skip
BY = Parameter("by", "a column, or what is computed from columns", "a list", optional=True)


def table(*columns: Delayed) -> Value:
    """Lists side by side, each named by what was typed for it.

    Errors: :class:`LineError` for lists of unequal length, or where there is none.
    """
    values = [column.value() for column in columns]
    if not any(isinstance(value, List) for value in values):
        raise NO_LIST()
    rows = cast(List, item_by_item(lambda *row: List(row), *values)).items
    filled = tuple(
        List(tuple(cast(List, row).items[place] for row in rows)) for place in range(len(columns))
    )
    heads = tuple(column.node for column in columns)
    tables.check_columns(heads, filled)
    return Table(heads, filled)


def where(x: Delayed, test: Delayed) -> Value:
    """The items for which a test holds; of a table the rows, with its columns as names.

    Errors: :class:`LineError` where there is no truth for each.
    """
    value = x.value()
    if not isinstance(value, Table):
        items = items_of(value)
        return List(taken(items, chosen(items, truths_of(test.value()))))
    truths = truths_of(test.among(by_name(value)))
    return tables.rows(value, chosen(range(height(value)), truths))


def sort_by(x: Delayed, by: Delayed | None = None) -> Value:
    """The items, smallest first; of a table the rows, in the order of ``by``.

    Errors: :class:`LineError` where there is no order.
    """
    value = x.value()
    if not isinstance(value, Table):
        if by is None:
            return sort(value)
        key = items_of(by.value())
        items = items_of(value)
        pairs = tables.sorted_by(Table((), (List(items),)), key)
        return pairs.columns[0]
    if by is None:
        return tables.sorted_by(value, value.columns[0].items)
    return tables.rows(value, tables.sorted_places([items for _, items in _keys(by, value)]))


Key = tuple[Node, Sequence[Value]]
"""What rows are put in order or in groups by, as it was typed, and its value for each row."""


def _keys(by: Delayed, of: Table) -> list[Key]:
    """A column, its name as a text, or several of them between square brackets.

    Errors: :data:`UNEQUAL_LENGTHS` where there is no value for each row.
    """
    nodes = by.node.items if isinstance(by.node, ListOf) else ()
    keys = [(node, _items(by, node, of)) for node in nodes]
    if not keys or not all(len(items) == height(of) for _, items in keys):
        keys = [(by.node, _items(by, by.node, of, for_one=height(of)))]
    for _, items in keys:
        if len(items) != height(of):
            raise UNEQUAL_LENGTHS(length=height(of), other=len(items))
    return keys


def _items(by: Delayed, node: Node, of: Table, for_one: int = 1) -> Sequence[Value]:
    """The values of a key; that of a single one so many times."""
    name = _text_in(node)
    if name is not None:
        return tables.column(of, name).items
    value = by.of(node, by_name(of))
    return value.items if isinstance(value, List) else (value,) * for_one


def _text_in(node: Node) -> str | None:
    """What a text between quotation marks says; None for another node."""
    if isinstance(node, Text) and all(isinstance(part, str) for part in node.parts):
        return "".join(map(str, node.parts))
    return None


def group(t: Delayed, *asked: Delayed, by: Delayed, named: Mapping[str, Delayed]) -> Value:
    """A row for each value of a column, in their order, with what is asked of the rows that have
    it; those where it is missing come last.

    Errors: :class:`LineError` for no table, or where a list is asked of a group.
    """
    table = _table(t.value())
    keys = _keys(by, table)
    columns = [items for _, items in keys]
    places: dict[tuple[Hashable, ...], list[int]] = {}
    for place in range(height(table)):
        same = tuple(_hashable(items[place]) for items in columns)
        places.setdefault(same, []).append(place)
    firsts = tables.rows(
        Table(
            tuple(_head_of(node) for node, _ in keys), tuple(List(tuple(one)) for one in columns)
        ),
        [of_group[0] for of_group in places.values()],
    )
    order = tables.sorted_places([column.items for column in firsts.columns])
    groups = list(places.values())
    parts = [tables.rows(table, groups[at]) for at in order]
    wanted = [(one.node, one) for one in asked]
    wanted += [(tables.head_of(name), one) for name, one in named.items()]
    made = [List(tuple(_of_group(one, part) for part in parts)) for _, one in wanted] or [
        List(tuple(exact(height(part)) for part in parts))
    ]
    heads = tuple(head for head, _ in wanted) or (tables.head_of("count"),)
    firsts = tables.rows(firsts, order)
    return Table((*firsts.heads, *heads), (*firsts.columns, *made))


def _head_of(node: Node) -> Node:
    name = _text_in(node)
    return node if name is None else tables.head_of(name)


def _hashable(value: Value) -> Hashable:
    if is_missing(value):
        return None
    if isinstance(value, Exact | str | bool | Date):
        return value
    return repr(value) if isinstance(value, Measure) else id(value)


def _of_group(one: Delayed, part: Table) -> Value:
    try:
        value = one.among(by_name(part))
    except LineError as error:
        if error.is_a(LIST_IS_EMPTY) or error.is_a(TOO_FEW_ITEMS):
            return MISSING  # nothing is left of it without the missing values
        raise
    if isinstance(value, List):
        raise LIST_OF_GROUP(typed=node_text(one.node))
    return value


def widen(t: Delayed, new: Mapping[str, Delayed]) -> Value:
    """The table with further columns, each computed from those before it.

    Errors: :class:`LineError` for no table, no column, or one that does not fit.
    """
    value = _table(t.value())
    if not new:
        raise outside("Say the new column: widen(t, rise = temp - 18).")
    for name, column in new.items():
        value = tables.widened(value, {name: column.among(by_name(value))})
    return value


def columns(t: Delayed, *wanted: Delayed) -> Value:
    """The names of the columns; where some are named, the table of these.

    Errors: :class:`LineError` for no table, or no such column.
    """
    table = _table(t.value())
    if not wanted:
        return List(tuple(name_of(head) for head in table.heads))
    names = [name_of(_head_of(one.node)) for one in wanted]
    known = [name_of(head) for head in table.heads]
    for name in names:
        tables.column(table, name)
    places = [known.index(name) for name in names]
    units = tables.units_of(table)
    return Table(
        tuple(table.heads[at] for at in places),
        tuple(table.columns[at] for at in places),
        tuple(units[at] for at in places) if any(units) else (),
    )


def overview(t: Value) -> Value:
    """Each column in a row: its kind, how many values it has and misses, and for numbers the
    least, the greatest, the mean and the deviation."""
    value = _table(t)
    heads = ("column", "kind", "count", "missing", "least", "greatest", "mean", "stdev")
    rows = [
        _in_short(name_of(head), column.items)
        for head, column in zip(value.heads, value.columns, strict=True)
    ]
    made = (List(tuple(row[at] for row in rows)) for at in range(len(heads)))
    return Table(tuple(map(tables.head_of, heads)), tuple(made))


def _in_short(name: str, items: Sequence[Value]) -> list[Value]:
    values = without_missing(items)
    kind = kind_of(values)
    told: list[Value] = [name, kind, exact(len(values)), exact(len(items) - len(values))]
    if not values or kind not in (NUMBER, ANGLE, MEASURE, MEASURED):
        return [*told, MISSING, MISSING, MISSING, MISSING]
    column = List(values)
    spread = standard_deviation(column) if len(values) > 1 else MISSING
    return [*told, smallest(column), largest(column), mean(column), spread]


NUMBER, ANGLE, MEASURE, MEASURED, MIXED = "number", "angle", "measure", "measured", "mixed"
KINDS_OF_CELLS: tuple[tuple[frozenset[type], str], ...] = (
    (frozenset({bool}), "truth"), (REALS, NUMBER), (frozenset({Angle}), ANGLE),
    (frozenset({Measure}), MEASURE), (frozenset({Uncertain}), MEASURED),
    (frozenset({Complex}), "complex"), (frozenset({str, InterpolatedText}), "text"),
    (frozenset({Date}), "date"),
)  # fmt: skip


def kind_of(values: Sequence[Value]) -> str:
    """What kind of cells a column has."""
    found = kinds_of(values)
    for kinds, name in KINDS_OF_CELLS:
        if found and found <= kinds:
            return name
    return MIXED if values else "missing"


def _table(value: Value) -> Table:
    if not isinstance(value, Table):
        raise WANTS_TABLE()
    return value


def shelf(name: Value) -> Value:
    """The table of that name on the shelf; the line keeps the version that it has now.

    Errors: :class:`LineError` where there is none.
    """
    if not isinstance(name, str):
        raise NOT_A_TEXT()
    draws = current().draws
    return draws.shelf.table(draws.next(lambda: draws.shelf.version_of(name)))


def _function(
    name: str,
    summary: str,
    compute: Callable[..., Value],
    parameters: tuple[Parameter, ...],
    examples: tuple[tuple[str, str, str], ...],
    **told: object,
) -> Function:
    fields = {"value": "a table", "source": SOURCE, **told}
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=compute,
        examples=tuple(Example(*example) for example in examples),
        **fields,  # type: ignore[arg-type]
    )


MADE = "table([2, 1], [5, 8])"

FUNCTIONS = (
    Function(
        name="table",
        subject=SUBJECT,
        summary="Lists side by side, the columns named by what was typed.",
        parameters=(Parameter("x", "a list: a column", "a list"),
                    Parameter("y", "another column", "a list", optional=True)),
        compute=table,
        examples=(
            Example("table([1, 2], [1, 2]^2)", "=", "[1, 2]  [1, 2]^2\n1  1\n2  4"),
            Example("table(0°..60° by 30°, sin(0°..60° by 30°)) as exact", "=",
                    "0°..60° by 30°  sin(0°..60° by 30°)\n0°  0\n30°  0.5\n60°  sqrt(3)/2"),
        ),
        value="a table",
        related=("sin", "count"),
        words="columns rows values of a function run of angles csv",
        source="common practice of the trade",
        variadic=True,
        accepts=ITEMS,
        lazy=True,
        confused_with="a list of lists: a table has its columns side by side, each with its name.",
    ),
    _function(
        "where", "The items for which a test holds, or the rows of a table.", where, (LIST, TEST),
        (("where([2, 3, 7, 8], [2, 3, 7, 8] > 3)", "=", "[7, 8]"),
         ("where(1..6, is_prime(1..6))", "=", "[2, 3, 5]")),
        value="a list, or a table", related=("places", "count", "sort"), lazy=True, accepts=ITEMS,
        words="filter select keep only those condition subset rows",
        special_values=("where([1, 2], [true, false]) = [1]",),
        confused_with="places, which says at which places they stand.",
    ),
    _function(
        "sort", "The items in their order, smallest first; the rows of a table by a column.",
        sort_by, (LIST, BY),
        (("sort([3, 1, 2])", "=", "[1, 2, 3]"),
         ("sort([pi, 3, 22/7])", "≈", "[3, 3.141592654, 3.142857143]"),
         ("sort([8, 9, 7], by=[2, 3, 1])", "=", "[7, 8, 9]")),
        value="a list, or a table", related=("reverse", "median", "where"), lazy=True,
        accepts=ITEMS, words="order ascending arrange rank",
        special_values=("sort([2, 1]) = [1, 2]",),
        confused_with="reverse, which only turns the order round.",
    ),
    _function(
        "widen", "A table with further columns, computed from those it has.", widen,
        (TABLE, Parameter("name", "the new column, under its name", "a list")),
        ((f"count(columns(widen({MADE}, twice = 2)))", "=", "3"),
         (f"widen({MADE}, y = 9).y", "=", "[9, 9]"),),
        related=("table", "columns"), names_columns=True, accepts=(Table,),
        words="add column new computed mutate calculate per row",
        confused_with="table, which puts lists side by side anew.",
    ),
    _function(
        "shelf", "The data table that is kept on the shelf under a name.", shelf,
        (Parameter("name", "the name of the table, a text", "a text", is_text=True),),
        (('count(shelf("cooling pots"))', "=", "363"),
         ('max(shelf("cooling pots").temp)', "=", "95.98 °C")),
        related=("table", "columns"), accepts=(str,),
        words="data table file csv import open load bring in measurements",
        confused_with="a file of the machine: a table is brought onto the shelf first.",
    ),
    _function(
        "columns", "The names of the columns of a table, or a table of some of them.", columns,
        (TABLE, Parameter("name", "a column that is wanted", "a column", optional=True)),
        ((f"columns({MADE})", "=", '["[2, 1]", "[5, 8]"]'),
         (f"count(columns({MADE}))", "=", "2")),
        value="a list of texts, or a table", related=("overview", "table"), accepts=(Table,),
        lazy=True, variadic=True, words="names heads header fields choose select subset of columns",
        confused_with="count, which says how many rows it has.",
    ),
    _function(
        "group", "A row for each value of a column, with what is asked of its rows.", group,
        (TABLE, Parameter("by", "the column, or [a, b] for two", "a column"),
         Parameter("x", "what is asked, such as mean(temp)", "an expression", optional=True)),
        (("count(group(table([1, 2, 1], [5, 6, 7]), by=[1, 2, 1]))", "=", "2"),
         ("group(widen(table([1, 2]), k = [1, 1]), by=k, n = count(k)).n", "=", "[2]")),
        related=("where", "sort", "unique"), names_columns=True, variadic=True, accepts=(Table,),
        words="group by each category per class aggregate pivot split apply",
        confused_with="sort, which keeps every row.",
    ),
    _function(
        "overview", "Each column in a row: kind, count, missing, least, greatest, mean, deviation.",
        overview, (TABLE,),
        ((f"count(overview({MADE}))", "=", "2"),
         (f"overview({MADE}).greatest", "=", "[2, 8]")),
        related=("columns", "quartiles"), accepts=(Table,),
        words="summary describe statistics of all columns",
        confused_with="mean, which is of one column: mean(t.x).",
    ),
)  # fmt: skip
