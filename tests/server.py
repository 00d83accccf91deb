"""The real server in a process of its own, for tests that need the whole thing."""

from __future__ import annotations

import http.client
import os
import re
import signal
import socket
import subprocess
import sys
import time
import urllib.parse
import uuid
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


class Server:
    """gunicorn on a free port with a database in ``data``."""

    def __init__(self, data: Path, demo: bool = False) -> None:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.environment = os.environ | {
            "TEAPOT_DATA": str(data),
            "TEAPOT_EVALUATORS": "2",
            "DJANGO_SETTINGS_MODULE": "teapot.settings",
        }
        self.process: subprocess.Popen | None = None
        self.manage("migrate", "-v0")
        if demo:
            self.manage("load_demo")

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def manage(self, *arguments: str) -> None:
        subprocess.run(
            [sys.executable, "manage.py", *arguments],
            cwd=ROOT,
            env=self.environment,
            check=True,
            capture_output=True,
        )

    def start(self) -> None:
        """Starts it and waits until it answers."""
        command = [sys.executable, "-m", "gunicorn", "teapot.wsgi", "--log-level", "error"]
        command += ["--bind", f"127.0.0.1:{self.port}", "--worker-class", "gthread"]
        command += ["--threads", "8", "--no-control-socket"]
        self.process = subprocess.Popen(
            command, cwd=ROOT, env=self.environment, start_new_session=True
        )
        self._wait_until(listening=True)

    def _wait_until(self, listening: bool) -> None:
        deadline = time.monotonic() + 30
        while time.monotonic() < deadline:
            with socket.socket() as probe:
                if (probe.connect_ex(("127.0.0.1", self.port)) == 0) == listening:
                    return
            time.sleep(0.02)
        raise TimeoutError("the server did not start, or did not end")

    def kill(self, how: int = signal.SIGKILL) -> None:
        """Ends it and all its evaluators at once, without warning."""
        os.killpg(self.process.pid, how)
        self.process.wait(timeout=30)
        self._wait_until(listening=False)


class Client:
    """A person's browser, as far as requests go."""

    def __init__(self, server: Server) -> None:
        self.server = server
        self.cookies: dict[str, str] = {}
        self.revision = 0
        self.open()

    def request(self, method: str, path: str, data: dict | None = None, seconds: float = 10):
        connection = http.client.HTTPConnection("127.0.0.1", self.server.port, timeout=seconds)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        body = None
        if data is not None:
            body = urllib.parse.urlencode(data)
            headers["Content-Type"] = "application/x-www-form-urlencoded"
            headers["X-CSRFToken"] = self.csrf
        try:
            connection.request(method, path, body, headers)
            reply = connection.getresponse()
            text = reply.read().decode()
        finally:
            connection.close()
        for name, value in reply.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return reply, text

    def open(self) -> None:
        """Opens the sheet page."""
        reply, _ = self.request("GET", "/")
        self.sheet = reply.getheader("Location")
        _, page = self.request("GET", self.sheet)
        self.csrf = re.search(r'X-CSRFToken": "([^"]+)', page).group(1)

    def preview(self, text: str, seconds: float = 10, caret: int | None = None) -> str:
        data = {"text": text} if caret is None else {"text": text, "caret": caret}
        return self.request("POST", f"{self.sheet}/preview", data, seconds)[1]

    def keep(self, text: str, token: str | None = None, seconds: float = 10) -> str:
        """Keeps a line; returns the fragment of new lines or of the error."""
        data = {"text": text, "token": token or str(uuid.uuid4()), "since": self.revision}
        reply, html = self.request("POST", f"{self.sheet}/lines", data, seconds)
        assert reply.status == 200, (reply.status, html)
        self.revision = int(reply.getheader("X-Revision") or self.revision)
        return html
