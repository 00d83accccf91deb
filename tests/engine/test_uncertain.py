"""Measured values, against the ``uncertainties`` package and examples of the GUM (JCGM 100:2008).

The numbers of the GUM are from memory.
"""

import math
import xml.etree.ElementTree as ET

import numpy as np
import pytest
import uncertainties
from hypothesis import assume, given
from hypothesis import strategies as st
from uncertainties import umath

from teapot.engine import FullSheet
from teapot.engine.aids import pictures
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.values import Uncertain, exact
from teapot.pictures import drawn
from tests.engine.answers import answer, error, mends, outcome, value_of_line
from tests.examples import tried_on


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["5.32 ± 0.04 m"], "≈ (5.320 ± 0.040) m"),
        (["5.32 +/- 0.04 m"], "≈ (5.320 ± 0.040) m"),
        (["(5.32 ± 0.04) m"], "≈ (5.320 ± 0.040) m"),
        (["5.32 m ± 4 cm"], "≈ (5.320 ± 0.040) m"),
        (["5 m ± 2%"], "≈ (5.00 ± 0.10) m"),
        (["20.5 ± 0.2 °C as K"], "≈ (293.65 ± 0.20) K"),
        (["30 ± 1°"], "≈ (30.0 ± 1.0)°"),
        (["sin(30° ± 1°)"], "≈ 0.500 ± 0.015"),
        (["x = 5 ± 0.1", "x - x"], "= 0"),
        (["x = 5 ± 0.1", "x/x"], "= 1"),
        (["x = 5 ± 0.1", "x + x"], "≈ 10.00 ± 0.20"),
        (["x = 5 ± 0.1", "x*x - x^2"], "= 0"),
        (["x = 5 ± 0.1", "sqrt(x)"], "≈ 2.236 ± 0.022"),
        (["x = 5 ± 0.1", "x > 4"], "= true"),
        (["x = 5 ± 0.1", "-x"], "≈ -5.00 ± 0.10"),
        (["(5 ± 0.1) + (5 ± 0.1)"], "≈ 10.00 ± 0.14"),
        (["l = 5.32 ± 0.04 m; t = 2.1 ± 0.1 s; l/t as km/h"], "≈ (9.12 ± 0.44) km/h"),
        (["mean([1.2 ± 0.1, 1.4 ± 0.1])"], "≈ 1.300 ± 0.071"),
        (["0.0999 ± 0.0996"], "≈ 0.10 ± 0.10"),
        (["1.23e-7 ± 4e-9"], "≈ (1.230 ± 0.040)e-7"),
        (["5 ± 0"], "= 5"),
        (["[1, 2] ± 0.1"], "≈ [1.00 ± 0.10, 2.00 ± 0.10]"),
    ],
)
def test_measured_values(lines, expected):
    assert answer(*lines) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("5 ± -1", "negative-uncertainty"),
        ("5 m ± 2 s", "unlike-measures"),
        ("(1 + 2i) ± 1", "no-uncertainty-here"),
        ("sqrt(0 ± 1)", "no-uncertainty-here"),
        ("(5 ± 1) as binary64", "not-in-binary64"),
    ],
)
def test_what_is_no_measured_value_is_said(line, code):
    assert error(line) == code


def test_a_value_printed_with_brackets_is_a_measured_one_with_the_product_offered():
    """SI brochure, 9th edition, 5.4.9: the figures in brackets belong to the last ones."""
    assert outcome("5.32(4)").answers[0].text == "5.320 ± 0.040"
    assert outcome("1.234(12) m").answers[0].text == "(1.234 ± 0.012) m"
    assert outcome("6.674 30(15)e-11").error is not None
    assert outcome("6.67430(15)e-11").answers[0].text == "(6.67430 ± 0.00015)e-11"
    assert outcome("0.5(12)").answers[0].text == "0.5 ± 1.2"
    assert mends("5.32(4)") == ["5.32*(4)"]
    assert outcome("5(4)").answers[0].text == "20"
    assert outcome("5.32(400)").answers[0].text == "2128"
    assert outcome("5.32 (4)").answers[0].text == "21.28"


