"""Integrals in integrals, and integrals whose ends are bound: areas, the fundamental theorem and
what is solved and drawn of them.

The exact values are common practice of the trade (any course of calculus); the others are worked
out by mpmath's quadrature to 30 digits.
"""

import mpmath
import pytest

from tests.engine.answers import answer, error, mends, outcome


@pytest.mark.parametrize(
    ("line", "wanted"),
    [
        ("integral(integral(x*y, x = 0..1), y = 0..2)", "1"),
        ("integral(integral(x*y, x = 0..y), y = 0..2)", "2"),
        ("integral(integral(x^2 + y^2, y = 0..1-x), x = 0..1)", "1/6"),
        ("integral(integral(integral(x*y*z, x = 0..1), y = 0..1), z = 0..1)", "0.125"),
        ("integral(integral(t, t = 0..1)*t, t = 0..2)", "1"),
        ("derivative(integral(t^2, t = 0..x), x = 2)", "4"),
        ("derivative(integral(t^2, t = x..x^2), x = 2)", "60"),
        ("solve(integral(t^2, t = 0..x) == 9, x = 0..5)", "3"),
        ("integral(integral(2 N/m^2, x = 0..3 m), y = 0..4 m)", "24 N"),
    ],
)
def test_polynomials_are_integrated_exactly(line, wanted):
    found = outcome(line).answers[-1]
    assert (found.sign, found.text) == ("=", wanted)


def twice(function, ends, inner):
    """The integral of a function of two numbers, the inner one between ends that may depend on
    the outer one."""
    return mpmath.quad(lambda y: mpmath.quad(lambda x: function(x, y), inner(y)), ends)


DOUBLE = {
    "integral(integral(exp(-x^2 - y^2), x = 0..1), y = 0..1)": lambda m: (
        (m.sqrt(m.pi) / 2 * m.erf(1)) ** 2
    ),
    "integral(integral(1/(x + y), x = 1..2), y = 1..2)": lambda m: 10 * m.log(2) - 6 * m.log(3),
    "integral(integral(sin(x*y), x = 0..1), y = 0..1)": lambda m: m.euler - m.ci(1),
    "integral(integral(exp(x*y), x = 0..y), y = 0..1)": lambda m: twice(
        lambda x, y: m.exp(x * y), [0, 1], lambda y: [0, y]
    ),
    "integral(integral(cos(x + y^2), x = y..y^2), y = 1..2)": lambda m: twice(
        lambda x, y: m.cos(x + y * y), [1, 2], lambda y: [y, y * y]
    ),
    "integral(integral(1, y = -sqrt(1 - x^2)..sqrt(1 - x^2)), x = -1..1)": lambda m: m.pi,
    "integral(exp(-integral(1/t, t = 1..x)), x = 1..3)": lambda m: m.log(3),
}


@pytest.mark.parametrize("line", DOUBLE)
def test_others_are_integrated_with_every_digit_right(line):
    with mpmath.workdps(30):
        wanted = mpmath.nstr(DOUBLE[line](mpmath.mp), 15)
    assert answer(line, digits=15) == f"≈ {wanted}"


FUNCTIONS = {
    "exp(-t^2), t = 0..x": lambda m, x: m.exp(-x * x),
    "sin(t)/t, t = 0..x": lambda m, x: m.sin(x) / x,
    "sin(x*t), t = 0..1": lambda m, x: m.quad(lambda t: t * m.cos(x * t), [0, 1]),
    "sin(x*t), t = 0..x": lambda m, x: m.sin(x * x) + m.quad(lambda t: t * m.cos(x * t), [0, x]),
    "ln(t + x), t = x..x^2": lambda m, x: (
        2 * x * m.log(x * x + x) - m.log(2 * x) + m.quad(lambda t: 1 / (t + x), [x, x * x])
    ),
}


@pytest.mark.parametrize("inside", FUNCTIONS)
@pytest.mark.parametrize("place", ["0.5", "2", "2.75"])
def test_the_derivative_of_an_integral_is_by_leibniz_rule(inside, place):
    with mpmath.workdps(30):
        wanted = mpmath.nstr(FUNCTIONS[inside](mpmath.mp, mpmath.mpf(place)), 12, min_fixed=-9)
    line = f"derivative(integral({inside}), x = {place})"
    assert answer(line, digits=12) == f"≈ {wanted}"


def test_higher_derivatives_agree_with_those_of_what_is_inside():
    for order in (2, 3, 4):
        through = f"derivative(integral(exp(-t^2), t = 0..x), x = 2, order = {order})"
        directly = f"derivative(exp(-x^2), x = 2, order = {order - 1})"
        assert answer(through, digits=12) == answer(directly, digits=12)


def test_where_an_integral_has_a_value_is_solved():
    """The mean of a Gaussian's upper half is where the share is 3/4: 0.674490 (any table)."""
    share = "integral(exp(-t^2/2)/sqrt(2 pi), t = 0..x)"
    assert answer(f"solve({share} == 1/4, x = 0..3)", digits=5) == "≈ 0.67449"
    three = answer("solve(integral(cos(t^2), t = 0..x) == 0.5, x = 0..3)")
    roots = [mpmath.mpf(one) for one in three.strip("≈ []").split(", ")]
    assert len(roots) == 3
    for root in roots:
        assert abs(mpmath.quad(lambda t: mpmath.cos(t * t), [0, root]) - 0.5) < 1e-8


def test_an_integral_is_drawn():
    assert outcome("graph(integral(exp(-t^2), t = 0..x), x = -2..2)").error is None


@pytest.mark.parametrize(
    "line",
    [
        "integral(integral(exp(-x*y), x = 0..infinity), y = 1..2)",
        "derivative(integral(abs(t) ± 0.1, t = 0..x), x = 1)",
        "integral(integral(x), y = 0..1)",
    ],
)
def test_what_is_not_looked_into_has_a_sentence(line):
    assert error(line) != "unforeseen"


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("integral(x*y, x = 0..1, y = 0..2)", "integral(integral(x*y, x = 0..1), y = 0..2)"),
        ("integral(x*y, x = 0..1, y = 0..x)", "integral(integral(x*y, y = 0..x), x = 0..1)"),
        ("∫_0^1 ∫_0^2 x y dx dy", "integral(integral(x y, x = 0..2), y = 0..1)"),
        (r"\int_0^1 \int_0^2 x y \,dx\,dy", "integral(integral(x y, x = 0..2), y = 0..1)"),
        ("d/dx ∫_0^x t^2 dt at 2", "derivative(integral(t^2, t = 0..x), x = 2)"),
        ("∑_{k=1}^{3} ∑_{j=1}^{k} j", "sum(sum(j, j = 1..k), k = 1..3)"),
    ],
)
def test_how_it_is_put_elsewhere_gets_the_call(line, meant):
    assert mends(line) == [meant]
    assert outcome(meant).status == "ok"
