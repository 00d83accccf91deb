"""Questions that a line asks, and the replies that stay with it."""

import pytest

from teapot.engine import FullSheet
from teapot.engine.errors import Asks
from teapot.engine.sheet.shown import Question


def asked(text, *replies):
    return FullSheet().answer(text, replies)


def test_a_line_that_asks_waits_and_is_not_kept():
    sheet = FullSheet()
    waiting = sheet.answer('T = ask("How warm?") + 1')
    assert waiting.status == "unfinished"
    assert isinstance(waiting.error, Asks)
    assert waiting.kept().asks == Question("How warm?", 0, "")
    assert sheet.answer("T").error.code == "unknown-name"


@pytest.mark.parametrize(
    ("line", "replies", "expected"),
    [
        ('ask("a")', ["85"], "85"),
        ('ask("a") as fraction', ["1/3 + 1/4"], "7/12"),
        ('ask("a") + 1°', ["12°30′15″"], "13°30′15″"),
        ('ask("a")^2', ["sqrt(2)"], "2"),
        ('sum(ask("which?"))', ["[1, 2, 3]"], "6"),
        ('ask("a")', ['"green"'], '"green"'),
        ('ask("a") - ask("b")', ["5", "3"], "2"),
        ('if(ask("a") > 1, ask("b"), 0)', ["2", "7"], "7"),
        ('if(ask("a") > 1, ask("b"), 0)', ["1"], "0"),
    ],
)
def test_replies_are_values(line, replies, expected):
    outcome = FullSheet().answer(line, replies)
    assert outcome.answers[0].text == expected
    assert outcome.draws == (tuple(replies),)


@pytest.mark.parametrize(
    ("reply", "said"),
    [
        ("(1", "closing )"),
        ("T", "the unit tesla stands after a number"),
        ("1, 2", "This needs a single value"),
        ("x = 3", "This needs a single value"),
        ('ask("again")', "cannot ask or draw anything itself"),
        ("random()", "cannot ask or draw anything itself"),
        ("today()", "cannot ask or draw anything itself"),
        ("@", "no earlier answer"),
        ("f(x", "closing )"),
        ("-" * 500, ""),
        ("\u0000", ""),
    ],
)
def test_a_reply_without_a_value_is_asked_for_again(reply, said):
    error = asked('2*ask("How warm?")', reply).error
    assert isinstance(error, Asks)
    assert (error.question, error.taken) == ("How warm?", 0)
    assert said in error.said


def test_good_replies_before_a_bad_one_are_kept():
    error = asked('ask("a"); ask("b") + ask("c")', "1", "2", "(").error
    assert (error.question, error.taken) == ("c", 2)


def test_the_question_is_text():
    assert asked("ask(3)").error.code == "not-a-text"
    assert asked("ask()").error.code == "missing-argument"


def test_the_question_is_not_put_while_the_line_is_typed():
    sheet = FullSheet()
    outcome = sheet.entered('ask("How warm?")')[1]
    assert outcome.error.code == "drawn-later"
    assert "when you press Enter" in outcome.error.text


def test_replies_stay_when_what_the_line_uses_changes():
    sheet = FullSheet()
    sheet.put(1, "m = 2", 1.0)
    sheet.put(2, 'm*ask("How many?")', 2.0, draws=[["21"]])
    assert sheet.outcome_of(sheet.by_number[2]).answers[0].text == "42"
    sheet.put(1, "m = 3", 1.0)
    assert sheet.outcome_of(sheet.by_number[2]).answers[0].text == "63"


def test_a_function_of_ones_own_asks_at_every_call():
    sheet = FullSheet()
    sheet.answer('k(x) = x*ask("Factor?")')
    assert sheet.answer("k(3) + k(4)", ["2", "10"]).answers[0].text == "46"


def test_the_angle_unit_of_a_reply_is_that_of_the_line():
    sheet = FullSheet()
    sheet.answer("/angle deg")
    answer = sheet.answer('ask("The sine?")', ["sin(30)"]).answers[0]
    assert (answer.text, answer.unit) == ("0.5", "deg")
