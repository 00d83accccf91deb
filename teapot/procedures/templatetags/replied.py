"""Filters of the page of a procedure."""

from __future__ import annotations

from collections.abc import Mapping

from django import template
from django.utils.safestring import SafeString, mark_safe

from teapot.engine.aids.scatter import Scatter
from teapot.engine.reading.mathml import name_mathml
from teapot.pictures import curve_of_runs

register = template.Library()


@register.filter
def reply_to(replies: Mapping[str, str] | str | None, key: str) -> str:
    """What was replied to a question before."""
    return replies.get(key, "") if isinstance(replies, Mapping) else ""


@register.filter
def set_name(name: str) -> SafeString:
    """The name of a quantity, typeset."""
    return mark_safe(name_mathml(name))  # noqa: S308


@register.filter
def drawn_curve(of: Scatter) -> SafeString:
    """What one input over a range gives, as a curve."""
    return mark_safe(curve_of_runs.draw(of))  # noqa: S308
