"""Measures: what may be typed with a unit after a number, and what is answered.

Names, symbols and their powers: SI brochure, 9th edition; ISO 80000-1, 7.2.  What errors say is
this project's own.
"""

import math
from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.aids.completion import complete
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.mathml import statement_mathml
from teapot.engine.reading.units import unit_from
from teapot.engine.sheet.editing import renamed_throughout
from teapot.engine.sheet.quantities import list_quantities
from tests.engine.answers import answer, error, mends, outcome

TEA = (
    "m = 1.2 kg", "c = 4186 J/(kg K)", "T_1 = 96 °C", "T_0 = 18.5 °C", "Q = m*c*(T_1 - T_0)",
    "P = 1800 W", "t = Q/(0.85*P)",
)  # fmt: skip
"""Water for tea: what it takes to heat it, and how long."""


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("Q", "= 389298 J"),
        ("Q as kWh, 4 digits", "≈ 0.1081 kWh"),
        ("t as min, 3 digits", "≈ 4.24 min"),
        ("T_1 - T_0", "= 77.5 K"),
        ("T_1 as K", "= 369.15 K"),
        ("T_1 as °F", "= 204.8 °F"),
        ("2*m", "= 2.4 kg"),
        ("2 metre", "= 2 m"),
    ],
)
def test_water_for_tea(line, expected):
    assert answer(*TEA, line) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("72 km/h as m/s", "= 20 m/s"),
        ("1 in as mm", "= 25.4 mm"),
        ("10 m/2 s", "= 5 m/s"),
        ("sqrt(2*9.81 m/s^2*3 m)", "≈ 7.672027112 m/s"),
        ("5 kN / 20 mm^2 as MPa", "= 250 MPa"),
        ("20 °C + 5 K", "= 25 °C"),
        ("5 K + 20 °C", "= 25 °C"),
        ("-5 °C", "= -5 °C"),
        ("5℃", "= 5 °C"),
        ("30° + 10 gon", "= 39°"),
        ("5m", "= 5 m"),
        ("5 m²", "= 5 m^2"),
        ("5 m^-1", "= 5 m^-1"),
        ("5 N·m", "= 5 N m"),
        ("5 N*m", "= 5 N m"),
        ("3 kilograms", "= 3 kg"),
        ("2 feet as in", "= 24 in"),
        ("5 µm as nm", "= 5000 nm"),
        ("5 μm", "= 5 µm"),
        ("(2 + 3) N", "= 5 N"),
        ("[1, 2, 3] V", "= [1 V, 2 V, 3 V]"),
        ("2 pi m", "≈ 6.283185307 m"),
        ("5 L + 3 mL", "= 5.003 L"),
        ("1500 W * 2 h", "= 3 kWh"),
        ("3 V / 2 mA", "= 1.5 kΩ"),
        ("72 km/h * 30 min", "= 36 km"),
        ("5 km / 2 m", "= 2500"),
        ("5 rad/s * 3 s", "= 15 rad"),
        ("90° / 2 s", "= 45 deg/s"),
        ("5 rad/s * 2 m", "= 10 m/s"),
        ("2 pi rad * 50 Hz", "≈ 314.1592654 rad/s"),
        ("3000 rpm as turn/s", "= 50 turn/s"),
        ("8 GB / 100 Mbit/s", "= 640 s"),
        ("6.5 MJ as SI", "= 6500000 kg m^2/s^2"),
        ("6.5e6 J as prefixed", "= 6.5 MJ"),
        ("1000 m as prefixed", "= 1 km"),
        ("999 m as prefixed", "= 999 m"),
        ("0.0005 kg as prefixed", "= 500 mg"),
        ("20 °C as prefixed", "= 20 °C"),
        ("72 km/h as prefixed", "= 72 km/h"),
        ("1 eV as J", "= 1.602176634e-19 J"),
        ("2 N^(1/2)", "= 2 N^(1/2)"),
        ("cbrt(27 L) as dm", "= 3 dm"),
        ("root(16 m^4, 4)", "= 2 m"),
        ("abs(-3 V)", "= 3 V"),
        ("hypot(3 m, 400 cm)", "= 5 m"),
        ("sgn(-3 V)", "= -1"),
        ("re((3 + 4i)*1 V)", "= 3 V"),
        ("abs((3 + 4i)*1 V)", "= 5 V"),
        ("arg(10 V∠30°) as deg", "= 30°"),
        ("min(1 kN, 900 N)", "= 900 N"),
        ("sort([3 N, 1 kN, 2 N])", "= [2 N, 3 N, 1 kN]"),
        ("sum([1 V, 2 mV])", "= 1.002 V"),
        ("mean([20 °C, 23 °C])", "= 21.5 °C"),
        ("stdev([1 V, 2 V, 3 V])", "= 1 V"),
        ("median([3 m, 1 m, 2 m])", "= 2 m"),
        ("round(3.456 kN, 1)", "= 3.5 kN"),
        ("floor(2.7 s)", "= 2 s"),
        ("7 N mod 2 N", "= 1 N"),
        ("7 N div 2 N", "= 3"),
        ("3 kN > 2000 N", "= true"),
        ("3 kN == 3000 N", "= true"),
        ("1 h ~ 3600 s", "= true"),
        ("50 % * 3 N", "= 1.5 N"),
        ("if(3 N > 2 N, 1 N, 0 N)", "= 1 N"),
        ("1/3*1 N as fraction", "= (1/3) N"),
        ("(1 + 2i)*5 V", "= (5 + 10i) V"),
        ("10 V∠90°", "= (10i) V"),
        ("m = 3; 2*m", "= 6"),
        ("f(t) = 5 t; f(2)", "= 10"),
        ('x = 3 N; "It is {x}"', '= "It is 3 N"'),
        ("f(v) = v^2; f(3 m)", "= 9 m^2"),
    ],
)
def test_measures(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("lines", "code", "said"),
    [
        ([*TEA, "Q + t"], "unlike-measures",
         "Q is an energy (J, line 5), and t is a time (s, line 7): they cannot be added."),
        (["5 N + 3"], "unlike-measures", "3 has no unit"),
        (["3 N < 2 s"], "unlike-measures", "they cannot be compared"),
        (["20 °C + 5 °C"], "two-temperatures", "difference"),
        (["20 °C mod 3"], "unlike-measures", ""),
        (["abs(-4 °C)"], "temperature-on-scale", "without its sign"),
        (["exp(5 m)"], "takes-plain-number", "a length (m)"),
        (["ln([1 m, 2 m])"], "takes-plain-number", "a length (m)"),
        (["5 kW*h as W"], "other-dimension", "to get a power divide by a time"),
        (["5 W as kWh"], "other-dimension", "to get an energy multiply by a time"),
        (["5 as km"], "no-unit-to-convert", "a plain number"),
        (["30° as m"], "other-dimension", "an angle"),
        (["1/2 h"], "number-over-angle", "Which do you mean"),
        (["5 J/kg K"], "unit-below", "above the fraction bar"),
        (["10^(3 m)"], "power-is-measure", "a length (m)"),
        (["(2 m)^pi"], "power-of-measure", "rational"),
        (["1 m^(1/0)"], "power-of-unit", "other than 0"),
        (["1 m^1000000000"], "power-of-unit", "at most 99"),
        (["3 kkg"], "unknown-unit", "kg is"),
        (["5 5 m"], "side-by-side", "An operator is missing"),
        (["12 h 5 min"], "measures-side-by-side", "add them"),
        (["m"], "unknown-name", "the unit metre stands after a number"),
        (["1 N..3 N"], "range-of-measures", "from number to number"),
        (["5 N as percent"], "form-for-number", ""),
        (["3 N!"], "unit-behind-measure", "a force (N)"),
        (["5 m" + " m" * 1000], "endless-unit", "at most 20"),
        (["a = [1 N, 2 s]", "table(a)"], "column-of-two-kinds", "a force (N)"),
        (["infinity*1 m as km"], "", ""),
    ],
)  # fmt: skip
def test_what_is_wrong_with_units_is_said(lines, code, said):
    if not code:
        assert outcome(*lines).status == "ok"
        return
    assert error(*lines) == code
    assert said in outcome(*lines).error.text


