"""Each unit of measurement by its symbol and its names, with the prefixes of the SI.

The definitions are those of :mod:`teapot.engine.units.defined`; prefixes: SI brochure, 9th ed., 3,
and IEC 80000-13 for those of information.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from flint import fmpq

from teapot.engine.units.defined import ROWS

Dimension = tuple[fmpq, ...]
"""Powers of length, mass, time, current, temperature, substance, luminosity, information, of four
kinds of money, and of a level."""

NUMBER: Dimension = (fmpq(0),) * 13
"""The dimension of a plain number."""

PREFIXES = (
    ("Q", "quetta", 30), ("R", "ronna", 27), ("Y", "yotta", 24), ("Z", "zetta", 21),
    ("E", "exa", 18), ("P", "peta", 15), ("T", "tera", 12), ("G", "giga", 9), ("M", "mega", 6),
    ("k", "kilo", 3), ("h", "hecto", 2), ("da", "deca", 1), ("d", "deci", -1), ("c", "centi", -2),
    ("m", "milli", -3), ("µ", "micro", -6), ("n", "nano", -9),
    ("p", "pico", -12), ("f", "femto", -15), ("a", "atto", -18), ("z", "zepto", -21),
    ("y", "yocto", -24), ("r", "ronto", -27), ("q", "quecto", -30),
)  # fmt: skip

OF_INFORMATION = (
    ("Ki", "kibi", 10), ("Mi", "mebi", 20), ("Gi", "gibi", 30), ("Ti", "tebi", 40),
    ("Pi", "pebi", 50), ("Ei", "exbi", 60),
)  # fmt: skip
"""Prefixes of bit and byte, with their powers of 2."""

INFORMATION = 7
"""The place of its dimension."""

POWERS = {
    "all": range(-30, 31), "large": range(3, 31), "small": range(-30, 31),
    "thousands to 10^9": range(3, 10),
}  # fmt: skip
"""The powers of ten that a unit takes a prefix for, by what its definition says."""

ZEROS = {"°C": fmpq(27315, 100), "°F": fmpq(45967, 180)}
"""Where the scales of temperature begin, in kelvin: SI brochure, 2.3.1; NIST SP 811, B.8."""

ANGLES_OF_SHEETS = frozenset({"rad", "deg", "gon", "turn", "dms"})
"""Units of angles that a sheet can have.  The last is the degree that is shown with its minutes
and seconds."""

ANGLES = ANGLES_OF_SHEETS | {"mrad", "µrad", "arcmin", "arcsec", "mas"}
"""Units of angles, which are kept within others: rad/s."""


@dataclass(frozen=True, slots=True)
class Atom:
    """A unit with its prefix: ``factor`` · π**``pi_power`` of the coherent SI unit.

    ``names`` are its full names, ``source`` is where it is defined.
    """

    symbol: str
    factor: fmpq
    pi_power: int
    dimension: Dimension
    names: tuple[str, ...]
    source: str

    def __hash__(self) -> int:
        return hash(self.symbol)

    @property
    def zero(self) -> fmpq | None:
        """Where the scale begins that is counted in it, in kelvin; None where it is no scale."""
        return ZEROS.get(self.symbol)


def _prefixed(symbol: str, name: str, factor: fmpq, atom: Atom) -> Atom:
    return Atom(
        symbol + atom.symbol,
        factor * atom.factor,
        atom.pi_power,
        atom.dimension,
        tuple(name + one for one in atom.names),
        atom.source,
    )


def _read() -> tuple[dict[str, Atom], dict[str, tuple[Atom, str]], list[Atom]]:
    """The units by what is typed for them; those that take prefixes, and which; and all of
    them."""
    plain: dict[str, Atom] = {}
    taking: dict[str, tuple[Atom, str]] = {}
    each: list[Atom] = []
    for symbol, above, below, power, dimension, names, prefixes, also, source in ROWS:
        atom = Atom(symbol, fmpq(above, below), power, tuple(map(fmpq, dimension)), names, source)
        each.append(atom)
        is_angle = symbol in ANGLES_OF_SHEETS  # of which the names are mended, as elsewhere
        words = (symbol, *also) if is_angle else (symbol, *also, *names, *map(plural, names))
        for word in words:
            plain.setdefault(word, atom)
            if prefixes and word != "u":  # pu is "per unit", and cu is cubic
                taking[word] = atom, prefixes
    return plain, taking, each


def plural(name: str) -> str:
    """The full name of several.

    >>> plural("henry"), plural("hertz"), plural("foot")
    ('henries', 'hertz', 'feet')
    """
    if name in ("foot", "inch"):
        return {"foot": "feet", "inch": "inches"}[name]
    if name.endswith(("hertz", "siemens", "lux", "stokes")):
        return name
    head, per, rest = name.partition("_per_")
    return (head[:-1] + "ies" if head.endswith("ry") else head + "s") + per + rest


PLAIN, TAKING, EACH = _read()

PERCENT = Atom("%", fmpq(1, 100), 0, PLAIN["ppm"].dimension, ("percent",), "ISO 80000-1, 6.5.5")
"""The unit of a column whose head says so; typed after a number, % is an operator."""

PLAIN[PERCENT.symbol] = PERCENT

OHM = re.compile(r"([a-zA-Zµ]?)[oO]hms?")
"""``kOhm`` and ``Mohm``: a symbol's prefix before the name."""


