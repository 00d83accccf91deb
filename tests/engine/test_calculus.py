"""Solutions, sums, integrals and derivatives over a bound name, matrices and distributions.

Values without a source are from memory, and each is seen from another side in
:mod:`tests.engine.calculus_cases`, of which ``make prove-calculus`` tries hundreds.
"""

import math
import random
from fractions import Fraction

import mpmath
import pytest
from flint import fmpq, fmpq_poly

from teapot.engine import FullSheet, LineError
from teapot.engine.aids import graph
from teapot.engine.analysis import slopes
from teapot.engine.numbers.complexes import parts
from teapot.engine.numbers.tables import in_numbers
from teapot.engine.sheet.editing import renamed_throughout
from tests.engine import calculus_cases
from tests.engine.answers import mends
from tests.engine.test_sheet import state
from tests.engine.test_slips import offered
from tests.examples import part_of


def answered(*lines):
    sheet = FullSheet()
    return [sheet.answer(line) for line in lines][-1]


def text_of(*lines):
    found = answered(*lines)
    assert found.error is None, found.error.text
    return f"{found.answers[-1].sign} {found.answers[-1].text}"


def items_of(*lines):
    sheet = FullSheet()
    for line in lines:
        outcome = sheet.answer(line)
        assert outcome.error is None, outcome.error.text
    value = sheet.lines[-1].final_step.value
    return list(value.items) if hasattr(value, "items") else [value]


# -- solve --------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["solve(2x + 3 == 7, x)"], "= 2"),
        (["solve(x^2 == 5, x)"], "= [-sqrt(5), sqrt(5)]"),
        (["solve(x^3 - 6x^2 + 11x - 6 == 0, x)"], "= [1, 2, 3]"),
        (["solve((x-1)^2 == 0, x = 0..2)"], "= 1"),
        (["solve((x-1)^2*exp(x) == 0, x = 0..2)"], "= 1"),
        (["solve(cos(t) == t, t = 0..2)"], "≈ 0.7390851332"),
        (["solve(x^2 == -1, x)"], "= [-i, i]"),
        (["solve(1/x + 1/(x + 1) == 1, x = 0..5)"], "= (1 + sqrt(5))/2"),
        (["solve(cos(x) == 0.5, x = 0°..360°)"], "= [60°, 300°]"),
        (["a = 3", "solve(a*x == 12, x)"], "= 4"),
        (["f(x) = x^2 + 1", "solve(f(x) == 5, x)"], "= [-2, 2]"),
        (["solve(2 m*y == 4 m^2, y)"], "= 2 m"),
        (["solve(x^3 == 8 m^3, x)"], "= 2 m"),
        (["solve(20 °C + x == 80 °C, x)"], "= 60 K"),
        (["solve(9.81 m/s^2*t^2/2 == 20 m, t = 0 s..10 s)"], "≈ 2.019275109 s"),
        (
            ["m = 2 kg", "h = 10 m", "g = 9.81 m/s^2",
             "solve(m*g*h == 1/2 m v^2, v = 0 m/s..50 m/s)"],
            "≈ 14.00714104 m/s",
        ),
        (["solve([2x + y == 5, x - y == 1], [x, y])"], "= [2, 1]"),
        # a circuit of three nodes by its conductances
        (
            ["solve([3 S*u - 1 S*v - 1 S*w == 6 A, -1 S*u + 3 S*v - 1 S*w == 0 A, "
             "-1 S*u - 1 S*v + 3 S*w == 0 A], [u, v, w])"],
            "= [3 V, 1.5 V, 1.5 V]",
        ),
        (["A = [1, 2; 3, 4]", "solve(A, [5, 6])"], "= [-4, 4.5]"),
        (["R = [3 Ω, 1 Ω; 1 Ω, 2 Ω]", "solve(R, [5 V, 5 V])"], "= [1 A, 2 A]"),
    ],
)  # fmt: skip
def test_equations_are_solved(lines, shown):
    assert text_of(*lines) == shown


@pytest.mark.parametrize(
    ("line", "count", "notice"),
    [
        ("solve(sin(1/x) == 0, x = 0.01..1)", 31, "all 31 solutions"),
        ("solve(tan(x) == x, x = 0..20)", 6, "all 6 solutions"),
        ("solve(sin(x) == x/10, x = -20..20)", 7, "all 7 solutions"),
        ("solve(sin(x) == 0, x = 0..10)", 4, "all 4 solutions"),
        ("solve(abs(x) == 2 + sin(x)/100, x = -5..5)", 2, "all 2 solutions"),
        ("solve(ln(x) == -x, x = 0..1)", 1, "Not all may be here: near 0"),
        ("solve(x^4 - 2x^2 + 1 == 0, x)", 2, "They count 2×, 2×."),
    ],
)
def test_all_solutions_are_found_and_what_is_not_decided_is_said(line, count, notice):
    assert len(items_of(line)) == count
    assert notice in " ".join(one.text for one in answered(line).notices)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("solve(exp(x) == 0, x = -5..5)", "There is no solution in this range; that is proved."),
        ("solve(1/x == 0, x = -1..1)", "There is no solution in this range"),
        ("solve(sin(x)*exp(x) == exp(x), x = 0..3)", "solution near 1.57080; there is"),
        ("solve(x == x + 1, x)", "This equation has no solution."),
        ("solve(x == x, x)", "Every value solves this equation."),
        ("solve(cos(t) == t, t)", "say where to look"),
        ("solve(x^2 - 4, x)", "Here this is written solve(x^2 - 4 == 0, x)."),
        ("solve(x^2 - 4 == 0)", "Here this is written solve(x^2 - 4 == 0, x)."),
        ("solve([x + y == 3, 2x + 2y == 6], [x, y])", "no solution, or more than one"),
        ("solve([x*y == 3, x == 1], [x, y])", "x*y == 3 is not linear"),
        ("solve(x + 1 m == 2, x = 0 m..1 m)", "The number has no unit"),
    ],
)
def test_what_has_no_solution_or_cannot_be_solved_is_said(line, said):
    assert said in answered(line).error.text


