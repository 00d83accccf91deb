"""``make bench``: what a line costs, side by side, in one run.

* the engine, from text to MathML, on the 200 lines of ``bench_lines.txt``
* the same lines through sympy, which reads, evaluates to 10 digits and stops there
* the same lines through Python's own floats, as the floor
* a list that is long and hard to put in order
* what an evaluator does for a key, in a sheet of ten lines
* the server's time for what is shown while typing, a search and a kept line
"""

from __future__ import annotations

import math
import statistics
import tempfile
import time
import urllib.parse
from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import datetime
from pathlib import Path

import sympy

from teapot.engine import FullSheet, Settings
from teapot.fence import worker
from teapot.fence.jobs import ReadTyped
from teapot.fence.lines import SheetLine
from teapot.fence.worker import State
from tests.server import Client, Server

LINES = (Path(__file__).parent / "bench_lines.txt").read_text().splitlines()
SORTED = "sort(sqrt(1..10000))"
ROUNDS = 7
REQUESTS = 200
TYPED = "theta = 2*sin(30°)/sqrt(3 + 4^2)"
BEGINNINGS = ("sq", "arc", "inverse sine", "m", "lo", "pi as fr", "/an", "sqaure rot")
SEARCHES = tuple(
    f"/handbook/find?words={urllib.parse.quote(words)}"
    for words in ("log base ten", "degres to radians", "round down", "standard devation", "%")
)


def at_caret(client: Client, text: str) -> str:
    """The preview of a line with the caret at its end."""
    return client.preview(text, caret=len(text))


def split(line: str) -> tuple[str | None, str]:
    """The target of an assignment, if any, and the expression as Python writes it."""
    name, sign, value = line.partition(" = ")
    return (name, value) if sign else (None, line)


def engine() -> None:
    sheet = FullSheet()
    for line in LINES:
        outcome = sheet.answer(line)
        assert outcome.status == "ok", line
        outcome.as_dict()  # text and MathML are made when they are asked for


def through_sympy() -> None:
    names: dict[str, object] = {"ln": sympy.log}
    for line in LINES:
        name, expression = split(line)
        value = sympy.sympify(expression.replace("^", "**"), locals=names).evalf(10)
        if name:
            names[name] = value


def floats() -> None:
    names: dict[str, object] = {
        "sqrt": math.sqrt, "sin": math.sin, "cos": math.cos, "tan": math.tan, "ln": math.log,
        "exp": math.exp, "abs": abs, "pi": math.pi, "__builtins__": {},
    }  # fmt: skip
    for line in LINES:
        name, expression = split(line)
        value = eval(expression.replace("^", "**"), names)  # our own fixed lines
        if name:
            names[name] = value


def sorting() -> float:
    """The milliseconds of a list of roots, put in order and written for the page."""
    start = time.perf_counter()
    FullSheet().answer(SORTED).kept()
    return (time.perf_counter() - start) * 1e3


KEYS = {
    "preview while typing": [f"{line} + {n}" for n, line in enumerate(LINES[10:])],
    "completion while typing": [*BEGINNINGS] * 10,
    "notice with its mend": [f"sin({30 + n})" for n in range(100)],
    "card with a curve": [f"bessel_j(0, {n}" for n in range(100)],
    "a line, key by key": [TYPED[:at] for at in range(1, len(TYPED) + 1)] * 3,
}


def keys() -> Iterator[tuple[str, list[float]]]:
    """The milliseconds of each job of a key, by what it shows."""
    lines = tuple(SheetLine(at, text, at - 1 or None, at) for at, text in enumerate(LINES[:10], 1))
    state = State("bench", 1, Settings(), datetime(2026, 1, 1))
    worker.work(replace(state, lines=lines), ReadTyped(number=0, text="1"))
    for name, texts in KEYS.items():
        times = []
        for text in texts:
            job = ReadTyped(number=0, text=text, last=10, caret=len(text))
            start = time.perf_counter()
            worker.work(state, job)
            times.append((time.perf_counter() - start) * 1e3)
        yield name, sorted(times)


def microseconds(work: Callable[[], None]) -> list[float]:
    """The time a line took in each round, after one round that does not count."""
    work()
    times = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) / len(LINES) * 1e6)
    return times


def milliseconds(work: Callable[[int], object]) -> list[float]:
    """The time of each of many requests, one after another."""
    for count in range(10):
        work(-count)
    times = []
    for count in range(REQUESTS):
        start = time.perf_counter()
        work(count)
        times.append((time.perf_counter() - start) * 1e3)
    return sorted(times)


def main() -> None:
    """Prints all figures."""
    print(f"{len(LINES)} lines, {ROUNDS} rounds: microseconds a line, median (least-most)")
    for name, work in (
        ("engine, parse to MathML", engine),
        ("sympify(...).evalf(10)", through_sympy),
        ("eval of floats, the floor", floats),
    ):
        times = microseconds(work)
        print(f"  {name:28}{statistics.median(times):10.1f}  ({min(times):.1f}-{max(times):.1f})")
    print("a long list, milliseconds, least of 3")
    print(f"  {SORTED:28}{min(sorting() for _ in range(3)):10.1f}")
    print("a key in an evaluator, milliseconds, median and 95th percentile")
    for name, times in keys():
        print(f"  {name:28}{statistics.median(times):10.2f}  {times[len(times) * 95 // 100]:.2f}")
    print(f"server, {REQUESTS} requests: milliseconds, median and 95th percentile")
    with tempfile.TemporaryDirectory() as data:
        server = Server(Path(data))
        server.start()
        client = Client(server)
        for line in LINES[:10]:
            client.keep(line)
        for name, work in (
            ("preview while typing", lambda n: client.preview(f"{LINES[10 + n % 190]} + {n}")),
            ("completion while typing", lambda n: at_caret(client, BEGINNINGS[n % 8])),
            ("notice with its mend", lambda n: at_caret(client, f"sin({30 + n})")),
            ("card with a curve", lambda n: at_caret(client, f"bessel_j(0, {n}")),
            ("handbook search", lambda n: client.request("GET", SEARCHES[n % 5])),
            ("kept line", lambda n: client.keep(LINES[10 + n % 190])),
        ):
            times = milliseconds(work)
            median, late = times[len(times) // 2], times[int(len(times) * 0.95)]
            print(f"  {name:28}{median:10.1f}  {late:.1f}")
        server.kill()


if __name__ == "__main__":
    main()
