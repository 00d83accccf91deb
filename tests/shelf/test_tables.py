"""Data tables over the wire: looked at, kept, used in a sheet, filtered, replaced, deleted."""

import csv
import io
import re
import uuid
from html import unescape

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from teapot.console import evaluating, services
from teapot.console.models import Sheet
from teapot.engine.out.cells import safe_cell
from teapot.tables.models import DataTable, Version

pytestmark = pytest.mark.django_db(transaction=True)

POTS = "time [min],temp [°C],pot\n0,96.0,A\n1,91.25,A\n2,,A\n0,95.5,B\n1,90.1,B\n"


@pytest.fixture
def person():
    client = Client()
    client.sheet = client.get("/").headers["Location"]
    client.post(f"{client.sheet}/title")
    return client


def bring(client, text=POTS, name="cooling pots.csv", **fields):
    data = text if isinstance(text, bytes) else text.encode()
    return client.post("/tables/new", {"file": SimpleUploadedFile(name, data), **fields})


def kept(client, text=POTS, name="cooling pots"):
    address = bring(client, text).headers["Location"].partition("?")[0]
    reply = client.post(f"{address}/keep", {"name": name})
    assert reply.status_code == 302, unescape(reply.content.decode())
    return reply.headers["Location"]


def page(client, address):
    return unescape(client.get(address).content.decode())


def test_a_file_is_looked_at_and_kept(person):
    address = bring(person).headers["Location"]
    shown = page(person, address)
    assert "5 rows, in" in shown
    assert 'value="°C"' in shown
    assert "1 missing" in shown
    reply = person.post(f"{address}/keep", {"name": "cooling pots"})
    shown = page(person, reply.headers["Location"])
    assert 'cooling_pots = shelf("cooling pots")' in shown
    assert ">4</a> measures\n    <b>1 missing</b>" in shown
    assert "5 rows" in shown


def test_a_guess_is_changed_and_the_preview_follows(person):
    address = bring(person, "a;b\n1,5;2\n2,5;3\n").headers["Location"]
    shown = page(person, f"{address}?separator=,&point=.&head=no&was_separator=;&was_head=yes")
    assert "3 rows" in shown
    assert "a;b" in shown
    fields = {
        "separator": ";", "point": ",", "head": "yes", "was_separator": ";", "was_head": "yes",
        "was_point": ",",
        "column_name": ["first", "b"], "column_unit": ["kg", ""],
        "column_kind": ["text", "number"], "name": "masses",
    }  # fmt: skip
    table = page(person, person.post(f"{address}/keep", fields).headers["Location"])
    assert 'data-column="first"' in table
    assert ">2</a> text" in table


@pytest.mark.parametrize(
    "data",
    [b"", b"\x00\x01\x02", b'a,b\n1,"2\n', b",".join([b"x"] * 10_000), b"x" * 20_000],
)
def test_what_is_no_file_of_data_is_refused_and_leaves_nothing(person, data, settings):
    before = set((settings.DATA / "tables").glob("*"))
    reply = bring(person, data)
    if reply.status_code == 302:
        reply = person.get(reply.headers["Location"])
    said = unescape(reply.content.decode())
    assert "This file cannot be read" in said
    assert not Version.objects.filter(table=None).exists()
    assert set((settings.DATA / "tables").glob("*")) == before


def test_a_file_beyond_the_limit_is_refused_before_it_is_read(person):
    reply = person.generic("POST", "/tables/new", b"", CONTENT_LENGTH=str(10**9))
    assert reply.status_code == 413
    assert b"more than 50 megabytes" in reply.content


def test_a_hostile_head_is_text(person):
    table = page(person, kept(person, '<script>x</script>,"=1+1"\n1,2\n', "strange"))
    assert "<script>x</script>" in table  # unescaped by the test: it was escaped
    raw = person.get(f"/tables/{DataTable.objects.get(name='strange').pk}").content.decode()
    assert "<script>x" not in raw


