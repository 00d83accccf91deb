"""Text to tokens.  Signs that people paste are understood here, once."""

from __future__ import annotations

import re
import unicodedata
from typing import NamedTuple

from flint import fmpq, fmpz

from engine.errors import (
    ApostropheHere,
    BadFigure,
    BadSuperscript,
    Braces,
    ColonHere,
    ControlCharacter,
    ExponentTooLarge,
    LineError,
    NoDigits,
    OtherRange,
    Question,
    Sixty,
    TooLong,
    TwoPoints,
    UnknownSign,
)
from engine.limits import MAX_DIGITS, MAX_LINE
from engine.mends import Mend, Span, replace, replace_each
from engine.numbers.angles import SHEET_UNITS

NUMBER, FRACTION, SEXAGESIMAL, NAME, OP, ANSWER, POWER, TEXT, END = (
    "number", "fraction", "sexagesimal", "name", "op", "answer", "power", "text", "end",
)  # fmt: skip


class Token(NamedTuple):
    """``text`` is the token in plain signs, whatever was pasted."""

    kind: str
    text: str
    span: Span


PASTED = str.maketrans(
    {
        "−": "-", "–": "-", "—": "-", "×": "*", "·": "*", "⋅": "*", "∙": "*", "÷": "/", "∕": "/",
        "⁄": "/", "“": '"', "”": '"', "„": '"', "«": '"', "»": '"', "‘": "'", "’": "'",
        "•": "*", "∗": "*", "✕": "*", "✖": "*", "º": "°", "˚": "°", "\t": " ", "\n": " ", "\r": " ",
    }
)  # fmt: skip
"""Signs with the meaning of a plain one, each a single character for a single
character, so that places in the text stay what they are."""

BOX = "□"
"""Stands for what is still missing, in the reading of an unfinished line."""

NAMED_SIGNS = {"π": "pi", "∞": "infinity", BOX: BOX}
OPERATOR_SIGNS = {"≤": "<=", "≥": ">=", "≠": "!=", "≈": "~", "≔": ":="}
RAISED = "⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻"
SUPERSCRIPTS = dict(zip(RAISED, "0123456789+-", strict=True))

NO_LETTERS = RAISED + "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
"""Signs that count as letters elsewhere, and are figures here."""

UNIT_WORDS = frozenset(SHEET_UNITS)
"""Units of angles, as they stand behind a number."""

CONSTANT_NAMES = frozenset({"pi", "e", "i", "j", "infinity", "inf", "eps"})
"""Names with a value that is a number: beside another name they are multiplied with it."""

RESERVED = frozenset({"true", "false", "if"}) | UNIT_WORDS
"""Names that no quantity can have."""

UNIT_SIGNS = frozenset({"°", "′", "″"})

WORDS = frozenset({"as", "and", "or", "not", "mod", "div", "by"})
"""Words of the language; none of them can be the name of a quantity."""

_BASES = {"b": 2, "o": 8, "x": 16}
_SEXAGESIMAL = (
    r"(?<![0-9])(?P<degrees>[0-9]+)\s*°\s*(?P<minutes>[0-9]+(?:\.[0-9]+)?)\s*['′]"
    r"(?:\s*(?P<seconds>[0-9]+(?:\.[0-9]+)?)\s*(?:[\"″]|''|′′))?"
)
"""Degrees and minutes, and seconds behind them: ``12°30′15″``."""

_SECONDS_SIGN = re.compile(_SEXAGESIMAL)
_TOKEN = re.compile(
    rf"(?P<sexagesimal>{_SEXAGESIMAL})"
    r"|(?P<number>0[bB][01_]+|0[oO][0-7_]+|0[xX][0-9a-fA-F_]+"
    r"|(?:[0-9](?:_?[0-9])*(?:\.(?!\.)(?:[0-9](?:_?[0-9])*)?)?|\.[0-9](?:_?[0-9])*)"
    r"(?:[eE][+-]?[0-9]+)?)"
    rf"|(?P<name>[^\W\d_π{NO_LETTERS}][^\Wπ{NO_LETTERS}]*)"
    r"|(?P<op>\*\*|:=|==|!=|<=|>=|\.\.|//|[-+*/^%!=<>~(),;|√∛∜∠.\[\]°′″])"
    r"|(?P<answer>@[0-9]*)"
    r'|(?P<text>"[^"]*"?)'
)
_BY_COLONS = re.compile(r"(\d+):(\d+)(?::(\d+(?:\.\d+)?))?")
_SPACE = re.compile(r"\s*")


