"""Inputs that are easily read otherwise than they are: a quiet notice for each,
with the other reading as a mend.

Only what is nearly always a slip is here: a hundred ordinary lines of homework
shall give hardly any.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from flint import fmpq

from engine.mends import Mend, Notice, Span, replace, replace_each
from engine.reading.tokens import plain, split_note
from engine.reading.tree import (
    Binary,
    Call,
    Formatted,
    LineTree,
    ListOf,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    walk,
)
from engine.reading.vocabulary import UNIT_WORDS, UNITS

_COMMA_BETWEEN_FIGURES = re.compile(r"(?<![\w.])\d+(?:,\d+)+(?:\.\d+)?(?:[eE][-+]?\d+)?(?![\w.])")
_POINTS_AND_COMMA = re.compile(r"(?<![\w.])\d{1,3}(?:\.\d{3})+,\d+(?![\w.,])")
_THOUSANDS = re.compile(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?")


def traps_in(
    text: str, tree: LineTree, nodes: Sequence[Node], angle: str = "rad"
) -> Iterator[Notice]:
    """The notices for a line, of which ``nodes`` are all parts: at most one of a kind.
    ``angle`` is the unit in which its bare angles are read."""
    seen: set[str] = set()
    brackets = {(opening.start, closing.end) for opening, closing in tree.brackets}
    for node in nodes:
        for notice in _traps_at(text, node, brackets):
            if notice.code not in seen:
                seen.add(notice.code)
                yield notice
    yield from _angle_traps(text, nodes, angle)
    if len(tree.statements) > 1:
        yield from _commas(text, tree)


def _traps_at(text: str, node: Node, brackets: set[tuple[int, int]]) -> Iterator[Notice]:
    match node:
        case Binary(op="implied", left=Binary(op="/") as quotient):
            if not _is_bracketed(text, quotient, brackets):
                yield _implied_behind_fraction(text, quotient, node)
        case Binary(op="/", left=Binary(op="^", right=exponent) as power, right=Literal() as below):
            if _is_one(exponent) and not _is_bracketed(text, power, brackets):
                yield _fraction_behind_power(text, exponent, below)
        case Binary(
            op="^",
            left=Prefix(op="-", operand=Literal()) as base,
            right=Binary(op="/", left=Literal(text="1"), right=Literal() as degree) as exponent,
        ):
            if degree.text.isdecimal() and int(degree.text) % 2:
                yield _odd_root(text, base, exponent, node)
        case Prefix(op="-", operand=Binary(op="^", left=Literal(), right=Literal() as n) as power):
            if n.text.isdecimal() and int(n.text) % 2 == 0:
                yield _sign_before_power(text, node, power)
        case Binary(op="^", left=Literal(), right=Binary(op="^", left=Literal()) as tower):
            if not _is_bracketed(text, tower, brackets):
                yield _tower(text, node, tower)
        case Binary(op="implied", left=Literal(), right=Name(name="e")) if not _gap(node):
            yield _times_e(text, node)
        case Binary(op="implied", left=Binary(op="^") as power, right=Name() as behind):
            if not _is_bracketed(text, power, brackets) and _may_go_on(node, power):
                yield _power_ends(text, power, behind)
        case Binary(op="+" | "-" as op, right=Postfix(op="%", operand=Literal() as part)):
            yield _percent_of(text, node, op, part)
        case Postfix(op=op, operand=Call(function=name, args=(inside,)) as call):
            if op in UNITS and name in TRIGONOMETRIC and not call.is_own:
                yield _unit_outside(text, node, op, inside)
        case ListOf(items=(Range() as inner,)):
            yield _list_in_list(text, node, inner)
        case Binary(left=left, right=right) if _is_list_of_one(left) or _is_list_of_one(right):
            yield _list_of_one(text, left if _is_list_of_one(left) else right)
        case Literal():
            yield from _ten_and_exponent(text, node)


def _gap(node: Binary) -> int:
    """The spaces between two factors with no sign."""
    return node.op_span.end - node.op_span.start


def _may_go_on(node: Binary, power: Binary) -> bool:
    """Whether what stands behind a power may have been meant for its exponent."""
    return not _gap(node) or (isinstance(power.right, Name) and power.right.name in ("i", "j"))


def _times_e(text: str, node: Binary) -> Notice:
    number = text[slice(*node.left.span)]
    said = f"This is {number} times e, Euler's number. A power of ten has figures behind the e."
    return Notice("times-e", said, (replace(node.span, f"{number}*e"),))


def _power_ends(text: str, power: Binary, behind: Name) -> Notice:
    exponent = text[slice(*power.right.span)]
    said = f"The exponent is {exponent} alone: what comes behind it multiplies the power."
    start = power.right.span.start
    typed = f"({exponent} {text[slice(*behind.span)]})"
    return Notice("power-ends", said, (replace(Span(start, behind.span.end), typed),))


def _percent_of(text: str, node: Binary, op: str, part: Literal) -> Notice:
    whole = text[slice(*node.left.span)]
    left = whole if isinstance(node.left, Literal | Name | Call) else f"({whole})"
    percent = f"{text[slice(*part.span)]}%"
    said = f"{percent} is {part.text} hundredths, and not a part of what comes before it."
    return Notice("percent-of", said, (replace(node.span, f"{left}*(1{op}{percent})"),))


def _unit_outside(text: str, node: Postfix, op: str, inside: Node) -> Notice:
    unit = f" {op}" if op.isalpha() else op
    typed = text[slice(*inside.span)]
    argument = typed if _is_bare(inside) or isinstance(inside, Name) else f"({typed})"
    name = node.operand.function
    said = f"The unit is that of the value of {name} here, and not that of its angle."
    return Notice("unit-outside", said, (replace(node.span, f"{name}({argument}{unit})"),))


def _is_list_of_one(node: Node) -> bool:
    return isinstance(node, ListOf) and len(node.items) == 1


def _list_of_one(text: str, one: ListOf) -> Notice:
    typed = text[slice(*one.span)]
    said = "Square brackets make a list, here of one item. To group, use round brackets."
    return Notice("list-of-one", said, (replace(one.span, f"({typed[1:-1]})"),))


def _list_in_list(text: str, node: ListOf, inner: Range) -> Notice:
    typed = text[slice(*inner.span)]
    said = f"{typed} is a list by itself; square brackets around it make a list of that list."
    return Notice("list-in-list", said, (replace(node.span, typed),))


TRIGONOMETRIC = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
LEAST_DEGREES = 15
"""A whole number of this size or more, written straight into a sine, nearly always
is meant in degrees."""

ANGLE_FORMS = UNIT_WORDS | {"dms"}
"""Forms in which a number is shown as an angle."""


def _angle_traps(text: str, nodes: Sequence[Node], angle: str) -> Iterator[Notice]:
    """Numbers that were read in a unit that nearly always is another than the one that
    is meant; one mend for all of a kind."""
    operands = [operand for operand in map(_read_as_angle, nodes) if operand is not None]
    operands = [item for operand in operands for item in _items_of(operand)]
    if angle == "rad":
        degrees = [node for node in operands if _is_bare(node) and _is_of_degrees(node)]
        if degrees:
            degrees = [node for node in operands if _is_bare(node) and _may_be_degrees(node)]
        if degrees:
            typed = {text[slice(*node.span)] for node in degrees}
            as_read = f"{typed.pop()} radians" if len(typed) == 1 else "radians"
            said = f"{_read(text, degrees, 'read as')} {as_read}."
            yield Notice("degrees-as-radians", said, (_in(text, degrees, "°"),))
        return
    in_radians = [node for node in operands if _is_of_pi(node) or _is_call_of(node, "radians")]
    if in_radians:
        said = f"{_read(text, in_radians, 'read')} in {angle}, the unit of the sheet."
        yield Notice("radians-in-other-unit", said, (_in(text, in_radians, " rad"),))


def _read(text: str, nodes: list[Node], how: str) -> str:
    """``30 was read``, ``30 and 60 were read``: which parts of the line, as they are typed."""
    typed = list(dict.fromkeys(text[slice(*node.span)] for node in sorted(nodes, key=_start)))
    *before, last = typed
    listed = f"{', '.join(before)} and {last}" if before else last
    return f"{listed} {'were' if before else 'was'} {how}"


def _in(text: str, nodes: list[Node], unit: str) -> Mend:
    """The mend that puts ``unit`` behind each of the parts, in brackets where it has to."""

    def with_unit(node: Node) -> str:
        typed = text[slice(*node.span)]
        is_one = _is_bare(node) or isinstance(node, Name | Call)
        return typed + unit if is_one else f"({typed}){unit}"

    return replace_each(text, [(node.span, with_unit(node)) for node in sorted(nodes, key=_start)])


def _items_of(operand: Node) -> list[Node]:
    """The numbers of a list or a range, if one of them nearly always is in degrees."""
    items = operand.children if isinstance(operand, ListOf | Range) else ()
    if not items:
        return [operand]
    are_whole = all(_is_bare(one) and _value_of(one).q == 1 for one in items)
    return [*items] if are_whole and any(map(_is_of_degrees, items)) else []


def _value_of(node: Node) -> fmpq:
    return (node.operand if isinstance(node, Prefix) else node).value


def _start(node: Node) -> int:
    return node.span.start


def _read_as_angle(node: Node) -> Node | None:
    """The part of ``node`` that is read as an angle, though it may be a bare number."""
    match node:
        case Call(function=name, args=(argument,)) if name in TRIGONOMETRIC:
            return argument
        case Binary(op="∠", right=angle):
            return angle
        case Formatted(expression=expression, forms=forms):
            return expression if any(words[0] in ANGLE_FORMS for words in forms) else None
    return None


def _is_call_of(node: Node, function: str) -> bool:
    """Whether ``node`` calls the function with one argument."""
    return isinstance(node, Call) and node.function == function and len(node.args) == 1


def _is_bare(node: Node) -> bool:
    """Whether ``node`` is a number as it is typed, with a sign or without."""
    return isinstance(node.operand if isinstance(node, Prefix) else node, Literal)


def _may_be_degrees(node: Node) -> bool:
    """Whether it is a whole number: beside one in degrees it is in degrees too."""
    return _value_of(node).q == 1


def _is_of_degrees(node: Node) -> bool:
    """Whether the bare number is one that nearly always is meant in degrees."""
    literal = node.operand if isinstance(node, Prefix) else node
    return literal.value.q == 1 and literal.value >= LEAST_DEGREES


def _is_of_pi(node: Node) -> bool:
    """Whether ``node`` is computed from numbers and π alone, with no unit."""
    names = [part for part in walk(node) if isinstance(part, Name)]
    plain_parts = all(isinstance(part, Name | Literal | Binary | Prefix) for part in walk(node))
    return plain_parts and bool(names) and all(part.name == "pi" for part in names)


def _odd_root(text: str, base: Prefix, exponent: Binary, power: Binary) -> Notice:
    degree = exponent.right.text
    typed = text[slice(*base.span)]
    real = f"cbrt({typed})" if degree == "3" else f"root({typed}, {degree})"
    said = "This is the principal root, a complex number; the real one is a function."
    return Notice("principal-root", said, (replace(power.span, real),))


def _implied_behind_fraction(text: str, quotient: Binary, product: Binary) -> Notice:
    start = quotient.op_span.end
    start += len(text[start:]) - len(text[start:].lstrip())
    divisor = Span(start, product.span.end)
    return Notice(
        "reads-as-fraction-first",
        f"This reads as ({text[slice(*quotient.span)]}) times what follows it.",
        (replace(divisor, f"({text[slice(*divisor)]})"),),
    )


def _fraction_behind_power(text: str, exponent: Node, below: Literal) -> Notice:
    place = Span(exponent.span.start, below.span.end)
    return Notice(
        "power-before-fraction",
        "The power binds tighter than the fraction: only what is before / is the exponent.",
        (replace(place, f"({text[slice(*place)]})"),),
    )


def _sign_before_power(text: str, node: Prefix, power: Binary) -> Notice:
    base = Span(node.span.start, power.left.span.end)
    typed, raised = text[slice(*node.span)], text[slice(*power.span)]
    return Notice(
        "power-before-sign",
        f"{typed} means -({raised}): the power comes before the sign.",
        (replace(base, f"({text[slice(*base)]})"),),
    )


def _tower(text: str, node: Binary, tower: Binary) -> Notice:
    first = Span(node.left.span.start, tower.left.span.end)
    return Notice(
        "powers-from-the-right",
        f"Powers are done from the right: the exponent is {text[slice(*tower.span)]}.",
        (replace(first, f"({text[slice(*first)]})"),),
    )


def _ten_and_exponent(text: str, node: Literal) -> Iterator[Notice]:
    typed = text[slice(*node.span)].lower()
    mantissa, _, exponent = typed.partition("e")
    if mantissa == "10" and exponent and int(exponent):
        yield Notice(
            "ten-times-power",
            f"10e{exponent} is 10 times ten to the power {exponent}: 1e{int(exponent) + 1}.",
            (replace(node.span, f"10^{int(exponent)}"),),
        )


def _commas(text: str, tree: LineTree) -> Iterator[Notice]:
    """``3,5`` and ``1,000,000``: commas separate statements here."""
    body = plain(split_note(text)[0])
    found = [
        one
        for pattern in (_COMMA_BETWEEN_FIGURES, _POINTS_AND_COMMA)
        for one in pattern.finditer(body)
        if not any(o.end <= one.start() < c.start for o, c in tree.brackets)
    ]
    if not found:
        return
    mends: list[Mend] = []
    if all(_POINTS_AND_COMMA.fullmatch(one[0]) for one in found):
        plainly = [(Span(*f.span()), f[0].replace(".", "").replace(",", ".")) for f in found]
        mends.append(replace_each(text, plainly))
    if all(_THOUSANDS.fullmatch(one[0]) for one in found):
        mends.append(replace_each(text, [(Span(*f.span()), f[0].replace(",", "")) for f in found]))
    if all(one[0].count(",") == 1 and "." not in one[0] for one in found):
        mends.append(replace_each(text, [(Span(*f.span()), f[0].replace(",", ".")) for f in found]))
    if mends:
        said = "A comma separates two answers here."
        yield Notice("comma-between-figures", said, tuple(mends))


def _is_one(node: Node) -> bool:
    bare = node.operand if isinstance(node, Prefix) else node
    return isinstance(bare, Literal) and bare.text == "1"


def _is_bracketed(text: str, node: Node, brackets: set[tuple[int, int]]) -> bool:
    """Whether the person has put brackets just around ``node``."""
    before = len(text[: node.span.start].rstrip())
    behind = len(text) - len(text[node.span.end :].lstrip())
    return (before - 1, behind + 1) in brackets
