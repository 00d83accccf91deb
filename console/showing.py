"""What a template shows of a line: the stored outcome made ready for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from console.models import Line
from engine.reading.tokens import split_note


@dataclass(frozen=True, slots=True)
class Shown:
    """A line with its input, its note apart, and its outcome."""

    line: Line

    @property
    def number(self) -> int:
        return self.line.number

    @property
    def text(self) -> str:
        return self.line.text

    @property
    def typed(self) -> str:
        """The input without its note."""
        return split_note(self.line.text)[0].strip()

    @property
    def note(self) -> str:
        return self.line.outcome["note"]

    @property
    def outcome(self) -> dict[str, Any]:
        return self.line.outcome


def entry_parts(outcome: dict[str, Any]) -> tuple[str, str, str]:
    """The input before, at and behind the place of its error."""
    text, error = outcome["input"], outcome["error"]
    start, end = error["start"], error["end"]
    return text[:start], text[start:end], text[end:]
