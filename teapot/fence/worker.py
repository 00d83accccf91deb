"""Inside an evaluator: sheets kept in memory, on which jobs are done.

A sheet here is a cache: it can be lost at any time and is made again from the
lines that the caller sends.
"""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, replace
from datetime import datetime
from typing import TypeVar

from teapot.engine import FullSheet, LineError, Settings
from teapot.engine.files.shelf import File, shelf_of
from teapot.engine.limited.bounds import (
    TimeIsUp,
    time_limit,
    too_much_memory,
    too_slow,
)
from teapot.engine.limited.envelope import Envelope
from teapot.engine.numbers.shelf import ProcedureText, Shelf
from teapot.engine.pickling import compactly_pickled
from teapot.fence.jobs import BeReady, ChangeJob, Job
from teapot.fence.lines import NOTHING_YET, SheetLine, SyncPosition
from teapot.fence.notes import AT_LIMIT, NEEDS_SYNC

T = TypeVar("T")

MAX_SHEETS, MAX_LINES = 1000, 120_000
"""Sheets that an evaluator keeps, and their lines in all; the one longest unused goes first.
With fewer than there are people at work each key would have a sheet read anew."""


@dataclass(frozen=True, slots=True)
class ShelfState:
    """The tables and procedures on a person's shelf: the newest version by name, the file or
    the text of each version, when those that are not the newest were replaced, the names of
    those in the bin, and what is called otherwise now."""

    versions: tuple[tuple[str, str], ...] = ()
    files: tuple[tuple[str, File], ...] = ()
    replaced: tuple[tuple[str, str], ...] = ()
    procedures: tuple[tuple[str, str], ...] = ()
    texts: tuple[tuple[str, ProcedureText], ...] = ()
    binned: tuple[str, ...] = ()
    renamed: tuple[tuple[str, str], ...] = ()


@compactly_pickled
@dataclass(frozen=True, slots=True)
class State:
    """Which sheet is meant, at which of its revisions, and how to get there.

    ``lines`` are None where the caller believes that the evaluator is up to date.  They follow
    on what was ``reached``; where ``upto`` is not None they are those up to that number.
    ``shelf_revision`` is that of the person's shelf, 0 where none is needed; ``shelf`` is sent
    as the lines are.  ``moment`` is the time of where the person is.  ``head`` is the key of
    the change that led to the revision.
    """

    sheet: str
    revision: int
    settings: Settings
    moment: datetime
    reached: SyncPosition = NOTHING_YET
    lines: tuple[SheetLine, ...] | None = None
    shelf_revision: int = 0
    shelf: ShelfState | None = None
    head: str = ""
    upto: int | None = None


