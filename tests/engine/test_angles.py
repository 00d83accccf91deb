"""Angles: what may be typed, what is answered, and what each line keeps.

Units: ISO 80000-3.  Ranges of the inverse functions: NIST DLMF 4.23.
"""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.engine.answers import answer, error, mends, outcome


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        (["30°"], "= 30°"),
        (["30 deg"], "= 30°"),
        (["0.5 rad"], "= 0.5 rad"),
        (["100 gon"], "= 100 gon"),
        (["0.25 turn"], "= 0.25 turn"),
        (["30′"], "= 0.5°"),
        (["12°30′15″"], "= 12°30′15″"),
        (["12°30'15\""], "= 12°30′15″"),
        (["12º30’15”"], "= 12°30′15″"),
        (["12°30′15″ as deg"], "≈ 12.50416667°"),
        (["12°30′15″ + 0.5°"], "= 13°0′15″"),
        (["100 gon as dms"], "= 90°0′0″"),
        (["-12.5° as dms"], "= -12°30′0″"),
        (["59.9999999999° as dms, 2 places"], "≈ 60°0′0.00″"),
        (["1.0000001° as dms"], "= 1°0′0.00036″"),
        (["30° + 0.5 turn"], "= 210°"),
        (["0.5 turn + 30° as deg"], "= 210°"),
        (["3*30°"], "= 90°"),
        (["90°/4"], "= 22.5°"),
        (["90°/30°"], "= 3"),
        (["370° mod 360°"], "= 10°"),
        (["-370° div 360°"], "= -2"),
        (["-30°"], "= -30°"),
        (["|-30°|"], "= 30°"),
        (["30° == (pi/6) rad"], "= true"),
        (["30° < 0.6 rad"], "= true"),
        (["max(10°, 0.5 rad)"], "= 0.5 rad"),
        (["round(12.3456°, 2)"], "= 12.35°"),
        (["floor(100.7 gon)"], "= 100 gon"),
        (["mean([10°, 20°])"], "= 15°"),
        (["60° as rad"], "= (pi/3) rad"),
        (["60° as rad, 4 digits"], "≈ 1.047 rad"),
        (["(pi/3) rad as deg"], "= 60°"),
        (["(1/3) turn as deg"], "= 120°"),
        (["(1/3)° as fraction"], "= (1/3)°"),
        (["a = 90°", "a as gon"], "= 100 gon"),
        (["a = 100 gon as deg", "a"], "= 90°"),
        (["degrees(pi/6)"], "= 30"),
        (["radians(180°) as exact"], "= pi"),
        (["[0, 90]°"], "= [0°, 90°]"),
        (["30° as SI"], "= (pi/6) rad"),
        (["sgn(-30°)"], "= -1"),
        (["30° < infinity"], "= false"),
        (["12°30′15″*2"], "= 25°0′30″"),
        (["12°30′/(2 s)"], "= 6.25 deg/s"),
        (["30°*2 m as exact"], "= (pi/3) m"),
        (["[10°, 20 gon]*3"], "= [30°, 60 gon]"),
        (["cumulative([10°, 20°])"], "= [10°, 30°]"),
    ],
)
def test_angles(lines, expected):
    assert answer(*lines) == expected


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("sin(30°)", "= 0.5"),
        ("sin(pi)", "= 0"),
        ("cos(pi/2)", "= 0"),
        ("tan(pi/4)", "= 1"),
        ("tan(pi/2)", "= undefined"),
        ("tan(90°)", "= undefined"),
        ("tan(270°)", "= undefined"),
        ("sin(45°) as exact", "= sqrt(2)/2"),
        ("cos(195°) as exact", "= -(sqrt(6) + sqrt(2))/4"),
        ("tan(105°) as exact", "= -2 - sqrt(3)"),
        ("sin(0.25 turn)", "= 1"),
        ("cos(200 gon)", "= -1"),
        ("sin(12°30′)", "≈ 0.2164396139"),
    ],
)
def test_trigonometric_values(line, expected):
    assert answer(line) == expected


@pytest.mark.parametrize("degrees", range(-720, 721, 15))
def test_the_exact_form_has_the_value_that_it_stands_for(degrees):
    for name, reference in (("sin", math.sin), ("cos", math.cos)):
        closed = answer(f"{name}({degrees}°) as exact")[2:]
        assert (
            abs(float(answer(f"({closed}) as 15 digits")[2:]) - reference(math.radians(degrees)))
            < 1e-14
        )


def test_an_exact_multiple_of_pi_is_shown_both_ways():
    [shown] = outcome("arctan(1)").answers
    assert (shown.sign, shown.text, shown.nearly) == ("=", "(pi/4) rad", "0.7853981634 rad")
    assert shown.as_dict()["also"] == ["≈ 0.7853981634 rad"]
    assert answer("/angle deg", "arctan(1)") == "= 45°"
    assert answer("/angle gon", "arctan(1)") == "= 50 gon"
    assert answer("/angle turn", "arctan(1)") == "= 0.125 turn"


