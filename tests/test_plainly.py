"""What cannot be done is said on a page that leads home, or as a plain sentence to a script."""

import pytest
from django.test import Client

from tests.people import Someone

pytestmark = pytest.mark.django_db(transaction=True)

NAVIGATES = {"Sec-Fetch-Mode": "navigate", "Accept": "text/html"}


def fails(request):
    raise RuntimeError("as it happens")


@pytest.fixture
def client(monkeypatch):
    return Client(raise_request_exception=False, headers=NAVIGATES)


@pytest.mark.parametrize(
    ("method", "path", "status", "said"),
    [
        ("get", "/nowhere", 404, "There is nothing here"),
        ("get", "/sheets/8b4bb0e5-0000-4000-8000-000000000000", 404, "needs a cookie"),
        ("get", "/account/sign-out", 405, "a button on a page leads to it"),
        ("put", "/account/", 405, "a button on a page leads to it"),
    ],
)
def test_a_refusal_is_a_page_that_leads_home(client, method, path, status, said):
    reply = getattr(client, method)(path)
    page = reply.content.decode()
    assert reply.status_code == status
    assert said in page
    assert 'href="/">' in page


def test_what_fails_is_said_without_a_word_of_the_program(client, monkeypatch):
    monkeypatch.setattr("teapot.accounts.views.known_person", fails)
    reply = client.get("/account/")
    assert reply.status_code == 500
    assert "Something went wrong" in reply.content.decode()
    assert "as it happens" not in reply.content.decode()
    assert 'href="/">' in reply.content.decode()


def test_what_comes_too_fast_or_is_too_large_is_a_page_too(client, settings, monkeypatch):
    large = client.post("/tables/new", headers={"Content-Length": "999999999"})
    assert large.status_code == 413
    assert "<h1>" in large.content.decode()
    settings.PACED = True
    monkeypatch.setattr("teapot.accounts.pacing.of_addresses.at_once", 0)
    monkeypatch.setattr("teapot.accounts.pacing.of_addresses.per_second", 0)
    fast = Client(REMOTE_ADDR="10.1.1.1", headers=NAVIGATES).get("/account/")
    assert fast.status_code == 429
    assert "Too many requests" in fast.content.decode()
    assert fast.headers["Retry-After"] == "1"


def test_a_form_of_an_older_page_is_a_page_too():
    client = Client(enforce_csrf_checks=True, headers=NAVIGATES)
    reply = client.post("/account/sign-out")
    assert reply.status_code == 403
    assert "This page has expired" in reply.content.decode()


def test_a_script_is_told_in_a_sentence():
    someone = Someone()
    reply = someone.client.get("/sheets/8b4bb0e5-0000-4000-8000-000000000000")
    assert reply.status_code == 404
    assert reply.headers["Content-Type"].startswith("text/plain")


def test_replies_say_for_whom_they_are():
    visitor = Client()
    address = visitor.get("/").headers["Location"]
    page = visitor.get(address)
    assert f'data-who="{page.headers["X-Who"]}"' in page.content.decode()
    kept = visitor.post(f"{address}/title")
    assert kept.headers["X-Who"] == page.headers["X-Who"]
    assert Client().get(address).headers["X-Who"] == "nobody"
    assert Someone().client.get(address).headers["X-Who"] not in ("nobody", page.headers["X-Who"])
