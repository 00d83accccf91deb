"""What is said of input that cannot be read, and the mends that are offered.

Each function looks at the cursor where it stands and returns the error.  What may be
meant stands in tables of patterns, each with an example, which is its test.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.functions.physics import ALSO as CALLED_ALSO
from teapot.engine.mends import Mend, Span, replace, replace_each
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.cursor import Cursor
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.tree import Binary, Literal, Measured, Name, Node
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, UNIT_WORDS, WORDS, half_name
from teapot.engine.sentences.forms import PERCENT_AS_FORM
from teapot.engine.sentences.names import SYMBOL_OF_CONSTANT
from teapot.engine.sentences.units import (
    INCH_OR_WORD,
    MEASURES_SIDE_BY_SIDE,
    NUMBER_IN_UNIT,
    QUANTITY_IN_UNIT,
    UNIT_OF_DIVISOR,
)
from teapot.engine.sentences.unreadable import (
    ANGLE_GOES_ON,
    ANGLE_WITH_POWER,
    ARROW,
    CONDITION_NEEDS_NO_IF,
    EMPTY_BRACKETS,
    INVERSE_OR_RECIPROCAL,
    LETTER_FOR_TIMES,
    LIST_COMMAS,
    LIST_IN_ROUND_BRACKETS,
    MISSING_BETWEEN,
    MISSING_OPERAND,
    NO_BRACKETS,
    OTHER_QUOTIENT,
    OTHER_REMAINDER,
    PART_OF,
    SEMICOLON_IN_BRACKETS,
    SIDE_BY_SIDE,
    SQUARE_BRACKETS,
    STRAY_EQUALS,
    TWO_FACTORIALS,
    UNCLOSED_BAR,
    UNEXPECTED,
    UNOPENED_BRACKET,
    UNOPENED_LIST,
    VALUE_MISSING,
    VALUES_MISSING,
    WORD_HERE,
    WORD_IS_NO_FUNCTION,
)
from teapot.engine.units.listed import is_listed
from teapot.engine.units.table import NUMBER, PLAIN, atom_of
from teapot.engine.units.unit import Unit

CALLED = {"mod": "remainder", "div": "quotient"}
"""Words between two values, and the functions that do the same."""


@dataclass(frozen=True, slots=True)
class Pattern:
    """What a cursor ``sees`` in a line such as the ``example``, and the error for it."""

    example: str
    sees: Callable[[Cursor], bool]
    error: Callable[[Cursor], LineError]


def _first(patterns: tuple[Pattern, ...], cursor: Cursor) -> LineError:
    """The error of the first pattern that is seen; the last one always is."""
    return next(pattern for pattern in patterns if pattern.sees(cursor)).error(cursor)


# -- a token that does not belong here ---------------------------------------------------


def unexpected(cursor: Cursor) -> LineError:
    """The error for a token that cannot stand where it does."""
    return _first(UNEXPECTED_TOKENS, cursor)


def _sees(*signs: str) -> Callable[[Cursor], bool]:
    return lambda cursor: cursor.token.text in signs


def _remove(cursor: Cursor) -> Mend:
    return Mend("remove it", cursor.token.span, "")


def _removes(cursor: Cursor) -> tuple[Mend, ...]:
    """The mend that removes the token at hand; none where its neighbours would run together, or
    a quantity would get another value."""
    start, end = cursor.token.span
    joins = cursor.text[:start][-1:].isalnum() and cursor.text[end : end + 1].isalnum()
    assigns = re.match(r"\s*:?=(?!=)", cursor.text[end:]) is not None
    return () if joins or assigns or cursor.token.text == "∠" else (_remove(cursor),)


def _unopened_bracket(cursor: Cursor) -> LineError:
    open_at = Mend("open one at the start", Span(0, 0), "(")
    return UNOPENED_BRACKET(cursor.token.span, (*_removes(cursor), open_at))


def _unopened_list(cursor: Cursor) -> LineError:
    round_one = (replace(cursor.token.span, ")"),) if cursor.brackets else ()
    return UNOPENED_LIST(cursor.token.span, (*round_one, *_removes(cursor)))


def _nothing_before(cursor: Cursor) -> LineError:
    span = cursor.token.span
    if cursor.token.text == "∠":
        unit_size = replace(Span(span.start, span.start), "1")
        return MISSING_OPERAND(span, (unit_size,), typed=cursor.token.text)
    last_answer = replace(Span(span.start, span.start), "@")
    return MISSING_OPERAND(span, (last_answer, _remove(cursor)), typed=cursor.token.text)


def _nothing_between(cursor: Cursor) -> LineError:
    previous, token = cursor.previous, cursor.token
    mends = _removes(cursor)
    if (previous.text, token.text) in (("(", ")"), ("[", "]"), ("|", "|")):
        return EMPTY_BRACKETS(previous.span.to(token.span), mends)
    return MISSING_BETWEEN(token.span, mends, previous=previous.text, typed=token.text)


def _word_as_function(cursor: Cursor) -> LineError:
    token = cursor.token
    name = CALLED[token.text]
    return WORD_IS_NO_FUNCTION(
        token.span, (replace(token.span, name),), typed=token.text, name=name
    )


def _has_operators_beside(cursor: Cursor) -> bool:
    return bool(cursor.at) and cursor.previous.kind == cursor.token.kind == tk.OP


def _list_in_round_brackets(cursor: Cursor) -> LineError:
    """``(1, 2)``: a list has square brackets."""
    opening = cursor.brackets[-1]
    end = next((one for one in cursor.tokens[cursor.at :] if one.text == ")"), None)
    mends: tuple[Mend, ...] = ()
    if end is not None:
        whole = opening.span.to(end.span)
        inside = cursor.text[opening.span.end : end.span.start]
        mends = (replace(whole, f"[{inside}]"),)
    return LIST_IN_ROUND_BRACKETS(cursor.token.span, mends)


def _semicolon_in_brackets(cursor: Cursor) -> LineError:
    """``max(1; 2)``: inside brackets commas stand between."""
    opening = next(one for one in cursor.brackets if one.text != "|")
    depth, places = 0, []
    for token in cursor.tokens[cursor.tokens.index(opening) :]:
        depth += (token.text in ("(", "[")) - (token.text in (")", "]"))
        if not depth:
            break
        if token.text == ";":
            places.append((token.span, ","))
    mend = replace_each(cursor.text, places)
    return SEMICOLON_IN_BRACKETS(cursor.token.span, (mend,))


def _arrow(cursor: Cursor) -> LineError:
    """``f = x -> x^2``: a function has its arguments after its name."""
    span = cursor.previous.span.to(cursor.token.span)
    before = cursor.tokens[: cursor.at - 1]
    mends: tuple[Mend, ...] = ()
    if [token.kind for token in before] == [tk.NAME, tk.OP, tk.NAME] and before[1].text == "=":
        name, _, argument = before
        made = f"{name.text}({argument.text}) ="
        mends = (replace(name.span.to(cursor.token.span), made),)
    return ARROW(span, mends)


UNEXPECTED_TOKENS = (
    Pattern(
        "max(1; 2)",
        lambda c: c.token.text == ";" and any(one.text != "|" for one in c.brackets),
        _semicolon_in_brackets,
    ),
    Pattern(
        "f = x -> x^2",
        lambda c: c.token.text == ">" and bool(c.at) and c.previous.text == "-",
        _arrow,
    ),
    Pattern("2)", lambda c: c.token.text == ")" and not c.brackets, _unopened_bracket),
    Pattern("2]", _sees("]"), _unopened_list),
    Pattern(
        "(1, 2)",
        lambda c: c.token.text == "," and bool(c.brackets) and c.brackets[-1].text == "(",
        _list_in_round_brackets,
    ),
    Pattern("* 2", lambda c: not c.at and c.token.text in ("*", "/", "^", "∠"), _nothing_before),
    Pattern("2[3]", _sees("["), lambda c: SQUARE_BRACKETS(c.token.span)),
    Pattern(
        "2 + (x = 3)",
        _sees("="),
        lambda c: STRAY_EQUALS(c.token.span, (replace(c.token.span, "=="),)),
    ),
    Pattern("2 + * 3", _has_operators_beside, _nothing_between),
    Pattern(
        "mod(31, 9)",
        lambda c: c.token.text in CALLED and c.tokens[c.at + 1].text == "(",
        _word_as_function,
    ),
    Pattern(
        "2 by 3",
        lambda c: c.token.text in WORDS,
        lambda c: WORD_HERE(c.token.span, typed=c.token.text),
    ),
    Pattern(
        "[1, 2)",
        lambda c: True,
        lambda c: UNEXPECTED(c.token.span, _removes(c), typed=c.token.text),
    ),
)
"""What a token may be that does not belong where it stands, the first that fits."""


def percent_as_form(cursor: Cursor) -> LineError:
    """``1/3 as %``."""
    span = cursor.token.span
    return PERCENT_AS_FORM(span, (replace(span, "percent"),))


def part_of(cursor: Cursor) -> LineError:
    """``12% of 80``: the part is multiplied."""
    span = cursor.token.span
    return PART_OF(span, (replace(span, "*"),))


def other_language(cursor: Cursor, meant: str) -> LineError:
    """``31 % 9`` and ``31 // 9``: the word that is meant."""
    span = cursor.token.span
    mend = replace(span, _spaced(cursor.text, span, meant))
    return (OTHER_REMAINDER if meant == "mod" else OTHER_QUOTIENT)(span, (mend,))


