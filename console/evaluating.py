"""Asking the evaluators about a sheet, and keeping the cache of answers fresh."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.conf import settings
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from console.models import Line, Sheet
from engine.errors import LineError
from engine.numbers.context import Conventions
from fence.evaluators import evaluators
from fence.limits import LINE_SECONDS, PREVIEW_SECONDS
from fence.worker import Job, SheetLine, State

CACHED = ("outcome", "answered", "stale", "is_live", "found", "given")
"""The fields of a line that can be made again from its text."""


def rows_of(lines: QuerySet[Line]) -> QuerySet:
    """What an evaluator needs of lines, in their order."""
    return lines.order_by("place").values_list(
        "number", "text", "last", "place", "deleted", "angle", "log", "numbers", "given"
    )


def work(sheet: Sheet, kind: str, seconds: float = LINE_SECONDS, **arguments: Any) -> Any:
    """Has an evaluator do a job on the sheet at its present revision."""

    def lines_since(revision: int) -> tuple[SheetLine, ...]:
        changed = sheet.lines.filter(revision__gt=revision, revision__lte=sheet.revision)
        if not revision:
            changed = changed.present()
        return tuple(
            SheetLine(*row[:5], Conventions(*row[5:8]), row[8]) for row in rows_of(changed)
        )

    moment = timezone.localtime().replace(tzinfo=None)
    state = State(str(sheet.pk), sheet.revision, sheet.settings, moment)
    job = Job(kind, seconds, arguments)
    return evaluators(settings.TEAPOT_EVALUATORS).work(state, job, lines_since)


def typed(sheet: Sheet, **arguments: Any) -> dict[str, Any]:
    """What is shown while a line is typed."""
    return work(sheet, "typed", PREVIEW_SECONDS, **arguments)


def refresh(sheet: Sheet, lines: Iterable[Line]) -> dict[int, list[str]]:
    """Makes the answers of stale lines again.

    Returns for each line whose answers have changed how, as :func:`moved` says it.
    """
    stale = [line for line in lines if line.stale]
    if not stale:
        return {}
    outcomes = work(sheet, "outcomes", numbers=[line.number for line in stale])
    if outcomes is None:
        return {}
    before: dict[int, list[str]] = {}
    for line in stale:
        was = answer_texts(line)
        line.take(outcomes[line.number], sheet.revision)
        changed = moved(was, answer_texts(line))
        if changed:
            before[line.number] = changed
    _store(sheet, stale)
    return before


def _store(sheet: Sheet, lines: list[Line]) -> None:
    """Keeps the answers of lines, unless the sheet has changed since they were made."""
    with transaction.atomic():
        if Sheet.objects.filter(pk=sheet.pk, revision=sheet.revision).exists():
            Line.objects.bulk_update(lines, CACHED)


def answer_texts(line: Line) -> list[str]:
    """The answers of a line as text, or the fact that it has an error."""
    if line.outcome["error"]:
        return ["an error"]
    return [answer["text"] for answer in line.outcome["answers"]]


def moved(before: list[str], after: list[str]) -> list[str]:
    """Each answer that has changed, as ``8 → 11``."""
    if len(before) != len(after):
        return [f"{', '.join(before) or 'nothing'} → {', '.join(after) or 'nothing'}"]
    pairs = zip(before, after, strict=True)
    return [f"{was} → {now}" for was, now in pairs if was != now]


def quantities(sheet: Sheet) -> tuple[list[dict[str, Any]], int]:
    """The sheet's quantities as they are now, and how many more there are."""
    reply = work(sheet, "quantities") or {"quantities": [], "left_out": 0}
    return reply["quantities"], reply["left_out"]


def names(sheet: Sheet) -> dict[str, int]:
    """The names of the quantities at the foot, each with its line.

    Errors: :class:`LineError` where they could not be had in time.
    """
    known = work(sheet, "names")
    if known is None:
        raise LineError("too-slow", "The quantities could not be listed in time: try again.")
    return known
