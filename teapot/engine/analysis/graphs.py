"""The graph of expressions over a range, from enclosures: one for each narrow part, so that no
zero, pole or fold between two of them is missed; and the points of it that have a name."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from functools import partial
from itertools import pairwise
from math import inf

from flint import arb, arb_series, fmpq

from teapot.engine.analysis.bound import PATTERNS, Bound
from teapot.engine.analysis.measured import picked
from teapot.engine.analysis.rings import REALS, NotReal, Nowhere, Quotient, worked_out
from teapot.engine.analysis.solutions import exactly_there, outer, quietly
from teapot.engine.analysis.terms import Applied, Const, Op, Power, Reader, Term, Var, names_in
from teapot.engine.analysis.zeros import Search
from teapot.engine.errors import LineError
from teapot.engine.numbers import operators, sizes, tables, uncertain
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Infinite,
    List,
    Measure,
    Number,
    Real,
    Table,
    Uncertain,
    Undefined,
    Value,
    bare_size,
    exact,
    with_size,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Node
from teapot.engine.sentences.analysis import (
    DRAWN_AT_VALUES,
    NOT_DRAWN,
    TOO_MANY_CURVES,
    WANTS_BOUND,
    WANTS_INTERVAL,
)

COLUMNS = 390
"""Parts of a range, each as wide as a point of the picture."""

DEPTH = 6
"""How often a part is halved, where the curve is steep in it."""

BITS = 64
MOST_CURVES = 6
MOST_NAMED = 24
"""Zeros, extrema and poles of one curve that get their names."""

MOST_PARTS, NARROWEST = 2500, 24
"""How long it is looked for named points, and in how narrow parts."""

Column = tuple[float, float] | None
"""The least and the greatest value within a part; None where there is none, or a pole."""


EMPTY = (inf, -inf)
"""A part in which the term has no real value anywhere."""


@dataclass(frozen=True, slots=True)
class Named:
    """A point that has a name: a zero, a minimum, a maximum or a pole."""

    kind: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Curve:
    """One expression as it was typed, its columns from left to right, and its named points."""

    typed: str
    columns: tuple[Column, ...]
    named: tuple[Named, ...]


@dataclass(frozen=True, slots=True)
class Point:
    """A measured point, with half the height of its bar."""

    x: float
    y: float
    bar: float = 0.0


@dataclass(frozen=True, slots=True)
class Drawn:
    """Curves and points between two ends, in the units that the axes name."""

    across: str
    up: str
    left: float
    right: float
    curves: tuple[Curve, ...]
    points: tuple[Point, ...]


@dataclass(frozen=True, slots=True)
class Graph(Table):
    """The named points as a table, with what is drawn."""

    drawn: Drawn | None = None


def graph(bound: Bound) -> Value:
    """The named points of expressions over a range, with their graph.

    Errors: sentences where nothing can be drawn.
    """
    if len(bound.named) != 1:
        raise WANTS_BOUND(such=PATTERNS["graph"])
    [(name, where)] = bound.named
    start, stop = bound.ends(where)
    low, high = bare_size(start), bare_size(stop)
    if not isinstance(low, Exact | Real) or not isinstance(high, Exact | Real):
        raise WANTS_INTERVAL(where.span, such=f"{name} = 0..10")
    if operators.sign_of(operators.operate("-", high, low)) <= 0:
        raise NOT_DRAWN(where.span, why="its range has no length")
    like = start if isinstance(start, Measure | Angle) else stop
    expressions, lists = _apart(bound, name)
    if not expressions or len(expressions) > MOST_CURVES:
        raise TOO_MANY_CURVES(most=MOST_CURVES)
    drawing = _Drawing(picked(bound, _at_its_value), name, like, low, high)
    curves = [drawing.curve(one) for one in expressions]
    points = _points(lists, drawing)
    across = f"{name} [{drawing.across}]" if drawing.across else name
    drawn = Drawn(
        across,
        drawing.up,
        _float(low) / drawing.step,
        _float(high) / drawing.step,
        tuple(curve for curve, _ in curves),
        points,
    )
    return _table(name, expressions, [named for _, named in curves], drawn)


def _at_its_value(value: Value) -> Value:
    """A measured value without its uncertainty, which a curve does not show."""
    if any(True for _ in uncertain.measured_in(value)):
        notice(DRAWN_AT_VALUES)
    return uncertain.moved(value, {})


def _apart(bound: Bound, name: str) -> tuple[list[Node], list[List]]:
    """The expressions in the name, and the lists of points that stand after them."""
    expressions, lists = [], []
    for one in bound.args:
        if name in names_in(one):
            expressions.append(one)
            continue
        value = bound.of(one, {})
        if isinstance(value, List):
            lists.append(value)
        else:
            expressions.append(one)
    if len(lists) % 2:
        raise NOT_DRAWN(why="points need two lists, one across and one up")
    return expressions, lists


Mark = tuple[str, Value, Value]
"""The kind of a named point, its place and its value."""


class _Drawing:
    """A range in which curves are drawn."""

    def __init__(self, bound: Bound, name: str, like: Value, low: Number, high: Number) -> None:
        self.bound = bound
        self.name = name
        self.like = like
        self.low = low
        self.high = high
        self.across, self.step = _unit(like)
        self.up = ""
        self.up_step = 1.0
        self.up_zero = 0.0
        self.up_like: Value | None = None

    def curve(self, node: Node) -> tuple[Curve, list[Mark]]:
        """A curve, and its named points."""
        value, sample = self._sample(node)
        self._hold_unit(value)
        reader = Reader(self.bound.of, {self.name: sample}, {self.name: Var(self.name)})
        term = reader.term(node)
        marks = list(self._marks(node, term, value))
        named = tuple(
            Named(kind, _of(place, self.step), _of(height, self.up_step, self.up_zero))
            for kind, place, height in marks
        )
        return Curve(node_text(node), self._columns(term), named), marks

    def _sample(self, node: Node) -> tuple[Value, Value]:
        """A value of the expression where it has one, and the place."""
        failed: LineError | None = None
        span = operators.operate("-", self.high, self.low)
        for part in (fmpq(382, 1000), fmpq(1, 2), fmpq(91, 100), fmpq(7, 100)):
            step = operators.operate("*", span, exact(part))
            place = with_size(self.like, operators.operate("+", self.low, step))
            try:
                value = quietly(partial(self.bound.of, node, {self.name: place}))
            except LineError as error:
                failed = error
                continue
            if isinstance(bare_size(value), Exact | Real):
                return value, place
        if failed is not None:
            raise failed
        raise NOT_DRAWN(node.span, why=f"{node_text(node)} has no real value in this range")

    def _hold_unit(self, value: Value) -> None:
        """All curves are of one kind, which the axis up names."""
        if self.up_like is None:
            self.up_like = value
            self.up, self.up_step = _unit(value)
            self.up_zero = _zero(value)
        elif isinstance(value, Measure) or isinstance(self.up_like, Measure):
            operators.operate("+", self.up_like, value)

    def _columns(self, term: Term) -> tuple[Column, ...]:
        low, high = _float(self.low), _float(self.high)
        places = [low + (high - low) * at / COLUMNS for at in range(COLUMNS + 1)]
        with precision(BITS):
            rough = [self._enclosure(term, a, b) for a, b in pairwise(places)]
            thin = max(_tall(rough), 1e-300) / 250
            return tuple(
                self._scaled(self._finer(term, a, b, one, thin))
                for (a, b), one in zip(pairwise(places), rough, strict=True)
            )

    def _scaled(self, column: Column) -> Column:
        if column is None:
            return None
        return tuple((end - self.up_zero) / self.up_step for end in column)  # type: ignore[return-value]

    def _finer(self, term: Term, a: float, b: float, rough: Column, thin: float) -> Column:
        """A column halved until it is as thin as a line; where it has no finite value at last,
        there is a gap."""
        parts: list[tuple[float, float, Column]] = [(a, b, rough)]
        for _ in range(DEPTH):
            if all(one is not None and one[1] - one[0] <= thin for _, _, one in parts):
                break
            halves: list[tuple[float, float, Column]] = []
            for left, right, one in parts:
                if one is not None and one[1] - one[0] <= thin:
                    halves.append((left, right, one))
                    continue
                middle = (left + right) / 2
                halves += [
                    (left, middle, self._enclosure(term, left, middle)),
                    (middle, right, self._enclosure(term, middle, right)),
                ]
            parts = halves
        if any(one is None for _, _, one in parts):
            return None
        there = [one for _, _, one in parts if one is not None and one != EMPTY]
        if not there:
            return None
        return min(low for low, _ in there), max(high for _, high in there)

    def _enclosure(self, term: Term, a: float, b: float) -> Column:
        try:
            found = worked_out(term, REALS, {self.name: arb(a).union(arb(b))})
        except Nowhere:
            return EMPTY
        except (NotReal, ZeroDivisionError, ValueError):
            return None
        if not isinstance(found, arb) or not found.is_finite():
            return None
        return float(found.lower()), float(found.upper())

    def _marks(self, node: Node, term: Term, value: Value) -> Iterator[Mark]:
        """The zeros, extrema and poles of a curve, each kind from left to right."""
        low, high = (outer(one, up) for one, up in ((self.low, False), (self.high, True)))
        nought = with_size(value, exact(0))
        core, way = core_of_slopes(term)
        slopes = Slopes(core, self.name)
        searches = (
            ("zero", Search(core_of_zeros(term), self.name)),
            ("pole", Poles(once(term), self.name)),
            ("", slopes),
        )
        for kind, search in searches:
            zeros = search.between(low, high, most=MOST_PARTS, narrowest=NARROWEST)
            if zeros.everywhere:
                continue
            for a, b in zeros.found[:MOST_NAMED]:
                if kind and self._is_both(term, search, a, b):
                    continue
                number = exactly_there(search, a, b, lambda _: False)
                place = with_size(self.like, number)
                if kind == "zero":
                    yield kind, place, nought
                elif kind == "pole":
                    yield kind, place, Infinite(1)
                else:
                    kind_of = {1: "minimum", -1: "maximum", 0: ""}[-way * slopes.sign(a)]
                    yield from self._extremum(term, kind_of, place, value)

    def _is_both(self, term: Term, search: Search, a: fmpq, b: fmpq) -> bool:
        """Whether what stands above and what stands below may both be 0: then it is neither a
        zero nor a pole."""
        over = Search(term, self.name).enclosure(search.number(a, b).ball(BITS))
        return over is None or bool(over.below.contains(0) and over.value.contains(0))

    def _extremum(self, term: Term, kind: str, place: Value, like: Value) -> Iterator[Mark]:
        number = bare_size(place)
        if not kind or not isinstance(number, Exact | Real):
            return
        with suppress(LineError, Nowhere, NotReal):
            height = Real(lambda ball: worked_out(term, REALS, {self.name: ball}), number)
            yield kind, place, with_size(like, height)


def core_of_zeros(term: Term) -> Term:
    """What of a term is 0 where the term is: without factors that never are."""
    if _is_never_nought(term):
        return Const(exact(1))
    match term:
        case Op(op="*", a=a, b=b):
            if _is_never_nought(a):
                return core_of_zeros(b)
            if _is_never_nought(b):
                return core_of_zeros(a)
        case Op(op="/", a=a, b=b) if _is_never_nought(b):
            return core_of_zeros(a)
        case Power(base=base, exponent=exponent) if exponent > 0:
            return core_of_zeros(base)
    return term


def _is_never_nought(term: Term) -> bool:
    if isinstance(term, Applied):
        return term.function in ("exp", "cosh")
    return (
        isinstance(term, Const) and isinstance(term.value, Exact) and bool(term.value.coefficient)
    )


def once(term: Term) -> Term:
    """A term whose poles are all of the first order, where those of another were."""
    match term:
        case Power(base=base, exponent=exponent) if exponent < 0 and exponent.q == 1:
            return Power(once(base), fmpq(-1))
        case Op(op="/", a=a, b=Power(base=base, exponent=exponent)) if (
            exponent > 0 and exponent.q == 1
        ):
            return Op("/", once(a), base)
        case Op(op=op, a=a, b=b):
            return Op(op, once(a), once(b))
    return term


RISING = frozenset({"exp", "ln", "sinh", "arctan", "arsinh", "erf", "arcsin", "artanh"})


def core_of_slopes(term: Term) -> tuple[Term, int]:
    """What of a term has its extrema where the term has, without functions that only rise; and −1
    where its maxima are the minima of that."""
    match term:
        case Applied(function=name, args=(inner,)) if name in RISING:
            return core_of_slopes(inner)
        case Op(op="+", a=Const(), b=inner) | Op(op="+" | "-", a=inner, b=Const()):
            return core_of_slopes(inner)
        case Op(op="-", a=Const(), b=inner):
            core, sign = core_of_slopes(inner)
            return core, -sign
        case (
            Op(op="*" | "/", a=inner, b=Const(value=Exact() as value))
            | Op(op="*", a=Const(value=Exact() as value), b=inner)
        ) if value.coefficient:
            core, sign = core_of_slopes(inner)
            return core, sign if value.coefficient > 0 else -sign
    return term, 1


class Poles(Search):
    """The zeros of what stands below in a term."""

    def series(self, ball: arb, length: int) -> Quotient | None:
        found = super().series(ball, length)
        return None if found is None else Quotient(found.below, found.above)


class Slopes(Search):
    """The zeros of the derivative of a term."""

    def series(self, ball: arb, length: int) -> Quotient | None:
        found = super().series(ball, length + 1)
        if found is None or not isinstance(found.above, arb_series):
            return None
        if not isinstance(found.below, arb_series):
            return Quotient(found.above.derivative(), 1)
        above, below = found.above, found.below
        return Quotient(above.derivative() * below - above * below.derivative(), below * below)


def _unit(value: Value) -> tuple[str, float]:
    """The unit that an axis names, and how large it is in coherent ones."""
    if not isinstance(value, Measure | Angle):
        return "", 1.0
    return value.unit.text, _float(sizes.factor_of(value.unit))


def _zero(value: Value) -> float:
    """Where a scale of temperature begins, in kelvin."""
    if isinstance(value, Measure) and value.unit.zero is not None:
        return _float(exact(value.unit.zero))
    return 0.0


def _of(value: Value, step: float, zero: float = 0.0) -> float:
    size = bare_size(value)
    if isinstance(size, Infinite):
        return float("inf") * size.sign
    return (_float(size) - zero) / step if isinstance(size, Exact | Real) else float("nan")


def _float(number: Number) -> float:
    return float(number.ball(BITS).mid())


def _tall(columns: Sequence[Column]) -> float:
    """About how high a curve is drawn: all of it, or most of one that has gaps."""
    heights = sorted(
        (one[0] + one[1]) / 2
        for one in columns
        if one is not None and one != EMPTY and _is_sane(one)
    )
    cut = len(heights) // 20 if None in columns else 0
    return heights[-1 - cut] - heights[cut] if heights else 1.0


def _is_sane(column: tuple[float, float]) -> bool:
    return column[1] - column[0] < 1e300


def _points(lists: Sequence[List], drawing: _Drawing) -> tuple[Point, ...]:
    """Pairs of lists as points, with bars where they are measured."""
    made: list[Point] = []
    for across, up in zip(lists[::2], lists[1::2], strict=True):
        for x, y in zip(across.items, up.items, strict=False):
            if isinstance(x, Undefined) or isinstance(y, Undefined):
                continue
            place = x.nominal if isinstance(x, Uncertain) else x
            height, bar = (y.nominal, _bar(y)) if isinstance(y, Uncertain) else (y, 0.0)
            made.append(
                Point(
                    _of(place, drawing.step),
                    _of(height, drawing.up_step, drawing.up_zero),
                    bar / drawing.up_step,
                )
            )
    return tuple(made)


def _bar(value: Uncertain) -> float:
    variance = uncertain.variance(value)
    return float((int(variance.p) / int(variance.q)) ** 0.5)


def _table(
    name: str, expressions: Sequence[Node], marks: Sequence[list[Mark]], drawn: Drawn
) -> Graph:
    """The named points, a row each."""
    rows = [
        (node_text(node), *mark)
        for node, found in zip(expressions, marks, strict=True)
        for mark in sorted(found, key=lambda one: _of(one[1], 1.0))
    ]
    several = len(expressions) > 1
    heads = (["of"] if several else []) + ["point", name, "value"]
    columns = [List(tuple(row[at] for row in rows)) for at in range(0 if several else 1, 4)]
    return Graph(tuple(map(tables.head_of, heads)), tuple(columns), (), drawn)
