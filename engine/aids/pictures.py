"""The pictures of a statement: which there are, and what each shows.

A picture is a module here, which says of which statements it is and what it shows, one of
the same name in ``pictures/``, which draws that, and a row of :data:`PICTURES`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from engine.aids import bits, boxes, dial, number_line
from engine.reading.plain import statement_text
from engine.sheet.line import Line, Step
from engine.sheet.sheet import Sheet
from engine.sheet.workings import Workings

Shown = Callable[[Sheet, Step, Workings], list[dict[str, Any]]]
"""Gives what the pictures of one kind show, as plain data."""


@dataclass(frozen=True, slots=True)
class Picture:
    """``is_of`` tells without much work whether a statement may have it; ``shown`` gives
    one piece of data for each that there is.  One that ``is_apart`` is opened by itself,
    since it can be moved; the others stand in the workings, under a ``title`` where they
    are folded."""

    is_of: Callable[[Step], bool]
    shown: Shown
    is_apart: bool = False
    title: str = ""


PICTURES = {
    "dial": Picture(dial.is_of, dial.shown, is_apart=True),
    "boxes": Picture(boxes.is_of, boxes.shown),
    "number_line": Picture(number_line.is_of, number_line.shown),
    "bits": Picture(bits.is_of, bits.shown, title="in binary64, as machines keep it"),
}
"""All pictures by name, in the order in which they are shown."""

APART = frozenset(name for name, picture in PICTURES.items() if picture.is_apart)


def pictures_of(step: Step) -> tuple[str, ...]:
    """The names of the pictures that there are of a statement."""
    return tuple(name for name, picture in PICTURES.items() if picture.is_of(step))


def shown_in(sheet: Sheet, line: Line, name: str) -> list[dict[str, Any]]:
    """What the pictures of that name show of a line, statement by statement: the reading
    of the statement, and the data to draw."""
    picture = PICTURES[name]
    return [
        {"name": name, "title": picture.title, "reading": reading, "data": data}
        for step, workings, reading in _statements(sheet, line)
        if picture.is_of(step)
        for data in picture.shown(sheet, step, workings)
    ]


def workings_of(sheet: Sheet, line: Line) -> list[dict[str, Any]]:
    """The workings of a line: for each statement its reading, its steps, and the pictures
    that stand among them."""
    return [
        {
            "reading": reading,
            "steps": [work.for_page() for work in workings.steps()],
            "pictures": [
                {"name": name, "title": picture.title, "data": data}
                for name, picture in PICTURES.items()
                if not picture.is_apart and picture.is_of(step)
                for data in picture.shown(sheet, step, workings)
            ],
        }
        for step, workings, reading in _statements(sheet, line)
    ]


def _statements(sheet: Sheet, line: Line) -> list[tuple[Step, Workings, str]]:
    steps = [step for step in line.steps if step.statement is not None and step.error is None]
    readings = (statement_text(step.statement) for step in steps if step.statement is not None)
    return list(zip(steps, sheet.traced(line), readings, strict=False))
