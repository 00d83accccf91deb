"""The curve of a function, as points for a picture.

A picture needs no proved digits: each value is taken as the nearest float.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from operator import itemgetter

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.functions.record import Function
from teapot.engine.numbers import angles
from teapot.engine.numbers.context import Conventions, Work, working
from teapot.engine.numbers.values import Angle, Exact, Real, Value
from teapot.engine.parsing.parser import parse
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.tree import Call, Literal

POINTS = 160
"""Arguments at which a curve is taken: about two pixels of the picture each."""

FULL_ANGLE = {"rad": 2 * math.pi, "deg": 360.0, "gon": 400.0, "turn": 1.0}
USUAL_REACH = 5.0
"""Numbers on both sides of 0 that a curve shows, where its argument is there."""

WHOLE_REACH = 10
MOST_DOTS = 80
"""Whole arguments up to which the one at hand is shown among the dots."""

FARTHEST = 1e30
"""A place beyond this is not shown: a curve over such a reach says nothing."""

STEEPEST = 0.4
"""Part of the height that a curve may jump between two points; more is a gap."""

NARROW = 0.6
"""A curve over a smaller part of the reach than this is gone through once more, there."""

CLOSER, STEPS = 0.7, 14
"""Near a pole more points are taken, each by this factor closer to it, so many at most."""

OUTER = 0.06
"""Part of the values at either end that does not decide the height: near a pole they
would make the rest flat."""

Of = Callable[[Value], Value]
Point = tuple[float, float]
Samples = list[tuple[float, float | None]]
"""Arguments with their values, None where there is none."""


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Curve:
    """``pieces`` are lines of points without a gap, or single points where ``is_dots``.

    ``poles`` are where it leaves the picture on both sides.
    ``unit`` is that of the arguments where they are angles.  ``mark`` is the place of the
    argument at hand with its value, if it has one.
    """

    left: float
    right: float
    low: float
    high: float
    pieces: tuple[tuple[Point, ...], ...]
    is_dots: bool = False
    poles: tuple[float, ...] = ()
    unit: str = ""
    mark: Point | None = None


def number_of(value: Value | None, unit: str = "rad") -> float | None:
    """The float nearest to a real number or to an angle's number of units; None where
    there is none."""
    if isinstance(value, Angle):
        value = angles.count_of(value, unit)
    if not isinstance(value, Exact | Real):
        return None
    try:
        if isinstance(value, Exact) and value.is_rational:
            return int(value.coefficient.p) / int(value.coefficient.q)
        number = float(value.ball(64).mid())
    except OverflowError:
        return None  # beyond every float
    return number if math.isfinite(number) else None


def curve_of(
    function: Of,
    reach: float,
    mark: float | None = None,
    whole: bool = False,
    is_kept: bool = False,
) -> Curve:
    """The curve from −``reach`` to ``reach``; wider where the ``mark`` lies outside.

    It is cut down to where there are values.  They are kept for the next curve of the
    same function where it ``is_kept``.
    """
    if whole and mark is not None and abs(mark) > MOST_DOTS:
        mark = None
    if mark is not None and abs(mark) > FARTHEST:
        mark = None
    while mark is not None and abs(mark) > reach:
        reach *= 2
    framed = (_kept_framed if is_kept else Framed)(function, reach, whole)
    if not framed.known:
        return Curve(-reach, reach, -1, 1, ())
    low, high = framed.height
    value = None if mark is None else _at(function, mark)
    if value is not None:
        low, high = min(low, value), max(high, value)
    margin = (high - low) * 0.08 or 1.0
    low, high = low - margin, high + margin
    left, right = framed.known[0][0], framed.known[-1][0]
    spare = (right - left) * 0.04 or 1.0
    at_mark = None if mark is None or value is None else (mark, value)
    poles, pieces = framed.within(low, high)
    return Curve(left - spare, right + spare, low, high, pieces, whole, poles, mark=at_mark)


class Framed:
    """The values of a function over its reach, and what is drawn of them within a height:
    the last is kept, as most marks leave the height as it is."""

    def __init__(self, function: Of, reach: float, whole: bool) -> None:
        self.function = function
        self.whole = whole
        self.points = _points(function, reach, whole)
        self.known: list[Point] = [(x, y) for x, y in self.points if y is not None]
        self.height = _height([y for _, y in self.known]) if self.known else (-1.0, 1.0)
        self.last: tuple[float, float] | None = None
        self.drawn: tuple[tuple[float, ...], tuple[tuple[Point, ...], ...]] = ((), ())

    def within(
        self, low: float, high: float
    ) -> tuple[tuple[float, ...], tuple[tuple[Point, ...], ...]]:
        """The poles, and the pieces of the curve."""
        if self.last != (low, high):
            self.last, self.drawn = (low, high), self._drawn(low, high)
        return self.drawn

    def _drawn(
        self, low: float, high: float
    ) -> tuple[tuple[float, ...], tuple[tuple[Point, ...], ...]]:
        if self.whole:
            return (), tuple((point,) for point in self.known)
        poles = _poles(self.points, low, high)
        points = _up_to_poles(self.function, self.points, poles, low, high)
        return poles, _pieces(points, low, high)


_kept_framed = lru_cache(maxsize=256)(Framed)


def _points(function: Of, reach: float, whole: bool) -> Samples:
    """The function's values over the reach."""
    if whole:
        return [(float(n), _at(function, n)) for n in range(int(reach) + 1)]
    points = _sampled(function, -reach, reach)
    known = [x for x, y in points if y is not None]
    if known and known[-1] - known[0] < NARROW * reach:
        step = 2 * reach / POINTS
        nearby = _sampled(function, known[0] - step, known[-1] + step)
        points = sorted(dict([*points, *nearby]).items(), key=itemgetter(0))
    return points


