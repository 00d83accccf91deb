"""Quantities that depend on each other: out of date, live, mended, renamed, moved."""

import random
import sys

import pytest

from teapot.engine import FullSheet, LineError
from teapot.engine.sheet import editing
from teapot.engine.sheet.dependence import again_for
from teapot.engine.sheet.quantities import list_quantities
from tests.engine.answers import answer, error, mends, outcome
from tests.examples import part_of


def sheet_of(*lines):
    sheet = FullSheet()
    for line in lines:
        assert sheet.answer(line).status in ("ok", "note"), line
    return sheet


def state(sheet, name):
    return {quantity.name: quantity for quantity in list_quantities(sheet)[0]}[name]


def text(sheet, number):
    return sheet.outcome_of(sheet.by_number[number]).answers[-1].text


CUPS = ("cups = 6; guests = 2; seats = cups + guests", "cups = 9")


def test_a_value_whose_input_changed_is_out_of_date_with_the_reason():
    sheet = sheet_of(*CUPS)
    seats = state(sheet, "seats")
    assert (seats.text, seats.state) == ("8", "out-of-date")
    assert seats.reason == "used cups = 6; cups is now 9"
    sheet.answer(again_for(sheet.dependence(), seats.line)[0])
    assert (state(sheet, "seats").text, state(sheet, "seats").state) == ("11", "stored")


def test_the_same_value_again_leaves_it_up_to_date():
    assert state(sheet_of(CUPS[0], "cups = 12/2"), "seats").state == "stored"


def test_what_is_computed_from_something_out_of_date_is_so_too():
    sheet = sheet_of("a = 1", "b = a + 1", "c = b + 1", "a = 5")
    assert state(sheet, "b").state == "out-of-date"
    assert state(sheet, "c").state == "out-of-date"
    for name in ("b", "c"):
        sheet.answer(again_for(sheet.dependence(), state(sheet, name).line)[0])
    assert (state(sheet, "c").text, state(sheet, "c").state) == ("7", "stored")


def test_a_live_definition_follows_at_once():
    sheet = sheet_of("cups = 6; guests = 2", "seats := cups + guests", "double := 2*seats")
    assert text(sheet, 3) == "16"
    sheet.answer("cups = 9")
    assert state(sheet, "seats").state == "live"
    assert text(sheet, 2) == "11"
    assert text(sheet, 3) == "22"
    assert sheet.answer("double + 1").answers[0].text == "23"


def test_a_value_from_a_live_definition_is_kept_and_goes_out_of_date():
    sheet = sheet_of("a = 1", "b := a + 1", "c = b*10", "a = 2")
    assert (state(sheet, "c").text, state(sheet, "c").state) == ("20", "out-of-date")
    assert "b is now 3" in state(sheet, "c").reason


def test_a_circle_is_an_error_that_prints_it():
    sheet = sheet_of("b = 1", "a := b + 1")
    result = sheet.answer("b := a + 1")
    assert result.error.code == "circle"
    assert "b → a → b" in result.error.text
    assert sheet.answer("a").answers[0].text == "2"
    assert error("x := x + 1") == "circle"


def test_many_live_definitions_that_share_are_each_worked_out_once():
    lines = ["x_0 = 1"] + [f"x_{n} := x_{n - 1} + x_{n - 1}" for n in range(1, 60)]
    assert answer(*lines, "x_59") == f"= {2**59}"


def test_mending_a_line_moves_products_side_by_side_too():
    sheet = FullSheet()
    for line in ("a = 4", "b = 8.5", "k = 0.5", "w = 3 a b", "q = w k", "q + 1"):
        sheet.answer(line)
    sheet.put(1, "a = 40", 1.0)
    texts = [sheet.outcome_of(line).answers[0].text for line in sheet.lines]
    assert texts == ["40", "8.5", "0.5", "1020", "510", "511"]


def test_mending_a_line_moves_what_follows():
    sheet = sheet_of(CUPS[0], "seats*2", "guests = 5", "guests*10")
    for number in (1, 2, 3, 4):
        sheet.outcome_of(sheet.by_number[number])
    sheet.put(1, "cups = 9; guests = 2; seats = cups + guests", 1.0)
    assert [text(sheet, n) for n in (1, 2, 3, 4)] == ["11", "22", "5", "50"]


