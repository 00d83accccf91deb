"""Searching the shelf by name and by content."""

from __future__ import annotations

import re
from dataclasses import dataclass

from django.db import connection
from django.db.models import Q
from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe

from accounts.models import Person
from procedures.models import ProcedureVersion
from records.models import Event
from shelf.listing import Lying
from shelf.models import Version

MOST_FOUND = 200
"""Lines that are looked at, the best first."""

MOST_PLACES = 3
"""Places that are shown of one thing."""

BEGIN, END = "\x02", "\x03"
"""Around a word that was found, until it is set."""

LINES = """
    SELECT line.sheet_id, line.number,
           snippet(line_words, -1, char(2), char(3), '…', 14)
      FROM line_words
      JOIN console_line AS line ON line.id = line_words.rowid
      JOIN console_sheet AS sheet ON sheet.id = line.sheet_id
     WHERE line_words MATCH %s AND sheet.owner_id = %s
       AND sheet.binned IS NULL AND NOT line.deleted
     ORDER BY rank LIMIT 200
"""


@dataclass(frozen=True, slots=True)
class Place:
    """Where something was found: the number of a line, and what stands there."""

    number: int | None
    shown: SafeString


def words_in(typed: str) -> list[str]:
    """The words that are looked for."""
    return re.findall(r"[\w.]+", typed)[:8]


def search(person: Person, typed: str, things: list[Lying]) -> list[Lying]:
    """Those of the things that have all the words in their name, folder, or in one place of
    what they hold; with the places."""
    words = words_in(typed)
    if not words:
        return things if not typed.strip() else []
    places = _places(person, words)
    found = []
    for thing in things:
        called = f"{thing.name} {thing.folder} {thing.kind}".casefold()
        thing.found = places.get(str(thing.pk), [])[:MOST_PLACES]
        if thing.found or all(word.casefold() in called for word in words):
            found.append(thing)
    return found


def _places(person: Person, words: list[str]) -> dict[str, list[Place]]:
    places: dict[str, list[Place]] = {}
    match = " ".join(f'"{word}"*' for word in words)
    with connection.cursor() as cursor:
        cursor.execute(LINES, [match, person.pk.hex])
        for sheet, number, snippet in cursor.fetchall():
            key = f"{sheet[:8]}-{sheet[8:12]}-{sheet[12:16]}-{sheet[16:20]}-{sheet[20:]}"
            places.setdefault(key, []).append(Place(number, _set(snippet)))
    for version in ProcedureVersion.objects.filter(_each(words, "text"), procedure__owner=person):
        if version.procedure.newest == version:
            shown = next(row for row in version.text.splitlines() if _has(row, words[:1]))
            places.setdefault(str(version.procedure_id), []).append(Place(None, escape(shown)))
    for event in Event.objects.filter(_each(words, "text"), record__owner=person)[:MOST_FOUND]:
        shown = escape(event.text[:120])
        places.setdefault(str(event.record_id), []).append(Place(event.number, shown))
    for version in Version.objects.filter(table__owner=person, table__binned=None):
        names = " ".join(column["name"] for column in version.columns)
        if _has(names, words):
            places.setdefault(str(version.table_id), [Place(None, escape(f"columns {names}"))])
    return places


def _each(words: list[str], field: str) -> Q:
    wanted = Q()
    for word in words:
        wanted &= Q(**{f"{field}__icontains": word})
    return wanted


def _has(text: str, words: list[str]) -> bool:
    return all(word.casefold() in text.casefold() for word in words)


def _set(snippet: str) -> SafeString:
    """What was found, the words in it marked."""
    return mark_safe(escape(snippet).replace(BEGIN, "<mark>").replace(END, "</mark>"))  # noqa: S308
