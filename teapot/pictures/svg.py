"""The little that all pictures share."""

from __future__ import annotations

from html import escape

CHARACTER = 8.4
"""Width of a character of the typed face at 14 px."""

HEIGHT = 20
"""Height of a row of text."""


def width_of(text: str) -> float:
    """About how wide ``text`` is."""
    return len(text) * CHARACTER


def label(x: float, y: float, text: str, kind: str = "", anchor: str = "start") -> str:
    """A text whose baseline stands at ``y``."""
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" class="{kind}" text-anchor="{anchor}">{escape(text)}</text>'
    )


def box(x: float, y: float, width: float, height: float, kind: str = "") -> str:
    """A box with round corners."""
    size = f'width="{width:.1f}" height="{height:.1f}"'
    return f'<rect x="{x:.1f}" y="{y:.1f}" {size} rx="5" class="{kind}"/>'


def picture(width: float, height: float, inner: str, told: str) -> str:
    """The ``svg`` element; ``told`` says for a screen reader what it shows."""
    view = f'viewBox="0 0 {width:.0f} {height:.0f}" width="{width:.0f}" height="{height:.0f}"'
    name = escape(told, quote=True)
    return f'<svg class="picture" role="img" aria-label="{name}" {view}>{inner}</svg>'
