"""What the parser says of input that it cannot read, and the mends it offers.

Each function looks at the parser where it stands and returns the error.
"""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from engine.errors import (
    AngleGoesOn,
    AngleWithPower,
    Arrow,
    ConditionNeedsNoIf,
    InverseOrReciprocal,
    LetterForTimes,
    LineError,
    ListCommas,
    ListInRoundBrackets,
    MissingBetween,
    MissingOperand,
    NoBrackets,
    OtherQuotient,
    OtherRemainder,
    PartOf,
    PercentAsForm,
    SemicolonInBrackets,
    SideBySide,
    SpeltOutUnit,
    SquareBrackets,
    StrayEquals,
    TwoFactorials,
    UnclosedBar,
    Unexpected,
    Unfinished,
    UnitOfMeasure,
    UnopenedBracket,
    UnopenedList,
    WordHere,
    WordIsNoFunction,
)
from engine.forms.names import is_form
from engine.mends import Mend, Span, at_the_end, replace, replace_each
from engine.reading import tokens as tk
from engine.reading.tokens import Token
from engine.reading.tree import Binary, Literal, Name, Node
from engine.reading.wordings import form_word

if TYPE_CHECKING:
    from engine.reading.parser import Parser


UNITS_SPELT_OUT = {
    "degree": "deg", "degrees": "deg", "radian": "rad", "radians": "rad", "rads": "rad",
    "grad": "gon", "grads": "gon", "gons": "gon", "turns": "turn", "rev": "turn", "degs": "deg",
}  # fmt: skip
"""Words that people write behind a number for a unit of angles."""


def describe_gap(sign: str) -> str:
    return f"a value behind {sign}" if sign else "an expression"


CALLED = {"mod": "remainder", "div": "quotient"}
"""Words between two values, and the functions that do the same."""

CLOSING = {"(": ")", "[": "]", "|": "|"}


def waiting(parser: Parser, what: str) -> Unfinished:
    """The line ends too early: what it waits for, open brackets included."""
    end = parser.token.span
    closing = "".join(CLOSING[bracket.text] for bracket in reversed(parser.brackets))
    if what:
        return Unfinished(f"{what[0].upper()}{what[1:]} is missing.", end)
    if len(closing) == 1:
        text = f"The closing {closing} is missing."
    else:
        text = f"{len(closing)} closing brackets are missing: {closing}"
    return Unfinished(text, end, closing)


def unexpected(parser: Parser) -> LineError:
    token = parser.token
    remove = (Mend("remove it", token.span, ""),)
    if token.text == ";" and any(one.text != "|" for one in parser.brackets):
        return _semicolon_in_brackets(parser)
    if token.text == ">" and parser.at and parser.previous.text == "-":
        return _arrow(parser)
    if token.text == ")" and not parser.brackets:
        open_at = Mend("open one at the start", Span(0, 0), "(")
        return UnopenedBracket(token.span, (*remove, open_at))
    if token.text == "]":
        round_one = (replace(token.span, ")"),) if parser.brackets else ()
        return UnopenedList(token.span, (*round_one, *remove))
    if token.text == "," and parser.brackets and parser.brackets[-1].text == "(":
        return _list_in_round_brackets(parser)
    if not parser.at and token.text in ("*", "/", "^"):
        start = Span(token.span.start, token.span.start)
        return MissingOperand(token.span, (replace(start, "@"), *remove), typed=token.text)
    if token.text == "[":
        return SquareBrackets(token.span)
    if token.text == "=":
        return StrayEquals(token.span, (replace(token.span, "=="),))
    if parser.at and parser.previous.kind == tk.OP and token.kind == tk.OP:
        return MissingBetween(token.span, remove, previous=parser.previous.text, typed=token.text)
    if token.text in CALLED and parser.tokens[parser.at + 1].text == "(":
        name = CALLED[token.text]
        return WordIsNoFunction(
            token.span, (replace(token.span, name),), typed=token.text, name=name
        )
    if token.text in tk.WORDS:
        return WordHere(token.span, typed=token.text)
    return Unexpected(token.span, remove, typed=token.text)


