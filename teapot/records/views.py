"""The page of a record: what happened, as a lab book has it."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts.guests import own_or_404
from teapot.records.models import Record
from teapot.records.out import FORMATS, as_html, saved
from teapot.records.writing import KINDS
from teapot.shelf.saving import attached, page_to_print

SCREEN = 500
"""Events that are sent at once."""


def _own(request: HttpRequest, pk: UUID) -> Record:
    return own_or_404(request, Record.objects.at_hand(), pk)


@require_safe
def record(request: HttpRequest, pk: UUID) -> HttpResponse:
    """A record with its events."""
    found = _own(request, pk)
    return render(
        request,
        "records/record.html",
        {
            "record": found,
            "saved_as": [(ending, one.words) for ending, one in FORMATS.items()],
            **events_of(found, 0),
        },
    )


def events_of(record: Record, since: int) -> dict[str, Any]:
    """What is shown of the events after one."""
    found = list(record.events.filter(pk__gt=since)[: SCREEN + 1])
    shown = found[:SCREEN]
    return {
        "events": [(event, KINDS[event.kind]) for event in shown],
        "last": shown[-1].pk if shown else since,
        "has_more": len(found) > SCREEN,
        "is_recording": record.sheets.exists(),
    }


@require_safe
def events(request: HttpRequest, pk: UUID) -> HttpResponse:
    """What happened after the event ``since``."""
    found = _own(request, pk)
    context = {"record": found, **events_of(found, since_in(request))}
    return render(request, "records/events.html", context)


def since_in(request: HttpRequest) -> int:
    """The event after which a request asks for more."""
    since = request.GET.get("since", "0")
    return int(since) if since.isdecimal() and len(since) < 18 else 0


@require_POST
def note(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Writes a note at the head of a record; its events stay as they are."""
    found = _own(request, pk)
    found.note = request.POST.get("note", "")[:20_000]
    found.save(update_fields=["note"])
    return HttpResponse("kept")


@require_safe
def save(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A record as a lab book reads, or with all that it holds."""
    found = _own(request, pk)
    if ending not in FORMATS:
        raise Http404
    return attached(found.name, ending, FORMATS[ending].mime, saved(found, ending))


@require_safe
def to_print(request: HttpRequest, pk: UUID) -> HttpResponse:
    """A record as a page to be printed."""
    found = _own(request, pk)
    return page_to_print(request, lambda style: as_html(found, style))