# -- two operands with nothing between --------------------------------------------------


def is_call_without_brackets(cursor: Cursor) -> bool:
    """Whether the operand before is the name of a function: ``sin pi/2``."""
    before = cursor.previous
    is_name = before.kind == tk.NAME and before.text != "if"
    return is_name and before.text in cursor.functions and before.text not in cursor.quantities


def side_by_side(cursor: Cursor) -> LineError:
    """Two operands with nothing between, neither of them a function's name."""
    return _first(ADJACENT_OPERANDS, cursor)


def _is_unknown(cursor: Cursor, *words: str) -> bool:
    return cursor.previous.text in words and cursor.previous.text not in cursor.quantities


def _condition(cursor: Cursor) -> LineError:
    """``if x == 2``."""
    without = Span(cursor.previous.span.start, cursor.token.span.start)
    return CONDITION_NEEDS_NO_IF(cursor.previous.span, (replace(without, ""),))


SURELY = frozenset("RgG")
"""Letters of constants that hardly stand for anything else in a formula."""


def _surely_of_constant(name: str) -> str | None:
    """The constant that a name without a value is the symbol of."""
    return CALLED_ALSO.get(name) if len(name) > 1 or name in SURELY else None


def _operator_missing(cursor: Cursor) -> LineError:
    """``tea mass``: what may be meant, as mends."""
    before, behind = cursor.previous, cursor.token
    gap = Span(before.span.end, behind.span.start)
    both = before.span.to(behind.span)
    constant = _surely_of_constant(behind.text)
    if constant is not None and behind.text not in cursor.quantities:
        mend = _with_constant(cursor, behind, constant)
        return SYMBOL_OF_CONSTANT(behind.span, (mend,), name=behind.text, constant=constant)
    first, second = cursor.typed(before.span), cursor.typed(behind.span)
    if second == "½" and half_name(first) in cursor.quantities:
        mend = replace(both, half_name(first))
        return SIDE_BY_SIDE(both, (mend,), first=first, second=second)
    constant = _surely_of_constant(before.text)
    if constant is not None and before.text not in cursor.quantities:
        mend = _with_constant(cursor, before, constant)
        return SYMBOL_OF_CONSTANT(before.span, (mend,), name=before.text, constant=constant)
    mends: list[Mend] = []
    of_both = [CALLED_ALSO.get(one) for one in (first, second) if one not in cursor.quantities]
    if len(of_both) == 2 and all(of_both):  # h c
        product = "*".join(f'constant("{constant}")' for constant in of_both)
        mends.append(replace(both, product))
    are_known = first in cursor.quantities and second in cursor.quantities
    if before.kind == behind.kind == tk.NAME and (are_known or first not in UNIT_WORDS):
        mends.append(replace(gap, "*"))
    if before.text in UNIT_WORDS:
        mends.append(replace(gap, " + "))
    elif before.kind == tk.NAME and behind.kind in (tk.NAME, tk.NUMBER) and "." not in second:
        if behind.kind == tk.NUMBER and first in cursor.quantities:
            mends.append(replace(gap, "*"))  # x 2258
        mends.append(replace(both, f"{first}_{second}"))
    if before.kind == tk.NUMBER and behind.kind == tk.NUMBER:
        mends += _one_over_unit(cursor)
        is_below_root = cursor.at > 1 and cursor.tokens[cursor.at - 2].text.endswith("√")
        mends += [replace(gap, "*")] if is_below_root else _spaced_groups(cursor)
        mends.append(replace(both, f"{first} + {second}"))
    if all(mend.replacement != "*" for mend in mends):
        mends.append(replace(gap, "*"))
    if before.text in cursor.quantities and behind.kind in (tk.NUMBER, tk.NAME):
        mends.append(replace(both, f"{first}({second})"))  # if it is a function
    return _nothing_beside(cursor, mends, first, second)


