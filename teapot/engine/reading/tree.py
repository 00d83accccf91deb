"""The syntax tree.  Each node knows its place in the text of the line.

Two nodes are equal when they mean the same; their places do not count.  A tree is never
changed once it is made.  An answer is a tree too: what would have to be typed for it.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from dataclasses import dataclass, field
from datetime import datetime

from flint import fmpq

from teapot.engine.mends import Span
from teapot.engine.reading.literals import literal_value
from teapot.engine.units.unit import Unit

IMPLIED = "implied"
"""The operator of a multiplication written with no sign, as in ``2 pi``."""

NOWHERE = Span(0, 0)
"""The place of what was not typed."""

Change = Callable[["Node"], "Node"]
"""Gives a node for another."""


@dataclass(slots=True)
class Node:
    """Anything that has a value."""

    span: Span = field(compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        """The operands, in the order in which they are worked out."""
        return ()

    def mapped(self, change: Change) -> Node:
        """The same node with what ``change`` gives for each of its children."""
        return self


@dataclass(slots=True)
class Literal(Node):
    """A number as typed, without the underscores; ``known`` is its value, if it was
    worked out already."""

    text: str
    known: fmpq | None = field(default=None, compare=False, repr=False)

    @property
    def value(self) -> fmpq:
        """Its exact value."""
        if self.known is None:
            self.known = literal_value(self.text, self.span)[1]
        return self.known


@dataclass(slots=True)
class Sexagesimal(Node):
    """An angle typed as ``12°30′15″``; ``degrees`` is exact."""

    text: str
    degrees: fmpq = field(compare=False)


@dataclass(slots=True)
class Text(Node):
    """Text between quotation marks: what stands there, and expressions whose values are
    filled in."""

    parts: tuple[str | Node, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return tuple(part for part in self.parts if isinstance(part, Node))

    def mapped(self, change: Change) -> Node:
        parts = (change(part) if isinstance(part, Node) else part for part in self.parts)
        return Text(self.span, tuple(parts))


@dataclass(slots=True)
class Name(Node):
    """A quantity or a constant."""

    name: str


@dataclass(slots=True)
class AnswerOf(Node):
    """``@`` (``number`` is None) or ``@7``."""

    number: int | None


@dataclass(slots=True)
class Prefix(Node):
    """An operator before its operand: ``-``, ``+`` or ``not``."""

    op: str
    operand: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.operand,)

    def mapped(self, change: Change) -> Node:
        return Prefix(self.span, self.op, change(self.operand))


@dataclass(slots=True)
class Postfix(Node):
    """An operator after its operand: ``!``, ``%``, or a unit such as ``°`` or ``rad``."""

    op: str
    operand: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.operand,)

    def mapped(self, change: Change) -> Node:
        return Postfix(self.span, self.op, change(self.operand))


@dataclass(slots=True)
class Measured(Node):
    """A number with its unit of measurement; ``unit_span`` is the place of that."""

    number: Node
    unit: Unit
    unit_span: Span = field(default=NOWHERE, compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.number,)

    def mapped(self, change: Change) -> Node:
        return Measured(self.span, change(self.number), self.unit, self.unit_span)


@dataclass(slots=True)
class Binary(Node):
    """An operator between two operands; ``op_span`` is the place of its sign.

    ``origin`` tells a ± from all others, whatever way its value is reached.
    """

    op: str
    left: Node
    right: Node
    op_span: Span = field(default=NOWHERE, compare=False, repr=False)
    origin: Hashable = field(default=None, compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.left, self.right)

    def mapped(self, change: Change) -> Node:
        return Binary(
            self.span, self.op, change(self.left), change(self.right), self.op_span, self.origin
        )


@dataclass(slots=True)
class Comparison(Node):
    """``a < b <= c``: one operator fewer than operands, all to hold together."""

    operands: tuple[Node, ...]
    ops: tuple[str, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return self.operands

    def mapped(self, change: Change) -> Node:
        return Comparison(self.span, tuple(map(change, self.operands)), self.ops)


@dataclass(slots=True)
class Call(Node):
    """A function with its arguments by place, then those by name.

    ``is_own`` where the sheet has something of this name, whatever the language means
    by it.
    """

    function: str
    args: tuple[Node, ...]
    named: tuple[tuple[str, Node], ...] = ()
    name_span: Span = field(default=NOWHERE, compare=False, repr=False)
    is_own: bool = field(default=False, compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return self.args + tuple(node for _, node in self.named) if self.named else self.args

    def mapped(self, change: Change) -> Node:
        args = tuple(map(change, self.args))
        named = tuple((name, change(node)) for name, node in self.named)
        return Call(self.span, self.function, args, named, self.name_span, self.is_own)


@dataclass(slots=True)
class ListOf(Node):
    """``[a, b, c]``."""

    items: tuple[Node, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return self.items

    def mapped(self, change: Change) -> Node:
        return ListOf(self.span, tuple(map(change, self.items)))


@dataclass(slots=True)
class Range(Node):
    """``start..stop``, with ``by step`` after it or ``step`` None."""

    start: Node
    stop: Node
    step: Node | None = None

    @property
    def children(self) -> tuple[Node, ...]:
        both = (self.start, self.stop)
        return both if self.step is None else (*both, self.step)

    def mapped(self, change: Change) -> Node:
        return Range(self.span, *map(change, self.children))


@dataclass(slots=True)
class Subscript(Node):
    """``of[index]``: an item of a list, or a part of it."""

    of: Node
    index: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.of, self.index)

    def mapped(self, change: Change) -> Node:
        return Subscript(self.span, change(self.of), change(self.index))


@dataclass(slots=True)
class ColumnOf(Node):
    """``of.name``: a column of a table."""

    of: Node
    name: str
    name_span: Span = field(compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.of,)

    def mapped(self, change: Change) -> Node:
        return ColumnOf(self.span, change(self.of), self.name, self.name_span)


@dataclass(slots=True)
class Formatted(Node):
    """``expression as scientific, 4 digits``; each form as its words."""

    expression: Node
    forms: tuple[tuple[str, ...], ...]
    form_span: Span = field(default=NOWHERE, compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.expression,)

    def mapped(self, change: Change) -> Node:
        return Formatted(self.span, change(self.expression), self.forms, self.form_span)


# -- what stands in answers alone ----------------------------------------------------------


@dataclass(slots=True)
class Mixed(Node):
    """A whole number and a fraction side by side, 2⅓, in plain text ``2 + 1/3``.

    ``is_negative`` where a sign stands before both.
    """

    whole: Node
    fraction: Node
    is_negative: bool = False

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.whole, self.fraction)


@dataclass(slots=True)
class DateLiteral(Node):
    """A day as it is typed, ``2024-03-01``, and its beginning."""

    text: str
    moment: datetime


@dataclass(slots=True)
class TimesPowerOfTen(Node):
    """A measured value with a power of ten for both of its numbers: ``(1.6 ± 0.1)e-19``."""

    number: Node
    power: int

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.number,)


@dataclass(slots=True)
class Words(Node):
    """What is shown as it stands and cannot be typed in: a time of day, an ellipsis."""

    text: str


@dataclass(slots=True)
class Filled(Node):
    """A value in a text that was filled in, with the sign of how it was written."""

    text: str
    sign: str


@dataclass(slots=True)
class Grid(Node):
    """Items of a long list in even rows, ``across`` of them in each; there are ``more``
    that are not shown."""

    items: tuple[Node, ...]
    across: int
    more: bool = False

    @property
    def children(self) -> tuple[Node, ...]:
        return self.items


@dataclass(slots=True)
class Columns(Node):
    """Lists side by side, row by row, each column under its head; ``units`` has the unit of
    each, empty where it has none."""

    heads: tuple[Node, ...]
    rows: tuple[tuple[Node, ...], ...]
    units: tuple[str, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return tuple(cell for row in self.rows for cell in row)


# -- statements and lines ----------------------------------------------------------------


@dataclass(slots=True)
class Statement:
    """What stands between two semicolons.

    ``body`` is the place of the expression with the brackets around it, if any.
    """

    span: Span = field(compare=False, repr=False)
    expression: Node
    body: Span = field(compare=False, repr=False)


@dataclass(slots=True)
class Assignment(Statement):
    """``name = expression``, or ``name := expression`` where ``live``.

    ``a = b = 2`` has two targets.  ``f(x, y) = expression`` has one, and
    ``parameters``; they are None where it is no function.
    """

    targets: tuple[Name, ...]
    live: bool = False
    parameters: tuple[str, ...] | None = None


@dataclass(slots=True)
class Command:
    """A slash command; ``arguments`` are its words, each with its place."""

    name: str
    arguments: tuple[tuple[str, Span], ...] = field(compare=False)

    @property
    def argument(self) -> str:
        """All its words."""
        return " ".join(word for word, _ in self.arguments)


@dataclass(slots=True)
class LineTree:
    """A whole line: statements, whether it is kept quiet, and its note.

    ``brackets`` are the places of the pairs in the text, by which an editor shows
    them; two trees that differ only in them are equal.  ``at_stake`` are the names that are
    units or quantities by what has a value before the line, with their places; ``contested`` are
    the places at which a quantity's name could be a unit.
    """

    statements: tuple[Statement, ...]
    quiet: bool = False
    note: str = ""
    command: Command | None = None
    brackets: tuple[tuple[Span, Span], ...] = field(default=(), compare=False, repr=False)
    at_stake: tuple[tuple[str, int], ...] = field(default=(), compare=False, repr=False)
    contested: frozenset[int] = field(default=frozenset(), compare=False, repr=False)


BINDING = frozenset({"sum", "product", "integral", "derivative", "solve", "graph"})
"""Functions that bind a name within their call: ``sum(1/k, k = 1..10)``."""

OPTIONS = frozenset({"order"})
"""Names of arguments of these, which are never bound."""


def bound_in(call: Call) -> frozenset[str]:
    """The names that a call binds within itself.

    >>> from teapot.engine.parsing.parser import parse
    >>> sorted(bound_in(parse("sum(1/k, k = 1..n)").statements[0].expression))
    ['k']
    """
    if call.function not in BINDING or call.is_own or not call.args:
        return frozenset()
    names = {name for name, _ in call.named} - OPTIONS
    if call.function == "solve" and not names and len(call.args) == 2 and _has_equation(call):
        unknown = call.args[1]
        several = unknown.items if isinstance(unknown, ListOf) else (unknown,)
        names = {one.name for one in several if isinstance(one, Name)}
    return frozenset(names)


def _has_equation(call: Call) -> bool:
    first = call.args[0]
    rows = first.items if isinstance(first, ListOf) else (first,)
    return any(isinstance(one, Comparison) for one in rows)


def free(node: Node, hidden: frozenset[str] = frozenset()) -> Iterator[Node]:
    """``node`` and all under it, but for names where they are bound."""
    waiting = [(node, hidden)]
    while waiting:
        node, hidden = waiting.pop()
        if isinstance(node, Name) and node.name in hidden:
            continue
        yield node
        bound = bound_in(node) if isinstance(node, Call) else frozenset()
        if not bound:
            waiting += [(child, hidden) for child in node.children]
            continue
        assert isinstance(node, Call)
        waiting += [(child, hidden | bound) for child in node.args]
        waiting += [(child, hidden) for _, child in node.named]


def expression_in(node: Node | Statement) -> Node | Statement:
    """What is calculated in a statement: without the names it is given and its forms."""
    while isinstance(node, Formatted | Assignment):
        node = node.expression
    return node


def walk(node: Node) -> Iterator[Node]:
    """``node`` and everything under it, without recursion."""
    waiting = [node]
    while waiting:
        node = waiting.pop()
        yield node
        waiting.extend(node.children)