def test_the_polynomial_of_degree_20_with_the_roots_1_to_20():
    """J. H. Wilkinson, The evaluation of the zeros of ill-conditioned polynomials, 1959."""
    product = "*".join(f"(x - {root})" for root in range(1, 21))
    assert [int(one.coefficient) for one in items_of(f"solve({product} == 0, x)")] == list(
        range(1, 21)
    )


def test_polynomials_have_the_roots_that_they_are_made_of():
    chance = random.Random(29)
    for _ in range(40):
        roots = [
            fmpq(chance.randint(-30, 30), chance.randint(1, 9))
            for _ in range(chance.randint(1, 12))
        ]
        poly = fmpq_poly([1])
        for root in roots:
            poly *= fmpq_poly([-root, 1])
        typed = " + ".join(f"({one})*x^{power}" for power, one in enumerate(poly.coeffs()))
        found = items_of(f"solve({typed} == 0, x)")
        assert [one.coefficient for one in found] == sorted(set(roots)), typed


def test_roots_without_a_short_form_are_those_of_mpmath():
    found = items_of("solve(x^5 - x - 1 == 0, x)")
    expected = mpmath.polyroots([1, 0, 0, 0, -1, -1])
    assert len(found) == 5
    for one in expected:
        assert min(abs(_complex(other) - complex(one)) for other in found) < 1e-12


def _complex(value):
    re, im = (value, None) if hasattr(value, "ball") else (value.re, value.im)
    return complex(*(float(part.ball(64).mid()) if part else 0 for part in (re, im)))


@pytest.mark.parametrize("seed", range(25))
def test_no_solution_is_missed_and_none_invented(seed):
    assert calculus_cases.missed_or_invented(seed) == ""


@pytest.mark.parametrize("seed", range(20))
def test_every_zero_of_a_polynomial_is_found(seed):
    assert calculus_cases.wrong_polynomial(seed) == ""


# -- sums and products ------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["sum(k, k = 1..100)"], "= 5050"),
        (["sum(1/k^2, k = 1..3)"], "= 49/36"),
        (["sum(sum(i*j, j = 1..i), i = 1..4)"], "= 65"),
        (["product(1 - 1/k^2, k = 2..50)"], "= 0.51"),
        (["w = [3, 5, 7]", "sum(w[k]*k, k = 1..3)"], "= 34"),
        (["x = 7", "sum(x^2, x = 1..3)", "x"], "= 7"),
        (["2*sum(k, k = 1..3) + 1"], "= 13"),
        (["sum(k^2, k = [1, 5, 6])"], "= 62"),
        (["sum([2, 3])"], "= 5"),
    ],
)
def test_sums_over_an_index(lines, shown):
    assert text_of(*lines) == shown


# -- integrals -----------------------------------------------------------------------------------


INTEGRALS = (
    ("integral(x^2, x = 0..3)", "= 9"),
    ("integral(exp(-x^2), x = 0..1)", "≈ 0.7468241328"),
    ("integral(exp(-x^2), x = 0..infinity)", "≈ 0.8862269255"),  # √π/2
    ("integral(exp(-x^2), x = -infinity..infinity)", "≈ 1.772453851"),  # √π
    ("integral(1/(1 + x^2), x = -infinity..infinity)", "≈ 3.141592654"),
    ("integral(1/x^2, x = 1..infinity)", "≈ 1"),
    ("integral(x^3/(exp(x) - 1), x = 0..infinity)", "≈ 6.493939402"),  # π⁴/15
    ("integral(exp(-x)*sin(x), x = 0..infinity)", "≈ 0.5"),
    ("integral(exp(-x)/sqrt(x), x = 0..infinity)", "≈ 1.772453851"),  # Γ(1/2)
    ("integral(sin(x)/x, x = 0..1)", "≈ 0.9460830704"),  # Si(1)
    ("integral(sqrt(1 - x^2), x = -1..1)", "≈ 1.570796327"),  # π/2
    ("integral(1/sqrt(x), x = 0..1)", "≈ 2"),
    ("integral(1/sqrt(1 - x), x = 0..1)", "≈ 2"),
    ("integral(ln(x), x = 0..1)", "≈ -1"),
    ("integral(x^x, x = 0..1)", "≈ 0.7834305107"),  # the sophomore's dream
    ("integral(abs(x), x = -1..2)", "≈ 2.5"),
    ("integral(floor(x), x = 0..3.5)", "≈ 4.5"),
    ("integral(cbrt(x), x = -1..1)", "= 0"),
    ("integral(sin(x), x = -1..1)", "= 0"),
    ("integral(sin(1/x), x = 0.01..1)", "≈ 0.5039818932"),
    ("integral(sin(x), x = 0..180°)", "≈ 2"),
    ("integral(3 N/m * s, s = 0 m..2 m)", "= 6 J"),
    ("integral(x, x = 1..0)", "= -0.5"),
    ("integral(5 m/s, t = 0 s..2 s)", "= 10 m"),
    ("integral(exp(i*x), x = 0..pi)", "≈ 2i"),
    ("integral(exp(-10^8*(x - 1/3)^2), x = 0..1)", "≈ 0.0001772453851"),  # a spike
)


@pytest.mark.parametrize(("line", "shown"), INTEGRALS)
def test_integrals_with_known_values(line, shown):
    assert text_of(line) == shown


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("integral(1/x, x = -1..1)", "Near x = 0 the expression has no finite value"),
        ("integral(1/(x - 0.3), x = 0..1)", "Near x = 0.300000"),
        ("integral(tan(x), x = 0..2)", "Near x = 1.57080"),
        ("integral(1/x, x = 0..1)", "At the end x = 0 of this range"),
        ("integral(1/(1 - x), x = 0..1)", "At the end x = 1.00000 of this range"),
        ("integral(tan(x), x = 0..pi/2)", "At the end x = 1.57080 of this range"),
        ("integral(1/sin(x), x = -1..1)", "Near x = 0 the expression has no finite value"),
        ("integral(1/x, x = 1..infinity)", "No digit of this integral is proved"),
        ("integral(sin(x)/x, x = 0..infinity)", "No digit of this integral is proved"),
        ("integral(ln(x)/(1 + x^2), x = 0..infinity)", "whether it is exactly 0 is not proved"),
        ("integral(x)", "Say the expression and a name"),
        ("integral(x, x = 3)", "Two dots stand between the ends"),
        ("integral(a*x, x = 0..1)", "No quantity is named a"),
        ("integral(zeta(x), x = 2..3)", "zeta(…) cannot stand inside solve"),
        ("integral(x ± 0.1, x = 0..1)", "cannot stand inside"),
        ("integral(x, x = 0 m..2 s)", "length"),
    ],
)
def test_what_cannot_be_integrated_is_said(line, said):
    assert said in answered(line).error.text


