"""A procedure as plain data, and made of it again."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from teapot.engine.out.data import FORMAT
from teapot.engine.out.json_text import WrongData
from teapot.engine.out.reading import UNITS, are_draws
from teapot.engine.reading.forms import form_from
from teapot.engine.sheet.settings import CHOICES
from teapot.procedures.models import Procedure, ProcedureVersion, Run
from teapot.procedures.services import MOST_CHARACTERS, SET, outputs
from teapot.shelf.moments import moment_from

OF_RUN = {"replies": dict, "outcomes": list, "draws": list}
"""What a run has, and which kind of data that is."""


def procedure_data(procedure: Procedure) -> dict[str, Any]:
    """A procedure with all its versions."""
    return {
        "teapot": FORMAT,
        "kind": "procedure",
        "name": procedure.name,
        "versions": [
            {
                "id": str(version.pk),
                "made": version.made.isoformat(),
                "text": version.text,
                **{name: getattr(version, name) for name in (*SET, "units")},
            }
            for version in procedure.versions.order_by("made")
        ],
        "runs": [
            {
                "id": str(run.pk),
                "version": str(run.version_id),
                "made": run.made.isoformat(),
                **{name: getattr(run, name) for name in OF_RUN},
            }
            for run in Run.objects.filter(version__procedure=procedure).order_by("made")
        ],
    }


@dataclass(frozen=True, slots=True)
class Here:
    """What the versions and the runs of a procedure are here, by what they were there."""

    versions: dict[str, str]
    runs: dict[str, Run]


def procedure_from(data: Mapping[str, Any], procedure: Procedure) -> Here:
    """Gives an empty procedure, which has its name and owner, the versions and runs that stand
    in such data, and keeps it.
    Errors: :class:`KeyError`, :class:`ValueError`, :class:`TypeError`, :class:`LineError` for
    other data."""
    procedure.save()
    found: dict[str, str] = {}
    if not data["versions"]:
        raise WrongData("a procedure has no version")
    for told in data["versions"]:
        version = ProcedureVersion(procedure=procedure, text=str(told["text"])[:MOST_CHARACTERS])
        for name in SET:
            setattr(version, name, _setting(name, told[name]))
        version.units = _setting("units", told.get("units", "names"))
        version.save()
        when = moment_from(told["made"])
        ProcedureVersion.objects.filter(pk=version.pk).update(made=when)
        found[str(told["id"])] = str(version.pk)
    runs = {str(told["id"]): _run(told, found) for told in data.get("runs", ())}
    return Here(found, runs)


def _run(told: Mapping[str, Any], versions: Mapping[str, str]) -> Run:
    run = Run(version_id=versions[told["version"]])
    for name, kind in OF_RUN.items():
        if not isinstance(told[name], kind):
            raise WrongData(f"the {name} of a run are not as they should be")
        setattr(run, name, told[name])
    outputs(run.outcomes)  # what is shown of it has to be there
    texts = [*run.replies.values(), *(one["input"] for one in run.outcomes)]
    if not all(isinstance(text, str) for text in texts) or not all(map(are_draws, run.draws)):
        raise WrongData("a run is not as it should be")
    run.save()
    Run.objects.filter(pk=run.pk).update(made=moment_from(told["made"]))
    return run


def _setting(name: str, value: object) -> str:
    if name == "form":
        form_from(str(value))
    elif value not in (UNITS if name == "units" else CHOICES[name]):
        raise WrongData(f"{name} cannot be {value!s:.20}")
    return str(value)
