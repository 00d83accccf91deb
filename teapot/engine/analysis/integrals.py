"""The integral of an expression over a range, with every digit proved: of a polynomial exactly, of
others by quadrature in balls."""

from __future__ import annotations

from teapot.engine.analysis.bound import Bound
from teapot.engine.analysis.polynomials import NoPolynomial, Polynomial, ratio_of
from teapot.engine.analysis.quadrature import Integration, places_inside
from teapot.engine.analysis.reader import Reader
from teapot.engine.analysis.terms import Var
from teapot.engine.errors import LineError
from teapot.engine.numbers import operators
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Infinite,
    Measure,
    Real,
    Undefined,
    Value,
    bare_size,
    exact,
    with_size,
)
from teapot.engine.reading.tree import Node
from teapot.engine.sentences.analysis import BAD_END

ENDS = (Exact, Real, Infinite)
"""Kinds of number that a range may end at."""


def integral(bound: Bound) -> Value:
    """The integral of the expression over the range of its name, in the unit of the one times that
    of the other.

    Errors: :data:`NOT_INTEGRATED` or :data:`SINGULAR` where no value is proved.
    """
    expression, name, where = bound.one()
    start, stop = bound.ends(where)
    low, high = bare_size(start), bare_size(stop)
    if not (isinstance(low, ENDS) and isinstance(high, ENDS)):
        raise BAD_END(where.span)
    like = stop if isinstance(start, Infinite) else start
    if isinstance(like, Measure) or isinstance(stop, Measure):
        operators.operate("+", with_size(like, exact(1)), with_size(stop, exact(1)))
    if not isinstance(low, Infinite) and not isinstance(high, Infinite):
        found = _exactly(bound, expression, name, start, stop)
        if found is not None:
            return found
    inside = places_inside(low, high)
    value, sample = _sample(bound, expression, name, [with_size(like, one) for one in inside])
    term = Reader(bound.of, {name: sample}, {name: Var(name)}).term(expression)
    unit: Value = exact(1) if isinstance(value, Angle) else with_size(value, exact(1))
    if isinstance(like, Measure):
        unit = operators.operate("*", unit, with_size(like, exact(1)))
    number = Integration(term, name).over(low, high)
    if isinstance(number, Complex) and isinstance(unit, Measure):
        return Measure(number, unit.unit)
    return number if isinstance(number, Complex) else with_size(unit, number)


def _exactly(bound: Bound, node: Node, name: str, start: Value, stop: Value) -> Value | None:
    """The integral of a polynomial; None of what is none."""
    try:
        ratio = ratio_of(node, [name], bound.of)
    except NoPolynomial:
        return None
    if [*ratio.below] != [(0,)]:
        return None
    ends = (_antiderivative(ratio.above, end) for end in (stop, start))
    whole = operators.operate("-", *ends) if ratio.above else exact(0)
    return operators.operate("/", whole, ratio.below[(0,)])


def _antiderivative(of: Polynomial, at: Value) -> Value:
    result: Value = exact(0)
    for place, ((power,), coefficient) in enumerate(of.items()):
        term = operators.operate("^", at, exact(power + 1))
        term = operators.operate("*", coefficient, term)
        term = operators.operate("/", term, exact(power + 1))
        result = term if not place else operators.operate("+", result, term)
    return result


def _sample(bound: Bound, node: Node, name: str, places: list[Value]) -> tuple[Value, Value]:
    """The value at a place where there is one, and the place."""
    failed: LineError | None = None
    for place in places:
        try:
            value = bound.of(node, {name: place})
        except LineError as error:
            failed = error
            continue
        if not isinstance(value, Undefined | Infinite):
            return value, place
    if failed is not None:
        raise failed
    return exact(0), places[0]
