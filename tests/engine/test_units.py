"""The units: their definitions against ``pint`` and against NIST SP 811.

Every factor is held against the definitions of ``pint`` with exact fractions, and every pair of
units of one dimension is converted both ways.  The rows of SP 811, appendix B.8, are from memory:
factors in bold type there are exact, the others have seven figures.
"""

from fractions import Fraction
from itertools import combinations

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine.numbers.measures import in_unit
from teapot.engine.numbers.sizes import measure_of
from teapot.engine.numbers.values import Measure, exact
from teapot.engine.reading.units import unit_from
from teapot.engine.units.defined import ROWS
from teapot.engine.units.table import EACH, PREFIXES, ZEROS, atom_of
from teapot.engine.units.unit import Unit
from tests.engine.answers import answer, outcome, value_of_line
from tests.examples import tried_on
from tools.units import DIMENSIONS, IEC, OUT, WANTED, defined

REGISTRY = pint.UnitRegistry(non_int_type=Fraction)
PI = Fraction(REGISTRY.Quantity(1, "turn").to("radian").magnitude) / 2
"""The number as ``pint`` has it, with fifty figures."""

OTHERWISE = frozenset(
    one.symbol for one in WANTED if one.factor is not None or one.pint in DIMENSIONS
)
"""Units that are defined otherwise there, or not at all; see :mod:`tools.units`."""


def test_what_is_defined_is_what_the_definitions_give():
    assert OUT.read_text() == defined()


@pytest.mark.parametrize("one", [one for one in WANTED if one.symbol not in OTHERWISE])
def test_each_unit_is_that_of_pint(one):
    atom = atom_of(one.symbol)
    name = {"degree_Celsius": "kelvin", "degree_Fahrenheit": "degree_Rankine"}
    magnitude, _ = REGISTRY.get_base_units(name.get(one.pint, one.pint))
    assert Fraction(int(atom.factor.p), int(atom.factor.q)) * PI**atom.pi_power == magnitude
    dimension = dict(REGISTRY.Unit(one.pint).dimensionality)
    if one.source != IEC:
        assert [int(power) for power in atom.dimension] == [
            dimension.get(part, 0) for part in DIMENSIONS
        ]


@pytest.mark.parametrize(("symbol", "name", "power"), PREFIXES)
def test_each_prefix_is_that_of_pint(symbol, name, power):
    assert REGISTRY.get_base_units(f"{name}meter")[0] == Fraction(10) ** power
    made = atom_of(f"{symbol}m")
    assert made.factor == atom_of(f"{name}metre").factor
    assert Fraction(int(made.factor.p), int(made.factor.q)) == Fraction(10) ** power


def test_all_pairs_within_a_dimension_are_converted_exactly():
    pairs = 0
    of_pint = {one.symbol: one.pint for one in WANTED}
    known = [one for one in EACH if one.symbol not in OTHERWISE and not one.pi_power]
    for first, second in combinations(known, 2):
        if first.dimension != second.dimension or {first.symbol, second.symbol} & {*ZEROS}:
            continue
        if first.symbol in ("rad", "sr") or second.symbol in ("rad", "sr"):
            continue
        for one, other in ((first, second), (second, first)):
            measure = measure_of(exact(7), Unit.of(one.symbol))
            shown = in_unit(measure, Unit.of(other.symbol))
            found = REGISTRY.get_base_units(of_pint[one.symbol])[0] * 7
            found /= REGISTRY.get_base_units(of_pint[other.symbol])[0]
            size = shown.size.coefficient / other.factor
            assert Fraction(int(size.p), int(size.q)) == found, (one.symbol, other.symbol)
            pairs += 1
    assert pairs > 400


def test_no_symbol_or_name_stands_for_two_units():
    seen = {}
    for symbol, *_, names, _, also, _ in ROWS:
        for word in (symbol, *names, *also):
            assert seen.setdefault(word, symbol) == symbol, word


