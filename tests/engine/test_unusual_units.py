"""Units that are hardly units: levels in dB and dBm, years by their symbol, millionths, and one
over a unit."""

import math

import pytest

from tests.engine.answers import answer, mends, outcome


@pytest.mark.parametrize(
    ("lines", "wanted"),
    [
        # ITU-R V.574: a level in dBm is 10 lg(P/1 mW); the numbers by Python's logarithm
        ("20 mW as dBm", f"≈ {10 * math.log10(20):.10g} dBm"),
        ("1 MW as dBm", "= 90 dBm"),
        ("[1 mW, 1 W] as dBm", "= [0 dBm, 30 dBm]"),
        ("-60 dBm as W", "= 1e-9 W"),
        ("3 dBm as mW", f"≈ {10**0.3:.10g} mW"),
        ("100 mW as dBm, 2 places", "= 20.00 dBm"),
        # to first order the uncertainty is 10/ln 10 of the relative one
        ("(20 ± 1) mW as dBm", "≈ (13.01 ± 0.22) dBm"),
        # what is transmitted, gained and lost
        ("20 dBm + 12 dBi - 80 dB", "= -48 dBm"),
        ("3 dB + 10 dBm", "= 13 dBm"),
        ("10 dBm - 7 dBm", "= 3 dB"),
        ("[10 dBm, 20 dBm] - 3 dB", "= [7 dBm, 17 dBm]"),
        ("0.4 dB/m * 30 m", "= 12 dB"),
        ("10 lg(4) dB", f"≈ {10 * math.log10(4):.10g} dB"),
        ("L_p = 30 dB; 10^(L_p/(10 dB))", "= 1000"),
        ("0 W as dBm", "= undefined"),
        # as they are said, and with a symbol that stands twice
        ("20 deg C + 5 K", "= 25 °C"),
        ("68 degrees F in degrees C", "= 20 °C"),
        ("25 degrees Celsius as K", "= 298.15 K"),
        ("9.8 m/s/s", "= 9.8 m/s^2"),
        # the Julian year of the IAU, 365.25 d
        ("12 a as d", "= 4383 d"),
        ("65 Ma as year", "= 65000000 year"),
        ("a = 9.81 m/s^2; 2 kg * a", "= 19.62 N"),
        ("a = 3; 2 a", "= 6"),
    ],
)
def test_a_level_or_a_year_is_read_and_converted(lines, wanted):
    assert answer(*lines.split("; ")) == wanted


@pytest.mark.parametrize(
    ("lines", "code", "offered"),
    [
        ("100 as dB", "level-of-ratio", ["10*lg(100) dB", "20*lg(100) dB"]),
        ("P_1 = 5 W; P_1 as dB", "level-of-power", ["P_1 as dBm"]),
        ("10 dBm + 10 dBm", "absolute-levels", []),
        ("3 dB - 10 dBm", "absolute-levels", []),
        ("10 dBm as dB", "ratio-of-level", []),
        ("2*10 dBm", "multiplied-level", []),
        ("20 dB as percent", "form-for-number", []),
        ("SNR = 20 dB; SNR + 3", "unlike-measures", ["SNR + 3 dB"]),
        ("L_p = 30 dB; 10^(L_p/10)", "power-is-measure", ["10^((L_p/10)/(1 dB))"]),
        ("L_p = 3 dB; 10^L_p", "power-is-measure", ["10^(L_p/(1 dB))"]),
        ("5 min/km as km/h", "other-dimension", ["1/(5 min/km) as km/h"]),
        ("T_1 = 20 ms; T_1 as Hz", "other-dimension", ["1/T_1 as Hz"]),
        ("7.5 L/(100 km) as mi/gal", "other-dimension", ["1/(7.5 L/100 km) as mi/gal"]),
        ("7.5 L/(100 km) as L/(10 km)", "number-in-unit", ["7.5 L/(100 km) as L/(km)"]),
    ],
)
def test_what_no_level_or_unit_can_be_is_told_with_what_is_meant(lines, code, offered):
    lines = lines.split("; ")
    error = outcome(*lines).error
    assert error is not None
    assert error.code == code
    assert mends(*lines) == offered


@pytest.mark.parametrize(
    ("lines", "wanted"),
    [
        ("5 mg / 2 kg in ppm", "= 2.5 ppm"),
        ("0.03 as ppm", "= 30000 ppm"),
        ("20 ppm as mg/kg", "= 20 mg/kg"),
        ("(0.002 ± 0.0001) as ppm", "≈ (2.00 ± 0.10)e3 ppm"),
        ("alpha = 17 ppm; 2 m * (1 + alpha)", "= 2.000034 m"),
        ("1 + [1 ppm, 2 ppm]", "= [1.000001, 1.000002]"),
        ("1 - 5 mm/m", "= 0.995"),
        ("25 ppm == 0.000025", "= true"),
        ("20 ppm < 0.1%", "= true"),
        ("2^(3*10^6 ppm)", "= 8"),
        ("ln(2 ppm)", f"≈ {math.log(2e-6):.10g}"),
        ("(25 ppm)^2", "= 6.25e-10"),
    ],
)
def test_so_many_millionths_are_a_number_beside_numbers(lines, wanted):
    assert answer(*lines.split("; ")) == wanted


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        ("v = 14 m/s; E_k = 0.5 m v^2", ["m was read as metre."]),
        ("v = 14 m/s; m = 2 kg; E_k = 0.5 m v^2", []),
        ("Q = 2 C; W = 12 V Q", []),
        (
            "V = 12 V; A = 3 m^2; 3 V/(2 A)",
            ["V and A were read as the units here, not as your quantities."],
        ),
    ],
)
def test_a_letter_that_was_taken_for_a_unit_is_told(lines, said):
    assert [one.text for one in outcome(*lines.split("; ")).notices] == said


@pytest.mark.parametrize(
    ("line", "wanted"),
    [
        ("500 N cos(60°)", "= 250 N"),
        ("12 V √4", "= 24 V"),
        ("5 m/s sqrt(9)", "= 15 m/s"),
        ("500 N (3 m - 1 m)", "= 1000 N m"),
        ("9.81 m/s^2 (2 s)^2", "= 39.24 m"),
        ("2 kN sin(30°) + 1 kN cos(60°)", "= 1.5 kN"),
    ],
)
def test_a_call_a_root_or_a_bracket_multiplies_a_measure_before_it(line, wanted):
    assert answer(line) == wanted


def test_a_bracket_that_touches_a_unit_is_asked_back():
    assert mends("5 m(3)") == ["5 m*(3)"]