def _nothing_beside(cursor: Cursor, mends: list[Mend], first: str, second: str) -> LineError:
    """The error for two operands, by which of them has a value."""
    before, behind = cursor.previous, cursor.token
    unknown = [one for one in (before, behind) if _has_no_value(cursor, one)]
    if before.kind != tk.NAME or not unknown or behind.kind != tk.NAME:
        return SIDE_BY_SIDE(before.span.to(behind.span), tuple(mends), first=first, second=second)
    if len(unknown) == 2:
        return VALUES_MISSING(before.span.to(behind.span), tuple(mends), first=first, second=second)
    name = unknown[0].text
    is_only = [token.text for token in cursor.tokens].count(name) == 1  # else hardly a constant
    if name in CALLED_ALSO and is_only:
        mends.insert(0, _with_constant(cursor, unknown[0], CALLED_ALSO[name]))
    return VALUE_MISSING(unknown[0].span, tuple(mends), name=name)


def _with_constant(cursor: Cursor, letter: Token, constant: str) -> Mend:
    """The mend that multiplies the operand beside a letter by the constant that it stands for."""
    before, behind = cursor.previous, cursor.token
    if letter is behind:
        return replace(Span(before.span.end, behind.span.end), f'*constant("{constant}")')
    return replace(Span(before.span.start, behind.span.start), f'constant("{constant}")*')


