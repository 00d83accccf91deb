"""The service of the evaluators, as web processes reach it."""

import os
import signal
import subprocess
import sys
import threading
from functools import partial
from multiprocessing.connection import Listener
from pathlib import Path

import pytest

from teapot.fence import asking
from teapot.fence import remote as remote_service
from teapot.fence.remote import Remote
from teapot.fence.turns import EvaluatorsBusy
from tests.fence.test_fence import ENDLESS, answer_job, no_lines, state
from tests.server import PATIENCE
from tests.threads import Thread, at_once

ROOT = Path(__file__).resolve().parents[2]


class Service:
    """The service as a process of its own."""

    def __init__(self, folder, **how):
        self.address = str(folder / "evaluators")
        self.how = how
        self.start()

    def start(self):
        told = {remote_service.SOCKET: self.address, "TEAPOT_EVALUATORS": "2"}
        command = [sys.executable, "-m", "teapot.fence.service"]
        self.process = subprocess.Popen(command, cwd=ROOT, env=os.environ | told, **self.how)

    def kill(self, how=signal.SIGKILL):
        self.process.send_signal(how)
        self.process.wait(PATIENCE)


@pytest.fixture(autouse=True)
def patience(monkeypatch):
    """A service is waited for however long it takes to start here."""
    monkeypatch.setattr(remote_service, "AGAIN_SECONDS", PATIENCE)


@pytest.fixture(scope="module")
def service(tmp_path_factory):
    made = Service(tmp_path_factory.mktemp("service"))
    yield made
    made.kill(signal.SIGTERM)


def test_answers_come_from_the_service_with_the_lines_that_it_lacks(service):
    remote = Remote(service.address)
    assert asking.work(remote, state(), answer_job("6+3/6+3"), no_lines).answers[0].text == "9.5"
    from teapot.fence.lines import Part, SheetLine

    sent = []

    def lines_since(reached):
        sent.append(reached.revision)
        return Part((SheetLine(1, "x = 20", None),))

    for _ in range(2):
        outcome = asking.work(remote, state("b", 1), answer_job("x*2", number=2), lines_since)
        assert outcome.answers[0].text == "40"
    assert sent == [0]


def test_only_its_own_user_reaches_it(service):
    asking.work(Remote(service.address), state(), answer_job("1"), no_lines)
    assert os.stat(service.address).st_mode & 0o077 == 0


def test_a_job_that_runs_over_its_time_gives_its_error_through_the_service(service):
    job = answer_job("f(x) = x")
    assert asking.work(Remote(service.address), state("s"), job, no_lines).answers
    slow = answer_job(ENDLESS, seconds=0.1, number=2)
    outcome = asking.work(Remote(service.address), state("s"), slow, no_lines)
    assert outcome.error.code in ("too-slow", "starved")  # by how busy the machine is


def test_several_threads_get_their_own_answers(service):
    remote, found = Remote(service.address), {}

    def ask(number):
        job = answer_job(f"{number}*{number}")
        found[number] = asking.work(remote, state(f"t{number}"), job, no_lines).answers[0].text

    at_once(*(partial(ask, number) for number in range(12)))
    assert found == {number: str(number * number) for number in range(12)}


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGTERM])
def test_a_service_that_was_ended_and_is_started_again_answers(service, how):
    remote = Remote(service.address)
    assert asking.work(remote, state("u"), answer_job("1+1"), no_lines).answers
    service.kill(how)
    threading.Timer(0.3, service.start).start()
    assert asking.work(remote, state("u"), answer_job("20+1"), no_lines).answers[0].text == "21"


def test_a_service_that_says_nothing_is_waited_for_no_longer_than_work_may_take(
    tmp_path, monkeypatch
):
    monkeypatch.setattr(remote_service, "LONGEST_SECONDS", 0.6)
    monkeypatch.setattr(remote_service, "AGAIN_SECONDS", 0.1)
    with Listener(str(tmp_path / "mute"), "AF_UNIX", backlog=9) as mute:
        outcome = asking.work(Remote(mute.address), state(), answer_job("1", 0.1), no_lines)
    assert outcome.error.code == "unforeseen"


def test_where_no_service_is_that_is_said(monkeypatch, tmp_path):
    monkeypatch.setattr("teapot.fence.remote.AGAIN_SECONDS", 0.1)
    with pytest.raises(EvaluatorsBusy):
        asking.work(Remote(str(tmp_path / "none")), state(), answer_job("1"), no_lines)


def test_work_is_stopped_from_another_connection(service):
    _is_stopped_by(Remote(service.address), Remote(service.address))


def test_work_is_stopped_also_by_a_thread_that_knew_a_service_which_has_ended(service):
    stopping = Remote(service.address)
    stopping.connection()
    service.kill()
    service.start()
    _is_stopped_by(stopping, Remote(service.address))


def _is_stopped_by(stopping, remote):
    found = []

    def ask():
        job = answer_job(ENDLESS, seconds=20.0)
        found.append(asking.work(remote, state("v"), job, no_lines))

    asks = Thread(ask)
    while not asks.is_over(0.05):
        stopping.interrupt("v")
    assert found[0].error.code == "stopped-by-hand"
