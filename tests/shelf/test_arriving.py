"""Files that come in, whatever they are."""

import json

import jsonschema
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from teapot.procedures.models import Run
from teapot.shelf.arriving import kind_of
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def someone(settings, tmp_path):
    settings.DATA = tmp_path
    return Someone()


def a_run(**told):
    usual = {"id": "1", "version": "1", "made": "", "replies": {}, "outcomes": [], "draws": []}
    return usual | told


@pytest.mark.parametrize(
    ("name", "data", "kind"),
    [
        ("a.zip", b"PK\x03\x04....", "everything"),
        ("anything", b"PK\x03\x04....", "everything"),
        ("pots.csv", b"x\n1\n2\n", "table"),
        ("pots.txt", b"time\ttemp\n0\t96\n1\t95\n", "table"),
        ("pots.txt", b"0;1,5\n1;2,5\n", "table"),
        ("lines.txt", b"f(1,2)\ng(3,4)\n", "sheet"),
        ("lines.txt", b"m = 1.2\nc = 4186\n", "sheet"),
        ("lines.txt", b"2 + 3\n", "sheet"),
        ("lines.md", b"# a | b\n", "sheet"),
        ("x.json", b'{"teapot": 1, "kind": "record"}', "record"),
        ("x.json", b'\xef\xbb\xbf{"teapot": 1, "kind": "procedure"}', "procedure"),
        ("x.json", b'{"kind": "something else"}', "sheet"),
        ("x.json", b'{"kind": "\\ud800"}', "sheet"),
    ],
)
def test_what_a_file_is_follows_from_what_it_holds(name, data, kind):
    assert kind_of(name, data) == kind


def bring(someone, name, data, **fields):
    return someone.client.post(
        "/shelf/bring-in", {"file": SimpleUploadedFile(name, data), **fields}
    )


def test_a_procedure_goes_out_and_comes_in_beside_the_one_that_is_there(someone):
    address = someone.procedure("double", 'x = ask("x", 3)\n2x')
    someone.client.post(f"{address}/run", {"key": ["x"], "reply": ["4"]})
    packed = someone.client.get(f"/shelf{address}.json").content
    came = bring(someone, "double.json", packed)
    made = someone.person.procedures.get(name="double 2")
    assert came.headers["Location"] == f"/procedures/{made.pk}"
    first = someone.person.procedures.get(name="double")
    assert [v.text for v in made.versions.all()] == [v.text for v in first.versions.all()]
    assert "8" in someone.shown(came.headers["Location"])


def test_lines_come_in_as_a_procedure_where_that_is_said(someone):
    lines = b'x = ask("x", 3)\n"twice that is {2x}"\n'
    came = bring(someone, "two_times.txt", lines, **{"as": "procedure"})
    made = someone.person.procedures.get()
    assert made.name == "two times"
    assert made.newest.text == lines.decode().strip()
    assert came.headers["Location"] == f"/procedures/{made.pk}"


@pytest.mark.parametrize("ending", ["json", "txt", "md", "html", "tex"])
def test_a_record_goes_out_and_comes_in_with_all_its_events(someone, ending):
    someone.keep("/record a try", "a = 2  # <b> -- %", "a*3", "/record stop")
    first = someone.person.records.get()
    packed = someone.client.get(f"/shelf/records/{first.pk}.{ending}").content
    came = bring(someone, f"a try.{ending}", packed)
    made = someone.person.records.get(name="a try 2")
    assert came.headers["Location"] == f"/records/{made.pk}"
    fields = ("at", "kind", "number", "text", "answers", "said", "before")
    assert list(made.events.values(*fields)) == list(first.events.values(*fields))
    assert someone.client.get(came.headers["Location"]).status_code == 200


@pytest.mark.parametrize("ending", ["json", "md", "html", "tex"])
def test_a_procedure_goes_out_and_comes_in_with_its_versions_and_runs(someone, ending):
    address = someone.procedure("two times", 'x = ask("x", 3)')
    someone.client.post(f"{address}/run", {"key": ["x"], "reply": ["5"], "text": "x = 2\n3*x"})
    packed = someone.client.get(
        address.replace("/procedures/", "/shelf/procedures/") + f".{ending}"
    ).content
    bring(someone, f"two.{ending}", packed)
    made = someone.person.procedures.get(name="two times 2")
    first = someone.person.procedures.get(name="two times")
    texts = [list(one.versions.values_list("text", flat=True)) for one in (made, first)]
    assert texts[0] == texts[1] == ["x = 2\n3*x", 'x = ask("x", 3)', ""]
    assert Run.objects.filter(version__procedure=made).count() == 1


