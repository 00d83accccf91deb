"""Complex numbers as points of the plane, with their rays, parts and arguments."""

from __future__ import annotations

import math
from collections.abc import Iterator

from teapot.engine.aids.plane import PlaneFigure, PlanePoint, spacing
from teapot.pictures.svg import label

SIZE = 420
CENTRE = SIZE / 2
MOST_NAMED = 12
"""Points that still have their names beside them."""

LONGEST_NAME = 16
WIDE = 7.3
"""Width of a character of a name."""

ARC = 0.16
"""Radius of the arc of an argument, as a part of the picture's half."""


class _Drawing:
    """Coordinates of a picture that goes from −reach to reach both ways."""

    def __init__(self, reach: float) -> None:
        self.scale = CENTRE / reach

    def at(self, x: float, y: float) -> tuple[float, float]:
        return CENTRE + x * self.scale, CENTRE - y * self.scale

    def line(self, kind: str, x1: float, y1: float, x2: float, y2: float) -> str:
        (a, b), (c, d) = self.at(x1, y1), self.at(x2, y2)
        return f'<line class="{kind}" x1="{a:.1f}" y1="{b:.1f}" x2="{c:.1f}" y2="{d:.1f}"/>'

    def dot(self, point: PlanePoint, kind: str, radius: float) -> str:
        x, y = self.at(point.x, point.y)
        return f'<circle class="{kind}" cx="{x:.1f}" cy="{y:.1f}" r="{radius}"/>'


def draw(plane: PlaneFigure) -> str:
    """The inside of the plane's ``svg`` element."""
    on = _Drawing(plane.reach)
    main = plane.main
    drawn = [*_grid(on, plane.reach)]
    if not plane.figure and main.role == "value":
        drawn += _parts(on, main)
    if plane.figure == "polygon":
        drawn[:0] = _polygon(on, plane)
    if plane.figure == "shifted":
        drawn += _parallelogram(on, plane)
    for point in plane.points:
        drawn.append(on.line(f"ray {point.role}", 0, 0, point.x, point.y))
    if plane.figure == "turned":
        drawn += [_arc(on, point, number) for number, point in enumerate(plane.points)]
    for point in plane.points:
        if point is not main:
            drawn.append(on.dot(point, f"point {point.role}", 5))
    if len(plane.points) <= MOST_NAMED:
        drawn += _names(on, plane)
    drawn.append(on.dot(main, "handle", 8))
    return "".join(drawn)


def _grid(on: _Drawing, reach: float) -> Iterator[str]:
    step = spacing(reach)
    count = int(reach / step)
    for number in range(-count, count + 1):
        if not number:
            continue
        place = number * step
        yield on.line("grid", place, -reach, place, reach)
        yield on.line("grid", -reach, place, reach, place)
    yield on.line("axis", -reach, 0, reach, 0)
    yield on.line("axis", 0, -reach, 0, reach)
    x, y = on.at(0, 0)
    if 6 < on.scale < 2 * SIZE:
        yield f'<circle class="unit" cx="{x}" cy="{y}" r="{on.scale:.1f}"/>'
    for number in (*range(-count, 0), *range(1, count + 1)):
        text = f"{number * step:.6g}".replace("-", "−")
        across, down = on.at(number * step, 0)
        if abs(across - CENTRE) < CENTRE - 14:
            yield label(across, down + 15, text, "scale", "middle")
            yield label(x - 6, CENTRE - (across - CENTRE) + 4, f"{_factor(text)}i", "scale", "end")


def _factor(text: str) -> str:
    """What stands before i: 1 is not written."""
    return text[:-1] if text in ("1", "−1") else text


def _parts(on: _Drawing, point: PlanePoint) -> Iterator[str]:
    """The real part along its axis, and the imaginary part up from there."""
    yield on.line("re-side", 0, 0, point.x, 0)
    yield on.line("im-side", point.x, 0, point.x, point.y)
    if point.y or point.x < 0:
        yield _arc(on, point, 0)


def _arc(on: _Drawing, point: PlanePoint, number: int) -> str:
    """The arc of an argument, from the axis on the right."""
    angle = math.atan2(point.y, point.x)
    radius = CENTRE * (ARC + 0.05 * number)
    if not angle or math.hypot(point.x, point.y) * on.scale < radius:
        return ""
    x, y = CENTRE + radius * math.cos(angle), CENTRE - radius * math.sin(angle)
    way = int(angle < 0)
    path = f"M{CENTRE + radius:.1f},{CENTRE} A{radius:.1f},{radius:.1f} 0 0 {way} {x:.1f},{y:.1f}"
    return f'<path class="argument {point.role}" d="{path}"/>'


def _polygon(on: _Drawing, plane: PlaneFigure) -> Iterator[str]:
    """The corners joined, and the circle that they are on; under all the rest."""
    corners = " ".join("{:.1f},{:.1f}".format(*on.at(one.x, one.y)) for one in plane.points)
    yield f'<polygon class="together" points="{corners}"/>'
    x, y = on.at(0, 0)
    radius = math.hypot(plane.main.x, plane.main.y) * on.scale
    yield f'<circle class="together" cx="{x}" cy="{y}" r="{radius:.1f}"/>'


def _parallelogram(on: _Drawing, plane: PlaneFigure) -> Iterator[str]:
    first, _, value = plane.points
    yield on.line("together", first.x, first.y, value.x, value.y)
    yield on.line("together", value.x - first.x, value.y - first.y, value.x, value.y)


def _names(on: _Drawing, plane: PlaneFigure) -> Iterator[str]:
    taken: list[tuple[float, float]] = []
    for point in plane.points:
        if point.role == "mirror":
            continue
        x, y = on.at(point.x, point.y)
        name = point.name if len(point.name) <= LONGEST_NAME else point.name[:15] + "…"
        side = "start" if x + 12 + WIDE * len(name) < SIZE else "end"
        down = y + (-12 if point.y >= 0 else 20)
        while any(abs(down - other) < 14 and abs(x - across) < 120 for across, other in taken):
            down += -15 if point.y >= 0 else 15
        taken.append((x, down))
        yield label(x + (8 if side == "start" else -8), down, name.replace("-", "−"), "told", side)
