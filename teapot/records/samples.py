"""The record of the demo: a short session on values that are made up."""

from __future__ import annotations

from teapot.accounts.models import Person
from teapot.records.models import Event, Record


def copy_record(person: Person) -> None:
    """Gives a person a copy of it."""
    sample = Record.objects.filter(owner=None).first()
    if sample is None or person.records.at_hand().filter(name=sample.name).exists():
        return
    events = list(sample.events.all())
    made = Record.objects.create(
        owner=person, name=sample.name, note=sample.note, parts=sample.parts, folder="kettles"
    )
    for event in events:
        event.pk, event.record = None, made
    Event.objects.bulk_create(events)
