"""What the curves, the dial and the number line are drawn from, against mpmath and Python's
decimals: a picture must not lie where the digits are right."""

import decimal
import math

import mpmath
import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine.aids.curve import can_be_drawn, curve_of_function
from teapot.engine.aids.dial import angle_from, dial_of
from teapot.engine.aids.number_line import number_line_of
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.numbers.values import exact
from tests.engine.answers import value_of_line
from tests.engine.references import REFERENCES, rounded

OTHERWISE = {"radians", "cbrt"}
"""The reference of the first takes degrees; that of the other gives the complex root."""

CURVES = [
    name for name, (ranges, _) in REFERENCES.items()
    if len(ranges) == 1 and can_be_drawn(BY_NAME[name]) and name not in OTHERWISE
]  # fmt: skip


@pytest.mark.parametrize("name", CURVES)
def test_every_point_of_a_curve_is_on_it(name):
    _, reference = REFERENCES[name]
    curve = curve_of_function(name)
    points = [point for piece in curve.pieces for point in piece]
    # a line that leaves the picture is drawn on a little
    inside = [(x, y) for x, y in points if curve.low <= y <= curve.high]
    assert len(inside) > 40
    for x, y in inside[::5]:
        expected = float(mpmath.re(reference(mpmath.mpf(x))))
        assert y == pytest.approx(expected, rel=1e-9, abs=1e-12)
        assert curve.left <= x <= curve.right


@pytest.mark.parametrize("name", ["sin", "tan", "exp", "ln", "gamma", "floor", "erf", "lambert_w"])
@given(mark=st.floats(0.25, 4.75))
def test_the_mark_of_the_argument_at_hand_is_on_the_curve_and_in_the_picture(name, mark):
    curve = curve_of_function(name, mark=mark)
    x, y = curve.mark
    assert x == mark
    assert curve.left <= x <= curve.right
    assert curve.low <= y <= curve.high
    if name in REFERENCES:
        assert y == pytest.approx(float(REFERENCES[name][1](mpmath.mpf(mark))), rel=1e-9)
    else:
        assert y == math.floor(mark)


def shown_number(value) -> float:
    return float(value.text.rstrip("°").partition(" ")[0])


@pytest.mark.parametrize("degrees", range(-360, 361, 7))
def test_the_dial_shows_sine_cosine_and_tangent_of_every_angle(degrees):
    shown = dial_of(angle_from(str(degrees), "deg"))
    values = {value.name: value for value in shown.values}
    with mpmath.workdps(60):
        angle = mpmath.radians(degrees)
        for name, reference in (("sin", mpmath.sin), ("cos", mpmath.cos), ("tan", mpmath.tan)):
            expected = reference(angle)
            if abs(expected) < mpmath.mpf(10) ** -50:
                assert values[name].text == "0"
            elif abs(expected) > mpmath.mpf(10) ** 50:
                assert values[name].text == "undefined"
            else:
                assert shown_number(values[name]) == float(rounded(expected, 10))


@pytest.mark.parametrize("degrees", range(-360, 361, 24))
def test_the_dial_shows_the_angle_in_every_unit(degrees):
    units = {unit.name: unit for unit in dial_of(angle_from(str(degrees), "deg")).units}
    assert shown_number(units["deg"]) == degrees
    # ISO 80000-3: a gon is a four-hundredth, a degree a three-hundred-and-sixtieth of a turn
    assert shown_number(units["gon"]) == pytest.approx(degrees / 0.9, rel=1e-9)
    assert shown_number(units["turn"]) == pytest.approx(degrees / 360, rel=1e-9)


@pytest.mark.parametrize(
    ("degrees", "said"),
    [
        (0, "right half of the axis"), (1, "first"), (89, "first"), (90, "straight up"),
        (91, "second"), (179, "second"), (181, "third"), (269, "third"), (270, "straight down"),
        (271, "fourth"), (359, "fourth"), (361, "first"), (-1, "fourth"), (-91, "third"),
        (-181, "second"), (-271, "first"),
    ],
)  # fmt: skip
def test_the_dial_names_the_quadrant(degrees, said):
    quadrant = dial_of(angle_from(str(degrees), "deg")).quadrant
    assert said in quadrant


ROUNDINGS = {
    "round": decimal.ROUND_HALF_EVEN,
    "floor": decimal.ROUND_FLOOR,
    "ceil": decimal.ROUND_CEILING,
    "trunc": decimal.ROUND_DOWN,
}


@given(st.decimals(-1000, 1000, places=3, allow_nan=False, allow_infinity=False), st.integers(0, 2))
def test_the_number_line_sends_a_number_where_python_rounds_it(number, places):
    typed = f"{number:f}"
    value = value_of_line(typed)
    line = number_line_of("round", value, exact(places))
    place = decimal.Decimal(1).scaleb(-places)
    below, above = decimal.Decimal(line.below), decimal.Decimal(line.above)
    assert above - below == place
    assert below <= number < above
    assert line.part == pytest.approx(float((number - below) / place))
    assert line.is_tie == (number - below == above - number)
    for name, rounding in ROUNDINGS.items():
        taken = number.quantize(place, rounding=rounding)
        sent = {-1: below, 0: number, 1: above}[line.sent[name]]
        assert sent == taken, name
