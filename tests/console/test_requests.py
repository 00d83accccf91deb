"""The addresses of the sheet page, with right and with broken requests."""

import json
import re
import uuid
from datetime import UTC, datetime, timedelta
from html import unescape

import pytest
from django.contrib.sessions.models import Session
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError
from django.test import Client

from teapot.accounts.entering import SESSION_KEY
from teapot.accounts.models import Person
from teapot.console import history
from teapot.console.models import Line, Sheet
from tests.replies import events_in, is_whole, left_in, news_in, refusal_in, replies_taken_in
from tests.threads import at_once

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
            assert refusal_in(reply) is None, text
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


def test_several_lines_in_one_text_are_kept_at_once_up_to_the_first_that_is_refused(visitor):
    text = "m = 2  # kg\r\n\r\nQ = (m +\r\n 1)*4\r\n/angle deg\r\n@ + 1"
    token = str(uuid.uuid4())
    reply = visitor.post("/lines", text=text, token=token)
    assert texts(reply) == ["2", "12"]
    assert left_in(reply) == ["/angle deg", "@ + 1"]
    again = visitor.post("/lines", text=text, token=token)
    assert left_in(again) == ["/angle deg", "@ + 1"]
    assert texts(visitor.get("/lines?since=0")) == ["2", "12"]
    visitor.post("/undo")
    assert texts(visitor.get("/lines?since=0")) == []


def test_several_lines_see_each_other_and_draw_once(visitor):
    reply = visitor.post("/lines", text="d = random(1..6)\n@ - d\nd - d", token=str(uuid.uuid4()))
    assert left_in(reply) == []
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
    assert refusal_in(question) == "unfinished"
    assert replies_taken_in(question) == 0
    assert "How warm, in &lt;°C&gt;?" in question.content.decode()
    question = visitor.post("/lines", text=text, token=token, reply="80")
    assert replies_taken_in(question) == 1
    question = visitor.post("/lines", text=text, token=token, reply=["80", "(5"])
    assert replies_taken_in(question) == 1
    assert "closing )" in question.content.decode()
    assert texts(visitor.post("/lines", text=text, token=token, reply=["80", "5"])) == ["85"]
    assert texts(visitor.post("/lines", text=text, token=token)) == ["85"]
    assert texts(visitor.post("/lines/1/form", form="scientific")) == ["8.5e1"]
    mended = text.replace(" + ", " - ")
    assert replies_taken_in(visitor.post("/lines/1", text=mended)) == 0
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
    assert refusal_in(visitor.post("/lines/1/form", form="nonsense"))
    assert texts(visitor.post("/lines/1/form", form="")) == ["0.3333333333"]
    visitor.post("/settings/form", value="3 digits")
    assert texts(visitor.get()) == ["0.333"]
    assert refusal_in(visitor.post("/settings/form", value="0 digits"))


def test_values_names_and_computing_again_over_the_wire(visitor):
    visitor.keep("m = 2  # kg", "Q = m*10", "m = 3")
    listed = visitor.get("/quantities").content.decode()
    assert "used m = 2; m is now 3" in listed
    assert 'data-flag-for="2"' in listed
    assert "30" in texts(visitor.post("/quantities/again", name="Q"))
    assert refusal_in(visitor.post("/quantities/rename", name="m", new="Q"))
    visitor.post("/quantities/rename", name="m", new="mass")
    assert "mass = 3" in visitor.get().content.decode()
    assert refusal_in(visitor.post("/quantities/value", name="mass", value="sqr("))
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
    assert events_in(visitor.post("/undo")) == {"says": "Undone: new line"}
    assert events_in(visitor.post("/redo")) == {"says": "Done again: new line"}
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
    assert json.loads(Client().get("/history").content) == {"lines": []}


def test_the_history_of_another_is_not_found(visitor):
    visitor.keep("secret = 42")
    other = Visitor()
    other.keep("1")
    assert "secret" not in other.client.get("/history").content.decode()
    assert history.search(other.person, "secret") == []


