"""Sums of roots, which stay exact.  SymPy and mpmath are the references."""

import random
from fractions import Fraction

import mpmath
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from tests.engine.answers import answer, outcome
from tests.engine.references import rounded


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("sqrt(2)^2", "= 2"),
        ("sqrt(2)*sqrt(8)", "= 4"),
        ("6/sqrt(8) - 3/sqrt(2)", "= 0"),
        ("cbrt(2)^3", "= 2"),
        ("root(7, 5)^10", "= 49"),
        ("sin(60°)^2", "= 0.75"),
        ("sin(15°)^2 + cos(15°)^2", "= 1"),
        ("tan(60°)/sqrt(3)", "= 1"),
        ("cos(36°) - cos(72°)", "= 0.5"),
        ("tan(22.5°) + 1 == sqrt(2)", "= true"),
        ("sqrt(2)*sqrt(3) == sqrt(6)", "= true"),
        ("(sqrt(2) - 1)*(sqrt(2) + 1)", "= 1"),
        ("arctan(sqrt(3)) as deg", "= 60°"),
        ("arccos(-sqrt(2)/2) as deg", "= 135°"),
        ("arctan(-1, sqrt(3)) as deg", "= -30°"),
        ("arctan(-1, -sqrt(3)) as deg", "= -150°"),
        ("arcsin((sqrt(5) - 1)/4) as deg", "= 18°"),
        ("lg(sqrt(10))", "= 0.5"),
        ("log(8, base=sqrt(2))", "= 6"),
        ("(5 ∠ 30°)*(2 ∠ 60°)", "= 10i"),
        ("abs(1 - sqrt(2)) + 1 == sqrt(2)", "= true"),
        ("hypot(1, sqrt(3))", "= 2"),
        ("sqrt(2)*pi/(pi*sqrt(2))", "= 1"),
    ],
)
def test_what_comes_out_rational_is_exact(line, expected):
    assert answer(line) == expected


def test_the_length_of_a_pendulum_comes_back_from_its_period():
    lines = ["l = 0.248", "g = 9.81", "T = 2 pi*sqrt(l/g)", "(T/(2 pi))^2*g"]
    assert answer(*lines) == "= 0.248"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("sqrt(12) as exact", "= 2*sqrt(3)"),
        ("2*sqrt(12) + 6 as exact", "= 6 + 4*sqrt(3)"),
        ("-sqrt(2) - sqrt(3) as exact", "= -sqrt(3) - sqrt(2)"),
        ("(sqrt(2) + sqrt(3))^2 as exact", "= 5 + 2*sqrt(6)"),
        ("1/(1 + cbrt(2)) as exact", "= (1 + cbrt(4) - cbrt(2))/3"),
        ("sqrt(2)^-3 as exact", "= sqrt(2)/4"),
        ("sqrt(sqrt(5)) as exact", "= root(5, 4)"),
        ("sqrt(2)*cbrt(3) as exact", "= root(72, 6)"),
        ("sqrt(2)*pi as exact", "= sqrt(2)*pi"),
        ("i*(1 - sqrt(2)) as exact", "= (1 - sqrt(2))i"),
        ("sqrt(-12) as exact", "= 2*sqrt(3)i"),
        ("(sqrt(2) - 1)*1° as exact", "= (sqrt(2) - 1)°"),
        ("cos(36°) as exact", "= (1 + sqrt(5))/4"),
    ],
)
def test_the_exact_form(line, expected):
    assert answer(line) == expected


def a_sum(seed):
    """A random sum of roots, as it is typed here and as SymPy has it."""
    import sympy  # which takes seconds

    chance = random.Random(seed)
    typed, known = [], sympy.Integer(0)
    for _ in range(chance.randint(1, 3)):
        number, below = chance.choice([1, 2, 3, 5, 6, 8, 12]), chance.choice([1, 2, 3, 4])
        times = chance.choice([-3, -2, -1, 1, 2, 3])
        typed.append(f"({times})*sqrt({number})/{below}")
        known += sympy.Rational(times, below) * sympy.sqrt(number)
    return "(" + " + ".join(typed) + ")", known


@pytest.mark.parametrize("seed", range(40))
def test_sums_products_and_quotients_are_those_of_sympy(seed):
    import sympy  # which takes seconds

    (one, known), (other, its_known) = a_sum(seed), a_sum(seed + 1000)
    lines = {
        f"{one} + {other}": known + its_known,
        f"{one}*{other}": sympy.expand(known * its_known),
        f"{one}^3": sympy.expand(known**3),
    }
    if its_known != 0:
        lines[f"{one}/{other}"] = sympy.radsimp(known / its_known)
    for line, expected in lines.items():
        sign, text = answer(f"{line} as exact").split(" ", 1)
        shown = sympy.sympify(text, locals={"cbrt": sympy.cbrt}, rational=True)
        assert sign == "="
        assert sympy.radsimp(sympy.expand(shown - expected)) == 0, line


