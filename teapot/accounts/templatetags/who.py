"""Whose a page is."""

from __future__ import annotations

from typing import Any

from django import template

from teapot.accounts.asking import who_asks

register = template.Library()


@register.simple_tag(takes_context=True)
def who(context: dict[str, Any]) -> str:
    """By which a page knows replies that are for somebody else."""
    request = context.get("request")
    return "" if request is None else who_asks(request)