@pytest.mark.parametrize("seed", range(25))
def test_integrals_have_the_digits_of_mpmath(seed):
    assert calculus_cases.wrong_integral(seed) == ""


# -- derivatives ---------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["derivative(x^3, x = 2)"], "= 12"),
        (["derivative(sin(t)^2, t = 1)"], "≈ 0.9092974268"),
        (["derivative(x^5, x = 1, order = 3)"], "= 60"),
        (["derivative(5 m/s^2 * t^2/2, t = 3 s)"], "= 15 m/s"),
        (["f(x) = x^2", "derivative(f(2x), x = 3)"], "= 24"),
        (["derivative(arctan(x), x = 1)"], "= 0.5"),
        (["derivative(abs(x), x = -3)"], "= -1"),
        (["derivative(x^2, x = [1, 2, 3])"], "= [2, 4, 6]"),
        (["/angle deg", "derivative(sin(x), x = 60)"], "≈ 0.008726646260"),
    ],
)
def test_derivatives(lines, shown):
    assert text_of(*lines).rstrip("0") == shown.rstrip("0")


@pytest.mark.parametrize("line", ["derivative(abs(x), x = 0)", "derivative(sqrt(x), x = 0)"])
def test_a_kink_and_an_end_have_none(line):
    assert "no derivative is proved" in answered(line).error.text


@pytest.mark.parametrize("seed", range(25))
def test_derivatives_have_the_digits_of_mpmath(seed):
    assert calculus_cases.wrong_derivative(seed) == ""


# -- graphs ---------------------------------------------------------------------------------------


def drawn(*lines):
    sheet = FullSheet()
    for line in lines:
        outcome = sheet.answer(line)
        assert outcome.error is None, outcome.error.text
    return sheet.lines[-1].final_step.value.drawn


@pytest.mark.slow
@pytest.mark.parametrize(
    ("line", "named"),
    [
        ("graph(x^2 - 1, x = -2..2)", [("zero", -1), ("minimum", 0), ("zero", 1)]),
        ("graph(x^3, x = -1..1)", [("zero", 0)]),
        ("graph(1/x, x = -2..2)", [("pole", 0)]),
        ("graph(1/x^2, x = -2..2)", [("pole", 0)]),
        ("graph(x*exp(-x), x = -1..5)", [("zero", 0), ("maximum", 1)]),
        ("graph(exp(-10^8*(x - 1/3)^2), x = 0..1)", [("maximum", 1 / 3)]),
        ("graph(sqrt(4 - x^2), x = -3..3)", [("zero", -2), ("maximum", 0), ("zero", 2)]),
        ("graph(-exp(-x^2), x = -3..3)", [("minimum", 0)]),
        ("graph(floor(x), x = 0.5..3.5)", []),
    ],
)
def test_the_points_of_a_graph_that_have_a_name(line, named):
    found = sorted((one.x, one.kind) for one in drawn(line).curves[0].named)
    assert [kind for _, kind in found] == [kind for kind, _ in named]
    assert [x for x, _ in found] == pytest.approx([x for _, x in named], abs=1e-9)


@pytest.mark.slow
def test_a_spike_between_two_columns_is_in_its_column():
    columns = drawn("graph(exp(-10^8*(x - 1/3)^2), x = 0..1)").curves[0].columns
    assert max(high for _, high in columns) == pytest.approx(1, abs=0.1)
    assert sum(high > 0.01 for _, high in columns) <= 2


def test_every_column_holds_the_curve():
    """At 20 places within each column the value lies between its ends."""
    curve = drawn("graph(sin(x^2) + x/5, x = -4..4)").curves[0]
    for at, (low, high) in enumerate(curve.columns):
        for step in range(21):
            x = -4 + 8 * (at + step / 20) / len(curve.columns)
            assert low - 1e-9 <= mpmath.sin(x * x) + x / 5 <= high + 1e-9


def test_a_pole_is_a_gap_and_so_is_what_is_not_real():
    tangent = drawn("graph(tan(x), x = 0..3)").curves[0]
    assert any(column is None for column in tangent.columns)
    root = drawn("graph(sqrt(x), x = -1..1)").curves[0]
    assert all(column is None for column in root.columns[:190])
    assert all(column is not None for column in root.columns[200:])


def test_a_cooling_curve_over_measured_points_with_their_bars():
    shown = drawn(
        "times = [0, 20, 40] min",
        "temps = [96, 59, 40] °C ± 1 K",
        "graph(20 °C + 76 K*exp(-t/(30 min)), times, temps, t = 0 min..120 min)",
    )
    assert (shown.across, shown.up, shown.left, shown.right) == ("t [min]", "°C", 0, 120)
    assert [(one.x, one.y, one.bar) for one in shown.points] == [
        (0, pytest.approx(96), 1), (20, pytest.approx(59), 1), (40, pytest.approx(40), 1),
    ]  # fmt: skip
    assert shown.curves[0].columns[0][1] == pytest.approx(96, abs=0.1)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("graph(x)", "Here this is written graph(x, x = -10..10)."),
        ("graph(x, x = 1..1)", "its range has no length"),
        ("graph(sqrt(-1 - x^2), x = 0..1)", "no real value in this range"),
        ("graph(x, [1, 2], x = 0..1)", "points need two lists"),
    ],
)
def test_what_cannot_be_drawn_is_said(line, said):
    assert said in answered(line).error.text


# -- a bound name is no quantity ---------------------------------------------------------------


def test_a_bound_name_is_no_quantity_that_is_used():
    sheet = FullSheet()
    for line in ("k = 5", "a = 2", "s = sum(a*k, k = 1..3)", "k = 6"):
        assert sheet.answer(line).status == "ok"
    assert sheet.by_number[3].steps[0].uses == {"sum", "a"}
    assert state(sheet, "s").state == "stored"


