"""What is asked of lists and tables in other notations: rows by a test in square brackets,
``group`` without the name of its argument, figures by groups, and what is on the shelf by a former
name or by nearly its own."""

from __future__ import annotations

from collections.abc import Iterable

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import replace
from teapot.engine.numbers.shelf import OF_PROCEDURE, PREFIX, Shelf
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    Binary,
    Call,
    ColumnOf,
    Comparison,
    Name,
    Node,
    Prefix,
    Subscript,
    Text,
)
from teapot.engine.sentences.analysis import WRITTEN_AS_CALL
from teapot.engine.sentences.procedures import RENAMED
from teapot.engine.sentences.tables import NO_SHELF
from teapot.engine.spelling import nearest


def asked_of_tables(nodes: Iterable[Node]) -> LineError | None:
    """The error for the first part of a line that is put so, with the call that is meant; None
    where there is none."""
    for node in nodes:
        call = _meant(node)
        if call:
            return WRITTEN_AS_CALL(node.span, (replace(node.span, call),), call=call)
    return None


def _meant(node: Node) -> str:
    match node:
        case Subscript(of=of, index=test) if _is_test(test):
            return f"where({node_text(of)}, {node_text(test)})"
        case Call(function="sum", args=(test,), named=()) if _is_test(test):
            return f"count({node_text(test)})"
        case Call(function="group", args=(table, Name() | Text() as by, *rest), named=()):
            figures = "".join(f", {node_text(one)}" for one in rest)
            return f"group({node_text(table)}, by={node_text(by)}{figures})"
        case Call(function=name, args=(ColumnOf(of=table, name=of),), named=(("by", by),)):
            column = by.name if isinstance(by, ColumnOf) else node_text(by)
            if name in BY_NAME and name not in ("sort", "group"):
                return f"group({node_text(table)}, by={column}, {name}({of}))"
    return ""


def _is_test(node: Node) -> bool:
    """Whether it is true or false of each item."""
    match node:
        case Comparison():
            return True
        case Binary(op="and" | "or", left=left, right=right):
            return _is_test(left) and _is_test(right)
        case Prefix(op="not", operand=operand):
            return _is_test(operand)
    return False


LIKE = 0.7
"""How much alike the names of two tables are of which one may be meant for the other."""


def with_name_on_shelf(error: LineError, nodes: Iterable[Node], shelf: Shelf) -> None:
    """Offers what a thing on the shelf is called now, or the table whose name is nearly the one
    that is missing."""
    if not error.is_a(NO_SHELF, RENAMED):
        return
    for node in nodes:
        match node:
            case Call(
                function="shelf" | "run" as function,
                args=(Text(parts=(str() as name,)) as typed, *_),
            ):
                prefix = PREFIX if function == "shelf" else OF_PROCEDURE
                meant = shelf.renamed.get(prefix + name)
                if meant is None and function == "shelf":
                    meant = nearest(name, shelf.versions, LIKE)
                if meant is not None and meant != name:
                    error.mends = (replace(typed.span, f'"{meant}"'),)
                    return
