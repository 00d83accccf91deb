"""Which of two numbers is larger, decided as soon as their intervals part."""

from __future__ import annotations

import operator
from collections.abc import Callable, Sequence
from functools import cmp_to_key
from operator import attrgetter
from typing import cast

from flint import arb, fmpq

from teapot.engine.limits import FIRST_BITS, LAST_BITS
from teapot.engine.numbers import measures, sizes, uncertain
from teapot.engine.numbers.arithmetic import subtract
from teapot.engine.numbers.arrays import kinds_of, scaled, taken
from teapot.engine.numbers.common_denominator import CommonDenominatorArray
from teapot.engine.numbers.complexes import parts
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    REALS,
    Bounds,
    Complex,
    Date,
    Exact,
    Extended,
    Finite,
    Infinite,
    InterpolatedText,
    List,
    Measure,
    Number,
    Real,
    Scalar,
    Sized,
    Table,
    Uncertain,
    Undefined,
    Value,
    kind_in_words,
    real,
)
from teapot.engine.sentences.values import NO_ORDER
from teapot.engine.sentences.warnings import PERCENT_BESIDE_NUMBER, STANDARD_UNCERTAINTIES_APART
from teapot.engine.units.table import PERCENT
from teapot.engine.units.unit import daltons

HOLDS: dict[str, Callable[[int], bool]] = {
    "==": lambda sign: sign == 0,
    "!=": lambda sign: sign != 0,
    "<": lambda sign: sign < 0,
    "<=": lambda sign: sign <= 0,
    ">": lambda sign: sign > 0,
    ">=": lambda sign: sign >= 0,
}
"""What each sign says of the sign of the difference."""


NOT_TOLD_APART = Undefined(
    f"Even with {LAST_BITS:,} binary digits the two sides cannot be told apart, so this is "
    "not decided."
)


def compare(op: str, a: Value, b: Value) -> bool | Undefined:
    """Whether ``a op b`` holds; undefined where it cannot be decided.  What is undefined
    is unequal to everything.

    Errors: :class:`LineError` where values that have no order are put in order.

    >>> compare("<", exact(1), exact(1, 1))
    True
    """
    if isinstance(a, Date) and isinstance(b, Date):
        return HOLDS[op]((a.moment > b.moment) - (a.moment < b.moment))
    a, b = _with_dalton(a, b)
    if isinstance(a, Uncertain) or isinstance(b, Uncertain):
        told = _told_apart(op, a, b)
        if told is not None:
            return told
    a, b = _nominal(a), _nominal(b)
    if isinstance(a, Sized) or isinstance(b, Sized):
        if isinstance(a, Undefined) or isinstance(b, Undefined):
            return op == "!="
        if _are_scalars(a, b):
            _note_percent(a, b)
            a, b = measures.sides(cast(Scalar, a), cast(Scalar, b))
    if not (_is_ordered(a) and _is_ordered(b)):
        return _compare_unordered(op, a, b)
    if isinstance(a, Undefined) or isinstance(b, Undefined):
        return op == "!="
    if isinstance(a, Infinite) or isinstance(b, Infinite):
        return HOLDS[op](_reach(cast(Extended, a)) - _reach(cast(Extended, b)))
    apart = _apart(real(a), real(b))
    if apart:
        return HOLDS[op](apart)
    difference = subtract(real(a), real(b))
    sign = difference.sign()
    if sign is not None or isinstance(difference, Exact):
        return HOLDS[op](sign or 0)
    return _by_bounds(op, difference.bounds)


def _note_percent(a: Value, b: Value) -> None:
    """Says that ``q > 3`` compares with 300 %, where q is in percent."""
    for one, other in ((a, b), (b, a)):
        is_percent = isinstance(one, Measure) and one.unit.alone is PERCENT
        if is_percent and isinstance(other, Exact | Real) and bool(abs(other.ball(FIRST_BITS)) > 1):
            notice(PERCENT_BESIDE_NUMBER)


def _nominal(value: Value) -> Value:
    return value.nominal if isinstance(value, Uncertain) else value


def _with_dalton(a: Value, b: Value) -> tuple[Value, Value]:
    """Two values, in kilograms where only one is in daltons."""
    one, other = (
        daltons(side.unit) if isinstance(side, Measure) else fmpq(0)
        for side in map(_nominal, (a, b))
    )
    return (a, b) if one == other else (uncertain.with_dalton(a, one - other), b)


