"""Files that come in, whatever they are: each goes where its kind is brought in."""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import PurePath
from typing import Any

from django.core.files.uploadedfile import UploadedFile
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.console import bringing
from teapot.console.views.out import bring_in_sheet
from teapot.engine.errors import LineError, Problem
from teapot.procedures import services
from teapot.procedures.data import procedure_from
from teapot.procedures.models import Procedure
from teapot.records.data import record_from
from teapot.records.models import Record
from teapot.shelf import importing, pending_import, things
from teapot.shelf.arriving import KINDS, LOOKED_AT, kind_of
from teapot.shelf.everything_in import WRONG_DATA, clashes_in
from teapot.shelf.models import Arrival
from teapot.shelf.views import tables

NOT_ONE = Problem("not-one", "This file cannot be read as a {kind}: {why}.")


@require_POST
def arrive(request: HttpRequest) -> HttpResponse:
    """Brings a file in, as what it is or ``as`` what is said."""
    file = request.FILES.get("file")
    if file is None:
        return _not_brought(request, "A file is wanted.")
    head = file.read(LOOKED_AT)
    file.seek(0)
    said = request.POST.get("as", "")
    kind = said if said in KINDS else kind_of(file.name or "", head)
    if kind == "table":
        return tables.bring_in(request)
    person = known_person(request) or new_guest(request)
    if kind == "sheet":
        return bring_in_sheet(request, person, file)
    if kind == "everything":
        return _everything(request, person, file)
    try:
        return redirect((_procedure if kind == "procedure" else _record)(person, file))
    except LineError as error:
        return _not_brought(request, error.text)


def _not_brought(request: HttpRequest, why: str) -> HttpResponse:
    return render(request, "console/not_brought.html", {"error": why}, status=400)


def _name_of(file: UploadedFile) -> str:
    return PurePath(file.name or "").stem.replace("_", " ")


def _data_in(file: UploadedFile, kind: str) -> dict[str, Any] | None:
    """The data of a JSON file of that kind; None where it is no JSON."""
    text = file.read(bringing.MOST_BYTES + 1)
    file.seek(0)
    if len(text) > bringing.MOST_BYTES:
        raise NOT_ONE(kind=kind, why=f"it has more than {bringing.MOST_BYTES // 1024**2} megabytes")
    if text.lstrip()[:1] != b"{":
        return None
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise NOT_ONE(kind=kind, why=f"its JSON ends or breaks ({str(error)[:80]})") from None
    if data.get("kind") != kind:
        raise NOT_ONE(kind=kind, why="its JSON is of another kind")
    return dict(data)


def _procedure(person: Person, file: UploadedFile) -> Procedure:
    data = _data_in(file, "procedure")
    if data is None:  # lines
        text = file.read(bringing.MOST_BYTES + 1)
        document = bringing.document_in(text, file.name or "procedure")
        lines = "\n".join(line.text for line in document.lines)
        return services.make(person, _name_of(file) or document.title, lines)
    return _made(Procedure(owner=person), "procedure", data, procedure_from)


def _record(person: Person, file: UploadedFile) -> Record:
    data = _data_in(file, "record")
    if data is None:
        raise NOT_ONE(kind="record", why="a record comes in as JSON")
    return _made(Record(owner=person), "record", data, record_from)


def _made(thing: Any, kind: str, data: dict[str, Any], fill: Callable[[Any, Any], object]) -> Any:
    try:
        with transaction.atomic():
            thing.name = things.untaken(thing, things.cleaned(str(data["name"])))
            fill(data, thing)
            things.say_changed(thing.owner_id)
    except (*WRONG_DATA, IntegrityError) as error:
        raise NOT_ONE(kind=kind, why=f"something in it is wrong ({str(error)[:80]})") from None
    return thing


# -- everything -------------------------------------------------------------------------------


def _everything(request: HttpRequest, person: Person, file: UploadedFile) -> HttpResponse:
    pending_import.hold(person, file.chunks())
    try:
        with pending_import.held(person).open("rb") as packed:
            clashes = clashes_in(person, packed)
    except LineError as error:
        pending_import.forget(person)
        return _not_brought(request, error.text)
    if clashes:
        return render(request, "shelf/clashes.html", {"clashes": clashes})
    return _begun(request, person, {})


@require_POST
def settle(request: HttpRequest) -> HttpResponse:
    """Brings in the zip that waits, with what was chosen for each name that is taken."""
    person = known_person(request)
    if person is None or not pending_import.held(person).exists():
        return _not_brought(request, "No file waits any more. Bring it in again.")
    paths, choices = request.POST.getlist("path"), request.POST.getlist("choice")
    return _begun(request, person, dict(zip(paths, choices, strict=False)))


def _begun(request: HttpRequest, person: Person, choices: dict[str, str]) -> HttpResponse:
    return _shown(request, importing.begin(person, choices))


@require_safe
def arrival(request: HttpRequest) -> HttpResponse:
    """How far a zip is that comes in, and what came of it."""
    person = known_person(request)
    return _shown(request, None if person is None else importing.at_hand(person))


def _shown(request: HttpRequest, found: Arrival | None) -> HttpResponse:
    if found is None:
        raise Http404
    if found.outcome is None and request.method == "POST":
        return redirect("arrival")
    if found.outcome is None:
        return render(request, "shelf/on_its_way.html", {"arrival": found})
    if "error" in found.outcome:
        return _not_brought(request, found.outcome["error"])
    return render(request, "shelf/brought.html", {"brought": found.outcome})


@require_POST
def stop(request: HttpRequest) -> HttpResponse:
    """Has a zip not come in that is on its way."""
    person = known_person(request)
    if person is not None:
        importing.stop(person)
    return redirect("arrival")
