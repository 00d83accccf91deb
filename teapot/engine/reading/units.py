"""Units of measurement as they are typed: after a number, and after ``as``.

::

    unit = factor { [ "*" ] factor | "/" ( factor | "(" unit ")" ) }
    factor = symbol [ "^" power ]

A name is a unit only there, and only where no quantity has it.
"""

from __future__ import annotations

from functools import lru_cache

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.literals import literal_value
from teapot.engine.reading.tokens import Token, split_note, tokens_of
from teapot.engine.reading.tree import Call, ListOf, Literal, Name, Node
from teapot.engine.reading.unit_words import in_signs
from teapot.engine.reading.vocabulary import CONVERTING
from teapot.engine.sentences.units import (
    ENDLESS_UNIT,
    METRE_KELVIN,
    POWER_OF_UNIT,
    POWER_OR_DIFFERENCE,
    UNIT_BELOW,
)
from teapot.engine.units.merging import Part
from teapot.engine.units.table import ANGLES_OF_SHEETS, SYMBOLS, Atom, atom_of
from teapot.engine.units.unit import Unit, power_text

MOST_PARTS, MOST_POWER = 20, 99
"""Factors of a unit, and the power of one."""

COUNTED_BY = frozenset({"pi", "e"})
"""Constants that a unit may stand after, as it does after a number: ``2 pi m``."""


def takes_unit(cursor: Cursor, node: Node) -> bool:
    """Whether a unit may stand after ``node``: a number, or what stands in brackets."""
    if isinstance(node, Literal | Call | ListOf) or id(node) in cursor.outer:
        return True
    return isinstance(node, Name) and node.name in COUNTED_BY


def sees_measure(cursor: Cursor) -> bool:
    """Whether a unit of measurement is at hand, or an angle's that others follow."""
    token = cursor.token
    if not _is_unit(cursor, cursor.at):
        return False
    if token.text not in ANGLES_OF_SHEETS:
        return not _means_another(cursor)
    behind = cursor.tokens[cursor.at + 1]
    return behind.text == "/" and _is_unit(cursor, cursor.at + 2)


def _is_unit(cursor: Cursor, at: int) -> bool:
    token = cursor.tokens[min(at, len(cursor.tokens) - 1)]
    if token.text == "°":
        return _is_scale(cursor, at)
    if token.kind != tk.NAME or atom_of(token.text) is None or _converts(cursor, at):
        return False
    cursor.at_stake.add((token.text, token.span.start))
    if _is_product(cursor, at):
        return False
    is_called = cursor.tokens[at + 1].text == "(" and token.text in cursor.functions
    if is_called:
        return False
    if token.text not in cursor.quantities:
        return True
    if token.text in cursor.parameters or _is_rather_a_quantity(cursor, token):
        return False
    cursor.contested.add(token.span.start)
    return token.span.start in cursor.as_units


def _is_rather_a_quantity(cursor: Cursor, token: Token) -> bool:
    """Whether a quantity that the year's symbol names too is meant: ``2 a`` has a year only where
    no quantity is a, since who means one has its full name."""
    return token.text == YEAR and token.span.start not in cursor.as_units


YEAR = "a"


def _is_product(cursor: Cursor, at: int) -> bool:
    """Whether letters of quantities run together stand there: ``2πRC`` and ``2RC``, which is no
    ronnacoulomb."""
    word = cursor.tokens[at].text
    if not at or not (cursor.tokens[at - 1].text in COUNTED_BY or is_rare(word)):
        return False
    if len(word) == 1 or word in cursor.quantities or word in SYMBOLS:
        return False
    return all(letter in cursor.quantities for letter in word)


RARE_PREFIXES = frozenset("RQrq")
"""Ronna, quetta, ronto and quecto, which were new in 2022."""


def is_rare(word: str) -> bool:
    """Whether a unit has a prefix that hardly anybody writes.

    >>> is_rare("RC"), is_rare("rad"), is_rare("R")
    (True, False, False)
    """
    return len(word) > 1 and word[0] in RARE_PREFIXES and word not in SYMBOLS