def test_the_inputs_are_told_with_their_shares():
    found = outcome("l = 5.32 ± 0.04 m", "t = 2.1 ± 0.1 s", "l/t").answers[0]
    assert found.written.also == ("uncertainty from t 98 %, l 2.4 %",)
    assert outcome("5 ± 0.1").answers[0].written.also == ()
    line = outcome("y = [1.0, 2.1, 2.9] ± 0.1 cm", "slope([0, 1, 2], y)").answers[0]
    assert line.written.also == ("uncertainty from y[1] 50 %, y[3] 50 %",)


def test_the_length_of_an_end_gauge():
    """JCGM 100, H.1: l = 50.000 838 mm with a combined standard uncertainty of 32 nm."""
    lines = (
        "l_s = 50.000623 mm ± 25 nm", "d = 215 nm ± 9.7 nm", "dα = 0 ± 0.58e-6", "θ = -0.1 ± 0.41",
        "α_s = 11.5e-6 ± 1.2e-6", "dθ = 0 ± 0.029", "l_s + d - l_s*(dα*θ + α_s*dθ)",
    )  # fmt: skip
    assert answer(*lines) == "≈ (50.000838 ± 0.000032) mm"


@pytest.mark.parametrize(
    ("readings", "shown"),
    [
        # JCGM 100, 4.4.3, table 1: t = 100.145 °C, s = 1.489 °C, s of the mean 0.333 °C
        (
            "96.90 98.18 98.25 98.61 99.03 99.49 99.56 99.74 99.89 100.07 100.33 100.42 100.68 "
            "100.95 101.11 101.20 101.57 101.84 102.36 102.72",
            {
                "mean(t) as 3 places": "= 100.145 °C",
                "stdev(t) as 3 places": "≈ 1.489 K",
                "stdev_of_mean(t) as 3 places": "≈ 0.333 K",
                "mean(t) ± stdev_of_mean(t)": "≈ (100.14 ± 0.33) °C",
            },
        ),
        # NIST TN 1900, example E2 (from memory): 25.6 °C with 0.872 °C
        (
            "18.75 28.25 25.75 28.00 28.50 20.75 21.00 22.75 18.50 27.25 20.75 26.50 28.00 23.25 "
            "28.00 21.75 26.00 26.50 28.00 33.25 32.00 29.50",
            {
                "mean(t) as 1 place": "≈ 25.6 °C",
                "stdev(t) as 1 place": "≈ 4.1 K",
                "stdev_of_mean(t) as 3 places": "≈ 0.872 K",
            },
        ),
    ],
)
def test_the_mean_of_many_temperatures(readings, shown):
    given = f"t = [{readings.replace(' ', ', ')}] °C"
    assert {line: answer(given, line) for line in shown} == shown


def test_a_calibrated_resistor_in_series_and_a_power():
    """JCGM 100, 5.1.3 and 5.1.6: relative uncertainties of a product add in quadrature."""
    value = value_of_line("(220.5 ± 0.2) V * (9.95 ± 0.01) A")
    assert isinstance(value, Uncertain)
    relative = math.hypot(0.2 / 220.5, 0.01 / 9.95)
    assert uncertain.nearly(uncertain.of(value)) == pytest.approx(220.5 * 9.95 * relative, rel=1e-9)


OF_ONE = {
    "sqrt": umath.sqrt, "exp": umath.exp, "ln": umath.log, "sin": umath.sin, "cos": umath.cos,
    "sinh": umath.sinh, "cosh": umath.cosh, "lg": umath.log10,
}  # fmt: skip


