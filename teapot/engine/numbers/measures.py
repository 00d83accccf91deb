"""Measures: numbers with units of measurement, and what may be done with them.

What is known of one is its size in coherent SI units, exactly where the number is exact; its unit
is only how it is shown.  Dimensions agree before anything is computed.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache, partial
from typing import cast

from flint import fmpq

from teapot.engine.numbers import integers, levels
from teapot.engine.numbers.angles import as_angle, as_number, beside
from teapot.engine.numbers.context import conventions, notice
from teapot.engine.numbers.sizes import count_of, measure_of, operated, shown_in
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Extended,
    Finite,
    Infinite,
    Measure,
    Real,
    Scalar,
    Sized,
    Undefined,
    Value,
    exact,
    is_complex,
)
from teapot.engine.sentences.units import (
    DIFFERENCE_ON_SCALE,
    MULTIPLIED_LEVEL,
    NO_UNIT_BESIDE,
    NO_UNIT_TO_CONVERT,
    OTHER_DIMENSION,
    POWER_IS_MEASURE,
    POWER_OF_MEASURE,
    TEMPERATURE_ON_SCALE,
    TURNS_OR_ANGLE,
    TWO_TEMPERATURES,
    UNLIKE_MEASURES,
)
from teapot.engine.sentences.values import OPERATOR_FOR_REALS
from teapot.engine.sentences.warnings import TEMPERATURE_IN_KELVIN, TURNS_COUNTED
from teapot.engine.units.dimensions import apart, kind_of
from teapot.engine.units.merging import Part
from teapot.engine.units.table import ANGLES, NUMBER
from teapot.engine.units.unit import (
    RATE,
    RPM,
    Unit,
    base_unit,
    in_decimals,
    is_angle,
    product,
    thousands_in,
    turns,
)

KELVIN, RADIAN = Unit.of("K"), Unit.of("rad")

DIFFERENCE = Unit(((replace(KELVIN.parts[0][0], names=("kelvin", "difference")), fmpq(1)),))
"""The kelvin of a difference of two temperatures, which has no count on a scale."""


def kind(measure: Measure) -> str:
    """What it is, with the article: ``a length``."""
    return kind_of(measure.unit.dimension)


def named(measure: Measure, line: int | None = None) -> str:
    """The same with its unit, and the line that it has it from: ``a length (m, line 3)``."""
    where = "" if line is None else f", line {line}"
    return f"{kind(measure)} ({measure.unit.text}{where})"


def in_unit(value: Value, unit: Unit) -> Value:
    """A measure in another unit.

    Errors: :data:`OTHER_DIMENSION` where it is of another kind, :data:`NO_UNIT_TO_CONVERT` for a
    plain number.
    """
    if isinstance(value, Infinite | Undefined):
        return value
    wanted = kind_of(unit.dimension)
    if is_angle(unit) and isinstance(value, Angle | Exact | Real | Complex):
        angle = as_angle(value)
        return Angle(angle.size, unit) if isinstance(angle, Angle) else angle
    if not isinstance(value, Measure):
        if isinstance(value, Exact | Real | Complex):
            if unit.dimension == NUMBER:
                return Measure(value, unit)  # 0.00002 as ppm
            raise NO_UNIT_TO_CONVERT(unit=unit.text, kind=wanted)
        raise OTHER_DIMENSION(unit=unit.text, wanted=wanted, kind="an angle", apart="")
    if value.unit.dimension != unit.dimension:
        way = apart(value.unit.dimension, unit.dimension)
        raise OTHER_DIMENSION(
            unit=unit.text,
            wanted=wanted,
            kind=kind(value),
            apart=f": to get {wanted} {way}" if way else "",
        )
    if value.unit == DIFFERENCE and unit.zero is not None:
        raise DIFFERENCE_ON_SCALE(unit=unit.text)
    return Measure(_turned(value, unit), unit)


def _turned(value: Measure, unit: Unit) -> Finite:
    """The size of a measure as another unit counts it: a turn is an angle of 2π.

    Errors: :data:`TURNS_OR_ANGLE` between a frequency in hertz and an angle in a time.
    """
    counted, wanted = turns(value.unit), turns(unit)
    if counted == "turns" and wanted == "cycles" and conventions().are_of_old:
        wanted = "angle"
    if counted == wanted or None in (counted, wanted):
        return value.size
    if {counted, wanted} == {"cycles", "angle"}:
        raise TURNS_OR_ANGLE(unit=value.unit.text, wanted=unit.text)
    if counted == "turns" and wanted == "angle":
        return cast(Finite, operated("*", value.size, TURN))
    if counted == "angle" and wanted == "turns":
        return cast(Finite, operated("/", value.size, TURN))
    return value.size


TURN = exact(2, 1)
"""Radians of a turn."""


def in_base_units(value: Value) -> Value:
    """A quantity in base units, an angle in radians; all else as it is."""
    if isinstance(value, Angle):
        return Angle(value.size, RADIAN)
    if not isinstance(value, Measure):
        return value
    return Measure(value.size, base_unit(value.unit.dimension))


# -- operators ---------------------------------------------------------------------------


def operate(op: str, a: Scalar, b: Scalar) -> Scalar:
    """``a op b``, where one or both are angles or other measures.

    >>> operate("/", measure_of(exact(10), Unit.of("m")), measure_of(exact(2), Unit.of("s")))
    Measure(size=Exact(coefficient=5, pi_power=0), unit=Unit('m/s'))
    >>> operate("+", measure_of(exact(30), Unit.of("deg")), measure_of(exact(1), Unit.of("turn")))
    Angle(size=Exact(coefficient=13/6, pi_power=1), unit=Unit('deg'))
    """
    for value in (a, b):
        if isinstance(value, Undefined):
            return value
    if op in BESIDE_NUMBERS:
        a, b = _beside_numbers(a, b)
        if not (isinstance(a, Sized) or isinstance(b, Sized)):
            return operated(op, a, b)
    return OPERATIONS[op](a, b)


BESIDE_NUMBERS = frozenset("+-^")


def in_plain_number(value: Value) -> Value:
    """So many ppm, or mm/m, as a plain number; any other value as it is.

    >>> in_plain_number(Measure(exact(25), Unit.of("ppm")))
    Exact(coefficient=25, pi_power=0)
    """
    is_number = isinstance(value, Measure) and value.unit.dimension == NUMBER
    return cast(Measure, value).size if is_number else value


def _beside_numbers(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """Two sides, of which one is a plain number where the other is one: 1 + 25 ppm."""
    if isinstance(a, Sized) and isinstance(b, Sized):
        return a, b
    return cast(tuple[Scalar, Scalar], (in_plain_number(a), in_plain_number(b)))


def _parts(value: Scalar) -> tuple[Scalar, Unit]:
    """The size and the unit of a side: a plain number has no unit."""
    return (value.size, value.unit) if isinstance(value, Sized) else (value, Unit(()))


def check_alike(a: Scalar, b: Scalar, done: str) -> None:
    """Errors: :data:`UNLIKE_MEASURES` where the two are of different dimensions."""
    if isinstance(a, Measure) and isinstance(b, Measure):
        if a.unit.dimension == b.unit.dimension:
            return
        raise UNLIKE_MEASURES(first=named(a), second=named(b), done=done)
    measure, other = (a, b) if isinstance(a, Measure) else (cast(Measure, b), a)
    if isinstance(other, Angle):
        raise UNLIKE_MEASURES(first=named(measure), second="an angle", done=done)
    raise NO_UNIT_BESIDE(number="The number", other=f"the other is {named(measure)}", done=done)


Pair = tuple[Sized, Sized]


def _alike(a: Scalar, b: Scalar, done: str) -> Pair | Undefined:
    """Two sides of one kind: a bare number beside an angle is read as one.

    Errors: as :func:`check_alike`.
    """
    if isinstance(a, Measure) or isinstance(b, Measure):
        check_alike(a, b, done)
        first, second = cast(Pair, (a, b))
        if isinstance(second, Measure) and second.unit.dimension == RATE:
            second = Measure(_turned(second, first.unit), second.unit)
        return first, second
    sides = beside(a), beside(b)
    undefined = next((side for side in sides if isinstance(side, Undefined)), None)
    return cast(Pair, sides) if undefined is None else undefined


def _unit_of(a: Scalar, b: Scalar) -> Unit:
    """The unit of the first side that has one."""
    return (a if isinstance(a, Sized) else cast(Sized, b)).unit


def _add(a: Scalar, b: Scalar) -> Scalar:
    sides = _alike(a, b, "added")
    if isinstance(sides, Undefined):
        return sides
    unit = _unit_of(a, b)
    scales = [side.unit for side in sides if side.unit.zero is not None]
    if len(scales) == 2:
        raise TWO_TEMPERATURES()
    unit = levels.unit_of_sum("+", sides[0].unit, sides[1].unit) or unit
    return shown_in(operated("+", sides[0].size, sides[1].size), scales[0] if scales else unit)


def _subtract(a: Scalar, b: Scalar) -> Scalar:
    sides = _alike(a, b, "subtracted")
    if isinstance(sides, Undefined):
        return sides
    unit = DIFFERENCE if sides[1].unit.zero is not None else _unit_of(a, b)
    unit = levels.unit_of_sum("-", sides[0].unit, sides[1].unit) or unit
    return shown_in(operated("-", sides[0].size, sides[1].size), unit)


def refuse_scales(done: str, *values: Scalar) -> None:
    """Errors: :data:`TEMPERATURE_ON_SCALE` for a temperature as a thermometer shows it."""
    for value in values:
        if isinstance(value, Measure) and value.is_on_scale:
            raise TEMPERATURE_ON_SCALE(unit=value.unit.text, done=done)


def in_kelvin(value: Scalar) -> Scalar:
    """A temperature on a scale as it counts in products and powers; any other value as it is."""
    if isinstance(value, Measure) and value.is_on_scale:
        notice(TEMPERATURE_IN_KELVIN, unit=value.unit.text)
        return measure_of(value.size, KELVIN)
    return value


KELVIN = Unit.of("K")


def _with_turns(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """Two factors, of which revolutions count as turns beside another measure, and it is said; in
    lines that were kept before, they count as angles."""
    if not (isinstance(a, Measure) and isinstance(b, Measure) and RPM in (a.unit, b.unit)):
        return a, b
    if conventions().are_of_old:
        first, second = (
            in_unit(one, RADIANS_A_SECOND) if one.unit == RPM else one for one in (a, b)
        )
        return cast(Scalar, first), cast(Scalar, second)
    notice(TURNS_COUNTED)
    return a, b


RADIANS_A_SECOND = Unit((*Unit.of("rad").parts, *Unit.of("s").raised(fmpq(-1)).parts))


def _multiply(a: Scalar, b: Scalar) -> Scalar:
    a, b = _with_turns(in_kelvin(a), in_kelvin(b))
    (first, one), (second, other) = _parts(a), _parts(b)
    unit = joint(one, other)
    if unit == levels.DBM:
        raise MULTIPLIED_LEVEL()
    if unit.dimension == JOULE.dimension:
        unit = _moment(one, other) or _moment(other, one) or unit
    if _is_turned(a, other) or _is_turned(b, one):
        unit = PER_SECOND  # 2 pi f is no number of cycles any more
    return _shown(operated("*", first, second), unit, a, b)


def _moment(force: Unit, length: Unit) -> Unit | None:
    """N m, or kN m, of a force and a length: a moment, or the work that it does; None of a mass,
    an acceleration and a length, which are an energy."""
    if force.alone is None or force.dimension != NEWTON.dimension or force.made_of:
        return None
    if length.alone is None or length.dimension != METRE.dimension:
        return None
    return Unit((*(force if length == METRE else NEWTON).parts, *METRE.parts))


JOULE, NEWTON, METRE = Unit.of("J"), Unit.of("N"), Unit.of("m")

OF_MOMENT = re.compile(r"(?:M|T|τ|tau)(?:_.*|\d*)")
OF_ENERGY = re.compile(r"(?:W|E|Q)(?:_.*|\d*)")
"""Names that a moment and an energy are given."""

KILO_FROM = 10_000


def as_called(value: Value, name: str) -> Value:
    """A result in the unit of what its name says: a moment in N m, an energy in J, which are of
    one dimension.  What it was made of is forgotten with the name."""
    if not isinstance(value, Measure):
        return value
    if value.unit.made_of:
        value = Measure(value.size, replace(value.unit, made_of=()))
    if value.unit.dimension != JOULE.dimension:
        return value
    if value.unit.text.endswith("N m") and OF_ENERGY.fullmatch(name):
        return Measure(value.size, with_prefix(value.size, JOULE))
    size = value.size
    is_moment = value.unit.text.endswith("J") and OF_MOMENT.fullmatch(name) is not None
    if not is_moment or isinstance(size, Complex):
        return value
    force = Unit.of("kN") if abs(size.ball(FEW_BITS).mid()) >= KILO_FROM else NEWTON
    return Measure(size, Unit((*force.parts, *METRE.parts)))


def _is_turned(number: Scalar, unit: Unit) -> bool:
    """Whether it is a number of π, and a frequency in hertz is multiplied with it."""
    is_of_pi = isinstance(number, Exact) and number.pi_power == 1
    return is_of_pi and unit.dimension == RATE and turns(unit) in ("cycles", None)


PER_SECOND = Unit.of("s").raised(fmpq(-1))


PREFIXED = frozenset(map(Unit.of, ("N", "Pa", "J", "W", "C", "V", "F", "Ω", "S", "Wb", "T", "H")))
"""Units with a name that a result gets a prefix for, where its number is large or small."""

LARGER = {
    Unit.of("g"): (Unit.of("kg"), 1),
    Unit.of("mg"): (Unit.of("g"), 0.001),
    Unit.of("L"): (Unit.of("m").raised(fmpq(3)), 1),
    Unit.of("mL"): (Unit.of("L"), 0.001),
    Unit.of("mAh"): (Unit.of("Ah"), 3600),
    Unit.of("mWh"): (Unit.of("Wh"), 3600),
    Unit.of("Wh"): (Unit.of("kWh"), 3_600_000),
}
"""Units that results get another one for from a thousand of them on, with the size of that one in
coherent units."""

ONLY_SMALLER = frozenset(map(Unit.of, ("m", "s", "A", "mol")))
"""Base units that one gets a prefix for where its number is small."""

LARGE, SMALL = 1_000_000, 0.001
STEPS = {4: "T", 3: "G", 2: "M", 1: "k", -1: "m", -2: "µ", -3: "n", -4: "p"}
"""Prefixes by their powers of a thousand."""


def with_prefix(size: Scalar, unit: Unit) -> Unit:
    """The unit of a result with the prefix for which its number is from 1 up to 1000, where it is
    a million units or more, or less than a thousandth: 2.5 GPa, 4.7 nF; also where its factors
    have that prefix: 12 V/(5 kΩ) is 2.4 mA."""
    found = _with_prefix(size, unit)
    return found if found is unit else replace(found, made_of=unit.made_of)


def _with_prefix(size: Scalar, unit: Unit) -> Unit:
    if not isinstance(size, Exact | Real):
        return unit
    if unit in LARGER:
        larger, count = LARGER[unit]
        return larger if abs(size.ball(FEW_BITS).mid()) >= count else unit
    if unit not in PREFIXED | ONLY_SMALLER:
        return unit
    number = abs(size.ball(FEW_BITS).mid())
    typed = _prefix_of_factors(unit.made_of)
    most = 0 if unit in ONLY_SMALLER else LARGE
    is_read_well = 0.1 <= number < 1000
    if typed and typed < most and not is_read_well and 1 <= number / 1000**typed < 1000:
        return Unit.of(STEPS[typed] + unit.text)
    if not number or SMALL <= number < LARGE or (number >= LARGE and unit in ONLY_SMALLER):
        return unit
    power = 0
    while number >= 1000 and power < max(STEPS):
        number, power = number / 1000, power + 1
    while number < 1 and power > min(STEPS):
        number, power = number * 1000, power - 1
    return Unit.of(STEPS[power] + unit.text) if 1 <= number < 1000 else unit


@lru_cache(4096)
def _prefix_of_factors(parts: tuple[Part, ...]) -> int:
    """The power of a thousand that units multiply to; 0 where there is no prefix for it."""
    thousands = thousands_in(parts)
    return thousands if thousands in STEPS else 0


FEW_BITS = 64


def _shown(size: Scalar, unit: Unit, *of: Scalar) -> Scalar:
    """It in a unit; that an angle is a plain number in it is noticed."""
    if not any(isinstance(value, Measure) and value.unit == unit for value in of):
        unit = with_prefix(size, unit)
    if not any(atom.symbol in ANGLES for atom, _ in unit.parts):
        for value in of:
            as_number(value)
    return shown_in(size, unit)


def joint(one: Unit, other: Unit) -> Unit:
    """The unit of a product; a plain number leaves the other's as it is, and a reciprocal one
    gets its name."""
    if one.parts and other.parts:
        return product(in_decimals(one), in_decimals(other))
    if one.parts:
        return one
    return _of_reciprocal(other) if other.alone is None else other


def _of_reciprocal(unit: Unit) -> Unit:
    """Of 1 over a unit: S for 1/Ω, s^-1 for 1/ms."""
    if len(unit.parts) != 1:
        return product(unit)
    [(atom, power)] = unit.parts
    is_part_of_second = atom.dimension == SECOND.dimension and atom.factor < 1
    return SECOND.raised(power) if is_part_of_second else product(unit)


SECOND = Unit.of("s")


def _divide(a: Scalar, b: Scalar) -> Scalar:
    a, b = _with_turns(in_kelvin(a), in_kelvin(b))
    if isinstance(b, Angle) and not isinstance(a, Measure):
        return operated("/", _parts(a)[0], b.size if isinstance(a, Angle) else as_number(b))
    (first, one), (second, other) = _parts(a), _parts(b)
    below = in_decimals(other).raised(fmpq(-1))
    return _shown(operated("/", first, second), joint(one, below), a, b)


def _whole(op: str, a: Scalar, b: Scalar) -> Scalar:
    """A division with a remainder, of real numbers."""
    for value in (a, b):
        if is_complex(value):
            raise OPERATOR_FOR_REALS(op=op)
    sides = _alike(a, b, "divided with a remainder")
    if isinstance(sides, Undefined):
        return sides
    refuse_scales("divided", a, b)
    compute = integers.mod if op == "mod" else integers.div
    return compute(*(cast(Extended, side.size) for side in sides))


def _remainder(a: Scalar, b: Scalar) -> Scalar:
    return shown_in(_whole("mod", a, b), _unit_of(a, b))


def _power(a: Scalar, b: Scalar) -> Scalar:
    b = cast(Scalar, in_plain_number(b))
    if isinstance(b, Measure):
        raise POWER_IS_MEASURE(kind=kind(b), unit=b.unit.text)
    return power(cast(Measure, a), b)


def power(base: Measure, exponent: Scalar) -> Scalar:
    """A measure raised to a rational number.

    >>> power(measure_of(exact(9), Unit.of("m")), exact(2)).unit.text
    'm^2'
    """
    if not (isinstance(exponent, Exact) and exponent.is_rational):
        raise POWER_OF_MEASURE()
    base = cast(Measure, in_kelvin(base))
    if not exponent.coefficient:
        return exact(1)
    size = operated("^", base.size, exponent)
    unit = base.unit.raised(exponent.coefficient)
    if unit.alone is None:
        unit = _of_reciprocal(unit)
    return shown_in(size, with_prefix(size, unit) if unit != base.unit else unit)


OPERATIONS: dict[str, Callable[[Scalar, Scalar], Scalar]] = {
    "+": _add,
    "-": _subtract,
    "*": _multiply,
    "/": _divide,
    "^": _power,
    "mod": _remainder,
    "div": partial(_whole, "div"),
}


def negate(quantity: Sized) -> Scalar:
    """``−quantity``; on a scale of temperature that of its count."""
    if quantity.unit.zero is not None:
        return measure_of(operated("*", exact(-1), count_of(quantity)), quantity.unit)
    return shown_in(operated("*", exact(-1), quantity.size), quantity.unit)


def sides(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """Two values of which one is an angle or another measure, as their sizes.

    Errors: as :func:`check_alike`.
    """
    a, b = _beside_numbers(a, b)
    if not (isinstance(a, Sized) or isinstance(b, Sized)):
        return a, b
    found = _alike(a, b, "compared")
    return (found, found) if isinstance(found, Undefined) else (found[0].size, found[1].size)
