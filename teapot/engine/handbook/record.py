"""What the handbook tells of an operator or a form, which are no functions."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.reading.described import Described, Example


@dataclass(frozen=True, slots=True, kw_only=True)
class HandbookRecord(Described):
    """``sign`` is how it is typed, ``pattern`` how it stands among its operands."""

    sign: str
    pattern: str


TRADE = "common practice of the trade"


def record(
    name: str,
    sign: str,
    pattern: str,
    summary: str,
    examples: tuple[tuple[str, str, str], ...],
    words: str,
    related: tuple[str, ...] = (),
    confused_with: str = "",
    source: str = TRADE,
    *,
    aliases: tuple[str, ...] = (),
    special_values: tuple[str, ...] = (),
) -> HandbookRecord:
    """A record with its examples as plain tuples of input, sign and answer."""
    made = tuple(Example(*example) for example in examples)
    return HandbookRecord(
        name=name, sign=sign, pattern=pattern, summary=summary, examples=made, words=words,
        related=related, confused_with=confused_with, source=source, aliases=aliases,
        special_values=special_values,
    )  # fmt: skip
