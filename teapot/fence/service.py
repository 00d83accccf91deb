"""The service of the evaluators: ``python -m teapot.fence.service``, at the socket and
with the count that the environment says.

Web processes reach it through a Unix socket that only their own user may open.  What they send
and get passes through unread.
"""

from __future__ import annotations

import contextlib
import os
import signal
import threading
from multiprocessing.connection import Connection, Listener
from pathlib import Path
from typing import Any

from teapot.engine.limited.child import Broke, Failed, Interrupted, Late, Slow
from teapot.engine.limited.messages import receive, send
from teapot.engine.limited.process_setup import end_with_parent, set_process_name
from teapot.fence.evaluators import Evaluators, Exchanges
from teapot.fence.remote import BEGIN, DONE, GO_ON, INTERRUPT, LEAVE, SOCKET
from teapot.fence.turns import Client, EvaluatorsBusy, Overtaken, Slowed

BACKLOG = 128

END_SECONDS = 5.0
"""How long its processes may take to end."""


def serve(address: str, evaluators: Evaluators) -> None:
    """Does what is asked for at the socket, until the process is ended."""
    Path(address).unlink(missing_ok=True)
    before = os.umask(0o177)
    try:
        listener = Listener(address, "AF_UNIX", backlog=BACKLOG)
    finally:
        os.umask(before)
    while True:
        with contextlib.suppress(OSError):
            connection = listener.accept()
            threading.Thread(target=_answer, args=(connection, evaluators), daemon=True).start()


def _answer(connection: Connection, evaluators: Evaluators) -> None:
    """What a thread of a web process asks for, one thing after another."""
    session: Exchanges | None = None
    try:
        while True:
            kind, *told = receive(connection)
            if kind == INTERRUPT:
                evaluators.interrupt(told[0])
            elif kind == LEAVE and session is not None:
                session.leave()
                session = None
            elif kind in (BEGIN, GO_ON):
                if kind == BEGIN:
                    sheet, person, place, gives_way = told.pop(0)
                    session = evaluators.begin(sheet, Client(person, place), gives_way)
                assert session is not None
                send(connection, _done(session, *told))
    except (EOFError, OSError):
        pass
    finally:
        if session is not None:
            session.leave()
        connection.close()


def _done(session: Exchanges, seconds: float, arguments: bytes) -> tuple[Any, ...]:
    try:
        return (DONE, *session.exchange(seconds, arguments))
    except Slowed as error:
        return ("Slowed", error.seconds)
    except (EvaluatorsBusy, Overtaken, Slow, Late, Broke, Interrupted, Failed) as error:
        return (type(error).__name__, *error.args)


def run(address: str, count: int) -> None:
    """The service, until its process is told to end."""
    set_process_name("evaluators")
    evaluators = Evaluators(count)
    evaluators.warm()

    signal.signal(signal.SIGINT, signal.SIG_IGN)  # whoever started it ends it
    told_to_end = _signals()
    threading.Thread(target=serve, args=(address, evaluators), daemon=True).start()
    os.read(told_to_end, 1)
    threading.Timer(END_SECONDS, os._exit, (1,)).start()  # its processes end without it too
    evaluators.stop()
    Path(address).unlink(missing_ok=True)
    os._exit(0)


def _signals() -> int:
    """Where something can be read as soon as the process is told to end.  A thread that waits for
    connections would learn of it with the next one, where the signal came just before it began
    to wait."""
    reading, writing = os.pipe()
    os.set_blocking(writing, False)
    signal.set_wakeup_fd(writing)
    signal.signal(signal.SIGTERM, lambda signum, frame: None)
    return reading


def main() -> None:
    """Serves as the environment says."""
    end_with_parent(signal.SIGKILL)
    cores = os.cpu_count() or 1
    run(os.environ[SOCKET], int(os.environ.get("TEAPOT_EVALUATORS") or cores + 1))


if __name__ == "__main__":
    main()
