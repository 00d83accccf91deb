"""What cannot be worked out again stays, and what has to be worked out again says so."""

import uuid

import pytest
from django.test import Client

from teapot.accounts.models import Person
from teapot.console import changes, evaluating, services
from teapot.console.models import Line, Sheet
from teapot.fence import jobs
from teapot.fence.asking import evaluators
from tests.replies import refusal_in

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def sheet():
    return Sheet.objects.create(owner=Person.objects.create())


def keep(sheet, *texts, replies=()):
    for text in texts:
        kept = services.keep(sheet, text, uuid.uuid4(), replies=replies)
        assert kept.line is not None, kept.refused


def answers(sheet):
    """The answers of all lines, as a page that is opened now shows them."""
    sheet.refresh_from_db()
    lines = list(sheet.lines.present())
    evaluating.refresh(sheet, lines)
    return [evaluating.answer_texts(line) for line in lines]


def lose_caches():
    """Ends every evaluator: each sheet is read anew."""
    for child in evaluators(4).children:
        child.stop()


# -- draws, replies, dates -----------------------------------------------------------------


def test_a_draw_survives_an_error_the_loss_of_the_cache_and_undo(sheet):
    keep(sheet, "a = 1", "x = a + random()", "x*1")
    before = answers(sheet)
    services.mend(sheet, 1, "a = true")
    assert answers(sheet)[1:] == [["an error"]] * 2
    lose_caches()
    assert answers(sheet)[1:] == [["an error"]] * 2
    changes.undo(sheet)
    assert answers(sheet) == before


def test_a_reply_survives_an_error_and_undo(sheet):
    keep(sheet, "a = 1")
    keep(sheet, 'x = a + ask("How warm?")', replies=["85"])
    services.mend(sheet, 1, "a = true")
    answers(sheet)
    lose_caches()
    changes.undo(sheet)
    assert answers(sheet) == [["1"], ["86"]]


def test_a_line_that_draws_only_now_draws_the_same_everywhere(sheet):
    keep(sheet, "a = 1", "x = if(a > 2, random(), 0)", "x*1")
    services.mend(sheet, 1, "a = 3")
    lose_caches()
    first = answers(sheet)
    assert first[1] != ["0"]
    assert first[1] == first[2]
    lose_caches()
    Line.objects.filter(number=3).update(stale=True)
    assert answers(sheet) == first
    services.set_form(sheet, 2, "20 digits")
    assert answers(sheet)[2] == first[2]


def test_a_deleted_draw_comes_back_as_it_was(sheet):
    keep(sheet, "random()", "random(1..1000)", "now()")
    before = answers(sheet)
    for number in (1, 2, 3):
        services.delete(sheet, number)
    lose_caches()
    for _ in range(3):
        changes.undo(sheet)
    assert answers(sheet) == before
    services.mend(sheet, 1, "random() + 1")
    changes.undo(sheet)
    lose_caches()
    assert answers(sheet) == before


# -- answers that are no longer those of the line -------------------------------------------


def pages_of(sheet):
    client = Client()
    session = client.session
    session["person"] = str(sheet.owner.pk)
    session.save()
    return client


def test_answers_that_are_late_are_marked_and_asked_for_again(sheet, monkeypatch):
    keep(sheet, "a = 1", "b = a + 1", "c = a + 2")
    services.mend(sheet, 1, "a = 5")
    client = pages_of(sheet)
    work = evaluating.work

    def slow(sheet, job):
        done = work(sheet, job)
        return {2: done[2]} if isinstance(job, jobs.WorkOutcomes) and 2 in done else done

    monkeypatch.setattr(evaluating, "work", slow)
    page = client.get(f"/sheets/{sheet.pk}").content.decode()
    assert page.count('data-testid="not-yet"') == 1
    assert 'data-text="6"' in page
    assert 'data-text="3"' in page  # the older one, which is marked
    monkeypatch.setattr(evaluating, "work", work)
    data = {"since": 0, "numbers": [1, 2, 3]}
    again = client.post(f"/sheets/{sheet.pk}/lines/refresh", data).content.decode()
    assert 'data-text="7"' in again
    assert "not-yet" not in again


def test_nothing_worked_out_at_all_marks_every_line(sheet, monkeypatch):
    keep(sheet, "a = 1", "b = a + 1")
    services.mend(sheet, 1, "a = 5")
    monkeypatch.setattr(evaluating, "work", lambda *rest, **arguments: None)
    page = pages_of(sheet).get(f"/sheets/{sheet.pk}").content.decode()
    assert page.count('data-testid="not-yet"') == 1


def test_answers_of_another_engine_are_made_again(sheet):
    keep(sheet, "2 + 3")
    Line.objects.update(engine="older", outcome={"answers": [], "error": None, "notices": []})
    assert answers(sheet) == [["5"]]


def test_a_line_that_uses_what_is_out_of_date_says_so(sheet):
    keep(sheet, "first = 3", "second = 4", "total = first + second", "first = 5", "total", "1+1")
    found = {one.line: one.why for one in evaluating.quantities(sheet).out_of_date}
    assert found == {
        3: "used first = 3; first is now 5",
        5: "total used first = 3; first is now 5",
    }
    services.compute_again(sheet, 5)
    assert answers(sheet)[-2:] == [["9"], ["9"]]
    assert evaluating.quantities(sheet).out_of_date == []


# -- lines that wait for the connection ------------------------------------------------------


def test_a_line_mended_while_its_reply_was_lost_is_kept_once(sheet):
    token = uuid.uuid4()
    services.keep(sheet, "4+4", token)
    services.keep(sheet, "4+5", token)
    assert answers(sheet) == [["9"]]


def test_a_line_taken_back_while_its_reply_was_lost_is_gone(sheet):
    token = uuid.uuid4()
    services.take_back(sheet, token)
    services.keep(sheet, "4+4", token)
    services.take_back(sheet, token)
    assert answers(sheet) == []


# -- nothing typed is read in the web process ------------------------------------------------


def test_what_is_typed_into_fields_is_read_behind_the_fence(sheet, monkeypatch):
    keep(sheet, "a = 1")
    deep = "(" * 200 + "1" + ")" * 200
    client = pages_of(sheet)

    def nothing(*arguments, **named):
        raise AssertionError("typed text was read in the web process")

    for name in ("parse", "form_from", "tokens_of"):
        monkeypatch.setattr(f"teapot.engine.sheet.editing.{name}", nothing)
    for path, data in (
        ("lines/1/form", {"form": deep}),
        ("lines/1/form", {"form": "4 digits"}),
        ("quantities/value", {"name": "a", "value": deep}),
        ("quantities/rename", {"name": "a", "new": deep}),
        ("quantities/rename", {"name": "a", "new": "b"}),
        ("settings/form", {"value": deep}),
        ("lines/1", {"text": deep}),
    ):
        reply = client.post(f"/sheets/{sheet.pk}/{path}", {"since": 0, **data})
        assert reply.status_code == 200
        assert refusal_in(reply) == ("error" if deep in data.values() else None)
