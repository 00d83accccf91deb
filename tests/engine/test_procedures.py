"""Procedures: what they ask, what a run gives, where it stops."""

from datetime import datetime

import pytest

from teapot.engine import FullSheet
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.numbers.shelf import ProcedureText, Shelf
from teapot.engine.sheet.running import questions_of, run, settings_of, values_of
from tests.engine.answers import PROCEDURES

TEXTS = {
    "double": 'x = ask("a number", 3)\n2x',
    "boiling": 'm = ask("mass, kg", 1.2)\nT = ask("from", 20)\n# a note\nQ = 4186*m*(100 - T)',
    "dice": "r = random(1..6)\nr + random(1..6)/10",
    "loop": 'run("pool")',
    "pool": 'x = 2\nrun("loop")',
    "bad": "a = 1\nb = a + nothing",
    "wordless": "# only a note",
    "asks": 'x = ask("a value")\nx + 1',
    "degrees": "sin(30)",
    "texts": 'tea = ask("which tea?", "green")\n"a pot of {tea}"',
    "lists": 'w = ask("masses", [1, 2])\nsum(w)',
    "turned": 'a = ask("angle", 30°)\nsin(a)',
    "day": "today()",
    "alike": 'a = ask("length", 1 m)\nb = ask("length", 2 m)\na + b',
    "anew": 'x = ask("first", 1)\ny = 2x\nx = ask("second", 5)\nx + y',
    "measured": 'u = ask("mass", 1.2 ± 0.1 kg)\nd = ask("day", 2024-03-01)\n2*u',
    "table": 'mean(shelf("pots").x)',
}


def shelf(**texts):
    known = {
        name: ProcedureText(name, text, angle="deg" if name == "degrees" else "rad")
        for name, text in {**TEXTS, **texts}.items()
    }
    return Shelf(procedures={name: name for name in known}, texts=known)


def answered(*lines, on=None):
    sheet = FullSheet()
    sheet.shelf = on or shelf()
    return [sheet.answer(line) for line in lines][-1]


def text_of(*lines):
    found = answered(*lines)
    assert found.error is None, found.error.text
    return found.answers[-1].text


@pytest.mark.parametrize(
    ("line", "text"),
    [
        ('run("double")', "6"),
        ('run("double", x = 1/3)', "2/3"),
        ('run("double", x = 2)*run("double", x = 5)', "40"),
        ('run("boiling", m = 2, T = 95)', "41860"),
        ('run("boiling", T = 99)', "5023.2"),
        ('run("double", x = [1, 2, 3])', "[2, 4, 6]"),
        ('run("boiling", m = [1, 2], T = [99, 98])', "[4186, 16744]"),
        ('run("lists", w = [5, 6])', "11"),
        ('run("texts", tea = "black")', '"a pot of black"'),
        ('run("turned", a = 90°)', "1"),
        ('run("degrees")', "0.5"),
        ('run("alike", a = 5 m)', "7 m"),
        ('run("alike", b = 5 m)', "6 m"),
        ('run("anew", x = 2)', "9"),
        ('run("measured", d = 2025-01-01)', "(2.40 ± 0.20) kg"),
        ('run("measured", u = 2 kg)', "4 kg"),
    ],
)
def test_a_run_gives_the_last_answer(line, text):
    assert text_of(line) == text


def test_a_run_changes_nothing_of_the_sheet():
    assert text_of("x = 7", 'run("double", x = 1)', "x") == "7"
    assert answered('run("double")', "x").error.code == "unknown-name"


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ('run("nothing")', "There is no procedure nothing on your shelf. Yours: "),
        ('run("double", y = 1)', "double does not ask for y. It asks for x."),
        ('run("double", x = 30°)', "This needs a number, and it is an angle."),
        ('run("double", x = "a")', "This needs a number, and it is text."),
        ('run("turned", a = 30)', "This needs an angle, and it is a number."),
        ('run("lists", w = 3)', "This needs a list, and it is a number."),
        ('run("loop")', "A procedure cannot run itself: loop → pool → loop."),
        ('run("bad")', "bad stops at its line 2: No quantity is named nothing"),
        ('run("wordless")', "wordless has no answer"),
        ('run("asks")', "asks stops at its line 1: a value"),
        ('run("alike", a = 3)', "The unit is missing"),
        ("run(3)", "must be text"),
        ("run()", "The argument name is missing"),
    ],
)
def test_what_a_run_does_not_do_is_said(line, said):
    assert said in answered(line).error.text


def test_two_questions_have_a_key_of_their_own():
    for name, keys in (("alike", ["a", "b"]), ("anew", ["x", "second"])):
        assert [one.key for one in questions_of(ProcedureText(name, TEXTS[name]))] == keys
    twice = ProcedureText("", 'ask("x", 1)\nask("x", 2)')
    assert [one.key for one in questions_of(twice)] == ["x", "x (line 2)"]


def test_what_lies_in_the_bin_is_said():
    known = Shelf(binned=["procedure:old", "table:pots"])
    assert "The procedure old is in the bin." in answered('run("old")', on=known).error.text
    assert "The table pots is in the bin." in answered('shelf("pots")', on=known).error.text


