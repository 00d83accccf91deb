"""The tables that a sheet can bring in by their names."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from engine.errors import NoShelf
from engine.numbers.values import Table

PREFIX = "table:"
"""What a version begins with among what was drawn for a line."""


class Shelf:
    """Tables by name, each in the version that is the newest.

    A version never changes; ``load`` gives its table.  ``replaced`` says of versions that
    are not the newest any more when that was, such as "on 26 November at 14:05".
    """

    def __init__(
        self,
        versions: Mapping[str, str] | None = None,
        load: Callable[[str], Table] | None = None,
        replaced: Mapping[str, str] | None = None,
    ) -> None:
        self.versions = dict(versions or {})
        self.load = load
        self.replaced = dict(replaced or {})

    def version_of(self, name: str) -> str:
        """The newest version of the table of that name.

        Errors: :class:`NoShelf` where there is none.
        """
        if name not in self.versions:
            known = ", ".join(sorted(self.versions))
            raise NoShelf(name=name, known=f" There are {known}." if known else "")
        return PREFIX + self.versions[name]

    def table(self, version: str) -> Table:
        """The table in a version.  Errors: :class:`NoShelf` where it is no longer kept."""
        if self.load is None:
            raise NoShelf(name=version.removeprefix(PREFIX), known="")
        return self.load(version.removeprefix(PREFIX))

    def newer_than(self, drawn: str) -> str:
        """When a version that was drawn was replaced; empty where it was not."""
        return self.replaced.get(drawn.removeprefix(PREFIX), "") if PREFIX in drawn[:6] else ""


NO_SHELF = Shelf()
"""One without tables."""
