"""The names before ``=`` or ``:=``, and the mends for what cannot be a name."""

from __future__ import annotations

import re
from collections.abc import Sequence

from teapot.engine.diagnostics.calculus_on_paper import unknown_in
from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Span, replace, replace_each
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.tree import Assignment, Name, Statement
from teapot.engine.reading.vocabulary import RESERVED, UNIT_WORDS, WORDS, half_name
from teapot.engine.sentences.names import (
    BAD_NAME,
    BAD_PARAMETERS,
    BAD_TARGET,
    EQUATION,
    ITEM_TARGET,
    NO_TARGET,
    PARAMETER_TWICE,
    TWO_ASSIGNMENTS,
)
from teapot.engine.sentences.unreadable import CONDITION_WITH_ONE_EQUALS

Targets = tuple[tuple[Name, ...], bool, tuple[str, ...] | None]

NO_TARGETS: Targets = ((), False, None)
"""Those of a statement that gives no name its value."""


def read_targets(cursor: Cursor) -> Targets:
    """The targets of the assignment that begins here, whether it is live, and the
    parameters where a function is defined.

    No targets where the statement is no assignment.  Errors: :class:`LineError` where
    something that cannot be a name stands before the sign.
    """
    targets: list[Name] = []
    while True:
        sign = _assignment_sign(cursor)
        if sign is None:
            return tuple(targets), False, None
        before = cursor.tokens[cursor.at : sign]
        _refuse_half(cursor, before)
        if not targets and _is_pattern(before):
            name, parameters = _pattern(cursor.text, before)
            cursor.at = sign + 1
            return (name,), cursor.previous.text == ":=", parameters
        if not _is_name(before):
            if targets and before and before[-1].kind == tk.NAME and len(before) > 1:
                _refuse_second_assignment(cursor, before)
            raise _bad_target(cursor, before, cursor.tokens[sign])
        targets.append(Name(before[0].span, before[0].text))
        cursor.at = sign + 1
        if cursor.previous.text == ":=":
            return tuple(targets), True, None


def _refuse_half(cursor: Cursor, before: list[Token]) -> None:
    """``t½``, ``t1/2`` and ``t_(1/2)``, as a half-life is printed.

    Errors: :class:`LineError` where such a thing is given a value.
    """
    if len(before) < 2:
        return
    span = before[0].span.to(before[-1].span)
    typed = cursor.typed(span)
    found = HALF.fullmatch(typed)
    if found is None or before[0].text in cursor.quantities:
        return
    name = half_name(found[1])
    free = () if name in cursor.quantities else (replace(span, name),)
    raise BAD_NAME(span, free, typed=typed, why="½ is a number")


def refuse_names_at_once(cursor: Cursor, statements: Sequence[Statement]) -> None:
    """``a, b = 3, 4``, which would show a, set b to 3 and show 4.

    Errors: :class:`LineError` where as many names stand before the sign as values after it.
    """
    at = next((at for at, one in enumerate(statements) if isinstance(one, Assignment)), 0)
    if not at or len(statements) != 2 * at + 1 or ";" in cursor.text:
        return
    names, assignment, values = statements[:at], statements[at], statements[at + 1 :]
    are_names = all(isinstance(one.expression, Name) for one in names)
    if not are_names or any(isinstance(one, Assignment) for one in values):
        return
    assert isinstance(assignment, Assignment)
    targets = [*(one.span for one in names), assignment.targets[0].span]
    given = [assignment.body, *(one.span for one in values)]
    sign = ":=" if assignment.live else "="
    pairs = zip(map(cursor.typed, targets), map(cursor.typed, given), strict=True)
    made = "; ".join(f"{name} {sign} {value}" for name, value in pairs)
    place = statements[0].span.to(statements[-1].span)
    raise TWO_ASSIGNMENTS(place, (replace(place, made),))


HALF = re.compile(r"([^\W\d_]+)_?(?:½|1/2|[({]1/2[)}])")
"""A letter with a half as its index."""


def _assignment_sign(cursor: Cursor) -> int | None:
    """Where the next ``=`` or ``:=`` of this statement stands, outside brackets."""
    depth = 0
    for at in range(cursor.at, len(cursor.tokens)):
        token = cursor.tokens[at]
        if token.kind == tk.OP:
            depth += (token.text in ("(", "[")) - (token.text in (")", "]"))
            if depth == 0 and token.text in (";", ","):
                return None
            if depth == 0 and token.text in ("=", ":="):
                return None if _only_asks(cursor, at) else at
    return None