def test_marks_of_missing_values_are_changed(person):
    address = bring(person, "x\n1\n2\nbroken\n-\n" + "3\n" * 20).headers["Location"]
    assert "1 cell of another kind" in page(person, address)
    asked = "separator=,&point=.&head=yes&was_separator=,&was_head=yes&was_point=.&marks=broken"
    shown = page(person, f"{address}?{asked}")
    assert "1 cell of another kind counts" in " ".join(shown.split())
    assert "<code>-</code>" in shown
    fields = dict(pair.split("=") for pair in asked.split("&")) | {"marks": "Broken -", "name": "x"}
    kept_at = person.post(f"{address}/keep", fields).headers["Location"]
    assert ">22</a> numbers\n    <b>2 missing</b>" in page(person, kept_at)


def test_a_filter_says_how_it_reads_and_has_mends(person):
    address = kept(person)
    assert "<mo>&gt;</mo>" in person.get(f"{address}/rows?test=temp > 80 °C").content.decode()
    reply = person.get(f'{address}/rows?test=temp > 80 °C || pot == "B"')
    assert reply.headers["HX-Retarget"] == "#filter-said"
    assert 'data-mend="temp > 80 °C or pot == "B""' in unescape(reply.content.decode())
    reply = person.get(f"{address}/rows?test=temp > 80")
    assert 'data-mend="temp > 80 °C"' in unescape(reply.content.decode())


def test_rows_are_filtered_sorted_and_sent_screen_by_screen(person):
    rows = "".join(f"{n},{n % 7}\n" for n in range(200))
    address = kept(person, f"n,rest\n{rows}", "numbers")
    first = page(person, f"{address}/rows")
    assert "200 rows" in first
    assert "first=60" in first
    further = page(person, f"{address}/rows?first=60")
    assert '<th scope="row" class="row-number">61</th>' in further
    chosen = page(person, f"{address}/rows?test=rest == 3 and n > 100")
    assert "15 rows" in chosen
    down = page(person, f"{address}/rows?by=n&down=1")
    assert re.search(r'row-number">1</th>\s*<td\s+class="number">199</td>', down)
    for test, said in (
        ("nothing > 3", "No quantity is named nothing"),
        ("n >", "missing"),
        ("n", "a test that is true or false"),
        ("x = 3", "one test that uses the columns"),
        ("n > 1; n > 2", "one test that uses the columns"),
    ):
        assert said in page(person, f"{address}/rows?test={test}"), test


def test_a_table_is_saved_as_csv_and_read_back_equal(person):
    address = kept(person)
    saved = person.get(f"{address}/rows.csv").content.decode()
    assert list(csv.reader(io.StringIO(saved)))[1] == ["0", "96", "A"]
    again = kept(person, saved, "again")
    assert person.get(f"{again}/rows.csv").content.decode() == saved
    some = person.get(f"{address}/rows.csv?test=temp > 95 °C").content.decode()
    assert len(some.splitlines()) == 3
    assert person.get(f"{address}/rows.csv?test=temp >").status_code == 400


@pytest.mark.parametrize(
    ("cell", "safe"),
    [
        ("=1+1", "'=1+1"), ("@x", "'@x"), ("+cmd", "'+cmd"), ("-2.5", "-2.5"), ("tea", "tea"),
        ("-2+3", "'-2+3"), ("", ""),
    ],
)  # fmt: skip
def test_no_cell_is_taken_for_a_formula(cell, safe):
    assert safe_cell(cell) == safe


def line(sheet, text):
    kept_line = services.keep(sheet, text, uuid.uuid4())
    assert kept_line.line is not None, kept_line.refused
    return kept_line.line


