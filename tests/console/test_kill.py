"""Lines that were answered are on the disk, and in the record: the server is killed at random
moments.

``TEAPOT_KILLS`` and ``TEAPOT_KILL_LINES`` make the test longer.
"""

import os
import random
import re
import threading
import time

from tests.server import Client, Server

KILLS = int(os.environ.get("TEAPOT_KILLS", "4"))
LINES = int(os.environ.get("TEAPOT_KILL_LINES", "160"))


def test_no_answered_line_is_lost(tmp_path):
    random.seed(20)
    server = Server(tmp_path)
    server.start()
    client = Client(server)
    client.keep("/record it all", "00000000-0000-0000-0001-000000000000")
    answered: list[str] = []
    done = threading.Event()

    def reaper():
        for _ in range(KILLS):
            time.sleep(random.uniform(0.3, 0.02 + LINES / KILLS * 0.035))
            server.kill()
            server.start()
        done.set()

    killer = threading.Thread(target=reaper)
    killer.start()
    while len(answered) < LINES or not done.is_set():
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
    killer.join()
    assert kept_lines(client) == answered
    assert recorded_lines(client) == answered
    server.kill()


def recorded_lines(client: Client) -> list[str]:
    """All new lines of the record, in the order of its page."""
    _, page = client.request("GET", client.sheet)
    address = re.search(r'data-testid="recording" href="([^"]*)"', page).group(1)
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
