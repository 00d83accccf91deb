"""What is shown while a line is typed: its reading, its value, and what is around the caret."""

from __future__ import annotations

from dataclasses import dataclass, replace

from teapot.engine.aids.completion import Completion, complete
from teapot.engine.aids.hint import Card, hint_at
from teapot.engine.data import data_of
from teapot.engine.errors import LineError
from teapot.engine.mends import Notice, Span
from teapot.engine.numbers.context import Conventions
from teapot.engine.parsing.rows import lines_in
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.caret import at_caret
from teapot.engine.reading.mathml import statement_mathml
from teapot.engine.reading.tree import AnswerOf
from teapot.engine.sentences.foreign import PASTED_LATEX
from teapot.engine.sheet.answering import answers_used
from teapot.engine.sheet.outcome import OK, Outcome
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.shown import ShownError, ShownOutcome

MAX_READINGS = 12
"""Readings shown of several lines at once."""


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class SoFar(ShownOutcome):
    """The outcome of what is typed so far, its ``readings`` typeset, and what there is at
    the caret: the places of the operands, of the matching brackets and of all parts of the
    line, what the word may become, and the card."""

    readings: tuple[str, ...] = ()
    operands: tuple[Span, ...] = ()
    brackets: tuple[Span, ...] = ()
    parts: tuple[Span, ...] = ()
    completions: tuple[Completion, ...] = ()
    hint: Card | None = None


def typed_so_far(
    sheet: Worksheet,
    text: str,
    last: int | None = None,
    number: int | None = None,
    place: float | None = None,
    caret: int | None = None,
    conventions: Conventions | None = None,
    unanswered: LineError | None = None,
) -> SoFar:
    """The outcome of the line so far, with what there is around the ``caret``.  Where
    only brackets are open it is answered as if they were closed.

    Arguments as those of :meth:`Worksheet.typed`; ``caret`` in code points.
    """
    lines = lines_in(text) if "\n" in text.strip() else [text]
    if len(lines) > 1:
        return _several(sheet, text, lines)
    typed = sheet.typed(text, last, number, place, conventions, unanswered)
    completions = () if caret is None else tuple(complete(sheet, text, caret))
    shown = typed.shown()
    if completions:
        shown = _without_its_name(shown, caret)
    if typed.tree is None:
        return SoFar(**data_of(shown), completions=completions)
    nodes = typed.line.nodes
    around = at_caret(typed.tree, nodes, caret)
    numbers = {node.number for node in nodes if isinstance(node, AnswerOf)}
    answers = answers_used(sheet, numbers, last)
    return SoFar(
        **data_of(shown),
        readings=tuple(
            statement_mathml(statement, around.operands, answers)
            for statement in typed.tree.statements
        ),
        operands=tuple(around.operand_spans),
        brackets=tuple(around.brackets),
        parts=tuple(around.parts),
        completions=completions,
        hint=None if caret is None or unanswered else hint_at(sheet, typed, caret),
    )


def _without_its_name(shown: ShownOutcome, caret: int | None) -> ShownOutcome:
    """The same without what is said of the name before the ``caret``, which is still on its
    way."""
    is_about_it = _is_about_name_at(shown.error, caret)
    notices = tuple(one for one in shown.notices if one.code != "not-known-yet")
    return replace(shown, notices=notices, error=None if is_about_it else shown.error)


def _is_about_name_at(error: ShownError | None, caret: int | None) -> bool:
    if error is None:
        return False
    is_letter = error.code == PASTED_LATEX.code  # \lamb, on its way to λ
    return is_letter or (error.code == "unknown-name" and error.end == caret)


def _several(sheet: Worksheet, text: str, lines: list[str]) -> SoFar:
    """What is shown of several lines: how they read, and that each will be kept."""
    said = f"These are {len(lines)} lines: Enter keeps them one after another."
    shown = Outcome(0, text, OK, notices=(Notice("several-lines", said),)).shown()
    trees = (sheet.typed(line).tree for line in lines[:MAX_READINGS])
    readings = [
        statement_mathml(statement)
        for tree in trees
        if tree is not None
        for statement in tree.statements
    ]
    return SoFar(**data_of(shown), readings=tuple(readings[:MAX_READINGS]))
