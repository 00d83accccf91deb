"""Everything a person has typed before, on all of their sheets."""

from __future__ import annotations

from django.db.models import Q, QuerySet

from teapot.accounts.models import Person
from teapot.console.models import Line

WALKED = 1000
"""Lines that Up and Down walk through."""

SHOWN = 40
"""Lines that a search shows."""


def typed_lines(person: Person) -> list[str]:
    """The texts of the last lines, oldest first, each where it was typed last."""
    texts = _lines(person).values_list("text", flat=True)[:WALKED]
    return list(dict.fromkeys(texts))[::-1]


def search(person: Person, words: str) -> list[Line]:
    """The lines with all of ``words`` in what was typed, a name or an answer."""
    lines = _lines(person).select_related("sheet")
    for word in words.split()[:10]:
        lines = lines.filter(Q(text__icontains=word) | Q(search_text__icontains=word))
    return list(lines[:SHOWN])


def _lines(person: Person) -> QuerySet[Line]:
    return Line.objects.filter(sheet__owner=person).order_by("-kept", "-pk")
