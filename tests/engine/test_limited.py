"""A sheet in a process of its own goes on after a line that had to be ended."""

import json
import os
import signal
from contextlib import contextmanager, suppress

import pytest
from flint import arb, arb_series, ctx

from teapot.engine.limited.bounds import TimeIsUp, time_limit
from teapot.engine.limited.sheet import LimitedSheet, WantedLine
from teapot.engine.numbers.precision import precision, series_length


def answered(sheet, number, text):
    data = json.loads(sheet.answer(WantedLine(number, text, json=True)).text)
    return [a["text"] for a in data["answers"]] or data["error"]["code"]


def test_what_was_known_is_known_after_the_process_was_ended():
    with LimitedSheet() as sheet:
        assert answered(sheet, 1, "a = 7") == ["7"]
        assert sheet.answer(WantedLine(2, "/angle deg")).failed is False
        [drawn] = answered(sheet, 3, "r = random()")
        assert answered(sheet, 4, "f(x) = a*x") == ["f(x) = a*x"]
        pid = sheet._child.pid
        os.kill(pid, signal.SIGKILL)
        assert answered(sheet, 5, "sin(30)") == ["0.5"]
        assert answered(sheet, 6, "f(2)") == ["14"]
        assert answered(sheet, 7, "r") == [drawn]
        assert answered(sheet, 8, "@") == [drawn]


def divided_again_and_again(below):
    for _ in range(100_000):
        with suppress(ValueError):
            1 / below


def test_time_that_is_up_within_an_operation_of_flint_ends_the_work():
    """It took an error that came there for one of its own, of a division by nothing."""
    may_be_nought = arb_series([arb(0, 1), 1])
    for _ in range(60):
        with pytest.raises(TimeIsUp), time_limit(0.005):
            divided_again_and_again(may_be_nought)


def entered_and_left(block):
    for _ in range(1_000_000):
        with block():
            pass


def test_time_that_is_up_leaves_no_block_half_left():
    """The number of digits of one stayed, and later lines were computed with it."""
    inside = []

    @contextmanager
    def noted():
        inside.append(1)
        try:
            yield
        finally:
            inside.pop()

    before = ctx.prec, ctx.cap
    for block in (lambda: precision(100), lambda: series_length(3), noted):
        for _ in range(40):
            with pytest.raises(TimeIsUp), time_limit(0.003):
                entered_and_left(block)
            assert (ctx.prec, ctx.cap, inside) == (*before, [])
