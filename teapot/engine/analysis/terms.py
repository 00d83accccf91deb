"""Terms of numbers and bound names: one and the same term is worked out in real balls, complex ones
or power series (:mod:`teapot.engine.analysis.rings`)."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

from flint import arb, fmpq

from teapot.engine.numbers.values import Complex, Exact, Number, exact


@dataclass(frozen=True, slots=True)
class Const:
    """A number that does not depend on what is bound."""

    value: Number | Complex
    _balls: dict[int, arb] = field(default_factory=dict, compare=False, repr=False)

    def ball(self, bits: int) -> arb:
        """The number, which is real, as a ball: made once, since thousands of parts ask for it."""
        if bits not in self._balls:
            assert not isinstance(self.value, Complex)
            self._balls[bits] = self.value.ball(bits)
        return self._balls[bits]


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


@dataclass(frozen=True, slots=True)
class Below:
    """``a < b``, or ``a <= b``."""

    a: Term
    b: Term
    or_equal: bool

    def mapped(self, change: Callable[[Term], Term]) -> Condition:
        return Below(change(self.a), change(self.b), self.or_equal)


@dataclass(frozen=True, slots=True)
class All:
    """Conditions of which each holds."""

    conditions: tuple[Condition, ...]

    def mapped(self, change: Callable[[Term], Term]) -> Condition:
        return All(tuple(one.mapped(change) for one in self.conditions))


@dataclass(frozen=True, slots=True)
class Not:
    """A condition that does not hold."""

    condition: Condition

    def mapped(self, change: Callable[[Term], Term]) -> Condition:
        return Not(self.condition.mapped(change))


Condition = Below | All | Not


@dataclass(frozen=True, slots=True)
class Choice:
    """One term where a condition holds, and another elsewhere."""

    condition: Condition
    a: Term
    b: Term


@dataclass(frozen=True, slots=True)
class Accumulated:
    """A distribution function of what is ``inside``: its value at a real place, and its density as
    a term of :data:`PLACE`."""

    share: Callable[[arb], arb]
    density: Term
    inside: Term


@dataclass(frozen=True, slots=True)
class Integrated:
    """The integral of what is ``inside``, a term of ``name`` and of the names that are ``given``
    as terms, between two ends; ``over`` works such a term of ``name`` alone out between real ones.
    """

    inside: Term
    name: str
    low: Term
    high: Term
    given: tuple[tuple[str, Term], ...]
    over: Callable[[Term, str, arb, arb], arb]

    def at(self, place: Term) -> Term:
        """What is inside, at a place."""
        return put_in(self.inside, {**dict(self.given), self.name: place})


PLACE = "place"

Term = Const | Var | Op | Power | Applied | Choice | Accumulated | Integrated

ZERO, ONE = exact(0), exact(1)
HALF, PI = exact(fmpq(1, 2)), Exact(fmpq(1), 1)

NOUGHT, UNIT = Const(ZERO), Const(ONE)


def of_positive(x: Term) -> Term:
    """A number itself; below 0 there is no real one."""
    return Power(Power(x, fmpq(1, 2)), fmpq(2))


def one_over(x: Term) -> Term:
    """The reciprocal."""
    return Op("/", UNIT, x)


def minus(x: Term) -> Term:
    """A term with the other sign."""
    return Op("-", NOUGHT, x)


def raised(base: Term, exponent: Term) -> Term:
    """A power: by a rational constant, or by logarithms."""
    constant = exponent.value if isinstance(exponent, Const) else None
    if isinstance(constant, Exact) and constant.is_rational:
        return Power(base, constant.coefficient)
    return Applied("exp", (Op("*", exponent, Applied("ln", (base,))),))


def replaced(term: Term, by: Term) -> Term:
    """A term with something else in the place of its only name, whatever that is."""
    return by if isinstance(term, Var) else mapped(term, lambda one: replaced(one, by))


def put_in(term: Term, terms: Mapping[str, Term]) -> Term:
    """A term with others in the place of some of its names, all at once.

    >>> put_in(Op("+", Var("x"), Var("y")), {"y": Var("z")})
    Op(op='+', a=Var(name='x'), b=Var(name='z'))
    """
    if isinstance(term, Var):
        return terms.get(term.name, term)
    return mapped(term, lambda one: put_in(one, terms))


def mapped(term: Term, change: Callable[[Term], Term]) -> Term:
    """A term with each of its parts changed; one that has none as it is."""
    match term:
        case Op(op=op, a=a, b=b):
            return Op(op, change(a), change(b))
        case Power(base=base, exponent=exponent):
            return Power(change(base), exponent)
        case Applied(function=function, args=args):
            return Applied(function, tuple(map(change, args)))
        case Choice(condition=condition, a=a, b=b):
            return Choice(condition.mapped(change), change(a), change(b))
        case Accumulated(inside=inside):
            return replace(term, inside=change(inside))
        case Integrated(low=low, high=high, given=given):  # what is inside knows no other names
            changed = tuple((name, change(one)) for name, one in given)
            return replace(term, low=change(low), high=change(high), given=changed)
    return term