@lru_cache(4096)
def atom_of(word: str) -> Atom | None:
    """The unit that a symbol or a full name stands for; None where it is none.

    >>> atom_of("km").factor, atom_of("kilometres").symbol, atom_of("kilo")
    (1000, 'km', None)
    """
    found = PLAIN.get(word)
    if found is not None:
        return found
    if word[0] == "μ":  # the letter, for the sign
        return atom_of("µ" + word[1:])
    if word == "mcg":  # as a pharmacy writes it
        return atom_of("µg")
    if word[0] == "u" and word[1:] in TAKING and _is_symbol(word[1:]):  # where there is no µ
        return atom_of("µ" + word[1:])
    spelt_out = OHM.fullmatch(word)
    if spelt_out is not None:
        return atom_of(f"{spelt_out[1]}Ω")
    for at in (1, 2):  # by its symbol
        if word[at:] in TAKING and len(word) > at:
            made = _with_prefix(word[:at], *TAKING[word[at:]], by=0)
            if made is not None:
                return made if _is_symbol(word[at:]) else None
    for _, name, _ in (*PREFIXES, *OF_INFORMATION):  # by its name
        rest = word.removeprefix(name)
        if rest != word and rest in TAKING and rest in _full_names(TAKING[rest][0]):
            return _with_prefix(name, *TAKING[rest], by=1)
    return None


def _full_names(atom: Atom) -> tuple[str, ...]:
    return (*atom.names, *map(plural, atom.names))


def _is_symbol(word: str) -> bool:
    atom = PLAIN[word]
    return word == atom.symbol or word not in _full_names(atom)


def _with_prefix(prefix: str, atom: Atom, prefixes: str, by: int) -> Atom | None:
    """It with a prefix given by its symbol (``by`` 0) or name (1)."""
    for one in PREFIXES:
        if one[by] == prefix and one[2] in POWERS[prefixes]:
            size = fmpq(10) ** one[2]
            return _prefixed(one[0], one[1], size, atom)
    for one in OF_INFORMATION:
        if one[by] == prefix and atom.dimension[INFORMATION]:
            return _prefixed(one[0], one[1], fmpq(2) ** one[2], atom)
    return None


def _symbols() -> Iterator[str]:
    for atom in EACH:
        yield atom.symbol
        taken = TAKING.get(atom.symbol)
        for prefix in USUAL.get(atom.symbol, "") if taken else "":
            yield prefix + atom.symbol


USUAL = {
    "m": "kcmµn", "g": "kmµ", "s": "mµn", "A": "kmµ", "K": "m", "mol": "km", "Hz": "kMG",
    "N": "kMm", "Pa": "kMGhm", "J": "kMGm", "W": "kMGm", "C": "mµ", "V": "kMmµ", "F": "mµnp",
    "Ω": "kMm", "S": "mµ", "T": "mµ", "H": "mµ", "L": "mµ", "eV": "kMG", "Wh": "kMGT",
    "cal": "k", "bar": "m", "Ah": "mk", "bit": "kMG", "B": "kMGT", "Bq": "kM", "Gy": "m",
    "Sv": "mµ", "P": "c", "St": "c",
}  # fmt: skip
"""Prefixes that a unit is usually met with."""

SYMBOLS = tuple(dict.fromkeys(_symbols()))
"""Of all units that are offered: those with a usual prefix too."""


@lru_cache(256)
def symbols_of(dimension: Dimension) -> tuple[str, ...]:
    """The symbols of the units of a dimension that are offered.

    >>> symbols_of(atom_of("s").dimension)[:3]
    ('s', 'ms', 'µs')
    """
    atoms = ((symbol, atom_of(symbol)) for symbol in SYMBOLS)
    return tuple(symbol for symbol, atom in atoms if atom and atom.dimension == dimension)
