"""Measures: numbers with units of measurement, and what may be done with them.

What is known of one is its size in coherent SI units, exactly where the number is exact; its unit
is only how it is shown.  Dimensions agree before anything is computed.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache, reduce
from typing import cast

from flint import fmpq

from engine.errors import (
    NoUnitBeside,
    NoUnitToConvert,
    OtherDimension,
    PowerIsMeasure,
    PowerOfMeasure,
    TemperatureOnScale,
    TwoTemperatures,
    UnlikeMeasures,
)
from engine.numbers import arithmetic, whole
from engine.numbers.angles import as_number, operated
from engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Extended,
    Finite,
    Infinite,
    Measure,
    Number,
    Real,
    Scalar,
    Undefined,
    Value,
    exact,
    real,
)
from engine.units.dimensions import apart, kind_of
from engine.units.table import ANGLES
from engine.units.unit import Unit, base_unit, product

KELVIN = Unit.of("K")


@lru_cache(1024)
def factor_of(unit: Unit) -> Number:
    """The unit in coherent SI units.

    >>> factor_of(Unit.of("km"))
    Exact(coefficient=1000, pi_power=0)
    """
    steps = (
        arithmetic.power(exact(atom.factor, atom.pi_power), exact(power))
        for atom, power in unit.parts
    )
    return real(reduce(arithmetic.multiply, steps, cast(Extended, exact(1))))


def measure_of(count: Scalar, unit: Unit) -> Scalar:
    """The measure of so many units; what is no finite number is ``undefined``.

    >>> measure_of(exact(20), Unit.of("°C")).size
    Exact(coefficient=5863/20, pi_power=0)
    """
    if isinstance(count, Infinite):
        return Undefined("An infinite number of units is no quantity.")
    if isinstance(count, Undefined):
        return count
    size = operated("*", count, factor_of(unit))
    if unit.zero is not None:
        size = operated("+", size, exact(unit.zero))
    return shown_in(size, unit)


def shown_in(size: Scalar, unit: Unit) -> Scalar:
    """So many coherent SI units, in a unit; a plain number or an angle where it is one."""
    if isinstance(size, Infinite | Undefined):
        return size
    if not unit.parts:
        return size
    if unit.alone is not None and unit.alone.symbol in ANGLES:
        return Angle(cast(Finite, size), unit.alone.symbol)
    return Measure(cast(Finite, size), unit)


def count_of(measure: Measure, unit: Unit | None = None) -> Finite:
    """How many units a measure has: of its own, or of another one.

    >>> count_of(measure_of(exact(72), Unit.of("km")), Unit.of("m"))
    Exact(coefficient=72000, pi_power=0)
    """
    unit = measure.unit if unit is None else unit
    size = cast(Scalar, measure.size)
    if unit.zero is not None:
        size = operated("-", size, exact(unit.zero))
    return cast(Finite, operated("/", size, factor_of(unit)))


def kind(measure: Measure) -> str:
    """What it is, with the article: ``a length``."""
    return kind_of(measure.unit.dimension)


def named(measure: Measure, line: int | None = None) -> str:
    """The same with its unit, and the line that it has it from: ``a length (m, line 3)``."""
    where = "" if line is None else f", line {line}"
    return f"{kind(measure)} ({measure.unit.text}{where})"


def in_unit(value: Value, unit: Unit) -> Value:
    """A measure in another unit.

    Errors: :class:`OtherDimension` where it is of another kind, :class:`NoUnitToConvert` for a
    plain number.
    """
    if isinstance(value, Infinite | Undefined):
        return value
    wanted = kind_of(unit.dimension)
    if not isinstance(value, Measure):
        if isinstance(value, Exact | Real | Complex):
            raise NoUnitToConvert(unit=unit.text, kind=wanted)
        raise OtherDimension(unit=unit.text, wanted=wanted, kind="an angle", apart="")
    if value.unit.dimension != unit.dimension:
        way = apart(value.unit.dimension, unit.dimension)
        raise OtherDimension(
            unit=unit.text,
            wanted=wanted,
            kind=kind(value),
            apart=f": to get {wanted} {way}" if way else "",
        )
    return Measure(value.size, unit)


def in_base_units(value: Value) -> Value:
    """A measure in base units; all else as it is."""
    if not isinstance(value, Measure):
        return value
    return Measure(value.size, base_unit(value.unit.dimension))


# -- operators ---------------------------------------------------------------------------


def operate(op: str, a: Scalar, b: Scalar) -> Scalar:
    """``a op b``, where one or both are measures.

    >>> operate("/", measure_of(exact(10), Unit.of("m")), measure_of(exact(2), Unit.of("s")))
    Measure(size=Exact(coefficient=5, pi_power=0), unit=Unit('m/s'))
    """
    for value in (a, b):
        if isinstance(value, Undefined):
            return value
    return OPERATIONS[op](a, b)


def _parts(value: Scalar) -> tuple[Scalar, Unit]:
    """The size and the unit of a side: a plain number has no unit."""
    if isinstance(value, Measure):
        return value.size, value.unit
    if isinstance(value, Angle):
        return value.radians, Unit.of("deg" if value.unit == "dms" else value.unit)
    return value, Unit(())


def check_alike(a: Scalar, b: Scalar, done: str) -> None:
    """Errors: :class:`UnlikeMeasures` where the two are of different dimensions."""
    if isinstance(a, Measure) and isinstance(b, Measure):
        if a.unit.dimension == b.unit.dimension:
            return
        raise UnlikeMeasures(first=named(a), second=named(b), done=done)
    measure, other = (a, b) if isinstance(a, Measure) else (cast(Measure, b), a)
    if isinstance(other, Angle):
        raise UnlikeMeasures(first=named(measure), second="an angle", done=done)
    raise NoUnitBeside(number="The number", other=f"the other is {named(measure)}", done=done)


def _add(a: Scalar, b: Scalar) -> Scalar:
    check_alike(a, b, "added")
    first, second = cast(Measure, a), cast(Measure, b)
    if first.is_on_scale and second.is_on_scale:
        raise TwoTemperatures()
    unit = second.unit if second.is_on_scale else first.unit
    return shown_in(operated("+", first.size, second.size), unit)


def _subtract(a: Scalar, b: Scalar) -> Scalar:
    check_alike(a, b, "subtracted")
    first, second = cast(Measure, a), cast(Measure, b)
    unit = KELVIN if second.is_on_scale else first.unit
    return shown_in(operated("-", first.size, second.size), unit)


def refuse_scales(done: str, *values: Scalar) -> None:
    """Errors: :class:`TemperatureOnScale` for a temperature as a thermometer shows it."""
    for value in values:
        if isinstance(value, Measure) and value.is_on_scale:
            raise TemperatureOnScale(unit=value.unit.text, done=done)


def _multiply(a: Scalar, b: Scalar) -> Scalar:
    refuse_scales("multiplied", a, b)
    (first, one), (second, other) = _parts(a), _parts(b)
    return _shown(operated("*", first, second), joint(one, other), a, b)


def _shown(size: Scalar, unit: Unit, *of: Scalar) -> Scalar:
    """It in a unit; that an angle is a plain number in it is noticed."""
    if not any(atom.symbol in ANGLES for atom, _ in unit.parts):
        for value in of:
            as_number(value)
    return shown_in(size, unit)


def joint(one: Unit, other: Unit) -> Unit:
    """The unit of a product; a plain number leaves the other's as it is."""
    return product(one, other) if one.parts and other.parts else one if one.parts else other


