"""Which quantity was computed from which: given ones on top, arrows downwards."""

from __future__ import annotations

from teapot.engine.sheet.quantities import Quantity
from teapot.pictures.svg import box, label, picture, width_of

MOST = 24
"""Quantities that a small picture still shows well."""

WIDE = 290
ROW = 54
TALL, WITH_UNIT = 24, 38
"""Heights of a box: with a name alone, and with its unit below that."""

GAP = 7


def draw(quantities: list[Quantity]) -> str:
    """The picture of quantities that use one another.

    Empty where nothing depends on anything, or there are too many.
    """
    names = {quantity.name: quantity for quantity in quantities}
    linked = {q.name for q in quantities for used in q.uses if used in names}
    linked |= {used for q in quantities for used in q.uses if used in names}
    if not linked or len(linked) > MOST:
        return ""
    tall = WITH_UNIT if any(names[name].unit for name in linked) else TALL
    places = _places(_levels({name: names[name] for name in linked}), names, tall)
    drawn = []
    for name in sorted(linked):
        for used in names[name].uses:
            if used in places and used != name:
                drawn.append(_arrow(places[used], places[name], tall))
    for name, (x, y, width) in places.items():
        one = names[name]
        drawn.append(box(x, y, width, tall, f"quantity-box {one.state}"))
        foot = y + 16 if one.unit or tall == TALL else y + 23
        drawn.append(label(x + width / 2, foot, name, "typed", "middle"))
        if one.unit:
            drawn.append(label(x + width / 2, y + 31, one.unit, "scale", "middle"))
    told = "; ".join(
        f"{_called(names[name])} is computed from {', '.join(names[name].uses)}"
        for name in sorted(linked)
        if names[name].uses
    )
    height = max(y for _, y, _ in places.values()) + tall + 4
    return picture(WIDE, height, "".join(drawn), told)


def _called(quantity: Quantity) -> str:
    """Its name, with what it is: ``Q, an energy,``."""
    return f"{quantity.name}, {quantity.kind}," if quantity.kind else quantity.name


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


def _places(
    rows: list[list[str]], names: dict[str, Quantity], tall: float
) -> dict[str, tuple[float, float, float]]:
    """The left edge, top and width of each name's box; a long row goes on below, and no box
    stands just below another, so that an arrow past it is seen."""
    places: dict[str, tuple[float, float, float]] = {}
    y = 2.0
    for at, row in enumerate(rows):
        x = 2.0 + at % 2 * ASIDE
        for name in row:
            widest = max(width_of(name), SMALLER * width_of(names[name].unit))
            width = min(max(34.0, widest + 14), WIDE - 4)
            if x + width > WIDE - 2 and x > 2:
                x, y = 2.0 + 2 * ASIDE, y + tall + 8
            places[name] = (x, y, width)
            x += width + GAP
        y += ROW - TALL + tall
    return places


ASIDE = 25.0
"""How far every other row stands aside."""

SMALLER = 11 / 14
"""The size of a unit beside that of a name."""


def _arrow(start: tuple[float, float, float], end: tuple[float, float, float], tall: float) -> str:
    x1, y1 = start[0] + start[2] / 2, start[1] + tall
    x2, y2 = end[0] + end[2] / 2, end[1]
    middle = (y1 + y2) / 2
    line = f"M{x1:.1f} {y1:.1f}C{x1:.1f} {middle:.1f} {x2:.1f} {middle:.1f} {x2:.1f} {y2:.1f}"
    head = f"M{x2 - 4:.1f} {y2 - 6:.1f}L{x2:.1f} {y2:.1f}L{x2 + 4:.1f} {y2 - 6:.1f}"
    return f'<path class="arrow" d="{line}{head}"/>'