@pytest.mark.parametrize(
    ("y", "x", "degrees"),
    [(1, 1, 45), (1, -1, 135), (-1, -1, -135), (-1, 1, -45), (0, 1, 0), (0, -1, 180),
     (1, 0, 90), (-1, 0, -90)],
)  # fmt: skip
def test_the_direction_of_a_point_is_in_its_quadrant(y, x, degrees):
    assert answer(f"arctan({y}, {x}) as deg") == f"= {degrees}°"
    assert answer(f"atan2({y}, {x}) as deg") == f"= {degrees}°"


def test_there_is_no_direction_at_the_origin():
    assert answer("arctan(0, 0)") == "= undefined"
    assert answer("arctan(infinity) as deg") == "= 90°"
    assert answer("arctan(1, -infinity) as deg") == "= 180°"


@given(st.integers(-1000, 1000), st.integers(-1000, 1000))
def test_every_direction_agrees_with_the_c_library(y, x):
    if x or y:
        shown = float(answer(f"degrees(arctan({y}, {x}))")[2:])
        assert abs(shown - math.degrees(math.atan2(y, x))) < 1e-6


def test_degrees_typed_into_a_radian_sheet_are_told_and_mended():
    result = outcome("sin(30)")
    assert [notice.code for notice in result.notices] == ["degrees-as-radians"]
    assert "30 radians" in result.notices[0].text
    assert mends("sin(30)") == ["sin(30°)"]
    assert outcome("sin(3)").notices == ()
    assert outcome("sin(0.5)").notices == ()
    assert outcome("/angle deg", "sin(30)").notices == ()
    assert answer("/angle deg", "sin(30)") == "= 0.5"


def test_radians_typed_into_a_degree_sheet_are_told_and_mended():
    assert mends("/angle deg", "sin(pi/6)") == ["sin((pi/6) rad)"]
    assert answer("/angle deg", "sin((pi/6) rad)") == "= 0.5"


def test_a_line_says_in_which_unit_it_was_read_and_keeps_it():
    from teapot.engine import FullSheet

    sheet = FullSheet()
    first = sheet.answer("sin(1)")
    assert first.answers[0].unit == "rad"
    assert sheet.answer("sin(1 rad)").answers[0].unit == ""
    assert sheet.answer("2 + 2").answers[0].unit == ""
    sheet.answer("/angle deg")
    assert sheet.answer("sin(1)").answers[0].unit == "deg"
    sheet.by_number[1].forget_values()
    assert sheet.outcome_of(sheet.by_number[1]).answers[0].text == first.answers[0].text


def test_so_does_a_bare_number_that_is_converted():
    assert mends("90 as deg") == ["90° as deg"]
    assert mends("30 as rad") == ["30° as rad"]
    assert mends("-30 as dms") == ["-30° as dms"]
    assert outcome("3 as deg").notices == ()
    assert mends("/angle deg", "pi as deg") == ["pi rad as deg"]
    assert outcome("2 pi as deg").answers[0].unit == "rad"
    assert outcome("360° as deg").answers[0].unit == ""


@pytest.mark.parametrize("line", ["sin(arctan(1))", "arctan(1)", "arctan(1) as deg", "arg(1 + i)"])
def test_an_angle_that_was_computed_does_not_depend_on_the_unit(line):
    """It is only shown in it."""
    assert outcome(line).answers[0].unit == ""
    assert outcome("/angle gon", "sin(arctan(1))").answers[0].nearly == "0.7071067812"


def test_a_number_behind_a_unit_is_more_of_the_angle():
    assert mends("30 deg 15 rad") == ["30 deg + 15 rad", "30 deg*15 rad"]


def test_a_number_beside_an_angle_is_read_in_the_unit_of_the_sheet():
    result = outcome("/angle deg", "30° + 5")
    assert result.answers[0].text == "35°"
    assert [notice.code for notice in result.notices] == ["number-beside-angle"]


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("1/2 turn", ["(1/2) turn", "1/(2 turn)"]),
        ("pi/6 rad", ["(pi/6) rad", "pi/(6 rad)"]),
        ("180/3°", ["(180/3)°", "180/(3°)"]),
    ],
)
def test_a_number_over_an_angle_is_asked_back(line, meant):
    assert error(line) == "number-over-angle"
    assert mends("/angle gon", line) == meant
    for mend in meant:
        assert outcome(mend).status == "ok"


def test_an_angle_over_an_angle_is_a_number():
    assert answer("90°/45°") == "= 2"
    assert answer("(1/2) turn as deg") == "= 180°"
    assert answer("a = 60°", "a/2 deg") == "= 30"


