"""What is recorded of a sheet: records of lines that are there already, and the end of one."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from teapot.accounts.guests import own_or_404
from teapot.console.models import Sheet
from teapot.console.views.replies import own_sheet
from teapot.engine.errors import LineError
from teapot.records import services


@require_POST
def from_lines(request: HttpRequest) -> HttpResponse:
    """A record of lines that are there already."""
    sheet = own_sheet(request, request.POST.get("sheet", ""))
    numbers = [int(one) for one in request.POST.getlist("numbers") if one.isdecimal()]
    try:
        made = services.afterwards(sheet, numbers, request.POST.get("name") or sheet.title)
    except LineError:
        made = services.afterwards(sheet, numbers, "record")
    return redirect(made)


@require_POST
def stop(request: HttpRequest, sheet: UUID) -> HttpResponse:
    """Ends the recording of a sheet."""
    found = own_or_404(request, Sheet.objects.select_related("recording"), sheet)
    record = found.recording
    if record is not None:
        services.stop(found)
    return redirect(record or found)