@st.composite
def expressions(draw, names, depth=3):
    """An expression in quantities, and the same there."""
    if depth == 0 or draw(st.integers(0, 3)) == 0:
        name = draw(st.sampled_from(sorted(names)))
        return name, lambda known: known[name]
    here, there = draw(expressions(names, depth=depth - 1))
    kind = draw(st.sampled_from((*OF_ONE, "+", "-", "*", "/", "^")))
    if kind in OF_ONE:
        return f"{kind}({here})", lambda known: OF_ONE[kind](there(known))
    if kind == "^":
        power = draw(st.sampled_from((2, 3, -1)))
        return f"({here})^({power})", lambda known: there(known) ** power
    other, others = draw(expressions(names, depth=depth - 1))
    return f"({here}){kind}({other})", lambda known: _done(kind, there(known), others(known))


def _done(kind, a, b):
    return a + b if kind == "+" else a - b if kind == "-" else a * b if kind == "*" else a / b


@given(
    st.lists(st.tuples(st.integers(2, 90), st.integers(1, 9)), min_size=3, max_size=3),
    expressions(("x", "y", "z")),
)
@tried_on(3000)
def test_random_expressions_are_those_of_the_uncertainties_package(given_values, pair):
    here, there = pair
    inputs = dict(zip("xyz", given_values, strict=True))
    known = {n: uncertainties.ufloat(v / 10, u / 1000) for n, (v, u) in inputs.items()}
    try:
        wanted = there(known)
        deviation = getattr(wanted, "std_dev", 0.0)
    except (ValueError, ZeroDivisionError, OverflowError, TypeError):
        assume(False)
    nominal = getattr(wanted, "nominal_value", wanted)
    assume(isinstance(nominal, float) and math.isfinite(nominal) and 1e-9 < abs(nominal) < 1e12)
    # beyond, what floats make of it is of no use
    assume(deviation == 0 or 1e-9 * abs(nominal) < deviation <= abs(nominal))
    assignments = [f"{n} = {v / 10} ± {u / 1000}" for n, (v, u) in inputs.items()]
    value = value_of_line("; ".join((*assignments, here)))
    parts = value.parts.values() if isinstance(value, Uncertain) else ()
    found = math.hypot(*(uncertain.nearly(exact(part)) for part in parts))
    if deviation > 1e-12 or not parts:  # where first order gives nothing, the package has 0
        assert found == pytest.approx(deviation, rel=1e-5, abs=1e-12), here
    if isinstance(value, Uncertain):  # with second order by what first order gives nothing of
        assert uncertain.nearly(uncertain.of(value)) >= found * (1 - 1e-12)
    assert uncertain.nearly(uncertain.size_of(value)) == pytest.approx(nominal, rel=1e-9), here


# -- the picture of the shares ------------------------------------------------------------


def shares_shown(*lines):
    sheet = FullSheet()
    for line in lines:
        assert sheet.answer(line).status == "ok", line
    [statement] = pictures.workings_of(sheet, sheet.lines[-1])
    return [one.shown for one in statement.pictures if one.name == "shares"]


def test_the_workings_show_what_each_input_has_of_the_variance():
    """Of l/t the relative variances are (0.04/5.32)² and (0.1/2.1)²."""
    [found] = shares_shown("l = 5.32 ± 0.04 m; t = 2.1 ± 0.1 s", "l/t")
    of_l, of_t = (0.04 / 5.32) ** 2, (0.1 / 2.1) ** 2
    assert [one.name for one in found.bars] == ["t", "l"]
    assert [one.part for one in found.bars] == pytest.approx(
        [of_t / (of_l + of_t), of_l / (of_l + of_t)]
    )
    root = ET.fromstring(drawn("shares", found))
    widths = [float(one.get("width")) for one in root.iter("rect") if one.get("class") == "bin"]
    assert widths[0] / widths[1] == pytest.approx(of_t / of_l, rel=0.05)
    assert root.get("aria-label") == "share of the variance: t 98 %, l 2.4 %"


def test_many_inputs_share_the_last_bar():
    names = [f"x_{at}" for at in range(1, 16)]
    given_ones = "; ".join(f"{name} = 5 ± {at}" for at, name in enumerate(names, 1))
    [found] = shares_shown(given_ones, " + ".join(names))
    assert len(found.bars) == 12
    assert found.bars[-1].name == "4 others"
    assert sum(one.part for one in found.bars) == pytest.approx(1)