def test_radians_and_degrees_convert_whatever_the_unit_of_the_sheet():
    """Common practice of the trade: radians(180) is π, degrees(π) is 180."""
    for unit in ("rad", "deg", "gon", "turn"):
        assert answer(f"/angle {unit}", "radians(180) as exact") == "= pi"
        assert answer(f"/angle {unit}", "degrees(pi)") == "= 180"
        assert answer(f"/angle {unit}", "degrees(0.5 turn)") == "= 180"
    assert outcome("radians(180)").answers[0].kind == "number"


def test_an_angle_beyond_the_reals_keeps_its_unit():
    assert answer("/angle deg", "arcsin(2)") == "≈ (90 - 75.45612929i)°"
    assert answer("/angle deg", "re(arcsin(2))") == "= 90°"
    assert answer("/angle deg", "arcsin([1, 2])") == "≈ [90°, (90 - 75.45612929i)°]"
    assert answer("/angle deg", "arcsin(2)/2 + 10°") == "≈ (55 - 37.72806465i)°"
    assert answer("arcsin(2) as gon") == "≈ (100 - 83.84014366i) gon"
    for unit in ("rad", "deg", "gon", "turn"):
        assert answer(f"/angle {unit}", "sin(arcsin(2))") == "= 2"
        assert answer(f"/angle {unit}", "cos(arccos(3 + i))") == "= 3 + i"
        assert answer(f"/angle {unit}", "x = arcsin(2)", "sin(x)") == "= 2"
        assert answer(f"/angle {unit}", "tan(arctan(2i))") == "= 2i"
    assert answer("/angle deg", "(90 - 75.45612929i)° - arcsin(2) as 1 digit") != "≈ 0"
    assert error("arcsin(2) > 1 rad") == "no-order"


def test_a_phasor_is_one_number():
    assert answer("5∠30° * 2∠10° as polar, deg") == "= 10∠40°"
    assert answer("5∠30° + 3∠60°") == "≈ 5.830127019 + 5.098076211i"
    assert answer("10∠60°/2∠20° as polar, deg") == "= 5∠40°"
    assert mends("5∠pi/6") == ["5∠(pi/6)", "(5∠pi)/6"]
    assert mends("5∠30 i") == ["5∠(30 i)", "(5∠30) i"][1:]
    assert answer("-2∠90°") == "= -2i"


@pytest.mark.parametrize(
    ("line", "code"),
    [
        ("12°75′", "sixty"),
        ("2 + deg", "bare-unit"),
        ("factorial(30°)", "angle-for-number"),
        ("30°!", "not-a-number"),
        ("/angle deg", None),
        ("/angle degrees", "unknown-choice"),
        ("30° as percent", "form-for-number"),
    ],
)
def test_slips_with_angles(line, code):
    result = outcome(line)
    assert (result.error.code if result.error else None) == code


def test_a_unit_spelt_out_is_read():
    assert answer("sin(30 degrees)") == "= 0.5"
    assert answer("2 radians") == "= 2 rad"
    assert mends("zeta(30°)") == ["zeta(radians(30°))", "zeta(degrees(30°))"]


ANGLES = st.builds(
    lambda number, unit: f"{number}{unit}",
    st.decimals(-1000, 1000, places=3).map(str),
    st.sampled_from(["°", " rad", " gon", " turn"]),
)


@given(ANGLES, st.sampled_from(["rad", "deg", "gon", "turn", "dms"]))
def test_the_text_of_an_angle_typed_again_is_the_same_answer(angle, unit):
    shown = answer(f"({angle}) as {unit}")
    again = answer(f"{shown[2:]} as {unit}")
    assert again[2:] == shown[2:]


@given(st.integers(0, 359), st.integers(0, 59), st.integers(0, 59))
def test_degrees_minutes_and_seconds_are_exact(degrees, minutes, seconds):
    from fractions import Fraction

    typed = f"{degrees}°{minutes}′{seconds}″"
    total = Fraction(degrees * 3600 + minutes * 60 + seconds, 3600)
    assert answer(f"degrees({typed}) as fraction") == f"= {total}"
    assert answer(typed) == f"= {typed}"


@pytest.mark.parametrize(
    ("angle", "radians"),
    [
        # NIST Special Publication 811, Appendix B.8, "angle", to seven digits; from memory.
        ("1°", "1.745329e-2"),
        ("1′", "2.908882e-4"),
        ("1″", "4.848137e-6"),
        ("1 gon", "1.570796e-2"),
        ("1 turn", "6.283185e0"),
    ],
)
def test_units_have_the_factors_of_the_standard(angle, radians):
    assert answer(f"radians({angle}) as scientific, 7 digits") == f"≈ {radians}"


def test_binary64_shows_what_a_machine_makes_of_an_angle():
    assert answer("sin(30°) as binary64") == "→ 0.49999999999999994"
    assert answer("tan(90°) as binary64") == "→ 1.633123935319537e16"


@pytest.mark.parametrize("word", ["as", "in", "to", "→"])
def test_a_degree_sign_asks_for_degrees(word):
    assert answer(f"arcsin(0.5) {word} °") == "= 30°"
    assert answer(f"T = 20 °C {word} °F") == "= 68 °F"
