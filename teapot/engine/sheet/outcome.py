"""What came of a line: its answers, notices, or its error."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import asdict, dataclass, field, replace
from typing import Any, get_args

from teapot.engine.cached_attribute import cached_attribute
from teapot.engine.data import data_of
from teapot.engine.errors import Asks, LineError
from teapot.engine.forms.answer import write
from teapot.engine.forms.written import Written
from teapot.engine.limits import MAX_KEPT_ROWS, MAX_KEPT_TEXT, MAX_SET_READING
from teapot.engine.mends import Mend, Notice
from teapot.engine.numbers.values import Value
from teapot.engine.reading.commands import KEPT
from teapot.engine.reading.latex import statement_latex
from teapot.engine.reading.mathml import Answers, math, math_text, statement_mathml
from teapot.engine.reading.plain import statement_text
from teapot.engine.reading.tokens import split_note
from teapot.engine.reading.tree import Filled, Statement, Text
from teapot.engine.sheet.shown import (
    KeptAnswer,
    KeptOutcome,
    Question,
    ShownAnswer,
    ShownError,
    ShownOutcome,
)
from teapot.engine.version import engine_version

OK, ERROR, UNFINISHED, NOTE = "ok", "error", "unfinished", "note"

OUT_OF_DATE = "out-of-date"
"""The notice on what uses a value that was computed from something that changed since."""


@dataclass(eq=False)
class Answer:
    """One statement's answer: the ``statement`` as it was read, and its value ``written``.

    ``answers`` is what the answers stand for that it uses; ``form`` the form where it is
    not the sheet's own; ``says_itself`` is set where the value would only repeat what was
    typed; ``unit`` is that of bare angles where the answer depends on it;
    ``find_pictures`` gives the names of those that there are of it.
    """

    statement: Statement
    written: Written
    name: str | None = None
    answers: Answers = field(default_factory=dict)
    form: str = ""
    says_itself: bool = False
    unit: str = ""
    find_pictures: Callable[[], tuple[str, ...]] = tuple

    @property
    def kind(self) -> str:
        """What kind of value it is."""
        return self.written.kind

    @property
    def sign(self) -> str:
        """``=`` where it is exact, ``≈`` where it was rounded."""
        return self.written.sign

    @property
    def text(self) -> str:
        """The value as it can be typed in."""
        return self.written.text

    def text_up_to(self, most: int | None) -> str:
        """The same; of a list or table of more than ``most`` items or rows what is shown of it,
        if that is less."""
        if most is None or self.written.count <= most:
            return self.text
        return self.written.head()

    @property
    def also(self) -> tuple[str, ...]:
        """Further sayings about the value."""
        return self.written.also

    @property
    def nearly(self) -> str:
        """The value rounded, where it stands beside an exact one."""
        return self.written.nearly.text if self.written.nearly else ""

    @cached_attribute
    def reading(self) -> str:
        """How the whole statement was read, as plain text."""
        return statement_text(self.statement)

    @property
    def stated(self) -> Statement:
        """The statement as it is set: a text with the values that were filled in."""
        tree = self.written.tree
        if not isinstance(self.statement.expression, Text) or not isinstance(tree, Text):
            return self.statement
        if not any(isinstance(part, Filled) for part in tree.parts):
            return self.statement
        return replace(self.statement, expression=tree)

    @property
    def is_read_back(self) -> bool:
        """Whether the statement, as it is set, says its value already."""
        return self.says_itself or self.stated is not self.statement

    @cached_attribute
    def reading_mathml(self) -> str:
        """The same, as the inside of a ``math`` element."""
        reading = statement_mathml(self.stated, answers=self.answers)
        return reading if len(reading) <= MAX_SET_READING else math_text(self.reading)

    @cached_attribute
    def value_mathml(self) -> str:
        """The value, as the inside of a ``math`` element."""
        nearly = self.written.nearly
        beside = f"<mo>≈</mo>{nearly.mathml}" if nearly is not None else ""
        return self.written.mathml + beside

    @cached_attribute
    def pictures(self) -> tuple[str, ...]:
        """The names of the pictures that there are of it."""
        return self.find_pictures()

    @property
    def mathml(self) -> str:
        """The statement with its sign and its value after it, typeset."""
        if self.is_read_back:
            return math(self.reading_mathml)
        value = f'<mo>{self.sign}</mo><mrow class="answer">{self.value_mathml}</mrow>'
        return math(self.reading_mathml + value)

    @property
    def latex(self) -> str:
        """The same for LaTeX's mathematics."""
        reading = statement_latex(self.stated)
        if self.is_read_back:
            return reading
        nearly = self.written.nearly
        beside = rf" \approx {nearly.latex}" if nearly is not None else ""
        return f"{reading} {LATEX_SIGNS[self.sign]} {self.written.latex}{beside}"

    @property
    def head(self) -> str:
        """As much of its text as is kept with its line."""
        return head_of(self.written)

    def cells(self, most: int | None = None) -> list[list[str]]:
        """The rows of a table, its names first, up to so many of them; of a list, where all
        are asked for, its name and its items."""
        if self.kind != "list" or most is not None:
            return self.written.cells(most)
        unit, rows = self.written.column()
        return [[f"{self.name or self.reading}{f' [{unit}]' if unit else ''}"], *rows]

    def as_dict(self, most: int | None = None) -> dict[str, Any]:
        """As ``--json`` prints it; of a list or table of more than ``most`` items or rows what is
        shown of it."""
        return {
            "name": self.name,
            "kind": self.kind,
            "sign": self.sign,
            "text": self.text_up_to(most),
            "also": [f"≈ {self.nearly}"] * bool(self.nearly) + list(self.also),
            "reading": self.reading,
            "mathml": self.mathml,
        }

    def shown(self) -> ShownAnswer:
        """The value, as it is shown beside a line that is being typed."""
        return ShownAnswer(
            name=self.name,
            kind=self.kind,
            sign=self.sign,
            text=self.head,
            value_mathml=self.written.mathml_in_short(),
        )

    def kept(self) -> KeptAnswer:
        """As it is kept with its line."""
        return KeptAnswer(
            **{**data_of(self.shown()), "value_mathml": self.value_mathml},
            is_cut=self.written.is_longer_than(MAX_KEPT_TEXT),
            also=self.also,
            reading=self.reading,
            reading_mathml=self.reading_mathml,
            form=self.form,
            says_itself=self.is_read_back,
            nearly=self.nearly,
            unit=self.unit,
            pictures=self.pictures,
            cells=self.cells(MAX_KEPT_ROWS),
            summary=self.written.summary(),
        )