def _has_no_value(cursor: Cursor, token: Token) -> bool:
    names = (cursor.quantities, cursor.functions, CONSTANT_NAMES, UNIT_WORDS, WORDS)
    return not any(token.text in known for known in names)


def _one_over_unit(cursor: Cursor) -> list[Mend]:
    """``1500 1/min``."""
    at = cursor.at
    one, bar, unit = (*cursor.tokens[at : at + 3], *cursor.tokens[-1:] * 2)[:3]
    if one.text != "1" or bar.text != "/" or unit.kind != tk.NAME or atom_of(unit.text) is None:
        return []
    return [replace(one.span.to(unit.span), f"{unit.text}^-1")]


ADJACENT_OPERANDS = (
    Pattern("if x == 2", lambda c: _is_unknown(c, "if"), _condition),
    Pattern(
        "56 x 8",
        lambda c: _is_unknown(c, "x", "X") and c.at >= 2,
        lambda c: letter_for_times(c, c.previous),
    ),
    Pattern("tea mass", lambda c: True, _operator_missing),
)
"""What two operands side by side may be, the first that fits."""


def unclosed_bar(cursor: Cursor, opening: Token) -> LineError:
    """``|-3; 2``: the bar that closes is missing."""
    place = Span(cursor.previous.span.end, cursor.previous.span.end)
    return UNCLOSED_BAR(opening.span, (replace(place, "|"),), typed=cursor.token.text)


