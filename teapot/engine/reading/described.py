"""What is told of everything that can be looked up: the base of the records of functions,
constants, operators, forms and commands, and of the entries of the handbook."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from teapot.engine.data import data_of


@dataclass(frozen=True, slots=True)
class Example:
    """An input with its answer's sign and text; a test runs each.  That of a command has
    no answer.

    ``replies`` are what is replied to the questions that it asks.
    """

    input: str
    sign: str = ""
    text: str = ""
    replies: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Described:
    """``name`` is how it is looked for, ``aliases`` are other names of it; ``words`` those
    of a purpose by which it is looked for.  ``special_values`` are equations that hold,
    such as ``gamma(1/2) = sqrt(pi)``; ``confused_with`` says what it is easily taken for.
    ``source`` names the definition that it follows.
    """

    name: str
    summary: str
    examples: tuple[Example, ...] = ()
    aliases: tuple[str, ...] = ()
    special_values: tuple[str, ...] = ()
    related: tuple[str, ...] = ()
    confused_with: str = ""
    words: str = ""
    source: str = ""

    def told(self) -> dict[str, Any]:
        """All that is told of it, for another record of the same thing."""
        return data_of(self, Described)
