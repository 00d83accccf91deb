"""Searching the shelf by name and by content."""

from __future__ import annotations

import re
from dataclasses import dataclass
from uuid import UUID

from django.db import connection
from django.db.models import Q
from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe

from teapot.accounts.models import Person
from teapot.shelf.listing import ShelfEntry, names_of, newest_texts, things_of
from teapot.shelf.models import Version

MOST_PLACES = 3
"""Places that are shown of one thing."""

AROUND = 50
"""Characters that are shown on either side of what was found."""

LINES = """
    SELECT line.sheet_id, line.number, line.text, line.search_text
      FROM line_words
      JOIN console_line AS line ON line.id = line_words.rowid
      JOIN console_sheet AS sheet ON sheet.id = line.sheet_id
     WHERE line_words MATCH %s AND sheet.owner_id = %s
       AND sheet.binned IS NULL AND NOT line.deleted
     ORDER BY line_words.rowid DESC LIMIT 200
"""


EVENTS = """
    SELECT event.record_id, event.number, event.text, event.said
      FROM event_words
      JOIN records_event AS event ON event.id = event_words.rowid
      JOIN records_record AS record ON record.id = event.record_id
     WHERE event_words MATCH %s AND record.owner_id = %s AND record.binned IS NULL
     ORDER BY event_words.rowid DESC LIMIT 200
"""


@dataclass(frozen=True, slots=True)
class Place:
    """Where something was found: the number of a line, and what stands there."""

    number: int | None
    shown: SafeString


def words_in(typed: str) -> list[str]:
    """The words that are looked for."""
    return re.findall(r"[\w.]+", typed)[:8]


def search(person: Person, typed: str) -> list[ShelfEntry]:
    """What has all the words in its name and folder, or in one place of what it holds; with
    the places."""
    words = words_in(typed)
    if not words:
        return [] if typed.strip() else things_of(person)
    places = _places(person, words)
    called = {one.pk for one in names_of(person, words)}
    found = things_of(person, only={*called, *places})
    for thing in found:
        thing.found = places.get(thing.pk, [])[:MOST_PLACES]
    return found


def _places(person: Person, words: list[str]) -> dict[UUID, list[Place]]:
    places: dict[UUID, list[Place]] = {}
    match = " ".join(f'"{word}"*' for word in words)
    with connection.cursor() as cursor:
        cursor.execute(LINES, [match, person.pk.hex])
        for sheet, number, text, answers in cursor.fetchall():
            shown = text if _has(text, words) else f"{text} … {answers}"
            places.setdefault(UUID(sheet), []).append(Place(number, marked(shown, words)))
        cursor.execute(EVENTS, [match, person.pk.hex])
        for record, number, text, said in cursor.fetchall():
            shown = text if _has(text, words) else f"{text} … {said}"
            places.setdefault(UUID(record), []).append(Place(number, marked(shown, words)))
    for version in newest_texts(person).filter(_each(words, "text")):
        rows = version.text.splitlines()
        shown = next((row for row in rows if _has(row, words[:1])), "")
        places.setdefault(version.procedure_id, []).append(Place(None, marked(shown, words)))
    for version in Version.objects.filter(table__owner=person, table__binned=None):
        names = " ".join(column["name"] for column in version.columns)
        if _has(names, words):
            places.setdefault(version.table_id, [Place(None, marked(f"columns {names}", words))])
    return places


def _each(words: list[str], field: str) -> Q:
    wanted = Q()
    for word in words:
        wanted &= Q(**{f"{field}__icontains": word})
    return wanted


def _has(text: str, words: list[str]) -> bool:
    return all(word.casefold() in text.casefold() for word in words)


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
