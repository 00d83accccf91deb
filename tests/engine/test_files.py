"""Files of data: what they are taken for, what does not fit, and what is refused."""

import csv
import fractions
import io
from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.errors import LineError
from teapot.engine.files import dialect
from teapot.engine.files.cells import TextColumn, number_from, values_of
from teapot.engine.files.layout import TOTALS
from teapot.engine.files.preview import Guess, name_and_unit, preview_of
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.numbers.measure_array import MeasureArray
from teapot.engine.numbers.operators import operate
from teapot.engine.numbers.sizes import measure_of
from teapot.engine.numbers.tables import by_name
from teapot.engine.numbers.values import Exact, List, exact, is_missing
from teapot.engine.reading.units import unit_of
from tests.engine.answers import TABLES
from tests.examples import tried_on


def columns_of(data, guess=None):
    if isinstance(data, str):
        data = data.encode()
    return {
        name: [str(one.coefficient) if isinstance(one, Exact) else one for one in column.items]
        for name, column in by_name(preview_of(data, guess).table).items()
    }


@pytest.mark.parametrize(
    ("text", "separator", "point"),
    [
        ("a,b\n1.5,2\n2.5,3\n", ",", "."),
        ("a;b\n1,5;2\n2,5;3\n", ";", ","),
        ("a\tb\n1.5\t2\n", "\t", "."),
        ("a\tb\n1,5\t2,25\n", "\t", ","),
        ("a|b\n1|2\n", "|", "."),
        ('a,b\n"x, y",2\n"z, w",3\n', ",", "."),
    ],
)
def test_separator_and_point_are_guessed(text, separator, point):
    guess = preview_of(text.encode()).guess
    assert (guess.separator, guess.point, guess.has_head) == (separator, point, True)


def test_kinds_units_and_missing_marks():
    found = preview_of(
        "time [s],temp (°C),pot,day,good,n\n"
        "0.5,20.25,A,2026-11-26,yes,1\n"
        "1,NA,B,2026-11-27,no,2\n"
        "1.5,,A,,yes,3\n".encode()
    )
    told = [(one.name, one.unit, one.kind) for one in found.guess.columns]
    assert told == [
        ("time", "s", "number"), ("temp", "°C", "number"), ("pot", "", "text"),
        ("day", "", "date"), ("good", "", "truth"), ("n", "", "whole number"),
    ]  # fmt: skip
    assert found.missing == (0, 2, 0, 1, 0, 0)
    assert found.misfits == ()
    columns = by_name(found.table)
    assert [is_missing(one) for one in columns["temp"].items] == [False, True, True]


def test_a_guess_can_be_changed():
    text = b"1;2\n3;4\n"
    assert list(columns_of(text)) == ["column_1", "column_2"]
    headed = columns_of(text, Guess(";", ".", has_head=True))
    assert headed == {"1": ["3"], "2": ["4"]}
    whole = columns_of(text, Guess(",", ".", has_head=False))
    assert whole == {"column_1": ["1;2", "3;4"]}


def test_cells_that_do_not_fit_are_pointed_out():
    rows = "".join(f"{n}.5,x\n" for n in range(30)) + "warm,x\n"
    found = preview_of(f"temp,pot\n{rows}".encode())
    [misfit] = found.misfits
    assert (misfit.row, misfit.column, misfit.text) == (31, "temp", "warm")
    assert is_missing(found.table.columns[0].items[30])


def test_ragged_rows_are_filled_and_told():
    found = preview_of(b"a,b,c\n1,2,3\n4,5\n6,7,8\n")
    assert found.ragged == (2,)
    assert is_missing(found.table.columns[2].items[1])


def test_two_columns_of_one_name_and_a_head_that_is_a_formula():
    found = preview_of(b'temp,temp,"=1+1","<b>x</b>","f ""q""",\n1,2,3,4,5,6\n')
    names = [one.name for one in found.guess.columns]
    assert names == ["temp", "temp_2", "=1+1", "<b>x</b>", "f_q", "column_6"]


