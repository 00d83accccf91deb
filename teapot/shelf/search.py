"""Searching the shelf by name and by content."""

from __future__ import annotations

import re
from uuid import UUID

from django.db.models import Q
from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe

from teapot.accounts.models import Person
from teapot.shelf.kinds import KINDS, Place
from teapot.shelf.listing import ShelfEntry, names_of, things_of

MOST_PLACES = 3
"""Places that are shown of one thing."""

AROUND = 50
"""Characters that are shown on either side of what was found."""


def words_in(typed: str) -> list[str]:
    """The words that are looked for."""
    return re.findall(r"[\w.]+", typed)[:8]


def search(person: Person, typed: str) -> list[ShelfEntry]:
    """What has all the words in its name and folder, or in one place of what it holds; with
    the places."""
    words = words_in(typed)
    if not words:
        return [] if typed.strip() else things_of(person)
    places: dict[UUID, list[Place]] = {}
    for kind in KINDS.values():
        for key, place in kind.places(person, words):
            places.setdefault(key, []).append(place)
    called = {one.pk for one in names_of(person, words)}
    found = things_of(person, only={*called, *places})
    for thing in found:
        thing.found = places.get(thing.pk, [])[:MOST_PLACES]
    return found


def match_of(words: list[str]) -> str:
    """What an index of words is asked for (FTS5): all of them, as beginnings."""
    return " ".join(f'"{word}"*' for word in words)


def each_in(words: list[str], field: str) -> Q:
    """Rows with all the words in a field."""
    wanted = Q()
    for word in words:
        wanted &= Q(**{f"{field}__icontains": word})
    return wanted


def has_all(text: str, words: list[str]) -> bool:
    """Whether all the words are in a text."""
    return all(word.casefold() in text.casefold() for word in words)


def row_found(number: int | None, text: str, more: str, words: list[str]) -> Place:
    """A row of which ``text`` is typed and ``more`` is shown only where the words are there."""
    return Place(number, marked(text if has_all(text, words) else f"{text} … {more}", words))


def marked(text: str, words: list[str]) -> SafeString:
    """The text around the first of the words, with the words marked."""
    looked_for = re.compile("|".join(map(re.escape, words)), re.IGNORECASE)
    first = looked_for.search(text)
    start = max(0, first.start() - AROUND) if first else 0
    shown = text[start : start + 3 * AROUND].replace("\n", " ")
    parts, at = [], 0
    for found in looked_for.finditer(shown):
        parts += [escape(shown[at : found.start()]), "<mark>", escape(found[0]), "</mark>"]
        at = found.end()
    before, after = "…" if start else "", "…" if start + 3 * AROUND < len(text) else ""
    return mark_safe(f"{before}{''.join(parts)}{escape(shown[at:])}{after}")  # noqa: S308
