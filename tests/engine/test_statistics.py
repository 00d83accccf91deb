"""Statistics of lists, against NumPy, SciPy and the certified values of NIST; and lists that
are chosen from.

NIST Statistical Reference Datasets, linear regression and analysis of variance, as SciPy carries
them; the nine quantiles of Hyndman and Fan as NumPy has them.
"""

import fractions
import math
import statistics

import numpy
import pytest
from flint import fmpq
from hypothesis import given, settings
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.numbers.values import List, exact
from tests.engine.answers import answer, error, outcome
from tests.engine.test_certified_statistics import (
    CERTIFIED_DIGITS,
    DATA,
    certified,
    listed,
    pairs_of,
    same,
)
from tests.examples import part_of

METHODS = {
    1: "inverted_cdf", 2: "averaged_inverted_cdf", 3: "closest_observation",
    4: "interpolated_inverted_cdf", 5: "hazen", 6: "weibull", 7: "linear",
    8: "median_unbiased", 9: "normal_unbiased",
}  # fmt: skip
"""The nine definitions by NumPy's names."""

NUMBERS = st.lists(st.integers(-1000, 1000), min_size=1, max_size=20)


def of(numbers):
    return List(tuple(exact(number) for number in numbers))


def as_float(value) -> float:
    return float(value.ball(64).mid())


@pytest.mark.parametrize("definition", METHODS)
@given(numbers=NUMBERS, part=st.integers(0, 16))
def test_each_definition_of_a_quantile_is_that_of_numpy(definition, numbers, part):
    found = BY_NAME["quantile"].compute(of(numbers), exact(fmpq(part, 16)), exact(definition))
    expected = numpy.quantile(numbers, part / 16, method=METHODS[definition])
    assert as_float(found) == pytest.approx(float(expected), rel=1e-9, abs=1e-9)


@given(numbers=st.lists(st.integers(-50, 50), min_size=2, max_size=30))
def test_mode_and_range_are_those_of_python(numbers):
    found = BY_NAME["mode"].compute(of(numbers))
    modes = found.items if isinstance(found, List) else (found,)
    assert sorted(int(one.coefficient) for one in modes) == sorted(statistics.multimode(numbers))
    assert BY_NAME["range"].compute(of(numbers)) == exact(max(numbers) - min(numbers))


@given(
    pairs=st.lists(
        st.tuples(st.integers(-100, 100), st.integers(-100, 100)), min_size=3, max_size=20
    )
)
def test_the_line_of_least_squares_is_that_of_scipy(pairs):
    first, second = ([pair[at] for pair in pairs] for at in (0, 1))
    if len({*first}) == 1 or len({*second}) == 1:
        return
    import scipy.stats  # which takes seconds

    expected = scipy.stats.linregress(first, second)
    for name, value in (
        ("slope", expected.slope),
        ("intercept", expected.intercept),
        ("correlation", expected.rvalue),
    ):
        found = as_float(BY_NAME[name].compute(of(first), of(second)))
        assert found == pytest.approx(value, rel=1e-7, abs=1e-7), name