SURE = 2
"""Standard uncertainties from which on two measured values are told apart."""


def _told_apart(op: str, a: Value, b: Value) -> bool | Undefined | None:
    """What a comparison of measured values gives: how many standard uncertainties lie between
    them is said, and up to two of them do not decide it.  None where none is left between them,
    or the two cannot be compared."""
    if not _are_scalars(_nominal(a), _nominal(b)):
        return None
    left = uncertain.combined(_nominal(a), ((a, fmpq(1)), (b, fmpq(-1))))
    if not isinstance(left, Uncertain):
        return None
    one, other = _nominal(a), _nominal(b)
    if isinstance(one, Sized) or isinstance(other, Sized):
        one, other = measures.sides(cast(Scalar, one), cast(Scalar, other))
    if not all(isinstance(side, Exact | Real) for side in (one, other)):
        return None
    size = uncertain.rational(real(subtract(real(one), real(other))))
    squared = size * size / uncertain.variance(left)
    with precision(FIRST_BITS):
        shown = f"{float(arb(squared).sqrt().mid()):.2g}"
    if squared <= SURE * SURE:
        return Undefined(
            f"They lie {shown} standard uncertainties apart: that does not tell them apart."
        )
    notice(STANDARD_UNCERTAINTIES_APART, count=shown)
    return HOLDS[op](1 if size > 0 else -1)


def _are_scalars(*values: Value) -> bool:
    return all(isinstance(value, Exact | Real | Infinite | Sized | Complex) for value in values)


def _apart(a: Number, b: Number) -> int:
    """Which of two numbers is larger, where a first look at their intervals shows it; 0
    where it does not."""
    one, other = a.ball(FIRST_BITS), b.ball(FIRST_BITS)
    return (one > other) - (one < other)


LONG = 1000
"""Items from which on a list is compared at once."""

SIGNS: dict[str, Callable[[int, int], bool]] = {
    "==": operator.eq, "!=": operator.ne, "<": operator.lt, "<=": operator.le,
    ">": operator.gt, ">=": operator.ge,
}  # fmt: skip


def compare_items(op: str, items: Sequence[Value], other: Value) -> list[bool] | None:
    """Whether ``item op other`` holds for each item of a long list; None where they are not
    all rational numbers, or texts, and have to be compared one by one.

    >>> compare_items("<", (exact(1), exact(3)) * 500, exact(2))[:2]
    [True, False]
    """
    if len(items) < LONG or op not in SIGNS:
        return None
    if isinstance(other, str):
        are_texts = op in ("==", "!=") and kinds_of(items) <= {str, InterpolatedText}
        return [(one == other) == (op == "==") for one in items] if are_texts else None
    if isinstance(items, MeasureArray):
        unit = items.unit
        if not isinstance(other, Measure) or other.unit.dimension != unit.dimension:
            return None
        items, other = items.numbers, sizes.count_of(other, unit)
    if not isinstance(other, Exact) or not other.is_rational:
        return None
    found = items if isinstance(items, CommonDenominatorArray) else scaled(items)
    if found is None:
        return None
    above, below = found.above, found.below
    factor, bound = int(other.coefficient.q), int(other.coefficient.p) * below
    holds = SIGNS[op]
    truths = [holds(one * factor, bound) for one in above]
    for gap in found.gaps:  # what is missing is unequal to everything
        truths[gap] = op == "!="
    return truths


def _by_bounds(op: str, bounds: Bounds | None) -> bool | Undefined:
    """What is known though the difference cannot be told from 0: sin(x) ≤ 1."""
    if bounds is not None and bounds.high == 0 and op in ("<=", ">"):
        return op == "<="
    if bounds is not None and bounds.low == 0 and op in (">=", "<"):
        return op == ">="
    return NOT_TOLD_APART


def order_of(a: Value, b: Value) -> int:
    """−1 where ``a`` is the smaller, 1 where it is the larger, 0 where they are equal or
    cannot be told apart.  Errors: as :func:`compare`.

    >>> order_of(exact(2), exact(1))
    1
    """
    if type(a) in REALS and type(b) in REALS:
        return _apart(real(a), real(b)) or subtract(real(a), real(b)).sign() or 0
    a, b = _nominal(a), _nominal(b)
    if compare("<", a, b) is True:
        return -1
    return 1 if compare(">", a, b) is True else 0