@pytest.mark.parametrize(
    ("lines", "wanted"),
    [
        (["1/2 m"], ["(1/2) m", "1/(2 m)"]),
        (["5 KG"], ["5 kg"]),
        (["5 Kg"], ["5 kg"]),
        (["5 sec"], ["5 s"]),
        (["5 hrs"], ["5 h"]),
        (["5 micron"], ["5 µm"]),
        (["5 kkg"], ["5 kg"]),
        (["30 mpg"], ["30 mi/gal"]),
        (["(20 °C + 30 °C)/2"], ["mean([20 °C, 30 °C])"]),
        (["(20 °C + 30 °C)/3"], []),
        (["5 J/kg K"], ["5 J/(kg K)", "5 J K/kg"]),
        (["5 N + 3"], ["5 N + 3 N"]),
        (["20 °C mod 3"], []),
        (["12 h 5 min"], ["12 h + 5 min"]),
        (["1 N..3 N"], ["(1..3) N"]),
        (["m = 2", "x = 5 kg m/s^2"], []),
    ],
)
def test_mends_give_what_was_meant(lines, wanted):
    before = lines[:-1]
    found = mends(*lines)
    assert [text for text in wanted if text in found] == wanted
    for text in wanted[:1]:
        assert outcome(*before, text).status == "ok", text


