"""Pairs of values as points, with their straight line of least squares."""

from __future__ import annotations

from teapot.engine.aids.scatter import Scatter
from teapot.pictures.chart import HEIGHT, WIDTH, Chart, wide
from teapot.pictures.svg import picture
from teapot.pictures.ticks import short


def draw(scatter: Scatter) -> str:
    """The picture of pairs."""
    across = [x for x, _ in scatter.points]
    up = [y for _, y in scatter.points]
    heights = [*up, *(scatter.line or ())]
    chart = Chart(*wide(min(across), max(across)), *wide(min(heights), max(heights)))
    drawn = [*chart.frame(scatter.across, scatter.up)]
    if scatter.line is not None:
        start, end = scatter.line
        x1, x2 = chart.x(min(across)), chart.x(max(across))
        drawn.append(
            f'<line class="fit" x1="{x1:.1f}" y1="{chart.y(start):.1f}" '
            f'x2="{x2:.1f}" y2="{chart.y(end):.1f}"/>'
        )
    radius = 3.2 if len(across) < 200 else 1.8
    drawn += [
        f'<circle class="pair" cx="{chart.x(x):.1f}" cy="{chart.y(y):.1f}" r="{radius}"/>'
        for x, y in scatter.points
    ]
    told = (
        f"{scatter.count:,} pairs: {scatter.across} from {short(min(across))} to "
        f"{short(max(across))}, {scatter.up} from {short(min(up))} to {short(max(up))}"
    )
    return picture(WIDTH, HEIGHT, "".join(drawn), told)
