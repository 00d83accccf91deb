"""Everything of a person out as one zip, and in again."""

import errno
import io
import json
import os
import re
import threading
import zipfile
from datetime import timedelta
from types import SimpleNamespace
from uuid import uuid4

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError
from django.test import Client
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.accounts.room import NoRoom, Room
from teapot.console import bringing
from teapot.console.models import Line
from teapot.console.out import document_of
from teapot.engine.out.data import data_of
from teapot.procedures.models import Procedure, Run
from teapot.records.models import Record
from teapot.shelf import importing
from teapot.shelf.everything import write_zip
from teapot.shelf.everything_in import ImportStopped, NotEverything, bring_in, clashes_in
from teapot.shelf.models import Arrival
from teapot.tables.models import DataTable, Version
from tests.people import Someone, zipped
from tests.server import PATIENCE

pytestmark = pytest.mark.django_db(transaction=True)


def as_zip(person):
    file = io.BytesIO()
    write_zip(person, file)
    return file.getvalue()


@pytest.fixture
def someone(settings, tmp_path):
    settings.DATA = tmp_path  # other processes have tests with files of their own
    made = Someone()
    made.table("pots", "time [min],temp\n0,96.5\n1,\n2,90\n")
    made.procedure("double", 'x = ask("x", 3)\n2x + random()')
    made.keep("/record a try", 't = shelf("pots")', "mean(t.temp)", 'run("double", x = 5)')
    made.keep("r = random()", "/record stop", "today()")
    made.act("sheet", made.sheet.pk, "move", value="week 3")
    return made


def without_ids(sheet):
    data = data_of(document_of(sheet))
    data["versions"] = sorted(data["versions"].values())
    for line in data["lines"]:
        line["draws"] = [
            [value.partition(":")[0] if "-" in value and ":" in value else value for value in one]
            for one in line["draws"]
        ]
    return data


def test_nothing_is_lost_on_the_way_to_somebody_else(someone):
    other = Someone().person
    other.sheets.all().delete()
    brought = bring_in(other, io.BytesIO(as_zip(someone.person)))
    assert brought.counts == {"table": 1, "procedure": 1, "sheet": 1, "record": 1}
    assert without_ids(other.sheets.get()) == without_ids(someone.sheet)
    assert other.sheets.get().folder == "week 3"
    mine, theirs = someone.person.tables.get().newest, other.tables.get().newest
    assert mine.path.read_bytes() == theirs.path.read_bytes()
    assert mine.guess == theirs.guess
    assert [v.text for v in other.procedures.get().versions.all()] == [
        v.text for v in someone.person.procedures.get().versions.all()
    ]
    fields = ("at", "kind", "number", "text", "answers", "before")
    events = [
        list(person.records.get().events.values_list(*fields)) for person in (someone.person, other)
    ]
    assert events[0] == events[1]
    assert len(events[0]) == 6


def test_names_that_are_taken_are_left_out_or_come_in_under_others(someone):
    packed = as_zip(someone.person)
    clashes = clashes_in(someone.person, io.BytesIO(packed))
    assert {(one.kind, one.name) for one in clashes} == {
        ("table", "pots"), ("procedure", "double"), ("record", "a try"),
    }  # fmt: skip
    leave_all = {one.path: "leave" for one in clashes}
    brought = bring_in(someone.person, io.BytesIO(packed), leave_all)
    assert sorted(brought.left_out) == ["a try", "double", "pots"]
    leave_one = {one.path: "leave" for one in clashes if one.kind == "record"}
    brought = bring_in(someone.person, io.BytesIO(packed), leave_one)
    assert brought.left_out == ["a try"]
    assert sorted(someone.person.tables.values_list("name", flat=True)) == ["pots", "pots 2"]


def test_runs_and_what_is_in_the_bin_come_along(someone):
    procedure = someone.person.procedures.get()
    someone.client.post(f"/procedures/{procedure.pk}/run", {"key": ["x"], "reply": ["4"]})
    someone.act("sheet", someone.sheet.pk, "bin")
    fields = {"procedure": procedure.pk, "token": uuid4(), "key": ["x"], "reply": ["7"], "since": 0}
    made = someone.client.post("/sheets/new").headers["Location"]
    someone.client.post(f"{made}/run", fields)
    other = Someone().person
    other.sheets.all().delete()
    bring_in(other, io.BytesIO(as_zip(someone.person)))
    assert other.sheets.at_hand().count() == 1
    assert other.sheets.exclude(binned=None).get().binned == someone.sheet.binned
    mine, theirs = (
        Run.objects.filter(version__procedure__owner=person).order_by("made")
        for person in (someone.person, other)
    )
    kept = ("replies", "outcomes", "draws", "made")
    assert list(mine.values(*kept)) == list(theirs.values(*kept))
    assert theirs.count() == 2
    folded = other.sheets.at_hand().get().lines.exclude(run=None)
    assert folded.count() == 2
    assert set(folded.values_list("run", flat=True)) == {theirs.last().pk}


