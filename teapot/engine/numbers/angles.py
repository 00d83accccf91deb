"""Angles, as far as they differ from other quantities: a bare number beside one is read in the unit
of the conventions, and where a plain number is wanted they are their radians; both are noticed."""

from __future__ import annotations

from typing import cast

from flint import fmpq

from teapot.engine.numbers import sizes
from teapot.engine.numbers.context import conventions, notice, unit
from teapot.engine.numbers.sizes import measure_of, shown_in
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Extended,
    Finite,
    Infinite,
    Scalar,
    Undefined,
)
from teapot.engine.sentences.warnings import ANGLE_AS_NUMBER, NUMBER_AS_ANGLE
from teapot.engine.units.table import ANGLES
from teapot.engine.units.unit import DMS, Unit

UNITS: dict[str, Unit] = {name: Unit.of(name) for name in sorted(ANGLES - {"dms"})}
UNITS["dms"] = DMS
"""The units of ISO 80000-3: radian, degree and gon; the turn; parts of them; and the degree with
its minutes and seconds."""

SIGNS = {name: f" {name}" for name in UNITS} | {"deg": "°", "dms": "°"}
"""What stands after a number of each."""

WORDS = {
    "rad": "radians",
    "deg": "degrees",
    "gon": "gon, 400 to the full angle",
    "turn": "turns, full angles",
    "dms": "degrees, minutes and seconds",
    "mrad": "milliradians",
    "µrad": "microradians",
    "arcmin": "minutes of arc",
    "arcsec": "seconds of arc",
    "mas": "milliseconds of arc",
}

PARTS = {"°": fmpq(1), "′": fmpq(1, 60), "″": fmpq(1, 3600)}
"""The degree, its minute and its second, in degrees."""


def angle_of(count: Scalar, name: str) -> Angle | Undefined:
    """The angle of so many units; what is no finite number is ``undefined``.

    >>> angle_of(exact(30), "deg")
    Angle(size=Exact(coefficient=1/6, pi_power=1), unit=Unit('deg'))
    """
    return cast(Angle | Undefined, measure_of(count, UNITS[name]))


def count_of(angle: Angle, name: str = "") -> Finite:
    """How many units an angle has: of its own, or of the one named.

    >>> count_of(angle_of(exact(90), "deg"), "turn")
    Exact(coefficient=1/4, pi_power=0)
    """
    return sizes.count_of(angle, UNITS[name] if name else angle.unit)


def in_unit(angle: Angle, name: str) -> Angle:
    """The same angle, shown in another unit.

    >>> in_unit(angle_of(exact(90), "deg"), "gon")
    Angle(size=Exact(coefficient=1/2, pi_power=1), unit=Unit('gon'))
    """
    return Angle(angle.size, UNITS[name])


def as_angle(value: Scalar) -> Angle | Undefined:
    """``value`` as an angle: a bare number is read in the unit of the conventions."""
    return value if isinstance(value, Angle) else angle_of(value, unit())


def radians_of(value: Scalar) -> Extended | Complex:
    """An angle in radians, as a number, which may be complex; a bare number is read as
    :func:`as_angle` does.

    >>> radians_of(angle_of(exact(180), "deg"))
    Exact(coefficient=1, pi_power=1)
    """
    if isinstance(value, Infinite):
        return value
    angle = as_angle(value)
    return angle.size if isinstance(angle, Angle) else angle


def computed(radians: Scalar) -> Scalar:
    """An angle that was computed: it is shown in the unit of the conventions."""
    return shown_in(radians, UNITS[conventions().angle])


def beside(value: Scalar) -> Angle | Undefined:
    """The other side of a sum or a comparison with an angle, as an angle."""
    if not isinstance(value, Angle):
        name = unit()
        notice(NUMBER_AS_ANGLE, unit=name)
        return angle_of(value, name)
    return value


def as_number(value: Scalar) -> Scalar:
    """An angle as its number of radians, which is noticed; anything else as it is."""
    if isinstance(value, Angle):
        notice(ANGLE_AS_NUMBER)
        return value.size
    return value


def counts(a: Scalar, b: Scalar) -> tuple[Scalar, Scalar]:
    """The same as their numbers of units: of the unit that the first angle has.

    >>> counts(angle_of(exact(30), "deg"), exact(30))
    (Exact(coefficient=30, pi_power=0), Exact(coefficient=5400, pi_power=-1))
    """
    name = (a if isinstance(a, Angle) else cast(Angle, b)).name
    first, second = beside(a), beside(b)
    return (
        count_of(first, name) if isinstance(first, Angle) else first,
        count_of(second, name) if isinstance(second, Angle) else second,
    )
