"""``make load``: many people at once on the real server, as their browsers would send it.

Each types: a preview a second while a line grows, and a line kept every five.  ``--abusers`` open
so many connections more that send lines without end.  Printed are the times of each kind of
request, errors, and what each process took of a processor and of memory.
"""

from __future__ import annotations

import argparse
import asyncio
import os
import random
import re
import resource
import tempfile
import time
import urllib.parse
import uuid
from collections import Counter, defaultdict
from dataclasses import dataclass, field
from pathlib import Path

from tests.server import Server

LINES = (
    "m = 1.2  # water in the pot, kg", "c = 4186", "T_1 = 96", "T_0 = 18.5", "Q = m*c*(T_1 - T_0)",
    "P = 1800", "t = Q/(0.85*P)", "t/60 as 3 digits", "sqrt(m^2 + 2)", "sin(30°)", "6+3/6+3",
    "exp(-t/3600)*100", "round(Q/1000, 1)", "log(100, 10)", "m*(1 - 0.02)^3", "@ * 2",
    "mean(1.2, 1.3, 1.25)", "arctan(1, 2) as deg", "(2 + 3i)*(1 - i)", "1/3 + 1/7 as fraction",
)  # fmt: skip
"""What is typed, from the problem sheet of a made-up tea laboratory."""

RUNAWAY = ("f(x) = if(x > 0, f(x - 1) + f(x - 1), 1)", "f(60)", "sin(10^999999)", "factorial(10^6)")
FORM = "application/x-www-form-urlencoded"
BETWEEN_KEYS, BETWEEN_LINES = 1.0, 5.0
TIMEOUT = 30.0


@dataclass(slots=True)
class Seen:
    """The times of requests in ms, by kind, and what went wrong."""

    times: dict[str, list[float]] = field(default_factory=lambda: defaultdict(list))
    errors: Counter[str] = field(default_factory=Counter)
    counts: bool = False


