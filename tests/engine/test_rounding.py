"""Rounding against the worked examples of ISO 80000-1, Annex B (from memory of its
text), and of the digits shown against Python's decimals."""

import decimal
from fractions import Fraction

import pytest
from flint import fmpq
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine.numbers.decimal import magnitude_of, significant, to_places
from teapot.engine.numbers.values import Exact
from tests.engine.answers import answer
from tests.examples import tried_on

# number, places, rule A, rule B
ISO_80000_1_ANNEX_B = [
    ("12.223", 1, "12.2", "12.2"),
    ("12.251", 1, "12.3", "12.3"),
    ("12.275", 1, "12.3", "12.3"),
    ("1222.3", -1, "1220", "1220"),
    ("1225.1", -1, "1230", "1230"),
    ("1227.5", -1, "1230", "1230"),
    ("12.25", 1, "12.2", "12.3"),
    ("12.35", 1, "12.4", "12.4"),
    ("1225.0", -1, "1220", "1230"),
    ("1235.0", -1, "1240", "1240"),
]


@pytest.mark.parametrize(("number", "places", "rule_a", "rule_b"), ISO_80000_1_ANNEX_B)
def test_worked_examples_of_the_standard(number, places, rule_a, rule_b):
    assert answer(f"round({number}, {places})") == f"= {rule_a}"
    assert answer(f'round({number}, {places}, ties="away")') == f"= {rule_b}"
    assert answer(f"round(-{number}, {places})") == f"= -{rule_a}"


NUMBERS = st.fractions(max_denominator=10**8).filter(bool)


@tried_on(500)
@given(NUMBERS, st.integers(1, 25))
def test_significant_digits_against_python_decimals(number, digits):
    rounded = significant(Exact(fmpq(number.numerator, number.denominator)), digits)
    shown = Fraction(int(rounded.mantissa)) * Fraction(10) ** rounded.exponent
    context = decimal.Context(prec=digits, rounding=decimal.ROUND_HALF_EVEN)
    expected = context.divide(
        decimal.Decimal(number.numerator), decimal.Decimal(number.denominator)
    )
    assert shown == Fraction(expected)
    assert rounded.exact == (shown == number)


@tried_on(500)
@given(NUMBERS, st.integers(-3, 20))
def test_places_are_within_half_a_unit(number, places):
    rounded = to_places(Exact(fmpq(number.numerator, number.denominator)), places)
    shown = Fraction(int(rounded.mantissa)) * Fraction(10) ** rounded.exponent
    assert abs(shown - number) <= Fraction(1, 2) / Fraction(10) ** places


@tried_on(500)
@given(NUMBERS, st.integers(-60, 60))
def test_the_magnitude_is_the_power_of_the_first_figure(number, shift):
    number *= Fraction(10) ** shift
    power = magnitude_of(fmpq(number.numerator, number.denominator))
    assert Fraction(10) ** power <= abs(number) < Fraction(10) ** (power + 1)
