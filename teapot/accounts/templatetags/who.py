"""Whose a page is."""

from __future__ import annotations

from typing import Any

from django import template

from teapot.accounts.asking import who_asks
from teapot.accounts.guests import person_key
from teapot.accounts.models import Person

register = template.Library()


@register.simple_tag(takes_context=True)
def who(context: dict[str, Any]) -> str:
    """By which a page knows replies that are for somebody else."""
    request = context.get("request")
    return "" if request is None else who_asks(request)


@register.simple_tag(takes_context=True)
def your_name(context: dict[str, Any]) -> str:
    """What stands before the @ in the address of whoever is signed in; empty for a guest."""
    request = context.get("request")
    key = None if request is None else person_key(request)
    if key is None:
        return ""
    email = Person.objects.filter(pk=key).values_list("email", flat=True).first()
    return (email or "").partition("@")[0][:MOST_LETTERS]


MOST_LETTERS = 18
