"""What is shown and kept of an outcome: plain records, which go from process to process
and become JSON as they are."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.forms.summary import Summary
from teapot.engine.mends import Offer, ShownNotice, offers
from teapot.engine.pickling import compactly_pickled


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class ShownError:
    """An error with its sentence, its place in the line, and its mends."""

    code: str
    text: str
    start: int
    end: int
    mends: tuple[Offer, ...] = ()

    @classmethod
    def of(cls, error: LineError, line: str) -> ShownError:
        """An error of a ``line``."""
        start, end = error.span or (0, len(line))
        mends = offers(error.mends, line)
        return cls(code=error.code, text=error.text, start=start, end=end, mends=mends)


@compactly_pickled
@dataclass(frozen=True, slots=True, kw_only=True)
class ShownAnswer:
    """The value of a statement, as it is shown beside a line that is being typed."""

    name: str | None
    kind: str
    sign: str
    text: str
    value_mathml: str


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptAnswer(ShownAnswer):
    """An answer as it is kept with its line, its text and cells up to so many.

    ``summary`` is that of a long list; ``is_cut`` is set where there is more of its text; the
    others as those of :class:`teapot.engine.sheet.outcome.Answer`.
    """

    is_cut: bool
    also: tuple[str, ...]
    reading: str
    reading_mathml: str
    form: str
    says_itself: bool
    nearly: str
    unit: str
    pictures: tuple[str, ...]
    cells: list[list[str]]
    summary: Summary | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ShownOutcome:
    """What is shown of a line that has been read or worked out."""

    input: str
    status: str
    answers: tuple[ShownAnswer, ...] = ()
    notices: tuple[ShownNotice, ...] = ()
    error: ShownError | None = None
    command: tuple[str, str] | None = None


@dataclass(frozen=True, slots=True)
class Question:
    """What a line asks: ``taken`` replies were taken before, and ``said`` is why the last
    one was not; ``preset`` is suggested."""

    question: str
    taken: int
    said: str
    preset: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptOutcome(ShownOutcome):
    """What is kept with a line.

    ``line`` is its number, ``typed`` the line without its ``note``, ``engine`` the version
    that worked it out; the others as those of :class:`teapot.engine.sheet.outcome.Outcome`.
    """

    answers: tuple[KeptAnswer, ...] = ()
    line: int
    quiet: bool = False
    note: str = ""
    typed: str = ""
    engine: str = ""
    is_setting: bool = False
    is_kept: bool = False
    is_live: bool = False
    draws: tuple[tuple[str, ...], ...] = ()
    asks: Question | None = None
