"""An expression in bound names as terms of numbers: all that has a unit counts in coherent units,
so that one and the same term is worked out in real balls, complex ones or power series."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import cast

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.numbers import angles, sizes
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    FunctionValue,
    Infinite,
    Number,
    Real,
    Undefined,
    Value,
    bare_size,
    exact,
    real,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    NOWHERE,
    Binary,
    Call,
    Formatted,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    walk,
)
from teapot.engine.sentences.analysis import NOT_LOOKED_INTO, NOT_PLAIN
from teapot.engine.units.table import ANGLES

Of = Callable[[Node, Mapping[str, Value]], Value]
"""Works a part of an expression out, with values for the bound names."""


@dataclass(frozen=True, slots=True)
class Const:
    """A number that does not depend on what is bound."""

    value: Number | Complex


@dataclass(frozen=True, slots=True)
class Var:
    """A bound name."""

    name: str


@dataclass(frozen=True, slots=True)
class Op:
    """``a op b``, of the four operations."""

    op: str
    a: Term
    b: Term


@dataclass(frozen=True, slots=True)
class Power:
    """A power with a constant, rational exponent; others are exponentials."""

    base: Term
    exponent: fmpq


@dataclass(frozen=True, slots=True)
class Applied:
    """A function of the language, by its name."""

    function: str
    args: tuple[Term, ...]


Term = Const | Var | Op | Power | Applied

ZERO, ONE = exact(0), exact(1)

TURNING = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
"""Functions that read a bare number in the unit of the conventions."""

BY_OTHERS: dict[str, Callable[[Term], Term]] = {
    "cot": lambda x: Op("/", Applied("cos", (x,)), Applied("sin", (x,))),
    "tan": lambda x: Op("/", Applied("sin", (x,)), Applied("cos", (x,))),
    "sec": lambda x: Op("/", Const(ONE), Applied("cos", (x,))),
    "csc": lambda x: Op("/", Const(ONE), Applied("sin", (x,))),
    "tanh": lambda x: Op("/", Applied("sinh", (x,)), Applied("cosh", (x,))),
    "coth": lambda x: Op("/", Applied("cosh", (x,)), Applied("sinh", (x,))),
    "sech": lambda x: Op("/", Const(ONE), Applied("cosh", (x,))),
    "csch": lambda x: Op("/", Const(ONE), Applied("sinh", (x,))),
    "arccot": lambda x: Applied("arctan", (Op("/", Const(ONE), x),)),
    "arcsec": lambda x: Applied("arccos", (Op("/", Const(ONE), x),)),
    "arccsc": lambda x: Applied("arcsin", (Op("/", Const(ONE), x),)),
    "arcoth": lambda x: Applied("artanh", (Op("/", Const(ONE), x),)),
    "arsech": lambda x: Applied("arcosh", (Op("/", Const(ONE), x),)),
    "arcsch": lambda x: Applied("arsinh", (Op("/", Const(ONE), x),)),
    "sqrt": lambda x: Power(x, fmpq(1, 2)),
    "lg": lambda x: Op("/", Applied("ln", (x,)), Applied("ln", (Const(exact(10)),))),
    "lb": lambda x: Op("/", Applied("ln", (x,)), Applied("ln", (Const(exact(2)),))),
    "erfc": lambda x: Op("-", Const(ONE), Applied("erf", (x,))),
}
"""Functions that are made of others, so that their poles are seen as zeros of what is below."""

KNOWN = frozenset(
    {
        "sin", "cos", "exp", "ln", "sinh", "cosh", "arcsin", "arccos", "arctan", "arsinh",
        "arcosh", "artanh", "abs", "cbrt", "gamma", "lgamma", "erf", "sgn", "floor", "lambert_w",
        *BY_OTHERS,
    }
)  # fmt: skip
"""Functions that can be looked into."""

OPERATIONS = {"add": "+", "subtract": "-", "multiply": "*", "divide": "/", "power": "^"}


def names_in(node: Node) -> set[str]:
    """The names that stand in an expression."""
    return {one.name for one in walk(node) if isinstance(one, Name)}


@dataclass(frozen=True, slots=True)
class Reader:
    """Takes expressions apart; ``sample`` has a value for each bound name, by which it is known
    what is an angle."""

    of: Of
    sample: Mapping[str, Value]
    inside: Mapping[str, Term]

    def term(self, node: Node) -> Term:
        """The term of a node.

        Errors: :data:`NOT_LOOKED_INTO` for a function or a sign that jumps or is no number.
        """
        if not names_in(node) & set(self.inside):
            return Const(self._plain(self.of(node, {}), node))
        match node:
            case Name(name=name):
                return self.inside[name]
            case Prefix(op="-"):
                return Op("-", Const(ZERO), self.term(node.operand))
            case Prefix(op="+"):
                return self.term(node.operand)
            case Formatted():
                return self.term(node.expression)
            case Measured():
                return self._measured(node)
            case Postfix():
                return self._postfix(node)
            case Binary(op="+" | "-" | "*" | "/" | "^" | "implied"):
                return self._operation(node.op, node.left, node.right)
            case Call():
                return self._call(node)
        raise NOT_LOOKED_INTO(node.span, what=node_text(node))

    def _plain(self, value: Value, node: Node) -> Number | Complex:
        size = bare_size(value)
        if isinstance(size, Exact | Real | Complex):
            return size
        if isinstance(size, Undefined):
            raise NOT_PLAIN(node.span, what=node_text(node), kind="without a value")
        if isinstance(size, Infinite):
            raise NOT_PLAIN(node.span, what=node_text(node), kind="infinite")
        raise NOT_PLAIN(node.span, what=node_text(node), kind="no plain number")

    def _kind(self, node: Node) -> type:
        """What kind of value a part has, as far as it can be told."""
        given = {name: self.sample[name] for name in names_in(node) & set(self.sample)}
        try:
            return type(self.of(node, given))
        except LineError as error:
            if error.is_a(NOT_LOOKED_INTO):
                raise
            return Exact

    def _measured(self, node: Measured) -> Term:
        inner = Op("*", self.term(node.number), Const(sizes.factor_of(node.unit)))
        if node.unit.zero is None:
            return inner
        return Op("+", inner, Const(exact(node.unit.zero)))

    def _postfix(self, node: Postfix) -> Term:
        inner = self.term(node.operand)
        if node.op == "%":
            return Op("/", inner, Const(exact(100)))
        if node.op == "!":
            return Applied("gamma", (Op("+", inner, Const(ONE)),))
        if node.op in ANGLES or node.op in angles.PARTS:
            one = angles.angle_of(exact(1), node.op if node.op in ANGLES else "deg")
            part = Const(real(cast(Angle, one).size))
            scale = angles.PARTS.get(node.op, fmpq(1)) if node.op not in ANGLES else fmpq(1)
            return Op("*", inner, Op("*", part, Const(exact(scale))))
        raise NOT_LOOKED_INTO(node.span, what=node_text(node))

    def _operation(self, op: str, left: Node, right: Node) -> Term:
        if op == "^":
            return self._power(left, right)
        a, b = self.term(left), self.term(right)
        if op in "+-":
            first, second = self._kind(left), self._kind(right)
            if (first is Angle) != (second is Angle):
                turned = _in_radians(b if first is Angle else a)
                a, b = (a, turned) if first is Angle else (turned, b)
        return Op("*" if op == IMPLIED else op, a, b)

    def _power(self, left: Node, right: Node) -> Term:
        base = self.term(left)
        if not names_in(right) & set(self.inside):
            exponent = self._plain(self.of(right, {}), right)
            if isinstance(exponent, Exact) and exponent.is_rational:
                return Power(base, exponent.coefficient)
            return Applied("exp", (Op("*", Const(exponent), Applied("ln", (base,))),))
        return Applied("exp", (Op("*", self.term(right), Applied("ln", (base,))),))

    def _call(self, node: Call) -> Term:
        called = self.of(Name(NOWHERE, node.function), {})
        if isinstance(called, FunctionValue) and called.definition is not None:
            return self._own(called, node)
        name = called.name if isinstance(called, FunctionValue) else node.function
        if name in OPERATIONS and len(node.args) == 2:
            return self._operation(OPERATIONS[name], *node.args)
        if name == "root" and len(node.args) == 2:
            return self._root(*node.args, node)
        if name == "log" and len(node.args) == 2:
            x, base = (Applied("ln", (self.term(one),)) for one in node.args)
            return Op("/", x, base)
        if name not in KNOWN or len(node.args) != 1 or node.named:
            raise NOT_LOOKED_INTO(node.span, what=f"{name}(…)")
        [argument] = node.args
        inner = self.term(argument)
        if name in TURNING and self._kind(argument) is not Angle:
            inner = _in_radians(inner)
        return BY_OTHERS[name](inner) if name in BY_OTHERS else Applied(name, (inner,))

    def _root(self, x: Node, degree: Node, node: Node) -> Term:
        n = self.of(degree, {}) if not names_in(degree) & set(self.inside) else None
        if not isinstance(n, Exact) or not n.is_rational or not n.coefficient:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        if n.coefficient == 3:
            return Applied("cbrt", (self.term(x),))
        return Power(self.term(x), 1 / n.coefficient)

    def _own(self, called: FunctionValue, node: Call) -> Term:
        """A function of one's own: its body, with the arguments in the place of its names."""
        assert called.definition is not None
        if called.within is None or len(node.args) != len(called.parameters) or node.named:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        inside = dict(zip(called.parameters, map(self.term, node.args), strict=True))
        values = (self.of(argument, self.sample) for argument in node.args)
        sample = dict(zip(called.parameters, values, strict=True))
        return Reader(called.within, sample, inside).term(called.definition.expression)


def _in_radians(term: Term) -> Term:
    """A bare number as the angle that it is read for."""
    one = angles.radians_of(exact(1))
    return term if one == ONE else Op("*", term, Const(real(cast(Value, one))))
