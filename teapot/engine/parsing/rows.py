"""Several lines typed or pasted at once."""

from __future__ import annotations

from teapot.engine.errors import LineError, Unfinished
from teapot.engine.parsing.parser import parse

MAX_ROWS = 100
"""Rows of one line: one that still is not finished then is taken as it is."""


def lines_in(text: str) -> list[str]:
    """The lines that the rows of ``text`` make up, in their order.

    A row that waits for more, such as one with an open bracket, is one line with the
    rows after it, up to the one that ends it.  Empty rows are left out.
    """
    lines: list[str] = []
    waiting: list[str] = []
    for row in text.splitlines():
        if not row.strip():
            continue
        waiting.append(row)
        line = "\n".join(waiting)
        if len(waiting) == MAX_ROWS or not _waits(line):
            lines.append(line)
            waiting = []
    return [*lines, "\n".join(waiting)] if waiting else lines


def _waits(line: str) -> bool:
    """Whether a line is not finished yet."""
    try:
        parse(line)
    except Unfinished:
        return True
    except LineError:
        return False
    return False
