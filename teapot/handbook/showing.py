"""An entry made ready for a template."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.functions.catalogue import BY_NAME
from teapot.engine.handbook.entries import BY_KEY, Entry
from teapot.engine.parsing.parser import parse
from teapot.engine.reading.described import Example
from teapot.engine.reading.mathml import number_mathml, statement_mathml
from teapot.handbook.curves import picture_of


@dataclass(frozen=True, slots=True)
class ShownExample:
    """An example with its typeset reading and answer."""

    input: str
    reading: str
    sign: str
    answer: str


@dataclass(frozen=True, slots=True)
class ShownEntry:
    """An entry with its examples and special values typeset, its relatives, and its
    picture."""

    entry: Entry

    @property
    def examples(self) -> list[ShownExample]:
        return [_shown(example) for example in self.entry.examples]

    @property
    def special_values(self) -> list[str]:
        return [_equation(equation) for equation in self.entry.special_values]

    @property
    def related(self) -> list[Entry]:
        return [BY_KEY[BY_NAME[key].name if key in BY_NAME else key] for key in self.entry.related]

    @property
    def picture(self) -> str:
        return picture_of(self.entry)


def _shown(example: Example) -> ShownExample:
    answer = _typeset(example.text)
    return ShownExample(example.input, _reading(example.input), example.sign, answer)


def _reading(line: str) -> str:
    statements = parse(line, BY_NAME).statements
    return "<mo>;</mo>".join(statement_mathml(statement) for statement in statements)


def _equation(equation: str) -> str:
    """Both sides typeset, with the sign between."""
    return "<mo>=</mo>".join(_reading(side) for side in equation.split(" = "))


def _typeset(text: str) -> str:
    """An answer's text typeset, as a sheet shows it."""
    if "\n" in text:
        return ""
    try:
        [statement] = parse(text, BY_NAME).statements
    except (LineError, ValueError):
        return number_mathml(text)
    return statement_mathml(statement)
