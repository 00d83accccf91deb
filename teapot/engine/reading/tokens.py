"""Text to tokens.  Signs that people paste are understood here, once.

A token knows its place in the whole text, also where a part of it is read by itself.
"""

from __future__ import annotations

import re
import unicodedata
from typing import NamedTuple

from teapot.engine.errors import LineError
from teapot.engine.limits import MAX_LINE
from teapot.engine.mends import Mend, Span, replace, replace_each
from teapot.engine.reading.literals import SEXAGESIMAL as SEXAGESIMAL_PATTERN
from teapot.engine.reading.literals import parts_of_fraction
from teapot.engine.reading.vocabulary import BOX, WORDS
from teapot.engine.sentences.signs import (
    APOSTROPHE_HERE,
    BAD_FIGURE,
    BAD_SUPERSCRIPT,
    BASE_BELOW,
    BASE_OR_GROUP,
    BRACES,
    COLON_HERE,
    CONTROL_CHARACTER,
    OTHER_RANGE,
    QUESTION,
    SIGN_HAS_WORD,
    TOO_LONG,
    TWO_POINTS,
    UNKNOWN_SIGN,
)

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

NAMED_SIGNS = {"π": "pi", "∞": "infinity", BOX: BOX, "℃": "°C", "℉": "°F"}
OPERATOR_SIGNS = {"≤": "<=", "≥": ">=", "≠": "!=", "≈": "~", "≔": ":=", "→": "→", "⟶": "→"}
MONEY = frozenset("€$£¥")
"""Units of money, after a number: before one they are only taken away."""

AFTER_NUMBER = re.compile(r"(?:[\d)\]/]|\b(?:as|in|to|into)|→)\s*\Z")
"""Where a unit of money stands."""

RAISED = "⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻"
SUPERSCRIPTS = dict(zip(RAISED, "0123456789+-", strict=True))

NO_LETTERS = RAISED + "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
"""Signs that count as letters elsewhere, and are figures here."""

MARKS = "\u0300-\u036f\u20d0-\u20f0"
"""Marks over a letter, as in V̇ and x̄: they belong to its name, and so does a final prime."""

OVERLINES = "\u0304\u0305"
"""Marks over a figure that repeats."""

_SECONDS_SIGN = re.compile(SEXAGESIMAL_PATTERN)
_TOKEN = re.compile(
    r"\s*(?:"
    rf"(?P<sexagesimal>{SEXAGESIMAL_PATTERN})"
    r"|(?P<number>0[bB][01_]+|0[oO][0-7_]+|0[xX][0-9a-fA-F_]+"
    r"|(?:[0-9](?:_?[0-9])*(?:\.(?!\.)(?:[0-9](?:_?[0-9])*)?)?|\.[0-9](?:_?[0-9])*)"
    r"(?:[eE][+-]?[0-9]+)?)"
    rf"|(?P<name>[^\W\d_π{NO_LETTERS}](?:[^\Wπ{NO_LETTERS}]|[{MARKS}])*(?:'(?![\w'(]))?)"
    r"|(?P<op>\*\*|\+/-|:=|==|!=|<=|>=|\.\.|//|[-+*/^%!=<>~(),;|√∛∜∠±.\[\]°′″])"
    r"|(?P<answer>@[0-9]*)"
    r'|(?P<text>"[^"]*"?)'
    r")"
)
"""A token with the space before it; signs that are not here are looked at one by one."""

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
    if "#" not in text and text.isascii():
        return text, ""
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


