"""What the word at the caret may become, the likeliest first."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import islice

from teapot.engine.aids import units
from teapot.engine.forms.answer import write_in_passing
from teapot.engine.functions.catalogue import BY_NAME, CONSTANTS
from teapot.engine.functions.physics import NAMES as CONSTANTS_OF_PHYSICS
from teapot.engine.functions.physics import constant
from teapot.engine.functions.tables import kind_of
from teapot.engine.handbook.entries import (
    BY_TYPED,
    COMMAND,
    CONSTANT,
    ENTRIES,
    FORM,
    FUNCTION,
    Entry,
)
from teapot.engine.handbook.search import search
from teapot.engine.mends import Span
from teapot.engine.numbers.tables import by_name, units_of
from teapot.engine.numbers.tables import column as table_column
from teapot.engine.numbers.values import FunctionValue, Table
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tokens import plain, split_note
from teapot.engine.reading.vocabulary import GREEK
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet

MOST = 8
"""Rows of the list."""

KNOWN_BY = 50
"""Cells of a column by which its kind is told."""

RECENT = 40
"""Lines back in which a name counts as used lately."""

_RUN = re.compile(r"(?:[^\W\d]\w*[ ]+)*[^\W\d]\w*$")
_WORD = re.compile(r"[^\W\d]\w*$")
_IN_FORM = re.compile(r"\bas\s+[^()\[\];]*$")
_COLUMN = re.compile(r"(?<![\w.])([^\W\d]\w*)\.([^\W\d]?\w*)$")
_OPEN_BRACE = re.compile(r'(?<!\{)(?:\{\{)*\{(?!\{)(?=[^{}"]*$)')
_LETTER = re.compile(r"\\([A-Za-z]+)$")
_CONSTANT = re.compile(r'\bconstant\(\s*"([^"]*)$')
_COMMAND = re.compile(r"^\s*/\s*(\w*)$")


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Completion:
    """``insert`` replaces what stands from ``start`` to ``end``; the caret then goes
    ``back`` characters back, into the brackets of a call."""

    name: str
    pattern: str
    summary: str
    kind: str
    insert: str
    start: int
    end: int
    back: int = 0


def complete(sheet: Worksheet, text: str, caret: int) -> list[Completion]:
    """The completions for the place before the code point ``caret``."""
    before, behind = text[:caret], text[caret:]
    if split_note(before)[1] or re.match(r"\w", behind):
        return []
    of_physics = _CONSTANT.search(before)
    if of_physics:
        return _constants(of_physics[1], Span(of_physics.start(1), len(before)), behind)
    of_letter = _LETTER.search(before)
    if of_letter:
        return _letters(of_letter[1], Span(of_letter.start(), len(before)))
    in_text = before.count('"') % 2
    brace = _OPEN_BRACE.search(before) if in_text else None
    if in_text and brace is None:
        return []
    # of a text only what stands in the open brace counts, at its place
    hidden = brace.end() if brace else 0
    return _found(sheet, " " * hidden + plain(before)[hidden:], behind)


def _found(sheet: Worksheet, before: str, behind: str) -> list[Completion]:
    command = _COMMAND.match(before)
    if command:
        place = Span(before.index("/"), len(before))
        fitting = [e for e in ENTRIES if e.kind == COMMAND and e.name[1:].startswith(command[1])]
        return [_of_entry(e, place, behind) for e in fitting][:MOST]
    column = _COLUMN.search(before)
    if column:
        return _columns(sheet, column[1], column[2], len(before))
    word = _WORD.search(before)
    if word is None:
        return []
    place = Span(word.start(), len(before))
    form = _IN_FORM.search(before[: word.start()])
    if form:
        of_value = _units_of(sheet, before[: form.start()], word.group(), place)
        return [*of_value, *_forms(word.group(), place, behind)][:MOST]
    of_units = []
    if units.are_wanted(before[: word.start()]):
        if units.is_unit(word.group()):
            return []  # it is there
        of_units = _units(word.group(), place)
    if re.search(r"[\d.]$", before[: word.start()]):
        return of_units
    return [*of_units, *_names(sheet, before, word.group(), place, behind)][:MOST]


def _constants(word: str, place: Span, behind: str) -> list[Completion]:
    """Constants of physics of which the name has this in it."""
    found = [name for name in CONSTANTS_OF_PHYSICS if word.lower() in name.lower() and name != word]
    found.sort(key=lambda name: (not name.lower().startswith(word.lower()), len(name)))
    rest = "" if behind.startswith('"') else '")'
    return [
        Completion(
            name, name, write_in_passing(constant(name)).text, "constant", name + rest, *place
        )
        for name in found[:MOST]
    ]


def _letters(word: str, place: Span) -> list[Completion]:
    """Letters and signs by their names after a backslash."""
    named = {**GREEK, **SIGNS_BY_NAME}
    found = sorted((name for name in named if name.startswith(word)), key=len)
    return [
        Completion(named[name], named[name], f"\\{name}", "letter", named[name], *place)
        for name in found[:MOST]
    ]


SIGNS_BY_NAME = {
    "pi": "π", "infinity": "∞", "sqrt": "√", "pm": "±", "degree": "°", "angle": "∠", "times": "×",
    "cdot": "·", "micro": "µ", "ohm": "Ω", "approx": "≈",
}  # fmt: skip


def _units(word: str, place: Span) -> list[Completion]:
    """Units of measurement after a number."""
    return [
        Completion(symbol, symbol, units.said_of(atom), "unit", symbol, *place)
        for symbol, atom in islice(units.beginning(word), units.MOST)
    ]


def _units_of(sheet: Worksheet, expression: str, word: str, place: Span) -> list[Completion]:
    """Those in which the value before ``as`` can be shown."""
    steps = sheet.typed(expression).line.steps
    value = steps[-1].value if steps else None
    return [
        Completion(text, text, "", "unit", text, *place)
        for text in units.that_fit(value)
        if text.startswith(word) and text != word
    ]


def _columns(sheet: Worksheet, name: str, word: str, end: int) -> list[Completion]:
    """The columns of a table that begin so."""
    table = sheet.calculation.value_named(name)
    if not isinstance(table, Table):
        return []
    place = Span(end - len(word), end)
    found = []
    for column, unit in zip(by_name(table), units_of(table), strict=False):
        if column.startswith(word) and column != word:
            insert = column if column.isidentifier() else f'"{column}"'
            kind = kind_of(table_column(table, column).items[:KNOWN_BY])
            said = " · ".join(filter(None, (kind, unit)))
            found.append(Completion(column, column, said, "column", insert, *place))
    return found[:MOST]


def _forms(word: str, place: Span, behind: str) -> list[Completion]:
    fitting = [e for e in ENTRIES if e.kind == FORM and e.name.startswith(word)]
    if not fitting:
        fitting = [entry for entry in search(word) if entry.kind == FORM]
    return [_of_entry(e, place, behind) for e in fitting if e.name != word][:MOST]


def _names(sheet: Worksheet, before: str, word: str, place: Span, behind: str) -> list[Completion]:
    own = list(_quantities(sheet, word, place, behind))
    built_in = _built_in(sheet, word, place, behind)
    beginning = [*own, *built_in]
    run = _RUN.search(before)
    if run and " " in run.group() and not all(name in BY_TYPED for name in run.group().split()):
        across = Span(run.start(), len(before))
        beginning = [*_looser(run.group(), across, behind), *beginning]
    if not beginning and len(word) > 2:
        beginning = _looser(word, place, behind)
    different: dict[str, Completion] = {}
    for found in beginning:
        different.setdefault(found.name, found)
    return [] if [*different] == [word] else [*different.values()][:MOST]


def _looser(words: str, place: Span, behind: str) -> list[Completion]:
    """By purpose, or in spite of a slip."""
    fitting = [entry for entry in search(words) if entry.kind in (FUNCTION, CONSTANT)]
    return [_of_entry(entry, place, behind) for entry in fitting[:MOST]]


def _built_in(sheet: Worksheet, word: str, place: Span, behind: str) -> list[Completion]:
    """Functions and constants that begin so: lately used ones first, then short ones."""
    used = _lately_used(sheet)
    fitting: dict[str, Entry] = {}
    for name in (*BY_NAME, *CONSTANTS):
        if name.startswith(word):
            entry = BY_TYPED[name]
            if entry.kind in (FUNCTION, CONSTANT):
                fitting.setdefault(entry.key, entry)

    def rank(entry: Entry) -> tuple[bool, bool, int]:
        return entry.key not in used, not entry.name.startswith(word), len(entry.name)

    return [_of_entry(e, place, behind) for e in sorted(fitting.values(), key=rank)]


def _lately_used(sheet: Worksheet) -> set[str]:
    steps = (step for line in sheet.lines[-RECENT:] for step in line.steps)
    return {name for step in steps for name in step.uses}


def _quantities(sheet: Worksheet, word: str, place: Span, behind: str) -> Iterator[Completion]:
    """Quantities that begin so, the last defined first."""
    names = (name for name in sheet.definitions if name.startswith(word) and name != word)
    seen = ((name, sheet.definitions.seen(name)) for name in names)
    found = [(name, step) for name, step in seen if step is not None]
    found.sort(key=lambda pair: (*pair[1].place, pair[0]), reverse=True)
    for name, step in found[:MOST]:
        yield _of_quantity(sheet, name, step, place, behind)


def _of_quantity(sheet: Worksheet, name: str, step: Step, place: Span, behind: str) -> Completion:
    note = step.line.note
    if isinstance(step.value, FunctionValue):
        pattern = f"{name}({', '.join(step.value.parameters)})"
        made = step.value.definition
        body = node_text(made.expression) if made is not None else ""
        said = note or body or step.value.name
        return _call(name, pattern, said, "own function", place, behind)
    value = ""
    if step.value is not None:
        value = write_in_passing(step.value, sheet.settings.form).text
    said = " · ".join(part for part in (value[:40], note) if part)
    return Completion(name, name, said, "quantity", name, *place)


def _of_entry(entry: Entry, place: Span, behind: str) -> Completion:
    if entry.kind == FUNCTION:
        return _call(entry.name, entry.pattern, entry.summary, FUNCTION, place, behind)
    insert = entry.name
    if entry.kind == COMMAND:
        insert += " "
    return Completion(entry.name, entry.pattern, entry.summary, entry.kind, insert, *place)


def _call(name: str, pattern: str, summary: str, kind: str, place: Span, behind: str) -> Completion:
    """A function: its brackets are put after it, unless they are there."""
    if behind.lstrip().startswith("("):
        return Completion(name, pattern, summary, kind, name, *place)
    empty = pattern.endswith("()")
    return Completion(name, pattern, summary, kind, f"{name}()", *place, 0 if empty else 1)
