"""What is shown while a line is typed: its reading, its value, and the caret's company."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from engine.aids.completion import complete
from engine.aids.hint import hint_at
from engine.errors import LineError
from engine.reading.caret import at_caret
from engine.reading.mathml import statement_mathml

if TYPE_CHECKING:
    from engine.sheet.sheet import Sheet


def typed_so_far(
    sheet: Sheet,
    text: str,
    last: int | None = None,
    number: int | None = None,
    place: float | None = None,
    caret: int | None = None,
) -> dict[str, Any]:
    """The outcome of the line so far, with what there is around the ``caret``.

    Arguments as those of :meth:`Sheet.preview`; ``caret`` in code points.
    """
    page = sheet.preview(text, last, number, place).for_page()
    page["completions"] = [] if caret is None else complete(sheet, text, caret)
    try:
        tree = sheet.tree_so_far(text)
    except LineError:
        tree = None
    if tree is None:
        return page | {"readings": [], "operands": [], "brackets": [], "parts": [], "hint": None}
    company = at_caret(tree, caret)
    readings = [statement_mathml(statement, company.operands) for statement in tree.statements]
    return page | {
        "readings": readings,
        "operands": list(company.operand_spans),
        "brackets": list(company.brackets),
        "parts": list(company.parts),
        "hint": None if caret is None else hint_at(sheet, tree, text, caret),
    }