@pytest.mark.parametrize(
    ("head", "expected"),
    [
        ("temp [°C]", ("temp", "°C")),
        ("power (W)", ("power", "W")),
        ("temp at top", ("temp_at_top", "")),
        ("", ("", "")),
        ("[x]", ("[x]", "")),
        ("a-b", ("a-b", "")),
        ("temp (C)", ("temp", "°C")),
        ("T [F]", ("T", "°F")),
        ("T_1 (degC)", ("T_1", "°C")),
        ("charge (C)", ("charge", "C")),
        ("time(s)", ("time", "s")),
        ("cup(s)", ("cup", "")),
        ("depth (s)", ("depth", "s")),
        ("time (sec)", ("time", "s")),
    ],
)
def test_name_and_unit_of_a_head(head, expected):
    assert name_and_unit(head) == expected


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "it is empty"),
        (b"  \n \n", "it is empty"),
        (b"\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR", "it holds no text"),
        (b"a,b\n1,\x002\n", "it holds no text"),
        (b'a,b\n1,"2\n' + b"3,4\n" * 10, "a quotation mark is never closed"),
        (b'a,b\n1,"2\n' + b"3,4\n" * 10_000, "a quotation mark is never closed"),
        (b",".join(b"x" for _ in range(10_000)) + b"\n", "more than 500 columns"),
        (b"1\n" * 250_000, "more than 200,000 rows"),
        (b"x" * 20_000, "longer than 10,000 characters"),
    ],
)
def test_what_is_no_file_of_data_is_refused_with_a_sentence(data, said):
    with pytest.raises(LineError) as error:
        preview_of(data)
    assert said in error.value.text


def test_a_file_that_is_too_large_is_refused_before_it_is_read(monkeypatch):
    monkeypatch.setattr(dialect, "MAX_BYTES", 1024**2)
    with pytest.raises(LineError) as error:
        preview_of(b"1,2\n" * 300_000)
    assert "more than 1 megabytes" in error.value.text


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_a_file_is_read_in_the_encoding_that_it_is_in(encoding):
    text = "pot,größe [°C]\n" + "".join(f"Käse,{n}.5\n" for n in range(40))
    found = preview_of(text.encode(encoding))
    assert [one.name for one in found.guess.columns] == ["pot", "größe"]
    assert by_name(found.table)["pot"].items[0] == "Käse"


@pytest.mark.parametrize(
    ("text", "encoding"),
    [
        ("grösse,x\n1,2\n", "cp1252"),
        ("temp °C,µ\n1,2\n", "cp1252"),
        ("Čaj;Šálek\nžluťoučký;1\n", "cp1250"),
        ("чай;температура\nзелёный чай;80\nчёрный чай;96\n" * 5, "cp1251"),
    ],
)
def test_an_encoding_is_guessed_or_given(text, encoding):
    found = preview_of(text.encode(encoding))
    assert found.guess.encoding == encoding
    given = replace(found.guess, encoding="cp850", columns=())
    assert preview_of(text.encode(encoding), given).guess.encoding == "cp850"


def test_a_sign_that_ends_lines_elsewhere_stays_in_its_cell():
    found = preview_of("x,note\n1,a\u2028b\n2,c\x0bd\n".encode())
    assert found.rows == 2


def test_too_many_cells_are_refused(monkeypatch):
    monkeypatch.setattr(dialect, "MAX_CELLS", 100)
    for data in (b"1,2\n" * 51, b"1,2\n" * 500):
        with pytest.raises(LineError) as error:
            preview_of(data)
        assert "more than 100 cells" in error.value.text


def test_a_number_with_very_many_figures_is_kept_exact_or_is_no_number():
    assert number_from("1" * 900, ".") == int("1" * 900)
    assert number_from("1" * 2000, ".") is None
    assert number_from("1e9999", ".") is None
    assert number_from("1e999999999", ".") is None


@given(st.decimals(allow_nan=False, allow_infinity=False, min_value=-(10**12), max_value=10**12))
def test_numbers_are_exact(number):
    assert Fraction(str(number_from(str(number), "."))) == Fraction(number)
    with_comma = str(number).replace(".", ",")
    assert Fraction(str(number_from(with_comma, ","))) == Fraction(number)


