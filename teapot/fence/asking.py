"""Having work done on a sheet, as the web process asks for it."""

from __future__ import annotations

import atexit
import logging
import os
import pickle
import threading
import time
from collections.abc import Callable
from contextvars import ContextVar
from dataclasses import replace
from typing import Protocol, TypeVar, cast

from teapot.engine.limited.bounds import starved, too_much_memory, too_slow, unforeseen
from teapot.engine.limited.child import Broke, Failed, Interrupted, Late, Slow
from teapot.fence.evaluators import Evaluators, Exchanges
from teapot.fence.jobs import BeReady, Job
from teapot.fence.lines import Part, SyncPosition
from teapot.fence.notes import NEEDS_SYNC
from teapot.fence.remote import SOCKET, Remote
from teapot.fence.turns import NOBODY, Client, PartlyRead
from teapot.fence.worker import NeedsSync, RefusedJob, ShelfState, State

T = TypeVar("T")

logger = logging.getLogger(__name__)

MOST_SENDINGS = 4
"""How often a job is sent: an evaluator that lacks lines says so, and one that takes its
place in between lacks all of them."""

READY = BeReady()

WHILE_TYPING, FOR_ALL_ELSE = 1.0, 8.0
"""Seconds in which a sheet is read before the work on it is put off: what is typed is of no use for
as long as a change or the list of quantities."""

LinesSince = Callable[[SyncPosition], Part]
"""Gives lines of a sheet that come after what was reached: all, or a part of them."""

ShelfNow = Callable[[], ShelfState]
"""Gives what is on the shelf of the sheet's owner."""

client: ContextVar[Client] = ContextVar("asker", default=NOBODY)
"""Who is behind the request at hand."""


class EvaluatorBackend(Protocol):
    """What does the work: evaluators of this process, or the service of all processes."""

    def begin(self, sheet: str, client: Client = NOBODY, gives_way: bool = False) -> Exchanges: ...

    def interrupt(self, sheet: str) -> None: ...

    def warm(self) -> None: ...

    def stop(self) -> None: ...


def work(
    by: EvaluatorBackend,
    state: State,
    job: Job[T],
    lines_since: LinesSince,
    shelf_now: ShelfNow = ShelfState,
) -> T | RefusedJob | None:
    """Does ``job``, sending the sheet's lines and the shelf where the evaluator lacks them.

    Errors: :class:`teapot.fence.turns.EvaluatorsBusy`, :class:`teapot.fence.turns.PartlyRead`,
    :class:`teapot.fence.turns.Overtaken`, :class:`teapot.fence.turns.Slowed`.
    """
    session = by.begin(state.sheet, client.get(), job.gives_way)
    longest = WHILE_TYPING if job.gives_way else FOR_ALL_ELSE
    try:
        for _ in range(MOST_SENDINGS):
            note, data = session.exchange(job.seconds, pickle.dumps((state, job)))
            result = pickle.loads(data)  # noqa: S301 - of our own evaluator
            if note != NEEDS_SYNC:
                return cast(T, result)
            _make_ready(session, state, result, lines_since, shelf_now, longest)
    except Slow:
        return job.failed(too_slow(job.seconds))
    except Late:
        return job.failed(starved(job.seconds))
    except Broke:
        return job.failed(too_much_memory())
    except Interrupted:
        logger.error("an evaluator was ended twice over a job: %s", type(job).__name__)
    except Failed as error:
        logger.error("a job failed: %s\n%s", type(job).__name__, error)
    finally:
        session.leave()
    return job.failed(unforeseen())


def _make_ready(
    session: Exchanges,
    state: State,
    behind: NeedsSync | None,
    lines_since: LinesSince,
    shelf_now: ShelfNow,
    longest: float,
) -> None:
    """Sends what the evaluator lacks, in parts.  Errors: :class:`PartlyRead` where there are
    more after so many seconds; those that were sent are there the next time."""
    deadline = time.monotonic() + longest
    while behind is not None:
        part = lines_since(behind.reached)
        lacking = replace(state, reached=behind.reached, lines=part.lines, upto=part.upto)
        if behind.lacks_shelf:
            lacking = replace(lacking, shelf=shelf_now())
        _, data = session.exchange(READY.seconds, pickle.dumps((lacking, READY)))
        behind = pickle.loads(data)  # noqa: S301 - of our own evaluator
        if behind is None or behind.reached == lacking.reached:  # ended in between
            return
        if part.upto is not None and time.monotonic() > deadline:
            raise PartlyRead(100 * part.upto // part.count)


_works: EvaluatorBackend | None = None
_starting = threading.Lock()


def evaluators(count: int) -> EvaluatorBackend:
    """What does the work for this process: the service, where one runs, else evaluators of its
    own, which are started at the first call."""
    global _works
    with _starting:
        if _works is None:
            socket = os.environ.get(SOCKET)
            _works = Remote(socket) if socket else Evaluators(count)
            atexit.register(_works.stop)
        return _works


def stop_evaluators() -> None:
    """Ends those that were started for this process: the next call starts others."""
    global _works
    with _starting:
        if _works is not None:
            _works.stop()
            _works = None
