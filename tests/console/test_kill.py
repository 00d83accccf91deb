"""Lines that were answered are on the disk, and in the record: the server is killed at random
moments.

``TEAPOT_KILLS`` and ``TEAPOT_KILL_LINES`` make the test longer; ``tools.kill_under_load`` kills
each part while many people type.
"""

import os
import random
import re
import signal
import time
from http.client import HTTPException

import pytest

from tests.replies import revision_in
from tests.server import PATIENCE, Client, Server, wait_for
from tests.threads import Thread
from tools.kill_under_load import SERVICE, WEB, end_part

KILLS = int(os.environ.get("TEAPOT_KILLS", "2"))
LINES = int(os.environ.get("TEAPOT_KILL_LINES", "60"))
PART_LINES = 20


def test_no_answered_line_is_lost(tmp_path):
    random.seed(20)
    server = Server(tmp_path, workers=2)
    server.start()
    client = Client(server)
    client.keep("/record it all", "00000000-0000-0000-0001-000000000000")
    answered: list[str] = []

    def reaper():
        for _ in range(KILLS):
            time.sleep(random.uniform(0.3, 0.02 + LINES / KILLS * 0.035))
            server.kill()
            server.start()

    killer = Thread(reaper)
    is_sent = False  # whether there is a line to which no reply has come: it may be kept
    while not killer.is_over() or is_sent or len(answered) < LINES:
        is_sent = True
        text = f"{len(answered)} + 0.5"
        token = f"00000000-0000-0000-0000-{len(answered):012}"
        try:
            html = client.keep(text, token)
        except OSError:
            time.sleep(0.02)
            continue
        except Exception as lost:  # the reply was cut off in the middle
            if type(lost).__module__ != "http.client":
                raise
            continue
        assert f'data-text="{len(answered)}.5"' in html
        answered.append(text)
        is_sent = False
    killer.join()
    assert kept_lines(client) == answered
    assert recorded_lines(client) == answered
    server.kill()


@pytest.mark.parametrize("part", ["the service of the evaluators"])
def test_a_part_that_is_ended_is_started_again_and_no_line_is_lost(tmp_path, part):
    random.seed(part)
    server = Server(tmp_path, workers=2)
    server.start()
    client = Client(server)
    answered: list[str] = []
    for at in range(PART_LINES):
        if at == PART_LINES // 2:
            at_work = Thread(in_the_midst, server, part)
        keep_surely(client, f"{len(answered)} + 0.5", answered)
    at_work.join()
    assert len(answered) == PART_LINES
    assert kept_lines(client) == answered
    wait_for(lambda: server.parts(SERVICE) and len(server.parts(WEB)) >= 2)
    server.kill(signal.SIGTERM)
    assert not server.parts()


def in_the_midst(server: Server, part: str) -> None:
    """Ends a part while lines are kept."""
    time.sleep(random.uniform(0, 0.02))
    end_part(server, part)


def keep_surely(client: Client, text: str, answered: list[str]) -> None:
    """Keeps a line as a page does: again, with its token, until there is a reply."""
    token = f"00000000-0000-0000-0000-{len(answered):012}"
    deadline = time.monotonic() + 2 * PATIENCE
    while time.monotonic() < deadline:
        data = {"text": text, "token": token, "since": client.revision}
        try:
            reply, html = client.request("POST", f"{client.sheet}/lines", data)
        except (OSError, HTTPException):
            time.sleep(0.02)
            continue
        if reply.status == 200:
            assert f'data-text="{len(answered)}.5"' in html
            client.revision = revision_in(html)
            return answered.append(text)
        assert reply.status in (500, 502, 503), (reply.status, html)
        time.sleep(0.02)
    raise AssertionError("no reply came")


def recorded_lines(client: Client) -> list[str]:
    """All new lines of the record, in the order of its page."""
    _, page = client.request("GET", client.sheet)
    address = re.search(r'data-testid="recording"\s+href="([^"]*)"', page).group(1)
    recorded: list[str] = []
    since = 0
    while True:
        _, page = client.request("GET", f"{address}/events?since={since}")
        found = re.findall(r'data-kind="new".*?<p><code>([^<]*)</code>', page, re.DOTALL)
        recorded += found
        more = re.search(r'events\?since=(\d+)" hx-trigger="intersect', page)
        if more is None:
            return recorded
        since = int(more.group(1))


def kept_lines(client: Client) -> list[str]:
    """All lines of the sheet, as its page shows them when it is scrolled to the top."""
    _, page = client.request("GET", client.sheet)
    kept: list[str] = []
    while page:
        kept = re.findall(r'data-input="([^"]*)"', page) + kept
        more = re.search(r'hx-get="([^"]*/earlier[^"]*)"', page)
        page = client.request("GET", more.group(1))[1] if more else ""
    return kept
