"""The addresses of the sheet page, with right and with broken requests."""

import json
import re
import uuid
from datetime import UTC, datetime, timedelta
from html import unescape

import pytest
from django.test import Client

from accounts.guests import SESSION_KEY
from accounts.models import Person
from console import history

pytestmark = pytest.mark.django_db(transaction=True)


class Visitor:
    """A person's page, as its script would use it."""

    def __init__(self):
        self.client = Client()
        self.url = self.client.get("/").headers["Location"]
        self.since = 0

    def post(self, path, **fields):
        return self.client.post(self.url + path, {"since": self.since, **fields})

    def keep(self, *texts):
        for text in texts:
            reply = self.post("/lines", text=text, token=str(uuid.uuid4()))
            assert "X-Refused" not in reply.headers, text
        return reply

    def get(self, path=""):
        return self.client.get(self.url + path)

    @property
    def person(self):
        return Person.objects.get(pk=self.client.session[SESSION_KEY])


@pytest.fixture
def visitor():
    return Visitor()


def texts(reply):
    return re.findall(r'data-text="([^"]*)" data-sign', reply.content.decode())


def left_of(reply):
    found = re.search(r'data-left="([^"]*)"', reply.content.decode())
    return json.loads(unescape(found.group(1))) if found else []


def test_several_lines_in_one_text_are_kept_at_once_up_to_the_first_that_is_refused(visitor):
    text = "m = 2  # kg\r\n\r\nQ = (m +\r\n 1)*4\r\n/angle deg\r\n@ + 1"
    token = str(uuid.uuid4())
    reply = visitor.post("/lines", text=text, token=token)
    assert reply.headers["X-Several"] == "2"
    assert texts(reply) == ["2", "12"]
    assert left_of(reply) == ["/angle deg", "@ + 1"]
    again = visitor.post("/lines", text=text, token=token)
    assert left_of(again) == ["/angle deg", "@ + 1"]
    assert texts(visitor.get("/lines?since=0")) == ["2", "12"]
    visitor.post("/undo")
    assert texts(visitor.get("/lines?since=0")) == []


def test_several_lines_see_each_other_and_draw_once(visitor):
    reply = visitor.post("/lines", text="d = random(1..6)\n@ - d\nd - d", token=str(uuid.uuid4()))
    assert "X-Several" not in reply.headers
    assert texts(reply)[1:] == ["0", "0"]
    drawn = texts(reply)[0]
    assert texts(visitor.get("/lines?since=0")) == [drawn, "0", "0"]


def test_what_is_typed_in_several_lines_is_read_so(visitor):
    text = "m = 2  # kg\r\n\r\nQ = (m +\r\n 1)*4\r\n/angle deg"
    shown = visitor.post("/preview", text=text, caret="3").content.decode()
    assert "These are 3 lines" in shown
    assert shown.count('class="reading"') == 2
    visitor.keep("(1 +\n2)\n", "\n7")


def test_a_broken_line_is_a_bad_request_and_keeps_nothing(visitor):
    token = str(uuid.uuid4())
    assert visitor.post("/lines", text="1", token="no-token").status_code == 400
    assert visitor.post("/lines", text="  ", token=token).status_code == 400
    assert visitor.post("/lines", text="1", token=token, since="x").status_code == 400
    assert visitor.post("/lines", text="1", token=token, below="7").status_code == 404
    visitor.keep("41 + 1")
    assert visitor.post("/lines/1", text=" ").status_code == 400
    assert re.findall(r'data-text="(\w+)"', visitor.get().content.decode()) == ["42"]


