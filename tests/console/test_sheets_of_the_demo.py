"""The demo's sheets: made up, worked out by the engine, and free of errors and slips."""

import cmath
import csv
from io import StringIO

import pytest
from django.core.management import call_command

from teapot.console.models import Sheet
from tests.engine.answers import TABLES

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def sheets():
    call_command("load_demo", stdout=StringIO())
    return {sheet.title: sheet for sheet in Sheet.objects.filter(owner=None)}


def test_every_line_is_answered(sheets):
    assert len(sheets) == 4
    for sheet in sheets.values():
        for line in sheet.lines.present():
            assert line.outcome["error"] is None, line.text
            assert line.outcome["status"] in ("ok", "note")


def test_the_spout(sheets):
    lines = sheets["The angle of the spout"].lines.present()
    shown = {line.text.partition("  #")[0]: line.outcome["answers"] for line in lines}
    assert shown["φ = arctan(h/w) as deg"][0]["text"] == "36.86989765°"
    assert shown["length = hypot(h, w)"][0]["text"] == "7.5 cm"
    assert shown["12°30′15″ as deg"][0]["text"] == "12.50416667°"
    assert shown["mean(pours)"][0]["text"] == "181.2 mL"
    assert shown["mean(pours) as L, 2 places"][0]["text"] == "0.18 L"
    [table] = shown["table(a, sin(a), tan(a)) as exact"]
    assert table["cells"][-1] == ["90°", "1", "undefined"]


def test_the_sheets_say_that_they_are_made_up(sheets):
    for sheet in sheets.values():
        said = sheet.lines.present().first().text.lower()
        assert "made-up" in said or "made up" in said


def test_the_coil_is_that_of_pythons_complex_numbers(sheets):
    lines = sheets["A heating coil on alternating current"].lines.present()
    shown = {line.text.partition("  #")[0]: line.outcome["answers"] for line in lines}
    impedance = 24.5 + 2j * cmath.pi * 50 * 0.018
    power = 230 * (230 / impedance).conjugate()
    for line, wanted, unit in (
        ("abs(Z)", abs(impedance), "Ω"),
        ("P = re(S)", power.real, "W"),
        ("Q_X = im(S)", power.imag, "W"),
    ):
        count, found = shown[line][0]["text"].split(" ")
        assert found == unit
        assert float(count) == pytest.approx(wanted, rel=1e-9)


def test_the_pots_are_those_of_their_file(sheets):
    with open(TABLES / "cooling pots.csv", encoding="utf-8") as file:
        rows = list(csv.DictReader(file))
    lines = sheets["Three pots that cool"].lines.present()
    shown = {line.text.partition("  #")[0]: line.outcome["answers"] for line in lines}
    last = [[row["temp [°C]"] for row in rows if row["pot"] == pot][-1] for pot in "ABC"]
    [table] = shown['table(["A", "B", "C"], average, last_one)']
    assert [float(row[2]) for row in table["cells"][1:]] == list(map(float, last))
    warm = [row for row in rows if row["pot"] == "A" and float(row["temp [°C]"] or 0) > 60]
    [said] = shown['"pot A stays above 60 °C for {max(where(a, temp > 60 °C).time)}"']
    assert f"for {max(int(row['time [min]']) for row in warm)} min" in said["text"]
