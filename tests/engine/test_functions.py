"""Functions: every example of the catalogue, and digits against mpmath."""

from fractions import Fraction

import mpmath
import pytest

from teapot.engine.functions import (
    calculus,
    chance,
    complexes,
    conversions,
    distributions,
    least_squares,
    list_making,
    lists,
    matrices,
    measured,
    operations,
    physics,
    procedures,
    statistics,
    tables,
)
from teapot.engine.functions.catalogue import BY_NAME, FUNCTIONS
from tests.engine.answers import answer, ends_as_a_sentence, mends, outcome, replied
from tests.engine.references import REFERENCES, proved, rounded, sampled

EXAMPLES = [(f.name, example) for f in FUNCTIONS for example in f.examples]


@pytest.mark.parametrize(("name", "example"), EXAMPLES, ids=lambda v: getattr(v, "input", v))
def test_example(name, example):
    assert replied(example) == f"{example.sign} {example.text}"
    assert name in example.input or name == "abs"


def test_every_record_is_whole():
    for function in FUNCTIONS:
        assert function.summary.endswith(".")
        assert function.source
        assert len(function.examples) >= 2
        assert all(name in BY_NAME for name in function.related)


@pytest.mark.parametrize("name", REFERENCES)
@pytest.mark.parametrize("digits", [10, 30])
def test_digits_are_those_of_mpmath_at_60_digits(name, digits):
    """A sample; ``make prove-digits`` does a thousand arguments of each."""
    for arguments in sampled(name, 25):
        assert proved(name, arguments, digits) == ""


NOT_REAL_FUNCTIONS = (
    calculus,
    conversions,
    chance,
    complexes,
    distributions,
    list_making,
    least_squares,
    lists,
    operations,
    measured,
    physics,
    procedures,
    statistics,
    tables,
    matrices,
)
EXACT_ONES = {
    "gcd", "lcm", "factorial", "binomial", "permutations", "is_prime", "factor",
    "round", "floor", "ceil", "trunc", "frac", "sgn", "min", "max", "abs", "if", "tidy",
}  # fmt: skip
"""Functions without digits of their own: what they give is whole, or was given."""


