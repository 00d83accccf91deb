"""A line as a picture that any program can place: SVG of outlines, which needs no fonts."""

from __future__ import annotations

from collections.abc import Sequence
from xml.etree import ElementTree

SIZE = 24
"""Height of the type, in px."""

BETWEEN = 12
"""Room between two equations and around all of them, in px."""

NAMESPACE = "http://www.w3.org/2000/svg"


def as_svg(equations: Sequence[str], title: str) -> str:
    """Equations one under the other, each a ``math`` element; ``title`` is what is said where
    the picture is not seen."""
    from ziafont.config import config  # takes a quarter of a second, and few lines are drawn
    from ziamath.zmath import Math

    config.svg2 = False  # "use" by xlink: older programs know nothing else
    svg = ElementTree.Element("svg", {"xmlns": NAMESPACE, "role": "img"})
    svg.set("xmlns:xlink", "http://www.w3.org/1999/xlink")
    ElementTree.SubElement(svg, "title").text = title
    down, across = float(BETWEEN), 0.0
    for one in equations:
        # as an element: of a text it would take what is escaped for markup
        drawn = Math(ElementTree.fromstring(one), size=SIZE)  # noqa: S314 - our own
        width, height = drawn.getsize()
        drawn.drawon(svg, BETWEEN, down, valign="top")
        down += height + BETWEEN
        across = max(across, width)
    svg.set("width", f"{across + 2 * BETWEEN:.1f}")
    svg.set("height", f"{down:.1f}")
    svg.set("viewBox", f"0 0 {across + 2 * BETWEEN:.1f} {down:.1f}")
    return ElementTree.tostring(svg, encoding="unicode")