def _sampled(function: Of, left: float, right: float) -> Samples:
    """Points of even distance."""
    steps = (left + (right - left) * at / POINTS for at in range(POINTS + 1))
    return [(x, _at(function, x)) for x in steps]


def _at(function: Of, x: float) -> float | None:
    try:
        return number_of(function(Exact(fmpq(*x.as_integer_ratio()))))
    except (LineError, OverflowError):
        return None


def _height(values: Sequence[float]) -> tuple[float, float]:
    ordered = sorted(values)
    outer = int(len(ordered) * OUTER)
    middle = ordered[outer : len(ordered) - outer] or ordered
    span = middle[-1] - middle[0]
    # the whole height, unless its ends are those of a pole
    low = ordered[0] if middle[0] - ordered[0] <= span else middle[0]
    high = ordered[-1] if ordered[-1] - middle[-1] <= span else middle[-1]
    return low, high


def _poles(points: Samples, low: float, high: float) -> tuple[float, ...]:
    """Where the values part to both sides: between two points outside of the picture,
    or at a single one without a value."""
    poles: list[float] = []
    triples = zip(points, points[1:], points[2:], strict=False)
    for (left, before), (at, value), (_, behind) in triples:
        if before is None:
            continue
        if value is None and behind is not None:
            if before * behind < 0 or _outside(before, behind, low, high):
                poles.append(at)
        elif value is not None and before * value < 0 and _outside(before, value, low, high):
            poles.append((left + at) / 2)
    return tuple(poles)


def _up_to_poles(
    function: Of, points: Samples, poles: Sequence[float], low: float, high: float
) -> Samples:
    """The points, and more between each pole and its neighbours, up to the edge of the
    picture."""
    more: Samples = []
    known = [(x, y) for x, y in points if y is not None]
    for pole in poles:
        sides = (max((p for p in known if p[0] < pole), default=None),
                 min((p for p in known if p[0] > pole), default=None))  # fmt: skip
        for x, before in filter(None, sides):
            for _ in range(STEPS):
                x = pole + CLOSER * (x - pole)
                y = _at(function, x)
                if y is None or y * before < 0 or not low <= before <= high:
                    break
                more.append((x, y))
                before = y
    return sorted([*points, *more], key=itemgetter(0))


