"""A process that does one piece of work after another.

The parent waits for a result no longer than the work may take.  A process that runs
over, that was ended or that was stopped is replaced by a new one, whatever it was at:
nothing in it is worth more than the next result.  A new one is forked from a process that
has loaded what it needs, and is there in a few milliseconds.
"""

from __future__ import annotations

import contextlib
import gc
import importlib
import math
import multiprocessing
import os
import pickle
import select
import signal
import socket
import threading
import time
import traceback
from collections.abc import Callable
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerProcess
from pathlib import Path
from typing import Any, NamedTuple

from teapot.engine.limited.bounds import (
    GRACE_SECONDS,
    LOOK_SECONDS,
    STOP,
    limit_process,
    limit_processor,
    on_the_clock,
)
from teapot.engine.limited.envelope import Envelope
from teapot.engine.limited.messages import receive, send, timeval
from teapot.engine.limited.process_setup import set_process_name
from teapot.engine.limited.start_time import SharedStartTime

START_SECONDS = 120.0
"""How long a new process may take until it is ready for its first work, and any to begin it: a
hundred times what it takes on a quiet machine."""

FROM_OUTSIDE = frozenset({signal.SIGKILL, signal.SIGTERM, signal.SIGINT, signal.SIGHUP})
"""Signals that somebody else sent: the work itself is not to blame."""

UNKNOWN = 255
"""The exit code where the process that would tell it, from which all are forked, was ended too."""

STALLED_SECONDS = 30.0
"""How long the line to a process may stand still amid a message."""

EVALUATOR = "evaluator"
"""What such a process is called where processes are listed."""

READY = "ready"
"""Said by a new process."""

PAGES = os.sysconf("SC_PAGE_SIZE") / 2**20
"""Megabytes of a page of memory."""

TICKS = os.sysconf("SC_CLK_TCK")
"""In a second, of the clock by which the system tells how much processor time others have used."""


class Slow(Exception):
    """The work took more processor time than it may; its process was ended."""


class Late(Exception):
    """The work had processor time left when its time on the clock was up; its process was ended."""


class Broke(Exception):
    """The process ended itself over the work: as a rule it wanted too much memory."""


class Interrupted(Exception):
    """The process was ended or stopped from outside: the work can be done again."""


class Failed(Exception):
    """The work raised an error; the text is where."""


class Running(NamedTuple):
    """A process, the line to it, and when it began what it is at."""

    process: ForkServerProcess
    connection: Connection
    begun: SharedStartTime


_forked = multiprocessing.get_context("forkserver")

_forking = threading.Lock()
"""Whoever starts a process looks through those that have ended, as does whoever waits for one;
of two at once, one would not learn how a process ended."""


MOST_STARTS, BETWEEN_STARTS = 100, 0.02
"""How often a process is started, and after how many seconds again, while the one that it is forked
from has been ended and the system does not say so yet."""


def _start(process: ForkServerProcess) -> None:
    """Starts a process.  Errors: those of the connection to the one that it is forked from."""
    for _ in range(MOST_STARTS - 1):
        with contextlib.suppress(ConnectionError, EOFError):
            return process.start()
        time.sleep(BETWEEN_STARTS)
    return process.start()


class Child:
    """Does ``target``, a function named as ``module:function``, in a process of its own.

    Of two threads only one may use it at a time.
    """

    def __init__(self, target: str) -> None:
        self.target = target
        self._running: Running | None = None
        self._is_ready = False
        self._niceness = 0

    @property
    def pid(self) -> int | None:
        """The number of the process, None where there is none."""
        return self._running.process.pid if self._running else None

    def start(self) -> Running:
        """The process, which is started unless there is one; it is not waited for."""
        if self._running is not None:
            return self._running
        ours, theirs = socket.socketpair()
        for way in (socket.SO_SNDTIMEO, socket.SO_RCVTIMEO):
            ours.setsockopt(socket.SOL_SOCKET, way, timeval(STALLED_SECONDS))
        begun = SharedStartTime()
        with Connection(theirs.detach()) as handed:
            process = _forked.Process(target=run, args=(self.target, handed, begun), daemon=True)
            with _forking:
                _forked.set_forkserver_preload([__name__, self.target.partition(":")[0]])
                _start(process)
        self._running = Running(process, Connection(ours.detach()), begun)
        self._is_ready = False
        self.set_niceness(self._niceness)
        return self._running

    def set_niceness(self, niceness: int) -> None:
        """Has its processes wait for others from now on where the processors are busy, by so much;
        one that runs already can only be made to wait more."""
        self._niceness = niceness
        if self.pid is not None and niceness:
            with contextlib.suppress(OSError):
                os.setpriority(os.PRIO_PROCESS, self.pid, niceness)

    def interrupt(self) -> None:
        """Has the process stop the work at hand, which gives what it has by then."""
        if self.pid is not None and self._is_ready:  # before that it would end it
            with contextlib.suppress(ProcessLookupError):
                os.kill(self.pid, STOP)

    def stop(self) -> None:
        """Ends the process at once."""
        running, self._running = self._running, None
        if running is not None:
            running.connection.close()
            running.process.kill()
            _end_of(running.process)

    def work(self, seconds: float, *arguments: Any) -> Any:
        """The result of the work; it is done again where the process was interrupted.

        Errors: as :meth:`exchange`.
        """
        _, data = self.exchange(seconds, pickle.dumps(arguments))
        return pickle.loads(data)  # noqa: S301 - of our own process

    def once(self, seconds: float, *arguments: Any) -> Any:
        """The result of the work, which is not done again.  Errors: as :meth:`exchange`."""
        _, data = self._exchange(seconds, pickle.dumps(arguments))
        return pickle.loads(data)  # noqa: S301 - of our own process

    def exchange(self, seconds: float, arguments: bytes) -> tuple[str, bytes]:
        """The note and the result of the work on ``arguments``, which are pickled as the result
        is, and which may take so many ``seconds`` of processor time; it is done again where the
        process was interrupted.  After an error there is a new
        process, which knows nothing of what the one before it did.

        Errors: :class:`Slow`, :class:`Late`, :class:`Broke`, :class:`Interrupted`,
        :class:`Failed`.
        """
        try:
            return self._exchange(seconds, arguments)
        except Interrupted:  # somebody ended it: the work is not to blame
            return self._exchange(seconds, arguments)

    def _exchange(self, seconds: float, arguments: bytes) -> tuple[str, bytes]:
        """As :meth:`exchange`, which is not done again.

        Errors: those of :meth:`exchange`.
        """
        running = self.start()
        running.begun.forget()
        try:
            send(running.connection, (seconds, arguments))
            if not self._is_ready:
                _until_ready(running)
                self._is_ready = True
            is_done, note, result = _receive(running, seconds)
        except (EOFError, OSError):
            code = self._ended(running.process)
            if code == -signal.SIGXCPU:  # by :func:`limit_processor`
                raise Slow from None
            if running.begun.at and code != UNKNOWN and -code not in FROM_OUTSIDE:
                raise Broke from None
            raise Interrupted from None
        except BaseException:
            # also where the waiting thread itself is ended: what comes later is not for others
            self.stop()
            self.start()
            raise
        if not is_done:
            raise Failed(note)
        return note, result

    def megabytes(self) -> float:
        """The memory that the process has; 0 where there is none."""
        try:
            return int(Path(f"/proc/{self.pid}/statm").read_text().split()[1]) * PAGES
        except (OSError, IndexError):
            return 0

    def _ended(self, process: ForkServerProcess) -> int:
        """Takes leave of a process whose line has gone dead; its exit code."""
        _end_of(process, LOOK_SECONDS)
        self.stop()
        self.start()
        return UNKNOWN if process.exitcode is None else process.exitcode


