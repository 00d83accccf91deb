"""Numbers as they are typed: ``1.6×10^-19``, ``5.32(4)``, ``0.(3)``, ``2½``, ``2024-03-01``."""

from __future__ import annotations

import re
from datetime import datetime

from teapot.engine.mends import Span
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.literals import literal_value, parts_of_fraction, sexagesimal_value
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.tree import Binary, DateLiteral, Literal, Measured, Node, Sexagesimal
from teapot.engine.reading.units import read_unit, sees_measure
from teapot.engine.sentences.values import NO_DAY

TIMES_TEN = frozenset("×·⋅∙•")
"""Signs between a number and the power of ten that belongs to it."""

MOST_FIGURES = 2
"""Of an uncertainty in brackets."""

POWER_OF_TEN = re.compile(r"[eE][-+]?[0-9]{1,4}(?![\w.])")

DATE = re.compile(r"[0-9]{4}-[0-9]{2}-[0-9]{2}(?![\w.-])")
"""A calendar date (ISO 8601, 5.2.2.1 in the extended format)."""


def number(cursor: Cursor, token: Token) -> Node:
    """What a token of figures begins."""
    for read in (scientific, concise, overlined, repeating, date):
        found = read(cursor, token)
        if found is not None:
            return found
    whole = Literal(token.span, *literal_value(token.text, token.span))
    if cursor.token.kind != tk.FRACTION:
        return whole
    # ``2½``: the sum of both
    part = fraction(cursor, cursor.next())
    span = whole.span.to(part.span)
    node = Binary(span, "+", whole, part, Span(whole.span.end, whole.span.end))
    cursor.outer[id(node)] = span
    return node


def scientific(cursor: Cursor, mantissa: Token) -> Node | None:
    """``1.6×10^-19`` and ``2.5·10³``, which are one number; None where this is another."""
    if not cursor.sees("*") or cursor.tokens[cursor.at + 1].text != "10":
        return None
    times, _, *rest = cursor.tokens[cursor.at : cursor.at + 5]
    if cursor.typed(times.span) not in TIMES_TEN or "e" in mantissa.text.lower():
        return None
    if rest[0].kind == tk.POWER:
        exponent, count = rest[0].text, 3
    elif rest[0].text == "^":
        signed = rest[1].text in ("-", "+")
        sign, figures = (rest[1].text, rest[2]) if signed else ("", rest[1])
        if figures.kind != tk.NUMBER or not figures.text.isdecimal():
            return None
        exponent, count = sign + figures.text, 4 + signed
    else:
        return None
    cursor.at += count
    span = mantissa.span.to(cursor.previous.span)
    return Literal(span, *literal_value(f"{mantissa.text}e{int(exponent)}", span))


def concise(cursor: Cursor, number: Token) -> Node | None:
    """``5.32(4)`` and ``1.234(12) m``: a value and the standard uncertainty of its last
    figures (SI brochure, 7); None where this is a product."""
    if not cursor.reads_anew or not cursor.sees("(") or "." not in number.text:
        return None
    opening, figures, closing = (*cursor.tokens[cursor.at : cursor.at + 3], number)[:3]
    is_one = (
        opening.span.start == number.span.end
        and figures.kind == tk.NUMBER
        and figures.text.isdecimal()
        and len(figures.text) <= MOST_FIGURES
        and closing.text == ")"
    )
    decimals = number.text.rpartition(".")[2]
    if not is_one or not decimals.isdecimal():
        return None
    cursor.at += 3
    uncertainty = figures.text.rjust(len(decimals), "0")
    whole, part = uncertainty[: -len(decimals)] or "0", uncertainty[-len(decimals) :]
    power = power_of_ten(cursor)
    span = figures.span.to(cursor.previous.span)
    value = Literal(number.span, *literal_value(number.text + power, number.span))
    right: Node = Literal(span, *literal_value(f"{whole}.{part}{power}", span))
    if sees_measure(cursor):
        start = cursor.token.span
        unit = read_unit(cursor)
        place = start.to(cursor.previous.span)
        right = Measured(right.span.to(place), right, unit, place)
    sign = Span(number.span.end, number.span.end)
    node = Binary(number.span.to(cursor.previous.span), "±", value, right, sign)
    cursor.outer[id(node)] = node.span
    return node


