"""Signs of vectors between lists, which work item by item: ``a·b``, ``a × b`` and ``|a|``.  What
was done is said, with the call that is meant of vectors."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from teapot.engine.diagnostics.names import Values
from teapot.engine.mends import Notice, replace
from teapot.engine.numbers.matrices import is_matrix
from teapot.engine.numbers.values import List, Value
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Binary, Call, Node
from teapot.engine.sentences.matrices import VECTORS_ITEM_BY_ITEM

PRODUCTS = {"·": ("dot", "scalar product"), "⋅": ("dot", "scalar product"),
            "×": ("cross", "vector product")}  # fmt: skip
"""The call that each sign means of vectors, and its name (ISO 80000-2, 18-1 and following)."""

LONGEST = 4
"""Items of a list that is taken for a vector."""


def said_of(text: str, nodes: Sequence[Node], values: Values) -> Iterator[Notice]:
    """The notice on the first of them in the line ``text``."""
    for node in nodes:
        if isinstance(node, Binary) and node.op == "*":
            sign = text[slice(*node.op_span)].strip()
            call, name = PRODUCTS.get(sign, ("", ""))
            sides = [values.get(id(side)) for side in (node.left, node.right)]
            if not call or not all(map(_is_vector, sides)) or (call == "cross" and _far(sides)):
                continue
            meant = f"{call}({node_text(node.left)}, {node_text(node.right)})"
        elif isinstance(node, Call) and text[node.span.start : node.span.start + 1] == "|":
            sign, name = "|…|", "length of a vector"
            if node.function != "abs" or not _is_vector(values.get(id(node.args[0]))):
                continue
            meant = f"norm({node_text(node.args[0])})"
        else:
            continue
        yield VECTORS_ITEM_BY_ITEM.notice((replace(node.span, meant),), sign=sign, name=name)
        return


def _is_vector(value: Value | None) -> bool:
    return isinstance(value, List) and 2 <= len(value.items) <= LONGEST and not is_matrix(value)


def _far(sides: Sequence[Value | None]) -> bool:
    """Whether they have no vector product, which is one of three components each."""
    return any(not isinstance(side, List) or len(side.items) != 3 for side in sides)
