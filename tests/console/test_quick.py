"""What is typed is read on a way of its own, by a token: as tightly as on the way of all."""

import io
import re
from unittest.mock import patch

import pytest
from django.core.wsgi import get_wsgi_application
from django.test import Client
from django.utils import timezone

from teapot.console import quick
from teapot.console.models import Sheet
from tests import people
from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)


class Page:
    """The page of somebody's sheet, which asks for what is typed."""

    def __init__(self, someone):
        self.someone = someone
        page = someone.client.get(someone.address).content.decode()
        self.may = re.search(r'data-may="([^"]*)"', page)[1]
        self.ways = []

    def typed(self, text, path=None, **more):
        """Status, headers and text of a reply; on which way it came is noted."""
        body = f"text={text.replace('+', '%2B')}".encode()
        environ = {
            "REQUEST_METHOD": "POST", "PATH_INFO": path or f"{self.someone.address}/preview",
            "HTTP_HOST": "testserver", "SERVER_NAME": "testserver", "SERVER_PORT": "80",
            "REMOTE_ADDR": "127.0.0.1", "wsgi.input": io.BytesIO(body),
            "wsgi.url_scheme": "http", "wsgi.errors": io.StringIO(), "HTTP_X_MAY": self.may,
            "CONTENT_LENGTH": str(len(body)), "CONTENT_TYPE": "application/x-www-form-urlencoded",
        }  # fmt: skip
        told = []

        def all_requests(environ, start_response):
            self.ways.append("all")
            return handler(environ, start_response)

        def start(status, headers, error=None):
            told[:] = int(status.split()[0]), dict(headers)

        handler = get_wsgi_application()
        reply = b"".join(quick.Quickly(all_requests)(environ | more, start))
        return *told, reply.decode()


@pytest.fixture
def someone():
    made = Someone()
    made.keep("m = 1.2")
    return made


def test_what_is_typed_is_read_as_on_the_way_of_all(someone, settings):
    page = Page(someone)
    status, headers, quickly = page.typed("2*m + 1 <b>")
    assert (status, page.ways) == (200, [])
    client = someone.client
    usual = client.post(f"{someone.address}/preview", {"text": "2*m + 1 <b>"})
    assert quickly == usual.content.decode()
    for name, value in usual.headers.items():
        if name not in (quick.HEADER_OF_TOKEN, "Vary", "Content-Length"):
            assert headers.get(name) == value, name


def test_nothing_typed_is_answered_with_nothing_and_for_whom(someone):
    page, other = Page(someone), Page(Someone())
    assert other.typed("1 + 1")[1]["X-Who"] != page.typed("  ")[1]["X-Who"]
    assert page.typed("")[1]["X-Who"] == page.typed("2*m")[1]["X-Who"]
    assert page.ways == other.ways == []


@pytest.mark.parametrize("end", ["signed out", "elsewhere", "in the bin", "deleted", "too old"])
def test_a_token_that_is_over_leads_nowhere(someone, end):
    people.sign_up(someone.client, "mia@tea.example", "steeped for 3 min")
    page = Page(someone)
    assert page.typed("2*m")[0] == 200
    assert page.ways == []
    if end == "signed out":
        someone.client.post("/account/sign-out")
    elif end == "elsewhere":
        other = Client()
        other.post(
            "/account/sign-in", {"email": "mia@tea.example", "password": "steeped for 3 min"}
        )
        other.post("/account/elsewhere")
    elif end == "in the bin":
        Sheet.objects.update(binned=timezone.now())
    elif end == "deleted":
        someone.client.post(
            "/account/delete", {"gone-password": "steeped for 3 min", "surely": "1"}
        )
    now = timezone.now().timestamp() + (quick.SECONDS + 1 if end == "too old" else 0)
    with patch("django.core.signing.time.time", lambda: now):
        status, _, text = page.typed("2*m")
    assert page.ways == ["all"]  # which has no session here
    assert status in (403, 404)
    assert "2.4" not in text


@pytest.mark.parametrize("spoil", ["path", "token", "of another", "host", "method"])
def test_a_token_is_for_one_sheet_of_one_person(someone, spoil):
    page, other = Page(someone), Page(Someone())
    more = {}
    if spoil == "path":
        more = {"path": f"{other.someone.address}/preview"}
    elif spoil == "token":
        page.may = page.may[:-2] + "xy"
    elif spoil == "of another":
        page.may = other.may
    elif spoil == "host":
        more = {"HTTP_HOST": "elsewhere.example"}
    else:
        more = {"REQUEST_METHOD": "GET"}
    status, _, text = page.typed("2*m", **more)
    assert page.ways == ["all"]
    assert status in (400, 403, 404, 405)
    assert "2.4" not in text


def test_each_reply_to_a_line_brings_another_token_and_a_visitor_has_none(someone):
    page = Page(someone)
    page.may = someone.keep("n = 2").headers[quick.HEADER_OF_TOKEN]
    assert 'data-text="2.4"' in page.typed("m*n")[2]
    assert page.ways == []
    visitor = Client()
    assert 'data-may=""' in visitor.get(visitor.get("/").headers["Location"]).content.decode()


def test_it_keeps_the_pace_of_all(someone, settings, monkeypatch):
    page = Page(someone)
    settings.PACED = True
    monkeypatch.setattr("teapot.accounts.pacing.of_addresses.at_once", 0)
    monkeypatch.setattr("teapot.accounts.pacing.of_addresses.per_second", 0)
    assert page.typed("2*m", REMOTE_ADDR="10.3.3.3")[0] == 429


def test_trouble_goes_the_way_of_all(someone, monkeypatch):
    page = Page(someone)

    def fails(*arguments):
        raise RuntimeError("as it happens")

    monkeypatch.setattr(quick, "sheet_in_browser", fails)
    assert page.typed("2*m")[0] in (403, 404)
    assert page.ways == ["all"]
