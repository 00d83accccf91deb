"""Lists, ranges, tables and statistics."""

import statistics
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.answers import answer, error, mends, outcome


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["[2, 3, 7]"], "= [2, 3, 7]"),
        (["[]"], "= []"),
        (["[1, 2, 3] + 1"], "= [2, 3, 4]"),
        (["[1, 2] * [3, 4]"], "= [3, 8]"),
        (["-[1, 2]"], "= [-1, -2]"),
        (["[1, 2]!"], "= [1, 2]"),
        (["[1, 2] == [1, 3]"], "= [true, false]"),
        (["not [true, false]"], "= [false, true]"),
        (["sqrt([4, 9])"], "= [2, 3]"),
        (["log([9, 81], 3)"], "= [2, 4]"),
        (["1..5"], "= [1, 2, 3, 4, 5]"),
        (["0..1 by 0.25"], "= [0, 0.25, 0.5, 0.75, 1]"),
        (["5..1"], "= [5, 4, 3, 2, 1]"),
        (["0..10 by 4"], "= [0, 4, 8]"),
        (["0°..90° by 45°"], "= [0°, 45°, 90°]"),
        (["1..1"], "= [1]"),
        (["w = [4, 5, 6]", "w[1]"], "= 4"),
        (["w = [4, 5, 6]", "w[2..3]"], "= [5, 6]"),
        (["w = [4, 5, 6]", "w[3]^2"], "= 36"),
        (["[[1, 2], [3]]"], "= [[1, 2], [3]]"),
        (["count(1..7)", "sum(1..7)"], "= 28"),
        (["product(1..10) == 10!"], "= true"),
        (["sort([3, 1/2, pi])"], "≈ [0.5, 3, 3.141592654]"),
        (["max(1..9) - min([4, 2])"], "= 7"),
        (["[1/3, 2] as fraction"], "= [1/3, 2]"),
        (["factor(2^31 - 1)"], "= [2147483647]"),
        (["stdev([10°, 20°, 30°])"], "= 10°"),
    ],
)
def test_lists(lines, expected):
    assert answer(*lines) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("[1, 2] + [1, 2, 3]", "unequal-lengths"),
        ("[1, 2][3]", "no-item"),
        ("[1, 2][0]", "no-item"),
        ("[1, 2][1.5]", "bad-place"),
        ("pi[1]", "not-a-list"),
        ("1..10 by 0", "no-step"),
        ("1..10 by -1", "step-away"),
        ("1..10^9", "too-many-items"),
        ("0..infinity", "endless-range"),
        ("[1, 2", "unfinished"),
        ("1, 2]", "unopened-bracket"),
        ("sum(3, 4)", "too-many-arguments"),
        ('variance([1, 2], of="all")', "outside-domain"),
        ("table(1, 2)", "no-list"),
        ("factor(10^41)", "outside-domain"),
        ("random([])", "not-a-list"),
    ],
)
def test_slips_with_lists(line, code):
    assert error(line) == code


def test_items_without_commas_are_mended():
    assert mends("[1 2 3]") == ["[1, 2, 3]"]
    assert mends("sum([1 2 3])") == ["sum([1, 2, 3])"]


def test_numbers_given_one_by_one_are_offered_as_a_list():
    assert mends("2*mean(1, 2, 3)") == ["2*mean([1, 2, 3])"]
    assert mends("average([1, 2])") == ["mean([1, 2])"]


NUMBERS = st.lists(st.integers(-1000, 1000), min_size=2, max_size=12)


@given(NUMBERS)
def test_statistics_agree_with_those_of_python_in_exact_rationals(numbers):
    data = [Fraction(n) for n in numbers]
    expected = {
        "sum": sum(data),
        "mean": statistics.mean(data),
        "median": statistics.median(data),
        "variance": statistics.variance(data),
    }
    for name, value in expected.items():
        assert answer(f"{name}({numbers}) as fraction") == f"= {value}"
    population = statistics.pvariance(data)
    assert answer(f'variance({numbers}, of="population") as fraction') == f"= {population}"


def test_a_table_has_a_row_for_each_angle_and_says_where_there_is_no_value():
    [shown] = outcome("a = 0°..90° by 30°", "table(a, sin(a), tan(a)) as exact").answers
    assert shown.kind == "table"
    assert shown.cells() == [
        ["a", "sin(a)", "tan(a)"],
        ["0°", "0", "0"],
        ["30°", "0.5", "sqrt(3)/3"],
        ["60°", "sqrt(3)/2", "sqrt(3)"],
        ["90°", "1", "undefined"],
    ]
    [decimals] = outcome("a = 0°..90° by 30°", "table(a, tan(a)) as 3 places").answers
    assert decimals.cells()[2] == ["30.000°", "0.577"]


def test_many_items_are_set_in_even_rows():
    [shown] = outcome("1..25").answers
    assert shown.mathml.count("<mtr>") == 3
    assert shown.also == ("25 items",)


def test_a_draw_stays_with_its_line():
    from teapot.engine import FullSheet

    sheet = FullSheet()
    drawn = sheet.answer("r = random(); d = random(1..6)")
    [r, d] = [shown.text for shown in drawn.answers]
    assert 0 <= float(r) < 1
    assert 1 <= int(d) <= 6
    sheet.by_number[1].forget_values()
    again = sheet.outcome_of(sheet.by_number[1])
    assert [shown.text for shown in again.answers] == [r, d]
    other = FullSheet()
    other.put(1, drawn.input, 1.0, draws=drawn.draws)
    assert [shown.text for shown in other.outcome_of(other.by_number[1]).answers] == [r, d]


def test_while_typing_nothing_is_drawn():
    from teapot.engine import FullSheet

    preview = FullSheet().entered("random()")[1]
    assert preview.error.code == "drawn-later"


def test_dates():
    assert answer("today() - today()") == "= 0 d"
    assert answer("(today() + 30) - today()") == "= 30 d"
    assert outcome("now()").answers[0].kind == "date"
    assert error("today() * 2") == "date-operation"
    assert error("today() + 0.5") == "part-of-a-day"
