"""Statistics of a list beyond mean and deviation, and of two lists of pairs.

quantile, quartiles   the value below which a given part of the items lies
mode, range           the commonest items; the distance from the least to the greatest
correlation           how closely two lists follow a straight line
slope, intercept      the straight line of least squares
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import cast

from flint import fmpq

from teapot.engine.functions.helpers import outside, whole
from teapot.engine.functions.lists import ITEMS, SUBJECT, items_of, present, sort
from teapot.engine.functions.parts import largest, smallest
from teapot.engine.functions.powers import square_root
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import operators, uncertain
from teapot.engine.numbers.arithmetic import divide, is_zero, multiply
from teapot.engine.numbers.arrays import kinds_of
from teapot.engine.numbers.bulk_sums import mean_of, products_from_means, squares_from_mean
from teapot.engine.numbers.comparison import compare
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.measure_array import MeasureArray, counted, in_numbers
from teapot.engine.numbers.sizes import measure_of
from teapot.engine.numbers.values import (
    REALS,
    Exact,
    List,
    Measure,
    Number,
    Uncertain,
    Undefined,
    Value,
    exact,
    is_missing,
    real,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.values import UNEQUAL_LENGTHS
from teapot.engine.sentences.warnings import PAIRS_LEFT_OUT

X = Parameter("x", "a list of numbers", "a list")
Y = Parameter("y", "another list, as long", "a list")
DEFINITION = Parameter(
    "definition", "which of the nine of Hyndman and Fan, 7 if left out", "1 to 9", optional=True
)
NINE = 'R. J. Hyndman and Y. Fan, "Sample quantiles in statistical packages", 1996'

SHARES: dict[int, tuple[fmpq, fmpq]] = {
    4: (fmpq(0), fmpq(1)),
    5: (fmpq(1, 2), fmpq(1, 2)),
    6: (fmpq(0), fmpq(0)),
    7: (fmpq(1), fmpq(1)),
    8: (fmpq(1, 3), fmpq(1, 3)),
    9: (fmpq(3, 8), fmpq(3, 8)),
}
"""α and β of the definitions that go straight from item to item; the first three jump."""

HALF = fmpq(1, 2)


def quantile(x: Value, p: Value, definition: Value | None = None) -> Value:
    """The value below which the part ``p`` of the items lies; of a list of parts a list.

    The ``definition`` is one of those of Hyndman and Fan; 7 goes straight from item to
    item, with the least at 0 and the greatest at 1.
    Errors: :class:`LineError` where ``p`` is not from 0 to 1, or the list is empty.
    """
    if isinstance(p, List):
        return List(tuple(quantile(x, one, definition) for one in p.items))
    number = 7 if definition is None else whole(definition, "The definition")
    if not 1 <= number <= 9:
        raise outside("The definition is a number from 1 to 9.")
    if not isinstance(p, Exact) or not p.is_rational or not 0 <= p.coefficient <= 1:
        raise outside("The part is a rational number from 0 to 1, such as 1/4 or 95%.")
    items = items_of(sort(List(present(x, 1))))
    at, share = _place(len(items), p.coefficient, number)
    low, high = (items[min(max(place, 1), len(items)) - 1] for place in (at, at + 1))
    if not share or low is high:
        return low
    step = operators.operate("*", exact(share), operators.operate("-", high, low))
    return operators.operate("+", low, step)


def _place(count: int, p: fmpq, definition: int) -> tuple[int, fmpq]:
    """The item that a quantile stands after, and how far on to the next it is."""
    if definition in SHARES:
        alpha, beta = SHARES[definition]
        place = count * p + alpha + p * (1 - alpha - beta)
        at = int(place.floor())
        return at, place - at
    place = count * p - (HALF if definition == 3 else 0)
    at = int(place.floor())
    rest = place - at
    if definition == 1:
        return at, fmpq(1 if rest else 0)
    if definition == 2:
        return at, fmpq(1) if rest else HALF
    return at, fmpq(0 if not rest and at % 2 == 0 else 1)


def quartiles(x: Value, definition: Value | None = None) -> Value:
    """The values below which a quarter, half and three quarters of the items lie."""
    return quantile(x, List(tuple(exact(fmpq(part, 4)) for part in (1, 2, 3))), definition)


@in_numbers
def mode(x: Value) -> Value:
    """The item that occurs most often; a list of them where there are several."""
    runs: list[list[Value]] = []
    for item in items_of(sort(List(present(x, 1)))):
        if runs and compare("==", runs[-1][0], item) is True:
            runs[-1].append(item)
        else:
            runs.append([item])
    most = max(len(run) for run in runs)
    found = [run[0] for run in runs if len(run) == most]
    return found[0] if len(found) == 1 else List(tuple(found))


def range_of(x: Value) -> Value:
    """The distance from the least item to the greatest."""
    items = present(x, 1)
    last_first = List(tuple(reversed(items)))  # of equal ones two, which may be two inputs
    return operators.operate("-", largest(last_first), smallest(List(items)))


# -- two lists ------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Pairs:
    """The numbers of two lists, and the units that they count where they are measures."""

    first: Sequence[Number]
    second: Sequence[Number]
    across: MeasureArray | None
    up: MeasureArray | None


def _through_pairs(
    compute: Callable[[Value, Value], Value],
    x: Value,
    y: Value,
    rises: Callable[[list[fmpq], list[fmpq]], tuple[list[fmpq], list[fmpq]]],
) -> Value | None:
    """A function of pairs of which numbers are measured; None where none is.  ``rises`` tells how
    it rises with each x and with each y."""
    if not (isinstance(x, List) and isinstance(y, List)):
        return None
    if Uncertain not in kinds_of(x.items) | kinds_of(y.items) or len(x.items) != len(y.items):
        return None
    there = [pair for pair in zip(x.items, y.items, strict=True) if not any(map(is_missing, pair))]
    first, second = ([pair[at] for pair in there] for at in (0, 1))
    found = compute(*(List(tuple(uncertain.nominals_of(side))) for side in (first, second)))
    if isinstance(found, Undefined):
        return found
    across, up = rises(
        *([uncertain.rational(uncertain.size_of(one)) for one in side] for side in (first, second))
    )
    terms = zip((*first, *second), (*across, *up), strict=True)
    return uncertain.combined(found, list(terms))


def _line(x: list[fmpq], y: list[fmpq]) -> tuple[list[fmpq], list[fmpq], fmpq, fmpq]:
    """The distances from both means, the sum of squares of those of x, and the slope."""
    away_x = [one - sum(x, fmpq(0)) / len(x) for one in x]
    away_y = [one - sum(y, fmpq(0)) / len(y) for one in y]
    spread = sum((one * one for one in away_x), fmpq(0))
    rise = sum((a * b for a, b in zip(away_x, away_y, strict=True)), fmpq(0)) / spread
    return away_x, away_y, spread, rise


def _rises_of_slope(x: list[fmpq], y: list[fmpq]) -> tuple[list[fmpq], list[fmpq]]:
    away_x, away_y, spread, rise = _line(x, y)
    across = [(b - 2 * rise * a) / spread for a, b in zip(away_x, away_y, strict=True)]
    return across, [a / spread for a in away_x]


def _rises_of_intercept(x: list[fmpq], y: list[fmpq]) -> tuple[list[fmpq], list[fmpq]]:
    across, up = _rises_of_slope(x, y)
    *_, rise = _line(x, y)
    middle = sum(x, fmpq(0)) / len(x)
    return (
        [-rise / len(x) - middle * one for one in across],
        [fmpq(1, len(x)) - middle * one for one in up],
    )


def _pairs(x: Value, y: Value) -> Pairs:
    """The numbers of two lists of one length, at least two of each.

    Errors: :class:`LineError` for others.
    """
    first, second = items_of(x, 2), items_of(y, 2)
    if len(first) != len(second):
        raise UNEQUAL_LENGTHS(length=len(first), other=len(second))
    units = [side if isinstance(side, MeasureArray) else None for side in (first, second)]
    first, second = (
        side.numbers if isinstance(side, MeasureArray) else side for side in (first, second)
    )
    pairs = zip(first, second, strict=True)
    whole_ones = [pair for pair in pairs if not any(map(is_missing, pair))]
    left_out = len(first) - len(whole_ones)
    if left_out:
        notice(PAIRS_LEFT_OUT, left_out=left_out, of=len(first))
        first, second = (tuple(pair[at] for pair in whole_ones) for at in (0, 1))
        items_of(List(first), 2)
    units = [of or counted(side) for side, of in zip((first, second), units, strict=True)]
    first, second = (
        of.numbers if of is not None and isinstance(side[0], Measure) else side
        for side, of in zip((first, second), units, strict=True)
    )
    for item in (*first, *second):
        if type(item) not in REALS:
            operators.number(item)
            raise outside("Pairs of real numbers, or of measures that agree, are wanted here.")
    return Pairs(cast(Sequence[Number], first), cast(Sequence[Number], second), *units)


def correlation(x: Value, y: Value) -> Value:
    """Pearson's coefficient, from −1 to 1; undefined where all items of a list are alike."""
    pairs = _pairs(x, y)
    first, second = pairs.first, pairs.second
    spread = multiply(squares_from_mean(first), squares_from_mean(second))
    if is_zero(spread):
        return Undefined("One of the lists has all items alike, so there is nothing to follow.")
    return divide(products_from_means(first, second), square_root(spread))


