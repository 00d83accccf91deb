"""Requests as the web server hands them on, and replies."""

import asyncio
import http.client
import os
import resource
import signal
import socket
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from types import SimpleNamespace

import pytest

from teapot import serve, web
from teapot.engine.files.dialect import MAX_BYTES
from teapot.shelf.bounds import SPARE
from tests.server import PATIENCE, Client, Server, wait_for


def scope(**changes):
    told = {
        "method": "POST", "path": "/a", "query_string": "", "server": "127.0.0.1:80",
        "client": "10.0.0.9:4000", "scheme": "http", "http_version": "1.1", "authority": None,
        "headers": {},
    }  # fmt: skip
    return SimpleNamespace(**(told | changes))


@pytest.mark.parametrize(
    ("changes", "name", "value"),
    [
        ({"headers": {"cookie": "a=1"}}, "HTTP_COOKIE", "a=1"),
        ({"headers": {"content-type": "text/plain"}}, "CONTENT_TYPE", "text/plain"),
        ({"headers": {"x_forwarded_for": "1.2.3.4"}}, "HTTP_X_FORWARDED_FOR", None),
        ({"headers": {"host": "one"}, "authority": "other"}, "HTTP_HOST", "other"),
        ({"path": "/%73in"}, "PATH_INFO", "/%73in"),
        ({"path": "/π"}, "PATH_INFO", "/\xcf\x80"),
        ({}, "REMOTE_ADDR", "10.0.0.9"),
        ({"client": "[::1]:4000"}, "REMOTE_ADDR", "::1"),
        ({"client": "", "server": ""}, "SERVER_NAME", "localhost"),
    ],
)
def test_what_is_told_of_a_request(changes, name, value):
    assert web._environ(scope(**changes)).get(name) == value


class Sends:
    """The parts of a body, as they come."""

    def __init__(self, *parts):
        self.parts = parts
        self.taken = 0

    async def __call__(self):
        """The whole of it, as it comes where its size was said."""
        return b"".join([part async for part in self])

    async def __aiter__(self):
        for part in self.parts:
            self.taken += 1
            yield part


