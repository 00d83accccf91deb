"""A runaway input neither blocks nor kills the service."""

import os
import signal
import threading
from datetime import datetime

import pytest

from engine import Settings
from engine.limited.child import Broke, Child, Failed, Slow
from fence import worker
from fence.evaluators import Busy, Evaluators
from fence.jobs import Answer
from fence.worker import Behind, SheetLine, State

SETTINGS = Settings()
MOMENT = datetime(2026, 11, 25, 9, 30)


@pytest.fixture(scope="module")
def evaluators():
    pool = Evaluators(2)
    pool.warm()
    yield pool
    pool.stop()


def no_lines(revision):
    return ()


def answer_job(text, seconds=2.0, number=1, last=None):
    return Answer(seconds=seconds, number=number, text=text, last=last)


def state(sheet="a", revision=0, lines=None, since=0):
    return State(sheet, revision, SETTINGS, MOMENT, since, lines)


def test_an_answer_comes_through_the_fence(evaluators):
    outcome = evaluators.work(state(), answer_job("6+3/6+3"), no_lines)
    assert outcome.answers[0].text == "9.5"
    assert outcome.answers[0].reading_mathml


def test_an_evaluator_that_lacks_lines_gets_them(evaluators):
    sent = []

    def lines_since(revision):
        sent.append(revision)
        return (SheetLine(1, "x = 20", None), SheetLine(2, "y = x + 1", None))

    job = answer_job("x + y + @", number=3, last=2)
    for _ in range(2):
        outcome = evaluators.work(state("b", 2), job, lines_since)
        assert outcome.answers[0].text == "62"
    assert sent == [0]


def test_a_worker_says_how_far_behind_it_is():
    assert worker.work(state("c", 3), answer_job("1")) == Behind(0)
    lines = (SheetLine(1, "x = 5", None),)
    assert worker.work(state("c", 3, lines), answer_job("x", number=2)).answers[0].text == "5"
    assert worker.work(state("c", 4), answer_job("x")) == Behind(3)


def test_slow_python_is_interrupted_and_the_sheet_stays(evaluators):
    lines = tuple(SheetLine(n, f"x_{n} = sqrt({n})", None) for n in range(1, 1500))
    slow = "+".join(f"x_{n}" for n in range(1, 1000))
    outcome = evaluators.work(state("d", 1), answer_job(slow, 0.02), lambda revision: lines)
    assert outcome.error.code == "too-slow"
    outcome = evaluators.work(state("d", 1), answer_job("x_4*1"), lambda revision: lines)
    assert outcome.answers[0].text == "2"


def test_what_cannot_be_interrupted_is_ended_while_others_go_on(evaluators):
    def run_away():
        with pytest.raises(Slow):
            stuck.work(1.0)
        ended.set()

    stuck, ended = Child("tests.fence.jobs:stick"), threading.Event()
    evaluators.evaluators[0].child, before = stuck, evaluators.evaluators[0].child
    before.stop()
    thread = threading.Thread(target=run_away)
    with evaluators.evaluators[0].lock:
        thread.start()
        for sheet in ("e", "f", "g", "h"):
            outcome = evaluators.work(state(sheet), answer_job("1+1"), no_lines)
            assert outcome.answers[0].text == "2"
        thread.join()
    assert ended.is_set()
    stuck.stop()
    evaluators.evaluators[0].child = Child("fence.worker:work")
    for sheet in ("e", "f", "g", "h"):
        outcome = evaluators.work(state(sheet), answer_job("1+1"), no_lines)
        assert outcome.answers[0].text == "2"


def test_too_much_memory_is_an_error_and_the_next_line_is_answered():
    child = Child("tests.fence.jobs:hoard")
    with pytest.raises(Failed, match="MemoryError"):
        child.work(10)
    assert child.work(10, 1000) == 1000
    child.stop()


