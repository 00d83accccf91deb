"""Constants of physics, against ``scipy.constants`` (CODATA 2022) and the SI brochure, 2.2."""

import pytest
from scipy import constants as scipy

from teapot.engine.functions.physics import ALSO, BY_NAME, DERIVED, NAMES
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.sizes import factor_of
from teapot.engine.numbers.uncertain import nearly
from teapot.engine.numbers.values import exact
from teapot.engine.reading.units import unit_from
from teapot.engine.units.constants import CONSTANTS
from tests.engine.answers import answer, error, mends, outcome, value_of_line
from tools.constants import OUT, defined

DEFINED_BY_THE_SI = {
    "caesium frequency": "9192631770 Hz",
    "speed of light": "299792458 m/s",
    "Planck constant": "6.62607015e-34 J/Hz",
    "elementary charge": "1.602176634e-19 C",
    "Boltzmann constant": "1.380649e-23 J/K",
    "Avogadro constant": "6.02214076e23 mol^-1",
    "luminous efficacy": "683 lm/W",
}
"""SI brochure, 9th edition, table 1."""

OF_SCIPY = {
    "reduced Planck constant": "natural unit of action",
    "molar volume of ideal gas": "molar volume of ideal gas (273.15 K, 101.325 kPa)",
    "magnetic flux quantum": "mag. flux quantum",
}
"""Names there of what follows from the defining constants."""


def test_what_is_defined_is_what_scipy_has():
    assert OUT.read_text() == defined()


@pytest.mark.parametrize(("name", "value"), DEFINED_BY_THE_SI.items())
def test_the_defining_constants_are_exact(name, value):
    assert answer(f'constant("{name}") == {value}') == "= true"


@pytest.mark.parametrize("name", DERIVED)
def test_what_follows_from_them_is_that_of_scipy(name):
    value, unit, uncertainty = scipy.physical_constants[OF_SCIPY.get(name, name)]
    assert uncertainty == 0
    found = outcome(f'constant("{name}") as 12 digits').answers[0]
    assert unit_from(unit).dimension == unit_from(found.text.partition(" ")[2]).dimension
    assert float(found.text.partition(" ")[0]) == pytest.approx(value, rel=1e-11)


def test_light_in_a_nanosecond():
    assert answer('constant("speed of light") * 1 ns as cm') == "= 29.9792458 cm"
    assert answer('constant("c") as km/s') == "= 299792.458 km/s"


def test_what_is_measured_carries_its_uncertainty():
    measured = [row for row in CONSTANTS if row[2]]
    assert len(measured) >= 60
    for name, value, uncertainty, unit, _ in measured:
        found = value_of_line(f'constant("{name}")')
        factor = factor_of(unit_from(unit)) if unit else exact(1)
        assert nearly(uncertain.of(found)) == pytest.approx(float(uncertainty) * nearly(factor))
        assert nearly(uncertain.size_of(found)) == pytest.approx(float(value) * nearly(factor))
    found = outcome('constant("electron mass")*constant("c")^2 as eV').answers[0]
    assert (found.sign, found.text) == ("≈", "(510998.95069 ± 0.00016) eV")  # CODATA 2022
    assert answer('constant("electron mass") - constant("electron mass")') == "= 0 kg"


def test_a_name_that_is_none_is_told_what_may_be_meant():
    assert mends('constant("planck constant")') == ['constant("Planck constant")']
    assert error('constant("tea")') == "no-constant"
    assert error("constant(5)") == "no-constant"
    assert set(ALSO.values()) <= {*NAMES, *BY_NAME}