def test_a_sheet_may_have_a_system_of_units():
    assert answer("/show SI", "5 kN") == "= 5000 kg m/s^2"
    assert answer("/show prefixed", "Q = 389298 J") == "= 389.298 kJ"
    assert answer("/show prefixed", "30°") == "= 30°"
    assert answer("/show SI", "5 kN as N") == "= 5000 N"


def test_a_column_has_its_unit_above_it():
    found = outcome("m = [1, 2.5] kg", "T = [20 °C, 300 K]", "table(m, T)").answers[0]
    assert found.written.cells() == [["m [kg]", "T [°C]"], ["1", "20"], ["2.5", "26.85"]]
    assert found.sign == "="


def test_constants_are_completed_by_a_part_of_their_name():
    typed = 'constant("planck c'
    found = complete(FullSheet(), typed, len(typed))
    assert [one.insert for one in found[:2]] == ['Planck constant")', 'Planck constant in eV/Hz")']
    assert 'reduced Planck constant")' in [one.insert for one in found]
    assert found[0].summary == "6.62607015e-34 J/Hz"


def test_units_are_completed_behind_a_number_and_behind_as():
    sheet = FullSheet()
    sheet.answer("Q = 5 J")

    def names(typed):
        return [one.name for one in complete(sheet, typed, len(typed)) if one.kind == "unit"]

    assert names("5 kilog") == ["kg", "kgf"]
    assert names("5k")[:2] == ["km", "kg"]
    assert names("5 kg") == names("2*kg") == []
    assert names("Q as kW") == ["kWh"]
    assert names("4 J/(k")[:2] == ["km", "kg"]


def test_a_number_with_a_unit_has_it_whatever_the_sheet_has_and_that_is_said():
    found = outcome("m = 3", "h = 2 m")
    assert found.answers[0].text == "2 m"
    assert [notice.code for notice in found.notices] == ["read-as-unit"]
    assert [mend.apply(found.input) for mend in found.notices[0].mends] == ["h = 2*m"]
    assert not outcome("m = 3", "2*m").notices
    assert mends("m = 3", "2 m") == ["2 metre", "2*m"]