def test_renaming_leaves_a_bound_name_as_it_is():
    sheet = FullSheet()
    for line in ("k = 5", "k + sum(k, k = 1..3)"):
        sheet.answer(line)
    assert renamed_throughout(sheet, "k", "n")[2] == "n + sum(k, k = 1..3)"


# -- distributions and matrices ------------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        # NIST/SEMATECH e-Handbook of Statistical Methods, tables 1.3.6.7.1 to 1.3.6.7.4
        ("normal_cdf(1.96) as 5 places", "≈ 0.97500"),
        ("student_quantile(0.975, 10) as 3 places", "≈ 2.228"),
        ("student_quantile(0.95, 5) as 3 places", "≈ 2.015"),
        ("chi_squared_quantile(0.95, 10) as 3 places", "≈ 18.307"),
        ("f_quantile(0.95, 2, 10) as 3 places", "≈ 4.103"),
        ("f_quantile(0.95, 5, 20) as 3 places", "≈ 2.711"),
        ("binomial_cdf(1, 4, 1/2)", "= 0.3125"),
        ("binomial_pmf(3, 10, 0.5)", "= 0.1171875"),
        ("normal_cdf(190 cm, 178 cm, 7 cm) as 4 places", "≈ 0.9568"),
        ("normal_quantile(0.5, 178 cm, 7 cm)", "= 178 cm"),
        ("normal_cdf(-infinity)", "= 0"),
    ],
)
def test_distributions_have_the_values_of_published_tables(line, shown):
    assert text_of(line) == shown


@pytest.mark.parametrize("seed", range(40))
def test_distributions_agree_with_scipy(seed):
    assert calculus_cases.wrong_probability(seed) == ""


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("normal_cdf(1, 0, -1)", "above 0"), ("normal_quantile(1.5)", "between 0 and 1"),
        ("binomial_pmf(1.5, 3, 0.5)", "whole number"), ("student_cdf(1, 0)", "above 0"),
        ("normal_cdf(1 m, 0 m, 1)", "plain number"),
        ("student_cdf(2, 10^40)", "between 0.000001 and 1,000,000"),
        ("chi_squared_cdf(10^400, 3)", "within 10^15"),
    ],
)  # fmt: skip
def test_what_is_no_distribution_is_said(line, said):
    assert said in answered(line).error.text


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["det([1, 2; 3, 4])"], "= -2"),
        (["inverse([1, 2; 3, 4])"], "= [[-2, 1], [1.5, -0.5]]"),
        (["transpose([1, 2, 3; 4, 5, 6])"], "= [[1, 4], [2, 5], [3, 6]]"),
        (["A = [1, 2; 3, 4]", "dot(A, inverse(A))"], "= [[1, 0], [0, 1]]"),
        (["A = [1, 2; 3, 4]", "dot(A, [1, 1])"], "= [3, 7]"),
        (["A = [1, 2; 3, 4]", "A[2, 1]"], "= 3"),
        (["[1,2,3;4,5,6]"], "= [[1, 2, 3], [4, 5, 6]]"),
        (["det([3 Ω, 1 Ω; 1 Ω, 2 Ω])"], "= 5 Ω^2"),
        (["det([sqrt(2), 1; 1, sqrt(2)])"], "= 1"),
    ],
)
def test_matrices(lines, shown):
    assert text_of(*lines) == shown


def test_the_inverse_of_a_hilbert_matrix_is_whole():
    """D. Hilbert, 1894: its entries are whole numbers, the first of order 8 is 64."""
    rows = "; ".join(", ".join(f"1/{i + j - 1}" for j in range(1, 9)) for i in range(1, 9))
    entries = [one for row in items_of(f"inverse([{rows}])") for one in row.items]
    assert entries[0].coefficient == 64
    assert all(one.is_integer for one in entries)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("inverse([1, 2; 2, 4])", "The determinant is 0"),
        ("det([1, 2, 3; 4, 5, 6])", "2 × 3"),
        ("det(5)", "This needs a matrix"),
        ("dot([1, 2; 3, 4], [1, 2, 3])", "do not fit"),
        ("[1,2;3,4]", "a space after each comma makes this a matrix"),
    ],
)
def test_what_is_no_matrix_is_said(line, said):
    assert said in answered(line).error.text


def test_a_product_item_by_item_is_said():
    outcome = answered("A = [1, 2; 3, 4]", "A*A")
    assert outcome.answers[0].text == "[[1, 4], [9, 16]]"
    assert "item by item" in outcome.notices[0].text
    assert offered(outcome) == ["dot(A, A)"]


# -- graphs -----------------------------------------------------------------------------------


def points_of(line):
    sheet = FullSheet()
    outcome = sheet.answer(line)
    assert outcome.error is None, outcome.error.text
    _, table = in_numbers(sheet.lines[-1].final_step.value)
    columns = table.columns
    return [
        tuple(one if isinstance(one, str) else float(one.ball(64).mid()) for one in row)
        for row in zip(*(column.items for column in columns), strict=True)
    ]


def test_curves_cross_where_they_are_equal_at_the_ends_of_the_range_too():
    """x² − 2 = 2x + 1 at −1 and 3; sine and cosine at π/4 and 5π/4."""
    found = points_of("graph(x^2 - 2, 2x + 1, x = -3..3)")
    assert [row for row in found if row[1] == "crossing"] == [
        ("x^2 - 2 = 2 x + 1", "crossing", -1, -1),
        ("x^2 - 2 = 2 x + 1", "crossing", 3, 7),
    ]
    found = [row for row in points_of("graph(sin(t), cos(t), t = 0..7)") if row[1] == "crossing"]
    assert [row[2] for row in found] == pytest.approx([math.pi / 4, 5 * math.pi / 4])
    assert [row[3] for row in found] == pytest.approx([2**-0.5, -(2**-0.5)])


def test_a_zero_at_an_end_is_named_once():
    assert points_of("graph(x^2 - 1, x = -1..1)") == [
        ("zero", -1, 0), ("minimum", 0, -1), ("zero", 1, 0),
    ]  # fmt: skip
    found = points_of("graph(sin(t), t = 0..2pi)")
    zeros = [place for kind, place, _ in found if kind == "zero"]
    assert zeros == pytest.approx([0, math.pi, 2 * math.pi])


