"""Measured values inside equations, integrals, derivatives and matrices.

What each gives is known in closed form too, and that is worked out with the uncertainties package
(E. O. Lebigot), which counts an input that is used twice once.
"""

from functools import partial

import pytest
from uncertainties import ufloat, umath

from teapot.engine import FullSheet
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.values import Uncertain

INPUTS = {
    "a": (2.0, 0.1),
    "b": (3.0, 0.2),
    "c": (0.5, 0.05),
}


def items_of(line):
    """The items of the answer, each with its value and its standard uncertainty."""
    sheet = FullSheet()
    for name, (value, deviation) in INPUTS.items():
        sheet.answer(f"{name} = {value} ± {deviation}")
    outcome = sheet.answer(line)
    assert outcome.error is None, outcome.error.text
    value = sheet.lines[-1].final_step.value
    return list(flat(value))


def flat(value):
    if hasattr(value, "items"):
        for one in value.items:
            yield from flat(one)
        return
    size = uncertain.size_of(value)
    deviation = uncertain.of(value).ball(64) if isinstance(value, Uncertain) else 0
    yield float(size.ball(64).mid()), float(deviation)


def square_roots(a, b, c):
    root = umath.sqrt(b * b - 4 * a * c)
    return [(b - root) / (2 * a), (b + root) / (2 * a)]


CLOSED = {
    "solve(a*x == b, x)": lambda a, b, c: [b / a],
    "solve(a x^2 - b x + c == 0, x)": square_roots,
    "solve(a*x^2 == b, x = 0..5)": lambda a, b, c: [umath.sqrt(b / a)],
    "solve(exp(a*x) == b, x = 0..5)": lambda a, b, c: [umath.log(b) / a],
    "solve(a*x == a^2, x)": lambda a, b, c: [a],
    "solve(x + a == a + 1, x)": lambda a, b, c: [1],
    "solve([a*x + y == b, x - y == c], [x, y])": lambda a, b, c: [
        (b + c) / (a + 1), (b + c) / (a + 1) - c
    ],
    "solve([a, 1; 1, 2], [b, 1])": lambda a, b, c: [
        (2 * b - 1) / (2 * a - 1), (a - b) / (2 * a - 1)
    ],
    "integral(a*x^2, x = 0..3)": lambda a, b, c: [9 * a],
    "integral(exp(-x/a), x = 0..b)": lambda a, b, c: [a * (1 - umath.exp(-b / a))],
    "integral(1/x, x = c..a)": lambda a, b, c: [umath.log(a / c)],
    "integral(exp(-a*x), x = 0..infinity)": lambda a, b, c: [1 / a],
    "derivative(sin(a*x), x = c)": lambda a, b, c: [a * umath.cos(a * c)],
    "derivative(x^3, x = a)": lambda a, b, c: [3 * a * a],
    "derivative(exp(-b x), x = c, order = 2)": lambda a, b, c: [b * b * umath.exp(-b * c)],
    "det([a, b; 1, c])": lambda a, b, c: [a * c - b],
    "det([a, 1; a, 1])": lambda a, b, c: [0],
    "inverse([a, 1; 1, b])": lambda a, b, c: [
        b / (a * b - 1), -1 / (a * b - 1), -1 / (a * b - 1), a / (a * b - 1)
    ],
}  # fmt: skip


@pytest.mark.parametrize("line", CLOSED)
def test_uncertainties_are_carried_through(line):
    expected = CLOSED[line](*(ufloat(*one) for one in INPUTS.values()))
    found = items_of(line)
    assert len(found) == len(expected)
    for (value, deviation), one in zip(found, expected, strict=True):
        assert value == pytest.approx(getattr(one, "n", one), rel=1e-12, abs=1e-12)
        assert deviation == pytest.approx(getattr(one, "s", 0), rel=1e-9)


def text_of(sheet, line):
    outcome = sheet.answer(line)
    assert outcome.error is None, outcome.error.text
    return f"{outcome.answers[-1].sign} {outcome.answers[-1].text}"


def test_a_function_of_ones_own_brings_its_measured_values():
    answer = partial(text_of, FullSheet())
    answer("m = 2.0 ± 0.1")
    answer("f(x) = m*x^2")
    assert answer("integral(f(x), x = 0..3)") == "≈ 18.00 ± 0.90"
    assert answer("solve(f(x) == 8, x)") == "≈ [-2.000 ± 0.050, 2.000 ± 0.050]"
    assert answer("derivative(f(x), x = 3)") == "≈ 12.00 ± 0.60"


def test_a_falling_body_with_units():
    answer = partial(text_of, FullSheet())
    answer("g = 9.81 ± 0.02 m/s^2")
    answer("h = 20.0 ± 0.1 m")
    t = umath.sqrt(2 * ufloat(20.0, 0.1) / ufloat(9.81, 0.02))
    found = answer("solve(h == 1/2*g*t^2, t = 0 s..10 s)")
    assert found == f"≈ ({t.n:.4f} ± {t.s:.4f}) s"


def test_where_solutions_come_or_go_no_uncertainty_is_claimed():
    sheet = FullSheet()
    sheet.answer("m = 2.0 ± 0.1")
    for line in ("solve(x^2 - 2x + (m - 1) == 0, x)", "solve(x^2 == m - 2, x)"):
        assert sheet.answer(line).error.code == "another-count"


def test_a_curve_of_measured_values_is_that_of_the_values_and_says_so():
    sheet = FullSheet()
    sheet.answer("m = 2.0 ± 0.1")
    outcome = sheet.answer("graph(m*x - 1, x = 0..2)")
    assert outcome.error is None
    assert [one.code for one in outcome.notices] == ["drawn-at-values"]
