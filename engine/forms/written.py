"""What a value is written as."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from engine.once import once
from engine.reading.latex import answer_latex
from engine.reading.mathml import answer_mathml
from engine.reading.plain import answer_text, node_text
from engine.reading.tree import Columns, Grid, Node, Statement


@dataclass(eq=False)
class Written:
    """A value as a ``tree`` and its ``sign``, which is ``=`` for exact and ``≈`` for
    rounded; ``notice`` is a sentence.

    ``also`` are further sayings about the value, such as its true value beside that of
    binary64.  ``nearly`` is the same value rounded, where both are worth showing.  Of a
    long list or table ``tree`` has only what is shown, ``count`` says how many items or rows
    there are, and ``whole`` makes all of them.
    """

    kind: str
    sign: str
    tree: Node | Statement
    also: tuple[str, ...] = ()
    notice: str = ""
    nearly: Written | None = None
    whole: Callable[[], Node] | None = None
    count: int = 0

    @once
    def text(self) -> str:
        """All of it as it can be typed in."""
        return answer_text(self.whole() if self.whole is not None else self.tree)

    @once
    def mathml(self) -> str:
        """What is shown of it, as the inside of a ``math`` element."""
        return answer_mathml(self.tree)

    @once
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
        """How long its text is; of a long list or table, that of what is shown."""
        if self.whole is not None and "text" not in vars(self):
            return len(self.head())
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
        heads = [node_text(head) for head in tree.heads]
        return [heads, *([answer_text(cell) for cell in row] for row in tree.rows[:most])]
