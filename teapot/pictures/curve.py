"""The curve of a function, with the place of the argument at hand."""

from __future__ import annotations

import math

from teapot.engine.aids.curve import Curve
from teapot.pictures.svg import label, picture
from teapot.pictures.ticks import ROUND, short, ticks

WIDTH, HEIGHT = 290, 150
ACROSS = 6
"""About so many marks on the axis of the arguments."""
STEPS = {"deg": (15, 30, 90, 180, 360, 1800), "gon": (50, 100, 200, 400, 2000)}
"""Steps between the marks of an axis: of a power of ten, or of an angle's unit."""

MOST_PI = 13
"""Radians up to which an axis is marked in multiples of π."""


def draw(curve: Curve, name: str, width: int = WIDTH, height: int = HEIGHT) -> str:
    """The picture of ``curve``, that of the function ``name``."""
    left, right, low, high = curve.left, curve.right, curve.low, curve.high

    def x_of(x: float) -> float:
        return (x - left) / (right - left) * width

    def y_of(y: float) -> float:
        return height - (y - low) / (high - low) * height

    drawn = [*_axes(curve, x_of, y_of, width, height)]
    for pole in curve.poles:
        at = x_of(pole)
        drawn.append(f'<line class="pole" x1="{at:.1f}" x2="{at:.1f}" y1="0" y2="{height}"/>')
    for piece in curve.pieces:
        points = [(x_of(x), y_of(y)) for x, y in piece]
        if curve.is_dots:
            drawn += [f'<circle class="dot" cx="{x:.1f}" cy="{y:.1f}" r="2.5"/>' for x, y in points]
        else:
            path = " ".join(f"{x:.1f},{y:.1f}" for x, y in points)
            drawn.append(f'<polyline class="curve" points="{path}"/>')
    told = f"curve of {name} from {short(left)} to {short(right)}"
    if curve.poles:
        told += f", with poles near {', '.join(map(short, curve.poles))}"
    if curve.mark:
        x, y = curve.mark
        drawn.append(_mark(x_of(x), y_of(y), y_of(0) if low < 0 < high else height))
        told += f", marked at {short(x)}, where it is {short(y)}"
    return picture(width, height, "".join(drawn), told)


def _axes(curve, x_of, y_of, width, height):
    left, right, low, high = curve.left, curve.right, curve.low, curve.high
    zero_y = y_of(0) if low < 0 < high else height - 0.5
    zero_x = x_of(0) if left < 0 < right else 0.5
    yield _line(0, zero_y, width, zero_y)
    yield _line(zero_x, 0, zero_x, height)
    in_pi = right < MOST_PI and curve.unit == "rad"
    steps = STEPS.get(curve.unit, ROUND)
    marks = _pi_ticks(left, right) if in_pi else ticks(left, right, steps, ACROSS)
    for x in marks:
        at = x_of(x)
        if x and 12 < at < width - 12:
            yield _line(at, zero_y - 3, at, zero_y + 3)
            below = zero_y + 13 if zero_y < height - 14 else zero_y - 6
            yield label(at, below, _in_pi(x) if in_pi else short(x), "scale", "middle")
    for y in ticks(low, high):
        at = y_of(y)
        if y and 10 < at < height - 10:
            yield _line(zero_x - 3, at, zero_x + 3, at)
            yield label(zero_x + 6, at + 4, short(y), "scale")


def _line(x1: float, y1: float, x2: float, y2: float) -> str:
    return f'<line class="axis" x1="{x1:.1f}" x2="{x2:.1f}" y1="{y1:.1f}" y2="{y2:.1f}"/>'


def _pi_ticks(left: float, right: float) -> list[float]:
    """The multiples of π between two ends."""
    first, last = math.ceil(left / math.pi), math.floor(right / math.pi)
    return [n * math.pi for n in range(first, last + 1)]


def _in_pi(x: float) -> str:
    n = round(x / math.pi)
    return {1: "π", -1: "−π"}.get(n, f"{n}π").replace("-", "−")


def _mark(x: float, y: float, base: float) -> str:
    return (
        f'<line class="drop" x1="{x:.1f}" x2="{x:.1f}" y1="{base:.1f}" y2="{y:.1f}"/>'
        f'<circle class="mark" cx="{x:.1f}" cy="{y:.1f}" r="4"/>'
    )
