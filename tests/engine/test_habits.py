"""Habits that people bring along are answered as they stand, or asked back, with what is
meant as a mend.  The habits are common practice of the trade; no source is cited."""

import math

import pytest

from tests.engine.answers import answer, error, mends, outcome


def codes(*lines):
    return [notice.code for notice in outcome(*lines).notices]


# -- angles as bare numbers --------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("arctan(3/4)*180/pi", "arctan(3/4) as deg"),
        ("180/pi*arctan(3/4)", "arctan(3/4) as deg"),
        ("arctan(3/4)*(180/pi)", "arctan(3/4) as deg"),
        ("arctan(3/4)/pi*180", "arctan(3/4) as deg"),
        ("arctan(3/4)/(pi/180)", "arctan(3/4) as deg"),
        ("arctan(3/4)*57.3", "arctan(3/4) as deg"),
        ("x = arctan(3/4)*57.2958", "x = arctan(3/4) as deg"),
        ("arctan(3/4)*180/pi as deg", "arctan(3/4) as deg"),
        ("2*(arctan(3/4)*180/pi)", "2*(degrees(arctan(3/4)))"),
        ("(10° + 20°)*pi/180", "10° + 20° as rad"),
        ("sin(30°*pi/180)", "sin(30°)"),
    ],
)
def test_an_angle_converted_by_hand_is_told_and_mended(line, meant):
    assert codes(line) == ["converted-by-hand"]
    assert mends(line) == [meant]
    assert "converted-by-hand" not in codes(meant)


def test_what_is_meant_by_it_is_what_the_numbers_alone_would_give():
    [mend] = mends("t = arctan(3/4)", "t*180/pi")
    shown = answer("t = arctan(3/4)", mend)
    assert float(shown.strip("≈= °")) == pytest.approx(math.degrees(math.atan2(3, 4)), rel=1e-9)


@pytest.mark.parametrize(
    "line", ["30*pi/180", "arctan(1)*180", "arctan(1)/pi", "arctan(1)*180/e", "2 pi/360*5", "30°*2"]
)
def test_other_products_are_not(line):
    assert "converted-by-hand" not in codes(line)


def test_a_draw_is_not_drawn_again_to_see_what_it_is():
    result = outcome("random(1..6)*180/pi")
    assert [len(drawn) for drawn in result.draws] == [1]
    assert result.notices == ()


def test_degrees_in_a_quantity_are_told_where_they_are_read_as_radians():
    assert mends("t = 30", "sin(t)") == ["sin(t°)"]
    assert answer("t = 30", "sin(t°)") == "= 0.5"
    assert mends("t = 30; p = 60", "sin(t)*cos(p) - t") == ["sin(t°)*cos(p°) - t"]
    assert codes("/angle deg", "t = 30", "sin(t)") == []
    assert codes("t = 30°", "sin(t)") == []
    assert codes("t = 3", "sin(t)") == []
    assert codes("n = 20", "sin(n*pi)") == []


def test_one_mend_is_for_all_angles_of_a_line():
    assert mends("sin(30) + cos(60)") == ["sin(30°) + cos(60°)"]
    assert mends("sin(90)^2 + cos(90)^2") == ["sin(90°)^2 + cos(90°)^2"]
    told = outcome("sin(30) + cos(60)").notices[0].text
    assert told == "30 and 60 were read as radians."
    both = "sin(pi/6)*cos(2 pi)"
    assert mends("/angle deg", both) == ["sin((pi/6) rad)*cos((2 pi) rad)"]


def test_radians_made_for_a_sheet_of_degrees_are_told():
    assert mends("/angle deg", "sin(radians(30))") == ["sin(radians(30) rad)"]
    assert answer("/angle deg", "sin(radians(30) rad)") == "= 0.5"
    assert answer("sin(radians(30°))") == "= 0.5"


# -- functions of one's own ------------------------------------------------------------------


def test_a_function_before_what_it_uses_is_told_when_it_is_made():
    assert mends("f(x) = k*x") == ["f(x) := k*x"]
    assert answer("f(x) := k*x", "k = 3", "f(2)") == "= 6"
    assert codes("k = 3", "f(x) = k*x") == []
    assert codes("f(x) := k*x") == []
    assert codes("f(n) = if(n < 1, 1, n*f(n - 1))") == []


def test_so_is_a_slip_in_its_body():
    assert mends("area(r) = Pi*r^2") == ["area(r) = pi*r^2"]
    assert mends("f(x) = 1 + sqr(x)") == ["f(x) = 1 + sqrt(x)"]


def test_an_error_in_its_body_says_in_which_function():
    result = outcome("f(x) = factorial(x)", "g(x) = f(x) + 1", "g(0.5)")
    assert result.error.text.startswith("In f: n! needs a whole number")
    assert result.error.span == (0, 6)


