"""Constants of physics, with their units.

The seven that define the SI (SI brochure, 9th ed., 2.2), what follows from them exactly, and
conventional values are exact; the others are measured values as CODATA recommends them.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from flint import arb, fmpq

from teapot.engine.errors import LineError
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.mends import replace
from teapot.engine.numbers import operators, uncertain
from teapot.engine.numbers.context import current
from teapot.engine.numbers.sizes import factor_of, measure_of
from teapot.engine.numbers.values import Exact, Number, Real, Source, Undefined, Value, exact, real
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

OWN_NAMES = {own: name for name, *_, own in CONSTANTS if own != name}
"""What CODATA calls them, where that is another name."""

ALSO = {
    **OWN_NAMES,
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
    "k_B": "Boltzmann constant", "ε_0": "electric constant", "eps_0": "electric constant",
    "epsilon_0": "electric constant", "μ_0": "magnetic constant", "µ_0": "magnetic constant",
    "mu_0": "magnetic constant", "m_e": "electron mass", "m_p": "proton mass",
    "m_n": "neutron mass", "m_u": "atomic mass constant", "c_0": "speed of light",
    "ħ": "reduced Planck constant", "h_bar": "reduced Planck constant", "a_0": "Bohr radius",
    "R_inf": "Rydberg constant", "R_∞": "Rydberg constant", "μ_B": "Bohr magneton",
    "mu_B": "Bohr magneton", "g_n": "standard gravity", "K_J": "Josephson constant",
    "R_K": "von Klitzing constant", "G_0": "conductance quantum",
    "σ_SB": "Stefan-Boltzmann constant", "mag. flux quantum": "magnetic flux quantum",
    "standard acceleration of gravity": "standard gravity",
    "molar volume of ideal gas (273.15 K, 101.325 kPa)": "molar volume of ideal gas",
    "alpha": "fine-structure constant",
}  # fmt: skip
"""Symbols and other names of constants."""

Derived = tuple[Number, tuple[tuple[str, int], ...], str]

ENERGY_OF = {
    "joule": ((), "J"),
    "electron volt": ((("elementary charge", 1),), "eV"),
    "hertz": ((("Planck constant", 1),), "Hz"),
    "kelvin": ((("Boltzmann constant", 1),), "K"),
    "kilogram": ((("speed of light", 2),), "kg"),
    "inverse meter": ((("Planck constant", 1), ("speed of light", 1)), "m^-1"),
}  # fmt: skip
"""What a unit is multiplied by to be an energy, and its symbol (CODATA: energy equivalents)."""


def _peak(n: int, power: int) -> Real:
    """Where n − x = n·exp(−x), which tells where a black body radiates most, to the ``power`` 1 or
    −1: n + W(−n·exp(−n))."""

    def compute() -> arb:
        return (n + (-n * (-arb(n)).exp()).lambertw()) ** power

    return Real(compute, name=f"peak {n}")


def _relationships() -> Iterator[tuple[str, Derived]]:
    """``electron volt-hertz relationship`` and its like: how many of the second unit there are to
    the energy of one of the first."""
    for first, (above, _) in ENERGY_OF.items():
        for second, (below, unit) in ENERGY_OF.items():
            powers = (*above, *((name, -power) for name, power in below))
            if first != second:
                yield f"{first}-{second} relationship", (exact(1), powers, unit)


DERIVED: dict[str, Derived] = {
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
    "molar volume of ideal gas (273.15 K, 100 kPa)": (
        exact(fmpq(27315, 10**7)),
        (("Avogadro constant", 1), ("Boltzmann constant", 1)),
        "m^3/mol",
    ),
    "Loschmidt constant (273.15 K, 101.325 kPa)": (
        exact(fmpq(100, 27315)), (("standard atmosphere", 1), ("Boltzmann constant", -1)), "m^-3",
    ),
    "Loschmidt constant (273.15 K, 100 kPa)": (
        exact(fmpq(10**7, 27315)), (("Boltzmann constant", -1),), "m^-3",
    ),
    "standard-state pressure": (exact(10**5), (), "Pa"),
    "inverse of conductance quantum": (
        exact(fmpq(1, 2)), (("Planck constant", 1), ("elementary charge", -2)), "Ω",
    ),
    "elementary charge over h-bar": (
        exact(2, 1), (("elementary charge", 1), ("Planck constant", -1)), "A/J",
    ),
    "molar Planck constant": (
        exact(1), (("Avogadro constant", 1), ("Planck constant", 1)), "J/(Hz mol)",
    ),
    "first radiation constant for spectral radiance": (
        exact(2), (("Planck constant", 1), ("speed of light", 2)), "W m^2/sr",
    ),
    "electron volt": (exact(1), (("elementary charge", 1),), "J"),
    "atomic unit of charge": (exact(1), (("elementary charge", 1),), "C"),
    "atomic unit of action": (exact(fmpq(1, 2), -1), (("Planck constant", 1),), "J s"),
    "natural unit of action": (exact(fmpq(1, 2), -1), (("Planck constant", 1),), "J s"),
    "natural unit of velocity": (exact(1), (("speed of light", 1),), "m/s"),
    "conventional value of Josephson constant": (exact(483597_900_000_000), (), "Hz/V"),
    "conventional value of von Klitzing constant": (exact(fmpq(25812807, 1000)), (), "Ω"),
    "Wien wavelength displacement law constant": (
        _peak(5, -1),
        (("Planck constant", 1), ("speed of light", 1), ("Boltzmann constant", -1)),
        "m K",
    ),
    "Wien frequency displacement law constant": (
        _peak(3, 1), (("Boltzmann constant", 1), ("Planck constant", -1)), "Hz/K",
    ),
    "Boltzmann constant in eV/K": (
        exact(1), (("Boltzmann constant", 1), ("elementary charge", -1)), "eV/K",
    ),
    "Boltzmann constant in Hz/K": (
        exact(1), (("Boltzmann constant", 1), ("Planck constant", -1)), "Hz/K",
    ),
    "Boltzmann constant in inverse meter per kelvin": (
        exact(1),
        (("Boltzmann constant", 1), ("Planck constant", -1), ("speed of light", -1)),
        "m^-1 K^-1",
    ),
    "Planck constant in eV/Hz": (
        exact(1), (("Planck constant", 1), ("elementary charge", -1)), "eV/Hz",
    ),
    "reduced Planck constant in eV s": (
        exact(fmpq(1, 2), -1), (("Planck constant", 1), ("elementary charge", -1)), "eV s",
    ),
    "natural unit of action in eV s": (
        exact(fmpq(1, 2), -1), (("Planck constant", 1), ("elementary charge", -1)), "eV s",
    ),
    "reduced Planck constant times c in MeV fm": (
        exact(fmpq(10**9, 2), -1),
        (("Planck constant", 1), ("speed of light", 1), ("elementary charge", -1)),
        "MeV fm",
    ),
    **dict(_relationships()),
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
    return uncertain.measured(
        measure_of(_exactly(value), of), real(size), Source(("constant", name), name)
    )


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
            Example('constant("electron mass")', "≈", "(9.1093837139 ± 0.0000000028)e-31 kg"),
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