def repeating(cursor: Cursor, number: Token) -> Node | None:
    """``0.(3)``, whose bracketed figures repeat; None where this is none."""
    if not number.text.endswith(".") or not cursor.sees("(") or not cursor.reads_anew:
        return None
    opening, figures, closing = (*cursor.tokens[cursor.at : cursor.at + 3], number)[:3]
    is_one = (
        opening.span.start == number.span.end and figures.text.isdecimal() and closing.text == ")"
    )
    if not is_one:
        return None
    cursor.at += 3
    span = number.span.to(cursor.previous.span)
    return _as_fraction(cursor, span, (number.text[:-1], "", figures.text), figures.span)


OVERLINED = re.compile(rf"(\d*)\.(\d*?)((?:\d[{tk.OVERLINES}])+)(?![\w.])")
"""``0.16̅``, with a bar over each figure that repeats."""


def overlined(cursor: Cursor, number: Token) -> Node | None:
    """``0.3̅`` and ``0.16̅``; None where no figure has a bar."""
    if not cursor.reads_anew or cursor.token.text not in tk.OVERLINES or not cursor.token.text:
        return None
    found = OVERLINED.match(cursor.text, number.span.start)
    if found is None:
        return None
    span = Span(*found.span())
    _pass_to(cursor, span.end)
    whole, plain, marked = found.groups()
    return _as_fraction(cursor, span, (whole, plain, marked[::2]), Span(*found.span(3)))


def _as_fraction(cursor: Cursor, span: Span, parts: tuple[str, str, str], place: Span) -> Node:
    """The fraction of a number in ``parts``: before the point, after it, and repeating, which
    stand at ``place``."""
    whole, plain, repeated = parts
    once, all_of_it = int(whole + plain or "0"), int(whole + plain + repeated)
    below = (10 ** len(repeated) - 1) * 10 ** len(plain)
    first, second = (
        Literal(span, *literal_value(str(one), span)) for one in (all_of_it - once, below)
    )
    node = Binary(span, "/", first, second, place)
    cursor.outer[id(node)] = span
    return node


def _pass_to(cursor: Cursor, end: int) -> None:
    """Passes the tokens that end at ``end`` or before."""
    while cursor.token.kind != tk.END and cursor.token.span.end <= end:
        cursor.at += 1


def date(cursor: Cursor, year: Token) -> Node | None:
    """``2024-03-01``, a day; None where this is a difference.

    Errors: :data:`NO_DAY` for a day that the calendar does not have.
    """
    found = DATE.match(cursor.text, year.span.start)
    if found is None or not cursor.reads_anew:
        return None
    span = Span(*found.span())
    _pass_to(cursor, span.end)
    try:
        return DateLiteral(span, found[0], datetime.fromisoformat(found[0]))
    except ValueError:
        raise NO_DAY(span, typed=found[0]) from None


def power_of_ten(cursor: Cursor) -> str:
    """Passes the ``e-5`` of ``1.23(4)e-5``; empty where there is none."""
    found = POWER_OF_TEN.match(cursor.text, cursor.previous.span.end)
    if found is None:
        return ""
    _pass_to(cursor, found.end())
    return found[0]


def fraction(cursor: Cursor, token: Token) -> Node:
    """``½``, set as what it is."""
    above, below = (
        Literal(token.span, *literal_value(part, token.span))
        for part in parts_of_fraction(token.text) or ("0", "1")
    )
    node = Binary(token.span, "/", above, below, token.span)
    cursor.outer[id(node)] = token.span
    return node


def sexagesimal(cursor: Cursor, token: Token) -> Node:
    """``12°30′15″``."""
    return Sexagesimal(token.span, *sexagesimal_value(token.text, token.span))
