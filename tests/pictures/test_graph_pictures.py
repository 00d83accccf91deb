"""What a graph looks like: curves that leave the frame, steep ones, dense ones, and labels."""

import re
import xml.etree.ElementTree as ET

from teapot.engine import FullSheet
from teapot.pictures import graph
from teapot.pictures.chart import BOTTOM, HEIGHT, RIGHT, TOP, WIDTH

OF_SVG = "{http://www.w3.org/2000/svg}"


def picture(line):
    sheet = FullSheet()
    assert sheet.answer(line).error is None
    return ET.fromstring(graph.draw(sheet.lines[0].final_step.value.drawn))


def points(element):
    found = re.findall(r"([-\d.]+),([-\d.]+)", element.get("points"))
    return [(float(x), float(y)) for x, y in found]


def of_kind(root, kind):
    return [one for one in root.iter() if one.get("class") == kind]


def labels(root):
    """The places of the labels of curves, by what they say."""
    told = (one for one in of_kind(root, "told") if one.get("text-anchor") == "end")
    return {one.text: (float(one.get("x")), float(one.get("y"))) for one in told}


def test_a_curve_leaves_the_frame_and_does_not_run_along_it():
    for line in of_kind(picture("graph(tan(x), x = -3..3)"), "graph"):
        at_edge = [x for x, y in points(line) if y in (TOP, HEIGHT - BOTTOM)]
        assert max(at_edge, default=0) - min(at_edge, default=0) < 3


def test_a_steep_curve_is_one_line_with_its_dashes_and_a_dense_one_an_area():
    _, steep = of_kind(picture("graph(x, cos(3 x), x = -10..10)"), "graph")
    assert steep.get("stroke-dasharray")
    places = [x for x, _ in points(steep)]
    assert places == sorted({*places})
    areas = of_kind(picture("graph(sin(1/x), x = -0.5..0.5)"), "filled")
    columns = [points(one) for one in areas]
    tall = [part for part in columns if len({x for x, _ in part}) < len(part) // 2 + 2]
    assert tall


def test_a_spike_is_as_tall_as_it_is():
    [area] = of_kind(picture("graph(exp(-10^8*(x - 1/3)^2), x = 0..1)"), "filled")
    heights = [y for _, y in points(area)]
    assert max(heights) - min(heights) > (HEIGHT - TOP - BOTTOM) * 0.8


def test_a_label_stands_beside_its_own_curve_or_at_its_end():
    of_tangent = labels(picture("graph(tan(x), sin(1/x), x = -3..3)"))
    assert of_tangent["tan(x)"][1] < of_tangent["sin(1/x)"][1] - 20
    crowded = labels(picture("graph(cos(3 x), sin(x), x = -10..10)"))
    assert all(x > WIDTH - RIGHT for x, _ in crowded.values())
    assert abs(crowded["cos(3 x)"][1] - crowded["sin(x)"][1]) > 10
