"""± ranks with + and −, and two numbers beside it are one measured value.

Common practice of the laboratory; contributions in quadrature: JCGM 100:2008, 5.1.2 (from memory).
"""

import pytest

from teapot.engine import FullSheet
from teapot.engine.numbers.context import Conventions
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.plain import node_text
from tests.engine.answers import answer, error, mends, outcome

READINGS = ["d = [9.8, 9.9, 10.1, 10.0]; n = 4", "x = 3; dx = 0.1; u = 0.1; V = 2"]


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("mean(d) ± stdev(d)/sqrt(n)", "≈ 9.950 ± 0.065"),
        ("2*x ± dx", "≈ 6.00 ± 0.10"),
        ("V ± 3*V^2*u", "≈ 2.0 ± 1.2"),
        ("2.5×10³ ± 50", "≈ 2500 ± 50"),
        ("10.2 ± 0.3/3", "≈ 10.20 ± 0.10"),
        ("2 pi ± 0.1", "≈ 6.28 ± 0.10"),
        ("-5 ± 0.1", "≈ -5.00 ± 0.10"),
        ("2^5 ± 0.1", "≈ 32.00 ± 0.10"),
        ("3 m - 5 ± 0.1 m", "≈ (-2.00 ± 0.10) m"),
        ("5 ± 0.1 m + 2 m", "≈ (7.00 ± 0.10) m"),
        ("√5 ± 0.1", "≈ 2.24 ± 0.10"),
        ("x ± sqrt(0.3^2 + 0.4^2)", "≈ 3.00 ± 0.50"),
        ("5 ± 3 ± 4", "≈ 5.0 ± 5.0"),
        ("5 ± 3 ± 4 m", "≈ (5.0 ± 5.0) m"),
        ("5 m ± 3 cm ± 4 cm", "≈ (5.000 ± 0.050) m"),
        ("(5 ± 3) ± 4", "≈ 5.0 ± 5.0"),
        ("(1.602 ± 0.001)e-19", "≈ (1.6020 ± 0.0010)e-19"),
        ("-(1.602 ± 0.001)e-19 C", "≈ (-1.6020 ± 0.0010)e-19 C"),
        ("12.3 ± 0.1 × 10^3", "≈ (1.230 ± 0.010)e4"),
        ("-12.3 ± 0.1 × 10^3 m", "≈ (-1.230 ± 0.010)e4 m"),
        ("2.5e3 ± 5e1", "≈ 2500 ± 50"),
        ("3×10^8 ± 1×10^6 m/s", "≈ (3.000 ± 0.010)e8 m/s"),
        ("2*5.32(4)", "≈ 10.640 ± 0.080"),
        ("5 +- 0.1", "≈ 5.00 ± 0.10"),
        ("5 +-0.1", "= 4.9"),
        ("2+-3", "= -1"),
        ("2^+- 3", "= 0.125"),
    ],
)
def test_its_rank(line, expected):
    assert answer(*READINGS, line) == expected


@pytest.mark.parametrize(
    ("line", "first", "second"),
    [
        ("2*5.32 ± 0.04", "2*(5.32 ± 0.04)", "(2*5.32) ± 0.04"),
        ("5.32 ± 0.04 * 2", "(5.32 ± 0.04) * 2", "5.32 ± (0.04 * 2)"),
        ("10/5 ± 0.1", "10/(5 ± 0.1)", "(10/5) ± 0.1"),
        ("5.32 m ± 0.04 m * 2", "(5.32 m ± 0.04 m) * 2", "5.32 m ± (0.04 m * 2)"),
    ],
)
def test_a_pair_that_is_a_factor_is_asked_back(line, first, second):
    assert error(line) == "uncertain-factor"
    assert mends(line) == [first, second]
    assert answer(first) != answer(second)


def test_a_unit_of_both_before_a_bar_is_asked_back():
    assert mends("5 ± 0.1 m / 2") == ["(5 ± 0.1 m) / 2"]


def test_the_two_solutions_of_an_equation_are_no_uncertainty():
    given = "a = 1; b = 5; c = 2"
    line = "x = (-b ± sqrt(b^2-4*a*c))/(2*a)"
    assert error(given, line) == "plus-or-minus"
    assert mends(given, line) == [line.replace("±", "+"), line.replace("±", "-")]


def test_an_uncertainty_has_none_itself():
    found = outcome("x = 5 ± 0.1", "3 ± x")
    assert found.error.code == "uncertain-uncertainty"


def test_plus_and_minus_read_as_one_sign_is_said():
    found = outcome("5 +- 0.1")
    assert [one.code for one in found.notices] == ["read-as-plus-minus"]
    assert [one.apply(found.input) for one in found.notices[0].mends] == ["5 + - 0.1"]
    assert answer("5 + - 0.1") == "= 4.9"


@pytest.mark.parametrize(
    "line",
    [
        "2 + 5 ± 0.1", "3 - 5 ± 0.1", "2*(5 ± 0.1)", "5 ± 0.1 ± 0.2", "(5 ± 0.1)^2", "-(5 ± 0.1)",
        "5 ± (0.1 ± 0.2)", "(2*5) ± 0.1", "5 ± (0.1*2)", "5 m ± 0.1 m", "(2*5 m) ± 0.1 m",
        "5 ± 0.1/2", "(5 ± 0.1)/2", "(1 + 2) ± 3", "1 - (2 ± 3)",
        "230∠30° V", "40i Ω", "√2 m", "1000/m", "5 m s-1", "0.(3)",
        "9.81 metres per second squared",
    ],
)  # fmt: skip
def test_its_plain_reading_is_read_the_same(line):
    [statement] = parse(line).statements
    [again] = parse(node_text(statement.expression)).statements
    assert again.expression == statement.expression


def test_a_line_kept_before_keeps_its_meaning():
    sheet = FullSheet()
    old = Conventions(units="names")
    _, found = sheet.entered("2*5 ± 0.1", conventions=old)
    assert found.answers[0].text == "10.00 ± 0.20"
    _, found = sheet.entered("5 +- 0.1", conventions=old)
    assert found.answers[0].text == "4.9"


@pytest.mark.parametrize(
    "lines",
    [
        ["f(x) = x^2", "table(f, 1..5)"],
        ["f(x) = x^2", "[f]"],
        ["5 ± 0.5 as 5000 digits"],
        ["1e5000 ± 1"],
    ],
)
def test_what_broke_off_is_answered(lines):
    assert outcome(*lines).status == "ok"


def test_an_uncertainty_of_what_is_no_number_is_refused():
    assert error("undefined ± 5%") == "no-uncertainty-here"
    assert error('"{sin(pi) as binary64}"') == "form-among-words"


@pytest.mark.parametrize(
    ("line", "meant"),
    [("1.6×10-19", "1.6e-19"), ("3.0 × 108 m/s", "3.0e8 m/s"), ("5.0×105", "5.0e5")],
)
def test_a_superscript_that_a_paste_lost_is_asked_for(line, meant):
    found = outcome(line)
    [notice] = [one for one in found.notices if one.code == "lost-superscript"]
    assert [one.apply(line) for one in notice.mends] == [meant]
    assert not [one for one in outcome("2.5 × 12").notices if one.code == "lost-superscript"]
