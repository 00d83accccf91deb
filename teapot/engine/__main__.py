"""``python -m teapot.engine``: answers a sheet of text, one line a line.

On Linux each line has the limits of time, memory and depth that it has on the page; elsewhere that
of depth alone.  Questions of a sheet in a file are replied to on standard input, a row each.
``/run NAME`` runs a procedure into the sheet, as on the page, with what its questions suggest.

Exit status 0, or 1 when any line was an error, or 2 where the file cannot be read.
"""

from __future__ import annotations

import argparse
import sys
from collections.abc import Iterator
from dataclasses import replace
from typing import Protocol

from teapot.engine.printing_sheet import Printed, PrintingSheet, WantedLine, procedure_in
from teapot.engine.sheet.running import Given, replies_by_line


def main() -> int:
    """Reads the arguments, answers every line, prints what the console would."""
    parser = argparse.ArgumentParser(prog="python -m teapot.engine", description=__doc__)
    parser.add_argument("file", nargs="?", help="a sheet as UTF-8 text; standard input if left out")
    parser.add_argument("--json", action="store_true", help="print one JSON object a line")
    parser.add_argument("--workings", action="store_true", help="add the steps of each line")
    parser.add_argument("--latex", action="store_true", help="add each answer as LaTeX")
    parser.add_argument("--whole", action="store_true", help="print all of long lists and tables")
    parser.add_argument(
        "--data",
        action="append",
        default=[],
        type=_named_file,
        metavar="NAME=FILE.csv",
        help='makes shelf("NAME") known to the sheet',
    )
    parser.add_argument(
        "--procedure",
        action="append",
        default=[],
        type=_named_file,
        metavar="NAME=FILE.txt",
        help='makes run("NAME") known to the sheet',
    )
    options = parser.parse_args()
    try:
        text = _read(options.file)
    except OSError as error:
        print(f"{options.file} cannot be read: {error.strerror}.", file=sys.stderr)
        return 2
    failed = False
    with _new_sheet() as sheet:
        for wanted in _wanted_lines(text.replace("\r\n", "\n").split("\n"), options):
            printed = _answered(sheet, wanted, may_ask=options.file is not None)
            failed = failed or printed.failed
            print(printed.text, flush=True)
    return 1 if failed else 0


def _wanted_lines(lines: list[str], options: argparse.Namespace) -> Iterator[WantedLine]:
    """The lines of a sheet; those of a procedure that is run into it are numbered after its own,
    and are printed under the number of the line that runs it."""
    pattern = WantedLine(
        0,
        "",
        json=options.json,
        workings=options.workings,
        latex=options.latex,
        whole=options.whole,
        data=tuple(options.data),
        procedures=tuple(options.procedure),
    )
    later = len(lines)
    for number, line in enumerate(lines, 1):
        texts = _lines_of_run(line, dict(options.procedure))
        if texts is None and line.strip():
            yield replace(pattern, number=number, text=line)
        for text, replies in texts or ():
            later += 1
            yield replace(pattern, number=later, text=text, replies=replies, shown=number)


def _lines_of_run(line: str, procedures: dict[str, str]) -> list[tuple[str, Given]] | None:
    """The lines that ``/run NAME`` stands for, with what their questions suggest; None where the
    line is another one."""
    command, _, name = line.strip().partition(" ")
    name = name.strip().strip('"')
    if command != "/run" or not name:
        return None
    if name not in procedures:
        return [(f'run("{name}")', ())]  # which says what there is
    return replies_by_line(procedure_in(name, procedures[name]), {})


class Answering(Protocol):
    """A sheet that answers and prints lines."""

    def __enter__(self) -> Answering: ...
    def __exit__(self, *_: object) -> None: ...
    def answer(self, wanted: WantedLine) -> Printed: ...


def _new_sheet() -> Answering:
    """A sheet whose lines have limits, where the system has them."""
    if sys.platform != "linux":
        print("Lines have no limits of time and memory on this system.", file=sys.stderr)
        return PrintingSheet()
    from teapot.engine.limited.sheet import LimitedSheet

    return LimitedSheet()


def _named_file(text: str) -> tuple[str, str]:
    name, separator, path = text.partition("=")
    if not (name and separator and path):
        raise argparse.ArgumentTypeError("say NAME=FILE")
    return name, path


def _answered(sheet: Answering, wanted: WantedLine, may_ask: bool) -> Printed:
    """The line as it is printed; its questions are put, and replies read from standard
    input."""
    replies: list[str] = []
    printed = sheet.answer(wanted)
    while may_ask and printed.asks is not None:
        question, taken = printed.asks
        print(question, file=sys.stderr, flush=True)
        row = sys.stdin.readline()
        if not row:
            break
        replies = [*replies[:taken], row.strip()]
        printed = sheet.answer(replace(wanted, replies=tuple(replies)))
    return printed


def _read(path: str | None) -> str:
    if path is None:
        return sys.stdin.buffer.read().decode("utf-8-sig", errors="replace")
    with open(path, encoding="utf-8-sig", errors="replace") as file:
        return file.read()


if __name__ == "__main__":
    try:
        sys.exit(main())
    except BrokenPipeError:
        # whoever read the answers has heard enough
        sys.stderr.close()
        sys.exit(1)
