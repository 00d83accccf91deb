"""The tables and procedures that a sheet can use by their names."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass

from teapot.engine.numbers.values import Table
from teapot.engine.sentences.procedures import IN_BIN, NO_PROCEDURE, RENAMED
from teapot.engine.sentences.tables import NO_SHELF

PREFIX, OF_PROCEDURE = "table:", "procedure:"
"""What a version begins with among what was drawn for a line."""

WITH_UNITS = "#units"
"""What stands after the version of a table whose columns have the units of their heads.  Lines
that were kept before there were units go on as they are."""


@dataclass(frozen=True, slots=True)
class ProcedureText:
    """Lines under a ``name``, one a row of ``text``, and what is set for them."""

    name: str
    text: str
    angle: str = "rad"
    log: str = "ask"
    numbers: str = "complex"
    form: str = ""
    units: str = "dimensions"


def version_in(drawn: str, prefix: str = PREFIX) -> str:
    """The version of what was drawn, which begins with ``prefix``."""
    return drawn.removeprefix(prefix).removesuffix(WITH_UNITS)


class Shelf:
    """Tables and procedures by name, each in the version that is the newest.

    A version never changes; ``load`` gives its table, :data:`WITH_UNITS` where that stands after
    it, ``texts`` has its procedure.
    ``binned`` are the names of what lies in the bin, each with :data:`PREFIX` or
    :data:`OF_PROCEDURE`; ``renamed`` says what is called otherwise now, by such names.
    ``replaced`` says of versions that are not the newest any more when that was, such as "on
    26 November at 14:05".
    """

    def __init__(
        self,
        versions: Mapping[str, str] | None = None,
        load: Callable[[str], Table] | None = None,
        replaced: Mapping[str, str] | None = None,
        procedures: Mapping[str, str] | None = None,
        texts: Mapping[str, ProcedureText] | None = None,
        binned: Collection[str] = (),
        renamed: Mapping[str, str] | None = None,
    ) -> None:
        self.versions = dict(versions or {})
        self.load = load
        self.replaced = dict(replaced or {})
        self.procedures = dict(procedures or {})
        self.texts = dict(texts or {})
        self.binned = frozenset(binned)
        self.renamed = dict(renamed or {})

    def procedure_version_of(self, name: str) -> str:
        """The newest version of the procedure of that name.

        Errors: :data:`NO_PROCEDURE` where there is none, :data:`IN_BIN` where it was deleted,
        :data:`RENAMED` where it is called otherwise now.
        """
        if name not in self.procedures:
            self._refuse_former(OF_PROCEDURE, "procedure", name)
            known = ", ".join(sorted(self.procedures))
            raise NO_PROCEDURE(name=name, known=f" Yours: {known}." if known else "")
        return OF_PROCEDURE + self.procedures[name]

    def procedure(self, version: str) -> ProcedureText:
        """The procedure in a version.  Errors: :data:`NO_PROCEDURE` where it is not kept."""
        key = version.removeprefix(OF_PROCEDURE)
        if key not in self.texts:
            raise NO_PROCEDURE(name=key, known="")
        return self.texts[key]

    def version_of(self, name: str) -> str:
        """The newest version of the table of that name.

        Errors: :data:`NO_SHELF` where there is none, :data:`IN_BIN` where it was deleted,
        :data:`RENAMED` where it is called otherwise now.
        """
        if name not in self.versions:
            self._refuse_former(PREFIX, "table", name)
            known = ", ".join(sorted(self.versions))
            raise NO_SHELF(name=name, known=f" Yours: {known}." if known else "")
        return PREFIX + self.versions[name] + WITH_UNITS

    def _refuse_former(self, prefix: str, what: str, name: str) -> None:
        now = self.renamed.get(prefix + name)
        if now is not None:
            raise RENAMED(what=what, name=name, now=now)
        if prefix + name in self.binned:
            raise IN_BIN(what=what, name=name)

    def table(self, version: str) -> Table:
        """The table in a version.  Errors: :data:`NO_SHELF` where it is no longer kept."""
        if self.load is None:
            raise NO_SHELF(name=version_in(version), known="")
        return self.load(version.removeprefix(PREFIX))

    def newer_than(self, drawn: str) -> str:
        """What was replaced and when, of a version that was drawn; empty where it was not."""
        for prefix, what in ((PREFIX, "table"), (OF_PROCEDURE, "procedure")):
            when = self.replaced.get(version_in(drawn, prefix)) if prefix in drawn[:12] else ""
            if when:
                return f"used a {what} that was {CHANGED[what]} {when}"
        return ""


CHANGED = {"table": "replaced", "procedure": "changed"}

EMPTY_SHELF = Shelf()
"""One without tables."""