def slope(x: Value, y: Value) -> Value:
    """How much y rises for each x on the straight line of least squares."""
    found = _through_pairs(slope, x, y, _rises_of_slope)
    if found is not None:
        return found
    pairs = _pairs(x, y)
    rise = _slope(pairs)
    for of, op in ((pairs.up, "*"), (pairs.across, "/")):
        if of is not None:
            rise = operators.operate(op, rise, of.step)
    return rise


def _slope(pairs: Pairs) -> Value:
    """The same in the units of the two lists."""
    spread = squares_from_mean(pairs.first)
    if is_zero(spread):
        return Undefined("All x are alike: the line would stand upright.")
    return divide(products_from_means(pairs.first, pairs.second), spread)


def intercept(x: Value, y: Value) -> Value:
    """The y of that line where x is 0."""
    found = _through_pairs(intercept, x, y, _rises_of_intercept)
    if found is not None:
        return found
    pairs = _pairs(x, y)
    rise = _slope(pairs)
    if isinstance(rise, Undefined):
        return rise
    start = operators.operate(
        "-", mean_of(pairs.second), multiply(real(rise), mean_of(pairs.first))
    )
    return start if pairs.up is None else measure_of(real(start), pairs.up.unit)


def _record(
    name: str,
    summary: str,
    compute: Callable[..., Value],
    parameters: tuple[Parameter, ...],
    examples: tuple[tuple[str, str, str], ...],
    **told: object,
) -> Function:
    fields = {"value": "a number", "source": "common practice of the trade", **told}
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=compute,
        examples=tuple(Example(*example) for example in examples),
        accepts=ITEMS,
        **fields,  # type: ignore[arg-type]
    )


