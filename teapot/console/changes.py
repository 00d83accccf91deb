"""Changing a sheet: the one place where lines are written, and every change can
be undone.

A change is written in one transaction, which looks whether the sheet still is as
it was when the change was worked out.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any
from uuid import UUID, uuid4

from django.db import IntegrityError, connection, transaction
from django.db.models import F, Subquery
from django.db.models.expressions import RawSQL

from teapot.console import evaluating
from teapot.console.models import Change, Line, Sheet
from teapot.fence.change_jobs import Moved, Wanted
from teapot.records import writing
from teapot.sqlite.statements import Insert

NOTHING = Wanted()

WRITTEN = (
    "text", "place", "last", "deleted", "draws", "angle", "log", "numbers", "units",
    "revision", "outcome",
    "answered", "engine", "stale", "is_live", "search_text",
)  # fmt: skip
"""What is written of a line that is there."""

STATE = ("text", "place", "last", "deleted", "draws", "angle", "log", "numbers", "units")
"""What a line is; everything else of it can be made again."""


MOST_CHANGES, OFTEN = 1000, 50
"""Changes of a sheet that can be undone, and after how many those before are forgotten."""

_LINE, _CHANGE = Insert(Line), Insert(Change)


def commit(
    sheet: Sheet,
    label: str,
    lines: Iterable[Line],
    moved: Moved | None = None,
    head: UUID | None = None,
    **settings: Any,
) -> bool:
    """Writes lines and settings of the sheet as one change, and the answers that it ``moved``.

    False where the sheet has changed since it was read: nothing is written then.  All that can
    be is made ready before, so that others wait for as little as can be.
    """
    lines = list(lines)
    known = sheet.lines.in_bulk([line.pk for line in lines if line.pk])
    entries = [_entry(line, known.get(line.pk)) for line in lines]
    pairs = {name: [getattr(sheet, name), value] for name, value in settings.items()}
    for line in lines:
        line.revision = sheet.revision + 1
    answered = {line.number for line in lines if line.answered == line.revision}
    new = [(line, _LINE.values(line)) for line in lines if line.pk is None]
    older = [line for line in lines if line.pk is not None]
    change = Change(sheet=sheet, label=label, lines=entries, settings=pairs)
    change_values = _CHANGE.values(change)
    try:
        with transaction.atomic():
            if not _advance(sheet, head or uuid4(), settings):
                return False
            for line, values in new:
                _LINE.write(line, values)
            if older:
                evaluating.write_over(older, WRITTEN)
            _forget_undone(sheet)
            if sheet.revision and sheet.revision % OFTEN == 0:
                _forget_old(sheet)
            _CHANGE.write(change, change_values)
            if moved is None:
                _mark_stale(sheet, entries, pairs, answered)
            else:
                _write_moved(sheet, moved, answered)
            _record(sheet, lines, known, entries, settings)
    except IntegrityError:
        for line, _ in new:
            line.pk = None
        return False
    _take_settings(sheet, settings)
    return True


def _forget_undone(sheet: Sheet) -> None:
    """What was undone cannot be done again once something else is."""
    with connection.cursor() as cursor:
        cursor.execute("DELETE FROM console_change WHERE sheet_id = %s AND undone", [sheet.pk.hex])


def _forget_old(sheet: Sheet) -> None:
    """So much can be undone, and no more: what is kept of a sheet does not grow without end."""
    older = sheet.changes.order_by("-pk").values("pk")[MOST_CHANGES : MOST_CHANGES + 1]
    sheet.changes.filter(pk__lte=Subquery(older)).delete()


def _write_moved(sheet: Sheet, moved: Moved, answered: set[int]) -> None:
    """Keeps the answers that were made anew, and notes which have to be; those ``answered`` came
    with the change."""
    if moved.fresh:
        lines = list(sheet.lines.filter(number__in=moved.fresh))
        for line in lines:
            was = evaluating.answer_texts(line)
            line.take(moved.fresh[line.number], sheet.revision + 1)
            changed = evaluating.moved(was, evaluating.answer_texts(line))
            if changed:
                moved.before[line.number] = changed
        evaluating.write_over(lines, evaluating.CACHED)
    late = moved.void - answered - moved.fresh.keys()
    if late:
        among = RawSQL("SELECT value FROM json_each(%s)", [json.dumps(sorted(late))])
        sheet.lines.filter(stale=False, number__in=among).update(stale=True)


def undo(sheet: Sheet, wanted: Wanted = NOTHING) -> Replayed | None:
    """Takes the last change back; None where there is none."""
    return _replayed(sheet, wanted, before=True)


def redo(sheet: Sheet, wanted: Wanted = NOTHING) -> Replayed | None:
    """Makes the change again that was undone last."""
    return _replayed(sheet, wanted, before=False)


@dataclass(frozen=True, slots=True)
class Replayed:
    """What was undone or done again, and what that ``moved``; None where it is not known."""

    label: str
    moved: Moved | None


def _replayed(sheet: Sheet, wanted: Wanted, before: bool) -> Replayed | None:
    """Which change it is, is looked at again when it is written: several at once take back
    several."""
    for _ in range(MOST_TRIES):
        changes = sheet.changes.filter(undone=not before)
        change = changes.last() if before else changes.first()
        if change is None:
            return None
        lines = _as_then(sheet, change, before)
        head = uuid4()
        settings = {name: pair[0 if before else 1] for name, pair in change.settings.items()}
        moved = None
        if lines and not settings:
            moved = evaluating.moved_by(sheet, lines, head, wanted)
        if _replay(sheet, change, lines, settings, before, head, moved):
            return Replayed(change.label, moved)
        sheet.refresh_from_db()
    return None


MOST_TRIES = 50
"""How often a change is undone anew because another window was faster."""


def _as_then(sheet: Sheet, change: Change, before: bool) -> list[Line]:
    """The lines of a change as they were before or after it."""
    numbers = [entry["number"] for entry in change.lines]
    lines = {line.number: line for line in sheet.lines.filter(number__in=numbers)}
    for entry in change.lines:
        state = entry["before" if before else "after"] or {"deleted": True}
        for field, value in state.items():
            setattr(lines[entry["number"]], field, value)
    return list(lines.values())


def _replay(
    sheet: Sheet,
    change: Change,
    lines: list[Line],
    settings: dict[str, Any],
    before: bool,
    head: UUID,
    moved: Moved | None,
) -> bool:
    with transaction.atomic():
        if not _advance(sheet, head, settings):
            return False
        for line in lines:
            line.revision = sheet.revision + 1
            line.stale = True
        evaluating.write_over(lines, WRITTEN)
        Change.objects.filter(pk=change.pk).update(undone=before)
        if moved is None:
            _mark_stale(sheet, change.lines, change.settings, set())
        else:
            _write_moved(sheet, moved, set())
        if sheet.recording_id:
            kind = "undone" if before else "redone"
            writing.write_lines(
                sheet.recording_id, sheet, [(line, None, kind) for line in lines], change.label
            )
    _take_settings(sheet, settings)
    return True


def _advance(sheet: Sheet, head: UUID, settings: dict[str, Any]) -> bool:
    """Moves the sheet on by one revision, unless it is not where it was read."""
    same = Sheet.objects.filter(pk=sheet.pk, revision=sheet.revision)
    if not same.update(revision=F("revision") + 1, head=head, **settings):
        return False
    sheet.head = head
    return True


def _take_settings(sheet: Sheet, settings: dict[str, Any]) -> None:
    sheet.revision += 1
    for name, value in settings.items():
        setattr(sheet, name, value)


def _record(
    sheet: Sheet,
    lines: list[Line],
    known: dict[int, Line],
    entries: list[dict[str, Any]],
    settings: dict[str, Any],
) -> None:
    """Writes a change down, where the sheet is recorded."""
    if not sheet.recording_id:
        return
    pairs = zip(lines, entries, strict=True)
    happened = [
        (line, known.get(line.pk), writing.kind_of(entry["before"], entry["after"]))
        for line, entry in pairs
    ]
    writing.write_lines(sheet.recording_id, sheet, happened)
    for name, value in settings.items():
        if name != "cleared":
            writing.write(sheet.recording_id, sheet, "command", f"{name}: {value}")


def _entry(line: Line, known: Line | None) -> dict[str, Any]:
    before = {field: getattr(known, field) for field in STATE} if known else None
    after = {field: getattr(line, field) for field in STATE}
    return {"number": line.number, "before": before, "after": after}


def _mark_stale(
    sheet: Sheet,
    entries: list[dict[str, Any]],
    settings: dict[str, Any],
    fresh: set[int],
) -> None:
    """Notes which answers have to be made again: those after the first place that
    changed, and live ones wherever they stand.  Lines in ``fresh`` are new."""
    lines = sheet.lines.filter(stale=False)
    if "form" in settings:
        lines.update(stale=True)
        return
    states = [entry[when] for entry in entries for when in ("before", "after") if entry[when]]
    if states:
        first = min(state["place"] for state in states)
        lines.filter(place__gte=first).exclude(number__in=fresh).update(stale=True)
        lines.filter(is_live=True).exclude(number__in=fresh).update(stale=True)
