"""All entries of the handbook, made from the records of what the language has."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from teapot.engine.functions.catalogue import CONSTANTS, FUNCTIONS
from teapot.engine.functions.record import Constant, Function, Parameter
from teapot.engine.handbook.forms import FORMS
from teapot.engine.handbook.operators import OPERATORS
from teapot.engine.handbook.record import HandbookRecord
from teapot.engine.handbook.topics import TOPICS
from teapot.engine.handbook.units import UNITS
from teapot.engine.reading.commands import COMMANDS, CommandRecord
from teapot.engine.reading.described import Described

FUNCTION, CONSTANT, OPERATOR, FORM, COMMAND, UNIT, TOPIC = (
    "function", "constant", "operator", "form", "command", "unit", "topic",
)  # fmt: skip


TAKES_COMPLEX = "It takes complex numbers too."


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry(Described):
    """``key`` names the entry for good; ``name`` is what is typed, ``pattern`` how it is
    used.  ``value`` says what a function gives, ``branch`` which of its complex values."""

    key: str
    kind: str
    pattern: str
    subject: str
    parameters: tuple[Parameter, ...] = ()
    value: str = ""
    branch: str = ""


def _of_function(f: Function) -> Entry:
    return Entry(
        **f.told(), key=f.name, kind=FUNCTION, pattern=f.pattern, subject=f.subject,
        parameters=f.parameters, value=f.value,
        branch=f.branch or (TAKES_COMPLEX if f.takes_complex else ""),
    )  # fmt: skip


def _of_constant(c: Constant) -> Entry:
    return Entry(**c.told(), key=c.name, kind=CONSTANT, pattern=c.name, subject="constants")


def _of_record(kind: str, subject: str, r: HandbookRecord) -> Entry:
    told = r.told() | {"name": r.sign}
    return Entry(**told, key=r.name, kind=kind, pattern=r.pattern, subject=subject)


def _of_command(c: CommandRecord) -> Entry:
    told = c.told() | {"name": f"/{c.name}"}
    pattern = f"/{c.name} {c.pattern}".rstrip()
    key = f"command-{c.name}"
    return Entry(**told, key=key, kind=COMMAND, pattern=pattern, subject="commands")


def _all() -> Iterator[Entry]:
    yield from map(_of_function, FUNCTIONS)
    yield from (_of_constant(c) for name, c in CONSTANTS.items() if name == c.name)
    yield from (_of_record(OPERATOR, "operators and signs", r) for r in OPERATORS)
    yield from (_of_record(FORM, "forms of an answer", r) for r in FORMS)
    yield from (_of_record(UNIT, "units of measurement", r) for r in UNITS)
    yield from map(_of_command, COMMANDS.values())
    yield from (_of_record(TOPIC, "how it is done here", r) for r in TOPICS)


ENTRIES: tuple[Entry, ...] = tuple(_all())
"""In the order of the handbook."""

BY_KEY: dict[str, Entry] = {entry.key: entry for entry in ENTRIES}

BY_TYPED: dict[str, Entry] = {
    typed: entry
    for entry in reversed(ENTRIES)
    for typed in (*entry.name.split(), *entry.aliases, entry.key, entry.name)
}
"""Entries by what may be typed for them."""


def as_text(entry: Entry) -> str:
    """An entry as plain text."""
    lines = [entry.pattern, entry.summary]
    lines += [f"{p.name}: {p.text}; {p.domain}" for p in entry.parameters]
    lines += [f"{e.input}  {e.sign} {e.text}".rstrip() for e in entry.examples]
    lines += entry.special_values
    if entry.branch:
        lines.append(f"Complex numbers: {entry.branch}")
    if entry.confused_with:
        lines.append(f"Easily confused with {entry.confused_with}")
    if entry.related:
        lines.append(f"Related: {', '.join(entry.related)}")
    return "\n".join(lines)


def by_subject() -> dict[str, list[Entry]]:
    """The entries of each subject, in order."""
    found: dict[str, list[Entry]] = {}
    for entry in ENTRIES:
        found.setdefault(entry.subject, []).append(entry)
    return found
