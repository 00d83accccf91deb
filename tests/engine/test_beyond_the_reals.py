"""Complex numbers by their parts against mpmath, nested expressions in every unit of
angles, and what is known of numbers whose digits do not show it.

``make prove-digits`` runs the same with many more arguments.
"""

import pytest

from tests.engine.answers import answer, error, mends, outcome, shown
from tests.engine.complex_references import REFERENCES, proved, sampled
from tests.engine.nested import differences
from tests.examples import part_of


@pytest.mark.parametrize("digits", [10, 30])
@pytest.mark.parametrize("typed", REFERENCES)
def test_both_parts_are_correctly_rounded(typed, digits):
    """Against mpmath at 60 digits."""
    found = [proved(typed, numbers, digits) for numbers in sampled(typed, 20)]
    assert list(filter(None, found)) == []


def test_nested_expressions_in_every_unit_have_no_wrong_digit():
    """Against mpmath at 80 digits."""
    wrong, refused = differences(part_of(1_000))
    assert wrong == []
    assert refused == []


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("sqrt(1-pi)", "≈ 1.46341814i"),
        ("sqrt(sin(4))", "≈ 0.869943961i"),
        ("(2-pi)^0.5", "≈ 1.068453393i"),
        ("(1-pi)^(1/3)", "≈ 0.6444891749 + 1.116287996i"),
        ("1-tanh(1400) as 30 digits", "≈ 1.89008208873125422166465651689e-1216"),
        ("sqrt(10^1000+1)-10^500 as 30 digits", "≈ 5.00000000000000000000000000000e-501"),
        ("arctan(i)", "= undefined"),
        ("arccot(i)", "= undefined"),
        ("arctan(2i)", "≈ (1.570796327 + 0.5493061443i) rad"),
        ("arcoth(0) as exact", "= (pi/2)i"),
        ("arsech(0)", "= infinity"),
        ("arcsch(0)", "= undefined"),
        ("exp(-1e50) - 1", "≈ -1"),
        ("exp(-10^400)", "≈ 0"),
        ("erfc(1e16)", "≈ 0"),
        ("tanh(5770428-3.7i)", "≈ 1"),
        ("1^pi", "= 1"),
        ("x = sin(1) + 2i; x - x", "= 0"),
        ("sin(1) - sin(1)", "= 0"),
        ("ln(6)/ln(6)", "= 1"),
        ("re(cos(arcsin(3)))", "= 0"),
        ("im(sin(1 + 2i)*conj(sin(1 + 2i)))", "= 0"),
    ],
)
def test_values_that_are_easily_lost(line, expected):
    assert answer(line) == expected


def test_what_is_too_small_to_be_shown_says_how_small_it_is():
    assert "smaller than 1e-1000000" in outcome("exp(-10^400)").notices[-1].text
    assert "imaginary part" in outcome("tanh(5770428-3.7i)").notices[-1].text


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("tanh(2000) < 1", "true"),
        ("tanh(2000) == 1", "false"),
        ("erf(100) != 1", "true"),
        ("erfc(40) > 0", "true"),
        ("exp(-1e50) > 0", "true"),
        ("1 - tanh(2000) > 0", "true"),
        ("-2*tanh(3000) > -2", "true"),
        ("sin(3) <= 1", "true"),
        ("sin(1)^2 + cos(1)^2 == 1", "undefined"),
        ("sin(1)^2 + cos(1)^2 < 1", "undefined"),
        ("sin(1)^2 + cos(1)^2 == 1 or true", "true"),
        ("sin(1)^2 + cos(1)^2 == 1 and false", "false"),
        ("not sin(1)^2 + cos(1)^2 == 1", "undefined"),
        ("1 < 2 < sin(1)^2 + cos(1)^2", "false"),
        ("if(sin(1)^2 + cos(1)^2 == 1, 2, 3)", "undefined"),
        ("max(sin(1)^2 + cos(1)^2, 1)", "1"),
    ],
)
def test_comparisons_are_decided_by_what_is_proved_or_not_at_all(line, expected):
    assert outcome(line).answers[0].text == expected