def test_the_line_of_the_certified_regression():
    """Norris: 36 pairs, 15 figures certified."""
    lines = (DATA / "nist_linregress" / "Norris.dat").read_text("utf-8").splitlines()
    points = pairs_of(lines)
    setup = [
        f"y = {listed(point[0] for point in points)}",
        f"x = {listed(point[1] for point in points)}",
    ]

    def ask(question):
        return answer(*setup, question, digits=CERTIFIED_DIGITS)

    assert same(ask("slope(x, y)"), certified(lines, "B1")[0])
    assert same(ask("intercept(x, y)"), certified(lines, "B0")[0])
    squared = certified(lines, "R-Squared")[0]
    assert same(ask("correlation(x, y)^2"), squared)
    for place, label in enumerate(("B1", "B0"), 1):
        value, deviation = certified(lines, label)
        assert same(ask(f"value(least_squares(x, y)[{place}])"), value)
        assert same(ask(f"uncertainty(least_squares(x, y)[{place}])"), deviation)
    noise = certified(lines, "Standard Deviation")[0]
    assert same(ask("sqrt(sum(residuals(x, y)^2)/(count(x) - 2))"), noise)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("where(w, w > 3)", "= [7, 8]"),
        ("places(w > 3)", "= [3, 4]"),
        ("w[places(w > 3)]", "= [7, 8]"),
        ("where([30°, 60°], [30°, 60°] > 40°)", "= [60°]"),
        ('where(["a", "b"], w[1..2] == 2)', '= ["a"]'),
        ("where(w, w > 100)", "= []"),
        ("where(w, [true, 0/0 > 1, false, true])", "= [2, 8]"),
        ("w[2..3]", "= [3, 7]"),
        ("quartiles([30°, 40°, 60°])", "= [35°, 40°, 50°]"),
        ('mode(["a", "b", "a"])', '= "a"'),
        ("range([30°, 50°])", "= 20°"),
        ("quantile(w, [0, 1/2, 1])", "= [2, 5, 8]"),
        ("correlation([1, 1], [1, 2])", "= undefined"),
        ("slope([1, 1], [1, 2])", "= undefined"),
        ("intercept([1, 1], [1, 2])", "= undefined"),
    ],
)
def test_lists_are_chosen_from_and_summed_up(line, expected):
    assert answer("w = [2, 3, 7, 8]", line) == expected


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("where([2, 3], [true])", "The lists have different lengths: 2 and 1 items."),
        ("where([2, 3], 3)", "a test that is true or false for each item"),
        ("places([1, 2])", "a test that is true or false for each item"),
        ("slope([1, 2], [1, 2, 3])", "The lists have different lengths: 2 and 3 items."),
        ("slope([1], [2])", "at least 2 items"),
        ("slope([1 + i, 2], [1, 2])", "Pairs of real numbers"),
        ("quantile([1, 2], 2)", "from 0 to 1"),
        ("quantile([1, 2], 1/2, definition=10)", "from 1 to 9"),
        ("quartiles([])", "empty"),
        ("[1, 2] + [1, 2, 3]", "The lists have different lengths: 2 and 3 items."),
        ("[1, 2][3]", "there is no item 3"),
        ("range(1, 10)", "Write a range as 1..10."),
    ],
)
def test_lists_that_do_not_fit_are_refused_with_a_sentence(line, said):
    assert said in outcome(line).error.text


# -- very many -----------------------------------------------------------------------------

MANY = part_of(100_000)
RANGE = range(1, MANY + 1)


@pytest.fixture(scope="module")
def many():
    sheet = FullSheet()
    for line in (f"w = 1..{MANY}", "r = sqrt(w)"):
        assert sheet.answer(line).status == "ok"
    return sheet


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("count(r)", MANY),
        ("sum(w)", MANY * (MANY + 1) // 2),
        ("mean(r)", math.fsum(map(math.sqrt, RANGE)) / MANY),
        ("stdev(w)", statistics.stdev(RANGE)),
        ("variance(r)", statistics.variance(math.sqrt(n) for n in RANGE)),
        ("median(r)", (math.sqrt(MANY // 2) + math.sqrt(MANY // 2 + 1)) / 2),
        ("max(r)", math.sqrt(MANY)),
        ("count(where(w, r > 100))", MANY - 10_000),
        ("last(sort(reverse(r)))", math.sqrt(MANY)),
        ("correlation(w, r)", statistics.correlation(RANGE, [*map(math.sqrt, RANGE)])),
    ],
)
def test_a_very_long_list_is_summed_up(many, line, expected):
    [found] = many.answer(line).answers
    shown = found.nearly or found.text
    assert float(shown) == pytest.approx(expected, rel=6e-10)


def test_a_long_list_keeps_its_head_and_the_way_to_the_rest(many):
    [found] = many.answer("r*2").answers
    kept = found.kept()
    assert kept.is_cut
    assert len(kept.text) + len(kept.value_mathml) + len(kept.reading_mathml) < 20_000
    assert found.sign == "≈"
    assert f"{MANY:,} items" in kept.also
    [whole] = many.answer("1..5000").answers
    assert whole.kept().is_cut
    assert whole.text.count(",") == 4999
    [exactly] = many.answer("w/8").answers
    assert exactly.sign == "="


@settings(max_examples=20)
@given(st.lists(st.decimals(-1000, 1000, places=3, allow_nan=False), min_size=250, max_size=300))
def test_the_sum_of_many_decimals_is_exact(numbers):
    exactly = [fractions.Fraction(str(number)) for number in numbers]
    found = BY_NAME["sum"].compute(
        List(tuple(exact(fmpq(one.numerator, one.denominator)) for one in exactly))
    )
    whole = sum(exactly)
    assert found == exact(fmpq(whole.numerator, whole.denominator))


def test_a_list_beyond_the_limit_says_so():
    assert error("1..200000") == "too-many-items"
    assert "100,000" in outcome("1..200000").error.text
