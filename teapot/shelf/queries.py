"""What the evaluators know of a shelf, and what they are asked about files."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, TypeVar
from uuid import UUID

from django.conf import settings
from django.utils import timezone
from django.utils.formats import date_format

from teapot.accounts.models import Person
from teapot.engine.errors import Problem
from teapot.engine.sentences.work import NOT_IN_TIME, SLOWED_DOWN
from teapot.engine.sheet.settings import Settings
from teapot.fence import asking
from teapot.fence.jobs import Job
from teapot.fence.lines import Part
from teapot.fence.turns import Slowed
from teapot.fence.worker import RefusedJob, ShelfState, State
from teapot.shelf.items import UsedByName
from teapot.shelf.kinds import versioned

T = TypeVar("T")


NO_LINES = Part()
"""Of what is no sheet."""


def shelf_state(owner: UUID | None) -> ShelfState:
    """The tables and procedures of a person, and those of the demo, which copied sheets may
    have used."""
    fields: dict[str, tuple[Any, ...]] = {}
    for _, versions in versioned():
        for name, value in versions.state(owner).items():
            fields[name] = (*fields.get(name, ()), *value)
    return ShelfState(**fields)


@dataclass(frozen=True, slots=True)
class WithReplaced:
    """All versions of things, the newest of each thing, and when the others were replaced."""

    all: list[Any]
    newest: list[Any]
    replaced: tuple[tuple[str, str], ...]


def with_replaced(versions: Iterable[Any], of: str) -> WithReplaced:
    """``versions`` in the order of their things, the older ones of each first."""
    found = list(versions)
    newest: dict[Any, Any] = {}
    replaced: list[tuple[str, str]] = []
    for version in found:
        thing = getattr(version, f"{of}_id")
        if thing in newest:
            replaced.append((str(newest[thing].pk), _said(version)))
        newest[thing] = version
    return WithReplaced(found, list(newest.values()), tuple(replaced))


def former_names(prefix: str, things: Iterable[UsedByName]) -> tuple[tuple[str, str], ...]:
    """The names that things at hand had, each with ``prefix``, and what each is called now."""
    return tuple(
        (prefix + former, thing.name_shown)
        for thing in things
        if thing.binned is None
        for former in thing.former_names
    )


def _said(version: Any) -> str:
    moment = timezone.localtime(version.made)
    return f"on {date_format(moment, 'j F')} at {date_format(moment, 'H:i')}"


def stop_asking(of: UUID) -> None:
    """Stops what an evaluator does of it for :func:`ask`, where that can be stopped."""
    evaluators().interrupt(f"run:{of}")


def ask(of: UUID, job: Job[T], person: Person | None = None, can_stop: bool = False) -> T:
    """Has an evaluator do a job that is of no sheet, with the shelf of a ``person``, if one is
    given.

    Errors: :class:`LineError` where it cannot be done, or not in time.
    """
    moment = timezone.localtime().replace(tzinfo=None)
    revision = 0 if person is None else person.shelf_revision
    state = State(
        f"{'run' if can_stop else 'file'}:{of}", 0, Settings(), moment, shelf_revision=revision
    )
    owner = None if person is None else person.pk
    result = done(state, job, lambda reached: NO_LINES, lambda: shelf_state(owner))
    if result is None:
        raise NOT_IN_TIME()
    return result


def done(
    state: State, job: Job[T], lines_since: asking.LinesSince, shelf_now: asking.ShelfNow
) -> T | None:
    """What an evaluator gives for a job.

    Errors: :class:`LineError` where it cannot be done, :class:`Busy` where no evaluator became
    free in time, :class:`Overtaken` where it is of no use any more.
    """
    try:
        result = asking.work(evaluators(), state, job, lines_since, shelf_now)
    except Slowed as error:
        raise SLOWED_DOWN(seconds=max(1, round(error.seconds))) from None
    if isinstance(result, RefusedJob):
        raise Problem(result.code, "{said}")(said=result.text)
    return result


def evaluators() -> asking.EvaluatorBackend:
    """The evaluators."""
    return asking.evaluators(settings.TEAPOT_EVALUATORS)
