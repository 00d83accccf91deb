"""What the handbook tells of an operator or a form, which are no functions."""

from __future__ import annotations

from dataclasses import dataclass

from engine.functions.record import Example


@dataclass(frozen=True, slots=True)
class Record:
    """``name`` is how it is looked for, ``sign`` how it is typed, ``pattern`` how it
    stands among its operands; the rest is as in the records of functions."""

    name: str
    sign: str
    pattern: str
    summary: str
    examples: tuple[Example, ...]
    words: str
    related: tuple[str, ...] = ()
    confused_with: str = ""
    source: str = ""


def record(
    name: str,
    sign: str,
    pattern: str,
    summary: str,
    examples: tuple[tuple[str, str, str], ...],
    words: str,
    related: tuple[str, ...] = (),
    confused_with: str = "",
    source: str = "common practice of the trade",
) -> Record:
    """A record with its examples as plain tuples of input, sign and answer."""
    made = tuple(Example(*example) for example in examples)
    return Record(name, sign, pattern, summary, made, words, related, confused_with, source)