def test_what_a_line_means_depends_on_the_names_before_it_whenever_they_come():
    sheet = FullSheet()
    sheet.put(1, "x = 2 m", 1.0)
    sheet.put(2, "y = 3 kg m/s^2", 2.0)
    assert text_of(sheet, 1) == "2 m"
    sheet.put(3, "m = 5", 0.5)
    assert (text_of(sheet, 1), text_of(sheet, 2)) == ("2 m", "3 kg m/s^2")
    assert [one.code for one in sheet.outcome_of(sheet.by_number[1]).notices] == ["read-as-unit"]
    sheet.remove(3)
    assert not sheet.outcome_of(sheet.by_number[1]).notices
    assert (text_of(sheet, 1), text_of(sheet, 2)) == ("2 m", "3 kg m/s^2")
    sheet.put(3, "m = 5", 1.5)
    assert text_of(sheet, 1) == "2 m"


def test_a_line_with_a_note_is_read_again_once_its_names_are_there():
    sheet = FullSheet()
    for line in ("m = 1.2 kg", "h = 2 m", "A = m h  # a moment, and back"):
        sheet.answer(line)
    sheet.put(1, "m = 2 kg", sheet.by_number[1].place)
    assert text_of(sheet, 3) == "4 kg m"


def test_a_line_with_an_open_bracket_is_read_as_when_it_is_closed():
    sheet = FullSheet()
    for line in ("m = 25 kg", "g = 9.81 m/s^2", "W = 20 J", "Q = 3 kJ"):
        sheet.answer(line)
    for typed in ("Q/(2200 W", "Q/(2200 W) + 2 min*root(8, 3", "F = (86 kg*2 m/s^2", "(15 m + 2 g"):
        now, then = (sheet.typed(one).outcome for one in (typed, typed + ")"))
        assert [one.text for one in now.answers] == [one.text for one in then.answers]
        assert now.error is then.error is None or now.error.code == then.error.code
    assert sheet.typed("Q/(2200 W) + 2 min*root(8, 3").outcome.answers[0].text == "241.3636364 s"


def text_of(sheet, number):
    return sheet.outcome_of(sheet.by_number[number]).answers[0].text


def test_renaming_a_quantity_leaves_units_alone():
    sheet = FullSheet()
    for line in ("x = 2 m", "m = 5", "2 m", "3 kg/m^3", "2*m"):
        sheet.answer(line)
    assert renamed_throughout(sheet, "m", "mass") == {2: "mass = 5", 5: "2*mass"}


def test_what_is_read_as_a_unit_uses_no_quantity_of_its_name():
    sheet = FullSheet()
    for line in ("m = 80 kg", "h = 15 m", "w := 3 m", "g = 9.81 m/s^2", "E = m g h", "m = 70 kg"):
        sheet.answer(line)
    found = {one.name: one for one in list_quantities(sheet)[0]}
    assert [found[name].uses for name in ("h", "w", "g", "E")] == [(), (), (), ("g", "h", "m")]
    assert [name for name in found if found[name].reason] == ["E"]


def test_a_name_alone_is_never_a_unit():
    assert error("x = kg") == "unknown-name"
    assert answer("kg = 5", "kg*2") == "= 10"
    assert error("h*2") == "unknown-name"


def test_units_are_set_upright_with_their_powers_under_the_bar():
    [statement] = parse("5 J/(kg K)").statements
    written = statement_mathml(statement)
    assert '<mi mathvariant="normal">J</mi>' in written
    assert '<mfrac class="unit">' in written
    [statement] = parse("5 s^-2").statements
    assert "<mo>−</mo><mn>2</mn>" in statement_mathml(statement)


SYMBOLS = ("m", "kg", "s", "A", "K", "mol", "N", "J", "kW", "mV", "L", "h", "bar", "in", "eV", "µm")


