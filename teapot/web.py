"""``python -m teapot.web``: a web process, at an address or at a socket that is open already.

Requests are read and replies sent by one thread for all connections; only a request that is whole
is given to a thread that answers it, and a large one waits in a file.  Whoever sends nothing, or
little at a time, holds no thread: neither a proxy in front nor the server's own threads are needed
for that.
"""

from __future__ import annotations

import argparse
import logging
import signal
import socket
import sys
import tempfile
import threading
import time
from contextlib import suppress
from pathlib import Path
from typing import Any, NoReturn

import waitress
from django.conf import settings
from waitress.channel import HTTPChannel

from engine.limited.manners import called, end_with_parent, seldom_look_for_garbage
from shelf.bounds import LARGEST_ZIP, SPARE
from teapot.wsgi import application

logger = logging.getLogger(__name__)

FULL = b"The storage is full: nothing was changed."
NO_ROOM = (
    b"HTTP/1.1 507 Insufficient Storage\r\nConnection: close\r\nContent-Length: %d\r\n"
    b"Content-Type: text/plain; charset=utf-8\r\n\r\n%s" % (len(FULL), FULL)
)

IN_MEMORY = 1024 * 1024
"""Bytes of a request, or of a reply that is fetched slowly, beyond which it is in a file."""

END_SECONDS, QUIET_SECONDS, BETWEEN_LOOKS = 8.0, 1.0, 0.1
"""How long requests under way may take at the end, and after which a connection is left."""

CONNECTIONS, IDLE_SECONDS = 2000, 60
"""How many there may be at a time, and how long one may be silent."""


class Connection(HTTPChannel):
    """A connection of a browser.  Where what it sends finds no room on the disk it is told so, and
    all that comes from there on is let go."""

    is_refused = False

    def received(self, data: bytes) -> bool:
        """Takes up what came."""
        if self.is_refused:
            return True
        try:
            return bool(super().received(data))
        except OSError as error:
            logger.error("a request could not be put into a file: %s", error)
            self.is_refused = True
            self.request = None
            with suppress(OSError):
                self.socket.sendall(NO_ROOM)
                self.socket.shutdown(socket.SHUT_WR)
            return True


def listen(bind: str) -> socket.socket:
    """The socket at an address and port, or at ``unix:PATH``.  Errors: OSError."""
    if bind.startswith("unix:"):
        path = Path(bind.removeprefix("unix:"))
        path.unlink(missing_ok=True)
        opened = socket.socket(socket.AF_UNIX)
        opened.bind(str(path))
        opened.listen()
        return opened
    host, _, port = bind.rpartition(":")
    host = host.strip("[]")
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    return socket.create_server((host, int(port)), family=family)


def run(listening: socket.socket, threads: int) -> None:
    """Serves until the process is told to end: what is under way is answered then."""
    called("web")
    if listening.family == socket.AF_UNIX:  # whoever reaches its folder may ask
        Path(listening.getsockname()).chmod(0o666)
    uploads = settings.DATA / "uploads"
    uploads.mkdir(parents=True, exist_ok=True, mode=0o700)
    tempfile.tempdir = str(uploads)  # what a temporary folder of the system holds may be memory
    seldom_look_for_garbage()
    server = waitress.create_server(
        application,
        sockets=[listening],
        threads=threads,
        inbuf_overflow=IN_MEMORY,
        outbuf_overflow=IN_MEMORY,
        max_request_body_size=LARGEST_ZIP + SPARE,
        connection_limit=CONNECTIONS,
        channel_timeout=IDLE_SECONDS,
        asyncore_use_poll=True,
        clear_untrusted_proxy_headers=False,  # accounts.asking says whom to believe
        ident=None,
    )
    server.channel_class = Connection
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # whoever started it ends it
    signal.signal(signal.SIGUSR1, _leave)
    signal.signal(signal.SIGTERM, lambda signum, frame: _end(server))
    server.run()


def _end(server: Any) -> None:
    """Takes no further connection, and ends once all that came is answered."""
    server.accepting = False
    threading.Thread(target=_leave_when_done, args=(server,), daemon=True).start()


def _leave_when_done(server: Any) -> None:
    deadline = time.monotonic() + END_SECONDS
    while time.monotonic() < deadline and any(
        map(_is_at_work, list(server.active_channels.values()))
    ):
        time.sleep(BETWEEN_LOOKS)
    signal.raise_signal(signal.SIGUSR1)


def _is_at_work(channel: Any) -> bool:
    """Whether a connection has a request or a reply, or may have one that is not read yet."""
    is_fresh = time.time() < channel.last_activity + QUIET_SECONDS
    return bool(is_fresh or channel.requests or channel.total_outbufs_len)


def _leave(signum: int, frame: object) -> NoReturn:
    raise SystemExit(0)


def main() -> None:
    """Serves at what the command line says."""
    parser = argparse.ArgumentParser(prog="python -m teapot.web", description=__doc__)
    parser.add_argument("--bind", default="127.0.0.1:8000", help="address and port, or unix:PATH")
    parser.add_argument("--fd", type=int, help="the number of a socket that is open already")
    parser.add_argument("--threads", type=int, default=16, help="requests answered at a time")
    wanted = parser.parse_args()
    end_with_parent(signal.SIGTERM)
    try:
        listening = listen(wanted.bind) if wanted.fd is None else socket.socket(fileno=wanted.fd)
    except (OSError, ValueError, OverflowError) as error:
        sys.exit(f"Teapot cannot serve at {wanted.bind}: {error}")
    run(listening, wanted.threads)


if __name__ == "__main__":
    main()
