"""The list of quantities, and what can be done with each."""

from __future__ import annotations

from collections.abc import Callable
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET, require_POST

from teapot.console import evaluating, services
from teapot.console.models import Sheet
from teapot.console.services import Kept
from teapot.console.views.replies import (
    listed,
    news,
    own_line,
    own_sheet,
    refused,
    refused_with,
    wanted_by,
    whole_number,
)
from teapot.engine.errors import LineError
from teapot.pictures import dependence


@require_GET
def quantities(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The list of quantities, and which lines are out of date."""
    sheet = own_sheet(request, pk)
    found = evaluating.quantities(sheet)
    if found is None:
        return HttpResponse("The quantities could not be listed in time.", status=503)
    return render(request, "console/quantities.html", {"listing": listed(found, sheet.revision)})


@require_GET
def picture(request: HttpRequest, pk: UUID) -> HttpResponse:
    """What depends on what among the quantities, as a picture."""
    found = evaluating.quantities(own_sheet(request, pk))
    return HttpResponse((found and dependence.draw(found.changed)) or "")


@require_POST
def value(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Changes a given value in the line that gives it."""
    sheet = own_sheet(request, pk)
    name, text = request.POST.get("name", ""), request.POST.get("value", "")
    return _changed(
        request, sheet, lambda: services.set_value(sheet, name, text, wanted_by(request))
    )


@require_POST
def again(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Computes a line again, or all that is out of date."""
    sheet = own_sheet(request, pk)
    line = request.POST.get("line")
    number = own_line(sheet, whole_number(line)).number if line else None
    return _changed(request, sheet, lambda: services.compute_again(sheet, number))


@require_POST
def rename(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Renames a quantity throughout the sheet."""
    sheet = own_sheet(request, pk)
    old, new = request.POST.get("name", ""), request.POST.get("new", "").strip()
    return _changed(request, sheet, lambda: services.rename(sheet, old, new))


def _changed(
    request: HttpRequest, sheet: Sheet, change: Callable[[], Kept | list[Kept] | None]
) -> HttpResponse:
    """Makes the change, and answers with what is new or why it was refused."""
    since = whole_number(request.POST.get("since"))
    try:
        kept = change()
    except LineError as error:
        return refused_with(request, error)
    made = [kept] if isinstance(kept, Kept) else kept or []
    for one in made:
        if one.refused is not None:
            return refused(request, one.refused)
    return news(request, sheet, since, kept if isinstance(kept, Kept) else None)
