"""Spellings that other languages and other desks have for what can be typed here.

They are looked for only in a line that cannot be read.  Each is a row of
:data:`SPELLINGS`, with what is said of it and what is meant.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date
from itertools import pairwise

from teapot.engine.errors import LineError, Problem
from teapot.engine.mends import Span, replace, replace_each
from teapot.engine.reading.tokens import plain
from teapot.engine.sentences.foreign import (
    BACKSLASH,
    CHANGED_IN_PLACE,
    CLOCK_TIME,
    EQUALS_ALONE,
    FEET_AND_INCHES,
    MONEY_BEFORE,
    NAME_WITH_POINT,
    OTHER_AND,
    OTHER_AT_LEAST,
    OTHER_AT_MOST,
    OTHER_COMPARISON,
    OTHER_NOT,
    OTHER_NOTE,
    OTHER_OR,
    OTHER_QUOTES,
    OTHER_RATIO,
    OTHER_UNEQUAL,
    REACTION,
    ROUNDED_BY_BARS,
    SHIFTED,
    VALUE_BEFORE_NAME,
)
from teapot.engine.sentences.signs import DECIMAL_COMMAS, OTHER_RANGE, POINTS_IN_GROUPS
from teapot.engine.sentences.unreadable import (
    LETTER_IN_POWER_OF_TEN,
    LETTER_X_FOR_TIMES,
    NO_DERIVATIVES,
    NO_INTEGRALS,
)
from teapot.engine.sentences.values import DAY_OR_MONTH

Meant = Callable[[re.Match[str]], "str | tuple[str, ...]"]
"""What may stand in the place of what was found, the likeliest first."""

IN_QUOTES = re.compile(r'"[^"]*"?')

LONGEST = 300
"""Characters of a line that is looked through."""


@dataclass(frozen=True, slots=True)
class Spelling:
    """``pattern`` finds it in a line such as the ``example``, which is an error of that
    ``problem``; with ``everywhere`` every occurrence is mended at once, to the first of what
    is ``meant``."""

    problem: Problem
    example: str
    pattern: re.Pattern[str]
    meant: Meant
    everywhere: bool = False


def _spelling(
    problem: Problem, example: str, pattern: str, meant: Meant, everywhere: bool = False
) -> Spelling:
    return Spelling(problem, example, re.compile(pattern), meant, everywhere)


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


def _day(found: re.Match[str]) -> tuple[str, ...]:
    """``1.3.2024`` with the day first, and with the month first where that is a day too."""
    first, second, year = (int(found[name]) for name in ("first", "second", "year"))
    orders = dict.fromkeys(((second, first), (first, second)))
    return tuple(
        f"{year:04}-{month:02}-{day:02}" for month, day in orders if _is_day(year, month, day)
    )


def _of_sample(found: re.Match[str]) -> str:
    """``var.p(w)`` as ``variance(w, of="population")``."""
    name = "stdev" if found["name"].lower().startswith("st") else "variance"
    inside = (found["inside"] or ")")[:-1]
    population = ', of="population"' if found["of"] in "pP" else ""
    return f"{name}({inside}{population})"


def _is_day(year: int, month: int, day: int) -> bool:
    try:
        return bool(date(year, month, day))
    except ValueError:
        return False


def _plain(seconds: str) -> str:
    """``05.50`` as ``5.5``."""
    return f"{float(seconds):g}"


def _at_a_place(found: re.Match[str]) -> str:
    order = len(found["primes"])
    options = f", order = {order}" if order > 1 else ""
    return f"derivative({found['of']}(x), x = {found['at']}{options})"


def _power_of_ten(found: re.Match[str]) -> str:
    return f"{found['number']}e{int(found['exponent'])}"


_NUMBER = r"\d+(?:\.\d+)?"

_SUBSTANCE = (
    r"(?:\d+(?:[./]\d+)?\s*)?(?:e-|e⁻|(?:[A-Z][a-z]?\d*|\((?:[A-Z][a-z]?\d*)+\)\d*)+"
    r"(?:\^?\d?[-+](?=[\s(]|$))?(?:\s?\((?:s|l|g|aq)\))?)"
)
_SUBSTANCES = rf"{_SUBSTANCE}(?:\s*\+\s*{_SUBSTANCE})*"
"""``2 H2 + O2``, as reaction equations have them."""

STEPPED = _spelling(
    CHANGED_IN_PLACE,
    "x++",
    r"(?P<name>[^\W\d]\w*)(?P<op>\+\+|--)\s*$",
    _stepped,
)
"""``x++``, which for itself reads as a line that waits for more."""

FEET = _spelling(
    FEET_AND_INCHES,
    "6'2\"",
    r"(?<![\w.°])(?P<feet>\d+)\s*'\s*(?P<inches>\d+(?:\.\d+)?)\s*(?:\"|'')",
    lambda found: (
        f"{found['feet']} ft + {found['inches']} in",
        f"0°{found['feet']}'{found['inches']}\"",
    ),
)
"""``6'2"``, in which a text seems to begin."""

