"""Expressions in bound names taken apart into terms; what has a unit counts in coherent units."""

from __future__ import annotations

from collections.abc import Callable, Container, Mapping
from dataclasses import dataclass
from typing import TypeVar, cast

from flint import fmpq

from teapot.engine.analysis.by_others import BY_OTHERS, OF_LISTS, OF_SEVERAL, NotConstant
from teapot.engine.analysis.quadrature import real_integral
from teapot.engine.analysis.slopes import NoSlope, slope_of
from teapot.engine.analysis.terms import (
    ONE,
    ZERO,
    All,
    Applied,
    Below,
    Choice,
    Condition,
    Const,
    Integrated,
    Not,
    Op,
    Term,
    Var,
    put_in,
    raised,
)
from teapot.engine.errors import LineError
from teapot.engine.numbers import angles, operators, sizes
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    FunctionValue,
    Infinite,
    List,
    Measure,
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
    Comparison,
    Formatted,
    ListOf,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    walk,
)
from teapot.engine.sentences.analysis import NOT_LOOKED_INTO, NOT_PLAIN, TOO_MANY_TERMS
from teapot.engine.units.table import ANGLES

Of = Callable[[Node, Mapping[str, Value]], Value]
"""Works a part of an expression out, with values for the bound names."""

TURNING = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
"""Functions that read a bare number in the unit of the conventions."""

KNOWN = frozenset(
    {
        "sin", "cos", "exp", "ln", "sinh", "cosh", "arcsin", "arccos", "arctan", "arsinh",
        "arcosh", "artanh", "abs", "cbrt", "gamma", "lgamma", "erf", "sgn", "floor", "lambert_w",
        *BY_OTHERS,
    }
)  # fmt: skip
"""Functions that can be looked into."""

ORDERS_OF_DERIVATIVES = tuple(map(exact, (1, 2, 3, 4)))

ORDERS = frozenset({"<", "<=", ">", ">="})

T = TypeVar("T")

MOST_TERMS = 1000
"""Terms of a sum over an index that are taken apart."""

OPERATIONS = {"add": "+", "subtract": "-", "multiply": "*", "divide": "/", "power": "^"}


def names_in(node: Node) -> set[str]:
    """The names that stand in an expression."""
    return {one.name for one in walk(node) if isinstance(one, Name)}


@dataclass(frozen=True, slots=True)
class Part:
    """An item of a list that is written out, or a term over an ``index``, which has a value in what
    ``of`` works out."""

    node: Node
    of: Of
    index: str = ""


def parts_of(node: Call, of: Of, bound: Container[str]) -> list[Part]:
    """What a call of a function of lists goes over; nothing where that is not written out.

    Errors: :data:`NOT_LOOKED_INTO` where the index goes over something bound,
    :data:`TOO_MANY_TERMS`.
    """
    if len(node.args) != 1:
        return []
    [inner] = node.args
    if not node.named:
        return [Part(item, of) for item in inner.items] if isinstance(inner, ListOf) else []
    if len(node.named) != 1 or node.function not in ("sum", "product"):
        return []
    [(index, where)] = node.named
    if any(name in bound for name in names_in(where)):
        raise NOT_LOOKED_INTO(node.span, what=node_text(node))
    places = of(where, {})
    if not isinstance(places, List):
        return []
    count = len(places.items)
    if count > MOST_TERMS:
        raise TOO_MANY_TERMS(where.span, count=f"{count:,}", most=f"{MOST_TERMS:,}")
    return [Part(inner, _with(of, index, place), index) for place in places.items]


def _with(of: Of, name: str, place: Value) -> Of:
    return lambda node, given: of(node, {name: place, **given})


def without(names: Mapping[str, T], one: str) -> Mapping[str, T]:
    """All but one of the names."""
    return {name: value for name, value in names.items() if name != one}


def integral_parts(node: Call) -> tuple[Node, str, Range] | None:
    """What is integrated, the bound name and its range; None where that is no whole call."""
    if len(node.args) != 1 or len(node.named) != 1:
        return None
    [(name, where)] = node.named
    if not isinstance(where, Range) or where.step is not None:
        return None
    return node.args[0], name, where