def _list_in_round_brackets(parser: Parser) -> LineError:
    """``(1, 2)``: a list has square brackets."""
    opening = parser.brackets[-1]
    end = next((one for one in parser.tokens[parser.at :] if one.text == ")"), None)
    mends: tuple[Mend, ...] = ()
    if end is not None:
        whole = opening.span.to(end.span)
        inside = parser.text[opening.span.end : end.span.start]
        mends = (replace(whole, f"[{inside}]"),)
    return ListInRoundBrackets(parser.token.span, mends)


def _semicolon_in_brackets(parser: Parser) -> LineError:
    """``max(1; 2)``: inside brackets commas stand between."""
    opening = next(one for one in parser.brackets if one.text != "|")
    depth, places = 0, []
    for token in parser.tokens[parser.tokens.index(opening) :]:
        depth += (token.text in ("(", "[")) - (token.text in (")", "]"))
        if not depth:
            break
        if token.text == ";":
            places.append((token.span, ","))
    mend = replace_each(parser.text, places)
    return SemicolonInBrackets(parser.token.span, (mend,))


def _arrow(parser: Parser) -> LineError:
    """``f = x -> x^2``: a function has its arguments behind its name; and ``45° -> rad``."""
    span = parser.previous.span.to(parser.token.span)
    if is_form((parser.tokens[parser.at + 1].text,)):
        return form_word("->", span)
    before = parser.tokens[: parser.at - 1]
    mends: tuple[Mend, ...] = ()
    if [token.kind for token in before] == [tk.NAME, tk.OP, tk.NAME] and before[1].text == "=":
        name, _, argument = before
        made = f"{name.text}({argument.text}) ="
        mends = (replace(name.span.to(parser.token.span), made),)
    return Arrow(span, mends)


def percent_as_form(parser: Parser) -> LineError:
    """``1/3 as %``."""
    span = parser.token.span
    return PercentAsForm(span, (replace(span, "percent"),))


def part_of(parser: Parser) -> LineError:
    """``12% of 80``: the part is multiplied."""
    span = parser.token.span
    return PartOf(span, (replace(span, "*"),))


def other_language(parser: Parser, typed: str, meant: str) -> LineError:
    span = parser.token.span
    mend = replace(span, _spaced(parser.text, span, meant))
    return (OtherRemainder if meant == "mod" else OtherQuotient)(span, (mend,))


def side_by_side(parser: Parser) -> LineError:
    """Two operands with nothing between: what may be meant, as mends."""
    before, behind = parser.previous, parser.token
    gap = Span(before.span.end, behind.span.start)
    both = Span(before.span.start, behind.span.end)
    if before.text == "if" and before.text not in parser.quantities:
        without = Span(before.span.start, behind.span.start)
        return ConditionNeedsNoIf(before.span, (replace(without, ""),))
    if before.kind == tk.NAME and before.text in parser.functions:
        return call_without_brackets(parser, before)
    if before.text in ("x", "X") and before.text not in parser.quantities and parser.at >= 2:
        return letter_for_times(parser, before)
    first, second = (parser.text[t.span.start : t.span.end] for t in (before, behind))
    if before.text == "°" and second in ("C", "F"):
        return unit_of_measure(parser, Span(before.span.start, behind.span.end), f"°{second}")
    mends: list[Mend] = []
    are_known = first in parser.quantities and second in parser.quantities
    if before.kind == behind.kind == tk.NAME and (are_known or first not in tk.UNIT_WORDS):
        mends.append(replace(gap, "*"))
    if before.text in tk.UNIT_WORDS:
        mends.append(replace(gap, " + "))
    elif before.kind == tk.NAME and behind.kind in (tk.NAME, tk.NUMBER) and "." not in second:
        mends.append(replace(both, f"{first}_{second}"))
    if before.kind == tk.NUMBER and behind.kind == tk.NUMBER:
        mends += _spaced_groups(parser)
        mends.append(replace(both, f"{first} + {second}"))
    if not mends or mends[0].replacement != "*":
        mends.append(replace(gap, "*"))
    if before.text in parser.quantities and behind.kind in (tk.NUMBER, tk.NAME):
        mends.append(replace(both, f"{first}({second})"))  # if it is a function
    return SideBySide(both, tuple(mends), first=first, second=second)


