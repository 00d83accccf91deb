"""The unit of angles and its like: set for the sheet, kept with each line."""

import re

import pytest

from tests.console.test_requests import Visitor, texts
from tests.replies import events_in, refusal_in

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def visitor():
    return Visitor()


def test_a_line_keeps_the_unit_it_was_answered_with(visitor):
    visitor.keep("sin(1)")
    visitor.post("/settings/angle", value="deg")
    visitor.keep("sin(1)", "arctan(1)")
    shown = visitor.get().content.decode()
    assert texts(visitor.get()) == ["0.8414709848", "0.01745240644", "45°"]
    assert re.findall(r'data-unit="(\w+)"', shown) == ["rad", "deg"]
    # mended in place it is still of its own unit; what is worked out again too
    visitor.keep("a = 2")
    assert texts(visitor.post("/lines/1", text="cos(0)"))[0] == "1"
    assert "1" in texts(visitor.post("/lines/2", text="sin(90)"))


def test_commands_set_the_conventions_and_undo_takes_them_back(visitor):
    visitor.keep("/angle gon", "/log decimal", "/numbers real")
    visitor.keep("log(1000)", "arctan(1)")
    assert texts(visitor.get()) == ["3", "50 gon"]
    assert refusal_in(visitor.post("/lines", text="sqrt(-1)", token=str(visitor.person.pk)))
    for _ in range(5):
        visitor.post("/undo")
    visitor.keep("arctan(1)")
    assert texts(visitor.get()) == ["(pi/4) rad"]


def test_what_cannot_be_set_is_refused(visitor):
    assert refusal_in(visitor.post("/settings/angle", value="grade"))
    assert refusal_in(visitor.post("/settings/form", value="0 digits"))
    assert visitor.post("/settings/nonsense", value="1").status_code == 404


def test_a_draw_is_stored_and_undo_and_redo_keep_it(visitor):
    [drawn] = texts(visitor.keep("r = random()"))
    visitor.keep("2 + 2")
    visitor.post("/lines/2/delete")
    assert texts(visitor.get()) == [drawn]
    visitor.post("/settings/form", value="12 digits")
    [longer] = texts(visitor.get())
    assert round(float(longer), 10) == pytest.approx(float(drawn), abs=1e-10)
    visitor.post("/undo")
    visitor.post("/undo")
    visitor.post("/redo")
    assert texts(visitor.get())[0] == drawn


def test_help_and_find_open_the_handbook_and_are_no_lines(visitor):
    reply = visitor.keep("help sin")
    assert events_in(reply) == {"opens-handbook": {"name": "sin"}}
    searched = visitor.keep("/find round down")
    assert events_in(searched) == {"opens-handbook": {"words": "round down"}}
    assert visitor.get().content.decode().count('data-testid="line"') == 0


def test_the_dial_of_an_angle_and_of_a_line(visitor):
    visitor.keep("arctan(-1, -1)", "2 + 2")
    shown = visitor.get("/lines/1/pictures/dial").content.decode()
    assert "in the third quadrant" in shown
    assert 'data-text="-135°"' in shown
    assert visitor.get("/lines/2/pictures/dial").status_code == 404
    assert visitor.get("/lines/99/pictures/dial").status_code == 404
    assert 'data-text="(pi/6) rad"' in visitor.get("/dial?count=30&unit=deg").content.decode()
    for query in ("count=1e9", "count=9999999", "count=x", "count=1&unit=dms", "count=1&unit="):
        assert visitor.get(f"/dial?{query}").status_code == 404


def test_a_table_as_csv(visitor):
    visitor.keep("a = 0°..90° by 45°", "table(a, sin(a), tan(a)) as exact", "2")
    reply = visitor.get("/lines/2/table-0.csv")
    assert reply.headers["Content-Type"].startswith("text/csv")
    assert reply.content.decode() == (
        "a,sin(a),tan(a)\r\n0°,0,0\r\n45°,sqrt(2)/2,1\r\n90°,1,undefined\r\n"
    )
    assert visitor.get("/lines/3/table-0.csv").status_code == 404
    assert visitor.get("/lines/2/table-7.csv").status_code == 404


def test_the_preview_offers_completions_and_the_card_with_its_picture(visitor):
    reply = visitor.post("/preview", text="1 + sq", caret="6").content.decode()
    assert 'data-insert="sqrt()"' in reply
    reply = visitor.post("/preview", text="round(6.5", caret="9").content.decode()
    assert "a tie: both are equally near" in reply
    reply = visitor.post("/preview", text="sin(0.5", caret="7").content.decode()
    assert 'class="mark"' in reply


def test_a_note_that_is_shown_while_another_line_is_typed_is_text(visitor):
    visitor.keep('tea = 4  # <img src=x onerror="alert(1)">')
    for _ in range(2):  # the second time it is at hand already
        reply = visitor.post("/preview", text="te", caret="2").content.decode()
        assert "<img" not in reply
        assert "4 · &lt;img src=x onerror=&quot;alert(1)&quot;&gt;" in reply
        reply = visitor.post("/preview", text="2 + te", caret="6").content.decode()
        assert 'data-start="4" data-end="6"' in reply


def test_functions_of_ones_own_stand_in_a_group_of_their_own(visitor):
    visitor.keep("f(x) = x^2", "f(3)")
    listed = visitor.get("/quantities").content.decode()
    assert "Functions" in listed
    reply = visitor.post("/quantities/value", name="f", value="x^3")
    assert refusal_in(reply) is None
    assert texts(visitor.get())[-1] == "27"