EXACT = """
1 acre = 4046.8564224 m^2
1 Å = 0.1 nm
1 atm = 101325 Pa
1 atm = 101.325 kPa
1 au = 149597870700 m
1 bar = 100000 Pa
1 bar = 100 kPa
1 mbar = 100 Pa
1 barn = 1e-28 m^2
1 bbl = 0.158987294928 m^3
1 bbl = 158.987294928 L
1 bushel = 0.03523907016688 m^3
1 Btu = 1055.05585262 J
1 cal = 4.184 J
1 kcal = 4184 J
1 kcal = 4.184 kJ
1 ct = 0.0002 kg
1 ct = 200 mg
1 Ci = 37000000000 Bq
1 cup = 0.0002365882365 m^3
1 cup = 236.5882365 mL
1 d = 86400 s
1 d = 24 h
1 dyn = 0.00001 N
1 dyn = 10 µN
1 dyn/cm^2 = 0.1 Pa
1 erg = 1e-7 J
1 erg/s = 1e-7 W
1 fathom = 1.8288 m
1 floz = 29.5735295625 mL
1 ft = 0.3048 m
1 ft = 12 in
1 ft = 30.48 cm
1 ft^2 = 0.09290304 m^2
1 ft^3 = 0.028316846592 m^3
1 ft^3 = 28.316846592 L
1 ft/s = 0.3048 m/s
1 ft/min = 0.00508 m/s
1 ft/s^2 = 0.3048 m/s^2
1 furlong = 201.168 m
1 gal = 3.785411784 L
1 gal = 0.003785411784 m^3
1 G = 0.0001 T
1 gr = 64.79891 mg
1 g/cm^3 = 1000 kg/m^3
1 ha = 10000 m^2
1 h = 3600 s
1 in = 0.0254 m
1 in = 2.54 cm
1 in^2 = 0.00064516 m^2
1 in^2 = 6.4516 cm^2
1 in^3 = 16.387064 cm^3
1 in/s = 0.0254 m/s
1 kgf = 9.80665 N
1 kgf m = 9.80665 N m
1 kgf/cm^2 = 98066.5 Pa
1 kgf/cm^2 = 98.0665 kPa
1 kgf/m^2 = 9.80665 Pa
1 kgf/mm^2 = 9806650 Pa
1 km/h = 0.2777777777777777777777777777777777777777777777777778 m/s
1 kWh = 3600000 J
1 kWh = 3.6 MJ
1 kip = 4448.2216152605 N
1 kn = 1.852 km/h
1 ly = 9460730472580800 m
1 L = 0.001 m^3
1 lb = 0.45359237 kg
1 lb = 453.59237 g
1 lb = 16 oz
1 lbf = 4.4482216152605 N
1 longton = 1016.0469088 kg
1 mi = 1609.344 m
1 mi = 1.609344 km
1 mi = 5280 ft
1 mi^2 = 2589988.110336 m^2
1 mph = 0.44704 m/s
1 mph = 1.609344 km/h
1 mil = 0.0000254 m
1 mil = 25.4 µm
1 min = 60 s
1 mmHg = 133.322387415 Pa
1 nmi = 1852 m
1 oz = 28.349523125 g
1 ozt = 31.1034768 g
1 pt = 473.176473 mL
1 pt = 0.473176473 L
1 P = 0.1 Pa s
1 cP = 1 mPa s
1 PS = 735.49875 W
1 qt = 0.946352946 L
1 R = 0.000258 C/kg
1 shortton = 907.18474 kg
1 shortton = 2000 lb
1 St = 0.0001 m^2/s
1 cSt = 1 mm^2/s
1 stone = 6.35029318 kg
1 stone = 14 lb
1 t = 1000 kg
1 tbsp = 14.78676478125 mL
1 tsp = 4.92892159375 mL
1 Wh = 3600 J
1 week = 604800 s
1 yd = 0.9144 m
1 yd = 3 ft
1 yd^2 = 0.83612736 m^2
1 yd^3 = 0.764554857984 m^3
1 at = 98066.5 Pa
1 chain = 20.1168 m
1 lb/s = 0.45359237 kg/s
1 oz/gal = 7.489151707 g/L
1 m/h = 0.0002777777777777777777777777777777777777777777777777778 m/s
1 W/cm^2 = 10000 W/m^2
1 kcal/mol = 4.184 kJ/mol
1 cal/(g K) = 4184 J/(kg K)
1 Ah = 3600 C
1 mAh = 3.6 C
1 Torr = 1.333223684210526315789473684210526315789473684210526 hPa
1 eV = 1.602176634e-19 J
1 dyn cm = 1e-7 N m
1 g/L = 1 kg/m^3
1 kip = 1000 lbf
1 ksi = 1000 psi
1 B = 8 bit
1 KiB = 1024 B
"""
"""Conversions that are exact; those to many threes are of one third."""

