"""What is told of the parameters of a function."""

from __future__ import annotations

from typing import Protocol

from django import template

register = template.Library()


class Told(Protocol):
    """A parameter as the handbook or a card has it."""

    text: str
    domain: str
    optional: bool


@register.filter
def as_told(parameter: Told) -> str:
    """The words for a parameter, with its domain where they do not say it."""
    is_said = parameter.domain == "any angle" or parameter.domain in parameter.text
    domain = "" if is_said else f": {parameter.domain}"
    return f"{parameter.text}{domain}{'; may be left out' if parameter.optional else ''}"
