"""A runaway input neither blocks nor kills the service."""

import os
import signal
import threading
from contextlib import contextmanager, suppress
from datetime import datetime
from pathlib import Path

import pytest

from teapot.engine import Settings
from teapot.engine.limited import child as child_process
from teapot.engine.limited.child import Broke, Child, Failed, Slow
from teapot.fence import asking, worker
from teapot.fence.change_jobs import Enter
from teapot.fence.evaluators import Evaluators
from teapot.fence.lines import Part, SheetLine, SyncPosition
from teapot.fence.turns import FREE_HITS, NOBODY, Client, EvaluatorsBusy, PartlyRead, Slowed
from teapot.fence.worker import NeedsSync, State
from tests.fence.jobs import Answer
from tests.threads import Thread

SETTINGS = Settings()
ENDLESS = "f(x) = if(x > 0, f(x - 1) + f(x - 1), 1); f(200)"
MOMENT = datetime(2026, 11, 25, 9, 30)


@pytest.fixture(scope="module")
def evaluators():
    pool = Evaluators(2)
    pool.warm()
    yield pool
    pool.stop()


@pytest.fixture(autouse=True)
def nobody_asks():
    """Whoever was behind the last request of another test is not after these."""
    asking.client.set(NOBODY)


def no_lines(reached):
    return Part()


@contextmanager
def taken(evaluators, sheet):
    """One of the evaluators is at work on something else."""
    ticket = evaluators.turns.take(sheet)
    try:
        yield ticket.at
    finally:
        evaluators.turns.give_back(ticket)


def answer_job(text, seconds=20.0, number=1, last=None):
    return Answer(seconds=seconds, number=number, text=text, last=last)


def state(sheet="a", revision=0, lines=None, since=0):
    return State(sheet, revision, SETTINGS, MOMENT, SyncPosition(since), lines)


def test_an_answer_comes_through_the_fence(evaluators):
    outcome = asking.work(evaluators, state(), answer_job("6+3/6+3"), no_lines)
    assert outcome.answers[0].text == "9.5"
    assert outcome.answers[0].reading_mathml


def test_an_evaluator_that_lacks_lines_gets_them(evaluators):
    sent = []

    def lines_since(reached):
        sent.append(reached.revision)
        return Part((SheetLine(1, "x = 20", None), SheetLine(2, "y = x + 1", None)))

    job = answer_job("x + y + @", number=3, last=2)
    for _ in range(2):
        outcome = asking.work(evaluators, state("b", 2), job, lines_since)
        assert outcome.answers[0].text == "62"
    assert sent == [0]


def test_a_worker_says_how_far_behind_it_is():
    assert worker.work(state("c", 3), answer_job("1")) == NeedsSync(SyncPosition())
    lines = (SheetLine(1, "x = 5", None),)
    assert worker.work(state("c", 3, lines), answer_job("x", number=2)).answers[0].text == "5"
    assert worker.work(state("c", 4), answer_job("x")) == NeedsSync(SyncPosition(3))


def test_slow_python_is_interrupted_and_the_sheet_stays(evaluators, patient):
    lines = tuple(SheetLine(n, f"x_{n} = sqrt({n})", None) for n in range(1, 1500))
    slow = "+".join(f"x_{n}" for n in range(1, 1000))
    outcome = asking.work(
        evaluators, state("d", 1), answer_job(slow, 0.02), lambda reached: Part(lines)
    )
    assert outcome.error.code == "too-slow"
    outcome = asking.work(
        evaluators, state("d", 1), answer_job("x_4*1"), lambda reached: Part(lines)
    )
    assert outcome.answers[0].text == "2"


def test_what_cannot_be_interrupted_is_ended_while_others_go_on(evaluators):
    def run_away():
        with pytest.raises(Slow):
            stuck.work(1.0)

    stuck = Child("tests.fence.jobs:stick")
    evaluators.children[0], before = stuck, evaluators.children[0]
    before.stop()
    with taken(evaluators, "stuck"):
        runaway = Thread(run_away)
        for sheet in ("e", "f", "g", "h"):
            outcome = asking.work(evaluators, state(sheet), answer_job("1+1"), no_lines)
            assert outcome.answers[0].text == "2"
        runaway.join()
    stuck.stop()
    evaluators.children[0] = Child("teapot.fence.worker:noted")
    for sheet in ("e", "f", "g", "h"):
        outcome = asking.work(evaluators, state(sheet), answer_job("1+1"), no_lines)
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


