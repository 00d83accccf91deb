"""Names that nothing has: what may be meant by them."""

from __future__ import annotations

import re
from collections.abc import Iterable

from engine.errors import LineError, Mend, replace
from engine.functions.catalogue import BY_NAME, CONSTANTS, called_in_words, closest
from engine.handbook.search import search
from engine.reading.plain import node_text
from engine.reading.tokens import UNIT_WORDS
from engine.reading.traps import TRIGONOMETRIC
from engine.reading.tree import Call, Literal, Name, Postfix

BESSEL = re.compile(r"([JYIK])_?(\d)")
"""``J0``: a Bessel function with its order."""

RUN_TOGETHER = re.compile(r"([a-z]+)_?([0-9]+)")
"""``sqrt2``: a function's name and its argument, or ``log3``: that and its base."""


def unknown_name(node: Name, quantities: Iterable[str]) -> LineError:
    """The error for a name that nothing has, with what is closest to it."""
    name = node.name
    if name in UNIT_WORDS:
        text = f"{name} is a unit of angles: it stands behind a number, as in 2 {name}."
        return LineError("bare-unit", text, node.span)
    if _function_and_number(name):
        return run_together(node)
    other = closest(name, {*quantities, *CONSTANTS, *BY_NAME})
    if other is None:
        text = f"No quantity is named {name} yet. {name} = … gives it a value."
        return LineError("unknown-name", text, node.span)
    text = f"No quantity is named {name}. Is {other} meant?"
    return LineError("unknown-name", text, node.span, (replace(node.span, other),))


def _function_and_number(name: str) -> tuple[str, str] | None:
    parts = RUN_TOGETHER.fullmatch(name)
    return (parts[1], parts[2]) if parts and parts[1] in BY_NAME else None


def run_together(node: Name | Postfix) -> LineError | None:
    """``sqrt2`` or ``sin30°``: the error that puts the brackets in; None for another node."""
    name, unit = (node.operand, node.op) if isinstance(node, Postfix) else (node, "")
    parts = _function_and_number(name.name) if isinstance(name, Name) else None
    if parts is None:
        return None
    function, number = parts
    gap = " " if unit.isalpha() else ""
    text = f"The argument of {function} stands in brackets."
    mend = replace(node.span, f"{function}({number}{gap}{unit})")
    return LineError("no-brackets", text, node.span, (mend,))


def unknown_function(node: Call, functions: Iterable[str]) -> LineError:
    """The error for a call of what is no function, with the one that may be meant."""
    other_way = _written_otherwise(node)
    if other_way is not None:
        return other_way
    base = _function_and_number(node.function)
    if base and base[0] == "log" and len(node.args) == 1 and f"log{base[1]}" not in BY_NAME:
        return _base_in_the_name(node, base[1])
    name = node.function
    other = called_in_words(name) or closest(name, [*BY_NAME, *functions]) or _by_purpose(name)
    if other is None:
        text = f"No function is named {name} yet. {name}(x) = … makes one."
        return LineError("unknown-function", text, node.name_span)
    text = f"No function is named {name}. Is {other} meant?"
    return LineError("unknown-function", text, node.name_span, (replace(node.name_span, other),))


def _written_otherwise(node: Call) -> LineError | None:
    """``sind(30)``, ``asind(0.5)``, ``square(3)``, ``J0(1)``: what is no function of the
    language is written with what it has."""
    if len(node.args) != 1 or node.named:
        return None
    name, argument = node.function, node_text(node.args[0])
    bare = isinstance(node.args[0], Name | Literal | Call)
    enclosed = argument if bare else f"({argument})"
    powers = {"square": "^2", "squared": "^2", "cube": "^3", "cubed": "^3"}
    bessel = BESSEL.fullmatch(name)
    if name in powers:
        meant = enclosed + powers[name]
    elif name.endswith("d") and name[:-1] in TRIGONOMETRIC:
        meant = f"{name[:-1]}({enclosed}°)"
    elif name.endswith("d") and name[:-1] in BY_NAME and name.startswith(("asin", "acos", "atan")):
        meant = f"{BY_NAME[name[:-1]].name}({argument}) as deg"
    elif bessel:
        meant = f"bessel_{bessel[1].lower()}({bessel[2]}, {argument})"
    else:
        return None
    text = f"No function is named {name}: this is written {meant}."
    return LineError("unknown-function", text, node.name_span, (replace(node.span, meant),))


def _base_in_the_name(node: Call, base: str) -> LineError:
    """``log_3(81)``."""
    text = f"The base of a logarithm stands behind its argument: log(x, {base})."
    mend: Mend = replace(node.span, f"log({node_text(node.args[0])}, {base})")
    return LineError("unknown-function", text, node.name_span, (mend,))


def _by_purpose(name: str) -> str | None:
    """The function that the handbook finds for a word such as ``average``."""
    if len(name) == 1:
        return None
    found = (entry.name for entry in search(name) if entry.name in BY_NAME)
    return next(found, None)
