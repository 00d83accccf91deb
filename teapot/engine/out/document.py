"""A sheet as it goes out: its lines as they are kept, with what they answered."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from teapot.engine.numbers.context import STANDARD
from teapot.engine.reading.forms import STANDARD as STANDARD_FORM

CONVENTIONS = {
    "angle": STANDARD.angle, "log": STANDARD.log, "numbers": STANDARD.numbers, "units": "names",
}  # fmt: skip
"""What is set for a line where a file says nothing else: files made before December 2026 say
nothing of units."""


@dataclass(frozen=True, slots=True, kw_only=True)
class StepOut:
    """A step of a working: what is done, its sign and what it gives."""

    mathml: str
    input: str
    sign: str
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class LineOut:
    """A line as it is kept; one of a ``run`` came with a procedure.  ``outcome`` is that of
    :class:`teapot.engine.sheet.shown.KeptOutcome` as plain data, ``latex`` its answers, ``steps``
    its workings where they are wanted, ``graphs`` what it draws, as SVG; ``late`` says why it is
    out of date."""

    number: int
    text: str
    last: int | None = None
    conventions: Mapping[str, str] = field(default_factory=lambda: CONVENTIONS)
    draws: Sequence[Sequence[str]] = ()
    kept: str = ""
    run: str = ""
    outcome: Mapping[str, Any] = field(default_factory=dict)
    latex: Sequence[str] = ()
    steps: Sequence[StepOut] = ()
    graphs: Sequence[str] = ()
    late: str = ""

    @property
    def answers(self) -> Sequence[Mapping[str, Any]]:
        """What it answered."""
        return () if self.outcome.get("quiet") else self.outcome.get("answers", ())

    @property
    def typed(self) -> str:
        """What was typed without its note."""
        return str(self.outcome.get("typed", self.text))

    @property
    def note(self) -> str:
        """What was noted after it."""
        return str(self.outcome.get("note", ""))

    @property
    def is_note(self) -> bool:
        """Whether it is only a note."""
        return self.outcome.get("status") == "note"

    @property
    def said(self) -> str:
        """Its error, if it has one."""
        error = self.outcome.get("error")
        return str(error["text"]) if error else ""

    @property
    def remarks(self) -> list[str]:
        """Its notices, and that it is out of date."""
        notices = [str(notice["text"]) for notice in self.outcome.get("notices", ())]
        return [*notices, f"Out of date: {self.late}."] if self.late else notices


@dataclass(frozen=True, slots=True, kw_only=True)
class QuantityOut:
    """A quantity at the foot of the sheet."""

    name: str
    name_mathml: str
    sign: str
    text: str
    value_mathml: str
    note: str
    is_found: bool
    is_out_of_date: bool
    is_function: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Document:
    """A sheet, or some of its lines.  ``versions`` are the names of the tables and procedures
    whose versions stand among the draws; where it ``shows_typed``, a page shows what was typed
    beside the reading."""

    title: str
    who: str = ""
    when: str = ""
    form: str = STANDARD_FORM.text
    conventions: Mapping[str, str] = field(default_factory=lambda: CONVENTIONS)
    lines: Sequence[LineOut] = ()
    quantities: Sequence[QuantityOut] = ()
    versions: Mapping[str, str] = field(default_factory=dict)
    shows_typed: bool = False

    @property
    def given(self) -> list[QuantityOut]:
        """The values that were typed in; functions say themselves in their lines."""
        return [one for one in self.quantities if not one.is_found and not one.is_function]

    @property
    def found(self) -> list[QuantityOut]:
        """Those that were computed from others."""
        return [one for one in self.quantities if one.is_found and not one.is_function]


def metadata(document: Document) -> dict[str, Any]:
    """What is said of a sheet as a whole where it is not as usual."""
    told: dict[str, Any] = {}
    if document.form != STANDARD_FORM.text:
        told["form"] = document.form
    told |= {k: v for k, v in document.conventions.items() if v != CONVENTIONS[k]}
    if document.versions:
        told["versions"] = dict(document.versions)
    return told


def metadata_of_line(line: LineOut, document: Document, expected: int) -> dict[str, Any]:
    """What is said of a line where it does not follow from the line before it and the sheet."""
    told: dict[str, Any] = {}
    if line.number != expected:
        told["number"] = line.number
    if "@" in line.text and line.last is not None:
        told["last"] = line.last
    told |= {k: v for k, v in line.conventions.items() if v != document.conventions[k]}
    if any(line.draws):
        told["draws"] = [list(one) for one in line.draws]
        told["kept"] = line.kept
    if line.said:
        told["error"] = line.said
    if not any(line.draws) and ("today" in line.text or "now" in line.text):
        told["kept"] = line.kept
    return told