def two_factorials(cursor: Cursor, node: Node) -> LineError:
    """``5!!``: the factorial of a factorial, or the product of every second number."""
    start = cursor.across(node, node).start
    whole = Span(start, cursor.token.span.end)
    typed = cursor.text[start : cursor.previous.span.start]
    mends = [replace(whole, f"({typed}!)!")]
    if isinstance(node, Literal) and node.text.isdecimal() and 2 < int(node.text) <= MOST_FACTORS:
        product = "*".join(map(str, range(int(node.text), 0, -2)))
        mends.append(replace(whole, f"({product})" if start or cursor.tokens[cursor.at + 1].text
                             else product))  # fmt: skip
    return TWO_FACTORIALS(whole, tuple(mends), typed=typed)


MOST_FACTORS = 21
"""The largest n whose n!! is written out as a product."""


def refuse_square_call(cursor: Cursor, name: Name) -> None:
    """``max[1, 2]``.  Errors: :class:`LineError` that puts round brackets."""
    depth, end = 1, cursor.at
    while depth and cursor.tokens[end].kind != tk.END:
        depth += (cursor.tokens[end].text == "[") - (cursor.tokens[end].text == "]")
        end += 1
    if depth:
        return
    whole = Span(name.span.start, cursor.tokens[end - 1].span.end)
    inside = cursor.text[cursor.previous.span.end : whole.end - 1].strip()
    mends = tuple(replace(whole, f"{name.name}({one})") for one in (inside, f"[{inside}]"))
    raise NO_BRACKETS(whole, mends, function=name.name)


def arguments_without_commas(cursor: Cursor) -> tuple[Mend, ...]:
    """``mean(1 2 3)``: commas between, as arguments or as one list."""
    opening, end = cursor.brackets[-1], cursor.at
    while cursor.tokens[end].text != ")":
        if cursor.tokens[end].kind not in (tk.NUMBER, tk.NAME, tk.ANSWER):
            return ()
        end += 1
    place = Span(opening.span.end, cursor.tokens[end].span.start)
    inside = ", ".join(cursor.text[slice(*place)].split())
    return replace(place, inside), replace(place, f"[{inside}]")


def angle_goes_on(cursor: Cursor, phasor: Binary, end: int) -> LineError:
    """``5∠pi/6``: what is after the angle, up to ``end``, may belong to it, or not."""
    angle = Span(phasor.right.span.start, end)
    typed, behind = cursor.typed(phasor.span), cursor.typed(angle)
    rest = cursor.text[phasor.span.end : end]
    mends = (
        replace(angle, f"({behind})"),
        replace(Span(phasor.span.start, end), f"({typed}){rest}"),
    )
    return ANGLE_GOES_ON(angle, mends)


def angle_with_power(cursor: Cursor, phasor: Binary, power: Binary) -> LineError:
    """``5∠30°^2``: the power of the phasor is meant, hardly that of its angle."""
    angle, base = phasor.right.span, power.left.span
    whole = Span(phasor.span.start, base.end)
    mends = (
        replace(whole, f"({cursor.text[slice(*whole)]})"),
        replace(angle, f"({cursor.text[slice(*angle)]})"),
    )
    return ANGLE_WITH_POWER(angle, mends)


def refuse_beside_measure(cursor: Cursor) -> None:
    """``12 h 5 min`` and ``3 kg m``, where m is a quantity.

    Errors: :class:`LineError` that says what may be meant.
    """
    before, behind = cursor.previous, cursor.token
    if behind.kind == tk.NUMBER:
        gap = Span(before.span.end, behind.span.start)
        if before.kind == tk.POWER:  # 15 m² 20 K
            before = cursor.tokens[cursor.at - 2]
        both = before, cursor.tokens[cursor.at + 1]
        units = [atom_of(one.text) if one.text else None for one in both]
        kinds = {unit.dimension if unit is not None else None for unit in units}
        if len(kinds) > 1:  # 1.6 kΩ 100 nF
            first, second = cursor.typed(before.span), cursor.typed(behind.span)
            raise SIDE_BY_SIDE(behind.span, (replace(gap, "*"),), first=first, second=second)
        raise MEASURES_SIDE_BY_SIDE(behind.span, (_added(cursor) or replace(gap, " + "),))
    atom = atom_of(behind.text) if behind.kind == tk.NAME else None
    if atom is not None and behind.text in cursor.quantities:
        gap = Span(before.span.end, behind.span.start)
        mends = (replace(behind.span, atom.names[0]), replace(gap, "*"))
        raise QUANTITY_IN_UNIT(behind.span, mends, name=behind.text, full=atom.names[0])


