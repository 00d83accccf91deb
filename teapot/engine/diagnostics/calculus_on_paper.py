"""Integrals, derivatives, sums and equations as they are written on paper or said in words:
``integrate x^2 from 0 to 1``, ``d/dx x^2 at 3``, ``sum i=1..10 i^2``, ``solve x^2 = 4``."""

from __future__ import annotations

import re
from collections.abc import Container

from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.reading.vocabulary import CONSTANT_NAMES
from teapot.engine.sentences.analysis import WRITTEN_AS_CALL

LONGEST = 200
"""Characters of a line that is looked through."""

NAME = r"[^\W\d]\w*"

INTEGRAL = re.compile(
    rf"(?:the\s+)?(?:integrate|integral(?:\s+of)?|∫)\s*(?P<of>.+?)(?:\s*\bd(?P<name>{NAME}))?"
    r"(?:,?\s+(?:from|between)\s+(?P<a>.+?)\s+(?:to|and)\s+(?P<b>.+))?",
    re.IGNORECASE,
)
DERIVATIVE = re.compile(
    rf"(?:(?:the\s+)?(?:differentiate|derivative\s+of|derive)|d/d(?P<name>{NAME}))\s*(?P<of>.+?)"
    rf"(?:,?\s+at\s+(?:(?P<other>{NAME})\s*=\s*)?(?P<at>.+))?",
    re.IGNORECASE,
)
SUM = re.compile(
    rf"(?P<word>sum|product|∑|∏)\s*(?:of\s+)?(?P<name>{NAME})\s*=\s*(?P<a>[^\s.]+)\s*(?:\.\.|to)\s*"
    r"(?P<b>\S+)\s+(?P<of>.+)",
    re.IGNORECASE,
)
SUM_FOR = re.compile(
    rf"(?:the\s+)?(?P<word>sum|product)\s+of\s+(?P<of>.+?)\s+(?:for|from)\s+(?P<name>{NAME})\s*=\s*"
    r"(?P<a>\S+)\s+to\s+(?P<b>\S+)",
    re.IGNORECASE,
)
EQUATION = re.compile(
    rf"(?:solve|find\s+{NAME}\s+in|solve\s+for\s+(?P<first>{NAME})\s*[:,]?)\s+(?P<a>[^=]+?)\s*==?\s*"
    rf"(?P<b>[^=]+?)(?:\s+for\s+(?P<name>{NAME}))?",
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
USUAL_RANGE = "-10..10"
"""Where a graph is drawn for which no range was typed."""

IS_FORMULA = re.compile(r"[-+*/^(\d]|^\w$")
WORDS = {"∑": "sum", "∏": "product"}


def calculus_in(
    text: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> LineError | None:
    """The error for such a line, with the call that it is here; None for another line."""
    line = text.strip()
    if len(line) > LONGEST:
        return None
    call = _call(line, functions, quantities)
    if call is None:
        return None
    place = Span(0, len(text.rstrip()))
    mends: tuple[Mend, ...] = () if "…" in call else (replace(place, call),)
    return WRITTEN_AS_CALL(place, mends, call=call)


def _call(line: str, functions: Container[str], quantities: Container[str]) -> str | None:
    def unknown(*texts: str) -> str:
        return unknown_in(" ".join(texts), functions, quantities) or "x"

    if found := SUM.fullmatch(line) or SUM_FOR.fullmatch(line):
        word, where = found["word"].lower(), f"{found['name']} = {found['a']}..{found['b']}"
        return f"{WORDS.get(word, word)}({found['of']}, {where})"
    if found := SYSTEM.fullmatch(line):
        rows = [re.sub("==?", "==", row, count=1) for row in BETWEEN_ROWS.split(found["rows"])]
        names = unknowns_in(" ".join(rows), functions, quantities)
        return f"solve([{', '.join(rows)}], [{', '.join(names)}])"
    if (found := GRAPH.fullmatch(line)) and IS_FORMULA.search(found["of"]):
        name = found["name"] or unknown(found["of"])
        ends = f"{found['a']}..{found['b']}" if found["a"] else USUAL_RANGE
        return f"graph({found['of']}, {name} = {ends})"
    if found := EQUATION.fullmatch(line):
        name = found["name"] or found["first"] or unknown(found["a"], found["b"])
        return f"solve({found['a']} == {found['b']}, {name})"
    if found := INTEGRAL.fullmatch(line):
        name = found["name"] or unknown(found["of"])
        ends = f"{found['a']}..{found['b']}" if found["a"] else "…"
        return f"integral({found['of']}, {name} = {ends})"
    if found := DERIVATIVE.fullmatch(line):
        name = found["name"] or found["other"] or unknown(found["of"])
        return f"derivative({found['of']}, {name} = {found['at'] or '…'})"
    return None


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
