"""Requests as the web server hands them on, and replies."""

import asyncio
import http.client
from concurrent.futures import ThreadPoolExecutor
from types import SimpleNamespace

import pytest

from engine.files.dialect import MAX_BYTES
from shelf.bounds import SPARE
from teapot import web
from tests.server import PATIENCE, Server


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
    assert run(web._body(Sends(b"text=", b"1"), environ)) == b"text=1"
    assert environ["CONTENT_LENGTH"] == "6"
    assert run(web._body(Sends(b"text=", b"1"), environ)) == b"text=1"  # the size is said now
    endless = Sends(*[b"x" * 2**20] * (MAX_BYTES // 2**20 + 10))
    with pytest.raises(web.TooLarge):
        run(web._body(endless, environ := {"PATH_INFO": "/a"}))
    assert int(environ["CONTENT_LENGTH"]) > MAX_BYTES + SPARE  # by which it is refused
    assert endless.taken < len(endless.parts)


def test_paths_are_read_once(tmp_path):
    server = Server(tmp_path)
    server.start()
    answers = {}
    for path in ("/handbook/%73in", "/handbook/%2573in", "http://127.0.0.1/handbook/sin"):
        line = http.client.HTTPConnection("127.0.0.1", server.port, timeout=PATIENCE)
        line.putrequest("GET", path, skip_host=True)
        line.putheader("Host", "127.0.0.1")
        line.endheaders()
        answers[path] = line.getresponse().status
        line.close()
    server.kill()
    assert list(answers.values()) == [200, 404, 200]
