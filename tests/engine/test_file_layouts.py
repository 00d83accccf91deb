"""Files as instruments and offices write them: the table in them is found by itself.

The texts are made up, in the ways of loggers, oscilloscopes, balances, spectrometers and
spreadsheets (common practice of the trade).
"""

import gzip
import io
import zipfile
from pathlib import Path
from xml.sax.saxutils import escape

import pytest

from teapot.engine import LineError
from teapot.engine.files.moments import moment_from, seconds_from
from teapot.engine.files.preview import Guess, name_and_unit, preview_of
from teapot.fence.file_jobs import _cells

FILES = {
    "a logger": (
        "Data logger TL-3\nSerial: 004711\nStarted 12.03.2024 08:15\nInterval: 10 s\n\n"
        "No.;Time;T1 [°C];T2 [°C]\n1;00:00:00;21,5;22,1\n2;00:00:10;21,6;22,0\n"
        "3;00:00:20;21,9;22,3\n",
        "No. | Time [s] | T1 [°C] | T2 [°C]",
        "1 | 0 | 21.5 | 22.1",
        3,
    ),
    "an oscilloscope, with a row of units": (
        "Record Length,2500\nSample Interval,4.0E-6\nSource,CH1\nTime,Volts\ns,V\n"
        "-0.0050,0.02\n-0.0049,0.04\n-0.0048,0.01\n-0.0047,-0.02\n",
        "Time [s] | Volts [V]",
        "-0.005 | 0.02",
        4,
    ),
    "a balance, spaces between": (
        "#Balance model 220\n#operator: AK\ndate time weight status\n"
        "2024-03-01 10:00:01 12.3456 S\n2024-03-01 10:00:06 12.3459 S\n",
        "date | time [s] | weight | status",
        "2024-03-01 | 36001 | 12.3456 | S",
        2,
    ),
    "a spectrometer": (
        "##TITLE= tea\n##XUNITS= nm\nWavelength (nm)\tAbsorbance\n400.0\t0.123\n400.5\t0.127\n",
        "Wavelength [nm] | Absorbance",
        "400 | 0.123",
        2,
    ),
    "a remark that names the columns": (
        "# made with care\n# x y\n0.0 1.25\n0.1 1.30\n0.2 1.35\n", "x | y", "0 | 1.25", 3,
    ),
    "sums and a source below": (
        'Item,Price,Amount\nGreen,"1,234.50",3\nBlack,"2,100.00",4\nTotal,"3,334.50",7\n'
        "Source: made up\n",
        "Item | Price | Amount",
        "Green | 1234.5 | 3",
        2,
    ),
    "commas before decimals, units in the cells": (
        "Messung vom 3.4.2024\nZeit [s];Spannung [mV];Leistung\n0;1.234,5;12 W\n1;1.240,7;13 W\n",
        "Zeit [s] | Spannung [mV] | Leistung [W]",
        "0 | 1234.5 | 12",
        2,
    ),
    "percents": ("sample,yield\na,12.5%\nb,13.0%\n", "sample | yield [%]", "a | 12.5", 2),
    "uncertainties": (
        "element,mass\nH,1.00794(7)\nNa,22.98976928(2)\n",
        "element | mass",
        "H | 1.007940 ± 0.000070",
        2,
    ),
    "zeros before figures": ("code,n\n007,3\n012,4\n", "code | n", "007 | 3", 2),
    "years after other names, with gaps below": (
        "Country,Code,Series,1990,1991,1992\nAssam,AS,tea,4.82,,4.47\nCeylon,CE,tea,,7.5,7.25\n",
        "Country | Code | Series | 1990 | 1991 | 1992",
        "Assam | AS | tea | 4.82 |  | 4.47",
        2,
    ),
    "years as names": (
        "country,1990,1991\nA,3.4,3.5\nB,2.1,2.2\n", "country | 1990 | 1991", "A | 3.4 | 3.5", 2,
    ),
    "columns of spaces": (
        "     x        y\n   0.000    1.250\n   0.100    1.300\n", "x | y", "0 | 1.25", 2,
    ),
    "dates with the month first": (
        "Date,Temp (F)\n3/14/2024 1:05:00 PM,71.2\n3/4/2024 1:10 AM,71.4\n",
        "Date | Temp [°F]",
        "2024-03-14 13:05:00 | 71.2",
        2,
    ),
    "apostrophes between thousands": (
        "Posten;Wert\na;1'234.5\nb;12'345.0\n", "Posten | Wert", "a | 1234.5", 2,
    ),
    "spaces between thousands": ("name;n\nx;1 234,5\ny;12 001,0\n", "name | n", "x | 1234.5", 2),
    "pairs above a table of two columns": (
        "Device;K-12\nSerial;4711\n\ntime;temp\n0;96.0\n1;91.25\n", "time | temp", "0 | 96", 2,
    ),
    "no names": ("1,2\n4,5\n7,8\n", "column_1 | column_2", "1 | 2", 3),
}  # fmt: skip


