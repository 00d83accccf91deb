"""Lines as they are stored, on their way to an evaluator."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from teapot.engine import FullSheet
from teapot.engine.numbers.context import Conventions
from teapot.engine.pickling import compactly_pickled
from teapot.engine.sheet.line import Drawn


@dataclass(frozen=True, slots=True)
class SheetLine:
    """A line as it is stored; one that is ``deleted`` is to be taken away.

    ``draws`` is what was drawn for it; what has to be drawn beyond that comes from its
    ``seed``, and dates from the moment at which it was ``kept``.
    """

    number: int
    text: str
    last: int | None = None
    place: float = 0
    deleted: bool = False
    conventions: Conventions | None = None
    draws: Drawn = ()
    seed: str = ""
    kept: datetime | None = None

    def put_into(self, sheet: FullSheet) -> None:
        """Puts it into a sheet, or takes it away."""
        if self.deleted:
            sheet.remove(self.number)
            return
        put = sheet.put(
            self.number,
            self.text,
            self.place or self.number,
            self.last,
            self.conventions,
            self.draws,
        )
        put.draw_from(self.seed, self.kept)


MOST_OF_A_PART = 4_000
"""Lines that are sent at once: about what is read in half a second."""


@compactly_pickled
@dataclass(frozen=True, slots=True)
class SyncPosition:
    """How far an evaluator has a sheet: at ``revision``; where it reads one for the first time,
    which is done in parts, up to the line ``number`` of what the sheet was at the revision
    ``target``."""

    revision: int = 0
    number: int = 0
    target: int = 0


NOTHING_YET = SyncPosition()


@dataclass(frozen=True, slots=True)
class Part:
    """Lines of a sheet.  Where they are not all, they are those up to the number ``upto`` of
    ``count``, in the order of their numbers."""

    lines: tuple[SheetLine, ...] = ()
    upto: int | None = None
    count: int = 0