def test_a_cleared_screen_is_shown_again(visitor):
    visitor.keep("1", "2")
    cleared = visitor.post("/lines", text="/clear", token=str(uuid.uuid4()))
    assert is_whole(cleared)
    assert texts(cleared) == []
    assert "through=2" in cleared.content.decode()
    shown = visitor.get().content.decode()
    assert texts(visitor.get()) == []
    more = re.search(r'hx-get="([^"]*through=\d+)"', shown).group(1)
    assert texts(visitor.client.get(more)) == ["1", "2"]


def test_live_lines_come_along_with_what_moves_them(visitor):
    visitor.keep("a = 1", "b := a*10")
    visitor.since = 2
    reply = visitor.post("/lines", text="a = 2", token=str(uuid.uuid4()), shows="1,2")
    assert "20" in texts(reply)
    assert "10 → 20" in reply.content.decode()
    assert "stale" not in news_in(reply)
    visitor.since = 3
    reply = visitor.post("/lines", text="a = 3", token=str(uuid.uuid4()))
    assert "stale" in news_in(reply)


def test_an_enter_and_a_key_ask_the_database_for_little(visitor, django_assert_max_num_queries):
    visitor.keep("a = 1", "b = a*10")
    visitor.since = 2
    with django_assert_max_num_queries(8):
        visitor.post("/lines", text="a = 2", token=str(uuid.uuid4()), shows="1,2", listed="")
    with django_assert_max_num_queries(2):
        visitor.post("/preview", text="a*5", caret="3")


def test_only_what_a_change_moves_is_written_and_sent(visitor):
    visitor.keep("a = 1", "b = a*10", "c = 5", "d = c + 1", "b + d", "f = 7")
    visitor.since = 6
    shows = "1,2,3,4,5,6"
    reply = visitor.post("/lines/1", text="a = 2", shows=shows)
    assert "stale" not in news_in(reply)
    assert re.findall(r'data-number="(\d+)"', reply.content.decode()) == ["1", "2", "5"]
    assert "16 → 26" in reply.content.decode()
    fresh = Line.objects.filter(answered=7).values_list("number", flat=True)
    assert sorted(fresh) == [1, 2, 5]
    visitor.since = 7
    reply = visitor.post("/lines/3", text="c = 6", shows="6")
    assert "stale" in news_in(reply)
    stale = Line.objects.filter(stale=True).values_list("number", flat=True)
    assert sorted(stale) == [4, 5]


def test_the_quantities_that_differ_come_with_the_change(visitor):
    visitor.keep("a = 1", "b = a*10")
    listed = visitor.get("/quantities").content.decode()
    assert 'data-revision="2"' in listed
    visitor.since = 2
    reply = visitor.post("/lines", text="c = b + 1", token=str(uuid.uuid4()), listed="2")
    html = reply.content.decode()
    assert 'data-since="2"' in html
    # b is used by c now, and a is as it was
    assert re.findall(r'id="quantity-(\w+)"', html) == ["b", "c"]
    assert "[&quot;a&quot;, &quot;b&quot;, &quot;c&quot;]" in html
    visitor.since = 3
    reply = visitor.post("/lines", text="a = 5", token=str(uuid.uuid4()), listed="1")
    assert "data-whole" in reply.content.decode()


def test_several_undos_at_once_take_back_as_many(visitor):
    visitor.keep("1", "2", "3", "4")
    at_once(*(lambda: visitor.post("/undo", since="4") for _ in range(3)))
    assert [line.text for line in Line.objects.present()] == ["1"]


