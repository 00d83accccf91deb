"""Calls that bind a name, with measured values in them: worked out at these values, and beside
each for how the result changes with it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace

from teapot.engine.analysis.bound import Bound
from teapot.engine.analysis.reader import Of
from teapot.engine.numbers import propagation
from teapot.engine.numbers.values import FunctionValue, Value
from teapot.engine.reading.tree import Node

Compute = Callable[[Bound], Value]


def carried(compute: Compute) -> Compute:
    """The same function of a call, which carries the uncertainties of measured values on."""

    def with_uncertainty(bound: Bound) -> Value:
        return propagation.through_picked(lambda pick: compute(picked(bound, pick)))

    return with_uncertainty


def picked(bound: Bound, pick: propagation.Pick) -> Bound:
    """The call, whose values are those that are picked in the place of measured ones; also in
    functions of one's own."""

    def through(of: Of) -> Of:
        def inside(node: Node, given: Mapping[str, Value]) -> Value:
            value = of(node, given)
            if isinstance(value, FunctionValue) and value.within is not None:
                return replace(value, within=through(value.within))
            return pick(value)

        return inside

    return replace(bound, of=through(bound.of))