WRITTEN = {
    block.partition("\n")[0]: block.partition("\n")[2].strip("\n").split("\n=> ")
    for block in Path(__file__).with_name("instrument_files.txt").read_text().split("== ")[1:]
}
"""Files as instruments and offices write them, each with its heads, its first row and how many
rows it has; written down before they were read."""


def heads(found):
    return " | ".join(
        f"{one.name} [{one.unit}]" if one.unit else one.name for one in found.guess.columns
    )


@pytest.mark.parametrize("kind", FILES)
def test_the_table_is_found(kind):
    text, named, first, rows = FILES[kind]
    found = preview_of(text.encode())
    assert heads(found) == named
    assert " | ".join(_cells(found.table, range(1))[0]) == first
    assert found.rows == rows
    assert found.misfits == ()


@pytest.mark.parametrize("kind", WRITTEN)
def test_a_file_of_an_instrument_is_read_at_once(kind):
    text, named, first, rows = WRITTEN[kind]
    found = preview_of(f"{text}\n".encode())
    assert heads(found) == named.strip()
    assert " | ".join(_cells(found.table, range(1))[0]).strip() == first.strip()
    assert found.rows == int(rows)
    again = preview_of(f"{text}\n".encode(), found.guess)
    assert again.guess == found.guess


@pytest.mark.parametrize(
    ("head", "name", "unit"),
    [
        ("m/s", "m/s", ""),  # a unit, and no mass over a second
        ("t/s", "t", "s"),
        ("V / mL", "V", "mL"),
        ("v/(m/s)", "v", "m/s"),
        ("dE/dV", "dE/dV", ""),
        ("cycles/h of use", "cycles/h of use", ""),
        ("made in china", "made_in_china", ""),
        ("Time in ms", "Time", "ms"),
        ("minutes in", "minutes_in", ""),
        ("T min", "T_min", ""),
        ("Load kN", "Load", "kN"),
        ("U, mV", "U", "mV"),
        ("and/or", "and/or", ""),
    ],
)
def test_a_head_names_a_unit_as_a_textbook_does(head, name, unit):
    """ISO 80000-1, 7.1.4: a quantity over its unit; the others are common practice."""
    assert name_and_unit(head) == (name, unit)


def test_parts_of_a_second_are_kept():
    found = preview_of(b"t,v\n2024-03-01 10:00:00.123,1\n2024-03-01 10:00:00.5,2\n")
    assert _cells(found.table, range(2)) == [
        ["2024-03-01 10:00:00.123", "1"], ["2024-03-01 10:00:00.5", "2"]
    ]  # fmt: skip


@pytest.mark.parametrize("kind", FILES)
def test_what_was_guessed_reads_the_file_the_same(kind):
    data = FILES[kind][0].encode()
    found = preview_of(data)
    again = preview_of(data, found.guess)
    assert again.guess == found.guess
    rows = range(found.rows)
    assert _cells(again.table, rows) == _cells(found.table, rows)


def test_what_is_above_and_below_stays_with_the_table():
    found = preview_of(FILES["a logger"][0].encode())
    assert found.above[0] == (1, "Data logger TL-3")
    assert [number for number, _ in found.above] == [1, 2, 3, 4]
    below = preview_of(FILES["sums and a source below"][0].encode()).below
    assert below == ('Total,"3,334.50",7', "Source: made up")


