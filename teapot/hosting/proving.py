"""Whether the lines that are kept answer as they did, as after a backup was brought back."""

from __future__ import annotations

import time
from dataclasses import dataclass, field

from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.fence import jobs
from teapot.fence.turns import EvaluatorsBusy

PAUSE = 0.2
"""Seconds before a busy evaluator is asked again."""


@dataclass(frozen=True, slots=True)
class Otherwise:
    """A line of a sheet whose answers ``was``, and what they are now."""

    sheet: str
    number: int
    was: str
    now: str


@dataclass(slots=True)
class Proof:
    """How many lines were answered anew, and those that answer otherwise."""

    count: int = 0
    otherwise: list[Otherwise] = field(default_factory=list)


def answered_otherwise() -> Proof:
    """Answers all lines of all sheets anew.  Lines that change with the clock are left out, and
    those whose answers were to be made again in any case."""
    proof = Proof()
    for sheet in Sheet.objects.select_related("owner").order_by("pk"):
        lines = list(sheet.lines.present().filter(stale=False, is_live=False).order_by("place"))
        for start in range(0, len(lines), evaluating.AT_ONCE):
            _compare(sheet, lines[start : start + evaluating.AT_ONCE], proof)
    return proof


def _compare(sheet: Sheet, lines: list[Line], proof: Proof) -> None:
    """Asks again for lines that there was no time for, as long as others are answered."""
    while lines:
        try:
            outcomes = evaluating.work(
                sheet, jobs.WorkOutcomes(numbers=[one.number for one in lines])
            )
        except EvaluatorsBusy:  # others are served meanwhile, or a large sheet is still being read
            time.sleep(PAUSE)
            continue
        answered = [one for one in lines if outcomes and one.number in outcomes]
        for line in answered:
            was = evaluating.answer_texts(line)
            line.take(outcomes[line.number], sheet.revision)
            now = evaluating.answer_texts(line)
            if was != now:
                proof.otherwise.append(
                    Otherwise(sheet.title, line.number, "; ".join(was), "; ".join(now))
                )
        proof.count += len(answered)
        lines = [one for one in lines if one not in answered]
        if not answered:  # the first of them takes too long by itself
            first = lines.pop(0)
            was = "; ".join(evaluating.answer_texts(first))
            proof.otherwise.append(Otherwise(sheet.title, first.number, was, "too slow"))
