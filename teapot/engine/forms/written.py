"""What a value is written as."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from teapot.engine.cached_attribute import cached_attribute
from teapot.engine.forms.summary import Summary
from teapot.engine.reading.latex import answer_latex
from teapot.engine.reading.mathml import answer_mathml
from teapot.engine.reading.plain import answer_text, heads_of
from teapot.engine.reading.tree import (
    NOWHERE,
    Columns,
    Grid,
    ListOf,
    Measured,
    Name,
    Node,
    Prefix,
    Statement,
    Text,
    Words,
)

SET_LENGTH = 8_000
"""Characters that the shown items of a long list or table count for: their MathML has about
twice as many."""

ITEMS_IN_SHORT = 3
"""Items of a long list that stand for it in a row."""


def nothing() -> None:
    """The summary of what needs none."""


@dataclass(eq=False)
class Written:
    """A value as a ``tree`` and its ``sign``, which is ``=`` for exact and ``≈`` for
    rounded; ``notice`` is a sentence.

    ``also`` are further sayings about the value, such as its true value beside that of
    binary64.  ``nearly`` is the same value rounded, where both are worth showing.  Of a
    long list or table ``tree`` has only what is shown, ``count`` says how many items or rows
    there are, ``whole`` makes all of them, ``first`` those of a table up to so many rows, and
    ``summary`` tells of them in a few figures.
    """

    kind: str
    sign: str
    tree: Node | Statement
    also: tuple[str, ...] = ()
    notice: str = ""
    nearly: Written | None = None
    whole: Callable[[], Node] | None = None
    first: Callable[[int], Columns] | None = None
    count: int = 0
    summary: Callable[[], Summary | None] = nothing

    @cached_attribute
    def text(self) -> str:
        """All of it as it can be typed in."""
        return answer_text(self.whole() if self.whole is not None else self.tree)

    @cached_attribute
    def mathml(self) -> str:
        """What is shown of it, as the inside of a ``math`` element."""
        return answer_mathml(self.tree)

    def mathml_in_short(self) -> str:
        """The same in a row: of many items the first, of a table how many rows it has."""
        if isinstance(self.tree, Grid):
            shown = self.tree.items[:ITEMS_IN_SHORT]
            return answer_mathml(ListOf(NOWHERE, (*shown, Words(NOWHERE, "…"))))
        if isinstance(self.tree, Columns):
            rows = self.count or len(self.tree.rows)
            return answer_mathml(Words(NOWHERE, f"{rows:,} rows"))
        return self.mathml

    @cached_attribute
    def latex(self) -> str:
        """What is shown of it, for LaTeX's mathematics."""
        return answer_latex(self.tree)

    def head(self) -> str:
        """Its text, or as much of it as is shown."""
        if isinstance(self.tree, Grid) and self.tree.more:
            return f"{answer_text(self.tree)[:-1]}, …"
        return answer_text(self.tree) if self.whole is not None else self.text

    @property
    def least_length(self) -> int:
        """How long its text is; of a long list or table, what its items take when they are
        set."""
        if self.whole is not None and "text" not in vars(self):
            return SET_LENGTH
        return len(self.text)

    def is_longer_than(self, characters: int) -> bool:
        """Whether there is more of it than is shown, or than so many characters."""
        return self.whole is not None or len(self.text) > characters

    def cells(self, most: int | None = None) -> list[list[str]]:
        """The rows of a table as text, its heads first; up to so many of them."""
        tree = self.tree
        if most is None and self.whole is not None:
            tree = self.whole()
        if not isinstance(tree, Columns):
            return []
        return [heads_of(tree), *([_cell(cell) for cell in row] for row in tree.rows[:most])]

    def column(self) -> tuple[str, list[list[str]]]:
        """The items of a list as rows, and the unit to stand above them where all have one."""
        tree = self.whole() if self.whole is not None else self.tree
        items = tree.items if isinstance(tree, ListOf | Grid) else ()
        unit = _unit_of_all(items)
        return unit, [[_cell(_without_unit(item) if unit else item)] for item in items]


def _unit_of_all(items: Sequence[Node]) -> str:
    """The unit that all items have which have a value; empty where there is none."""
    values = [one for one in map(_positive, items) if one != NO_VALUE]
    units = {one.unit if isinstance(one, Measured) else None for one in values}
    unit = next(iter(units)) if len(units) == 1 else None
    return "" if unit is None else unit.text


NO_VALUE = Name(NOWHERE, "undefined")


def _positive(item: Node) -> Node:
    """It without the minus before it."""
    return item.operand if isinstance(item, Prefix) and item.op == "-" else item


def _without_unit(item: Node) -> Node:
    if isinstance(item, Prefix):
        return Prefix(NOWHERE, item.op, _without_unit(item.operand))
    return item.number if isinstance(item, Measured) else item


def _cell(tree: Node) -> str:
    """A cell of a table as a file has it: text without its quotation marks."""
    if isinstance(tree, Text):
        return "".join(part if isinstance(part, str) else part.text for part in tree.parts)  # type: ignore[attr-defined]
    return answer_text(tree)