ROUNDED = """
1 acre ft = 1233.482 m^3
1 Btu/h = 0.2930711 W
1 Btu/s = 1055.056 W
1 Btu/ft^2 = 11356.53 J/m^2
1 Btu/ft^3 = 37258.95 J/m^3
1 Btu/(h ft^2) = 3.154591 W/m^2
1 Btu/(s ft^2) = 11356.53 W/m^2
1 Btu/lb = 2326.000 J/kg
1 Btu/(lb °F) = 4186.800 J/(kg K)
1 Btu/(h ft °F) = 1.730735 W/(m K)
1 Btu/(h ft^2 °F) = 5.678263 W/(m^2 K)
1 Btu/(s ft^2 °F) = 20441.75 W/(m^2 K)
1 Btu/°F = 1899.101 J/K
1 bushel = 35.23907 L
1 cal/s = 4.184000 W
1 cal/min = 0.06973333 W
1 cal/cm^2 = 41840.00 J/m^2
1 cmH2O = 98.06650 Pa
1 deg/s = 0.01745329 rad/s
1 rpm = 0.1047198 rad/s
1 ft lbf = 1.355818 J
1 ft lbf/s = 1.355818 W
1 ft lbf/min = 0.02259697 W
1 ft lbf/h = 0.0003766161 W
1 lbf ft = 1.355818 N m
1 lbf in = 0.1129848 N m
1 ozf in = 0.007061552 N m
1 ft/h = 0.00008466667 m/s
1 ft^3/min = 0.0004719474 m^3/s
1 ft^3/s = 0.02831685 m^3/s
1 gal/min = 0.00006309020 m^3/s
1 gal/min = 0.06309020 L/s
1 gal/d = 4.381264e-8 m^3/s
1 gal/(hp h) = 1.410089e-9 m^3/J
1 gr/gal = 0.01711806 kg/m^3
1 hp = 745.6999 W
1 inHg = 3386.389 Pa
1 in^3/min = 2.731177e-7 m^3/s
1 kgf s^2/m = 9.806650 kg
1 kgf m/s = 9.806650 W
1 kip/in^2 = 6894757 Pa
1 kn = 0.5144444 m/s
1 ksi = 6894757 Pa
1 ksi = 6894.757 kPa
1 lb ft/s = 0.1382550 kg m/s
1 lb ft^2 = 0.04214011 kg m^2
1 lb ft^2/s = 0.04214011 kg m^2/s
1 lb in^2 = 0.0002926397 kg m^2
1 lb/ft = 1.488164 kg/m
1 lb/in = 17.85797 kg/m
1 lb/ft^2 = 4.882428 kg/m^2
1 lb/ft^3 = 16.01846 kg/m^3
1 lb/in^3 = 27679.90 kg/m^3
1 lb/gal = 119.8264 kg/m^3
1 lb/gal = 0.1198264 kg/L
1 lb/yd^3 = 0.5932764 kg/m^3
1 lb/h = 0.0001259979 kg/s
1 lb/min = 0.007559873 kg/s
1 lb/(hp h) = 1.689659e-7 kg/J
1 lb/(ft s) = 1.488164 Pa s
1 lbf/ft = 14.59390 N/m
1 lbf/in = 175.1268 N/m
1 lbf/ft^2 = 47.88026 Pa
1 lbf/in^2 = 6894.757 Pa
1 lbf/lb = 9.806650 N/kg
1 lbf s/ft^2 = 47.88026 Pa s
1 lbf s/in^2 = 6894.757 Pa s
1 mi^2 = 2.589988 km^2
1 mi/min = 26.82240 m/s
1 mi/s = 1609.344 m/s
1 oz/ft^2 = 0.3051517 kg/m^2
1 oz/in^3 = 1729.994 kg/m^3
1 oz/yd^2 = 0.03390575 kg/m^2
1 ozf = 0.2780139 N
1 psi = 6894.757 Pa
1 psi = 6.894757 kPa
1 slug = 14.59390 kg
1 slug/ft^3 = 515.3788 kg/m^3
1 slug/(ft s) = 47.88026 Pa s
1 shortton/h = 0.2519958 kg/s
1 shortton/yd^3 = 1186.553 kg/m^3
1 longton/yd^3 = 1328.939 kg/m^3
1 Torr = 133.3224 Pa
1 W h = 3600.000 J
1 W/in^2 = 1550.003 W/m^2
1 yd^3/min = 0.01274258 m^3/s
1 mph = 0.4470400 m/s
1 mi/gal = 0.4251437 km/L
1 ft^2/s = 0.09290304 m^2/s
1 ft^2/h = 0.00002580640 m^2/s
1 kcal/min = 69.73333 W
1 in/s^2 = 0.02540000 m/s^2
1 in^4 = 4.162314e-7 m^4
1 ft^4 = 0.008630975 m^4
1 in^3 = 0.00001638706 m^3
1 gon = 0.01570796 rad
1 deg = 0.01745329 rad
1 eV = 1.602177e-19 J
1 floz = 0.00002957353 m^3
1 cal/g = 4184.000 J/kg
1 shortton/h = 907.1847 kg/h
"""
"""Conversions with seven figures."""


