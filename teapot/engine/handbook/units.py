"""The units of measurement, as the handbook tells of them: those of one dimension together."""

from __future__ import annotations

from collections.abc import Iterator
from decimal import Decimal

from flint import fmpq

from teapot.engine.handbook.record import HandbookRecord, record
from teapot.engine.units.dimensions import KINDS
from teapot.engine.units.table import ANGLES, EACH, NUMBER, Atom, Dimension, symbols_of
from teapot.engine.units.unit import NAMED, base_unit

EXAMPLES: dict[str, tuple[tuple[str, str, str], ...]] = {
    "length": (("1 in as mm", "=", "25.4 mm"), ("26 mi + 385 yd as km", "=", "42.194988 km")),
    "mass": (("2.5 lb as kg", "=", "1.133980925 kg"), ("500 g + 1.2 kg", "=", "1700 g")),
    "time": (("90 min as h", "=", "1.5 h"), ("1 week as h", "=", "168 h")),
    "current": (("250 mA * 4", "=", "1000 mA"),),
    "temperature": (
        ("96 °C - 18.5 °C", "=", "77.5 K"),
        ("100 °C as °F", "=", "212 °F"),
        ("20 °C as K", "=", "293.15 K"),
    ),
    "amount of substance": (("36 g / (18 g/mol)", "=", "2 mol"),),
    "amount of information": (("8 GB / 100 Mbit/s", "=", "640 s"), ("1 KiB as B", "=", "1024 B")),
    "area": (("3 ha as m^2", "=", "30000 m^2"), ("20 cm * 3 m as m^2", "=", "0.6 m^2")),
    "volume": (("1 gal as L", "=", "3.785411784 L"), ("250 mL as cm^3", "=", "250 cm^3")),
    "speed": (("72 km/h as m/s", "=", "20 m/s"), ("30 kn as km/h", "=", "55.56 km/h")),
    "frequency": (("3000 rpm as turn/s", "=", "50 turn/s"), ("1/(20 ms) as Hz", "=", "50 Hz")),
    "force": (("1 kgf as N", "=", "9.80665 N"), ("70 kg * 9.81 m/s^2", "=", "686.7 N")),
    "pressure": (
        ("5 kN / 20 mm^2 as MPa", "=", "250 MPa"),
        ("1 atm as kPa", "=", "101.325 kPa"),
        ("32 psi as bar", "≈", "2.206322334 bar"),
    ),
    "energy": (
        ("1500 W * 2 h as kWh", "=", "3 kWh"),
        ("250 kcal as kJ", "=", "1046 kJ"),
        ("13.6 eV as J", "≈", "2.178960222e-18 J"),
    ),
    "power": (("1 hp as W", "≈", "745.6998716 W"), ("230 V * 10 A as kW", "=", "2.3 kW")),
    "electric charge": (("2000 mAh as C", "=", "7200 C"),),
    "voltage": (("3 mA * 2 kΩ", "=", "6 V"),),
    "capacitance": (("100 µF as mF", "=", "0.1 mF"),),
    "resistance": (("3 V / 2 mA as kΩ", "=", "1.5 kΩ"),),
    "conductance": (("1/(200 Ω) as mS", "=", "5 mS"),),
    "magnetic flux density": (("50 G as mT", "=", "5 mT"),),
    "viscosity": (("1 cP as mPa s", "=", "1 mPa s"),),
    "level": (
        ("20 mW as dBm", "≈", "13.01029996 dBm"),
        ("20 dBm + 12 dB - 80 dB", "=", "-48 dBm"),
        ("10*lg(50) dB", "≈", "16.98970004 dB"),
    ),
    "kinematic viscosity": (("1 cSt as mm^2/s", "=", "1 mm^2/s"),),
}
"""What is done with measures of a kind."""


def _atoms(dimension: Dimension) -> list[Atom]:
    return [one for one in EACH if one.dimension == dimension and one.symbol not in ANGLES]


def _records() -> Iterator[HandbookRecord]:
    for dimension, kind in KINDS.items():
        atoms = _atoms(dimension)
        if dimension == NUMBER or not atoms:
            continue
        called = kind.partition(" ")[2]
        yield record(
            f"units-of-{called.replace(' ', '-')}",
            called,
            called,
            f"Units of {called}: {'; '.join(map(_told, atoms))}.",
            EXAMPLES.get(called, ()),
            f"unit convert conversion {' '.join(name for one in atoms for name in one.names)}",
            RELATED.get(called, ()),
            source=", ".join(dict.fromkeys(one.source for one in atoms)),
            aliases=symbols_of(dimension),
            special_values=tuple(filter(None, map(_converted, atoms))),
        )


def _told(atom: Atom) -> str:
    name = atom.names[0].replace("_", " ")
    return name if name == atom.symbol else f"{name} {atom.symbol}"


def _converted(atom: Atom) -> str:
    """``1 in = 0.0254 m``; nothing for a coherent unit, and for a scale."""
    if atom.factor == 1 or atom.pi_power or atom.zero is not None or atom.symbol == "Da":
        return ""  # a dalton is measured
    coherent = NAMED.get(atom.dimension, base_unit(atom.dimension)).text
    return f"1 {atom.symbol} = {_decimal(atom.factor)} {coherent}"


def _decimal(factor: fmpq) -> str:
    """A fraction with a point, where it ends."""
    below, places = int(factor.q), 0
    while below % 10 == 0:
        below, places = below // 10, places + 1
    for prime in (2, 5):
        while below % prime == 0:
            below, places = below // prime, places + 1
    if below != 1:
        return f"({factor})"
    figures = int(factor.p) * 10**places // int(factor.q)
    shown = Decimal(figures).scaleb(-places).normalize()
    plain = f"{shown:f}"
    return plain if len(plain) <= LONGEST else f"{shown:e}".replace("e+", "e")


LONGEST = 18
"""Signs of a factor that is written without a power of ten."""


RELATED = {
    "energy": ("units-of-power", "units-of-time"),
    "power": ("units-of-energy",),
    "temperature": ("units-of-energy",),
    "speed": ("units-of-length", "units-of-time"),
    "pressure": ("units-of-force", "units-of-area"),
}

UNITS = (
    record(
        "measures", "SI", "… as UNIT",
        "A number keeps the unit after it; as converts it, and as SI gives base units.",
        (
            ("1.2 kg * 4186 J/(kg K) * 77.5 K", "=", "389298 J"),
            ("10 m/2 s", "=", "5 m/s"),
            ("389298 J as kWh, 4 digits", "≈", "0.1081 kWh"),
            ("1 N as SI", "=", "1 kg m/s^2"),
        ),
        "unit units of measurement measure dimension convert conversion SI base quantity",
        ("units-of-length", "units-of-energy", "units-of-temperature"),
        "a name of one's own: a name with a value is that value, also after a number, and the "
        "full name of the unit stays, 2 metre.",
        "SI brochure, 9th edition; ISO 80000-1",
    ),
    *_records(),
)  # fmt: skip
