"""A sheet: lines in their order, each worked out from those before it that it uses.

A value is a matter of the text alone.  Nothing is worked out before it is asked
for, and then only what it depends on, in the order of the lines.
"""

from __future__ import annotations

from bisect import bisect_left, insort
from collections.abc import Callable, Collection, Iterator, Sequence
from contextlib import contextmanager
from datetime import datetime

from engine.errors import (
    Asks,
    BuiltInName,
    DrawnLater,
    FromError,
    LineError,
    NoAnswer,
    NoBrackets,
    ShowWhat,
    SideBySide,
    TooManyArguments,
    Unfinished,
    UnknownFunction,
    UnknownName,
)
from engine.forms.collections import too_long
from engine.functions.catalogue import BY_NAME
from engine.limits import MAX_ANSWERS
from engine.mends import Mend, Notice, Span
from engine.numbers.context import Conventions, working
from engine.numbers.values import Applied, Value
from engine.reading.parser import parse
from engine.reading.tokens import BOX, split_note
from engine.reading.traps import traps_in
from engine.reading.tree import LineTree
from engine.sheet.angle_met import angle_met
from engine.sheet.answering import (
    answer_from,
    covered_by,
    covered_now,
    forgotten,
    is_built_in,
    refuse_equation,
    written_answer,
)
from engine.sheet.definitions import Definitions, place_of
from engine.sheet.dependence import Dependence
from engine.sheet.evaluation import Trace, value_of_statement, values_in
from engine.sheet.habits import habits_in
from engine.sheet.line import FOOT, Drawn, Line, Place, Step
from engine.sheet.outcome import ERROR, NOTE, OK, UNFINISHED, Answer, Outcome
from engine.sheet.quantities import Quantity, list_quantities
from engine.sheet.scope import SheetScope, needs
from engine.sheet.settings import Settings, after
from engine.sheet.workings import Workings, WorkStep

SAME = {"principal-root": "left-the-reals"}
"""A notice, and one that says the same with less: that one is left out beside it."""

MENDED_IN_STEPS = (UnknownFunction, SideBySide, NoBrackets, TooManyArguments)
"""Errors that a line may have several of: each mend leads to the next."""

MOST_STEPS = 4

MISSING = (UnknownName, Asks, DrawnLater, FromError, NoAnswer)
"""Errors of a line that only lacks a value."""

MAX_BOXES = 5
"""Boxes and brackets put in to show how an unfinished line reads."""


