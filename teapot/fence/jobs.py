"""The jobs that are done on a sheet: what each needs, and what it gives.

A job and its result cross from one process to another: both are plain records.
"""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import ClassVar, Generic, TypeVar

from teapot.engine import FullSheet, LineError, Settings
from teapot.engine.aids.dial import angle_from, dial_of
from teapot.engine.aids.graph import Window
from teapot.engine.aids.pictures import Pictured, StatementWorkings, pictured, shown_in, workings_of
from teapot.engine.aids.plane import complex_from, plane_of
from teapot.engine.aids.typing import SoFar, typed_so_far
from teapot.engine.aids.units import MOST_UNITS, UnitOffer, offers
from teapot.engine.limited.bounds import (
    LINE_SECONDS,
    LOAD_SECONDS,
    PREVIEW_SECONDS,
    READ_SECONDS,
    TimeIsUp,
    time_limit,
)
from teapot.engine.numbers.context import Conventions
from teapot.engine.parsing.rows import lines_in
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.forms import form_asked
from teapot.engine.reading.mathml import answer_mathml
from teapot.engine.sentences.names import NO_QUANTITY
from teapot.engine.sheet import editing
from teapot.engine.sheet.dependence import again_for
from teapot.engine.sheet.line import NewLine
from teapot.engine.sheet.outcome import ERROR
from teapot.engine.sheet.outcome import Answer as Result
from teapot.engine.sheet.settings import after
from teapot.engine.sheet.shown import KeptOutcome, ShownError
from teapot.fence.listing import ListingNews, news_of

T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class Job(Generic[T]):
    """Something to be done on a sheet within so many ``seconds``.  One that ``gives_way`` is of
    no use any more when the same person wants the next of that kind."""

    gives_way: ClassVar[bool] = False
    seconds: float = LINE_SECONDS

    def do(self, sheet: FullSheet) -> T:
        """Does it.  Errors: :class:`LineError` where what was typed does not allow it."""
        raise NotImplementedError

    def failed(self, error: LineError) -> T | None:
        """What it gives where it could not be done at all."""
        return None


@dataclass(frozen=True, slots=True, kw_only=True)
class BeReady(Job[None]):
    """Nothing is to be done but to take up what the sheet and the shelf lacked: how long that
    takes does not count for what comes then."""

    seconds: float = LOAD_SECONDS

    def do(self, sheet: FullSheet) -> None:
        return None


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeJob(Job[T]):
    """One that changes the sheet, which has this ``revision`` and ``head`` then."""

    head: str
    revision: int

    def is_made(self, result: T) -> bool:
        """Whether the change was made."""
        raise NotImplementedError


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class ReadTyped(Job[SoFar]):
    """What is shown while a line is typed."""

    gives_way: ClassVar[bool] = True
    seconds: float = PREVIEW_SECONDS
    number: int
    text: str
    last: int | None = None
    place: float | None = None
    caret: int | None = None
    conventions: Conventions | None = None

    def do(self, sheet: FullSheet) -> SoFar:
        try:
            return self._shown(sheet)
        except TimeIsUp as up:
            error = up.error(self.seconds)
        with suppress(TimeIsUp), time_limit(READ_SECONDS):  # how it reads is shown all the same
            return self._shown(sheet, error)
        return self.failed(error)

    def _shown(self, sheet: FullSheet, unanswered: LineError | None = None) -> SoFar:
        return typed_so_far(
            sheet,
            self.text,
            self.last,
            self.number,
            self.place,
            self.caret,
            self.conventions,
            unanswered,
        )

    def failed(self, error: LineError) -> SoFar:
        return SoFar(input=self.text, status=ERROR, error=ShownError.of(error, self.text))


@dataclass(frozen=True, slots=True, kw_only=True)
class WriteAnswers(Job[list[KeptOutcome]]):
    """What lines would answer that are kept one after another: of as many as there is
    time for, up to the first that is refused."""

    lines: Sequence[NewLine]
    last: int | None
    conventions: Conventions

    def do(self, sheet: FullSheet) -> list[KeptOutcome]:
        found: list[KeptOutcome] = []
        try:
            for outcome in sheet.preview_several(self.lines, self.last, self.conventions):
                found.append(outcome.kept())
        except TimeIsUp:
            pass
        return found


@dataclass(frozen=True, slots=True, kw_only=True)
class ListRows(Job[list[str]]):
    """The lines that are pasted at once."""

    text: str

    def do(self, sheet: FullSheet) -> list[str]:
        return lines_in(self.text)


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkOutcomes(Job[dict[int, KeptOutcome]]):
    """The outcomes of lines that the sheet has: of as many as there is time for."""

    numbers: Sequence[int]

    def do(self, sheet: FullSheet) -> dict[int, KeptOutcome]:
        found: dict[int, KeptOutcome] = {}
        try:
            for number in self.numbers:
                line = sheet.by_number.get(number)
                if line is not None:
                    found[number] = sheet.outcome_of(line).kept()
        except TimeIsUp:
            pass
        return found


def _answers_of(sheet: FullSheet, number: int) -> tuple[Result, ...]:
    """The answers of a line; none where there is no such line."""
    line = sheet.by_number.get(number)
    return () if line is None else sheet.outcome_of(line).answers


@dataclass(frozen=True, slots=True)
class WriteWhole:
    """An answer with all its text and cells, of which the line keeps the head."""

    text: str
    cells: list[list[str]]


