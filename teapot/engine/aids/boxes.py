"""A calculation as nested boxes, done one after another, each with its value."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from teapot.engine.forms.answer import write_in_passing
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Binary, Call, Comparison, Formatted, Node, Postfix, Prefix
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings, is_work

MAX_BOXES = 60
"""Boxes that a picture of the workings still shows well."""

MAX_BOX_DEPTH = 9
"""Boxes inside each other that it does."""


@dataclass(frozen=True, slots=True)
class Box:
    """An operation as a box: its parts in their order, and its value."""

    parts: tuple[str | Box, ...]
    value: str

    @property
    def size(self) -> tuple[int, int]:
        """How many boxes there are in all, and how deep."""
        inner = [part.size for part in self.parts if isinstance(part, Box)]
        return 1 + sum(n for n, _ in inner), 1 + max((depth for _, depth in inner), default=0)


def box_of(workings: Workings) -> Box | None:
    """The whole calculation as nested boxes; None where it is no calculation, or
    has too many for a picture."""
    box = _boxed(workings.expression, workings)
    if not isinstance(box, Box):
        return None
    boxes, depth = box.size
    return box if boxes <= MAX_BOXES and depth <= MAX_BOX_DEPTH else None


def _boxed(node: Node, workings: Workings) -> str | Box:
    if isinstance(node, Formatted):
        return _boxed(node.expression, workings)
    if not is_work(node) or id(node) not in workings.values:
        # a leaf, or the branch of a choice that was not taken
        return node_text(node)
    parts = tuple(_parts_of(node, workings))
    written = write_in_passing(workings.values[id(node)], workings.form)
    return Box(parts, f"{written.sign} {written.text}")


def _parts_of(node: Node, workings: Workings) -> Iterator[str | Box]:
    match node:
        case Binary(op=op, left=left, right=right):
            yield _boxed(left, workings)
            yield "·" if op in ("*", "implied") else op
            yield _boxed(right, workings)
        case Prefix(op=op, operand=operand):
            yield op
            yield _boxed(operand, workings)
        case Postfix(op=op, operand=operand):
            yield _boxed(operand, workings)
            yield op
        case Comparison(operands=operands, ops=ops):
            for place, operand in enumerate(operands):
                if place:
                    yield ops[place - 1]
                yield _boxed(operand, workings)
        case Call(function=function):
            yield function
            for part in node.children:
                yield _boxed(part, workings)


def is_of(step: Step) -> bool:
    """Whether anything is worked out in a statement."""
    return any(map(is_work, step.nodes))


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Box]:
    """The boxes of a statement, as their picture gets them."""
    box = box_of(workings)
    return [] if box is None else [box]
