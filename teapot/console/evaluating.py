"""Asking the evaluators about a sheet, and keeping the cache of answers fresh."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import datetime, tzinfo
from functools import cache
from typing import Any, TypeVar
from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from teapot.accounts.models import Person
from teapot.console.models import Line, Sheet
from teapot.engine.aids.typing import SoFar
from teapot.engine.errors import LineError
from teapot.engine.numbers.context import Conventions
from teapot.engine.sentences.work import BUSY, NOT_IN_TIME, STILL_READING
from teapot.engine.sheet.settings import Settings
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence import change_jobs, jobs
from teapot.fence.arriving_jobs import LinesTried
from teapot.fence.jobs import Job
from teapot.fence.lines import MOST_OF_A_PART, Part, SheetLine, SyncPosition
from teapot.fence.listing import ListingNews
from teapot.fence.turns import EvaluatorsBusy, PartlyRead
from teapot.fence.worker import State
from teapot.shelf.queries import ask, done, shelf_state

T = TypeVar("T")

CACHED = ("outcome", "answered", "engine", "stale", "is_live", "search_text", "draws")
"""The fields of a line that its answers come with; what was given to it only grows."""

LONGEST_MOVED = 60
"""Characters of an answer that are shown where it has moved."""

OF_THE_DEMO = 1
"""The revision of the shelf where there is no owner: it changes only while nothing is served."""

BUSY_NOW = BUSY()


def rows_of(lines: QuerySet[Line]) -> QuerySet:
    """What an evaluator needs of lines, in the order in which they were typed."""
    return lines.order_by("number").values_list(
        "number", "text", "last", "place", "deleted", "angle", "log", "numbers", "units", "draws",
        "token", "kept",
    )  # fmt: skip


def work(sheet: Sheet, job: Job[T]) -> T | None:
    """Has an evaluator do a job on the sheet at its present revision; None where it could
    not be done in time.

    Errors: :class:`LineError` where what was typed does not allow it.
    """

    state = State(
        str(sheet.pk),
        sheet.revision,
        sheet.settings,
        by_the_clock(timezone.now()),
        shelf_revision=sheet.owner.shelf_revision if sheet.owner else OF_THE_DEMO,
        head=str(sheet.head or ""),
    )
    return done(
        state,
        job,
        lambda reached: _part_after(sheet, reached),
        lambda: shelf_state(sheet.owner_id),
    )


def _part_after(sheet: Sheet, reached: SyncPosition) -> Part:
    """Lines of a sheet that come after what was reached: a part of them where it is read for
    the first time."""
    if reached.revision:
        changed = sheet.lines.filter(revision__gt=reached.revision, revision__lte=sheet.revision)
        return Part(_lines_of(rows_of(changed)))
    present = sheet.lines.present().filter(revision__lte=reached.target or sheet.revision)
    rows = rows_of(present.filter(number__gt=reached.number))[:MOST_OF_A_PART]
    lines = _lines_of(rows)
    if len(lines) < MOST_OF_A_PART:
        return Part(lines)
    last = sheet.lines.order_by("number").values_list("number", flat=True).last()
    return Part(lines, lines[-1].number, last or 1)


def _lines_of(rows: Iterable[Sequence[Any]]) -> tuple[SheetLine, ...]:
    """They as an evaluator gets them: nearly all have the same conventions, which are sent once."""
    conventions_of, here = cache(Conventions), timezone.get_current_timezone()
    return tuple(
        SheetLine(
            *row[:5],
            conventions_of(*row[5:9]),
            row[9],
            str(row[10]),
            by_the_clock(row[11], here),
        )
        for row in rows
    )


def _as_sent(line: Line) -> SheetLine:
    """A line as an evaluator gets it."""
    return SheetLine(
        line.number, line.text, line.last, line.place, line.deleted, line.conventions,
        line.draws, str(line.token), by_the_clock(line.kept),
    )  # fmt: skip


def moved_by(
    sheet: Sheet, lines: Iterable[Line], head: UUID, wanted: change_jobs.Wanted
) -> change_jobs.Moved | None:
    """What it moves that lines are as they are now, as the change ``head``; None where that
    could not be found out in time."""
    put = tuple(map(_as_sent, lines))
    try:
        return work(
            sheet,
            change_jobs.Put(head=str(head), revision=sheet.revision + 1, lines=put, wanted=wanted),
        )
    except (EvaluatorsBusy, LineError):
        return None


def work_or_raise(sheet: Sheet, job: Job[T]) -> T:
    """As :func:`work`, for what cannot be gone on without.

    Errors: :class:`LineError` where there was no result in time too.
    """
    result = work(sheet, job)
    if result is None:
        raise NOT_IN_TIME()
    return result


def by_the_clock(moment: datetime, here: tzinfo | None = None) -> datetime:
    """A moment by the clock of where the person is; whoever asks for many says where that is."""
    return timezone.localtime(moment, here).replace(tzinfo=None)


def tried(person: Person, settings: Settings, lines: Iterable[Line]) -> dict[int, KeptOutcome]:
    """What lines answer that are of no sheet yet, with the shelf of a person: of as many as there
    is time for."""
    job = LinesTried(lines=tuple(map(_as_sent, lines)), settings=settings)
    try:
        return ask(person.pk, job, person)
    except (LineError, EvaluatorsBusy):
        return {}


def typed(sheet: Sheet, job: jobs.ReadTyped) -> SoFar:
    """What is shown while a line is typed."""
    try:
        return work_or_raise(sheet, job)
    except PartlyRead as reading:
        return job.failed(STILL_READING(percent=reading.percent))
    except EvaluatorsBusy:
        return job.failed(BUSY_NOW)


AT_ONCE = 400
"""Lines that an evaluator is asked about at once."""


def refresh(sheet: Sheet, lines: Iterable[Line]) -> dict[int, list[str]]:
    """Makes the answers of lines again that are no longer those they have: of as many as
    there is time for.  The others are no more fresh than before.

    Returns for each line whose answers have changed how, as :func:`moved` says it.
    """
    try:
        return _refresh(sheet, [line for line in lines if not line.is_fresh])
    except EvaluatorsBusy:
        return {}


def refresh_all(sheet: Sheet, lines: Sequence[Line]) -> None:
    """The same of all, but for those that cannot be worked out in the time of one line.

    Errors: :class:`LineError`, :class:`EvaluatorsBusy` where no more of them can be just now.
    """
    waiting = [line for line in lines if not line.is_fresh]
    while waiting:
        some = waiting[:AT_ONCE]
        _refresh(sheet, some)
        left = [line for line in some if not line.is_fresh]
        if len(left) == len(some):
            del left[0]
        waiting[:AT_ONCE] = left


def _refresh(sheet: Sheet, stale: list[Line]) -> dict[int, list[str]]:
    if not stale:
        return {}
    outcomes = work(sheet, jobs.WorkOutcomes(numbers=[line.number for line in stale])) or {}
    before: dict[int, list[str]] = {}
    made = [line for line in stale if line.number in outcomes]
    for line in made:
        was = answer_texts(line)
        line.take(outcomes[line.number], sheet.revision)
        changed = moved(was, answer_texts(line))
        if changed:
            before[line.number] = changed
    _store(sheet, made)
    return before


def _store(sheet: Sheet, lines: list[Line]) -> None:
    """Keeps the answers of lines, unless the sheet has changed since they were made."""
    with transaction.atomic():
        if Sheet.objects.filter(pk=sheet.pk, revision=sheet.revision).exists():
            write_over(lines, CACHED)


def write_over(lines: list[Line], fields: Sequence[str]) -> None:
    """Writes fields of many lines that are there: some ten times as fast as bulk_update, which
    names every line for every field."""
    Line.objects.bulk_create(
        lines, update_conflicts=True, unique_fields=["id"], update_fields=fields
    )


def answer_texts(line: Line) -> list[str]:
    """The answers of a line as text, or the fact that it has an error."""
    if line.outcome["error"]:
        return ["an error"]
    return [answer.get("nearly") or answer["text"] for answer in line.outcome["answers"]]


def moved(before: list[str], after: list[str]) -> list[str]:
    """Each answer that has changed, as ``8 → 11``."""
    if len(before) != len(after):
        return [f"{', '.join(before) or 'nothing'} → {', '.join(after) or 'nothing'}"]
    pairs = zip(before, after, strict=True)
    return [f"{_short(was)} → {_short(now)}" for was, now in pairs if was != now]


def _short(text: str) -> str:
    """A text as it is shown in passing."""
    return text if len(text) <= LONGEST_MOVED else text[: LONGEST_MOVED - 1] + "…"


def quantities(sheet: Sheet) -> ListingNews | None:
    """The sheet's quantities as they are now, how many more there are, and the lines
    that are out of date; None where they could not be had in time."""
    try:
        return work(sheet, jobs.ListQuantities(revision=sheet.revision))
    except EvaluatorsBusy:
        return None


def settings_after(sheet: Sheet, command: str, argument: str) -> Settings:
    """The sheet's settings after a command such as ``/show``.

    Errors: :class:`LineError` for what cannot be set.
    """
    return work_or_raise(sheet, jobs.SettingsAfter(command=command, argument=argument))
