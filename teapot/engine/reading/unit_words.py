"""Units in words: ``60 miles per hour``, ``5 square metres``, ``9.81 metre per second squared``."""

from __future__ import annotations

import re
from collections.abc import Container, Iterator
from itertools import pairwise

from teapot.engine.mends import Span
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.tokens import Token
from teapot.engine.units.table import EACH, atom_of

FIRST_WORDS = frozenset(
    name.partition("_")[0] for atom in EACH for name in atom.names if "_" in name
)
"""Of names of several words: ``short ton``."""

TOGETHER = {
    "Nm": ("newton", "metre"), "kNm": ("kilonewton", "metre"), "MNm": ("meganewton", "metre"),
    "Ncm": ("newton", "centimetre"), "Nmm": ("newton", "millimetre"),
    "kNcm": ("kilonewton", "centimetre"), "Ns": ("newton", "second"), "Pas": ("pascal", "second"),
    "mPas": ("millipascal", "second"),
}  # fmt: skip
"""Two units run together, by their full names, which no quantity has."""

ANGLES = {
    "degree": "deg", "degrees": "deg", "degs": "deg", "radian": "rad", "radians": "rad",
    "rads": "rad", "grad": "gon", "grads": "gon", "gons": "gon", "turns": "turn", "rev": "turn",
}  # fmt: skip
"""Units of angles as people write them."""

WORDS = re.compile(
    rf"\b(?:{'|'.join(sorted(ANGLES))})(?![\w(])|"
    r"\b(?:deg(?:rees?)?\s+[CFcf]\w*|per|square|sq|cubic|cu|squared|cubed|lbs|kmh|kph|[kM]?Nm|Nmm|k?Ncm|Ns|m?Pas|r/min|[^\W\d_]+[23]|[A-Z][a-z]{3,}|"
    rf"{'|'.join(sorted(FIRST_WORDS))})(?!\w)"
    r"|/\s*[^\W\d_]+(?:\^?[23]|[²³])?\.?K(?:\^?4|⁴)?(?!\w)|[^\W\d_]\.[^\W\d_]|[\d)]\s*\["
)
"""By which a line is worth being looked at."""

BEFORE = {"square": "2", "sq": "2", "cubic": "3", "cu": "3"}

BEHIND = {"squared": "2", "cubed": "3"}


SCALES = {
    **dict.fromkeys(("C", "Celsius", "celsius"), "degree_Celsius"),
    **dict.fromkeys(("F", "Fahrenheit", "fahrenheit"), "degree_Fahrenheit"),
}
"""The scales of temperature, by what stands after ``deg`` or ``degrees``."""

SPELT = {
    "lbs": ("lb",),
    "kmh": ("km", "/", "h"),
    "kph": ("km", "/", "h"),
    **TOGETHER,
    **{word: (sign,) for word, sign in ANGLES.items()},
}
"""Symbols as people write them."""

WITH_POWER = re.compile(r"([^\W\d_]+)([23])")
"""``m2``: a symbol with its power after it."""

BEFORE_UNIT = frozenset({")", "]", "as", "in", "to", "into", "→"})


def in_signs(
    tokens: list[Token],
    quantities: Container[str],
    contested: set[int],
    as_units: Container[int] = (),
) -> list[Token]:
    """The tokens of a line with the signs for such words; those that quantities have stay, but
    for the ones at the places ``as_units``.  All places where ``s2`` may be either are noted
    among the ``contested``."""
    quantities = _Own(quantities, tokens)
    for look in PASSES:
        tokens = list(look(tokens, quantities))
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
        elif word and atom_of(word) is None and may_be_unit and behind.text != "(":
            found += _spelt(token)
        elif may_be_unit and not word and _has_power(token):
            if token.text not in quantities.parameters:
                contested.add(token.span.start)
            found += _spelt(token) if token.span.start in as_units else [token]
        else:
            found.append(token)
            if power:
                found.append(Token(tk.POWER, power, end))
                power = ""
        may_be_unit = bool(found) and _may_follow(found[-1], may_be_unit)
    return found


class _Own:
    """The names that have a value, with those that the line itself gives one, or solves for."""

    def __init__(self, known: Container[str], tokens: list[Token]) -> None:
        self._known = known
        self._given = {name.text for name, sign in pairwise(tokens) if sign.text in ("=", ":=")}
        self.parameters = _parameters(tokens)
        self._given |= self.parameters
        if any(token.text == "solve" for token in tokens):
            self._given |= {
                name.text
                for before, name, after in zip(tokens, tokens[1:], tokens[2:], strict=False)
                if before.text in (",", "[") and after.text in (",", "]", ")")
            }

    def __contains__(self, name: object) -> bool:
        return name in self._given or name in self._known


def _parameters(tokens: list[Token]) -> set[str]:
    """The names in brackets before the sign that defines: the T2 of ``f(T2) = 3 T2``."""
    words = [token.text for token in tokens[: MOST_BEFORE_SIGN + 2]]
    closing = words.index(")") if ")" in words else 0
    is_defined = words[1:2] == ["("] and words[closing + 1 : closing + 2] in (["="], [":="])
    return set(words[2:closing:2]) if is_defined else set()


MOST_BEFORE_SIGN = 40
"""Tokens that a function is looked for among."""


def _has_power(token: Token) -> bool:
    """Whether it is ``s2``, a symbol with its power after it."""
    power = WITH_POWER.fullmatch(token.text) if token.kind == tk.NAME else None
    return power is not None and atom_of(power[1]) is not None


