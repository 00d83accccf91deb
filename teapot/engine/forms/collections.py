"""Lists, tables and functions, written by what they hold.

Of a long list or table only the items that are shown are written; the rest is made when
somebody asks for it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import cast

from teapot.engine.forms.measures import shown_unit
from teapot.engine.forms.reals import all_end_within, ends_within
from teapot.engine.forms.summary import summary_of
from teapot.engine.forms.written import Written
from teapot.engine.limits import MAX_ANSWERS, MAX_WHOLE
from teapot.engine.numbers.arrays import kinds_of
from teapot.engine.numbers.measure_array import MeasureArray, counted
from teapot.engine.numbers.tables import in_numbers
from teapot.engine.numbers.values import (
    Complex,
    Date,
    Exact,
    FunctionValue,
    InterpolatedText,
    List,
    Measure,
    Real,
    Table,
    Undefined,
    Value,
)
from teapot.engine.reading.forms import PREFIXED, Form
from teapot.engine.reading.setting import is_set_as_matrix
from teapot.engine.reading.tree import NOWHERE, Assignment, Columns, Grid, ListOf, Name, Node
from teapot.engine.sentences.forms import TOO_LONG_ANSWER

Write = Callable[[Value, Form], Written]
"""Writes one value."""

ROWS = (10, 5, 2, 1)
"""Items of a list in a row, the most that fit: rows of ten can be counted best."""

WIDTH = 60
"""Characters that fit in a row."""

WIDEST_MATRIX = 12
"""Rows and columns of a matrix that is set whole."""

ITEMS_SHOWN = 100
"""Items of a list that are set; all of them are in its text."""

ROWS_SHOWN = 20
"""Rows of a table that are set."""

SPARE = 11
"""Signs of a number in digits beside these: its sign, point, zeros or power of ten, and
what more figures before the point are shown than were asked for."""


def write_list(value: List, form: Form, write: Write) -> Written:
    """Items in square brackets; many of them in even rows, and of very many the first.

    Errors: :data:`TOO_LONG_ANSWER` where the whole would be too long to be asked for.
    """
    items = value.items
    if len(items) <= ITEMS_SHOWN:
        return _whole_list(list(_each(items, form, write)))
    plain, behind = _plain(items, form)
    if _longest(plain, form) + len(items) * behind > MAX_WHOLE:
        raise TOO_LONG_ANSWER(limit=MAX_WHOLE)
    head = list(_each(items[:ITEMS_SHOWN], form, write))
    sign = "≈" if _are_rounded(plain, form, write) else "="
    return Written(
        "list",
        sign,
        Grid(NOWHERE, tuple(map(_tree, head)), _across(head), more=True),
        (_counted(len(items)),),
        whole=lambda: ListOf(NOWHERE, tuple(_tree(write(one, form)) for one in items)),
        count=len(items),
        summary=lambda: summary_of(items, lambda one: _said(write(one, form))),
    )


def _plain(items: Sequence[Value], form: Form) -> tuple[Sequence[Value], int]:
    """Measures that are all shown in one unit as their numbers, and how long that unit is; other
    items as they are."""
    first = items[0]
    if not isinstance(first, Measure):
        return items, 0
    unit = shown_unit(first, form)
    are_alike = isinstance(items, MeasureArray) or all(
        isinstance(one, Measure) and one.unit == first.unit for one in items
    )
    found = counted(items) if are_alike and form.unit != PREFIXED else None
    if found is None or found.unit != unit:
        return items, 0
    return found.numbers, len(unit.text) + 1


def _said(written: Written) -> str:
    return f"{written.sign} {written.text}"


def _whole_list(items: list[Written]) -> Written:
    """A list of which all items are written."""
    sign = "=" if all(item.sign == "=" for item in items) else "≈"
    tree = ListOf(NOWHERE, tuple(map(_tree, items)))
    if is_set_as_matrix(tree) and max(len(items), len(tree.items[0].children)) <= WIDEST_MATRIX:
        return Written("list", sign, tree)
    across = _across(items)
    width = sum(len(item.text) + 2 for item in items)
    if len(items) <= across or width <= WIDTH:
        return Written("list", sign, tree)
    shown = tree.items[:ITEMS_SHOWN]
    is_cut = len(items) > ITEMS_SHOWN
    grid = Grid(NOWHERE, shown, across, is_cut)
    whole = (lambda: tree) if is_cut else None
    return Written("list", sign, grid, (_counted(len(items)),), whole=whole, count=len(items))


def _across(items: list[Written]) -> int:
    """How many of the items stand in a row."""
    longest = max((len(item.text) for item in items[:ITEMS_SHOWN]), default=0)
    return next((row for row in ROWS if row * (longest + 1) <= WIDTH), 1)


def _counted(count: int) -> str:
    return f"{count:,} items"


def _tree(item: Written) -> Node:
    if isinstance(item.tree, Assignment):  # a function of one's own: its name
        return item.tree.targets[0]
    assert isinstance(item.tree, Node)
    return item.tree if item.whole is None else item.whole()


def _each(values: Iterable[Value], form: Form, write: Write) -> Iterator[Written]:
    """Each of the values written, as long as they do not grow beyond the limit."""
    length = 0
    for value in values:
        written = write(value, form)
        length += len(written.text) + 2
        if length > MAX_ANSWERS:
            raise TOO_LONG_ANSWER(limit=MAX_ANSWERS)
        yield written


def _longest(items: Sequence[Value], form: Form) -> int:
    """The most characters that the items of a list may have."""
    is_in_full = bool(form.style) or form.places is not None
    kinds = kinds_of(items)
    if not is_in_full and kinds <= SHORT:
        return len(items) * (form.figures + SPARE)
    if kinds <= TEXTS:
        return sum(map(len, cast(Sequence[str], items))) + 2 * len(items)
    length = 0
    for one in items:
        if isinstance(one, List):
            length += _longest(one.items, form)
        elif isinstance(one, str):
            length += len(one)
        elif is_in_full and isinstance(one, Exact):
            length += int(one.coefficient.height_bits() * 0.7) + SPARE
        else:
            length += 2 * (form.figures + SPARE)
        length += 2
    return length


TEXTS = frozenset({str, InterpolatedText})

SHORT = frozenset({Exact, Real, Undefined, bool, Date})
"""Kinds of value that are written in a few figures, whatever they are."""


def _are_rounded(items: Sequence[Value], form: Form, write: Write) -> bool:
    """Whether one of them is shown rounded; of many decimals that is seen at once."""
    is_plain = not form.style and form.places is None and not form.is_kept_to
    kinds = {*map(type, items)}
    if kinds <= {str, bool, Undefined}:
        return any(isinstance(one, InterpolatedText) for one in items)
    if is_plain and kinds <= {Exact, Undefined}:
        numbers = items if kinds == {Exact} else tuple(x for x in items if type(x) is Exact)
        if all_end_within(numbers, form.figures):
            return False
    return any(_is_rounded(one, form, write) for one in items)


def _is_rounded(value: Value, form: Form, write: Write) -> bool:
    """Whether a value is shown rounded; of plain ones that is seen without writing them."""
    match value:
        case Exact():
            is_plain = not form.style and form.places is None and not form.is_kept_to
            return not (is_plain and ends_within(value, form.figures)) and _is_not_exact(
                write(value, form)
            )
        case Complex(re=re, im=im) if form.shape != "polar":
            return _is_rounded(re, form, write) or _is_rounded(im, form, write)
        case List(items=items):
            return any(_is_rounded(one, form, write) for one in items)
        case bool():
            return False
    return _is_not_exact(write(value, form))


def _is_not_exact(written: Written) -> bool:
    return written.sign != "="


def write_table(value: Table, form: Form, write: Write) -> Written:
    """Columns side by side, each under its name; of many rows the first, and the sign is
    that of those.

    Errors: :data:`TOO_LONG_ANSWER` where the whole would be too long to be asked for.
    """
    units, value = in_numbers(value)
    height = len(value.columns[0].items) if value.columns else 0
    if sum(_longest(column.items, form) for column in value.columns) > MAX_WHOLE:
        raise TOO_LONG_ANSWER(limit=MAX_WHOLE)
    shown = min(height, ROWS_SHOWN)
    rounded = any(_are_rounded(column.items[:shown], form, write) for column in value.columns)

    def rows(most: int) -> Columns:
        cells = (
            tuple(_tree(write(column.items[at], form)) for column in value.columns)
            for at in range(min(most, height))
        )
        return Columns(NOWHERE, value.heads, tuple(cells), units)

    sign = "≈" if rounded else "="
    if height <= ROWS_SHOWN:
        return Written("table", sign, rows(height), count=height)
    return Written(
        "table",
        sign,
        rows(ROWS_SHOWN),
        (f"{height:,} rows, {ROWS_SHOWN} shown",),
        whole=lambda: rows(height),
        first=rows,
        count=height,
    )


def write_function(value: FunctionValue) -> Written:
    """A function by its definition, or by its name where it is of the language."""
    if value.definition is None:
        return Written("function", "=", Name(NOWHERE, value.name))
    return Written("function", "=", value.definition)
