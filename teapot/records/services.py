"""What is done with records: begun, stopped, gone on with, annotated, made afterwards."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import F

from teapot.engine.errors import Problem
from teapot.engine.mends import Mend, Span
from teapot.records.models import Event, Record
from teapot.records.writing import answers_in, write
from teapot.shelf import things

STOP = "stop"
GO_ON = "go on"


RECORD_TAKEN = Problem(
    "record-taken", "There is already a record named {name}: continuing it adds another part."
)
NOT_RECORDING = Problem(
    "not-recording", "Nothing is being recorded. To begin, type /record and a name."
)
RECORDS_ALREADY = Problem(
    "records-already",
    "This sheet is already being recorded as {name}. Stop that first: /record stop.",
)


def obey(sheet: Any, argument: str) -> None:
    """Does ``/record NAME``, ``/record go on NAME`` and ``/record stop``.

    Errors: :class:`LineError`, for a name that is taken with the way to go on.
    """
    if argument.strip().lower() == STOP or (not argument.strip() and sheet.recording_id):
        return stop(sheet)
    goes_on = argument.lower().startswith(f"{GO_ON} ")
    begin(sheet, argument[len(GO_ON) :] if goes_on else argument or sheet.title, goes_on)
    return None


def begin(sheet: Any, name: str, goes_on: bool = False) -> Record:
    """Begins to record a sheet under a name; under one that is there it ``goes_on`` as a new
    part.  Errors: :data:`RECORD_TAKEN` where it is there and does not go on."""
    if sheet.recording is not None:
        raise RECORDS_ALREADY(name=sheet.recording.name)
    name = things.cleaned(name)
    known = Record.objects.at_hand().filter(owner=sheet.owner, name=name).first()
    if known is not None and not goes_on:
        error = RECORD_TAKEN(name=name)
        whole = Span(0, 10**6)
        error.mends = (Mend("go on with it", whole, f"/record {GO_ON} {name}"),)
        raise error
    try:
        with transaction.atomic():
            record = known or Record(owner=sheet.owner, name=name, folder=sheet.folder)
            if known is None:
                record.save()
            else:
                Record.objects.filter(pk=record.pk).update(parts=F("parts") + 1)
            sheet.recording = record
            sheet.save(update_fields=["recording"])
            write(record.pk, sheet, "began")
    except IntegrityError:
        sheet.recording = None
        raise RECORD_TAKEN(name=name) from None  # another window was faster
    return record


def stop(sheet: Any) -> None:
    """Ends the recording of a sheet.  Errors: :data:`NOT_RECORDING` where there is none."""
    if sheet.recording_id is None:
        raise NOT_RECORDING()
    with transaction.atomic():
        write(sheet.recording_id, sheet, "stopped")
        sheet.recording = None
        sheet.save(update_fields=["recording"])


def stop_all(record: Record) -> None:
    """Ends the recording of every sheet that is written down in a record."""
    for sheet in record.sheets.all():
        stop(sheet)


def afterwards(sheet: Any, numbers: Sequence[int], name: str) -> Record:
    """A record of lines that are there already, each at the time at which it was kept; it says
    that it was made afterwards."""
    lines = sheet.lines.present().order_by("place")
    if numbers:
        lines = lines.filter(number__in=numbers)
    record = Record(owner=sheet.owner, folder=sheet.folder)
    record.name = record.untaken(things.cleaned(name))
    with transaction.atomic():
        record.save()
        write(record.pk, sheet, "afterwards", said="not while it happened")
        Event.objects.bulk_create(
            Event(
                record=record, at=line.kept, kind="new", sheet=sheet.title, number=line.number,
                text=line.text, answers=answers_in(line.outcome),
            )
            for line in lines
        )  # fmt: skip
    return record
