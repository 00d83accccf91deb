"""The limits of time and memory, and how a process puts itself under them."""

from __future__ import annotations

import gc
import math
import resource
import signal
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager

from engine.errors import LineError, StoppedByHand, TooMuchMemory, TooSlow, Unforeseen
from engine.limits import MAX_RECURSION

LINE_SECONDS = 4.0
"""Time for a line; its answer or error reaches the person within 5 s."""

PREVIEW_SECONDS = 0.25
"""Time for what is shown while typing."""

GRACE_SECONDS = 0.3
"""What a computation gets to notice that its time is up before its process is ended."""

LOAD_SECONDS = 10
"""What is added when a process first has to read the lines of a sheet."""

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


def limit_processor(seconds: float) -> None:
    """Has the system end this process when its next piece of work takes far more
    processor time than ``seconds``, even within a single operation of a library."""
    most = math.ceil(time.process_time() + seconds + SPARE_SECONDS)
    resource.setrlimit(resource.RLIMIT_CPU, (most, resource.RLIM_INFINITY))


def too_slow(seconds: float) -> LineError:
    """The error for a line that ran over its time."""
    return TooSlow(seconds=seconds)


def too_much_memory() -> LineError:
    """The error for a line that wanted more memory than there is for it."""
    return TooMuchMemory()


def unforeseen() -> LineError:
    """The error for a line that Teapot itself fails on."""
    return Unforeseen()


def stopped() -> LineError:
    """The error for what the person stopped."""
    return StoppedByHand()


class TimeIsUp(Exception):
    """The computation at hand has to stop.

    It is no :class:`LineError`, since it says nothing of the line it happens in:
    the engine may be working out another one that the line asked for needs.
    """


class Stopped(TimeIsUp):
    """The person wants the computation at hand to stop."""


STOP = signal.SIGUSR1
"""Sent to a process that is to stop what it does; it keeps what it knows."""


@contextmanager
def time_limit(seconds: float) -> Iterator[None]:
    """Raises :class:`TimeIsUp` in the block when it takes longer, and :class:`Stopped` when the
    process is told to stop it.

    It is noticed between two steps of Python; the time that a single operation
    of a library takes is limited by the end of the process.
    """

    def interrupt(signum: int, frame: object) -> None:
        raise TimeIsUp

    def stop(signum: int, frame: object) -> None:
        signal.signal(STOP, signal.SIG_IGN)  # once: what is there by then has to be given
        raise Stopped

    previous = signal.signal(signal.SIGALRM, interrupt), signal.signal(STOP, stop)
    signal.setitimer(signal.ITIMER_REAL, seconds)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, previous[0])
        signal.signal(STOP, previous[1])