def unclosed_bar(parser: Parser, opening: Token) -> LineError:
    """``|-3; 2``: the bar that closes is missing."""
    place = Span(parser.previous.span.end, parser.previous.span.end)
    return UnclosedBar(opening.span, (replace(place, "|"),), typed=parser.token.text)


def two_factorials(parser: Parser, node: Node) -> LineError:
    """``5!!``: the factorial of a factorial, or the product of every second number."""
    start = parser.across(node, node).start
    whole = Span(start, parser.token.span.end)
    typed = parser.text[start : parser.previous.span.start]
    mends = [replace(whole, f"({typed}!)!")]
    if isinstance(node, Literal) and node.text.isdecimal() and 2 < int(node.text) <= MOST_FACTORS:
        product = "*".join(map(str, range(int(node.text), 0, -2)))
        mends.append(replace(whole, f"({product})" if start or parser.tokens[parser.at + 1].text
                             else product))  # fmt: skip
    return TwoFactorials(whole, tuple(mends), typed=typed)


MOST_FACTORS = 21
"""The largest n whose n!! is written out as a product."""


def refuse_square_call(parser: Parser, name: Name) -> None:
    """``max[1, 2]``.  Errors: :class:`LineError` that puts round brackets."""
    depth, end = 1, parser.at
    while depth and parser.tokens[end].kind != tk.END:
        depth += (parser.tokens[end].text == "[") - (parser.tokens[end].text == "]")
        end += 1
    if depth:
        return
    whole = Span(name.span.start, parser.tokens[end - 1].span.end)
    inside = parser.text[parser.previous.span.end : whole.end - 1].strip()
    mends = tuple(replace(whole, f"{name.name}({one})") for one in (inside, f"[{inside}]"))
    raise NoBrackets(whole, mends, function=name.name)


def arguments_without_commas(parser: Parser) -> tuple[Mend, ...]:
    """``mean(1 2 3)``: commas between, as arguments or as one list."""
    opening, end = parser.brackets[-1], parser.at
    while parser.tokens[end].text != ")":
        if parser.tokens[end].kind not in (tk.NUMBER, tk.NAME, tk.ANSWER):
            return ()
        end += 1
    place = Span(opening.span.end, parser.tokens[end].span.start)
    inside = ", ".join(parser.text[slice(*place)].split())
    return replace(place, inside), replace(place, f"[{inside}]")


def angle_goes_on(parser: Parser, phasor: Binary) -> LineError:
    """``5∠pi/6``: what is behind the angle may belong to it, or not."""
    at = parser.at
    try:
        parser.product_behind(phasor.right)
        end = parser.previous.span.end
    except LineError:
        end = parser.token.span.end
    angle = Span(phasor.right.span.start, end)
    typed, behind = (parser.text[slice(*span)] for span in (phasor.span, angle))
    rest = parser.text[phasor.span.end : end]
    mends = (
        replace(angle, f"({behind})"),
        replace(Span(phasor.span.start, end), f"({typed}){rest}"),
    )
    parser.at = at
    return AngleGoesOn(angle, mends)


def angle_with_power(parser: Parser, phasor: Binary, power: Binary) -> LineError:
    """``5∠30°^2``: the power of the phasor is meant, hardly that of its angle."""
    angle, base = phasor.right.span, power.left.span
    whole = Span(phasor.span.start, base.end)
    mends = (
        replace(whole, f"({parser.text[slice(*whole)]})"),
        replace(angle, f"({parser.text[slice(*angle)]})"),
    )
    return AngleWithPower(angle, mends)


def unit_of_measure(parser: Parser, unit: Span, name: str) -> LineError:
    """``20 °C``: until numbers have units of measurement, the note is the place for them."""
    mend = at_the_end(replace(unit, f"  # {name}"))
    return UnitOfMeasure(unit, (mend,), name=name)


def spelt_out(parser: Parser) -> LineError:
    """``30 degrees``: the unit has a shorter name."""
    unit = UNITS_SPELT_OUT[parser.token.text]
    return SpeltOutUnit(parser.token.span, (replace(parser.token.span, unit),), unit=unit)


