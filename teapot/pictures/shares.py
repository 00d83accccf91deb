"""How much of an uncertainty comes from each input: a bar each, the whole width for all of it."""

from __future__ import annotations

from html import escape

from teapot.engine.aids.shares import Shares
from teapot.engine.numbers.uncertain import Share
from teapot.pictures.svg import label, picture

WIDTH, ROW, FIRST = 380, 20, 32
NAMES, FIGURES = 98, 84
"""Room for the names and for the percentages."""

LONGEST = 11
"""Characters of a name."""


def draw(shares: Shares) -> str:
    """The picture of the shares."""
    drawn = [label(0, 14, "share of the variance", "told")]
    for at, one in enumerate(shares.bars):
        drawn += _row(FIRST + at * ROW, one)
    told = ", ".join(f"{one.name} {one.text}" for one in shares.bars)
    height = FIRST + len(shares.bars) * ROW - 8
    return picture(WIDTH, height, "".join(drawn), f"share of the variance: {told}")


def _row(y: float, one: Share) -> list[str]:
    span = WIDTH - NAMES - FIGURES
    short = one.name if len(one.name) <= LONGEST else one.name[: LONGEST - 1] + "…"
    place = f'x="{NAMES}" y="{y - 9}" height="10"'
    return [
        f"<g><title>{escape(one.name)}</title>{label(NAMES - 8, y, short, '', 'end')}</g>",
        f'<rect class="whole" {place} width="{span}"/>',
        f'<rect class="bin" {place} width="{max(1.0, one.part * span):.1f}"/>',
        label(WIDTH, y, one.text, "told", "end"),
    ]
