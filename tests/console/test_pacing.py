"""What comes too fast is refused before it costs anything."""

import threading

import pytest
from django.test import Client, RequestFactory

from teapot.accounts import pacing
from teapot.accounts.models import Person
from teapot.accounts.pacing import Pace
from tests.server import PATIENCE
from tests.threads import Thread

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def paced(settings, monkeypatch):
    settings.PACED = True
    for name in ("of_browsers", "of_addresses"):
        monkeypatch.setattr(pacing, name, Pace(0.001, 1000))


def test_so_many_at_once_and_so_many_a_second(monkeypatch):
    now = [100.0]
    monkeypatch.setattr("teapot.accounts.pacing.time.monotonic", lambda: now[0])
    pace = Pace(2, 3)
    assert [pace.allows("a") for _ in range(4)] == [True, True, True, False]
    assert pace.allows("b")
    now[0] += 1
    assert [pace.allows("a") for _ in range(3)] == [True, True, False]
    now[0] += 1000
    assert [pace.allows("a") for _ in range(4)] == [True, True, True, False]


def test_what_is_refused_for_one_browser_counts_for_nobody_else(paced, monkeypatch):
    fast, other = Client(), Client()
    for client in (fast, other):
        client.post(client.get("/").headers["Location"] + "/title")
    monkeypatch.setattr(pacing, "of_browsers", Pace(0.001, 2))
    monkeypatch.setattr(pacing, "of_addresses", Pace(0.001, 5))
    assert [fast.get("/handbook/sin").status_code for _ in range(6)].count(429) == 4
    assert other.get("/handbook/sin").status_code == 200


def test_a_browser_that_is_too_fast_is_told_when_to_come_again(paced, monkeypatch):
    client = Client()
    client.post(client.get("/").headers["Location"] + "/title")
    monkeypatch.setattr(pacing, "of_browsers", Pace(0.001, 2))
    assert [client.get("/handbook/sin").status_code for _ in range(3)] == [200, 200, 429]
    reply = client.get("/handbook/sin")
    assert reply.headers["Retry-After"] == "1"
    assert "Too many requests" in reply.content.decode()


def test_few_requests_of_one_browser_are_under_way_at_a_time(paced, settings):
    inside, go_on, codes = threading.Barrier(pacing.MOST_AT_A_TIME + 1), threading.Event(), []

    def wait(request):
        inside.wait(PATIENCE)
        go_on.wait(PATIENCE)
        return pacing.HttpResponse()

    view = pacing.keep_pace(wait)
    request = RequestFactory().get("/")
    request.COOKIES[settings.SESSION_COOKIE_NAME] = "a browser"
    answer = lambda: codes.append(view(request).status_code)  # noqa: E731
    threads = [Thread(answer) for _ in range(pacing.MOST_AT_A_TIME)]
    inside.wait(PATIENCE)
    assert pacing.keep_pace(lambda _: pacing.HttpResponse())(request).status_code == 429
    go_on.set()
    for thread in threads:
        thread.join()
    assert codes == [200] * pacing.MOST_AT_A_TIME
    assert pacing.keep_pace(lambda _: pacing.HttpResponse())(request).status_code == 200


def test_people_are_made_at_a_rate(paced, monkeypatch):
    monkeypatch.setattr("teapot.accounts.guests.of_newcomers", Pace(0.001, 2))
    codes = []
    for _ in range(3):
        client = Client()
        codes.append(client.post(client.get("/").headers["Location"] + "/title").status_code)
    assert codes == [200, 200, 429]
    assert Person.objects.count() == 2


def test_a_class_behind_one_address_is_told_apart_from_its_first_visit_on(paced, monkeypatch):
    monkeypatch.setattr(pacing, "of_browsers", Pace(0.001, 3))
    for _ in range(20):
        client = Client()
        address = client.get("/").headers["Location"]
        assert client.get(address).status_code == 200