def _joined(tokens: list[Token], quantities: Container[str]) -> Iterator[Token]:
    """The tokens with the words of a name that has several put together, and ``r/min`` as rpm."""
    at = 0
    while at < len(tokens):
        token, *behind = tokens[at : at + 3]
        words = [one.text for one in behind]
        is_free = token.kind == tk.NAME and token.text not in quantities
        if is_free and words[:2] == ["/", "min"] and token.text == "r":
            yield Token(tk.NAME, "rpm", token.span.to(behind[1].span))
            at += 3
        elif is_free and token.text in ("deg", "degree", "degrees") and {*words[:1]} & {*SCALES}:
            yield Token(tk.NAME, SCALES[words[0]], token.span.to(behind[0].span))
            at += 2
        elif (
            is_free
            and token.text in FIRST_WORDS
            and behind[0].kind == tk.NAME
            and atom_of(f"{token.text}_{words[0]}") is not None
        ):
            yield Token(tk.NAME, f"{token.text}_{words[0]}", token.span.to(behind[0].span))
            at += 2
        else:
            yield token
            at += 1


def _without_brackets(tokens: list[Token], quantities: Container[str]) -> Iterator[Token]:
    """The tokens without the square brackets around a unit: ``9.81 [m/s^2]``.  In them a name is
    a unit, whatever quantities there are."""
    at, closing = 0, -1
    while at < len(tokens):
        token = tokens[at]
        if token.text == "[" and at and tokens[at - 1].kind == tk.NUMBER:
            closing = _end_of_unit(tokens, at + 1)
            at += closing > 0
        elif at == closing:
            at += 1
            continue
        token = tokens[at]
        if at < closing and token.text in quantities:
            atom = atom_of(token.text)
            token = token._replace(text=atom.names[0]) if atom is not None else token
        yield token
        at += 1


def _end_of_unit(tokens: list[Token], at: int) -> int:
    """Where the square bracket after a unit stands; −1 where something else is before it."""
    start = at
    while tokens[at].text != "]":
        token = tokens[at]
        is_symbol = _is_unit(token)
        is_sign = token.kind in (tk.NUMBER, tk.POWER) or token.text in (
            "/",
            "*",
            "^",
            "-",
            "(",
            ")",
        )
        if not (is_symbol or (is_sign and at > start)):
            return -1
        at += 1
    return at if at > start else -1


PER_KELVIN = re.compile(r"(kg|g|mol|kmol|m)([23]?)K(4?)")
"""``kgK`` below a bar: two units run together, with the power of each."""

GLUED = re.compile(r"/(?:kg|g|mol|kmol|m)(?:\^?[23])?\.?K(?:\^?4)?")
"""The same with its powers in signs, or a point: ``/m^2K``, ``/kg.K``, ``/m^2.K^4``."""


def _below(tokens: list[Token], at: int, quantities: Container[str]) -> tuple[list[Token], int]:
    """What is meant by ``/kgK`` and ``/m².K`` at a bar, with brackets, and how many tokens it is;
    nothing where it is another thing."""
    bar, first, *behind = tokens[at : at + 4]
    opening, closing = (Token(tk.OP, one, first.span) for one in "()")
    together = PER_KELVIN.fullmatch(first.text)
    if together is not None and atom_of(first.text) is None and first.text not in quantities:
        power = [Token(tk.POWER, together[2], first.span)] if together[2] else []
        of_kelvin = [Token(tk.POWER, together[3], first.span)] if together[3] else []
        units = [Token(tk.NAME, together[1], first.span), *power, Token(tk.NAME, "K", first.span)]
        return [bar, opening, *units, *of_kelvin, closing], 2
    glued = list(_glued(tokens[at + 1 :])) if first.text != "mK" else []
    names = [one for one in glued if one.kind == tk.NAME]
    are_units = all(_begins_unit(one) and one.text not in quantities for one in names)
    if are_units and GLUED.fullmatch(bar.text + "".join(_typed(one) for one in glued)):
        parts = [part for one in glued if one.text != "." for part in _spelt(one)]
        return [bar, opening, *parts, closing], 1 + len(glued)
    if len(behind) == 2 and _is_pointed(first, behind[0], behind[1], quantities):
        return [bar, opening, first, behind[1], closing], 4
    return [], 0


def _glued(tokens: list[Token]) -> Iterator[Token]:
    """The first of the tokens, with those that nothing parts from it."""
    for token, after in pairwise(tokens):
        is_part = token.kind in (tk.NAME, tk.NUMBER, tk.POWER) or token.text in ("^", ".")
        if not is_part:
            return
        yield token
        if token.span.end != after.span.start:
            return


def _typed(token: Token) -> str:
    return f"^{token.text}" if token.kind == tk.POWER else token.text


def _is_pointed(first: Token, point: Token, second: Token, quantities: Container[str]) -> bool:
    """Whether a point stands between two units: ``N.m``."""
    is_close = first.span.end == point.span.start and point.span.end == second.span.start
    are_units = all(_is_unit(one) and one.text not in quantities for one in (first, second))
    return point.text == "." and is_close and are_units


def _pointed(tokens: list[Token], quantities: Container[str]) -> Iterator[Token]:
    """The tokens with products for units with a point between, or run together below a bar."""
    at = 0
    while at < len(tokens):
        token, *behind = tokens[at : at + 3]
        meant: list[Token] = []
        if token.text == "/" and behind[0].kind == tk.NAME:
            meant, count = _below(tokens, at, quantities)
        elif (
            at
            and len(behind) == 2
            and _may_follow(tokens[at - 1], False)
            and _is_pointed(token, behind[0], behind[1], quantities)
        ):
            meant, count = [token], 2
        if meant:
            yield from meant
            at += count
        else:
            yield token
            at += 1


PASSES = (_without_brackets, _joined, _pointed)
"""What is put right before words are read as signs."""


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
