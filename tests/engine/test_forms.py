"""Forms of an answer; what is copied goes back in as the same value."""

from fractions import Fraction

import mpmath
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.answers import answer, error, outcome
from tests.examples import tried_on


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("2/3 + 1/12 as fraction", "= 3/4"),
        ("0.75 as fraction", "= 3/4"),
        ("7/3 as mixed", "= 2 + 1/3"),
        ("-7/3 as mixed", "= -2 - 1/3"),
        ("2/3 as mixed", "= 2/3"),
        ("6/3 as mixed", "= 2"),
        ("pi as fraction, 3 digits", "≈ 22/7"),
        ("pi as fraction, 7 digits", "≈ 355/113"),
        ("123456 as engineering", "= 123.456e3"),
        ("0.00123 as engineering", "= 1.23e-3"),
        ("12345.678 as scientific, 4 digits", "≈ 1.235e4"),
        ("0.000123 as scientific", "= 1.23e-4"),
        ("2.5 as 2 places", "= 2.50"),
        ("2/3 as 4 digits", "≈ 0.6667"),
        ("sqrt(4.0001) as 4 digits", "≈ 2.000"),
        ("0.125 as percent", "= 12.5%"),
        ("1/3 as percent, 2 places", "≈ 33.33%"),
        ("255 as hex", "= 0xFF"),
        ("-10 as binary", "= -0b1010"),
        ("8 as octal", "= 0o10"),
        ("1/2^20 as exact", "= 0.00000095367431640625"),
        ("1/3 as exact", "= 1/3"),
        ("pi/6 as exact", "= pi/6"),
        ("-5 pi/3 as exact", "= -5 pi/3"),
        ("1/pi as exact", "= 1/pi"),
        ("2/(3 pi) as exact", "= 2/(3 pi)"),
        ("10^45 as exact", "= 1" + "0" * 45),
        ("1e15 as decimal", "= 1000000000000000"),
        ("0.1+0.2 as binary64", "→ 0.30000000000000004"),
        ("sin(pi) as binary64", "→ 1.2246467991473532e-16"),
        ("1/0 as binary64", "→ infinity"),
        ("x = 1/3 as fraction", "= 1/3"),
        ("1/8 as fraction; 1/8", "= 0.125"),
        # ISO 80000-1, Annex B, B.3 rule A: 12.25 to tenths is 12.2, 12.35 is 12.4
        ("12.25 as 1 places", "≈ 12.2"),
        ("12.35 as 1 places", "≈ 12.4"),
    ],
)
def test_form(line, expected):
    assert answer(line) == expected


def test_pi_as_50_digits_is_right_in_every_digit():
    with mpmath.workdps(60):
        expected = mpmath.nstr(mpmath.pi, 50)
    assert answer("pi as 50 digits") == f"≈ {expected}"


def test_binary64_shows_the_true_value_and_the_distance():
    [first] = outcome("0.1 + 0.2 as binary64").answers
    assert first.also == ("true value = 0.3", "distance about 4.441e-17")
    [second] = outcome("sin(pi) as binary64").answers
    assert second.also[0] == "true value = 0"


@tried_on(300)
@given(
    st.floats(-1e6, 1e6, allow_nan=False),
    st.floats(-1e6, 1e6, allow_nan=False),
    st.sampled_from("+-*/"),
)
def test_binary64_is_what_ieee_754_arithmetic_gives(a, b, op):
    """Against the processor's own arithmetic, through Python's floats."""
    if op == "/" and b == 0:
        return
    expected = eval(f"a{op}b", {"a": a, "b": b})  # our own text
    text = answer(f"({a!r}){op}({b!r}) as binary64").removeprefix("→ ")
    assert float(text) == expected


@tried_on(300)
@given(
    st.fractions(max_denominator=10**6),
    st.sampled_from(["fraction", "mixed", "percent", "scientific", "engineering", "exact"]),
)
def test_a_copied_answer_goes_back_in_as_the_same_value(value, form):
    sign, text = answer(f"({value}) as {form}").split(" ", 1)
    again = Fraction(answer(f"({text}) as fraction").split(" ", 1)[1])
    if sign == "=":
        assert again == value
    else:
        assert abs(again - value) <= abs(value) * Fraction(1, 10**9)


def test_the_simplest_fraction_is_shown_for_what_is_not_rational():
    """Against Python's own best approximation with a bounded denominator."""
    text = answer("sqrt(2) as fraction, 6 digits").removeprefix("≈ ")
    found = Fraction(text)
    with mpmath.workdps(30):
        root = Fraction(str(mpmath.sqrt(2)))
    assert f"{float(found):.6g}" == "1.41421"
    for denominator in range(1, found.denominator):
        nearest = Fraction(round(root * denominator), denominator)
        assert f"{float(nearest):.6g}" != "1.41421"


def test_the_form_of_the_sheet_and_its_place():
    assert answer("/show 4 digits", "1/3") == "≈ 0.3333"
    assert answer("/show scientific", "12345") == "= 1.2345e4"
    assert outcome("1/3 as fraction").answers[0].form == "fraction"
    assert outcome("1/3").answers[0].form == ""


def test_what_a_form_cannot_show_is_an_error_at_the_form():
    result = outcome("0.5 as hex")
    assert result.error.code == "form-for-whole"
    assert result.error.span == (4, 10)
    assert error("1 as nonsense") == "unknown-form"
    assert error("1 as 0 digits") == "bad-count"
    assert error("/show nonsense") == "unknown-form"
