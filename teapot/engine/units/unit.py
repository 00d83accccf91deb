"""Units as they stand after a number: symbols with their powers.

>>> product(Unit.of("kW"), Unit.of("h")).text
'kWh'
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Literal

from flint import fmpq

from teapot.engine.units import customary
from teapot.engine.units.merging import COHERENT, Part, taken_apart, together
from teapot.engine.units.table import ANGLES, NUMBER, Atom, Dimension, atom_of

Turns = Literal["turns", "angle", "cycles"]


@dataclass(frozen=True, slots=True, repr=False)
class Unit:
    """``parts`` in the order in which they are written.

    ``made_of`` are the units of the factors of a product whose unit has another name, so that
    what is multiplied on is put together with them: L atm/(K mol) times K mol is L atm, and over
    L it is atm, though L atm is shown in J.
    """

    parts: tuple[Part, ...]
    made_of: tuple[Part, ...] = field(default=(), compare=False)

    def __repr__(self) -> str:
        return f"Unit({self.text!r})"

    def __hash__(self) -> int:
        """By its symbols alone, since that of a fraction takes long."""
        return hash(tuple([atom.symbol for atom, _ in self.parts]))

    @staticmethod
    def of(symbol: str) -> Unit:
        """The one of a symbol or a full name that is known."""
        atom = atom_of(symbol)
        assert atom is not None, symbol
        return Unit(((atom, fmpq(1)),))

    @property
    def dimension(self) -> Dimension:
        """That of the product of its parts."""
        return _dimension(self)

    @property
    def text(self) -> str:
        """As it can be typed after a number: ``J/(kg K)``."""
        return _text(self)

    @property
    def alone(self) -> Atom | None:
        """The one part that it has, to the first power; None where it is another."""
        return self.parts[0][0] if len(self.parts) == 1 and self.parts[0][1] == 1 else None

    @property
    def zero(self) -> fmpq | None:
        """Where the scale of temperature begins that it counts on; None where it is none."""
        return self.alone.zero if self.alone is not None else None

    def raised(self, power: fmpq) -> Unit:
        """Each part raised; one whose powers are no whole numbers in base units."""
        parts = tuple((atom, of * power) for atom, of in self.parts if of * power)
        if any(of.q != 1 for _, of in parts):
            dimension = tuple(one * power for one in self.dimension)
            return NAMED.get(dimension) or base_unit(dimension)
        return Unit(parts)


@lru_cache(4096)
def _dimension(unit: Unit) -> Dimension:
    return tuple(
        sum((atom.dimension[at] * power for atom, power in unit.parts), fmpq(0))
        for at in range(len(NUMBER))
    )


def power_text(power: fmpq) -> str:
    """``^2``, ``^(1/2)``; nothing for 1."""
    if power == 1:
        return ""
    return f"^{power}" if power.q == 1 else f"^({power})"


@lru_cache(4096)
def _text(unit: Unit) -> str:
    above = [atom.symbol + power_text(of) for atom, of in unit.parts if of > 0]
    above.sort(key="in".__eq__)  # before another symbol it would be a word
    below = [(atom.symbol, -of) for atom, of in unit.parts if of < 0]
    below.sort(key=("in", fmpq(1)).__eq__)
    if not above:
        return " ".join(symbol + power_text(-of) for symbol, of in below)
    if not below:
        return " ".join(above)
    written = " ".join(symbol + power_text(of) for symbol, of in below)
    return f"{' '.join(above)}/{written if len(below) == 1 else f'({written})'}"


JOULE = Unit.of("J")
BASE = tuple(map(Unit.of, COHERENT))
MASS = Unit.of("kg").dimension
"""The base unit of each dimension."""

ORDER = (1, 0, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12)
"""In which they are written: the kilogram first."""

NAMED = {
    Unit.of(symbol).dimension: Unit.of(symbol)
    for symbol in (
        "N", "Pa", "J", "W", "C", "V", "F", "Ω", "S", "Wb", "T", "H",
        "m", "kg", "s", "A", "K", "mol", "cd", "bit", "€", "$", "£", "¥", "dB",
    )
}  # fmt: skip
"""Coherent units that a product is shown in where it is one of them."""


def base_unit(dimension: Dimension) -> Unit:
    """The product of base units of a dimension.

    >>> base_unit(Unit.of("N").dimension).text
    'kg m/s^2'
    """
    return Unit(tuple((BASE[at].parts[0][0], dimension[at]) for at in ORDER if dimension[at]))


def product(*units: Unit) -> Unit:
    """What a product of measures is shown in, as an engineer would write it: a coherent unit with
    a name where it is one, units of one kind together, what cancels gone; no parts where it is a
    number.

    >>> product(Unit.of("km"), Unit.of("m")).text, product(Unit.of("V"), Unit.of("A")).text
    ('m^2', 'W')
    """
    return _simplified(_gathered(part for unit in units for part in unit.made_of or unit.parts))


def _gathered(parts: Iterable[Part]) -> tuple[Part, ...]:
    """With the powers of each unit added up."""
    powers: dict[Atom, fmpq] = {}
    for atom, power in parts:
        powers[atom] = powers.get(atom, fmpq(0)) + power
    return tuple((atom, power) for atom, power in powers.items() if power)


@lru_cache(4096)
def _simplified(given: tuple[Part, ...]) -> Unit:
    unit = _put_together(given)
    return unit if unit.parts == given or not unit.parts else replace(unit, made_of=given)


def _put_together(given: tuple[Part, ...]) -> Unit:
    by_hours = _of_hours(given)
    if by_hours is not None:
        return by_hours
    parts = together(taken_apart(given))
    unit = Unit(_without_angles(parts))
    if unit.dimension == NUMBER and not is_angle(unit):
        return Unit(())
    if any(atom.symbol in ANGLES for atom, _ in unit.parts):
        return unit
    if len(unit.parts) == 1 and unit.alone is not None:
        return unit
    for atom, power in unit.parts:
        if power == 1 and atom.dimension == unit.dimension:
            return Unit(((atom, power),))  # the others are a number: g A s/C
    named = NAMED.get(unit.dimension)
    if named is None:
        return _in_order(_usual(unit))
    return _of_load(unit) or named


def _of_load(unit: Unit) -> Unit | None:
    """kN m where a load in kN/m is multiplied by lengths: the bending moment of a beam.  A spring
    in N/m gives an energy."""
    force = next((part for part in unit.parts if part[0].symbol in ("kN", "MN")), None)
    if force is None or unit.dimension != JOULE.dimension or len(unit.parts) != 2:
        return None
    return Unit((force, *BASE[0].parts))


def _usual(unit: Unit) -> Unit:
    """It where it is usual for its dimension; else the unit that is."""
    wanted = CUSTOMARY.get(unit.dimension)
    if wanted is not None:
        parts, is_usual = wanted
        return unit if is_usual(unit.parts) else Unit(parts)
    if customary.has_two_names(unit.parts):
        return base_unit(unit.dimension)
    return _with_one_name(unit)


def _with_one_name(unit: Unit) -> Unit:
    """With units that have names as the one that they multiply to: J/mol for C V/mol."""
    of_names = tuple(part for part in unit.parts if not customary.is_simple(part[0]))
    named = NAMED.get(_dimension(Unit(of_names))) if len(of_names) > 1 else None
    if named is None:
        return unit
    return Unit((*named.parts, *(part for part in unit.parts if part not in of_names)))


def _in_order(unit: Unit) -> Unit:
    """With the mass first, as in kg m/s."""
    return Unit(tuple(sorted(unit.parts, key=lambda part: part[0].dimension != MASS)))


HOUR, ONE = Unit.of("h").parts[0][0], fmpq(1)
OVER_HOURS = {Unit.of("C").dimension: "Ah", Unit.of("J").dimension: "Wh"}


def _of_hours(parts: tuple[Part, ...]) -> Unit | None:
    """Wh, kWh or Ah, where a power or a current is multiplied by hours."""
    hours = [of for atom, of in parts if atom == HOUR or atom.symbol.endswith("Ah")]
    if hours != [1] or len(parts) == 1:
        return None
    name = OVER_HOURS.get(_dimension(Unit(parts)))
    if name is None:
        return None
    thousands = thousands_in(parts, over=HOUR.factor)
    return Unit.of({-1: "m", 1: "k", 2: "M"}.get(thousands or 0, "") + name)


def thousands_in(parts: tuple[Part, ...], over: fmpq = ONE) -> int | None:
    """The power of a thousand that the sizes of the units multiply to; None where it is none.

    >>> thousands_in((*Unit.of("V").parts, *Unit.of("kΩ").raised(fmpq(-1)).parts))
    -1
    """
    size = 1 / over
    for atom, power in parts:
        if atom.pi_power or power.q != 1:
            return None
        size *= atom.factor ** int(power)
    for thousands in range(-5, 6):
        if size == fmpq(1000) ** thousands:
            return thousands
    return None


CUSTOMARY = customary.table(lambda parts: Unit(parts).dimension, atom_of)

DEGREE = Unit.of("deg")
DMS = Unit(((replace(DEGREE.parts[0][0], symbol="dms"), fmpq(1)),))
"""The degree that is shown with its minutes and seconds."""


def in_decimals(unit: Unit) -> Unit:
    """The degree alone for the one with minutes and seconds; another unit as it is."""
    return DEGREE if unit == DMS else unit


def is_angle(unit: Unit) -> bool:
    """Whether it is a unit of angles alone."""
    return unit.alone is not None and unit.alone.symbol in ANGLES


def daltons(unit: Unit) -> fmpq:
    """The power of the dalton in it, whatever its prefix: its size in kilograms is measured."""
    return sum((power for atom, power in unit.parts if atom.symbol.endswith("Da")), fmpq(0))


SECOND, HERTZ, RPM = Unit.of("s"), Unit.of("Hz"), Unit.of("rpm")
RATE = HERTZ.dimension
"""That of a frequency, of turns in a time, and of an angle in a time."""


def turns(unit: Unit) -> Turns | None:
    """What a unit of the dimension of a frequency counts; None where it may be any of it.

    >>> turns(Unit.of("rpm")), turns(Unit.of("Hz")), turns(Unit.of("s").raised(fmpq(-1)))
    ('turns', 'cycles', None)
    """
    if unit.dimension != RATE:
        return None
    if unit == RPM:
        return "turns"
    if any(atom.symbol in ANGLES for atom, _ in unit.parts):
        return "angle"
    return "cycles" if unit == HERTZ or "Hz" in unit.text else None


def _without_angles(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """An angle is a plain number among others (SI brochure, 2.3.3): it is only kept by itself,
    and in how fast something turns."""
    if not any(atom.symbol in ANGLES for atom, _ in parts):
        return parts
    times = (SECOND.dimension, HERTZ.dimension)
    keeps = all(atom.dimension in times or atom.symbol in ANGLES for atom, _ in parts) and all(
        power == 1 for atom, power in parts if atom.symbol in ANGLES
    )
    if not keeps:
        return tuple(part for part in parts if part[0].symbol not in ANGLES)
    second, _ = SECOND.parts[0]
    return tuple(
        (second, -power) if atom == HERTZ.alone else (atom, power) for atom, power in parts
    )