@dataclass(frozen=True, slots=True, kw_only=True)
class WholeAnswer(Job[WriteWhole | None]):
    """The answer of the statement at a ``place`` of a line; None where there is none."""

    number: int
    place: int

    def do(self, sheet: FullSheet) -> WriteWhole | None:
        answers = _answers_of(sheet, self.number)
        if self.place >= len(answers):
            return None
        return WriteWhole(answers[self.place].text, answers[self.place].cells())


@dataclass(frozen=True, slots=True)
class RowsOfAnswer:
    """The first rows of a table, typeset, and how many it has."""

    mathml: str
    count: int


@dataclass(frozen=True, slots=True, kw_only=True)
class MoreRows(Job[RowsOfAnswer | None]):
    """The answer of the statement at a ``place`` of a line, up to so many of its rows; None
    where it has no more than are shown."""

    number: int
    place: int
    most: int

    def do(self, sheet: FullSheet) -> RowsOfAnswer | None:
        answers = _answers_of(sheet, self.number)
        written = answers[self.place].written if self.place < len(answers) else None
        if written is None or written.first is None:
            return None
        return RowsOfAnswer(answer_mathml(written.first(self.most)), written.count)


@dataclass(frozen=True, slots=True, kw_only=True)
class WriteLatex(Job[list[str]]):
    """The answers of a line as LaTeX."""

    number: int

    def do(self, sheet: FullSheet) -> list[str]:
        return [one.latex for one in _answers_of(sheet, self.number)]


@dataclass(frozen=True, slots=True, kw_only=True)
class ListQuantities(Job[ListingNews]):
    """The quantities as they are at the foot of the sheet, at this ``revision``."""

    revision: int

    def do(self, sheet: FullSheet) -> ListingNews:
        return news_of(sheet, None, self.revision)


@dataclass(frozen=True, slots=True, kw_only=True)
class ShowWorkings(Job[list[StatementWorkings]]):
    """The workings of a line, with the pictures that stand among them."""

    number: int

    def do(self, sheet: FullSheet) -> list[StatementWorkings]:
        return workings_of(sheet, sheet.by_number[self.number])


@dataclass(frozen=True, slots=True, kw_only=True)
class ListUnits(Job[list[UnitOffer]]):
    """The units that the last answer of a line may be shown in."""

    number: int

    def do(self, sheet: FullSheet) -> list[UnitOffer]:
        step = sheet.by_number[self.number].steps[-1]
        return offers(step.value, form_asked(step.stated.expression).over(sheet.settings.form))


@dataclass(frozen=True, slots=True, kw_only=True)
class Convert(Job[list[UnitOffer]]):
    """A measure that is typed, in all units that fit."""

    text: str
    seconds: float = PREVIEW_SECONDS
    gives_way: ClassVar[bool] = True

    def do(self, sheet: FullSheet) -> list[UnitOffer]:
        steps = sheet.typed(self.text).line.steps
        return offers(steps[-1].value if steps else None, sheet.settings.form, most=MOST_UNITS)


@dataclass(frozen=True, slots=True, kw_only=True)
class ShowPicture(Job[list[Pictured]]):
    """What the pictures of that name show of a line; a graph over a ``window``, if there is
    one."""

    number: int
    name: str
    window: Window | None = None

    def do(self, sheet: FullSheet) -> list[Pictured]:
        return shown_in(sheet, sheet.by_number[self.number], self.name, self.window)


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnDial(Job[Pictured]):
    """What the dial shows of an angle of ``count`` times its ``unit``."""

    seconds: float = PREVIEW_SECONDS
    count: str
    unit: str

    def do(self, sheet: FullSheet) -> Pictured:
        return pictured("dial", dial_of(angle_from(self.count, self.unit)))


@dataclass(frozen=True, slots=True, kw_only=True)
class PointOnPlane(Job[Pictured]):
    """What the plane shows of the number of these parts, up to a ``reach``."""

    seconds: float = PREVIEW_SECONDS
    re: str
    im: str
    reach: float

    def do(self, sheet: FullSheet) -> Pictured:
        unit = sheet.settings.conventions.angle
        return pictured("plane", plane_of(complex_from(self.re, self.im), unit, self.reach))


@dataclass(frozen=True, slots=True, kw_only=True)
class FindAgain(Job[list[str]]):
    """The lines that compute a line again, or all that is out of date."""

    number: int | None

    def do(self, sheet: FullSheet) -> list[str]:
        return again_for(sheet.dependence(), self.number)


@dataclass(frozen=True, slots=True, kw_only=True)
class WithForm(Job[str]):
    """A line with a form after its expressions."""

    text: str
    form: str

    def do(self, sheet: FullSheet) -> str:
        return editing.with_form(self.text, self.form)


@dataclass(frozen=True, slots=True, kw_only=True)
class WithValue(Job[tuple[int, str]]):
    """The number and the new text of the line that gives ``name`` its value, with
    another value."""

    name: str
    value: str

    def do(self, sheet: FullSheet) -> tuple[int, str]:
        step = sheet.definitions.seen(self.name)
        if step is None:
            raise NO_QUANTITY(name=self.name)
        return step.line.number, editing.with_value(step.line.text, self.name, self.value)


@dataclass(frozen=True, slots=True, kw_only=True)
class RenameThroughout(Job[dict[int, str]]):
    """The lines in which a quantity is named, with its new name."""

    old: str
    new: str

    def do(self, sheet: FullSheet) -> dict[int, str]:
        return editing.renamed_throughout(sheet, self.old, self.new)


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingsAfter(Job[Settings]):
    """The settings of the sheet after ``/show FORM`` and its like."""

    command: str
    argument: str

    def do(self, sheet: FullSheet) -> Settings:
        return after(sheet.settings, self.command, self.argument)