def test_where_a_quotient_has_no_value_is_neither_zero_nor_pole():
    assert points_of("graph((x^2 - 1)/(x - 1), x = 0..2)") == []


def test_a_graph_is_drawn_over_another_window():
    sheet = FullSheet()
    sheet.answer("k = 3 V")
    sheet.answer("g := graph(k*exp(-t/(2 s)), 1 V, t = 0 s..10 s)")
    step = sheet.lines[-1].final_step
    [drawn] = graph.shown_over(sheet, step, (Fraction(1), Fraction(5, 2)))
    assert (drawn.left, drawn.right, drawn.up) == (1, 2.5, "V")
    [crossing] = drawn.crossings
    assert crossing.x == pytest.approx(2 * math.log(3))
    with pytest.raises(LineError, match="no length"):
        graph.shown_over(sheet, step, (Fraction(1), Fraction(1)))
    [as_typed] = graph.shown(step)
    assert (as_typed.left, as_typed.right) == (0, 10)


@pytest.mark.slow
@pytest.mark.parametrize("spike", ["1/3", "0.7123", "2/7"])
def test_a_narrow_spike_is_drawn_to_its_top(spike):
    sheet = FullSheet()
    sheet.answer(f"graph(exp(-10^8*(x - {spike})^2), x = 0..1)")
    [drawn] = graph.shown(sheet.lines[-1].final_step)
    columns = drawn.curves[0].columns
    assert max(high for _, high in columns) == pytest.approx(1, abs=0.01)
    assert sum(high > 0.01 for _, high in columns) <= 3


def test_two_temperatures_are_drawn_together():
    """24 + 71 exp(−t/32) is 60 at t = 32 ln(71/36)."""
    curves = "24 °C + 71 K*exp(-t/(32 min)), 60 °C + 0 K/min*t"
    [crossing] = points_of(f"graph({curves}, t = 0 min..60 min)")
    assert crossing[1] == "crossing"
    assert crossing[2] == pytest.approx(32 * math.log(71 / 36))
    assert crossing[3] == 60


@pytest.mark.parametrize(
    "line",
    [
        "integral(sqrt(x), x = -2..-1)", "integral(sqrt(x), x = -1..1)",
        "integral(ln(x), x = -2..-1)", "integral(arcsin(x), x = 2..3)",
        "integral(arcosh(x), x = 0..0.5)", "integral((-x)^0.5, x = 1..2)",
        "integral(arcsin(x)*x, x = -2..0)", "integral(sqrt(x - 0.01), x = 0..1)",
    ],
)  # fmt: skip
def test_an_expression_that_leaves_the_reals_has_no_real_integral(line):
    """The first is 1.22 i: its real part alone would be 0."""
    assert "prove" in answered(line).error.text


@pytest.mark.parametrize(
    "line", ["derivative(x/0, x = 3)", "derivative(arcsin(x), x = 10)", "derivative(ln(x), x = -1)"]
)
def test_where_there_is_no_value_there_is_no_derivative(line):
    assert answered(line).error.code == "no-derivative"


@pytest.mark.parametrize(
    ("line", "found"),
    [
        ("solve(cos(x) == 1, x = 0..10)", "= [0, 2 pi]"),
        ("solve(cos(x) == -1, x = 0..10)", "= [pi, 3 pi]"),
        ("solve(1 == sin(2x), x = 0..4)", "= [pi/4, 5 pi/4]"),
        ("solve(sin(x) == -1, x = 0..10)", "= 3 pi/2"),
        ("solve(1 - cos(x) == 0, x = 0°..720°)", "= [0°, 360°, 720°]"),
        ("solve(1 + cos(x) == 0, x = 0..4)", "= pi"),
        ("solve((exp(x) - 2)^2 == 0, x = 0..2)", "≈ 0.6931471806"),
        ("solve(sin(x)^2 == 0, x = -1..7)", "= [0, pi, 2 pi]"),
    ],
)
def test_solutions_that_touch_are_proved_too(line, found):
    """1 − cos x = 2 sin²(x/2), and a power is 0 where its base is."""
    outcome = answered(line)
    assert f"{outcome.answers[-1].sign} {outcome.answers[-1].text}" == found
    assert {one.code for one in outcome.notices} & {"all-solutions", "only-solution"}


def test_the_extrema_of_a_curve_that_begins_with_one_are_named():
    found = points_of("graph(sin(x)^2, x = 0..4)")
    assert [(kind, place) for kind, place, _ in found] == [
        ("zero", 0), ("maximum", pytest.approx(math.pi / 2)), ("zero", pytest.approx(math.pi)),
        ("minimum", pytest.approx(math.pi)),
    ]  # fmt: skip


def test_a_range_of_one_place_is_looked_at_once():
    assert text_of("solve(sin(x) == 0, x = 0..0)") == "= 0"
    assert answered("solve(cos(x) == x, x = 1..1)").error.code == "no-solution"


def test_a_factor_that_is_never_0_may_have_no_real_value_at_a_zero():
    assert text_of("solve((x + 1)*exp(sqrt(x)) == 0, x = -2..2)") == "= -1"
    sheet = FullSheet()
    sheet.answer("/numbers real")
    found = sheet.answer("solve((x + 1)*exp(sqrt(x)) == 0, x = -2..2)")
    assert found.error is not None
    assert points_of("graph((x + 1)*exp(sqrt(x)), x = -2..2)") == []


def test_nothing_is_claimed_where_the_expression_is_complex():
    """sqrt(x)² is −1 at −1, among the complex numbers."""
    told = answered("solve(sqrt(x)^2 == -1, x = -3..-0.5)").error
    assert "was not looked" in told.text
    found = answered("solve(abs(sqrt(x)) == 1, x = -2..2)")
    assert "not-real-left-out" in {one.code for one in found.notices}
    real = answered("/numbers real", "solve(sqrt(x) == 2, x = 1..5)")
    assert "only-solution" in {one.code for one in real.notices}


