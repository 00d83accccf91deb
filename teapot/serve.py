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
import subprocess
import sys
import tempfile
import time
from collections.abc import Sequence
from functools import partial
from pathlib import Path

from engine.limited.manners import end_with_parent
from fence.asking import SOCKET

LOOK_SECONDS = 0.1
END_SECONDS = 10.0
"""How long a part may take to end by itself."""

AT_ONCE, PAUSE = 5, 1.0
"""Starts within ten seconds that are made at once, and what is waited for before further ones."""


class Part:
    """A process that is to run all the time."""

    def __init__(self, command: Sequence[str], at_our_end: int, keeps: Sequence[int] = ()) -> None:
        self.command = [sys.executable, "-m", *command]
        self.before = partial(end_with_parent, at_our_end)
        self.keeps = keeps
        self.started: list[float] = []
        self.process = self._start()

    def _start(self) -> subprocess.Popen[bytes]:
        self.started.append(time.monotonic())
        return subprocess.Popen(  # noqa: S603 - our own interpreter
            self.command, preexec_fn=self.before, pass_fds=self.keeps
        )

    def look_after(self) -> None:
        """Starts it again where it has ended: at once, unless that was tried in vain."""
        if self.process.poll() is None:
            return
        now = time.monotonic()
        self.started = [at for at in self.started if at > now - 10]
        if len(self.started) < AT_ONCE or now > self.started[-1] + PAUSE:
            self.process = self._start()

    def tell_end(self) -> None:
        """Has it end."""
        self.process.send_signal(signal.SIGTERM)

    def end(self) -> None:
        """Waits for its end, which comes by force where it does not by itself."""
        try:
            self.process.wait(END_SECONDS)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


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
    parser.add_argument("--threads", type=int, default=8, help="threads of each")
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
    for how in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(how, lambda signum, frame: ending.append(signum))
    web = ["teapot.web", str(listening.fileno()), str(wanted.threads)]
    parts = [Part(["fence.service", address, str(count)], signal.SIGKILL)]
    parts += [Part(web, signal.SIGTERM, keeps=[listening.fileno()]) for _ in range(wanted.workers)]
    while not ending:
        for part in parts:
            part.look_after()
        time.sleep(LOOK_SECONDS)
    _end(parts)
    shutil.rmtree(folder, ignore_errors=True)
    if listening.family == socket.AF_UNIX:
        Path(listening.getsockname()).unlink(missing_ok=True)


def _end(parts: Sequence[Part]) -> None:
    """Web processes first: what they have at hand still needs the evaluators."""
    service, *web = parts
    for some in (web, [service]):
        for part in some:
            part.tell_end()
        for part in some:
            part.end()


if __name__ == "__main__":
    main()