@pytest.mark.parametrize("line", ["5 ± 1", "5 + 3", "x = 5 ± 1", "[1, 2] ± 0.1"])
def test_there_is_no_picture_of_a_single_input(line):
    assert shares_shown(line) == []


@pytest.mark.parametrize(
    ("line", "set_as"),
    [
        ("(5.0 ± 0.1) + 3", r"(5.0\pm0.1)+3"),
        ("2*(5.0 ± 0.1)", r"2(5.0\pm0.1)"),
        ("2*(5.0 ± 0.1 m)", r"2(5.0\pm0.1m)"),
        ("-(5.0 ± 0.1)", r"-(5.0\pm0.1)"),
        ("(5.0 ± 0.1)^2", r"{(5.0\pm0.1)}^{2}"),
        ("(5.0 ± 0.1)/2", r"\frac{5.0\pm0.1}{2}"),
        ("x = 5.0 ± 0.1 m", r"x=5.0\pm0.1m"),
    ],
)
def test_a_measured_value_among_others_stands_in_brackets(line, set_as):
    """It runs on over both of its parts (ISO 80000-1, 7.3.2, from memory)."""
    latex = outcome(line).answers[0].latex
    for mark in (r"\,", r"\mathrm", r"\left", r"\right", " ", r"\cdot"):
        latex = latex.replace(mark, "")
    plain = latex.replace("{m}", "m")
    assert plain.startswith(set_as), plain


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["cos(0 ± 0.1)"], "1.0000 ± 0.0071"),
        (["sin(90° ± 1°)"], "1.00000 ± 0.00022"),
        (["abs(0 ± 0.1)"], "0.00 ± 0.10"),
        (["x = 10 ± 1", "(x - 10)^2"], "0.0 ± 1.4"),
        (["x = 0 ± 1", "y = 0 ± 2", "x*y"], "0.0 ± 2.0"),
    ],
)
def test_second_order_is_left_where_the_first_is_zero(lines, shown):
    """JCGM 100, 5.1.2, note: u² is half the square of each second derivative times the variances;
    by hand, (0.1²)/√2, (π/180)²/√2, √2 and 1·2.  Of a kink at 0 nothing is lost."""
    found = outcome(*lines)
    assert found.answers[0].text == shown
    assert found.answers[0].sign == "≈"
    assert "second-order" in [notice.code for notice in found.notices]


