"""Units beside quantities of the same name: which of them a line means.

After ``m = 80 kg``, ``h = 15 m`` has a unit and ``E = 9.81*2 m`` may have a mass.  The one decision
is made here.  Each group of symbols after a value is read as a unit or as quantities; a reading
*works* if it can be worked out and its answer has the dimension of a quantity that ISO 80000 lists.
Where one works it is taken.  Where several do, numbers with units alone are just that, and anything
else is asked back.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import combinations

from teapot.engine.errors import LineError
from teapot.engine.mends import Mend, Notice, Span, replace_each
from teapot.engine.numbers.values import List, Measure, Uncertain, Value
from teapot.engine.reading.tokens import NO_LETTERS
from teapot.engine.reading.tree import (
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
    walk,
)
from teapot.engine.reading.vocabulary import CONSTANT_NAMES
from teapot.engine.sentences.units import UNIT_OR_QUANTITY
from teapot.engine.sentences.warnings import READ_AS_UNIT
from teapot.engine.units.listed import is_listed
from teapot.engine.units.table import atom_of

MOST_GROUPS = 4
"""Groups of symbols in a line of which each is tried as a unit and as quantities."""

TOGETHER = frozenset({"N m", "kW h", "W h", "A h", "mA h", "J s", "Pa s", "W s", "V A", "N s"})
"""Symbols side by side that are customary for one unit; those with a bar all are."""

_LETTERS = re.compile(rf"[^\W{NO_LETTERS}]+")
"""Of a name, without the power after it."""

Places = frozenset[int]
"""Where names stand that are read as units, though quantities have them."""

Try = Callable[[Places], "Reading"]


@dataclass(frozen=True, slots=True)
class Reading:
    """A line as it is read with units at some ``places``: its tree, or the error of it; and the
    values of its statements, None where one cannot be worked out."""

    places: Places
    tree: LineTree | None
    values: tuple[Value | None, ...] = ()

    @property
    def works(self) -> bool:
        """Whether all of it can be worked out, to something that is listed."""
        return self.tree is not None and all(map(_is_listed, self.values))

    @property
    def is_answered(self) -> bool:
        """Whether all of it can be worked out, whatever that gives."""
        return self.tree is not None and None not in self.values


@dataclass(frozen=True, slots=True)
class Decision:
    """The ``places`` of units, what is said of it, and the error where it is asked back."""

    places: Places
    notice: Notice | None = None
    error: LineError | None = None


def decided(text: str, contested: Places, try_reading: Try) -> Decision | None:
    """How a line is read in which units and quantities of the same name may stand at the
    ``contested`` places; None where they are quantities without a question.

    ``try_reading`` reads and works out the line with units at some places.
    Errors: none; where it is asked back, the decision has one.
    """
    units = try_reading(contested)
    while units.tree is not None and not units.tree.contested <= contested:
        contested |= units.tree.contested  # what follows a name that is a unit may be one too
        units = try_reading(contested)
    if units.tree is None:
        return None
    groups = _groups(units.tree, contested)
    if not groups:
        return None
    readings = [try_reading(places) for places in _choices(groups) if places != contested]
    working = [one for one in (units, *readings) if one.works]
    if not working:
        working = [one for one in map(try_reading, _cut_off(groups)) if one.works][:1]
    if not working:
        is_answered = any(one.is_answered for one in readings if not one.places)
        return (
            Decision(frozenset(), error=_asked(text, (units, *readings), groups))
            if is_answered
            else None
        )
    if len(working) == 1:
        return Decision(working[0].places)
    products = [one for one in working if not one.places & _behind_constants(units.tree)]
    if len(products) == 1:
        return Decision(products[0].places)  # π d is one, as on paper
    if units.works and _is_of_numbers(units.tree) and not _is_bare(units.tree):
        mend = _as_quantities(text, groups)
        names = _names(text, contested)
        several = " and " in names
        read = "were read as the units" if several else "was read as the unit"
        yours = "your quantities" if several else "your quantity"
        notice = READ_AS_UNIT.notice((mend,), names=names, read=read, yours=yours)
        return Decision(contested, notice)
    return Decision(frozenset(), error=_asked(text, working, groups))


def _groups(tree: LineTree, contested: Places) -> list[Places]:
    """The contested places that stand in one unit each."""
    found = []
    for statement in tree.statements:
        for node in walk(statement.expression):
            if isinstance(node, Measured):
                start, end = node.unit_span
                inside = frozenset(place for place in contested if start <= place < end)
                if inside:
                    found.append(inside)
    return sorted(found, key=min)


def _behind_constants(tree: LineTree) -> Places:
    """Where units may stand that follow π or e by name."""
    nodes = (node for one in tree.statements for node in walk(one.expression))
    return frozenset(
        node.unit_span.start
        for node in nodes
        if isinstance(node, Measured) and isinstance(node.number, Name)
    )


def _choices(groups: Sequence[Places]) -> Iterable[Places]:
    """Each way to read some groups as units, none of them first."""
    if len(groups) > MOST_GROUPS:
        return (frozenset(),)
    return (
        frozenset().union(*some)
        for count in range(len(groups) + 1)
        for some in combinations(groups, count)
    )


def _cut_off(groups: Sequence[Places]) -> Iterable[Places]:
    """Each way to end the unit of the one group before a name that has a value."""
    if len(groups) == 1:
        places = sorted(groups[0])
        for count in range(len(places) - 1, 0, -1):
            yield frozenset(places[:count])


def _is_listed(value: Value | None) -> bool:
    if value is None:
        return False
    if isinstance(value, List):
        return all(map(_is_listed, value.items[:3]))
    if isinstance(value, Uncertain):
        return _is_listed(value.nominal)
    return not isinstance(value, Measure) or is_listed(value.unit.dimension)


def _is_of_numbers(tree: LineTree) -> bool:
    """Whether it is made of numbers with units only, each unit a symbol or a customary one."""
    return all(_has_numbers_only(statement.expression) for statement in tree.statements)


def _is_bare(tree: LineTree) -> bool:
    """Whether all of it is a number with a unit: ``2 s``, which may be a product."""
    return all(
        isinstance(one.expression, Measured)
        and len(one.expression.unit.parts) == 1
        and not isinstance(one, Assignment)
        for one in tree.statements
    )


def _has_numbers_only(node: Node) -> bool:
    match node:
        case Literal():
            return True
        case Measured(number=number, unit=unit):
            is_one = len(unit.parts) == 1 or "/" in unit.text or unit.text in TOGETHER
            return is_one and _has_numbers_only(number)
        case Name(name=name):
            return name in CONSTANT_NAMES
        case Prefix(op="-" | "+", operand=operand):
            return _has_numbers_only(operand)
        case Postfix(op="%" | "°" | "!", operand=operand):
            return _has_numbers_only(operand)
        case Formatted(expression=expression):
            return _has_numbers_only(expression)
        case Binary(op="implied", left=left, right=Call() as right):
            return _has_numbers_only(left) and _has_numbers_only(right)
        case Binary(op="+" | "-" | "*" | "/" | "^" | "±", left=left, right=right):
            return _has_numbers_only(left) and _has_numbers_only(right)
        case Call(is_own=False, named=(), args=args):
            return all(map(_has_numbers_only, args))
        case ListOf(items=items):
            return all(map(_has_numbers_only, items))
    return False


def _names(text: str, places: Places) -> str:
    """The names at places, each once: ``m``, ``m and s``."""
    names = list(dict.fromkeys(_name_at(text, place) for place in sorted(places)))
    return " and ".join(filter(None, (", ".join(names[:-1]), names[-1])))


def _name_at(text: str, place: int) -> str:
    found = _LETTERS.match(text, place)
    assert found is not None, text
    return found[0]


def _as_quantities(text: str, groups: Iterable[Places]) -> Mend:
    """The mend that puts a sign before the first name of each group."""
    first = sorted(min(group) for group in groups)
    return replace_each(text, [_times(text, place) for place in first])


def _times(text: str, place: int) -> tuple[Span, str]:
    """A sign before a name: one that no unit could go on with."""
    gap = _gap_before(text, place)
    return gap, " * " if text[gap.start - 1 : gap.start].isalpha() else "*"


def _gap_before(text: str, place: int) -> Span:
    start = len(text[:place].rstrip())
    return Span(start, place)


def _as_full_names(text: str, places: Places) -> list[tuple[Span, str]]:
    found = []
    for place in sorted(places):
        name = _name_at(text, place)
        atom, power = atom_of(name), ""
        if atom is None:  # m2
            atom, power = atom_of(name[:-1]), f"^{name[-1]}"
        assert atom is not None
        found.append((Span(place, place + len(name)), atom.names[0] + power))
    return found


def _asked(text: str, working: Sequence[Reading], groups: Sequence[Places]) -> LineError:
    """Each reading that works, with its units in full and a sign before its quantities."""
    mends = []
    contested = frozenset().union(*groups)
    for reading in working:
        parts = _as_full_names(text, reading.places)
        parts += [
            _times(text, min(group))
            for group in groups
            if not group <= reading.places and text[_gap_before(text, min(group)).start - 1] != "/"
        ]
        if parts:
            mends.append(replace_each(text, sorted(parts)))
    place = min(contested)
    span = Span(place, place + len(_name_at(text, place)))
    return UNIT_OR_QUANTITY(span, tuple(mends), names=_names(text, contested))
