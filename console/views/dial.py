"""The dial: an angle in all units, on the unit circle."""

from __future__ import annotations

import re
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from console import evaluating
from console.views.replies import own_line, own_sheet, whole_number
from engine.limited.bounds import PREVIEW_SECONDS
from engine.reading.vocabulary import UNITS_OF_ANGLES
from pictures.dial import draw_dial

_COUNT = re.compile(r"-?\d{1,6}(\.\d{1,6})?")
FIRST = "30"
"""Degrees that the dial shows where no angle is at hand."""


@require_GET
def dial(request: HttpRequest, pk: UUID) -> HttpResponse:
    """What the dial shows: of the angle ``count`` in ``unit``, or of a ``line``."""
    sheet = own_sheet(request, pk)
    number = None
    if "line" in request.GET:
        number = own_line(sheet, whole_number(request.GET["line"])).number
    count = request.GET.get("count", FIRST)
    unit = request.GET.get("unit", "deg")
    if not _COUNT.fullmatch(count) or unit not in UNITS_OF_ANGLES:
        raise Http404
    found = evaluating.work(sheet, "dial", PREVIEW_SECONDS, number=number, count=count, unit=unit)
    if found is None:
        raise Http404
    context = found | {"picture": draw_dial(found["dial"], found["point"])}
    return render(request, "console/dial.html", context)