def _divide(a: Scalar, b: Scalar) -> Scalar:
    refuse_scales("divided", a, b)
    (first, one), (second, other) = _parts(a), _parts(b)
    below = other.raised(fmpq(-1))
    return _shown(operated("/", first, second), joint(one, below), a, b)


def _whole(compute: Callable[[Extended, Extended], Extended]) -> Callable[..., Extended]:
    def operation(a: Scalar, b: Scalar) -> Extended:
        check_alike(a, b, "divided with a remainder")
        refuse_scales("divided", a, b)
        sizes = (cast(Extended, cast(Measure, one).size) for one in (a, b))
        return compute(*sizes)

    return operation


def _remainder(a: Scalar, b: Scalar) -> Scalar:
    return shown_in(_whole(whole.mod)(a, b), cast(Measure, a).unit)


def _power(a: Scalar, b: Scalar) -> Scalar:
    if isinstance(b, Measure):
        raise PowerIsMeasure(kind=kind(b), unit=b.unit.text)
    return power(cast(Measure, a), b)


def power(base: Measure, exponent: Scalar) -> Scalar:
    """A measure raised to a rational number.

    >>> power(measure_of(exact(9), Unit.of("m")), exact(2)).unit.text
    'm^2'
    """
    if not (isinstance(exponent, Exact) and exponent.is_rational):
        raise PowerOfMeasure()
    refuse_scales("raised to a power", base)
    if not exponent.coefficient:
        return exact(1)
    size = operated("^", base.size, exponent)
    return shown_in(size, base.unit.raised(exponent.coefficient))


OPERATIONS: dict[str, Callable[[Scalar, Scalar], Scalar]] = {
    "+": _add,
    "-": _subtract,
    "*": _multiply,
    "/": _divide,
    "^": _power,
    "mod": _remainder,
    "div": _whole(whole.div),
}


def negate(measure: Measure) -> Scalar:
    """``−measure``; on a scale of temperature that of its count."""
    if measure.is_on_scale:
        return measure_of(operated("*", exact(-1), count_of(measure)), measure.unit)
    return shown_in(operated("*", exact(-1), measure.size), measure.unit)


def sides(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """Two values of which one is a measure, as their sizes.  Errors: as :func:`check_alike`."""
    check_alike(a, b, "compared")
    return cast(Measure, a).size, cast(Measure, b).size
