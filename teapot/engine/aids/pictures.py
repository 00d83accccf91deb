"""The pictures of a statement: which there are, and what each shows.

A picture is a module here, which says of which statements it is and what it shows, one of
the same name in ``teapot/pictures/``, which draws that, and a row of :data:`PICTURES`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from teapot.engine.aids import (
    bits,
    boxes,
    dial,
    graph,
    histogram,
    number_line,
    plane,
    scatter,
    shares,
)
from teapot.engine.reading.plain import statement_text
from teapot.engine.sheet.line import Step, WorksheetLine
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings, WorkStep

Shown = Callable[[Worksheet, Step, Workings], Sequence[object]]
"""Gives what the pictures of one kind show: records, which the drawer of the kind knows."""


@dataclass(frozen=True, slots=True)
class PictureKind:
    """``is_of`` tells without much work whether a statement may have it; ``shown`` gives
    one record for each that there is.  One that ``is_apart`` is opened by itself,
    when it is asked for; the others stand in the workings, under a ``title`` where they
    are folded."""

    is_of: Callable[[Step], bool]
    shown: Shown
    is_apart: bool = False
    title: str = ""


PICTURES = {
    "dial": PictureKind(dial.is_of, dial.shown, is_apart=True),
    "plane": PictureKind(plane.is_of, plane.shown, is_apart=True),
    "histogram": PictureKind(histogram.is_of, histogram.shown, is_apart=True),
    "scatter": PictureKind(scatter.is_of, scatter.shown, is_apart=True),
    "graph": PictureKind(graph.is_of, lambda sheet, step, _: graph.shown(step), is_apart=True),
    "boxes": PictureKind(boxes.is_of, boxes.shown),
    "number_line": PictureKind(number_line.is_of, number_line.shown),
    "shares": PictureKind(shares.is_of, shares.shown),
    "bits": PictureKind(bits.is_of, bits.shown, title="in binary64, as machines keep it"),
}
"""All pictures by name, in the order in which they are shown."""

APART = frozenset(name for name, picture in PICTURES.items() if picture.is_apart)


def pictures_of(step: Step) -> tuple[str, ...]:
    """The names of the pictures that there are of a statement."""
    return tuple(name for name, picture in PICTURES.items() if picture.is_of(step))


@dataclass(frozen=True, slots=True)
class Pictured:
    """What the picture of that ``name`` shows; ``reading`` is the statement that it is of,
    where it is of one."""

    name: str
    title: str
    reading: str
    shown: object


@dataclass(frozen=True, slots=True)
class StatementWorkings:
    """A statement's reading, its steps, and the pictures that stand among them."""

    reading: str
    steps: list[WorkStep]
    pictures: list[Pictured]


def pictured(name: str, shown: object, reading: str = "") -> Pictured:
    """A record with the picture that it is for."""
    return Pictured(name, PICTURES[name].title, reading, shown)


def shown_in(
    sheet: Worksheet, line: WorksheetLine, name: str, window: graph.Window | None = None
) -> list[Pictured]:
    """What the pictures of that name show of a line, statement by statement; a graph over a
    ``window``, if there is one."""
    if name == "graph":  # which stands with its value
        if any(step.value is None and step.error is None for step in line.steps):
            sheet.traced(line)
        return [
            pictured(name, shown, statement_text(step.statement))
            for step in line.steps
            if step.statement is not None and graph.is_of(step)
            for shown in (
                graph.shown(step) if window is None else graph.shown_over(sheet, step, window)
            )
        ]
    return [one for found in _statements(sheet, line) for one in _of_statement(sheet, found, name)]


def workings_of(sheet: Worksheet, line: WorksheetLine) -> list[StatementWorkings]:
    """The workings of a line, statement by statement."""
    return [
        StatementWorkings(
            found.reading,
            found.workings.steps(),
            [
                one
                for name in PICTURES
                if name not in APART
                for one in _of_statement(sheet, found, name)
            ],
        )
        for found in _statements(sheet, line)
    ]


@dataclass(frozen=True, slots=True)
class _Statement:
    step: Step
    workings: Workings
    reading: str


def _of_statement(sheet: Worksheet, found: _Statement, name: str) -> Iterator[Pictured]:
    picture = PICTURES[name]
    if picture.is_of(found.step):
        for shown in picture.shown(sheet, found.step, found.workings):
            yield pictured(name, shown, found.reading)


def _statements(sheet: Worksheet, line: WorksheetLine) -> list[_Statement]:
    steps = [step for step in line.steps if step.statement is not None and step.error is None]
    return [
        _Statement(step, workings, statement_text(step.statement))
        for step, workings in zip(steps, sheet.traced(line), strict=False)
        if step.statement is not None
    ]
