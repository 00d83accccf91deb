r"""LaTeX that is pasted in: ``\frac{1}{2}``, ``$\sqrt{16}$``.

It is looked for only in a line that cannot be read.
"""

from __future__ import annotations

import re
from collections.abc import Container
from itertools import accumulate

from teapot.engine.diagnostics.calculus_on_paper import call_for
from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace
from teapot.engine.reading.latex import GREEK
from teapot.engine.sentences.foreign import PASTED_LATEX

COMMAND = re.compile(r"\\([a-zA-Z]+)")

ARGUMENT = r"\{([^{}]*)\}"

DROPPED = re.compile(r"\\(?:left|right|displaystyle|limits|quad)\b|\\[,;:! ]|[$~]")
"""What sets a formula and says nothing."""

DERIVATIVE = re.compile(r"\\[dt]?frac\s*\{\s*d\s*\}\s*\{\s*(d\w+)\s*\}")

FRACTION = re.compile(rf"\\[dt]?frac\s*{ARGUMENT}\s*{ARGUMENT}")

ROOT = re.compile(rf"\\sqrt\s*(?:\[([^\]]*)\])?\s*{ARGUMENT}")

UPRIGHT = re.compile(rf"\\(?:text|mathrm|mathit|operatorname|textrm)\s*{ARGUMENT}")

RAISED = re.compile(rf"\^\s*{ARGUMENT}")

LOWERED = re.compile(rf"_\s*{ARGUMENT}")

SIGNS = {
    "cdot": "*", "times": "*", "ast": "*", "div": "/", "pm": "±", "le": "<=", "leq": "<=",
    "ge": ">=", "geq": ">=", "ne": "!=", "neq": "!=", "approx": "~", "infty": "∞", "circ": "°",
    "degree": "°", "angle": "∠", "to": "→", "rightarrow": "→", "ohm": "Ω",
    "int": "∫", "sum": "∑", "prod": "∏",
    **{name: letter for letter, name in GREEK.items()},
}  # fmt: skip
"""A sign of the language for a command."""


def latex_in(
    text: str, functions: Container[str] = (), quantities: Container[str] = ()
) -> LineError | None:
    """The error for a line with LaTeX in it, and the same line in the signs of the language."""
    if COMMAND.search(text) is None:
        return None
    meant = _translated(text).strip()
    meant = call_for(meant, functions, quantities) or meant
    mends = () if re.search(r"[\\…∫∑∏]", meant) else (replace(Span(0, len(text)), meant),)
    return PASTED_LATEX(Span(0, len(text)), mends)


def _translated(text: str) -> str:
    text = DROPPED.sub(" ", text).replace(r"\%", "%").replace(r"^\circ", "°")
    text = DERIVATIVE.sub(r"d/\1 ", text)
    before = ""
    while text != before:  # from the innermost braces
        before = text
        text = UPRIGHT.sub(r"\1", text)
        text = RAISED.sub(lambda found: f"^{_grouped(found[1])}", text)
        text = LOWERED.sub(r"_\1", text)
        text = ROOT.sub(_root, text)
        text = FRACTION.sub(lambda found: f"({_grouped(found[1])}/{_grouped(found[2])})", text)
    text = COMMAND.sub(lambda found: SIGNS.get(found[1], found[1]), text)
    text = re.sub(r"\s+", " ", text.replace("{", "(").replace("}", ")")).strip()
    return _without_outer(text)


def _root(found: re.Match[str]) -> str:
    degree, under = found[1], found[2].strip()
    return f"root({under}, {degree})" if degree else f"sqrt({under})"


def _grouped(part: str) -> str:
    part = part.strip()
    return part if re.fullmatch(r"\\?\w+(?:\.\d+)?", part) else f"({part})"


def _without_outer(text: str) -> str:
    """``1/2`` for ``(1/2)``."""
    if not text.startswith("(") or not text.endswith(")"):
        return text
    depths = list(accumulate((sign == "(") - (sign == ")") for sign in text))
    return text[1:-1] if 0 not in depths[:-1] else text
