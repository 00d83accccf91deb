"""Exact arithmetic against Python's own rationals, on random expressions."""

from fractions import Fraction

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from teapot.engine.forms.answer import write
from teapot.engine.numbers.values import Exact
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.sheet.evaluation import evaluate
from tests.engine.answers import answer
from tests.examples import tried_on

PARTS = ["number", "number", "+", "-", "*", "/", "mod", "div", "^", "sign", "bracket"]


class NoNames:
    """A scope without quantities."""

    form = STANDARD
    trace = None

    def quantity(self, name):
        return None

    def quantity_names(self):
        return ()


def expression(random, depth=5):
    """Text of an expression beside the Python expression of its exact value, and how
    tightly it binds.

    Only brackets and our own precedence decide how the text is read: the Python
    side is bracketed throughout.
    """
    kind = random.choice(PARTS) if depth else "number"
    if kind == "number":
        thousandths = random.randint(0, 10 ** random.randint(0, 6))
        return f"{thousandths / 1000:.3f}", f"Fraction({thousandths}, 1000)", 9
    left, value, level = expression(random, depth - 1)
    if kind == "bracket":
        return f"({left})", value, 9
    if kind == "sign":
        inner = left if level >= 3 else f"({left})"
        return f"-{inner}", f"(-{value})", 3
    if kind == "^":
        power = random.randint(0, 4)
        base = left if level == 9 else f"({left})"
        return f"{base}^{power}", f"({value}**{power})", 4
    right, other, other_level = expression(random, depth - 1)
    strength = {"+": 1, "-": 1, "*": 2, "/": 2, "mod": 2, "div": 2}[kind]
    left = left if level >= strength else f"({left})"
    right = right if other_level > strength else f"({right})"
    sign = {"mod": "%", "div": "//"}.get(kind, kind)
    typed = f" {kind} " if kind in ("mod", "div") else kind
    return f"{left}{typed}{right}", f"Fraction({value}{sign}{other})", strength


@tried_on(10_000)
@given(st.randoms(use_true_random=True))
def test_same_value_as_independent_rational_arithmetic(random):
    text, python, _ = expression(random)
    try:
        expected = eval(python, {"Fraction": Fraction})  # our own text, not a person's
    except ZeroDivisionError:
        return
    [statement] = parse(text).statements
    value = evaluate(statement.expression, NoNames())
    assert isinstance(value, Exact), text
    assert Fraction(int(value.coefficient.p), int(value.coefficient.q)) == expected, text


@tried_on(2000)
@example(Fraction(65132, 6597747), 14, 1)  # 12 figures, which one digit rounds up to 13
@given(
    st.fractions(max_denominator=10**9).filter(bool),
    st.integers(-25, 25),
    st.integers(1, 30),
)
def test_shown_digits_are_the_value_correctly_rounded(fraction, shift, digits):
    """ISO 80000-1, Annex B, rule A: ties to the even neighbour."""
    from flint import fmpq

    exact = fraction * Fraction(10) ** shift
    written = write(Exact(fmpq(exact.numerator, exact.denominator)), Form(digits=digits))
    shown = Fraction(written.text)
    assert (written.sign == "=") == (shown == exact)
    if shown != exact:
        place = Fraction(10) ** _last_place(exact, shown, digits)
        assert abs(shown - exact) <= place / 2
        if abs(shown - exact) == place / 2:
            assert (shown / place) % 2 == 0


def _last_place(exact, shown, digits):
    magnitude = 0
    while Fraction(10) ** (magnitude + 1) <= abs(exact):
        magnitude += 1
    while Fraction(10) ** magnitude > abs(exact):
        magnitude -= 1
    if digits == 10 <= magnitude < 12:
        return 0  # with the digits of a fresh sheet every figure before the point is shown
    return magnitude - digits + 1


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("2^100", "= 1267650600228229401496703205376"),
        ("10^39", "= 1000000000000000000000000000000000000000"),
        ("10^40", "= 1e40"),
        ("10^40 + 1", "≈ 1e40"),
        ("1/1024", "= 0.0009765625"),
        ("1e-6", "= 0.000001"),
        ("1e-7", "= 1e-7"),
        ("123456789012.5", "≈ 123456789012"),
        ("123456789013.5", "≈ 123456789014"),
        ("2/3*1e12", "≈ 666666666667"),
        ("2/3*1e13", "≈ 6.666666667e12"),
        ("1.00000000005", "≈ 1"),
        ("0.99999999995", "≈ 1"),
        ("0.99999999985", "≈ 0.9999999998"),
        ("-1/3", "≈ -0.3333333333"),
        ("sqrt(2)*1e11", "≈ 141421356237"),
    ],
)
def test_how_numbers_are_shown(line, expected):
    assert answer(line) == expected


@given(st.fractions(max_denominator=5000), st.integers(3, 20))
@tried_on(300)
def test_an_answer_typed_in_again_is_what_was_shown(fraction, digits):
    sheet_answer = answer(f"({fraction})", digits=digits)
    sign, text = sheet_answer.split(" ")
    if sign == "=":
        assert Fraction(text) == fraction
    assert Fraction(answer(text, digits=digits).split(" ")[1]) == Fraction(text)