@pytest.mark.parametrize(
    ("lines", "shown"),
    [
        (["x = 5 ± 0.1", "x*1.00000001 - x"], "(5.00 ± 0.10)e-8"),
        (["x = 5 ± 0.1", "x - x"], "0"),
        (["x = 5 ± 0.1", "sin(x)^2 + cos(x)^2"], "1"),
        (["x = 5 ± 0.1", "w = exp(x)", "w - w"], "0"),
        (["x = 5 ± 0.1", "exp(x) - exp(x)"], "0"),
        (["x = 5 ± 0.1", "(x - 5)^2 - (x - 5)^2"], "0"),
        (["x = 5 ± 0.1", "y = 5 ± 0.2", "x/y - x/y"], "0"),
        (["x = 5 ± 0.1", "y = 5 ± 0.2", "(x + y)^2 - x^2 - 2*x*y - y^2"], "0"),
        # what cancels to first order alone: by f'' u²/√2, and beyond it about
        (["x = 1 ± 0.1", "x^2 - 2*x"], "-1.000 ± 0.014"),
        (["x = 1 ± 0.1", "f(t) = t^2 - 2t", "f(x)"], "-1.000 ± 0.014"),
        (["x = 1 ± 0.1", "y = x^2", "y - 2*x"], "-1.000 ± 0.014"),
        (["x = 1 ± 0.1", "x + 1/x"], "2.000 ± 0.014"),
        (["x = 1 ± 0.1", "mean([x^2, -2*x])"], "-0.5000 ± 0.0071"),
        (["x = 1 ± 0.1", "y = 3 ± 1e-9", "x^2 - 2*x + y"], "2.000 ± 0.014"),
        (["z = 0 ± 0.1", "exp(z) - z"], "1.0000 ± 0.0071"),
        (["z = 0 ± 0.1", "sin(z) - z"], "0.00000 ± 0.00071"),
        (["x = 2 ± 0.1", "integral((x - 2)^2*t, t = 0..1)"], "0.0000 ± 0.0071"),
        (["x = 2 ± 0.1", "dot([x - 2, 1], [x - 2, 0])"], "0.000 ± 0.014"),
        # at a least value, as of |x − y|: by the mean of what it bends
        (["x = 2 ± 0.1", "sqrt((x - 2)^2)"], "0.00 ± 0.10"),
        (["x = 2 ± 0.1", "y = 2 ± 0.2", "stdev([x, y])"], "0.00 ± 0.16"),
        (["x = 2 ± 0.1", "y = 2 ± 0.2", "variance([x, y])"], "0.000 ± 0.035"),
        (["x = 2 ± 0.1", "stdev([x, x])"], "0"),
        (["x = 5 u as kg", "x as u"], "5 Da"),
        (["m = (5 ± 0.1) u as kg", "m as u"], "(5.00 ± 0.10) Da"),
        (["x = 5 ± 0.1", "(x - 5)^4"], "0.0000 ± 0.0011"),
        (["x = 5 ± 0.1", "y = 5 ± 0.2", "(x - y)^3"], "0.0000 ± 0.0029"),
        (["(1e200 ± 1e199)^2"], "(1.00 ± 0.20)e400"),
        (["1e-400 ± 1e-401"], "(1.00 ± 0.10)e-400"),
        (["exp(1000 ± 1)"], "(2.0 ± 2.0)e434"),
        (["(5 ± 0.1)^-1000"], "(1 ± 21)e-699"),
        (["x := 5 ± 0.1", "z = x", "z - x"], "0"),
        (["f(t) = t*(2 ± 0.1)", "f(3) - 3*f(1)"], "0"),
        (["w = [1, 2] ± 0.1", "w[1] - w[1]"], "0"),
        (["w = [1, 2] ± 0.1", "w[1] - w[2]"], "-1.00 ± 0.14"),
        (["[1, 2] ± [0.1, 0.2] m"], "[(1.00 ± 0.10) m, (2.00 ± 0.20) m]"),
        (["[1, 2] ± 5%"], "[1.000 ± 0.050, 2.00 ± 0.10]"),
        (["x = 3.0 ± 0.1", "y = 4.0 ± 0.2", "z = sqrt(x^2 + y^2)", "uncertainty(z) as 20 digits"],
         "0.17088007490635062336"),
        (["value(5.32 ± 0.04 m)"], "5.32 m"),
        (["uncertainty(20 ± 1 °C)"], "1 K"),
        (["relative(5 ± 0.1 m) as percent"], "2%"),
    ],
)  # fmt: skip
def test_each_input_counts_once_and_none_is_lost(lines, shown):
    assert outcome(*lines).answers[0].text == shown


def test_two_inputs_of_one_value_are_two():
    assert answer("x = 5 ± 0.1", "y = 5 ± 0.1", "x - y") == "≈ 0.00 ± 0.14"


@pytest.mark.parametrize(
    ("typed", "shown"),
    [
        ("5.32 ± 0.04 m as concise", "5.320(40) m"),
        ("1.6021e-19 ± 0.0012e-19 C as concise", "1.6021(12)e-19 C"),
        ("(5.0 ± 0.1)/(2.0 ± 0.1) as percent", "(250 ± 13)%"),
        ("0.0123 ± 0.0004 as percent", "(1.230 ± 0.040)%"),
        ("(5.0 ± 0.1)/(2.0 ± 0.1) as 4 digits", "2.500 ± 0.135"),
        ("(5.0 ± 0.1)/(2.0 ± 0.1) as 1 place", "2.5 ± 0.1"),
        ("5.32 ± 0.004 as 2 digits", "5.3 ± 0.004"),
        ("12345 ± 67 as engineering", "(12.345 ± 0.067)e3"),
        ("12345 ± 67 m as scientific", "(1.2345 ± 0.0067)e4 m"),
        ("(5 ± 1) as hex", "5.0 ± 1.0"),
    ],
)
def test_measured_values_in_each_form(typed, shown):
    """The SI brochure, 5.4.5, and JCGM 100, 7.2.2, write both numbers before their unit."""
    assert outcome(typed).answers[0].text == shown
    assert outcome(shown).status == "ok"