def _converts(cursor: Cursor, at: int) -> bool:
    """Whether ``in`` stands there before a unit, which is no inch: ``70 kg in lb``."""
    if cursor.tokens[at].text != "in" or (at and cursor.tokens[at - 1].text == "("):
        return False
    behind = cursor.tokens[at + 1]
    if _is_converted(cursor, at):
        return False
    if behind.text in ("%", "°"):
        return True
    if behind.text in ("1", "/"):
        return _is_over_unit(cursor, at)
    return behind.kind == tk.NAME and atom_of(behind.text) is not None


def _is_over_unit(cursor: Cursor, at: int) -> bool:
    """Whether the ``in`` there stands before ``1/s`` or `` /s``; ``12 in/s`` has inches."""
    if not at or cursor.tokens[at - 1].kind == tk.NUMBER:
        return False
    word, behind = cursor.tokens[at : at + 2]
    if behind.text == "/" and word.span.end == behind.span.start:
        return False
    bar = at + 2 if behind.text == "1" else at + 1
    sign, unit = (*cursor.tokens[bar : bar + 2], cursor.tokens[-1])[:2]
    return sign.text == "/" and unit.kind == tk.NAME and atom_of(unit.text) is not None


def _is_converted(cursor: Cursor, at: int) -> bool:
    """Whether the unit there is followed by the word that converts it: ``12 in to cm``."""
    word, unit = (*cursor.tokens[at + 1 : at + 3], cursor.tokens[-1])[:2]
    return word.text in CONVERTING and (unit.kind == tk.NAME or unit.text in ("°", "%"))


def _is_scale(cursor: Cursor, at: int) -> bool:
    """Whether ``°C`` or ``°F`` stands there."""
    sign, letter = cursor.tokens[at : at + 2]
    return letter.text in ("C", "F", "R") and letter.span.start == sign.span.end


WORDS_TOO = frozenset({"in", "C", "P"})
"""Symbols that stand between two values for something else: ``45 in deg``, ``5 C 2``."""


def _means_another(cursor: Cursor) -> bool:
    behind = cursor.tokens[cursor.at + 1]
    if _is_converted(cursor, cursor.at):
        return False  # 25 C in F, 12 in to cm
    return cursor.token.text in WORDS_TOO and (
        behind.kind == tk.NUMBER
        or (behind.kind == tk.NAME and not _is_unit(cursor, cursor.at + 1))
        or behind.text in ANGLES_OF_SHEETS
    )


def read_unit(cursor: Cursor) -> Unit:
    """The unit at hand, which is passed.

    Errors: :class:`LineError` where it is not clear, or beyond the limits.
    """
    return _read_on(cursor, cursor.token.span, list(_factor(cursor)), is_below=False)


def sees_divisor(cursor: Cursor) -> bool:
    """Whether a bar is at hand with a unit below it, with brackets or without."""
    return cursor.sees("/") and (_is_unit(cursor, cursor.at + 1) or _is_group(cursor))


def read_divisor(cursor: Cursor) -> Unit:
    """The unit that begins with the bar at hand, as the ``/s`` of ``5 /s``, which is passed.

    Errors: as :func:`read_unit`.
    """
    start = cursor.next().span
    if cursor.takes("("):
        parts = _inverse(read_unit(cursor).parts)
        cursor.takes(")")
    else:
        parts = _inverse(_factor(cursor))
    return _read_on(cursor, start, list(parts), is_below=True)


def _read_on(cursor: Cursor, start: Span, parts: list[Part], is_below: bool) -> Unit:
    """The unit of which ``parts`` were read, to its end."""
    while True:
        if len(parts) > MOST_PARTS:
            raise ENDLESS_UNIT(start.to(cursor.previous.span), limit=MOST_PARTS)
        if cursor.sees("/") and _is_unit(cursor, cursor.at + 1):
            cursor.at += 1
            _refuse_metre_kelvin(cursor)
            parts += _inverse(_factor(cursor))
            is_below = True
        elif cursor.sees("/") and _is_group(cursor):
            cursor.at += 2
            parts += _inverse(read_unit(cursor).parts)
            cursor.at += 1
        elif _is_times(cursor) or _is_unit(cursor, cursor.at):
            if is_below:
                raise _unclear(cursor, start, parts)
            cursor.at += cursor.sees("*")
            parts += _factor(cursor)
        else:
            if len(parts) == 1:
                _refuse_glued(cursor, start.to(cursor.previous.span))
            return Unit(_merged(parts))


