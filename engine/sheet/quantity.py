"""A quantity as the list of quantities shows it."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

STORED, COVERED = "stored", "covered"


@dataclass(frozen=True, slots=True)
class Quantity:
    """``is_found``: computed from other quantities, not typed in as a value.

    ``line`` is the number of the line that gave it its value; ``text`` is empty
    where that line is an error.
    """

    name: str
    name_mathml: str
    line: int
    is_found: bool
    sign: str
    text: str
    value_mathml: str
    description: str
    state: str

    def as_dict(self) -> dict[str, Any]:
        """As the page gets it."""
        return asdict(self)
