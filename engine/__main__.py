"""``python -m engine``: answers a sheet of text, one line a line.

Exit status 0, or 1 when any line was an error.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterable

from engine import Outcome, Sheet
from engine.sheet.outcome import ERROR, NOTE, UNFINISHED


def main() -> int:
    """Reads the arguments, answers every line, prints what the console would."""
    parser = argparse.ArgumentParser(prog="python -m engine", description=__doc__)
    parser.add_argument("file", nargs="?", help="a sheet as UTF-8 text; standard input if left out")
    parser.add_argument("--json", action="store_true", help="print one JSON object a line")
    options = parser.parse_args()
    sheet = Sheet()
    failed = False
    for line in _read(options.file).replace("\r\n", "\n").split("\n"):
        if not line.strip():
            continue
        outcome = sheet.answer(line)
        failed = failed or outcome.status in (ERROR, UNFINISHED)
        print(json.dumps(outcome.as_dict(), ensure_ascii=False) if options.json else shown(outcome))
    return 1 if failed else 0


def _read(path: str | None) -> str:
    if path is None:
        return sys.stdin.buffer.read().decode("utf-8-sig", errors="replace")
    with open(path, encoding="utf-8-sig", errors="replace") as file:
        return file.read()


def shown(outcome: Outcome) -> str:
    """An outcome as plain text."""
    return "\n".join(_shown_lines(outcome))


def _shown_lines(outcome: Outcome) -> Iterable[str]:
    yield f"{outcome.number:>4}  {outcome.input}"
    if outcome.status == NOTE:
        return
    if outcome.error is not None:
        data = outcome.as_dict()["error"]
        yield f"      {data['text']}"
        yield from (f"      perhaps: {fix['input']}" for fix in data["fixes"])
        return
    if not outcome.quiet:
        for answer in outcome.answers:
            yield f"      {answer.reading} {answer.sign} {answer.text}"
    for notice in outcome.notices:
        yield f"      ({notice.text})"


if __name__ == "__main__":
    sys.exit(main())
