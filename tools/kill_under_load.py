"""What is answered is kept, once and in order, whatever is killed while many people type.

Each types as in ``tools.load`` and, as the page does, sends a line again with its token until it
is answered.  Meanwhile evaluators, their service, web processes or all of it are killed; in the
end every sheet is held against what its person saw answered.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import os
import random
import signal
import tempfile
import time
import uuid
from collections import Counter
from contextlib import suppress
from pathlib import Path

from tests.server import Server
from tools.load import Browser, Seen, type_lines

AGAIN = 0.25
"""Seconds after which a line is sent again."""

SERVICE, EVALUATOR, WEB = "evaluators", "evaluator", "web"
PARTS = {
    "an evaluator": (EVALUATOR, 1, signal.SIGKILL),
    "all evaluators": (EVALUATOR, None, signal.SIGKILL),
    "an evaluator that is stopped": (EVALUATOR, 1, signal.SIGSTOP),
    "the service of the evaluators": (SERVICE, 1, signal.SIGKILL),
    "a web process": (WEB, 1, signal.SIGKILL),
    "all web processes": (WEB, None, signal.SIGKILL),
}
"""What is ended: whose command has this word, how many of them, and by which signal."""

KINDS = (*PARTS, "all of it")


def end_part(server: Server, part: str) -> None:
    """Ends a part of a server, or stops it."""
    word, count, how = PARTS[part]
    found = server.parts(word)
    for pid in random.sample(found, min(len(found), count or len(found))):
        with suppress(ProcessLookupError):
            os.kill(pid, how)


class Insisting(Browser):
    """One who sends a line again until it is answered."""

    def __init__(self, port: int, seen: Seen) -> None:
        super().__init__(port, seen)
        self.answered: list[str] = []
        self.longest = 0.0

    async def keep(self, text: str, kind: str = "kept") -> None:
        """Keeps a line, however often that takes."""
        data = {"text": text, "token": str(uuid.uuid4()), "since": self.revision}
        start = time.monotonic()
        while True:
            headers = await self.timed(kind, f"{self.sheet}/lines", data)
            if "x-revision" in headers or "x-refused" in headers:
                break
            await asyncio.sleep(AGAIN)
        self.longest = max(self.longest, time.monotonic() - start)
        if "x-revision" in headers:
            self.revision = headers["x-revision"]
            self.answered.append(text)


async def kill(server: Server, kills: int, between: float) -> tuple[Counter[str], dict[str, float]]:
    """Kills something at random, so many times; how long it took at most until all was back, of
    each kind."""
    done: Counter[str] = Counter()
    longest: dict[str, float] = {}
    for _ in range(kills):
        await asyncio.sleep(random.uniform(0.5, 1.5) * between)
        what = random.choice(KINDS)
        done[what] += 1
        start = time.monotonic()
        if what == KINDS[-1]:
            await asyncio.to_thread(server.kill)
            await asyncio.to_thread(server.start)
        else:
            end_part(server, what)
            await asyncio.to_thread(server.until_well)
        longest[what] = max(longest.get(what, 0), round(time.monotonic() - start, 1))
    return done, longest


async def at_work(server: Server, people: int, kills: int, between: float) -> int:
    """1 where a sheet is not what its person saw."""
    seen = Seen()
    browsers = [Insisting(server.port, seen) for _ in range(people)]
    for one in browsers:
        await one.open()
    going = {"on": True}

    async def type_on(browser: Insisting) -> None:
        while going["on"]:
            await type_lines(browser, time.monotonic() + 1)

    seen.counts = True
    jobs = [asyncio.create_task(type_on(one)) for one in browsers]
    done, back = await kill(server, kills, between)
    going["on"] = False
    await asyncio.gather(*jobs)
    wrong = 0
    for one in browsers:
        _, _, text = await one.request("GET", f"{one.sheet}/sheet.json")
        kept = [line["text"] for line in json.loads(text)["lines"]]
        if kept != one.answered:
            wrong += 1
            print(f"  {one.sheet}: answered {one.answered}, kept {kept}")
    lines = sum(len(one.answered) for one in browsers)
    took = max(one.longest for one in browsers)
    print(f"{people} people, killed: {dict(done)}; {lines} lines were answered, "
          f"{wrong} sheets are not what was answered; all was back after so many "
          f"seconds at most: {back}; a line, sent again each time, took {took:.1f} s")  # fmt: skip
    return int(wrong > 0)


def main() -> int:
    """As the arguments say."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--people", type=int, default=60)
    parser.add_argument("--kills", type=int, default=50)
    parser.add_argument("--between", type=float, default=3, help="seconds between two kills")
    parser.add_argument("--seed", type=int, default=1)
    wanted = parser.parse_args()
    random.seed(wanted.seed)
    with tempfile.TemporaryDirectory() as data:
        server = Server(Path(data))
        server.start()
        try:
            return asyncio.run(at_work(server, wanted.people, wanted.kills, wanted.between))
        finally:
            server.kill()


if __name__ == "__main__":
    raise SystemExit(main())
