"""``c(HCl)``, as chemistry prints a quantity with its substance: here its name is c_HCl."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence

from teapot.engine.diagnostics.names import Names
from teapot.engine.errors import LineError
from teapot.engine.mends import Notice, Span, replace, replace_each
from teapot.engine.reading.tree import Assignment, Call, Name, Node
from teapot.engine.sentences.names import NAMED_WITH_INDEX
from teapot.engine.sentences.warnings import UNUSED_PARAMETER


def said_of_definition(
    text: str, function: Assignment, nodes: Sequence[Node], names: Names
) -> Iterator[Notice]:
    """That ``m(NaCl) = 5.85 g`` is a function in which its NaCl does not occur; of a single small
    letter it is none: ``f(x) = 5``.  The same of one that is made of such quantities only:
    ``n(NaCl) = m(NaCl)/M(NaCl)``."""
    if function.parameters is None or len(function.parameters) != 1:
        return
    [parameter] = function.parameters
    if len(parameter) == 1 and parameter.islower():
        return
    known = {*names.quantity_names()}
    calls = [(node.span, name) for node, name in _indexed(nodes) if name in known]
    places = [node for node in nodes if isinstance(node, Name) and node.name == parameter]
    if len(places) > len(calls):
        return
    name = f"{function.targets[0].name}_{parameter}"
    sign = ":=" if function.live else "="
    target = Span(function.targets[0].span.start, function.body.start), f"{name} {sign} "
    mend = replace_each(text, sorted([target, *calls]))
    yield UNUSED_PARAMETER.notice((mend,), parameter=parameter, name=name)


def _indexed(nodes: Iterable[Node]) -> Iterator[tuple[Call, str]]:
    """The calls of a name alone, each with the quantity that may be meant."""
    for node in nodes:
        if isinstance(node, Call) and len(node.args) == 1 and isinstance(node.args[0], Name):
            yield node, f"{node.function}_{node.args[0].name}"


def named_with_index(
    nodes: Iterable[Node], quantity_names: Callable[[], Iterable[str]]
) -> LineError | None:
    """The error for the first ``c(HCl)`` where there is a quantity c_HCl; None where there is
    none."""
    calls = list(_indexed(nodes))
    known = {*quantity_names()} if calls else set()
    for node, name in calls:
        if name in known:
            return NAMED_WITH_INDEX(node.span, (replace(node.span, name),), name=name)
    return None