def tokens_of(text: str, start: int = 0, end: int | None = None) -> list[Token]:
    """The tokens of ``text``, a line without its note, an END token last; or those of the
    part of it from ``start`` to ``end``.

    Errors: :class:`LineError` where a sign is none of the language, a number is
    larger than the limit, or the text is longer than the limit.

    >>> [token.text for token in tokens_of("2·π")]
    ['2', '*', 'pi', '']
    """
    if len(text) > MAX_LINE:
        raise TOO_LONG(length=len(text), limit=MAX_LINE)
    source = plain(text)[:end]
    has_lowered = not text.isascii() and any(sign in LOWERED for sign in text)
    tokens: list[Token] = []
    at, match = start, _TOKEN.match
    while True:
        found = match(source, at)
        if found is not None:
            kind = found.lastgroup
            assert kind is not None
            sign, at = found[kind], found.end()
            if kind in SIMPLE and sign not in NEEDS_A_LOOK:
                span = Span(at - len(sign), at)
                tokens.append(Token(kind, sign, span))
                continue
            token = _checked(kind, found, source)
        else:
            space = _SPACE.match(source, at)
            at = space.end() if space is not None else at
            if at >= len(source):
                break
            token = _odd_token(source, at)
        if has_lowered and token.kind == NUMBER:
            _refuse_lowered(text, token.span)
        tokens.append(token)
        at = token.span.end
    tokens.append(Token(END, "", Span(at, at)))
    return tokens


SIMPLE = frozenset({OP, ANSWER, TEXT})
NEEDS_A_LOOK = frozenset({"..", "+/-"})
"""Tokens that are as they stand, whatever follows them; but for these."""


def _odd_token(source: str, at: int) -> Token:
    """The token that begins with a sign which only few lines have."""
    character = source[at]
    if character in NAMED_SIGNS:
        return Token(NAME, NAMED_SIGNS[character], Span(at, at + 1))
    if character in MONEY and AFTER_NUMBER.search(source, 0, at):
        return Token(NAME, character, Span(at, at + 1))
    if character in OPERATOR_SIGNS:
        return Token(OP, OPERATOR_SIGNS[character], Span(at, at + 1))
    if character in SUPERSCRIPTS:
        return _superscript(source, at)
    if character in OVERLINES and source[at - 1 : at].isdecimal():
        return Token(OP, character, Span(at, at + 1))
    if parts_of_fraction(character) is not None:
        return Token(FRACTION, character, Span(at, at + 1))
    raise _unknown_sign(source, at)


def _checked(kind: str, found: re.Match[str], source: str) -> Token:
    text = found.group(kind)
    start, end = found.span(kind)
    if kind == OP:
        text = "±" if text == "+/-" else text
        if text == ".." and source[end : end + 1] == ".":
            raise OTHER_RANGE(Span(start, end))
    elif kind == NUMBER:
        if "_" in text:
            _refuse_base(text, Span(start, end))
        if text[0] == "0":
            _refuse_figures(text, Span(start, end), source)
        if source[end : end + 1] == "." and "." in text and source[end : end + 2] != "..":
            raise TWO_POINTS(Span(start, end + 1))
    elif kind == NAME:
        if text in WORDS:
            kind = OP
        elif not text.isascii():
            text = unicodedata.normalize("NFC", text)  # a letter can be coded in two ways
    return Token(kind, text, Span(start, end))


LOWERED = "₀₁₂₃₄₅₆₇₈₉"
"""Figures below the line: after a letter they are an index."""

PREFIXES_OF_BASES = {"2": "0b", "8": "0o", "16": "0x"}


def _refuse_lowered(text: str, span: Span) -> None:
    """Errors: :class:`LineError` for 1010₂, a number with its base."""
    typed = text[slice(*span)]
    figures = typed.rstrip(LOWERED)
    if figures == typed:
        return
    base = unicodedata.normalize("NFKC", typed[len(figures) :])
    prefix = PREFIXES_OF_BASES.get(base)
    mends = (replace(span, prefix + figures),) if prefix else ()
    raise BASE_BELOW(span, mends, base=base)


WITH_BASE = re.compile(r"(?:[01]{2,}_2|[0-7]{2,}_8|\d{2,}_16)")
"""``1010_2``, which is a number in groups, too."""


