"""What the evaluators know of a shelf, and what they are asked about files."""

from __future__ import annotations

from typing import TypeVar
from uuid import UUID

from django.conf import settings
from django.db.models import Q
from django.utils import timezone
from django.utils.formats import date_format

from engine import errors
from engine.sheet.settings import Settings
from fence.evaluators import evaluators
from fence.jobs import Job
from fence.worker import Refused, ShelfState, State
from shelf.models import Version

T = TypeVar("T")


def shelf_state(owner: UUID | None) -> ShelfState:
    """The tables of a person, and those of the demo, which copied sheets may have used."""
    is_at_hand = Q(table__owner=owner) | Q(table__owner=None)
    versions = list(
        Version.objects.filter(is_at_hand, table__isnull=False)
        .select_related("table")
        .order_by("table", "made")
    )
    newest, replaced = {}, {}
    for version in versions:
        before = newest.get(version.table_id)
        if before is not None:
            replaced[str(before.pk)] = _said(version)
        newest[version.table_id] = version
    return ShelfState(
        versions=tuple(
            (version.table.name, str(version.pk))
            for version in newest.values()
            if not version.table.deleted and version.table.owner_id == owner
        ),
        files=tuple((str(version.pk), version.file) for version in versions),
        replaced=tuple(replaced.items()),
    )


def _said(version: Version) -> str:
    moment = timezone.localtime(version.made)
    return f"on {date_format(moment, 'j F')} at {date_format(moment, 'H:i')}"


def ask(of: UUID, job: Job[T]) -> T:
    """Has an evaluator do a job that is of no sheet.

    Errors: :class:`LineError` where it cannot be done, or not in time.
    """
    moment = timezone.localtime().replace(tzinfo=None)
    state = State(f"file:{of}", 0, Settings(), moment)
    result = evaluators(settings.TEAPOT_EVALUATORS).work(state, job, lambda revision: ())
    if isinstance(result, Refused):
        raise errors.Refused(result.code, result.text)
    if result is None:
        raise errors.NotInTime()
    return result