@pytest.mark.parametrize(
    ("command", "made"),
    [
        ("/angle deg", "<option selected>deg</option>"),
        ("/numbers real", "<option selected>real</option>"),
        ("/log natural", "<option selected>natural</option>"),
        ("/show 4 digits", 'value="4 digits"'),
        ("/record tea", "recording tea"),
    ],
)
def test_what_a_command_sets_comes_with_its_reply(visitor, command, made):
    visitor.keep("1/3")
    reply = visitor.post("/lines", text=command, token=str(uuid.uuid4()))
    assert is_whole(reply)
    assert made in reply.content.decode()
    assert texts(reply) == ["0.3333" if "4 digits" in command else "0.3333333333"]
    undone = visitor.post("/undo", since="2")
    if command != "/record tea":  # which is no change of the sheet
        assert is_whole(undone)
        assert made not in undone.content.decode()


def test_what_is_left_of_very_many_lines_comes_with_the_last_screen(visitor, monkeypatch):
    monkeypatch.setattr("teapot.console.views.replies.MOST_NEWS", 3)
    pasted = [*(f"{n} + 1" for n in range(5)), "sqr(4)", "7 + 1"]
    reply = visitor.post("/lines", text="\n".join(pasted), token=str(uuid.uuid4()))
    assert texts(reply) == ["1", "2", "3", "4", "5"]
    assert left_in(reply) == ["sqr(4)", "7 + 1"]


def test_very_many_changes_at_once_bring_the_last_screen(visitor):
    visitor.keep(*(f"{n}" for n in range(5)))
    from teapot.console.views import replies

    replies.MOST_NEWS, before = 3, replies.MOST_NEWS
    try:
        assert is_whole(visitor.get("/lines?since=0"))
        assert not is_whole(visitor.get("/lines?since=3"))
    finally:
        replies.MOST_NEWS = before


