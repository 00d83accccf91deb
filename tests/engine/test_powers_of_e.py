"""Multiples of powers of e, which stay exact.  Python's fractions and mpmath are the references."""

import random
import re
from fractions import Fraction

import mpmath
import pytest

from tests.engine.answers import answer, outcome
from tests.engine.references import rounded


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("1/e*e", "= 1"),
        ("ln(1/e)", "= -1"),
        ("2e - e - e", "= 0"),
        ("3e^2/e^2", "= 3"),
        ("(2e)^3/e^3", "= 8"),
        ("e^-1 - 1/e", "= 0"),
        ("-1/e == -exp(-1)", "= true"),
        ("mean([e, 3e])/e", "= 2"),
        ("exp(pi)*exp(-pi)", "= 1"),
        ("e^(1/2)*sqrt(e)", "≈ 2.718281828"),
    ],
)
def test_what_comes_out_rational_is_exact(line, expected):
    assert answer(line) == expected


def test_products_that_come_out_rational_agree_with_python_fractions():
    dice = random.Random(1)
    for _ in range(100):
        line, expected, power = "1", Fraction(1), 0
        for _ in range(dice.randint(1, 6)):
            part, exponent = dice.choice([2, 4, 5, 8, 10, -16]), dice.randint(-9, 9)
            sign = dice.choice("*/")
            line += f"{sign}({part}*e^{exponent})"
            expected *= part if sign == "*" else Fraction(1, part)
            power += exponent if sign == "*" else -exponent
        shown = answer(f"{line}/e^{power} as fraction")
        assert shown == f"= {expected}", line


def _expression(dice, depth=4):
    if not depth or dice.random() < 0.2:
        whole = dice.randint(1, 6)
        return dice.choice([f"{whole}", "e", f"e**{whole}", f"{whole}/e", f"{whole}*e**-{whole}"])
    left, right = _expression(dice, depth - 1), _expression(dice, depth - 1)
    return f"({left}){dice.choice('+-**/')}({right})"


def test_random_expressions_agree_with_mpmath():
    dice = random.Random(1)
    for _ in range(300):
        line = _expression(dice)
        [shown] = outcome(line, digits=12).answers
        with mpmath.workdps(60):
            try:
                reference = eval(re.sub(r"\b(\d+)\b", r"mpf(\1)", line), vars(mpmath).copy())
            except ZeroDivisionError:
                assert shown.kind in ("infinity", "undefined"), line
                continue
            if shown.text == "0":
                assert abs(reference) < mpmath.mpf(10) ** -50, line
            else:
                assert Fraction(shown.text) == rounded(reference, 12), line


@pytest.mark.parametrize(
    ("line", "expected"),
    [("lambert_w(-1/e)", "= -1"), ("lambert_w(e)", "= 1"), ("lambert_w(2e^2)", "= 2")],
)
def test_the_inverse_of_w_exp_w_gives_w_back(line, expected):
    """NIST DLMF, 4.13.1 and figure 4.13.1: W(−1/e) = −1, W(e) = 1 (from memory)."""
    assert answer(line) == expected


def test_below_minus_one_it_is_the_other_root_of_the_principal_branch():
    with mpmath.workdps(60):
        reference = mpmath.lambertw(-3 * mpmath.exp(-3)).real
    shown = answer("lambert_w(-3e^-3)", digits=20)
    assert Fraction(shown.removeprefix("≈ ")) == rounded(reference, 20)
