"""What depends on what in a sheet, and what is out of date."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.forms.answer import write_in_passing
from teapot.engine.mends import Mend, Notice, Span
from teapot.engine.numbers.comparison import can_be_told_apart
from teapot.engine.numbers.values import FunctionValue, Value
from teapot.engine.sheet.calculation import Calculation
from teapot.engine.sheet.line import FOOT, Place, Step, WorksheetLine
from teapot.engine.sheet.outcome import OUT_OF_DATE

MOST_AGAIN = 20
"""Statements that one mend computes again."""

MOST_MARKED = 500
"""Lines of a sheet that are marked as out of date at once."""


@dataclass(frozen=True, slots=True)
class OutOfDate:
    """A ``line`` that is out of date or uses what is, and ``why``."""

    line: int
    why: str


class Dependence:
    """What each value was computed from, and whether that has changed since.

    It holds for the sheet as it is, up to the ``foot`` where that is not its own: what is found
    out is kept, and is void as soon as a line changes.
    """

    def __init__(self, calculation: Calculation, foot: Place = FOOT) -> None:
        self.calculation = calculation
        self.foot = foot
        self.store = calculation.store
        self.reasons: dict[Step, str] = {}

    def names_used(self, step: Step) -> tuple[str, ...]:
        """The quantities that a step was computed from."""
        if not step.uses:
            return ()
        seen = self.store.definitions.seen
        place = self.foot if step.is_live else step.place
        return tuple(sorted(name for name in step.uses if seen(name, place) is not None))

    def reason(self, step: Step) -> str:
        """Why ``step``'s value is out of date; empty where it is not.

        What it used is looked at first, each step once, without recursion.
        """
        waiting = [step]
        while waiting:
            at = waiting[-1]
            if at in self.reasons:
                waiting.pop()
                continue
            before = [s for s in self._used(at) if s not in self.reasons]
            if before:
                waiting.extend(before)
                continue
            self.reasons[at] = self._reason(at)
            waiting.pop()
        return self.reasons[step]

    def _used(self, step: Step) -> list[Step]:
        """What the step used that still gives its name its value: only of those it counts
        whether they are out of date."""
        if step.is_live:
            return []
        seen = self.store.definitions.seen
        found = ((seen(name, step.place), self.now(name)) for name in step.uses)
        return [
            used for used, now in found if used is not None and used is now and not used.is_live
        ]

    def _reason(self, step: Step) -> str:
        if step.is_live or step.error is not None:
            return ""
        seen = self.store.definitions.seen
        for name in sorted(step.uses):
            used, now = seen(name, step.place), self.now(name)
            if used is None or name in step.defines:
                continue  # n = n + 1 is never late by itself
            if now is None:
                return f"used {name} = {self._shown(used, step)}; {name} is forgotten"
            if (now is not used or now.is_live) and self._differs(used, now, step):
                before, after = self._shown(used, step), self._shown(now, None)
                return f"used {name} = {before}; {name} is now {after}"
            if now is used and self.reasons.get(used):
                return f"used {name} = {self._shown(used, step)}, which is out of date"
        return self.of_old_table(step)

    def now(self, name: str) -> Step | None:
        """The step that gives a name its value at the foot."""
        return self.store.definitions.seen(name, self.foot)

    def of_old_table(self, step: Step) -> str:
        """What a step used of the shelf that was replaced since; empty where it did not."""
        return next(filter(None, map(self.store.shelf.newer_than, step.draws.values)), "")

    def _differs(self, used: Step, now: Step, step: Step) -> bool:
        before, after = self._value(used, step), self._value(now, None)
        if isinstance(before, FunctionValue) and now is used:
            return self._shown(used, step) != self._shown(now, None)
        if before is None or after is None:
            return before is not after
        return can_be_told_apart(before, after)

    def _value(self, definition: Step, seen_from: Step | None) -> Value | None:
        try:
            return self.calculation.value_at(
                definition, seen_from.place if seen_from else self.foot
            )
        except LineError:
            return None

    def _shown(self, definition: Step, seen_from: Step | None) -> str:
        value = self._value(definition, seen_from)
        return (
            "an error" if value is None else write_in_passing(value, self.store.settings.form).text
        )

    # -- lines ------------------------------------------------------------------------

    def may_be_out_of_date(self) -> bool:
        """Whether anything can be: a name has changed its value, or was forgotten, or a table
        was replaced."""
        return bool(self.store.definitions.changed or self.store.shelf.replaced)

    def outdated_in(self, line: WorksheetLine) -> Iterator[tuple[Step, str]]:
        """What the line uses that is out of date, each with how the line names it."""
        definitions = self.store.definitions
        for step in line.steps:
            if step.is_live or step.forgets:
                continue
            for name in sorted(step.uses):
                used = definitions.seen(name, step.place)
                if used is None or self.now(name) not in (used, step):
                    continue
                if not used.is_live and self.reason(used):
                    yield used, name
            for number in sorted(step.answers, key=lambda number: number or 0):
                number = line.last if number is None else number
                answered = None if number is None else self.store.by_number.get(number)
                used = answered.final_step if answered is not None else None
                if used is not None and not used.is_live and self.reason(used):
                    yield used, f"@{number}"

    def again(self, step: Step) -> list[Step]:
        """The steps that have to be done again for ``step`` to be up to date, in their
        order, itself last."""
        found: set[Step] = set()
        waiting = [step]
        while waiting:
            at = waiting.pop()
            if at not in found:
                found.add(at)
                waiting.extend(used for used in self._used(at) if self.reason(used))
        return sorted(found, key=lambda one: one.place)

    def notices(self, line: WorksheetLine) -> list[Notice]:
        """The notice on a line that uses what is out of date, with the mend that computes
        it again first."""
        if not line.steps or not self.may_be_out_of_date():
            return []
        outdated = list(self.outdated_in(line))
        if not outdated:
            return []
        used, name = outdated[0]
        text = f"{name} is out of date: it {self.reason(used)}."
        by_name = [step for step, named in outdated if not named.startswith("@")]
        steps = {one for step in by_name for one in self.again(step)}
        if len(by_name) < len(outdated) or len(steps) > MOST_AGAIN:
            return [Notice(OUT_OF_DATE, text)]
        again = [statement_of(one) for one in sorted(steps, key=lambda one: one.place)]
        start = Span(line.steps[0].stated.span.start, line.steps[0].stated.span.start)
        mend = Mend("compute again", start, "; ".join(again) + "; ")
        return [Notice(OUT_OF_DATE, text, (mend,))]


def statement_of(step: Step) -> str:
    """The text of a step's statement as it was typed."""
    return step.line.text[slice(*step.stated.span)]