def _merged(parts: list[Part]) -> tuple[Part, ...]:
    """With a symbol that stands twice above the bar, or below it, as its power: ``m/s/s``."""
    powers: dict[tuple[Atom, bool], fmpq] = {}
    for atom, power in parts:
        key = atom, power > 0
        powers[key] = powers.get(key, fmpq(0)) + power
    return tuple((atom, power) for (atom, _), power in powers.items())


def _refuse_metre_kelvin(cursor: Cursor) -> None:
    """``0.035 W/mK``.

    Errors: :class:`LineError` where mK stands below the bar.
    """
    if cursor.token.text == "mK" and cursor.reads_anew:
        mends = tuple(replace(cursor.token.span, one) for one in ("(m K)", "millikelvin"))
        raise METRE_KELVIN(cursor.token.span, mends)


def _refuse_glued(cursor: Cursor, place: Span) -> None:
    """``5 s-1``, of one symbol: a power or a difference.

    Errors: :class:`LineError` where it is so typed after a number.
    """
    symbol, sign, figure = cursor.typed(place).partition("-")
    if not sign or "^" in symbol or cursor.text[: place.start].rstrip().endswith("as"):
        return
    mends = tuple(replace(place, f"{symbol}{between}{figure}") for between in ("^-", " - "))
    raise POWER_OR_DIFFERENCE(place, mends)


