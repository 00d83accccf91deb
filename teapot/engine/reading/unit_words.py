"""Units in words: ``60 miles per hour``, ``5 square metres``, ``9.81 metre per second squared``."""

from __future__ import annotations

import re
from collections.abc import Container
from itertools import pairwise

from teapot.engine.mends import Span
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.tokens import Token
from teapot.engine.units.table import atom_of

WORDS = re.compile(
    r"\b(?:per|square|cubic|squared|cubed|lbs|kmh|kph|[^\W\d_]+[23]|[A-Z][a-z]{3,})(?!\w)"
)
"""By which a line is worth being looked at."""

BEFORE = {"square": "2", "cubic": "3"}

BEHIND = {"squared": "2", "cubed": "3"}


SPELT = {"lbs": ("lb",), "kmh": ("km", "/", "h"), "kph": ("km", "/", "h")}
"""Symbols as people write them."""

WITH_POWER = re.compile(r"([^\W\d_]+)([23])")
"""``m2``: a symbol with its power after it."""

BEFORE_UNIT = frozenset({")", "]", "as", "in", "to", "into", "→"})


def in_signs(tokens: list[Token], quantities: Container[str]) -> list[Token]:
    """The tokens of a line with the signs for such words; those that quantities have stay."""
    found: list[Token] = []
    power, may_be_unit = "", False
    for token, behind in pairwise((*tokens, tokens[-1])):
        word = token.text if token.kind == tk.NAME and token.text not in quantities else ""
        end = Span(token.span.end, token.span.end)
        if word in BEFORE and _is_unit(behind):
            power = BEFORE[word]
        elif word in BEHIND and found and _is_unit(found[-1]):
            found.append(Token(tk.POWER, BEHIND[word], token.span))
        elif word == "per" and found and _begins_unit(behind):
            found.append(Token(tk.OP, "/", token.span))
        elif word and atom_of(word) is None and may_be_unit:
            found += _spelt(token)
        else:
            found.append(token)
            if power:
                found.append(Token(tk.POWER, power, end))
                power = ""
        may_be_unit = bool(found) and _may_follow(found[-1], may_be_unit)
    return found


def _begins_unit(token: Token) -> bool:
    return _is_unit(token) or token.text in BEFORE or _spelt(token)[0] is not token


def _may_follow(token: Token, could_before: bool) -> bool:
    """Whether a unit may follow a token, or go on there: ``9.81 m/`` is one, ``x = m/`` is none."""
    if token.kind in (tk.NUMBER, tk.POWER) or token.text in BEFORE_UNIT:
        return True
    return could_before and (token.text in ("/", "*") or _is_unit(token))


def _spelt(token: Token) -> list[Token]:
    """The tokens that are meant by a unit as people write it; itself where it is none."""
    word = token.text
    if word in SPELT:
        kinds = {"/": tk.OP}
        return [Token(kinds.get(one, tk.NAME), one, token.span) for one in SPELT[word]]
    power = WITH_POWER.fullmatch(word)
    if power is not None and atom_of(power[1]) is not None:
        symbol = Span(token.span.start, token.span.end - 1)
        figure = Span(symbol.end, token.span.end)
        return [Token(tk.NAME, power[1], symbol), Token(tk.POWER, power[2], figure)]
    is_full_name = len(word) > 3 and word[1:].islower() and atom_of(word.lower()) is not None
    return [Token(tk.NAME, word.lower(), token.span)] if is_full_name else [token]


def _is_unit(token: Token) -> bool:
    return token.kind == tk.NAME and atom_of(token.text) is not None
