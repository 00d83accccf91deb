"""``c(HCl)`` and ``[HCl]``, as chemistry prints a quantity with its substance: here its name is
c_HCl."""

from __future__ import annotations

import re
from collections.abc import Callable, Container, Iterable, Iterator, Sequence

from teapot.engine.diagnostics.names import Names
from teapot.engine.errors import LineError
from teapot.engine.mends import Notice, Span, replace, replace_each
from teapot.engine.reading.tree import Assignment, Call, Name, Node
from teapot.engine.sentences.names import CONCENTRATION_HAS_NAME, NAMED_WITH_INDEX
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


CONCENTRATION = re.compile(r"(?<![\w)])\[\s*(?P<substance>[A-Z][A-Za-z0-9]*?)(?:\s*\d?[-+−])?\s*\]")
"""``[H+]``, ``[SO4 2-]``, ``[HA]``: the concentration of a substance."""


def concentration_in(text: str, quantities: Container[str]) -> LineError | None:
    """The error for ``[H+] = 10^-7 mol/L`` and ``-lg([H+])``; None where no brackets hold an ion,
    or a substance that is given its concentration."""
    places = [
        (Span(*found.span()), f"c_{found['substance']}", found[0][-2] in "+-−")
        for found in CONCENTRATION.finditer(text)
        if found["substance"] not in quantities
    ]
    is_target = any(
        place.start == 0 and text[place.end :].lstrip()[:1] in ("=", ":") for place, _, _ in places
    )
    if not is_target and not any(has_charge for _, _, has_charge in places):
        return None
    place, name, _ = places[0]
    parts = [
        (one, f"*{named}" if text[: one.start].endswith("]") else named) for one, named, _ in places
    ]
    mend = replace_each(text, parts)
    overwrites = is_target and name in quantities
    return CONCENTRATION_HAS_NAME(place, () if overwrites else (mend,), name=name)
