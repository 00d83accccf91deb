"""Links to what a person has, and what whoever follows one sees."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import known_person, new_guest, own_or_404, person_key
from teapot.console.out import document_of as document_of_sheet
from teapot.console.views.lines import picture_of, workings_of
from teapot.console.views.replies import screen_of
from teapot.procedures.out import document_of as document_of_procedure
from teapot.records import out
from teapot.records.views import events_of, since_in
from teapot.sharing.copying import copy_for
from teapot.sharing.models import Link
from teapot.sharing.queries import LeadsNowhere, can_be_shared, known_by, reached
from teapot.shelf.kinds import KINDS
from teapot.shelf.saving import or_why_not, page_to_print, printed

MOST_LINES, MOST_LINKS = 200, 50
"""Lines that are shown at once, and links to one thing."""


# -- of the owner -------------------------------------------------------------------------


def links(request: HttpRequest, kind: str, pk: UUID) -> HttpResponse:
    """The links to a thing; one more is made where that is asked for."""
    if kind not in can_be_shared():
        raise Http404
    thing = own_or_404(request, KINDS[kind].model.objects.at_hand(), pk)
    found = Link.objects.filter(owner=thing.owner_id, kind=kind, thing=pk)
    is_full = found.count() >= MOST_LINKS
    if request.method == "POST" and not is_full:
        hands_out = request.POST.get("for") == "copies"
        Link.objects.create(owner_id=thing.owner_id, kind=kind, thing=pk, hands_out=hands_out)
        if not request.htmx:
            return redirect("links", kind, pk)
    return _links(request, kind, thing, is_full)


def _links(request: HttpRequest, kind: str, thing: Any, is_full: bool = False) -> HttpResponse:
    """The list of them: a page, or a part of the page of the thing."""
    found = Link.objects.filter(owner=thing.owner_id, kind=kind, thing=thing.pk)
    addresses = [(link, request.build_absolute_uri(link.get_absolute_url())) for link in found]
    context = {"kind": kind, "thing": thing, "links": addresses, "is_full": is_full}
    name = "sharing/links_list.html" if request.htmx else "sharing/links.html"
    return render(request, name, context)


@require_POST
def take_back(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Whoever follows it finds nothing from now on."""
    link = get_object_or_404(Link, pk=pk, owner__pk=person_key(request))
    link.delete()
    if not request.htmx:
        return redirect("links", link.kind, link.thing)
    thing = own_or_404(request, KINDS[link.kind].model.objects.at_hand(), link.thing)
    return _links(request, link.kind, thing)


# -- of whoever follows one ---------------------------------------------------------------


@require_safe
def shared(request: HttpRequest, link: UUID) -> HttpResponse:
    """What the link leads to, to be read."""
    try:
        found, thing = reached(link)
    except LeadsNowhere:
        return render(request, "sharing/nowhere.html", status=404)
    visit = known_by(request)
    is_own = person_key(request) == str(found.owner_id)
    context = {"link": found, "thing": thing, "is_own": is_own} | READ[found.kind](request, thing)
    reply = render(request, f"sharing/{found.kind}.html", context)
    reply["X-Robots-Tag"] = "noindex"
    if visit is not None:
        visit.say(reply)
    return reply


def _sheet(request: HttpRequest, thing: Any) -> dict[str, Any]:
    lines = thing.lines.present()
    before = request.GET.get("before", "")
    if before.isdecimal() and len(before) < 10:
        place = thing.lines.filter(number=int(before)).values_list("place", flat=True).first()
        lines = lines.filter(place__lt=place or 0)
    return {"sheet": thing, "is_shared": True, **screen_of(thing, lines, MOST_LINES)}


def _procedure(request: HttpRequest, thing: Any) -> dict[str, Any]:
    return {"rows": thing.newest.text.split("\n")}


def _record(request: HttpRequest, thing: Any) -> dict[str, Any]:
    return {"record": thing, **events_of(thing, 0)}


READ = {"sheet": _sheet, "procedure": _procedure, "record": _record}


@require_safe
def events(request: HttpRequest, link: UUID) -> HttpResponse:
    """What happened in a record after the event ``since``."""
    found, thing = reached(link, "record")
    context = {"link": found, "record": thing, **events_of(thing, since_in(request))}
    return render(request, "records/events.html", context)


@require_safe
def workings(request: HttpRequest, link: UUID, number: int) -> HttpResponse:
    """The steps in which a line is worked out."""
    _, sheet = reached(link, "sheet")
    known_by(request)
    return workings_of(request, sheet, number)


@require_safe
def picture(request: HttpRequest, link: UUID, number: int, name: str) -> HttpResponse:
    """A picture of a line."""
    _, sheet = reached(link, "sheet")
    known_by(request)
    return picture_of(request, sheet, number, name, is_shared=True)


@require_safe
def page(request: HttpRequest, link: UUID) -> HttpResponse:
    """What the link leads to, as a page to be printed."""
    found, thing = reached(link)
    known_by(request)
    if found.kind == "record":
        return page_to_print(request, lambda style: out.as_html(thing, style))
    wanted: dict[str, Any] = {"who": "", "latex": False, "workings": True}
    if found.kind == "sheet":
        return or_why_not(lambda: printed(request, document_of_sheet(thing, [], **wanted)))
    return or_why_not(lambda: printed(request, document_of_procedure(thing, **wanted)))


@require_POST
def copy(request: HttpRequest, link: UUID) -> HttpResponse:
    """A copy that is of whoever follows the link from now on."""
    _, thing = reached(link)
    person = known_person(request) or new_guest(request)
    return redirect(copy_for(person, thing))