def plain(text: str) -> str:
    """``text`` with full-width forms and pasted signs replaced, at the same length.

    No-break and other spaces become spaces.  Marks that only steer the direction
    or joining of text are nothing to be read, and become spaces too.
    """
    out = text.translate(PASTED)
    if out.isascii():
        return out
    return "".join(map(_plain_character, out))


def _plain_character(character: str) -> str:
    if character < "\x80" or character in SUPERSCRIPTS:
        return character
    if character in NO_LETTERS:
        return character
    if unicodedata.category(character) in ("Zs", "Cf"):
        return " "
    folded = unicodedata.normalize("NFKC", character)
    is_form_of_ascii = len(folded) == 1 and folded < "\x80"
    return folded if is_form_of_ascii else character


def may_use_answer(text: str) -> bool:
    """Whether a line may name an answer: one without an ``@`` does not."""
    return "@" in plain(text)


def split_note(text: str) -> tuple[str, str]:
    """The line before its note, and the note's text without ``#``."""
    in_quotes = False
    # the sign of seconds is no quotation mark
    source = plain(text)
    if "°" in source:
        source = _SECONDS_SIGN.sub(lambda found: "0" * len(found.group()), source)
    for place, character in enumerate(source):
        if character == '"':
            in_quotes = not in_quotes
        elif character == "#" and not in_quotes:
            return text[:place], text[place + 1 :].strip()
    return text, ""


def tokens_of(text: str) -> list[Token]:
    """The tokens of ``text``, a line without its note, an END token last.

    Errors: :class:`LineError` where a sign is none of the language, a number is
    larger than the limit, or the text is longer than the limit.
    """
    if len(text) > MAX_LINE:
        raise TooLong(length=len(text), limit=MAX_LINE)
    source = plain(text)
    tokens: list[Token] = []
    at = 0
    while (at := _SPACE.match(source, at).end()) < len(source):
        token = _token_at(source, at)
        tokens.append(token)
        at = token.span.end
    tokens.append(Token(END, "", Span(at, at)))
    return tokens


def _token_at(source: str, at: int) -> Token:
    character = source[at]
    if character in NAMED_SIGNS:
        return Token(NAME, NAMED_SIGNS[character], Span(at, at + 1))
    found = _TOKEN.match(source, at)
    if found:
        return _checked(_kind_of(found), found, source)
    if character in OPERATOR_SIGNS:
        return Token(OP, OPERATOR_SIGNS[character], Span(at, at + 1))
    if character in SUPERSCRIPTS:
        return _superscript(source, at)
    if _parts_of_fraction(character) is not None:
        return Token(FRACTION, character, Span(at, at + 1))
    raise _unknown_sign(source, at)


def _parts_of_fraction(character: str) -> tuple[str, str] | None:
    """The two numbers of ½ and its like."""
    above, slash, below = unicodedata.normalize("NFKC", character).partition("⁄")
    return (above, below) if slash and above.isdecimal() and below.isdecimal() else None


def fraction_value(token: Token) -> tuple[str, str]:
    """What stands above and below the bar of a token such as ½."""
    return _parts_of_fraction(token.text) or ("0", "1")


def _kind_of(found: re.Match[str]) -> str:
    return SEXAGESIMAL if found.group(SEXAGESIMAL) else found.lastgroup


def _checked(kind: str, found: re.Match[str], source: str) -> Token:
    span = Span(found.start(), found.end())
    text = found.group()
    if kind == NAME and text in WORDS:
        return Token(OP, text, span)
    if text == ".." and source[span.end : span.end + 1] == ".":
        raise OtherRange(span)
    if kind == NUMBER and text[:1] == "0":
        _refuse_figures(text, span, source)
    if kind == NAME and not text.isascii():
        # one spelling for a letter that can be coded in two ways,
        text = unicodedata.normalize("NFC", text)
    behind = source[span.end : span.end + 2]
    if kind == NUMBER and behind[:1] == "." and behind != ".." and "." in text:
        raise TwoPoints(Span(span.start, span.end + 1))
    return Token(kind, text, span)


FIGURES = {
    "b": "a binary number has the figures 0 and 1",
    "o": "an octal number has the figures 0 to 7",
    "x": "a hexadecimal number has the figures 0 to 9 and A to F",
}


def _refuse_figures(text: str, span: Span, source: str) -> None:
    """Errors: :class:`LineError` where a number such as 0b102 goes on with what is no
    figure of its base."""
    at = span.end
    base = text[1:2].lower() if len(text) > 1 else source[at : at + 1].lower()
    if len(text) == 1 and source[at + 1 : at + 2].isalnum():
        at += 1  # 0o9 has no figures at all
    figures, behind = FIGURES.get(base), source[at : at + 1]
    if figures is None or (at == span.end and len(text) == 1):
        return
    if not (behind.isalnum() and behind.isascii()):
        return
    place = Span(at, at + 1)
    raise BadFigure(place, behind=behind, figures=figures)