CELLS = st.text(st.characters(blacklist_categories=("Cs", "Cc")), min_size=1, max_size=12).filter(
    lambda cell: cell.strip(" :").lower() not in TOTALS  # which is no row of its table
)


@given(st.lists(st.tuples(CELLS, st.integers(0, 10**6)), min_size=3, max_size=20))
def test_what_was_saved_is_read_back(rows):
    """RFC 4180, as Python's csv module writes it."""
    file = io.StringIO()
    csv.writer(file).writerows([("word", "n"), *rows])
    columns = by_name(preview_of(file.getvalue().encode()).table)
    assert [int(one.coefficient) for one in columns["n"].items] == [n for _, n in rows]


def test_the_names_above_a_sum_are_found():
    columns = by_name(preview_of(b"word,n\nSTDEV,7\n0,10\n0,20\n").table)
    assert [int(one.coefficient) for one in columns["n"].items] == [7, 10, 20]


NUMBERS = st.one_of(
    st.decimals(allow_nan=False, allow_infinity=False, places=2, max_value=10**6, min_value=-9),
    st.integers(-(10**20), 10**20),
    st.sampled_from(["", "n/a", " 1.5 ", "+3", "−4", "1e-3", ".5", "7.", "word", "1\n2"]),
)


@given(
    st.lists(NUMBERS.map(str), min_size=1, max_size=30), st.sampled_from(["number", "whole number"])
)
def test_a_column_is_read_at_once_as_it_is_cell_by_cell(cells, kind):
    values, misfits = values_of(TextColumn(cells), kind, ".")
    for at, cell in enumerate(cells):
        [[alone], unfit] = values_of(
            TextColumn([f"{cell}\n"]), kind, "."
        )  # a row more: not read at once
        assert values[at] == alone
        assert bool(unfit) == (at in misfits)


# -- on the shelf ---------------------------------------------------------------------------


@pytest.mark.slow
def test_the_sum_of_a_hundred_thousand_decimals_is_exact(tmp_path):
    cells = [f"{(7 * n * n) % 100_003}.{n % 1000:03d}" for n in range(100_000)]
    file = tmp_path / "long.csv"
    file.write_text("x\n" + "\n".join(cells) + "\n")
    sheet = FullSheet()
    sheet.shelf = shelf_of({"long": "1"}, {"1": File(str(file))})
    [found] = sheet.answer('sum(shelf("long").x) as exact').answers
    assert Fraction(found.text) == sum(map(fractions.Fraction, cells))


COLUMNS = """time [min],temp (°C),mass [g],cups [n],note [kg],dir [deg]
0,96.0,1.5,3,a,30
10,80.5,,4,b,45
20,62,2.5,5,c,90
"""


def with_columns(tmp_path, text=COLUMNS):
    file = tmp_path / "columns.csv"
    file.write_text(text)
    sheet = FullSheet()
    sheet.shelf = shelf_of({"t": "1"}, {"1": File(str(file))})
    sheet.answer('t = shelf("t");')
    return sheet


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("t.time", "= [0 min, 10 min, 20 min]"),
        ("mean(t.temp)", "= 79.5 °C"),
        ("t.temp as K", "= [369.15 K, 353.65 K, 335.15 K]"),
        ("t.temp - 18.5 °C", "= [77.5 K, 62 K, 43.5 K]"),
        ("slope(t.time, t.temp)", "= -1.7 K/min"),
        ("intercept(t.time, t.temp)", "= 96.5 °C"),
        ("sum(t.mass)", "= 4 g"),
        ("t.mass*9.81 m/s^2 as mN", "= [14.715 mN, undefined, 24.525 mN]"),
        ("sort(t.mass)", "= [1.5 g, 2.5 g, undefined]"),
        ("count(where(t, temp > 70 °C))", "= 2"),
        ("count(where(t, mass < 2 g))", "= 1"),
        ("where(t, temp == 62 °C).time", "= [20 min]"),
        ("t.cups", "= [3, 4, 5]"),  # n is no unit
        ("t.note", '= ["a", "b", "c"]'),  # and this is no number
        ("sin(t.dir)", "≈ [0.5, 0.7071067812, 1]"),
        ("columns(t)", '= ["time", "temp", "mass", "cups", "note", "dir"]'),
        ("mode(t.temp)", "= [62 °C, 80.5 °C, 96 °C]"),
        ("cumulative(t.time)", "= [0 min, 10 min, 30 min]"),
    ],
)
def test_a_column_has_the_unit_of_its_head(tmp_path, line, expected):
    [found] = with_columns(tmp_path).answer(line).answers
    assert f"{found.sign} {found.text}" == expected