# -- functions of several numbers, sums, and what is put together ------------------------------


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["integral(sum(x^k, k = 0..5), x = 0..1)"], "= 2.45"),
        (["solve(sum(x^k, k = 0..2) == 3, x)"], "= [-2, 1]"),
        (["solve(mean([x, 2, 3]) == 3, x)"], "= 4"),
        (["solve(product(x - k, k = 1..5) == 0, x)"], "= [1, 2, 3, 4, 5]"),
        (["derivative(product(x + k, k = 1..4), x = 0)"], "= 50"),
        (["derivative(sum(k*x^k, k = 1..4), x = 1)"], "= 30"),
        (["integral(sum(x*k, x = 1..3)*k, k = 0..1)"], "= 2"),
        (["derivative(hypot(x, 3), x = 4)"], "≈ 0.8"),
        (["solve(max(x, 1/x) == 2, x = 0.1..5)"], "= [0.5, 2]"),
        (["derivative(max(x, 2), x = 3)"], "= 1"),
        (["derivative(min(x^2, 4), x = 3)"], "= 0"),
        (["integral(min(x, 1), x = 0..3)"], "≈ 2.5"),
        (["integral(x mod 2, x = 0..6)"], "≈ 6"),
        (["integral(x div 2, x = 0..6)"], "≈ 6"),
        (["F(t) = if(t < 2 s, 3 N, 0 N)", "integral(F(t), t = 0 s..5 s)"], "≈ 6 N s"),
        (["f(x) = if(x < 0, 0, x^2)", "derivative(f(x), x = 0)"], "= 0"),
        (["f(x) = if(x < 0, 0, x^2)", "integral(f(x), x = -1..2)"], "≈ 2.666666667"),
        (["f(x) = if(x >= 0 and not x > 1, x, 0)", "integral(f(x), x = -1..2)"], "≈ 0.5"),
        (["f(x) = if(x < 0 or x > 1, 0, x)", "integral(f(x), x = -1..2)"], "≈ 0.5"),
        (["f(x) = if(0 < x < 1, x, 0)", "integral(f(x), x = -1..2)"], "≈ 0.5"),
        (["solve(if(x > 0, ln(x), 0) == 0, x = 0.5..2)"], "= 1"),
        (["solve(normal_cdf(x) == 0.9, x = 0..3)"], "≈ 1.281551566"),
        (["solve(student_cdf(x, 5) == 0.975, x = 0..10)"], "≈ 2.570581836"),
        (["solve(1 - chi_squared_cdf(x, 10) == 0.05, x = 0..40)"], "≈ 18.30703805"),
        (["integral(normal_pdf(x, 10 mm, 0.1 mm), x = 9.8 mm..10.2 mm)"], "≈ 0.9544997361"),
        (["integral(x^2*normal_pdf(x), x = -infinity..infinity)"], "≈ 1"),
        (["integral(round(x), x = 0..3)"], "≈ 4.5"),
        (["integral(ceil(x) - trunc(x), x = -2..2)"], "≈ 2"),
        (["solve(binomial_cdf(0, 10, p) == 0.5, p = 0..1)"], "≈ 0.06696700846"),
        (["solve(poisson_cdf(0, m) == 0.05, m = 1..20)"], "≈ 2.995732274"),
        (["derivative(binomial_pmf(3, 10, p), p = 0.3)"], "≈ 0"),
        (["derivative(derivative(x^3, x = t), t = 2)"], "= 12"),
        (["solve(derivative(x^3 - 3x, x = t) == 0, t = -5..5)"], "= [-1, 1]"),
        (["f(x) = x*exp(-x)", "solve(derivative(f(x), x = t, order = 2) == 0, t = 0..5)"], "≈ 2"),
        (["s(t) = 4.9 m/s^2*t^2", "derivative(derivative(s(t), t = u), u = 1 s)"], "≈ 9.8 m/s^2"),
        (["integral(sqrt(1 + derivative(x^2, x = t)^2), t = 0..1)"], "≈ 1.478942858"),
        (["integral(derivative(student_cdf(x, 4), x = t), t = -1..1)"], "≈ 0.6260990337"),
    ],
)
def test_what_is_made_of_others_is_looked_into(lines, shown):
    """The quantiles are those of the usual tables, from memory."""
    outcome = answered(*lines)
    assert outcome.error is None, outcome.error.text
    assert f"{outcome.answers[0].sign} {outcome.answers[0].text}" == shown


@pytest.mark.slow
@pytest.mark.parametrize("seed", range(part_of(60)))
def test_the_integral_of_pieces_is_a_sum_over_many_places(seed):
    assert calculus_cases.wrong_pieces(seed) == ""


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        ("integral(max(x, 30°), x = 0..1)", "≈ 0.5235987756"),
        ("integral(mean([x, 30°]), x = 0..1)", "= 15.25°"),
        ("integral(min(x°, 2), x = 0..4)", "≈ 0.1047197551"),
    ],
)
def test_a_number_beside_an_angle_is_read_as_one_there_too(line, shown):
    assert text_of("/angle deg", line) == shown


def test_a_long_sum_is_taken_apart_once():
    terms = " + ".join(f"sin({n}x)" for n in range(1, 60))
    assert text_of(f"derivative({terms}, x = 0)") == "= 1770"


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        (
            "solve([3*V1 - V2 - V3 == 12, -V1 + 4*V2 - V3 == 0, -V1 - V2 + 3*V3 == 0], "
            "[V1, V2, V3])",
            "= [5.5, 2, 2.5]",
        ),
        (
            "solve([(12 V - V1)/(2 kΩ) == V1/(4 kΩ) + (V1 - V2)/(1 kΩ), "
            "(V1 - V2)/(1 kΩ) == V2/(3 kΩ)], [V1, V2])",
            "= [6 V, 4.5 V]",
        ),
        ("solve(2*m2 == 6, m2)", "= 3"),
        ("solve(2*s2 + 3 == 9, s2 = 0..10)", "= 3"),
        ("solve(5 kg*9.81 m/s2 == F, F)", "= 49.05 N"),
    ],
)
def test_an_unknown_may_be_called_like_a_unit_with_a_power(line, shown):
    """V2 beside V1, as the voltages of nodes are called."""
    assert text_of(line) == shown


