"""Two signs typed for one: ``5 +- 0.1`` and ``60 km/h -> m/s``."""

from __future__ import annotations

from itertools import pairwise

from teapot.engine.reading import tokens as tk
from teapot.engine.reading.forms import is_form, is_unit
from teapot.engine.reading.tokens import Token

SIGNS = ("+-", "->")
"""By which a line is worth being looked at."""

ENDS_OPERAND = frozenset({")", "]", "%", "°", "!"})
"""Signs after which ``+-`` is ±."""


def joined(tokens: list[Token]) -> list[Token]:
    """``+-`` is ± where a space follows it, ``2+-3`` a sum; ``->`` before a unit or
    a form is an arrow."""
    found: list[Token] = []
    for token, behind in pairwise((*tokens, tokens[-1])):
        before = found[-1] if found else token
        is_one = before.text == "+" and before.span.end == token.span.start
        is_arrow = token.text == ">" and before.text == "-" and _is_wanted(behind.text)
        if is_arrow and before.span.end == token.span.start:
            found[-1] = Token(tk.OP, "→", before.span.to(token.span))
            continue
        stands_apart = is_one and token.text == "-" and token.span.end < behind.span.start
        if stands_apart and len(found) > 1 and _ends_operand(found[-2]):
            found[-1] = Token(tk.OP, "±", before.span.to(token.span))
        else:
            found.append(token)
    return found


def _is_wanted(word: str) -> bool:
    return is_form((word,)) or is_unit(word)


def _ends_operand(token: Token) -> bool:
    return token.kind != tk.OP or token.text in ENDS_OPERAND
