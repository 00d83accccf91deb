"""Lines are kept once, in order, and only for their owner."""

import re
import uuid
from functools import partial
from io import StringIO

import pytest
from django.core.management import call_command
from django.db import connection
from django.test import Client

from teapot.console import services
from teapot.console.models import Line, Sheet
from tests.replies import refusal_in, revision_in
from tests.threads import at_once

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def person():
    client = Client()
    client.sheet = client.get("/").headers["Location"]
    client.post(f"{client.sheet}/title")
    return client


def keep(person, text, token=None, since=0):
    data = {"text": text, "token": token or str(uuid.uuid4()), "since": since}
    return person.post(f"{person.sheet}/lines", data)


def texts(reply):
    return re.findall(r'data-text="([^"]*)"\s+data-sign', reply.content.decode())


def test_a_line_is_answered_and_there_after_a_reload(person):
    assert texts(keep(person, "6+3/6+3")) == ["9.5"]
    page = person.get(person.sheet).content.decode()
    assert 'data-text="9.5" data-sign="="' in page
    assert "<mfrac>" in page


def test_sending_again_keeps_once(person):
    token = str(uuid.uuid4())
    keep(person, "1+1", token)
    reply = keep(person, "1+1", token)
    assert texts(reply) == ["2"]
    assert Line.objects.count() == 1


def test_an_error_is_not_kept_and_offers_its_mend(person):
    reply = keep(person, "3 + sqr(49)")
    assert refusal_in(reply) == "error"
    page = reply.content.decode()
    assert 'data-mend="3 + sqrt(49)"' in page
    assert re.search(r'data-start="4"\s+data-end="7"', page)
    assert not Line.objects.exists()


def test_an_answer_of_an_earlier_line_by_its_sign(person):
    keep(person, "7")
    keep(person, "# only a note")
    assert texts(keep(person, "@*6", since=2)) == ["42"]


def test_a_window_gets_what_another_wrote(person):
    keep(person, "m = 1.2  # water, kg")
    reply = keep(person, "2*m", since=0)
    assert texts(reply)[:2] == ["1.2", "2.4"]
    assert person.get(f"{person.sheet}/lines?since=2").status_code == 204
    news = person.get(f"{person.sheet}/lines?since=1")
    assert texts(news)[0] == "2.4"
    assert revision_in(news) == 2


def test_windows_writing_at_once_lose_and_mix_nothing(person):
    sheet = Sheet.objects.get()

    def write(window):
        for count in range(8):
            services.keep(Sheet.objects.get(pk=sheet.pk), f"{window} + {count}", uuid.uuid4())
        connection.close()

    at_once(*(partial(write, 100 * n) for n in (1, 2, 3)))
    lines = list(sheet.lines.all())
    assert [line.number for line in lines] == list(range(1, 25))
    assert [line.revision for line in lines] == list(range(1, 25))
    for line in lines:
        left, right = line.text.split(" + ")
        assert line.outcome["answers"][0]["text"] == str(int(left) + int(right))


def test_nobody_sees_or_changes_the_sheet_of_another(person):
    keep(person, "secret = 42")
    other = Client()
    other.get("/")
    for path in ("", "/lines?since=0", "/earlier?before=1", "/quantities"):
        assert other.get(person.sheet + path).status_code == 404
    other.sheet = person.sheet
    assert keep(other, "1").status_code == 404
    assert other.post(f"{person.sheet}/preview", {"text": "secret"}).status_code == 404
    assert other.post(f"{person.sheet}/title", {"title": "mine"}).status_code == 404
    assert Client().get(person.sheet).status_code == 404


def test_nothing_typed_reaches_the_page_as_markup(person):
    attack = '"<script>alert(1)</script>" + x"<img src=q onerror=alert(1)>'
    for text in (attack, "<u>1</u>", "1 # <script>alert(1)</script>", "'; DROP TABLE console_line"):
        for reply in (
            keep(person, text),
            person.post(f"{person.sheet}/preview", {"text": text}),
            person.get(person.sheet),
        ):
            page = reply.content.decode()
            assert "<script>alert" not in page
            assert "<img src" not in page
            assert "<u>1" not in page


def test_forged_and_broken_requests_are_refused():
    client = Client(enforce_csrf_checks=True)
    sheet = client.get("/").headers["Location"]
    data = {"text": "1", "token": str(uuid.uuid4()), "since": 0}
    assert client.post(f"{sheet}/lines", data).status_code == 403
    client = Client()
    sheet = client.get("/").headers["Location"]
    for change in ({"token": "x"}, {"since": "x"}, {"text": "  "}):
        assert client.post(f"{sheet}/lines", data | change).status_code == 400


def test_headers_are_strict(person):
    reply = person.get(person.sheet)
    policy = reply.headers["Content-Security-Policy"]
    assert "default-src 'self'" in policy
    assert "unsafe" not in policy
    assert reply.headers["X-Frame-Options"] == "DENY"
    assert reply.headers["X-Content-Type-Options"] == "nosniff"


def test_database_syncs_every_commit(person):
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA journal_mode")
        assert cursor.fetchone()[0] == "wal"
        cursor.execute("PRAGMA synchronous")
        assert cursor.fetchone()[0] == 2


def test_quantities_stand_in_two_groups(person):
    keep(person, "m = 1.2  # water, kg")
    keep(person, "Q = 2*m")
    page = person.get(f"{person.sheet}/quantities").content.decode()
    given, found = page.split("Found")
    assert 'data-name="m"' in given
    assert "water, kg" in given
    assert 'data-name="Q"' in found


def test_the_title_is_renamed_in_place(person):
    person.post(f"{person.sheet}/title", {"title": "  Heat <u>1</u>  "})
    assert Sheet.objects.get().title == "Heat <u>1</u>"
    assert "<u>1" not in person.get(person.sheet).content.decode()


def test_earlier_lines_follow_screen_by_screen(person):
    sheet = Sheet.objects.get()
    for count in range(70):
        services.keep(sheet, str(count), uuid.uuid4())
    page = person.get(person.sheet).content.decode()
    numbers = re.findall(r'data-number="(\d+)"', page)
    assert (numbers[0], numbers[-1]) == ("41", "70")
    earlier = person.get(f"{person.sheet}/earlier?before=41").content.decode()
    assert re.findall(r'data-number="(\d+)"', earlier) == [str(n) for n in range(21, 41)]


def test_the_demo_is_worked_out_by_the_engine_and_copied_to_each_person():
    call_command("load_demo", stdout=StringIO())
    sample = Sheet.objects.filter(owner=None).order_by("opened").last()
    first, second = Client(), Client()
    for client in (first, second):
        assert "Open the demo" in client.get("/", follow=True).content.decode()
    sheets = [client.post("/samples").headers["Location"] for client in (first, second)]
    assert sheets[0] != sheets[1]
    page = first.get(sheets[0]).content.decode()
    assert 'data-text="389298 J" data-sign="="' in page
    first.sheet = sheets[0]
    assert texts(keep(first, "Q as kJ", since=sample.revision))[0] == "389.298 kJ"
    assert "389.298 kJ" not in second.get(sheets[1]).content.decode()
