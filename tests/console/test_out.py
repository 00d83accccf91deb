"""Sheets that go out and come in again."""

import csv
import io
import json
import uuid
from pathlib import Path

import html5lib
import jsonschema
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from teapot.accounts.models import Person
from teapot.console import bringing, changes, services
from teapot.console.models import Line, Sheet
from teapot.console.out import document_of
from teapot.engine.out.reading import NotASheet
from teapot.shelf.saving import FORMATS

pytestmark = pytest.mark.django_db(transaction=True)

SCHEMA = json.loads(Path("teapot/engine/out/sheet.schema.json").read_text())

LINES = (
    "m = 1.2  # water in the pot, kg", "Q := 4186*m*80", "m = m + 1/3", "@ + 1", "@1*2",
    "random()", "random(1..6)", "r = random(); r + r", "today()", "now()", "# only a note",
    "sin(30)", "sin(30°) as 4 digits", "sqrt(8)", "1/3 as fraction;", "w = [2, 3, 7]*2",
    'tea = "green"', '"a pot of {tea}, {m as 2 places} kg"', "f(x) = x^2 + m", "f(1..3)",
    "table(1..3, f(1..3))", "/forget m", "(1 +\n 2)*3", "ln(-1)", "5∠30° as polar", "x = 2;",
    "0.1 + 0.2 as binary64", '"--> <b>&amp; `code` ${2+2}$"', "  # spaces  before", "1e-300",
    "#: {\"number\": 1}", "# a heading",
)  # fmt: skip
"""Lines with what has to come back: names, draws, dates, forms, notes, rows."""

SETTINGS = ("/angle deg", "/angle rad", "/numbers real", "/numbers complex", "/show 4 digits")
DEEDS = ("delete", "move", "undo", "mend")

STEPS = st.lists(
    st.one_of(
        st.sampled_from(LINES),
        st.sampled_from(SETTINGS),
        st.tuples(st.sampled_from(DEEDS), st.integers(0, 12)),
    ),
    min_size=1,
    max_size=14,
)


def made(steps, title="Some kettles"):
    person = Person.objects.create()
    sheet = Sheet.objects.create(owner=person, title=title)
    for step in steps:
        if isinstance(step, str):
            services.keep(sheet, step, uuid.uuid4())
            continue
        deed, at = step
        numbers = list(sheet.lines.present().values_list("number", flat=True))
        if deed == "undo":
            changes.undo(sheet)
        elif numbers:
            number = numbers[at % len(numbers)]
            if deed == "delete":
                services.delete(sheet, number)
            elif deed == "move":
                services.move(sheet, number, up=True)
            else:
                services.mend(sheet, number, "2 + 40")
        sheet.refresh_from_db()
    return sheet


def state(sheet):
    """What of a sheet has to be the same."""
    document = document_of(sheet)
    return [
        (
            line.number,
            line.text,
            dict(line.conventions),
            [(answer["sign"], answer["text"]) for answer in line.outcome["answers"]],
            [list(draws) for draws in line.draws if draws],
            line.remarks,
        )
        for line in document.lines
    ]


def through(sheet, ending):
    """The sheet as it comes back from a file."""
    wanted = FORMATS[ending]
    written = wanted.write(document_of(sheet, latex=wanted.latex))
    document = bringing.document_in(written.encode(), f"{sheet.title}.{ending}")
    brought = bringing.bring_in(sheet.owner, document)
    assert brought.sheet is not None, brought.wrong
    return brought.sheet


@pytest.mark.parametrize("ending", ["txt", "md", "json"])
@settings(
    max_examples=12,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture],
)
@given(steps=STEPS)
def test_what_goes_out_comes_in_the_same(ending, steps):
    sheet = made(steps)
    back = through(sheet, ending)
    assert state(back) == state(sheet)
    assert (back.title, back.form, back.conventions) == (sheet.title, sheet.form, sheet.conventions)


LATE = ("n = 3", "t = n*2", "n = 5", "t + 1")
"""The last line uses a value that was out of date when it was typed."""


@pytest.mark.parametrize("ending", ["txt", "md", "json"])
def test_what_is_out_of_date_goes_out_and_comes_back_as_such(ending):
    sheet = made(LATE)
    said = [line.remarks for line in document_of(sheet).lines]
    assert said == [
        [],
        ["Out of date: used n = 3; n is now 5."],
        [],
        ["Out of date: t used n = 3; n is now 5."],
    ]
    back = through(sheet, ending)
    assert [line.remarks for line in document_of(back).lines] == said
    services.keep(back, "t = n*2", uuid.uuid4())
    assert [line.remarks for line in document_of(back).lines][3] == []


