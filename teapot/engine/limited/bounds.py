"""The limits of time and memory, and how a process puts itself under them.

Time is processor time, which a busy machine does not use up: a line that is worked out in a second
is answered, however long it had to wait for that second.  After it is a limit on the clock for
what waits and does not compute.
"""

from __future__ import annotations

import gc
import itertools
import math
import resource
import signal
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from types import FrameType

from teapot.engine.errors import LineError
from teapot.engine.limits import MAX_RECURSION
from teapot.engine.numbers.precision import bits_now, precision, series_length, terms_now
from teapot.engine.sentences.work import (
    STARVED,
    STOPPED_BY_HAND,
    TOO_MUCH_MEMORY,
    TOO_SLOW,
    UNFORESEEN,
)

LINE_SECONDS = 4.0
"""Processor time for a line; on a quiet machine its answer or error is there within 5 s."""

PREVIEW_SECONDS = 0.25
"""Processor time for what is shown while typing."""

GRACE_SECONDS = 0.3
"""Processor time that a computation gets to notice that its own is up, before its process is
ended."""

READ_SECONDS = 0.2
"""Processor time for the reading alone of what there was no time to answer while it was typed."""

LOAD_SECONDS = 10
"""Processor time that is added when a process first has to read the lines of a sheet."""

CLOCK_FIRST, CLOCK_TIMES = 1.0, 5
"""Seconds on the clock for any work, and how many more for each second of processor time."""

LOOK_SECONDS = 0.25
"""How often it is looked how far work is.  Time on the clock is counted in such looks: while all
processes stand still, as with the lid of the machine closed, none of it goes by."""

MEMORY_BYTES = 1024**3
"""Address space of a process that works lines out."""

SPARE_SECONDS = 3
"""Processor time beyond that of its work after which a process ends itself, should
nobody be left to end it."""


COLLECT_AFTER = (50_000, 20, 50)
"""New objects after which Python looks for circles among them.  A list of 100,000 numbers is
made of objects without any, and looking through them again and again took half its time."""


def limit_process() -> None:
    """Puts this process under the limits of memory and depth."""
    gc.set_threshold(*COLLECT_AFTER)
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    sys.setrecursionlimit(MAX_RECURSION)


def on_the_clock(seconds: float) -> float:
    """How long work may take on the clock that may take so many ``seconds`` of processor time."""
    return CLOCK_FIRST + CLOCK_TIMES * seconds


def limit_processor(seconds: float) -> None:
    """Has the system end this process when its next piece of work takes far more
    processor time than ``seconds``, even within a single operation of a library."""
    most = math.ceil(time.process_time() + seconds + SPARE_SECONDS)
    resource.setrlimit(resource.RLIMIT_CPU, (most, resource.RLIM_INFINITY))


def too_slow(seconds: float) -> LineError:
    """The error for a line that used up its processor time."""
    return TOO_SLOW(seconds=seconds)


def starved(seconds: float) -> LineError:
    """The error for a line that did not get so many ``seconds`` of processor time, nor an end,
    within its time on the clock."""
    return STARVED(seconds=on_the_clock(seconds))


def too_much_memory() -> LineError:
    """The error for a line that wanted more memory than there is for it."""
    return TOO_MUCH_MEMORY()


def unforeseen() -> LineError:
    """The error for a line that Teapot itself fails on."""
    return UNFORESEEN()


def stopped() -> LineError:
    """The error for what the person stopped."""
    return STOPPED_BY_HAND()


class TimeIsUp(Exception):
    """The computation at hand has to stop.

    It is no :class:`LineError`, since it says nothing of the line it happens in:
    the engine may be working out another one that the line asked for needs.
    """

    def error(self, seconds: float) -> LineError:
        """The error of work that may take so many ``seconds`` of processor time."""
        return too_slow(seconds)


class ClockIsUp(TimeIsUp):
    """The computation at hand took too long on the clock, though it had processor time left."""

    def error(self, seconds: float) -> LineError:
        return starved(seconds)


class Stopped(TimeIsUp):
    """The person wants the computation at hand to stop."""

    def error(self, seconds: float) -> LineError:
        return stopped()


STOP = signal.SIGUSR1
"""Sent to a process that is to stop what it does; it keeps what it knows."""

REASONS: dict[int, type[TimeIsUp]] = {
    signal.SIGPROF: TimeIsUp,
    signal.SIGALRM: ClockIsUp,
    STOP: Stopped,
}
"""The signals that stop a computation: its processor time is up, its time on the clock is, or the
person wants it."""


COMPILED, ENTERS_OR_LEAVES = ".pyx", frozenset({"__enter__", "__exit__"})
"""Where no computation is stopped: within an operation of FLINT, which takes an error that comes
there for one of its own; and while a block is entered or left, since what it changed, as the number
of digits that is computed with, would not be put back."""

AGAIN_SECONDS = 0.001
"""After how much processor time it is tried again."""

LOOKED_UP = 6
"""Calls above the place at hand that are looked through."""


def _is_between(frame: FrameType | None) -> bool:
    """Whether something would be left undone or lost, were the computation stopped here."""
    if frame is not None and frame.f_code.co_filename.endswith(COMPILED):
        return True
    for _ in range(LOOKED_UP):
        if frame is None:
            return False
        if frame.f_code.co_name in ENTERS_OR_LEAVES:
            return True
        frame = frame.f_back
    return False


@contextmanager
def time_limit(seconds: float) -> Iterator[None]:
    """Raises :class:`TimeIsUp` in the block when it takes more processor time than ``seconds``,
    :class:`ClockIsUp` when it takes far longer than that on the clock, and :class:`Stopped` when
    the process is told to stop it: one of them, once, so that what is there by then can be given.

    It is noticed between two steps of Python; the time that a single operation
    of a library takes is limited by the end of the process.
    """

    looks = itertools.count(1)
    late: list[int] = []

    def interrupt(signum: int, frame: FrameType | None) -> None:
        if signum == signal.SIGALRM and next(looks) * LOOK_SECONDS < on_the_clock(seconds):
            return
        if _is_between(frame):
            late.append(signum)
            signal.setitimer(signal.ITIMER_PROF, AGAIN_SECONDS)
            return
        _disarm()
        raise REASONS[late[0] if late else signum]

    previous = {signum: signal.signal(signum, interrupt) for signum in REASONS}
    signal.setitimer(signal.ITIMER_PROF, seconds)
    signal.setitimer(signal.ITIMER_REAL, LOOK_SECONDS, LOOK_SECONDS)
    with precision(bits_now()), series_length(terms_now()):  # put back, whatever was stopped
        try:
            yield
        finally:
            _disarm()
            for signum, handler in previous.items():
                signal.signal(signum, handler)


def _disarm() -> None:
    """Nothing interrupts the computation at hand any more."""
    signal.signal(STOP, signal.SIG_IGN)
    signal.setitimer(signal.ITIMER_PROF, 0)
    signal.setitimer(signal.ITIMER_REAL, 0)
