"""Calls about an expression in a name that are put otherwise elsewhere:
``integrate(x^2, x, 0, 3)``, ``plot(sin(x))``, ``roots(x^2 - 4)``."""

from __future__ import annotations

from collections.abc import Callable, Container, Iterable

from teapot.engine.analysis.bound import USUAL_INTERVAL, usual_interval
from teapot.engine.analysis.reader import names_in
from teapot.engine.diagnostics.calculus_on_paper import unknown_in
from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.mends import replace
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Call, ColumnOf, Comparison, ListOf, Name, Node, Range, walk
from teapot.engine.sentences.analysis import WRITTEN_AS_CALL

MEANT = {
    **dict.fromkeys(("integral", "integrate", "int", "int_", "quad"), "integral"),
    **dict.fromkeys(("derivative", "differentiate", "diff", "deriv"), "derivative"),
    **dict.fromkeys(("graph", "plot", "draw", "chart", "sketch"), "graph"),
    **dict.fromkeys(("solve", "roots", "root_of", "roots_of", "zero", "zeros", "solver"), "solve"),
}
"""What a call of each may mean.  Common practice of the trade."""


def bound_call_in(
    nodes: Iterable[Node], quantity_names: Callable[[], Iterable[str]]
) -> LineError | None:
    """The error for the first such call, with what is written here; None where there is none."""
    calls = [one for one in nodes if isinstance(one, Call) and one.function in MEANT]
    quantities = {*quantity_names()} if calls else set()
    for node in calls:
        call = _meant(node, quantities)
        if call is not None and call != node_text(node):
            return WRITTEN_AS_CALL(node.span, (replace(node.span, call),), call=call)
    return None


def _meant(node: Call, quantities: Container[str]) -> str | None:
    function = MEANT[node.function]
    if function == "solve":
        return _equation(node, quantities)
    if function == "integral" and len(node.named) > 1 and len(node.args) == 1:
        return _one_in_another(node)
    parts = _parts(function, node, quantities)
    if parts is None:
        return None
    expressions, name, where = parts
    return f"{function}({', '.join(map(node_text, expressions))}, {name} = {where})"


def _one_in_another(node: Call) -> str | None:
    """``integral(x y, x = 0..1, y = 0..2)``: the first name is the inner one, unless the range of
    another tells of it."""
    ranges = node.named
    if not all(isinstance(where, Range) for _, where in ranges):
        return None
    first = ranges[0][0]
    if any(first in names_in(where) for _, where in ranges):
        ranges = ranges[::-1]
    call = node_text(node.args[0])
    for name, where in ranges:
        call = f"integral({call}, {name} = {node_text(where)})"
    return call


def _parts(
    function: str, node: Call, quantities: Container[str]
) -> tuple[tuple[Node, ...], str, str] | None:
    """The expressions, the name and where it goes."""
    args = node.args
    if len(node.named) == 1 and args:
        name, where = node.named[0]
        is_range = isinstance(where, Range)
        if node.function == function or is_range == (function == "derivative"):
            return None
        return args, name, node_text(where)
    if node.named:
        return None
    match args:
        case (*expressions, Name(name=name), a, b) if expressions and function != "derivative":
            return tuple(expressions), name, f"{node_text(a)}..{node_text(b)}"
        case (*expressions, Name(name=name), Range() as where) if expressions:
            return tuple(expressions), name, node_text(where)
        case (expression, Name(name=name), at) if function == "derivative":
            return (expression,), name, node_text(at)
    match args:
        case (Name(span=span, name=name), *rest) if name in BY_NAME or name in quantities:
            args = (Call(span, name, (Name(span, "x"),)), *rest)  # a function alone
    if function == "graph" and all(isinstance(one, ColumnOf) for one in args):
        return None  # points alone
    text = " ".join(map(node_text, args))
    unknown = unknown_in(text, BY_NAME, quantities) or unknown_in(text, BY_NAME)
    if not unknown:
        return None
    match args:
        case (expression, a, b) if function == "graph" and not names_in(a) | names_in(b):
            return (expression,), unknown, f"{node_text(a)}..{node_text(b)}"
        case _ if function == "graph":
            return args, unknown, USUAL_INTERVAL
        case (expression, Range() as where) if function == "integral":
            return (expression,), unknown, node_text(where)
        case (expression, a, b) if function == "integral":
            return (expression,), unknown, f"{node_text(a)}..{node_text(b)}"
        case (expression, at) if function == "derivative" and not isinstance(at, Name):
            return (expression,), unknown, node_text(at)
    return None


def _equation(node: Call, quantities: Container[str]) -> str | None:
    """``solve(x^2 == 4)`` and ``roots(x^2 - 4)``, also with the name after it or its range."""
    if len(node.args) == len(node.named) == 1 and not isinstance(node.args[0], Comparison | ListOf):
        [(unknown, where)] = node.named
        return f"solve({node_text(node.args[0])} == 0, {unknown} = {node_text(where)})"
    if node.named or not node.args or len(node.args) > 2:
        return None
    equation, *rest = node.args
    text = node_text(equation)
    if rest:
        name = rest[0].name if isinstance(rest[0], Name) else None
    else:
        name = unknown_in(text, BY_NAME, quantities)
    if name is None:
        return None
    bound = (
        name
        if rest or _is_without_functions(equation, quantities)
        else f"{name} = {usual_interval(text)}"
    )
    return f"solve({text if isinstance(equation, Comparison) else f'{text} == 0'}, {bound})"


def _is_without_functions(equation: Node, quantities: Container[str]) -> bool:
    """Whether none of the language's stands in it, for which it has to be said where to look."""
    calls = (one for one in walk(equation) if isinstance(one, Call))
    return all(one.function in quantities for one in calls)
