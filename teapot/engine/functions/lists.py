"""Lists: how many, how much, in which order, and statistics."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial, reduce
from operator import attrgetter
from typing import cast

from flint import fmpq

from teapot.engine.analysis.bound import Bound
from teapot.engine.analysis.sums import product_over, sum_over
from teapot.engine.functions.helpers import outside, tell_missing, whole
from teapot.engine.functions.powers import root_of, square_root
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import operators, propagation, uncertain
from teapot.engine.numbers.arrays import kinds_of, taken, without_missing
from teapot.engine.numbers.bulk_sums import are_many, squares_from_mean
from teapot.engine.numbers.comparison import in_order
from teapot.engine.numbers.context import conventions, notice
from teapot.engine.numbers.items import item_by_item
from teapot.engine.numbers.lists import total
from teapot.engine.numbers.measure_array import MeasureArray, counted, in_numbers
from teapot.engine.numbers.sizes import measure_of
from teapot.engine.numbers.tables import height, places_in_order, rows, with_and_without
from teapot.engine.numbers.values import (
    REALS,
    Angle,
    Complex,
    Date,
    List,
    Measure,
    Scalar,
    Table,
    Uncertain,
    Undefined,
    Value,
    exact,
    is_complex,
    real,
)
from teapot.engine.reading.described import Example
from teapot.engine.sentences.functions import LIST_IS_EMPTY, TOO_FEW_ITEMS
from teapot.engine.sentences.tables import NO_TEST
from teapot.engine.sentences.values import COMPLEX_ORDER, UNEQUAL_LENGTHS
from teapot.engine.sentences.warnings import COUNTS_WHAT_HOLDS, MISSING_COUNTED

ONE: Value = exact(1)
SUBJECT = "lists and statistics"
STATISTICS = "NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.5"
X = Parameter("x", "a list of numbers", "a list")
ITEMS = (List, Angle, Measure, Uncertain, Complex, str, bool)
"""What the items of a list may be, beside numbers."""


def present(x: Value, least: int = 0) -> Sequence[Value]:
    """The items of a list without the missing ones, whose number is given in a notice.

    Errors: :class:`LineError` where there are fewer than ``least``.
    """
    items = items_of(x)
    found = without_missing(items)
    if found is items:
        return items_of(x, least)
    tell_missing(len(items) - len(found), len(items))
    return items_of(List(found), least)


def items_of(x: Value, least: int = 0) -> Sequence[Value]:
    """The items of a list; a single value is a list of one.

    Errors: :class:`LineError` where there are fewer than ``least``.
    """
    items = x.items if isinstance(x, List) else (x,)
    if len(items) < least:
        raise LIST_IS_EMPTY() if least == 1 else TOO_FEW_ITEMS(least=least)
    return items


def count(x: Value) -> Value:
    """How many items there are, or rows of a table; of truths, how many hold.  Missing ones are
    left out, which a notice says."""
    if isinstance(x, Table):
        return exact(height(x))
    items = items_of(x)
    missing = len(items) - len(without_missing(items))
    if missing and conventions().are_of_old:
        notice(MISSING_COUNTED, missing=missing, are="is" if missing == 1 else "are")
    elif missing:
        tell_missing(missing, len(items))
        items = without_missing(items)
    if items and all(isinstance(item, bool) for item in items) and not conventions().are_of_old:
        holding = sum(map(bool, items))
        notice(COUNTS_WHAT_HOLDS, holding=holding, all=len(items))
        return exact(holding)
    return exact(len(items))


def _measured(
    compute: Callable[[Value], Value], x: Value, gradient: uncertain.Gradient
) -> Value | None:
    """A function of a list of which items are measured; None where none is."""
    items = x.items if isinstance(x, List) else ()
    if Uncertain not in kinds_of(items):
        return None
    there = without_missing(items)
    found = compute(List(tuple(uncertain.nominals_of(there))))
    return uncertain.of_list(found, there, gradient)


def sum_of(x: Value) -> Value:
    """The sum of the items; of an empty list 0."""
    found = _measured(sum_of, x, lambda sizes: [fmpq(1)] * len(sizes))
    return total(present(x)) if found is None else found


def product_of(x: Value) -> Value:
    """The product of the items; of an empty list 1."""
    return reduce(partial(operators.operate, "*"), present(x), ONE)


def mean(x: Value) -> Value:
    """The sum over the count; of temperatures on a scale one on that of the first."""
    found = _measured(mean, x, lambda sizes: [fmpq(1, len(sizes))] * len(sizes))
    if found is not None:
        return found
    items = present(x, 1)
    if isinstance(items, MeasureArray):
        return measure_of(cast(Scalar, mean(List(items.numbers))), items.unit)
    first = items[0]
    if isinstance(first, Measure) and first.is_on_scale:
        away = List(tuple(operators.operate("-", item, first) for item in items))
        return operators.operate("+", first, mean(away))
    return operators.operate("/", total(items), exact(len(items)))


def sort(x: Value) -> Value:
    """The items, smallest first; those without a value last."""
    items = items_of(x)
    if len(without_missing(items)) < len(items):
        there, missing = with_and_without(items)
        return List(taken(items, [*places_in_order(there, items), *missing]))
    if kinds_of(items) <= REALS or isinstance(items, MeasureArray):
        return List(in_order(items))
    if any(is_complex(item) for item in items):
        raise COMPLEX_ORDER()
    texts = [item for item in items if isinstance(item, str)]
    if len(texts) == len(items):
        return List(tuple(sorted(texts)))
    dates = [item for item in items if isinstance(item, Date)]
    if len(dates) == len(items):
        return List(tuple(sorted(dates, key=attrgetter("moment"))))
    for item in items:
        operators.number(item)
    return List(tuple(in_order(items)))


def median(x: Value) -> Value:
    """The item in the middle when sorted, or the mean of the two there."""
    items = items_of(sort(List(present(x, 1))))
    middle = len(items) // 2
    if len(items) % 2:
        return items[middle]
    return mean(List(items[middle - 1 : middle + 1]))


def _leaves(items: Sequence[Value]) -> Iterator[Value]:
    """The items, those of lists among them instead of the lists."""
    for item in items:
        if isinstance(item, List):
            yield from _leaves(item.items)
        else:
            yield item


MOST_ALIKE = 50
"""Measured values of which the variance is worked out to second order, where they are alike."""


def variance(x: Value, of: Value | None = None) -> Value:
    """The mean square distance from the mean.

    Of a sample it is taken over one item less; with ``of`` "population" over all.
    Errors: :class:`LineError` for a sample of one.
    """
    if of not in (None, "sample", "population"):
        raise outside('It is of a "sample" or of a "population".')
    is_sample = of != "population"
    found = _measured(partial(variance, of=of), x, partial(_rise_of_variance, is_sample))
    if found is not None and (isinstance(found, Uncertain) or len(items_of(x)) > MOST_ALIKE):
        return found
    items = present(x, 2 if is_sample else 1)
    if are_many(items):
        return operators.operate("/", squares_from_mean(items), exact(len(items) - is_sample))
    if isinstance(items, MeasureArray):
        square = operators.operate("^", items.step, exact(2))
        return operators.operate("*", variance(List(items.numbers), of), square)
    if any(is_complex(item) for item in _leaves(items)):
        raise outside("Variance and deviation need real numbers.")
    centre = mean(List(items))
    away = [operators.operate("-", item, centre) for item in items]
    squares = tuple(operators.operate("^", one, exact(2)) for one in away)
    return operators.operate("/", total(squares), exact(len(items) - is_sample))


def _rise_of_variance(is_sample: bool, sizes: list[fmpq]) -> list[fmpq]:
    centre = sum(sizes, fmpq(0)) / len(sizes)
    return [2 * (size - centre) / (len(sizes) - is_sample) for size in sizes]


def weighted_mean(x: Value) -> Value:
    """The mean of measured values, each with one over the square of its uncertainty for weight.

    Errors: :class:`LineError` where one has no uncertainty.
    """
    if isinstance(x, Undefined):
        return x
    items = present(x, 1)
    if not all(isinstance(one, Uncertain) for one in items):
        raise outside("A weighted mean needs measured values, each with its uncertainty.")
    weights = [1 / uncertain.variance(cast(Uncertain, one)) for one in items]
    whole = sum(weights, fmpq(0))
    shares = [weight / whole for weight in weights]
    nominals = uncertain.nominals_of(items)
    first = nominals[0]
    if isinstance(first, Measure) and first.is_on_scale:
        away = [operators.operate("-", one, first) for one in nominals]
        centre = operators.operate("+", first, _weighted(away, shares))
    else:
        centre = _weighted(nominals, shares)
    return uncertain.combined(centre, list(zip(items, shares, strict=True)))


def _weighted(values: Sequence[Value], shares: Sequence[fmpq]) -> Value:
    terms = (
        operators.operate("*", one, exact(share)) for one, share in zip(values, shares, strict=True)
    )
    return total(tuple(terms))


def standard_deviation(x: Value, of: Value | None = None) -> Value:
    """The square root of the variance; of angles an angle in the unit of the first."""
    items = present(x, 1)
    turns = counted(items) if kinds_of(items) == {Angle} else None
    if turns is not None:
        return measure_of(square_root(real(variance(List(turns.numbers), of))), turns.unit)
    return _root(variance(x, of))


def deviation_of_mean(x: Value) -> Value:
    """The standard uncertainty of the mean of a sample (JCGM 100, 4.2.3): its standard deviation
    over the root of the count."""
    count = len(present(x, 2))
    deviation = standard_deviation(x)
    return operators.operate("/", deviation, square_root(exact(count)))


def _root(value: Value) -> Value:
    if isinstance(value, List):
        return item_by_item(_root, value)
    return propagation.through(root_of, value)


def reverse(x: Value) -> Value:
    """The items, last first."""
    return List(items_of(x)[::-1])


def first(x: Value, n: Value | None = None) -> Value:
    """The first item; with ``n`` the list of the first n."""
    if isinstance(x, Table):
        return rows(x, range(1 if n is None else _how_many(n, height(x))))
    items = items_of(x, 1)
    return items[0] if n is None else List(items[: _how_many(n, len(items))])


def last(x: Value, n: Value | None = None) -> Value:
    """The last item; with ``n`` the list of the last n."""
    if isinstance(x, Table):
        many = 1 if n is None else _how_many(n, height(x))
        return rows(x, range(height(x) - many, height(x)))
    items = items_of(x, 1)
    return items[-1] if n is None else List(items[len(items) - _how_many(n, len(items)) :])


def _how_many(n: Value, count: int) -> int:
    number = whole(n, "The number of items")
    if not 0 <= number <= count:
        raise outside(f"There are only {count:,} items.")
    return number


def cumulative(x: Value) -> Value:
    """The sums of the first item, the first two, and so on."""
    items = items_of(x)
    if isinstance(items, MeasureArray) and not items.is_on_scale:
        return in_numbers(cumulative)(x)
    sums: list[Value] = []
    for item in items:
        sums.append(operators.operate("+", sums[-1], item) if sums else item)
    return List(tuple(sums))


def chosen(items: Sequence[object], truths: Sequence[Value]) -> list[int]:
    """The places, counted from 0, of the items for which a test holds.

    Errors: :class:`LineError` where there are not as many truths.
    """
    if len(items) != len(truths):
        raise UNEQUAL_LENGTHS(length=len(items), other=len(truths))
    return [at for at, holds in enumerate(truths) if holds is True]


def places(test: Value) -> Value:
    """The places at which a test holds, counted from 1."""
    return List(tuple(exact(at) for at, holds in enumerate(truths_of(test), 1) if holds is True))


def truths_of(test: Value) -> Sequence[Value]:
    """The truths of a test.  Errors: :data:`NO_TEST` where it has others."""
    truths = items_of(test)
    if not all(isinstance(one, bool | Undefined) for one in truths):
        raise NO_TEST()
    return truths


def _record(
    name: str,
    summary: str,
    compute: Callable[..., Value],
    examples: tuple[tuple[str, str, str], ...],
    related: tuple[str, ...],
    words: str,
    more: tuple[Parameter, ...] = (),
    confused_with: str = "",
    value: str = "a number",
    source: str = "common practice of the trade",
    special_values: tuple[str, ...] = (),
    takes_table: bool = False,
    bound: Callable[[Bound], Value] | None = None,
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=(X, *more),
        compute=compute,
        examples=tuple(Example(*example) for example in examples),
        value=value,
        special_values=special_values,
        related=related,
        confused_with=confused_with,
        words=words,
        source=source,
        accepts=(*ITEMS, Table) if takes_table else ITEMS,
        bound=bound,
    )


OF = Parameter("of", '"sample" if left out, or "population"', '"sample" or "population"',
               optional=True, is_text=True)  # fmt: skip
TEST = Parameter("test", "a truth for each item, such as x > 3", "a list of true and false")
N = Parameter("n", "how many items", "a whole number up to the count", optional=True)

FUNCTIONS = (
    _record(
        "count", "How many items a list has.", count,
        (("count([2, 3, 7, 8])", "=", "4"), ("count(0..180 by 15)", "=", "13")),
        ("sum", "mean"), "length len size number of items how many",
        special_values=("count([]) = 0",), takes_table=True,
        confused_with="sum, which adds the items up.",
    ),
    _record(
        "sum", "The sum of the items.", sum_of,
        (("sum([2, 3, 7, 8])", "=", "20"), ("sum(1..100)", "=", "5050"),
         ("sum(1/k^2, k = 1..3)", "≈", "1.361111111")),
        ("product", "mean", "cumulative"), "add up total series sigma index over",
        special_values=("sum([]) = 0",), bound=sum_over,
        confused_with="cumulative, which gives the sums on the way too.",
    ),
    _record(
        "product", "The product of the items.", product_of,
        (("product([2, 3, 7])", "=", "42"), ("product(1..5)", "=", "120"),
         ("product(1 + 1/k, k = 1..9)", "=", "10")),
        ("sum", "factorial"), "multiply together",
        special_values=("product([]) = 1",), bound=product_over,
        confused_with="the products item by item, which are v*w.",
    ),
    _record(
        "mean", "The arithmetic mean: the sum over the count.", mean,
        (("mean([2, 3, 7, 8])", "=", "5"), ("mean([1, 2])", "=", "1.5")),
        ("median", "stdev"), "average arithmetic mean avg",
        confused_with="median, the item in the middle.", source=STATISTICS,
        special_values=("mean([7]) = 7", "mean([-3, 3]) = 0"),
    ),
    _record(
        "median", "The item in the middle when sorted, or the mean of the two there.", median,
        (("median([7, 1, 3])", "=", "3"), ("median([7, 1, 3, 2])", "=", "2.5")),
        ("mean", "sort"), "middle value", confused_with="mean, the sum over the count.",
        source=STATISTICS,
        special_values=("median([7]) = 7", "median([1, 4]) = 5/2"),
    ),
    _record(
        "stdev", "The standard deviation: the root of the variance.", standard_deviation,
        (("stdev([2, 4, 4, 4, 5, 5, 7, 9])", "≈", "2.138089935"),
         ('stdev([2, 4, 4, 4, 5, 5, 7, 9], of="population")', "=", "2")),
        ("variance", "mean"), "standard deviation spread scatter sigma", (OF,),
        confused_with='the deviation of a whole population: of="population" gives that.',
        source=STATISTICS,
        special_values=("stdev([5, 5]) = 0", "stdev([1, 3]) = sqrt(2)"),
    ),
    _record(
        "stdev_of_mean", "The standard uncertainty of the mean: stdev over the root of the count.",
        deviation_of_mean,
        (("stdev_of_mean([1, 3])", "=", "1"),
         ("stdev_of_mean([2, 4, 4, 4, 5, 5, 7, 9])", "≈", "0.755928946")),
        ("stdev", "mean"), "standard error of the mean uncertainty type A GUM",
        confused_with="stdev, which is that of a single reading.",
        source="JCGM 100:2008, 4.2.3",
        special_values=("stdev_of_mean([1, 3]) = 1", "stdev_of_mean([5, 5]) = 0"),
    ),
    _record(
        "variance", "The mean square distance from the mean.", variance,
        (("variance([1, 2, 3, 4])", "≈", "1.666666667"),
         ('variance([1, 2, 3, 4], of="population")', "=", "1.25")),
        ("stdev", "mean"), "variance spread scatter", (OF,),
        confused_with='the variance of a whole population: of="population" gives that.',
        source=STATISTICS,
        special_values=("variance([5, 5]) = 0", "variance([1, 3]) = 2"),
    ),
    _record(
        "reverse", "The items, last first.", reverse,
        (("reverse([1, 2, 3])", "=", "[3, 2, 1]"), ("reverse(sort([2, 9, 4]))", "=", "[9, 4, 2]")),
        ("sort",), "backwards descending order", value="a list",
        confused_with="a sort with the largest first: that is reverse(sort(x)).",
    ),
    _record(
        "first", "The first item, or the first n items.", first,
        (("first([4, 5, 6])", "=", "4"), ("first([4, 5, 6], 2)", "=", "[4, 5]")),
        ("last",), "head beginning start", (N,), value="an item or a list", takes_table=True,
        confused_with="min, the smallest item wherever it is in the list.",
    ),
    _record(
        "last", "The last item, or the last n items.", last,
        (("last([4, 5, 6])", "=", "6"), ("last([4, 5, 6], 2)", "=", "[5, 6]")),
        ("first",), "tail end", (N,), value="an item or a list", takes_table=True,
        confused_with="max, the largest item wherever it is in the list.",
    ),
    _record(
        "cumulative", "The sums of the first item, the first two, the first three, and so on.",
        cumulative,
        (("cumulative([1, 2, 3])", "=", "[1, 3, 6]"), ("cumulative(1..4)", "=", "[1, 3, 6, 10]")),
        ("sum",), "running total partial sums", value="a list",
        confused_with="sum, which gives only the last of these.",
    ),
    Function(
        name="places",
        subject=SUBJECT,
        summary="The places at which a test holds, counted from 1.",
        parameters=(TEST,),
        compute=places,
        examples=(
            Example("places([2, 3, 7, 8] > 3)", "=", "[3, 4]"),
            Example("count(places([2, 3, 7, 8] > 3))", "=", "2"),
        ),
        value="a list of whole numbers",
        related=("where", "count"),
        words="find index position which items where true",
        source="common practice of the trade",
        accepts=ITEMS,
        special_values=("places([false, true]) = [2]",),
        confused_with="where, which gives the items themselves.",
    ),
)  # fmt: skip
