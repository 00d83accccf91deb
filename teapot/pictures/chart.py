"""The frame of a picture of data: its axes with their marks, and where a value lies in it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from teapot.pictures.svg import label
from teapot.pictures.ticks import short, ticks

LEFT, RIGHT, TOP, BOTTOM = 56, 14, 12, 34
"""Margins, in which the marks are named."""

WIDTH, HEIGHT = 460, 250


@dataclass(frozen=True, slots=True)
class Chart:
    """Values from ``left`` to ``right`` across, and from ``low`` to ``high`` up."""

    left: float
    right: float
    low: float
    high: float

    def x(self, value: float) -> float:
        return LEFT + (value - self.left) / (self.right - self.left) * (WIDTH - LEFT - RIGHT)

    def y(self, value: float) -> float:
        return (
            HEIGHT - BOTTOM - (value - self.low) / (self.high - self.low) * (HEIGHT - TOP - BOTTOM)
        )

    def frame(self, across: str = "", up: str = "") -> Iterator[str]:
        """The two axes, with the names of what they count."""
        foot, side = HEIGHT - BOTTOM, LEFT
        yield f'<line class="axis" x1="{side}" x2="{WIDTH - RIGHT}" y1="{foot}" y2="{foot}"/>'
        yield f'<line class="axis" x1="{side}" x2="{side}" y1="{TOP}" y2="{foot}"/>'
        for value in ticks(self.left, self.right, count=6):
            x = self.x(value)
            yield f'<line class="axis" x1="{x:.1f}" x2="{x:.1f}" y1="{foot}" y2="{foot + 4}"/>'
            yield label(x, foot + 15, short(value), "scale", "middle")
        for value in ticks(self.low, self.high):
            y = self.y(value)
            yield f'<line class="rule" x1="{side}" x2="{WIDTH - RIGHT}" y1="{y:.1f}" y2="{y:.1f}"/>'
            yield label(side - 6, y + 4, short(value), "scale", "end")
        if across:
            yield label((side + WIDTH - RIGHT) / 2, HEIGHT - 4, across, "told", "middle")
        if up:
            yield label(2, TOP - 2, up, "told")


def wide(low: float, high: float, share: float = 0.05) -> tuple[float, float]:
    """Ends a little beyond those of the data, so that no point lies on the frame."""
    room = (high - low) * share or abs(high) * share or 1.0
    return low - room, high + room
