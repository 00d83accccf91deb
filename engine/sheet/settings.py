"""What is set for a whole sheet and changes its answers."""

from __future__ import annotations

from dataclasses import dataclass

DEFAULT_DIGITS = 10


@dataclass(frozen=True, slots=True)
class Settings:
    """``digits``: significant digits of an answer that was rounded."""

    digits: int = DEFAULT_DIGITS
