"""Pictures are well-formed, show what they are given, and escape what was typed."""

import struct
import xml.etree.ElementTree as ET

import pytest

from engine import Sheet
from engine.numbers.binary64 import Bits
from engine.sheet.workings import box_of
from pictures.bits import draw_bits
from pictures.boxes import draw_boxes
from pictures.dependence import draw_dependence


def boxes(line):
    sheet = Sheet()
    sheet.answer(line)
    [workings] = sheet.traced(sheet.lines[0])
    return box_of(workings)


def texts_of(svg):
    return [element.text for element in ET.fromstring(svg).iter("text")]


def test_nested_boxes_with_their_values():
    box = boxes("6+3/6+3")
    assert box.size == (3, 3)
    svg = draw_boxes(box.as_dict())
    assert [text for text in texts_of(svg) if text[0] in "=≈"] == ["= 0.5", "= 6.5", "= 9.5"]
    inner, outer = sorted(
        (float(r.get("width")), float(r.get("x"))) for r in ET.fromstring(svg).iter("rect")
    )[::2]
    assert inner[0] < outer[0]
    assert inner[1] > outer[1]


def test_no_picture_where_there_is_nothing_or_too_much_to_draw():
    assert boxes("42") is None
    assert boxes("-42") is None
    assert boxes("+".join("1" * 40)) is None


def test_what_was_typed_is_escaped():
    svg = draw_dependence(
        [
            {"name": "a<b>&", "uses": [], "state": "stored"},
            {"name": "c", "uses": ["a<b>&"], "state": "live"},
        ]
    )
    assert "a<b>&" in texts_of(svg)


@pytest.mark.parametrize("number", [0.1, -2.5, 1e308, 5e-324, 0.0, 1 / 3])
def test_bits_are_those_of_ieee_754(number):
    """IEEE 754, clause 3.4: sign 1, exponent 11 with bias 1023, fraction 52."""
    bits = Bits.of(number)
    coded = bits.sign + bits.exponent + bits.fraction
    assert struct.unpack(">d", int(coded, 2).to_bytes(8, "big"))[0] == number
    assert (len(bits.sign), len(bits.exponent), len(bits.fraction)) == (1, 11, 52)
    svg = draw_bits(
        {
            "number": "n",
            "sign": bits.sign,
            "exponent": bits.exponent,
            "fraction": bits.fraction,
            "power": 0,
            "below": "b",
            "above": "a",
            "distance": "0",
        }
    )
    assert len(list(ET.fromstring(svg).iter("rect"))) == 64


def test_dependence_puts_each_below_what_it_uses():
    quantities = [
        {"name": "t", "uses": ["Q"], "state": "stored"},
        {"name": "Q", "uses": ["m", "c"], "state": "out-of-date"},
        {"name": "m", "uses": [], "state": "stored"},
        {"name": "c", "uses": [], "state": "stored"},
        {"name": "alone", "uses": [], "state": "stored"},
    ]
    root = ET.fromstring(draw_dependence(quantities))
    heights = {text.text: float(text.get("y")) for text in root.iter("text")}
    assert heights["m"] == heights["c"] < heights["Q"] < heights["t"]
    assert "alone" not in heights
    assert len(list(root.iter("path"))) == 3
    assert "Q is computed from m, c" in root.get("aria-label")


def test_no_dependence_or_too_much_of_it_is_not_drawn():
    assert draw_dependence([{"name": "a", "uses": [], "state": "stored"}]) == ""
    many = [{"name": f"x{n}", "uses": ["x0"], "state": "stored"} for n in range(1, 40)]
    assert draw_dependence([{"name": "x0", "uses": [], "state": "stored"}, *many]) == ""
    circle = [
        {"name": "a", "uses": ["b"], "state": "live"},
        {"name": "b", "uses": ["a"], "state": "live"},
    ]
    assert draw_dependence(circle)
