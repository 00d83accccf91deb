"""The evaluators of all web processes, as one of these reaches them: through a Unix socket.

Each thread has a connection of its own.  A service that has ended is started again within a
moment: the work is sent again then.
"""

from __future__ import annotations

import contextlib
import socket
import threading
import time
from multiprocessing.connection import Connection
from typing import Any

from teapot.engine.limited.bounds import LOAD_SECONDS, on_the_clock
from teapot.engine.limited.child import START_SECONDS, Broke, Failed, Interrupted, Late, Slow
from teapot.engine.limited.messages import receive, send, timeval
from teapot.fence.notes import NEEDS_SYNC
from teapot.fence.turns import LONGEST_WAIT, NOBODY, Client, EvaluatorsBusy, Overtaken, Slowed

SOCKET = "TEAPOT_EVALUATORS_AT"
"""The environment variable that says where the service is."""

AGAIN_SECONDS = 5.0
"""How long a service is looked for that is not there."""

BETWEEN_LOOKS = 0.05

LONGEST_SECONDS = LONGEST_WAIT + 2 * (START_SECONDS + on_the_clock(LOAD_SECONDS))
"""How long a reply may take: its turn, and twice a new process and the longest work.  A service
that says nothing for longer does not work."""

BEGIN, GO_ON, LEAVE, INTERRUPT = "begin", "go on", "leave", "interrupt"
DONE = "done"
ERRORS: dict[str, type[Exception]] = {
    kind.__name__: kind
    for kind in (EvaluatorsBusy, Overtaken, Slowed, Slow, Late, Broke, Interrupted, Failed)
}
"""What can go wrong at the service, by the name that it is told with."""


class Remote:
    """The service at ``address``."""

    def __init__(self, address: str) -> None:
        self.address = address
        self._own = threading.local()

    def begin(
        self, sheet: str, client: Client = NOBODY, gives_way: bool = False
    ) -> RemoteWorkSession:
        """Work on a sheet."""
        return RemoteWorkSession(self, (sheet, client.person, client.address, gives_way))

    def interrupt(self, sheet: str) -> None:
        """Stops what is being done on a sheet."""
        try:
            send(self.connection(), (INTERRUPT, sheet))
        except OSError:  # the service that this thread knew has ended
            self.hang_up()
            send(self.connection(), (INTERRUPT, sheet))

    def warm(self) -> None:
        """Its processes are started by the service itself."""

    def stop(self) -> None:
        """The service ends with whoever started it."""

    def connection(self) -> Connection:
        """The line of this thread.  Errors: :class:`EvaluatorsBusy` where no service is found."""
        found: Connection | None = getattr(self._own, "connection", None)
        deadline = time.monotonic() + AGAIN_SECONDS
        while found is None:
            try:
                found = self._own.connection = _connected(self.address)
            except OSError:
                if time.monotonic() > deadline:
                    raise EvaluatorsBusy from None
                time.sleep(BETWEEN_LOOKS)
        return found

    def hang_up(self) -> None:
        """Forgets the line of this thread, which is of no use any more."""
        found: Connection | None = getattr(self._own, "connection", None)
        self._own.connection = None
        if found is not None:
            found.close()


def _connected(address: str) -> Connection:
    """A new line, which is waited at no longer than a reply may take.  Errors: OSError."""
    line = socket.socket(socket.AF_UNIX)
    try:
        for way in (socket.SO_SNDTIMEO, socket.SO_RCVTIMEO):
            line.setsockopt(socket.SOL_SOCKET, way, timeval(LONGEST_SECONDS))
        line.connect(address)
    except OSError:
        line.close()
        raise
    return Connection(line.detach())


class RemoteWorkSession:
    """Work at an evaluator of the service; see :class:`teapot.fence.evaluators.WorkSession`."""

    def __init__(self, remote: Remote, wanted: tuple[str, str, str, bool]) -> None:
        self._remote = remote
        self._wanted = wanted
        self._holds = False

    def exchange(self, seconds: float, arguments: bytes) -> tuple[str, bytes]:
        """The note and the result of the work; an evaluator that is after is held."""
        kind, *told = self._asked(seconds, arguments)
        if kind == DONE:
            note, result = told
            self._holds = note == NEEDS_SYNC
            return note, result
        self._holds = False
        raise ERRORS[kind](*told)

    def _asked(self, seconds: float, arguments: bytes) -> Any:
        """What the service says.  Work that was lost with it is sent to the one that takes its
        place: several in a row may end before they answer."""
        deadline = time.monotonic() + on_the_clock(seconds) + AGAIN_SECONDS
        while True:
            connection = self._remote.connection()
            try:
                if self._holds:
                    send(connection, (GO_ON, seconds, arguments))
                else:
                    send(connection, (BEGIN, self._wanted, seconds, arguments))
                return receive(connection)
            except (EOFError, OSError):
                self._remote.hang_up()
                self._holds = False
                if time.monotonic() > deadline:
                    raise Interrupted from None

    def leave(self) -> None:
        """Lets the evaluator go, where it is held."""
        if self._holds:
            self._holds = False
            with contextlib.suppress(OSError):
                send(self._remote.connection(), (LEAVE,))
