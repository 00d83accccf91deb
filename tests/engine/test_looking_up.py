"""The handbook, its search, completion, the card at the caret, and their pictures' data."""

import pytest

from teapot.engine import FullSheet
from teapot.engine.aids.completion import complete
from teapot.engine.aids.curve import can_be_drawn, curve_of_function
from teapot.engine.aids.dial import angle_from, dial_of
from teapot.engine.aids.number_line import number_line_of
from teapot.engine.aids.pictures import shown_in
from teapot.engine.aids.typing import typed_so_far
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS, FUNCTIONS
from teapot.engine.handbook.entries import (
    BY_KEY,
    ENTRIES,
    FUNCTION,
    TOPIC,
    UNIT,
    as_text,
    by_subject,
)
from teapot.engine.handbook.forms import FORMS
from teapot.engine.handbook.operators import OPERATORS
from teapot.engine.handbook.search import search
from teapot.engine.handbook.topics import TOPICS
from teapot.engine.handbook.units import UNITS
from teapot.engine.numbers.values import Undefined, exact
from teapot.engine.reading.commands import COMMANDS
from teapot.engine.reading.described import Example
from tests.engine.answers import answer, outcome, replied

EXAMPLES = [
    (record.name, example)
    for record in (*OPERATORS, *FORMS, *UNITS, *TOPICS, *CONSTANTS.values())
    for example in record.examples
]


@pytest.mark.parametrize(("name", "example"), EXAMPLES)
def test_every_example_of_the_other_records_runs(name, example: Example):
    assert replied(example) == f"{example.sign} {example.text}"


SPECIAL_VALUES = [one for record in (*FUNCTIONS, *UNITS) for one in record.special_values]
OF_UNITS = {one for record in UNITS for one in record.special_values}


@pytest.mark.parametrize("equation", SPECIAL_VALUES)
def test_every_special_value_holds(equation):
    """To 30 digits, or exactly; what is undefined on the left is said to be so on the right."""
    left, right = equation.split(" = ")
    if right == "undefined":
        assert answer(left) == "= undefined"
    elif "°" in right or equation in OF_UNITS:
        assert answer(f"{left} == {right}") == "= true"
    else:
        assert answer(left, digits=30)[2:] == answer(right, digits=30)[2:]


def test_hardly_a_function_is_without_special_values():
    bare = {f.name for f in FUNCTIONS if not f.special_values}
    assert len(FUNCTIONS) - len(bare) > 75


@pytest.mark.parametrize("command", COMMANDS.values(), ids=lambda command: command.name)
def test_every_example_of_a_command_is_done(command):
    assert command.examples
    for example in command.examples:
        assert outcome("e = 1", example.input).command[0] == command.name


def test_every_record_has_its_entry():
    keys = {f.name for f in FUNCTIONS} | {c.name for c in CONSTANTS.values()}
    keys |= {record.name for record in (*OPERATORS, *FORMS, *UNITS, *TOPICS)}
    keys |= {f"command-{name}" for name in COMMANDS}
    assert set(BY_KEY) == keys
    assert len(ENTRIES) == len(BY_KEY)
    for entry in ENTRIES:
        assert entry.summary.endswith(".")
        least = {FUNCTION: 2, UNIT: 0, TOPIC: 0}.get(entry.kind, 1)
        assert len(entry.examples) >= least, entry.key
        if entry.kind == FUNCTION:
            assert entry.parameters or entry.key in ("today", "now")
            assert entry.related, entry.key
            assert entry.source, entry.key
        assert all(key in BY_KEY or key in BY_NAME for key in entry.related)


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("log base ten", "lg"),
        ("degres to radians", "radians"),
        ("radians to degrees", "degrees"),
        ("round down", "floor"),
        ("round up", "ceil"),
        ("square root", "sqrt"),
        ("inverse sine", "arcsin"),
        ("avarage", "mean"),
        ("standard devation", "stdev"),
        ("choose", "binomial"),
        ("natural logarithm", "ln"),
        ("remainder", "remainder"),
        ("cosin", "cos"),
        ("sqr", "sqrt"),
        ("asin", "arcsin"),
        ("hex", "hex"),
        ("%", "percent-sign"),
        ("/angle", "command-angle"),
    ],
)
def test_the_search_finds_by_name_synonym_and_purpose(words, first):
    assert search(words)[0].key == first


