"""A number between its neighbours, and where rounding sends it."""

from __future__ import annotations

from teapot.engine.aids.number_line import NumberLine
from teapot.pictures.svg import label, picture, width_of

WIDTH, MARGIN, ROW = 290, 34, 19
AXIS = 46


def draw(line: NumberLine) -> str:
    """The picture of a number line."""
    span = WIDTH - 2 * MARGIN
    at = MARGIN + line.part * span
    ends = {-1: MARGIN, 0: at, 1: WIDTH - MARGIN}
    drawn = [f'<line class="axis" x1="8" x2="{WIDTH - 8}" y1="{AXIS}" y2="{AXIS}"/>']
    for x, text in ((MARGIN, line.below), (WIDTH - MARGIN, line.above)):
        drawn.append(f'<line class="tick" x1="{x}" x2="{x}" y1="{AXIS - 7}" y2="{AXIS + 7}"/>')
        drawn.append(label(x, AXIS - 12, text, "", "middle"))
    half = MARGIN + span / 2
    drawn.append(f'<line class="axis" x1="{half}" x2="{half}" y1="{AXIS - 4}" y2="{AXIS + 4}"/>')
    shown = line.value if len(line.value) <= 14 else line.value[:13] + "…"
    x = min(max(at, width_of(shown) / 2), WIDTH - width_of(shown) / 2)
    drawn.append(label(x, 14, shown, "value", "middle"))
    drawn.append(f'<line class="drop" x1="{at:.1f}" x2="{at:.1f}" y1="18" y2="{AXIS}"/>')
    drawn.append(f'<circle class="mark" cx="{at:.1f}" cy="{AXIS}" r="4"/>')
    for row, (name, way) in enumerate(line.sent.items(), 1):
        drawn.append(_arrow(name, at, ends[way], AXIS + 4 + row * ROW, name == line.here))
    height = AXIS + 4 + len(line.sent) * ROW + 12
    if line.is_tie:
        height += 16
        drawn.append(label(WIDTH / 2, height - 4, "a tie: both are equally near", "told", "middle"))
    sent = ", ".join(f"{name} {_told(way, line)}" for name, way in line.sent.items())
    tie = "; it is a tie" if line.is_tie else ""
    told = f"{line.value} between {line.below} and {line.above}{tie}: {sent}"
    return picture(WIDTH, height, "".join(drawn), told)


def _told(way: int, line: NumberLine) -> str:
    return {-1: f"goes to {line.below}", 0: "stays", 1: f"goes to {line.above}"}[way]


def _arrow(name: str, start: float, end: float, y: float, is_here: bool) -> str:
    kind = "sent here" if is_here else "sent"
    side = "start" if end < WIDTH / 2 else "end"
    text_x = max(start, end) + 8 if side == "start" else min(start, end) - 8
    tip = 5 if end < start else -5
    arrow = f'<line class="{kind}" x1="{start:.1f}" x2="{end:.1f}" y1="{y}" y2="{y}"/>'
    if abs(end - start) > 1:
        arrow += (
            f'<polyline class="{kind}" points="{end + tip:.1f},{y - 4} {end:.1f},{y} '
            f'{end + tip:.1f},{y + 4}"/>'
        )
    else:
        arrow += f'<circle class="{kind}" cx="{end:.1f}" cy="{y}" r="3"/>'
    return arrow + label(text_x, y + 4, name, f"{kind} told", side)
