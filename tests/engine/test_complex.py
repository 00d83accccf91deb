"""Complex numbers, against Python's own and mpmath's."""

import cmath

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from teapot.engine.numbers.values import Angle, Complex
from tests.engine.answers import answer, error, mends, outcome, value_of_line

pytestmark = pytest.mark.slow


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("i^2", "= -1"),
        ("3 + 2i", "= 3 + 2i"),
        ("3 - 2j", "= 3 - 2i"),
        ("(3 + 2i)(3 - 2i)", "= 13"),
        ("(1 + i)^8", "= 16"),
        ("(3 + 4i)/(1 - 2i)", "= -1 + 2i"),
        ("1/i", "= -i"),
        ("(1 + 2i)/3 as fraction", "= 1/3 + (2/3)i"),
        ("conj(3 + 2i)", "= 3 - 2i"),
        ("|3 + 4i|", "= 5"),
        ("re(2i)", "= 0"),
        ("arg(-1 - i) as deg", "= -135°"),
        ("sqrt(-4)", "= 2i"),
        ("sqrt(3 + 4i)", "= 2 + i"),
        ("sqrt(-3 - 4i)", "= 1 - 2i"),
        ("(-1)^(3/2)", "= -i"),
        ("(-8)^(1/3)", "≈ 1 + 1.732050808i"),
        ("e^(i*pi)", "= -1"),
        ("exp(i*pi/2)", "= i"),
        ("ln(-1)/i as exact", "= pi"),
        ("i^i", "≈ 0.2078795764"),
        ("i^-2", "= -1"),
        ("(1 + i)^-2", "= -0.5i"),
        ("log(i, undefined)", "= undefined"),
        ("log(i, i)", "= 1"),
        ("5 ∠ 30°", "≈ 4.330127019 + 2.5i"),
        ("2 ∠ 90°", "= 2i"),
        ("3 + 4i as polar", "≈ 5∠0.927295218 rad"),
        ("2i as polar, deg", "= 2∠90°"),
        ("arcosh(0.5)", "≈ 1.047197551i"),
        ("3 + 2i == 3 + 2i", "= true"),
        ("i == 1", "= false"),
        ("tidy(2 + 1e-13*i)", "= 2"),
        ("[1, i]*i", "= [i, -1]"),
    ],
)
def test_complex_numbers(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("i < 2", "no-order"),
        ("i mod 2", "complex-order"),
        ("i!", "not-a-number"),
        ("gcd(i, 2)", "not-a-number"),
        ("2i as hex", "form-for-number"),
        ("sort([i, 1])", "complex-order"),
        ("i ∠ 2", "bad-modulus"),
    ],
)
def test_what_complex_numbers_have_not(line, code):
    assert error(line) == code


def test_leaving_the_reals_is_told_and_can_be_forbidden():
    assert [notice.code for notice in outcome("sqrt(-21)").notices] == ["left-the-reals"]
    assert mends("(-8)^(1/3)") == ["cbrt(-8)"]
    assert mends("(-32)^(1/5)") == ["root(-32, 5)"]
    assert error("/numbers real", "sqrt(-21)") == "not-real"
    assert error("/numbers real", "3 + 2i") == "not-real"


PARTS = st.integers(-50, 50)
NUMBERS = st.builds(complex, PARTS, PARTS)
FUNCTIONS = {
    "exp": cmath.exp, "ln": cmath.log, "sqrt": cmath.sqrt, "sin": cmath.sin, "cos": cmath.cos,
    "tan": cmath.tan, "sinh": cmath.sinh, "cosh": cmath.cosh, "tanh": cmath.tanh,
    "arcsin": cmath.asin, "arccos": cmath.acos, "arctan": cmath.atan, "arsinh": cmath.asinh,
    "arcosh": cmath.acosh, "artanh": cmath.atanh, "lg": cmath.log10,
}  # fmt: skip


def value_of(line: str) -> complex:
    value = value_of_line(line)
    value = value.size if isinstance(value, Angle) else value
    parts = (value.re, value.im) if isinstance(value, Complex) else (value, None)
    return complex(*(float(part.ball(128).mid()) if part is not None else 0.0 for part in parts))


@pytest.mark.parametrize("name", FUNCTIONS)
@given(z=NUMBERS)
def test_functions_agree_with_the_c_library(name, z):
    small = z / 20
    # off the axes: there the C library tells sides of a cut by the sign of a zero
    assume(small.real and small.imag)
    typed = f"{name}({small.real!r} + ({small.imag!r})i)"
    expected = FUNCTIONS[name](small)
    assert abs(value_of(typed) - expected) <= 1e-11 * max(1, abs(expected))


@given(NUMBERS, NUMBERS, st.sampled_from("+-*/"))
def test_arithmetic_agrees_with_python(a, b, op):
    assume(op != "/" or b)
    expected = {"+": a + b, "-": a - b, "*": a * b, "/": b and a / b}[op]
    typed = f"({a.real} + ({a.imag})i) {op} ({b.real} + ({b.imag})i)"
    assert abs(value_of(typed) - expected) <= 1e-11 * max(1, abs(expected))


@given(NUMBERS)
def test_the_text_of_a_complex_number_typed_again_is_the_same_answer(z):
    shown = answer(f"({z.real} + ({z.imag})i)/7")
    assert answer(shown[2:])[2:] == shown[2:]
