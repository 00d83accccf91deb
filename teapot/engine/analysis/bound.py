"""What stands in a call that binds a name: the expressions, the name and where it goes."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from teapot.engine.analysis.reader import Of, in_unit_of
from teapot.engine.errors import LineError
from teapot.engine.mends import replace
from teapot.engine.numbers.measures import KELVIN
from teapot.engine.numbers.values import FunctionValue, Measure, Uncertain, Value
from teapot.engine.reading.tree import Name, Node, Range
from teapot.engine.sentences.analysis import (
    MEASURED_END,
    WANTS_BOUND,
    WANTS_RANGE,
    WRITTEN_AS_CALL,
)


@dataclass(frozen=True, slots=True)
class Bound:
    """A call of ``function`` with its ``args``, the bound names each with what is said of it, and
    ``options`` such as an order; ``of`` works a part out with values for the names."""

    function: str
    args: tuple[Node, ...]
    named: tuple[tuple[str, Node], ...]
    of: Of
    options: Mapping[str, Value] = field(default_factory=dict)

    def one(self) -> tuple[Node, str, Node]:
        """The only expression, the only name and what is said of it.

        Errors: :data:`WANTS_BOUND` where there are more or fewer.
        """
        if len(self.args) != 1 or len(self.named) != 1:
            raise WANTS_BOUND(such=PATTERNS[self.function])
        [(name, where)] = self.named
        return self.args[0], name, where

    def plain(self, node: Node) -> Value:
        """The value of a part in which no name is bound."""
        value = self.of(node, {})
        if isinstance(value, Uncertain):
            raise MEASURED_END(node.span)
        return value

    def ends(self, where: Node) -> tuple[Value, Value]:
        """The two ends of a range, both with the unit that one of them has where the other is 0.

        Errors: :data:`WANTS_RANGE` where it is none.
        """
        if not isinstance(where, Range) or where.step is not None:
            raise WANTS_RANGE(where.span, such=PATTERNS[self.function])
        start, stop = off_scale(self.plain(where.start)), off_scale(self.plain(where.stop))
        return in_unit_of(stop, start), stop


def without_functions(bound: Bound) -> Bound:
    """The call, where each expression may have a value at a place: ``graph(f, x = 0..1)`` has not.

    Errors: :data:`WRITTEN_AS_CALL` for the name of a function alone.
    """
    names = [name for name, _ in bound.named]
    for arg in bound.args if len(names) == 1 else ():
        if isinstance(arg, Name) and arg.name not in names and _is_function(arg, bound.of):
            call = f"{arg.name}({names[0]})"
            raise WRITTEN_AS_CALL(arg.span, (replace(arg.span, call),), call=call)
    return bound


def _is_function(name: Name, of: Of) -> bool:
    try:
        return isinstance(of(name, {}), FunctionValue)
    except LineError:
        return False


def off_scale(value: Value) -> Value:
    """A temperature of a scale as so many kelvins, whose multiples mean something."""
    if isinstance(value, Measure) and value.is_on_scale:
        return Measure(value.size, KELVIN)
    return value


USUAL_INTERVAL = "-10..10"
"""Where solutions are looked for, and graphs are drawn, in what is offered."""

NOT_BELOW_ZERO = re.compile(r"\b(?:ln|lg|lb|log|sqrt|root)\b|√")


def usual_interval(text: str) -> str:
    """The same for the equation ``text``: above 0 alone, where it may not be real below."""
    return "0..10" if NOT_BELOW_ZERO.search(text) else USUAL_INTERVAL


PATTERNS = {
    "sum": "sum(1/k^2, k = 1..100)",
    "product": "product(k, k = 1..10)",
    "integral": "integral(x^2, x = 0..1)",
    "derivative": "derivative(x^2, x = 3)",
    "solve": "solve(cos(t) == t, t = 0..2)",
    "graph": "graph(sin(x)/x, x = -10..10)",
}
"""How each is called, by an example."""
