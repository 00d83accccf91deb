"""The jobs that change a sheet: each says what the change moves, in the same go."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime

from teapot.engine import FullSheet, LineError, Outcome
from teapot.engine.limited.bounds import TimeIsUp
from teapot.engine.numbers.context import Conventions
from teapot.engine.sheet.line import Drawn, NewLine
from teapot.engine.sheet.outcome import ERROR
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence.jobs import ChangeJob
from teapot.fence.lines import SheetLine
from teapot.fence.listing import ListingNews, news_of

MOST_AT_ONCE = 300
"""Quantities of a sheet up to which they come with a change: of more the page asks later, so
that the line does not wait for them."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """What a page wants to know of a change: the answers of the lines that it ``shows`` where
    they have moved, and its quantities, of which it has those of the revision ``listed``."""

    shows: frozenset[int] = frozenset()
    listed: int | None = None


@dataclass(frozen=True, slots=True)
class Moved:
    """What a change moves: the numbers of all lines whose answers are ``void`` by it, the
    outcomes of those that were wanted and made anew, and the quantities.  ``before`` is filled
    in where those are kept: how the answers of each line have changed."""

    void: frozenset[int] = frozenset()
    fresh: dict[int, KeptOutcome] = field(default_factory=dict)
    listing: ListingNews | None = None
    before: dict[int, list[str]] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Entered:
    """What came of a line that was entered: it stands in the sheet where it ``is_put``, and
    then that ``moved`` others."""

    outcome: KeptOutcome
    is_put: bool = False
    moved: Moved = Moved()


@dataclass(frozen=True, slots=True, kw_only=True)
class Enter(ChangeJob[Entered]):
    """Puts a line into the sheet, at the foot or at a ``place``, or in the place of the one of
    its number, unless it has an error, asks or is a setting.

    ``seed`` and ``kept`` are those of :meth:`teapot.engine.sheet.line.Line.draw_from`.
    """

    number: int
    text: str
    last: int | None = None
    place: float | None = None
    conventions: Conventions | None = None
    replies: tuple[str, ...] = ()
    draws: Drawn = ()
    seed: str = ""
    kept: datetime | None = None
    wanted: Wanted = Wanted()

    def do(self, sheet: FullSheet) -> Entered:
        line, outcome = sheet.entered(
            self.text,
            self.last,
            self.number,
            self.place,
            self.conventions,
            may_draw=True,
            replies=self.replies,
            draws=self.draws,
        )
        kept = outcome.kept()
        if not kept.is_kept or kept.is_setting:
            return Entered(kept)
        line.draw_from(self.seed, self.kept)
        return Entered(kept, True, _moved_by(sheet, lambda: sheet.adopt(line), self))

    def is_made(self, result: Entered) -> bool:
        return result.is_put

    def failed(self, error: LineError) -> Entered:
        return Entered(Outcome(self.number, self.text, ERROR, error=error).kept())


@dataclass(frozen=True, slots=True, kw_only=True)
class EnterSeveral(ChangeJob[list[Entered]]):
    """Puts lines into the sheet one after another: as many as there is time for, up to the
    first that cannot be kept; what it came to is the last that is given."""

    lines: Sequence[tuple[NewLine, str]]
    last: int | None
    conventions: Conventions
    kept: datetime | None = None

    def do(self, sheet: FullSheet) -> list[Entered]:
        found: list[Entered] = []
        last = self.last
        try:
            for new, seed in self.lines:
                job = Enter(
                    head=self.head,
                    revision=self.revision,
                    number=new.number,
                    text=new.text,
                    place=new.place,
                    last=last,
                    conventions=self.conventions,
                    replies=new.replies,
                    seed=seed,
                    kept=self.kept,
                )
                entered = job.do(sheet)
                found.append(entered)
                if not entered.is_put:
                    break
                if entered.outcome.answers:
                    last = new.number
        except TimeIsUp:
            pass
        return found

    def is_made(self, result: list[Entered]) -> bool:
        return any(one.is_put for one in result)


@dataclass(frozen=True, slots=True, kw_only=True)
class Put(ChangeJob[Moved]):
    """Puts lines into the sheet as they are, or takes them away."""

    lines: tuple[SheetLine, ...]
    wanted: Wanted = Wanted()

    def do(self, sheet: FullSheet) -> Moved:
        def put() -> None:
            for line in self.lines:
                line.put_into(sheet)

        moved = _moved_by(sheet, put, self)
        return Moved(moved.void | {line.number for line in self.lines}, moved.fresh, moved.listing)

    def is_made(self, result: Moved) -> bool:
        return True


def _moved_by(sheet: FullSheet, change: Callable[[], None], job: Enter | Put) -> Moved:
    wanted = job.wanted
    sheet.voided.clear()
    change()
    void = frozenset(sheet.voided)
    fresh: dict[int, KeptOutcome] = {}
    listing = None
    try:
        for number in sorted(void & wanted.shows):
            line = sheet.by_number.get(number)
            if line is not None:
                fresh[number] = sheet.outcome_of(line).kept()
        if wanted.listed is not None and len(sheet.definitions.by_name) <= MOST_AT_ONCE:
            listing = news_of(sheet, wanted.listed, job.revision)
    except TimeIsUp:
        pass  # the page asks for the others by itself
    return Moved(void, fresh, listing)
