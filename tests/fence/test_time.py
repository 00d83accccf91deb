"""Limits count processor time: a busy machine refuses nothing, and all the same work ends."""

import os
import signal
import threading

import pytest

from teapot.console.while_typed import shown_while_typed
from teapot.engine.limited import bounds
from teapot.engine.limited import child as child_process
from teapot.engine.limited.child import Child, Late, Slow
from teapot.engine.sentences.work import BUSY, STARVED, TOO_SLOW
from teapot.fence import asking
from teapot.fence.evaluators import Evaluators
from teapot.fence.jobs import ReadTyped
from teapot.fence.remote import Remote
from teapot.fence.turns import FREE_HITS, NOBODY, Client
from tests.fence.jobs import Compute, Sleep
from tests.fence.test_fence import ENDLESS, answer_job, no_lines, state
from tests.fence.test_service import Service
from tests.threads import Thread


@pytest.fixture
def child(request):
    made = Child(f"tests.fence.jobs:{request.param}")
    yield made
    made.stop()


@pytest.fixture(scope="module")
def evaluators():
    pool = Evaluators(1)
    yield pool
    pool.stop()


@pytest.mark.parametrize("child", ["compute"], indirect=True)
def test_a_process_that_gets_little_of_the_processor_finishes_its_work(child, patient):
    """It is stopped most of the time, as one is on a machine with much else to do."""
    assert child.work(1, 0) == "computed"
    pid = child.pid
    found = []
    work = Thread(lambda: found.append(child.work(0.6, 0.3)))
    while not work.is_over(0.02):
        os.kill(pid, signal.SIGSTOP)
        stopped = work.is_over(0.2)
        os.kill(pid, signal.SIGCONT)
        if stopped:
            break
    assert found == ["computed"]
    assert child.pid == pid


@pytest.mark.parametrize("child", ["compute"], indirect=True)
def test_a_process_that_computes_too_long_is_ended(child, patient):
    with pytest.raises(Slow):
        child.work(0.2, 600)
    assert child.work(1, 0) == "computed"


@pytest.mark.parametrize("child", ["sleep"], indirect=True)
def test_what_sleeps_is_not_said_to_compute_too_long_and_ends_too(child, monkeypatch):
    assert child.work(0.1, 0.8) == "slept"
    monkeypatch.setattr(child_process, "on_the_clock", lambda seconds: 0.5)
    with pytest.raises(Late):
        child.work(0.1, 600)
    assert child.work(0.1, 0) == "slept"


def test_work_is_told_which_of_its_limits_it_ran_into(evaluators, monkeypatch, patient):
    def came_of(job):
        return asking.work(evaluators, state("time"), job, no_lines)

    assert came_of(Compute(seconds=0.5, takes=0.1)) == "computed"
    assert came_of(Compute(seconds=0.1, takes=600)) == "too-slow"
    assert came_of(Sleep(seconds=0.1, takes=0.3)) == "slept"
    assert came_of(answer_job(ENDLESS, seconds=0.2)).error.code == "too-slow"
    monkeypatch.setattr(child_process, "on_the_clock", lambda seconds: 0.5)
    assert came_of(Sleep(seconds=0.1, takes=600)) == "starved"


def test_what_is_typed_is_read_though_there_is_no_time_to_answer_it(evaluators, patient):
    job = ReadTyped(seconds=0.1, number=0, text=ENDLESS, caret=len(ENDLESS))
    shown = asking.work(evaluators, state("typed"), job, no_lines)
    assert shown.error.code in ("too-slow", "starved")  # where a busy machine gives it no time
    assert len(shown.readings) == 2


@pytest.mark.parametrize(
    ("error", "goes_on"),
    [(STARVED(seconds=2), True), (BUSY(), True), (TOO_SLOW(seconds=1), False)],
)
def test_the_page_asks_again_for_what_the_server_did_not_get_to(error, goes_on):
    job = ReadTyped(number=0, text="1 + 1")
    assert ("data-goes-on" in shown_while_typed(job.failed(error))["said"]) == goes_on


def test_the_sentences_say_which_limit_it_was():
    assert "4 s of computing" in bounds.too_slow(4.0).text
    assert "very busy" in bounds.starved(4.0).text
    assert "21 s" in bounds.starved(4.0).text


def test_nobody_is_slowed_for_a_machine_that_is_busy(evaluators):
    asking.client.set(Client("emil", "10.0.0.7"))
    try:
        for _ in range(FREE_HITS + 1):
            job = Sleep(seconds=0.01, takes=600)
            assert asking.work(evaluators, state("busy"), job, no_lines) == "starved"
    finally:
        asking.client.set(NOBODY)


def test_a_group_that_stood_still_goes_on_with_its_work(tmp_path):
    """All that serves is stopped amid a line, for longer than the line may take on the clock."""
    service = Service(tmp_path, start_new_session=True)
    remote = Remote(service.address)
    assert asking.work(remote, state(), Compute(seconds=1.0, takes=0.0), no_lines) == "computed"
    found = []
    job = Compute(seconds=0.2, takes=0.15)
    ask = Thread(lambda: found.append(asking.work(remote, state(), job, no_lines)))
    ask.is_over(0.03)
    os.killpg(service.process.pid, signal.SIGSTOP)
    threading.Timer(2.5, os.killpg, (service.process.pid, signal.SIGCONT)).start()
    ask.join()
    assert found == ["computed"]
    service.kill()
