"""Tables in a sheet: their columns, rows, order and summaries, against Python's own."""

import csv
import io
import operator
import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from teapot.engine import FullSheet
from teapot.engine.aids.completion import complete
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.functions.tables import overview
from teapot.engine.numbers import tables
from teapot.engine.numbers.context import Conventions
from teapot.engine.numbers.values import MISSING, List, Table, exact
from tests.engine.answers import answer, mends, outcome

POTS = ("t = [0, 10, 20, 30]", "temp = [96, 80.5, 71.25, 62]", "pots = table(t, temp)")


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("pots.temp", "= [96, 80.5, 71.25, 62]"),
        ("pots.temp[3]", "= 71.25"),
        ("mean(pots.temp)", "= 77.4375"),
        ("pots[2].temp", "= [80.5]"),
        ("pots[2..3].temp", "= [80.5, 71.25]"),
        ("count(pots)", "= 4"),
        ("sort(pots, by=temp).t", "= [30, 20, 10, 0]"),
        ("sort(pots, by=-temp).t", "= [0, 10, 20, 30]"),
        ("where(pots, temp > 70 and t > 0).t", "= [10, 20]"),
        ("widen(pots, rise = temp - 18, half = rise/2).half", "= [39, 31.25, 26.625, 22]"),
        ("columns(widen(pots, temp = 2*temp))", '= ["t", "temp"]'),
        ('table(t, temp^2)."temp^2"', "= [9216, 6480.25, 5076.5625, 3844]"),
        ("last(pots, 2).temp", "= [71.25, 62]"),
        ("first(pots).t", "= [0]"),
        ("slope(pots.t, pots.temp)", "= -1.1125"),
        ("overview(pots).mean", "= [15, 77.4375]"),
        ("sort([8, 9, 7], by=[2, 3, 1])", "= [7, 8, 9]"),
        ("(pots).t", "= [0, 10, 20, 30]"),
    ],
)
def test_columns_and_rows(line, expected):
    assert answer(*POTS, line) == expected


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("pots.tmp", "The table has no column tmp. It has t, temp."),
        ("t.temp", "Only a table has columns, and t is a list."),
        ("pots[9]", "there is no row 9"),
        ("widen(pots)", "Say the new column"),
        ("widen(pots, a = [1, 2])", "The lists have different lengths: 4 and 2 items."),
        ("widen()", "The argument t is missing"),
        ("widen(pots, 3, a = 2)", "one argument"),
        ("sort(pots, by=[1, 2])", "The lists have different lengths: 4 and 2 items."),
        ("where(pots, temp)", "a test that is true or false for each item"),
        ("where(pots, nothing > 3)", "No quantity is named nothing yet"),
        ("columns(3)", "This needs a table"),
        ("pots + 1", "it is a table"),
        ("sqrt(pots)", "this is a table"),
    ],
)
def test_what_a_table_does_not_do_is_said(line, said):
    assert said in outcome(*POTS, line).error.text


def test_a_misspelt_column_gets_its_mend():
    found = outcome(*POTS, "mean(pots.tmp)")
    assert found.error.mends[0].apply("mean(pots.tmp)") == "mean(pots.temp)"


def test_columns_come_before_quantities_and_leave_them_alone():
    sheet = FullSheet()
    for line in (*POTS, "limit = 70", "temp = 5"):
        sheet.answer(line)
    assert sheet.answer("where(pots, temp > limit).temp").answers[0].text == "[96, 80.5, 71.25]"
    assert sheet.answer("temp").answers[0].text == "5"


@given(st.lists(st.tuples(st.integers(-50, 50), st.integers(0, 9)), min_size=1, max_size=40))
def test_rows_are_sorted_as_python_sorts_them(pairs):
    table = Table(
        (tables.head_of("a"), tables.head_of("b")),
        tuple(List(tuple(exact(pair[at]) for pair in pairs)) for at in (0, 1)),
    )
    found = tables.sorted_by(table, table.columns[1].items)
    rows = zip(*(column.items for column in found.columns), strict=True)
    expected = sorted(pairs, key=lambda pair: pair[1])
    assert [(int(a.coefficient), int(b.coefficient)) for a, b in rows] == expected


def test_missing_values_stay_missing_and_are_counted_aloud():
    column = List((exact(2), MISSING, exact(4)))
    table = Table((tables.head_of("x"),), (column,))
    shown = overview(table)
    values = {
        tables.name_of(head): one.items[0]
        for head, one in zip(shown.heads, shown.columns, strict=True)
    }
    assert (values["count"], values["missing"]) == (exact(2), exact(1))
    assert (values["mean"], values["least"], values["greatest"]) == (exact(3), exact(2), exact(4))
    ordered = tables.sorted_by(table, column.items)
    assert ordered.columns[0].items[-1] is MISSING
    wider = tables.widened(table, {"y": column})
    assert wider.columns[1].items[1] is MISSING


def test_deviation_of_an_overview_is_that_of_python():
    [found] = outcome("x = [2, 4, 4.5, 9]", "overview(table(x)).stdev").answers
    assert float(found.text.strip("[]")) == pytest.approx(statistics.stdev([2, 4, 4.5, 9]))


def test_columns_are_completed():
    sheet = FullSheet()
    for line in POTS:
        sheet.answer(line)
    text = "mean(pots.te"
    [found] = complete(sheet, text, len(text))
    assert (found.name, found.insert, found.start, found.end) == ("temp", "temp", 10, 12)
    assert [one.name for one in complete(sheet, "pots.", 5)] == ["t", "temp"]
    assert complete(sheet, "t.", 2) == []


