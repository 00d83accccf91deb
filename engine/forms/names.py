"""The forms of an answer by their words: one table for reading and answering."""

from __future__ import annotations

COUNTED = frozenset({"digits", "places"})
"""Forms written behind a whole number: ``4 digits``."""

PLAIN: frozenset[str] = frozenset()
"""Forms written as one word."""


def is_form(words: tuple[str, ...]) -> bool:
    """Whether these words name a form."""
    if len(words) == 2:
        return words[0].isdecimal() and words[1] in COUNTED
    return len(words) == 1 and words[0] in PLAIN
