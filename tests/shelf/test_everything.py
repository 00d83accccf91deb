"""Everything of a person out as one zip, and in again."""

import io
import json
import re
import zipfile
from uuid import uuid4

import pytest

from console.out import document_of
from engine.out.data import data_of
from procedures.models import Procedure, Run
from records.models import Record
from shelf.everything import NotEverything, as_zip, bring_in
from shelf.models import DataTable, Version
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


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
    clashes = bring_in(someone.person, io.BytesIO(packed))
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
    ],
)
def test_a_zip_that_is_wrong_leaves_nothing(someone, spoil):
    packed = spoil(as_zip(someone.person))
    kinds = (DataTable, Procedure, Record, Version)
    folder = someone.person.tables.get().newest.path.parent
    other = Someone().person
    before = [kind.objects.count() for kind in kinds]
    files = len(list(folder.iterdir()))
    with pytest.raises(NotEverything, match="cannot be brought in"):
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
    monkeypatch.setattr("shelf.everything.MOST_UNPACKED", 1000)
    with pytest.raises(NotEverything, match="unpacks"):
        bring_in(someone.person, io.BytesIO(as_zip(someone.person)))


def test_it_goes_out_and_in_over_the_wire(someone):
    reply = someone.client.get("/shelf/everything.zip")
    assert json.loads(zipfile.ZipFile(io.BytesIO(reply.content)).read("list.json"))["teapot"] == 1
    other = Someone()
    file = io.BytesIO(reply.content)
    file.name = "everything.zip"
    said = other.client.post("/shelf/bring-in", {"file": file}).content.decode()
    assert [f"<li>1 {kind}</li>" in said for kind in ("table", "procedure", "sheet", "record")] == (
        [True] * 4
    )
    file.seek(0)
    asked = other.client.post("/shelf/bring-in", {"file": file}).content.decode()
    assert asked.count('name="choice"') == 3
    assert other.person.tables.count() == 1
    paths = re.findall(r'name="path" value="([^"]*)"', asked)
    choices = {"path": paths, "choice": ["leave", "rename", "rename"]}
    said = other.client.post("/shelf/bring-in/settle", choices).content.decode()
    assert "Left out, since their names are taken: pots." in said
    assert other.person.tables.count() == 1
    assert other.person.records.count() == 2
    again = other.client.post("/shelf/bring-in/settle", choices)
    assert "No file waits any more" in again.content.decode()
    assert other.client.post("/shelf/bring-in").status_code == 400