def test_a_form_that_it_has_not_is_said():
    assert "is for plain numbers" in outcome("(5 ± 1) as hex").notices[0].text
    assert error("(5 ± 1) m as percent") == "form-for-number"
    sheet = FullSheet()
    sheet.answer("/show fraction")
    assert sheet.answer("5 ± 1").status == "ok"


def test_a_resistance_from_correlated_readings():
    """JCGM 100, H.2: R = 127.732 Ω with 0.071 Ω, X = 219.847 Ω with 0.295 Ω, Z = 254.260 Ω with
    0.236 Ω (from memory); with the inputs as rounded as they are printed, the uncertainties are
    those that the ``uncertainties`` package has for them."""
    inputs = ((4.9990, 0.0032), (19.6610e-3, 0.0095e-3), (1.04446, 0.00075))
    r = ((1, -0.36, 0.86), (-0.36, 1, -0.65), (0.86, -0.65, 1))
    v, i, phi = uncertainties.correlated_values_norm(list(inputs), r)
    sheet = FullSheet()
    for line in ("V = 4.9990 ± 0.0032 V", "I = 19.6610 ± 0.0095 mA", "φ = 1.04446 ± 0.00075 rad",
                 "w = correlated([V, I, φ], [-0.36, 0.86, -0.65])"):  # fmt: skip
        assert sheet.answer(line).status == "ok", line
    wanted = (
        ("w[1]/w[2]*cos(w[3])", v / i * umath.cos(phi), 127.732, 0.071),
        ("w[1]/w[2]*sin(w[3])", v / i * umath.sin(phi), 219.847, 0.295),
        ("w[1]/w[2]", v / i, 254.260, 0.236),
    )
    for line, same, nominal, spread in wanted:
        value = sheet.lines[-1] and sheet.answer(line) and sheet.lines[-1].steps[-1].value
        found = uncertain.nearly(uncertain.of(value))
        assert uncertain.nearly(uncertain.size_of(value)) == pytest.approx(nominal, abs=0.0006)
        assert found == pytest.approx(same.std_dev, rel=1e-6)
        assert found == pytest.approx(spread, rel=0.03)


CALIBRATION = (
    "t = [21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.010, 26.511]",
    "b = [-0.171, -0.169, -0.166, -0.159, -0.164, -0.165, -0.156, -0.157, -0.159, -0.161, -0.160]",
    "x = t - 20",
    "k = slope(x, b); c = intercept(x, b)",
    "s = sqrt(sum((b - c - k*x)^2)/(count(t) - 2))",
)


def test_a_calibration_line():
    """JCGM 100, H.3 (from memory): y1 = −0.1712 °C with 0.0029, y2 = 0.00218 with 0.00067,
    s = 0.0035 °C, and −0.1494 °C with 0.0041 °C at 30 °C."""
    assert answer(*CALIBRATION, "c as 4 places") == "≈ -0.1712"
    assert answer(*CALIBRATION, "k as 5 places") == "≈ 0.00218"
    assert answer(*CALIBRATION, "s as 4 places") == "≈ 0.0035"
    y = (*CALIBRATION, "y = b ± s", "c_1 = intercept(x, y); k_1 = slope(x, y)")
    assert answer(*y, "uncertainty(c_1) as 2 digits") == "≈ 0.0029"
    assert answer(*y, "uncertainty(k_1) as 2 digits") == "≈ 0.00067"
    # both from the same readings, so that their correlation of −0.930 is in it
    assert answer(*y, "c_1 + 10*k_1") == "≈ -0.1494 ± 0.0041"
    line = (*CALIBRATION, "line = least_squares(x, b)")
    assert answer(*line, "line") == "≈ [0.00218 ± 0.00067, -0.1712 ± 0.0029]"
    assert answer(*line, "line[2] + 10*line[1]") == "≈ -0.1494 ± 0.0041"
    assert answer(*line, "line[1] - least_squares(x, b)[1]") == "= 0"  # the same points


