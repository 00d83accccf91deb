"""The dial: the unit circle with an angle's ray and its three segments."""

from __future__ import annotations

import math

from teapot.engine.aids.dial import Dial, DialPoint
from teapot.pictures.svg import label

SIZE, RADIUS = 380, 128
CENTRE = SIZE / 2
SPECIAL = sorted({*range(0, 360, 30), *range(45, 360, 90)})
"""Degrees marked on the rim: those whose sine and cosine have exact forms."""

LONGEST_TANGENT = 1.42
"""Radii up to which the tangent is drawn whole."""


def draw(dial: Dial) -> str:
    """The inside of the dial's ``svg`` element."""
    turns = dial.turns or 0.0
    theta = 2 * math.pi * turns
    cos, sin = math.cos(theta), math.sin(theta)
    drawn = [
        f'<circle class="rim" cx="{CENTRE}" cy="{CENTRE}" r="{RADIUS}"/>',
        f'<line class="axis" x1="10" x2="{SIZE - 10}" y1="{CENTRE}" y2="{CENTRE}"/>',
        f'<line class="axis" y1="10" y2="{SIZE - 10}" x1="{CENTRE}" x2="{CENTRE}"/>',
        *(_mark(degrees) for degrees in SPECIAL),
        _sector(turns),
        _segment("cos-side", 0, 0, cos, 0),
        _segment("sin-side", cos, 0, cos, sin),
    ]
    if dial.tan is not None:
        drawn.append(_tangent(dial.tan))
    drawn.append(_segment("ray", 0, 0, cos * 1.12, sin * 1.12))
    if dial.point is not None:
        drawn.append(_point(dial.point, cos, sin))
    x, y = _at(cos, sin)
    drawn.append(f'<circle class="handle" cx="{x:.1f}" cy="{y:.1f}" r="9"/>')
    return "".join(drawn)


def _at(x: float, y: float) -> tuple[float, float]:
    return CENTRE + RADIUS * x, CENTRE - RADIUS * y


def _segment(kind: str, x1: float, y1: float, x2: float, y2: float) -> str:
    (a, b), (c, d) = _at(x1, y1), _at(x2, y2)
    return f'<line class="{kind}" x1="{a:.1f}" y1="{b:.1f}" x2="{c:.1f}" y2="{d:.1f}"/>'


def _mark(degrees: int) -> str:
    theta = math.radians(degrees)
    cos, sin = math.cos(theta), math.sin(theta)
    x, y = _at(cos * 1.3, sin * 1.27)
    tick = _segment("tick", cos * 0.97, sin * 0.97, cos * 1.03, sin * 1.03)
    beside_rail = 0.6 < cos < 0.99
    place = max(x, CENTRE + RADIUS + 6) if beside_rail else x
    return tick + label(place, y + 4, f"{degrees}°", "scale", "start" if beside_rail else "middle")


def _sector(turns: float) -> str:
    """The arc from 0 to the angle, the way it is turned; whole turns are taken off."""
    rest = math.fmod(turns, 1)
    if not rest:
        return ""
    end = 2 * math.pi * rest
    (x1, y1), (x2, y2) = _at(0.28, 0), _at(0.28 * math.cos(end), 0.28 * math.sin(end))
    large, way = int(abs(rest) > 0.5), int(rest < 0)
    radius = RADIUS * 0.28
    return (
        f'<path class="sector" d="M{CENTRE},{CENTRE} L{x1:.1f},{y1:.1f} '
        f'A{radius:.1f},{radius:.1f} 0 {large} {way} {x2:.1f},{y2:.1f} Z"/>'
    )


def _tangent(tangent: float) -> str:
    """On the line that touches the circle at its right."""
    rail = _segment("rail", 1, -LONGEST_TANGENT, 1, LONGEST_TANGENT)
    end = max(-LONGEST_TANGENT, min(LONGEST_TANGENT, tangent))
    goes_on = "" if end == tangent else " goes-on"
    return rail + _segment(f"tan-side{goes_on}", 1, 0, 1, end)


def _point(point: DialPoint, cos: float, sin: float) -> str:
    x, y = _at(cos * 0.72, sin * 0.72)
    text = point.text.replace("-", "−")
    side = "end" if cos >= 0 else "start"
    away = -10 if cos >= 0 else 10
    dot = f'<circle class="point" cx="{x:.1f}" cy="{y:.1f}" r="4.5"/>'
    return dot + label(x + away, y + (-6 if sin >= 0 else 16), text, "told", side)
