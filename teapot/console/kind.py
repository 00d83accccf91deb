"""Sheets as a kind of thing on the shelf."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator, Mapping
from typing import Any
from uuid import UUID

from django.core.files.uploadedfile import UploadedFile
from django.db import connection
from django.db.models import Count, OuterRef, QuerySet, Subquery
from django.db.models.functions import Coalesce
from django.http import HttpRequest, HttpResponse

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.console import bringing, samples
from teapot.console.copies import copy_for, copy_of_sheet
from teapot.console.models import Line, Sheet
from teapot.console.out import document_of
from teapot.console.views.out import bring_in_sheet
from teapot.engine.out.data import as_json
from teapot.shelf import things
from teapot.shelf.everything_in import binned_of
from teapot.shelf.kinds import Import, Kind, Place, Step, register
from teapot.shelf.moments import moment_from
from teapot.shelf.search import match_of, row_found
from teapot.shelf.version_refs import versions_here

FOUND = """
    SELECT line.sheet_id, line.number, line.text, line.search_text
      FROM line_words
      JOIN console_line AS line ON line.id = line_words.rowid
      JOIN console_sheet AS sheet ON sheet.id = line.sheet_id
     WHERE line_words MATCH %s AND sheet.owner_id = %s
       AND sheet.binned IS NULL AND NOT line.deleted
     ORDER BY line_words.rowid DESC LIMIT 200
"""

NAMING = """
    SELECT sheet.title, line.text
      FROM line_words
      JOIN console_line AS line ON line.id = line_words.rowid
      JOIN console_sheet AS sheet ON sheet.id = line.sheet_id
     WHERE line_words MATCH 'text: shelf OR text: run' AND sheet.owner_id = %s
       AND sheet.binned IS NULL AND NOT line.deleted
     ORDER BY sheet.id, line.place
"""
"""Lines that may name a table or a procedure."""


def _counted(sheets: QuerySet[Sheet]) -> QuerySet[Sheet]:
    lines = Line.objects.present().filter(sheet=OuterRef("pk")).order_by()
    counted = lines.values("sheet").annotate(n=Count("pk")).values("n")
    return sheets.annotate(many=Coalesce(Subquery(counted), 0))


def _places(person: Person, words: list[str]) -> Iterator[tuple[UUID, Place]]:
    with connection.cursor() as cursor:
        cursor.execute(FOUND, [match_of(words), person.pk.hex])
        for sheet, number, text, answers in cursor.fetchall():
            yield UUID(sheet), row_found(number, text, answers, words)


def _naming(person: Person) -> Iterable[tuple[str, str]]:
    with connection.cursor() as cursor:
        cursor.execute(NAMING, [person.pk.hex])
        found: list[tuple[str, str]] = cursor.fetchall()
        return found


def _lines_with(owner: Person | None, words: str) -> Iterable[Line]:
    lines = Line.objects.present().filter(sheet__owner=owner, sheet__binned=None)
    return lines.filter(text__contains=words).select_related("sheet").order_by("sheet", "place")


def _has_drawn(owner: Person | None, drawn: str) -> bool:
    return Line.objects.filter(draws__icontains=drawn, sheet__owner=owner).exists()


def _written(sheet: Sheet) -> str:
    return as_json(document_of(sheet))


def _steps(
    packed: Import, stage: Person, data: dict[str, Any], one: Mapping[str, Any]
) -> Iterator[Step]:
    document = bringing.document_in(json.dumps(data).encode(), "sheet.json")
    versions = {**versions_here(packed.person, document.versions), **packed.versions}
    sheet = bringing.sheet_of(stage, document, things.folder_from(str(one.get("folder", ""))))
    sheet.opened, sheet.binned = moment_from(str(one.get("opened", ""))), binned_of(one)
    packed.count_lines(len(document.lines))
    yield from bringing.writing(sheet, bringing.lines_of(document, versions, packed.runs))


def _arrive(request: HttpRequest, file: UploadedFile) -> HttpResponse:
    return bring_in_sheet(request, known_person(request) or new_guest(request), file)


register(
    Kind(
        word="sheet",
        model=Sheet,
        rank=2,
        unit="line",
        counted=_counted,
        places=_places,
        naming=_naming,
        has_drawn=_has_drawn,
        lines_with=_lines_with,
        written=_written,
        steps=_steps,
        arrive=_arrive,
        copy=copy_of_sheet,
        copy_for=copy_for,
        load_samples=samples.load_samples,
        copy_samples=samples.copy_samples,
    )
)
