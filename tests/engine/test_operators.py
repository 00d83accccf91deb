"""Operators: precedence, signs of quotient and remainder, truth, traps."""

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.answers import answer, error, mends, outcome
from tests.examples import tried_on


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("31 mod 9", "= 4"),
        ("-31 mod 9", "= 5"),
        ("31 mod -9", "= -5"),
        ("-31 div 9", "= -4"),
        ("31 div -9", "= -4"),
        ("7.5 mod 2", "= 1.5"),
        ("2*7 mod 4", "= 2"),
        ("5!", "= 120"),
        ("0!", "= 1"),
        ("-3!", "= -6"),
        ("2^3!", "= 64"),
        ("2*3%", "= 0.06"),
        ("50% + 1", "= 1.5"),
        ("1 < 2 < 3", "= true"),
        ("1 < 3 < 2", "= false"),
        ("0.1 + 0.2 == 0.3", "= true"),
        ("2 >= 2 and 3 != 4", "= true"),
        ("1 > 2 or 2 > 1", "= true"),
        ("not (1 > 2)", "= true"),
        ("true and false or true", "= true"),
        ("1/3 ~ 0.3333333333", "= true"),
        ("1/3 == 0.3333333333", "= false"),
        ("sqrt(2) > 1.4142135623", "= true"),
        ("add(25, 20)", "= 45"),
        ("remainder(-31, 9)", "= 5"),
        ("6 − 2 · 3 ÷ 4", "= 4.5"),
    ],
)
def test_operator(line, expected):
    assert answer(line) == expected


@tried_on(300)
@given(st.integers(-(10**6), 10**6), st.integers(-1000, 1000).filter(bool))
def test_quotient_and_remainder_belong_together(a, b):
    quotient = int(answer(f"({a}) div ({b})")[2:])
    remainder = int(answer(f"({a}) mod ({b})")[2:])
    assert (quotient, remainder) == divmod(a, b)
    assert a == b * quotient + remainder


@pytest.mark.parametrize("n", [1, 10, 20, 30, 33])
def test_factorials(n):
    assert answer(f"{n}!") == f"= {math.factorial(n)}"


@pytest.mark.parametrize(
    ("line", "offered"),
    [
        ("1/2 pi", "1/(2 pi)"),
        ("(3+4)/2 pi", "(3+4)/(2 pi)"),
        ("4^1/2", "4^(1/2)"),
        ("-2^2", "(-2)^2"),
        ("2^3^2", "(2^3)^2"),
        ("10e-5", "10^-5"),
        ("3,5", "3.5"),
        ("1,000,000", "1000000"),
    ],
)
def test_what_is_easily_misread_gets_a_notice_with_the_other_reading(line, offered):
    result = outcome(line)
    assert result.status == "ok"
    assert len(result.notices) == 1
    assert mends(line) == [offered]


HOMEWORK = """\
m = 0.35
v = 12.5
m*v^2/2
1/2*m*v^2
(1/2)*m*v^2
g = 9.81
h = v^2/(2*g)
sqrt(2*g*h)
2*pi*sqrt(0.5/g)
a = 3; b = 4; c = sqrt(a^2 + b^2)
(-b + sqrt(b^2 + 4*a))/(2*a)
x = -2.5
x^2 + 3*x - 1
-x^2
exp(-x^2/2)
1/(1 + x^2)
6.022e23*1.38e-23
3.2e-3/1.6e-4
(1.05^10 - 1)/0.05
1000*(1 + 0.04/12)^24
R_1 = 220; R_2 = 330
R_1*R_2/(R_1 + R_2)
1/(1/R_1 + 1/R_2)
U = 12
I = U/R_1
P = U*I
sin(pi/6) + cos(pi/3)
tan(pi/4)
ln(2)/0.034
5730/ln(2)*ln(1/0.7)
31 mod 9, 31 div 9
12.5% * 80
180/pi
4/3*pi*0.5^3
pi*0.5^2*2
2^10
2^-3
8^(1/3)
|x - 3|
5!/(3!*2!)
(a + b)*(a - b)
a^2/b^2
x^3/3
2 pi
3(a + b)
0.5*x^2/3
v*3.6
1e-3*250
(20 + 273.15)/(80 + 273.15)
101325*0.024/(8.314*293.15)
"""


def test_ordinary_homework_gets_hardly_any_notice():
    from teapot.engine import FullSheet

    sheet = FullSheet()
    outcomes = [sheet.answer(line) for line in HOMEWORK.splitlines() * 2]
    assert len(outcomes) == 100
    assert all(result.status == "ok" for result in outcomes)
    notices = [notice.text for result in outcomes for notice in result.notices]
    assert len(notices) < 3, notices


def test_what_is_no_number_or_truth_is_said_where_it_stands():
    assert error("1 and true") == "not-a-truth"
    assert outcome("2 + (1 < 2)").error.span == (5, 10)
    assert error("1.5!") == "factorial-domain"
    assert error("(10^9)!") == "too-large"


def test_workings_list_each_step_in_order():
    from teapot.engine import FullSheet

    expected = {
        "6+3/6+3": ["0.5", "6.5", "9.5"],
        "(6+3)/(6+3)": ["9", "9", "1"],
        "196^0.5/4*6": ["14", "3.5", "21"],
        "3^4/(3^4-1)": ["81", "81", "80", "1.0125"],
    }
    for line, texts in expected.items():
        sheet = FullSheet()
        sheet.answer(line)
        [steps] = sheet.workings(sheet.lines[0])
        assert [step.text for step in steps] == texts
        assert steps[-1].input == str(outcome(line).answers[0].reading)


def test_workings_put_the_values_of_quantities_in():
    from teapot.engine import FullSheet

    sheet = FullSheet()
    sheet.answer("x = -3")
    sheet.answer("2*x^2 + 1")
    [steps] = sheet.workings(sheet.lines[1])
    assert [step.done for step in steps] == ["(-3)^2", "2*9", "18 + 1"]
    assert "exactly 9" in steps[0].spoken


def test_a_long_line_is_read_worked_and_answered():
    """300 operators, 40 nested brackets, 12 quantities."""
    from teapot.engine import FullSheet

    sheet = FullSheet()
    names = [f"q_{n}" for n in range(12)]
    for value, name in enumerate(names, 1):
        sheet.answer(f"{name} = {value}")
    nested = "(" * 40 + "1" + " + 1)" * 40
    line = nested + "".join(f" + {names[n % 12]}*{n}" for n in range(130))
    result = sheet.answer(line)
    expected = 41 + sum((n % 12 + 1) * n for n in range(130))
    assert result.answers[0].text == str(expected)
    [steps] = sheet.workings(sheet.lines[-1])
    assert len(steps) == 300
    assert Fraction(steps[-1].text) == expected
