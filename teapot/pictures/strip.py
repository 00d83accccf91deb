"""The values of a long list in a row, from left to right: for each stretch a bar from its least
to its greatest."""

from __future__ import annotations

from collections.abc import Sequence

from teapot.pictures.svg import picture

WIDE, HIGH = 3, 28
THIN = 1.5
"""Height of a bar whose values are all alike."""


def draw(strip: Sequence[Sequence[float]], told: str) -> str:
    """The picture of the stretches, each with how far up its least and its greatest lie."""
    bars = []
    for at, (low, high) in enumerate(strip):
        tall = max(THIN, (high - low) * HIGH)
        top = min((1 - high) * HIGH, HIGH - tall)
        place = f'x="{at * WIDE}" y="{top:.1f}" width="{WIDE}" height="{tall:.1f}"'
        bars.append(f'<rect class="stretch" {place}/>')
    return picture(WIDE * len(strip), HIGH, "".join(bars), told)
