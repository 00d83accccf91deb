"""Writing down what happens to a sheet, in the transaction in which it happens."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from django.utils import timezone

from teapot.records.models import Event, Record

KINDS = {
    "began": "recording began",
    "stopped": "recording stopped",
    "new": "new line",
    "mended": "mended",
    "deleted": "deleted",
    "back": "brought back",
    "moved": "moved",
    "undone": "undone",
    "redone": "done again",
    "error": "error",
    "command": "command",
    "afterwards": "written down afterwards",
}
"""What happened, in words."""


OF_ANSWER = frozenset({"name", "sign", "text", "nearly", "reading"})
"""What is written down of an answer."""


def answers_in(outcome: Mapping[str, Any] | None) -> list[dict[str, str]]:
    """What a line answered, as a record has it."""
    return [
        {key: answer.get(key) or "" for key in sorted(OF_ANSWER)}
        for answer in (outcome or {}).get("answers", ())
    ]


def kind_of(before: Mapping[str, Any] | None, after: Mapping[str, Any]) -> str:
    """What happened to a line that was as ``before``, None where it was not there."""
    if before is None:
        return "new"
    if after["deleted"] != before["deleted"]:
        return "deleted" if after["deleted"] else "back"
    return "mended" if after["text"] != before["text"] else "moved"


def write_lines(
    record: int | Any, sheet: Any, changes: Iterable[tuple[Any, Any, str]], said: str = ""
) -> None:
    """Writes down what happened to lines: each as it is, as it was (None where it was not
    there), and the kind of what happened."""
    part = Record.objects.values_list("parts", flat=True).get(pk=record)
    now = timezone.now()
    Event.objects.bulk_create(
        Event(
            record_id=record,
            part=part,
            at=now,
            kind=kind,
            sheet=sheet.title,
            number=line.number,
            text=line.text,
            answers=answers_in(line.outcome),
            said=said,
            before=None
            if known is None
            else {"text": known.text, "answers": answers_in(known.outcome)},
        )
        for line, known, kind in changes
    )


def write(record: Any, sheet: Any, kind: str, text: str = "", said: str = "") -> None:
    """Writes down what is of no line: an error, a command, a beginning and an end."""
    part = Record.objects.values_list("parts", flat=True).get(pk=record)
    Event.objects.create(
        record_id=record, part=part, at=timezone.now(), kind=kind, sheet=sheet.title, text=text,
        said=said,
    )  # fmt: skip