def test_the_search_takes_anything():
    assert search("") == []
    assert search("qqzzxxyy") == []
    assert search("x" * 10_000) == []
    assert search("💧 \x00 ❦") == []
    # of idle words alone something is found too: nobody is left with an empty page
    assert search("the of a")
    assert {entry.key for entry in search("∑∫ 💧 \x00 ' \" \\ [")} >= {"list", "item"}


def names(text, *lines):
    sheet = FullSheet()
    for line in lines:
        sheet.answer(line)
    return [found.insert for found in complete(sheet, text, len(text))]


def test_completion_by_beginning_own_names_first():
    assert names("sq") == ["sqrt()"]
    assert names("ma", "mass_pot = 3  # kg")[0] == "mass_pot"
    assert names("f", "flow(x, y) = x*y")[0] == "flow()"
    assert names("2*arct") == ["arctan()"]
    # "asin" and its like are other spellings, which come after
    assert names("as") == ["ask()", "arcsin()", "arcsec()", "arsinh()", "arsech()"]
    assert names("toda") == ["today()"]


def test_lately_used_names_come_first():
    assert names("s")[0] != "sec()"
    assert names("s", "sec(1)")[0] == "sec()"


def test_completion_by_purpose_and_in_spite_of_a_slip():
    assert names("square root")[0] == "sqrt()"
    assert names("square root").count("root()") == 1
    assert names("2 + inverse sine")[0] == "arcsin()"
    assert "sqrt()" in names("sqaure")


def test_completion_of_forms_and_commands():
    assert names("pi as fr") == ["fraction"]
    assert names("pi as scientific, di") == ["digits"]
    assert names("/an") == ["/angle "]
    assert "/log " in names("/")


def test_a_whole_name_stays_before_those_that_begin_with_it():
    assert names("sin") == ["sin()", "sinh()"]


def test_no_completion_where_none_is_wanted():
    for text in ("", "2", "2.5", '"sq', "1 + 1 # sq", "3 +"):
        assert names(text) == [], text
    assert complete(FullSheet(), "sqrt(2)", 2) == []


def hint(text, *lines):
    sheet = FullSheet()
    for line in lines:
        sheet.answer(line)
    return typed_so_far(sheet, text, caret=len(text)).hint


def test_a_name_that_can_be_completed_is_no_error_while_it_is_typed():
    assert typed_so_far(FullSheet(), "2*sq", caret=4).error is None
    assert typed_so_far(FullSheet(), "2*sq", caret=1).error.code == "unknown-name"
    assert typed_so_far(FullSheet(), "2*qzx", caret=5).error.code == "unknown-name"
    assert typed_so_far(FullSheet(), "qzx + sq", caret=8).error.code == "unknown-name"


def test_several_pasted_lines_are_read_each_by_itself():
    page = typed_so_far(FullSheet(), "a = 1\nb = 2*a\n3 +* 4\nsqrt(b)", caret=3)
    assert "4 lines" in page.notices[0].text
    assert len(page.readings) == 3  # the third has none
    assert page.completions == ()
    many = typed_so_far(FullSheet(), "\n".join(f"x{n} = {n}" for n in range(500)))
    assert len(many.readings) == 12
    assert "500 lines" in many.notices[0].text


def test_the_card_marks_the_argument_and_its_place_on_the_curve():
    card = hint("1 + log(81, 3")
    assert [parameter.here for parameter in card.parameters] == [False, True]
    assert card.curve.mark == (3.0, 4.0)
    assert hint("sin(0.5").curve.mark[1] == pytest.approx(0.479425538)
    assert hint("sin(").curve.mark is None


def test_an_argument_is_not_marked_on_the_curve_along_another():
    assert hint("bessel_j(3").curve.mark is None
    assert hint("bessel_j(0, 1").curve.mark[0] == 1.0


def test_the_card_of_a_function_of_ones_own_has_a_curve_too():
    card = hint("f(2, 3", "f(x, y) = x^2 + y")
    assert card.summary == "f(x, y) = x^2 + y"
    assert card.curve.mark == (3.0, 7.0)
    assert hint("g(2", "g(x) = 1/0 + h(x)").curve is not None