def rows(text):
    return [row.split(" = ") for row in text.strip().splitlines()]


@pytest.mark.parametrize(("given", "converted"), rows(EXACT))
def test_exact_conversions(given, converted):
    count, _, unit = converted.partition(" ")
    found = outcome(f"({given}) as {unit} as fraction").answers[0]
    wanted = Fraction(count)
    if "oz/gal" in given or len(count) > 40:  # an endless fraction, with the figures of it
        assert answer(f"{given} as {unit}, 9 digits") == (
            "≈ " + answer(f"{count} as 9 digits").partition(" ")[2] + f" {unit}"
        )
        return
    assert found.sign == "="
    assert Fraction(found.text.removesuffix(f" {unit}").strip("()")) == wanted


@pytest.mark.parametrize(("given", "converted"), rows(ROUNDED))
def test_rounded_conversions(given, converted):
    count, _, unit = converted.partition(" ")
    assert unit_from(unit) is not None
    found = answer(f"{given} as {unit} as 7 digits").partition(" ")[2].removesuffix(f" {unit}")
    assert float(found) == float(count), (given, found)


def test_there_are_as_many_conversions_as_were_asked_for():
    assert len(rows(EXACT)) + len(rows(ROUNDED)) >= 200


OF_PINT = {
    "m": "meter", "kg": "kilogram", "s": "second", "A": "ampere", "K": "kelvin", "mol": "mole",
    "N": "newton", "J": "joule", "kW": "kilowatt", "V": "volt", "Ω": "ohm", "h": "hour",
    "L": "liter", "bar": "bar", "in": "inch", "lb": "pound",
}  # fmt: skip


@st.composite
def expressions(draw, depth=3):
    """An expression here, and the same there."""
    if depth == 0 or draw(st.booleans()):
        symbol = draw(st.sampled_from(sorted(OF_PINT)))
        count = draw(st.integers(1, 99))
        return f"({count} {symbol})", REGISTRY.Quantity(Fraction(count), OF_PINT[symbol])
    here, there = draw(expressions(depth=depth - 1))
    kind = draw(st.sampled_from("*/^+"))
    if kind == "^":
        power = draw(st.sampled_from((-2, -1, 2, 3)))
        return f"({here})^({power})", there**power
    if kind == "+":
        return f"({here} + {here})", there + there
    other, others = draw(expressions(depth=depth - 1))
    if kind == "*":
        return f"({here}*{other})", there * others
    return f"({here}/{other})", there / others


@given(expressions())
@tried_on(300)
def test_dimensions_and_sizes_are_those_of_pint(pair):
    here, there = pair
    found = outcome(here)
    assert found.error is None, here
    base = there.to_base_units()
    value = value_of_line(here)
    size = value.size if isinstance(value, Measure) else value
    assert Fraction(int(size.coefficient.p), int(size.coefficient.q)) == base.magnitude, here
    dimension = dict(base.dimensionality)
    powers = [int(power) for power in value.unit.dimension] if isinstance(value, Measure) else []
    assert powers in ([dimension.get(part, 0) for part in DIMENSIONS], []), here
    assert bool(powers) or not dimension
