"""How the units of a product are put together: those of one kind as one, what cancels gone."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from itertools import product

from flint import fmpq

from teapot.engine.units.table import ANGLES, Atom, atom_of

Part = tuple[Atom, fmpq]
"""A unit and the power that it is raised to."""

COMPOUNDS = {
    "mph": ("mi", "h"), "kn": ("nmi", "h"), "gpm": ("gal", "min"), "rpm": ("", "s"),
    "cfm": ("cfm", ""), **{prefix + "Hz": ("", "s") for prefix in ("", "m", "k", "M", "G", "T")},
}  # fmt: skip
"""Units that are others over a time: beside more units they are taken apart.  A turn counts 1, and
a hertz is one in a second."""

COHERENT = ("m", "kg", "s", "A", "K", "mol", "cd", "bit", "€", "$", "£", "¥", "dB")
"""The base unit of each dimension."""

MECHANICAL = range(3)
"""Length, mass and time: where one of them needs its base unit, all three have it."""


def _atom(symbol: str) -> Atom:
    atom = atom_of(symbol)
    assert atom is not None, symbol
    return atom


def taken_apart(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """With what is over a time as two units, where others stand beside it or it has a power."""
    if len(parts) == 1 and parts[0][1] == 1:
        return parts
    found: list[Part] = []
    for atom, power in _without_hours(parts):
        above, below = COMPOUNDS.get(atom.symbol, (atom.symbol, ""))
        if above:
            found.append((_atom(above), power))
        if below:
            found.append((_atom(below), -power))
    return tuple(found)


def _without_hours(parts: tuple[Part, ...]) -> Iterator[Part]:
    """With Ah as ampere and hour where amperes divide it, and Wh likewise: 70 Ah/(5 A) is 14 h."""
    for atom, power in parts:
        rate = atom_of(atom.symbol[:-1]) if atom.symbol.endswith(("Ah", "Wh")) else None
        divides = rate is not None and any(
            one.dimension == rate.dimension and (of < 0) != (power < 0) for one, of in parts
        )
        if rate is not None and divides:
            yield rate, power
            yield _atom("h"), power
        else:
            yield atom, power


def together(parts: Iterable[Part]) -> tuple[Part, ...]:
    """With those of one kind together: in the unit of the first where they are of one size or
    divided by each other; in base units where different ones are multiplied, as km and m, or a
    volume and a length meet.
    """
    groups: dict[object, list[Part]] = {}
    for atom, power in parts:
        groups.setdefault(_kind(atom), []).append((atom, power))
    groups = {kind: _cancelled(kind, group) for kind, group in groups.items()}
    needs_base = {kind for kind, group in groups.items() if _is_mixed(kind, group)}
    if any(kind in MECHANICAL for kind in needs_base):
        needs_base |= {kind for kind in groups if kind in MECHANICAL}
    found = (_one(kind, group, kind in needs_base) for kind, group in groups.items())
    return tuple(part for part in found if part[1])


def _kind(atom: Atom) -> object:
    """The base dimension that it is a power of; else its dimension."""
    if atom.symbol in ANGLES:
        return "angle"
    places = [place for place, power in enumerate(atom.dimension) if power]
    return places[0] if len(places) == 1 else atom.dimension


def _cancelled(kind: object, group: list[Part]) -> list[Part]:
    """A group of three units or more without those that divide others of their dimension: each
    takes away the one that is nearest to it in size, so that mg/kg times lb is in mg."""
    if not isinstance(kind, int) or len({atom for atom, _ in group}) < LEAST_MULTIPLIED:
        return group
    left = dict.fromkeys((atom for atom, _ in group), fmpq(0))
    for atom, power in group:
        left[atom] += power
    pairs = [
        (above, below)
        for above, below in product(left, left)
        if left[above] > 0 > left[below] and above.dimension == below.dimension
    ]
    pairs = [pair for pair in pairs if _apart(pair) < NEAR]
    for above, below in sorted(pairs, key=_apart):
        gone = max(min(left[above], -left[below]), fmpq(0))
        left[above] -= gone
        left[below] += gone
    return [(atom, power) for atom, power in left.items() if power] or group


LEAST_MULTIPLIED = 3
"""Units of one kind that are not just one over another."""


NEAR = math.log(1000)
"""How far apart in size units are of which neither is chosen for its size: lb and kg, but not
mm and m."""


def _apart(pair: tuple[Atom, Atom]) -> float:
    """How many times as large one unit is as the other, as a logarithm."""
    above, below = pair
    return abs(math.log(above.factor / below.factor))


def _is_mixed(kind: object, group: list[Part]) -> bool:
    """Whether units of different sizes are multiplied in a group, or powers of another one meet
    in it, and something is left."""
    atoms = {atom for atom, _ in group}
    if not isinstance(kind, int) or len(atoms) == 1:
        return False
    if len({atom.dimension for atom in atoms}) > 1:
        return bool(sum((atom.dimension[kind] * power for atom, power in group), fmpq(0)))
    above = {atom for atom, power in group if power > 0}
    has_seconds = kind == TIME and any(atom.factor <= 1 for atom in atoms)
    is_multiplied = len(above) > 1 or len(atoms - above) > 1
    return is_multiplied or has_seconds  # km/h times s is in m, times min in km


TIME = 2


def _one(kind: object, group: list[Part], in_base: bool) -> Part:
    first, _ = group[0]
    if isinstance(kind, int):
        total = sum((atom.dimension[kind] * power for atom, power in group), fmpq(0))
        if in_base or not total:
            return _atom(COHERENT[kind]), total
    return first, sum((power for _, power in group), fmpq(0))
