"""The job that is done on lines that come in, before anything of them is kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from teapot.engine import FullSheet
from teapot.engine.limited.bounds import TimeIsUp
from teapot.engine.sheet.settings import Settings
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence.jobs import Job
from teapot.fence.lines import SheetLine


@dataclass(frozen=True, slots=True, kw_only=True)
class LinesTried(Job[dict[int, KeptOutcome]]):
    """What lines of a sheet of their own answer, by their numbers: of as many as there is time
    for."""

    lines: Sequence[SheetLine]
    settings: Settings

    def do(self, sheet: FullSheet) -> dict[int, KeptOutcome]:
        found: dict[int, KeptOutcome] = {}
        inner = FullSheet(self.settings)
        inner.now = sheet.now
        inner.set_shelf(sheet.shelf)
        try:
            for line in self.lines:
                line.put_into(inner)
            for line in self.lines:
                found[line.number] = inner.outcome_of(inner.by_number[line.number]).kept()
        except TimeIsUp:
            pass
        return found
