"""What a procedure gives for each value of one input: points, joined."""

from __future__ import annotations

from teapot.engine.aids.scatter import Scatter
from teapot.pictures.chart import HEIGHT, WIDTH, Chart, wide
from teapot.pictures.svg import picture
from teapot.pictures.ticks import short


def draw(made: Scatter) -> str:
    """The picture of runs over a range."""
    points = sorted(made.points)
    across, up = [x for x, _ in points], [y for _, y in points]
    chart = Chart(*wide(min(across), max(across)), *wide(min(up), max(up)))
    places = [(chart.x(x), chart.y(y)) for x, y in points]
    way = " ".join(f"{x:.1f},{y:.1f}" for x, y in places)
    drawn = [*chart.frame(made.across, made.up), f'<polyline class="runs" points="{way}"/>']
    if len(places) <= 60:
        drawn += [f'<circle class="pair" cx="{x:.1f}" cy="{y:.1f}" r="3"/>' for x, y in places]
    told = (
        f"{made.up} for {made.count:,} values of {made.across}, from {short(min(across))} to "
        f"{short(max(across))}: from {short(up[0])} to {short(up[-1])}"
    )
    return picture(WIDTH, HEIGHT, "".join(drawn), told)