def test_an_answer_by_number_goes_on_meaning_the_same_line():
    sheet = sheet_of("10", "20", "@1 + @2", "@*2")
    sheet.put(9, "500", 1.5)
    assert text(sheet, 3) == "30"
    assert text(sheet, 4) == "60"
    sheet.put(1, "11", 1.0)
    assert text(sheet, 4) == "62"
    sheet.remove(2)
    assert sheet.outcome_of(sheet.by_number[3]).error.code == "no-line"
    sheet.put(2, "20", 2.0)
    assert text(sheet, 4) == "62"


def test_a_deleted_definition_brings_back_the_one_before():
    sheet = sheet_of("a = 1", "a = 2", "b = a")
    sheet.remove(2)
    assert text(sheet, 3) == "1"
    sheet.remove(1)
    assert sheet.outcome_of(sheet.by_number[3]).error.code == "unknown-name"


@pytest.mark.parametrize("signs", [("=", "=", "=", ":="), ("=", ":=", ":=", ":=")])
def test_random_changes_leave_the_sheet_as_if_it_was_typed_anew(signs):
    """Every answer after many edits equals that of a fresh sheet with the same text."""
    random.seed(3)
    names = "abcd"
    for _ in range(part_of(40)):
        sheet, lines = FullSheet(), {}
        for number in range(1, 31):
            place = random.random() * 10
            name = random.choice(names)
            sign = random.choice(signs)
            uses = random.choice([*names, "1", "2"])
            body = f"{name} {sign} {uses} + {number}"
            if random.random() < 0.2 and lines:
                number = random.choice(list(lines))
            if random.random() < 0.1 and lines:
                sheet.remove(number)
                lines.pop(number, None)
                continue
            sheet.put(number, body, place)
            lines[number] = (place, body)
            if random.random() < 0.5:
                for line in sheet.lines:
                    sheet.outcome_of(line)
        fresh = FullSheet()
        for number, (place, body) in sorted(lines.items(), key=lambda item: item[1][0]):
            fresh.put(number, body, place)
        for number in lines:
            ours = sheet.outcome_of(sheet.by_number[number])
            theirs = fresh.outcome_of(fresh.by_number[number])
            assert ours.as_dict() == theirs.as_dict()


CHAINED, FANNED_OUT = "a_{n} := a_{before} + 1", "a_{n} := a_0 + {n}"


