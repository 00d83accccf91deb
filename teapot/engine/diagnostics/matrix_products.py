"""Products, quotients and powers of matrices, which ``*``, ``/`` and ``^`` do item by item: what
was done is said, or that it cannot be done, with the call that is meant."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from teapot.engine.diagnostics.names import Values
from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Notice, replace
from teapot.engine.numbers.matrices import is_matrix
from teapot.engine.numbers.values import List, Value
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import IMPLIED, Binary, Node
from teapot.engine.sentences.matrices import DIVIDED_ITEM_BY_ITEM, ITEM_BY_ITEM, RAISED_ITEM_BY_ITEM


def said_of(nodes: Sequence[Node], values: Values) -> Iterator[Notice]:
    """``A*B``, ``A/B`` and ``A^2`` of matrices, which are done item by item."""
    for node in nodes:
        if not isinstance(node, Binary):
            continue
        left, right = (values.get(id(side)) for side in (node.left, node.right))
        if not isinstance(left, List) or not (is_matrix(left) or is_matrix(right)):
            continue
        first, second = node_text(node.left), node_text(node.right)
        if _is_product(node, left, right):
            yield ITEM_BY_ITEM.notice((_as_dot(node),))
        elif is_matrix(right) and node.op == "/":
            mend = replace(node.span, f"dot({first}, inverse({second}))")
            yield DIVIDED_ITEM_BY_ITEM.notice((mend,))
        elif not isinstance(right, List) and node.op == "^":
            power = {"2": f"dot({first}, {first})", "-1": f"inverse({first})"}.get(second)
            yield RAISED_ITEM_BY_ITEM.notice((replace(node.span, power),) if power else ())
        else:
            continue
        return


def of_lengths(error: LineError, node: Binary, first: Value, second: Value) -> LineError:
    """``A*b`` with as many rows as do not go together item by item."""
    if _is_product(node, first, second):
        return ITEM_BY_ITEM(node.span, (_as_dot(node),))
    return error


def _is_product(node: Binary, first: Value | None, second: Value | None) -> bool:
    """Whether it is one of two lists, of which at least one is a matrix."""
    are_lists = isinstance(first, List) and isinstance(second, List)
    return are_lists and node.op in ("*", IMPLIED) and (is_matrix(first) or is_matrix(second))


def _as_dot(node: Binary) -> Mend:
    return replace(node.span, f"dot({node_text(node.left)}, {node_text(node.right)})")