def _only_asks(cursor: Cursor, at: int) -> bool:
    """Whether the ``=`` at ``at`` is that of a pasted ``2 + 3 =``."""
    tokens, before = cursor.tokens, cursor.tokens[cursor.at : at]
    known = (cursor.functions, cursor.quantities)
    if _is_pattern(before) and not any(before[0].text in names for names in known):
        return False  # f(x) = still lacks its value
    behind = tokens[at + 1]
    ends = behind.kind == tk.END or behind.text in (";", ",")
    is_calculation = at >= 2 and any(
        token.kind == tk.OP and token.text not in WORDS for token in tokens[:at]
    )
    return ends and is_calculation


def _is_name(tokens: list[Token]) -> bool:
    return len(tokens) == 1 and tokens[0].kind == tk.NAME and tokens[0].text not in RESERVED


def _is_pattern(tokens: list[Token]) -> bool:
    """Whether these are ``f(x, y)``, or were meant to be."""
    return (
        len(tokens) >= 3
        and tokens[0].kind == tk.NAME
        and tokens[1].text == "("
        and tokens[-1].text == ")"
        and not any(token.text in "()" and token.kind == tk.OP for token in tokens[2:-1])
    )


def _pattern(text: str, tokens: list[Token]) -> tuple[Name, tuple[str, ...]]:
    """The name and the parameters of ``f(x, y)``.

    Errors: :class:`LineError` where a parameter is no name, or stands there twice.
    """
    inside = tokens[2:-1]
    names = inside[::2]
    commas = inside[1::2]
    span = Span(tokens[0].span.start, tokens[-1].span.end)
    typed = text[span.start : span.end]
    well = all(token.kind == tk.NAME for token in names) and all(c.text == "," for c in commas)
    if not well or (inside and len(inside) % 2 == 0):
        raise BAD_PARAMETERS(span, typed=typed)
    words = tuple(token.text for token in names)
    for place, word in enumerate(words):
        if word in words[:place]:
            raise PARAMETER_TWICE(names[place].span, word=word)
    return Name(tokens[0].span, tokens[0].text), words


def _bad_target(cursor: Cursor, before: list[Token], sign: Token) -> LineError:
    text = cursor.text
    if not before:
        return NO_TARGET(sign.span, sign=sign.text)
    if before[0].text == "if" and len(before) > 1:
        condition = text[before[1].span.start : sign.span.start] + "==" + text[sign.span.end :]
        whole = Span(before[0].span.start, len(text))
        return CONDITION_WITH_ONE_EQUALS(before[0].span, (replace(whole, condition),))
    span = Span(before[0].span.start, before[-1].span.end)
    typed = text[span.start : span.end]
    mended = _mended_name(before) if not _has_minus(cursor, before) else ""
    if mended and (_is_product(cursor, before) or _are_products(cursor, before, sign)):
        return EQUATION(span, (replace(sign.span, "=="),) if sign.text == "=" else ())
    if mended:
        free = () if mended in cursor.quantities else (replace(span, mended),)
        return BAD_NAME(span, free, typed=typed, why=_why(before))
    is_name_behind = text[sign.span.end :].strip().isidentifier()
    if len(before) == 1 and before[0].kind == tk.NUMBER and is_name_behind:
        return BAD_TARGET(span, _turned_round(text, before[0], sign))
    equal = (replace(sign.span, "=="),) if sign.text == "=" else ()
    if _is_item(before):
        return ITEM_TARGET(span, equal, name=before[0].text)
    return EQUATION(span, (*_solved(cursor, before, sign), *equal))


USUAL_UNKNOWNS = frozenset("xyz")


