"""Kept lines are answered anew, and those that answer otherwise are told."""

import pytest
from django.core.management import call_command

from teapot.console.models import Line
from teapot.hosting.proving import answered_otherwise
from teapot.tables.models import Version
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def someone():
    someone = Someone()
    someone.table("pots")
    someone.keep("a = 6", "a*7", 'sum(shelf("pots").x)', "# a note", "today()", "sqr(4)")
    return someone


def test_lines_that_answer_as_they_did_are_counted(someone):
    proof = answered_otherwise()
    assert (proof.count, proof.otherwise) == (Line.objects.filter(is_live=False).count(), [])


def test_a_line_that_answers_otherwise_is_told(someone, capsys):
    line = Line.objects.get(number=2)
    line.outcome["answers"][0]["text"] = "41"
    line.save()
    call_command("answer_anew")
    said = capsys.readouterr().out
    assert "Untitled sheet, line 2: 41 is 42 now." in said
    assert "lines were answered anew, 1 of them otherwise." in said
    assert Line.objects.get(number=2).outcome["answers"][0]["text"] == "41"  # nothing is changed


def test_a_table_that_is_lost_is_told(someone):
    for version in Version.objects.all():
        version.path.unlink()
    from teapot.fence.asking import stop_evaluators

    stop_evaluators()  # which have it in memory
    [told] = answered_otherwise().otherwise
    assert (told.number, told.now) == (3, "an error")