@pytest.mark.parametrize(
    ("zone", "hours"),
    # Kiritimati is 14 hours before UTC, Pago Pago 11 after it (IANA time zone database)
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
    assert refusal_in(reply) == "error"
    assert "changes a setting" in unescape(reply.content.decode())
    assert texts(visitor.get())[-1] == "2"


def test_a_visit_makes_nothing_until_something_is_kept():
    client = Client()
    address = client.get("/").headers["Location"]
    assert client.get(address).status_code == 200
    assert client.get(f"{address}/quantities").status_code == 200
    shown = client.post(f"{address}/preview", {"text": "2+3", "caret": "3"})
    assert 'data-text="5"' in shown.content.decode()
    assert client.get("/").headers["Location"] == address
    assert (Person.objects.count(), Sheet.objects.count(), Session.objects.count()) == (0, 0, 0)
    data = {"text": "2+3", "token": str(uuid.uuid4()), "since": 0}
    assert refusal_in(client.post(f"{address}/lines", data)) is None
    assert (Person.objects.count(), Sheet.objects.count(), Session.objects.count()) == (1, 1, 1)
    assert client.get("/").headers["Location"] == address
    assert Client().get(address).status_code == 404


def test_a_first_visit_that_brings_a_table_in_keeps_its_sheet(settings, tmp_path):
    settings.DATA = tmp_path
    client = Client()
    address = client.get("/").headers["Location"]
    file = SimpleUploadedFile("pots.csv", b"x\n1\n2\n")
    client.post("/shelf/bring-in", {"file": file, "sheet": address.rpartition("/")[2]})
    assert Person.objects.count() == 1
    assert client.get(address).status_code == 200
    client.post(f"{address}/lines", {"text": "1", "token": str(uuid.uuid4()), "since": 0})
    assert Sheet.objects.get().owner == Person.objects.get()


def test_what_a_first_visit_tells_cannot_be_made_up(visitor):
    visitor.keep("1")
    client = Client()
    client.get("/")
    client.cookies["first-visit"] = f"{visitor.person.pk.hex}-{uuid.uuid4().hex}:nonsense"
    assert client.get(visitor.url).status_code == 404
    visitor.client.post(f"/shelf/sheet/{visitor.url.rpartition('/')[2]}/bin")
    assert visitor.get().status_code == 404


def test_a_session_goes_on_while_it_is_used(visitor):
    visitor.keep("1")
    half = datetime.now(UTC) + timedelta(days=200)
    Session.objects.update(expire_date=half)
    visitor.get()
    assert Session.objects.get().expire_date > half + timedelta(days=190)
    Session.objects.update(expire_date=datetime.now(UTC) - timedelta(seconds=1))
    assert visitor.get().status_code == 404


def test_a_page_is_read_though_its_session_cannot_be_renewed(visitor, monkeypatch):
    visitor.keep("1")
    Session.objects.update(expire_date=datetime.now(UTC) + timedelta(days=200))

    def readonly(*_, **__):
        raise OperationalError("attempt to write a readonly database")

    monkeypatch.setattr(Session, "save", readonly)
    assert visitor.get().status_code == 200


def test_nothing_of_a_person_is_stored_on_the_way(visitor):
    visitor.keep("[1, 2]")
    for path in ("", "/quantities", "/lines?since=0", "/lines/1/table-0.csv", "/sheet.json"):
        assert visitor.get(path).headers["Cache-Control"] == "no-store", path
    assert visitor.client.get("/history").headers["Cache-Control"] == "no-store"


def test_two_requests_of_a_first_visit_at_once_are_of_one_person():
    client, other = Client(), Client()
    address = client.get("/").headers["Location"]
    other.cookies["first-visit"] = client.cookies["first-visit"].value
    for one, text in ((client, "1"), (other, "2")):
        data = {"text": text, "token": str(uuid.uuid4()), "since": 0}
        assert one.post(f"{address}/lines", data).status_code == 200
    assert Person.objects.count() == 1
    assert [line.text for line in Line.objects.order_by("number")] == ["1", "2"]


def test_lines_that_were_kept_together_are_taken_back_together(visitor):
    token = str(uuid.uuid4())
    visitor.keep("1")
    visitor.post("/lines", text="2\n3\n4", token=token)
    assert Line.objects.present().count() == 4
    visitor.post("/lines/take-back", token=token)
    assert [line.text for line in Line.objects.present()] == ["1"]
    visitor.post("/undo")
    assert Line.objects.present().count() == 4


@pytest.mark.parametrize(
    ("error", "said"),
    [
        ("database is locked", "The storage is busy"),
        ("attempt to write a readonly database", "cannot be written to at the moment"),
        ("database or disk is full", "The storage is full"),
        ("unable to open database file", "cannot be reached"),
    ],
)
def test_trouble_with_the_storage_has_a_sentence(visitor, monkeypatch, error, said):
    visitor.keep("1")

    def fails(*_, **__):
        raise OperationalError(error)

    with monkeypatch.context() as broken:
        broken.setattr("teapot.console.services.commit", fails)
        reply = visitor.post("/lines", text="2", token=str(uuid.uuid4()))
    assert reply.status_code == 503
    assert said in reply.content.decode()
    assert refusal_in(visitor.post("/lines", text="2", token=str(uuid.uuid4()))) is None


def test_numbers_of_thousands_of_figures_are_no_trouble(visitor):
    visitor.keep("1")
    many = "9" * 5000
    for path, fields in (
        ("/lines", {"text": "1", "token": str(uuid.uuid4()), "since": many}),
        ("/preview", {"text": "1", "caret": many}),
        ("/lines/1/form", {"form": f"{many} digits"}),
        ("/lines/refresh", {"numbers": many}),
    ):
        assert visitor.post(path, **fields).status_code in (200, 400, 404), path
    said = visitor.post("/preview", text=f"@{many}").content.decode()
    assert "There is no line 999999…" in said
    reply = visitor.client.post(
        f"{visitor.url}/preview", "text=1",
        content_type="application/x-www-form-urlencoded; charset=utf-7",
    )  # fmt: skip
    assert reply.status_code == 415
