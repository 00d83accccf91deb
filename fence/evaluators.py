"""The evaluators, as the web process uses them."""

from __future__ import annotations

import atexit
import logging
import multiprocessing
import threading
from collections.abc import Callable
from concurrent.futures import TimeoutError as TooSlow
from dataclasses import replace
from typing import Any
from zlib import crc32

from pebble import ProcessExpired, ProcessPool

from fence.limits import GRACE_SECONDS, LOAD_SECONDS, too_much_memory, too_slow, unforeseen
from fence.worker import Behind, Job, SheetLine, State, failed, start, work

logger = logging.getLogger(__name__)

WAIT_SECONDS = 0.4
"""How long a sheet waits for the evaluator that has it, before it takes another."""

LinesSince = Callable[[int], tuple[SheetLine, ...]]
"""Gives the lines of a sheet that came after a revision."""


class Evaluator:
    """One process at a time; a new one is started when it had to be ended."""

    def __init__(self) -> None:
        self.lock = threading.Lock()
        self.pool = ProcessPool(
            max_workers=1, initializer=start, context=multiprocessing.get_context("spawn")
        )

    def work(self, state: State, job: Job) -> Any:
        """The job's result, or what it gives where the process had to be ended."""
        seconds = job.seconds + GRACE_SECONDS + (LOAD_SECONDS if state.lines else 0)
        future = self.pool.schedule(work, args=[state, job], timeout=seconds)
        try:
            return future.result()
        except TooSlow:
            return failed(job, too_slow(job.seconds))
        except ProcessExpired:
            return failed(job, too_much_memory())
        except Exception:
            logger.exception("a job failed: %s", job.kind)
            return failed(job, unforeseen())


class Evaluators:
    """A few evaluators.  A sheet goes to the same one while that is free, since it
    has the sheet in memory; a busy one never makes another sheet wait."""

    def __init__(self, count: int) -> None:
        self.evaluators = [Evaluator() for _ in range(count)]

    def work(self, state: State, job: Job, lines_since: LinesSince) -> Any:
        """Does ``job``, sending the sheet's lines where the evaluator lacks them."""
        evaluator = self._take(state.sheet)
        try:
            result = evaluator.work(state, job)
            if isinstance(result, Behind):
                lines = lines_since(result.revision)
                state = replace(state, since=result.revision, lines=lines)
                result = evaluator.work(state, job)
            return result
        finally:
            evaluator.lock.release()

    def warm(self) -> None:
        """Starts all processes now, so that nobody waits for one later."""
        for evaluator in self.evaluators:
            evaluator.pool.schedule(start)

    def _take(self, sheet: str) -> Evaluator:
        first = crc32(sheet.encode()) % len(self.evaluators)
        if self.evaluators[first].lock.acquire(timeout=WAIT_SECONDS):
            return self.evaluators[first]
        for evaluator in self.evaluators[first + 1 :] + self.evaluators[:first]:
            if evaluator.lock.acquire(blocking=False):
                return evaluator
        self.evaluators[first].lock.acquire()
        return self.evaluators[first]

    def stop(self) -> None:
        """Ends all processes."""
        for evaluator in self.evaluators:
            evaluator.pool.stop()
            evaluator.pool.join()


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