def test_a_table_is_saved_as_csv_and_read_back():
    """RFC 4180: cells with a quotation mark or a comma stand between quotation marks."""
    [found] = outcome('table(["a", "b, c", "d"], [1, 2.5, 1/3])').answers
    file = io.StringIO()
    csv.writer(file).writerows(found.cells())
    rows = list(csv.reader(io.StringIO(file.getvalue())))
    assert rows[1:] == [["a", "1"], ["b, c", "2.5"], ["d", "0.3333333333"]]


@pytest.mark.parametrize("op", ["==", "!=", "<", "<=", ">", ">="])
def test_a_long_list_is_compared_at_once_as_one_by_one(op):
    sheet = FullSheet()
    sheet.answer("w = (1..1500)/8")
    at_once = sheet.answer(f"count(where(w, w {op} 20))").answers[0].text
    compared = {"==": "eq", "!=": "ne", "<": "lt", "<=": "le", ">": "gt", ">=": "ge"}[op]
    expected = sum(getattr(operator, compared)(n / 8, 20) for n in range(1, 1501))
    assert at_once == str(expected)


def test_a_long_table_of_texts_is_filtered_at_once():
    sheet = FullSheet()
    sheet.answer('t = table(1..2000, "x" + (1..2000 mod 2))')
    sheet.answer("pot = 3")
    assert sheet.answer('n = count(where("x" + (0..1999), "x" + (0..1999) == "x7"))').status == "ok"
    assert sheet.answer("n").answers[0].text == "1"


AIR = "Ozone,Solar.R,Month\n41,190,5\n36,118,5\n,149,6\n18,313,6\nNA,NA,7\n"


@pytest.fixture
def air(tmp_path):
    """A sheet with a table in which values are missing; invented."""
    file = tmp_path / "air.csv"
    file.write_text(AIR)
    sheet = FullSheet()
    sheet.shelf = shelf_of({"air": "1"}, {"1": File(str(file))})
    sheet.answer('air = shelf("air");')
    return sheet


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        ("count(air.Ozone)", "3"),
        ("is_missing(air.Ozone)", "[false, false, true, false, true]"),
        ('air."Solar.R"[2]', "118"),
        ('where(air, "Solar.R" > 150).Month', "[5, 6]"),
        ("where(air, is_missing(Ozone)).Month", "[6, 7]"),
        ("group(air, by=Month)", "Month  count\n5  2\n6  2\n7  1"),
        ("group(air, by=Month, warm = max(Ozone)).warm", "[41, 18, undefined]"),
        ("group(air, by=Month, mean(Ozone), count(Ozone))",
         "Month  mean(Ozone)  count(Ozone)\n5  38.5  2\n6  18  1\n7  undefined  0"),
        ('group(air, by="Month", mean("Solar.R")).Month', "[5, 6, 7]"),
        ("count(group(air, by=[Month, Ozone]))", "5"),
        ("sort(air, by=[Month, Ozone]).Ozone", "[36, 41, 18, undefined, undefined]"),
        ('sort(air, by="Ozone").Ozone', "[18, 36, 41, undefined, undefined]"),
        ("columns(air, Ozone, Month)[1]", "Ozone  Month\n41  5"),
        ('columns(columns(air, "Solar.R"))', '["Solar.R"]'),
    ],
)  # fmt: skip
def test_groups_columns_and_missing_values(air, line, shown):
    assert air.answer(line).answers[0].text == shown


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("group(air, by=Month, Ozone)", "gives a list for each group"),
        ("group(air, mean(Ozone))", "The argument by is missing"),
        ("group(air, by=Month, by=Ozone)", "by is given twice"),
        ("group(3, by=Month)", "needs a table"),
        ("columns(air, Wind)", "Wind"),
    ],
)
def test_what_a_group_does_not_do_is_said(air, line, said):
    assert said in air.answer(line).error.text


def test_a_kept_line_counts_missing_values_as_it_did(air):
    line = air.put(2, "count(air.Ozone)", 2, conventions=Conventions(units="names"))
    assert air.outcome_of(line).answers[0].text == "5"


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("pots[pots.temp > 70]", "where(pots, pots.temp > 70)"),
        ("pots[temp > 70 and t > 0]", "where(pots, temp > 70 and t > 0)"),
        ("group(pots, t, mean(temp))", "group(pots, by=t, mean(temp))"),
        ("mean(pots.temp, by=pots.t)", "group(pots, by=t, mean(temp))"),
        ("stdev(pots.temp, by=t)", "group(pots, by=t, stdev(temp))"),
    ],
)
def test_rows_and_groups_are_asked_for_as_elsewhere(line, meant):
    assert mends(*POTS, line) == [meant]


def test_a_table_of_nearly_the_name_is_offered(tmp_path):
    path = tmp_path / "pots.csv"
    path.write_text("n\n1\n")
    sheet = FullSheet()
    sheet.shelf = shelf_of({"cooling pots": "1"}, {"1": File(str(path))})
    [offered] = sheet.answer('shelf("cooling pot")').as_dict()["error"]["mends"]
    assert offered["input"] == 'shelf("cooling pots")'
    assert not sheet.answer('shelf("kettles")').as_dict()["error"]["mends"]