@dataclass(frozen=True, slots=True)
class RefusedJob:
    """The reply to a job that what was typed does not allow."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class NeedsSync:
    """The reply of an evaluator that has ``reached`` less of the sheet, or another shelf."""

    reached: SyncPosition
    lacks_shelf: bool = False


@dataclass(slots=True)
class CachedSheet:
    """A sheet in memory, how far it is read, and the revision of its shelf, with the ``head``
    of the change that led to it.  ``before`` is set where that change is not known to be kept:
    the revision and the head that it was made on."""

    sheet: FullSheet
    reached: SyncPosition = NOTHING_YET
    shelf_revision: int = 0
    head: str = ""
    before: tuple[int, str] | None = None

    @property
    def revision(self) -> int:
        """The revision at which it is; 0 where it is not read yet."""
        return self.reached.revision


LIMITS = frozenset({too_slow(0).code, too_much_memory().code})


def noted(state: State, job: Job[T]) -> Envelope:
    """As :func:`work`, with what is to be known of the result without reading it."""
    result = work(state, job)
    if isinstance(result, NeedsSync | None) and (result or isinstance(job, BeReady)):
        return Envelope(NEEDS_SYNC, result)  # more comes
    entered = result if isinstance(result, list) else (result,)
    return Envelope(AT_LIMIT if any(map(_is_at_limit, entered)) else "", result)


def _is_at_limit(result: object) -> bool:
    """Whether it is, or holds, the outcome of a line that ran into a limit."""
    outcome = getattr(result, "outcome", result)
    error = getattr(outcome, "error", None)
    return error is not None and error.code in LIMITS


_sheets: OrderedDict[str, CachedSheet] = OrderedDict()


def work(state: State, job: Job[T]) -> T | NeedsSync | RefusedJob | None:
    """Does the job on the sheet in that state; :class:`NeedsSync` where lines are missing."""
    known = _known_at(state, job.gives_way)
    if isinstance(known, NeedsSync):
        return known
    is_whole = False
    try:
        with time_limit(job.seconds):
            result = job.do(known.sheet)
        is_whole = True
    except TimeIsUp as up:
        return job.failed(up.error(job.seconds))
    except MemoryError:
        _sheets.clear()
        return job.failed(too_much_memory())
    except LineError as error:
        return RefusedJob(error.code, error.text)
    finally:
        if not is_whole and isinstance(job, ChangeJob):
            _sheets.pop(state.sheet, None)  # it may have been half done
    if isinstance(job, ChangeJob) and job.is_made(result):
        known.before = known.revision, known.head
        known.reached, known.head = SyncPosition(job.revision), job.head
    return result


def _shelf_of(state: ShelfState) -> Shelf:
    return shelf_of(
        dict(state.versions),
        dict(state.files),
        dict(state.replaced),
        dict(state.procedures),
        dict(state.texts),
        state.binned,
        dict(state.renamed),
    )


def _known_at(state: State, gives_way: bool) -> CachedSheet | NeedsSync:
    """The sheet as ``state`` says, or how far it is after.

    One that was changed here, and of which nobody has said yet that the change is kept, is good
    for what only ``gives_way``: else it is read anew.
    """
    known = _sheets.get(state.sheet)
    wanted = state.revision, state.head
    if known is not None:
        has = known.revision, known.head
        if has == wanted:
            known.before = None
        elif known.before is not None or known.revision == state.revision:
            if not (gives_way and known.before == wanted):
                known = None
            else:
                state = replace(state, revision=known.revision, head=known.head)
    if known is None:
        known = CachedSheet(FullSheet(state.settings))
    lacks_lines = known.revision != state.revision and (
        state.lines is None or state.reached != known.reached
    )
    lacks_shelf = known.shelf_revision != state.shelf_revision and state.shelf is None
    if lacks_lines or lacks_shelf:
        return NeedsSync(known.reached, lacks_shelf)
    sheet = known.sheet
    sheet.set_settings(state.settings)
    moment = state.moment  # alone: the sheet shall not hold the lines of its state
    sheet.now = lambda: moment
    if known.shelf_revision != state.shelf_revision and state.shelf is not None:
        sheet.set_shelf(_shelf_of(state.shelf))
        known.shelf_revision = state.shelf_revision
    has_grown = known.revision != state.revision or state.sheet not in _sheets
    if known.revision != state.revision:
        _take_lines(sheet, state.lines or ())
        known.reached = _reached_with(state)
    if known.revision == state.revision:
        known.head = state.head
    _sheets[state.sheet] = known
    _sheets.move_to_end(state.sheet)
    if has_grown:
        _forget_some()
    return known if known.revision == state.revision else NeedsSync(known.reached)


def _reached_with(state: State) -> SyncPosition:
    """How far a sheet is read that has taken up the lines of ``state``."""
    target = state.reached.target or state.revision
    if state.upto is not None:
        return SyncPosition(0, state.upto, target)
    return SyncPosition(target)


def _forget_some() -> None:
    lines = sum(len(known.sheet.lines) for known in _sheets.values())
    while len(_sheets) > 1 and (len(_sheets) > MAX_SHEETS or lines > MAX_LINES):
        _, known = _sheets.popitem(last=False)
        lines -= len(known.sheet.lines)


def _take_lines(sheet: FullSheet, lines: tuple[SheetLine, ...]) -> None:
    """Brings a sheet up to date."""
    for line in lines:
        line.put_into(sheet)