def test_a_sheet_uses_a_table_and_says_when_it_was_replaced(person):
    address = kept(person)
    sheet = Sheet.objects.get(pk=person.sheet.rpartition("/")[2])
    line(sheet, 'pots = shelf("cooling pots")')
    mean = line(sheet, "mean(pots.temp)")
    assert evaluating.answer_texts(mean) == ["93.2125 °C"]
    assert "Used in" in page(person, address)
    newer = bring(person, POTS.replace("96.0", "98.0"), table=address.rpartition("/")[2])
    reply = person.post(
        newer.headers["Location"].partition("?")[0] + "/keep",
        {"table": address.rpartition("/")[2]},
    )
    assert reply.headers["Location"] == address
    sheet.refresh_from_db()
    assert evaluating.answer_texts(sheet.lines.get(number=2)) == ["93.2125 °C"]
    listing = evaluating.quantities(sheet)
    [pots] = listing.changed
    assert pots.state == "out-of-date"
    assert "used a table that was replaced on" in pots.reason
    services.compute_again(sheet, None)
    fresh = line(sheet, 'mean(shelf("cooling pots").temp)')
    assert evaluating.answer_texts(fresh) == ["93.7125 °C"]


def test_a_table_is_renamed_deleted_and_brought_back(person):
    address = kept(person)
    kept(person, POTS, "other")
    thing = address.replace("/tables/", "/shelf/table/")
    taken = person.post(f"{thing}/rename", {"value": "other"})
    assert "There is already a table named other" in unescape(taken.content.decode())
    person.post(f"{thing}/rename", {"value": "pots of tea"})
    assert "pots of tea" in page(person, "/tables/")
    sheet = Sheet.objects.get(pk=person.sheet.rpartition("/")[2])
    refused = services.keep(sheet, 'shelf("cooling pots")', uuid.uuid4()).refused
    assert refused.error.text == "The table cooling pots is called pots of tea now."
    assert [one.input for one in refused.error.mends] == ['shelf("pots of tea")']
    person.post(f"{thing}/bin")
    assert person.get(address).status_code == 404
    sheet = Sheet.objects.get(pk=person.sheet.rpartition("/")[2])
    refused = services.keep(sheet, 'shelf("pots of tea")', uuid.uuid4()).refused
    assert "The table pots of tea is in the bin" in refused.error.text
    person.post(f"{address}/bring-back")
    assert person.get(address).status_code == 200


def test_nobody_sees_the_tables_of_another(person):
    address = kept(person)
    pending = bring(person).headers["Location"]
    other = Client()
    other.post(other.get("/").headers["Location"] + "/title")
    for path in (address, f"{address}/rows", f"{address}/rows.csv", pending):
        assert other.get(path).status_code == 404, path
        assert Client().get(path).status_code == 404, path
    thing = address.replace("/tables/", "/shelf/table/")
    for path in (f"{thing}/rename", f"{thing}/bin", f"{address}/bring-back",
                 f"{pending}/keep", f"{pending}/drop"):  # fmt: skip
        assert other.post(path, {"name": "x"}).status_code == 404, path
    sheet = Sheet.objects.get(pk=other.get("/").headers["Location"].rpartition("/")[2])
    refused = services.keep(sheet, 'shelf("cooling pots")', uuid.uuid4()).refused
    assert "There is no table" in refused.error.text


def test_a_file_comes_from_a_sheet_and_goes_back_as_a_line(person):
    pk = person.sheet.rpartition("/")[2]
    address = bring(person, sheet=pk).headers["Location"]
    assert f"sheet={pk}" in address
    reply = person.post(address.partition("?")[0] + "/keep", {"name": "cooling pots", "sheet": pk})
    assert reply.headers["Location"].startswith(f"/sheets/{pk}?put=cooling_pots%20%3D%20shelf")


def test_cells_are_pasted(person):
    reply = person.post("/tables/new", {"pasted": "a\tb\n1.5\t2\n2.5\t3\n"})
    assert "separated by" in page(person, reply.headers["Location"])


def test_nothing_is_made_of_nothing(person):
    for fields in ({}, {"pasted": "  "}):
        reply = person.post("/tables/new", fields)
        assert reply.status_code == 400
        assert "Choose a file" in reply.content.decode()
    assert not Version.objects.exists()


