"""The derivative of a term as a term, so that it can stand in what is integrated, solved or drawn.

The rules are those of every table (DLMF 4.20, 4.34, 7.10, common practice of the trade).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from flint import fmpq

from teapot.engine.analysis.terms import (
    NOUGHT,
    PI,
    PLACE,
    UNIT,
    Accumulated,
    Applied,
    Const,
    Integrated,
    Op,
    Power,
    Term,
    Var,
    minus,
    of_positive,
    one_over,
    put_in,
)
from teapot.engine.numbers.values import exact


class NoSlope(Exception):
    """A term with a kink or a jump, or of a function whose derivative is none of the language."""


def _square(x: Term) -> Term:
    return Power(x, fmpq(2))


def _root(x: Term) -> Term:
    return Power(x, fmpq(1, 2))


RULES: dict[str, Callable[[Term], Term]] = {
    "sin": lambda u: Applied("cos", (u,)),
    "cos": lambda u: minus(Applied("sin", (u,))),
    "exp": lambda u: Applied("exp", (u,)),
    "ln": lambda u: one_over(of_positive(u)),
    "sinh": lambda u: Applied("cosh", (u,)),
    "cosh": lambda u: Applied("sinh", (u,)),
    "arcsin": lambda u: one_over(_root(Op("-", UNIT, _square(u)))),
    "arccos": lambda u: Op("/", Const(exact(-1)), _root(Op("-", UNIT, _square(u)))),
    "arctan": lambda u: one_over(Op("+", UNIT, _square(u))),
    "arsinh": lambda u: one_over(_root(Op("+", _square(u), UNIT))),
    "arcosh": lambda u: one_over(Op("*", _root(Op("-", u, UNIT)), _root(Op("+", u, UNIT)))),
    "artanh": lambda u: one_over(of_positive(Op("-", UNIT, _square(u)))),
    "abs": lambda u: Op("/", u, Applied("abs", (u,))),  # none where u is 0
    "cbrt": lambda u: one_over(Op("*", Const(exact(3)), _square(Applied("cbrt", (u,))))),
    "erf": lambda u: Op(
        "*",
        Op("/", Const(exact(2)), _root(Const(PI))),
        Applied("exp", (minus(_square(u)),)),
    ),
}
"""The derivative of each function at a place."""


def slope_of(term: Term, name: str) -> Term:
    """The derivative with respect to a name.  Errors: :class:`NoSlope`."""
    match term:
        case Const():
            return NOUGHT
        case Var():
            return UNIT if term.name == name else NOUGHT
        case Op(op="+" | "-" as op, a=a, b=b):
            return _sum(op, slope_of(a, name), slope_of(b, name))
        case Op(op="*", a=a, b=b):
            first, second = _product(slope_of(a, name), b), _product(a, slope_of(b, name))
            return _sum("+", first, second)
        case Op(a=a, b=b):
            first, second = _product(slope_of(a, name), b), _product(a, slope_of(b, name))
            above = _sum("-", first, second)
            return NOUGHT if above == NOUGHT else Op("/", above, _square(b))
        case Power(base=base, exponent=exponent):
            factor = Op("*", Const(exact(exponent)), Power(base, exponent - 1))
            return _product(factor, slope_of(base, name))
        case Applied(function=function, args=(inner,)) if function in RULES:
            return _product(RULES[function](inner), slope_of(inner, name))
        case Accumulated(density=density, inside=inside):
            return _product(put_in(density, {PLACE: inside}), slope_of(inside, name))
        case Integrated():
            return _of_integral(term, name)
    raise NoSlope


def _of_integral(term: Integrated, name: str) -> Term:
    """Leibniz's rule (DLMF 1.5.22)."""
    above, below = (_product(term.at(end), slope_of(end, name)) for end in (term.high, term.low))
    total = _sum("-", above, below)
    for one, given in term.given:
        inside = slope_of(term.inside, one)
        if inside != NOUGHT:
            part = replace(term, inside=inside)
            total = _sum("+", total, _product(part, slope_of(given, name)))
    return total


def _sum(op: str, a: Term, b: Term) -> Term:
    if b == NOUGHT:
        return a
    return b if a == NOUGHT and op == "+" else Op(op, a, b)


def _product(a: Term, b: Term) -> Term:
    if NOUGHT in (a, b):
        return NOUGHT
    return a if b == UNIT else b if a == UNIT else Op("*", a, b)