def test_every_function_of_real_numbers_has_its_reference():
    others = {f.name for module in NOT_REAL_FUNCTIONS for f in module.FUNCTIONS}
    wanted = {f.name for f in FUNCTIONS} - EXACT_ONES - others
    assert wanted <= set(REFERENCES)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("log(81, 3)", "= 4"),
        ("log(8, 4)", "= 1.5"),
        ("log(1/8, 2)", "= -3"),
        ("log(10000, base=10)", "= 4"),
        ("lg(10^300)", "= 300"),
        ("ln(e^3)", "= 3"),
        ("ln(sqrt(e))", "= 0.5"),
        ("ln(1)", "= 0"),
        ("e^ln(2)", "= 2"),
        ("(16/81)^(3/4)", "≈ 0.2962962963"),
        ("(16/81)^(-1/4)", "= 1.5"),
        ("cos(2 pi/3)", "= -0.5"),
        ("sin(-pi/6)", "= -0.5"),
        ("tan(5 pi/4)", "= 1"),
        ("sin(1000000 pi)", "= 0"),
        ("pi/pi", "= 1"),
        ("(pi/6 + pi/3)/pi", "= 0.5"),
    ],
)
def test_what_is_rational_stays_exact(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("gamma(0)", "= undefined"),
        ("gamma(-3)", "= undefined"),
        ("zeta(1)", "= undefined"),
        ("zeta(2)/pi^2 as fraction", "= 1/6"),
        ("zeta(-1) as fraction", "= -1/12"),
        ("zeta(0) as fraction", "= -1/2"),
        ("beta(2, 3) as fraction", "= 1/12"),
        ("cot(pi/2)", "= 0"),
        ("cot(0)", "= undefined"),
        ("sec(pi/3)", "= 2"),
        ("root(-32, 5)", "= -2"),
        ("cbrt(0.001)", "= 0.1"),
        ("hypot(5, 12)", "= 13"),
        ("tanh(infinity)", "= 1"),
        ("artanh(-1)", "= -infinity"),
        ("round(6.5)", "= 6"),
        ("round(7.5)", "= 8"),
        ("round(-6.5)", "= -6"),
        ('round(6.5, ties="away")', "= 7"),
        ('round(-6.5, ties="away")', "= -7"),
        ("round(1234, -2)", "= 1200"),
        ("round(pi, 4)", "= 3.1416"),
        ("floor(-pi)", "= -4"),
        ("ceil(-pi)", "= -3"),
        ("frac(-0.25)", "= 0.75"),
        ("min(3, -1, 2)", "= -1"),
        ("max(2, infinity)", "= infinity"),
        ("binomial(52, 5)", "= 2598960"),
        ("permutations(5, 0)", "= 1"),
        ("gcd(0, 5)", "= 5"),
        ("is_prime(2^61 - 1)", "= true"),
        ("is_prime(1)", "= false"),
        ("sgn(-pi)", "= -1"),
        ("asinh(0)", "= 0"),
    ],
)
def test_special_values_and_edges(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("arcosh(0.5)", "not-real"),
        ("artanh(2)", "not-real"),
        ("arcoth(0.5)", "not-real"),
        ("arsech(2)", "not-real"),
        ("arcsin(2)", "not-real"),
        ("arcsec(0.5)", "not-real"),
        ("arcsec(0)", "outside-domain"),
        ("factor(1)", "outside-domain"),
        ("mean([])", "too-few-items"),
        ("variance([1])", "too-few-items"),
        ("first([1], 2)", "outside-domain"),
        ("factorial(30°)", "angle-for-number"),
        ("gcd(2 + i, 3)", "not-real"),
        ("lambert_w(-1)", "outside-domain"),
        ("bessel_y(0, -1)", "outside-domain"),
        ("elliptic_k(2)", "outside-domain"),
        ("lgamma(0)", "outside-domain"),
        ("root(-4, 2)", "not-real"),
        ("root(4, 0)", "outside-domain"),
        ("gcd(1.5, 2)", "outside-domain"),
        ("binomial(9)", "missing-argument"),
        ("binomial(-1, 2)", "outside-domain"),
        ('round(1.5, ties="up")', "outside-domain"),
        ('sin("x")', "not-a-number"),
    ],
)
def test_outside_its_domain_a_function_says_what_it_takes(line, code):
    """In a sheet of real numbers; elsewhere some of them are complex."""
    result = outcome("/numbers real", line)
    assert result.error.code == code
    assert ends_as_a_sentence(result.error.text)


def test_a_tie_is_told_and_what_is_none_is_not():
    assert [notice.code for notice in outcome("round(6.5)").notices] == ["tie"]
    assert "up" in outcome("round(6.5)").notices[0].text
    assert "down" in outcome("round(-6.5)").notices[0].text
    assert mends("round(-6.5)*2") == ['round(-6.5, ties="away")*2']
    assert mends("f(x) = round(x)", "f(6.5)") == []
    assert mends("round(7.5)") == []
    assert outcome("round(6.4)").notices == ()
    assert outcome('round(6.5, ties="away")').notices == ()


def test_a_difference_that_cannot_be_told_from_zero_says_so():
    result = outcome("x = ln(2) + ln(3)", "x - ln(6)")
    assert (result.answers[0].sign, result.answers[0].text) == ("≈", "0")
    assert "smaller than 1e-12" in result.notices[0].text


def test_cancellation_is_computed_again_with_more_digits():
    with mpmath.workdps(80):
        expected = mpmath.sqrt(mpmath.mpf(10) ** 40 + 1) - mpmath.mpf(10) ** 20
        assert Fraction(answer("sqrt(10^40 + 1) - 10^20")[2:]) == rounded(expected, 10)


def test_a_tie_that_cannot_be_decided_gets_one_more_digit():
    assert answer("1.0000000005*(ln(2) + ln(3))/ln(6)") == "≈ 1.0000000005"


def test_large_arguments_of_sine_are_right():
    with mpmath.workdps(400):
        expected = mpmath.sin(mpmath.mpf(10) ** 300)
        assert Fraction(answer("sin(10^300)")[2:]) == rounded(expected, 10)
