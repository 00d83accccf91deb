"""What diagnostics ask about the names that a line can see."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Protocol

from teapot.engine.numbers.values import Value

Values = Mapping[int, Value]
"""The values of the parts of an expression, by the identity of each part."""


class Names(Protocol):
    """The names at the place of a line."""

    def line_of(self, name: str) -> int | None:
        """The line that gave a quantity its value; None where none did."""

    def quantity_names(self) -> Iterable[str]:
        """All quantities that can be used here."""

    def suggested(self, name: str) -> Iterable[str]:
        """The functions that may be meant by a name which nothing has."""