def _inverse(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    return tuple((atom, -power) for atom, power in parts)


def _is_times(cursor: Cursor) -> bool:
    """Whether a unit follows that is multiplied with no space: ``N*m``."""
    if not cursor.sees("*"):
        return False
    sign, behind = cursor.token.span, cursor.tokens[cursor.at + 1].span
    is_close = cursor.previous.span.end == sign.start and sign.end == behind.start
    return is_close and _is_unit(cursor, cursor.at + 1)


def _is_group(cursor: Cursor) -> bool:
    """Whether brackets with nothing but a unit in them stand after the sign at hand."""
    at = cursor.at + 1
    if cursor.tokens[at].text != "(" or not _is_unit(cursor, at + 1):
        return False
    depth, signs = 0, {"*", "/", "^", "-", "°", "(", ")"}
    while True:
        token = cursor.tokens[at]
        depth += (token.text == "(") - (token.text == ")")
        if depth == 0:
            return True
        is_part = token.kind in (tk.POWER, tk.NUMBER) or (
            token.kind == tk.NAME and (_is_unit(cursor, at) or token.text in ("C", "F", "R"))
        )
        if not (is_part or token.text in signs):
            return False
        at += 1


def _unclear(cursor: Cursor, start: Span, parts: list[Part]) -> LineError:
    """``J/kg K``: whether the K is above the bar or below it."""
    read = Unit(tuple(parts))
    cursor.at += cursor.sees("*")
    [(atom, power), *_] = _factor(cursor)
    place = start.to(cursor.previous.span)
    above = Unit((*(part for part in parts if part[1] > 0), (atom, power),
                  *(part for part in parts if part[1] < 0)))  # fmt: skip
    mends = tuple(
        replace(place, unit.text) for unit in (Unit((*read.parts, (atom, -power))), above)
    )
    return UNIT_BELOW(place, mends, unit=atom.symbol + power_text(power))


def _factor(cursor: Cursor) -> tuple[Part, ...]:
    token = cursor.next()
    name = token.text
    if name == "°":
        name += cursor.next().text
    atom = atom_of(name)
    assert atom is not None
    return ((atom, _power(cursor, atom)),)


def _power(cursor: Cursor, atom: Atom) -> fmpq:
    """The power after a symbol, 1 where there is none."""
    start = cursor.token.span
    if cursor.token.kind == tk.POWER:
        power = fmpq(int(cursor.next().text))
    elif cursor.sees("^"):
        cursor.at += 1
        power = _number(cursor, atom)
    elif _has_glued_power(cursor, cursor.at):
        power = _signed(cursor, atom)
    else:
        return fmpq(1)
    place = start.to(cursor.previous.span)
    if not power or abs(power.p) > MOST_POWER or power.q > MOST_POWER:
        raise POWER_OF_UNIT(place, unit=atom.symbol, limit=MOST_POWER)
    return power


def _has_glued_power(cursor: Cursor, at: int) -> bool:
    """Whether ``-1`` stands there with no space between, as in ``J mol-1 K-1``; not before a unit
    of its own: ``5 m-2 m`` is a difference."""
    if cursor.tokens[at].text != "-":
        return False
    before, sign, figure = cursor.tokens[at - 1 : at + 2]
    behind = cursor.tokens[min(at + 2, len(cursor.tokens) - 1)]
    is_glued = before.span.end == sign.span.start and sign.span.end == figure.span.start
    if not is_glued or len(figure.text) != 1 or figure.text not in "123456789":
        return False
    if behind.kind == tk.NAME and atom_of(behind.text) is not None:
        return _has_glued_power(cursor, at + 3)
    return behind.kind in (tk.END, tk.OP) and behind.text not in ("(", "^")


def _number(cursor: Cursor, atom: Atom) -> fmpq:
    """``2``, ``-1``, ``(1/2)``."""
    if not cursor.takes("("):
        return _signed(cursor, atom)
    above, below = _signed(cursor, atom), fmpq(1)
    if cursor.takes("/"):
        below = _signed(cursor, atom)
    if not cursor.takes(")") or not below:
        raise POWER_OF_UNIT(cursor.previous.span, unit=atom.symbol, limit=MOST_POWER)
    return above / below


def _signed(cursor: Cursor, atom: Atom) -> fmpq:
    sign = -1 if cursor.takes("-") else 1
    token: Token = cursor.token
    if token.kind != tk.NUMBER or len(token.text) > len("0.") + MOST_PARTS:
        raise POWER_OF_UNIT(token.span, unit=atom.symbol, limit=MOST_POWER)
    cursor.at += 1
    return sign * literal_value(token.text, token.span)[1]


@lru_cache(1024)
def unit_from(text: str) -> Unit | None:
    """The unit that a text is; None where it is none.

    >>> unit_from("J/(kg K)").text, unit_from("5 m")
    ('J/(kg K)', None)
    """
    try:
        cursor = Cursor(text, tokens_of(text), (), (), False)
        if not _is_unit(cursor, 0):
            return None
        unit = read_unit(cursor)
    except LineError:
        return None
    return unit if cursor.token.kind == tk.END else None


@lru_cache(1024)
def unit_as_written(text: str) -> Unit | None:
    """The unit that a text is, also as people write it above a column; None where it is none.

    >>> [unit_as_written(text).text for text in ("g/cm3", "1/s", "sq km", "miles per hour")]
    ['g/cm^3', 's^-1', 'km^2', 'mi/h']
    """
    unit = unit_from(text)
    if unit is not None:
        return unit
    typed = "1 " + (text[1:] if text.startswith("1/") else text)
    try:
        cursor = Cursor(typed, in_signs(tokens_of(typed), (), set()), (), (), False)
        cursor.at = 1
        if sees_divisor(cursor):
            unit = read_divisor(cursor)
        elif _is_unit(cursor, 1):
            unit = read_unit(cursor)
    except LineError:
        return None
    return unit if cursor.token.kind == tk.END else None


def unit_of(text: str) -> Unit:
    """The unit that a text is of which it is known that it is one."""
    unit = unit_from(text)
    assert unit is not None, text
    return unit


def names_in(text: str) -> frozenset[str]:
    """All names in a line, its note apart."""
    try:
        tokens = tokens_of(split_note(text)[0])
    except LineError:
        return frozenset()
    return frozenset(one.text for one in tokens if one.kind == tk.NAME)
