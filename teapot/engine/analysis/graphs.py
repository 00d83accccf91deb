"""The graph of expressions over a range, from enclosures: one for each narrow part, so that no
zero, pole or fold between two of them is missed; and the points of it that have a name."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from functools import partial
from itertools import combinations, pairwise
from math import inf, isfinite

from flint import arb, arb_series, fmpq

from teapot.engine.analysis.bound import PATTERNS, USUAL_INTERVAL, Bound, off_scale
from teapot.engine.analysis.cores import core_of_slopes, core_of_zeros, once
from teapot.engine.analysis.kinks import kinks_of, sharp_turns
from teapot.engine.analysis.measured import picked
from teapot.engine.analysis.reader import Reader, names_in
from teapot.engine.analysis.rings import REALS, SERIES, NotReal, Nowhere, Quotient, worked_out
from teapot.engine.analysis.solutions import exactly_there, outer, quietly
from teapot.engine.analysis.terms import Op, Term, Var
from teapot.engine.analysis.zeros import ASIDE, Search
from teapot.engine.errors import LineError
from teapot.engine.numbers import operators, sizes, tables, uncertain
from teapot.engine.numbers.comparison import compare
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.precision import precision, series_length
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Infinite,
    List,
    Measure,
    Number,
    Real,
    Sized,
    Table,
    Uncertain,
    Undefined,
    Value,
    bare_size,
    exact,
    is_fraction,
    is_nought,
    with_size,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import ListOf, Node
from teapot.engine.sentences.analysis import (
    DRAWN_AT_VALUES,
    NOT_DRAWN,
    TOO_MANY_CURVES,
    WANTS_BOUND,
    WANTS_ENDS,
)
from teapot.engine.sentences.values import UNEQUAL_LENGTHS

ONE = exact(1)

COLUMNS = 390
"""Parts of a range, each as wide as a point of the picture."""

JUMP_DEPTH = 32
"""Halvings of a column after which it is as tall as it was where there is a jump."""

DEPTH = 6
"""How often a part is halved, where the curve is steep in it."""

BITS = 64
MOST_CURVES = 6
MOST_NAMED = 24
"""Zeros, extrema and poles of one curve that get their names."""

MOST_PARTS, NARROWEST = 800, 24
"""How long it is looked for named points, and in how narrow parts."""

Column = tuple[float, float] | None
"""The least and the greatest value within a part; None where there is none, or a pole."""


EMPTY = (inf, -inf)
"""A part in which the term has no real value anywhere."""


@dataclass(frozen=True, slots=True)
class Named:
    """A point that has a name: a zero, a minimum, a maximum, a pole, or a crossing of curves."""

    kind: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Curve:
    """One expression as it was typed, its columns from left to right, and its named points."""

    typed: str
    columns: tuple[Column, ...]
    named: tuple[Named, ...]
    breaks: frozenset[int] = frozenset()


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
    crossings: tuple[Named, ...] = ()


@dataclass(frozen=True, slots=True)
class Graph(Table):
    """The named points as a table, with what is drawn; ``one`` is one of the unit along the axis
    across."""

    drawn: Drawn | None = None
    one: Value = ONE


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
        raise WANTS_ENDS(where.span, such=f"{name} = {USUAL_INTERVAL}")
    if operators.sign_of(operators.operate("-", high, low)) <= 0:
        raise NOT_DRAWN(where.span, why="its range has no length")
    like = start if isinstance(start, Measure | Angle) else stop
    expressions, lists = _apart(bound, name)
    if not (expressions or lists) or len(expressions) > MOST_CURVES:
        raise TOO_MANY_CURVES(most=MOST_CURVES)
    drawing = _Drawing(picked(bound, _at_its_value), name, like, low, high)
    curves = [drawing.curve(one) for one in expressions]
    crossings = drawing.crossings()
    drawing.hold_unit_of(lists)
    points = _points(lists, drawing)
    if not curves and not points:
        raise NOT_DRAWN(why="no point has two numbers")
    across = f"{name} [{drawing.across}]" if drawing.across else name
    drawn = Drawn(
        across,
        drawing.up,
        _float(low) / drawing.step,
        _float(high) / drawing.step,
        tuple(curve for curve, _ in curves),
        points,
        tuple(drawing.named(mark) for _, mark in crossings),
    )
    marks = [found for _, found in curves]
    return _table(name, expressions, marks, crossings, drawn, drawing.one)


def _at_its_value(value: Value) -> Value:
    """A measured value without its uncertainty, which a curve does not show."""
    if uncertain.has_measured(value):
        notice(DRAWN_AT_VALUES)
    return uncertain.moved(value, {})


def _apart(bound: Bound, name: str) -> tuple[list[Node], list[List]]:
    """The expressions in the name, and the lists of points that stand after them."""
    expressions: list[Node] = []
    lists: list[List] = []
    for one in bound.args:
        if name in names_in(one):
            expressions += one.items if isinstance(one, ListOf) else [one]
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
        self.terms: list[tuple[Node, Term]] = []

    @property
    def one(self) -> Value:
        """One of the unit along the axis across."""
        return sizes.measure_of(ONE, self.like.unit) if isinstance(self.like, Sized) else ONE

    def curve(self, node: Node) -> tuple[Curve, list[Mark]]:
        """A curve, and its named points."""
        value, sample = self._sample(node)
        self._hold_unit(value)
        reader = Reader(self.bound.of, {self.name: sample}, {self.name: Var(self.name)})
        term = reader.term(node)
        self.terms.append((node, term))
        marks = list(self._marks(node, term, value))
        named = tuple(map(self.named, marks))
        columns, breaks = self._columns(term)
        return Curve(node_text(node), columns, named, breaks), marks

    def named(self, mark: Mark) -> Named:
        """A point in the units of the axes."""
        kind, place, height = mark
        return Named(kind, _of(place, self.step), _of(height, self.up_step, self.up_zero))

    def crossings(self) -> list[tuple[str, Mark]]:
        """The points in which two curves meet, each with the equation that holds there."""
        found: list[tuple[str, Mark]] = []
        for (node, term), (other, second) in combinations(self.terms, 2):
            search = Search(Op("-", term, second), self.name)
            equation = f"{node_text(node)} = {node_text(other)}"
            for number, _ in self._places(search, partial(self._meet, node, other)):
                place = with_size(self.like, number)
                marks = self._at_height(term, "crossing", place, self.up_like or ONE)
                found += ((equation, mark) for mark in marks)
        return found

    def _meet(self, node: Node, other: Node, at: Number) -> bool:
        """Whether two curves are at the same height at an end of their range."""
        first, second = self._value(node, at), self._value(other, at)
        return first is not None and second is not None and compare("==", first, second) is True

    def _value(self, node: Node, at: Number) -> Value | None:
        """The value of an expression at a place; None where it has none."""
        try:
            return quietly(partial(self.bound.of, node, {self.name: with_size(self.like, at)}))
        except LineError:
            return None

    def _places(
        self, search: Search, holds: Callable[[Number], bool] = lambda _: False
    ) -> Iterator[tuple[Number, fmpq]]:
        """Where a search finds a zero, from left to right, each with a place just before it; an
        end of the range where it ``holds`` is one."""
        ends = [end for end in (self.low, self.high) if holds(end)]
        known = frozenset(one.coefficient for one in ends if is_fraction(one))
        low, high = outer(self.low, False), outer(self.high, True)
        zeros = search.between(low, high, known, most=MOST_PARTS, narrowest=NARROWEST)
        if zeros.flat:
            return
        yield from ((end, low) for end in ends if end is self.low)
        for a, b in _from_both_ends(zeros.found):
            if not any(_is_within(a, end, b) for end in ends):
                yield exactly_there(search, a, b, lambda _: False), a
        yield from ((end, low) for end in ends if end is self.high)

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
            operators.operate("+", off_scale(self.up_like), off_scale(value))

    def hold_unit_of(self, lists: Sequence[List]) -> None:
        """The axis up is that of the points where there is no curve."""
        heights = [one for up in lists[1::2] for one in up.items if not isinstance(one, Undefined)]
        if self.up_like is None and heights:
            first = heights[0]
            self._hold_unit(first.nominal if isinstance(first, Uncertain) else first)

    def _columns(self, term: Term) -> tuple[tuple[Column, ...], frozenset[int]]:
        """The columns of a curve, and those before which it jumps."""
        low, high = _float(self.low), _float(self.high)
        places = [low + (high - low) * at / COLUMNS for at in range(COLUMNS + 1)]
        with precision(BITS):
            rough = [self._enclosure(term, a, b) for a, b in pairwise(places)]
            thin = max(_tall(rough), 1e-300) / 250
            columns = [
                self._finer(term, a, b, one, thin)
                for (a, b), one in zip(pairwise(places), rough, strict=True)
            ]
            breaks = set()
            for at, (a, b) in enumerate(pairwise(places)):
                jump = (
                    self._jump(term, a, b, thin) if thin < _height_of(columns[at]) < inf else None
                )
                if jump is not None:
                    columns[at], side = jump
                    breaks.add(at if side > 0 else at + 1)
        return tuple(map(self._scaled, columns)), frozenset(breaks)

    def _jump(self, term: Term, a: float, b: float, thin: float) -> tuple[Column, int] | None:
        """The longer side of a column that is tall for a jump alone, −1 for the left one and 1 for
        the right one; None where it is tall for something else."""
        sides: dict[int, list[Column]] = {-1: [], 1: []}
        left, right = a, b
        for _ in range(JUMP_DEPTH):
            middle = left + (right - left) * float(ASIDE)
            both = self._enclosure(term, left, middle), self._enclosure(term, middle, right)
            heights = [_height_of(one) for one in both]
            if max(heights) <= thin or max(heights) < 2 * min(heights):
                return None
            if heights[0] < heights[1]:
                sides[-1].append(both[0])
                left = middle
            else:
                sides[1].append(both[1])
                right = middle
        side = -1 if left - a >= b - right else 1
        column = _joined(sides[side])
        return None if column is None else (column, side)

    def _scaled(self, column: Column) -> Column:
        if column is None:
            return None
        return tuple((end - self.up_zero) / self.up_step for end in column)  # type: ignore[return-value]

    def _finer(self, term: Term, a: float, b: float, rough: Column, thin: float) -> Column:
        """A column halved until it is as thin as a line; where it has no finite value at last,
        there is a gap."""
        parts: list[tuple[float, float, Column]] = [(a, b, rough)]
        for depth in range(DEPTH):
            tallest = [_height_of(one) for _, _, one in parts]
            if max(tallest) <= thin or (depth > 1 and min(tallest) == inf):
                break  # thin enough, or without a finite value wherever it was looked
            halves: list[tuple[float, float, Column]] = []
            for left, right, one in parts:
                if _height_of(one) <= thin:
                    halves.append((left, right, one))
                    continue
                middle = (left + right) / 2
                halves += [
                    (left, middle, self._close_enclosure(term, left, middle, thin)),
                    (middle, right, self._close_enclosure(term, middle, right, thin)),
                ]
            parts = halves
        if any(one is None for _, _, one in parts):
            return None
        return _joined(one for _, _, one in parts)

    def _close_enclosure(self, term: Term, a: float, b: float, thin: float) -> Column:
        """As narrow as the slope allows where the enclosure is not thin: a sum of many terms, each
        of which is wide, is a narrow one."""
        rough = self._enclosure(term, a, b)
        if rough is None or _height_of(rough) <= thin:
            return rough
        ball = arb(a).union(arb(b))
        here = self._enclosure(term, (a + b) / 2, (a + b) / 2)
        slope = _slope(term, self.name, ball)
        if here is None or here == EMPTY or slope is None:
            return rough
        reach = float((slope * (ball - ball.mid())).abs_upper())
        low, high = here[0] - reach, here[1] + reach
        return max(low, rough[0]), min(high, rough[1])

    def _enclosure(self, term: Term, a: float, b: float) -> Column:
        try:
            found = worked_out(term, REALS, {self.name: arb(a).union(arb(b))})
        except Nowhere:
            return EMPTY
        except (NotReal, ZeroDivisionError, ValueError):
            return None
        if not isinstance(found, arb) or not found.is_finite():
            return None
        low, high = float(found.lower()), float(found.upper())
        return (low, high) if isfinite(low) and isfinite(high) else None

    def _marks(self, node: Node, term: Term, value: Value) -> Iterator[Mark]:
        """The zeros, extrema and poles of a curve, each kind from left to right."""
        nought = with_size(value, exact(0))
        core, way = core_of_slopes(term)
        slopes = Slopes(core, self.name)
        of_zeros = Search(core_of_zeros(term), self.name)
        for number, _ in self._places(of_zeros, partial(self._is_nought, node)):
            if not self._is_both(term, number):
                yield "zero", with_size(self.like, number), nought
        for number, _ in self._places(Poles(once(term), self.name)):
            if not self._is_both(term, number):
                yield "pole", with_size(self.like, number), Infinite(1)
        extrema = [(number, -way * slopes.sign(before)) for number, before in self._places(slopes)]
        kinks = (at for one in kinks_of(term) for at, _ in self._places(Search(one, self.name)))
        extrema += sharp_turns(term, slopes, kinks, (self.low, self.high), way)
        for number, turn in sorted(extrema, key=lambda one: _float(one[0])):
            kind = {1: "minimum", -1: "maximum", 0: ""}[turn]
            yield from self._at_height(term, kind, with_size(self.like, number), value)

    def _is_nought(self, node: Node, at: Number) -> bool:
        """Whether a curve is exactly 0 at an end of its range."""
        value = self._value(node, at)
        return value is not None and is_nought(value)

    def _is_both(self, term: Term, at: Number) -> bool:
        """Whether what stands above and what stands below may both be 0, or there is no real value:
        then it is neither a zero nor a pole."""
        try:
            over = Search(term, self.name).enclosure(at.ball(BITS))
        except Nowhere:
            return True
        return over is None or bool(over.below.contains(0) and over.value.contains(0))

    def _at_height(self, term: Term, kind: str, place: Value, like: Value) -> Iterator[Mark]:
        number = bare_size(place)
        if not kind or not isinstance(number, Exact | Real):
            return
        with suppress(LineError, Nowhere, NotReal):
            height = Real(lambda ball: worked_out(term, REALS, {self.name: ball}), number)
            yield kind, place, with_size(like, height)


class Poles(Search):
    """The zeros of what stands below in a term."""

    def series(self, ball: arb, length: int) -> Quotient | None:
        found = super().series(ball, length)
        return None if found is None else Quotient(found.below, found.above)


class Slopes(Search):
    """The zeros of the derivative of a term."""

    def series(self, ball: arb, length: int) -> Quotient | None:
        found = super().series(ball, length + 1)
        if found is None:
            return None
        above, below = found.above, found.below
        if not isinstance(below, arb_series):
            return Quotient(above.derivative(), 1) if isinstance(above, arb_series) else None
        if not isinstance(above, arb_series):
            above = arb_series([above])  # a constant over what is none
        return Quotient(above.derivative() * below - above * below.derivative(), below * below)


def _slope(term: Term, name: str, ball: arb) -> arb | None:
    """The derivative all over a ball; None where it is not known to be finite."""
    try:
        with series_length(2):
            found = worked_out(term, SERIES, {name: arb_series([ball, 1])})
    except (Nowhere, NotReal, ZeroDivisionError, ValueError):
        return None
    slope = found[1] if isinstance(found, arb_series) else arb(0)
    return slope if slope.is_finite() else None


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


def _joined(columns: Iterable[Column]) -> Column:
    """What is between the lowest and the highest; None where there is nothing."""
    there = [one for one in columns if one is not None and one != EMPTY]
    return (min(low for low, _ in there), max(high for _, high in there)) if there else None


def _height_of(column: Column) -> float:
    """0 where there is nothing, and no end where it has no finite value."""
    return inf if column is None else max(column[1] - column[0], 0.0)


def _is_sane(column: tuple[float, float]) -> bool:
    return column[1] - column[0] < 1e300


def _from_both_ends(found: list[tuple[fmpq, fmpq]]) -> list[tuple[fmpq, fmpq]]:
    """Where there are too many to name all, as many on the left as on the right."""
    if len(found) <= MOST_NAMED:
        return found
    return [*found[: MOST_NAMED // 2], *found[-MOST_NAMED // 2 :]]


def _is_within(a: fmpq, number: Number, b: fmpq) -> bool:
    """Whether a number may lie in an interval."""
    ball = number.ball(BITS)
    return not (ball < arb(a) or ball > arb(b))


def _points(lists: Sequence[List], drawing: _Drawing) -> tuple[Point, ...]:
    """Pairs of lists as points, with bars where they are measured."""
    made: list[Point] = []
    for across, up in zip(lists[::2], lists[1::2], strict=True):
        if len(across.items) != len(up.items):
            raise UNEQUAL_LENGTHS(length=len(across.items), other=len(up.items))
        for x, y in zip(across.items, up.items, strict=True):
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
    name: str,
    expressions: Sequence[Node],
    marks: Sequence[list[Mark]],
    crossings: Sequence[tuple[str, Mark]],
    drawn: Drawn,
    one: Value,
) -> Graph:
    """The named points, a row each."""
    rows = [
        (node_text(node), *mark)
        for node, found in zip(expressions, marks, strict=True)
        for mark in sorted(found, key=lambda one: _of(one[1], 1.0))
    ]
    rows += [(equation, *mark) for equation, mark in crossings]
    several = len(expressions) > 1
    heads = (["of"] if several else []) + ["point", name, "value"]
    columns = [List(tuple(row[at] for row in rows)) for at in range(0 if several else 1, 4)]
    return Graph(tuple(map(tables.head_of, heads)), tuple(columns), (), drawn, one)
