"""Constants of physics, with their units.

The seven that define the SI (SI brochure, 9th ed., 2.2), what follows from them exactly, and
conventional values are exact; the others are measured values as CODATA recommends them.
"""

from __future__ import annotations

from functools import lru_cache

from flint import fmpq

from teapot.engine.errors import LineError
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.mends import replace
from teapot.engine.numbers import operators, uncertain
from teapot.engine.numbers.context import current
from teapot.engine.numbers.sizes import factor_of, measure_of
from teapot.engine.numbers.values import Exact, Undefined, Value, exact, real
from teapot.engine.reading.described import Example
from teapot.engine.reading.literals import literal_value
from teapot.engine.reading.tree import NOWHERE
from teapot.engine.reading.units import unit_of
from teapot.engine.sentences.units import NAME_OF_CONSTANT, NO_CONSTANT
from teapot.engine.spelling import nearest
from teapot.engine.units.constants import CONSTANTS
from teapot.engine.units.unit import Unit

SUBJECT = "constants"
NEAR = 0.8
"""How much of a constant's name another must share to be meant for it."""

BY_NAME = {name: row for name, *row in CONSTANTS}

ALSO = {
    "c": "speed of light", "h": "Planck constant", "k": "Boltzmann constant",
    "e": "elementary charge", "N_A": "Avogadro constant", "g": "standard gravity",
    "R": "molar gas constant", "F": "Faraday constant", "G": "gravitational constant",
    "gas constant": "molar gas constant", "atm": "standard atmosphere",
    "h-bar": "reduced Planck constant", "hbar": "reduced Planck constant",
    "speed of light in vacuum": "speed of light", "gravity": "standard gravity",
    "electron charge": "elementary charge", "Planck's constant": "Planck constant",
    "Avogadro's number": "Avogadro constant", "Boltzmann's constant": "Boltzmann constant",
    "Stefan's constant": "Stefan-Boltzmann constant",
    "vacuum permittivity": "electric constant", "vacuum permeability": "magnetic constant",
}  # fmt: skip
"""Symbols and other names of constants."""

DERIVED: dict[str, tuple[Exact, tuple[tuple[str, int], ...], str]] = {
    "reduced Planck constant": (exact(fmpq(1, 2), -1), (("Planck constant", 1),), "J s"),
    "molar gas constant": (
        exact(1), (("Avogadro constant", 1), ("Boltzmann constant", 1)), "J/(mol K)",
    ),
    "Faraday constant": (
        exact(1), (("Avogadro constant", 1), ("elementary charge", 1)), "C/mol",
    ),
    "Stefan-Boltzmann constant": (
        exact(fmpq(2, 15), 5),
        (("Boltzmann constant", 4), ("Planck constant", -3), ("speed of light", -2)),
        "W/(m^2 K^4)",
    ),
    "Josephson constant": (exact(2), (("elementary charge", 1), ("Planck constant", -1)), "Hz/V"),
    "von Klitzing constant": (
        exact(1), (("Planck constant", 1), ("elementary charge", -2)), "Ω",
    ),
    "magnetic flux quantum": (
        exact(fmpq(1, 2)), (("Planck constant", 1), ("elementary charge", -1)), "Wb",
    ),
    "conductance quantum": (
        exact(2), (("elementary charge", 2), ("Planck constant", -1)), "S",
    ),
    "first radiation constant": (
        exact(2, 1), (("Planck constant", 1), ("speed of light", 2)), "W m^2",
    ),
    "second radiation constant": (
        exact(1),
        (("Planck constant", 1), ("speed of light", 1), ("Boltzmann constant", -1)),
        "m K",
    ),
    "molar volume of ideal gas": (
        exact(fmpq(27315, 100)),
        (("Avogadro constant", 1), ("Boltzmann constant", 1), ("standard atmosphere", -1)),
        "m^3/mol",
    ),
}  # fmt: skip
"""What follows from the defining constants: a factor, and their powers."""

NAMES = (*DERIVED, *BY_NAME)
"""Of all of them."""


def constant(name: Value) -> Value:
    """The constant of that name.

    Errors: :data:`NO_CONSTANT` where there is none of that name.
    """
    if isinstance(name, Undefined):
        return name
    if not isinstance(name, str):
        raise NAME_OF_CONSTANT()
    called = " ".join(name.split())
    called = ALSO.get(called, called)
    if called in DERIVED:
        factor, powers, unit = DERIVED[called]
        size: Value = factor
        for one, power in powers:
            size = operators.operate("*", size, operators.operate("^", _size(one), exact(power)))
        return measure_of(operators.number(size), unit_of(unit))
    if called not in BY_NAME:
        raise _unknown(called)
    value, uncertainty, unit, _ = BY_NAME[called]
    if uncertainty:
        return _measured(called)
    return measure_of(_exactly(value), unit_of(unit))


def _exactly(text: str) -> Exact:
    return exact(literal_value(text, NOWHERE)[1])


def _size(name: str) -> Exact:
    return _exactly(BY_NAME[name][0])


def _unknown(name: str) -> LineError:
    lower = {one.lower(): one for one in NAMES}
    holding = (one for one in lower if name.lower() in one)
    near = min(holding, key=lambda one: ("constant" not in one, len(one)), default=None)
    near = near or nearest(name.lower(), lower, NEAR)
    meant = f" Did you mean {lower[near]}?" if near else ""
    call = current().call
    mends = (replace(call, f'constant("{lower[near]}")'),) if near and call else ()
    return NO_CONSTANT(call, mends, name=name, meant=meant)


@lru_cache(256)
def _measured(name: str) -> Value:
    """One that is measured: the same value each time, since its error is the same."""
    value, uncertainty, unit, _ = BY_NAME[name]
    of = unit_of(unit) if unit else Unit(())
    size = operators.operate("*", _exactly(uncertainty), factor_of(of))
    return uncertain.measured(measure_of(_exactly(value), of), real(size), name)


FUNCTIONS = (
    Function(
        name="constant",
        subject=SUBJECT,
        summary="A constant of physics, by its name; a measured one with its uncertainty.",
        parameters=(Parameter("name", "its name, or its symbol", "of a constant", is_text=True),),
        compute=constant,
        value="a measure",
        accepts=(str,),
        examples=(
            Example('constant("speed of light")', "=", "299792458 m/s"),
            Example('constant("speed of light") * 1 ns as cm', "=", "29.9792458 cm"),
            Example('constant("molar gas constant")', "≈", "8.314462618 J/(mol K)"),
            Example('constant("electron mass")', "≈", "9.1093837139e-31 ± 2.8e-40 kg"),
            Example('constant("Stefan-Boltzmann constant")', "≈", "5.670374419e-8 W/(m^2 K^4)"),
        ),
        special_values=(),
        related=("multiply",),
        words="physical constant physics CODATA SI light Planck Boltzmann Avogadro charge gas "
        "Faraday gravity " + " ".join(word for name in NAMES for word in name.split() if word[1:]),
        confused_with="a quantity of one's own: its value never changes.",
        source="SI brochure, 9th edition, 2.2; CODATA 2022",
    ),
)
