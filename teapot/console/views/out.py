"""Sheets out and in: files to save, the page to print, files that are brought in."""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID

from django.core.files.uploadedfile import UploadedFile
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person
from teapot.console import bringing
from teapot.console.out import document_of
from teapot.console.views.replies import own_sheet
from teapot.engine.errors import LineError
from teapot.engine.out.document import Document
from teapot.shelf.saving import FORMATS, or_why_not, printed, saved_as

MOST_NUMBERS = 20_000
MOST_HELD = 1_000_000
"""Bytes of a file that is sent back to be brought in anyway."""


def _asked_for(request: HttpRequest, pk: UUID, latex: bool = False) -> Document:
    sheet = own_sheet(request, pk)
    numbers = [int(one) for one in request.GET.getlist("numbers")[:MOST_NUMBERS] if one.isdecimal()]
    who = request.GET.get("who", "")[:120]
    asked = request.GET.get
    made = document_of(sheet, numbers, who, latex, asked("workings") == "1")
    return replace(made, shows_typed=asked("typed") == "1")


@require_safe
def save(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A sheet, or some of its lines, as a file."""
    if ending not in FORMATS:
        raise Http404
    latex = FORMATS[ending].latex
    return or_why_not(lambda: saved_as(_asked_for(request, pk, latex), ending))


@require_safe
def to_print(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The page to be printed and handed in."""
    return or_why_not(lambda: printed(request, _asked_for(request, pk)))


@require_POST
def bring_in(request: HttpRequest) -> HttpResponse:
    """Makes a sheet of the lines of a file that can be answered: the others come in as notes."""
    person = known_person(request) or new_guest(request)
    held = request.POST.get("held", "")
    return _brought(request, person, held.encode(), request.POST.get("name", "sheet"), True)


def bring_in_sheet(request: HttpRequest, person: Person, file: UploadedFile) -> HttpResponse:
    """Makes a sheet of a file; where some of its lines cannot be answered it says which, and
    offers to bring in the others."""
    data = file.read(bringing.MOST_BYTES + 1)
    return _brought(request, person, data, file.name or "sheet")


def _brought(
    request: HttpRequest, person: Person, data: bytes, name: str, anyway: bool = False
) -> HttpResponse:
    try:
        document = bringing.document_in(data, name)
        brought = bringing.bring_in(person, document, anyway)
    except LineError as error:
        return render(request, "console/not_brought.html", {"error": error.text}, status=400)
    if brought.sheet is None:
        text = data.decode("utf-8-sig")
        held = text if len(data) <= MOST_HELD else ""
        context = {"wrong": brought.wrong, "held": held, "name": name}
        return render(request, "console/not_brought.html", context, status=400)
    return redirect(brought.sheet)