def test_where_it_begins_and_ends_can_be_said():
    data = b"a,b\n1,2\n3,4\n5,6\n"
    found = preview_of(data, Guess(",", ".", has_head=False, above=1, below=1))
    assert _cells(found.table, range(2)) == [["1", "2"], ["3", "4"]]


def test_sodium_is_no_missing_value():
    found = preview_of(b"element,n\nNa,1\nNA,2\nK,3\n")
    assert _cells(found.table, range(3)) == [["Na", "1"], ["", "2"], ["K", "3"]]


def test_the_kind_of_a_column_is_that_of_all_its_rows():
    rows = "".join(f"{n}\n" for n in range(1500)) + "0.5\n"
    found = preview_of(f"n\n{rows}".encode())
    assert found.guess.columns[0].kind == "number"
    assert not found.misfits


@pytest.mark.parametrize("encoding", ["utf-16-le", "utf-16-be"])
def test_wide_texts_need_no_mark(encoding):
    found = preview_of("time,v [µV]\n0,1.5\n1,1.7\n".encode(encoding))
    assert found.guess.encoding == encoding
    assert heads(found) == "time | v [µV]"


@pytest.mark.parametrize(
    ("typed", "shown"),
    [
        ("2024-03-01", "2024-03-01 00:00:00"), ("01.03.2024", "2024-03-01 00:00:00"),
        ("1/3/24 14:05", "2024-03-01 14:05:00"), ("1 Mar 2024", "2024-03-01 00:00:00"),
        ("March 1, 2024", "2024-03-01 00:00:00"), ("2024/3/1 9:05:07", "2024-03-01 09:05:07"),
        ("2024-03-01T09:05:07Z", "2024-03-01 09:05:07"), ("1-Mar-2024", "2024-03-01 00:00:00"),
        ("31.2.2024", "None"), ("1.5", "None"), ("12 Foo 2024", "None"),
    ],
)  # fmt: skip
def test_dates(typed, shown):
    found = moment_from(typed)
    assert str(found and found[0]) == shown


def test_a_date_of_two_readings_is_told():
    assert preview_of(b"day,n\n3/4/2024,1\n5/6/2024,2\n").has_two_dates
    assert not preview_of(b"day,n\n3.4.2024,1\n25/6/2024,2\n").has_two_dates


def test_clock_times_are_seconds():
    assert str(seconds_from("1:02:03.25")) == "14893/4"
    assert str(seconds_from("12:30 AM")) == "1800"
    assert seconds_from("1:75") is None


def workbook(sheets):
    """An .xlsx with inline texts and numbers (ISO/IEC 29500), as small as it can be."""
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as packed:
        kinds = "".join(
            f'<Override PartName="/xl/worksheets/sheet{n}.xml" ContentType="application/vnd.'
            'openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>'
            for n in range(1, len(sheets) + 1)
        )
        of_types = "http://schemas.openxmlformats.org/package/2006/content-types"
        packed.writestr(
            "[Content_Types].xml",
            (
                f'<Types xmlns="{of_types}"><Default Extension="rels" ContentType="application/vnd.'
                'openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" '
                'ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main'
                f'+xml"/>{kinds}</Types>'
            ),
        )
        relations = "http://schemas.openxmlformats.org/package/2006/relationships"
        office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
        packed.writestr(
            "_rels/.rels",
            (
                f'<Relationships xmlns="{relations}"><Relationship Id="r1" Type="{office}'
                '/officeDocument" Target="xl/workbook.xml"/></Relationships>'
            ),
        )
        main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main"
        listed = "".join(
            f'<sheet name="{escape(name)}" sheetId="{n}" r:id="r{n}"/>'
            for n, name in enumerate(sheets, 1)
        )
        packed.writestr(
            "xl/workbook.xml",
            (f'<workbook xmlns="{main}" xmlns:r="{office}"><sheets>{listed}</sheets></workbook>'),
        )
        packed.writestr(
            "xl/_rels/workbook.xml.rels",
            (
                f'<Relationships xmlns="{relations}">'
                + "".join(
                    f'<Relationship Id="r{n}" Type="{office}/worksheet" '
                    f'Target="worksheets/sheet{n}.xml"/>'
                    for n in range(1, len(sheets) + 1)
                )
                + "</Relationships>"
            ),
        )
        for n, rows in enumerate(sheets.values(), 1):
            cells = "".join(
                "<row>"
                + "".join(
                    f"<c><v>{cell}</v></c>"
                    if isinstance(cell, int | float)
                    else f'<c t="inlineStr"><is><t>{escape(cell)}</t></is></c>'
                    for cell in row
                )
                + "</row>"
                for row in rows
            )
            packed.writestr(
                f"xl/worksheets/sheet{n}.xml",
                (f'<worksheet xmlns="{main}"><sheetData>{cells}</sheetData></worksheet>'),
            )
    return made.getvalue()  # fmt: skip


