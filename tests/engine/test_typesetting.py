"""What is typeset can be read in one way only, and that is the one that is meant.

Ten thousand trees are set and read again by a reader that knows only how print is read.
"""

import random

import pytest

from teapot.engine.mends import Span
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.literals import literal_value
from teapot.engine.reading.mathml import node_mathml
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    Binary,
    Call,
    Comparison,
    Formatted,
    ListOf,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Subscript,
)
from tests.engine.answers import outcome
from tests.engine.mathml_reader import Read, read
from tests.examples import part_of

TREES = part_of(10_000)
NOWHERE = Span(0, 0)
NUMBERS = ("1", "2", "10", "0.5", "12345", "1.5e3", "2e-7", "0.12345678", "3e10")
NAMES = ("a", "x", "tea", "v_0", "pi", "e", "i", "w_tea")


def literal(text: str) -> Literal:
    return Literal(NOWHERE, *literal_value(text, NOWHERE))


class Grower:
    """Grows random trees."""

    def __init__(self, seed: int) -> None:
        self.random = random.Random(seed)

    def leaf(self) -> Node:
        if self.random.random() < 0.5:
            return literal(self.random.choice(NUMBERS))
        return Name(NOWHERE, self.random.choice(NAMES))

    def node(self, depth: int) -> Node:
        if not depth or self.random.random() < 0.1:
            return self.leaf()
        return self.random.choice(self.KINDS)(self, depth - 1)

    def binary(self, depth: int) -> Node:
        op = self.random.choice(("+", "-", "*", "/", "/", "^", "^", "*", IMPLIED, "mod", "div"))
        return Binary(NOWHERE, op, self.node(depth), self.node(depth), NOWHERE)

    def logic(self, depth: int) -> Node:
        op = self.random.choice(("and", "or", "∠"))
        return Binary(NOWHERE, op, self.node(depth), self.node(depth), NOWHERE)

    def prefix(self, depth: int) -> Node:
        return Prefix(NOWHERE, self.random.choice(("-", "-", "+", "not")), self.node(depth))

    def postfix(self, depth: int) -> Node:
        op = self.random.choice(("!", "%", "°", "rad", "turn"))
        return Postfix(NOWHERE, op, self.node(depth))

    def call(self, depth: int) -> Node:
        name, count = self.random.choice(
            (("sqrt", 1), ("cbrt", 1), ("root", 2), ("abs", 1), ("floor", 1), ("ceil", 1),
             ("factorial", 1), ("binomial", 2), ("sin", 1), ("ln", 1), ("log", 2), ("gamma", 1),
             ("bessel_j", 2), ("max", 2), ("if", 3), ("f", 1))
        )  # fmt: skip
        args = tuple(self.node(depth) for _ in range(count))
        return Call(NOWHERE, name, args, is_own=name == "f")

    def comparison(self, depth: int) -> Node:
        ops = tuple(self.random.choices(("==", "!=", "<", ">=", "~"), k=self.random.choice((1, 2))))
        return Comparison(NOWHERE, tuple(self.node(depth) for _ in range(len(ops) + 1)), ops)

    def listed(self, depth: int) -> Node:
        return ListOf(NOWHERE, tuple(self.node(depth) for _ in range(self.random.randrange(1, 4))))

    def range(self, depth: int) -> Node:
        step = self.node(depth) if self.random.random() < 0.5 else None
        return Range(NOWHERE, self.node(depth), self.node(depth), step)

    def item(self, depth: int) -> Node:
        return Subscript(NOWHERE, Name(NOWHERE, "w_tea"), self.node(depth))

    def form(self, depth: int) -> Node:
        return Formatted(NOWHERE, self.node(depth), (("4", "digits"),))

    KINDS = (binary, binary, binary, binary, logic, prefix, prefix, postfix, postfix, call, call,
             call, comparison, listed, range, item, form)  # fmt: skip


def meant(node: Node) -> Read:
    """What a tree says, in the words of the reader."""
    match node:
        case Literal(text=text):
            return ("num", text)
        case Name(name=name):
            return ("name", name)
        case Binary(op=op, left=left, right=right):
            return ("*" if op == IMPLIED else op, meant(left), meant(right))
        case Prefix(op=op, operand=operand):
            return ({"-": "neg", "+": "pos"}.get(op, op), meant(operand))
        case Postfix(op=op, operand=operand):
            return (op, meant(operand))
        case Comparison(operands=operands, ops=ops):
            return ("compare", ops, *map(meant, operands))
        case Call(function="factorial", args=(of,)):
            return ("!", meant(of))
        case Call(function="root", args=(of, Literal(text="3"))):
            return ("call", "cbrt", meant(of))
        case Call(function=function, args=args):
            return ("call", function, *map(meant, args))
        case ListOf(items=items):
            return ("list", *map(meant, items))
        case Range(start=start, stop=stop, step=None):
            return ("..", meant(start), meant(stop))
        case Range(start=start, stop=stop, step=step):
            return ("..", meant(start), meant(stop), meant(step))
        case Subscript(of=of, index=index):
            return ("item", meant(of), meant(index))
        case Formatted(expression=expression):
            return ("as", meant(expression), "4 digits")
    raise TypeError(node)


def test_trees_are_read_as_they_are_meant():
    grower = Grower(8)
    wrong = []
    for _ in range(TREES):
        tree = grower.node(grower.random.choice((2, 3, 3, 4)))
        try:
            found = read(node_mathml(tree))
        except ValueError as error:
            found = str(error)
        if found != meant(tree):
            wrong.append((node_text(tree), found))
    assert wrong == []


@pytest.mark.parametrize("outer", range(len(Grower.KINDS)))
def test_each_pair_of_an_outer_and_an_inner_construct(outer):
    grower = Grower(outer)
    for inner in Grower.KINDS:
        for _ in range(20):
            grower.node = lambda depth, inner=inner: (
                inner(Grower(grower.random.random()), 0) if depth else grower.leaf()
            )
            tree = Grower.KINDS[outer](grower, 1)
            assert read(node_mathml(tree)) == meant(tree), node_text(tree)


@pytest.mark.parametrize(
    "typed",
    [
        "(1.5e3)^2", "2e3!", "1e3%", "(5!)!", "(5°)^2", "a*(b + 1)", "2 k*(b + 1)", "-2^2",
        "(-2)^2", "sin(x)^2", "f(x)^2", "(sqrt(2))^2", "||x| + 1|", "2*(1/3)", "-7 mod 3",
        "6.02e23*1.38e-23", "if(x > 2, 3, 4) + 1", "5∠30° + 3∠60°", "1/(2 turn)", "2^3^2",
        "(2^3)^2", "a/b/c", "a/(b/c)", "1 - (2 - 3)", "1 - -2", "not (a and b)", "(1..3)*2",
    ],
)  # fmt: skip
def test_what_is_typed_is_read_as_it_is_meant(typed):
    tree = parse(typed, ("sin", "sqrt", "abs", "if")).statements[0].expression
    if "f(" in typed:
        tree = parse(typed, ("sin",), ("f",)).statements[0].expression
    assert read(node_mathml(tree)) == meant(tree)


def test_a_name_of_several_words_is_no_letter_with_an_index():
    shown = outcome("normal_cdf(0)").answers[0]
    assert '<mi mathvariant="normal">normal_cdf</mi>' in shown.reading_mathml
    assert r"\operatorname{normal\_cdf}" in shown.latex