@st.composite
def units(draw):
    parts = draw(st.lists(
        st.tuples(st.sampled_from(SYMBOLS), st.integers(-3, 3).filter(bool)),
        min_size=1, max_size=4, unique_by=lambda part: part[0],
    ))  # fmt: skip
    above = " ".join(s + (f"^{p}" if p != 1 else "") for s, p in parts if p > 0)
    below = " ".join(s + (f"^{-p}" if p != -1 else "") for s, p in parts if p < 0)
    assume("in" not in above.split()[:-1] + below.split()[1:-1])  # that converts
    if not above:
        return " ".join(f"{s}^{p}" for s, p in parts)
    return f"{above}/({below})" if below else above


@given(units(), st.fractions(-1000, 1000, max_denominator=64))
def test_the_text_of_an_answer_typed_in_again_is_the_same_measure(unit, count):
    typed = f"({count.numerator}/{count.denominator}) {unit}"
    found = outcome(typed).answers[0]
    if found.sign == "=":
        again = outcome(found.text).answers[0]
        assert (again.sign, again.text) == ("=", found.text)
    assert unit_from(unit) is not None
    fraction = outcome(f"{typed} as fraction").answers[0]
    assert Fraction(count) == 0 or outcome(f"{fraction.text} == {typed}").answers[0].text == "true"


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("0.1 m + 0.2 m", f"{0.1 + 0.2!r} m"),
        ("0.1 m + 20 cm as cm", f"{(0.1 + 20 * 0.01) * 100!r} cm"),
        ("sqrt(2*9.81 m/s^2*3 m)", f"{math.sqrt(2 * 9.81 * 3)!r} m/s"),
        ("3.3 lb as kg", f"{3.3 * 0.45359237!r} kg"),
        ("68 °F as K", f"{68 * (5 / 9) + 459.67 / 1.8!r} K"),
        ("20 °C - 68 °F", f"{(20 + 273.15) - (68 * (5 / 9) + 459.67 / 1.8)!r} K"),
        ("0.1 m/(0.3 m)", f"{0.1 / 0.3!r}"),
        ("arctan(3 m, 4 m)", f"{math.atan2(3, 4)!r} rad"),
        ("sum([0.1 m, 0.2 m, 10 cm])", f"{sum([0.1, 0.2, 10 * 0.01])!r} m"),
        ("0.3 m mod 0.1 m", f"{0.3 % 0.1!r} m"),
        ("(0.1 m)^3", f"{0.1**3!r} m^3"),
        ('constant("speed of light")*1 ns', f"{299792458 * 1 * 1e-9!r} m"),
        ("[0.1 m, 3 cm]*3", f"[{0.1 * 3!r} m, {0.03 * 3!r} m]"),
        ("sin(30°)*0.1 m", f"{math.sin(30 * (math.pi / 180)) * 0.1!r} m"),
    ],
)
def test_machine_arithmetic_is_done_on_the_numbers_of_units(line, expected):
    """The figures are those of Python's own floats."""
    form = ", binary64" if " as " in line else " as binary64"
    assert answer(line + form) == f"→ {expected}"


@pytest.mark.parametrize(
    "line", ["[1 m, 2 s] as binary64", "today() as binary64", "(1 + 2i) m as binary64"]
)
def test_what_has_no_machine_number_is_said(line):
    assert error(line) in ("not-in-binary64", "kind-not-in-binary64")


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("arctan(3 m, 4 m) as deg", "≈ 36.86989765°"),
        ("arctan(3 m, 400 cm) as deg", "≈ 36.86989765°"),
        ("arctan(0 m, -1 m) as deg", "= 180°"),
        ("arctan(3 ± 0.1 m, 4 ± 0.1 m)", "≈ (0.644 ± 0.020) rad"),
    ],
)
def test_the_direction_of_a_point_may_be_of_two_lengths(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("arctan(3 m)", "takes-plain-number"),
        ("arctan(3 m, 4 s)", "unlike-measures"),
        ("arctan(3 m, 4)", "unlike-measures"),
        ("arctan(20 °C, 3 °C)", "temperature-on-scale"),
    ],
)
def test_the_direction_of_a_point_wants_sides_that_agree(line, code):
    assert error(line) == code


