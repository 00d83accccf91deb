"""A web process, at a socket that is open already.

Requests are read and replies sent for all connections at once; only a request that is whole is
given to a thread that answers it.  Whoever sends nothing, or little at a time, holds none.
"""

from __future__ import annotations

import asyncio
import io
import signal
import sys
from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from socket import AF_UNIX, socket
from typing import Any

import uvloop
from granian._granian import SocketHolder
from granian.http import HTTP1Settings
from granian.server import embed

from engine.limited.manners import called, seldom_look_for_garbage
from shelf.bounds import most_at
from teapot.wsgi import application as answering

TOO_MANY, HELD_SECONDS = 429, 1.0
"""A reply to what came too fast is held for a moment, by no thread: whoever sends without pause
is slowed by it, and costs little."""

BACKLOG, END_SECONDS = 1024, 8
"""Connections that may wait, and how long requests under way may take at the end."""

WITHOUT_PREFIX = frozenset({"CONTENT_TYPE", "CONTENT_LENGTH"})


class TooLarge(Exception):
    """More comes than such a request may have: the rest is not read."""


class Application:
    """Answers as the server in front of it asks (RSGI 1), by the WSGI application (PEP 3333), in
    threads."""

    def __init__(self, threads: int) -> None:
        self._threads = ThreadPoolExecutor(threads)

    async def __rsgi__(self, scope: Any, protocol: Any) -> None:
        environ = _environ(scope)
        try:
            environ["wsgi.input"] = io.BytesIO(await _body(protocol, environ))
        except TooLarge:
            environ["wsgi.input"] = io.BytesIO()  # it is refused by what it says of its size
        loop = asyncio.get_running_loop()
        status, headers, body = await loop.run_in_executor(self._threads, _answer, environ)
        if status == TOO_MANY:
            await asyncio.sleep(HELD_SECONDS)
        protocol.response_bytes(status, headers, body)


async def _body(protocol: Any, environ: dict[str, Any]) -> bytes:
    most = most_at(environ["PATH_INFO"])
    length = environ.get("CONTENT_LENGTH", "")
    if length.isdecimal():
        if int(length) > most:
            raise TooLarge
        return await protocol()
    parts, size = [], 0
    async for part in protocol:
        parts.append(part)
        size += len(part)
        if size > most:
            environ["CONTENT_LENGTH"] = str(size)
            raise TooLarge
    environ["CONTENT_LENGTH"] = str(size)
    return b"".join(parts)


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

    def __init__(self, listening: socket, threads: int) -> None:
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


async def _serve(listening: socket, threads: int) -> None:
    server = Server(listening, threads)
    asyncio.get_running_loop().add_signal_handler(signal.SIGTERM, server.stop)
    seldom_look_for_garbage()
    await server.serve()


def run(listening: socket, threads: int) -> None:
    """Serves until the process is told to end."""
    called("web")
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # whoever started it ends it
    uvloop.run(_serve(listening, threads))
