"""Sums and products over an index: each term is worked out as it is, so that exact terms make an
exact answer."""

from __future__ import annotations

from functools import reduce

from teapot.engine.analysis.bound import PATTERNS, Bound
from teapot.engine.numbers import operators
from teapot.engine.numbers.values import Infinite, List, Value, exact
from teapot.engine.reading.tree import Range
from teapot.engine.sentences.analysis import ENDLESS_SUM, TOO_MANY_TERMS, WANTS_RANGE

MOST_TERMS = 20_000


def sum_over(bound: Bound) -> Value:
    """The sum of the terms."""
    terms = _terms(bound)
    return reduce(lambda a, b: operators.operate("+", a, b), terms) if terms else exact(0)


def product_over(bound: Bound) -> Value:
    """The product of the terms."""
    terms = _terms(bound)
    return reduce(lambda a, b: operators.operate("*", a, b), terms) if terms else exact(1)


def _terms(bound: Bound) -> list[Value]:
    """Errors: :data:`TOO_MANY_TERMS`, :data:`ENDLESS_SUM` for a range that does not end."""
    expression, name, where = bound.one()
    if isinstance(where, Range):
        ends = [bound.plain(end) for end in (where.start, where.stop)]
        if any(isinstance(end, Infinite) for end in ends):
            raise ENDLESS_SUM(where.span)
    places = bound.plain(where)
    if not isinstance(places, List):
        raise WANTS_RANGE(where.span, such=PATTERNS[bound.function])
    if len(places.items) > MOST_TERMS:
        raise TOO_MANY_TERMS(where.span, count=f"{len(places.items):,}", most=f"{MOST_TERMS:,}")
    return [bound.of(expression, {name: place}) for place in places.items]
