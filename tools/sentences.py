"""``python -m tools.sentences``: every sentence that a line can bring, with an input that does.

The inputs are those of the table of slips and the texts in the engine's tests, the shortest first.
What no such line brings, since it takes a busy server, a file or another window, comes last.
"""

from __future__ import annotations

import ast
import importlib
import pkgutil
import re
import sys
from collections.abc import Iterator
from pathlib import Path

from teapot.engine import FullSheet, sentences
from teapot.engine.errors import Problem
from teapot.engine.limited.bounds import TimeIsUp, time_limit

TESTS = Path(__file__).parent.parent / "tests" / "engine"
SECONDS = 1.0
LONGEST = 120


def problems() -> Iterator[tuple[str, str, Problem]]:
    """The module, the name and the problem of each sentence."""
    for module in pkgutil.iter_modules(sentences.__path__):
        table = importlib.import_module(f"teapot.engine.sentences.{module.name}")
        for name, value in vars(table).items():
            if isinstance(value, Problem):
                yield module.name, name, value


def inputs() -> list[list[str]]:
    """The sheets of a few lines that are tried, the shortest first."""
    found = {
        tuple(part.strip() for part in row.split("=>")[0].split(" | "))
        for row in (TESTS / "slips.txt").read_text("utf-8").splitlines()
        if "=>" in row
    }
    for file in TESTS.glob("test_*.py"):
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                found.add((node.value,))
            elif isinstance(node, ast.List | ast.Tuple):
                texts = [one.value for one in node.elts if isinstance(one, ast.Constant)]
                if len(texts) == len(node.elts) and all(isinstance(one, str) for one in texts):
                    found.add(tuple(map(str, texts)))
    short = (one for one in found if 0 < sum(map(len, one)) < LONGEST and "\n" not in "".join(one))
    return sorted(map(list, short), key=lambda lines: (sum(map(len, lines)), lines))


def patterns() -> dict[str, re.Pattern[str]]:
    """For each sentence, what it is like with facts put in."""
    found = {}
    for module, name, problem in problems():
        text = re.sub(r"\\\{\w+(?::[^}]*)?\\\}", ".+?", re.escape(problem.sentence))
        found[f"{module}.{name}"] = re.compile(text)
    return found


def brought_by(lines: list[str]) -> Iterator[tuple[str, str]]:
    """The code and the text of all that is said of the last line."""
    sheet = FullSheet()
    try:
        with time_limit(SECONDS):
            for line in lines:
                outcome = sheet.answer(line)
    except (TimeIsUp, MemoryError):
        return
    if outcome.error is not None:
        yield outcome.error.code, outcome.error.text
    for notice in outcome.notices:
        yield notice.code, notice.text


def main() -> None:
    """Prints the list."""
    all_of_them, like = list(problems()), patterns()
    examples: dict[str, tuple[str, str]] = {}
    for lines in inputs():
        for code, text in brought_by(lines):
            for module, name, problem in all_of_them:
                key = f"{module}.{name}"
                if key not in examples and problem.code == code and like[key].fullmatch(text):
                    examples[key] = (" ⏎ ".join(lines), text)
    rest = []
    for module, name, problem in all_of_them:
        found = examples.get(f"{module}.{name}")
        if found is None:
            rest.append(f"{module}.{name}: {problem.sentence}")
        else:
            print(f"{module}  {problem.code}\n    {found[0]}\n    {found[1]}")
    print(f"\n{len(examples)} of {len(all_of_them)}; not brought by any line:", *rest, sep="\n  ")


if __name__ == "__main__":
    sys.exit(main())
