"""Tables, and what is done with their rows and columns; where and sort do it to lists too."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import cast

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
from teapot.engine.numbers.common_denominator import kinds_of, taken, without_missing
from teapot.engine.numbers.context import current
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.tables import by_name, height, name_of
from teapot.engine.numbers.values import (
    MISSING,
    REALS,
    Angle,
    Complex,
    Date,
    InterpolatedText,
    List,
    Measure,
    Table,
    Uncertain,
    Value,
    exact,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.functions import NOT_A_TEXT
from teapot.engine.sentences.tables import NO_LIST, WANTS_TABLE

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
    return tables.sorted_by(value, items_of(by.among(by_name(value))))


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


def columns(t: Value) -> Value:
    """The names of the columns."""
    return List(tuple(name_of(head) for head in _table(t).heads))


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
        "columns", "The names of the columns of a table.", columns, (TABLE,),
        ((f"columns({MADE})", "=", '["[2, 1]", "[5, 8]"]'),
         (f"count(columns({MADE}))", "=", "2")),
        value="a list of texts", related=("overview", "table"), accepts=(Table,),
        words="names heads header fields", confused_with="count, which says how many rows it has.",
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