def test_the_number_line_of_a_tie():
    line = hint("round(6.5").number_line
    assert (line.below, line.above, line.is_tie) == ("6", "7", True)
    assert line.sent == {"round": -1, "floor": -1, "ceil": 1, "trunc": -1}
    places = hint("round(2.345, 2").number_line
    assert (places.below, places.above) == ("2.34", "2.35")
    assert hint("ceil(3").number_line.sent["ceil"] == 0


DRAWN = [function.name for function in FUNCTIONS if can_be_drawn(function)]


@pytest.mark.parametrize("name", DRAWN)
def test_every_curve_has_points(name):
    curve = curve_of_function(name)
    assert curve.pieces
    assert curve.left < curve.right
    assert curve.low < curve.high


@pytest.mark.parametrize(
    ("name", "poles"),
    [
        ("tan", [-4.71, -1.57, 1.57, 4.71]),
        ("csc", [-6.28, -3.14, 0, 3.14, 6.28]),
        ("gamma", [-4, -3, -2, -1, 0]),
        ("coth", [0]),
        ("zeta", [1]),
        ("sin", []),
        ("floor", []),
        ("erf", []),
    ],
)
def test_poles_are_where_the_curve_leaves_the_picture(name, poles):
    found = [pole for pole in curve_of_function(name).poles if abs(pole) < 6]
    wanted = [pole for pole in poles if abs(pole) < 6]
    assert found == pytest.approx(wanted, abs=0.1)


def test_a_pole_parts_the_curve():
    assert len(curve_of_function("tan").pieces) >= 4
    assert len(curve_of_function("sin").pieces) == 1


def test_the_dial_in_all_units_with_exact_values():
    shown = dial_of(angle_from("120", "deg"))
    units = {unit.name: unit.text for unit in shown.units}
    assert units["rad"] == "(2 pi/3) rad"
    assert units["turn"].startswith("0.333")
    assert units["dms"] == "120°0′0″"
    values = {value.name: value.text for value in shown.values}
    assert values["cos"] == "-0.5"
    assert shown.quadrant == "in the second quadrant"
    assert dial_of(angle_from("90", "deg")).tan is None
    assert dial_of(angle_from("-90", "deg")).quadrant == "straight down"


def dial_in(*lines):
    sheet = FullSheet()
    for line in lines:
        sheet.answer(line)
    shown = shown_in(sheet, sheet.lines[-1], "dial")
    return shown[-1].shown if shown else None


def test_the_dial_of_a_line():
    shown = dial_in("arctan(-1, -1)")
    assert shown.quadrant == "in the third quadrant"
    point = shown.point
    assert (point.x, point.y, point.quotient) == (-1.0, -1.0, "45°")
    shown = dial_in("2 + sin(30°)^2")
    assert shown.degrees == pytest.approx(30)
    assert shown.point is None
    assert dial_in("/angle deg", "cos(60)").degrees == pytest.approx(60)
    assert dial_in("2 + 2") is None


@pytest.mark.parametrize(
    ("line", "degrees"),
    [
        ("degrees(30°)", 30),
        ("90°/15°", 90),
        ("5 ∠ 30°", 30),
        ("sin([60°, 45°])", 60),
        ("t + 1 == 2", 45),
        ("sin(infinity)", None),
        ("f(x) = sin(x)", None),
        ("sqrt(2)", None),
    ],
)
def test_every_line_with_an_angle_has_a_dial_and_no_other(line, degrees):
    sheet = FullSheet()
    sheet.answer("t = 45°")
    result = sheet.answer(line)
    assert ("dial" in result.answers[0].pictures) == (degrees is not None)
    shown = [one.shown.degrees for one in shown_in(sheet, sheet.lines[-1], "dial")]
    assert shown == ([] if degrees is None else [degrees])


def test_number_lines_stand_in_the_workings_of_a_kept_line():
    sheet = FullSheet()
    sheet.answer("2*round(7.5) + floor(1 - 3.2)")
    shown = [one.shown for one in shown_in(sheet, sheet.lines[0], "number_line")]
    lines = {line.here: line for line in shown}
    rounded = lines["round"]
    assert (rounded.below, rounded.above, rounded.sent["round"]) == ("7", "8", 1)
    assert (lines["floor"].below, lines["floor"].above) == ("-3", "-2")


