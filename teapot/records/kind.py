"""Records as a kind of thing on the shelf."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import partial
from typing import Any
from uuid import UUID

from django.core.files.uploadedfile import UploadedFile
from django.db import connection
from django.db.models import Count, OuterRef, QuerySet, Subquery
from django.db.models.functions import Coalesce
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.records import samples, services
from teapot.records.data import record_data, record_from
from teapot.records.models import Event, Record
from teapot.shelf import arriving
from teapot.shelf.everything import as_json
from teapot.shelf.kinds import Import, Kind, Place, Step, register
from teapot.shelf.search import match_of, row_found

FOUND = """
    SELECT event.record_id, event.number, event.text, event.said
      FROM event_words
      JOIN records_event AS event ON event.id = event_words.rowid
      JOIN records_record AS record ON record.id = event.record_id
     WHERE event_words MATCH %s AND record.owner_id = %s AND record.binned IS NULL
     ORDER BY event_words.rowid DESC LIMIT 200
"""


def _counted(records: QuerySet[Record]) -> QuerySet[Record]:
    events = Event.objects.filter(record=OuterRef("pk")).order_by()
    counted = events.values("record").annotate(n=Count("pk")).values("n")
    return records.annotate(many=Coalesce(Subquery(counted), 0))


def _places(person: Person, words: list[str]) -> Iterator[tuple[UUID, Place]]:
    with connection.cursor() as cursor:
        cursor.execute(FOUND, [match_of(words), person.pk.hex])
        for record, number, text, said in cursor.fetchall():
            yield UUID(record), row_found(number, text, said, words)


def _written(record: Record) -> str:
    return as_json(record_data(record))


def _steps(
    packed: Import, stage: Person, data: dict[str, Any], one: Mapping[str, Any]
) -> Iterator[Step]:
    record = Record(owner=stage)
    packed.name(record, one)
    yield partial(record_from, data, record)


def _arrive(request: HttpRequest, file: UploadedFile) -> HttpResponse:
    person = known_person(request) or new_guest(request)
    data = arriving.data_in(file, "record")
    if data is None:
        raise arriving.NOT_ONE(kind="record", why="it is not as a record was saved")
    return redirect(arriving.made(Record(owner=person), data, record_from))


def _copy_for(record: Record, person: Person) -> Record:
    made = Record(owner=person)
    made.name = made.untaken(record.name)
    record_from(record_data(record), made)
    return made


register(
    Kind(
        word="record",
        model=Record,
        rank=3,
        unit="event",
        counted=_counted,
        places=_places,
        written=_written,
        steps=_steps,
        arrive=_arrive,
        copy_for=_copy_for,
        before_bin=services.stop_all,
        copy_samples=samples.copy_record,
    )
)