@pytest.mark.parametrize("seed", range(40))
def test_the_digits_of_a_sum_are_those_of_mpmath(seed):
    (one, _), (other, its_known) = a_sum(seed), a_sum(seed + 2000)
    if its_known == 0:
        return
    with mpmath.workdps(60):
        expected = mpmath.mpf(1) * eval(f"({one})/({other})", {"sqrt": mpmath.sqrt})
        shown = answer(f"{one}/{other} as 30 digits").split(" ", 1)[1]
        if abs(expected) > mpmath.mpf(10) ** -40:
            assert Fraction(shown) == rounded(expected, 30)


@example(129230, 8, 7)  # 36 figures under the root
@example(510510, 12, 7)  # many small primes: 40 figures
@given(st.integers(2, 10**6), st.integers(2, 12), st.integers(2, 12))
def test_roots_and_powers_undo_each_other(number, degree, power):
    assert answer(f"root({number}^{power}, {degree})^{degree}") == answer(f"{number}^{power}")


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("exp(ln(5))", "= 5"),
        ("10^lg(7)", "= 7"),
        ("2^lb(3)", "= 3"),
        ("e^ln(3/7) as fraction", "= 3/7"),
        ("3^log(5, base=3)", "= 5"),
        ("e^2*e^3 - e^5", "= 0"),
        ("e^2/e^2", "= 1"),
        ("ln(e*e^2)", "= 3"),
        ("exp(1) == e", "= true"),
        ("ln(5) - ln(5)", "= 0"),
    ],
)
def test_powers_and_logarithms_undo_each_other(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("cos(arctan(3/4))", "= 0.8"),
        ("sin(arcsin(0.3))", "= 0.3"),
        ("sin(-arcsin(0.3))", "= -0.3"),
        ("tan(arcsin(0.6))", "= 0.75"),
        ("sin(arccos(-0.6))", "= 0.8"),
        ("cos(arctan(-3, -4))", "= -0.8"),
        ("sec(arctan(3/4) as deg)", "= 1.25"),
        ("sin(arctan(2)) as exact", "= 2*sqrt(5)/5"),
        ("cos(arctan(sqrt(2))) as exact", "= sqrt(3)/3"),
        ("2*sin(arctan(3/4))*cos(arctan(3/4))", "= 0.96"),
        ("5 ∠ arctan(4/3)", "= 3 + 4i"),
        ("abs(3 + 4i)*exp(i*arg(3 + 4i))", "= 3 + 4i"),
        ("(3 + 4i)^0.5", "= 2 + i"),
        ("sqrt(-5 + 12i)", "= 2 + 3i"),
        ("(-3 - 4i)^(1/2)", "= 1 - 2i"),
    ],
)
def test_an_angle_gives_back_the_sine_and_the_cosine_it_was_made_from(line, expected):
    assert answer(line) == expected


@given(st.fractions(-50, 50, max_denominator=60), st.fractions(-50, 50, max_denominator=60))
def test_the_root_of_a_square_is_the_number_again(re, im):
    """Up to the sign: the root has no negative real part."""
    if im == 0 or re <= 0:
        return
    number = f"{re.numerator}/{re.denominator} + ({im.numerator}/{im.denominator})*i"
    assert answer(f"sqrt(({number})^2) == {number}") == "= true"


def test_a_long_sum_of_roots_goes_on_with_proved_digits():
    result = outcome("sum(sqrt(1..100))").answers[0]
    with mpmath.workdps(40):
        expected = sum(mpmath.sqrt(n) for n in range(1, 101))
        assert Fraction(result.text) == rounded(expected, 10)
    assert result.sign == "≈"


@pytest.mark.parametrize(
    "line",
    [
        "sqrt(2)^100000",
        "(sqrt(2) + cbrt(3))^900",
        "(sqrt(2) - 1)^400",
        "sqrt(10^300 + 1)",
        "sqrt(10^30 + 57*10^12 + 1)",
        "1/(sqrt(2) + sqrt(3) + sqrt(5) + sqrt(7) + sqrt(11) + sqrt(13))",
        "2^(1/9999)",
    ],
)
def test_what_is_too_long_to_be_kept_is_answered_with_digits(line):
    result = outcome(line).answers[0]
    with mpmath.workdps(2000):
        typed = line.replace("^", "**").replace("1/9999", "mpf(1)/9999")
        names = {"sqrt": mpmath.sqrt, "cbrt": mpmath.cbrt, "mpf": mpmath.mpf}
        expected = eval(typed, names)
        assert mpmath.almosteq(mpmath.mpf(result.text), expected, rel_eps=mpmath.mpf(10) ** -9)
