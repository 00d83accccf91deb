"""The evaluators, as the web process uses them."""

from __future__ import annotations

import atexit
import logging
import threading
import time
from collections.abc import Callable
from dataclasses import replace
from typing import TypeVar, cast
from zlib import crc32

from engine.limited.bounds import (
    GRACE_SECONDS,
    LOAD_SECONDS,
    too_much_memory,
    too_slow,
    unforeseen,
)
from engine.limited.child import Broke, Child, Failed, Interrupted, Slow
from fence.jobs import Job
from fence.worker import Behind, Refused, SheetLine, ShelfState, State

T = TypeVar("T")

logger = logging.getLogger(__name__)

WAIT_SECONDS = 0.4
"""How long a sheet waits for the evaluator that has it, before it takes another."""

LONGEST_WAIT = 12.0
"""How long it waits for any: as long as two lines before it may take."""

MOST_SENDINGS = 4
"""How often a job is sent: an evaluator that lacks lines says so, and one that takes its
place in between lacks all of them."""

LinesSince = Callable[[int], tuple[SheetLine, ...]]
"""Gives the lines of a sheet that came after a revision."""

ShelfNow = Callable[[], ShelfState]
"""Gives what is on the shelf of the sheet's owner."""


class Busy(Exception):
    """No evaluator became free in time."""


class Evaluator:
    """One process at a time; whoever holds the ``lock`` may have work done by it."""

    def __init__(self) -> None:
        self.lock = threading.Lock()
        self.child = Child("fence.worker:work")

    def work(self, state: State, job: Job[T]) -> T | Behind | Refused | None:
        """The job's result, or what it gives where the process had to be ended."""
        seconds = job.seconds + GRACE_SECONDS + (LOAD_SECONDS if state.lines else 0)
        try:
            return cast(T, self.child.work(seconds, state, job))
        except Slow:
            return job.failed(too_slow(job.seconds))
        except Broke:
            return job.failed(too_much_memory())
        except Interrupted:
            logger.error("an evaluator was ended twice over a job: %s", type(job).__name__)
        except Failed as error:
            logger.error("a job failed: %s\n%s", type(job).__name__, error)
        return job.failed(unforeseen())


class Evaluators:
    """A few evaluators.  A sheet goes to the same one while that is free, since it
    has the sheet in memory; a busy one never makes another sheet wait."""

    def __init__(self, count: int) -> None:
        self.evaluators = [Evaluator() for _ in range(count)]

    def work(
        self, state: State, job: Job[T], lines_since: LinesSince, shelf_now: ShelfNow = ShelfState
    ) -> T | Refused | None:
        """Does ``job``, sending the sheet's lines and the shelf where the evaluator lacks them.

        Errors: :class:`Busy` where all evaluators are at work for long.
        """
        evaluator = self._take(state.sheet)
        try:
            for _ in range(MOST_SENDINGS):
                result = evaluator.work(state, job)
                if not isinstance(result, Behind):
                    return result
                lines = lines_since(result.revision)
                state = replace(state, since=result.revision, lines=lines)
                if result.lacks_shelf:
                    state = replace(state, shelf=shelf_now())
            return job.failed(unforeseen())
        finally:
            evaluator.lock.release()

    def warm(self) -> None:
        """Starts all processes now, so that nobody waits for one later."""
        for evaluator in self.evaluators:
            evaluator.child.start()

    def _take(self, sheet: str) -> Evaluator:
        first = crc32(sheet.encode()) % len(self.evaluators)
        if self.evaluators[first].lock.acquire(timeout=WAIT_SECONDS):
            return self.evaluators[first]
        deadline = time.monotonic() + LONGEST_WAIT
        while time.monotonic() < deadline:
            for evaluator in self.evaluators[first + 1 :] + self.evaluators[:first]:
                if evaluator.lock.acquire(blocking=False):
                    return evaluator
            if self.evaluators[first].lock.acquire(timeout=WAIT_SECONDS):
                return self.evaluators[first]
        raise Busy

    def stop(self) -> None:
        """Ends all processes."""
        for evaluator in self.evaluators:
            evaluator.child.stop()


_evaluators: Evaluators | None = None
_starting = threading.Lock()


def evaluators(count: int) -> Evaluators:
    """The evaluators of this process, started at the first call."""
    global _evaluators
    with _starting:
        if _evaluators is None:
            _evaluators = Evaluators(count)
            atexit.register(_evaluators.stop)
        return _evaluators