def test_a_sheet_of_a_workbook_is_a_table():
    book = workbook({
        "notes": [["made up"]],
        "pots": [["cooled in March"], ["time [s]", "temp [°C]"], [0, 96.5], [60, 91.25], [120, 88]],
    })  # fmt: skip
    assert preview_of(book, Guess(",", ".", has_head=False, sheet="notes")).sheets == (
        "notes",
        "pots",
    )
    found = preview_of(book, Guess(",", ".", has_head=True, sheet="pots", above=-1))
    assert heads(found) == "time [s] | temp [°C]"
    assert _cells(found.table, range(2)) == [["0", "96.5"], ["60", "91.25"]]


def test_a_zip_that_is_no_workbook_is_refused():
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as packed:
        packed.writestr("a.txt", "tea")
    with pytest.raises(LineError, match="neither text nor a spreadsheet"):
        preview_of(made.getvalue())


OF_DOCUMENT = "urn:oasis:names:tc:opendocument:xmlns"


def test_a_sheet_of_an_open_document_is_a_table():
    """OpenDocument 1.3 (ISO/IEC 26300), as small as it can be."""

    def cell(value):
        kind = "string" if isinstance(value, str) else "float"
        number = "" if isinstance(value, str) else f' office:value="{value}"'
        return (
            f'<table:table-cell office:value-type="{kind}"{number}>'
            f"<text:p>{value}</text:p></table:table-cell>"
        )

    rows = [["time [s]", "temp [°C]"], [0, 96.5], [60, 91.25]]
    cells = "".join(f"<table:table-row>{''.join(map(cell, row))}</table:table-row>" for row in rows)
    names = " ".join(
        f'xmlns:{name}="{OF_DOCUMENT}:{name}:1.0"' for name in ("office", "table", "text")
    )
    sheet = "application/vnd.oasis.opendocument.spreadsheet"
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w") as packed:
        packed.writestr("mimetype", sheet)
        packed.writestr(
            "META-INF/manifest.xml",
            f'<manifest:manifest xmlns:manifest="{OF_DOCUMENT}:manifest:1.0">'
            f'<manifest:file-entry manifest:full-path="/" manifest:media-type="{sheet}"/>'
            "</manifest:manifest>",
        )
        packed.writestr(
            "content.xml",
            f"<office:document-content {names}><office:body><office:spreadsheet>"
            f'<table:table table:name="pots">{cells}</table:table>'
            "</office:spreadsheet></office:body></office:document-content>",
        )
    found = preview_of(made.getvalue())
    assert heads(found) == "time [s] | temp [°C]"
    assert _cells(found.table, range(2)) == [["0", "96.5"], ["60", "91.25"]]


def test_a_packed_file_is_unpacked_and_a_damaged_one_refused(monkeypatch):
    packed = gzip.compress(b"leaf,n\ngreen,10\nblack,20\n")
    assert preview_of(packed).rows == 2
    for data in (packed[:-6], packed[:12], packed[:10] + b"tea leaves"):
        with pytest.raises(LineError, match="packed by gzip, and damaged"):
            preview_of(data)
    monkeypatch.setattr("teapot.engine.files.dialect.MAX_BYTES", 10)
    with pytest.raises(LineError, match="it has more than 0 megabytes"):
        preview_of(packed)
