"""What is shown while a line is typed: its reading, its value, and the caret's company."""

from __future__ import annotations

from typing import Any

from engine.aids.completion import complete
from engine.aids.hint import hint_at
from engine.mends import Notice
from engine.reading.caret import at_caret
from engine.reading.mathml import statement_mathml
from engine.reading.rows import lines_in
from engine.reading.tree import AnswerOf
from engine.sheet.answering import answers_used
from engine.sheet.outcome import OK, Outcome
from engine.sheet.sheet import Sheet

NOTHING_AROUND: dict[str, Any] = {"operands": [], "brackets": [], "parts": [], "hint": None}

MAX_READINGS = 12
"""Readings shown of several lines at once."""


def typed_so_far(
    sheet: Sheet,
    text: str,
    last: int | None = None,
    number: int | None = None,
    place: float | None = None,
    caret: int | None = None,
) -> dict[str, Any]:
    """The outcome of the line so far, with what there is around the ``caret``.  Where
    only brackets are open it is answered as if they were closed.

    Arguments as those of :meth:`Sheet.preview`; ``caret`` in code points.
    """
    lines = lines_in(text) if "\n" in text.strip() else [text]
    if len(lines) > 1:
        return _several(sheet, text, lines)
    typed = sheet.typed(text, last, number, place)
    page = typed.for_page()
    page["completions"] = [] if caret is None else complete(sheet, text, caret)
    if page["completions"]:
        page["notices"] = [n for n in page["notices"] if n["code"] != "not-known-yet"]
        if _is_about_name_at(page["error"], caret):
            page["error"] = None
    if typed.tree is None:
        return page | {"readings": [], **NOTHING_AROUND}
    nodes = typed.line.nodes
    company = at_caret(typed.tree, nodes, caret)
    numbers = {node.number for node in nodes if isinstance(node, AnswerOf)}
    answers = answers_used(sheet, numbers, last)
    readings = [
        statement_mathml(statement, company.operands, answers)
        for statement in typed.tree.statements
    ]
    return page | {
        "readings": readings,
        "operands": list(company.operand_spans),
        "brackets": list(company.brackets),
        "parts": list(company.parts),
        "hint": None if caret is None else hint_at(sheet, typed, caret),
    }


def _is_about_name_at(error: dict[str, Any] | None, caret: int | None) -> bool:
    """Whether the error is that of a name which may still be on its way."""
    return error is not None and error["code"] == "unknown-name" and error["end"] == caret


def _several(sheet: Sheet, text: str, lines: list[str]) -> dict[str, Any]:
    """What is shown of several lines: how they read, and that each will be kept."""
    said = f"These are {len(lines)} lines: Enter keeps them one after another."
    page = Outcome(0, text, OK, notices=(Notice("several-lines", said),)).for_page()
    trees = (sheet.typed(line).tree for line in lines[:MAX_READINGS])
    readings = [
        statement_mathml(statement)
        for tree in trees
        if tree is not None
        for statement in tree.statements
    ]
    return page | {"completions": [], "readings": readings[:MAX_READINGS], **NOTHING_AROUND}