OR = _spelling(OTHER_OR, "true || false", r"\s*\|\|\s*", lambda found: " or ", everywhere=True)
BARS_BETWEEN = re.compile(r"[\w)\]!%°]\s*\|\|\s*[\w(\[]")

SPELLINGS = (
    _spelling(
        OTHER_NOTE,
        "// tea",
        r"^\s*(?://|/\*)\s*(?P<note>.*?)\s*(?:\*/)?\s*$",
        lambda found: f"# {found['note']}",
    ),
    _spelling(
        OTHER_QUOTES,
        "'tea'",
        r"(?<![^\W\d])'(?P<text>[^']*)'",
        lambda found: f'"{found["text"]}"',
        everywhere=True,
    ),
    _spelling(
        EQUALS_ALONE,
        "let x = 5",
        r"^\s*(?:let|var|const|set)\s+(?=[^\W\d]\w*\s*:?=)",
        lambda found: "",
    ),
    _spelling(
        CHANGED_IN_PLACE,
        "x += 1",
        r"(?P<name>[^\W\d]\w*)\s*(?P<op>[-+*/^])=(?!=)\s*(?P<value>[^;#]+?)\s*$",
        _changed,
    ),
    _spelling(
        REACTION,
        "C2H6 + O2 -> CO2",
        rf"^\s*(?=.*(?:[A-Z][a-z]|[A-Z]\w*\d)){_SUBSTANCES}\s*(?:-+>|→|⟶|⇌|<=>|<-+>)\s*{_SUBSTANCES}\s*$",
        lambda found: f"# {found[0].strip()}",
    ),
    _spelling(
        VALUE_BEFORE_NAME,
        "5 -> x",
        r"^\s*(?P<value>[^=;#]+?)\s*(?:->|→)\s*(?!(?:rad|deg|gon|turn|dms)\b)(?P<name>[^\W\d]\w*)\s*$",
        lambda found: f"{found['name']} = {found['value']}",
    ),
    _spelling(
        OTHER_COMPARISON,
        "x === 2",
        r"===",
        lambda found: "==",
        everywhere=True,
    ),
    _spelling(
        OTHER_UNEQUAL,
        "1 <> 2",
        r"<>|!==|~=|=/=|=!(?!=)|/=",
        lambda found: "!=",
        everywhere=True,
    ),
    _spelling(
        OTHER_AT_MOST,
        "1 =< 2",
        r"=<",
        lambda found: "<=",
        everywhere=True,
    ),
    _spelling(
        SHIFTED,
        "1 << 4",
        r"(?P<number>[\w.]+)\s*(?P<way><<|>>)\s*(?P<bits>\w+)",
        lambda found: (
            f"{found['number']} {'div ' if found['way'] == '>>' else '* '}2^{found['bits']}"
        ),
        everywhere=True,
    ),
    _spelling(
        ROUNDED_BY_BARS,
        "⌈2.1⌉",
        r"(?P<bar>[⌈⌊])(?P<inside>[^⌈⌉⌊⌋]+)[⌉⌋]",
        lambda found: f"{'ceil' if found['bar'] == '⌈' else 'floor'}({found['inside']})",
        everywhere=True,
    ),
    _spelling(
        OTHER_AT_LEAST,
        "1 => 2",
        r"=>",
        lambda found: ">=",
        everywhere=True,
    ),
    _spelling(
        OTHER_AND,
        "true && false",
        r"\s*&&?\s*",
        lambda found: " and ",
        everywhere=True,
    ),
    OR,
    _spelling(
        OTHER_NOT,
        "!true",
        r"(?<![\w)\]!])!\s*(?=[\w(])(?!=)",
        lambda found: "not ",
        everywhere=True,
    ),
    _spelling(
        OTHER_RANGE,
        "1 + 2 + ... + 100",
        r"\b1\s*\+\s*2\s*\+\s*(?:3\s*\+\s*)?(?:\.{2,3}|…)\s*\+\s*(\w+)",
        lambda found: f"sum(1..{found[1]})",
        everywhere=True,
    ),
    _spelling(
        OTHER_RANGE,
        "1...5",
        r"\s*(?:\.{3,}|…)\s*",
        lambda found: "..",
        everywhere=True,
    ),
    _spelling(
        CLOCK_TIME,
        "9:40 - 8:15",
        r"(?<![\w.:])(\d{1,2}):([0-5]\d)\s*[-−–]\s*(\d{1,2}):([0-5]\d)(?![\w.:])",
        lambda found: "({} h + {} min) - ({} h + {} min)".format(*map(int, found.groups())),
    ),
    _spelling(
        OTHER_RATIO,
        "1:10",
        rf"(?<![\w.:])(?P<first>{_NUMBER})\s*:\s*(?P<second>{_NUMBER})(?![\w.:])",
        _ratio,
    ),
    _spelling(
        LETTER_IN_POWER_OF_TEN,
        "1.5x10^3",
        rf"(?P<number>(?<![\w.]){_NUMBER})\s*[xX]\s*10\s*(?:\^|\*\*)\s*\(?(?P<exponent>[-+]?\d+)\)?",
        _power_of_ten,
    ),
    _spelling(
        LETTER_IN_POWER_OF_TEN,
        "4.56d-4",
        r"(?P<number>(?<![\w.])(?:\d+\.?\d*|\.\d+))[dD](?P<exponent>[-+]?\d{1,3})(?![\w.])",
        _power_of_ten,
    ),
    _spelling(
        LETTER_X_FOR_TIMES,
        "3x4",
        r"(?<![\w.])(?!0[xX])\d[\d.]*(?:\s*[xX]\s*\d[\d.]*)+",
        lambda found: re.sub(r"\s*[xX]\s*", "*", found[0]),
        everywhere=True,
    ),
    _spelling(
        NO_DERIVATIVES,
        "f'(2)",
        r"(?P<of>[^\W\d]\w*)(?P<primes>'{1,4})\(\s*(?P<at>[^()]+?)\s*\)",
        _at_a_place,
    ),
    _spelling(
        NO_DERIVATIVES,
        "2 + d/dx x^2",
        r"\bd\s*/\s*d[a-zα-ω]\b|(?<=[^\W\d])'+(?=\s*\()",
        lambda found: (),
    ),
    _spelling(NO_INTEGRALS, "2 + ∫x", r"∫", lambda found: ()),
    _spelling(
        BACKSLASH,
        "7\\2",
        r"\s*\\\s*",
        lambda found: ("/", " div "),
    ),
    _spelling(
        DECIMAL_COMMAS,
        "[1,5; 2,5]",
        r"\[\s*-?\d+,\d+(?:\s*;\s*-?\d+,\d+)+\s*\]",
        lambda found: (found[0].replace(",", ".").replace(";", ","), found[0].replace(",", ", ")),
    ),
    _spelling(
        MONEY_BEFORE,
        "$5",
        r"(?<![\w.])(?P<sign>[€$£¥])\s*(?P<number>\d{1,3}(?:,\d{3})+(?:\.\d+)?(?!,\d)|\d+(?:\.\d+)?)",
        lambda found: f"{found['number'].replace(',', '')} {found['sign']}",
        everywhere=True,
    ),
    _spelling(
        NAME_WITH_POINT,
        "stdev.s([1, 2])",
        r"(?i)\b(?P<name>stdev|std|var|variance)\.(?P<of>[sp])(?:\(|\b)(?P<inside>[^()]*\))?",
        _of_sample,
    ),
    _spelling(
        DAY_OR_MONTH,
        "1.3.2024",
        r"(?<![\w.])(?P<first>\d{1,2})\.(?P<second>\d{1,2})\.(?P<year>\d{4})(?![\w.])",
        _day,
    ),
    _spelling(
        CLOCK_TIME,
        "1:30:00",
        r"(?<![\w.:])(?P<hours>\d+):(?P<minutes>[0-5]\d):(?P<seconds>[0-5]\d(?:\.\d+)?)(?![\w.:])",
        lambda found: (
            f"{int(found['hours'])} h + {int(found['minutes'])} min + {_plain(found['seconds'])} s",
            f"{found['hours']}°{found['minutes']}'{found['seconds']}\"",
        ),
    ),
    _spelling(
        POINTS_IN_GROUPS,
        "1.000.000,5",
        r"(?<![\w.,])\d{1,3}(?:\.\d{3}){2,}(?:,\d+)?(?![\w.])",
        lambda found: found[0].replace(".", "").replace(",", "."),
        everywhere=True,
    ),
)


