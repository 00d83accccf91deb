"""``python -m engine``: answers a sheet of text, one line a line.

Questions of a sheet in a file are replied to on standard input, a row each.

Exit status 0, or 1 when any line was an error.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Iterable

from engine import Outcome, Sheet
from engine.errors import Asked
from engine.handbook.entries import BY_TYPED, as_text
from engine.handbook.search import search
from engine.limits import MAX_RECURSION
from engine.sheet.outcome import ERROR, NOTE, UNFINISHED
from engine.sheet.workings import WorkStep


def main() -> int:
    """Reads the arguments, answers every line, prints what the console would."""
    parser = argparse.ArgumentParser(prog="python -m engine", description=__doc__)
    parser.add_argument("file", nargs="?", help="a sheet as UTF-8 text; standard input if left out")
    parser.add_argument("--json", action="store_true", help="print one JSON object a line")
    parser.add_argument("--workings", action="store_true", help="add the steps of each line")
    options = parser.parse_args()
    sys.setrecursionlimit(MAX_RECURSION)
    sheet = Sheet()
    failed = False
    for line in _read(options.file).replace("\r\n", "\n").split("\n"):
        if not line.strip():
            continue
        outcome = _answered(sheet, line, may_ask=options.file is not None)
        failed = failed or outcome.status in (ERROR, UNFINISHED)
        steps = _steps(sheet, outcome) if options.workings else []
        if options.json:
            data = outcome.as_dict() | {"steps": [step.as_dict() for step in steps]}
            print(json.dumps(data, ensure_ascii=False))
        else:
            print(shown(outcome, steps))
    return 1 if failed else 0


def _answered(sheet: Sheet, line: str, may_ask: bool) -> Outcome:
    """The outcome of a line; its questions are put, and replies read from standard input."""
    replies: list[str] = []
    outcome = sheet.answer(line)
    while may_ask and isinstance(outcome.error, Asked):
        print(outcome.error.text, file=sys.stderr, flush=True)
        row = sys.stdin.readline()
        if not row:
            break
        sheet.remove(outcome.number)
        replies = [*replies[: outcome.error.taken], row.strip()]
        outcome = sheet.answer(line, replies)
    return outcome


def _read(path: str | None) -> str:
    if path is None:
        return sys.stdin.buffer.read().decode("utf-8-sig", errors="replace")
    with open(path, encoding="utf-8-sig", errors="replace") as file:
        return file.read()


def _steps(sheet: Sheet, outcome: Outcome) -> list[WorkStep]:
    if not outcome.answers:
        return []
    statements = sheet.workings(sheet.by_number[outcome.number])
    return [step for statement in statements for step in statement]


def shown(outcome: Outcome, steps: list[WorkStep]) -> str:
    """An outcome as plain text."""
    return "\n".join(_shown_lines(outcome, steps))


def _looked_up(command: str, words: str) -> list[str]:
    """What the handbook says: the entry of a name, or a line for each that is found."""
    if command == "help" and words in BY_TYPED:
        return as_text(BY_TYPED[words]).split("\n")
    return [f"{entry.pattern}  {entry.summary}" for entry in search(words)]


def _shown_lines(outcome: Outcome, steps: list[WorkStep]) -> Iterable[str]:
    yield f"{outcome.number:>4}  {outcome.input}"
    if outcome.status == NOTE:
        return
    if isinstance(outcome.error, Asked):
        yield f"      asks: {outcome.error.text}"
        return
    if outcome.error is not None:
        data = outcome.as_dict()["error"]
        yield f"      {data['text']}"
        yield from (f"      perhaps: {fix['input']}" for fix in data["fixes"])
        return
    if outcome.command and outcome.command[0] in ("help", "find"):
        yield from (f"      {line}" for line in _looked_up(*outcome.command))
    for step in steps:
        yield f"        {step.input} {step.sign} {step.text}"
    if not outcome.quiet:
        for answer in outcome.answers:
            shown = "" if answer.says_itself else f" {answer.sign} {answer.text}"
            shown += f" ≈ {answer.nearly}" if answer.nearly else ""
            shown += f"  (angles in {answer.unit})" if answer.unit else ""
            yield f"      {answer.reading}{shown}"
            yield from (f"        {also}" for also in answer.also)
    for notice in outcome.notices:
        yield f"      ({notice.text})"


if __name__ == "__main__":
    sys.exit(main())
