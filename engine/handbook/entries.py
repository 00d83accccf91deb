"""All entries of the handbook, made from the records of what the language has."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from engine.functions.catalogue import CONSTANTS, FUNCTIONS
from engine.functions.record import Constant, Example, Function, Parameter
from engine.handbook.forms import FORMS
from engine.handbook.operators import OPERATORS
from engine.handbook.record import Record
from engine.reading.commands import COMMANDS, CommandRecord

FUNCTION, CONSTANT, OPERATOR, FORM, COMMAND = (
    "function", "constant", "operator", "form", "command",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Entry:
    """``key`` names the entry for good; ``name`` is what is typed, ``pattern`` how it
    is used.  The rest is as in the records; an example of a command has no answer."""

    key: str
    kind: str
    name: str
    pattern: str
    subject: str
    summary: str
    examples: tuple[Example, ...] = ()
    parameters: tuple[Parameter, ...] = ()
    value: str = ""
    aliases: tuple[str, ...] = ()
    special_values: tuple[str, ...] = ()
    related: tuple[str, ...] = ()
    confused_with: str = ""
    words: str = ""
    source: str = ""


def _of_function(f: Function) -> Entry:
    return Entry(
        f.name, FUNCTION, f.name, f.pattern, f.subject, f.summary, f.examples, f.parameters,
        f.value, f.aliases, f.special_values, f.related, f.confused_with, f.words, f.source,
    )  # fmt: skip


def _of_constant(c: Constant) -> Entry:
    return Entry(
        c.name, CONSTANT, c.name, c.name, "constants", c.summary, c.examples,
        aliases=c.aliases, confused_with=c.confused_with, words=c.words, source=c.source,
    )  # fmt: skip


def _of_record(kind: str, subject: str, r: Record) -> Entry:
    return Entry(
        r.name, kind, r.sign, r.pattern, subject, r.summary, r.examples,
        related=r.related, confused_with=r.confused_with, words=r.words, source=r.source,
    )  # fmt: skip


def _of_command(c: CommandRecord) -> Entry:
    pattern = f"/{c.name} {c.pattern}".rstrip()
    examples = tuple(Example(line, "", "") for line in c.examples)
    return Entry(
        f"command-{c.name}", COMMAND, f"/{c.name}", pattern, "commands", c.summary, examples,
        words=c.words,
    )  # fmt: skip


def _all() -> Iterator[Entry]:
    yield from map(_of_function, FUNCTIONS)
    yield from (_of_constant(c) for name, c in CONSTANTS.items() if name == c.name)
    yield from (_of_record(OPERATOR, "operators and signs", r) for r in OPERATORS)
    yield from (_of_record(FORM, "forms of an answer", r) for r in FORMS)
    yield from map(_of_command, COMMANDS.values())


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
