"""What is done with procedures: made, written, run, brought back to an earlier version."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import asdict
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, transaction

from teapot.accounts.models import Person
from teapot.engine.errors import LineError
from teapot.engine.numbers import shelf
from teapot.engine.reading.tokens import split_note
from teapot.engine.reading.units import unit_from
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence.procedure_jobs import Ran
from teapot.procedures.models import Procedure, ProcedureVersion, Run
from teapot.shelf import things

UNTITLED = "new procedure"
MOST_CHARACTERS = 50_000
MOST_TRIES = 5
MOST_RUNS = 50
"""Runs of a procedure that are kept; the oldest go first."""

SET = ("angle", "log", "numbers", "form")
"""What is set for the lines of a procedure."""

_GIVEN = re.compile(r"\s*([^\W\d]\w*)\s*=\s*([^=].*?)\s*")


def make(
    person: Person, name: str = UNTITLED, text: str = "", like: Any = None, folder: str = ""
) -> Procedure:
    """A new procedure, under the name or one near it; what is set is as for ``like``."""
    made = Procedure(owner=person, folder=folder)
    for _ in range(MOST_TRIES):
        made.name = made.untaken(things.cleaned(name))
        with suppress(IntegrityError), transaction.atomic():  # another window may be faster
            made.save(force_insert=True)
            _version(made, text[:MOST_CHARACTERS], like).save()
            things.say_changed(person.pk)
            return made
    raise things.NameInUse(kind="procedure", name=name)


def _version(procedure: Procedure, text: str, like: Any) -> ProcedureVersion:
    version = ProcedureVersion(procedure=procedure, text=text)
    if like is not None:
        for field in SET:
            setattr(version, field, getattr(like, field))
    return version


def write(procedure: Procedure, text: str, settings: Mapping[str, str] | None = None) -> bool:
    """Makes ``text`` the newest version, unless it is that already; earlier ones stay.
    Returns whether there is a new one: what used the one before is out of date then."""
    text = text.replace("\r\n", "\n")[:MOST_CHARACTERS]
    newest = procedure.newest
    chosen = {name: (settings or {}).get(name, getattr(newest, name)) for name in SET}
    if text == newest.text and all(getattr(newest, name) == chosen[name] for name in SET):
        return False
    version = ProcedureVersion(procedure=procedure, text=text, **chosen)
    with transaction.atomic():
        version.save()
        things.say_changed(procedure.owner_id)
    return True


def as_typed(procedure: Procedure, text: str) -> shelf.ProcedureText:
    """The procedure with a text that is not kept."""
    newest = procedure.newest
    newest.text = text[:MOST_CHARACTERS]
    return newest.for_engine


def as_questions(lines: Sequence[str]) -> str:
    """Lines of a sheet with the values that are given turned into questions: ``m = 1.2  # mass``
    becomes ``m = ask("mass", 1.2)``."""
    rows = []
    for line in lines:
        body, note = split_note(line)
        found = _GIVEN.fullmatch(body)
        if found and _is_given(found[2]):
            question = re.sub(r'["{}]', "", note.strip().lstrip("#").strip()) or found[1]
            rows.append(f'{found[1]} = ask("{question}", {found[2]})')
        else:
            rows.append(line)
    return "\n".join(rows)


_MEASURE = re.compile(
    r"\(?[-+−]?\d[\d.,_]*(?:[eE][-+]?\d+|\s*[×*]\s*10\^[-−]?\d+)?"
    r"(?:\s*(?:±|\+/-)\s*[\d.]+(?:[eE][-+]?\d+)?)?\)?\s*(?P<unit>[^\W\d_%].*|[%°Ω].*)"
)
"""A number with its unit, measured or not."""


def _is_given(value: str) -> bool:
    """Whether a value was typed in, and computed from nothing."""
    found = _MEASURE.fullmatch(value)
    if found is not None and ";" not in value:
        with suppress(LineError):
            if unit_from(found["unit"]) is not None:
                return True
    names = re.findall(r"[^\W\d]\w*", re.sub(r'"[^"]*"', "", value))
    return not set(names) - UNITS and ";" not in value and bool(re.search(r"[\d\"]", value))


UNITS = {"deg", "rad", "gon", "turn", "e", "E", "pi", "i", "by"}
"""Words that may stand in a value that is typed in."""


def keep_run(procedure: Procedure, replies: Mapping[str, str], ran: Ran) -> Run:
    """Writes a run down; the oldest are forgotten."""
    outcomes = [asdict(outcome) for outcome in ran.outcomes]
    made = Run.objects.create(
        version=procedure.newest, replies=dict(replies), outcomes=outcomes, draws=ran.draws
    )
    old = Run.objects.filter(version__procedure=procedure, lines=None).order_by("-made")
    Run.objects.filter(pk__in=[run.pk for run in old[MOST_RUNS:]]).delete()
    return made


def outputs(outcomes: Sequence[KeptOutcome] | Sequence[dict[str, Any]]) -> dict[str, str]:
    """What a run gave, by the names of its quantities, and its sentences."""
    found: dict[str, str] = {}
    for outcome in outcomes:
        data = outcome if isinstance(outcome, dict) else asdict(outcome)
        for answer in data["answers"]:
            if answer["kind"] in ("function", "table", "list") and not answer["name"]:
                continue
            name = answer["name"] or ("" if answer["kind"] == "text" else answer["reading"])
            text = answer["nearly"] or answer["text"]
            found[name or "it says"] = text.strip('"') if answer["kind"] == "text" else text
    return found


def copy_of_procedure(procedure: Procedure, person: Person | None = None) -> Procedure:
    """Its newest version, for its owner or for another ``person``."""
    made = Procedure(owner=person or procedure.owner)
    if person is None:
        made.folder = procedure.folder
    made.name = made.untaken(procedure.name if person else f"{procedure.name} copy")
    made.save()
    copy_of_version(procedure.newest, made)
    return made


def copy_of_version(version: ProcedureVersion, procedure: Procedure) -> None:
    """Makes a version once more, the newest one of another procedure; it is that from then on."""
    version.pk, version.procedure = uuid4(), procedure
    version._state.adding = True
    version.save()
