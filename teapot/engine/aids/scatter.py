"""Two lists as points, one beside the other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from teapot.engine.analysis.graphs import Graph
from teapot.engine.functions.statistics import intercept, slope
from teapot.engine.numbers.bulk_sums import numbers_in
from teapot.engine.numbers.values import Exact, List, Number, Real, Table, Value
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Call, Node, expression_in
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.workings import Workings

MOST = 1500
"""Points that are drawn; of more, as many are taken evenly."""

OF_PAIRS = ("correlation", "slope", "intercept", "least_squares", "residuals")
LONGEST_NAME = 24


@dataclass(frozen=True, slots=True, kw_only=True)
class Scatter:
    """``points`` of the lists that are called ``across`` and ``up``, of ``count`` pairs; the
    straight line of least squares as the y at its two ends."""

    across: str
    up: str
    points: tuple[tuple[float, float], ...]
    count: int
    line: tuple[float, float] | None


def scatter_of(x: Sequence[Value], y: Sequence[Value], across: str, up: str) -> Scatter | None:
    """The points of two lists; None where they are no real numbers, or too few."""
    (first, unit), (second, other) = numbers_in(x), numbers_in(y)
    if len(first) != len(second) or len(first) < 2:
        return None
    every = max(1, -(-len(first) // MOST))
    points = [(_float(a), _float(b)) for a, b in zip(first[::every], second[::every], strict=True)]
    if not all(math.isfinite(one) for point in points for one in point):
        return None
    pairs = List(first), List(second)
    rise, start = slope(*pairs), intercept(*pairs)
    line = None
    if isinstance(rise, Exact | Real) and isinstance(start, Exact | Real):
        ends = min(point[0] for point in points), max(point[0] for point in points)
        line = (_float(start) + _float(rise) * ends[0], _float(start) + _float(rise) * ends[1])
    across, up = (f"{name} [{one}]" if one else name for name, one in ((across, unit), (up, other)))
    return Scatter(across=across, up=up, points=tuple(points), count=len(first), line=line)


def _float(number: Number) -> float:
    return float(number.ball(64).mid())


def _call(step: Step) -> Call | None:
    node = expression_in(step.stated.expression)
    is_pair = isinstance(node, Call) and node.function in OF_PAIRS and len(node.args) == 2
    return node if is_pair and isinstance(node, Call) else None


def is_of(step: Step) -> bool:
    """Whether a statement is about two lists: a table of two columns, or a function of pairs."""
    if isinstance(step.value, Table):
        return len(step.value.columns) >= 2 and not isinstance(step.value, Graph)
    return _call(step) is not None


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Scatter]:
    """The points of a statement, as their picture gets them: of a table each further column
    against the first."""
    if isinstance(step.value, Table):
        first, *others = zip(step.value.heads, step.value.columns, strict=True)
        pairs = [(first, other) for other in others]
    else:
        call = _call(step)
        values = [workings.value_of(one) for one in call.args] if call else []
        lists = [one for one in values if isinstance(one, List)]
        if call is None or len(lists) != 2:
            return []
        pairs = [((call.args[0], lists[0]), (call.args[1], lists[1]))]
    found = (
        scatter_of(x.items, y.items, _name(head), _name(other)) for (head, x), (other, y) in pairs
    )
    return [one for one in found if one is not None]


def _name(node: Node) -> str:
    text = node_text(node)
    return text if len(text) <= LONGEST_NAME else text[: LONGEST_NAME - 1] + "…"
