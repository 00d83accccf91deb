"""Keeping lines: the one place where a sheet is changed.

A line is worked out first, by an evaluator and outside any transaction, and then
written in a transaction that looks whether the sheet still is as it was.  If
another window was faster, the line is worked out again on what it wrote.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db import IntegrityError, transaction
from django.db.models import F, Max

from console.models import Line, Sheet
from engine.sheet.outcome import NOTE, OK
from fence.evaluators import evaluators
from fence.limits import LINE_SECONDS, PREVIEW_SECONDS
from fence.worker import Job, SheetLine, State

MAX_ATTEMPTS = 50
"""How often a line is worked out again because another window was faster."""


class Crowded(Exception):
    """Other windows changed the sheet faster than the line could be worked out."""


@dataclass(frozen=True, slots=True)
class Kept:
    """``line`` is None where the input has an error or goes on: ``outcome`` says."""

    line: Line | None
    outcome: dict[str, Any]


def preview(sheet: Sheet, text: str) -> dict[str, Any]:
    """What the engine would answer to ``text`` at the foot of the sheet."""
    return _work(sheet, _answer_job(sheet, text, PREVIEW_SECONDS))


def keep(sheet: Sheet, text: str, token: UUID) -> Kept:
    """Answers ``text`` and keeps it as the sheet's next line.

    A ``token`` that was kept before gives that line again.
    """
    for _ in range(MAX_ATTEMPTS):
        known = sheet.lines.filter(token=token).first()
        if known is not None:
            return Kept(known, known.outcome)
        sheet.refresh_from_db()
        job = _answer_job(sheet, text, LINE_SECONDS)
        outcome = _work(sheet, job)
        if outcome["status"] not in (OK, NOTE):
            return Kept(None, outcome)
        line = _write(sheet, text, token, job, outcome)
        if line is not None:
            _note_quantities(sheet)
            return Kept(line, outcome)
    raise Crowded


def _answer_job(sheet: Sheet, text: str, seconds: float) -> Job:
    number = (sheet.lines.aggregate(highest=Max("number"))["highest"] or 0) + 1
    arguments = {"number": number, "text": text, "last": last_answered(sheet)}
    return Job("answer", seconds, arguments)


def last_answered(sheet: Sheet) -> int | None:
    """The number of the line that ``@`` stands for at the foot of the sheet."""
    last = sheet.lines.exclude(outcome__answers=[]).order_by("place").last()
    return last.number if last else None


def _write(sheet: Sheet, text: str, token: UUID, job: Job, outcome: dict[str, Any]) -> Line | None:
    """The line in the database, None where the sheet has changed since it was read."""
    try:
        with transaction.atomic():
            same = Sheet.objects.filter(pk=sheet.pk, revision=sheet.revision)
            if not same.update(revision=F("revision") + 1):
                return None
            highest = sheet.lines.aggregate(highest=Max("place"))["highest"] or 0
            line = Line.objects.create(
                sheet=sheet,
                number=job.arguments["number"],
                place=highest + 1,
                text=text,
                token=token,
                last=job.arguments["last"],
                revision=sheet.revision + 1,
                outcome=outcome,
            )
    except IntegrityError:
        return None
    sheet.revision += 1
    return line


def _note_quantities(sheet: Sheet) -> None:
    """Brings the sheet's cache of its quantities up to its revision."""
    quantities = _work(sheet, Job("quantities", LINE_SECONDS))
    if quantities is not None:
        sheet.quantities, sheet.quantities_at = quantities, sheet.revision
        newer = Sheet.objects.filter(pk=sheet.pk, quantities_at__lt=sheet.revision)
        newer.update(quantities=quantities, quantities_at=sheet.revision)


def quantities(sheet: Sheet) -> list[dict[str, Any]]:
    """The sheet's quantities as they are now."""
    if sheet.quantities_at != sheet.revision:
        _note_quantities(sheet)
    return sheet.quantities


def _work(sheet: Sheet, job: Job) -> Any:
    def lines_since(revision: int) -> tuple[SheetLine, ...]:
        lines = sheet.lines.filter(revision__gt=revision, revision__lte=sheet.revision)
        return tuple(SheetLine(*row) for row in lines.values_list("number", "text", "last"))

    state = State(str(sheet.pk), sheet.revision, sheet.settings)
    return evaluators(settings.TEAPOT_EVALUATORS).work(state, job, lines_since)