def test_a_line_asks_and_keeps_the_replies(visitor):
    token = str(uuid.uuid4())
    text = 'T = ask("How warm, in <°C>?") + ask("And more?")'
    question = visitor.post("/lines", text=text, token=token)
    assert (question.headers["X-Refused"], question.headers["X-Asks"]) == ("unfinished", "0")
    assert "How warm, in &lt;°C&gt;?" in question.content.decode()
    question = visitor.post("/lines", text=text, token=token, reply="80")
    assert question.headers["X-Asks"] == "1"
    question = visitor.post("/lines", text=text, token=token, reply=["80", "(5"])
    assert question.headers["X-Asks"] == "1"
    assert "closing )" in question.content.decode()
    assert texts(visitor.post("/lines", text=text, token=token, reply=["80", "5"])) == ["85"]
    assert texts(visitor.post("/lines", text=text, token=token)) == ["85"]
    assert texts(visitor.post("/lines/1/form", form="scientific")) == ["8.5e1"]
    mended = text.replace(" + ", " - ")
    assert visitor.post("/lines/1", text=mended).headers["X-Asks"] == "0"
    assert texts(visitor.post("/lines/1", text=mended, reply=["80", "5"])) == ["75"]


def test_a_form_leaves_what_was_drawn_as_it_is(visitor):
    [drawn] = texts(visitor.keep("random()"))
    [shown] = texts(visitor.post("/lines/1/form", form="15 places"))
    assert float(shown) == pytest.approx(float(drawn), rel=1e-9)


@pytest.mark.parametrize("near", ["at", "below"])
def test_the_preview_at_a_line_that_was_deleted_meanwhile_is_that_of_the_foot(visitor, near):
    visitor.keep("a = 2", "a = 3", "b = 5")
    visitor.post("/lines/1/delete")
    reply = visitor.post("/preview", text="a + 40", caret="3", **{near: "1"})
    assert reply.status_code == 200
    assert "43" in reply.content.decode()


def test_the_preview_tells_what_is_around_the_caret(visitor):
    reply = visitor.post("/preview", text="1/2 pi", caret="2").content.decode()
    assert 'class="bound"' in reply
    assert 'data-operands="0,1 2,3"' in reply
    assert 'data-mend="1/(2 pi)"' in reply
    assert visitor.post("/preview", text="   ").content == b""
    assert visitor.post("/preview", text="1", caret="not a number").status_code == 200
    assert visitor.post("/preview").status_code == 200


def test_workings_as_steps_boxes_and_bits(visitor):
    visitor.keep("x = 2; 3*x + 1 as binary64")
    reply = visitor.get("/lines/1/workings").content.decode()
    assert "Step 1 of 2: 3 times 2 is exactly 6." in reply
    assert reply.count("<svg") == 3
    assert "binary64 of 7: sign bit 0" in reply
    assert visitor.get("/lines/99/workings").status_code == 404


def test_the_form_of_a_line_and_of_the_sheet(visitor):
    visitor.keep("1/3")
    assert texts(visitor.post("/lines/1/form", form="fraction")) == ["1/3"]
    assert "X-Refused" in visitor.post("/lines/1/form", form="nonsense").headers
    assert texts(visitor.post("/lines/1/form", form="")) == ["0.3333333333"]
    visitor.post("/settings/form", value="3 digits")
    assert texts(visitor.get()) == ["0.333"]
    assert "X-Refused" in visitor.post("/settings/form", value="0 digits").headers


def test_values_names_and_computing_again_over_the_wire(visitor):
    visitor.keep("m = 2  # kg", "Q = m*10", "m = 3")
    listed = visitor.get("/quantities").content.decode()
    assert "used m = 2; m is now 3" in listed
    assert 'data-flag-for="2"' in listed
    assert "30" in texts(visitor.post("/quantities/again", name="Q"))
    assert "X-Refused" in visitor.post("/quantities/rename", name="m", new="Q").headers
    visitor.post("/quantities/rename", name="m", new="mass")
    assert "mass = 3" in visitor.get().content.decode()
    assert "X-Refused" in visitor.post("/quantities/value", name="mass", value="sqr(").headers
    shown = visitor.post("/quantities/value", name="mass", value="4")
    assert texts(shown) == texts(visitor.get()) == ["2", "20", "4", "40"]


def test_numbers_that_are_none_are_not_found(visitor):
    visitor.keep("1")
    for path in ("/earlier?before=x", "/earlier?before=99", "/earlier", "/earlier?through=-1"):
        assert visitor.get(path).status_code == 404
    assert visitor.post("/lines/1/delete", since="x").status_code == 404
    assert visitor.post("/lines/9/move", way="up").status_code == 404
    assert visitor.post("/lines/refresh", numbers=["x"]).status_code == 404
    assert visitor.post("/lines/1", text="  ").status_code == 400
    assert visitor.client.get(f"{visitor.url}/undo").status_code == 405


