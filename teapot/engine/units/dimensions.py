"""What measures of a dimension are called (ISO 80000)."""

from __future__ import annotations

from teapot.engine.units.table import NUMBER, Dimension
from teapot.engine.units.unit import Unit, base_unit, product


def _of(above: str, below: str = "") -> Dimension:
    up = [Unit.of(one) for one in above.split()]
    down = [Unit.of(one).raised(-Unit.of(one).parts[0][1]) for one in below.split()]
    return product(*up, *down).dimension


KINDS: dict[Dimension, str] = {
    NUMBER: "a plain number",
    _of("m"): "a length",
    _of("kg"): "a mass",
    _of("s"): "a time",
    _of("A"): "a current",
    _of("K"): "a temperature",
    _of("mol"): "an amount of substance",
    _of("cd"): "a luminous intensity",
    _of("bit"): "an amount of information",
    _of("m m"): "an area",
    _of("m m m"): "a volume",
    _of("m", "s"): "a speed",
    _of("m", "s s"): "an acceleration",
    _of("Hz"): "a frequency",
    _of("N"): "a force",
    _of("N s"): "a momentum",
    _of("Pa"): "a pressure",
    _of("J"): "an energy",
    _of("W"): "a power",
    _of("C"): "an electric charge",
    _of("V"): "a voltage",
    _of("F"): "a capacitance",
    _of("Ω"): "a resistance",
    _of("S"): "a conductance",
    _of("Wb"): "a magnetic flux",
    _of("T"): "a magnetic flux density",
    _of("H"): "an inductance",
    _of("kg", "m m m"): "a density",
    _of("m m m", "s"): "a volume flow",
    _of("kg", "s"): "a mass flow",
    _of("J", "kg K"): "a specific heat capacity",
    _of("J", "kg"): "a specific energy",
    _of("J", "K"): "a heat capacity",
    _of("J", "mol"): "a molar energy",
    _of("J", "mol K"): "a molar heat capacity",
    _of("kg", "mol"): "a molar mass",
    _of("mol", "m m m"): "a concentration",
    _of("mol", "s"): "a catalytic activity",
    _of("W", "m K"): "a thermal conductivity",
    _of("W", "m m"): "an irradiance",
    _of("Pa s"): "a viscosity",
    _of("m m", "s"): "a kinematic viscosity",
    _of("V", "m"): "an electric field strength",
    _of("A", "m"): "a magnetic field strength",
    _of("N", "m"): "a stiffness",
    _of("J s"): "an action",
    _of("cd", "m m"): "an illuminance",
    _of("bit", "s"): "a data rate",
    _of("€"): "an amount in euros",
    _of("$"): "an amount in dollars",
    _of("£"): "an amount in pounds sterling",
    _of("¥"): "an amount in yen",
    _of("dB"): "a level",
}
"""The commonest quantity of each dimension."""


def kind_of(dimension: Dimension) -> str:
    """What a measure of it is, with the article; by its base units where it has no name."""
    found = KINDS.get(dimension)
    return f"a quantity in {base_unit(dimension).text}" if found is None else found


def apart(of: Dimension, wanted: Dimension) -> str:
    """How what is ``of`` one dimension becomes the ``wanted`` one, where a named kind of quantity
    lies between them; empty where none does."""
    if all(one == -other for one, other in zip(of, wanted, strict=True)):
        return "divide 1 by it"
    between = tuple(one - other for one, other in zip(of, wanted, strict=True))
    for way, dimension in (("multiply", tuple(-one for one in between)), ("divide", between)):
        kind = KINDS.get(dimension)
        if kind is not None and dimension not in (NUMBER, FREQUENCY):
            return f"{way} by {kind}"
    return ""


FREQUENCY = Unit.of("Hz").dimension
"""Which nobody multiplies by where a time can be divided by."""
