"""Polynomials in bound names whose coefficients are values of any kind, with units too; and
quotients of two of them."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial, reduce

from flint import fmpq

from teapot.engine.analysis.reader import Of, integral_parts, names_in, parts_of, without
from teapot.engine.numbers import operators, sizes
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    FunctionValue,
    Measure,
    Real,
    Value,
    exact,
    is_nought,
)
from teapot.engine.reading.tree import (
    NOWHERE,
    Binary,
    Call,
    Formatted,
    Measured,
    Name,
    Node,
    Prefix,
    Range,
)

MOST_DEGREE = 60
MOST_TERMS = 400

Powers = tuple[int, ...]
Polynomial = dict[Powers, Value]
"""Coefficients by the powers of the names; those that are 0 are left out."""

ONE = exact(1)

SUMS = {"sum": "+", "mean": "+", "product": "*"}


@dataclass(frozen=True, slots=True)
class Ratio:
    """One polynomial over another."""

    above: Polynomial
    below: Polynomial


class NoPolynomial(Exception):
    """An expression that is no quotient of polynomials."""


def ratio_of(node: Node, names: Sequence[str], of: Of) -> Ratio:
    """An expression as a quotient of polynomials.  Errors: :class:`NoPolynomial`."""
    places = {name: at for at, name in enumerate(names)}
    inside: dict[str, Ratio] = {}
    for name, at in places.items():
        powers = tuple(int(at == other) for other in range(len(names)))
        inside[name] = Ratio({powers: ONE}, _constant(ONE, len(names)))
    return _Reader(of, inside, len(names)).ratio(node)


def _constant(value: Value, count: int) -> Polynomial:
    return {} if is_nought(value) else {(0,) * count: value}


@dataclass(frozen=True, slots=True)
class _Reader:
    of: Of
    inside: Mapping[str, Ratio]
    count: int

    def ratio(self, node: Node) -> Ratio:
        if not names_in(node) & set(self.inside):
            return self._plain(self.of(node, {}))
        match node:
            case Name(name=name):
                return self.inside[name]
            case Prefix(op="-"):
                inner = self.ratio(node.operand)
                return Ratio(mapped(inner.above, operators.negate), inner.below)
            case Prefix(op="+"):
                return self.ratio(node.operand)
            case Formatted():
                return self.ratio(node.expression)
            case Measured() if node.unit.zero is None:
                unit = sizes.measure_of(ONE, node.unit)
                return self._product(self.ratio(node.number), self._plain(unit))
            case Binary(op="^"):
                return self._power(node)
            case Binary(op="+" | "-" | "*" | "implied" | "/"):
                return self._operation(node.op, self.ratio(node.left), self.ratio(node.right))
            case Call():
                return self._call(node)
        raise NoPolynomial

    def _plain(self, value: Value) -> Ratio:
        if not isinstance(value, Exact | Real | Measure | Angle | Complex):
            raise NoPolynomial
        return Ratio(_constant(value, self.count), _constant(ONE, self.count))

    def _operation(self, op: str, a: Ratio, b: Ratio) -> Ratio:
        if op in "+-":
            if a.below == b.below:
                return Ratio(added(a.above, b.above, op), a.below)
            first, second = multiplied(a.above, b.below), multiplied(b.above, a.below)
            return Ratio(added(first, second, op), multiplied(a.below, b.below))
        if op == "/":
            if not b.above:
                raise NoPolynomial
            b = Ratio(b.below, b.above)
        return self._product(a, b)

    def _product(self, a: Ratio, b: Ratio) -> Ratio:
        return Ratio(multiplied(a.above, b.above), multiplied(a.below, b.below))

    def _power(self, node: Binary) -> Ratio:
        if names_in(node.right) & set(self.inside):
            raise NoPolynomial
        exponent = self.of(node.right, {})
        if not isinstance(exponent, Exact) or not exponent.is_rational:
            raise NoPolynomial
        power = exponent.coefficient
        if power.q != 1 or abs(power.p) > MOST_DEGREE:
            raise NoPolynomial
        base = self.ratio(node.left)
        if power < 0:
            base = Ratio(base.below, base.above)
        return self._raised(base, abs(int(power.p)))

    def _call(self, node: Call) -> Ratio:
        if node.function in SUMS and (parts := parts_of(node, self.of, self.inside)):
            ratios = (
                _Reader(one.of, without(self.inside, one.index), self.count).ratio(one.node)
                for one in parts
            )
            total = reduce(partial(self._operation, SUMS[node.function]), ratios)
            share = self._plain(exact(len(parts)))
            return self._operation("/", total, share) if node.function == "mean" else total
        if node.function == "integral" and (found := integral_parts(node)):
            return self._integral(*found)
        called = self.of(Name(NOWHERE, node.function), {})
        is_own = isinstance(called, FunctionValue) and called.definition is not None
        if not is_own or node.named or len(node.args) != len(called.parameters):  # type: ignore[union-attr]
            raise NoPolynomial
        assert isinstance(called, FunctionValue)
        if called.within is None or called.definition is None:
            raise NoPolynomial
        inside = dict(zip(called.parameters, map(self.ratio, node.args), strict=True))
        return _Reader(called.within, inside, self.count).ratio(called.definition.expression)

    def _integral(self, expression: Node, name: str, where: Range) -> Ratio:
        """The integral of a polynomial in one more name, whose ends are quotients."""
        ends = self.ratio(where.stop), self.ratio(where.start)
        outer = {one: _with_one_more(ratio) for one, ratio in without(self.inside, name).items()}
        own = Ratio({(0,) * self.count + (1,): ONE}, _constant(ONE, self.count + 1))
        within = _Reader(self.of, {**outer, name: own}, self.count + 1).ratio(expression)
        if any(powers[-1] for powers in within.below):
            raise NoPolynomial
        total = self._plain(exact(0))
        for (*powers, power), value in within.above.items():
            high, low = (self._raised(end, power + 1) for end in ends)
            part = self._operation("-", high, low)
            share = {tuple(powers): operators.operate("/", value, exact(power + 1))}
            factor = Ratio(share, _constant(ONE, self.count))
            total = self._operation("+", total, self._product(factor, part))
        below = {powers[:-1]: value for powers, value in within.below.items()}
        return self._operation("/", total, Ratio(below, _constant(ONE, self.count)))

    def _raised(self, base: Ratio, power: int) -> Ratio:
        result = self._plain(ONE)
        for _ in range(power):
            result = self._product(result, base)
        return result


def _with_one_more(ratio: Ratio) -> Ratio:
    """The same among one more name."""
    above, below = (
        {(*powers, 0): value for powers, value in part.items()}
        for part in (ratio.above, ratio.below)
    )
    return Ratio(above, below)


def mapped(a: Polynomial, change: Callable[[Value], Value]) -> Polynomial:
    """The polynomial with each coefficient changed."""
    return {powers: change(value) for powers, value in a.items()}


def added(a: Polynomial, b: Polynomial, op: str) -> Polynomial:
    """``a + b`` or ``a - b``."""
    made = dict(a)
    for powers, value in b.items():
        if powers in made:
            made[powers] = operators.operate(op, made[powers], value)
            if is_nought(made[powers]):
                del made[powers]
        else:
            made[powers] = value if op == "+" else operators.negate(value)
    return made


def multiplied(a: Polynomial, b: Polynomial) -> Polynomial:
    """``a · b``.  Errors: :class:`NoPolynomial` where it would be too large."""
    made: Polynomial = {}
    for first, x in a.items():
        for second, y in b.items():
            powers = tuple(map(sum, zip(first, second, strict=True)))
            if sum(powers) > MOST_DEGREE:
                raise NoPolynomial
            value = operators.operate("*", x, y) if y != ONE else x
            made = added(made, {powers: value}, "+")
    if len(made) > MOST_TERMS:
        raise NoPolynomial
    return made


def coefficients(of: Polynomial) -> list[Value]:
    """Those of a polynomial in one name, the constant first; a number 0 where one is missing."""
    degree = max((powers[0] for powers in of), default=0)
    return [of.get((power,), exact(0)) for power in range(degree + 1)]


def rational_coefficients(of: Polynomial) -> list[fmpq] | None:
    """The same as fractions; None where one is no rational number."""
    found = coefficients(of)
    if not all(isinstance(one, Exact) and one.is_rational for one in found):
        return None
    return [one.coefficient for one in found if isinstance(one, Exact)]
