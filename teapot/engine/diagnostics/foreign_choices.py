"""A choice between two values as it is written elsewhere: its ``if(test, then, else)``
is offered."""

from __future__ import annotations

import re

from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace
from teapot.engine.reading.tokens import plain
from teapot.engine.sentences.unreadable import CHOICE

TARGET = r"\s*(?:\w+\s*(?:\([\w\s,]*\)\s*)?:?=(?!=)\s*)?"
"""What may stand before a choice: what is given its value."""


def _spelling(pattern: str) -> re.Pattern[str]:
    """A pattern of words in which A, B and C are the test and its two values."""
    for letter, part in (("A", "test"), ("B", "yes"), ("C", "no")):
        pattern = pattern.replace(letter, rf"(?P<{part}>\S(?:.*?\S)??)")
    return re.compile(rf"{TARGET}(?P<all>(?=\S){pattern})\s*")


SPELLINGS = tuple(
    map(
        _spelling,
        (
            r"if\b\s*A\s*\bthen\b\s*B\s*\belse\b\s*C",
            r"if\s*\(A\)\s*(?![,)])B\s*\belse\b\s*C",
            r"if\b\s*A\s*:\s*B\s*\belse\b\s*:?\s*C",
            r"B\s*\bif\b\s*A\s*\belse\b\s*C",
            r"A\s*\?\s*B\s*:\s*C",
        ),
    )
)

MARK = re.compile(r"\b(?:then|else)\b|\?.*:")
"""What every such line has, and hardly any other."""

LONGEST = 300
"""Characters of a line that is looked through for a choice."""

SINGLE_EQUALS = re.compile(r"(?<![=<>!:])=(?!=)")


def choice_in(text: str) -> LineError | None:
    """The error for a line that cannot be read, where it is such a choice."""
    source = plain(text)
    if len(source) > LONGEST or ";" in source or not MARK.search(source):
        return None
    found = next(filter(None, (spelling.fullmatch(source) for spelling in SPELLINGS)), None)
    if found is None:
        return None
    test, yes, no = (text[slice(*found.span(part))] for part in ("test", "yes", "no"))
    span = Span(*found.span("all"))
    mend = replace(span, f"if({SINGLE_EQUALS.sub('==', test)}, {yes}, {no})")
    return CHOICE(span, (mend,))
