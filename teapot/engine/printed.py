"""An outcome as the command line prints it: for people, or as JSON."""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence

from teapot.engine.errors import Asks
from teapot.engine.handbook.entries import BY_TYPED, as_text
from teapot.engine.handbook.search import search
from teapot.engine.limits import MAX_PRINTED
from teapot.engine.sheet.outcome import NOTE, Outcome
from teapot.engine.sheet.workings import WorkStep


def as_json(
    outcome: Outcome, steps: Sequence[WorkStep] = (), latex: bool = False, whole: bool = False
) -> str:
    """One object in one row; of very long lists and tables what the page shows, unless they are
    wanted ``whole``."""
    data = outcome.as_dict(MAX_PRINTED if not whole else None)
    data |= {"steps": [step.as_dict() for step in steps]}
    if latex:
        for shown, answer in zip(data["answers"], outcome.answers, strict=True):
            shown["latex"] = answer.latex
    return json.dumps(data, ensure_ascii=False)


def as_rows(
    outcome: Outcome, steps: Sequence[WorkStep] = (), latex: bool = False, whole: bool = False
) -> str:
    """Plain text, a row for each thing that is said; of long lists and tables what the page
    shows, unless they are wanted ``whole``."""
    return "\n".join(_rows(outcome, steps, latex, whole))


def _looked_up(command: str, words: str) -> list[str]:
    """What the handbook says: the entry of a name, or a line for each that is found."""
    if command == "help" and words in BY_TYPED:
        return as_text(BY_TYPED[words]).split("\n")
    return [f"{entry.pattern}  {entry.summary}" for entry in search(words)]


def _rows(outcome: Outcome, steps: Sequence[WorkStep], latex: bool, whole: bool) -> Iterable[str]:
    yield f"{outcome.number:>4}  {outcome.input}"
    if outcome.status == NOTE:
        return
    if isinstance(outcome.error, Asks):
        yield f"      asks: {outcome.error.text}"
        return
    if outcome.error is not None:
        data = outcome.as_dict()["error"]
        yield f"      {data['text']}"
        yield from (f"      perhaps: {mend['input']}" for mend in data["mends"])
        return
    if outcome.command and outcome.command[0] in ("help", "find"):
        yield from (f"      {line}" for line in _looked_up(*outcome.command))
    for step in steps:
        yield f"        {step.input} {step.sign} {step.text}"
    if not outcome.quiet:
        for answer in outcome.answers:
            text = answer.text_up_to(None if whole else 0)
            shown = "" if answer.says_itself else f" {answer.sign} {text}"
            shown += f" ≈ {answer.nearly}" if answer.nearly else ""
            shown += f"  (angles in {answer.unit})" if answer.unit else ""
            yield f"      {answer.reading}{shown}"
            yield from (f"        {also}" for also in answer.also)
            if latex:
                yield f"        {answer.latex}"
    for notice in outcome.notices:
        yield f"      ({notice.text})"
