"""The demo's sheets: made up, worked out by the engine, and free of errors and slips."""

import pytest

from console import samples

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def sheets():
    return {sheet.title: sheet for sheet in samples.load_samples()}


def test_every_line_is_answered(sheets):
    assert len(sheets) == 2
    for sheet in sheets.values():
        for line in sheet.lines.present():
            assert line.outcome["error"] is None, line.text
            assert line.outcome["status"] in ("ok", "note")


def test_the_spout(sheets):
    lines = sheets["The angle of the spout"].lines.present()
    shown = {line.text.partition("  #")[0]: line.outcome["answers"] for line in lines}
    assert shown["φ = arctan(h, w) as deg"][0]["text"] == "36.86989765°"
    assert shown["length = hypot(h, w)"][0]["text"] == "7.5"
    assert shown["12°30′15″ as deg"][0]["text"] == "12.50416667°"
    assert shown["mean(pours)"][0]["text"] == "181.2"
    assert shown["round(mean(pours)/1000, 2)"][0]["text"] == "0.18"
    [table] = shown["table(a, sin(a), tan(a)) as exact"]
    assert table["cells"][-1] == ["90°", "1", "undefined"]


def test_the_sheets_say_that_they_are_made_up(sheets):
    for sheet in sheets.values():
        assert "made-up" in sheet.lines.present().first().text