@pytest.mark.parametrize("ending", ["json", "md", "txt", "html", "tex"])
def test_a_sheet_goes_out_and_comes_in_with_its_lines_and_notices(someone, ending):
    someone.keep("/angle deg", "x = sin(30)  # <i> -- %", "3,5", "x^2\n+1", "/show 4 digits")
    packed = someone.client.get(f"{someone.address}/sheet.{ending}").content
    came = bring(someone, f"sheet.{ending}", packed)
    address = came.headers["Location"]
    data = [
        json.loads(someone.client.get(f"{one}/sheet.json").content)
        for one in (someone.address, address)
    ]
    for name in ("form", "conventions"):
        assert data[0][name] == data[1][name]
    for one, other in zip(*(each["lines"] for each in data), strict=True):
        assert one | {"kept": ""} == other | {"kept": ""}


def test_half_of_a_sign_is_refused_with_a_sentence(someone):
    whole = {"teapot": 1, "kind": "sheet", "title": "\ud800", "lines": [{"text": "1"}]}
    said = bring(someone, "half.json", json.dumps(whole).encode()).content.decode()
    assert "half of a sign stands in its JSON" in said


@pytest.mark.parametrize(
    ("kind", "change", "said"),
    [
        ("record", {"events": [{"kind": "new"}]}, "at"),
        ("record", {"events": 5}, "of another form"),
        ("record", {"parts": "many"}, "of another form"),
        ("record", {"name": ""}, "give it a name"),
        ("procedure", {"versions": []}, "no version"),
        ("procedure", {"versions": [{"text": "1"}]}, "angle"),
        ("procedure", {"runs": [{"id": 1}]}, "version"),
        ("procedure", {"runs": [a_run(replies=[])]}, "replies"),
        ("procedure", {"runs": [a_run(replies={"x": 5})]}, "a run is not"),
        ("procedure", {"runs": [a_run(outcomes=[{"answers": []}])]}, "input"),
        ("procedure", {"runs": [a_run(outcomes=[{"answers": [{}], "input": ""}])]}, "kind"),
        ("procedure", {"runs": [a_run(draws=[[5]])]}, "a run is not"),
    ],
)
def test_json_that_is_valid_but_wrong_leaves_nothing(someone, kind, change, said):
    whole = {
        "record": {
            "teapot": 1, "kind": "record", "name": "a", "note": "", "parts": 1, "events": [],
        },
        "procedure": {
            "teapot": 1, "kind": "procedure", "name": "a",
            "versions": [{"id": "1", "made": "", "text": "1", "angle": "rad", "log": "ask",
                          "numbers": "complex", "form": "10 digits"}],
        },
    }[kind]  # fmt: skip
    came = bring(someone, "x.json", json.dumps(whole | change).encode())
    assert came.status_code == 400
    assert said in came.content.decode()
    assert someone.person.records.count() + someone.person.procedures.count() == 0
    assert bring(someone, "x.json", json.dumps(whole).encode()).status_code == 302


def test_an_event_that_is_no_event_is_refused(someone):
    someone.keep("/record a try", "a = 2", "/record stop")
    record = someone.person.records.get()
    data = json.loads(someone.client.get(f"/shelf/records/{record.pk}.json").content)
    for name, wrong in (("kind", "eaten"), ("answers", [5]), ("text", 7), ("before", {"x": 1})):
        events = [data["events"][0] | {name: wrong}]
        came = bring(someone, "x.json", json.dumps(data | {"events": events}).encode())
        assert came.status_code == 400, name
    assert someone.person.records.count() == 1


def test_a_table_that_is_dropped_goes_on_to_its_preview_for_the_sheet(someone):
    came = bring(someone, "pots.csv", b"x\n1\n2\n", sheet=someone.sheet.pk)
    assert came.headers["Location"].startswith("/tables/files/")
    assert f"sheet={someone.sheet.pk}" in came.headers["Location"]


@pytest.mark.parametrize("kind", ["procedure", "record"])
def test_what_goes_out_as_json_is_as_its_schema_says(someone, kind, settings):
    address = someone.procedure("double", 'x = ask("x", 3)\n"twice {x}"\n2x + random()')
    someone.client.post(f"{address}/run", {"key": ["x"], "reply": ["4"]})
    someone.keep("/record a try", "a = 2", "b = nothing", "a*3", "/record stop")
    someone.client.post(f"{someone.address}/undo")
    thing = getattr(someone.person, f"{kind}s").get()
    data = json.loads(someone.client.get(f"/shelf/{kind}s/{thing.pk}.json").content)
    schema = json.loads(
        (settings.ROOT / "teapot" / f"{kind}s" / f"{kind}.schema.json").read_text("utf-8")
    )
    jsonschema.Draft202012Validator.check_schema(schema)
    jsonschema.validate(data, schema, cls=jsonschema.Draft202012Validator)
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(data | {"teapot": 2}, schema)
