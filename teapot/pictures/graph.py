"""Curves from enclosures, told apart by their stroke and a label at each; named points, poles as
gaps with their asymptotes, and measured points with their bars."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator, Sequence
from html import escape

from teapot.engine.analysis.graphs import Column, Curve, Drawn, Named
from teapot.pictures.chart import BOTTOM, HEIGHT, LEFT, RIGHT, TOP, WIDTH, Chart, wide
from teapot.pictures.svg import label, picture
from teapot.pictures.ticks import short

STROKES = ("", "7 4", "2 3", "9 3 2 3", "12 5", "1 5")
"""How the line of each curve is broken: no colour tells them apart."""

THIN = 1.7
"""Height of a curve, in points of the picture."""

MOST_LABELS = 10


def draw(drawn: Drawn) -> str:
    """The picture of a graph."""
    low, high = _window(drawn)
    chart = Chart(drawn.left, drawn.right, low, high)
    parts = [*chart.frame(drawn.across, drawn.up), *_axes(chart)]
    used: Places = []
    for curve, stroke in zip(drawn.curves, STROKES, strict=False):
        parts += _asymptotes(chart, curve)
        parts += _curve(chart, curve, stroke)
    for point in drawn.points:
        x, y = chart.x(point.x), chart.y(point.y)
        if point.bar:
            ends = chart.y(point.y - point.bar), chart.y(point.y + point.bar)
            parts.append(_line("bar", x, ends[0], x, ends[1]))
            parts += [_line("bar", x - 3, end, x + 3, end) for end in ends]
        parts.append(f'<circle class="pair" cx="{x:.1f}" cy="{y:.1f}" r="2.8"/>')
    for curve in drawn.curves:
        parts += _named(chart, curve.named, used if len(drawn.curves) == 1 else None)
    if len(drawn.curves) > 1:
        parts += _labels(chart, drawn.curves)
    parts.append(_readings(drawn))
    return picture(WIDTH, HEIGHT, "".join(parts), told(drawn))


def _readings(drawn: Drawn) -> str:
    """What the page reads off at a place: the enclosure of each curve in each column."""
    curves = [
        {
            "typed": one.typed,
            "columns": [
                column and [float(f"{end:.6g}") for end in column] for column in one.columns
            ],
        }
        for one in drawn.curves
    ]
    told = {
        "across": drawn.across, "up": drawn.up, "left": drawn.left, "right": drawn.right,
        "from": LEFT, "to": WIDTH - RIGHT, "curves": curves,
    }  # fmt: skip
    line = f'<line class="reader" x1="0" x2="0" y1="{TOP}" y2="{HEIGHT - BOTTOM}"/>'
    return f'<g data-readings="{escape(json.dumps(told), quote=True)}">{line}</g>'


def told(drawn: Drawn) -> str:
    """What a graph shows, as a sentence."""
    said = []
    for curve in drawn.curves:
        there = [one for one in curve.columns if one is not None]
        values = (
            f"from {short(min(low for low, _ in there))} to {short(max(high for _, high in there))}"
            if there
            else "without a value"
        )
        names = [f"{one.kind} at {short(one.x)}" for one in curve.named[:MOST_LABELS]]
        said.append(f"{curve.typed} is {values}" + (f"; {', '.join(names)}" if names else ""))
    points = f"; {len(drawn.points)} points" if drawn.points else ""
    ends = f"{drawn.across} from {short(drawn.left)} to {short(drawn.right)}"
    return f"Graph over {ends}: {'. '.join(said)}{points}."


def _window(drawn: Drawn) -> tuple[float, float]:
    """The values that are shown: all where they are bounded; where there are poles, those of most
    columns and of all named points."""
    heights = [y for one in drawn.curves for column in one.columns if column for y in column]
    heights = [y for y in heights if math.isfinite(y)]
    has_gaps = any(column is None for one in drawn.curves for column in one.columns)
    if has_gaps and len(heights) > 20:
        heights.sort()
        cut = len(heights) // 12
        middle = heights[len(heights) // 2]
        reach = 3 * max(heights[-1 - cut] - middle, middle - heights[cut], 1e-300)
        heights = [y for y in heights if abs(y - middle) <= reach]
    heights += [one.y for curve in drawn.curves for one in curve.named if math.isfinite(one.y)]
    heights += [one.y + sign * one.bar for one in drawn.points for sign in (-1, 1)]
    return wide(min(heights, default=-1.0), max(heights, default=1.0))


def _axes(chart: Chart) -> Iterator[str]:
    """The lines x = 0 and y = 0, where they are within."""
    if chart.left < 0 < chart.right:
        yield _line("nought", chart.x(0), TOP, chart.x(0), HEIGHT - BOTTOM)
    if chart.low < 0 < chart.high:
        yield _line("nought", LEFT, chart.y(0), WIDTH - RIGHT, chart.y(0))


def _line(kind: str, x1: float, y1: float, x2: float, y2: float) -> str:
    return f'<line class="{kind}" x1="{x1:.1f}" y1="{y1:.1f}" x2="{x2:.1f}" y2="{y2:.1f}"/>'


def _curve(chart: Chart, curve: Curve, stroke: str) -> Iterator[str]:
    """Each unbroken run of columns: the area that the curve fills, and a line along it."""
    dashes = f' stroke-dasharray="{stroke}"' if stroke else ""
    for start, run in _runs(curve.columns):
        step = (WIDTH - LEFT - RIGHT) / len(curve.columns)
        upper, lower = [], []
        for at, (low, high) in enumerate(run):
            top, foot = (min(max(chart.y(y), TOP), HEIGHT - BOTTOM) for y in (high, low))
            if foot - top > THIN * 1.5:
                for x in (LEFT + (start + at) * step, LEFT + (start + at + 1) * step):
                    upper.append((x, top))
                    lower.append((x, foot))
            else:
                x, y = LEFT + (start + at + 0.5) * step, (top + foot) / 2
                upper.append((x, y))
                lower.append((x, y))
        area = " ".join(f"{x:.1f},{y:.1f}" for x, y in [*upper, *reversed(lower)])
        middle = " ".join(
            f"{x:.1f},{(top + foot) / 2:.1f}"
            for (x, top), (_, foot) in zip(upper, lower, strict=True)
        )
        yield f'<polygon class="filled" points="{area}"/>'
        yield f'<polyline class="graph" points="{middle}"{dashes}/>'


def _runs(columns: Sequence[Column]) -> Iterator[tuple[int, list[tuple[float, float]]]]:
    run: list[tuple[float, float]] = []
    for at, column in enumerate(columns):
        if column is not None:
            run.append(column)
        elif run:
            yield at - len(run), run
            run = []
    if run:
        yield len(columns) - len(run), run


def _asymptotes(chart: Chart, curve: Curve) -> Iterator[str]:
    for one in curve.named:
        if one.kind == "pole":
            x = chart.x(one.x)
            yield _line("asymptote", x, TOP, x, HEIGHT - BOTTOM)


Places = list[tuple[float, float]]


def _named(chart: Chart, named: Sequence[Named], used: Places | None) -> Iterator[str]:
    """A dot for each point that has a name, and its place beside it where there is room; places
    that are ``used`` already are left free, and none is named where there is no such list."""
    for one in named:
        if one.kind == "pole" or not math.isfinite(one.y):
            continue
        x, y = chart.x(one.x), chart.y(one.y)
        dot = f'<circle class="named" cx="{x:.1f}" cy="{y:.1f}" r="2.6">'
        yield f"{dot}<title>{one.kind}</title></circle>"
        is_low = y + 16 > HEIGHT - BOTTOM
        above = y - 7 if one.kind == "maximum" or is_low else y + 14
        if used is None:
            continue
        is_free = all(abs(x - a) > 54 or abs(above - b) > 12 for a, b in used)
        if is_free and len(used) < MOST_LABELS:
            used.append((x, above))
            text = short(one.x) if one.kind == "zero" else f"{short(one.x)}, {short(one.y)}"
            anchor = "end" if x > WIDTH - 60 else "start" if x < LEFT + 30 else "middle"
            yield label(x, above, text, "place", anchor)


def _labels(chart: Chart, curves: Sequence[Curve]) -> Iterator[str]:
    """What each curve is, beside its right end."""
    taken: list[float] = []
    for curve in curves:
        at = next((n for n in range(len(curve.columns) - 8, 0, -1) if curve.columns[n]), None)
        column = curve.columns[at] if at is not None else None
        if at is None or column is None:
            continue
        y = min(max(chart.y((column[0] + column[1]) / 2) - 6, TOP + 10), HEIGHT - BOTTOM - 6)
        while any(abs(y - other) < 13 for other in taken):
            y += 13
        taken.append(y)
        x = LEFT + (at + 0.5) * (WIDTH - LEFT - RIGHT) / len(curve.columns)
        yield label(x, y, curve.typed[:40], "told", "end")