def _added(cursor: Cursor) -> Mend | None:
    """The mend that adds ``23 h 56 min 4 s``, a unit whose symbol a quantity has by its name; None
    where the measures are not so simple."""
    tokens, first, last = cursor.tokens, cursor.at, cursor.at
    while first >= 2 and _is_measure(tokens[first - 2 : first]):
        first -= 2
    while _is_measure(tokens[last : last + 2]):
        last += 2
    if first == cursor.at or last == cursor.at:
        return None
    parts = []
    for number, unit in zip(tokens[first:last:2], tokens[first + 1 : last : 2], strict=True):
        atom = atom_of(unit.text)
        assert atom is not None
        spelt = atom.names[0] if unit.text in cursor.quantities else unit.text
        parts.append(f"{number.text} {spelt}")
    return replace(tokens[first].span.to(tokens[last - 1].span), " + ".join(parts))


def _is_measure(pair: Sequence[Token]) -> bool:
    """Whether it is a number with the symbol of a unit."""
    kinds = [token.kind for token in pair]
    return kinds == [tk.NUMBER, tk.NAME] and atom_of(pair[1].text) is not None


def refuse_number_in_unit(cursor: Cursor) -> None:
    """``as L/(100 km)``.

    Errors: :class:`LineError` where a number stands below the bar of a unit that is asked for.
    """
    bar, *behind = (
        token for token in cursor.tokens[cursor.at : cursor.at + 4] if token.text != "("
    )
    if bar.text != "/" or len(behind) < 2 or behind[0].kind != tk.NUMBER:
        return
    number, unit = behind[:2]
    if unit.kind == tk.NAME and atom_of(unit.text) is not None:
        mend = replace(Span(number.span.start, unit.span.start), "")
        raise NUMBER_IN_UNIT(number.span, (mend,), number=number.text)


def refuse_unit_of_divisor(cursor: Cursor, below: Node) -> None:
    """``10 J/2 kg/K``: whether what follows the last bar belongs to the unit of the 2.

    Errors: :class:`LineError` where that would be no unit of anything.
    """
    if not isinstance(below, Measured) or id(below) in cursor.outer:
        return
    unit, typed = below.unit, cursor.typed(below.unit_span)
    is_customary = is_listed(unit.dimension) and unit.dimension != NUMBER
    if "/" not in typed or is_customary or not isinstance(below.number, Literal):
        return
    flat = Unit(tuple((atom, abs(power)) for atom, power in unit.parts))
    number = cursor.typed(below.number.span)
    mends = tuple(replace(below.span, f"({number} {one})") for one in (flat.text, typed))
    raise UNIT_OF_DIVISOR(below.unit_span, mends, unit=typed)


def refuse_inch(cursor: Cursor, number: Node, word: Token, unit: tuple[str, ...]) -> None:
    """``5 in cm``, where ``in`` may be the inch or stand for ``as``.

    Errors: :class:`LineError` where what stands before is a number, and the unit a length.
    """
    atom = atom_of(unit[0])
    if not isinstance(number, Literal) or atom is None or atom.dimension != INCH.dimension:
        return
    place = word.span.to(cursor.previous.span)
    mends = (replace(place, f"inch as {unit[0]}"), replace(place, unit[0]))
    raise INCH_OR_WORD(word.span, mends, number=number.text, unit=unit[0])


INCH = PLAIN["in"]


def list_without_commas(cursor: Cursor, opening: Token) -> LineError:
    """``[1 2 3]``: the same with commas between."""
    end = cursor.at
    while cursor.tokens[end].kind != tk.END and cursor.tokens[end].text != "]":
        end += 1
    inside = cursor.text[opening.span.end : cursor.tokens[end].span.start]
    place = Span(opening.span.end, cursor.tokens[end].span.start)
    rows = (", ".join(row.replace(",", " ").split()) for row in inside.split(";"))
    mended = "; ".join(rows)
    return LIST_COMMAS(place, (replace(place, mended),))


