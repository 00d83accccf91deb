"""The real server in a process of its own, for tests that need the whole thing."""

from __future__ import annotations

import atexit
import http.client
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.parse
import uuid
from collections.abc import Callable, Mapping
from contextlib import suppress
from functools import cache
from pathlib import Path

from tests.replies import revision_in

ROOT = Path(__file__).resolve().parent.parent


PATIENCE = 180
"""Seconds that a reply, a start or an end may take on a busy machine: at the first start on a new
one each process compiles what it imports."""

running: list[Server] = []
"""Those that were not ended: a test that fails leaves its own."""


class Server:
    """All that serves, on a free port with a database in ``data`` and so many web ``workers``."""

    def __init__(
        self, data: Path, demo: bool = False, paced: bool = False, workers: int = 1
    ) -> None:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.environment = os.environ | {
            "TEAPOT_DATA": str(data),
            "TEAPOT_EVALUATORS": "2",
            "TEAPOT_PACED": "1" if paced else "0",
            "TEAPOT_KIT": "1",
            "DJANGO_SETTINGS_MODULE": "teapot.settings",
        }
        self.workers = workers
        self.process: subprocess.Popen | None = None
        shutil.copytree(_new_installation(demo), data, dirs_exist_ok=True)

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def manage(self, *arguments: str) -> str:
        """What a command of its own prints."""
        return _manage(self.environment, *arguments)

    def start(self) -> None:
        """Starts it and waits until all its parts answer: its socket is open before they do."""
        command = [sys.executable, "-m", "teapot.serve"]
        command += ["--bind", f"127.0.0.1:{self.port}", "--workers", str(self.workers)]
        self.process = subprocess.Popen(
            command, cwd=ROOT, env=self.environment, start_new_session=True
        )
        running.append(self)
        self.until_well()

    def until_well(self) -> None:
        """Waits until all its parts answer."""
        wait_for(self._is_well)

    def _is_well(self) -> bool:
        if self.process.poll() is not None:
            raise RuntimeError("the server has ended")
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=PATIENCE)
        try:
            connection.request("GET", "/health")
            return connection.getresponse().status == 200
        except OSError:
            return False
        finally:
            connection.close()

    def _is_gone(self) -> bool:
        with socket.socket() as probe:
            return probe.connect_ex(("127.0.0.1", self.port)) != 0

    def mailed_link(self) -> str:
        """The last link in the mails that were not sent."""
        folder = Path(self.environment["TEAPOT_DATA"]) / "mail"
        last = max(folder.glob("*.log"), key=lambda file: file.stat().st_mtime_ns)
        return re.findall(r"http://\S+", last.read_text())[-1]

    def parts(self, what: str = "") -> list[int]:
        """The numbers of its processes: those that are called ``what``, or in whose command it
        stands, or all."""
        found = []
        for folder in Path("/proc").glob("[0-9]*"):
            with suppress(OSError):
                state, *_, session = (folder / "stat").read_text().rpartition(")")[2].split()[:4]
                if state == "Z":  # it has ended, and waits to be taken leave of
                    continue
                words = (folder / "cmdline").read_text().split("\0")
                words.append((folder / "comm").read_text().strip())
                if int(session) == self.process.pid and (not what or what in words):
                    found.append(int(folder.name))
        return sorted(found)

    def kill(self, how: int = signal.SIGKILL) -> None:
        """Ends all its processes at once and without warning, or has it end them."""
        running.remove(self)
        for pid in self.parts() if how == signal.SIGKILL else [self.process.pid]:
            with suppress(ProcessLookupError):
                os.kill(pid, how)
        self.process.wait(timeout=PATIENCE)
        wait_for(lambda: not self.parts() and self._is_gone())


@cache
def _new_installation(demo: bool) -> Path:
    """The data of an installation that is new, or has the demo: made once, and copied for each
    server."""
    data = Path(tempfile.mkdtemp(prefix="teapot-new-"))
    atexit.register(shutil.rmtree, data, ignore_errors=True)
    environment = os.environ | {
        "TEAPOT_DATA": str(data),
        "DJANGO_SETTINGS_MODULE": "teapot.settings",
    }
    _manage(environment, "migrate", "-v0")
    if demo:
        _manage(environment, "load_demo")
    return data


def _manage(environment: Mapping[str, str], *arguments: str) -> str:
    done = subprocess.run(
        [sys.executable, "manage.py", *arguments],
        cwd=ROOT,
        env=environment,
        check=True,
        capture_output=True,
        text=True,
    )
    return done.stdout


def wait_for(holds: Callable[[], object]) -> None:
    """Waits until it holds.

    :raises TimeoutError: when it does not hold within :data:`PATIENCE` seconds
    """
    deadline = time.monotonic() + PATIENCE
    while not holds():
        if time.monotonic() > deadline:
            raise TimeoutError("the server did not start, or did not end")
        time.sleep(0.05)


class Client:
    """A person's browser, as far as requests go."""

    def __init__(self, server: Server) -> None:
        self.server = server
        self.cookies: dict[str, str] = {}
        self.revision = 0
        self.may = ""
        self.open()

    def request(self, method: str, path: str, data: dict | None = None, seconds: float = PATIENCE):
        connection = http.client.HTTPConnection("127.0.0.1", self.server.port, timeout=seconds)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        body = None
        if data is not None:
            body = urllib.parse.urlencode(data)
            headers["Content-Type"] = "application/x-www-form-urlencoded"
            headers["X-CSRFToken"] = self.csrf
            headers["X-May"] = self.may
        try:
            connection.request(method, path, body, headers)
            reply = connection.getresponse()
            text = reply.read().decode()
        finally:
            connection.close()
        self.may = reply.getheader("X-May") or self.may
        for name, value in reply.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return reply, text

    def open(self) -> None:
        """Opens the sheet page."""
        reply, _ = self.request("GET", "/")
        self.sheet = reply.getheader("Location")
        self.request("GET", self.sheet)
        self.csrf = self.cookies["csrftoken"]

    def preview(self, text: str, seconds: float = PATIENCE, caret: int | None = None) -> str:
        data = {"text": text} if caret is None else {"text": text, "caret": caret}
        return self.request("POST", f"{self.sheet}/preview", data, seconds)[1]

    def keep(self, text: str, token: str | None = None, seconds: float = PATIENCE) -> str:
        """Keeps a line; returns the fragment of new lines or of the error."""
        data = {"text": text, "token": token or str(uuid.uuid4()), "since": self.revision}
        reply, html = self.request("POST", f"{self.sheet}/lines", data, seconds)
        assert reply.status == 200, (reply.status, html)
        self.revision = revision_in(html, self.revision)
        return html
