"""A sheet: lines in their order, each worked out from those before it that it uses.

A value is a matter of the text alone.  Nothing is worked out before it is asked
for, and then only what it depends on, in the order of the lines.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from teapot.engine.diagnostics.syntax_warnings import rest_of_unit, warnings_in
from teapot.engine.errors import ASKS, Asks, LineError, Unfinished
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.limits import MAX_ANSWERS
from teapot.engine.mends import Notice, each_once
from teapot.engine.numbers.context import Conventions, NondeterministicInputs, Replies, current
from teapot.engine.numbers.shelf import ProcedureText, Shelf
from teapot.engine.numbers.values import Value, exact
from teapot.engine.parsing.parser import parse_so_far
from teapot.engine.reading.tree import Formatted, LineTree, Name, Node
from teapot.engine.reading.vocabulary import BOX
from teapot.engine.sentences.forms import TOO_LONG_ANSWER
from teapot.engine.sentences.functions import DRAWN_LATER
from teapot.engine.sentences.names import (
    FROM_ERROR,
    NO_ANSWER,
    UNKNOWN_NAME,
)
from teapot.engine.sentences.procedures import RUNS_ITSELF
from teapot.engine.sentences.warnings import QUANTITY_FOR_UNIT
from teapot.engine.sheet.answering import (
    answer_from,
    covered_by,
    refuse_equation,
    written_answer,
)
from teapot.engine.sheet.calculation import Calculation
from teapot.engine.sheet.commanding import commanded
from teapot.engine.sheet.definitions import NamesBefore
from teapot.engine.sheet.dependence import Dependence
from teapot.engine.sheet.line import Drawn, NewLine, Step, WorksheetLine
from teapot.engine.sheet.offered_mends import with_mends_that_work
from teapot.engine.sheet.outcome import ERROR, NOTE, OK, UNFINISHED, Answer, Outcome
from teapot.engine.sheet.running import for_each_item, last_value, settings_of
from teapot.engine.sheet.settings import Settings, after
from teapot.engine.sheet.shown import ShownError, ShownOutcome
from teapot.engine.sheet.store import Store
from teapot.engine.sheet.unit_reading import Reading, decided
from teapot.engine.sheet.workings import Workings, WorkStep

SAME = {"principal-root": "left-the-reals"}
"""A notice, and one that says the same with less: that one is left out beside it."""

MISSING = (UNKNOWN_NAME, ASKS, DRAWN_LATER, FROM_ERROR, NO_ANSWER)
"""Errors of a line that only lacks a value."""


@dataclass(slots=True)
class Typed:
    """What is ``typed`` so far, as a ``line`` with what is open closed, and the outcome
    of that."""

    typed: str
    line: WorksheetLine
    outcome: Outcome

    @property
    def tree(self) -> LineTree | None:
        """How it reads; None where it cannot be read."""
        return self.line.tree

    def shown(self) -> ShownOutcome:
        """What is shown of it, with the error that it is not finished where it is not."""
        shown = self.outcome.shown()
        if self.line.missing is None:
            return shown
        error = ShownError.of(self.line.missing, self.typed)
        return replace(shown, input=self.typed, status=UNFINISHED, error=error)


class Worksheet(Store):
    """Lines with their answers."""

    def __init__(self, settings: Settings = Settings()) -> None:  # noqa: B008 - it is frozen
        super().__init__(settings)
        self.calculation = Calculation(self)
        self.last_answered: int | None = None
        self._dependence: Dependence | None = None
        self.circle: tuple[str, ...] = ()

    def run_procedure(self, procedure: ProcedureText, given: Mapping[str, Value]) -> Value:
        """The last answer of a procedure, run by the statement under way; of a list where one
        value is asked for, it is run for each item.

        Errors: :data:`RUNS_ITSELF` where it is being run already, else as
        :func:`teapot.engine.sheet.running.last_value`.
        """
        circle = (*self.circle, procedure.name)
        if procedure.name in self.circle:
            raise RUNS_ITSELF(circle=" → ".join(circle))

        def once(**values: Value) -> Value:
            inner = Worksheet(settings_of(procedure))
            inner.circle, inner.shelf, inner.now = circle, self.shelf, self.now
            return last_value(inner, procedure, values, current().draws)

        return for_each_item(once, procedure, given)

    # -- lines ----------------------------------------------------------------

    def answer(
        self,
        text: str,
        replies: Sequence[str] | Replies = (),
        number: int | None = None,
        within: NondeterministicInputs | None = None,
    ) -> Outcome:
        """Adds a line at the foot and works it out, as at a console.

        ``replies`` are those to the questions it asks; ``number`` names it, else it gets
        the next one; what is drawn for it is kept ``within`` other draws, where there are any.
        """
        line = self.append(text, number, self.last_answered)
        line.hear(replies)
        if within is not None:
            line.draw_within(within)
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

    def append(
        self, text: str, number: int | None = None, last: int | None = None
    ) -> WorksheetLine:
        """Adds a line at the foot without working it out.

        ``number`` names it, else it gets the next one; ``last`` is the line that
        a bare ``@`` stands for.
        """
        return self.put(number or self.highest + 1, text, self.foot, last)

    def put(
        self,
        number: int,
        text: str,
        place: float,
        last: int | None = None,
        conventions: Conventions | None = None,
        draws: Drawn = (),
    ) -> WorksheetLine:
        """Adds a line at a place, or puts it in the place of the one of that number.

        ``conventions`` are those it is answered under, else the sheet's own;
        ``draws`` is what was drawn for each of its statements.  What depends on it
        will be worked out again when it is asked for.
        """
        self.remove(number)
        line = self._read(text, number, place, last, conventions)
        line.give(draws)
        self.insert(line)
        if not self.is_only_new(line):
            self._dependence = None
        self.invalidate(line)
        return line

    def set_shelf(self, shelf: Shelf) -> None:
        before = self.shelf
        super().set_shelf(shelf)
        if self.shelf is not before:
            self._dependence = None

    def remove(self, number: int) -> None:
        """Takes a line away; one that is not there is no error."""
        line = self.by_number.get(number)
        if line is not None:
            self._dependence = None
            self.take_out(line)
            self.invalidate(line)

    def dependence(self) -> Dependence:
        """What depends on what in the sheet as it is."""
        if self._dependence is None:
            self._dependence = Dependence(self.calculation)
        return self._dependence

    def outcome_of(self, line: WorksheetLine) -> Outcome:
        """The line's answers, worked out now unless they were before."""
        if line.outcome is None:
            line.outcome = self._with_mends_that_work(line, self._worked_out(line))
        return line.outcome

    # -- lines that are not kept -------------------------------------------------------

    def entered(
        self,
        text: str,
        last: int | None = None,
        number: int | None = None,
        place: float | None = None,
        conventions: Conventions | None = None,
        may_draw: bool = False,
        replies: Sequence[str] = (),
        draws: Drawn = (),
    ) -> tuple[WorksheetLine, Outcome]:
        """What a line would answer, with nothing kept: at the foot, or at ``place``; and the
        line itself, which :meth:`adopt` puts into the sheet.

        Where there is a line of that ``number``, it is as if that one were mended.
        A random number is drawn only where that ``may_draw``; ``replies`` are those to
        the questions that it asks then, ``draws`` what was drawn and replied before.
        """
        line = self._read(text, number or self.highest + 1, place or self.foot, last, conventions)
        for step in line.steps:
            step.draws.may_draw = may_draw
        line.hear(replies)
        line.give(draws)
        return line, self._with_mends_that_work(line, self._previewed(line))

    def adopt(self, line: WorksheetLine) -> None:
        """Puts a line of this sheet that was worked out already into its place."""
        self.remove(line.number)
        self.insert(line)
        if not self.is_only_new(line):
            self._dependence = None
        self.invalidate(line)

    def set_settings(self, settings: Settings) -> None:
        """Makes these the settings: answers are written anew in another form, and no value is
        worked out again."""
        if settings.form != self.settings.form:
            self._dependence = None
            for line in self.lines:
                line.outcome = None
        self.settings = settings

    def preview_several(
        self, lines: Iterable[NewLine], last: int | None, conventions: Conventions
    ) -> Iterator[Outcome]:
        """What lines would answer that are put into the sheet one after another, each with
        those before it in place; up to the first that cannot be kept as a line.  Nothing is
        kept in the end.  ``last`` is what a bare ``@`` in the first stands for."""
        put: list[WorksheetLine] = []
        try:
            for new in lines:
                line = self._read(new.text, new.number, new.place, last, conventions)
                line.hear(new.replies)
                out_of_date = self.dependence().notices(line)
                self.insert(line)
                put.append(line)
                self._dependence = None
                outcome = self._with_mends_that_work(line, self._worked_out(line))
                if outcome.status == OK:
                    outcome = outcome.with_notices(out_of_date)
                yield outcome
                if not outcome.is_kept:
                    break
                if outcome.answers:
                    last = line.number
        finally:
            self._dependence = None
            for line in reversed(put):
                self.take_out(line)

    def typed(
        self,
        text: str,
        last: int | None = None,
        number: int | None = None,
        place: float | None = None,
        conventions: Conventions | None = None,
        unanswered: LineError | None = None,
    ) -> Typed:
        """A line as it stands while it is typed, read once: what is open in it is taken as
        closed, and it is answered so; a box stands for what is missing, and then there is
        no answer.  Arguments as those of :meth:`entered`; ``unanswered`` is why it is only
        read."""
        line = self._read(
            text, number or self.highest + 1, place or self.foot, last, conventions, closes=True
        )
        for step in line.steps:
            step.draws.may_draw = False
            step.keeps_values = True
        if line.missing is not None and line.missing.mends:
            line.text = line.missing.mends[0].apply(text)
        if unanswered is not None and line.error is None:
            return Typed(text, line, Outcome(line.number, text, ERROR, error=unanswered))
        outcome = self._previewed(line)
        if line.missing is None or line.missing.mends:
            return Typed(text, line, self._with_mends_that_work(line, outcome))
        return Typed(text, line, Outcome(line.number, text, UNFINISHED, error=line.missing))

    def _previewed(self, line: WorksheetLine) -> Outcome:
        out_of_date = self.dependence().notices(line)
        with self.holding(line):
            outcome = self._worked_out(line)
        return outcome.with_notices(out_of_date) if outcome.status == OK else outcome

    # -- mends --------------------------------------------------------------------

    def _with_mends_that_work(self, line: WorksheetLine, outcome: Outcome) -> Outcome:
        known = NamesBefore(self.definitions, line.place)
        return with_mends_that_work(outcome, known, lambda text: self._error_of(text, line))

    def _error_of(self, text: str, line: WorksheetLine) -> LineError | None:
        """The error of a text in the place of a line; None where it would be answered, or
        would ask for no more than a value that is missing."""
        mended = self._read(text, line.number, line.place, line.last, line.conventions)
        if mended.error is not None:
            return mended.error
        if any(step.is_long for step in line.steps):
            return None  # it is read; to work it out would take as long again
        for step in mended.steps:
            step.draws.may_draw = False
        with self.holding(mended):
            error = self._error_in(mended)
        return None if error is None or error.is_a(*MISSING) else error

    def _error_in(self, line: WorksheetLine) -> LineError | None:
        """The error of a line that was read, found without writing its answers."""
        if line.tree is None or line.tree.command is not None:
            return self._worked_out(line).error
        try:
            refuse_equation(line.tree, self.covered_at(line.place), line.conventions.are_of_old)
            for step in line.steps:
                self.calculation.work_out(step)
                if step.error is not None:
                    return step.error
                if isinstance(step.statement and step.statement.expression, Formatted):
                    written_answer(self, step)
        except LineError as error:
            return error
        return None

    # -- workings -----------------------------------------------------------------

    def workings(self, line: WorksheetLine) -> list[list[WorkStep]]:
        """For each statement of an answered line, the steps of its calculation."""
        return [made.steps() for made in self.traced(line)]

    def traced(self, line: WorksheetLine) -> list[Workings]:
        """For each statement of an answered line, what its workings are made from."""
        self.outcome_of(line)
        return [
            Workings(step.statement.expression, self.calculation.traced(step), self.settings.form)
            for step in line.steps
            if step.statement is not None and step.error is None
        ]

    # -- working out ------------------------------------------------------------

    def _read(
        self,
        text: str,
        number: int,
        place: float,
        last: int | None,
        conventions: Conventions | None = None,
        closes: bool = False,
    ) -> WorksheetLine:
        line = WorksheetLine(number, text, place, last)
        line.conventions = conventions or self.settings.conventions
        self._take(line, closes)
        return line

    def _take(self, line: WorksheetLine, closes: bool = False) -> None:
        """Reads a line, with the names that have a value before it."""
        known = NamesBefore(self.definitions, line.place)
        line.tree = line.error = line.decision = None
        line.steps = []
        try:
            is_new = not line.conventions.are_of_old
            tree, line.missing = parse_so_far(line.text, BY_NAME, known, closes, reads_anew=is_new)
            contested = tree.contested
            line.take(tree, self.now, self.shelf, self.run_procedure, self.circle)
        except LineError as error:
            line.error, contested = error, error.contested
        line.read_with = self._known_of(line)
        line.is_contested = bool(contested) and is_new and not any(map(_is_box, line.nodes))
        if line.is_contested:
            self._decide_units(line, contested, known, closes)

    def _decide_units(
        self, line: WorksheetLine, contested: frozenset[int], known: NamesBefore, closes: bool
    ) -> None:
        """Reads a line with units where its names mean these, though quantities have them; with
        ``closes``, as if the brackets that are open in it were closed."""

        def try_reading(places: frozenset[int]) -> Reading:
            tried = WorksheetLine(line.number, line.text, line.place, line.last, line.conventions)
            try:
                tree, _ = parse_so_far(line.text, BY_NAME, known, closes, places)
            except LineError:
                return Reading(places, None)
            tried.take(tree, self.now, self.shelf, self.run_procedure, self.circle)
            with self.holding(tried):
                return Reading(places, tree, tuple(map(self._value_tried, tried.steps)))

        line.decision = decided(line.text, contested, try_reading)
        if line.decision is None:
            return
        if line.decision.error is not None:
            line.tree, line.steps, line.error = None, [], line.decision.error
            return
        tree, _ = parse_so_far(line.text, BY_NAME, known, closes, line.decision.places)
        line.error = None
        line.take(tree, self.now, self.shelf, self.run_procedure, self.circle)

    def _value_tried(self, step: Step) -> Value | None:
        """The value of a step that is only tried; a plain number where that is not known yet."""
        step.draws.may_draw = False
        self.calculation.work_out(step)
        if step.error is not None and step.error.is_a(DRAWN_LATER, ASKS):
            return exact(0)
        return step.value

    def _void(self, line: WorksheetLine) -> None:
        """Also reads it anew, where names before it make it read otherwise."""
        super()._void(line)
        if line.at_stake and (line.is_contested or line.read_with != self._known_of(line)):
            self._read_anew(line)

    def _known_of(self, line: WorksheetLine) -> frozenset[str]:
        """Those of the names by which a line reads otherwise that have a value before it."""
        known = NamesBefore(self.definitions, line.place)
        return frozenset(name for name in line.at_stake if name in known)

    def _read_anew(self, line: WorksheetLine) -> None:
        before, highest = line.steps, self.highest
        self.take_out(line)
        self._take(line)
        for was, now in zip(before, line.steps, strict=False):
            now.draws = was.draws
        self.insert(line)
        self.highest = highest
        self._dependence = None

    def _worked_out(self, line: WorksheetLine) -> Outcome:
        if line.error is not None:
            status = UNFINISHED if isinstance(line.error, Unfinished) else ERROR
            return Outcome(line.number, line.text, status, error=line.error)
        assert line.tree is not None
        if line.tree.command is not None:
            return commanded(self, line, line.tree.command)
        if line.is_note:
            return Outcome(line.number, line.text, NOTE, note=line.note)
        return self._answers(line, line.tree)

    def _answers(self, line: WorksheetLine, tree: LineTree) -> Outcome:
        answers: list[Answer] = []
        notices: list[Notice] = []
        try:
            refuse_equation(tree, self.covered_at(line.place), line.conventions.are_of_old)
            notices += self._warnings_in(line, tree)
            for step in line.steps:
                answers.append(self._answered(step, notices))
            if sum(answer.written.least_length for answer in answers) > MAX_ANSWERS:
                raise TOO_LONG_ANSWER(limit=MAX_ANSWERS)
        except LineError as error:
            if error.is_a(UNKNOWN_NAME):
                error = rest_of_unit(line.text, error, notices)
            return Outcome(
                line.number,
                line.text,
                UNFINISHED if isinstance(error, Asks) else ERROR,
                note=tree.note,
                error=error,
                notices=() if error.is_a(TOO_LONG_ANSWER) else tuple(each_once(notices)),
                draws=_drawn(line),
            )
        said = {SAME.get(notice.code) for notice in notices}
        return Outcome(
            line.number,
            line.text,
            OK,
            tree.quiet,
            tree.note,
            tuple(answers),
            tuple(one for one in each_once(notices) if one.code not in said),
            is_live=line.is_live,
            draws=_drawn(line),
        )

    def _warnings_in(self, line: WorksheetLine, tree: LineTree) -> list[Notice]:
        """What is easily read otherwise; where units were told from quantities, what that said."""
        found = list(warnings_in(line.text, tree, line.nodes, line.conventions.angle))
        if line.decision is None:
            return found
        said = [] if line.decision.notice is None else [line.decision.notice]
        return said + [one for one in found if one.code != QUANTITY_FOR_UNIT.code]

    def _answered(self, step: Step, notices: list[Notice]) -> Answer:
        self.calculation.work_out(step)
        notices.extend(step.notices)
        if step.error is not None:
            raise step.error
        written = written_answer(self, step)
        if written.notice:
            notices.append(Notice("about-answer", written.notice))
        notices.extend(covered_by(step, self.definitions))
        return answer_from(self, step, written)


def _drawn(line: WorksheetLine) -> tuple[tuple[str, ...], ...]:
    """What was drawn for each statement of the line: it stays, whatever comes of the line."""
    return tuple(tuple(step.draws.values) for step in line.steps)


def _is_box(node: Node) -> bool:
    """Whether it stands for an operand that is not typed yet."""
    return isinstance(node, Name) and node.name == BOX
