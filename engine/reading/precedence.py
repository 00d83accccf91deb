"""How tightly each kind of node binds: one table for both writers."""

from __future__ import annotations

from engine.reading.tree import (
    IMPLIED,
    Binary,
    Comparison,
    Formatted,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Subscript,
)

FORM, OR, AND, NOT, COMPARISON, RANGE, SUM, PRODUCT, POLAR, SIGN, POWER, POSTFIX, ATOM = range(13)

OPERATORS = {
    "or": OR, "and": AND,
    "∠": POLAR,
    "+": SUM, "-": SUM,
    "*": PRODUCT, "/": PRODUCT, "mod": PRODUCT, "div": PRODUCT, IMPLIED: PRODUCT,
    "^": POWER,
}  # fmt: skip


def precedence(node: Node) -> int:
    """The level of ``node``'s outermost operator."""
    match node:
        case Binary(op=op):
            return OPERATORS[op]
        case Prefix(op=op):
            return NOT if op == "not" else SIGN
        case Postfix() | Sexagesimal() | Subscript():
            return POSTFIX
        case Range():
            return RANGE
        case Comparison():
            return COMPARISON
        case Formatted():
            return FORM
    return ATOM


def operand_precedences(op: str) -> tuple[int, int]:
    """The least strengths that the left and right operand need without brackets."""
    level = OPERATORS[op]
    if op == "^":
        return POSTFIX, SIGN
    if op == IMPLIED:
        return PRODUCT, POWER
    if op == "∠":
        return SIGN, SIGN
    return level, level + 1
