"""Debian's Chromium, and one real server for the browser tests."""

import pytest
from playwright.sync_api import expect

from tests.server import PATIENCE, Server
from tools.browser import EXECUTABLE, FLAGS

LONGEST = 1000 * PATIENCE
"""Milliseconds that a page or a step on it may take."""

expect.set_options(timeout=LONGEST)


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": EXECUTABLE, "args": FLAGS, "headless": True}


@pytest.fixture(scope="session")
def browser_context_args():
    return {
        "viewport": {"width": 1280, "height": 800},
        # what a test does with requests it does with those of the page itself
        "service_workers": "block",
        "permissions": ["clipboard-read", "clipboard-write"],
    }


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    server = Server(tmp_path_factory.mktemp("data"))
    server.start()
    yield server
    server.kill()


@pytest.fixture
def context(context):
    context.set_default_timeout(LONGEST)
    return context


@pytest.fixture
def sheet(page, server):
    """A new person's empty sheet, opened; its console must stay without errors."""
    problems = []
    page.on("pageerror", lambda error: problems.append(str(error)))
    page.on("console", lambda m: problems.append(m.text) if m.type == "error" else None)
    page.goto(server.url)
    yield page
    # a connection that a test cuts off is told to the console as well
    assert [p for p in problems if "ERR_" not in p and not p.startswith("htmx:")] == []
