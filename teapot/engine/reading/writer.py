"""What the writers of trees share: each is a table by kind of node.

A writer puts a node in brackets where it binds looser than its place needs.  Answers are
written as readings are, but for two things that nobody misreads: the minus of a quotient
stands before its bar, and an i right after its number.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, ClassVar, Generic, TypeVar

from teapot.engine.reading.precedence import FORM, precedence
from teapot.engine.reading.tree import IMPLIED, Binary, Name, Node, Postfix, Prefix, Statement

T = TypeVar("T")

Kinds = dict[type[Node], Callable[[Any, Any], Any]]
"""Who writes each kind of node."""


class Writer(Generic[T]):
    """Writes nodes.  ``is_answer`` where they stand for a value, and not for what was
    typed."""

    kinds: ClassVar[Kinds] = {}

    def __init__(self, is_answer: bool = False) -> None:
        self.is_answer = is_answer

    def node(self, node: Node, least: int = FORM) -> T:
        """``node``, in brackets where it binds looser than ``least``."""
        written: T = self.kinds[type(node)](self, node)
        if least == FORM or self.precedence(node) >= least:
            return written
        return self.brackets(written)

    def precedence(self, node: Node) -> int:
        """How tightly a node binds as it is written."""
        return precedence(node)

    def brackets(self, inner: T) -> T:
        """``inner`` in brackets."""
        raise NotImplementedError

    def statement(self, statement: Statement) -> T:
        """A statement, its targets included."""
        raise NotImplementedError

    def joins_i(self, node: Binary) -> bool:
        """Whether this is an imaginary number in an answer: ``2i``."""
        right = node.right.operand if isinstance(node.right, Postfix) else node.right
        return self.is_answer and isinstance(right, Name) and right.name == "i"

    def minus_before(self, node: Binary) -> Node | None:
        """A quotient in an answer without the minus that stands before it: −2π/3; None
        where there is none."""
        above = without_minus(node.left) if self.is_answer else None
        return None if above is None else Binary(node.span, "/", above, node.right)


def without_minus(node: Node) -> Node | None:
    """What stands after the minus with which a product begins; None where none is."""
    if isinstance(node, Prefix) and node.op == "-":
        return node.operand
    if isinstance(node, Binary) and node.op in (IMPLIED, "*"):
        left = without_minus(node.left)
        return None if left is None else Binary(node.span, node.op, left, node.right)
    return None
