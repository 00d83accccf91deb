"""Where names and answers get their values: what a scope is, and one with nothing in it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

from teapot.engine.diagnostics.names import Names, Values
from teapot.engine.numbers.values import Exact, Value
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.reading.tree import AnswerOf, Literal, Node
from teapot.engine.sentences.names import NO_ANSWER

Trace = list[tuple[Node, Value]]
"""The operations in the order in which they were done, each with its value."""


def values_in(trace: Trace) -> Values:
    """The values of all parts that were worked out."""
    return {id(node): value for node, value in trace}


def value_of_part(node: Node, values: Values) -> Value | None:
    """The value that a part had; None where it was not worked out."""
    return Exact(node.value) if isinstance(node, Literal) else values.get(id(node))


class Scope(Names, Protocol):
    """Where names and answers get their values.

    ``form`` is how numbers are shown, which ``~`` compares by; ``trace`` collects
    the operations that are done, where it is wanted.
    """

    form: Form
    trace: Trace | None

    @property
    def is_live(self) -> bool:
        """Whether it is that of a live definition."""

    @property
    def is_of_then(self) -> bool:
        """Whether it is that of the body of a function that sees only what was there when
        it was made."""

    def quantity(self, name: str) -> Value | None:
        """The quantity's value, None where there is none of this name."""

    def function_names(self) -> Iterable[str]:
        """Those of them that are functions."""

    def answer_of(self, node: AnswerOf) -> Value:
        """The value that ``@`` or ``@7`` stands for."""

    def kept(self) -> Scope:
        """The same scope for good, as a function keeps it that is defined here."""


class EmptyScope:
    """A scope in which the language has values, and nothing of the sheet has one."""

    form = STANDARD
    trace: Trace | None = None
    is_of_then = is_live = False

    def quantity(self, name: str) -> Value | None:
        return None

    def line_of(self, name: str) -> int | None:
        return None

    def quantity_names(self) -> Iterable[str]:
        return ()

    def function_names(self) -> Iterable[str]:
        return ()

    def answer_of(self, node: AnswerOf) -> Value:
        raise NO_ANSWER(node.span)

    def kept(self) -> Scope:
        return self

    def suggested(self, name: str) -> Iterable[str]:
        return ()
