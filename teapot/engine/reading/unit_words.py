"""Units in words: ``60 miles per hour``, ``5 square metres``, ``9.81 metre per second squared``."""

from __future__ import annotations

import re
from collections.abc import Container
from itertools import pairwise

from teapot.engine.mends import Span
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.tokens import Token
from teapot.engine.units.table import atom_of

WORDS = re.compile(r"\b(?:per|square|cubic|squared|cubed)\b")
"""By which a line is worth being looked at."""

BEFORE = {"square": "2", "cubic": "3"}

BEHIND = {"squared": "2", "cubed": "3"}


def in_signs(tokens: list[Token], quantities: Container[str]) -> list[Token]:
    """The tokens of a line with the signs for such words; those that quantities have stay."""
    found: list[Token] = []
    power = ""
    for token, behind in pairwise((*tokens, tokens[-1])):
        word = token.text if token.kind == tk.NAME and token.text not in quantities else ""
        end = Span(token.span.end, token.span.end)
        if word in BEFORE and _is_unit(behind):
            power = BEFORE[word]
        elif word in BEHIND and found and _is_unit(found[-1]):
            found.append(Token(tk.POWER, BEHIND[word], token.span))
        elif word == "per" and found and (_is_unit(behind) or behind.text in BEFORE):
            found.append(Token(tk.OP, "/", token.span))
        else:
            found.append(token)
            if power:
                found.append(Token(tk.POWER, power, end))
                power = ""
    return found


def _is_unit(token: Token) -> bool:
    return token.kind == tk.NAME and atom_of(token.text) is not None
