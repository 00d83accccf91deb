"""The syntax tree.  Each node knows its place in the text of the line.

Two nodes are equal when they mean the same; their places do not count.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from flint import fmpq

from engine.mends import Span

IMPLIED = "implied"
"""The operator of a multiplication written with no sign, as in ``2 pi``."""


@dataclass(frozen=True, slots=True)
class Node:
    """Anything that has a value."""

    span: Span = field(compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        """The operands, in the order in which they are worked out."""
        return ()


@dataclass(frozen=True, slots=True)
class Literal(Node):
    """A number as typed, without the underscores; ``value`` is exact."""

    text: str
    value: fmpq = field(compare=False)


@dataclass(frozen=True, slots=True)
class Sexagesimal(Node):
    """An angle typed as ``12°30′15″``; ``degrees`` is exact."""

    text: str
    degrees: fmpq = field(compare=False)


@dataclass(frozen=True, slots=True)
class TextLiteral(Node):
    """Text between quotation marks."""

    text: str


@dataclass(frozen=True, slots=True)
class Name(Node):
    """A quantity or a constant."""

    name: str


@dataclass(frozen=True, slots=True)
class AnswerOf(Node):
    """``@`` (``number`` is None) or ``@7``."""

    number: int | None


@dataclass(frozen=True, slots=True)
class Prefix(Node):
    """An operator before its operand: ``-``, ``+`` or ``not``."""

    op: str
    operand: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.operand,)


@dataclass(frozen=True, slots=True)
class Postfix(Node):
    """An operator behind its operand: ``!``, ``%``, or a unit such as ``°`` or ``rad``."""

    op: str
    operand: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.operand,)


@dataclass(frozen=True, slots=True)
class Binary(Node):
    """An operator between two operands; ``op_span`` is the place of its sign."""

    op: str
    left: Node
    right: Node
    op_span: Span = field(compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.left, self.right)


@dataclass(frozen=True, slots=True)
class Comparison(Node):
    """``a < b <= c``: one operator fewer than operands, all to hold together."""

    operands: tuple[Node, ...]
    ops: tuple[str, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return self.operands


@dataclass(frozen=True, slots=True)
class Call(Node):
    """A function with its arguments by place, then those by name.

    ``is_own`` where the sheet has something of this name, whatever the language means
    by it.
    """

    function: str
    args: tuple[Node, ...]
    named: tuple[tuple[str, Node], ...] = ()
    name_span: Span = field(default=Span(0, 0), compare=False, repr=False)
    is_own: bool = field(default=False, compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return self.args + tuple(node for _, node in self.named)


@dataclass(frozen=True, slots=True)
class ListOf(Node):
    """``[a, b, c]``."""

    items: tuple[Node, ...]

    @property
    def children(self) -> tuple[Node, ...]:
        return self.items


@dataclass(frozen=True, slots=True)
class Range(Node):
    """``start..stop``, with ``by step`` behind it or ``step`` None."""

    start: Node
    stop: Node
    step: Node | None = None

    @property
    def children(self) -> tuple[Node, ...]:
        both = (self.start, self.stop)
        return both if self.step is None else (*both, self.step)


@dataclass(frozen=True, slots=True)
class Subscript(Node):
    """``of[index]``: an item of a list, or a part of it."""

    of: Node
    index: Node

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.of, self.index)


@dataclass(frozen=True, slots=True)
class Formatted(Node):
    """``expression as scientific, 4 digits``; each form as its words."""

    expression: Node
    forms: tuple[tuple[str, ...], ...]
    form_span: Span = field(default=Span(0, 0), compare=False, repr=False)

    @property
    def children(self) -> tuple[Node, ...]:
        return (self.expression,)


@dataclass(frozen=True, slots=True)
class Statement:
    """What stands between two semicolons.

    ``body`` is the place of the expression with the brackets around it, if any.
    """

    span: Span = field(compare=False, repr=False)
    expression: Node
    body: Span = field(compare=False, repr=False)


@dataclass(frozen=True, slots=True)
class Assignment(Statement):
    """``name = expression``, or ``name := expression`` where ``live``.

    ``a = b = 2`` has two targets.  ``f(x, y) = expression`` has one, and
    ``parameters``; they are None where it is no function.
    """

    targets: tuple[Name, ...]
    live: bool = False
    parameters: tuple[str, ...] | None = None


@dataclass(frozen=True, slots=True)
class Command:
    """A slash command; ``arguments`` are its words, each with its place."""

    name: str
    arguments: tuple[tuple[str, Span], ...] = field(compare=False)

    @property
    def argument(self) -> str:
        """All its words."""
        return " ".join(word for word, _ in self.arguments)


@dataclass(frozen=True, slots=True)
class LineTree:
    """A whole line: statements, whether it is kept quiet, and its note.

    ``brackets`` are the places of the pairs in the text, by which an editor shows
    them; two trees that differ only in them are equal.
    """

    statements: tuple[Statement, ...]
    quiet: bool = False
    note: str = ""
    command: Command | None = None
    brackets: tuple[tuple[Span, Span], ...] = field(default=(), compare=False, repr=False)


def walk(node: Node) -> Iterator[Node]:
    """``node`` and everything under it, without recursion."""
    waiting = [node]
    while waiting:
        node = waiting.pop()
        yield node
        waiting.extend(node.children)