def test_one_that_is_stopped_before_it_has_taken_large_work_is_replaced(monkeypatch):
    monkeypatch.setattr(child_process, "STALLED_SECONDS", 1.0)
    child = Child("builtins:len")
    assert child.work(30, "1") == 1
    pid = child.pid
    os.kill(pid, signal.SIGSTOP)
    assert child.work(30, "1" * 2**22) == 2**22  # more than the line to it holds
    assert child.pid != pid
    child.stop()


def test_work_has_its_time_from_when_it_is_begun(monkeypatch):
    """A process that the system lets wait is not taken for one that runs over."""
    monkeypatch.setattr(child_process, "MOST_STILL", 3600)  # that it stands still is no matter
    child = Child("tests.fence.jobs:sleep")
    assert child.work(30, 0) == "slept"
    pid = child.pid
    os.kill(pid, signal.SIGSTOP)
    threading.Timer(1.0, os.kill, (pid, signal.SIGCONT)).start()
    assert child.work(0.5, 0) == "slept"
    assert child.pid == pid
    child.stop()


def test_all_evaluators_are_ended_or_stopped_and_the_next_line_is_answered(evaluators):
    for how in (signal.SIGKILL, signal.SIGSTOP):
        for sheet in ("m", "n", "o", "p"):
            asking.work(evaluators, state(sheet), answer_job("1+1"), no_lines)
        for child in evaluators.children:
            child.start()
            with suppress(ProcessLookupError):  # one that has just been ended
                os.kill(child.pid, how)
        for sheet in ("m", "n", "o", "p"):
            outcome = asking.work(evaluators, state(sheet), answer_job("20+1"), no_lines)
            assert outcome.answers[0].text == "21"


def test_the_process_they_are_forked_from_is_ended_with_them_and_the_next_line_is_answered(
    evaluators,
):
    asking.work(evaluators, state("t"), answer_job("1+1"), no_lines)
    pids = [child.pid for child in evaluators.children]
    stat = Path(f"/proc/{pids[0]}/stat").read_text()
    for pid in (int(stat.rpartition(")")[2].split()[1]), *pids):
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    outcome = asking.work(evaluators, state("t"), answer_job("20+1"), no_lines)
    assert outcome.answers[0].text == "21"


def test_one_that_is_ended_while_it_gets_its_lines_gets_them_all():
    pool = Evaluators(1)
    kept = (SheetLine(1, "x = 20", None), SheetLine(2, "y = x + 1", None))
    asked = []

    def lines_since(reached):
        asked.append(reached.revision)
        if reached.revision == 1:
            os.kill(pool.children[0].pid, signal.SIGKILL)
        return Part(kept[reached.revision :])

    asking.work(pool, state("e", 1), answer_job("x", number=2), lines_since)
    outcome = asking.work(pool, state("e", 2), answer_job("x + y", number=3), lines_since)
    assert (outcome.answers[0].text, asked) == ("41", [0, 1, 0])
    pool.stop()


def test_no_wait_is_without_end(evaluators, monkeypatch):
    monkeypatch.setattr("teapot.fence.turns.LONGEST_WAIT", 0.5)
    with taken(evaluators, "r"), taken(evaluators, "s"), pytest.raises(EvaluatorsBusy):
        asking.work(evaluators, state("q"), answer_job("1"), no_lines)


def test_an_evaluator_that_fails_gives_an_error_and_goes_on(evaluators):
    broken = Answer(seconds=1.0, number="no number", text="1", last="no number")
    outcome = asking.work(evaluators, state("j"), broken, no_lines)
    assert outcome.error.code == "unforeseen"
    assert asking.work(evaluators, state("j"), answer_job("2*3"), no_lines).answers[0].text == "6"


