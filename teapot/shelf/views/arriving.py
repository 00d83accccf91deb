"""Files that come in, whatever they are: each goes where its kind is brought in."""

from __future__ import annotations

from django.core.files.uploadedfile import UploadedFile
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.engine.errors import LineError
from teapot.shelf import importing, pending_import
from teapot.shelf.arriving import EVERYTHING, LOOKED_AT, kind_of
from teapot.shelf.everything_in import clashes_in
from teapot.shelf.kinds import KINDS
from teapot.shelf.models import Arrival


@require_POST
def arrive(request: HttpRequest) -> HttpResponse:
    """Brings a file in, as what it is or ``as`` what is said."""
    file = request.FILES.get("file")
    if file is None:
        return _not_brought(request, "A file is wanted.")
    head = file.read(LOOKED_AT)
    file.seek(0)
    said = request.POST.get("as", "")
    known = (*KINDS, EVERYTHING)
    kind = said if said in known else kind_of(file.name or "", head)
    if kind == EVERYTHING:
        return _everything(request, known_person(request) or new_guest(request), file)
    try:
        return KINDS[kind].arrive(request, file)
    except LineError as error:
        return _not_brought(request, error.text)


def _not_brought(request: HttpRequest, why: str) -> HttpResponse:
    return render(request, "console/not_brought.html", {"error": why}, status=400)


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
        return _not_brought(request, "This file is no longer waiting. Please open it again.")
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