class Browser:
    """One connection that is kept open, and the cookies of a person."""

    def __init__(self, port: int, seen: Seen) -> None:
        self.port = port
        self.seen = seen
        self.cookies: dict[str, str] = {}
        self.csrf = self.may = ""
        self.sheet = ""
        self.revision = "0"
        self.listed = ""
        self.shown: list[str] = []
        self._streams: tuple[asyncio.StreamReader, asyncio.StreamWriter] | None = None

    async def request(self, method: str, path: str, data: dict[str, str] | None = None):
        """Status, headers and text; a connection that the server closed is opened again."""
        for fresh in (False, True):
            if self._streams is None or fresh:
                self._streams = await asyncio.open_connection("127.0.0.1", self.port)
            try:
                return await self._exchange(*self._streams, method, path, data)
            except (asyncio.IncompleteReadError, ConnectionError, OSError):
                self._streams[1].close()
                self._streams = None
                if fresh:
                    raise
        raise ConnectionError

    async def _exchange(self, reader, writer, method, path, data):
        body = urllib.parse.urlencode(data).encode() if data is not None else b""
        cookies = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        head = f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nCookie: {cookies}\r\n"
        if data is not None:
            head += (
                f"Content-Type: application/x-www-form-urlencoded\r\nX-CSRFToken: {self.csrf}\r\n"
                f"X-May: {self.may}\r\n"
            )
        writer.write(
            f"{head}HX-Request: true\r\nContent-Length: {len(body)}\r\n\r\n".encode() + body
        )
        await writer.drain()
        first, *rest = (await reader.readuntil(b"\r\n\r\n")).decode().split("\r\n")
        headers = {}
        for row in filter(None, rest):
            name, _, value = row.partition(": ")
            if name.lower() == "set-cookie":
                key, _, cookie = value.partition("=")
                self.cookies[key.strip()] = cookie.split(";")[0]
            headers[name.lower()] = value
        self.may = headers.get("x-may") or self.may
        text = await reader.readexactly(int(headers.get("content-length", 0)))
        if headers.get("connection", "").lower() == "close":
            writer.close()
            self._streams = None
        return int(first.split()[1]), headers, text.decode("utf-8", "replace")

    async def timed(self, kind: str, path: str, data: dict[str, str] | None) -> dict[str, str]:
        """The headers of a reply; its time is noted under ``kind``."""
        start = time.perf_counter()
        try:
            method = "GET" if data is None else "POST"
            status, headers, _ = await asyncio.wait_for(self.request(method, path, data), TIMEOUT)
        except (TimeoutError, ConnectionError, OSError, asyncio.IncompleteReadError) as error:
            if self._streams is not None:
                self._streams[1].close()
                self._streams = None
            status, headers = 0, {}
            if self.seen.counts:
                self.seen.errors[f"{kind}: {type(error).__name__}"] += 1
        if self.seen.counts and status:
            self.seen.times[kind].append((time.perf_counter() - start) * 1000)
            if status >= 400:
                self.seen.errors[f"{kind}: {status}"] += 1
        return headers

    async def open(self) -> None:
        """Opens the sheet page."""
        _, headers, _ = await self.request("GET", "/")
        self.sheet = headers["location"]
        await self.request("GET", self.sheet)
        _, _, quantities = await self.request("GET", f"{self.sheet}/quantities")
        revision = re.search(r'data-revision="(\d+)"', quantities)
        self.listed = revision[1] if revision else ""
        self.csrf = self.cookies.get("csrftoken", "")

    async def keep(self, text: str, kind: str = "kept") -> None:
        """Keeps a line, and asks for what the page asks for after it."""
        data = {"text": text, "token": str(uuid.uuid4()), "since": self.revision}
        data |= {"shows": ",".join(self.shown[-30:]), "listed": self.listed}
        headers = await self.timed(kind, f"{self.sheet}/lines", data)
        if "x-revision" not in headers:
            return
        self.revision = headers["x-revision"]
        self.shown.append(self.revision)
        if "x-quantities" in headers:
            self.listed = headers["x-quantities"]
        else:  # they did not come with it
            await self.timed("quantities", f"{self.sheet}/quantities", None)


