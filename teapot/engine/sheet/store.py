"""The lines of a sheet in their order, and what they define.

It knows which values a change makes void, and works none of them out.
"""

from __future__ import annotations

from bisect import bisect_left, insort
from collections.abc import Callable, Collection, Iterable, Iterator
from contextlib import contextmanager
from datetime import datetime

from teapot.engine.numbers.shelf import Shelf
from teapot.engine.sheet.definitions import Definitions, place_of
from teapot.engine.sheet.line import Place, Step, WorksheetLine
from teapot.engine.sheet.settings import Settings


def nothing_suggested(name: str) -> Iterable[str]:
    """What is meant by a name that nothing has, where nobody is there to be asked."""
    return ()


def no_pictures(step: Step) -> tuple[str, ...]:
    """The pictures of a statement, where nobody draws any."""
    return ()


class Dirty:
    """While values are made void from line to line: the ``names`` whose value is void as seen from
    the line at hand, those ``reached`` from them by live definitions too, and the ``answers``."""

    def __init__(self, definitions: Definitions, changed: WorksheetLine) -> None:
        self._definitions = definitions
        self.names = {name for step in changed.steps for name in step.defines}
        self.reached = definitions.reached_from(self.names)
        self.answers = {changed.number}

    def add(self, names: Iterable[str]) -> None:
        """Their values are void from here on."""
        more = set(names)
        self.names |= more
        self.reached |= self._definitions.reached_from(more - self.reached)

    def take_away(self, names: Iterable[str]) -> None:
        """They have other values from here on."""
        if not self.names.isdisjoint(names):
            self.names.difference_update(names)
            self.reached = self._definitions.reached_from(self.names)


class Store:
    """``lines`` by their place, each ``by_number`` too, and their ``definitions``.

    ``now`` is the clock of where the person is; ``shelf`` has the tables that can be brought
    in; ``suggested`` is asked for the functions
    that may be meant by a name which nothing has, ``pictures_of`` for the names of the
    pictures that there are of a statement.
    ``voided`` are the numbers of the lines whose answers were made void since somebody last
    cleared it.
    """

    def __init__(self, settings: Settings) -> None:
        self.settings = settings
        self.now: Callable[[], datetime] = datetime.now
        self.shelf = Shelf()
        self.suggested: Callable[[str], Iterable[str]] = nothing_suggested
        self.pictures_of: Callable[[Step], tuple[str, ...]] = no_pictures
        self.lines: list[WorksheetLine] = []
        self.by_number: dict[int, WorksheetLine] = {}
        self.definitions = Definitions()
        self.highest = 0
        self.voided: set[int] = set()
        self._covering: list[WorksheetLine] = []

    def set_shelf(self, shelf: Shelf) -> None:
        """Makes these the tables that can be brought in: of lines that are there too."""
        self.shelf = shelf
        for line in self.lines:
            for step in line.steps:
                step.draws.shelf = shelf

    # -- the order of lines -------------------------------------------------------

    @property
    def foot(self) -> float:
        """The place after the last line."""
        return self.lines[-1].place + 1 if self.lines else 1.0

    def insert(self, line: WorksheetLine) -> None:
        """Puts a line at its place."""
        if self.lines and self.lines[-1].place > line.place:
            insort(self.lines, line, key=place_of)
        else:
            self.lines.append(line)
        self.by_number[line.number] = line
        self.highest = max(self.highest, line.number)
        self.definitions.add(line)
        if line.covers:
            self._covering.append(line)

    def take_out(self, line: WorksheetLine) -> None:
        """Takes a line away, and what it defines."""
        del self.lines[self._index(line)]
        del self.by_number[line.number]
        if line.number == self.highest:
            self.highest = max(self.by_number, default=0)
        self.definitions.remove(line)
        if line.covers:
            self._covering.remove(line)

    def _index(self, line: WorksheetLine) -> int:
        at = bisect_left(self.lines, line.place, key=place_of)
        while self.lines[at] is not line:
            at += 1
        return at

    @contextmanager
    def holding(self, line: WorksheetLine) -> Iterator[None]:
        """Within it, ``line`` stands in the sheet in the place of its namesake."""
        present, highest = self.by_number.get(line.number), self.highest
        if present is not None:
            self.take_out(present)
        self.insert(line)
        try:
            yield
        finally:
            self.take_out(line)
            if present is not None:
                self.insert(present)
            self.highest = highest

    def is_only_new(self, line: WorksheetLine) -> bool:
        """Whether a line at the foot defines no more than new names: then nothing else is
        out of date for it."""
        steps = [step for step in line.steps if step.defines]
        if line is not self.lines[-1] or any(step.forgets or step.is_live for step in steps):
            return False
        by_name = self.definitions.by_name
        return all(len(by_name[name]) == 1 for step in steps for name in step.defines)

    def covered_at(self, place: float) -> set[str]:
        """The built-ins whose names are free for functions at a place."""
        return {name for line in self._covering if line.place < place for name in line.covers}

    # -- values that are void -------------------------------------------------------

    def invalidate(self, changed: WorksheetLine) -> None:
        """Forgets the values of all that was computed from what ``changed`` defines."""
        dirty = Dirty(self.definitions, changed)
        self._forget_definitions_of(changed.covers)
        at = bisect_left(self.lines, changed.place, key=place_of)
        for line in self.lines[at:]:
            if line is not changed:
                self._invalidate_line(line, dirty)
        for name in dirty.reached:
            for step in self.definitions.live_users.get(name, ()):
                self._void(step.line)

    def _forget_definitions_of(self, names: Collection[str]) -> None:
        """Whether functions may have these names has to be looked at again."""
        for name in names:
            for step in self.definitions.by_name.get(name, ()):
                self._void(step.line)
                self.invalidate(step.line)

    def _invalidate_line(self, line: WorksheetLine, dirty: Dirty) -> None:
        reached = line.error is not None and bool(line.at_stake & dirty.names)
        for step in line.steps:
            numbers = {line.last if number is None else number for number in step.answers}
            if numbers & dirty.answers or step.reached_by & dirty.reached:
                reached = True
                dirty.add(step.defines)
            elif not step.is_live:
                dirty.take_away(step.defines)
        if reached:
            steps = line.steps
            self._void(line)
            dirty.answers.add(line.number)
            if line.steps is not steps:  # read anew, it may define what it did not
                dirty.add(name for step in line.steps for name in step.defines)

    def _void(self, line: WorksheetLine) -> None:
        line.forget_values()
        self.voided.add(line.number)

    # -- what a step uses ------------------------------------------------------------

    def line_of_answer(self, step: Step, number: int | None) -> WorksheetLine | None:
        """The line that ``@`` (``number`` is None) or ``@7`` stands for in a step."""
        number = step.line.last if number is None else number
        return None if number is None else self.by_number.get(number)

    def used_directly(self, step: Step, place: Place) -> Iterator[Step]:
        """The steps that gave their values to what a step names, as seen from a place."""
        for name in step.uses:
            definition = self.definitions.seen(name, place)
            if definition is not None:
                yield definition
        for number in step.answers:
            line = self.line_of_answer(step, number)
            if line is not None and line.final_step is not None:
                yield line.final_step
