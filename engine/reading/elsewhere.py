"""Spellings that other languages and other desks have for what can be typed here.

They are looked for only in a line that cannot be read.  Each is a row of
:data:`SPELLINGS`, with what is said of it and what is meant.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass

from engine.errors import LineError, Span, replace, replace_each
from engine.reading.tokens import plain

Meant = Callable[[re.Match[str]], "str | tuple[str, ...]"]
"""What may stand in the place of what was found, the likeliest first."""

LONGEST = 300
"""Characters of a line that is looked through."""


@dataclass(frozen=True, slots=True)
class Spelling:
    """``pattern`` finds it in a line; with ``everywhere`` every occurrence is mended at
    once, to the first of what is ``meant``."""

    code: str
    pattern: re.Pattern[str]
    text: str
    meant: Meant
    everywhere: bool = False


def _spelling(
    code: str, pattern: str, text: str, meant: Meant, everywhere: bool = False
) -> Spelling:
    return Spelling(code, re.compile(pattern), text, meant, everywhere)


def _changed(found: re.Match[str]) -> str:
    """``x += a + 1`` as ``x = x + a + 1``."""
    name, op, value = found["name"], found["op"], found["value"].strip()
    is_one = re.fullmatch(r"[\w.]+|\w*\([^()]*\)", value) or op == "+"
    value = value if is_one else f"({value})"
    return f"{name} = {name} {op} {value}" if op in "+-" else f"{name} = {name}{op}{value}"


def _stepped(found: re.Match[str]) -> str:
    return f"{found['name']} = {found['name']} {found['op'][0]} 1"


def _ratio(found: re.Match[str]) -> tuple[str, ...]:
    """``1:10`` as a range where it goes up, and as a quotient."""
    first, second = found["first"], found["second"]
    quotient = f"{first}/{second}"
    goes_up = float(first) < float(second)
    return (f"{first}..{second}", quotient) if goes_up else (quotient,)


def _power_of_ten(found: re.Match[str]) -> str:
    return f"{found['number']}e{int(found['exponent'])}"


_NUMBER = r"\d+(?:\.\d+)?"

STEPPED = _spelling(
    "other-assignment",
    r"(?P<name>[^\W\d]\w*)(?P<op>\+\+|--)\s*$",
    "A quantity is changed by giving it a new value.",
    _stepped,
)
"""``x++``, which for itself reads as a line that waits for more."""

SPELLINGS = (
    _spelling(
        "other-note",
        r"^\s*(?://|/\*)\s*(?P<note>.*?)\s*(?:\*/)?\s*$",
        "A note begins with #.",
        lambda found: f"# {found['note']}",
    ),
    _spelling(
        "other-quotes",
        r"'(?P<text>[^']*)'",
        "Text goes between double quotation marks.",
        lambda found: f'"{found["text"]}"',
        everywhere=True,
    ),
    _spelling(
        "other-assignment",
        r"^\s*(?:let|var|const|set)\s+(?=[^\W\d]\w*\s*:?=)",
        "A quantity gets its value by = alone.",
        lambda found: "",
    ),
    _spelling(
        "other-assignment",
        r"(?P<name>[^\W\d]\w*)\s*(?P<op>[-+*/^])=(?!=)\s*(?P<value>[^;#]+?)\s*$",
        "A quantity is changed by giving it a new value.",
        _changed,
    ),
    _spelling(
        "other-assignment",
        r"^\s*(?P<value>[^=;#]+?)\s*(?:->|→)\s*(?!(?:rad|deg|gon|turn|dms)\b)(?P<name>[^\W\d]\w*)\s*$",
        "The name goes before =, and its value behind it.",
        lambda found: f"{found['name']} = {found['value']}",
    ),
    _spelling(
        "other-comparison",
        r"===",
        "Two values are compared with ==.",
        lambda found: "==",
        everywhere=True,
    ),
    _spelling(
        "other-comparison",
        r"<>|!==|~=|=/=|=!(?!=)|/=",
        "That two values differ is written !=.",
        lambda found: "!=",
        everywhere=True,
    ),
    _spelling(
        "other-comparison",
        r"=<",
        "At most is written <=.",
        lambda found: "<=",
        everywhere=True,
    ),
    _spelling(
        "other-comparison",
        r"=>",
        "At least is written >=.",
        lambda found: ">=",
        everywhere=True,
    ),
    _spelling(
        "other-logic",
        r"\s*&&?\s*",
        "That both hold is written and.",
        lambda found: " and ",
        everywhere=True,
    ),
    _spelling(
        "other-logic",
        r"\s*\|\|\s*",
        "That one of the two holds is written or.",
        lambda found: " or ",
        everywhere=True,
    ),
    _spelling(
        "other-logic",
        r"(?<![\w)\]!])!\s*(?=[\w(])(?!=)",
        "The opposite of a truth value is written with not.",
        lambda found: "not ",
        everywhere=True,
    ),
    _spelling(
        "other-range",
        r"\s*(?:\.{3,}|…)\s*",
        "A range is written with two points.",
        lambda found: "..",
        everywhere=True,
    ),
    _spelling(
        "other-ratio",
        rf"(?<![\w.:])(?P<first>{_NUMBER})\s*:\s*(?P<second>{_NUMBER})(?![\w.:])",
        "The sign : is not used here: a quotient is written with /, a range with two points.",
        _ratio,
    ),
    _spelling(
        "letter-for-times",
        rf"(?P<number>(?<![\w.]){_NUMBER})\s*[xX]\s*10\s*(?:\^|\*\*)\s*\(?(?P<exponent>[-+]?\d+)\)?",
        "A power of ten is written with e: 1.5e3 is 1.5 times ten to the power 3.",
        _power_of_ten,
    ),
    _spelling(
        "letter-for-times",
        r"(?<=\d)(?<![\w.]0)(?<!^0)\s*[xX]\s*(?=\d)",
        "The letter x is no sign for times; that is written with *.",
        lambda found: "*",
        everywhere=True,
    ),
    _spelling(
        "not-here",
        r"\bd\s*/\s*d[a-zα-ω]\b|(?<=[^\W\d])'+(?=\s*\()",
        "Teapot does not differentiate.",
        lambda found: (),
    ),
    _spelling("not-here", r"∫", "Teapot does not integrate.", lambda found: ()),
    _spelling(
        "backslash",
        r"\s*\\\s*",
        "The sign \\ is not used here: a quotient is written with /.",
        lambda found: ("/", " div "),
    ),
    _spelling(
        "two-points",
        r"(?<![\w.,])\d{1,3}(?:\.\d{3}){2,}(?:,\d+)?(?![\w.])",
        "A number has one decimal point, and no points between its groups of figures.",
        lambda found: found[0].replace(".", "").replace(",", "."),
        everywhere=True,
    ),
)


def spelt_elsewhere(text: str) -> LineError | None:
    """The error for a line that cannot be read, where it has such a spelling."""
    source = plain(text)
    if len(source) > LONGEST or '"' in source:
        return None
    errors = (_found_in(spelling, text, source) for spelling in SPELLINGS)
    return next(filter(None, errors), None)


def stepped_elsewhere(text: str) -> LineError | None:
    """The error for ``x++``."""
    return _found_in(STEPPED, text, plain(text))


def _found_in(spelling: Spelling, text: str, source: str) -> LineError | None:
    found = spelling.pattern.search(source)
    if found is None:
        return None
    span = Span(*found.span())
    if spelling.everywhere:
        each = [
            (Span(*one.span()), str(spelling.meant(one)))
            for one in spelling.pattern.finditer(source)
        ]
        return LineError(spelling.code, spelling.text, span, (replace_each(text, each),))
    meant = spelling.meant(found)
    options = (meant,) if isinstance(meant, str) else meant
    mends = tuple(replace(span, option) for option in options)
    return LineError(spelling.code, spelling.text, span, mends)
