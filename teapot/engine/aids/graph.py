"""The graph that a statement draws."""

from __future__ import annotations

from teapot.engine.analysis.graphs import Drawn, Graph
from teapot.engine.sheet.line import Step


def is_of(step: Step) -> bool:
    """Whether a statement draws a graph."""
    return isinstance(step.value, Graph)


def shown(step: Step) -> list[Drawn]:
    """What it draws."""
    value = step.value
    return [value.drawn] if isinstance(value, Graph) and value.drawn is not None else []