def altered(packed, path, change):
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(packed)) as before, zipfile.ZipFile(out, "w") as after:
        for entry in before.namelist():
            data = before.read(entry)
            after.writestr(entry, change(data) if entry.startswith(path) else data)
    return out.getvalue()


def with_other(path, old, new):
    return lambda packed: altered(packed, path, lambda data: data.replace(old, new))


@pytest.mark.parametrize(
    "spoil",
    [
        lambda packed: b"no zip",
        lambda packed: packed[: len(packed) // 2],
        with_other("list.json", b'"things"', b'"thongs"'),
        with_other("list.json", b"{", b"["),
        with_other("list.json", b'"teapot": 1', b'"teapot": 2'),
        with_other("records/", b'"events"', b'"x"'),
        with_other("sheets/", b'"lines"', b'"x"'),
        with_other("tables/", b'"columns"', b'"x"'),
        with_other("procedures/", b'"text"', b'"x"'),
        with_other("tables/", b'"rows": 3', b'"rows": -5'),
        with_other("tables/", b'"rows": 3', b'"rows": "3"'),
    ],
)
def test_a_zip_that_is_wrong_leaves_nothing(someone, spoil):
    packed = spoil(as_zip(someone.person))
    kinds = (DataTable, Procedure, Record, Version)
    folder = someone.person.tables.get().newest.path.parent
    other = Someone().person
    before = [kind.objects.count() for kind in kinds]
    files = len(list(folder.iterdir()))
    with pytest.raises(NotEverything, match="cannot be opened"):
        bring_in(other, io.BytesIO(packed))
    assert [kind.objects.count() for kind in kinds] == before
    assert len(list(folder.iterdir())) == files


@pytest.mark.parametrize("path", ["../../evil", "/etc/evil", "sheets/../../evil"])
def test_a_path_that_leads_out_is_refused(someone, path):
    packed = io.BytesIO(as_zip(someone.person))
    with zipfile.ZipFile(packed, "a") as more:
        more.writestr(path, b"x")
    with pytest.raises(NotEverything, match="leads out"):
        bring_in(someone.person, packed)


def test_a_zip_that_unpacks_to_too_much_is_refused(monkeypatch, someone):
    monkeypatch.setattr("teapot.shelf.everything_in.MOST_UNPACKED", 1000)
    with pytest.raises(NotEverything, match="unpacks"):
        bring_in(someone.person, io.BytesIO(as_zip(someone.person)))


def test_it_goes_out_and_in_over_the_wire(someone, monkeypatch):
    monkeypatch.setattr(importing, "LOOKED_FOR", PATIENCE)
    everything = zipped(someone.client)
    assert json.loads(zipfile.ZipFile(io.BytesIO(everything)).read("list.json"))["teapot"] == 1
    other = Someone()
    file = io.BytesIO(everything)
    file.name = "everything.zip"
    said = other.client.post("/shelf/bring-in", {"file": file}).content.decode()
    assert [f">1 {kind}</li>" in said for kind in ("table", "procedure", "sheet", "record")] == (
        [True] * 4
    )
    file.seek(0)
    asked = other.client.post("/shelf/bring-in", {"file": file}).content.decode()
    assert asked.count('name="choice"') == 3
    assert other.person.tables.count() == 1
    paths = re.findall(r'name="path" value="([^"]*)"', asked)
    choices = {"path": paths, "choice": ["leave", "rename", "rename"]}
    said = other.client.post("/shelf/bring-in/settle", choices).content.decode()
    assert "Left out, because the names are taken: pots." in said
    assert other.person.tables.count() == 1
    assert other.person.records.count() == 2
    again = other.client.post("/shelf/bring-in/settle", choices)
    assert "no longer waiting" in again.content.decode()
    assert other.client.post("/shelf/bring-in").status_code == 400


def many_sheets(count, lines=1):
    """A zip of so many sheets: a few kilobytes."""
    told = {"teapot": 1, "kind": "everything", "things": []}
    sheet = {"teapot": 1, "kind": "sheet", "title": "s", "lines": [{"text": "1+1"}] * lines}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("sheets/1.json", json.dumps(sheet))
        one = {"kind": "sheet", "path": "sheets/1.json", "name": "s"}
        told["things"] = [one] * count
        packed.writestr("list.json", json.dumps(told))
    out.seek(0)
    return out


def test_others_write_while_a_zip_with_many_sheets_comes_in(someone):
    other = Someone()
    written, seen = [], []

    def go_on(done, total):
        if done < total:
            other.keep(f"{done} + 1")
            written.append(done)
            seen.append(someone.person.sheets.count())
        return True

    brought = bring_in(someone.person, many_sheets(200), {}, go_on)
    assert brought.counts == {"sheet": 200}
    assert len(written) >= 4  # between its transactions
    assert set(seen) == {1}  # none of it is there before all is
    assert other.sheet.lines.count() == len(written)
    assert someone.person.sheets.count() == 201
    assert Person.objects.count() == 2


@pytest.mark.parametrize("end", ["stopped", "an error", "the owner is gone"])
def test_a_zip_that_does_not_come_in_to_the_end_leaves_nothing(someone, end):
    person, key = someone.person, someone.person.pk

    def go_on(done, total):
        if end == "an error" and done > 60:
            raise OSError("as it happens")
        if end == "the owner is gone" and done > 60:
            Person.objects.filter(pk=key).delete()
        return end != "stopped" or done < 60

    before = Line.objects.exclude(sheet__owner=key).count()
    with pytest.raises((NotEverything, ImportStopped, Person.DoesNotExist, DatabaseError)):
        bring_in(person, many_sheets(200), {}, go_on)
    assert Line.objects.exclude(sheet__owner=key).count() == before
    assert not Person.objects.filter(stands_for__isnull=False).exists()


def test_how_far_a_zip_is_can_be_seen_and_it_can_be_stopped(someone, monkeypatch):
    monkeypatch.setattr(importing, "LOOKED_FOR", 0)
    monkeypatch.setattr(importing, "SAID_EVERY", 0)
    goes_on = threading.Event()
    write = bringing.writing

    def slowly(sheet, lines):
        goes_on.wait(PATIENCE)
        return write(sheet, lines)

    monkeypatch.setattr(bringing, "writing", slowly)
    file = many_sheets(100)
    file.name = "everything.zip"
    reply = someone.client.post("/shelf/bring-in", {"file": file})
    address = reply.headers["Location"]
    assert "things are read" in someone.shown(address)
    someone.client.post("/shelf/bring-in/stop")
    goes_on.set()
    importing.wait()
    assert "Stopped. Nothing was saved" in someone.shown(address)
    assert someone.person.sheets.count() == 1
    file.seek(0)
    someone.client.post("/shelf/bring-in", {"file": file})
    importing.wait()
    assert ">100 sheets</li>" in someone.shown(address)
    assert not list(settings.DATA.glob("held/*"))


def test_one_that_was_interrupted_says_so(someone):
    Arrival.objects.create(owner=someone.person)
    Arrival.objects.update(touched=timezone.now() - timedelta(minutes=5))
    assert "interrupted" in someone.shown("/shelf/bring-in/on-its-way")


def test_what_is_wrong_with_a_part_is_said_in_whole_sentences(someone):
    things = [{"kind": "sheet", "path": "a", "name": "a"}]
    told = {"teapot": 1, "kind": "everything", "things": things, "versions": []}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        packed.writestr("list.json", json.dumps(told))
        packed.writestr("a", "{}")
    with pytest.raises(NotEverything) as refused:
        bring_in(someone.person, out)
    assert refused.value.text == (
        "A part of this file cannot be opened. "
        "This file cannot be read as a sheet: its JSON is not that of a sheet."
    )


def test_no_more_is_unpacked_than_may_be_whatever_a_zip_says(someone, monkeypatch):
    monkeypatch.setattr(bringing, "MOST_BYTES", 10_000)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("list.json", b" " * 10_000_000)
    spoiled = out.getvalue().replace((10_000_000).to_bytes(4, "little"), (9).to_bytes(4, "little"))
    with pytest.raises(NotEverything, match="cannot be opened"):
        bring_in(someone.person, io.BytesIO(spoiled))


@pytest.mark.parametrize(
    ("what", "most", "said"),
    [
        ("things", Room(3, 10**6, 10**9), "may hold 3 things"),
        ("lines", Room(10**6, 30, 10**9), "may have 30 lines"),
        ("size", Room(10**6, 10**6, 1), "may have 1 megabytes"),
    ],
)
def test_there_is_a_limit_to_what_somebody_keeps(someone, monkeypatch, what, most, said):
    packed = as_zip(someone.person) if what == "size" else many_sheets(9, 9).getvalue()
    monkeypatch.setattr("teapot.accounts.room.OF_GUEST", most)
    before = someone.person.sheets.count()
    with pytest.raises(NoRoom, match=said):
        bring_in(someone.person, io.BytesIO(packed))
    assert someone.person.sheets.count() == before
    page = someone.shown("/account/")
    assert f"of {most.things:,} things" in page


def test_a_full_disk_is_told(someone, monkeypatch):
    monkeypatch.setattr(
        "teapot.accounts.room.shutil.disk_usage", lambda path: SimpleNamespace(free=1)
    )
    assert Client().get("/health").json()["storage"] == "full"
    reply = someone.client.post("/sheets/new")
    assert reply.status_code == 507
    assert "the disk of the server is full" in reply.content.decode()
    someone.keep("1 + 1")  # what is small still goes on
    assert someone.sheet.lines.last().text == "1 + 1"


@pytest.mark.parametrize(
    ("number", "said"),
    [(errno.ENOSPC, "storage is full"), (errno.EROFS, "cannot be written to")],
)
def test_a_file_that_cannot_be_written_is_told_in_a_sentence(someone, monkeypatch, number, said):
    def fails(*arguments):
        raise OSError(number, os.strerror(number))

    monkeypatch.setattr("pathlib.Path.open", fails)
    file = SimpleUploadedFile("pots.csv", b"a\n1\n")
    reply = someone.client.post("/tables/new", {"file": file})
    assert reply.status_code == 503
    assert said in reply.content.decode()
