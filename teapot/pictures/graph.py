"""Curves from enclosures, told apart by their stroke and a label at each; named points, poles as
gaps with their asymptotes, and measured points with their bars."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from html import escape

from teapot.engine.analysis.graphs import Curve, Drawn, Named
from teapot.pictures.chart import BOTTOM, HEIGHT, LEFT, RIGHT, TOP, WIDTH, Chart, wide
from teapot.pictures.svg import label, picture
from teapot.pictures.ticks import short

STROKES = ("", "7 4", "2 3", "9 3 2 3", "12 5", "1 5")
"""How the line of each curve is broken: no colour tells them apart."""

THIN = 1.7
"""Height of a curve, in points of the picture."""

MOST_LABELS = 10
LETTER, FIGURE = 6.7, 6.3
"""Width of a letter of a label, on the average, and of a figure beside a point."""

NEAR = 1
"""How close to a curve a point may be named, which lies on it."""


def draw(drawn: Drawn) -> str:
    """The picture of a graph."""
    within = (one for one in drawn.points if drawn.left <= one.x <= drawn.right)
    drawn = replace(drawn, points=tuple(within))
    low, high = _window(drawn)
    chart = Chart(drawn.left, drawn.right, low, high)
    parts = [*chart.frame(drawn.across, drawn.up), *_axes(chart)]
    taken: list[Box] = []
    for curve, stroke in zip(drawn.curves, STROKES, strict=False):
        parts += _asymptotes(chart, curve)
        parts += _curve(chart, curve, stroke)
        poles = (chart.x(one.x) for one in curve.named if one.kind == "pole")
        taken += [(x - 1, TOP, x + 1, HEIGHT - BOTTOM) for x in poles]
    for point in drawn.points:
        x, y = chart.x(point.x), chart.y(point.y)
        if point.bar:
            ends = chart.y(point.y - point.bar), chart.y(point.y + point.bar)
            parts.append(_line("bar", x, ends[0], x, ends[1]))
            parts += [_line("bar", x - 3, end, x + 3, end) for end in ends]
        parts.append(f'<circle class="pair" cx="{x:.1f}" cy="{y:.1f}" r="2.8"/>')
        taken.append((x - 3, y - 3, x + 3, y + 3))
    for named in (*(curve.named for curve in drawn.curves), drawn.crossings):
        parts += _named(chart, named)
    if len(drawn.curves) > 1:
        parts += _labels(chart, drawn.curves, taken)
        parts += _where(chart, drawn.crossings, drawn.curves, taken)
    elif drawn.curves:
        parts += _where(chart, drawn.curves[0].named, drawn.curves, taken)
    parts.append(_readings(drawn))
    width = max(WIDTH, *(box[2] + GAP for box in taken), 0)
    return picture(width, HEIGHT, "".join(parts), told(drawn))


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
    if drawn.crossings:
        places = [f"{short(one.x)} ({short(one.y)})" for one in drawn.crossings[:MOST_LABELS]]
        said.append(f"They cross at {', '.join(places)}")
    if drawn.points:
        count = f"{len(drawn.points)} point{'s' * (len(drawn.points) > 1)}"
        said[-1:] = [f"{said[-1]}; {count}" if said else count]
    ends = f"{drawn.across} from {short(drawn.left)} to {short(drawn.right)}"
    return f"Graph over {ends}: {'. '.join(said)}."


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
    heights += [one.y for one in drawn.crossings]
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
    step = (WIDTH - LEFT - RIGHT) / len(curve.columns)
    for start, run in _runs(curve, chart):
        heights = [
            tuple(min(max(chart.y(y), TOP), HEIGHT - BOTTOM) for y in (high, low))
            for low, high in run
        ]
        middles = [(top + foot) / 2 for top, foot in heights]
        upper, lower = [], []
        for at, (top, foot) in enumerate(heights):
            if _fills(heights, middles, at):
                for x in (LEFT + (start + at) * step, LEFT + (start + at + 1) * step):
                    upper.append((x, top))
                    lower.append((x, foot))
            else:
                x = LEFT + (start + at + 0.5) * step
                upper.append((x, middles[at]))
                lower.append((x, middles[at]))
        area = " ".join(f"{x:.1f},{y:.1f}" for x, y in [*upper, *reversed(lower)])
        middle = " ".join(
            f"{x:.1f},{(top + foot) / 2:.1f}"
            for (x, top), (_, foot) in zip(upper, lower, strict=True)
        )
        yield f'<polygon class="filled" points="{area}"/>'
        yield f'<polyline class="graph" points="{middle}"{dashes}/>'


def _fills(heights: Sequence[tuple[float, ...]], middles: Sequence[float], at: int) -> bool:
    """Whether a curve is as tall as a column is there, and not just steep: then it reaches no
    farther than half the way to its neighbours."""
    top, foot = heights[at]
    if foot - top <= THIN * 1.5:
        return False
    before, after = middles[max(at - 1, 0)], middles[min(at + 1, len(middles) - 1)]
    columns = min(at + 1, len(middles) - 1) - max(at - 1, 0)
    return not columns or foot - top > abs(after - before) / columns * STEEP + THIN


STEEP = 1.5
"""How many times as tall as it is from one column to the next a steep curve may be in one."""


def _runs(curve: Curve, chart: Chart) -> Iterator[tuple[int, list[tuple[float, float]]]]:
    """The unbroken runs of columns that are in the window, each with its first."""
    run: list[tuple[float, float]] = []
    for at, column in enumerate(curve.columns):
        is_seen = column is not None and column[0] <= chart.high and column[1] >= chart.low
        if run and (at in curve.breaks or not is_seen):
            yield at - len(run), run
            run = []
        if column is not None and is_seen:
            run.append(column)
    if run:
        yield len(curve.columns) - len(run), run


def _asymptotes(chart: Chart, curve: Curve) -> Iterator[str]:
    for one in curve.named:
        if one.kind == "pole":
            x = chart.x(one.x)
            yield _line("asymptote", x, TOP, x, HEIGHT - BOTTOM)


def _named(chart: Chart, named: Sequence[Named]) -> Iterator[str]:
    """A dot for each point that has a name."""
    for one in _seen(chart, named):
        dot = f'<circle class="named" cx="{chart.x(one.x):.1f}" cy="{chart.y(one.y):.1f}" r="2.6">'
        yield f"{dot}<title>{one.kind}</title></circle>"


def _seen(chart: Chart, named: Sequence[Named]) -> list[Named]:
    return [one for one in named if one.kind != "pole" and chart.low <= one.y <= chart.high]


def _where(
    chart: Chart, named: Sequence[Named], curves: Sequence[Curve], taken: list[Box]
) -> Iterator[str]:
    """Where points are, beside those at which there is room."""
    for one in _seen(chart, named)[:MOST_LABELS]:
        text = short(one.x)
        if one.kind != "zero":
            is_nought = abs(one.y) < (chart.high - chart.low) * 1e-9
            text += f", {'0' if is_nought else short(one.y)}"
        x, y, wide = chart.x(one.x), chart.y(one.y), len(text) * FIGURE
        lefts = (x - wide / 2, x + 6, x - 6 - wide)
        rows = (y - 7, y + 15) if one.kind == "maximum" else (y + 15, y - 7)
        boxes = [(left, row - 9, left + wide, row + 2) for left in lefts for row in rows]
        free = (
            box for box in boxes if _is_inside(box) and not _meets(chart, box, curves, taken, NEAR)
        )
        place = next(free, None)
        if place is not None:
            taken.append(place)
            yield label(place[0], place[3] - 2, text, "place")


def _is_inside(box: Box) -> bool:
    left, top, right, bottom = box
    return left >= LEFT + 2 and right <= WIDTH and top >= 0 and bottom <= HEIGHT - BOTTOM


Box = tuple[float, float, float, float]
"""The left, top, right and bottom edge of what is written."""

ASIDE = (-7.0, 15.0, -20.0, 28.0)
"""How far below its curve a label may stand: close above it, close below it, or farther off."""

MOST_TYPED = 40


def _labels(chart: Chart, curves: Sequence[Curve], taken: list[Box]) -> Iterator[str]:
    """What each curve is, beside it where it meets no curve and no other label: as far to the
    right as there is such a place."""
    for curve in curves:
        text = curve.typed[:MOST_TYPED]
        places = list(_places(chart, curve, len(text) * LETTER))
        free = [one for one in places if not _meets(chart, one, curves, taken)]
        beside = [one for one in free if _is_beside(chart, one, curve, curves)]
        at_end = _at_end(chart, curve, len(text) * LETTER, taken)
        place = next((one for one in (*beside[:1], at_end, *free[:1], *places) if one), None)
        if place is None:
            continue
        taken.append(place)
        yield label(place[2], place[3] - 3, text, "told", "end")


def _places(chart: Chart, curve: Curve, wide: float) -> Iterator[Box]:
    """Where a label of that width may stand, the best place first."""
    count = len(curve.columns)
    step = (WIDTH - LEFT - RIGHT) / count
    for at in range(count - 3, int(wide / step), -6):
        column = curve.columns[at]
        if column is None:
            continue
        right, y = LEFT + (at + 0.5) * step, chart.y((column[0] + column[1]) / 2)
        for aside in ASIDE:
            if TOP + 10 < y + aside < HEIGHT - BOTTOM - 4:
                yield right - wide, y + aside - 11, right, y + aside + 3


def _at_end(chart: Chart, curve: Curve, wide: float, taken: Sequence[Box]) -> Box | None:
    """Where a label stands right of the frame, at the end of its curve; None where there is no
    room."""
    column = curve.columns[-1]
    if column is None or wide > WIDEST_BESIDE:
        return None
    y = min(max(chart.y((column[0] + column[1]) / 2), TOP + GAP), HEIGHT - BOTTOM - GAP)
    left = WIDTH - RIGHT + GAP
    for aside in (0.0, -14.0, 14.0, -28.0, 28.0):
        box = left, y + aside - 7, left + wide, y + aside + 7
        if not any(box[1] < one[3] and one[1] < box[3] for one in taken if one[2] > left):
            return box
    return None


GAP, WIDEST_BESIDE = 6.0, 120.0
"""The gap between the frame and a label to the right of it, and the greatest width of such a
label."""


def _is_beside(chart: Chart, box: Box, curve: Curve, curves: Sequence[Curve]) -> bool:
    """Whether a text is so much closer to its curve than to the others that it is told whose it
    is."""
    own = _gap(chart, box, curve)
    return all(own + CLOSER <= _gap(chart, box, one) for one in curves if one is not curve)


CLOSER = 14.0
"""By how much, in points of the picture."""


def _gap(chart: Chart, box: Box, curve: Curve) -> float:
    """How far above or below a text a curve stands, at the least."""
    left, top, right, bottom = box
    step = (WIDTH - LEFT - RIGHT) / len(curve.columns)
    first, last = (int((x - LEFT) / step) for x in (left, right))
    columns = [one for one in curve.columns[max(first, 0) : last + 1] if one]
    return min(
        (max(chart.y(high) - bottom, top - chart.y(low), 0.0) for low, high in columns),
        default=math.inf,
    )


def _meets(
    chart: Chart, box: Box, curves: Sequence[Curve], taken: Sequence[Box], beside: float = 4
) -> bool:
    """Whether a text would stand on a curve, or so little ``beside`` one, or on another text."""
    left, top, right, bottom = box
    if any(left < one[2] and one[0] < right and top < one[3] and one[1] < bottom for one in taken):
        return True
    for curve in curves:
        step = (WIDTH - LEFT - RIGHT) / len(curve.columns)
        first, last = (int((x - LEFT) / step) for x in (left - beside, right + beside))
        for column in curve.columns[max(first, 0) : last + 1]:
            if column and chart.y(column[1]) < bottom and chart.y(column[0]) > top:
                return True
    return False
