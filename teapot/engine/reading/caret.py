"""What an editor shows around the caret: operands, brackets, enclosing parts."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from teapot.engine.mends import Span
from teapot.engine.reading.tree import Binary, Comparison, LineTree, Node, Postfix, Prefix


@dataclass(frozen=True, slots=True)
class AtCaret:
    """``operands`` of the operator that the caret touches, ``brackets`` that match,
    and all ``parts`` of the line, so that a selection can be widened to the next."""

    operands: tuple[Node, ...]
    operand_spans: tuple[Span, ...]
    brackets: tuple[Span, ...]
    parts: tuple[Span, ...]


def at_caret(tree: LineTree, nodes: list[Node], caret: int | None) -> AtCaret:
    """What there is for a caret that stands before the code point ``caret``, in a line of
    which ``nodes`` are all parts."""
    pairs = [opening.to(closing) for opening, closing in tree.brackets]
    around = {node.span: _outer(node.span, pairs) for node in nodes}
    parts = {*around.values(), *around, *pairs}
    parts.update(statement.span for statement in tree.statements)
    operands = () if caret is None else _operands(nodes, caret)
    brackets = () if caret is None else _touched(tree.brackets, caret)
    return AtCaret(
        operands,
        tuple(_outer(node.span, pairs) for node in operands),
        brackets,
        tuple(sorted(parts)),
    )


def _outer(span: Span, pairs: list[Span]) -> Span:
    """``span`` with a pair of brackets that stands just around it, if any."""
    for pair in pairs:
        if pair.start < span.start and span.end < pair.end and _tight(span, pair):
            return pair
    return span


def _tight(span: Span, pair: Span) -> bool:
    return pair.start == span.start - 1 and pair.end == span.end + 1


def _operands(nodes: list[Node], caret: int) -> tuple[Node, ...]:
    for node in nodes:
        match node:
            case Binary(op_span=sign) if sign.start <= caret <= sign.end and sign.end > sign.start:
                return node.children
    for node in nodes:
        match node:
            case Prefix(operand=operand) if node.span.start == caret:
                return (operand,)
            case Postfix(operand=operand) if node.span.end == caret:
                return (operand,)
            case Comparison(operands=operands):
                for left, right in pairwise(operands):
                    if left.span.end <= caret <= right.span.start:
                        return (left, right)
    return ()


def _touched(pairs: tuple[tuple[Span, Span], ...], caret: int) -> tuple[Span, ...]:
    for pair in pairs:
        if any(caret in (sign.start, sign.end) for sign in pair):
            return pair
    return ()
