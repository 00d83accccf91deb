"""Everybody gets a fair share of the evaluators, whatever others send."""

import threading

import pytest

from teapot.fence import turns
from teapot.fence.turns import Client, EvaluatorsBusy, Overtaken, Slowed, Turns

ANNA, BEN, CARLA = (Client(name, "10.0.0.1") for name in ("anna", "ben", "carla"))


class Clock:
    """A clock that goes on a little whenever it is looked at, and is put forward by hand."""

    def __init__(self):
        self.now = 1000.0

    def __call__(self):
        self.now += 0.01
        return self.now


@pytest.fixture
def clock():
    return Clock()


def in_thread(wanted):
    """Takes a turn in a thread of its own; what came of it, when it has come."""
    came = []

    def take():
        try:
            came.append(wanted())
        except Exception as error:
            came.append(error)

    thread = threading.Thread(target=take, daemon=True)
    thread.start()
    came_of = lambda: (thread.join(10), came[0])[1]  # noqa: E731
    return thread, came_of


def wait_until(has_come):
    done = threading.Event()
    for _ in range(1000):
        if has_come():
            return
        done.wait(0.005)
    raise AssertionError("it did not come")


def test_one_person_has_one_evaluator_and_the_next_person_another():
    of = Turns(2)
    first = of.take("a", ANNA)
    _, second = in_thread(lambda: of.take("b", ANNA))
    wait_until(lambda: len(of._waiting) == 1)
    other = of.take("c", BEN)
    assert {first.at, other.at} == {0, 1}
    of.give_back(first)
    assert second().client == ANNA


def test_who_waited_longest_for_a_turn_is_next():
    of = Turns(1)
    first = of.take("a", ANNA)
    _, again = in_thread(lambda: of.take("a", ANNA))
    wait_until(lambda: len(of._waiting) == 1)
    _, other = in_thread(lambda: of.take("b", BEN))
    wait_until(lambda: len(of._waiting) == 2)
    of.give_back(first)
    ben = other()
    assert ben.at == 0
    of.give_back(ben)
    assert again().at == 0


def test_a_preview_that_a_newer_key_overtook_is_dropped():
    of = Turns(1)
    first = of.take("x", BEN)
    _, older = in_thread(lambda: of.take("a", ANNA, gives_way=True))
    wait_until(lambda: len(of._waiting) == 1)
    _, line = in_thread(lambda: of.take("a", ANNA))
    wait_until(lambda: len(of._waiting) == 2)
    _, newer = in_thread(lambda: of.take("a", ANNA, gives_way=True))
    assert isinstance(older(), Overtaken)
    of.give_back(first)
    found = line()
    of.give_back(found)
    assert newer().at == 0


def test_a_sheet_goes_to_the_evaluator_that_has_it_and_moves_where_that_is_busy():
    of = Turns(2)
    first = of.take("a")
    home = first.at
    second = of.take("a")
    assert second.at != home
    of.give_back(first)
    of.give_back(second)
    assert of.take("a").at == second.at


def test_few_of_one_person_wait(monkeypatch):
    monkeypatch.setattr(turns, "MOST_WAITING", 2)
    of = Turns(1)
    first = of.take("a", ANNA)
    waiting = [in_thread(lambda: of.take("a", ANNA))[1] for _ in range(2)]
    wait_until(lambda: len(of._waiting) == 2)
    with pytest.raises(EvaluatorsBusy):
        of.take("a", ANNA)
    of.give_back(first)
    for _ in waiting:
        wait_until(lambda: of._running)
        of.give_back(next(iter(of._running.values())))


def test_who_runs_into_limits_again_and_again_is_slowed_and_told_so(clock):
    of = Turns(2, clock)
    for _ in range(turns.FREE_HITS):
        of.give_back(of.take("a", ANNA), was_at_limit=True)
    with pytest.raises(Slowed) as said:
        of.take("a", ANNA)
    assert said.value.seconds == pytest.approx(1, abs=0.2)
    assert of.take("a", ANNA, gives_way=True)  # what is typed is read all the same
    clock.now += 1.1
    second = Turns(2, clock)
    second._hits = of._hits
    second.give_back(second.take("a", ANNA), was_at_limit=True)
    with pytest.raises(Slowed) as said:
        second.take("a", ANNA)
    assert said.value.seconds == pytest.approx(2, abs=0.2)
    clock.now += turns.REMEMBERED + 1
    assert second.take("a", ANNA)


