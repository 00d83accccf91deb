"""``python -m teapot.serve``: everything that serves, started, looked after and ended as one.

The service of the evaluators and the web processes run as processes of their own.  One that ends
is started again; when this process ends, all do.  The socket at which the web processes serve is
opened here, and stays open whatever happens to them.
"""

from __future__ import annotations

import argparse
import os
import shutil
import signal
import socket
import tempfile
import time
from collections.abc import Callable, Sequence
from functools import partial
from multiprocessing import get_context
from pathlib import Path
from types import ModuleType

from engine.limited.manners import end_with_parent
from fence import service
from fence.remote import SOCKET

Process = get_context("fork").Process

ENDING = (signal.SIGTERM, signal.SIGINT, signal.SIGHUP)
"""Signals by which this process is told to end."""

LOOK_SECONDS = 0.1
END_SECONDS = 10.0
"""How long a part may take to end by itself."""

AT_ONCE, PAUSE = 5, 1.0
"""Starts within ten seconds that are made at once, and what is waited for before further ones."""


class Part:
    """A process that is to run all the time: a copy of this one that does ``what``."""

    def __init__(self, what: Callable[[], None], at_our_end: int) -> None:
        self.what = partial(_as_part, what, at_our_end)
        self.started: list[float] = []
        self.process = self._start()

    def _start(self) -> Process:
        self.started.append(time.monotonic())
        process = Process(target=self.what)
        process.start()
        return process

    def look_after(self) -> None:
        """Starts it again where it has ended: at once, unless that was tried in vain."""
        if self.process.is_alive():
            return
        now = time.monotonic()
        self.started = [at for at in self.started if at > now - 10]
        if len(self.started) < AT_ONCE or now > self.started[-1] + PAUSE:
            self.process = self._start()

    def tell_end(self) -> None:
        """Has it end."""
        self.process.terminate()

    def end(self) -> None:
        """Waits for its end, which comes by force where it does not by itself."""
        self.process.join(END_SECONDS)
        if self.process.is_alive():
            self.process.kill()
            self.process.join()


def _as_part(what: Callable[[], None], at_our_end: int) -> None:
    """What a new process does first."""
    end_with_parent(at_our_end)
    for how in ENDING:
        signal.signal(how, signal.SIG_DFL)
    what()


def listen(bind: str) -> socket.socket:
    """The socket at an address and port, or at ``unix:PATH``.  Errors: OSError."""
    if bind.startswith("unix:"):
        path = Path(bind.removeprefix("unix:"))
        path.unlink(missing_ok=True)
        opened = socket.socket(socket.AF_UNIX)
        opened.bind(str(path))
        path.chmod(0o666)  # whoever reaches its folder may ask
        opened.listen()
        return opened
    host, _, port = bind.rpartition(":")
    host = host.strip("[]")
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    return socket.create_server((host, int(port)), family=family)


def main() -> None:
    """Serves until it is told to end."""
    cores = os.cpu_count() or 1
    parser = argparse.ArgumentParser(prog="python -m teapot.serve", description=__doc__)
    parser.add_argument("--bind", default="127.0.0.1:8000", help="address and port, or unix:PATH")
    parser.add_argument("--workers", type=int, default=cores, help="web processes")
    parser.add_argument("--threads", type=int, default=16, help="threads of each")
    parser.add_argument("--evaluators", type=int, default=0, help="processes that work lines out")
    wanted = parser.parse_args()
    count = wanted.evaluators or int(os.environ.get("TEAPOT_EVALUATORS", cores + 1))
    try:
        listening = listen(wanted.bind)
    except (OSError, ValueError, OverflowError) as error:
        parser.exit(1, f"Teapot cannot serve at {wanted.bind}: {error}\n")
    folder = Path(tempfile.mkdtemp(prefix="teapot-"))
    address = str(folder / "evaluators")
    os.environ[SOCKET] = address
    ending: list[int] = []
    for how in ENDING:
        signal.signal(how, lambda signum, frame: ending.append(signum))
    parts = [Part(partial(_evaluate, listening, address, count), signal.SIGKILL)]
    web = partial(_web().run, listening, wanted.threads)
    parts += [Part(web, signal.SIGTERM) for _ in range(wanted.workers)]
    while not ending:
        for part in parts:
            part.look_after()
        time.sleep(LOOK_SECONDS)
    _end(parts)
    shutil.rmtree(folder, ignore_errors=True)
    if listening.family == socket.AF_UNIX:
        Path(listening.getsockname()).unlink(missing_ok=True)


def _evaluate(listening: socket.socket, address: str, count: int) -> None:
    listening.close()  # it is for the web processes
    service.run(address, count)


def _web() -> ModuleType:
    """All that web processes need is loaded once for all of them, while the evaluators start: it
    takes as long as everything else at a start."""
    from teapot import web

    return web


def _end(parts: Sequence[Part]) -> None:
    """Web processes first: what they have at hand still needs the evaluators."""
    evaluators, *web = parts
    for some in (web, [evaluators]):
        for part in some:
            part.tell_end()
        for part in some:
            part.end()


if __name__ == "__main__":
    main()