def test_an_index_hides_another_of_its_name():
    assert text_of("integral(sum(x*sum(k, k = 1..3), k = 1..2), x = 0..1)") == "= 6"


@pytest.mark.parametrize(
    "line",
    [
        "derivative(max(x, 2), x = 2)",
        "derivative(if(x < 1, x, 1), x = 1)",
        "derivative(if(x < 1, 0, 1), x = 1)",
        "solve(if(x < 1, -1, 1) == 0, x = 0..2)",
        "integral(chi_squared_pdf(x, 4), x = -1..5)",
        "integral(normal_pdf(x, 0, -1), x = 0..1)",
        "integral(if(x == 1, 2, 3), x = 0..2)",
        "integral(sum(x, k = 1..x), x = 0..2)",
        "integral(sum(x^k, k = 1..5000), x = 0..2)",
        "integral(derivative(floor(x), x = t), t = 0..2)",
        "integral(derivative(ln(x), x = t), t = -2..-1)",
        "integral(derivative(artanh(x), x = t), t = 2..3)",
        "solve(derivative(abs(x), x = t) == 0, t = -1..1)",
    ],
)
def test_what_is_not_proved_of_these_is_said(line):
    assert answered(line).error is not None


@pytest.mark.parametrize(
    ("name", "parameters", "low", "high"),
    [
        ("normal", "", -2, 1), ("normal", ", 1, 3", -2, 1), ("student", ", 5", -1, 2),
        ("student", ", 2.5", 0, 3), ("student", ", 1", -4, 4), ("chi_squared", ", 1", 1, 4),
        ("chi_squared", ", 2", 0, 3), ("chi_squared", ", 3", 0, 7), ("chi_squared", ", 4.5", 1, 9),
        ("f", ", 5, 10", 0, 3), ("f", ", 2, 7", 1, 2), ("f", ", 3, 1", 1, 20),
    ],
)  # fmt: skip
def test_the_integral_of_a_density_is_what_its_distribution_function_rises_by(
    name, parameters, low, high
):
    area = text_of(f"integral({name}_pdf(x{parameters}), x = {low}..{high}) as 15 digits")
    rise = f"{name}_cdf({high}{parameters}) - {name}_cdf({low}{parameters}) as 15 digits"
    assert area == text_of(rise)
    slope = text_of(f"derivative({name}_cdf(x{parameters}), x = {high}) as 15 digits")
    assert slope == text_of(f"{name}_pdf({high}{parameters}) as 15 digits")


@pytest.mark.parametrize(
    ("lines", "rows"),
    [
        (["graph(1/(1 + x^2), x = -4..3)"], ['"maximum"  0  1']),
        (["graph(2/cosh(x), x = -1..3)"], ['"maximum"  0  2']),
        (["graph(student_pdf(x, 4), x = -4..3)"], ['"maximum"  0  0.375']),
        (["graph(abs(x), x = -1..2)"], ['"zero"  0  0', '"minimum"  0  0']),
        (["graph(x/9 - abs(x - 1)/3, x = -1..3)"], ['"maximum"  1  0.1111111111']),
        (["h(x) = if(x < 1, x, 2 - x)", "graph(h(x), x = 0.5..1.5)"], ['"maximum"  1  1']),
        (["graph(max(sin(x), cos(x)), x = 0..1.5)"], ['"minimum"  0.7853981634  0.7071067812']),
        (["graph(if(x < 1, x, 0 x - 1), x = 0.5..2)"], []),  # it jumps, and does not turn
        (["graph(x*abs(x), x = -2..3)"], []),
    ],
)
def test_a_curve_turns_at_a_kink_and_over_a_constant(lines, rows):
    text = text_of(*lines)
    assert all(row in text for row in rows), text
    assert text.count("imum") == sum("imum" in row for row in rows)


def test_points_alone_are_drawn_in_their_unit():
    sheet = FullSheet()
    sheet.answer("t = [0, 10, 20] s")
    sheet.answer("T = [90.1 ± 0.2, 80.2 ± 0.2, 72.0 ± 0.3] °C")
    assert sheet.answer("graph(t, T, x = 0 s..30 s)").error is None
    [drawn] = graph.shown(sheet.lines[-1].final_step)
    assert (drawn.across, drawn.up, drawn.curves) == ("x [s]", "°C", ())
    assert [(one.x, round(one.y, 9), round(one.bar, 9)) for one in drawn.points] == [
        (0, 90.1, 0.2), (10, 80.2, 0.2), (20, 72, 0.3),
    ]  # fmt: skip


@pytest.mark.parametrize("args", ["[1, 2], [3]", "[1], [undefined]", "[1, 2]"])
def test_points_that_are_none_are_said(args):
    assert answered(f"graph({args}, x = 0..3)").error is not None


@pytest.mark.parametrize(
    ("call", "jumps"),
    [
        ("graph(floor(x), x = -2.5..2.5)", [-2, -1, 0, 1, 2]),
        ("graph(x mod 2, x = 0.5..7)", [2, 4, 6]),
        ("graph(if(x < 3, x/3, 2), x = 0..7)", [3]),
        ("graph(sgn(x), x = -1..2)", [0]),
        ("graph(cbrt(x), x = -1..1)", []),
        ("graph(sqrt(x), x = 0..2)", []),
        ("graph(sin(1/x), x = -1..1)", []),
        ("graph(1/x, x = -2..2)", []),
        ("graph(exp(-10^8*(x - 1/3)^2), x = 0..1)", []),
    ],
)
def test_a_curve_is_broken_where_it_jumps_and_nowhere_else(call, jumps):
    sheet = FullSheet()
    sheet.answer(call)
    [drawn] = graph.shown(sheet.lines[-1].final_step)
    width = (drawn.right - drawn.left) / len(drawn.curves[0].columns)
    places = [drawn.left + width * at for at in sorted(drawn.curves[0].breaks)]
    assert places == [pytest.approx(jump, abs=width) for jump in jumps]


def test_a_part_that_is_solved_all_over_is_not_called_the_whole():
    assert answered("solve(floor(x) == 2, x = 0..5)").error.code == "solved-all-over-a-part"
    assert answered("solve(0*sin(x) == 0, x = 0..5)").error.code == "every-value"


