"""Changing a sheet: the one place where lines are written, and every change can
be undone.

A change is written in one transaction, which looks whether the sheet still is as
it was when the change was worked out.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import F

from console.models import Change, Line, Sheet
from records import writing

STATE = ("text", "place", "last", "deleted", "draws", "angle", "log", "numbers")
"""What a line is; everything else of it can be made again."""


def commit(sheet: Sheet, label: str, lines: Iterable[Line], **settings: Any) -> bool:
    """Writes lines and settings of the sheet as one change.

    False where the sheet has changed since it was read: nothing is written then.
    """
    lines = list(lines)
    try:
        with transaction.atomic():
            if not _advance(sheet, settings):
                return False
            known = sheet.lines.in_bulk([line.pk for line in lines if line.pk])
            entries = [_entry(line, known.get(line.pk)) for line in lines]
            _write(sheet, lines)
            before = {name: getattr(sheet, name) for name in settings}
            pairs = {name: [before[name], value] for name, value in settings.items()}
            sheet.changes.filter(undone=True).delete()
            Change.objects.create(sheet=sheet, label=label, lines=entries, settings=pairs)
            _mark_stale(sheet, entries, pairs, {line.number for line in lines})
            _record(sheet, lines, known, entries, settings)
    except IntegrityError:
        return False
    _take_settings(sheet, settings)
    return True


def undo(sheet: Sheet) -> str | None:
    """Takes the last change back; returns what it was, None where there is none."""
    change = sheet.changes.filter(undone=False).last()
    return _replay(sheet, change, before=True) if change else None


def redo(sheet: Sheet) -> str | None:
    """Makes the change again that was undone last."""
    change = sheet.changes.filter(undone=True).first()
    return _replay(sheet, change, before=False) if change else None


def _replay(sheet: Sheet, change: Change, before: bool) -> str:
    settings = {name: pair[0 if before else 1] for name, pair in change.settings.items()}
    with transaction.atomic():
        _advance(sheet, settings, at_any=True)
        numbers = [entry["number"] for entry in change.lines]
        lines = {line.number: line for line in sheet.lines.filter(number__in=numbers)}
        for entry in change.lines:
            state = entry["before" if before else "after"] or {"deleted": True}
            for field, value in state.items():
                setattr(lines[entry["number"]], field, value)
        _write(sheet, list(lines.values()))
        change.undone = before
        change.save(update_fields=["undone"])
        _mark_stale(sheet, change.lines, change.settings, set())
        if sheet.recording_id:
            kind = "undone" if before else "redone"
            writing.write_lines(
                sheet.recording_id, sheet, [(line, None, kind) for line in lines.values()],
                change.label,
            )  # fmt: skip
    _take_settings(sheet, settings)
    return change.label


def _advance(sheet: Sheet, settings: dict[str, Any], at_any: bool = False) -> bool:
    """Moves the sheet on by one revision, unless it is not where it was read."""
    if at_any:
        sheet.refresh_from_db()
    same = Sheet.objects.filter(pk=sheet.pk, revision=sheet.revision)
    return bool(same.update(revision=F("revision") + 1, **settings))


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


def _write(sheet: Sheet, lines: list[Line]) -> None:
    for line in lines:
        line.revision = sheet.revision + 1
        line.save()


def _mark_stale(
    sheet: Sheet,
    entries: list[dict[str, Any]],
    settings: dict[str, Any],
    fresh: set[int],
) -> None:
    """Notes which answers have to be made again: those behind the first place that
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
