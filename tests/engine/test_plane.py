"""The plane: where numbers are on it and what operations do there, against Python's complex
numbers; all roots of a number; branches and their cuts; sheets of real numbers."""

import cmath
import math
import xml.etree.ElementTree as ET

import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.aids.pictures import shown_in
from teapot.engine.aids.plane import complex_from, plane_of, spacing
from teapot.engine.functions.catalogue import BY_NAME, FUNCTIONS
from teapot.engine.handbook.entries import BY_KEY
from teapot.engine.numbers.complexes import parts
from teapot.engine.numbers.values import Angle, Complex, exact
from teapot.engine.sheet.calls import applied
from teapot.pictures import plane as drawer


def plane(line, *before):
    sheet = FullSheet()
    for one in before:
        sheet.answer(one)
    assert sheet.answer(line).status == "ok", line
    shown = shown_in(sheet, sheet.lines[-1], "plane")
    return shown[-1].shown if shown else None


def told(figure, part):
    return next(shown.text for shown in figure.main.parts if shown.name == part)


@pytest.mark.parametrize(
    ("line", "x", "y"),
    [
        ("sqrt(-21)", 0, math.sqrt(21)),
        ("(7+2i)*(3-4i)", 29, -22),
        ("abs(4+7i)", 4, 7),
        ("arg(4+7i) as deg", 4, 7),
        ("ln(i)", 0, math.pi / 2),
        ("e^(i pi) + 1", 0, 0),
        ("5 ∠ 30° as rectangular", 5 * math.cos(math.pi / 6), 2.5),
        ("(3+4i) as polar", 3, 4),
        ("roots(-8, 3)", 1, math.sqrt(3)),
        ("1^(1/5)", 1, 0),
        ("conj(3+4i)", 3, -4),
        ("z^2", -7, 24),
        ("1e200 i", 0, 1e200),
    ],
)
def test_lines_with_complex_numbers_have_their_plane(line, x, y):
    figure = plane(line, "z = 3 + 4i")
    assert figure.main.x == pytest.approx(x, abs=1e-12)
    assert figure.main.y == pytest.approx(y, abs=1e-12)
    ET.fromstring(f"<svg>{drawer.draw(figure)}</svg>")


@pytest.mark.parametrize("line", ["2 + 3", "sqrt(4)", "[1, 2]", "sin(30°)", "2^10", '"3 + 4i"'])
def test_other_lines_have_none(line):
    sheet = FullSheet()
    assert "plane" not in sheet.answer(line).answers[0].pictures


def test_a_product_turns_and_stretches_and_a_sum_is_a_parallelogram():
    product = plane("(7+2i)*(3-4i)", "/angle deg")
    assert product.figure == "turned"
    assert "turns it by −53.13°" in product.said
    assert "makes it 5 times" in product.said
    assert [point.name for point in product.points] == ["7 + 2i", "3 - 4i", "29 - 22i"]
    total = plane("a + b", "a = 2 + i", "b = 1 - 3i")
    assert total.figure == "shifted"
    assert [point.name for point in total.points] == ["a", "b", "3 - 2i"]
    assert plane("3 + 4i").figure == ""  # it is one number, as it is spelt
    assert [point.role for point in plane("3 + 4i").points] == ["value", "mirror"]


def test_parts_have_their_exact_values_and_the_unit_of_the_sheet():
    figure = plane("5∠30°", "/angle deg")
    assert told(figure, "argument") == "30°"
    assert told(figure, "modulus") == "5"
    [re] = [part for part in figure.main.parts if part.name == "real part"]
    assert "msqrt" in re.closed
    assert told(plane("2i"), "argument") == "(pi/2) rad"


@given(
    st.decimals(-1000, 1000, places=4, allow_nan=False),
    st.decimals(-1000, 1000, places=4, allow_nan=False),
)
def test_a_point_is_where_python_has_it(re, im):
    figure = plane_of(complex_from(f"{re:f}", f"{im:f}"), "rad")
    expected = complex(float(re), float(im))
    assert complex(figure.main.x, figure.main.y) == pytest.approx(expected)
    assert float(told(figure, "modulus")) == pytest.approx(abs(expected), rel=1e-9)
    if expected and re:
        angle = told(figure, "argument")
        if "pi" not in angle:
            assert float(angle.split()[0]) == pytest.approx(cmath.phase(expected), rel=1e-9)
    step = spacing(figure.reach)
    assert 2.39 <= figure.reach / step <= 6.000001


@given(
    st.integers(-30, 30), st.integers(-30, 30), st.integers(1, 12)
)  # fmt: skip
def test_all_roots_are_roots_and_each_is_there_once(re, im, degree):
    value = complex_from(str(re), str(im))
    found = BY_NAME["roots"].compute(value, exact(degree)).items
    numbers = [complex(*(float(part.ball(64).mid()) for part in parts(one))) for one in found]
    if not (re or im):
        assert numbers == [0]
        return
    assert len(numbers) == degree
    for number in numbers:
        assert number**degree == pytest.approx(complex(re, im), rel=1e-9, abs=1e-9)
    near = min((abs(a - b) for a in numbers for b in numbers if a is not b), default=1)
    assert near > 1e-6
    assert numbers[0] == pytest.approx(complex(re, im) ** (1 / degree), rel=1e-9)


