"""A power as a level in dBm, and back: 10 lg(P/1 mW) (ITU-R V.574)."""

from __future__ import annotations

from typing import cast

from teapot.engine.functions.logarithms import common_log
from teapot.engine.numbers import measures
from teapot.engine.numbers.arithmetic import sign_of
from teapot.engine.numbers.levels import DB, DBM
from teapot.engine.numbers.sizes import count_of, measure_of, operated
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    Extended,
    Measure,
    Real,
    Scalar,
    Undefined,
    Value,
    exact,
)
from teapot.engine.sentences.units import LEVEL_OF_POWER, LEVEL_OF_RATIO, RATIO_OF_LEVEL
from teapot.engine.units.unit import Unit

MILLIWATT = Unit.of("mW")
TEN = exact(10)


def in_unit(value: Value, unit: Unit) -> Value:
    """A quantity in another unit: as :func:`teapot.engine.numbers.measures.in_unit`, and a power in
    dBm, or what is in dBm in a unit of power.

    >>> in_unit(Measure(exact(fmpq(1, 50)), Unit.of("mW")), DBM).unit.text
    'dBm'

    Errors: :data:`LEVEL_OF_RATIO` for a plain number, which is a ratio of powers or of amplitudes;
    :data:`LEVEL_OF_POWER` for a power in dB; :data:`RATIO_OF_LEVEL` between dB and dBm; and those
    of other units.
    """
    own = value.unit if isinstance(value, Measure) else Unit(())
    if DB.dimension not in (own.dimension, unit.dimension) or own == unit:
        return measures.in_unit(value, unit)
    if isinstance(value, Exact | Real | Complex | Angle) and unit.dimension == DB.dimension:
        raise LEVEL_OF_RATIO(unit=unit.text)
    if not isinstance(value, Measure) or value.is_complex:
        return measures.in_unit(value, unit)
    if unit == DBM and value.unit.dimension == MILLIWATT.dimension:
        ratio = cast(Extended, count_of(value, MILLIWATT))
        if sign_of(ratio) <= 0:
            return Undefined("The logarithm of a power that is not above 0 is no level.")
        return measure_of(operated("*", TEN, common_log(ratio)), DBM)
    if value.unit == DBM and unit.dimension == MILLIWATT.dimension:
        tenth = operated("/", cast(Scalar, value.size), TEN)
        return measures.in_unit(measure_of(operated("^", TEN, tenth), MILLIWATT), unit)
    if {value.unit, unit} == {DB, DBM}:
        raise RATIO_OF_LEVEL(unit=value.unit.text, wanted=unit.text)
    if unit.dimension == DB.dimension and value.unit.dimension == MILLIWATT.dimension:
        raise LEVEL_OF_POWER()
    return measures.in_unit(value, unit)
