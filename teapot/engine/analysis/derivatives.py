"""The derivative of an expression at a place, by power series of balls; of a polynomial exactly."""

from __future__ import annotations

from math import factorial
from typing import cast

from flint import arb, arb_series

from teapot.engine.analysis.bound import Bound, off_scale
from teapot.engine.analysis.polynomials import NoPolynomial, Polynomial, ratio_of
from teapot.engine.analysis.reader import Reader
from teapot.engine.analysis.rings import SERIES, NotReal, Nowhere, worked_out
from teapot.engine.analysis.terms import Term, Var
from teapot.engine.numbers import operators
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.precision import precision, series_length
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    List,
    Measure,
    Number,
    Real,
    Undefined,
    Value,
    bare_size,
    exact,
    rational_of,
    with_size,
)
from teapot.engine.reading.tree import Node
from teapot.engine.sentences.analysis import BAD_ORDER, BAD_PLACE, NO_DERIVATIVE

MOST_ORDER = 40
TRIES = (64, 256)
"""Binary digits with which it is looked whether there is a derivative."""


def derivative(bound: Bound) -> Value:
    """The derivative of the expression at a place, of an ``order`` that may be said.

    Errors: :data:`NO_DERIVATIVE` where none is proved, as at a kink.
    """
    expression, name, where = bound.one()
    order = _order(bound.options.get("order"))
    places = bound.plain(where)
    if isinstance(places, List):
        return item_by_item(lambda at: _at(bound, expression, name, at, order), places)
    return _at(bound, expression, name, places, order)


def _order(given: Value | None) -> int:
    if given is None:
        return 1
    if isinstance(given, Exact) and given.is_rational and given.coefficient.q == 1:
        order = int(given.coefficient.p)
        if 0 < order <= MOST_ORDER:
            return order
    raise BAD_ORDER(most=MOST_ORDER)


def _at(bound: Bound, expression: Node, name: str, at: Value, order: int) -> Value:
    at = off_scale(at)
    size = bare_size(at)
    if not isinstance(size, Exact | Real):
        raise BAD_PLACE()
    value = bound.of(expression, {name: at})
    if isinstance(value, Undefined):
        raise NO_DERIVATIVE(name=name)
    try:
        ratio = ratio_of(expression, [name], bound.of)
        if [*ratio.below] == [(0,)]:
            below = ratio.below[(0,)]
            found = _of_polynomial(ratio.above, at, order)
            return operators.operate("/", found, below)
    except NoPolynomial:
        pass
    term = Reader(bound.of, {name: at}, {name: Var(name)}).term(expression)
    number = _number(term, name, size, order)
    return with_size(_unit(value, at, order), number)


def _of_polynomial(of: Polynomial, at: Value, order: int) -> Value:
    result: Value | None = None
    for (power,), coefficient in of.items():
        if power < order:
            continue
        factor = exact(factorial(power) // factorial(power - order))
        term = operators.operate("*", coefficient, factor)
        if power > order:
            raised = operators.operate("^", at, exact(power - order))
            term = operators.operate("*", term, raised)
        result = term if result is None else operators.operate("+", result, term)
    return exact(0) if result is None else result


def _unit(value: Value, at: Value, order: int) -> Value:
    """The unit of the derivative, as a value of one of them; an angle counts as a number."""
    above = exact(1) if isinstance(value, Angle) else with_size(value, exact(1))
    if not isinstance(at, Measure):
        return above
    below = operators.operate("^", with_size(at, exact(1)), exact(order))
    return operators.operate("/", above, below)


def _number(term: Term, name: str, at: Number, order: int) -> Number:
    def compute(place: arb) -> arb:
        try:
            with series_length(order + 1):
                found = worked_out(term, SERIES, {name: arb_series([place, 1])})
        except (ValueError, ZeroDivisionError, NotReal, Nowhere):  # a divisor that may be 0
            return arb.nan()
        if not isinstance(found, arb_series):
            return arb(0)
        return found[order] * factorial(order)

    for bits in TRIES:
        with precision(bits):
            first = compute(at.ball(bits))
        if first.is_finite():
            break
    else:
        raise NO_DERIVATIVE(name=name)
    if first.is_exact():
        return exact(rational_of(first))
    return cast(Number, Real(compute, at))
