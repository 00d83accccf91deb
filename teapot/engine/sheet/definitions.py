"""Which statement gave a name its value, as seen from a place in the sheet."""

from __future__ import annotations

from bisect import bisect_left, insort
from collections.abc import Iterable, Iterator
from operator import attrgetter

from teapot.engine.sheet.line import FOOT, Place, Step, WorksheetLine

ALL = "all"
"""``/forget all`` forgets every name."""

place_of = attrgetter("place")


class NamesBefore:
    """The names that have a value before a place."""

    def __init__(self, definitions: Definitions, place: float) -> None:
        self._definitions = definitions
        self._place = (place, -1)

    def __contains__(self, name: object) -> bool:
        is_known = name in self._definitions.by_name
        return is_known and self._definitions.seen(str(name), self._place) is not None


class Definitions:
    """The defining steps of each name, in the order of their places.

    ``live`` are those that are worked out where they are used, ``live_users`` those of them that
    a name reaches; ``changed`` the names that got another value, or were forgotten.
    """

    def __init__(self) -> None:
        self.by_name: dict[str, list[Step]] = {}
        self.live: set[Step] = set()
        self.live_users: dict[str, set[Step]] = {}
        self.changed: set[str] = set()

    def __contains__(self, name: object) -> bool:
        """Whether a name has a value at the foot: forgotten, it is read as before."""
        return name in self.by_name and self.seen(name) is not None

    def __iter__(self) -> Iterator[str]:
        return iter(self.by_name)

    def add(self, line: WorksheetLine) -> None:
        """Takes up what a line defines."""
        for step in line.steps:
            if step.is_live:
                self.live.add(step)
                for name in step.reached_by:
                    self.live_users.setdefault(name, set()).add(step)
            for name in step.defines:
                steps = self.by_name.setdefault(name, [])
                if steps and steps[-1].place > step.place:
                    insort(steps, step, key=place_of)
                else:
                    steps.append(step)
                self._note_change(name, steps)

    def remove(self, line: WorksheetLine) -> None:
        """Takes back what a line defines."""
        for step in line.steps:
            if step.is_live:
                self.live.discard(step)
                for name in step.reached_by:
                    self.live_users[name].discard(step)
            for name in step.defines:
                steps = self.by_name[name]
                steps.remove(step)
                self._note_change(name, steps)
                if not steps:
                    del self.by_name[name]

    def _note_change(self, name: str, steps: list[Step]) -> None:
        if len(steps) > 1 or (steps and steps[0].forgets):
            self.changed.add(name)
        else:
            self.changed.discard(name)

    def seen(self, name: str, place: Place = FOOT) -> Step | None:
        """The step that gives ``name`` its value before ``place``; None where there
        is none, or the name was forgotten since."""
        step = self._last(name, place)
        if step is None or step.statement is None:
            return None
        if ALL not in self.by_name:
            return step
        wiped = self._last(ALL, place)
        if wiped is not None and wiped.forgets and wiped.place > step.place:
            return None
        return step

    def _last(self, name: str, place: Place) -> Step | None:
        steps = self.by_name.get(name)
        if steps is None:
            return None
        if steps[-1].place < place:
            return steps[-1]
        at = bisect_left(steps, place, key=place_of)
        return steps[at - 1] if at else None

    def current(self, place: Place = FOOT) -> list[tuple[str, Step]]:
        """Every name with the step that gives it its value before ``place``."""
        names = ((name, self.seen(name, place)) for name in self.by_name)
        found = [(name, step) for name, step in names if step is not None]
        return sorted(found, key=lambda pair: (*pair[1].place, pair[0]))

    def reached_from(self, names: Iterable[str]) -> set[str]:
        """These names, and those whose live definitions use one of them, directly or by other live
        definitions."""
        found: set[str] = set()
        waiting = list(names)
        while waiting:
            name = waiting.pop()
            if name not in found:
                found.add(name)
                for user in self.live_users.get(name, ()):
                    waiting.extend(user.defines)
        return found