def _end_of(process: ForkServerProcess, seconds: float | None = None) -> None:
    """Waits for the end of a process, so long at most."""
    with _forking:
        process.join(seconds)


def _until_ready(running: Running) -> None:
    """Waits for a new process.  Errors: :class:`Late`."""
    deadline = time.monotonic() + START_SECONDS
    while not readable(running.connection, LOOK_SECONDS):
        if time.monotonic() >= deadline:
            raise Late
    receive(running.connection)


def _receive(running: Running, seconds: float) -> Any:
    """What the process says next, after so many seconds of processor time at most.

    Errors: :class:`Slow`, :class:`Late`, :class:`Interrupted`.
    """
    left, waited, longest = seconds + GRACE_SECONDS, 0.0, START_SECONDS
    still, had_used = 0, 0.0
    while not readable(running.connection, min(LOOK_SECONDS, left)):
        state, used = _seen(running.process.pid or 0)
        if running.begun.at:
            left = seconds + GRACE_SECONDS - (used - running.begun.processor_time)
            if left <= 0:
                raise Slow
            longest = on_the_clock(seconds) + GRACE_SECONDS
            waited = min(waited + LOOK_SECONDS, time.monotonic() - running.begun.at)
        else:
            waited += LOOK_SECONDS
        if waited >= longest:
            raise Late
        still = still + 1 if state in STOPPED and used == had_used else 0
        if still == MOST_STILL:
            raise Interrupted
        had_used = used
    return receive(running.connection)


STOPPED = ("T", "t")
"""The states of a process that somebody has stopped: it will say nothing until it is told to go
on."""

MOST_STILL = 4
"""Looks at which a process is stopped and has done nothing since the look before, until it is
given up.  One that is only slowed down, by being stopped and let go on in turns, gets on."""


def _seen(pid: int) -> tuple[str, float]:
    """The state of a process and the processor time that it has used, in seconds."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    except OSError:
        return "", 0.0
    return fields[0], (int(fields[11]) + int(fields[12])) / TICKS


def readable(connection: Connection, seconds: float = 0) -> bool:
    """Whether there is something to read within so many seconds, or its end.

    As ``connection.poll``, which takes ten times as long to find out.
    """
    waiting = select.poll()
    waiting.register(connection.fileno(), select.POLLIN)
    return bool(waiting.poll(max(0, math.ceil(seconds * 1000))))


# -- inside the process ----------------------------------------------------------------


def serve(target: Callable[..., Any], connection: Connection, begun: SharedStartTime) -> None:
    """Does one piece of work after another, until nobody is left to ask for one."""
    send(connection, READY)
    while True:
        try:
            seconds, arguments = receive(connection)
        except (EOFError, OSError):
            return
        limit_processor(seconds)
        begun.now()
        try:
            result = target(*pickle.loads(arguments))  # noqa: S301 - of our own parent
            note = ""
            if isinstance(result, Envelope):
                note, result = result.note, result.result
            reply = True, note, pickle.dumps(result, pickle.HIGHEST_PROTOCOL)
        except Exception:
            reply = False, traceback.format_exc(), b""
        try:
            send(connection, reply)
        except OSError:
            return


def run(target: str, connection: Connection, begun: SharedStartTime) -> None:
    """What the process does, as :meth:`Child.start` starts it."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the parent takes leave of its own
    signal.signal(STOP, signal.SIG_IGN)  # between two pieces of work there is nothing to stop
    set_process_name(EVALUATOR)
    module, _, function = target.partition(":")
    work = getattr(importlib.import_module(module), function)
    gc.freeze()  # what is loaded stays, in memory shared with the others
    limit_process()
    with contextlib.suppress(BrokenPipeError):  # whoever started it was gone before it was there
        serve(work, connection, begun)