def test_a_line_of_least_squares_says_what_it_cannot_tell():
    assert error("least_squares([1, 2], [1, 2])") == "too-few-points"
    assert error("least_squares([1, 2, 3], [1, 2])") == "unequal-lengths"
    assert answer("least_squares([1, 1, 1], [1, 2, 3])") == "= undefined"
    own = outcome("least_squares([1, 2, 3], [1 ± 0.1, 2.2 ± 0.1, 2.9 ± 0.1])")
    assert [one.code for one in own.notices] == ["points-without-their-own"]
    assert answer("residuals([1 s, 2 s, 3 s], [1 m, 2 m, 3 m])") == "= [0 m, 0 m, 0 m]"


def test_a_standard_of_cadmium():
    """EURACHEM/CITAC CG 4, example A1 (from memory): 1002.7 mg/L with 0.8 mg/L."""
    m, p, v = "(100.28 ± 0.05) mg", "(0.9999 ± 0.000058)", "(100.00 ± 0.066) mL"
    assert answer(f"{m}*{p}/({v}) as mg/L, 5 digits") == "≈ (1002.7 ± 0.8) mg/L"


def test_a_solution_of_sodium_hydroxide():
    """EURACHEM/CITAC CG 4, example A2 (from memory): 0.10214 mol/L with 0.00010 mol/L."""
    m, p, rep = "(0.3888 ± 0.00013) g", "(1 ± 0.00029)", "(1 ± 0.0005)"
    molar, v = "(204.2212 ± 0.0038) g/mol", "(18.64 ± 0.013) mL"
    found = answer(f"{m}*{p}*{rep}/({molar}*({v})) as mol/L, 5 digits")
    assert found == "≈ (0.10214 ± 0.00010) mol/L"


@pytest.mark.parametrize(
    ("line", "draw"),
    [
        ("cos(0 ± 0.1)", lambda n: np.cos(0.1 * n[0])),
        ("(3 ± 0.2 - 3)^2", lambda n: (0.2 * n[0]) ** 2),
        ("(0 ± 0.3)*(0 ± 0.2)", lambda n: 0.06 * n[0] * n[1]),
        ("sin(90° ± 2°)", lambda n: np.sin(np.pi / 2 + np.radians(2) * n[0])),
        ("cosh(0 ± 0.2)", lambda n: np.cosh(0.2 * n[0])),
        ("exp(-(0 ± 0.1)^2)", lambda n: np.exp(-((0.1 * n[0]) ** 2))),
    ],
)
def test_second_order_is_that_of_a_million_draws(line, draw):
    """The standard deviation of the function of 10^6 normal draws (a fixed seed)."""
    normal = np.random.default_rng(1).standard_normal((2, 1_000_000))
    value = value_of_line(line)
    spread = float(np.std(draw(normal)))
    assert uncertain.nearly(uncertain.of(value)) == pytest.approx(spread, rel=0.05)