def test_what_is_drawn_is_kept_with_the_line_that_runs_it():
    sheet = FullSheet()
    sheet.shelf = shelf()
    outcome = sheet.answer('run("dice")')
    kept = [step.draws.values for step in sheet.lines[-1].steps]
    assert kept[0][0] == "procedure:dice"
    assert len(kept[0]) == 3
    again = FullSheet()
    again.shelf = shelf()
    line = again.put(1, 'run("dice")', 1, draws=kept)
    assert again.outcome_of(line).answers[0].text == outcome.answers[0].text


def test_nothing_is_drawn_while_a_line_is_typed():
    sheet = FullSheet()
    sheet.shelf = shelf()
    assert sheet.entered('run("dice")')[1].error.code == "stops-at"
    assert sheet.entered('run("double")')[1].answers[0].text == "6"


def test_a_date_is_that_of_the_line():
    sheet = FullSheet()
    sheet.shelf = shelf()
    sheet.now = lambda: datetime(2026, 11, 26, 12)
    assert sheet.answer('run("day")').answers[0].text == "2026-11-26"


def test_what_used_an_earlier_version_is_out_of_date(tmp_path):
    (tmp_path / "pots.csv").write_text("x\n2\n4\n")
    texts = {"1": ProcedureText("p", "x = 1"), "2": ProcedureText("p", "x = 2")}
    files = {"a": File(str(tmp_path / "pots.csv"))}
    sheet = FullSheet()
    sheet.shelf = shelf_of({}, {}, {}, {"p": "1"}, texts)
    sheet.answer('y = run("p")')
    draws = [step.draws.values for step in sheet.lines[0].steps]
    after = FullSheet()
    after.shelf = shelf_of(
        {"pots": "a"}, files, {"1": "on 26 November at 14:05"}, {"p": "2"}, texts
    )
    line = after.put(1, 'y = run("p")', 1, draws=draws)
    assert after.outcome_of(line).answers[0].text == "1"
    assert after.dependence().reason(line.steps[0]) == (
        "used a procedure that was changed on 26 November at 14:05"
    )


def test_what_a_procedure_asks_is_known_before_it_runs():
    found = questions_of(ProcedureText("p", (PROCEDURES / "heating time.txt").read_text()))
    assert [(one.name, one.preset, one.kind, one.line) for one in found] == [
        ("m", "1.2 kg", "a measure", 2),
        ("T_0", "18.5 °C", "a measure", 3),
        ("T_1", "96 °C", "a measure", 4),
        ("P", "1800 W", "a measure", 5),
    ]
    assert found[0].question == "mass of water"
    twice = questions_of(ProcedureText("p", 'ask("a") + ask("b", 2)\nx = (\nask("a")\n'))
    assert [(one.key, one.preset) for one in twice] == [("a", ""), ("b", "2")]


def outcomes(name, **replies):
    procedure = ProcedureText(name, TEXTS[name])
    values = values_of(procedure, replies)
    return list(run(FullSheet(settings_of(procedure)), procedure, values))


def test_replies_are_read_as_they_are_typed():
    assert outcomes("double", x="1/2 + 1")[-1].answers[0].text == "3"
    assert outcomes("texts", tea="mint tea")[-1].answers[0].text == '"a pot of mint tea"'
    assert outcomes("double", x="  ")[-1].answers[0].text == "6"
    wrong = outcomes("double", x="30°")
    assert [one.status for one in wrong] == ["unfinished"]
    assert wrong[0].error.said == "This needs a number, and it is an angle."
    with pytest.raises(Exception, match="missing"):
        outcomes("double", x="1 +")


def test_a_run_stops_at_the_first_error():
    assert [one.status for one in outcomes("bad")] == ["ok", "error"]
    assert [one.status for one in outcomes("boiling")] == ["ok", "ok", "note", "ok"]


@pytest.mark.parametrize(
    ("line", "reply", "taken"),
    [
        ('ask("mass, kg", 1.2)', "3/4", "0.75"),
        ('ask("angle", 30°)', "45°", "45°"),
        ('ask("tea", "green")', "black tea", '"black tea"'),
        ('ask("tea", "green")', '"black"', '"black"'),
        ('ask("masses", [1])', "[2, 3]", "[2, 3]"),
        ('ask("boiled?", true)', "false", "false"),
        ('ask("z", 1 + i)', "2", "2"),
    ],
)
def test_a_reply_is_of_the_kind_that_is_suggested(line, reply, taken):
    assert FullSheet().answer(line, [reply]).answers[0].text == taken


@pytest.mark.parametrize(
    ("line", "reply", "said"),
    [
        ('ask("mass, kg", 1.2)', "45°", "This needs a number, and it is an angle."),
        ('ask("mass, kg", 1.2)', "i", "This needs a number, and it is a complex number."),
        ('ask("angle", 30°)', "45", "This needs an angle, and it is a number."),
        ('ask("boiled?", true)', "1", "This needs a truth value, and it is a number."),
    ],
)
def test_a_reply_of_another_kind_is_asked_again(line, reply, said):
    outcome = FullSheet().answer(line, [reply])
    assert outcome.kept().asks.said == said
    assert outcome.kept().asks.preset != ""