def test_changed_and_deleted_lines_reach_an_evaluator_that_has_the_sheet(evaluators):
    first = (SheetLine(1, "a = 1", None, 1.0), SheetLine(2, "b = a + 1", 1, 2.0))
    job = answer_job("b*10", number=9)
    outcome = asking.work(evaluators, state("k", 2), job, lambda reached: Part(first))
    assert outcome.answers[0].text == "20"
    mended = (SheetLine(1, "a = 5", None, 1.0),)
    outcome = asking.work(evaluators, state("k", 3), job, lambda reached: Part(mended))
    assert outcome.answers[0].text == "60"
    gone = (SheetLine(2, "b = a + 1", 1, 2.0, True),)
    outcome = asking.work(evaluators, state("k", 4), job, lambda reached: Part(gone))
    assert outcome.error.code == "unknown-name"


def test_settings_are_those_of_the_request(evaluators):
    from teapot.engine.reading.forms import Form

    narrow = State("l", 0, Settings(form=Form(digits=3)), MOMENT)
    assert asking.work(evaluators, narrow, answer_job("2/3"), no_lines).answers[0].text == "0.667"
    assert asking.work(evaluators, state("l"), answer_job("2/3"), no_lines).answers[0].text == (
        "0.6666666667"
    )


def test_a_long_sheet_is_read_in_parts_and_gone_on_with(evaluators, monkeypatch):
    monkeypatch.setattr("teapot.fence.asking.FOR_ALL_ELSE", 0)
    lines = tuple(SheetLine(n, f"x_{n} = {n}", None, float(n)) for n in range(1, 8))
    asked = []

    def lines_after(reached):
        asked.append((reached.revision, reached.number))
        at = reached.number
        return Part(lines[at : at + 3], at + 3 if at + 3 < len(lines) else None, len(lines))

    for percent in (42, 85):
        with pytest.raises(PartlyRead) as reading:
            asking.work(
                evaluators, state("parts", 9), answer_job("x_1 + x_7", number=8), lines_after
            )
        assert reading.value.percent == percent
    outcome = asking.work(
        evaluators, state("parts", 9), answer_job("x_1 + x_7", number=8), lines_after
    )
    assert outcome.answers[0].text == "8"
    assert asked == [(0, 0), (0, 3), (0, 6)]


def test_what_changes_while_a_long_sheet_is_read_comes_behind_its_parts(evaluators, monkeypatch):
    monkeypatch.setattr("teapot.fence.asking.FOR_ALL_ELSE", 0)

    def lines_after(reached):
        if reached == SyncPosition(0, 1, 4):
            return Part((SheetLine(2, "b = 2", None, 2.0),))
        if reached == SyncPosition(4):
            return Part((SheetLine(1, "a = 50", None, 1.0),))
        return Part((SheetLine(1, "a = 1", None, 1.0),), 1, 2)

    with pytest.raises(PartlyRead):
        asking.work(evaluators, state("grows", 4), answer_job("a + b", number=3), lines_after)
    outcome = asking.work(evaluators, state("grows", 5), answer_job("a + b", number=3), lines_after)
    assert outcome.answers[0].text == "52"


def test_whoever_enters_lines_that_run_into_limits_is_slowed(evaluators, monkeypatch):
    """As lines are entered, and not only as they are typed."""
    monkeypatch.setattr(evaluators.turns, "clock", lambda: 0.0)  # no pause is over
    asking.client.set(Client("dora", "10.0.0.9"))
    try:
        for at in range(10 * FREE_HITS):  # what a busy machine starved is no hit
            job = Enter(seconds=0.1, number=1, text=ENDLESS, head=f"{at}", revision=1)
            try:
                assert asking.work(evaluators, state("limits"), job, no_lines).outcome.error
            except Slowed:
                break
        assert at >= FREE_HITS
        with pytest.raises(Slowed):
            asking.work(evaluators, state("limits"), answer_job("1"), no_lines)
    finally:
        asking.client.set(NOBODY)
