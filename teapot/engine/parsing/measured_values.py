"""± between its operands.

It ranks with + and −; but two numbers beside it are one measured value, as the laboratory writes
it: ``2 m + 5.32 ± 0.04 m``.  Where such a pair is a factor, what is meant has to be asked.
"""

from __future__ import annotations

import re

from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace, replace_each
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.literals import literal_value
from teapot.engine.reading.precedence import POLAR, SUM
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.tree import (
    IMPLIED,
    Binary,
    Call,
    Literal,
    Measured,
    Node,
    Postfix,
    Prefix,
    walk,
)
from teapot.engine.reading.units import read_unit, sees_measure
from teapot.engine.sentences.units import PLUS_OR_MINUS, UNCERTAIN_FACTOR


def level(cursor: Cursor, left: Node) -> int:
    """How tightly the ± at hand binds to the operand before it."""
    behind = cursor.tokens[cursor.at + 1]
    are_numbers = behind.kind == tk.NUMBER and _is_number(cursor, left)
    return POLAR if are_numbers and not is_uncertainty(cursor, left) else SUM


def is_uncertainty(cursor: Cursor, node: Node) -> bool:
    """Whether ± stands before it, as in ``5 ± 0.1 ± 0.2``."""
    at = cursor.at
    while at and cursor.tokens[at - 1].span.start >= node.span.start:
        at -= 1
    return at > 0 and cursor.tokens[at - 1].text == "±"


def is_part_with_unit(cursor: Cursor, node: Node) -> bool:
    """Whether it is the 1% of ``5 ± 1% m``, and the unit of both is at hand."""
    is_part = isinstance(node, Postfix) and node.op == "%" and is_uncertainty(cursor, node)
    return is_part and sees_measure(cursor)


def _is_number(cursor: Cursor, node: Node) -> bool:
    """Whether it is a number as typed, with its sign and unit."""
    if id(node) in cursor.outer:
        return False
    if isinstance(node, Prefix | Measured):
        return _is_number(cursor, node.operand if isinstance(node, Prefix) else node.number)
    return isinstance(node, Literal)


def plus_minus(cursor: Cursor, sign: Token, left: Node, right: Node) -> Node:
    """The measured value of two operands.

    Errors: :class:`LineError` where it may be a product, or the two solutions of an equation.
    """
    span = cursor.across(left, right)
    if _is_root_of_difference(right):
        mends = tuple(replace(sign.span, one) for one in "+-")
        raise PLUS_OR_MINUS(sign.span, mends)
    first = _first_factor(cursor, left, right)
    if first is not None and _is_number(cursor, left):
        pair, product = left.span.to(first.span), cursor.across(right, right)
        raise _asked(cursor, span, (pair, product))
    node = _scaled(cursor, Binary(span, "±", left, right, sign.span))
    is_part = isinstance(right, Postfix) and right.op == "%"
    if is_part and _is_number(cursor, left) and sees_measure(cursor):
        start = cursor.token.span
        unit = read_unit(cursor)
        place = start.to(cursor.previous.span)
        return Measured(span.to(place), node, unit, place)  # 5 ± 1% m
    return node


def refuse_factor(cursor: Cursor, left: Node, pair: Node) -> None:
    """``2*5.32 ± 0.04``: whether the product is measured, or its factor.

    Errors: :class:`LineError` where ``pair`` is one.
    """
    if not (isinstance(pair, Binary) and pair.op == "±") or id(pair) in cursor.outer:
        return
    product = cursor.across(left, left).to(pair.left.span)
    raise _asked(cursor, cursor.across(left, pair), (pair.span, product))


def _asked(cursor: Cursor, span: Span, choices: tuple[Span, Span]) -> LineError:
    """What is meant, with brackets around each of the ``choices``, or around all pairs."""
    mends = [replace(one, f"({cursor.typed(one)})") for one in choices]
    pairs = [Span(*found.span()) for found in PAIR.finditer(cursor.text)]
    if len(pairs) > 1:
        each = [(one, f"({cursor.typed(one)})") for one in pairs]
        mends.insert(0, replace_each(cursor.text, each))
    return UNCERTAIN_FACTOR(span, tuple(mends))


_FIGURES = r"\d[\d.]*(?:e-?\d+)?"
PAIR = re.compile(
    rf"(?<![\w(.])-?{_FIGURES}\s*(?:±|\+/-|\+-)\s*{_FIGURES}%?"
    r"(?:\s*[^\W\d_]+(?:/[^\W\d_]+)?(?:\^-?\d)?)?"
)
"""``5 ± 0.1 m``, as it is typed."""


def _first_factor(cursor: Cursor, value: Node, node: Node) -> Node | None:
    """The number that stands before ``*`` first of all in a product, or before ``/`` with the unit
    of the ``value`` too: ``5 ± 0.1 m / 2``; None where none does."""
    while isinstance(node, Binary) and node.op in ("*", "/", IMPLIED):
        if id(node) in cursor.outer:
            return None
        has_unit_of_both = isinstance(node.left, Measured) and not isinstance(value, Measured)
        if (node.op == "*" or has_unit_of_both) and _is_number(cursor, node.left):
            return node.left
        node = node.left
    return None


def _is_root_of_difference(node: Node) -> bool:
    """``sqrt(b^2 - 4*a*c)``, as in the formula of a quadratic equation."""
    if not isinstance(node, Call) or node.function != "sqrt" or not node.args:
        return False
    under = node.args[0]
    return isinstance(under, Binary) and under.op == "-"


def _scaled(cursor: Cursor, node: Binary) -> Binary:
    """``12.3 ± 0.1 × 10^3``: the power of ten belongs to both."""
    right = node.right.number if isinstance(node.right, Measured) else node.right
    if not isinstance(right, Literal) or not _is_number(cursor, node.left):
        return node
    power = right.text.partition("e")[2]
    if not power or "e" in cursor.typed(right.span).lower() or _has_power(node.left):
        return node
    return Binary(node.span, "±", times_ten(node.left, power), node.right, node.op_span)


def _has_power(number: Node) -> bool:
    return any("e" in part.text for part in walk(number) if isinstance(part, Literal))


def times_ten(node: Node, power: str) -> Node:
    """A number as typed, or a measured value of two, times ten to a ``power``."""
    if isinstance(node, Literal):
        return Literal(node.span, *literal_value(f"{node.text}e{power}", node.span))
    return node.mapped(lambda part: times_ten(part, power))