async def type_lines(browser: Browser, until: float) -> None:
    """A person at work, until then."""
    await asyncio.sleep(random.random() * BETWEEN_LINES)
    at = random.randrange(len(LINES))
    due = time.monotonic()
    while time.monotonic() < until:
        line = LINES[at % len(LINES)]
        at += 1
        keys = max(1, round(BETWEEN_LINES / BETWEEN_KEYS) - 1)
        for key in range(1, keys + 1):
            typed = line[: max(1, len(line) * key // keys)]
            data = {"text": typed, "caret": str(len(typed))}
            await browser.timed("preview", f"{browser.sheet}/preview", data)
            due += BETWEEN_KEYS
            await asyncio.sleep(max(0, due - time.monotonic()))
        await browser.keep(line)
        due += BETWEEN_KEYS
        await asyncio.sleep(max(0, due - time.monotonic()))


async def run_away(browser: Browser, until: float) -> None:
    """Lines that run into limits, one after another."""
    while time.monotonic() < until:
        await browser.keep(random.choice(RUNAWAY[1:]), "runaway")


async def work(server: Server, people: int, abusers: int, seconds: float, seen: Seen) -> float:
    """Everybody at work; the seconds that were measured."""
    browsers = [Browser(server.port, seen) for _ in range(people)]
    gate = asyncio.Semaphore(4)

    async def open_one(browser: Browser) -> None:
        async with gate:
            await browser.open()

    await asyncio.gather(*map(open_one, browsers))
    first = Browser(server.port, Seen())
    await first.open()
    await first.keep(RUNAWAY[0], "runaway")
    evil = []
    for _ in range(abusers):
        one = Browser(server.port, seen)
        one.cookies, one.csrf, one.sheet = first.cookies, first.csrf, first.sheet
        evil.append(one)
    until = time.monotonic() + BETWEEN_LINES + seconds
    jobs = [asyncio.create_task(type_lines(one, until)) for one in browsers]
    jobs += [asyncio.create_task(run_away(one, until)) for one in evil]
    await asyncio.sleep(BETWEEN_LINES)  # until all are at work
    seen.counts = True
    start = time.monotonic()
    before = processes(server.process.pid)
    mine, all_of_it = resource.getrusage(resource.RUSAGE_SELF), machine()
    await asyncio.sleep(seconds)
    seen.counts = False
    took = time.monotonic() - start
    report(seen, before, processes(server.process.pid), mine, took)
    busy, whole = (now - then for now, then in zip(machine(), all_of_it, strict=True))
    print(f"  the machine: {os.cpu_count()} processors, {100 * busy / whole:.0f} % of them busy")
    for job in jobs:
        job.cancel()
    await asyncio.gather(*jobs, return_exceptions=True)
    return took


@dataclass(frozen=True, slots=True)
class Process:
    """What a process is, the seconds of a processor it took, and its memory in MB."""

    what: str
    seconds: float
    memory: float


def machine() -> tuple[int, int]:
    """What all processors of the machine did so far, for whomever: busy, and in all."""
    times = [int(one) for one in Path("/proc/stat").read_text().split("\n")[0].split()[1:]]
    return sum(times) - times[3] - times[4], sum(times)


def processes(group: int) -> dict[int, Process]:
    """The processes of the server, by their numbers."""
    found = {}
    tick = os.sysconf("SC_CLK_TCK")
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            stat = (folder / "stat").read_text().rpartition(")")[2].split()
            command = (folder / "cmdline").read_text().split("\0")
            called = (folder / "comm").read_text().strip()
            kib = re.search(r"VmRSS:\s+(\d+)", (folder / "status").read_text())
        except OSError:
            continue
        if int(stat[3]) != group and int(stat[2]) != group:
            continue
        module = command[command.index("-m") + 1] if "-m" in command else command[0]
        what = module if called.startswith("python") else called
        seconds = (int(stat[11]) + int(stat[12])) / tick
        found[int(folder.name)] = Process(what, seconds, int(kib[1]) / 1024 if kib else 0)
    return found


def report(seen, before, after, mine, took) -> None:
    """Prints what was seen."""
    for kind, times in sorted(seen.times.items()):
        times.sort()
        at = [times[min(len(times) - 1, int(len(times) * part))] for part in (0.5, 0.95, 0.99)]
        print(f"  {kind:12} {len(times):6} times   ms: median {at[0]:8.1f}   95 % {at[1]:8.1f}"
              f"   99 % {at[2]:8.1f}   most {times[-1]:8.1f}")  # fmt: skip
    print(f"  errors: {dict(seen.errors) or 'none'}")
    total = 0.0
    for pid, one in sorted(after.items()):
        used = one.seconds - (before[pid].seconds if pid in before else 0)
        total += used
        share = 100 * used / took
        print(f"  {one.what:40} {pid:8} {share:6.1f} % of a processor {one.memory:6.0f} MB")
    now = resource.getrusage(resource.RUSAGE_SELF)
    client = now.ru_utime + now.ru_stime - mine.ru_utime - mine.ru_stime
    print(f"  all {100 * total / took:.0f} %, this client {100 * client / took:.0f} %")


def main() -> None:
    """As the arguments say."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--people", type=int, nargs="+", default=[20, 60, 120, 200])
    parser.add_argument("--seconds", type=float, default=20)
    parser.add_argument("--abusers", type=int, default=0)
    wanted = parser.parse_args()
    for people in wanted.people:
        with tempfile.TemporaryDirectory() as data:
            server = Server(Path(data), paced=True)
            server.start()
            try:
                print(f"{people} people, {wanted.abusers} connections of runaways, "
                      f"{wanted.seconds:g} s", flush=True)  # fmt: skip
                asyncio.run(work(server, people, wanted.abusers, wanted.seconds, Seen()))
            finally:
                server.kill()


if __name__ == "__main__":
    main()