def _outside(one: float, other: float, low: float, high: float) -> bool:
    return not (low <= one <= high or low <= other <= high)


def _jumps(before: float, y: float, low: float, high: float) -> bool:
    """Whether there is a gap between two values: not where the curve leaves the picture
    or comes back into it on one side."""
    leaves = before * y > 0 and not (low <= before <= high and low <= y <= high)
    return not leaves and abs(y - before) > STEEPEST * (high - low)


def _pieces(points: Samples, low: float, high: float) -> tuple[tuple[Point, ...], ...]:
    pieces: list[list[Point]] = [[]]
    before: float | None = None
    for x, y in points:
        if y is None or (before is not None and _jumps(before, y, low, high)):
            pieces.append([])
        if y is not None:
            pieces[-1].append((x, min(max(y, low - (high - low)), high + (high - low))))
        before = y
    return tuple(tuple(piece) for piece in pieces if piece)


# -- functions of the language -----------------------------------------------------------


def can_be_drawn(function: Function) -> bool:
    """Whether a function has a curve: it gives a number for a number."""
    takes_numbers = not function.lazy and not any(p.is_text for p in function.parameters[:1])
    no_curve = (
        "lists and statistics",
        "tables",
        "chance, dates and questions",
        "complex numbers",
        "measured values",
        "roots, integrals, derivatives",
        "matrices",
    )
    is_of_counts = any(p.domain.startswith("a whole") for p in function.parameters[1:])
    takes_numbers = takes_numbers and not (function.subject == "distributions" and is_of_counts)
    gives_number = not function.value.startswith(("true", "a list"))
    return bool(takes_numbers and function.parameters and gives_number) and (
        function.subject not in no_curve
    )


def varied(function: Function) -> int:
    """The place of the argument along which a function is drawn."""
    names = [parameter.name for parameter in function.parameters]
    return names.index("x") if "x" in names and function.name != "arctan" else 0


def curve_of_function(name: str, unit: str = "rad", mark: float | None = None) -> Curve | None:
    """The curve of a function of the language along one argument; None where it has
    none.  Its other arguments are those of its first example."""
    function = BY_NAME[name]
    if not can_be_drawn(function):
        return None
    along = varied(function)
    given = dict(enumerate(_arguments_of(name)))
    row = tuple(given.get(at) for at in range(len(function.parameters)))
    is_angle = Angle in function.accepts and "angle" in function.parameters[along].text
    reach = FULL_ANGLE[unit] if is_angle else USUAL_REACH
    whole = "whole" in function.parameters[along].domain
    of = kept_with_others(function.compute, row, along, Conventions(angle=unit, numbers="real"))
    made = curve_of(of, WHOLE_REACH if whole else reach, mark, whole, is_kept=True)
    return replace(made, unit=unit if is_angle else "")


def with_others(
    compute: Callable[..., Value],
    row: tuple[Value | None, ...],
    place: int,
    conventions: Conventions,
) -> Of:
    """``compute`` as a function of the argument at ``place`` alone, the others as in
    ``row``."""

    def of(x: Value) -> Value:
        with working(Work(conventions)):
            return compute(*row[:place], x, *row[place + 1 :])

    return of


kept_with_others = lru_cache(maxsize=256)(with_others)
"""The same, which gives the same function for the same row."""


@lru_cache(maxsize=256)
def _arguments_of(name: str) -> list[Value | None]:
    """The arguments of a function's first example; what is no plain number is left out."""
    expression = parse(BY_NAME[name].examples[0].input).statements[0].expression
    arguments = expression.args if isinstance(expression, Call) else ()
    return [Exact(part.value) if isinstance(part, Literal) else None for part in arguments]