def test_undo_with_nothing_to_undo_says_so_by_its_status(visitor):
    assert visitor.post("/undo").status_code == 204
    visitor.keep("1")
    assert visitor.post("/undo").headers["X-Label"] == "new line"
    assert visitor.post("/redo").headers["X-Label"] == "new line"
    assert visitor.post("/redo").status_code == 204


def test_the_history_is_of_all_sheets_each_text_once(visitor):
    visitor.keep("2+2", "sin(1)", "2+2")
    visitor.client.post("/sheets/new")
    lines = json.loads(visitor.client.get("/history").content)["lines"]
    assert lines == ["sin(1)", "2+2"]
    assert history.search(visitor.person, "0.8414")[0].text == "sin(1)"
    assert history.search(visitor.person, "nothing like it") == []
    found = visitor.client.get("/history/search?words=sin").content.decode()
    assert 'data-text="sin(1)"' in found
    assert Client().get("/history").status_code == 404


def test_the_history_of_another_is_not_found(visitor):
    visitor.keep("secret = 42")
    other = Visitor()
    other.keep("1")
    assert "secret" not in other.client.get("/history").content.decode()
    assert history.search(other.person, "secret") == []


def test_a_cleared_screen_is_shown_again(visitor):
    visitor.keep("1", "2")
    assert visitor.post("/lines", text="/clear", token=str(uuid.uuid4())).headers["X-Reload"] == "1"
    shown = visitor.get().content.decode()
    assert texts(visitor.get()) == []
    more = re.search(r'hx-get="([^"]*through=\d+)"', shown).group(1)
    assert texts(visitor.client.get(more)) == ["1", "2"]


def test_live_lines_come_along_with_what_moves_them(visitor):
    visitor.keep("a = 1", "b := a*10")
    visitor.since = 2
    reply = visitor.post("/lines", text="a = 2", token=str(uuid.uuid4()))
    assert "20" in texts(reply)
    assert "10 → 20" in reply.content.decode()


def test_very_many_changes_at_once_ask_for_a_new_page(visitor):
    visitor.keep(*(f"{n}" for n in range(5)))
    from console.views import replies

    replies.MOST_NEWS, before = 3, replies.MOST_NEWS
    try:
        assert visitor.get("/lines?since=0").headers["X-Reload"] == "1"
        assert "X-Reload" not in visitor.get("/lines?since=3").headers
    finally:
        replies.MOST_NEWS = before


@pytest.mark.parametrize(
    ("zone", "hours"),
    # Kiritimati is 14 hours before UTC, Pago Pago 11 behind it (IANA time zone database)
    [("Pacific/Kiritimati", 14), ("Pacific/Pago_Pago", -11), ("../etc/passwd", 0), ("", 0)],
)
def test_the_clock_is_that_of_where_the_person_is(visitor, zone, hours):
    before = datetime.now(UTC).replace(tzinfo=None, microsecond=0)
    visitor.client.cookies["zone"] = zone
    [shown] = texts(visitor.keep("now()"))
    [day] = texts(visitor.keep("today()"))[-1:]
    [later] = texts(visitor.keep("now()"))[-1:]
    assert shown[:10] <= day <= later[:10]
    moment = datetime.fromisoformat(shown) - timedelta(hours=hours)
    assert before <= moment <= datetime.now(UTC).replace(tzinfo=None)


@pytest.mark.parametrize(
    "command", ["/angle deg", "/clear", "/help sin", "/find root", "/show 4 digits"]
)
def test_a_line_cannot_become_a_setting_and_says_so(visitor, command):
    visitor.keep("1 + 1")
    reply = visitor.post("/lines/1", text=command)
    assert reply.headers["X-Refused"] == "error"
    assert "is no line" in unescape(reply.content.decode())
    assert texts(visitor.get())[-1] == "2"
