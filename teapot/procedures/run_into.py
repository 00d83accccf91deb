"""Running a procedure into a sheet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from uuid import UUID, uuid5

from django.db import transaction

from teapot.console import evaluating
from teapot.console.changes import commit
from teapot.console.models import Sheet
from teapot.console.queries import foot_of
from teapot.console.services import line_of, until_written
from teapot.engine.sentences.work import NOT_IN_TIME
from teapot.engine.sheet.line import NewLine
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence import jobs
from teapot.fence.procedure_jobs import LinesToRun
from teapot.procedures.models import Procedure, Run


def run_into(
    sheet: Sheet, procedure: Procedure, replies: Mapping[str, str], token: UUID
) -> int | KeptOutcome:
    """Puts the lines of a procedure into a sheet, at the foot and in one change; returns how
    many, or what its first line that cannot be kept answers: nothing is kept then.

    What was put in before under that ``token`` is not put in again.
    Errors: :class:`LineError` where there was no time for all of them.
    """
    version = procedure.newest
    of_engine = version.for_engine
    job = LinesToRun(procedure=of_engine, replies=tuple(sorted(replies.items())))
    texts = evaluating.work_or_raise(sheet, job)
    conventions = version.conventions

    def attempt() -> int | KeptOutcome | None:
        if not texts or sheet.lines.filter(token=token).exists():
            return len(texts)
        foot = foot_of(sheet)
        new = [
            NewLine(foot.number + at, text, foot.place + at, replies)
            for at, (text, replies) in enumerate(texts, 1)
        ]
        last = foot.last
        job = jobs.WriteAnswers(lines=new, last=last, conventions=conventions)
        outcomes = evaluating.work_or_raise(sheet, job)
        if outcomes and not outcomes[-1].is_kept:
            return outcomes[-1]
        if len(outcomes) < len(new):
            raise NOT_IN_TIME()
        run = Run(version=version, replies=dict(replies))
        run.outcomes = [asdict(outcome) for outcome in outcomes]
        run.draws = [outcome.draws for outcome in outcomes]
        lines = []
        for at, (one, outcome) in enumerate(zip(new, outcomes, strict=True)):
            line = line_of(sheet, one, uuid5(token, str(at)) if at else token, last, conventions)
            line.take(outcome, sheet.revision + 1)
            line.run = run
            lines.append(line)
            last = one.number if outcome.answers else last
        with transaction.atomic():
            run.save()
            written = commit(sheet, f"run of {procedure.name}"[:80], lines)
            if not written:
                transaction.set_rollback(True)
        return len(lines) if written else None

    return until_written(sheet, attempt)