def list_without_commas(parser: Parser, opening: Token) -> LineError:
    """``[1 2 3]``: the same with commas between."""
    end = parser.at
    while parser.tokens[end].kind != tk.END and parser.tokens[end].text != "]":
        end += 1
    inside = parser.text[opening.span.end : parser.tokens[end].span.start]
    place = Span(opening.span.end, parser.tokens[end].span.start)
    mended = ", ".join(inside.replace(",", " ").split())
    return ListCommas(place, (replace(place, mended),))


def _spaced_groups(parser: Parser) -> list[Mend]:
    """``1 000 000``: figures in groups of three are one number."""
    end = parser.at
    while re.fullmatch(r"[0-9]{3}(\.[0-9]+)?", parser.tokens[end].text):
        end += 1
    if end == parser.at:
        return []
    place = Span(parser.previous.span.start, parser.tokens[end - 1].span.end)
    return [replace(place, re.sub(r"\s", "", parser.text[slice(*place)]))]


def letter_for_times(parser: Parser, letter: Token) -> LineError:
    """``56 x 8``, where x is no quantity."""
    place = Span(parser.tokens[parser.at - 2].span.end, parser.token.span.start)
    return LetterForTimes(letter.span, (replace(place, "*"),), letter=letter.text)


def call_without_brackets(parser: Parser, name: Token) -> LineError:
    """``sin pi/2``: the two ways in which its brackets may be meant."""
    start = parser.token.span.start
    mends: list[Mend] = []
    for read in (parser.product, parser.power):
        at = parser.at
        try:
            read()
            end = parser.previous.span.end
        except LineError:
            end = 0
        parser.at = at
        if end and not any(mend.span.end == end for mend in mends):
            for function in ("ln", "lg") if name.text == "log" else (name.text,):
                called = f"{function}({parser.text[start:end]})"
                mends.append(replace(Span(name.span.start, end), called))
    mends[:0] = _with_all_behind(parser, name, mends)
    span = Span(name.span.start, parser.token.span.end)
    return NoBrackets(span, tuple(mends), function=name.text)


def _with_all_behind(parser: Parser, name: Token, mends: list[Mend]) -> list[Mend]:
    """``max 3, 4``: what is behind the commas may be arguments too."""
    if not mends or parser.brackets:
        return []
    behind = parser.text[mends[0].span.end :]
    if not behind.lstrip().startswith(","):
        return []
    all_of_it = parser.text[parser.token.span.start :].split(";")[0].rstrip()
    end = parser.token.span.start + len(all_of_it)
    return [replace(Span(name.span.start, end), f"{name.text}({all_of_it})")]


def power_without_brackets(parser: Parser, name: Token, exponent: str) -> LineError:
    """``sin² 30°``: the argument gets its brackets, and the power stands behind them."""
    start = parser.token.span.start
    parser.power()
    inside = f"({parser.text[start : parser.previous.span.end]})"
    if exponent.startswith("-"):
        return inverse_or_reciprocal(parser, name, exponent[1:], inside)
    span = name.span.to(parser.previous.span)
    mend = replace(span, f"{name.text}{inside}^{exponent}")
    return NoBrackets(span, (mend,), function=name.text)


def inverse_or_reciprocal(parser: Parser, name: Token, exponent: str, inside: str) -> LineError:
    """``sin^-1(x)``; ``inside`` are its brackets with what is in them."""
    whole = name.span.to(parser.previous.span)
    mends: list[Mend] = []
    for inverse in (f"arc{name.text}", f"ar{name.text}"):
        if exponent == "1" and inverse in parser.functions:
            mends.append(replace(whole, inverse + inside))
    power = "" if exponent == "1" else f"^{exponent}"
    mends.append(replace(whole, f"1/{name.text}{inside}{power}"))
    return InverseOrReciprocal(whole, tuple(mends), name=name.text, exponent=exponent)


def _spaced(text: str, span: Span, word: str) -> str:
    """``word`` with spaces where it would touch a neighbour at ``span``."""
    left = "" if text[: span.start].endswith(" ") else " "
    right = "" if text[span.end :].startswith(" ") else " "
    return left + word + right
