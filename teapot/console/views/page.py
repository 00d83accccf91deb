"""The sheet page as a whole."""

from __future__ import annotations

from collections.abc import Callable
from urllib.parse import quote
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest, visit_at_hand
from teapot.accounts.room import room_for
from teapot.accounts.visits import Visit
from teapot.console import changes, services
from teapot.console.models import Sheet
from teapot.console.quick import token_for
from teapot.console.samples import has_samples
from teapot.console.tries import tries_for
from teapot.console.views.replies import (
    FURTHER,
    anew,
    line_ever,
    news,
    own_sheet,
    refused_with,
    run_of,
    screen_of,
    wanted_by,
    whole_number,
    with_event,
)
from teapot.engine.errors import LineError
from teapot.engine.reading.forms import SHAPES, STYLES, UNITS
from teapot.engine.sheet.settings import CHOICES
from teapot.fence.change_jobs import Wanted
from teapot.shelf.kinds import KINDS
from teapot.shelf.saving import FORMATS
from teapot.shelf.things import printable

SIGN_PAGES = ("()^*/=π√±,", '[]_°%e@;:"')
"""Signs that the keyboard of a phone hides: those wanted most first."""


@require_safe
def home(request: HttpRequest) -> HttpResponse:
    """Opens the sheet that was opened last, with ``put`` in its entry; at the first visit one
    that is made as soon as something is kept."""
    person = known_person(request)
    visit = None
    if person is None:
        visit = visit_at_hand(request) or Visit.new()
        pk = visit.sheet
    else:
        pk = (person.sheets.at_hand().first() or person.sheets.create()).pk
    put = request.GET.get("put", "")
    response = redirect(reverse("sheet", args=[pk]) + (f"?put={quote(put)}" if put else ""))
    if visit is not None:
        visit.say(response)
    return response


@require_POST
def new_sheet(request: HttpRequest) -> HttpResponse:
    """Makes an empty sheet and opens it."""
    person = known_person(request) or new_guest(request)
    room_for(person, things=1)
    return redirect("sheet", person.sheets.create().pk)


@require_safe
def sheet(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The sheet page with the last screen of lines."""
    if not request.COOKIES:
        return render(request, "console/needs_cookies.html", status=404)
    sheet = own_sheet(request, pk)
    run = run_of(sheet)
    context = {
        "sheet": sheet,
        "may": token_for(request, sheet.pk),
        "sign_pages": SIGN_PAGES,
        "styles": (*STYLES, *UNITS, *SHAPES),
        "choices": CHOICES,
        "tries": () if run["lines"] else tries_for(sheet.owner),
        "has_samples": has_samples(),
        "formats": FORMATS,
        **run,
    }
    return render(request, "console/sheet.html", context)


@require_POST
def samples(request: HttpRequest) -> HttpResponse:
    """Gives the person a copy of the demo sheets and opens the first of them."""
    person = known_person(request) or new_guest(request)
    copied = {kind.word: kind.copy_samples(person) for kind in KINDS.values()}
    return redirect(copied["sheet"] or person.sheets.at_hand().first() or person.sheets.create())


@require_POST
def title(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Renames the sheet."""
    sheet = own_sheet(request, pk)
    wanted = printable(request.POST.get("title", ""))[:120]
    if wanted:
        Sheet.objects.filter(pk=pk).update(title=wanted)
        sheet.title = wanted
    return render(request, "console/title.html", {"sheet": sheet})


@require_POST
def setting(request: HttpRequest, pk: UUID, name: str) -> HttpResponse:
    """Sets how the sheet shows its numbers, or one of its conventions."""
    sheet = own_sheet(request, pk)
    if name != "form" and name not in CHOICES:
        raise Http404
    command = "show" if name == "form" else name
    try:
        services.set_for_sheet(sheet, command, request.POST.get("value", ""))
    except LineError as error:
        return refused_with(request, error)
    return news(request, sheet, sheet.revision)


@require_safe
def earlier(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The screen of lines before the line ``before``, or up to ``through``."""
    sheet = own_sheet(request, pk)
    lines = sheet.lines.present()
    if "through" in request.GET:
        through = line_ever(sheet, whole_number(request.GET["through"]))
        lines = lines.filter(place__lte=through.place)
    else:
        before = line_ever(sheet, whole_number(request.GET.get("before")))
        lines = lines.filter(place__lt=before.place)
    context = {"sheet": sheet, **screen_of(sheet, lines, FURTHER)}
    return render(request, "console/lines.html", context)


@require_POST
def undo(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Takes the last change of the sheet back."""
    return _replayed(request, pk, changes.undo)


@require_POST
def redo(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Makes the change again that was undone last."""
    return _replayed(request, pk, changes.redo)


def _replayed(
    request: HttpRequest, pk: UUID, replay: Callable[[Sheet, Wanted], changes.Replayed | None]
) -> HttpResponse:
    sheet = own_sheet(request, pk)
    since = whole_number(request.POST.get("since"))
    before = (sheet.cleared, sheet.settings)
    replayed = replay(sheet, wanted_by(request))
    if replayed is None:
        return HttpResponse(status=204)
    if (sheet.cleared, sheet.settings) != before:
        response = anew(request, sheet)
    else:
        response = news(request, sheet, since, others=replayed.moved)
    said = "Undone" if replay is changes.undo else "Done again"
    return with_event(response, "says", f"{said}: {replayed.label}")
