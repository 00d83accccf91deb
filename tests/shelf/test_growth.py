"""What is kept, sent and asked for does not grow without end."""

from io import StringIO
from uuid import uuid4

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.db import connection
from django.test.utils import CaptureQueriesContext

from teapot.accounts.models import Person
from teapot.console import changes, services
from teapot.console.models import Change
from teapot.procedures import services as procedures
from teapot.records.models import Event
from teapot.shelf.models import Arrival
from teapot.shelf.queries import shelf_state
from teapot.tables.models import Version
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


def queries(act):
    with CaptureQueriesContext(
        connection,
    ) as made:
        act()
    return len(made)


@pytest.mark.parametrize("query", [{}, {"q": "kettle"}])
def test_the_shelf_asks_as_often_for_many_procedures_as_for_few(query):
    someone = Someone()
    counts = []
    for upto in (2, 60):
        for n in range(someone.person.procedures.count(), upto):
            procedures.make(someone.person, f"p{n}", f'kettle = {n}\nrun("p0")')
        counts.append(queries(lambda: someone.client.get("/shelf/", query)))
    assert counts[0] == counts[1]


def test_records_are_searched_by_an_index():
    someone, other = Someone(), Someone()
    for one in (someone, other):
        one.keep("/record a try", "samovar = 1.5", "nonsense +", "/record stop")
    assert "a try" in someone.shown("/shelf/", q="samov")
    with connection.cursor() as cursor:
        sql = "EXPLAIN QUERY PLAN SELECT rowid FROM event_words WHERE event_words MATCH 'samovar'"
        cursor.execute(sql)
        assert "VIRTUAL TABLE INDEX" in str(cursor.fetchall())
    Event.objects.filter(record__owner=someone.person).delete()
    assert "a try" not in someone.shown("/shelf/", q="samov")
    assert "a try" in other.shown("/shelf/", q="samov")


def test_changes_that_are_kept_for_undo_have_an_end(monkeypatch):
    monkeypatch.setattr(changes, "MOST_CHANGES", 10)
    monkeypatch.setattr(changes, "OFTEN", 5)
    someone = Someone()
    someone.keep(*(f"{n} + 1" for n in range(32)))
    assert 10 <= Change.objects.count() <= 16
    for _ in range(10):
        assert changes.undo(someone.sheet) is not None
    assert someone.sheet.lines.present().count() == 22


def test_versions_of_a_table_that_nothing_used_have_an_end(settings, tmp_path, monkeypatch):
    settings.DATA = tmp_path
    monkeypatch.setattr("teapot.tables.services.MOST_VERSIONS", 3)
    someone = Someone()
    address = someone.table("pots", "x\n1\n")
    someone.keep('first = shelf("pots")', "sum(first.x)")
    for n in range(2, 12):
        file = SimpleUploadedFile("pots.csv", f"x\n{n}\n".encode())
        looked_at = someone.client.post("/tables/new", {"file": file}).headers["Location"]
        someone.client.post(f"{looked_at}/keep", {"table": address.rpartition("/")[2]})
    table = someone.person.tables.get()
    assert table.versions.count() == 4  # the last three, and the one that a line has
    assert Version.objects.count() == sum(1 for _ in table.newest.path.parent.iterdir())
    assert len(shelf_state(someone.person.pk).files) == 4
    services.mend(someone.sheet, 2, "sum(first.x) + 1")
    assert someone.sheet.lines.get(number=2).outcome["answers"][0]["text"] == "2"


def test_what_killed_processes_left_behind_is_swept_at_the_start(settings, tmp_path):
    settings.DATA = tmp_path
    someone = Someone()
    someone.table("pots", "x\n1\n")
    stage = Person.objects.create(stands_for=someone.person)
    stage.sheets.create()
    Arrival.objects.create(owner=someone.person)
    for folder, name in (("tables", str(uuid4())), ("held", "a.zip"), ("uploads", "tmp1.upload")):
        (tmp_path / folder).mkdir(exist_ok=True)
        (tmp_path / folder / name).write_bytes(b"left over")
    call_command("tidy", stdout=StringIO())  # it may still be of use
    assert Person.objects.count() == 2
    assert sum(path.is_file() for path in tmp_path.rglob("*/*")) == 4
    call_command("tidy", "--at-start", stdout=StringIO())
    assert Person.objects.get() == someone.person
    assert [path.name for path in tmp_path.rglob("*/*") if path.is_file()] == [
        str(someone.person.tables.get().newest.pk)
    ]
    assert "interrupted" in someone.shown("/shelf/bring-in/on-its-way")
