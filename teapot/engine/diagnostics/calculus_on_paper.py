"""Integrals, derivatives, sums and equations as they are written on paper or said in words:
``integrate x^2 from 0 to 1``, ``∫_0^1 x^2 dx``, ``d/dx x^2 at 3``, ``sum i=1..10 i^2``,
``solve x^2 = 4``."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Container

from teapot.engine.analysis.bound import USUAL_INTERVAL, usual_interval
from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.reading.vocabulary import CONSTANT_NAMES
from teapot.engine.sentences.analysis import WRITTEN_AS_CALL

LONGEST = 200
"""Characters of a line that is looked through."""

NAME = r"[^\W\d]\w*"

INTEGRAL = re.compile(
    rf"(?:the\s+)?(?:integrate|integral(?:\s+of)?|area\s+under(?:\s+the\s+curve)?|∫)\s*(?P<of>.+?)(?:\s*\bd(?P<name>{NAME}))?"
    r"(?:,?\s+(?:from|between)\s+(?P<a>.+?)\s+(?:to|and)\s+(?P<b>.+))?",
    re.IGNORECASE,
)
WITH_ENDS = re.compile(
    r"(?P<sign>[∫∑Σ∏Π])\s*(?P<low>_\{[^{}]+\}|_[^\s^{}]+|[₀-₉₊₋]+)\s*"
    r"(?P<high>\^\{[^{}]+\}|\^\([^()]+\)|\^[^\s{}]+|[⁰¹²³⁴-⁹⁺⁻]+)\s*(?P<of>.+)"
)
"""A sign with its ends below and above it, in the way of LaTeX or by small figures."""
UP_TO_D = re.compile(rf"(?P<of>.+?)\s*\bd(?P<name>{NAME})")
INDEX = re.compile(rf"(?P<name>{NAME})\s*=\s*(?P<a>.+)")
INTEGRAL_OF = re.compile(
    r"(?:the\s+)?(?:integrate|integral|∫)\s+(?:from|between)\s+(?P<a>\S+)\s+(?:to|and)\s+(?P<b>\S+)"
    rf"(?:\s+of)?\s+(?P<of>.+?)(?:\s*\bd(?P<name>{NAME}))?",
    re.IGNORECASE,
)
INTEGRAL_FOR = re.compile(
    rf"(?:the\s+)?(?:integrate|integral(?:\s+of)?|∫)\s+(?P<of>.+?),?\s+(?:for\s+)?(?P<name>{NAME})\s*=\s*"
    r"(?P<a>[^\s.]+)\s*(?:\.\.|to)\s*(?P<b>\S+)",
    re.IGNORECASE,
)
DERIVATIVE = re.compile(
    rf"(?:(?:the\s+)?(?:differentiate|derivative\s+of|derive)|d/d(?P<name>{NAME}))\s*(?P<of>.+?)"
    rf"(?:,?\s+at\s+(?:(?P<other>{NAME})\s*=\s*)?(?P<at>.+))?",
    re.IGNORECASE,
)
SUM = re.compile(
    rf"(?P<word>sum|product|∑|Σ|∏|Π)\s*(?:of\s+)?\(?\s*(?P<name>{NAME})\s*=\s*(?P<a>[^\s.]+)\s*"
    r"(?:\.\.|to)\s*(?P<b>[^\s)]+)\)?\s+(?P<of>.+)",
    re.IGNORECASE,
)
SUM_FOR = re.compile(
    rf"(?:the\s+)?(?P<word>sum|product|∑|Σ|∏|Π)\s+(?:of\s+)?(?P<of>.+?)\s+(?:for|from)\s+(?P<name>{NAME})\s*=\s*"
    r"(?P<a>\S+)\s+to\s+(?P<b>\S+)",
    re.IGNORECASE,
)
EQUATION = re.compile(
    rf"(?:(?:solve\s+for|find)\s+(?P<first>{NAME})\s*(?:[:,]|\bin\b|\bif\b)?|solve)\s+"
    r"(?P<a>[^=]+?)\s*==?\s*"
    rf"(?P<b>[^=]+?)(?:\s+for\s+(?P<name>{NAME}))?",
    re.IGNORECASE,
)
ROOTS = re.compile(
    r"(?:find\s+)?(?:the\s+)?(?:roots?|zeros?|solutions?)\s+of\s+(?P<a>[^=]+?)(?:\s*==?\s*(?P<b>[^=]+))?",
    re.IGNORECASE,
)
QUOTIENT_OF_D = re.compile(rf"d\s*\((?P<of>.+)\)\s*/\s*d(?P<name>{NAME})(?:,?\s+at\s+(?P<at>.+))?")
AT_A_PLACE = re.compile(
    rf"(?:evaluate\s+)?(?:(?P<called>{NAME})(?:\({NAME}\))?\s*=\s*)?(?P<of>[^=]+?),?\s+"
    rf"(?:at|where|for|when|if|with)\s+(?P<name>{NAME})\s*=\s*(?P<at>(?!.*(?:\bto\b|\.\.))[^=,;]+)",
    re.IGNORECASE,
)
SYSTEM = re.compile(
    r"solve\s+(?P<rows>[^=]+==?[^=]+(?:(?:,|;|\band\b)[^=]+==?[^=]+)+)", re.IGNORECASE
)
BETWEEN_ROWS = re.compile(r"\s*(?:,|;|\band\b)\s*", re.IGNORECASE)
GRAPH = re.compile(
    r"(?:graph|plot|draw|sketch)\s+(?:of\s+)?(?:y\s*=\s*|f\(x\)\s*=\s*)?(?P<of>.+?)"
    rf"(?:,?\s+(?:for|with)\s+(?P<name>{NAME}))?"
    r"(?:,?\s*(?:=|from|between)\s*(?P<a>[^\s.]\S*?)\s*(?:\.\.|\bto\b|\band\b)\s*(?P<b>\S+))?",
    re.IGNORECASE,
)
IS_CALL = re.compile(r"(?:integral|derivative|sum|product|solve|graph)\(")
IS_FORMULA = re.compile(r"[-+*/^(\d]|^\w$")
WORDS = {"∑": "sum", "Σ": "sum", "∏": "product", "Π": "product"}


def calculus_in(
    text: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> LineError | None:
    """The error for such a line, with the call that it is here; None for another line."""
    line = text.strip()
    if len(line) > LONGEST:
        return None
    call = call_for(line, functions, quantities)
    if call is None:
        return None
    place = Span(0, len(text.rstrip()))
    mends: tuple[Mend, ...] = () if "…" in call else (replace(place, call),)
    return WRITTEN_AS_CALL(place, mends, call=call)


def call_for(
    line: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> str | None:
    """What such a line is as a call, with … for what it does not say; None for another line.

    >>> call_for("∫_0^1 x^2 dx"), call_for("∑_{k=1}^{10} k^2")
    ('integral(x^2, x = 0..1)', 'sum(k^2, k = 1..10)')
    >>> call_for("∫_0^1 ∫_0^2 x y dx dy")
    'integral(integral(x y, x = 0..2), y = 0..1)'
    """

    def unknown(*texts: str) -> str:
        return unknown_in(" ".join(texts), functions, quantities) or "x"

    def inner(text: str) -> str:
        made = call_for(text, functions, quantities) if WITH_ENDS.fullmatch(text) else None
        return made or text

    if IS_CALL.match(line):
        return None
    if found := WITH_ENDS.fullmatch(line):
        low, high, of = _end(found["low"]), _end(found["high"]), found["of"]
        if found["sign"] == "∫":
            parts = UP_TO_D.fullmatch(of)
            of, name = (parts["of"], parts["name"]) if parts else (of, unknown(of))
            return f"integral({inner(of)}, {name} = {low}..{high})"
        if index := INDEX.fullmatch(low):
            return f"{WORDS[found['sign']]}({inner(of)}, {index['name']} = {index['a']}..{high})"
    if found := SUM.fullmatch(line) or SUM_FOR.fullmatch(line):
        word, where = found["word"], f"{found['name']} = {found['a']}..{found['b']}"
        return f"{WORDS.get(word) or word.lower()}({found['of']}, {where})"
    if found := SYSTEM.fullmatch(line):
        rows = [re.sub("==?", "==", row, count=1) for row in BETWEEN_ROWS.split(found["rows"])]
        names = unknowns_in(" ".join(rows), functions, quantities)
        return f"solve([{', '.join(rows)}], [{', '.join(names)}])"
    if (found := GRAPH.fullmatch(line)) and IS_FORMULA.search(found["of"]):
        name = found["name"] or unknown(found["of"])
        ends = f"{found['a']}..{found['b']}" if found["a"] else USUAL_INTERVAL
        return f"graph({found['of']}, {name} = {ends})"
    if found := ROOTS.fullmatch(line):
        name = unknown(found["a"], found["b"] or "")
        return f"solve({found['a']} == {found['b'] or '0'}, {name})"
    if found := QUOTIENT_OF_D.fullmatch(line):
        return f"derivative({found['of']}, {found['name']} = {found['at'] or '…'})"
    if found := EQUATION.fullmatch(line):
        name = found["name"] or found["first"] or unknown(found["a"], found["b"])
        has_function = any(one[1] in functions for one in re.finditer(rf"({NAME})\(", line))
        where = f"{name} = {usual_interval(line)}" if has_function else name
        return f"solve({found['a']} == {found['b']}, {where})"
    if found := (
        INTEGRAL_FOR.fullmatch(line) or INTEGRAL_OF.fullmatch(line) or INTEGRAL.fullmatch(line)
    ):
        name = found["name"] or unknown(found["of"])
        ends = f"{found['a']}..{found['b']}" if found["a"] else "…"
        return f"integral({found['of']}, {name} = {ends})"
    if found := DERIVATIVE.fullmatch(line):
        name = found["name"] or found["other"] or unknown(found["of"])
        return f"derivative({inner(found['of'])}, {name} = {found['at'] or '…'})"
    if (found := AT_A_PLACE.fullmatch(line)) and has_name(found["of"], found["name"]):
        free = (one for one in "fghFGH" if one not in quantities)
        function = found["called"] or next(free, "f_1")
        return f"{function}({found['name']}) = {found['of']}; {function}({found['at']})"
    return None


def has_name(text: str, name: str) -> bool:
    """Whether a name occurs in a text: the x of ``2x + 1``."""
    return re.search(rf"(?<![^\W\d]){re.escape(name)}(?!\w)", text) is not None


def _end(text: str) -> str:
    """An end of a sign without what puts it below or above."""
    plain = unicodedata.normalize("NFKC", text).replace("−", "-")
    return plain.lstrip("_^").removeprefix("{").removesuffix("}").strip()


def unknown_in(
    text: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> str | None:
    """The only name in a text that has no value; None where there are none, or several."""
    names = unknowns_in(text, functions, quantities)
    return names[0] if len(names) == 1 else None


def unknowns_in(
    text: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> list[str]:
    """The names in a text that have no value, in their order, each once."""
    names = (
        found[0]
        for found in re.finditer(rf"(?<![\w.]){NAME}(?!\w*\s*\()|(?<=\d){NAME}(?!\w*\s*\()", text)
        if found[0] not in functions
        and found[0] not in quantities
        and found[0] not in CONSTANT_NAMES
    )
    return list(dict.fromkeys(names))
