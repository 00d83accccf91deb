"""Inputs that are easily read otherwise than they are: a quiet notice for each,
with the other reading as a mend.

Only what is nearly always a slip is here: a hundred ordinary lines of homework
shall give hardly any.
"""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import Any, TypeGuard, cast

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Notice, Span, replace, replace_each
from teapot.engine.reading.tokens import OVERLINES, plain, split_note
from teapot.engine.reading.tree import (
    IMPLIED,
    Assignment,
    Binary,
    Call,
    Formatted,
    LineTree,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Text,
    walk,
)
from teapot.engine.reading.units import YEAR, is_rare
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, TRIGONOMETRIC, UNIT_WORDS, UNITS
from teapot.engine.sentences.units import REST_OF_UNIT
from teapot.engine.sentences.warnings import (
    COMMA_BETWEEN_FIGURES,
    DEGREES_AS_RADIANS,
    FRACTION_FIRST,
    LIST_IN_LIST,
    LIST_OF_ONE,
    LOST_SUPERSCRIPT,
    MEASURED_IN_BRACKETS,
    MILLISECOND,
    PERCENT_BELOW,
    PERCENT_OF,
    POWER_BEFORE_FRACTION,
    POWER_BEFORE_SIGN,
    POWER_ENDS,
    POWERS_FROM_THE_RIGHT,
    PRINCIPAL_ROOT,
    QUANTITY_FOR_UNIT,
    RADIANS_IN_OTHER_UNIT,
    READ_AS_MEASURED,
    READ_AS_PLUS_MINUS,
    READ_AS_REPEATING,
    READ_AS_UNITS,
    TEN_TIMES_POWER,
    TEXT_IN_PARTS,
    TIMES_E,
    UNIT_OUTSIDE,
)
from teapot.engine.units.listed import is_listed
from teapot.engine.units.table import atom_of

Brackets = set[tuple[int, int]]
"""The places of the pairs of brackets in a line."""

