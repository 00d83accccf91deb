"""Pictures are well-formed, show what they are given, and escape what was typed."""

import math
import struct
import xml.etree.ElementTree as ET
from dataclasses import replace

import pytest

from teapot.engine import FullSheet
from teapot.engine.aids.bits import Binary64
from teapot.engine.aids.boxes import box_of
from teapot.engine.aids.curve import Curve
from teapot.engine.aids.dial import DialPoint, angle_from, dial_of
from teapot.engine.aids.number_line import NumberLine
from teapot.engine.numbers.binary64 import Bits
from teapot.engine.sheet.quantities import Quantity
from teapot.pictures import bits, boxes, curve, dependence, dial, number_line


def boxed(line):
    sheet = FullSheet()
    sheet.answer(line)
    [workings] = sheet.traced(sheet.lines[0])
    return box_of(workings)


def quantity(name, *uses):
    return Quantity(
        name=name,
        name_mathml="",
        line=1,
        is_found=bool(uses),
        is_drawn=False,
        sign="=",
        text="1",
        value_mathml="",
        body="1",
        description="",
        state="stored",
        covers=False,
        reason="",
        uses=uses,
        used_by=(),
        parameters=None,
        kind="",
        unit="",
    )


def texts_of(svg):
    return [element.text for element in ET.fromstring(svg).iter("text")]


def test_nested_boxes_with_their_values():
    box = boxed("6+3/6+3")
    assert box.size == (3, 3)
    svg = boxes.draw(box)
    assert [text for text in texts_of(svg) if text[0] in "=≈"] == ["= 0.5", "= 6.5", "= 9.5"]
    inner, outer = sorted(
        (float(r.get("width")), float(r.get("x"))) for r in ET.fromstring(svg).iter("rect")
    )[::2]
    assert inner[0] < outer[0]
    assert inner[1] > outer[1]


def test_no_picture_where_there_is_nothing_or_too_much_to_draw():
    assert boxed("42") is None
    assert boxed("-42") is None
    assert boxed("+".join("1" * 40)) is None


def test_what_was_typed_is_escaped():
    svg = dependence.draw([quantity("a<b>&"), quantity("c", "a<b>&")])
    assert "a<b>&" in texts_of(svg)


@pytest.mark.parametrize("number", [0.1, -2.5, 1e308, 5e-324, 0.0, 1 / 3])
def test_bits_are_those_of_ieee_754(number):
    """IEEE 754, clause 3.4: sign 1, exponent 11 with bias 1023, fraction 52."""
    found = Bits.of(number)
    coded = found.sign + found.exponent + found.fraction
    assert struct.unpack(">d", int(coded, 2).to_bytes(8, "big"))[0] == number
    assert (len(found.sign), len(found.exponent), len(found.fraction)) == (1, 11, 52)
    svg = bits.draw(
        Binary64(
            number="n",
            sign=found.sign,
            exponent=found.exponent,
            fraction=found.fraction,
            power=0,
            below="b",
            above="a",
            distance="0",
            exact="n",
        )
    )
    assert len(list(ET.fromstring(svg).iter("rect"))) == 64


def test_dependence_puts_each_below_what_it_uses():
    quantities = [
        quantity("t", "Q"),
        quantity("Q", "m", "c"),
        quantity("m"),
        quantity("c"),
        quantity("alone"),
    ]
    root = ET.fromstring(dependence.draw(quantities))
    heights = {text.text: float(text.get("y")) for text in root.iter("text")}
    assert heights["m"] == heights["c"] < heights["Q"] < heights["t"]
    assert "alone" not in heights
    assert len(list(root.iter("path"))) == 3
    assert "Q is computed from m, c" in root.get("aria-label")


