"""Who writes to the database first: in the order in which they came."""

import time
from contextlib import suppress

import pytest
from django.db import connection, transaction
from django.db.utils import OperationalError

from teapot.accounts.models import Person
from teapot.sqlite.base import Queue
from tests.server import PATIENCE
from tests.threads import Thread


def wait_until(condition):
    deadline = time.monotonic() + PATIENCE
    while not condition():
        assert time.monotonic() < deadline
        time.sleep(0.001)


def test_writers_are_called_in_the_order_in_which_they_came():
    queue, came = Queue(), []
    assert queue.enter(0)

    def write(name):
        assert queue.enter(60)
        came.append(name)
        queue.leave()

    threads = []
    for name in range(12):
        threads.append(Thread(write, name))
        wait_until(lambda name=name: len(queue._waiting) == name + 1)
    queue.leave()
    for thread in threads:
        thread.join()
    assert came == list(range(12))
    assert queue.enter(0)


def test_whoever_waits_too_long_goes_and_is_not_called():
    queue = Queue()
    assert queue.enter(0)
    assert not queue.enter(0.01)
    queue.leave()
    assert queue.enter(0)


@pytest.mark.django_db(transaction=True)
def test_a_writer_that_fails_lets_the_next_one_come(monkeypatch):
    with suppress(ZeroDivisionError), transaction.atomic():
        Person.objects.create()
        raise ZeroDivisionError
    said = []

    def write():
        try:
            with transaction.atomic():
                Person.objects.create()
        except OperationalError as error:
            said.append(str(error))
        finally:
            connection.close()

    monkeypatch.setitem(connection.settings_dict["OPTIONS"], "timeout", 0.05)
    with transaction.atomic():
        Person.objects.create()
        Thread(write).join()
    assert said == ["database is locked"]
    Thread(write).join()
    assert len(said) == 1
    assert Person.objects.count() == 2