WRITTEN = """d [g/cm3],f [1/s],area (sq km),v (miles per hour),share [%],area in km2,folk per sq km
2,2,2,2,2,2,2
3,4,5,6,8,8,9
"""


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("t.d", "= [2 g/cm^3, 3 g/cm^3]"),
        ("t.f[2]*3 s", "= 12"),
        ("max(t.area)", "= 5 km^2"),
        ("t.v as km/h", "= [3.218688 km/h, 9.656064 km/h]"),
        ("mean(t.share)", "= 5 %"),
        ("t.share*200 g", "= [4 g, 16 g]"),
        ("t.share^2", "= [0.0004, 0.0064]"),
        ("1 - t.share", "= [0.98, 0.92]"),
        ("count(where(t, share > 5%))", "= 1"),
        ("t.area_2[1]", "= 2 km^2"),
        ("t.folk_per_sq_km", "= [2, 9]"),
    ],
)
def test_units_of_heads_are_read_as_people_write_them(tmp_path, line, expected):
    [found] = with_columns(tmp_path, WRITTEN).answer(line).answers
    assert f"{found.sign} {found.text}" == expected


def test_a_percentage_compared_with_a_plain_number_is_pointed_out(tmp_path):
    outcome = with_columns(tmp_path, WRITTEN).answer("t.share[2] > 5")
    assert [one.code for one in outcome.notices] == ["percent-beside-number"]
    assert not with_columns(tmp_path, WRITTEN).answer("t.share[2] > 0.05").notices


def test_a_new_column_has_its_unit_above_it(tmp_path):
    sheet = with_columns(tmp_path)
    [found] = sheet.answer("widen(t, heat = mass*4186 J/(kg K)*(temp - 18 °C))").answers
    assert found.text.splitlines()[0].endswith("heat [J]")
    assert found.cells()[1][-1] == "489.762"
    outcome = sheet.answer("widen(t, rise = temp - 18)")
    assert outcome.error.text == (
        "temp is a temperature (°C), and 18 has no unit: they cannot be subtracted."
    )


UNITS = st.sampled_from(["m", "km", "s", "min", "°C", "K", "kg", "m/s", "°F"])
NUMBERS = st.lists(st.integers(-50, 50), min_size=3, max_size=3)


@tried_on(600)
@given(
    st.sampled_from(["+", "-", "*", "/", "^"]),
    NUMBERS,
    UNITS,
    st.tuples(NUMBERS, UNITS) | st.tuples(st.integers(-3, 3), UNITS | st.none()),
    st.booleans(),
)
def test_what_is_done_with_many_measures_is_done_with_each(op, numbers, unit, other, turned):
    """The same as one by one, or the same error."""
    many = MeasureArray(tuple(map(exact, numbers)), unit_of(unit))
    count, of = other
    if isinstance(count, list):
        side = MeasureArray(tuple(map(exact, count)), unit_of(of))
        pair = List(many), List(side)
        apart = List(tuple(many)), List(tuple(side))
    else:
        value = exact(count) if of is None else measure_of(exact(count), unit_of(of))
        pair, apart = (List(many), value), (List(tuple(many)), value)
    if turned:
        pair, apart = pair[::-1], apart[::-1]
    found: list[list[object]] = []
    for sides in (pair, apart):
        try:
            found.append([*operate(op, *sides).items])
        except LineError as error:
            found.append([type(error)])
    assert found[0] == found[1]