class Sheet:
    """Lines with their answers.  ``now`` is the clock of where the person is."""

    def __init__(self, settings: Settings = Settings()) -> None:  # noqa: B008 - it is frozen
        self.settings = settings
        self.now: Callable[[], datetime] = datetime.now
        self.lines: list[Line] = []
        self.by_number: dict[int, Line] = {}
        self.definitions = Definitions()
        self.last_answered: int | None = None
        self._dependence: Dependence | None = None
        self._covering: list[Line] = []

    # -- lines ----------------------------------------------------------------

    def answer(self, text: str, replies: Sequence[str] = (), number: int | None = None) -> Outcome:
        """Adds a line at the foot and works it out, as at a console.

        ``replies`` are those to the questions it asks; ``number`` names it, else it gets
        the next one.
        """
        line = self.append(text, number, self.last_answered)
        line.hear(replies)
        outcome = self.outcome_of(line)
        if outcome.status == OK:
            outcome = line.outcome = outcome.with_notices(self.dependence().notices(line))
        if outcome.status in (ERROR, UNFINISHED):
            self.definitions.remove(line)
            self._dependence = None
            line.steps = []
        if outcome.status == OK and outcome.answers:
            self.last_answered = outcome.number
        if outcome.status == OK and outcome.command:
            self.settings = after(self.settings, *outcome.command)
        return outcome

    def append(self, text: str, number: int | None = None, last: int | None = None) -> Line:
        """Adds a line at the foot without working it out.

        ``number`` names it, else it gets the next one; ``last`` is the line that
        a bare ``@`` stands for.
        """
        place = self.lines[-1].place + 1 if self.lines else 1.0
        return self.put(number or self._next_number(), text, place, last)

    def put(
        self,
        number: int,
        text: str,
        place: float,
        last: int | None = None,
        conventions: Conventions | None = None,
        draws: Drawn = (),
    ) -> Line:
        """Adds a line at a place, or puts it in the place of the one of that number.

        ``conventions`` are those it is answered under, else the sheet's own;
        ``draws`` is what was drawn for each of its statements.  What depends on it
        will be worked out again when it is asked for.
        """
        self.remove(number)
        line = self._read(text, number, last, conventions)
        line.place = place
        line.give(draws)
        self._insert(line)
        if not self._is_only_new(line):
            self._dependence = None
        self._invalidate(line)
        return line

    def _is_only_new(self, line: Line) -> bool:
        """Whether a line at the foot defines no more than new names: then nothing else is
        out of date for it."""
        steps = [step for step in line.steps if step.defines]
        if line is not self.lines[-1] or any(step.forgets or step.is_live for step in steps):
            return False
        by_name = self.definitions.by_name
        return all(len(by_name[name]) == 1 for step in steps for name in step.defines)

    def remove(self, number: int) -> None:
        """Takes a line away; one that is not there is no error."""
        line = self.by_number.get(number)
        if line is not None:
            self._dependence = None
            self._take_out(line)
            self._invalidate(line)

    def preview(
        self,
        text: str,
        last: int | None = None,
        number: int | None = None,
        place: float | None = None,
        conventions: Conventions | None = None,
        may_draw: bool = False,
        replies: Sequence[str] = (),
        draws: Drawn = (),
    ) -> Outcome:
        """What a line would answer, with nothing kept: at the foot, or at ``place``.

        Where there is a line of that ``number``, it is as if that one were mended.
        A random number is drawn only where that ``may_draw``; ``replies`` are those to
        the questions that it asks then, ``draws`` what was drawn and replied before.
        """
        line = self._read(text, number or self._next_number(), last, conventions)
        for step in line.steps:
            step.draws.may_draw = may_draw
        line.hear(replies)
        line.give(draws)
        line.place = place or (self.lines[-1].place + 1 if self.lines else 1.0)
        out_of_date = self.dependence().notices(line)
        with self._with(line):
            outcome = self._worked_out(line)
        if outcome.status == OK:
            outcome = outcome.with_notices(out_of_date)
        return self._with_mends_that_work(line, outcome)

    def dependence(self) -> Dependence:
        """What depends on what in the sheet as it is."""
        if self._dependence is None:
            self._dependence = Dependence(self)
        return self._dependence

    def value_of(self, text: str) -> Value | None:
        """The value of an expression at the foot; None where it has none."""
        line = self._read(text, self._next_number(), self.last_answered)
        line.place = self.lines[-1].place + 1 if self.lines else 1.0
        if len(line.steps) != 1:
            return None
        [step] = line.steps
        step.draws.may_draw = False
        with self._with(line):
            self.work_out(step)
        return step.value

    def value_named(self, name: str) -> Value | None:
        """The value that a quantity has at the foot; None where there is none."""
        step = self.definitions.seen(name)
        if step is None or step.forgets:
            return None
        try:
            return self.value_at(step, FOOT)
        except LineError:
            return None

    def outcome_of(self, line: Line) -> Outcome:
        """The line's answers, worked out now unless they were before."""
        if line.outcome is None:
            line.outcome = self._with_mends_that_work(line, self._worked_out(line))
        return line.outcome

    # -- mends --------------------------------------------------------------------

    def _with_mends_that_work(self, line: Line, outcome: Outcome) -> Outcome:
        """The outcome without the mends that would be errors themselves."""
        if isinstance(outcome.error, Unfinished):
            return outcome
        error = outcome.error
        offered = error.mends if isinstance(error, MENDED_IN_STEPS) else ()
        outcome = outcome.with_mends(lambda mend: self._tried(mend, line) is mend)
        if offered and not error.mends:
            in_steps = self._tried(offered[0], line, MOST_STEPS)
            error.mends = () if in_steps is None else (in_steps,)
        return outcome

    def _tried(self, mend: Mend, line: Line, further: int = 0) -> Mend | None:
        """A mend that works: this one, or with so many ``further`` ones behind it, as
        ``avg(1, 2)`` becomes ``mean([1, 2])``; None where there is none."""
        text = mend.apply(line.text)
        if not text.strip(" ()"):
            return None
        error = self._error_of(text, line)
        if error is None:
            return mend
        if not further or not error.mends:
            return None
        next_one = Mend(mend.label, Span(0, len(line.text)), error.mends[0].apply(text))
        return self._tried(next_one, line, further - 1)

    def _error_of(self, text: str, line: Line) -> LineError | None:
        """The error of a text in the place of a line; None where it would be answered, or
        would ask for no more than a value that is missing."""
        mended = self._read(text, line.number, line.last, line.conventions)
        if mended.error is not None:
            return mended.error
        mended.place = line.place
        for step in mended.steps:
            step.draws.may_draw = False
        with self._with(mended):
            error = self._worked_out(mended).error
        return None if error is None or isinstance(error, MISSING) else error

    def quantities(self) -> list[Quantity]:
        """The quantities as they are at the foot, in the order of their lines."""
        return list_quantities(self)[0]

    def workings(self, line: Line) -> list[list[WorkStep]]:
        """For each statement of an answered line, the steps of its calculation."""
        return [made.steps() for made in self.traced(line)]

    def traced(self, line: Line) -> list[Workings]:
        """For each statement of an answered line, what its workings are made from."""
        self.outcome_of(line)
        made = []
        for step in line.steps:
            if step.forgets or step.error is not None:
                continue
            trace: Trace = []
            place = self._seen_from(step)
            with working(step.work()):
                value_of_statement(step.statement, SheetScope(self, step, place, trace))
            made.append(Workings(step.statement.expression, trace, self.settings.form))
        return made

    # -- the order of lines -------------------------------------------------------

    def _insert(self, line: Line) -> None:
        if self.lines and self.lines[-1].place > line.place:
            insort(self.lines, line, key=place_of)
        else:
            self.lines.append(line)
        self.by_number[line.number] = line
        self.definitions.add(line)
        if line.covers:
            self._covering.append(line)

    def _take_out(self, line: Line) -> None:
        del self.lines[self._index(line)]
        del self.by_number[line.number]
        self.definitions.remove(line)
        if line.covers:
            self._covering.remove(line)

    def _index(self, line: Line) -> int:
        at = bisect_left(self.lines, line.place, key=place_of)
        while self.lines[at] is not line:
            at += 1
        return at

    @contextmanager
    def _with(self, line: Line) -> Iterator[None]:
        """Within it, ``line`` stands in the sheet in the place of its namesake."""
        present = self.by_number.get(line.number)
        if present is not None:
            self._take_out(present)
        self._insert(line)
        try:
            yield
        finally:
            self._take_out(line)
            if present is not None:
                self._insert(present)

    def _invalidate(self, changed: Line) -> None:
        """Forgets the values of all that was computed from what ``changed`` defines."""
        dirty = {name for step in changed.steps for name in step.defines}
        self._forget_definitions_of(changed.covers)
        answers = {changed.number}
        at = bisect_left(self.lines, changed.place, key=place_of)
        for line in self.lines[at:]:
            if line is not changed:
                self._invalidate_line(line, dirty, answers)
        for step in self.definitions.live:
            if self.definitions.reach(step) & dirty:
                step.line.forget_values()

    def _forget_definitions_of(self, names: Collection[str]) -> None:
        """Whether functions may have these names has to be looked at again."""
        for name in names:
            for step in self.definitions.by_name.get(name, ()):
                step.line.forget_values()
                self._invalidate(step.line)

    def _covered_at(self, place: float) -> set[str]:
        """The built-ins whose names are free for functions at a place."""
        return {name for line in self._covering if line.place < place for name in line.covers}

    def _invalidate_line(self, line: Line, dirty: set[str], answers: set[int]) -> None:
        reached = False
        for step in line.steps:
            numbers = {line.last if number is None else number for number in step.answers}
            if numbers & answers or self.definitions.reach(step) & dirty:
                reached = True
                dirty.update(step.defines)
            elif not step.is_live:
                dirty.difference_update(step.defines)
        if reached:
            line.forget_values()
            answers.add(line.number)

    def _next_number(self) -> int:
        return max(self.by_number, default=0) + 1

    def _read(
        self, text: str, number: int, last: int | None, conventions: Conventions | None = None
    ) -> Line:
        line = Line(number, text, last=last)
        line.conventions = conventions or self.settings.conventions
        try:
            line.take(parse(text, BY_NAME, self.definitions), self.now)
        except LineError as error:
            line.error = error
        return line

    # -- working out ------------------------------------------------------------

    def _worked_out(self, line: Line) -> Outcome:
        if line.error is not None:
            status = UNFINISHED if isinstance(line.error, Unfinished) else ERROR
            return Outcome(line.number, line.text, status, error=line.error)
        if line.tree.command is not None:
            return self._commanded(line)
        if line.is_note:
            return Outcome(line.number, line.text, NOTE, note=line.tree.note)
        return self._answers(line)

    def _answers(self, line: Line) -> Outcome:
        tree = line.tree
        answers: list[Answer] = []
        try:
            refuse_equation(line, self._covered_at(line.place))
        except LineError as error:
            return Outcome(line.number, line.text, ERROR, note=tree.note, error=error)
        notices: list[Notice] = list(traps_in(line.text, tree, line.conventions.angle))
        for step in line.steps:
            try:
                answers.append(self._answered(step, notices))
            except LineError as error:
                return Outcome(
                    line.number,
                    line.text,
                    UNFINISHED if isinstance(error, Asks) else ERROR,
                    note=tree.note,
                    error=error,
                    notices=tuple(notices),
                    draws=_drawn(line),
                )
        if sum(len(answer.text) for answer in answers) > MAX_ANSWERS:
            return Outcome(line.number, line.text, ERROR, note=tree.note, error=too_long())
        said = {SAME.get(notice.code) for notice in notices}
        notices = [notice for notice in notices if notice.code not in said]
        return Outcome(
            line.number,
            line.text,
            OK,
            tree.quiet,
            tree.note,
            tuple(answers),
            tuple(notices),
            is_live=line.is_live,
            draws=_drawn(line),
        )

    def _commanded(self, line: Line) -> Outcome:
        command = line.tree.command
        try:
            if command.name == "show" and not command.arguments:
                raise ShowWhat()
            after(self.settings, command.name, command.argument)
            said = forgotten(command, self.definitions, line) if command.name == "forget" else ()
            said = covered_now(command) if command.name == "cover" else said
        except LineError as error:
            return Outcome(line.number, line.text, ERROR, error=error)
        return Outcome(
            line.number,
            line.text,
            OK,
            notices=tuple(said),
            note=line.tree.note,
            command=(command.name, command.argument),
        )

    def tree_so_far(self, text: str) -> LineTree | None:
        """How a line reads, with a box where something is still missing; None where
        it cannot be read at all."""
        body, _ = split_note(text)
        for _ in range(MAX_BOXES):
            try:
                return parse(body, BY_NAME, self.definitions)
            except Unfinished as error:
                body += error.mends[0].replacement if error.mends else f" {BOX}"
            except LineError:
                break
        return None

    def _answered(self, step: Step, notices: list[Notice]) -> Answer:
        self.work_out(step)
        notices.extend(step.notices)
        if step.error is not None:
            raise step.error
        written = written_answer(self, step)
        if written.notice:
            notices.append(Notice("about-answer", written.notice))
        notices.extend(covered_by(step, self.definitions))
        return answer_from(self, step, written)

    def work_out(self, step: Step) -> None:
        """Gives ``step`` its value or its error, and before it all that it needs."""
        if step.value is not None or step.error is not None or step.forgets:
            return
        for needed in sorted(needs(self, step, self._seen_from(step)), key=place_of):
            self._evaluate(needed)
        self._evaluate(step)

    def _evaluate(self, step: Step) -> None:
        try:
            trace: Trace = []
            with working(step.work()) as work:
                scope = SheetScope(self, step, self._seen_from(step), trace)
                step.value = value_of_statement(step.statement, scope)
                self._refuse_covering(step)
                values = values_in(trace)
                step.angle = angle_met(step.value, trace, values)
                unit = work.conventions.angle
                told = list(habits_in(step.line.text, step.statement, scope, unit, values))
            known = {notice.code for notice in told}
            step.notices[:] = [n for n in step.notices if n.code not in known] + told
            step.used_unit = work.used_unit
        except LineError as error:
            step.error = error

    def _refuse_covering(self, step: Step) -> None:
        """Errors: :class:`LineError` where a function would take the name of a built-in."""
        names = [name for name in step.defines if is_built_in(name)]
        if not names or not isinstance(step.value, Applied):
            return
        if not {*names} <= self._covered_at(step.line.place):
            step.value = None
            raise BuiltInName(step.statement.span, name=names[0])

    def value_at(self, step: Step, place: Place) -> Value:
        """The value of a definition as seen from a place: a live one's moves.

        Errors: :class:`LineError` where it has none there.
        """
        if not step.is_live:
            self.work_out(step)
            if step.error is not None:
                raise step.error
            return step.value
        for needed in sorted(needs(self, step, place), key=place_of):
            self._evaluate(needed)
        with working(step.work()):
            return value_of_statement(step.statement, SheetScope(self, step, place))

    @staticmethod
    def _seen_from(step: Step) -> Place:
        """A live definition shows what it is now, any other what it was at its place."""
        return FOOT if step.is_live else step.place


def _drawn(line: Line) -> tuple[tuple[str, ...], ...]:
    """What each statement of the line was given: it stays, whatever comes of the line."""
    return tuple(tuple(step.draws.values) for step in line.steps)