def test_a_process_that_ends_itself_over_its_work_is_replaced():
    child = Child("tests.fence.jobs:abort")
    with pytest.raises(Broke):
        child.work(10, True)
    assert child.work(10, False) == "done"
    child.stop()


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGSTOP, signal.SIGTERM])
@pytest.mark.parametrize("is_busy", [False, True])
def test_one_that_is_ended_or_stopped_from_outside_is_replaced(how, is_busy):
    child = Child("tests.fence.jobs:sleep")
    assert child.work(30, 0) == "slept"
    pid = child.pid
    if is_busy:
        threading.Timer(0.5, os.kill, (pid, how)).start()
    else:
        os.kill(pid, how)
    assert child.work(30, 1.5 if is_busy else 0) == "slept"
    assert child.pid != pid
    child.stop()


def test_all_evaluators_are_ended_or_stopped_and_the_next_line_is_answered(evaluators):
    for how in (signal.SIGKILL, signal.SIGSTOP):
        for sheet in ("m", "n", "o", "p"):
            evaluators.work(state(sheet), answer_job("1+1"), no_lines)
        for evaluator in evaluators.evaluators:
            os.kill(evaluator.child.pid, how)
        for sheet in ("m", "n", "o", "p"):
            outcome = evaluators.work(state(sheet), answer_job("20+1"), no_lines)
            assert outcome.answers[0].text == "21"


def test_one_that_is_ended_while_it_gets_its_lines_gets_them_all():
    pool = Evaluators(1)
    kept = (SheetLine(1, "x = 20", None), SheetLine(2, "y = x + 1", None))
    asked = []

    def lines_since(revision):
        asked.append(revision)
        if revision == 1:
            os.kill(pool.evaluators[0].child.pid, signal.SIGKILL)
        return kept[revision:]

    pool.work(state("e", 1), answer_job("x", number=2), lines_since)
    outcome = pool.work(state("e", 2), answer_job("x + y", number=3), lines_since)
    assert (outcome.answers[0].text, asked) == ("41", [0, 1, 0])
    pool.stop()


def test_no_wait_is_without_end(evaluators, monkeypatch):
    monkeypatch.setattr("fence.evaluators.LONGEST_WAIT", 0.5)
    with evaluators.evaluators[0].lock, evaluators.evaluators[1].lock, pytest.raises(Busy):
        evaluators.work(state("q"), answer_job("1"), no_lines)


def test_an_evaluator_that_fails_gives_an_error_and_goes_on(evaluators):
    broken = Answer(seconds=1.0, number="no number", text="1", last="no number")
    outcome = evaluators.work(state("j"), broken, no_lines)
    assert outcome.error.code == "unforeseen"
    assert evaluators.work(state("j"), answer_job("2*3"), no_lines).answers[0].text == "6"


def test_changed_and_deleted_lines_reach_an_evaluator_that_has_the_sheet(evaluators):
    first = (SheetLine(1, "a = 1", None, 1.0), SheetLine(2, "b = a + 1", 1, 2.0))
    job = answer_job("b*10", number=9)
    outcome = evaluators.work(state("k", 2), job, lambda revision: first)
    assert outcome.answers[0].text == "20"
    mended = (SheetLine(1, "a = 5", None, 1.0),)
    outcome = evaluators.work(state("k", 3), job, lambda revision: mended)
    assert outcome.answers[0].text == "60"
    gone = (SheetLine(2, "b = a + 1", 1, 2.0, True),)
    outcome = evaluators.work(state("k", 4), job, lambda revision: gone)
    assert outcome.error.code == "unknown-name"


def test_settings_are_those_of_the_request(evaluators):
    from engine.reading.forms import Form

    narrow = State("l", 0, Settings(form=Form(digits=3)), MOMENT)
    assert evaluators.work(narrow, answer_job("2/3"), no_lines).answers[0].text == "0.667"
    assert evaluators.work(state("l"), answer_job("2/3"), no_lines).answers[0].text == (
        "0.6666666667"
    )
