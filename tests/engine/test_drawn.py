"""A line as SVG: any program can place it, and it says the same."""

import xml.etree.ElementTree as ET

import pytest

from teapot.engine import FullSheet
from teapot.engine.out.svg_export import NAMESPACE, as_svg

LINES = (
    "6+3/6+3", "sin(30°)^2", "30 deg as rad", "[1,2,3]*2", "if(2 > 1, 1/3, 0)", "root(5, 3)",
    '"<a & b>"', "x < 3", 'table("a" = [1,2], "b" = [0.5, 0.25])', "1e-9", "abs(-2)", "floor(2.5)",
    'n = "naïve, 茶, ☕"',
)  # fmt: skip


@pytest.mark.parametrize("text", LINES)
def test_lines_of_every_kind_are_drawn_as_outlines(text):
    sheet = FullSheet()
    answers = [one for line in ("x = 2", text) for one in sheet.answer(line).answers]
    svg = ET.fromstring(as_svg([one.mathml for one in answers], "what & it says <b>"))
    assert svg.tag == f"{{{NAMESPACE}}}svg"
    assert svg.find(f"{{{NAMESPACE}}}title").text == "what & it says <b>"
    assert svg.findall(f".//{{{NAMESPACE}}}path")
    assert not svg.findall(f".//{{{NAMESPACE}}}text")
    width, height = float(svg.get("width")), float(svg.get("height"))
    assert svg.get("viewBox") == f"0 0 {width:.1f} {height:.1f}"
    assert min(width, height) > 24