def _superscript(source: str, at: int) -> Token:
    end = at
    while end < len(source) and source[end] in SUPERSCRIPTS:
        end += 1
    digits = "".join(SUPERSCRIPTS[sign] for sign in source[at:end])
    if not re.fullmatch(r"[+-]?[0-9]+", digits):
        raise BadSuperscript(Span(at, end))
    if source[end : end + 1] == "√":
        return Token(OP, f"{digits}√", Span(at, end + 1))
    return Token(POWER, digits, Span(at, end))


def _unknown_sign(source: str, at: int) -> LineError:
    character = source[at]
    span = Span(at, at + 1)
    if unicodedata.category(character) == "Cc":
        return ControlCharacter(span, (_without(span),), code_point=ord(character))
    if character == "?":
        return Question(span, _asked(source, at))
    if character == "'":
        return ApostropheHere(span, (_without(span),))
    if character in "{}":
        mends = tuple(replace_each(source, _for_braces(source, pair)) for pair in ("()", "[]"))
        return Braces(span, mends)
    if character == ":":
        return _colon(source, at)
    return UnknownSign(span, (_without(span),), character=character)


def _colon(source: str, at: int) -> LineError:
    """``12:30:15``, which may be an angle with its minutes and seconds."""
    span = Span(at, at + 1)
    for found in _BY_COLONS.finditer(source):
        if found.start() <= at < found.end():
            degrees, minutes, seconds = found.groups()
            angle = f"{degrees}°{minutes}′" + (f"{seconds}″" if seconds else "")
            return ColonHere(span, (replace(Span(*found.span()), angle),))
    return ColonHere(span, (_without(span),))


def _for_braces(source: str, pair: str) -> list[tuple[Span, str]]:
    places = enumerate(source)
    return [(Span(n, n + 1), pair["{}".index(c)]) for n, c in places if c in "{}"]


def _asked(source: str, at: int) -> tuple[Mend, ...]:
    """``x = 2 ?`` is a comparison; a question mark behind anything else just goes."""
    if source[at + 1 :].strip():
        return ()
    single = re.findall(r"(?<![=<>!:])=(?!=)", source)
    if not single:
        return (_without(Span(at, at + 1)),)
    compared = re.sub(r"(?<![=<>!:])=(?!=)", "==", source[:at]).rstrip()
    return (replace(Span(0, at + 1), compared),)


def _without(span: Span) -> Mend:
    return Mend("remove it", span, "")


def sexagesimal_value(text: str, span: Span) -> tuple[str, fmpq]:
    """A sexagesimal token as it is written, ``12°30′15″``, and its degrees.

    Errors: :class:`LineError` where minutes or seconds go up to 60 or more.
    """
    found = _SECONDS_SIGN.fullmatch(text)
    degrees, minutes, seconds = (found.group(name) for name in ("degrees", "minutes", "seconds"))
    values = [literal_value(part, span)[1] for part in (degrees, minutes, seconds or "0")]
    if values[1] >= 60 or values[2] >= 60:
        raise Sixty(span)
    shown = f"{degrees}°{minutes}′" + (f"{seconds}″" if seconds else "")
    return shown, values[0] + values[1] / 60 + values[2] / 3600


def literal_value(text: str, span: Span) -> tuple[str, fmpq]:
    """A number token's text without underscores, and its exact value.

    Errors: :class:`LineError` where it has more digits than the limit.
    """
    digits = text.replace("_", "").lower() if text[:1] == "0" else text.replace("_", "")
    base = _BASES.get(digits[1:2].lower()) if digits[:1] == "0" else None
    if base:
        if len(digits) == 2:
            raise NoDigits(span, digits=digits)
        prefix, figures = digits[:2].lower(), digits[2:].upper()
        return prefix + figures, fmpq(int(figures, base))
    mantissa, _, exponent = digits.lower().partition("e")
    whole, _, fraction = mantissa.partition(".")
    power = int(exponent or 0)
    if abs(power) > MAX_DIGITS:
        raise ExponentTooLarge(span, power=power, limit=MAX_DIGITS)
    value = fmpq(fmpz((whole + fraction) or "0"))
    shift = power - len(fraction)
    value = value * fmpq(fmpz(10) ** shift) if shift >= 0 else value / fmpq(fmpz(10) ** -shift)
    text = (whole or "0") + ("." + fraction if fraction else "")
    return (f"{text}e{power}" if exponent else text), value
