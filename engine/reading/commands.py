"""Slash commands: ``/forget e``."""

from __future__ import annotations

import re

from engine.errors import LineError, Span, replace
from engine.reading.tree import Command

COMMANDS = {
    "forget": "forget NAMES|all: takes quantities away, so that built-ins are back",
    "show": "show FORM: how the sheet shows its numbers",
    "clear": "clear: empties the screen; quantities and history stay",
}
"""All commands, each with its pattern and what it does."""


def read_command(text: str) -> Command | None:
    """The command that a line is, None where it is none.

    Errors: :class:`LineError` for a slash with a word that is no command.
    """
    found = re.match(r"\s*/\s*([^\W\d]\w*)", text)
    if found is None:
        return None
    name, span = found.group(1), Span(found.start(1), found.end(1))
    if name not in COMMANDS:
        offered = [c for c in COMMANDS if c[0] == name[0]] or list(COMMANDS)
        known = ", ".join(f"/{command}" for command in COMMANDS)
        raise LineError(
            "unknown-command",
            f"There is no command /{name}. There are {known}.",
            span,
            tuple(replace(span, command) for command in offered),
        )
    words = [
        (word.group(), Span(word.start() + found.end(), word.end() + found.end()))
        for word in re.finditer(r"[^\s,]+", text[found.end() :])
    ]
    return Command(name, tuple(words))
