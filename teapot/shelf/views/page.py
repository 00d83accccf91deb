"""The page of the shelf: all that a person keeps, in folders, and what is done with it."""

from __future__ import annotations

from tempfile import TemporaryFile
from typing import Any
from uuid import UUID

from django.http import FileResponse, Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe
from django_htmx.http import HttpResponseClientRedirect

from teapot.accounts.guests import known_person, own_or_404, person_key
from teapot.accounts.models import Person
from teapot.engine.errors import LineError
from teapot.shelf import things
from teapot.shelf.copies import copied
from teapot.shelf.everything import write_zip
from teapot.shelf.kinds import KINDS
from teapot.shelf.listing import ShelfName, in_folders, names_of, things_of
from teapot.shelf.saving import or_why_not
from teapot.shelf.search import search

SHOWN, SHOWN_FOUND = 200, 24
"""Things that are listed at once: of all, and of those that a search finds."""


@require_safe
def shelf(request: HttpRequest) -> HttpResponse:
    """The shelf, or what a search finds on it.  Opening it forgets what was in the bin for
    long."""
    person = known_person(request)
    if person is not None and not request.htmx:
        things.empty_bin(tuple(kind.model for kind in KINDS.values()), person)
    return _list(request, **_just_binned(request))


def _just_binned(request: HttpRequest) -> dict[str, Any]:
    """What is said of a thing that was deleted on its own page, and the way to get it back."""
    kind, _, key = request.GET.get("binned", "").partition("/")
    if kind not in KINDS:
        return {}
    own = KINDS[kind].model.objects.filter(owner__pk=person_key(request), binned__isnull=False)
    try:
        thing = own.filter(pk=UUID(key)).first()
    except ValueError:
        return {}
    if thing is None:
        return {}
    undo = {"kind": kind, "pk": thing.pk}
    return {"said": f"{thing.name_shown} is in the bin.", "undo": undo}


def _list(request: HttpRequest, said: str = "", error: str = "", undo: Any = None) -> HttpResponse:
    person = known_person(request)
    words = (request.GET.get("q") or request.POST.get("q") or "")[:200]
    in_bin = (request.GET.get("bin") or request.POST.get("bin")) == "1"
    found = []
    if person is not None:
        found = search(person, words) if words and not in_bin else things_of(person, in_bin)
    most = SHOWN_FOUND if words else SHOWN
    if request.GET.get("all") == "1":
        most = len(found)
    context = {
        "folders": in_folders(found[:most]),
        "folder_names": sorted({one.folder for one in found if one.folder}),
        "found": len(found),
        "left": max(0, len(found) - most),
        "words": words,
        "in_bin": in_bin,
        "said": said,
        "error": error,
        "undo": undo,
    }
    template = "shelf/list.html" if request.htmx else "shelf/shelf.html"
    return render(request, template, context)


def _own(request: HttpRequest, kind: str, pk: UUID) -> Any:
    if kind not in KINDS:
        raise Http404
    return own_or_404(request, KINDS[kind].model.objects.all(), pk)


@require_POST
def change(request: HttpRequest, kind: str, pk: UUID, act: str) -> HttpResponse:
    """Renames, moves, copies a thing, puts it into the bin or takes it out."""
    thing = _own(request, kind, pk)
    value, undo = request.POST.get("value", ""), None
    before = thing.name_shown
    is_at_heading, heading = request.POST.get("where") == "heading", {"kind": kind, "thing": thing}
    try:
        if act == "rename":
            things.rename(thing, value)
            said = f"{before} is {thing.name_shown} now."
        elif act == "move":
            things.move(thing, value)
            said = f"{before} is in {thing.folder or 'no folder'} now."
        elif act == "copy":
            made = copied(thing)
            said = (
                f"{made.name_shown} is a copy of {before}."
                if made
                else f"{before} cannot be copied."
            )
        elif act == "bin":
            KINDS[kind].before_bin(thing)
            things.put_into_bin(thing)
            said, undo = f"{before} is in the bin.", {"kind": kind, "pk": thing.pk}
        elif act == "bring-back":
            things.bring_back(thing)
            said = f"{before} is back."
        else:
            raise Http404
    except LineError as error:
        if is_at_heading:
            return render(request, "shelf/heading.html", {**heading, "error": error.text})
        return _list(request, error=error.text)
    if is_at_heading:
        return render(request, "shelf/heading.html", heading)
    if request.POST.get("where") == "menu":
        return HttpResponseClientRedirect(f"{reverse('shelf')}?binned={kind}/{pk}")
    return _list(request, said, undo=undo)


@require_POST
def opened(request: HttpRequest, kind: str, pk: UUID) -> HttpResponse:
    """Notes that the page of a thing was opened: reading it alone takes no lock of writers."""
    if kind not in KINDS:
        raise Http404
    own = KINDS[kind].model.objects.filter(pk=pk, owner__pk=person_key(request))
    own.update(opened=timezone.now())
    return HttpResponse(status=204)


@require_safe
def everything(request: HttpRequest) -> HttpResponse:
    """All that the person keeps, as one zip."""
    person = known_person(request)
    if person is None:
        raise Http404
    return or_why_not(lambda: _zip_of(person))


def _zip_of(person: Person) -> FileResponse:
    file = TemporaryFile()  # noqa: SIM115 - it is closed when it is sent
    try:
        write_zip(person, file)
    except BaseException:
        file.close()
        raise
    file.seek(0)
    return FileResponse(file, as_attachment=True, filename="everything of mine.zip")


@require_safe
def names(request: HttpRequest) -> JsonResponse:
    """The names of all that can be gone to, what was opened last first."""
    person = known_person(request)
    found = [] if person is None else names_of(person)
    return JsonResponse({"things": [_told(one) for one in found]})


def _told(one: ShelfName) -> dict[str, str]:
    address = f"/{one.kind}s/{one.pk}"
    return {"kind": one.kind, "name": one.name, "folder": one.folder, "address": address}