def _solved(cursor: Cursor, before: list[Token], sign: Token) -> tuple[Mend, ...]:
    """The call that solves an equation for its only unknown."""
    after = cursor.tokens[cursor.tokens.index(sign) + 1 :]
    if sign.text != "=" or any(token.text in (";", ",", "=") for token in after):
        return ()
    start, end = before[0].span.start, after[-1].span.end
    left, right = cursor.text[start : sign.span.start].strip(), cursor.text[sign.span.end : end]
    both = f"{left} {right}"
    name = unknown_in(both, cursor.functions, cursor.quantities)
    if name is None and unknown_in(both, cursor.functions) in USUAL_UNKNOWNS:
        name = unknown_in(both, cursor.functions)  # which may have a value
    if name is None or not right.strip():
        return ()
    return (replace(Span(start, end), f"solve({left} == {right.strip()}, {name})"),)


def _is_product(cursor: Cursor, before: list[Token]) -> bool:
    """Whether these are the left side of ``p V = n R T``: factors that all have values."""
    first, *names = before
    values = all(one.kind == tk.NAME and one.text in cursor.quantities for one in names)
    is_number = first.kind == tk.NUMBER
    return bool(names) and values and (is_number or first.text in cursor.quantities)


def _has_minus(cursor: Cursor, before: list[Token]) -> bool:
    """Whether a sign stands between spaces, as in ``m - M``, and no hyphen."""
    return any(
        cursor.text[one.span.start - 1] == " " == cursor.text[one.span.end]
        for one in before[1:]
        if one.text in ("-", "−")
    )


LONGEST_FACTOR = 3
"""Letters of a name that is rather a symbol than a word."""


def _are_products(cursor: Cursor, before: list[Token], sign: Token) -> bool:
    """Whether symbols side by side stand on both sides, as in ``C1 V1 = C2 V2``."""
    after = [one for one in cursor.tokens[cursor.tokens.index(sign) + 1 :] if one.text]
    return all(
        len(side) > 1
        and all(one.kind == tk.NAME and len(one.text) <= LONGEST_FACTOR for one in side)
        for side in (before, after)
    )


def _refuse_second_assignment(cursor: Cursor, before: list[Token]) -> None:
    """``a=5 b=6``.

    Errors: :class:`LineError` where a value ends before a name; the mend parts them all.
    """
    if not _ends_value(before[-2]):
        return
    gaps = [
        Span(value.span.end, name.span.start)
        for value, name, sign in zip(
            cursor.tokens, cursor.tokens[1:], cursor.tokens[2:], strict=False
        )
        if name.kind == tk.NAME and sign.text in ("=", ":=") and _ends_value(value)
    ]
    mend = replace_each(cursor.text, [(gap, "; ") for gap in gaps])
    raise TWO_ASSIGNMENTS(before[-1].span, (mend,))


def _ends_value(token: Token) -> bool:
    return token.kind == tk.NUMBER or token.text in (")", "]", "%")


def _is_item(before: list[Token]) -> bool:
    """Whether these are ``w[2]``."""
    has_name = len(before) > 3 and before[0].kind == tk.NAME
    return has_name and before[1].text == "[" and before[-1].text == "]"


def _turned_round(text: str, number: Token, sign: Token) -> tuple[Mend, ...]:
    """``5 = x``."""
    behind = text[sign.span.end :].strip()
    whole = Span(number.span.start, len(text.rstrip()))
    return (replace(whole, f"{behind} = {number.text}"),)


def _why(before: list[Token]) -> str:
    if before[0].kind == tk.NUMBER:
        return "a name begins with a letter"
    if before[0].text in WORDS:
        return "it is a word of the language"
    if before[0].text in UNIT_WORDS:
        return "it is a unit of angles"
    if before[0].text in RESERVED:
        return "it is a word of the language"
    return "a name has only letters, digits and _"


def _mended_name(before: list[Token]) -> str:
    kinds = [token.kind for token in before]
    words = [token.text for token in before]
    if len(words) == 1 and words[0] in WORDS | RESERVED:
        return words[0] + "_"
    is_close = len(before) == 2 and before[0].span.end == before[1].span.start
    is_product = is_close and words[1] in USUAL_UNKNOWNS and words[0] != "1"  # 2x = 6
    if is_close and not is_product and kinds == [tk.NUMBER, tk.NAME] and words[0].isdecimal():
        return words[1] + words[0]
    joined = [word for word in words if word not in (".", "-")]
    if kinds[0] == tk.NAME and all(word.isidentifier() or word.isdecimal() for word in joined):
        return "_".join(joined)
    return ""