def test_a_newer_file_of_the_same_columns_replaces_its_table_and_all_is_computed_again(person):
    kept(person)
    for text in ('mean(shelf("cooling pots").temp)', 'max(shelf("cooling pots").temp)'):
        services.keep(Sheet.objects.get(), text, uuid.uuid4())
    address = bring(person, POTS.replace("96.0", "98.0")).headers["Location"]
    assert "Replace cooling pots, which has the same columns" in page(person, address)
    table = DataTable.objects.get(owner__isnull=False)
    reply = person.post(f"{address}/keep", {"name": "pots", "table": ["", str(table.pk)]})
    assert reply.headers["Location"] == table.get_absolute_url()
    assert table.versions.count() == 2
    sheet = Sheet.objects.get()
    assert sheet.lines.count() == 2
    made = services.compute_again(sheet, None)
    assert [one.line.outcome["answers"][0]["text"] for one in made] == ["93.7125 °C", "98 °C"]


def test_what_else_is_in_the_file_stays_with_its_table(person):
    table = kept(person, "Logger 3\nserial;4711\n\nt;T [°C]\n0;96.0\n1;91.25\n", "logger")
    assert "What else is in the file" in page(person, table)
    assert "Logger 3\nserial;4711" in page(person, f"{table}/rest-of-file")


def test_a_picture_is_of_the_rows_that_the_filter_leaves(person):
    table = kept(person)
    whole = page(person, f"{table}/picture?up=temp&across=time")
    assert "4 pairs: time [min] from 0 to 1" in whole
    some = page(person, f"{table}/picture?up=temp&across=&test=temp > 91 °C")
    assert "3 pairs: row from 1 to 3" in some
    assert "nothing to draw" in page(person, f"{table}/picture?up=pot")


def test_all_rows_are_saved_with_all_their_digits(person):
    text = "x,y [mm],z\n3.14159265358979323846,12345678901.234,1e-30\n-0.10000000000000001,7,A B\n"
    table = kept(person, text, "long")
    saved = person.get(f"{table}/rows.csv").content.decode()
    assert saved.splitlines() == [
        "x,y [mm],z", "3.14159265358979323846,12345678901.234,1e-30",
        "-0.10000000000000001,7,A B",
    ]  # fmt: skip


def test_rows_are_added_to_a_table_with_the_same_columns(person):
    kept(person)
    services.keep(Sheet.objects.get(), 'count(shelf("cooling pots").temp)', uuid.uuid4())
    more = "pot;time [min];temp [°C]\nC;0;95,123456789012\nC;1;\n"
    table = DataTable.objects.get(owner__isnull=False)
    address = bring(person, more, table=str(table.pk)).headers["Location"].partition("?")[0]
    assert "Add its rows at the end" in page(person, f"{address}?table={table.pk}")
    reply = person.post(f"{address}/keep", {"append_to": str(table.pk)})
    assert reply.headers["Location"] == table.get_absolute_url(), unescape(reply.content.decode())
    saved = person.get(f"{table.get_absolute_url()}/rows.csv").content.decode().splitlines()
    assert saved == [
        "time [min],temp [°C],pot", "0,96.0,A".replace(".0", ""), "1,91.25,A", "2,,A", "0,95.5,B",
        "1,90.1,B", "0,95.123456789012,C", "1,,C",
    ]  # fmt: skip
    assert table.versions.count() == 2
    [made] = services.compute_again(Sheet.objects.get(), None)
    assert made.line.outcome["answers"][0]["text"] == "5"


def test_rows_with_other_columns_or_units_are_not_added(person):
    kept(person)
    table = DataTable.objects.get(owner__isnull=False)
    for other in ("time [s],temp [°C],pot\n0,9,A\n", "time [min],pot\n0,A\n"):
        address = bring(person, other, table=str(table.pk)).headers["Location"].partition("?")[0]
        reply = person.post(f"{address}/keep", {"append_to": str(table.pk)})
        assert "the columns and their units have to be the same" in unescape(reply.content.decode())
    assert table.versions.count() == 1
    assert bring(person).status_code == 302
