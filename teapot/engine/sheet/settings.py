"""What is set for a whole sheet and changes its answers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from teapot.engine.numbers.context import STANDARD as USUAL
from teapot.engine.numbers.context import Conventions
from teapot.engine.pickling import compactly_pickled
from teapot.engine.reading.forms import STANDARD, Form, form_from
from teapot.engine.reading.vocabulary import UNITS_OF_ANGLES
from teapot.engine.sentences.commands import UNKNOWN_CHOICE


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Settings:
    """``form``: how numbers are shown where a line asks for nothing else.
    ``conventions``: what the signs of new lines mean; a line keeps those that it was
    answered under."""

    form: Form = STANDARD
    conventions: Conventions = USUAL


CHOICES = {
    "angle": UNITS_OF_ANGLES,
    "numbers": ("complex", "real"),
    "log": ("ask", "natural", "decimal"),
}
"""The conventions that a sheet can choose, each with what it can be."""


def after(settings: Settings, command: str, argument: str) -> Settings:
    """The settings after ``/show FORM``, ``/angle UNIT`` and their like; the same
    where the command sets nothing.

    Errors: :class:`LineError` for a form or a choice that does not exist.
    """
    if command == "show":
        return replace(settings, form=form_from(argument).over(settings.form))
    if command not in CHOICES:
        return settings
    chosen = argument.strip()
    if chosen not in CHOICES[command]:
        known = ", ".join(CHOICES[command])
        raise UNKNOWN_CHOICE(command=command, known=known)
    changed: dict[str, Any] = {command: chosen}
    return replace(settings, conventions=replace(settings.conventions, **changed))
