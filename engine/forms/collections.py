"""Lists, tables and functions, written by what they hold."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from engine.errors import LineError, TooLongAnswer
from engine.forms.names import Form
from engine.forms.written import Written
from engine.limits import MAX_ANSWERS
from engine.numbers.values import Applied, List, Table, Value
from engine.reading.mathml import list_mathml, node_mathml, pattern_mathml, statement_mathml
from engine.reading.parser import parse

Write = Callable[[Value, Form], Written]
"""Writes one value."""

ROWS = (10, 5, 2, 1)
"""Items of a list in a row, the most that fit: rows of ten can be counted best."""

WIDTH = 60
"""Characters that fit in a row."""

ITEMS_SHOWN = 100
"""Items of a list that are set; all of them are in its text."""


def write_list(value: List, form: Form, write: Write) -> Written:
    """Items in square brackets; many of them in even rows."""
    items = list(_each(value.items, form, write))
    sign = "=" if all(item.sign == "=" for item in items) else "≈"
    text = f"[{', '.join(item.text for item in items)}]"
    shown = [item.mathml for item in items[:ITEMS_SHOWN]]
    longest = max((len(item.text) for item in items[:ITEMS_SHOWN]), default=0)
    row = next((row for row in ROWS if row * (longest + 1) <= WIDTH), 1)
    if len(items) <= row or len(text) <= WIDTH:
        return Written("list", sign, text, list_mathml(shown))
    also = (f"{len(items):,} items",)
    if len(items) > ITEMS_SHOWN:
        shown.append("<mo>…</mo>")
    rows = (shown[at : at + row] for at in range(0, len(shown), row))
    cells = "".join(f"<mtr>{''.join(f'<mtd>{item}</mtd>' for item in row)}</mtr>" for row in rows)
    return Written("list", sign, text, f'<mtable class="items">{cells}</mtable>', also)


def _each(values: Iterable[Value], form: Form, write: Write) -> Iterator[Written]:
    """Each of the values written, as long as they do not grow beyond the limit."""
    length = 0
    for value in values:
        written = write(value, form)
        length += len(written.text) + 2
        if length > MAX_ANSWERS:
            raise too_long()
        yield written


def too_long() -> LineError:
    """The error for an answer that is beyond the limit."""
    return TooLongAnswer(limit=MAX_ANSWERS)


def write_table(value: Table, form: Form, write: Write) -> Written:
    """Columns side by side, each under its name."""
    cells_in_order = (item for column in value.columns for item in column.items)
    all_cells = list(_each(cells_in_order, form, write))
    height = len(value.columns[0].items) if value.columns else 0
    columns = [all_cells[at : at + height] for at in range(0, len(all_cells), height or 1)]
    rows = list(zip(*columns, strict=True))
    sign = "=" if all(cell.sign == "=" for row in rows for cell in row) else "≈"
    cells = (value.names, *(tuple(cell.text for cell in row) for row in rows))
    heads = "".join(f"<mtd>{_heading(name)}</mtd>" for name in value.names)
    body = "".join(
        f"<mtr>{''.join(f'<mtd>{cell.mathml}</mtd>' for cell in row)}</mtr>"
        for row in rows[:ITEMS_SHOWN]
    )
    mathml = f'<mtable class="columns"><mtr class="head">{heads}</mtr>{body}</mtable>'
    also = (f"{len(rows):,} rows, {ITEMS_SHOWN} shown",) if len(rows) > ITEMS_SHOWN else ()
    text = "\n".join("  ".join(row) for row in cells)
    return Written("table", sign, text, mathml, also, cells=cells)


def _heading(name: str) -> str:
    return node_mathml(parse(name).statements[0].expression)


def write_function(value: Applied) -> Written:
    """A function by its definition, or by its name where it is of the language."""
    if not value.body:
        shown = pattern_mathml(value.name, value.parameters)
        return Written("function", "=", value.name, f"<mrow>{shown}</mrow>")
    text = f"{value.pattern} = {value.body}"
    definition = parse(text).statements[0]
    return Written("function", "=", text, f"<mrow>{statement_mathml(definition)}</mrow>")
