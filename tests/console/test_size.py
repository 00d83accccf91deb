"""No line leaves an outcome that is larger than its limit, and the web process stays small."""

import json
import os
import re
import sqlite3
from pathlib import Path

from tests.replies import revision_in
from tests.server import Client, Server

MOST_BYTES = 512 * 1024
"""Of the outcome of a line, as it is kept and sent."""

MOST_MEMORY = 300 * 1024**2
"""Of the web process."""

NINES = "9" * 9_000
LARGE = [
    "(2^(1..10000)) as hex",
    ";".join(["3^20000 as 10000 digits"] * 380),
    ";".join(["3^20000 as 10000 digits"] * 40),
    "; ".join(["9^9999 as exact"] * 20),
    "9^9999 as exact",
    "9^20000 as exact",
    "2^30000 as hex",
    "2^300000 as binary",
    "1/7^9000 as exact",
    "1/3 as 10000 digits",
    "1/3 as 10000 places",
    "sqrt(2) as 10000 digits",
    "[sqrt(2), sqrt(3), sqrt(5)]*(1 + 1e-20) as 10000 digits",
    "sqrt(1..10000)",
    "sqrt(1..10000) as 30 digits",
    "1/(1..10000) as fraction",
    "1/(1..10000) as 1000 digits",
    "(1..10000)^50",
    "(1..10000)^50 as exact",
    "(1..10000)*1° as dms",
    "(1..10000) + 2i",
    "sqrt(-(1..10000))",
    "(1..10000) > 5000",
    "table(1..10000, sqrt(1..10000), (1..10000)^2)",
    "table(1..10000, 2^(1..10000))",
    "table(1..10000, 2^(1..10000)) as exact",
    "[1..10000, 1..10000, 1..10000]",
    "w = 1..10000; [w, w, w, w]",
    "[1..100]*[1]",
    "f(x) = [x, x]; f(f(f(f(f(f(f(f(1..100))))))))",
    "factor(2^131 - 1)",
    "cumulative(1..10000)",
    "sort(1/(1..10000))",
    "reverse(1..10000)",
    NINES,
    f"{NINES}*1",
    f"[{NINES}]",
    f"1/{NINES}",
    f"1/{NINES} as exact",
    f"x = {NINES}",
    f'"{NINES}"',
    f'"{NINES}" + "{NINES[:900]}"',
    "; ".join(["1"] * 51),
    "; ".join(["sqrt(1..2000)"] * 50),
    "; ".join(["1..10000"] * 50),
    "+".join(["a_b"] * 1 + ["½"] * 4_000),
    "+".join(["1"] * 4_900),
    "*".join(["v_0"] * 2_400),
    "√".join([""] * 140) + "2",
    "(" * 149 + "1" + ")" * 149,
    "1" + "/2" * 4_000,
    "2" + "^1" * 120,
    "sin(" * 100 + "1" + ")" * 100,
    "|1" + "+|1" * 50 + "|" * 51,
    "# " + "note " * 1_900,
    "1 # " + "note " * 1_900,
    "3 + 4" + " " * 9_000,
    " as 4 digits".join(["1/3"] + [""] * 300),
]


def test_the_rest_of_a_long_answer_is_made_when_it_is_asked_for(tmp_path):
    server = Server(tmp_path)
    server.start()
    client = Client(server)
    html = client.keep("(1..10000)^2")
    [head] = re.findall(r'data-text="([^"]*)"', html)
    assert head.startswith("[1, 4, 9, ")
    assert head.endswith(" 10000, …")
    [address] = re.findall(r'data-rest="([^"]*)"', html)
    _, whole = client.request("GET", address)
    assert json.loads(whole) == [n * n for n in range(1, 10_001)]
    html = client.keep("table(1..500, (1..500)^2)")
    [address] = re.findall(r'href="([^"]*\.csv)"', html)
    _, table = client.request("GET", address)
    assert table.splitlines()[-1] == "500,250000"
    server.kill()


def test_no_outcome_is_larger_than_its_limit_and_the_web_process_stays_small(tmp_path):
    server = Server(tmp_path)
    server.start()
    client = Client(server)
    for text in LARGE:
        data = {"text": text, "token": os.urandom(16).hex(), "since": client.revision}
        reply, html = client.request("POST", f"{client.sheet}/lines", data)
        assert reply.status == 200, text[:60]
        assert len(html) <= 4 * MOST_BYTES, text[:60]
        client.revision = revision_in(html, client.revision)
    for _ in range(3):
        client.request("GET", client.sheet)
        _, quantities = client.request("GET", f"{client.sheet}/quantities")
    assert len(quantities) <= MOST_BYTES
    assert max(map(memory_of, web_processes(server.process.pid))) < MOST_MEMORY
    server.kill()
    with sqlite3.connect(tmp_path / "teapot.sqlite3") as database:
        kept = database.execute("SELECT text, outcome, search_text FROM console_line").fetchall()
    assert len(kept) > len(LARGE) / 2
    for text, outcome, found in kept:
        assert len(outcome) <= MOST_BYTES, text[:60]
        assert len(found) <= MOST_BYTES, text[:60]


def web_processes(parent: int) -> list[int]:
    """The server and its workers, without the evaluators."""
    children = Path(f"/proc/{parent}/task/{parent}/children").read_text().split()
    return [parent, *map(int, children)]


def memory_of(pid: int) -> int:
    """Bytes of memory that a process has taken at most so far."""
    status = Path(f"/proc/{pid}/status").read_text()
    return int(re.search(r"VmHWM:\s+(\d+) kB", status).group(1)) * 1024
