"""``python -m teapot.web``: a web process, at an address or at a socket that is open already.

Requests are read and replies sent for all connections at once; only a request that is whole is
given to a thread that answers it, and a large one waits in a file.  Whoever sends nothing, or
little at a time, holds no thread: neither a proxy in front nor the server's own threads are needed
for that.

It joins the server's own class for being embedded with the application, which is more than its
public interface.  Measured in turns against waitress's public one, with 200 people at once: kept
lines 95 % within 40 and 74 ms, 90 and 99 % of the processors; with 300 previews 95 % within 0.2 and
1.4 s.  Granian's public way with WSGI gives each request a thread before it is whole.
"""

from __future__ import annotations

import argparse
import asyncio
import io
import logging
import signal
import socket
import sys
import tempfile
from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from socket import AF_UNIX
from typing import IO, Any

import uvloop
from django.conf import settings
from granian._granian import SocketHolder
from granian.http import HTTP1Settings
from granian.server import embed

from teapot.engine.limited.process_setup import (
    end_with_parent,
    seldom_look_for_garbage,
    set_process_name,
)
from teapot.shelf.bounds import most_at
from teapot.wsgi import application as answering

logger = logging.getLogger(__name__)

NO_ROOM = b"The storage is full: nothing was changed."
NO_ROOM_HEADERS = [("content-type", "text/plain; charset=utf-8")]

IN_MEMORY = 1024 * 1024
"""Bytes of a request beyond which it is in a file."""

TOO_MANY, HELD_SECONDS = 429, 1.0
"""A reply to what came too fast is held for a moment, by no thread: whoever sends without pause
is slowed by it, and costs little."""

BACKLOG, END_SECONDS = 1024, 8
"""Connections that may wait, and how long requests under way may take at the end."""

WITHOUT_PREFIX = frozenset({"CONTENT_TYPE", "CONTENT_LENGTH"})


class BodyTooLarge(Exception):
    """More comes than such a request may have: the rest is not read."""


class Application:
    """Answers as the server in front of it asks (RSGI 1), by the WSGI application (PEP 3333), in
    threads."""

    def __init__(self, threads: int) -> None:
        self._threads = ThreadPoolExecutor(threads)

    async def __rsgi__(self, scope: Any, protocol: Any) -> None:
        environ = _environ(scope)
        try:
            body = await _body(protocol, environ)
        except BodyTooLarge:
            body = io.BytesIO()  # it is refused by what it says of its size
        except OSError as error:
            logger.error("a request could not be put into a file: %s", error)
            return protocol.response_bytes(507, NO_ROOM_HEADERS, NO_ROOM)
        environ["wsgi.input"] = body
        loop = asyncio.get_running_loop()
        status, headers, body = await loop.run_in_executor(self._threads, _answer, environ)
        if status == TOO_MANY:
            await asyncio.sleep(HELD_SECONDS)
        protocol.response_bytes(status, headers, body)


async def _body(protocol: Any, environ: dict[str, Any]) -> IO[bytes]:
    """What is sent, as far as it may be: in memory, or a file where it is large."""
    most = most_at(environ["PATH_INFO"])
    length = environ.get("CONTENT_LENGTH", "")
    if length.isdecimal():
        if int(length) > most:
            raise BodyTooLarge
        if int(length) <= IN_MEMORY:
            return io.BytesIO(await protocol())
    size, body = 0, tempfile.SpooledTemporaryFile(IN_MEMORY)  # noqa: SIM115 - read by a thread
    failed: OSError | None = None
    async for part in protocol:  # to the end: whoever still sends would not see the reply
        try:
            body.write(b"" if failed else part)
        except OSError as error:
            failed = error
        size += len(part)
        if size > most:
            body.close()
            environ["CONTENT_LENGTH"] = str(size)
            raise BodyTooLarge
    if failed is not None:
        raise failed
    environ["CONTENT_LENGTH"] = str(size)
    body.seek(0)
    return body