def lines_out_of_date(dependence: Dependence) -> list[OutOfDate]:
    """The lines that are out of date, or that use a value which is; the last ones, where
    they are many."""
    if not dependence.may_be_out_of_date():
        return []
    definitions = dependence.store.definitions
    current = definitions.current(dependence.foot)
    outdated = {name for name, step in current if dependence.reason(step)}
    found: list[OutOfDate] = []
    for line in reversed(dependence.store.lines):
        why = _why(dependence, line, outdated)
        if why:
            found.append(OutOfDate(line.number, why))
        if len(found) == MOST_MARKED:
            break
    return found[::-1]


def _why(dependence: Dependence, line: WorksheetLine, outdated: set[str]) -> str:
    for step in line.steps:
        if any(name in outdated and dependence.now(name) is step for name in step.defines):
            return dependence.reason(step)
        if dependence.of_old_table(step):
            return dependence.of_old_table(step)
    if any(step.uses & outdated or step.answers for step in line.steps):
        for used, name in dependence.outdated_in(line):
            return f"{name} {dependence.reason(used)}"
    return ""


def again_for(dependence: Dependence, number: int | None) -> list[str]:
    """The lines to be typed so that a line, or everything that is out of date where
    ``number`` is None, is computed again."""
    if number is None:
        steps = {
            step for _, step in dependence.store.definitions.current() if dependence.reason(step)
        }
        lines = (dependence.store.by_number[one.line] for one in lines_out_of_date(dependence))
        # those that define nothing are answered anew too, each text once
        own = list(
            dict.fromkeys(
                line.text for line in lines if not any(step.defines for step in line.steps)
            )
        )
    else:
        line = dependence.store.by_number[number]
        steps = {one for step, _ in dependence.outdated_in(line) for one in dependence.again(step)}
        steps |= {step for step in line.steps if step.defines and dependence.reason(step)}
        own = [] if any(step in steps for step in line.steps) else [line.text]
    return [_typed_again(step) for step in sorted(steps, key=lambda one: one.place)] + own


def _typed_again(step: Step) -> str:
    note = step.line.note
    return statement_of(step) + (f"  # {note}" if note else "")