def test_those_who_run_into_limits_never_have_all_evaluators(clock):
    of = Turns(2, clock)
    typed_for_a_while(of, clock, CARLA)
    for one in (ANNA, BEN):
        of.give_back(of.take(one.person, one), was_at_limit=True)
    anna = of.take("anna", ANNA)
    _, ben = in_thread(lambda: of.take("ben", BEN))
    wait_until(lambda: len(of._waiting) == 1)
    carla = of.take("carla", CARLA)
    assert {anna.at, carla.at} == {0, 1}
    of.give_back(carla)
    of.give_back(anna)
    assert ben().client == BEN


def at_limit(of, name, address):
    """A runaway line of somebody."""
    of.give_back(of.take(name, Client(name, address)), was_at_limit=True)


def typed_for_a_while(of, clock, client):
    for _ in range(turns.PROVEN_BY):
        clock.now += turns.PROVEN_AFTER / turns.PROVEN_BY
        of.give_back(of.take(client.person, client, gives_way=True))
    clock.now += 1


def test_a_new_guest_for_each_runaway_line_does_not_escape(clock):
    of = Turns(2, clock, aside=True)
    room = "10.0.0.9"
    pupil = Client("pupil", room)
    typed_for_a_while(of, clock, pupil)
    for name in ("d", "e"):
        at_limit(of, name, room)
    for name in ("f", "g", "h"):  # each new: it has the one aside, however many they are
        ticket = of.take(name, Client(name, room))
        assert ticket.at in of.aside
        of.give_back(ticket, was_at_limit=True)
    first = of.take("i", Client("i", room))
    assert first.at in of.aside
    assert of.take("pupil", pupil).at not in of.aside  # at the same address, and not slowed
    assert of.take("carla", CARLA).at not in of.aside


def test_somebody_new_where_others_ran_into_limits_begins_at_the_back(clock):
    of = Turns(1, clock)
    room = "10.0.0.9"
    for name in ("d", "e"):
        at_limit(of, name, room)
    running = of.take("carla", CARLA)
    _, new = in_thread(lambda: of.take("n", Client("n", room)))
    wait_until(lambda: len(of._waiting) == 1)
    _, ben = in_thread(lambda: of.take("ben", BEN))
    wait_until(lambda: len(of._waiting) == 2)
    of.give_back(running)
    assert ben().client == BEN  # though the other was there first
    of.give_back(of._running[0])
    assert new().client.person == "n"


def test_of_those_who_are_new_whoever_typed_more_comes_first(clock):
    of = Turns(1, clock, aside=True)
    room = "10.0.0.9"
    for name in ("d", "e"):
        at_limit(of, name, room)
    pupil = Client("pupil", room)
    for _ in range(3):
        of.give_back(of.take("pupil", pupil, gives_way=True))
    running = of.take("f", Client("f", room))  # the one aside
    _, other = in_thread(lambda: of.take("g", Client("g", room)))
    wait_until(lambda: len(of._waiting) == 1)
    _, kept = in_thread(lambda: of.take("pupil", pupil))
    wait_until(lambda: len(of._waiting) == 2)
    of.give_back(running, was_at_limit=True)
    ticket = kept()
    assert ticket.client == pupil
    of.give_back(ticket)
    assert other().client.person == "g"


def test_what_somebody_new_types_is_read_where_that_of_all_is(clock):
    of = Turns(2, clock, aside=True)
    room = "10.0.0.9"
    for name in ("d", "e"):
        at_limit(of, name, room)
    new = Client("n", room)
    typing = of.take("n", new, gives_way=True)
    assert typing.at not in of.aside
    of.give_back(typing)
    typed_for_a_while(of, clock, new)
    assert of.take("n", new).at not in of.aside


def test_a_sheet_that_moved_goes_back_where_its_own_evaluator_is_free_again(clock):
    of = Turns(2, clock)
    first = of.take("a")
    clock.now += 1
    second = of.take("a")
    of.give_back(first)
    of.give_back(second)
    assert of.take("a").at == second.at
    of.give_back(of._running[second.at])
    clock.now += turns.MOVED_SECONDS
    assert of.take("a").at == first.at


def test_who_runs_into_limits_is_set_aside_for_a_while(clock):
    of = Turns(1, clock, aside=True)
    assert of.take("a", ANNA).at == 0
    of.give_back(of._running[0], was_at_limit=True)
    aside = of.take("a", ANNA)
    assert aside.at == 1
    ben = of.take("b", BEN)  # at the same address
    assert ben.at == 0
    of.give_back(ben)
    of.give_back(aside)
    clock.now += turns.REMEMBERED
    assert of.take("a", ANNA).at == 0