def _environ(scope: Any) -> dict[str, Any]:
    """What PEP 3333 tells of a request."""
    host, _, port = scope.server.rpartition(":")
    environ = {
        "REQUEST_METHOD": scope.method,
        "SCRIPT_NAME": "",
        "PATH_INFO": scope.path.encode().decode("latin-1"),  # it comes without escapes
        "QUERY_STRING": scope.query_string,
        "SERVER_NAME": host or "localhost",
        "SERVER_PORT": port or "80",
        "SERVER_PROTOCOL": f"HTTP/{scope.http_version}",
        "REMOTE_ADDR": scope.client.rpartition(":")[0].strip("[]"),
        "wsgi.version": (1, 0),
        "wsgi.url_scheme": scope.scheme,
        "wsgi.errors": sys.stderr,
        "wsgi.multithread": True,
        "wsgi.multiprocess": True,
        "wsgi.run_once": False,
    }
    for name, value in scope.headers.items():
        key = name.upper().replace("-", "_")
        if "_" in name:
            continue  # it would pass for another one
        key = key if key in WITHOUT_PREFIX else f"HTTP_{key}"
        joint = "; " if key == "HTTP_COOKIE" else ","
        environ[key] = f"{environ[key]}{joint}{value}" if key in environ else value
    if scope.authority:  # of a whole address, which counts for more (RFC 9112, 3.2.2)
        environ["HTTP_HOST"] = scope.authority
    return environ


def _answer(environ: dict[str, Any]) -> tuple[int, list[tuple[str, str]], bytes]:
    """The status, the headers and the body of a reply."""
    told: list[Any] = []

    def start_response(status: str, headers: list[tuple[str, str]], error: Any = None) -> None:
        told[:] = int(status.split()[0]), [(name.lower(), value) for name, value in headers]

    body: Iterable[bytes] = answering(environ, start_response)
    try:
        whole = b"".join(body)
    finally:
        getattr(body, "close", lambda: None)()
    return told[0], told[1], whole


class Server(embed.Server):
    """The server in front of it, at a socket that others of its kind serve as well: while one of
    them is started again, the rest take what comes."""

    def __init__(self, listening: socket.socket, threads: int) -> None:
        super().__init__(
            Application(threads),
            http="1",
            http1_settings=HTTP1Settings(),
            websockets=False,
            log_enabled=False,
            backlog=BACKLOG,
        )
        self.workers_kill_timeout = END_SECONDS
        self._listening = listening

    def _init_shared_socket(self) -> None:
        """In the place of its own, by which each would open another socket at the address."""
        is_unix = self._listening.family == AF_UNIX
        self._ssp, self._shd = None, SocketHolder(self._listening.fileno(), is_unix, BACKLOG)


async def _serve(listening: socket.socket, threads: int) -> None:
    server = Server(listening, threads)
    asyncio.get_running_loop().add_signal_handler(signal.SIGTERM, server.stop)
    seldom_look_for_garbage()
    await server.serve()


def run(listening: socket.socket, threads: int) -> None:
    """Serves until the process is told to end: what is under way is answered then."""
    set_process_name("web")
    if listening.family == AF_UNIX:  # whoever reaches its folder may ask
        Path(listening.getsockname()).chmod(0o666)
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # whoever started it ends it
    uploads = settings.DATA / "uploads"
    uploads.mkdir(parents=True, exist_ok=True, mode=0o700)
    tempfile.tempdir = str(uploads)  # what a temporary folder of the system holds may be memory
    uvloop.run(_serve(listening, threads))


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


def main() -> None:
    """Serves at what the command line says."""
    parser = argparse.ArgumentParser(prog="python -m teapot.web", description=__doc__)
    parser.add_argument("--bind", default="127.0.0.1:8000", help="address and port, or unix:PATH")
    parser.add_argument("--fd", type=int, help="the number of a socket that is open already")
    parser.add_argument("--threads", type=int, default=16, help="requests answered at a time")
    wanted = parser.parse_args()
    end_with_parent(signal.SIGKILL)  # nobody starts the evaluators again that it would wait for
    try:
        listening = listen(wanted.bind) if wanted.fd is None else socket.socket(fileno=wanted.fd)
    except (OSError, ValueError, OverflowError) as error:
        sys.exit(f"Teapot cannot serve at {wanted.bind}: {error}")
    run(listening, wanted.threads)


if __name__ == "__main__":
    main()
