"""Which quantity was computed from which: given ones on top, arrows downwards."""

from __future__ import annotations

from engine.sheet.quantities import Quantity
from pictures.svg import box, label, picture, width_of

MOST = 24
"""Quantities that a small picture still shows well."""

WIDE = 290
ROW = 54
TALL = 24
GAP = 10


def draw(quantities: list[Quantity]) -> str:
    """The picture of quantities that use one another.

    Empty where nothing depends on anything, or there are too many.
    """
    names = {quantity.name: quantity for quantity in quantities}
    linked = {q.name for q in quantities for used in q.uses if used in names}
    linked |= {used for q in quantities for used in q.uses if used in names}
    if not linked or len(linked) > MOST:
        return ""
    places = _places(_levels({name: names[name] for name in linked}))
    drawn = []
    for name in sorted(linked):
        for used in names[name].uses:
            if used in places and used != name:
                drawn.append(_arrow(places[used], places[name]))
    for name, (x, y, width) in places.items():
        drawn.append(box(x, y, width, TALL, f"quantity-box {names[name].state}"))
        drawn.append(label(x + width / 2, y + 16, name, "typed", "middle"))
    told = "; ".join(
        f"{name} is computed from {', '.join(names[name].uses)}"
        for name in sorted(linked)
        if names[name].uses
    )
    height = max(y for _, y, _ in places.values()) + TALL + 4
    return picture(WIDE, height, "".join(drawn), told)


def _levels(names: dict[str, Quantity]) -> list[list[str]]:
    """The names row by row: each below all that it was computed from."""
    level: dict[str, int] = {}
    for _ in names:
        for name, quantity in names.items():
            used = [level.get(u, 0) for u in quantity.uses if u in names and u != name]
            level[name] = max(used) + 1 if used else 0
    rows: list[list[str]] = [[] for _ in range(max(level.values()) + 1)]
    for name in names:
        rows[level[name]].append(name)
    return [sorted(row) for row in rows]


def _places(rows: list[list[str]]) -> dict[str, tuple[float, float, float]]:
    """The left edge, top and width of each name's box; a long row goes on below."""
    places: dict[str, tuple[float, float, float]] = {}
    y = 2.0
    for row in rows:
        x = 2.0
        for name in row:
            width = min(max(34.0, width_of(name) + 14), WIDE - 4)
            if x + width > WIDE - 2 and x > 2:
                x, y = 2.0, y + TALL + 8
            places[name] = (x, y, width)
            x += width + GAP
        y += ROW
    return places


def _arrow(start: tuple[float, float, float], end: tuple[float, float, float]) -> str:
    x1, y1 = start[0] + start[2] / 2, start[1] + TALL
    x2, y2 = end[0] + end[2] / 2, end[1]
    middle = (y1 + y2) / 2
    line = f"M{x1:.1f} {y1:.1f}C{x1:.1f} {middle:.1f} {x2:.1f} {middle:.1f} {x2:.1f} {y2:.1f}"
    head = f"M{x2 - 4:.1f} {y2 - 6:.1f}L{x2:.1f} {y2:.1f}L{x2 + 4:.1f} {y2 - 6:.1f}"
    return f'<path class="arrow" d="{line}{head}"/>'
