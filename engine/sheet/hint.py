"""What is at the caret: the function one is in, and the argument one is at."""

from __future__ import annotations

from typing import Any

from engine.functions.catalogue import BY_NAME, CONSTANTS
from engine.functions.record import Function
from engine.reading.tree import Call, LineTree, Name, Node, walk


def hint_at(tree: LineTree, text: str, caret: int) -> dict[str, Any] | None:
    """The card for the place before the code point ``caret``; None where there is
    nothing to say.

    The name that the caret touches goes before the call around it.
    """
    nodes = [node for statement in tree.statements for node in walk(statement.expression)]
    for node in nodes:
        if isinstance(node, Name) and node.span.start <= caret <= node.span.end:
            if node.name in CONSTANTS:
                return {"name": node.name, "summary": CONSTANTS[node.name].summary}
            if node.name in BY_NAME:
                return _card(BY_NAME[node.name], None)
    inside = [node for node in nodes if _is_inside(node, caret)]
    if not inside:
        return None
    call = max(inside, key=lambda node: node.span.start)
    function = BY_NAME[call.function]
    if caret <= call.name_span.end:
        return _card(function, None)
    return _card(function, _argument_at(text[call.name_span.end + 1 : caret], function))


def _is_inside(node: Node, caret: int) -> bool:
    if not (isinstance(node, Call) and node.function in BY_NAME):
        return False
    return node.name_span.start <= caret < node.span.end


def _argument_at(before: str, function: Function) -> int:
    """The place of the argument behind ``before``, the start of a call's arguments."""
    depth = commas = 0
    for sign in before:
        depth += (sign == "(") - (sign == ")")
        commas += sign == "," and depth == 0
    return min(commas, len(function.parameters) - 1)


def _card(function: Function, argument: int | None) -> dict[str, Any]:
    parameters = [
        {
            "name": parameter.name,
            "text": parameter.text,
            "domain": parameter.domain,
            "optional": parameter.optional,
            "here": place == argument,
        }
        for place, parameter in enumerate(function.parameters)
    ]
    return {
        "name": function.name,
        "summary": function.summary,
        "parameters": parameters,
        "examples": [
            {"input": example.input, "answer": f"{example.sign} {example.text}"}
            for example in function.examples[:2]
        ],
        "taken_for": function.taken_for,
    }
