"""Which unit an engineer would write for a result, where the symbols of what it was made of are
no usual one: m/s^2 and not N/kg, Pa s and not g/(s cm), m^3 and not J/Pa.

Common practice of the trade; the coherent ones are those of ISO 80000.
"""

from __future__ import annotations

from collections.abc import Callable

from flint import fmpq

from teapot.engine.units.merging import Part
from teapot.engine.units.table import Atom, Dimension

Parts = tuple[Part, ...]
Usual = Callable[[Parts], bool]


def is_simple(atom: Atom) -> bool:
    """Whether it is of one base dimension alone: of length, a volume, a time."""
    return len([power for power in atom.dimension if power]) == 1


def _symbols(parts: Parts, place: int) -> set[str]:
    """Those of the parts that are of one base dimension."""
    return {atom.symbol for atom, _ in parts if is_simple(atom) and atom.dimension[place]}


LENGTH, TIME = 0, 2


def _all_simple(parts: Parts) -> bool:
    return all(is_simple(atom) for atom, _ in parts)


def _is_speed(parts: Parts) -> bool:
    """Hours go with kilometres and miles alone."""
    by_hours = bool(_symbols(parts, TIME) & {"h", "d", "week", "year", "a"})
    is_far = bool(_symbols(parts, LENGTH) & {"km", "mi", "nmi"})
    return _all_simple(parts) and (is_far or not by_hours)


def _by_seconds(parts: Parts) -> bool:
    """Squares of hours are nobody's unit."""
    return _all_simple(parts) and _symbols(parts, TIME) <= {"s", "ms", "µs", "ns"}


def _is_momentum(parts: Parts) -> bool:
    return _by_seconds(parts) or {atom.symbol for atom, _ in parts} <= {"N", "kN", "mN", "s"}


def _is_viscosity(parts: Parts) -> bool:
    return any(atom.symbol.endswith(("Pa", "P")) for atom, _ in parts) and len(parts) <= 2


def _lengths_among(*symbols: str) -> Usual:
    return lambda parts: _symbols(parts, LENGTH) <= set(symbols)


WANTED: tuple[tuple[str, Usual], ...] = (
    ("m/s", _is_speed),
    ("m/s^2", _by_seconds),
    ("s^-2", _by_seconds),
    ("s^-1", _all_simple),
    ("m^2", _all_simple),
    ("m^3", _all_simple),
    ("kg/s", _all_simple),
    ("m^3/s", _all_simple),
    ("m^2/s", _all_simple),
    ("kg/m^3", _all_simple),
    ("kg m/s", _is_momentum),
    ("Pa s", _is_viscosity),
    ("Ω m", _lengths_among("m", "cm")),
    ("W/m^2", _lengths_among("m", "cm", "mm")),
    ("mol/L", _lengths_among("m", "dm", "L")),
    (
        "N/m",
        lambda parts: {atom.symbol for atom, _ in parts} & {"J", "kJ", "N", "kN", "mN"} != set(),
    ),
    ("lx", lambda parts: all(atom.symbol != "lm" for atom, _ in parts)),
    ("V/m", lambda parts: all(atom.symbol[-1] in "Vm" for atom, _ in parts)),
)
"""For a dimension the coherent or usual unit, and when another one is usual too."""

KEPT = frozenset({"J/T"})
"""Units of two with names that are usual all the same."""


def has_two_names(parts: Parts) -> bool:
    """Whether a unit with a name is divided by another: J/Pa, mW/J."""
    above = {atom.symbol for atom, power in parts if power > 0 and not is_simple(atom)}
    below = {atom.symbol for atom, power in parts if power < 0 and not is_simple(atom)}
    return bool(above and below) and f"{''.join(above)}/{''.join(below)}" not in KEPT


def read(text: str, atom_of: Callable[[str], Atom | None]) -> Parts:
    """The parts of ``kg m/s^2``, in which all that follow the bar are below it."""
    above, _, below = text.partition("/")
    found = []
    for side, sign in ((above, 1), (below, -1)):
        for factor in side.split():
            symbol, _, power = factor.partition("^")
            atom = atom_of(symbol)
            assert atom is not None, symbol
            found.append((atom, fmpq(sign * int(power or 1))))
    return tuple(found)


def table(
    dimension_of: Callable[[Parts], Dimension], atom_of: Callable[[str], Atom | None]
) -> dict[Dimension, tuple[Parts, Usual]]:
    """What is wanted by dimension."""
    rows = ((read(text, atom_of), usual) for text, usual in WANTED)
    return {dimension_of(parts): (parts, usual) for parts, usual in rows}
