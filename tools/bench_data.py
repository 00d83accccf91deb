"""``make bench``: what a table of 100,000 rows and 8 columns costs, and a list of as many."""

from __future__ import annotations

import csv
import gc
import json
import random
import resource
import tempfile
import time
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path

from teapot.engine import FullSheet
from teapot.engine.files.preview import preview_of
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.limited.bounds import COLLECT_AFTER
from teapot.fence.file_jobs import ShowRows

ROWS = 100_000
LINES = (
    "mean(t.temp)", "sum(t.power)", "sort(t, by=temp)", "overview(t)",
    'count(where(t, temp > 80 and pot == "B"))',
)  # fmt: skip


def write_table(file: Path) -> None:
    """Made-up readings, the same each time."""
    chance = random.Random(7)
    heads = "time [s]", "temp [°C]", "pot", "power", "strength", "mark", "cup", "note"
    with file.open("w", encoding="utf-8", newline="") as out:
        writer = csv.writer(out)
        writer.writerow(heads)
        for at in range(ROWS):
            writer.writerow(
                (
                    f"{at / 10:.1f}",
                    f"{20 + chance.random() * 70:.2f}",
                    chance.choice("ABC"),
                    f"{1800 + chance.random() * 50:.3f}",
                    f"{chance.random():.4f}",
                    chance.randint(1, 10),
                    at % 60 + 1,
                    chance.choice(("good", "weak", "bitter", "")),
                )
            )


def timed(said: str, act: Callable[[], object]) -> None:
    """Prints how long it takes."""
    start = time.perf_counter()
    act()
    print(f"{time.perf_counter() - start:7.2f} s  {said}")


def main() -> None:
    """Prints the figures."""
    gc.set_threshold(*COLLECT_AFTER)  # as an evaluator does
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "table.csv"
        write_table(path)
        data = path.read_bytes()
        print(f"a table of {ROWS:,} rows and 8 columns, {len(data) / 1e6:.1f} MB:")
        timed("read and previewed", lambda: preview_of(data))
        sheet = FullSheet()
        file = File(str(path))
        sheet.shelf = shelf_of({"t": "1"}, {"1": file})
        timed('t = shelf("t"), for the first time', lambda: sheet.answer('t = shelf("t")'))
        for line in LINES:
            timed(line, lambda line=line: sheet.answer(line))
        timed("a filter on its page", lambda: ShowRows(file=file, test="temp > 89").do(sheet))
    print(f"a list of {ROWS:,}:")
    sheet.answer(f"w = 1..{ROWS}")
    timed("r = sqrt(w)", lambda: sheet.answer("r = sqrt(w)"))
    for line in ("sort(r)", "mean(r)", "stdev(r)", "max(r)", "where(r, r > 300)"):
        timed(line, lambda line=line: sheet.answer(line))
    kept = asdict(sheet.by_number[sheet.highest - 5].outcome.kept())
    print(f"{len(json.dumps(kept)) / 1000:7.1f} kB of a line kept (r = sqrt(w))")
    print(f"{resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:7.0f} MB at most")


if __name__ == "__main__":
    main()