FUNCTIONS = (
    _record(
        "quantile", "The value below which the part p of the items lies.", quantile,
        (X, Parameter("p", "the part, or a list of parts", "from 0 to 1"), DEFINITION),
        (("quantile([2, 3, 7, 8], 1/4)", "=", "2.75"), ("quantile(1..101, 95%)", "=", "96"),
         ("quantile([2, 3, 7, 8], 1/4, definition=6)", "=", "2.25")),
        related=("quartiles", "median"), words="percentile decile fractile part below",
        source=NINE, special_values=("quantile([5, 9], 0) = 5", "quantile([5, 9], 1) = 9"),
        confused_with="the share of items below a value, which is the other way round.",
    ),
    _record(
        "quartiles", "The three values that part the items into quarters.", quartiles,
        (X, DEFINITION),
        (("quartiles([2, 3, 7, 8])", "=", "[2.75, 5, 7.25]"),
         ("quartiles(1..9)", "=", "[3, 5, 7]")),
        value="a list of three", related=("quantile", "median", "range"),
        words="quarter lower upper interquartile box plot five number summary", source=NINE,
        special_values=("quartiles([1, 2, 3, 4, 5]) = [2, 3, 4]",),
        confused_with="those of other programs: nine definitions are in use, and this is number 7.",
    ),
    _record(
        "mode", "The item that occurs most often, or the list of them.", mode, (X,),
        (("mode([1, 2, 2, 3])", "=", "2"), ("mode([1, 1, 2, 2, 3])", "=", "[1, 2]")),
        value="an item or a list", related=("median", "mean"), words="commonest most frequent",
        special_values=("mode([7]) = 7",), confused_with="median, the item in the middle.",
    ),
    _record(
        "range", "The distance from the least item to the greatest.", range_of, (X,),
        (("range([2, 3, 7, 8])", "=", "6"), ("range([18.5, 96])", "=", "77.5")),
        related=("min", "max", "quartiles"), words="spread span extent statistical",
        special_values=("range([5]) = 0",),
        confused_with="the list from one number to another, which is 1..10.",
    ),
    _record(
        "correlation", "How closely two lists follow a straight line, from −1 to 1.", correlation,
        (X, Y),
        (("correlation([1, 2, 3], [2, 4, 6])", "=", "1"),
         ("correlation([1, 2, 3, 4], [1, 3, 2, 4])", "=", "0.8")),
        related=("slope", "intercept"), words="Pearson coefficient r relation of two lists",
        source="NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.3.26",
        special_values=("correlation([1, 2], [5, 3]) = -1",),
        confused_with="its square, which says what part of the variance the line explains.",
    ),
    _record(
        "slope", "How much y rises with x on the straight line of least squares.", slope, (X, Y),
        (("slope([0, 1, 2], [1, 3, 5])", "=", "2"), ("slope([1, 2, 3], [1, 2, 2])", "=", "0.5")),
        related=("intercept", "correlation"),
        words="gradient regression fit straight line least squares linear trend",
        source="NIST/SEMATECH e-Handbook of Statistical Methods, 4.4.3.1",
        special_values=("slope([0, 1], [3, 3]) = 0",),
        confused_with="slope(y, x): which list is the x makes a difference.",
    ),
    _record(
        "intercept", "The y of the straight line of least squares where x is 0.", intercept, (X, Y),
        (("intercept([0, 1, 2], [1, 3, 5])", "=", "1"),
         ("intercept([1, 2, 3], [1, 2, 2])", "≈", "0.6666666667")),
        related=("slope", "correlation"),
        words="offset regression fit straight line least squares constant term",
        source="NIST/SEMATECH e-Handbook of Statistical Methods, 4.4.3.1",
        special_values=("intercept([1, 2], [2, 4]) = 0",),
        confused_with="the x where the line crosses 0, which is -intercept(x, y)/slope(x, y).",
    ),
)  # fmt: skip