_COMMA_BETWEEN_FIGURES = re.compile(r"(?<![\w.])\d+(?:,\d+)+(?:\.\d+)?(?:[eE][-+]?\d+)?(?![\w.])")
_POINTS_AND_COMMA = re.compile(r"(?<![\w.])\d{1,3}(?:\.\d{3})+,\d+(?![\w.,])")
_THOUSANDS = re.compile(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?")


def warnings_in(
    text: str, tree: LineTree, nodes: Sequence[Node], angle: str = "rad"
) -> Iterator[Notice]:
    """The notices for a line, of which ``nodes`` are all parts: at most one of a kind.
    ``angle`` is the unit in which its bare angles are read."""
    seen: set[str] = set()
    for_units: list[Notice] = []
    brackets = {(opening.start, closing.end) for opening, closing in tree.brackets}
    for node in nodes:
        kind = type(node)
        if kind is Name or kind is Call:
            continue
        notice = _warning_at(text, node, kind, brackets)
        if notice is not None and _is_of_parameter(text, notice, tree):
            continue  # f(t) = 5 t
        if notice is not None and notice.code == QUANTITY_FOR_UNIT.code:
            for_units.append(notice)
            continue
        if notice is not None and notice.code not in seen:
            seen.add(notice.code)
            yield notice
    if for_units:
        yield _all_in_one(text, for_units)
    if any(_reads_an_angle(node) for node in nodes):
        yield from _angle_warnings(text, nodes, angle)
    yield from _lost_superscript(text)
    if len(tree.statements) > 1:
        yield from _commas(text, tree)
        yield from _spoken(text, tree)


LOST = re.compile(r"(?<![\w.])(\d(?:\.\d+)?)\s*[×·]\s*10([-−–]\d{1,2}|[1-9]\d?)(?![\w.])")
"""``1.6×10-19`` and ``3.0 × 108``: a number of one figure before the point, and ten."""


def _lost_superscript(text: str) -> Iterator[Notice]:
    """A power of ten that lost its exponent's place in a paste."""
    found = LOST.search(text)
    if found is not None:
        power = f"{found[1]}e{int(found[2].replace('−', '-').replace('–', '-'))}"
        yield LOST_SUPERSCRIPT.notice((replace(Span(*found.span()), power),), power=power)


def _all_in_one(text: str, notices: list[Notice]) -> Notice:
    """The first of them, with a mend for the places of all."""
    places = {one.mends[0].span: one.mends[0].replacement for one in notices}
    return dataclasses.replace(notices[0], mends=(replace_each(text, sorted(places.items())),))


def rest_of_unit(text: str, error: LineError, notices: Iterable[Notice]) -> LineError:
    """The error for a name without a value that is the rest of a unit which a quantity stands in:
    the s of 9.81 m/s^2, where m is a quantity.  Any other error as it is."""
    name = text[slice(*error.span)] if error.span is not None else ""
    found = next((one for one in notices if one.code == QUANTITY_FOR_UNIT.code), None)
    if found is None or not name or atom_of(name) is None:
        return error
    quantity = found.text.partition(" ")[0]
    unit = atom_of(quantity)
    full = unit.names[0] if unit is not None else quantity
    return REST_OF_UNIT(error.span, found.mends, quantity=quantity, name=name, unit=full)


def _is_of_parameter(text: str, notice: Notice, tree: LineTree) -> bool:
    """Whether it is about the name of an argument, or a bound one, which nobody takes for a
    unit."""
    if notice.code != QUANTITY_FOR_UNIT.code:
        return False
    name = text[slice(*notice.mends[0].span)]
    return any(
        isinstance(one, Assignment) and name in (one.parameters or ()) for one in tree.statements
    ) or any(
        isinstance(node, Call) and (name in dict(node.named) or _is_unknown(name, node))
        for one in tree.statements
        for node in walk(one.expression)
    )


def _is_unknown(name: str, call: Call) -> bool:
    """Whether an equation is solved for it: ``solve(5 m/s t == 3 m, t)``."""
    unknowns = call.args[1:] if call.function == "solve" else ()
    return any(isinstance(one, Name) and one.name == name for one in unknowns)


def _spoken(text: str, tree: LineTree) -> Iterator[Notice]:
    """``"The area is", a, "m2"``: a sentence in parts, with commas between."""
    parts = [statement.expression for statement in tree.statements]
    is_told = any(isinstance(part, Text) for part in parts)
    if not is_told or all(isinstance(part, Text) for part in parts) or ";" in text:
        return
    if any(isinstance(statement, Assignment) for statement in tree.statements):
        return
    inner = (
        text[part.span.start + 1 : part.span.end - 1].strip()
        if isinstance(part, Text)
        else f"{{{text[slice(*statement.body)].strip()}}}"
        for part, statement in zip(parts, tree.statements, strict=True)
    )
    span = parts[0].span.to(parts[-1].span)
    yield TEXT_IN_PARTS.notice((replace(span, f'"{" ".join(inner)}"'),))


def _warning_at(text: str, node: Any, kind: type[Node], brackets: Brackets) -> Notice | None:
    if kind is Binary:
        for rule in RULES_OF_OPERATORS.get(node.op, ()):
            found = rule(text, node, brackets)
            if found is not None:
                return found
        if type(node.left) is ListOf or type(node.right) is ListOf:
            return _list_of_one(text, node, brackets)
        return None
    if kind is Literal:
        return _ten_and_exponent(text, node) if "e" in node.text else None
    of_kind = RULES.get(kind)
    return None if of_kind is None else of_kind(text, node, brackets)


def _reads_an_angle(node: Node) -> bool:
    """Whether a part of it may be read as an angle."""
    if isinstance(node, Call):
        return node.function in TRIGONOMETRIC
    return isinstance(node, Formatted) or (isinstance(node, Binary) and node.op == "∠")


def _gap(node: Binary) -> int:
    """The spaces between two factors with no sign."""
    return node.op_span.end - node.op_span.start


def _may_go_on(node: Binary, power: Binary) -> bool:
    """Whether what stands after a power may have been meant for its exponent."""
    return not _gap(node) or (isinstance(power.right, Name) and power.right.name in ("i", "j"))


def _times_e(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``2e``, which is no power of ten."""
    is_e = isinstance(node.right, Name) and node.right.name == "e"
    if not is_e or not isinstance(node.left, Literal) or _gap(node):
        return None
    number = text[slice(*node.left.span)]
    return TIMES_E.notice((replace(node.span, f"{number}*e"),), number=number)


def _power_ends(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``e^2x``."""
    power, behind = node.left, node.right
    if not (isinstance(power, Binary) and power.op == "^" and isinstance(behind, Name)):
        return None
    if _is_bracketed(text, power, brackets) or not _may_go_on(node, power):
        return None
    exponent = text[slice(*power.right.span)]
    start = power.right.span.start
    typed = f"({exponent} {text[slice(*behind.span)]})"
    return POWER_ENDS.notice((replace(Span(start, behind.span.end), typed),), exponent=exponent)


def _percent_of(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``20 + 5%``."""
    match node.right:
        case Postfix(op="%", operand=Literal() as part):
            whole = text[slice(*node.left.span)]
            left = whole if isinstance(node.left, Literal | Name | Call) else f"({whole})"
            percent = f"{text[slice(*part.span)]}%"
            mend = replace(node.span, f"{left}*(1{node.op}{percent})")
            return PERCENT_OF.notice((mend,), percent=percent, part=part.text)
    return None


def _percent_below(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``10/50 %``, which is 10 over a half."""
    match node.right:
        case Postfix(op="%", operand=Literal()) if not _is_bracketed(text, node.right, brackets):
            start, end = node.right.operand.span.end, node.right.span.end
            mend = replace(Span(start, end), " as percent")
            return PERCENT_BELOW.notice((mend,), percent=text[slice(*node.right.span)])
    return None


def _unit_outside(text: str, node: Postfix, brackets: Brackets) -> Notice | None:
    """``sin(30)°``."""
    call = node.operand
    if node.op not in UNITS or not isinstance(call, Call) or len(call.args) != 1:
        return None
    if call.function not in TRIGONOMETRIC or call.is_own:
        return None
    [inside] = call.args
    unit = f" {node.op}" if node.op.isalpha() else node.op
    typed = text[slice(*inside.span)]
    argument = typed if _is_bare(inside) or isinstance(inside, Name) else f"({typed})"
    name = call.function
    return UNIT_OUTSIDE.notice((replace(node.span, f"{name}({argument}{unit})"),), name=name)


def _is_list_of_one(node: Node) -> bool:
    return isinstance(node, ListOf) and len(node.items) == 1


def _list_of_one(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``[2+3]*4``."""
    one = next(filter(_is_list_of_one, (node.left, node.right)), None)
    if one is None:
        return None
    typed = text[slice(*one.span)]
    return LIST_OF_ONE.notice((replace(one.span, f"({typed[1:-1]})"),))


def _list_in_list(text: str, node: ListOf, brackets: Brackets) -> Notice | None:
    """``[1..3]``."""
    if len(node.items) != 1 or not isinstance(node.items[0], Range):
        return None
    typed = text[slice(*node.items[0].span)]
    return LIST_IN_LIST.notice((replace(node.span, typed),), typed=typed)


LEAST_DEGREES = 15
"""A whole number of this size or more, written straight into a sine, nearly always
is meant in degrees."""

ANGLE_FORMS = UNIT_WORDS | {"dms"}
"""Forms in which a number is shown as an angle."""


def _angle_warnings(text: str, nodes: Sequence[Node], angle: str) -> Iterator[Notice]:
    """Numbers that were read in a unit that nearly always is another than the one that
    is meant; one mend for all of a kind."""
    operands = [operand for operand in map(_read_as_angle, nodes) if operand is not None]
    operands = [item for operand in operands for item in _items_of(operand)]
    of_minutes = [node.expression for node in nodes if _is_shown_in_minutes(node)]
    if angle == "rad" and of_minutes:
        yield _as_degrees(text, of_minutes)
        return
    if angle == "rad":
        degrees = [node for node in operands if _is_bare(node) and _is_of_degrees(node)]
        if degrees:
            degrees = [node for node in operands if _is_bare(node) and _may_be_degrees(node)]
        if degrees:
            yield _as_degrees(text, degrees)
        return
    in_radians = [node for node in operands if _is_of_pi(node) or _is_call_of(node, "radians")]
    if in_radians:
        mends = (_in(text, in_radians, " rad"),)
        yield RADIANS_IN_OTHER_UNIT.notice(mends, numbers=_listed(text, in_radians), unit=angle)


def _as_degrees(text: str, numbers: list[Node]) -> Notice:
    typed = {text[slice(*node.span)] for node in numbers}
    as_read = f"{typed.pop()} radians" if len(typed) == 1 else "radians"
    mends = (_in(text, numbers, "°"),)
    return DEGREES_AS_RADIANS.notice(mends, numbers=_listed(text, numbers), as_read=as_read)


def _is_shown_in_minutes(node: Node) -> TypeGuard[Formatted]:
    """``12.5 as dms``."""
    if not isinstance(node, Formatted) or not _is_bare(node.expression):
        return False
    return ("dms",) in node.forms


def _listed(text: str, nodes: list[Node]) -> str:
    """``30 was``, ``30 and 60 were``: which parts of the line, as they are typed."""
    typed = list(dict.fromkeys(text[slice(*node.span)] for node in sorted(nodes, key=_start)))
    *before, last = typed
    return f"{', '.join(before)} and {last} were" if before else f"{last} was"


def _in(text: str, nodes: list[Node], unit: str) -> Mend:
    """The mend that puts ``unit`` after each of the parts, in brackets where it has to."""

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
    """The value of a number, without the minus before it."""
    return cast(Literal, node.operand if isinstance(node, Prefix) else node).value


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
    value = _value_of(node)
    return value.q == 1 and bool(value >= LEAST_DEGREES)


def _is_of_pi(node: Node) -> bool:
    """Whether ``node`` is computed from numbers and π alone, with no unit."""
    names = [part for part in walk(node) if isinstance(part, Name)]
    kinds = Name | Literal | Binary | Prefix | Measured
    plain_parts = all(isinstance(part, kinds) for part in walk(node))
    return plain_parts and bool(names) and all(part.name == "pi" for part in names)


def _odd_root(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``(-8)^(1/3)``."""
    match node:
        case Binary(
            left=Prefix(op="-", operand=Literal()) as base,
            right=Binary(op="/", left=Literal(text="1"), right=Literal(text=degree)),
        ) if degree.isdecimal() and int(degree) % 2:
            typed = text[slice(*base.span)]
            real = f"cbrt({typed})" if degree == "3" else f"root({typed}, {degree})"
            return PRINCIPAL_ROOT.notice((replace(node.span, real),))
    return None


def _quantity_for_unit(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``2 m``, ``5 W/m^2`` and ``5 /m``, where m is a quantity."""
    factor = node.right
    name = factor.left if isinstance(factor, Binary) and factor.op == "^" else factor
    between = text[node.left.span.end : factor.span.start]
    is_close = node.op == IMPLIED or (between[:1] == " " and between[-1:] == "/")  # not 1/m
    behind = Literal | Measured if is_close else Measured
    before = node.left
    while isinstance(before, Binary) and before.op in ("*", "/", IMPLIED):
        before = before.right  # 2*9.81 m
    if not (isinstance(name, Name) and isinstance(before, behind)):
        return None
    atom = atom_of(name.name) if name.name not in CONSTANT_NAMES else None
    if atom is None or name.name in (*atom.names, YEAR) or is_rare(name.name):
        return None
    full = atom.names[0]
    return QUANTITY_FOR_UNIT.notice((replace(name.span, full),), name=name.name, full=full)


def _measured_in_brackets(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``5.32(4)``: the last figures with their uncertainty, as it is printed."""
    number, figures = node.left, node.right
    if not (isinstance(number, Literal) and isinstance(figures, Literal) and _gap(node) <= 1):
        return None
    _, point, part = number.text.partition(".")
    is_printed = text[number.span.end : number.span.end + 1] == "("
    if not (point and part.isdecimal() and figures.text.isdecimal() and is_printed):
        return None
    if len(figures.text) > MOST_FIGURES or not _is_bracketed(text, figures, brackets):
        return None
    uncertainty = figures.text.rjust(len(part), "0")
    value = f"{uncertainty[: -len(part)] or '0'}.{uncertainty[-len(part) :]}"
    place = Span(node.span.start, text.index(")", figures.span.end) + 1)
    return MEASURED_IN_BRACKETS.notice((replace(place, f"{number.text} ± {value}"),))


MOST_FIGURES = 2
"""Of an uncertainty that is printed in brackets."""


def _concise(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``5.32(4)``, which was read as a measured value: the product is offered."""
    at = node.left.span.end
    if text[at : at + 1] != "(" or not isinstance(node.left, Literal):
        return None
    end = text.index(")", at) + 1
    number, figures = text[slice(*node.left.span)], text[at:end]
    uncertainty = node.right.number if isinstance(node.right, Measured) else node.right
    read = uncertainty.text if isinstance(uncertainty, Literal) else ""
    mends = (replace(Span(node.left.span.start, end), f"{number}*{figures}"),)
    return READ_AS_MEASURED.notice(mends, value=node.left.text, uncertainty=read)


def _plus_and_minus(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``5 +- 0.1``: the sum with a negative number is offered."""
    if text[slice(*node.op_span)] != "+-":
        return None
    return READ_AS_PLUS_MINUS.notice((replace(node.op_span, "+ -"),), typed="+-")


def _repeating(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``0.(3)``, which was read as a third."""
    figures = text[slice(*node.op_span)]
    if figures[1:2] and figures[1] in OVERLINES:
        return READ_AS_REPEATING.notice(figures=figures[::2])
    if not figures.isdecimal():
        return None
    place = Span(node.op_span.start - 1, node.op_span.end + 1)
    return READ_AS_REPEATING.notice((replace(place, f"*{figures}"),), figures=figures)


def _implied_behind_fraction(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``1/2 pi``."""
    quotient = node.left
    if not (isinstance(quotient, Binary) and quotient.op == "/"):
        return None
    behind = text[node.span.end :].lstrip()[:1]
    is_before_factor = _is_pi(node.right) and (behind.isalpha() or behind in BEGIN_FACTOR)
    is_factor = _is_quantity(node.right) or is_before_factor  # 4/3 π r^3
    if _is_bracketed(text, quotient, brackets) or (is_factor and _is_plain(quotient)):
        return None  # 1/2 m v^2
    start = quotient.op_span.end
    start += len(text[start:]) - len(text[start:].lstrip())
    divisor = Span(start, node.span.end)
    mends = (replace(divisor, f"({text[slice(*divisor)]})"),)
    return FRACTION_FIRST.notice(mends, fraction=text[slice(*quotient.span)])


BEGIN_FACTOR = ("(", "√")
"""Signs that a factor begins with."""


def _is_pi(node: Node) -> bool:
    return isinstance(node, Name) and node.name == "pi"


def _is_plain(node: Node) -> bool:
    """Whether it is a fraction of numbers or of pi."""
    return all(isinstance(one, Literal) or _is_pi(one) for one in node.children)


def _is_quantity(node: Node) -> bool:
    """Whether it is a name that is no constant, a number with its unit, or a power of one."""
    base = node.left if isinstance(node, Binary) and node.op == "^" else node
    if isinstance(base, Measured) or (isinstance(base, Binary) and base.op == "±"):
        return True
    return isinstance(base, Name) and base.name not in CONSTANT_NAMES


def _fraction_behind_power(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``x^1/2``."""
    power, below = node.left, node.right
    if not (isinstance(power, Binary) and power.op == "^" and isinstance(below, Literal)):
        return None
    if not _is_one(power.right) or _is_bracketed(text, power, brackets):
        return None
    place = Span(power.right.span.start, below.span.end)
    return POWER_BEFORE_FRACTION.notice((replace(place, f"({text[slice(*place)]})"),))


def _sign_before_power(text: str, node: Prefix, brackets: Brackets) -> Notice | None:
    """``-2^2``."""
    match node:
        case Prefix(
            op="-",
            operand=Binary(op="^", left=Literal() as left, right=Literal(text=n)) as power,
        ) if n.isdecimal() and int(n) % 2 == 0:
            base = Span(node.span.start, left.span.end)
            typed, raised = text[slice(*node.span)], text[slice(*power.span)]
            return POWER_BEFORE_SIGN.notice(
                (replace(base, f"({text[slice(*base)]})"),), typed=typed, power=raised
            )
    return None


def _tower(text: str, node: Binary, brackets: Brackets) -> Notice | None:
    """``2^3^2``."""
    match node:
        case Binary(left=Literal(), right=Binary(op="^", left=Literal() as left) as tower):
            if _is_bracketed(text, tower, brackets):
                return None
            first = Span(node.left.span.start, left.span.end)
            mend = replace(first, f"({text[slice(*first)]})")
            return POWERS_FROM_THE_RIGHT.notice((mend,), exponent=text[slice(*tower.span)])
    return None


def _ten_and_exponent(text: str, node: Literal) -> Notice | None:
    """``10e-5``."""
    typed = text[slice(*node.span)].lower()
    mantissa, _, exponent = typed.partition("e")
    if mantissa != "10" or not exponent or not int(exponent):
        return None
    mends = (replace(node.span, f"10^{int(exponent)}"),)
    return TEN_TIMES_POWER.notice(mends, exponent=exponent, sum=int(exponent) + 1)


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
        yield COMMA_BETWEEN_FIGURES.notice(tuple(mends))


def _is_one(node: Node) -> bool:
    bare = node.operand if isinstance(node, Prefix) else node
    return isinstance(bare, Literal) and bare.text == "1"


def _is_bracketed(text: str, node: Node, brackets: Brackets) -> bool:
    """Whether the person has put brackets just around ``node``."""
    before = len(text[: node.span.start].rstrip())
    behind = len(text) - len(text[node.span.end :].lstrip())
    return (before - 1, behind + 1) in brackets


Rule = Callable[[str, Any, Brackets], Notice | None]
"""Looks at one node of a line."""

RULES_OF_OPERATORS: dict[str, tuple[Rule, ...]] = {
    IMPLIED: (
        _implied_behind_fraction,
        _times_e,
        _power_ends,
        _quantity_for_unit,
        _measured_in_brackets,
    ),
    "/": (_percent_below, _repeating, _fraction_behind_power, _quantity_for_unit),
    "^": (_odd_root, _tower),
    "+": (_percent_of,),
    "-": (_percent_of,),
    "±": (_concise, _plus_and_minus),
}
"""The rules for an operator between two operands, of which the first that applies counts."""


def _millisecond(text: str, node: Measured, brackets: Brackets) -> Notice | None:
    """``9.81 ms^-2``, for metres and seconds."""
    typed = text[slice(*node.unit_span)]
    at = re.search(r"\bms\s?\^\s?\(?-", typed)
    if at is None:
        return None
    start = node.unit_span.start + at.start()
    return MILLISECOND.notice((replace(Span(start, start + 2), "m s"),))


def _of_unit(text: str, node: Measured, brackets: Brackets) -> Notice | None:
    return _millisecond(text, node, brackets) or _symbols_as_units(text, node)


def _symbols_as_units(text: str, node: Measured) -> Notice | None:
    """``3 m g``, typed before its data: symbols side by side that are no unit of anything."""
    parts = node.unit.parts
    are_alone = len(parts) > 1 and all(power == 1 for _, power in parts)
    if not are_alone or is_listed(node.unit.dimension):
        return None
    symbols = [atom.symbol for atom, _ in parts]
    names = [atom.names[0] for atom, _ in parts]
    return READ_AS_UNITS.notice(symbols=_joined(symbols), read="were", names=_joined(names))


def _joined(words: Sequence[str]) -> str:
    return " and ".join(filter(None, (", ".join(words[:-1]), words[-1])))


RULES: dict[type[Node], Rule] = {
    Measured: _of_unit,
    Prefix: _sign_before_power,
    Postfix: _unit_outside,
    ListOf: _list_in_list,
}
"""Those at nodes of other kinds."""
