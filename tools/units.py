"""``python -m tools.units``: the units of measurement, taken from the definitions of ``pint`` with
exact fractions, written to ``teapot/engine/units/defined.py``.

Here stands what ``pint`` does not know: the symbol under which a unit goes here, its names, which
prefixes it takes, and the standard that defines it.  Where ``pint`` has it otherwise than that
standard (units of the Gaussian system, lengths of the United States before 2023) the fraction
stands here too.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import pint

OUT = Path(__file__).resolve().parent.parent / "teapot" / "engine" / "units" / "defined.py"

SI, SI_3, SI_8 = "SI brochure, 9th ed., 2.3", "SI brochure, 9th ed., 3.1", "SI brochure, 9th ed., 4"
SP = "NIST SP 811, B.8"
IEC = "IEC 80000-13"
PARSEC = Fraction(648000 * 149597870700)
"""Of an astronomical unit over the angle of a second: this many metres over π."""
MONEY = "ISO 4217"

ALL, LARGE, OF_YEARS, NONE = "all", "large", "thousands to 10^9", ""
"""Prefixes: every one, those above 1, those of long times, none."""

DIMENSIONS = (
    "[length]", "[mass]", "[time]", "[current]", "[temperature]", "[substance]", "[luminosity]",
    "[information]", "€", "$", "£", "¥", "dB",
)  # fmt: skip
"""Those of ``pint``, and the units of kinds that it does not have."""


@dataclass(frozen=True)
class Wanted:
    """A unit: its symbol, its name there, further names here, and where it is from."""

    symbol: str
    pint: str
    names: tuple[str, ...]
    prefixes: str = NONE
    source: str = SP
    factor: Fraction | None = None
    also: tuple[str, ...] = ()
    """Other symbols that are read for it."""


def _w(symbol, name, names, prefixes=NONE, source=SP, factor=None, also=()):
    return Wanted(symbol, name, tuple(names.split("|")), prefixes, source, factor, tuple(also))


WANTED = (
    _w("m", "meter", "metre|meter", ALL, SI),
    _w("g", "gram", "gram|gramme", ALL, SI_3),
    _w("s", "second", "second", ALL, SI),
    _w("A", "ampere", "ampere", ALL, SI),
    _w("K", "kelvin", "kelvin", ALL, SI),
    _w("mol", "mole", "mole", ALL, SI),
    _w("cd", "candela", "candela", ALL, SI),
    _w("Hz", "hertz", "hertz", ALL, SI),
    _w("N", "newton", "newton", ALL, SI),
    _w("Pa", "pascal", "pascal", ALL, SI),
    _w("J", "joule", "joule", ALL, SI),
    _w("W", "watt", "watt", ALL, SI),
    _w("C", "coulomb", "coulomb", ALL, SI),
    _w("V", "volt", "volt", ALL, SI),
    _w("F", "farad", "farad", ALL, SI),
    _w("Ω", "ohm", "ohm", ALL, SI, also=("\u2126",)),
    _w("S", "siemens", "siemens", ALL, SI),
    _w("Wb", "weber", "weber", ALL, SI),
    _w("T", "tesla", "tesla", ALL, SI),
    _w("H", "henry", "henry", ALL, SI),
    _w("lm", "lumen", "lumen", ALL, SI, Fraction(1)),
    _w("lx", "lux", "lux", ALL, SI, Fraction(1)),
    _w("Bq", "becquerel", "becquerel", ALL, SI),
    _w("Gy", "gray", "gray", ALL, SI),
    _w("Sv", "sievert", "sievert", ALL, SI),
    _w("kat", "katal", "katal", ALL, SI),
    # accepted for use with the SI
    _w("min", "minute", "minute", NONE, SI_8),
    _w("h", "hour", "hour", NONE, SI_8),
    _w("d", "day", "day", NONE, SI_8),
    _w("au", "astronomical_unit", "astronomical_unit", NONE, SI_8),
    _w("ha", "hectare", "hectare", NONE, SI_8),
    _w("L", "liter", "litre|liter", ALL, SI_8, also=("l",)),
    _w("t", "metric_ton", "tonne", LARGE, SI_8),
    _w("Da", "dalton", "dalton", ALL, "CODATA 2022", Fraction("1.66053906892e-27"), also=("u",)),
    _w("eV", "electron_volt", "electronvolt", ALL, SI_8),
    # angles within other units
    _w("rad", "radian", "radian", NONE, SI),
    _w("sr", "steradian", "steradian", NONE, SI),
    _w("deg", "degree", "degree", NONE, SI_8),
    _w("gon", "grade", "gon", NONE, "ISO 80000-3"),
    _w("turn", "turn", "turn", NONE, "ISO 80000-3"),
    _w("mrad", "milliradian", "milliradian", NONE, SI),
    _w("µrad", "microradian", "microradian", NONE, SI, also=("urad",)),
    _w("arcmin", "arcminute", "arcminute", NONE, SI_8),
    _w("arcsec", "arcsecond", "arcsecond", NONE, SI_8),
    _w("mas", "milliarcsecond", "milliarcsecond", NONE, SI_8),
    # a rotational frequency counts turns: ISO 80000-3, item 3-17
    _w("rpm", "1/minute", "revolution_per_minute", NONE, "ISO 80000-3"),
    # time
    _w("week", "week", "week", NONE, SP),
    _w("year", "year", "year", NONE, "IAU: the Julian year of 365.25 d"),
    _w("yr", "year", "julian_year", OF_YEARS, "IAU: the Julian year of 365.25 d"),
    _w("a", "year", "annum", OF_YEARS, "ISO 80000-3, annex C"),
    # temperature
    _w("°C", "degree_Celsius", "degree_Celsius|celsius", NONE, SI),
    _w("°F", "degree_Fahrenheit", "degree_Fahrenheit|fahrenheit", NONE, SP),
    _w("°R", "degree_Rankine", "degree_Rankine|rankine", NONE, SP),
    # length
    _w("in", "inch", "inch"),
    _w("ft", "foot", "foot"),
    _w("yd", "yard", "yard"),
    _w("mi", "mile", "mile"),
    _w("nmi", "nautical_mile", "nautical_mile"),
    _w("mil", "thou", "thou"),
    _w("Å", "angstrom", "angstrom|ångström", also=("\u212b",)),
    _w("ly", "light_year", "light_year"),
    _w("pc", "meter", "parsec", ALL, "IAU: 2015, resolution B2", PARSEC),
    _w("fathom", "fathom", "fathom", factor=Fraction("1.8288")),
    _w("chain", "chain", "chain", factor=Fraction("20.1168")),
    _w("furlong", "furlong", "furlong", factor=Fraction("201.168")),
    # area and volume
    _w("acre", "acre", "acre", factor=Fraction("4046.8564224")),
    _w("barn", "barn", "barn", ALL),
    _w("gal", "gallon", "gallon"),
    _w("qt", "quart", "quart"),
    _w("pt", "pint", "pint"),
    _w("cup", "cup", "cup"),
    _w("floz", "fluid_ounce", "fluid_ounce"),
    _w("tbsp", "tablespoon", "tablespoon"),
    _w("tsp", "teaspoon", "teaspoon"),
    _w("bbl", "oil_barrel", "barrel"),
    _w("bushel", "bushel", "bushel"),
    _w("gpm", "gallon/minute", "gallon_per_minute"),
    _w("cfm", "foot**3/minute", "cubic_foot_per_minute"),
    # mass
    _w("lb", "pound", "pound"),
    _w("oz", "ounce", "ounce"),
    _w("gr", "grain", "grain"),
    _w("slug", "slug", "slug"),
    _w("stone", "stone", "stone"),
    _w("shortton", "short_ton", "short_ton"),
    _w("longton", "long_ton", "long_ton"),
    _w("ct", "carat", "carat"),
    _w("ozt", "troy_ounce", "troy_ounce"),
    # speed
    _w("kn", "knot", "knot"),
    _w("mph", "mile_per_hour", "mile_per_hour"),
    # force
    _w("lbf", "pound_force", "pound_force"),
    _w("ozf", "ounce_force", "ounce_force"),
    _w("kgf", "kilogram_force", "kilogram_force", also=("kp",)),
    _w("dyn", "dyne", "dyne"),
    _w("kip", "kip", "kip"),
    # pressure
    _w("bar", "bar", "bar", ALL),
    _w("atm", "atmosphere", "atmosphere"),
    _w("at", "technical_atmosphere", "technical_atmosphere"),
    _w("Torr", "torr", "torr"),
    _w("mmHg", "mmHg", "millimetre_of_mercury"),
    _w("inHg", "inch_Hg", "inch_of_mercury"),
    _w("cmH2O", "centimeter_H2O", "centimetre_of_water"),
    _w("inH2O", "psi", "inch_of_water", factor=Fraction("249.08891")),
    _w("psi", "psi", "pound_per_square_inch"),
    _w("ksi", "ksi", "kip_per_square_inch"),
    # energy and power
    _w("Wh", "watt_hour", "watt_hour", ALL),
    _w("cal", "calorie", "calorie", ALL),
    _w(
        "Btu",
        "british_thermal_unit",
        "british_thermal_unit",
        factor=Fraction("1055.05585262"),
        also=("BTU",),
    ),
    _w("therm", "joule", "therm", factor=Fraction("105505585.262")),
    _w("erg", "erg", "erg"),
    _w("hp", "horsepower", "horsepower"),
    _w("PS", "metric_horsepower", "metric_horsepower"),
    # electricity and magnetism
    _w("VA", "volt*ampere", "volt_ampere", ALL, "IEC 80000-6"),
    _w("var", "volt*ampere", "var", ALL, "IEC 80000-6"),
    _w("Ah", "ampere_hour", "ampere_hour", ALL),
    _w("G", "tesla", "gauss", NONE, SP, Fraction(1, 10000)),
    # optics, and what is dissolved
    _w("dpt", "1/meter", "dioptre|diopter", NONE, "ISO 7944"),
    _w("M", "mole/liter", "molar", "small", "common practice of the trade"),
    _w("ppm", "ppm", "part_per_million", NONE, "common practice of the trade", Fraction(1, 10**6)),
    _w("ppb", "ppm", "part_per_billion", NONE, "common practice of the trade", Fraction(1, 10**9)),
    # viscosity
    _w("P", "poise", "poise", ALL),
    _w("St", "stokes", "stokes", ALL),
    # radiation
    _w("Ci", "curie", "curie", ALL),
    _w("R", "roentgen", "roentgen", ALL),
    _w("rem", "rem", "rem", ALL),
    # information
    _w("bit", "bit", "bit", LARGE, IEC),
    _w("B", "byte", "byte", LARGE, IEC),
    # levels
    _w("dB", "dB", "decibel", NONE, "IEC 60027-3", also=("dBi",)),
    _w("dBm", "dB", "decibel_milliwatt", NONE, "ITU-R V.574"),
    # money, each of its own kind
    _w("€", "€", "euro", NONE, MONEY),
    _w("$", "$", "dollar", NONE, MONEY),
    _w("£", "£", "pound_sterling", NONE, MONEY),
    _w("¥", "¥", "yen", NONE, MONEY),
)


def defined() -> str:
    """The file."""
    registry = pint.UnitRegistry(non_int_type=Fraction)
    circle = Fraction(registry.Quantity(1, "turn").to("radian").magnitude) / 2
    rows = [_row(registry, circle, one) for one in WANTED]
    return (
        '"""The units of measurement: made by ``python -m tools.units``, not by hand.\n\n'
        "Symbol, factor to the coherent SI unit above and below the bar, power of π in it,\n"
        "dimension (length, mass, time, current, temperature, substance, luminosity,\n"
        "information, four kinds of money, level), "
        'names, prefixes, other symbols, and the standard.\n"""\n\n'
        "# fmt: off\n# ruff: noqa: E501\nROWS: tuple[\n"
        "    tuple[str, int, int, int, tuple[int, ...], tuple[str, ...], str, tuple[str, ...],"
        " str], ...\n] = (\n" + "".join(rows) + ")\n"
    )


