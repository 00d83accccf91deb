"""What people write in words between two values, or after one: ``5 choose 2``,
``45° to rad``, ``10 modulo 3``.  Each gets the sign or the call that is meant."""

from __future__ import annotations

import re

from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.forms import is_form
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.vocabulary import CONVERTING
from teapot.engine.sentences.units import MEASURES_SIDE_BY_SIDE
from teapot.engine.sentences.unreadable import (
    CALL_IN_WORDS,
    FORM_BEHIND_OTHER_WORD,
    FORM_WITHOUT_AS,
    LETTER_IN_POWER_OF_TEN,
    LETTER_X_FOR_TIMES,
    SIGN_IN_WORDS,
)

SIGNS = {
    "times": "*", "plus": "+", "minus": "-", "over": "/", "modulo": "mod", "modulus": "mod",
}  # fmt: skip
"""Operators by their names."""

CALLS = {"choose": "binomial", "nCr": "binomial", "C": "binomial", "nPr": "permutations",
         "P": "permutations"}  # fmt: skip
"""Functions that are written between their arguments elsewhere."""

TIMES = re.compile(r"(?:[xX]\d+)+")
"""``x4`` after a number: 3x4."""

POWER_OF_TEN = re.compile(r"[dD][-+]?\d+(?![\w.])")
"""``d3`` and ``D-4`` after a number: 4.56e-4."""

RUN_TOGETHER = re.compile(r"([CP])(\d+)")
"""``C2`` after a number: 5C2."""


def in_words(cursor: Cursor) -> LineError | None:
    """The error for two values side by side of which one is such a word."""
    for at in (cursor.at - 1, cursor.at):
        word = cursor.tokens[at]
        if at and word.kind == tk.NAME and word.text not in cursor.quantities:
            error = _meant(cursor, cursor.tokens[at - 1], word, cursor.tokens[at + 1])
            if error is not None:
                return error
    return None


def _meant(cursor: Cursor, left: Token, word: Token, right: Token) -> LineError | None:
    if word.text in SIGNS and right.kind != tk.END:
        sign = SIGNS[word.text]
        return SIGN_IN_WORDS(word.span, (replace(word.span, sign),), word=word.text, sign=sign)
    if word.text in CONVERTING:
        behind = cursor.tokens[cursor.tokens.index(word) + 1 :][:2]
        words = tuple(token.text for token in behind)
        if is_form(words[:1]) or is_form(words):
            return form_word(word.text, word.span)
    operands = (tk.NUMBER, tk.NAME)
    are_operands = left.kind in operands and right.kind in operands
    if word.text in CALLS and are_operands and right.text not in CONVERTING:
        return _called(CALLS[word.text], left, word, right, right.text)
    return None


def form_without_as(cursor: Cursor) -> LineError | None:
    """``pi 5 digits``: the error for a form with no word before it."""
    ends = (tk.END, tk.OP)
    for length in (1, 2):
        *words, end = cursor.tokens[cursor.at : cursor.at + length + 1]
        typed = tuple(word.text for word in words)
        if len(words) == length and end.kind in ends and is_form(typed):
            if any(name in cursor.quantities for name in typed):
                return None
            span = words[0].span.to(words[-1].span)
            mends = [replace(span, f"as {' '.join(typed)}")]
            if typed == ("percent",):
                mends.insert(0, replace(Span(cursor.previous.span.end, span.end), "%"))
            return FORM_WITHOUT_AS(span, tuple(mends))
    return None


def form_word(word: str, span: Span) -> LineError:
    """``45° to rad``: the word before a form is ``as``."""
    return FORM_BEHIND_OTHER_WORD(span, (replace(span, "as"),), word=word)


MEASURES = re.compile(r"(d|h|min|ft|lb)(\d+)(h|min|m|s|in|oz)?(?:(\d+)s)?")
"""``h30m`` after a number: 2h30m."""

SMALLER = {"d": "h", "h": "min", "min": "s", "ft": "in", "lb": "oz"}
"""What comes after a unit in such a measure."""


def _parts_together(number: Token, name: Token, found: re.Match[str]) -> LineError | None:
    """``2h30m``: the sum of its parts."""
    unit, figures, typed, seconds = found.groups()
    smaller = SMALLER[unit]
    if typed not in (None, smaller, smaller[:1]):
        return None
    parts = [
        f"{number.text} {unit}",
        f"{figures} {smaller}",
        *([f"{seconds} s"] if seconds else []),
    ]
    place = number.span.to(name.span)
    return MEASURES_SIDE_BY_SIDE(place, (replace(place, " + ".join(parts)),))


def run_together(cursor: Cursor, number: Token, name: Token) -> LineError | None:
    """``5C2``: the error for a number and a name that are one such call."""
    touch = number.kind == tk.NUMBER and number.span.end == name.span.start
    if not touch or name.text in cursor.quantities:
        return None
    if TIMES.fullmatch(name.text):
        return LETTER_X_FOR_TIMES(name.span)
    if POWER_OF_TEN.match(cursor.text, name.span.start):
        return LETTER_IN_POWER_OF_TEN(name.span)
    parts = MEASURES.fullmatch(name.text)
    if parts is not None:
        return _parts_together(number, name, parts)
    found = RUN_TOGETHER.fullmatch(name.text)
    if found is None:
        return None
    return _called(CALLS[found[1]], number, name, name, found[2])


def _called(function: str, left: Token, word: Token, right: Token, second: str) -> LineError:
    call = f"{function}({left.text}, {second})"
    mend: Mend = replace(left.span.to(right.span), call)
    return CALL_IN_WORDS(word.span, (mend,), call=call)
