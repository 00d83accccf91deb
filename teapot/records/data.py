"""A record as plain data, and made of it again."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from teapot.engine.out.data import FORMAT
from teapot.engine.out.json_text import WrongData
from teapot.records.models import Event, Record
from teapot.records.writing import KINDS, OF_ANSWER
from teapot.shelf.moments import moment_from

OF_EVENT = ("part", "kind", "sheet", "number", "text", "answers", "said", "before")


def record_data(record: Record) -> dict[str, Any]:
    """A record with all its events."""
    return {
        "teapot": FORMAT,
        "kind": "record",
        "name": record.name,
        "note": record.note,
        "parts": record.parts,
        "events": [
            {"at": event.at.isoformat(), **{name: getattr(event, name) for name in OF_EVENT}}
            for event in record.events.all()
        ],
    }


def record_from(data: Mapping[str, Any], record: Record) -> None:
    """Gives an empty record, which has its name and owner, what stands in such data, and keeps
    it.  Errors: :class:`KeyError`, :class:`ValueError`, :class:`TypeError` for other data."""
    record.note, record.parts = str(data["note"])[:20_000], int(data["parts"])
    events = [
        Event(record=record, at=moment_from(told["at"]), **{name: told[name] for name in OF_EVENT})
        for told in data["events"]
    ]
    unknown = {event.kind for event in events} - set(KINDS)
    if unknown or not all(_is_event(event) for event in events):
        raise WrongData(f"an event is not as it should be {' '.join(map(str, unknown))}".strip())
    record.save()
    Event.objects.bulk_create(events)


def _is_event(event: Event) -> bool:
    texts = (event.text, event.said, event.sheet)
    is_before = event.before is None or isinstance(event.before.get("text"), str)
    answers = event.answers if isinstance(event.answers, list) else [None]
    return (
        all(isinstance(text, str) for text in texts)
        and is_before
        and all(isinstance(one, dict) and one.keys() >= OF_ANSWER for one in answers)
    )