@pytest.mark.parametrize(
    ("line", "rows"),
    [
        ("x = [1 m, -2 m]", [["x [m]"], ["1"], ["-2"]]),
        ("x = [1 m, 0/0]", [["x [m]"], ["1"], ["undefined"]]),
        ("x = [1 m, 2 cm]", [["x"], ["1 m"], ["2 cm"]]),
        ("x = [1, 2]", [["x"], ["1"], ["2"]]),
    ],
)
def test_a_list_has_its_unit_above_it_in_a_file(line, rows):
    assert outcome(line).answers[0].cells() == rows


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("1 Hz as 1/s", "= 1 s^-1"),
        ("1/(2 s) as 1/min", "= 30 min^-1"),
        ("1/(2 s) as 1/min, 3 digits", "= 30.0 min^-1"),
    ],
)
def test_a_unit_below_one_is_a_form(line, expected):
    assert answer(line) == expected


def test_a_millisecond_is_not_metre_and_second():
    found = outcome("9.81 ms^-2")
    assert [one.code for one in found.notices] == ["millisecond"]
    assert answer(found.notices[0].mends[0].apply("9.81 ms^-2")) == "= 9.81 m/s^2"
    assert not outcome("9.81 m s^-2").notices
    assert not outcome("5 ms").notices


def test_units_are_told_from_quantities_all_over_a_line():
    assert answer("m = 1.2 kg", "sqrt(2*9.81 m/s^2*3 m)") == "≈ 7.672027112 m/s"
    assert outcome("m = 3 kg", "5/(2 m) + 4 foo").error.mends == outcome("4 foo").error.mends


@pytest.mark.parametrize(
    ("line", "kind"),
    [
        ("x = 3 kJ", "an energy"),
        ("x = 5.32 ± 0.04 m", "a length"),
        ("x = 30°", "an angle"),
        ("x = [1, 2] s", "each a time"),
        ("x = [1, 2]", ""),
        ("x = []", ""),
        ("x = 3", ""),
    ],
)
def test_a_quantity_says_what_it_measures(line, kind):
    sheet = FullSheet()
    sheet.answer(line)
    [quantity], _ = list_quantities(sheet)
    assert quantity.kind == kind
    assert bool(quantity.unit) == bool(kind)


def test_a_quantity_after_a_measure_multiplies_in_longer_products_too():
    given = ("C = 100 nF", "R_1 = 5 ohm", "L = 3 mH")
    assert answer(*given, "2*50 Hz R_1") == "= 500 Ω/s"
    assert answer(*given, "X = 1/(2 π 50 Hz C) in kΩ") == "≈ 31.83098862 kΩ"
    assert answer(*given, "2*3 A R_1") == "= 30 V"
    assert error(*given, "2*50 Hz C") == "unit-or-quantity"  # not 100 A
    assert error(*given, "2 π 50 Hz L") == "unit-or-quantity"  # not litres
    assert error(*given, "10 J/2 kg R_1") == "side-by-side"


def test_numbers_with_units_are_that_inside_functions_and_before_a_conversion():
    given = ("V = 250 mL", "m = 2 kg", "s = 5 cm")
    assert answer(*given, "0.34 V - 0.0592 V/2 lg(1/0.01)") == "= 0.2808 V"
    assert answer(*given, "5 m * sin(30°)") == "= 2.5 m"
    assert answer(*given, "86 kg * 2 m/s^2 in kN") == "= 0.172 kN"
    assert answer(*given, "max(3 m, 4 m)") == "= 4 m"
    assert error(*given, "2 s") == "unit-or-quantity"


def test_an_acceleration_from_kilometres_an_hour_is_in_metres_and_seconds():
    """(25 m/s)²/(2·60 m) = 5.208 m/s², and 25/5.208 = 4.8 s."""
    given = ("v = 90 km/h", "d = 60 m", "a = v^2/(2 d)")
    assert answer(*given, "a") == "≈ 5.208333333 m/s^2"
    assert answer(*given, "v/a") == "= 4.8 s"