AT_AN_EXTREMUM = {
    "{k}*(x - {a})^2": lambda k, a, b, x, y: k * (x - a) ** 2,
    "{b} - (x - {a})^2/{k}": lambda k, a, b, x, y: b - (x - a) ** 2 / k,
    "(x - {a})*(y - {b})": lambda k, a, b, x, y: (x - a) * (y - b),
    "{k}*(x - {a})^2 + (y - {b})^2": lambda k, a, b, x, y: k * (x - a) ** 2 + (y - b) ** 2,
    "cos((x - {a})/{k})": lambda k, a, b, x, y: np.cos((x - a) / k),
    "cosh(x - {a})*{k}": lambda k, a, b, x, y: np.cosh(x - a) * k,
    "exp(-(x - {a})^2/{k})": lambda k, a, b, x, y: np.exp(-((x - a) ** 2) / k),
    "sqrt({k} + (x - {a})*(y - {b}))": lambda k, a, b, x, y: np.sqrt(k + (x - a) * (y - b)),
    "ln(1 + (x - {a})^2 + (y - {b})^2)": lambda k, a, b, x, y: np.log1p(
        (x - a) ** 2 + (y - b) ** 2
    ),
    "(x^2 - {a}^2)^2": lambda k, a, b, x, y: (x**2 - a**2) ** 2,
    "x^2 - 2*{a}*x + (y - {b})^2": lambda k, a, b, x, y: x**2 - 2 * a * x + (y - b) ** 2,
}
"""Expressions that have no slope at x = a and y = b."""


@given(
    st.sampled_from(sorted(AT_AN_EXTREMUM)),
    st.tuples(st.integers(1, 9), st.integers(1, 9), st.integers(1, 9)),
    st.tuples(st.integers(1, 20), st.integers(1, 20)),
    st.integers(0, 2**31),
)
@tried_on(300)
def test_random_extrema_are_those_of_a_million_draws(pattern, places, sizes, seed):
    k, a, b = places
    dx, dy = (size / 1000 for size in sizes)
    found = outcome(f"x = {a} ± {dx}", f"y = {b} ± {dy}", pattern.format(k=k, a=a, b=b))
    assert [one.code for one in found.notices] == ["second-order"]
    normal = np.random.default_rng(seed).standard_normal((2, 1_000_000))
    draws = AT_AN_EXTREMUM[pattern](k, a, b, a + dx * normal[0], b + dy * normal[1])
    value = value_of_line(f"x = {a} ± {dx}; y = {b} ± {dy}; {pattern.format(k=k, a=a, b=b)}")
    assert uncertain.nearly(uncertain.of(value)) == pytest.approx(float(np.std(draws)), rel=0.02)


@given(
    st.lists(st.tuples(st.integers(2, 90), st.integers(1, 9)), min_size=3, max_size=3),
    st.sampled_from(
        (
            (["p := x*y", "q = p", "q - p + z"], lambda x, y, z: z),
            (["f(a) = a*(x + 1)", "f(y)/f(z)"], lambda x, y, z: y / z),
            (["w = [x, y, z]", "mean(w)"], lambda x, y, z: (x + y + z) / 3),
            (["w = [x, y, z]", "sum(w^2)"], lambda x, y, z: x**2 + y**2 + z**2),
            (["w = [x, y, 2*x]", "w[3] - w[1]*2 + w[2]"], lambda x, y, z: y),
            (["slope([1, 2, 4], [x, y, z])"],
             lambda x, y, z: (-4 / 3 * x - 1 / 3 * y + 5 / 3 * z) / (14 / 3)),
            (["if(z > 0, x - x + y, y)"], lambda x, y, z: y),
            (["t = table([x, y], [y, z]); t[1]; x*y"], lambda x, y, z: x * y),
        )
    ),
)  # fmt: skip
@tried_on(400)
def test_definitions_lists_and_functions_count_each_input_once(given_values, pair):
    lines, there = pair
    inputs = dict(zip("xyz", given_values, strict=True))
    known = [uncertainties.ufloat(v / 10, u / 1000) for v, u in inputs.values()]
    wanted = there(*known)
    assignments = [f"{n} = {v / 10} ± {u / 1000}" for n, (v, u) in inputs.items()]
    sheet = FullSheet()
    for line in (*assignments, *lines):
        assert sheet.answer(line).status == "ok", line
    value = sheet.lines[-1].steps[-1].value
    assert uncertain.nearly(uncertain.size_of(value)) == pytest.approx(wanted.nominal_value)
    assert uncertain.nearly(uncertain.of(value)) == pytest.approx(wanted.std_dev, rel=1e-6)