def written_as_elsewhere(text: str) -> LineError | None:
    """The error for a line that cannot be read, where it has such a spelling."""
    source = plain(text)
    if len(source) > LONGEST:
        return None
    spellings: Iterable[Spelling] = SPELLINGS
    before, _, _ = source.partition('"')
    if "'" in before:
        feet = _found_in(FEET, text, source)
        if feet is not None:
            return feet
    if '"' in source:
        # what stands in a text is as it should be, and not taken over by a mend
        source = IN_QUOTES.sub(lambda found: '"' * len(found.group()), source)
        spellings = (one for one in SPELLINGS if one.everywhere)
    errors = (_found_in(spelling, text, source) for spelling in spellings)
    return next(filter(None, errors), None)


def stepped_elsewhere(text: str) -> LineError | None:
    """The error for ``x++``."""
    return _found_in(STEPPED, text, plain(text))


def _each(spelling: Spelling, source: str) -> list[tuple[Span, str]]:
    """Every place where a line has such a spelling, and what is meant."""
    return [
        (Span(*one.span()), str(spelling.meant(one))) for one in spelling.pattern.finditer(source)
    ]


def _are_apart(places: list[tuple[Span, str]]) -> bool:
    spans = sorted(span for span, _ in places)
    return all(one.end <= other.start for one, other in pairwise(spans))


def bars_for_or(text: str) -> LineError | None:
    """The error for ``2 > 1 || 3 > 2``, whose bars are taken for open ones otherwise."""
    found = _found_in(OR, text, plain(text)) if BARS_BETWEEN.search(text) else None
    return found if found is not None and "|" not in found.mends[0].apply(text) else None


def _found_in(spelling: Spelling, text: str, source: str) -> LineError | None:
    found = spelling.pattern.search(source)
    if found is None:
        return None
    span = Span(*found.span())
    if spelling.everywhere:
        each = _each(spelling, source)
        others = (one for one in SPELLINGS if one.everywhere and one is not spelling)
        more = [*each, *(pair for one in others for pair in _each(one, source))]
        alone = replace_each(text, each)
        together = (replace_each(text, sorted(more)),) if _are_apart(more) else ()
        return spelling.problem(span, (alone, *together) if len(more) > len(each) else (alone,))
    meant = spelling.meant(found)
    options = (meant,) if isinstance(meant, str) else meant
    mends = tuple(replace(span, option) for option in options)
    return spelling.problem(span, mends)