def test_a_line_that_was_moved_goes_out_with_what_it_answers_there():
    sheet = made(("a = 5", "b = 7", "c = a + b"))
    services.move(sheet, 3, up=True)
    services.move(sheet, 3, up=True)
    first = document_of(sheet).lines[0]
    assert (first.text, first.answers) == ("c = a + b", ())
    assert "a" in first.said


def test_chosen_lines_go_out_with_the_quantities_as_of_these_lines():
    sheet = made(("a = 5", "k = 1", "b = 2 a", "a = 6", "b = 3 a", "z = 1"))
    document = document_of(sheet, [1, 3])
    quantities = [(one.name, one.text, one.is_found) for one in document.quantities]
    assert quantities == [("a", "5", False), ("b", "10", True)]
    assert not any(one.is_out_of_date for one in document.quantities)
    assert [one.name for one in document_of(sheet, [6]).quantities] == ["z"]
    assert [(one.name, one.text) for one in document_of(sheet).quantities] == [
        ("k", "1"), ("a", "6"), ("b", "18"), ("z", "1"),
    ]  # fmt: skip


def test_every_quantity_of_a_large_sheet_goes_out():
    sheet = made(())
    services.keep_several(sheet, [f"q{at} = {at}" for at in range(250)], uuid.uuid4())
    assert len(document_of(sheet).quantities) == 250


@pytest.mark.parametrize("ending", ["txt", "md", "json"])
def test_every_kind_of_line_comes_back(ending):
    sheet = made(LINES)
    assert sheet.lines.count() == len(LINES)
    assert state(through(sheet, ending)) == state(sheet)


def test_json_is_as_its_schema_says():
    sheet = made((*SETTINGS, *LINES))
    jsonschema.Draft202012Validator.check_schema(SCHEMA)
    jsonschema.validate(json.loads(FORMATS["json"].write(document_of(sheet))), SCHEMA)


def test_what_was_drawn_and_only_begins_like_a_version_goes_out_too():
    sheet = made(["1 + 1"])
    sheet.lines.update(draws=[["table:of tea", "procedure:", "table:"]])
    assert json.loads(FORMATS["json"].write(document_of(sheet)))["versions"] == {}


def test_the_page_is_html_and_shows_everything():
    """Strict parsing by html5lib; the mathematics stands in MathML."""
    sheet = made((*LINES, 'evil = "<script>alert(1)</script>"'), "<b>Kettles</b> & pots")
    page = FORMATS["html"].write(document_of(sheet, who="A. Student <x>", workings=True))
    parser = html5lib.HTMLParser(strict=True)
    tree = parser.parse(page)
    spaces = {"h": "http://www.w3.org/1999/xhtml", "m": "http://www.w3.org/1998/Math/MathML"}
    assert len(tree.findall(".//h:ol[@class='lines']/h:li", spaces)) == sheet.lines.count()
    assert tree.findall(".//m:math", spaces)
    assert not tree.findall(".//h:script", spaces)
    assert "http" not in page.replace("http-equiv", "")  # it stands alone
    assert "A. Student &lt;x&gt;" in page


def test_a_page_says_what_a_graph_is_of_and_names_a_function_once():
    sheet = made(("f(x) = 2x + 1", "k = 3", "graph(floor(x), x = 0..2)", "graph(sin(x), x = 1..4)"))
    page = FORMATS["html"].write(document_of(sheet))
    given = page[page.index("<h2>Given</h2>") : page.index("<h2>Lines</h2>")]
    assert given.count("<tr>") == 1  # k alone: the line of the function says what it is
    floor, sine = page[page.index("graph(floor(x)") :].split("graph(sin(x)")
    assert "of-table" not in floor  # it has no named points
    assert "maximum" in sine
    assert page.count("graph-of-line") >= 2


def test_quantities_as_csv_are_safe_and_complete():
    sheet = made(("m = 1.2  # =1+1", "Q = 2*m", "m = 3"))
    rows = list(csv.reader(io.StringIO(FORMATS["csv"].write(document_of(sheet)))))
    assert sorted(rows[1:]) == [
        ["Q", "2.4", "yes", "", "found", "yes"],
        ["m", "3", "yes", "", "given", "no"],
    ]


