"""Units that may stand at the caret, and those that an answer may be shown in."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import log10

from teapot.engine.forms.answer import write_in_passing
from teapot.engine.numbers.measures import in_unit
from teapot.engine.numbers.sizes import count_of
from teapot.engine.numbers.values import Complex, Finite, Measure, Value
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.forms import STANDARD, Form
from teapot.engine.reading.units import unit_of
from teapot.engine.units.dimensions import kind_of
from teapot.engine.units.table import SYMBOLS, Atom, atom_of, symbols_of
from teapot.engine.units.unit import turns

_NUMBER = r"(?:(?<![\w.])(?:\d[\d_]*\.?\d*|\.\d+)(?:[eE][+-]?\d+)?|[)\]])\s*"
_BEHIND_NUMBER = re.compile(_NUMBER + r"$")
_IN_UNIT = re.compile(_NUMBER + r"([^\W\d]+)(?:\^-?\d+)?(?:[ /*·(]+[^\W\d]+(?:\^-?\d+)?)*[ /*·(]+$")

MOST = 5
"""Units that are offered after a number, with other names below them."""


def are_wanted(before: str) -> bool:
    """Whether a unit may stand after this: a number, or a part of a unit."""
    if _BEHIND_NUMBER.search(before):
        return True
    found = _IN_UNIT.search(before)
    return found is not None and atom_of(found[1]) is not None


def is_unit(word: str) -> bool:
    """Whether it is the whole symbol or name of a unit."""
    return atom_of(word) is not None


def beginning(word: str) -> Iterator[tuple[str, Atom]]:
    """Units of which the symbol begins so, then those of which a full name does."""
    by_symbol = [one for one in SYMBOLS if one.startswith(word)]
    by_name = [one for one in SYMBOLS if len(word) > 2 and _is_named(one, word.lower())]
    for symbol in dict.fromkeys(sorted(by_symbol, key=len) + by_name):
        atom = atom_of(symbol)
        if atom is not None:
            yield symbol, atom


def _is_named(symbol: str, word: str) -> bool:
    atom = atom_of(symbol)
    return atom is not None and any(name.lower().startswith(word) for name in atom.names)


def said_of(atom: Atom) -> str:
    """``kilogram · a mass``."""
    return f"{atom.names[0].replace('_', ' ')} · {kind_of(atom.dimension)}"


COMPOUND = (
    "m/s", "km/h", "m/s^2", "m^2", "cm^2", "mm^2", "km^2", "m^3", "cm^3", "mm^3", "kg/m^3",
    "g/cm^3", "kg/s", "L/min", "m^3/h", "J/(kg K)", "kJ/(kg K)", "J/kg", "kJ/kg", "J/K", "J/mol",
    "kJ/mol", "J/(mol K)", "g/mol", "mol/L", "mmol/L", "W/m^2", "W/(m K)", "Pa s", "mPa s", "N/m",
    "V/m", "A/m", "kg m/s", "N m", "rad/s", "Mbit/s",
)  # fmt: skip
"""Units of several parts that are often wanted."""


def that_fit(value: Value | None) -> list[str]:
    """The units in which a measure may be shown, in the order of the table; of another value
    none."""
    if not isinstance(value, Measure):
        return []
    dimension = value.unit.dimension
    compound = (text for text in COMPOUND if unit_of(text).dimension == dimension)
    return [*symbols_of(dimension), *compound]


@compactly_pickled
@dataclass(frozen=True, slots=True)
class UnitOffer:
    """A unit that an answer may be shown in, and the answer in it."""

    unit: str
    shown: str


OFFERED, MOST_UNITS = 8, 40
"""Units that are offered for an answer, and those that the converter shows."""

EASY = (0.1, 10_000.0)
"""Counts that are read at a glance: units that give one come first."""


def offers(value: Value | None, form: Form = STANDARD, most: int = OFFERED) -> list[UnitOffer]:
    """The units that fit a measure best, with the measure in each.

    Arguments: ``value``, of which only a measure has any; ``form``, for how many digits;
    ``most``, how many are given.
    """
    if not isinstance(value, Measure):
        return []
    found = []
    for place, text in enumerate(that_fit(value)):
        unit = unit_of(text)
        if unit == value.unit:
            continue
        if {turns(unit), turns(value.unit)} == {"angle", "cycles"}:
            continue  # that has to be asked
        shown = write_in_passing(in_unit(value, unit), replace(form, unit=""))
        offer = UnitOffer(text, f"{shown.sign} {shown.text}")
        found.append((*_reading(count_of(value, unit)), place, offer))
    return [offer for *_, offer in sorted(found, key=lambda one: one[:3])][:most]


def _reading(count: Finite) -> tuple[bool, float]:
    """How hard a count is to read: whether it is very large or small, and by how much."""
    part = count.re if isinstance(count, Complex) else count
    size = abs(float(part.ball(64).mid()))
    if not size:
        return False, 0.0
    is_easy = EASY[0] <= size < EASY[1]
    return not is_easy, 0.0 if is_easy else abs(log10(size))
