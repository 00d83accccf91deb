"""The trees that answers are made of: what would have to be typed for a value."""

from __future__ import annotations

from math import lcm

from teapot.engine.numbers.radicals import RATIONAL, under_root
from teapot.engine.numbers.values import Exact, Product, Radical
from teapot.engine.reading.tree import (
    IMPLIED,
    NOWHERE,
    Binary,
    Call,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
)

PI = Name(NOWHERE, "pi")
I = Name(NOWHERE, "i")  # noqa: E741 - that is its name


def literal(text: str) -> Literal:
    """A number as it is typed, without a sign."""
    return Literal(NOWHERE, text)


def number(text: str) -> Node:
    """A number as it is typed, with a minus or without."""
    if text[0] == "-":
        return Prefix(NOWHERE, "-", Literal(NOWHERE, text[1:]))
    return Literal(NOWHERE, text)


def minus(tree: Node) -> Node:
    """``tree`` with a minus before it."""
    return Prefix(NOWHERE, "-", tree)


def signed(tree: Node, is_negative: bool) -> Node:
    """``tree``, with a minus before it where it ``is_negative``: that of a quotient or a
    product belongs to what comes first in it, as it does where it is typed."""
    if not is_negative:
        return tree
    if isinstance(tree, Binary) and tree.op in ("/", "*", IMPLIED):
        return Binary(NOWHERE, tree.op, signed(tree.left, True), tree.right)
    return minus(tree)


def over(above: Node, below: Node) -> Node:
    """A quotient."""
    return Binary(NOWHERE, "/", above, below)


def times(factor: Node, of: Node) -> Node:
    """A product with no sign: ``2 pi``."""
    return Binary(NOWHERE, IMPLIED, factor, of)


def with_unit(tree: Node, unit: str) -> Node:
    """A number with the unit of an angle after it: after what comes last in a product,
    and its sign before it."""
    if isinstance(tree, Binary) and tree.op == IMPLIED:
        return times(tree.left, with_unit(tree.right, unit))
    if isinstance(tree, Prefix):
        return minus(Postfix(NOWHERE, unit, tree.operand))
    return Postfix(NOWHERE, unit, tree)


def multiple_of_pi(number: Exact) -> Node:
    """``2 pi/3`` and its like."""
    top, bottom = number.coefficient.p, number.coefficient.q
    power = abs(number.pi_power)
    symbol: Node = PI if power == 1 else Binary(NOWHERE, "^", PI, literal(str(power)))
    size, below = literal(abs(top).str()), literal(bottom.str())
    if number.pi_power < 0:
        tree = over(size, symbol if bottom == 1 else times(below, symbol))
    else:
        above = symbol if abs(top) == 1 else times(size, symbol)
        tree = above if bottom == 1 else over(above, below)
    return signed(tree, top < 0)


# -- sums of roots ---------------------------------------------------------------------

Term = tuple[Product, int]
"""A product of roots with a whole number before it."""


def sum_of_roots(radical: Radical) -> Node:
    """``(sqrt(6) - sqrt(2))/4``, ``2*sqrt(3)*pi``."""
    below = lcm(*(int(coefficient.q) for _, coefficient in radical.terms))
    terms = [(product, int(coefficient * below)) for product, coefficient in radical.terms]
    if len(terms) == 1:
        tree = _term(*terms[0])
    elif all(whole < 0 for _, whole in terms) and (below > 1 or radical.pi_power):
        tree = minus(_sum([(product, -whole) for product, whole in terms]))
    else:
        tree = _sum(terms)
    if radical.pi_power:
        power: Node = literal(str(radical.pi_power))
        if radical.pi_power < 0:
            power = minus(literal(str(-radical.pi_power)))
        symbol: Node = PI if radical.pi_power == 1 else Binary(NOWHERE, "^", PI, power)
        tree = Binary(NOWHERE, "*", tree, symbol)
    return over(tree, literal(str(below))) if below > 1 else tree


def _sum(terms: list[Term]) -> Node:
    first, *others = sorted(terms, key=_place)
    tree = _term(*first)
    for product, whole in others:
        tree = Binary(NOWHERE, "-" if whole < 0 else "+", tree, _term(product, abs(whole)))
    return tree


def _place(term: Term) -> tuple[bool, bool, int]:
    """Where a term stands in a sum: what is added first, the rational part before roots."""
    product, whole = term
    return whole < 0, product != RATIONAL, -under_root(product)[0]


def _term(product: Product, whole: int) -> Node:
    if product == RATIONAL:
        return number(str(whole))
    under, degree = under_root(product)
    of = literal(str(under))
    root: Node
    if degree in (2, 3):
        root = Call(NOWHERE, "sqrt" if degree == 2 else "cbrt", (of,))
    else:
        root = Call(NOWHERE, "root", (of, literal(str(degree))))
    if abs(whole) == 1:
        return signed(root, whole < 0)
    return Binary(NOWHERE, "*", number(str(whole)), root)