def test_a_box_has_the_unit_below_the_name():
    heat = replace(quantity("Q", "m"), unit="J", kind="an energy")
    root = ET.fromstring(dependence.draw([heat, replace(quantity("m"), unit="kg")]))
    heights = {text.text: float(text.get("y")) for text in root.iter("text")}
    assert heights["m"] < heights["kg"] < heights["Q"] < heights["J"]
    assert root.get("aria-label") == "Q, an energy, is computed from m"


def test_no_dependence_or_too_much_of_it_is_not_drawn():
    assert dependence.draw([quantity("a")]) == ""
    many = [quantity(f"x{n}", "x0") for n in range(1, 40)]
    assert dependence.draw([quantity("x0"), *many]) == ""
    circle = [
        quantity("a", "b"),
        quantity("b", "a"),
    ]
    assert dependence.draw(circle)


CURVE = Curve(
    left=-1.0,
    right=4.0,
    low=-2.0,
    high=2.0,
    pieces=(((0.0, 0.0), (1.0, 1.0)), ((2.0, -1.0), (4.0, 0.5))),
    poles=(1.5,),
    mark=(1.0, 1.0),
)


def test_a_curve_has_its_pieces_its_mark_and_its_scale():
    svg = curve.draw(CURVE, "f(x) <b>")
    root = ET.fromstring(svg)
    assert len([e for e in root.iter("polyline") if e.get("class") == "curve"]) == 2
    assert [e.get("class") for e in root.iter("circle")] == ["mark"]
    assert {"2", "4", "−1", "1"} & set(texts_of(svg))
    assert "marked at 1" in root.get("aria-label")
    assert "with poles near 1.5" in root.get("aria-label")
    assert [e.get("class") for e in root.iter("line")].count("pole") == 1
    dots = curve.draw(replace(CURVE, is_dots=True, mark=None), "f")
    assert [e.get("class") for e in ET.fromstring(dots).iter("circle")] == ["dot"] * 4


def test_a_curve_of_radians_is_marked_in_multiples_of_pi():
    wide = replace(CURVE, left=-7.0, right=7.0, unit="rad")
    assert {"−2π", "−π", "π", "2π"} <= set(texts_of(curve.draw(wide, "sin")))
    degrees = replace(CURVE, left=-360.0, right=360.0, unit="deg")
    assert {"−180", "180"} <= set(texts_of(curve.draw(degrees, "sin")))


def test_a_number_line_says_where_each_function_sends_the_number():
    sent = {"round": -1, "floor": -1, "ceil": 1, "trunc": 0}
    line = NumberLine("6.5", "6", "7", 0.5, is_tie=True, sent=sent, here="round")
    svg = number_line.draw(line)
    assert {"6.5", "6", "7", "round", "ceil"} <= set(texts_of(svg))
    told = ET.fromstring(svg).get("aria-label")
    assert "round goes to 6" in told
    assert "ceil goes to 7" in told
    assert "trunc stays" in told
    assert "a tie" in told


@pytest.mark.parametrize("degrees", ["0", "30", "90", "-135", "359.9", "720"])
def test_the_dial_stands_where_the_angle_points(degrees):
    shown = dial_of(angle_from(degrees, "deg"))
    root = ET.fromstring(f"<svg>{dial.draw(shown)}</svg>")
    [handle] = [e for e in root.iter("circle") if e.get("class") == "handle"]
    theta = math.radians(float(degrees))
    assert float(handle.get("cx")) == pytest.approx(190 + 128 * math.cos(theta), abs=0.1)
    assert float(handle.get("cy")) == pytest.approx(190 - 128 * math.sin(theta), abs=0.1)
    has_tangent = any((e.get("class") or "").startswith("tan-side") for e in root.iter("line"))
    assert has_tangent == (degrees != "90")


def test_the_dial_shows_the_point_of_a_direction():
    point = DialPoint(x=-1.0, y=-1.0, text="(-1, -1)", quotient="45°")
    svg = dial.draw(dial_of(angle_from("-135", "deg"), point))
    assert "(−1, −1)" in svg
