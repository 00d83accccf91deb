"""What came of a line: its answers, notices, or its error."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Any

from engine.errors import Asks, LineError
from engine.limits import MAX_KEPT_ROWS, MAX_KEPT_TEXT
from engine.mends import Mend, Notice, offers
from engine.reading.commands import KEPT
from engine.reading.tokens import split_note
from engine.version import VERSION

OK, ERROR, UNFINISHED, NOTE = "ok", "error", "unfinished", "note"


@dataclass(frozen=True, slots=True)
class Answer:
    """One statement's answer.

    ``reading`` and ``mathml`` are how the whole statement was read, the latter
    with the sign and the answer behind it; ``reading_mathml`` and
    ``value_mathml`` are its two sides, each the inside of a ``math`` element.
    ``form`` is the form where it is not the sheet's own; ``says_itself`` is set
    where the value would only repeat what was typed.  ``nearly`` is the value rounded,
    where it stands beside an exact one; ``unit`` is that of bare angles where the
    answer depends on it; ``cells`` are the rows of a table, its names first;
    ``has_dial`` is set where the dial can show an angle of it.
    """

    name: str | None
    kind: str
    sign: str
    text: str
    also: tuple[str, ...]
    reading: str
    mathml: str
    reading_mathml: str
    value_mathml: str
    form: str = ""
    says_itself: bool = False
    nearly: str = ""
    nearly_mathml: str = ""
    unit: str = ""
    cells: tuple[tuple[str, ...], ...] = ()
    has_dial: bool = False

    def as_dict(self) -> dict[str, Any]:
        """As ``--json`` prints it."""
        return {
            "name": self.name,
            "kind": self.kind,
            "sign": self.sign,
            "text": self.text,
            "also": [f"≈ {self.nearly}"] * bool(self.nearly) + list(self.also),
            "reading": self.reading,
            "mathml": self.mathml,
        }


def head_of(text: str) -> str:
    """As much of an answer as is kept with its line."""
    return text if len(text) <= MAX_KEPT_TEXT else text[: MAX_KEPT_TEXT - 1] + "…"


@dataclass(frozen=True, slots=True)
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

    def with_notices(self, more: Iterable[Notice]) -> Outcome:
        """The same with further notices, which come first."""
        return replace(self, notices=(*more, *self.notices))

    def with_mends(self, works: Callable[[Mend], bool]) -> Outcome:
        """The same with only those mends that work."""
        if self.error is not None:
            self.error.mends = tuple(filter(works, self.error.mends))
        if not any(notice.mends for notice in self.notices):
            return self
        notices = tuple(replace(one, mends=tuple(filter(works, one.mends))) for one in self.notices)
        return replace(self, notices=notices)

    def as_dict(self) -> dict[str, Any]:
        """As ``--json`` prints it."""
        return {
            "line": self.number,
            "input": self.input,
            "status": self.status,
            "quiet": self.quiet,
            "answers": [answer.as_dict() for answer in self.answers],
            "notices": [
                {
                    "code": notice.code,
                    "text": notice.text,
                    "mends": offers(notice.mends, self.input),
                }
                for notice in self.notices
            ],
            "error": self._error_dict(),
            "steps": [],
        }

    def for_page(self) -> dict[str, Any]:
        """As :meth:`as_dict`, with what only the page needs."""
        page = self.as_dict() | {
            "engine": VERSION,
            "note": self.note,
            "is_setting": bool(self.command) and self.command[0] not in KEPT,
            "typed": split_note(self.input)[0].strip(),
            "command": self.command,
            "is_live": self.is_live,
            "draws": [list(values) for values in self.draws],
            "asks": self._asked(),
        }
        for shown, answer in zip(page["answers"], self.answers, strict=True):
            del shown["mathml"]  # the page sets both sides by themselves
            shown |= {
                "text": head_of(answer.text),
                "is_cut": len(answer.text) > MAX_KEPT_TEXT or len(answer.cells) > MAX_KEPT_ROWS,
                "reading_mathml": answer.reading_mathml,
                "value_mathml": answer.value_mathml,
                "form": answer.form,
                "says_itself": answer.says_itself,
                "also": list(answer.also),
                "nearly": answer.nearly,
                "unit": answer.unit,
                "has_dial": answer.has_dial,
                "cells": [list(row) for row in answer.cells[: MAX_KEPT_ROWS + 1]],
            }
        return page

    def _asked(self) -> dict[str, Any] | None:
        """The question that the line waits for a reply to."""
        if not isinstance(self.error, Asks):
            return None
        return {
            "question": self.error.question,
            "taken": self.error.taken,
            "said": self.error.said,
        }

    def _error_dict(self) -> dict[str, Any] | None:
        if self.error is None:
            return None
        start, end = self.error.span or (0, len(self.input))
        return {
            "code": self.error.code,
            "text": self.error.text,
            "start": start,
            "end": end,
            "mends": offers(self.error.mends, self.input),
        }