def test_latex_has_every_answer():
    sheet = made(LINES)
    written = FORMATS["tex"].write(document_of(sheet, latex=True))
    assert written.count("\\begin{document}") == written.count("\\end{document}") == 1
    assert r"\sqrt{8}" in written
    assert r"\textbackslash{}" not in written
    rare = made(('tea = "茶"  # ✓ π, 50 % of \\',), "茶 & co")
    written = FORMATS["tex"].write(document_of(rare, latex=True))
    assert "[U+8336]" in written
    assert r"[U+2713] \ensuremath{\pi}, 50 \% of \textbackslash{}" in written
    assert all(ord(sign) < 0x180 for sign in written)


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"{", "its JSON breaks at row 1"),
        (b'{"teapot": 1}', "its JSON is not that of a sheet"),
        (b'{"teapot": 9, "kind": "sheet", "lines": []}', "it is of format 9"),
        (b'{"teapot": 1, "kind": "sheet", "lines": 3}', "no list of lines"),
        (b'{"teapot": 1, "kind": "sheet", "lines": [{"number": 1}]}', "line 1 has no text"),
        (b'{"teapot": 1, "kind": "sheet", "lines": [{"text": "1", "number": -1}]}', "no whole"),
        (
            b'{"teapot": 1, "kind": "sheet", "lines": [{"text": "1"}, {"text": "2", "number": 1}]}',
            "two lines of number 1",
        ),
        (
            b'{"teapot": 1, "kind": "sheet", "lines": [{"text": "1", "draws": [3]}]}',
            "no list of texts",
        ),
        (
            b'{"teapot": 1, "kind": "sheet", "conventions": {"angle": "x"}, "lines": []}',
            "angle cannot be x",
        ),
        (b'{"teapot": 1, "kind": "sheet", "form": "loud", "lines": []}', "the form loud"),
        (b"# t\n#: {nothing\n1", "at row 2 is no JSON"),
        (b"\xff\xfe1\x00", "not in UTF-8"),
        (b"1\x002", "it holds no text"),
        (b"[" * 100_000 + b"{", "JSON"),
        (b"1\n" * 20_001, "more than 20,000 lines"),
    ],
)
def test_what_is_no_sheet_is_refused_with_the_place_and_the_reason(data, said):
    if data.startswith(b"["):
        data = b'{"a": ' + data
    with pytest.raises(NotASheet) as error:
        bringing.document_in(data, "x.json")
    assert said in error.value.text


def visitor():
    client = Client()
    client.sheet = client.get("/").headers["Location"]
    client.post(f"{client.sheet}/title")
    return client


def bring(client, data, name="kettles.txt", **fields):
    file = SimpleUploadedFile(name, data)
    return client.post("/shelf/bring-in", {"file": file, **fields})


def test_lines_that_cannot_be_answered_are_named_and_come_in_as_notes_on_request():
    client = visitor()
    data = b"a = 2\nb = a + nothing\nc = a*3\n"
    reply = bring(client, data)
    assert reply.status_code == 400
    shown = reply.content.decode()
    assert "line 2" in shown
    assert "No quantity is named nothing" in shown
    assert Sheet.objects.count() == 1
    reply = client.post("/sheets/bring-in", {"held": data.decode(), "name": "kettles.txt"})
    sheet = Sheet.objects.get(title="kettles")
    assert reply.headers["Location"] == f"/sheets/{sheet.pk}"
    assert [line.text for line in sheet.lines.order_by("place")] == [
        "a = 2", "# b = a + nothing", "c = a*3",
    ]  # fmt: skip
    page = client.get(f"/sheets/{sheet.pk}").content.decode()
    assert 'data-text="6"' in page


@pytest.mark.parametrize("ending", FORMATS)
def test_every_format_is_saved_from_the_page(ending):
    client = visitor()
    client.post(f"{client.sheet}/lines", {"text": "2 + 3", "token": uuid.uuid4(), "since": 0})
    reply = client.get(f"{client.sheet}/sheet.{ending}?workings=1")
    assert reply.status_code == 200
    assert f".{ending}" in reply.headers["Content-Disposition"]
    some = client.get(f"{client.sheet}/sheet.{ending}?numbers=1&numbers=7")
    assert some.status_code == 200
    assert visitor().get(f"{client.sheet}/sheet.{ending}").status_code == 404


def test_the_page_to_print_has_its_own_policy():
    client = visitor()
    reply = client.get(f"{client.sheet}/print?paper=letter&who=Me")
    assert "'sha256-" in reply.headers["Content-Security-Policy"]
    assert "unsafe" not in reply.headers["Content-Security-Policy"]
    assert "size: letter" in reply.content.decode()
    assert client.get(f"{client.sheet}/print?paper=wall").status_code == 404


def test_a_line_keeps_when_it_was_kept():
    sheet = made(("today()",))
    Line.objects.update(kept="2026-03-01T10:00:00Z", draws=[["2026-03-01"]])
    back = through(sheet, "json")
    assert back.lines.get().kept.isoformat().startswith("2026-03-01T10:00")