def run(coroutine):
    """The result, from a thread of its own: the one at hand may be in a loop of the browser's."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, coroutine).result()


def test_a_body_that_says_no_size_is_read_as_far_as_it_may_go():
    environ = {"PATH_INFO": "/a"}
    assert run(web._body(Sends(b"text=", b"1"), environ)).read() == b"text=1"
    assert environ["CONTENT_LENGTH"] == "6"
    assert run(web._body(Sends(b"text=", b"1"), environ)).read() == b"text=1"  # it is said now
    endless = Sends(*[b"x" * 2**20] * (MAX_BYTES // 2**20 + 10))
    with pytest.raises(web.BodyTooLarge):
        run(web._body(endless, environ := {"PATH_INFO": "/a"}))
    assert int(environ["CONTENT_LENGTH"]) > MAX_BYTES + SPARE  # by which it is refused
    assert endless.taken < len(endless.parts)


@pytest.mark.parametrize("bind", ["127.0.0.1:0", "[::1]:0", "unix:{}/web.sock"])
def test_it_listens_at_an_address_or_a_path(bind):
    with tempfile.TemporaryDirectory() as folder, web.listen(bind.format(folder)) as listening:
        with socket.socket(listening.family) as client:
            client.connect(listening.getsockname())


NO_ADDRESSES = ("127.0.0.1", "nowhere.invalid:80", "127.0.0.1:99999", "unix:/no/folder/here")


@pytest.mark.parametrize("part", [serve, web])
@pytest.mark.parametrize("bind", NO_ADDRESSES)
def test_what_is_no_address_is_said(part, bind, monkeypatch, capsys):
    monkeypatch.setattr("sys.argv", [part.__name__, "--bind", bind])
    monkeypatch.setattr(web, "end_with_parent", lambda how: None)
    with pytest.raises(SystemExit) as ended:
        part.main()
    assert "cannot serve at" in f"{ended.value} {capsys.readouterr().err}"


@pytest.mark.parametrize("part", ["teapot.web", "teapot.fence.service"])
def test_a_part_whose_supervisor_is_gone_ends_before_it_serves(part, tmp_path):
    """It was started just before its supervisor was ended: it would hold the address."""
    gone = subprocess.Popen(["true"])
    gone.wait()
    told = {"TEAPOT_SUPERVISOR": str(gone.pid), "TEAPOT_DATA": str(tmp_path)}
    at = {"TEAPOT_EVALUATORS_AT": str(tmp_path / "evaluators")}
    started = subprocess.run([sys.executable, "-m", part], env=os.environ | told | at)
    assert started.returncode in (-signal.SIGTERM, -signal.SIGKILL)


@pytest.fixture(scope="module")
def server(tmp_path_factory):
    server = Server(tmp_path_factory.mktemp("data"))
    server.start()
    yield server
    server.kill()


def test_paths_are_read_once(server):
    answers = {}
    for path in ("/handbook/%73in", "/handbook/%2573in", "http://127.0.0.1/handbook/sin"):
        line = http.client.HTTPConnection("127.0.0.1", server.port, timeout=PATIENCE)
        line.putrequest("GET", path, skip_host=True)
        line.putheader("Host", "127.0.0.1")
        line.endheaders()
        answers[path] = line.getresponse().status
        line.close()
    assert list(answers.values()) == [200, 404, 200]


def memory_of(server):
    """What the largest web process holds, in megabytes."""
    found = []
    for pid in server.parts("web"):
        status = Path(f"/proc/{pid}/status").read_text()
        found.append(int(status.partition("VmRSS:")[2].split()[0]) / 1024)
    return max(found)


def test_uploads_that_are_never_finished_are_in_files(server):
    client = Client(server)
    client.keep("1 + 1")
    before = memory_of(server)
    cookies = "; ".join(f"{name}={value}" for name, value in client.cookies.items())
    head = (
        f"POST /shelf/bring-in HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookies}\r\n"
        f"X-CSRFToken: {client.csrf}\r\nContent-Type: multipart/form-data; boundary=x\r\n"
        "Content-Length: 90000000\r\n\r\n"
    ).encode()

    def begin(_):
        line = socket.create_connection(("127.0.0.1", server.port))
        line.settimeout(PATIENCE)
        line.sendall(head + b"x" * 20_000_000)
        return line

    with ThreadPoolExecutor(10) as threads:
        lines = list(threads.map(begin, range(10)))
    assert 'data-text="4"' in client.keep("2 + 2")
    assert memory_of(server) < before + 100  # of 200 megabytes
    for line in lines:
        line.close()


def test_what_is_under_way_is_answered_when_it_is_told_to_end(tmp_path):
    server = Server(tmp_path, workers=2)
    server.start()
    client = Client(server)
    client.keep("1 + 1")
    with ThreadPoolExecutor(1) as thread:
        kept = thread.submit(client.keep, "sum(x^2 for x in 1..20000) + sqrt(2)")
        for pid in server.parts("web"):  # one after another, as for another version
            os.kill(pid, signal.SIGTERM)
            wait_for(lambda pid=pid: pid not in server.parts("web"))
            wait_for(lambda: len(server.parts("web")) == 2)
        kept.result()
    wait_for(lambda: len(server.parts("web")) == 2)
    assert 'data-text="2"' in client.keep("1 + 1")
    server.kill()


def test_an_upload_that_finds_no_room_on_the_disk_is_told_so(server):
    client = Client(server)
    client.keep("1 + 1")
    for pid in server.parts("web"):  # as where the disk is full
        resource.prlimit(pid, resource.RLIMIT_FSIZE, (500_000, 500_000))
    with socket.create_connection(("127.0.0.1", server.port)) as line:
        line.settimeout(PATIENCE)
        line.sendall(
            b"POST /shelf/bring-in HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 4000000\r\n\r\n"
        )
        line.sendall(b"x" * 4_000_000)
        assert b" 507 " in line.recv(4096)
    assert 'data-text="4"' in client.preview("2 + 2")