def in_order(values: Sequence[Value]) -> Sequence[Value]:
    """The values, smallest first; those that are equal or cannot be told apart in the
    order in which they came.  Errors: as :func:`compare`.

    Real numbers are put in order by the middles of their intervals, and only those whose
    intervals overlap are compared further.

    >>> [one.coefficient for one in in_order([exact(3), exact(1), exact(2)])]
    [1, 2, 3]
    """
    found = scaled(values)
    if found is None and not kinds_of(values) <= REALS:
        return sorted(values, key=cmp_to_key(order_of))
    if found is not None:
        keys = found.above
        return taken(values, sorted(range(len(keys)), key=keys.__getitem__))
    if all(isinstance(value, Exact) and value.is_rational for value in values):
        return sorted(values, key=attrgetter("coefficient"))
    balls = [(real(value).ball(FIRST_BITS), at) for at, value in enumerate(values)]
    balls.sort(key=lambda pair: pair[0].mid())
    with precision(FIRST_BITS):
        ends = [(ball.lower(), ball.upper()) for ball, _ in balls]
    ordered: list[Value] = []
    at = 0
    while at < len(balls):
        # the middles are in order; a run of intervals that touch is compared one by one
        end, reach = at + 1, ends[at][1]
        while end < len(balls) and not ends[end][0] > reach:
            reach = max(reach, ends[end][1])
            end += 1
        run = [values[place] for place in sorted(place for _, place in balls[at:end])]
        ordered += sorted(run, key=cmp_to_key(order_of)) if len(run) > 1 else run
        at = end
    return ordered


def can_be_told_apart(a: Value, b: Value) -> bool:
    """Whether two values differ, their reals as far as the first precision shows.

    >>> can_be_told_apart(exact(1), exact(2))
    True
    """
    match a, b:
        case Exact(), Exact():
            return a != b
        case Exact() | Real(), Exact() | Real():
            return not a.ball(FIRST_BITS).overlaps(b.ball(FIRST_BITS))
        case Sized(), Sized():
            return a.unit != b.unit or can_be_told_apart(a.size, b.size)
        case Uncertain(), Uncertain():
            same = all(
                [*one.values()] == [*other.values()]
                for one, other in ((a.parts, b.parts), (a.bends, b.bends))
            )
            return not same or can_be_told_apart(a.nominal, b.nominal)
        case Complex(), Complex():
            return can_be_told_apart(a.re, b.re) or can_be_told_apart(a.im, b.im)
        case List(), List():
            if len(a.items) != len(b.items):
                return True
            return any(map(can_be_told_apart, a.items, b.items))
        case Table(), Table():
            return a.heads != b.heads or any(map(can_be_told_apart, a.columns, b.columns))
    return a != b


def _is_ordered(value: Value) -> bool:
    return isinstance(value, Exact | Real | Infinite | Undefined)


def _compare_unordered(op: str, a: Value, b: Value) -> bool | Undefined:
    """Only whether the two are the same."""
    if op not in ("==", "!="):
        kind = kind_in_words(b if _is_ordered(a) else a)
        raise NO_ORDER(op=op, kind=kind)
    equal: bool | Undefined
    if isinstance(a, Complex) or isinstance(b, Complex):
        equal = _are_equal_parts(a, b)
        if isinstance(equal, Undefined):
            return equal
    else:
        are_alike = type(a) is type(b) or (isinstance(a, str) and isinstance(b, str))
        equal = are_alike and a == b
    return equal if op == "==" else not equal


def _are_equal_parts(a: Value, b: Value) -> bool | Undefined:
    if not (isinstance(a, Finite) and isinstance(b, Finite)):
        return False
    (a_re, a_im), (b_re, b_im) = parts(a), parts(b)
    return all_of(compare("==", a_re, b_re), compare("==", a_im, b_im))


def all_of(*truths: bool | Undefined) -> bool | Undefined:
    """Whether all hold: one that does not decides, whatever the others are.

    >>> all_of(True, False)
    False
    """
    if any(truth is False for truth in truths):
        return False
    return next((truth for truth in truths if isinstance(truth, Undefined)), True)


def any_of(*truths: bool | Undefined) -> bool | Undefined:
    """Whether one holds: one that does decides, whatever the others are.

    >>> any_of(True, False)
    True
    """
    if any(truth is True for truth in truths):
        return True
    return next((truth for truth in truths if isinstance(truth, Undefined)), False)


def _reach(a: Extended) -> int:
    return a.sign if isinstance(a, Infinite) else 0