@pytest.mark.parametrize(
    ("line", "text"),
    [
        ("roots(-8, 3)", "[1 + 1.732050808i, -2, 1 - 1.732050808i]"),
        ("roots(2 + 11i, 3)", "[2 + i, -1.866025404 + 1.232050808i, -0.1339745962 - 2.232050808i]"),
        ("roots((3 + 4i)/25, 2)", "[0.4 + 0.2i, -0.4 - 0.2i]"),
        ("roots(-4, 4)", "[1 + i, -1 + i, -1 - i, 1 - i]"),
        ("roots(16, 4)", "[2, 2i, -2, -2i]"),
    ],
)
def test_roots_that_are_rational_are_exact(line, text):
    assert FullSheet().answer(line).answers[0].text == text


@pytest.mark.parametrize(
    "line", ["roots(7, 0)", "roots(7, 2.5)", "roots(7, 1001)", "roots(1/0, 2)"]
)
def test_roots_of_no_degree_are_refused(line):
    assert FullSheet().answer(line).status == "error"


# -- branches ---------------------------------------------------------------------------

RIGHT, LEFT, BETWEEN = {"2", "3"}, {"-2", "-3"}, {"-1/2", "1/2"}
CUTS = {
    "sqrt": (LEFT | {"-1/2"}, set()),
    "ln": (LEFT | {"-1/2"}, set()),
    "lg": (LEFT | {"-1/2"}, set()),
    "lb": (LEFT | {"-1/2"}, set()),
    "arg": (LEFT | {"-1/2"}, set()),
    "arcsin": (LEFT | RIGHT, set()),
    "arccos": (LEFT | RIGHT, set()),
    "arctan": (set(), LEFT | RIGHT),
    "arccot": (set(), LEFT | RIGHT),
    "arcsec": (BETWEEN, set()),
    "arccsc": (BETWEEN, set()),
    "arsinh": (set(), LEFT | RIGHT),
    "arcosh": (LEFT | BETWEEN, set()),
    "artanh": (LEFT | RIGHT, set()),
    "arcoth": (BETWEEN, set()),
    "arsech": (LEFT | RIGHT | {"-1/2"}, set()),
    "arcsch": (set(), BETWEEN),
}
"""At which of the points ±1/2, ±2, ±3 of the real and of the imaginary axis a function jumps:
NIST DLMF 4.2, 4.23 and 4.37, from memory."""

OF_COMPLEX = [
    function.name
    for function in FUNCTIONS
    if (function.on_complex is not None and function.name != "log") or function.name == "arg"
]
NEAR = complex_from("0.000000001", "0").coefficient


def value_at(name, re, im):
    value = applied(BY_NAME[name], [Complex(exact(re), exact(im))])
    value = value.size if isinstance(value, Angle) else value
    return complex(*(float(part.ball(64).mid()) for part in parts(value)))


@pytest.mark.parametrize("name", OF_COMPLEX)
def test_a_function_jumps_where_its_page_says_that_its_cut_runs(name):
    found = (set(), set())
    for axis in (0, 1):
        for typed in ("-3", "-2", "-1/2", "1/2", "2", "3"):
            top, _, below = typed.partition("/")
            place = exact(NEAR / NEAR * int(top) / int(below or 1)).coefficient
            sides = [(place, way * NEAR) if axis == 0 else (way * NEAR, place) for way in (1, -1)]
            one, other = (value_at(name, *side) for side in sides)
            if abs(one - other) > 1e-4:
                found[axis].add(typed)
    assert found == CUTS.get(name, (set(), set()))
    told = BY_KEY[name].branch
    assert ("no cut" in told) == (name not in CUTS)
    assert ("real axis" in told) == bool(found[0])
    assert ("imaginary axis" in told) == bool(found[1])


@pytest.mark.parametrize("function", FUNCTIONS, ids=lambda function: function.name)
def test_every_function_that_takes_complex_numbers_says_so(function):
    assert bool(BY_KEY[function.name].branch) == function.takes_complex


# -- sheets of real numbers ---------------------------------------------------------------


@pytest.mark.parametrize(
    "line",
    [
        "sqrt(-21)", "ln(-1)", "(-8)^(1/3)", "arcsin(2)", "3 + 2i", "5∠30°", "roots(8, 3)",
        "lg(-5)", "z", "2*z", "sqrt([4, -4])", "arcosh(0.5)",
    ],
)  # fmt: skip
def test_a_sheet_of_reals_says_why_it_has_no_answer(line):
    sheet = FullSheet()
    sheet.answer("z = 3 + 4i")
    sheet.answer("/numbers real")
    result = sheet.answer(line)
    assert result.status == "error"
    assert "real numbers only" in result.error.text


@pytest.mark.parametrize(
    ("line", "text"), [("abs(z)", "5"), ("re(z)", "3"), ("roots(4, 2)", "[2, -2]")]
)
def test_a_sheet_of_reals_answers_what_is_real(line, text):
    sheet = FullSheet()
    sheet.answer("z = 3 + 4i")
    sheet.answer("/numbers real")
    assert sheet.answer(line).answers[0].text == text
