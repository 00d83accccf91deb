"""Slash commands: ``/forget e``."""

from __future__ import annotations

import re
from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.mends import Span, replace
from teapot.engine.reading.described import Described, Example
from teapot.engine.reading.tree import Command
from teapot.engine.sentences.commands import UNKNOWN_COMMAND
from teapot.engine.spelling import nearest


@dataclass(frozen=True, slots=True, kw_only=True)
class CommandRecord(Described):
    """``pattern`` is what may stand after its name."""

    pattern: str = ""


COMMANDS = {
    record.name: record
    for record in (
        CommandRecord(
            name="help",
            pattern="NAME",
            summary="Opens the handbook at a name.",
            examples=(
                Example("/help arctan"),
                Example("help round"),
            ),
            words="help manual how to",
        ),
        CommandRecord(
            name="find",
            pattern="WORDS",
            summary="Searches the handbook.",
            examples=(
                Example("/find round down"),
                Example("/find log base ten"),
            ),
            words="search look up handbook",
        ),
        CommandRecord(
            name="show",
            pattern="FORM",
            summary="Sets how the sheet shows its numbers.",
            examples=(
                Example("/show 4 digits"),
                Example("/show fraction"),
            ),
            words="digits decimals precision format display",
        ),
        CommandRecord(
            name="angle",
            pattern="rad|deg|gon|turn",
            summary="Sets the unit in which new lines read bare angles, and show computed ones.",
            examples=(
                Example("/angle deg"),
                Example("/angle rad"),
            ),
            words="degree mode radian mode angle unit degrees radians switch",
        ),
        CommandRecord(
            name="numbers",
            pattern="complex|real",
            summary="Sets whether new lines may leave the real numbers.",
            examples=(
                Example("/numbers real"),
                Example("/numbers complex"),
            ),
            words="imaginary numbers on off",
        ),
        CommandRecord(
            name="log",
            pattern="ask|natural|decimal",
            summary="Sets what log(x) means in new lines when it has no base.",
            examples=(
                Example("/log natural"),
                Example("/log ask"),
            ),
            words="base of log",
        ),
        CommandRecord(
            name="forget",
            pattern="NAMES|all",
            summary="Takes quantities away, so that built-ins of these names are back.",
            examples=(
                Example("/forget e"),
                Example("/forget all"),
            ),
            words="delete variable clear variables reset unset",
        ),
        CommandRecord(
            name="cover",
            pattern="NAME",
            summary="Lets a function of your own take the name of a built-in.",
            examples=(Example("/cover gamma"),),
            words="override redefine replace built-in function own name",
        ),
        CommandRecord(
            name="run",
            pattern="NAME",
            summary="Runs a procedure of the shelf: its lines come into the sheet.",
            examples=(Example("/run heating time"),),
            words="execute procedure program macro call start",
        ),
        CommandRecord(
            name="record",
            pattern="NAME|stop",
            summary="Writes down what happens on the sheet from here on, until it is stopped.",
            examples=(Example("/record first try"), Example("/record stop")),
            words="log protocol session transcript on off start stop",
        ),
        CommandRecord(
            name="shelf",
            pattern="",
            summary="Opens the shelf: sheets, procedures, data tables and records.",
            examples=(Example("/shelf"),),
            words="files open list documents all sheets",
        ),
        CommandRecord(
            name="clear",
            pattern="",
            summary="Empties the screen; quantities and history stay.",
            examples=(Example("/clear"),),
            words="clean screen",
        ),
    )
}
"""All commands by name."""

KEPT = frozenset({"forget", "cover"})
"""Those that are kept as lines of the sheet, since lines after them depend on them."""


NEAR_COMMAND = 0.5
"""How much of a command a word for it must share."""

ELSEWHERE = {
    "unit": "angle", "units": "angle", "mode": "angle", "angles": "angle", "man": "help",
    "doc": "help", "docs": "help", "search": "find", "format": "show", "form": "show",
    "display": "show", "delete": "forget", "del": "forget", "remove": "forget",
    "unset": "forget", "override": "cover", "cls": "clear", "clean": "clear",
}  # fmt: skip
"""Names that are used elsewhere for a command."""

ITS_WORDS = {
    **dict.fromkeys(("rad", "deg", "gon", "turn"), "angle"),
    **dict.fromkeys(("real", "complex"), "numbers"),
    **dict.fromkeys(("fraction", "decimal", "scientific", "engineering", "exact"), "show"),
}
"""What stands after a command, typed as if it were one: ``/deg``."""


def _unknown(text: str, name: str, span: Span) -> LineError:
    """The error for a word that is no command, with the one that is meant."""
    known = ", ".join(f"/{command}" for command in COMMANDS)
    behind = text[span.end :].strip()
    if name in ITS_WORDS and not behind:
        meant = f"{ITS_WORDS[name]} {name}"
    elif name in ("digits", "places"):
        span, meant = Span(span.start, len(text)), f"show {behind} {name}"
    else:
        alike = [command for command in COMMANDS if command[0] == name[0].lower()]
        near = nearest(name.lower(), alike, NEAR_COMMAND) or ""
        meant = ELSEWHERE.get(name.lower()) or near
    return UNKNOWN_COMMAND(span, (replace(span, meant),) if meant else (), name=name, known=known)


_SLASH = re.compile(r"\s*/\s*([^\W\d]\w*)")
_HELP = re.compile(r"\s*(help)(?=\s+[^\s=:(])")
"""``help sin`` works without the slash."""


def read_command(text: str) -> Command | None:
    """The command that a line is, None where it is none.

    Errors: :class:`LineError` for a slash with a word that is no command.
    """
    if text.lstrip()[:1] not in ("/", "h"):
        return None
    found = _SLASH.match(text) or _HELP.match(text)
    if found is None:
        return None
    name, span = found.group(1), Span(found.start(1), found.end(1))
    if name not in COMMANDS:
        raise _unknown(text, name, span)
    words = [
        (word.group(), Span(word.start() + found.end(), word.end() + found.end()))
        for word in re.finditer(r"[^\s,]+", text[found.end() :])
    ]
    return Command(name, tuple(words))