def test_what_is_not_decided_says_why():
    [notice] = outcome("sin(1)^2 + cos(1)^2 == 1").notices
    assert "cannot be told apart" in notice.text


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("2/3 + 1/7", "= 17/21 ≈ 0.8095238095"),
        ("sqrt(8)", "= 2*sqrt(2) ≈ 2.828427125"),
        ("sin(75°)", "= (sqrt(6) + sqrt(2))/4 ≈ 0.9659258263"),
        ("ln(-1)", "= pi i ≈ 3.141592654i"),
        ("sqrt(-21)", "= sqrt(21)i ≈ 4.582575695i"),
        ("radians(180)", "= pi ≈ 3.141592654"),
        ("1/2 + 1/4", "= 0.75"),
        ("2/3", "≈ 0.6666666667"),
        ("sqrt(2)", "≈ 1.414213562"),
        ("√2", "≈ 1.414213562"),
        ("2 pi", "≈ 6.283185307"),
        ("2*pi", "≈ 6.283185307"),
        ("1234567/7654321 + 1", "≈ 1.161290205"),
        ("2/3 + 1/7 as 4 digits", "≈ 0.8095"),
        ("[2/3 + 1/7]", "≈ [0.8095238095]"),
    ],
)
def test_an_exact_value_comes_before_its_decimal(line, expected):
    assert shown(line) == expected


def test_what_is_computed_from_decimals_gets_no_fraction():
    assert shown("0.5/3") == "≈ 0.1666666667"
    assert shown("a = 0.85", "b = 2", "b/a") == "≈ 2.352941176"
    assert shown("a = 0.85", "b = 2/a", "b/3", "@/7") == "≈ 0.1120448179"
    assert shown("a = 2", "b = 3", "(a/b + 1)/7") == "= 5/21 ≈ 0.2380952381"
    assert shown("sqrt(0.5)") == "≈ 0.7071067812"


def test_a_sheet_can_show_decimals_only_or_exact_values_only():
    assert shown("/show decimal", "2/3 + 1/7") == "≈ 0.8095238095"
    assert shown("/show exact", "2/3 + 1/7") == "= 17/21"
    data = outcome("2/3 + 1/7").as_dict()["answers"][0]
    assert (data["sign"], data["text"], data["also"]) == ("=", "17/21", ["≈ 0.8095238095"])


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("1234 as 2 digits", "≈ 1.2e3"),
        ("120000 as 3 digits", "= 1.20e5"),
        ("2.50 as 3 digits", "= 2.50"),
        ("2 as 3 digits", "= 2.00"),
        ("pi as 1 digit", "≈ 3"),
        ("2/3 as 1 place", "≈ 0.7"),
        ("1e100 as 3 places", "= 1.000e100"),
        ("12345678901234567890", "= 12345678901234567890"),
        ("123456789012.25", "≈ 123456789012"),
    ],
)
def test_digits_that_are_asked_for_are_kept_to(line, expected):
    assert answer(line) == expected


def test_so_are_those_of_the_sheet():
    assert answer("/show 4 digits", "12345.678") == "≈ 1.235e4"
    assert answer("/show 4 digits", "24288") == "≈ 2.429e4"
    assert answer("/show 4 digits", "2.5") == "= 2.5"


def test_equations_change_nothing():
    for line in ("sin(x) = 2", "x^2 = 4", "2x + 3 = 7"):
        assert error(line) == "equation"
    assert answer("sin(pi/6)") == "= 0.5"
    assert error("sin = cos") == "built-in-name"
    assert answer("/cover sin", "sin(x) = 3x", "sin(2)") == "= 6"
    assert error("/cover tea") == "unknown-name"
    assert mends("sin(x) = 2") == ["sin(x) == 2"]