def _refuse_base(text: str, span: Span) -> None:
    """Errors: :class:`LineError` where a number seems to have its base after it."""
    if WITH_BASE.fullmatch(text) is None:
        return
    figures, _, base = text.partition("_")
    mends = (replace(span, PREFIXES_OF_BASES[base] + figures), replace(span, figures + base))
    raise BASE_OR_GROUP(span, mends, base=base)


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
    raise BAD_FIGURE(place, behind=behind, figures=figures)


def _superscript(source: str, at: int) -> Token:
    end = at
    while end < len(source) and source[end] in SUPERSCRIPTS:
        end += 1
    digits = "".join(SUPERSCRIPTS[sign] for sign in source[at:end])
    if not re.fullmatch(r"[+-]?[0-9]+", digits):
        raise BAD_SUPERSCRIPT(Span(at, end))
    if source[end : end + 1] == "√":
        return Token(OP, f"{digits}√", Span(at, end + 1))
    return Token(POWER, digits, Span(at, end))


WORDS_FOR_SIGNS = {"¬": "not", "∧": "and", "∨": "or", "⊕": "xor", "∑": "sum", "Σ": "sum",
                   "∏": "product"}  # fmt: skip
"""What is typed for a sign: a word between two truths, or a function."""


def _unknown_sign(source: str, at: int) -> LineError:
    character = source[at]
    span = Span(at, at + 1)
    if unicodedata.category(character) == "Cc":
        return CONTROL_CHARACTER(span, (_without(span),), code_point=ord(character))
    if character == "?":
        return QUESTION(span, _asked(source, at))
    if character == "'":
        groups = source[at - 1 : at].isdecimal() and source[at + 1 : at + 2].isdecimal()
        return APOSTROPHE_HERE(span, (_without(span),) if groups else ())
    if character in "{}":
        mends = tuple(replace_each(source, _for_braces(source, pair)) for pair in ("()", "[]"))
        return BRACES(span, mends)
    if character == ":":
        return _colon(source, at)
    if character in WORDS_FOR_SIGNS:
        word = WORDS_FOR_SIGNS[character]
        return SIGN_HAS_WORD(span, (replace(span, _apart(source, span, word)),),
                             character=character, word=word)  # fmt: skip
    is_price = unicodedata.category(character) == "Sc" and source[at + 1 : at + 2].isdecimal()
    means_something = is_price or unicodedata.category(character) in ("Sm", "Mn")
    mends = () if means_something else (_without(span),)
    return UNKNOWN_SIGN(span, mends, character=character)


def _apart(source: str, span: Span, word: str) -> str:
    """The word, with a space to what it would run into."""
    before = " " if source[: span.start][-1:].isalnum() else ""
    after = "" if source[span.end : span.end + 1] in ("(", " ") else " "
    return f"{before}{word}{after}"


def _colon(source: str, at: int) -> LineError:
    """``12:30:15``, which may be an angle with its minutes and seconds."""
    span = Span(at, at + 1)
    for found in _BY_COLONS.finditer(source):
        if found.start() <= at < found.end():
            degrees, minutes, seconds = found.groups()
            angle = f"{degrees}°{minutes}′" + (f"{seconds}″" if seconds else "")
            return COLON_HERE(span, (replace(Span(*found.span()), angle),))
    return COLON_HERE(span, (_without(span),))


def _for_braces(source: str, pair: str) -> list[tuple[Span, str]]:
    places = enumerate(source)
    return [(Span(n, n + 1), pair["{}".index(c)]) for n, c in places if c in "{}"]


def _asked(source: str, at: int) -> tuple[Mend, ...]:
    """``x = 2 ?`` is a comparison; a question mark after anything else just goes."""
    if source[at + 1 :].strip():
        return ()
    single = re.findall(r"(?<![=<>!:])=(?!=)", source)
    if not single:
        return (_without(Span(at, at + 1)),)
    compared = re.sub(r"(?<![=<>!:])=(?!=)", "==", source[:at]).rstrip()
    return (replace(Span(0, at + 1), compared),)


def _without(span: Span) -> Mend:
    return Mend("remove it", span, "")