@pytest.mark.parametrize("body", [CHAINED, FANNED_OUT])
def test_live_definitions_that_use_each_other_are_read_in_proportion_to_their_number(body):
    """Twice as many take twice as many calls of functions, and not eight times."""

    def calls_for(count):
        calls = 0

        def counted(frame, event, argument):
            nonlocal calls
            calls += event == "call"

        sheet = sheet_of("a_0 = 1")
        sys.setprofile(counted)
        try:
            for n in range(1, count):
                sheet.put(n + 1, body.format(n=n, before=n - 1), n + 1)
            sheet.put(count // 2, "a_0 = 5", count // 2)  # amid them
        finally:
            sys.setprofile(None)
        return calls

    assert calls_for(400) < 2.5 * calls_for(200)


def test_a_chain_of_live_definitions_is_worked_out_and_mended():
    sheet = sheet_of("a_0 = 1", *(CHAINED.format(n=n, before=n - 1) for n in range(1, 100)))
    assert text(sheet, 100) == "100"
    sheet.put(50, "a_49 := 1000", 50)
    assert text(sheet, 100) == "1050"
    sheet.put(1, "a_0 = 2", 1)
    assert text(sheet, 49) == "50"
    assert text(sheet, 100) == "1050"


def test_forgetting_brings_the_built_in_back():
    assert answer("e = 3", "/forget e", "ln(e)") == "= 1"
    assert state(sheet_of("e = 3"), "e").covers
    assert error("a = 1", "/forget all", "a") == "unknown-name"
    assert answer("a = 1", "/forget all", "a = 2", "a") == "= 2"
    assert error("/forget nothing_here") == "unknown-name"
    assert error("/forget") == "forget-what"
    assert error("a = 1", "b = a", "/forget a", "a") == "unknown-name"


def renamed(text, old, new):
    return editing.renamed(FullSheet().entered(text)[0], old, new)


def test_renaming_reaches_every_line_and_nothing_else():
    assert renamed("m = 2*mass + m  # m stays", "m", "m_1") == "m_1 = 2*mass + m_1  # m stays"
    assert renamed("/forget m", "m", "x") == "/forget x"
    assert renamed("f(x) = x^2 + a", "x", "y") == "f(x) = x^2 + a"
    assert renamed("f(x) = x^2 + a", "a", "b") == "f(x) = x^2 + b"
    assert renamed("f(n) = if(n < 1, 1, f(n - 1))", "f", "g") == "g(n) = if(n < 1, 1, g(n - 1))"
    assert renamed("(not a line", "a", "b") == "(not a line"
    with pytest.raises(LineError):
        editing.check_name("2x")
    with pytest.raises(LineError):
        editing.check_name("mod")


def test_a_form_is_put_behind_every_expression_and_replaced():
    assert editing.with_form("1/3", "fraction") == "1/3 as fraction"
    assert editing.with_form("(1/3)  # third", "fraction") == "(1/3) as fraction  # third"
    assert (
        editing.with_form("x = 1/3 as hex; x", "4 digits") == "x = 1/3 as 4 digits; x as 4 digits"
    )
    assert editing.with_form("1/3 as fraction", "") == "1/3"
    with pytest.raises(LineError):
        editing.with_form("1", "nonsense")


def test_a_given_value_is_changed_in_its_line():
    assert editing.with_value("m = (1.2)  # kg", "m", "1.5") == "m = 1.5  # kg"
    assert editing.with_value("a = 1; b = 2", "b", "-7") == "a = 1; b = -7"


@pytest.mark.parametrize(
    ("line", "offered"),
    [
        ("4b = 3", "b4 = 3"),
        ("pot.mass = 2", "pot_mass = 2"),
        ("pot-mass = 2", "pot_mass = 2"),
        ("tea mass = 9", "tea_mass = 9"),
        ("mod = 1", "mod_ = 1"),
    ],
)
def test_a_target_that_breaks_the_rule_gets_its_mend(line, offered):
    assert mends(line) == [offered]


def test_quantities_know_what_they_use_and_what_uses_them():
    sheet = sheet_of("m = 2  # kg", "c = 3", "Q = m*c", "t = Q/2")
    assert state(sheet, "Q").uses == ("c", "m")
    assert state(sheet, "Q").used_by == ("t",)
    assert not state(sheet, "m").is_found
    assert not state(sheet, "m").is_drawn
    assert state(sheet, "m").description == "kg"
    assert state(sheet, "Q").is_found


def test_several_names_are_shown_at_once_and_a_quiet_line_is_kept():
    assert [a.text for a in outcome("a = 1; b = 2", "a, b, a + b").answers] == ["1", "2", "3"]
    assert outcome("a = 1;").quiet
    assert answer("a = 1;", "a") == "= 1"


def test_a_wrong_name_is_told_though_nothing_else_is_worked_out_yet():
    sheet = FullSheet()
    sheet.append("Q = 3*4")
    sheet.append("f(x) = x")
    assert sheet.entered("sqr(2)")[1].error.code == "unknown-function"
    assert "Did you mean f" in sheet.entered("F(2)")[1].error.text


@pytest.mark.parametrize("value", ["sqrt(2)", "sin(1)", "2*pi", "3", "[1, sqrt(2)]"])
def test_a_value_given_again_as_it_was_makes_nothing_out_of_date(value):
    sheet = FullSheet()
    for line in (f"x = {value}", "y = 2*x", f"x = {value}"):
        sheet.answer(line)
    assert state(sheet, "y").state == "stored"
    sheet.answer(f"x = {value} + 1e-9")
    assert state(sheet, "y").state == "out-of-date"


@pytest.mark.parametrize(
    ("first", "then", "moves"),
    [
        ("[1, 2, 3]", "[1, 2, 3]", False),
        ("[1, 2, 3]", "[1, 2, 4]", True),
        ("[1, 2, 3]", "[1, 2]", True),
        ("sqrt(2)", "2^(1/2)", False),
        ("sqrt(2)", "1.41421356", True),
        ("sin(1)", "sin(1) + 10^-30", True),
        ("30°", "(pi/6) rad", True),  # the same angle, shown in another unit
        ("30°", "29° + 60′", False),
        ("3 + 4i", "(2 + i)^2", False),
        ("3 + 4i", "3 - 4i", True),
        ("table([1, 2])", "table([1, 2])", False),
        ("table([1, 2])", "table([1, 3])", True),
        ('"tea"', '"tea"', False),
        ('"tea"', '"pot"', True),
        ("2 < 3", "true", False),
        ("infinity", "-infinity", True),
        ("2", "true", True),
        ("2", "[2]", True),
    ],
)
def test_a_value_is_out_of_date_only_where_what_it_used_is_another_value(first, then, moves):
    sheet = sheet_of(f"a = {first}", "b = [a, a][1]", f"a = {then}")
    assert (state(sheet, "b").state == "out-of-date") == moves