def _row(registry: pint.UnitRegistry, circle: Fraction, one: Wanted) -> str:
    step = {"degree_Celsius": "kelvin", "degree_Fahrenheit": "degree_Rankine"}
    if one.pint in DIMENSIONS:
        exponents = tuple(int(name == one.pint) for name in DIMENSIONS)
        return f"    {(one.symbol, 1, 1, 0, exponents, one.names, '', one.also, one.source)!r},\n"
    magnitude, root = registry.get_base_units(step.get(one.pint, one.pint))
    factor, power = Fraction(magnitude), 0
    if "radian" in root._units and (factor / circle).denominator < factor.denominator:
        factor, power = factor / circle, 1  # pint has so many figures of the number itself
    factor = factor if one.factor is None else one.factor
    power = -1 if one.factor is PARSEC else power
    dimension = dict(registry.Unit(one.pint).dimensionality)
    if one.source == IEC:  # a plain number there
        dimension["[information]"] = 1
    exponents = tuple(int(dimension.get(name, 0)) for name in DIMENSIONS)
    told = (
        one.symbol, factor.numerator, factor.denominator, power, exponents, one.names,
        one.prefixes, one.also, one.source,
    )  # fmt: skip
    return f"    {told!r},\n"


if __name__ == "__main__":
    OUT.write_text(defined())