def test_what_has_no_number_line_has_none():
    assert number_line_of("sqrt", exact(2)) is None
    assert number_line_of("round", Undefined("")) is None
    assert number_line_of("round", exact(2), exact(99)) is None


def test_the_card_of_a_constant_and_of_an_unknown_name():
    assert hint("2*pi").name == "pi"
    assert hint("2*pii") is None
    assert hint("2 + 2") is None


def test_the_card_of_a_quantity_is_its_value_and_goes_behind_the_call_around_it():
    lines = ("mass = 1/3  # water in the pot, kg", "e = 3")
    assert hint("2*mass", *lines).summary == "≈ 0.3333333333 · water in the pot, kg · line 1"
    assert hint("sqrt(mass", *lines).name == "sqrt"
    assert hint("2*e", *lines).summary == "= 3 · line 2"
    assert hint("2*e", *lines, "/forget e").summary.startswith("Euler")


def test_a_function_under_another_name_is_completed_and_has_its_card():
    lines = ("rootOf = sqrt", "twice(x) = 2*x")
    assert names("rootO", *lines) == ["rootOf()"]
    assert hint("rootOf(4", *lines).name == "sqrt"
    assert hint("rootOf(4", *lines).curve.mark == (4.0, 2.0)
    assert hint("twice(4", *lines).summary == "twice(x) = 2*x"
    noted = "cooled(t) = 18 + 78*exp(-t/25)  # after t minutes"
    assert hint("cooled(30", noted).summary.endswith("exp(-t/25) · after t minutes")


def test_a_line_with_open_brackets_is_answered_as_if_they_were_closed():
    def typed(text):
        return typed_so_far(FullSheet(), text, caret=len(text))

    assert typed("2*(sqrt(49").answers[0].text == "14"
    assert typed("2*(sqrt(49").error.code == "unfinished"
    assert typed("sin(30").notices[0].mends[0].input == "sin(30°)"
    assert typed("sqrt(49  # and a note").answers[0].text == "7"
    assert typed("2*(sqrt(49 +").answers == ()
    assert typed("binomial(9").answers == ()


def test_a_name_that_is_still_typed_is_not_remarked_on():
    def codes(text):
        page = typed_so_far(FullSheet(), text, caret=len(text))
        return [notice.code for notice in page.notices]

    assert codes("f(x) = x + gam") == []
    assert codes("f(x) = x + gam ") == ["not-known-yet"]


def test_the_card_of_an_angle_says_in_which_unit_it_is_read():
    assert hint("sin(0.5").parameters[0].text.endswith("is read in radians")
    assert hint("sin(0.5", "/angle deg").parameters[0].text.endswith("is read in degrees")


def test_the_card_of_a_list_argument_has_no_curve():
    card = hint("mean([1, 2")
    assert card.name == "mean"
    assert card.curve is None
    assert hint("sqrt([4, 9").curve.mark is None


def test_the_curve_of_an_angle_is_in_the_unit_of_the_sheet():
    assert hint("sin(").curve.right == pytest.approx(6.79, abs=0.1)
    degrees = hint("sin(90", "/angle deg").curve
    assert degrees.right == pytest.approx(389, abs=2)
    assert degrees.mark == (90.0, 1.0)
    assert hint("sin(90°", "/angle deg").curve.mark == (90.0, 1.0)


def test_a_far_argument_widens_the_curve_but_dots_stay_countable():
    assert hint("exp(40").curve.right > 40
    assert hint("sqrt(1000").curve.mark[0] == 1000
    assert len(hint("factorial(1000").curve.pieces) < 100


def test_the_entries_as_plain_text():
    text = as_text(BY_KEY["arctan"])
    assert text.startswith("arctan(y, x)\n")
    assert "arctan(1) as deg  = 45°" in text
    assert "Easily confused with" in text


def test_subjects_hold_every_entry_once():
    filed = [entry.key for entries in by_subject().values() for entry in entries]
    assert sorted(filed) == sorted(BY_KEY)


def test_letters_are_completed_by_their_names():
    found = complete(FullSheet(), "2 \\lam", 6)
    assert [(one.name, one.insert, one.start) for one in found] == [("λ", "λ", 2)]
    typed = typed_so_far(FullSheet(), "\\lam", caret=4)
    assert typed.error is None
    assert typed_so_far(FullSheet(), "\\frac{1}{2}", caret=11).error.code == "pasted-latex"