LATEX_SIGNS = {"=": "=", "≈": r"\approx", "→": r"\to"}


def head_of(written: Written) -> str:
    """As much of the text of a value as is kept with its line."""
    text = written.head()
    return text if len(text) <= MAX_KEPT_TEXT else text[: MAX_KEPT_TEXT - 1] + "…"


@dataclass(slots=True, eq=False)
class Outcome:
    """``input`` is the whole line as typed; ``number`` its place or number.

    ``command`` is the name and argument of a slash command; ``draws`` is what was
    drawn for each statement.
    """

    number: int
    input: str
    status: str
    quiet: bool = False
    note: str = ""
    answers: tuple[Answer, ...] = ()
    notices: tuple[Notice, ...] = ()
    error: LineError | None = None
    command: tuple[str, str] | None = None
    is_live: bool = False
    draws: tuple[tuple[str, ...], ...] = ()

    @property
    def is_setting(self) -> bool:
        """Whether it is a command that sets something, and no line of the sheet."""
        return self.command is not None and self.command[0] not in KEPT

    @property
    def is_kept(self) -> bool:
        """Whether the line can be kept."""
        return self.status in (OK, NOTE) and not self.is_setting

    def with_notices(self, more: Iterable[Notice]) -> Outcome:
        """The same with further notices, which come first."""
        more = tuple(more)
        return self if not more else replace(self, notices=(*more, *self.notices))

    def with_mends(self, works: Callable[[Mend], bool]) -> Outcome:
        """The same with only those mends that work."""
        if self.error is not None:
            self.error.mends = tuple(filter(works, self.error.mends))
        if not any(notice.mends for notice in self.notices):
            return self
        notices = tuple(one.with_mends(works) if one.mends else one for one in self.notices)
        return replace(self, notices=notices)

    def as_dict(self, most: int | None = None) -> dict[str, Any]:
        """As ``--json`` prints it; ``most`` as that of an answer."""
        return {
            "line": self.number,
            "input": self.input,
            "status": self.status,
            "quiet": self.quiet,
            "answers": [answer.as_dict(most) for answer in self.answers],
            "notices": [asdict(notice.shown(self.input)) for notice in self.notices],
            "error": self.error and asdict(ShownError.of(self.error, self.input)),
            "steps": [],
        }

    def shown(self) -> ShownOutcome:
        """What is shown of it while it is typed: its readings are made beside it."""
        return ShownOutcome(answers=tuple(one.shown() for one in self.answers), **self._said())

    def kept(self) -> KeptOutcome:
        """What is kept with its line: not that something is out of date, which changes with
        other lines and is asked for by itself."""
        said = self._said()
        said["notices"] = tuple(one for one in said["notices"] if one.code != OUT_OF_DATE)
        return KeptOutcome(
            answers=tuple(answer.kept() for answer in self.answers),
            **said,
            line=self.number,
            quiet=self.quiet,
            note=self.note,
            typed=split_note(self.input)[0].strip(),
            engine=engine_version(),
            is_setting=self.is_setting,
            is_kept=self.is_kept,
            is_live=self.is_live,
            draws=self.draws,
            asks=self._asked(),
        )

    def _said(self) -> dict[str, Any]:
        """What is said in any case."""
        return {
            "input": self.input,
            "status": self.status,
            "notices": tuple(notice.shown(self.input) for notice in self.notices),
            "error": self.error and ShownError.of(self.error, self.input),
            "command": self.command,
        }

    def _asked(self) -> Question | None:
        """The question that the line waits for a reply to."""
        if not isinstance(self.error, Asks):
            return None
        preset = self.error.preset
        suggested = write(preset).text if isinstance(preset, get_args(Value)) else ""
        return Question(self.error.question, self.error.taken, self.error.said, suggested)
