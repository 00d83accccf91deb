"""What a template shows of a line: the stored outcome made ready for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from teapot.console.models import Line
from teapot.engine.aids.pictures import APART


@dataclass(frozen=True, slots=True)
class ShownLine:
    """A line with its input, its note apart, and its outcome.

    ``moved`` says how a change has moved its answers: ``8 → 11``.
    """

    line: Line
    moved: list[str] | None = None

    @property
    def number(self) -> int:
        return self.line.number

    @property
    def place(self) -> float:
        return self.line.place

    @property
    def text(self) -> str:
        return self.line.text

    @property
    def is_waiting(self) -> bool:
        """Whether its answers are still to be worked out: those at hand are older ones."""
        return not self.line.is_fresh

    @property
    def typed(self) -> str:
        """The input without its note."""
        return self.line.outcome.get("typed", self.line.text)

    @property
    def notices(self) -> list[dict[str, Any]]:
        return list(self.line.outcome["notices"])

    @property
    def note(self) -> str:
        return self.line.outcome["note"]

    @property
    def outcome(self) -> dict[str, Any]:
        return self.line.outcome

    @property
    def run_name(self) -> str:
        """The procedure that it came with, if it did."""
        run = self.line.run
        return "" if run is None else run.version.procedure.name

    @property
    def pictures(self) -> list[str]:
        """The pictures of its answers that are opened by themselves, by name."""
        answers = self.line.outcome["answers"]
        names = (name for answer in answers for name in answer.get("pictures", ()))
        return [name for name in dict.fromkeys(names) if name in APART]

    @property
    def was(self) -> str:
        """How its answers have moved, as one text."""
        return ", ".join(self.moved or ())
