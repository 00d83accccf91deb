"""The bounds of files that are brought in."""

from __future__ import annotations

from django import template

from teapot.engine.files.dialect import MAX_BYTES
from teapot.shelf.bounds import LARGEST_ZIP

register = template.Library()


@register.simple_tag
def most_bytes() -> int:
    """The size of the largest file of data that is taken."""
    return MAX_BYTES


@register.simple_tag
def most_of_all() -> int:
    """The size of the largest file that is taken at all: everything of somebody."""
    return LARGEST_ZIP
