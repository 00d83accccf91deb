"""How tightly each operator binds: one table for the parser and all writers."""

from __future__ import annotations

from teapot.engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Binary,
    Call,
    ColumnOf,
    Columns,
    Comparison,
    DateLiteral,
    Filled,
    Formatted,
    Grid,
    ListOf,
    Literal,
    Measured,
    Mixed,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Subscript,
    Text,
    TimesPowerOfTen,
    Words,
)

FORM, OR, AND, NOT, COMPARISON, RANGE, SUM, PRODUCT, POLAR, SIGN, POWER, POSTFIX, ATOM = range(13)
"""Loosest first.  The tightest are calls, and what stands in brackets."""

NEVER = ATOM + 1
"""More than anything has: what needs it stands in brackets."""

COMPARISONS = frozenset({"==", "!=", "<", "<=", ">", ">=", "~"})

OPERATORS = {
    "or": OR, "and": AND,
    "+": SUM, "-": SUM, "±": SUM,
    "*": PRODUCT, "/": PRODUCT, "mod": PRODUCT, "div": PRODUCT, IMPLIED: PRODUCT,
    "∠": POLAR,
    "^": POWER,
}  # fmt: skip
"""Operators between two operands, which are done from the left where several of one
level follow each other; but powers are done from the right."""

_OF_OPERANDS = {op: (level, level + 1) for op, level in OPERATORS.items()} | {
    "^": (POSTFIX, SIGN),
    IMPLIED: (PRODUCT, POWER),
    "∠": (SIGN, SIGN),
}

_OF_KINDS: dict[type[Node], int] = {
    **dict.fromkeys(
        (
            Literal,
            Name,
            AnswerOf,
            Text,
            Call,
            ListOf,
            DateLiteral,
            TimesPowerOfTen,
            Words,
            Filled,
            Grid,
            Columns,
        ),
        ATOM,
    ),
    Postfix: POSTFIX,
    Sexagesimal: POSTFIX,
    Measured: POSTFIX,
    Subscript: POSTFIX,
    ColumnOf: POSTFIX,
    Range: RANGE,
    Comparison: COMPARISON,
    Formatted: FORM,
    Mixed: SUM,
}  # fmt: skip


def precedence(node: Node) -> int:
    """The level of ``node``'s outermost operator."""
    kind = type(node)
    level = _OF_KINDS.get(kind)
    if level is not None:
        return level
    if isinstance(node, Binary):
        return OPERATORS[node.op]
    return NOT if isinstance(node, Prefix) and node.op == "not" else SIGN


def operand_precedences(op: str) -> tuple[int, int]:
    """The least precedences that the left and right operand need without brackets."""
    return _OF_OPERANDS[op]
