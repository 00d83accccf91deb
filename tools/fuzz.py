"""``make fuzz``: 100,000 lines made by chance, and everything with every awkward value,
each answered under its limits; and as many files, in every format that comes in.

Prints the lines and the files on which the engine failed, lines that were stopped, and the
slowest.
"""

from __future__ import annotations

import json
import sys
import time
from collections import Counter
from itertools import chain
from typing import Any

from teapot.engine.limited.sheet import LimitedSheet, WantedLine
from tests.engine.fuzzed import files, lines, pairings
from tests.engine.test_any_file import said_of

COUNT = int(sys.argv[1]) if len(sys.argv) > 1 else 100_000
SEED = int(sys.argv[2]) if len(sys.argv) > 2 else 1
LINES_A_SHEET = 200
LONGEST = 5.0
"""Seconds within which a line has its answer or its error."""


def unread(count: int, seed: int) -> int:
    """On how many files, in every format that comes in, a reader failed."""
    failures = 0
    for name, content in files(count, seed):
        start = time.monotonic()
        try:
            said_of(name, content)
        except Exception as error:
            failures += 1
            print(f"  {type(error).__name__} {error}: {name} {content!r}", flush=True)
        if time.monotonic() - start > LONGEST:
            failures += 1
            print(f"  longer than {LONGEST} s: {name} {content!r}", flush=True)
    print(f"{count:,} files")
    return failures


def answered(sheet: LimitedSheet, number: int, line: str) -> tuple[dict[str, Any], float]:
    """What a line gives, and how many seconds that took."""
    start = time.monotonic()
    printed = json.loads(sheet.answer(WantedLine(number, line, json=True)).text)
    return printed, time.monotonic() - start


def main() -> int:
    """1 where the engine failed on a line or a file, or one took longer than it may."""
    outcomes: Counter[str] = Counter()
    failures = 0
    slowest = (0.0, "")
    sheet = LimitedSheet()
    for number, line in enumerate(chain(lines(COUNT, SEED), pairings())):
        if number % LINES_A_SHEET == 0:
            sheet.__exit__()
            sheet = LimitedSheet()
        printed, took = answered(sheet, number % LINES_A_SHEET + 1, line)
        if took > LONGEST:  # the machine may have been at something else meanwhile
            with LimitedSheet() as alone:
                printed, again = answered(alone, 1, line)
            took = min(took, again)
        slowest = max(slowest, (took, line))
        code = printed["error"]["code"] if printed["error"] else printed["status"]
        outcomes[
            code if code in ("ok", "unforeseen", "too-slow", "too-much-memory") else "said"
        ] += 1
        if code == "unforeseen" or took > LONGEST:
            failures += 1
            print(f"  {code} after {took:.1f} s: {line!r}", flush=True)
        elif code in ("too-slow", "too-much-memory"):
            print(f"  {code}: {line!r}", flush=True)
    sheet.__exit__()
    failures += unread(COUNT, SEED)
    print(f"{number + 1:,} lines: {dict(outcomes)}; slowest {slowest[0]:.2f} s: {slowest[1]!r}")
    return 1 if failures else 0


if __name__ == "__main__":
    sys.exit(main())
