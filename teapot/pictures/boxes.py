"""A calculation as nested boxes, each with its value under it."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.aids.boxes import Box
from teapot.pictures.svg import HEIGHT, box, label, picture, width_of

PAD = 7
GAP = 6
VALUE = 17
"""Room for the value at the foot of a box."""


@dataclass(frozen=True, slots=True)
class Laid:
    """A part with its size; ``parts`` is empty for plain text."""

    text: str
    parts: tuple[Laid, ...]
    width: float
    height: float


def draw(tree: Box) -> str:
    """The picture of a box with all that are in it."""
    laid = _lay(tree)
    inner = "".join(_draw(laid, 2, 2))
    told = f"The calculation as nested boxes, the outermost {tree.value}"
    return picture(laid.width + 4, laid.height + 4, inner, told)


def _lay(part: str | Box) -> Laid:
    if isinstance(part, str):
        return Laid(part, (), width_of(part), HEIGHT)
    parts = tuple(_lay(inner) for inner in part.parts)
    inside = sum(inner.width for inner in parts) + GAP * (len(parts) - 1)
    width = max(inside, width_of(part.value)) + 2 * PAD
    height = max(inner.height for inner in parts) + VALUE + 2 * PAD
    return Laid(part.value, parts, width, height)


def _draw(laid: Laid, x: float, y: float) -> list[str]:
    if not laid.parts:
        return [label(x, y + HEIGHT - 5, laid.text, "typed")]
    drawn = [box(x, y, laid.width, laid.height, "box")]
    inside = sum(part.width for part in laid.parts) + GAP * (len(laid.parts) - 1)
    at = x + (laid.width - inside) / 2
    room = laid.height - VALUE - 2 * PAD
    for part in laid.parts:
        drawn += _draw(part, at, y + PAD + (room - part.height) / 2)
        at += part.width + GAP
    middle = x + laid.width / 2
    drawn.append(label(middle, y + laid.height - PAD, laid.text, "value", "middle"))
    return drawn