# -- spellings from elsewhere ----------------------------------------------------------------


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("if x > 2 then 3 else 4", "if(x > 2, 3, 4)"),
        ("if (x > 2) 3 else 4", "if(x > 2, 3, 4)"),
        ("if x > 2: 3 else: 4", "if(x > 2, 3, 4)"),
        ("3 if x > 2 else 4", "if(x > 2, 3, 4)"),
        ("x > 2 ? 3 : 4", "if(x > 2, 3, 4)"),
        ("y = if x = 2 then x/2 else 0", "y = if(x == 2, x/2, 0)"),
        ("f(n) = n if n > 0 else -n  # size", "f(n) = if(n > 0, n, -n)  # size"),
        ("if(x > 2; 3; 4)", "if(x > 2, 3, 4)"),
        ("max([1; 2], 3; 4); 5", "max([1, 2], 3, 4); 5"),
        ("h = x -> x^2", "h(x) = x^2"),
        ("12.5% of 80", "12.5% * 80"),
    ],
)
def test_another_spelling_is_mended(line, meant):
    assert mends("x = 5", line) == [meant]
    assert outcome("x = 5", meant).status == "ok"


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("4.56d-4", ["4.56e-4"]),
        ("4.56D-4", ["4.56e-4"]),
        ("1.2d3", ["1.2e3"]),
        ("p V = n R T", ["p V == n R T"]),
        ("2 p = 3", ["2 p == 3"]),
        ("p || n", ["1/(1/p + 1/n)"]),
        ("1 + (p||n)", ["1 + (1/(1/p + 1/n))"]),
        ("p || n || 10", ["1/(1/p + 1/n + 1/10)"]),
        ("3 ohm || 6 ohm", ["1/(1/(3 ohm) + 1/(6 ohm))"]),
        ("2*p || n", []),
        ("yes || false", ["yes or false"]),
        ("V T*", ["V conj(T)"]),
        ("math.sin(0)", ["sin(0)"]),
        ("math.sqrt(4) + math.sin(0)", ["sqrt(4) + sin(0)"]),
        ("Math.PI", ["pi"]),
        ("w.mean()", ["mean(w)"]),
        ("stdev.s", ["stdev"]),
        ("5 in cm", ["5 inch as cm", "5 cm"]),
    ],
)
def test_what_is_meant_may_hang_on_what_has_a_value(line, meant):
    names = ("p = 1; V = 2; n = 3; R = 4; T = 5; yes = true", "w = [1, 2, 3]")
    assert mends(*names, line) == meant
    assert all(outcome(*names, one).status == "ok" for one in meant)


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("12 in to cm", "= 30.48 cm"),
        ("12 in in cm", "= 30.48 cm"),
        ("12in → cm", "= 30.48 cm"),
        ("3 in/s in cm/s", "= 7.62 cm/s"),
        ("1 m in in", "≈ 39.37007874 in"),
        ("|p||n|", "= 3"),
        ("2|p| |n|/3", "= 2"),
        ("R|p|n", "= 12"),
        ("-|p||n||p|^2", "= -3"),
        ("||p|-|n||", "= 2"),
        ("0.3̅ as fraction", "= 1/3"),
        ("0.16̄ as fraction", "= 1/6"),
        ("0.1̅4̅2̅8̅5̅7̅ as fraction", "= 1/7"),
        ("2*1.6̅ as fraction", "= 10/3"),
    ],
)
def test_it_is_read_as_it_is_on_paper(line, meant):
    assert answer("p = 1; n = 3; R = 4", line) == meant


def test_repeating_figures_are_told():
    assert codes("0.16̅") == ["read-as-repeating"]
    assert "repeating: 6" in outcome("0.16̅").notices[0].text


def test_the_words_of_a_choice_are_free_names():
    assert answer("then = 3; else = 4", "then + else") == "= 7"
    assert error("if x > 2 then") == "condition"


def test_an_arrow_alone_is_told_how_a_function_is_made():
    result = outcome("x -> x^2")
    assert result.error.code == "arrow"
    assert "f(x) = x^2" in result.error.text


def test_a_number_beside_an_angle_of_another_unit_gets_that_unit_as_a_mend():
    assert mends("30° + 1") == ["30° + 1°"]
    assert mends("12°30′ - 10") == ["12°30′ - 10°"]
    assert mends("/angle deg", "5 + 1 rad") == ["5 rad + 1 rad"]
    assert mends("/angle deg", "30° + 1") == []
    assert codes("/angle deg", "30° + 1") == ["number-beside-angle"]
    assert codes("30° == 0.5") == ["number-beside-angle"]


def test_long_products_and_huge_factors_are_looked_through_once():
    assert answer("30°" + "*2" * 100)[:2] == "= "
    assert codes("arctan(1)" + "*1" * 100 + "*180/pi") == ["converted-by-hand"]
    assert answer("arctan(1)*1e400") == "≈ 7.853981634e399 rad"
    assert codes("arctan(1)*1e400*180/pi") == []