@pytest.mark.parametrize("function", [one for one in slopes.RULES if one != "abs"])
def test_a_rule_for_a_derivative_is_that_of_the_power_series(function):
    """Each one as a term is what FLINT's power series gives, at a place where it has a value."""
    at = "1.7" if function == "arcosh" else "0.3"
    nested = text_of(f"derivative(derivative({function}(x), x = t), t = {at}) as 15 digits")
    assert nested == text_of(f"derivative({function}(x), x = {at}, order = 2) as 15 digits")


@pytest.mark.parametrize(
    ("expression", "place"),
    [
        ("sgn(x)", "0"), ("floor(x)", "2"), ("x*floor(x)", "1"), ("ceil(x)", "-1"),
        ("ceil(x^2)", "0"), ("sgn(x^2)", "0"), ("round(x)", "1/2"), ("round(round(x))", "1/2"),
        ("if(sgn(x) < 1, 1, 5)", "0"), ("if(floor(x) < 1, 2, 3)", "1"),
        ("trunc(x)", "1"), ("integral(floor(t), t = 0..x)", "2"),
        ("integral(sgn(t), t = -1..x)", "0"), ("integral(arcsin(t), t = 0..x)", "1"),
        ("integral(sqrt(t), t = 1..x)", "0"), ("chi_squared_cdf(x, 2)", "0"),
        ("chi_squared_pdf(x, 2)", "0"), ("f_cdf(x, 2, 5)", "0"),
    ],
)  # fmt: skip
def test_where_something_jumps_or_ends_there_is_no_derivative(expression, place):
    found = answered(f"derivative({expression}, x = {place})")
    assert found.error.code == "no-derivative"


def test_the_inverse_cotangent_is_the_same_in_an_integral():
    """arccot x is between 0 and π, as in ISO 80000-2: its integral from −2 to −1 by parts."""
    wanted = -(mpmath.pi - mpmath.acot(1)) + 2 * (mpmath.pi - mpmath.acot(2))
    wanted += (mpmath.log(2) - mpmath.log(5)) / 2
    found = text_of("integral(arccot(x), x = -2..-1)")
    assert found == f"≈ {mpmath.nstr(wanted, 10)}"


@pytest.mark.parametrize(
    ("equation", "coefficients"),
    [
        ("x^3 == sqrt(2)", "1 0 0 -sqrt(2)"), ("x^4 == -pi", "1 0 0 0 pi"),
        ("x^3 - pi x + 1 == 0", "1 0 -pi 1"), ("x^3 + sqrt(2) x + 1 == 0", "1 0 sqrt(2) 1"),
        ("x^3 == 2i", "1 0 0 -2j"), ("x^5 - e x^2 + i x - 2 == 0", "1 0 0 -e 1j -2"),
        ("3/(x/x^10) == -2.5^(1/3)", "3 0 0 0 0 0 0 0 0 2.5**(1/3)"),
    ],
)  # fmt: skip
def test_polynomials_with_any_coefficients_have_all_their_roots(equation, coefficients):
    names = {"pi": mpmath.pi, "e": mpmath.e, "sqrt": mpmath.sqrt}
    wanted = mpmath.polyroots([eval(one, names) for one in coefficients.split()], maxsteps=200)
    found = [
        complex(*(float(part.ball(64)) for part in parts(one)))
        for one in items_of(f"solve({equation}, x)")
    ]
    assert len(found) == len(wanted)
    assert all(min(abs(complex(one) - other) for other in found) < 1e-8 for one in wanted)


@pytest.mark.parametrize(
    ("equation", "answer"),
    [
        ("x^3 == -8 m^3", "= -2 m"), ("x^3 == 8 m^3", "= 2 m"), ("x^4 == 16 m^4", "= [-2 m, 2 m]"),
    ],
)  # fmt: skip
def test_roots_of_measures_are_the_real_ones(equation, answer):
    assert text_of(f"solve({equation}, x)") == answer


@pytest.mark.parametrize("equation", ["(x - pi)^2*(x - 1) == 0", "(x-pi)*(x-1)/(x-pi) == 0"])
def test_roots_that_are_not_told_apart_are_asked_for_by_an_interval(equation):
    found = answered(f"solve({equation}, x)")
    assert found.error.text.startswith("Some roots may be the same or lie at a pole")


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("graph(f, x = -1..1)", "graph(f(x), x = -1..1)"),
        ("derivative(f, x = 1)", "derivative(f(x), x = 1)"),
        ("integral(f, 0, 1)", "integral(f(x), x = 0..1)"),
        ("graph(sin, x = 0..1)", "graph(sin(x), x = 0..1)"),
        ("plot(sin, 0, 1)", "graph(sin(x), x = 0..1)"),
        ("plot(x^2, 0, 1)", "graph(x^2, x = 0..1)"),
        ("solve(x^2 < 4, x)", "solve(x^2 == 4, x)"),
    ],
)
def test_a_function_alone_and_an_inequality_get_what_can_be_done(line, meant):
    assert mends("f(x) = x^2 - 2", line) == [meant]


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        ("integral(2 t, t = 0..3)", "= 9"),
        ("sum(2 m, m = 1..3)", "= 12"),
        ("derivative(4 s^2, s = 3)", "= 24"),
        ("solve(5 m/s t == 10 m, t)", "= 2 s"),
        ("integral(5*m, m = 0 m..2 m)", "= 10 m^2"),
        ("integral(integral(g h, h = 0..g), g = 0..1)", "= 0.125"),
    ],
)
def test_a_bound_name_is_no_unit(line, shown):
    for before in ((), ("t = 4 s",), ("m = 2 kg",)):
        found = answered(*before, line)
        assert f"{found.answers[0].sign} {found.answers[0].text}" == shown
        assert not found.notices


def test_several_expressions_are_drawn_from_a_list_too():
    both = [text_of(f"graph({given}, x = 0..6)") for given in ("[sin(x), x]", "sin(x), x")]
    assert both[0] == both[1]


@pytest.mark.parametrize("call", ["graph(sin(x)", "solve(sin(x) == 0"])
def test_a_range_without_an_end_is_said_to_have_none(call):
    found = answered(f"{call}, x = 0..infinity)")
    assert found.error.text == "Both ends of the range must be numbers, as in x = -10..10."