def in_unit_of(stop: Value, start: Value) -> Value:
    """The start of a range, with the unit of its stop where it is 0: ``0..2 m``."""
    return Measure(ZERO, stop.unit) if isinstance(stop, Measure) and start == ZERO else start


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
            case Binary(op="mod" | "div"):
                return OF_SEVERAL[node.op][2](*self._alike(node.left, node.right))
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
        a, b = self._alike(left, right) if op in "+-" else map(self.term, (left, right))
        return Op("*" if op == IMPLIED else op, a, b)

    def _alike(self, *nodes: Node) -> list[Term]:
        """The terms; a bare number beside an angle is read as one."""
        terms = [*map(self.term, nodes)]
        are_angles = [self._kind(node) is Angle for node in nodes]
        if any(are_angles):
            pairs = zip(terms, are_angles, strict=True)
            terms = [term if is_angle else _in_radians(term) for term, is_angle in pairs]
        return terms

    def _power(self, left: Node, right: Node) -> Term:
        return raised(self.term(left), self.term(right))

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
        if name in OF_LISTS and (found := self._items(node)):
            return OF_LISTS[name](found)
        if name == "if" and len(node.args) == 3:
            condition, *both = node.args
            return Choice(self._condition(condition), *self._alike(*both))
        if name == "derivative" and len(node.args) == 1:
            return self._derivative(node)
        if name == "integral":
            return self._integral(node)
        if name in OF_SEVERAL and not node.named:
            return self._of_several(name, node)
        if name not in KNOWN or len(node.args) != 1 or node.named:
            raise NOT_LOOKED_INTO(node.span, what=f"{name}(…)")
        [argument] = node.args
        inner = self.term(argument)
        if name in TURNING and self._kind(argument) is not Angle:
            inner = _in_radians(inner)
        return BY_OTHERS[name](inner) if name in BY_OTHERS else Applied(name, (inner,))

    def _items(self, node: Call) -> list[Term]:
        parts = parts_of(node, self.of, self.inside)
        if parts and not parts[0].index:
            return self._alike(*(part.node for part in parts))
        return [self._at(part).term(part.node) for part in parts]

    def _at(self, part: Part) -> Reader:
        """The same where one more name may have a value."""
        inside, sample = without(self.inside, part.index), without(self.sample, part.index)
        return Reader(part.of, sample, inside)

    def _of_several(self, name: str, node: Call) -> Term:
        least, most, made = OF_SEVERAL[name]
        if not least <= len(node.args) <= most:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        read = map(self.term, node.args) if name == "hypot" else self._alike(*node.args)
        try:
            return made(*read)
        except NotConstant:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node)) from None

    def _derivative(self, node: Call) -> Term:
        """The derivative of an expression at a place that may be bound."""
        named = dict(node.named)
        order = self.of(named.pop("order"), {}) if "order" in named else ONE
        if len(named) != 1 or order not in ORDERS_OF_DERIVATIVES:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        [(name, at)] = named.items()
        own = f"{name} of {node_text(node)}"  # no other is called so
        sample = {**without(self.sample, name), name: self.of(at, self.sample)}
        inside = {**without(self.inside, name), name: Var(own)}
        term = Reader(self.of, sample, inside).term(node.args[0])
        try:
            for _ in range(1 + ORDERS_OF_DERIVATIVES.index(order)):
                term = slope_of(term, own)
        except NoSlope:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node)) from None
        return put_in(term, {own: self.term(at)})

    def _integral(self, node: Call) -> Term:
        """An integral whose ends may be bound, as what is inside may be."""
        if (found := integral_parts(node)) is None:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        expression, name, where = found
        start, stop = (self.of(end, self.sample) for end in (where.start, where.stop))
        if isinstance(start, Infinite) or isinstance(stop, Infinite):
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        both = operators.operate("+", in_unit_of(stop, start), stop)
        middle = operators.operate("/", both, exact(2))
        sample = {**self.sample, name: middle}
        names = sorted(names_in(expression) & set(self.inside) - {name})
        inside = {one: Var(one) for one in (*names, name)}
        return Integrated(
            Reader(self.of, sample, inside).term(expression),
            name,
            self.term(where.start),
            self.term(where.stop),
            tuple((one, self.inside[one]) for one in names),
            real_integral,
        )

    def _condition(self, node: Node) -> Condition:
        """Errors: :data:`NOT_LOOKED_INTO` for one that is no comparison of sizes."""
        match node:
            case Comparison(operands=operands, ops=ops) if set(ops) <= ORDERS:
                pairs = zip(operands, operands[1:], ops, strict=False)
                return All(tuple(self._below(*pair) for pair in pairs))
            case Binary(op="and", left=left, right=right):
                return All((self._condition(left), self._condition(right)))
            case Binary(op="or", left=left, right=right):
                neither = (Not(self._condition(left)), Not(self._condition(right)))
                return Not(All(neither))
            case Prefix(op="not", operand=operand):
                return Not(self._condition(operand))
        raise NOT_LOOKED_INTO(node.span, what=node_text(node))

    def _below(self, left: Node, right: Node, op: str) -> Below:
        a, b = self._alike(left, right)
        return Below(a, b, op == "<=") if op in ("<", "<=") else Below(b, a, op == ">=")

    def _root(self, x: Node, degree: Node, node: Node) -> Term:
        n = self.of(degree, {}) if not names_in(degree) & set(self.inside) else None
        if not isinstance(n, Exact) or not n.is_rational or not n.coefficient:
            raise NOT_LOOKED_INTO(node.span, what=node_text(node))
        if n.coefficient == 3:
            return Applied("cbrt", (self.term(x),))
        return raised(self.term(x), Const(exact(1 / n.coefficient)))

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