def _spaced_groups(cursor: Cursor) -> list[Mend]:
    """``1 000 000``: figures in groups of three are one number."""
    end = cursor.at
    while re.fullmatch(r"[0-9]{3}(\.[0-9]+)?", cursor.tokens[end].text):
        end += 1
    if end == cursor.at:
        return []
    place = Span(cursor.previous.span.start, cursor.tokens[end - 1].span.end)
    return [replace(place, re.sub(r"\s", "", cursor.text[slice(*place)]))]


def letter_for_times(cursor: Cursor, letter: Token) -> LineError:
    """``56 x 8``, where x is no quantity."""
    place = Span(cursor.tokens[cursor.at - 2].span.end, cursor.token.span.start)
    return LETTER_FOR_TIMES(letter.span, (replace(place, "*"),), letter=letter.text)


def call_without_brackets(cursor: Cursor, name: Token, ends: list[int]) -> LineError:
    """``sin pi/2``: the ways in which its brackets may be meant, up to one of ``ends``."""
    start = cursor.token.span.start
    mends: list[Mend] = []
    numbers = _numbers_behind(cursor)
    if len(numbers) > 1:
        place = name.span.to(numbers[-1].span)
        items = ", ".join(number.text for number in numbers)
        called = (
            f"{name.text}({items})" if name.text in ("min", "max") else f"{name.text}([{items}])"
        )
        return NO_BRACKETS(place, (replace(place, called),), function=name.text)
    for end in dict.fromkeys(filter(None, ends)):
        for function in ("ln", "lg") if name.text == "log" else (name.text,):
            called = f"{function}({cursor.text[start:end]})"
            mends.append(replace(Span(name.span.start, end), called))
    mends[:0] = _with_all_behind(cursor, name, mends)
    span = name.span.to(cursor.token.span)
    return NO_BRACKETS(span, tuple(mends), function=name.text)


def _numbers_behind(cursor: Cursor) -> list[Token]:
    """The numbers that follow each other with nothing between."""
    numbers = []
    for token in cursor.tokens[cursor.at :]:
        if token.kind == tk.NUMBER:
            numbers.append(token)
        elif token.text != "," or not numbers:
            break
    return numbers


def _with_all_behind(cursor: Cursor, name: Token, mends: list[Mend]) -> list[Mend]:
    """``max 3, 4``: what is after the commas may be arguments too."""
    if not mends or cursor.brackets:
        return []
    behind = cursor.text[mends[0].span.end :]
    if not behind.lstrip().startswith(","):
        return []
    all_of_it = cursor.text[cursor.token.span.start :].split(";")[0].rstrip()
    end = cursor.token.span.start + len(all_of_it)
    return [replace(Span(name.span.start, end), f"{name.text}({all_of_it})")]


def power_without_brackets(cursor: Cursor, name: Token, exponent: str, argument: Span) -> LineError:
    """``sin² 30°``: the argument gets its brackets, and the power stands after them."""
    inside = f"({cursor.typed(argument)})"
    if exponent.startswith("-"):
        return inverse_or_reciprocal(cursor, name, exponent[1:], inside)
    span = name.span.to(argument)
    mend = replace(span, f"{name.text}{inside}^{exponent}")
    return NO_BRACKETS(span, (mend,), function=name.text)


def inverse_or_reciprocal(cursor: Cursor, name: Token, exponent: str, inside: str) -> LineError:
    """``sin^-1(x)``; ``inside`` are its brackets with what is in them."""
    whole = name.span.to(cursor.previous.span)
    mends: list[Mend] = []
    for inverse in (f"arc{name.text}", f"ar{name.text}"):
        if exponent == "1" and inverse in cursor.functions:
            mends.append(replace(whole, inverse + inside))
    power = "" if exponent == "1" else f"^{exponent}"
    mends.append(replace(whole, f"1/{name.text}{inside}{power}"))
    return INVERSE_OR_RECIPROCAL(whole, tuple(mends), name=name.text, exponent=exponent)


def _spaced(text: str, span: Span, word: str) -> str:
    """``word`` with spaces where it would touch a neighbour at ``span``."""
    left = "" if text[: span.start].endswith(" ") else " "
    right = "" if text[span.end :].startswith(" ") else " "
    return left + word + right
