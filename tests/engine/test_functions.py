"""Functions: every example of the catalogue, and digits against mpmath."""

import decimal
from fractions import Fraction

import mpmath
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from engine.functions.catalogue import BY_NAME, FUNCTIONS
from tests.engine.answers import answer, outcome

EXAMPLES = [(f.name, example) for f in FUNCTIONS for example in f.examples]


@pytest.mark.parametrize(("name", "example"), EXAMPLES, ids=lambda v: getattr(v, "input", v))
def test_example(name, example):
    assert answer(example.input) == f"{example.sign} {example.text}"
    assert name in example.input or name == "abs"


def test_every_record_is_whole():
    for function in FUNCTIONS:
        assert function.summary.endswith(".")
        assert function.source
        assert len(function.examples) >= 2
        assert all(name in BY_NAME for name in function.related)


POSITIVE = st.decimals("1e-8", "1e8", allow_nan=False).map(lambda d: f"{d:.9f}")
ANY = st.decimals(-1000, 1000, places=6, allow_nan=False).map(str)
SMALL = st.decimals(-300, 300, places=6, allow_nan=False).map(str)
AGAINST = {
    "sqrt": (POSITIVE, mpmath.sqrt),
    "exp": (SMALL, mpmath.exp),
    "ln": (POSITIVE, mpmath.log),
    "lg": (POSITIVE, mpmath.log10),
    "lb": (POSITIVE, lambda x: mpmath.log(x) / mpmath.log(2)),
    "sin": (ANY, mpmath.sin),
    "cos": (ANY, mpmath.cos),
    "tan": (ANY, mpmath.tan),
}


def rounded(value: mpmath.mpf, digits: int) -> Fraction:
    """mpmath's 60 digits rounded by Python's decimals.

    ``mpmath.nstr`` is not used: near a tie it rounds twice.
    """
    sign, mantissa, exponent, _ = value._mpf_
    exact = (-1) ** sign * Fraction(int(mantissa)) * Fraction(2) ** exponent
    context = decimal.Context(prec=digits, rounding=decimal.ROUND_HALF_EVEN)
    quotient = context.divide(decimal.Decimal(exact.numerator), decimal.Decimal(exact.denominator))
    return Fraction(quotient)


@pytest.mark.parametrize("name", AGAINST)
@pytest.mark.parametrize("digits", [10, 30])
def test_digits_are_those_of_mpmath_at_60_digits(name, digits):
    arguments, reference = AGAINST[name]

    @settings(max_examples=120, deadline=None)
    @given(arguments)
    def check(x):
        with mpmath.workdps(60):
            expected = reference(mpmath.mpf(x))
            if not expected:
                return
            sign, text = answer(f"{name}({x})", digits=digits).split(" ")
            if sign == "=":
                assert mpmath.almosteq(mpmath.mpf(text), expected, 1e-50)
            elif abs(expected) < 10**digits:
                assert Fraction(text) == rounded(expected, digits)

    check()


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
        ("e^ln(2)", "≈ 2"),
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
    ("line", "table", "expected"),
    [
        # Abramowitz & Stegun, Handbook of Mathematical Functions (values from memory)
        ("pi", "Table 1.1", "3.141592653589793238462643"),
        ("e", "Table 1.1", "2.718281828459045235360287"),
        ("sqrt(2)", "Table 1.1", "1.414213562373095048801689"),
        ("ln(2)", "Table 1.1", "0.6931471805599453094172321"),
        ("ln(10)", "Table 1.1", "2.302585092994045684017991"),
        ("sin(1)", "Table 4.6", "0.8414709848078965066525023"),
        ("cos(1)", "Table 4.6", "0.5403023058681397174009366"),
        ("exp(10)", "Table 4.4", "22026.46579480671651695790"),
    ],
)
def test_handbook_tables(line, table, expected):
    assert answer(line, digits=25).removeprefix("≈ ") == expected.rstrip("0")


def test_a_difference_that_cannot_be_told_from_zero_says_so():
    result = outcome("x = sqrt(2)", "x^2 - 2")
    assert (result.answers[0].sign, result.answers[0].text) == ("≈", "0")
    assert "smaller than 1e-12" in result.notices[0].text


def test_cancellation_is_computed_again_with_more_digits():
    with mpmath.workdps(80):
        expected = mpmath.sqrt(mpmath.mpf(10) ** 40 + 1) - mpmath.mpf(10) ** 20
        assert Fraction(answer("sqrt(10^40 + 1) - 10^20")[2:]) == rounded(expected, 10)


def test_a_tie_that_cannot_be_decided_gets_one_more_digit():
    assert answer("sqrt(1.0000000005)^2") == "≈ 1.0000000005"


def test_large_arguments_of_sine_are_right():
    with mpmath.workdps(400):
        expected = mpmath.sin(mpmath.mpf(10) ** 300)
        assert Fraction(answer("sin(10^300)")[2:]) == rounded(expected, 10)