def test_a_line_that_was_kept_before_there_were_units_goes_on(tmp_path):
    sheet = with_columns(tmp_path)
    before = sheet.put(9, 'old = shelf("t")', 9, draws=[["table:1"]])
    assert sheet.outcome_of(before).status == "ok"
    assert sheet.answer("mean(old.temp)").answers[0].text == "79.5"
    assert sheet.answer("count(where(old, temp > 70))").answers[0].text == "2"
    assert sheet.answer("mean(t.temp)").answers[0].text == "79.5 °C"


def test_a_line_keeps_its_version_and_says_when_it_was_replaced(tmp_path):
    for version, value in (("1", 5), ("2", 6)):
        (tmp_path / f"{version}.csv").write_text(f"x\n{value}\n{value}\n")
    files = {version: File(str(tmp_path / f"{version}.csv")) for version in ("1", "2")}
    sheet = FullSheet()
    sheet.shelf = shelf_of({"pots": "1"}, files)
    sheet.answer('p = shelf("pots")')
    sheet.answer("mean(p.x)")
    draws = sheet.lines[0].steps[0].draws.values
    assert draws == ["table:1#units"]
    after = FullSheet()
    after.shelf = shelf_of({"pots": "2"}, files, {"1": "on 26 November at 14:05"})
    line = after.put(1, 'p = shelf("pots")', 1, draws=[draws])
    assert after.outcome_of(line).answers[0].cells()[1] == ["5"]
    assert after.dependence().reason(line.steps[0]) == (
        "used a table that was replaced on 26 November at 14:05"
    )
    [fresh] = after.answer('shelf("pots").x').answers
    assert fresh.text == "[6, 6]"


def test_a_table_that_is_not_there_is_said():
    sheet = FullSheet()
    assert "There is no table tea on your shelf." in sheet.answer('shelf("tea")').error.text
    sheet.shelf = shelf_of({"pots": "1"}, {"1": File("/nowhere/pots.csv")})
    assert "Yours: pots." in sheet.answer('shelf("tea")').error.text
    assert "cannot be read" in sheet.answer('shelf("pots")').error.text
    assert sheet.answer("shelf(3)").status == "error"


def test_the_tables_of_the_demo_are_read_as_they_are_meant():
    told = {}
    for file in TABLES.glob("*.csv"):
        found = preview_of(file.read_bytes())
        assert found.misfits == ()
        assert found.ragged == ()
        told[file.stem] = [(one.name, one.unit, one.kind) for one in found.guess.columns]
    assert told["cooling pots"] == [
        ("time", "min", "whole number"), ("pot", "", "text"), ("temp", "°C", "number"),
    ]  # fmt: skip
    assert told["kettle power"] == [("time", "s", "number"), ("power", "W", "number")]
    assert len(told["brewed cups"]) == 6


MEASURED_COLUMNS = b"""day,L [mm],w,a [\xc2\xb0]
2024-03-01,5.32\xc2\xb10.04,1.00794(7),30
2024-03-02,5.40+/-0.04,1.00812(7),45
2024-03-03,5.32\xc2\xb10.04,1.00794(7),60
"""


def test_columns_of_measured_values(tmp_path):
    """Each cell is an input of its own; a column in degrees is one of angles."""
    found = preview_of(MEASURED_COLUMNS)
    kinds = [column.kind for column in found.guess.columns]
    assert kinds == ["date", "measured value", "measured value", "whole number"]
    sheet = FullSheet()
    file = tmp_path / "m.csv"
    file.write_bytes(MEASURED_COLUMNS)
    sheet.shelf = shelf_of({"m": "1"}, {"1": File(str(file))})
    shown = {
        'sheet = shelf("m"); mean(sheet.L)': "(5.347 ± 0.023) mm",
        "sheet.L[1] - sheet.L[3]": "(0.000 ± 0.057) mm",
        "sheet.L[1] - sheet.L[1]": "0 mm",
        "sheet.w[1] as concise": "1.007940(70)",
        "sin(sheet.a[1])": "0.5",
        "sheet.day[3] - sheet.day[1]": "2 d",
    }
    for line, text in shown.items():
        assert sheet.answer(line).answers[-1].text == text, line
