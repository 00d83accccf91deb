"""The sheet page and its fragments.  Each view reads the request, asks
:mod:`console.keeping`, and renders a template."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBadRequest
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from accounts.guests import known_person, new_guest
from console import keeping
from console.models import Line, Sheet
from console.samples import copy_samples
from console.showing import Shown, entry_parts

SCREEN = 60
"""Lines that are sent at once; earlier ones follow as they are scrolled to."""


@require_GET
def home(request: HttpRequest) -> HttpResponse:
    """Opens the sheet that was opened last; makes one at the first visit."""
    person = known_person(request) or new_guest(request)
    sheet = person.sheets.first() or copy_samples(person) or person.sheets.create()
    return redirect("sheet", sheet.pk)


@require_POST
def new_sheet(request: HttpRequest) -> HttpResponse:
    """Makes an empty sheet and opens it."""
    person = known_person(request) or new_guest(request)
    return redirect("sheet", person.sheets.create().pk)


@require_GET
def sheet(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The sheet page with the last screen of lines."""
    sheet = _own_sheet(request, pk)
    Sheet.objects.filter(pk=pk).update(opened=timezone.now())
    context = {
        "sheet": sheet,
        "sheets": sheet.owner.sheets.all()[:30],
        "up_to_date": sheet.quantities_at == sheet.revision,
        **_screen(sheet.lines.all()),
        **_grouped(sheet.quantities),
    }
    return render(request, "console/sheet.html", context)


@require_POST
def title(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Renames the sheet."""
    sheet = _own_sheet(request, pk)
    wanted = " ".join(request.POST.get("title", "").split())[:120]
    if wanted:
        Sheet.objects.filter(pk=pk).update(title=wanted)
        sheet.title = wanted
    return render(request, "console/title.html", {"sheet": sheet})


@require_POST
def preview(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The reading and the value of what is being typed."""
    sheet = _own_sheet(request, pk)
    text = request.POST.get("text", "")
    outcome = keeping.preview(sheet, text) if text.strip() else None
    return render(request, "console/preview.html", {"outcome": outcome})


@require_http_methods(["GET", "POST"])
def lines(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Keeps a line (POST), and gives the lines that came after ``since``.

    Where a line cannot be answered, the header X-Refused says so and the error is given.
    """
    sheet = _own_sheet(request, pk)
    data = request.POST if request.method == "POST" else request.GET
    try:
        since = int(data.get("since", ""))
    except ValueError:
        return HttpResponseBadRequest("since is the number of a revision")
    if request.method == "POST":
        text = data.get("text", "")
        try:
            token = UUID(data.get("token", ""))
        except ValueError:
            return HttpResponseBadRequest("token is a UUID")
        if not text.strip():
            return HttpResponseBadRequest("the line is empty")
        try:
            kept = keeping.keep(sheet, text, token)
        except keeping.Crowded:
            return HttpResponse("Other windows are writing to this sheet.", status=503)
        if kept.line is None:
            return _refused(request, kept.outcome)
    sheet.refresh_from_db()
    new = sheet.lines.filter(revision__gt=since, revision__lte=sheet.revision)
    if request.method == "GET" and sheet.revision == since:
        return HttpResponse(status=204)
    context = {
        "sheet": sheet,
        "lines": [Shown(line) for line in new],
        **_grouped(keeping.quantities(sheet)),
    }
    response = render(request, "console/new_lines.html", context)
    response["X-Revision"] = str(sheet.revision)
    return response


def _refused(request: HttpRequest, outcome: dict[str, Any]) -> HttpResponse:
    context = {"outcome": outcome, "parts": entry_parts(outcome)}
    response = render(request, "console/refused.html", context)
    response["X-Refused"] = outcome["status"]
    return response


@require_GET
def earlier(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The screen of lines before the line ``before``."""
    sheet = _own_sheet(request, pk)
    before = get_object_or_404(sheet.lines, number=_whole(request.GET.get("before")))
    context = {"sheet": sheet, **_screen(sheet.lines.filter(place__lt=before.place))}
    return render(request, "console/lines.html", context)


@require_GET
def quantities(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The list of quantities."""
    sheet = _own_sheet(request, pk)
    context = {"sheet": sheet, "up_to_date": True, **_grouped(keeping.quantities(sheet))}
    return render(request, "console/quantities.html", context)


def _own_sheet(request: HttpRequest, pk: UUID) -> Sheet:
    """The sheet, if it is this person's; else it does not exist for them."""
    person = known_person(request)
    if person is None:
        raise Http404
    return get_object_or_404(Sheet.objects.select_related("owner"), pk=pk, owner=person)


def _whole(text: str | None) -> int:
    if not (text or "").isdecimal():
        raise Http404
    return int(text)


def _screen(lines: Any) -> dict[str, Any]:
    """The last lines of a query, and whether there are earlier ones."""
    last: list[Line] = list(lines.order_by("-place")[: SCREEN + 1])
    return {
        "lines": [Shown(line) for line in reversed(last[:SCREEN])],
        "has_earlier": len(last) > SCREEN,
    }


def _grouped(quantities: list[dict[str, Any]]) -> dict[str, Any]:
    return {
        "given": [quantity for quantity in quantities if not quantity["is_found"]],
        "found": [quantity for quantity in quantities if quantity["is_found"]],
    }
