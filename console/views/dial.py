"""The dial: an angle in all units, on the unit circle."""

from __future__ import annotations

import re
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from console import evaluating
from console.views.replies import own_sheet
from engine.reading.vocabulary import UNITS_OF_ANGLES
from fence import jobs

_COUNT = re.compile(r"-?\d{1,6}(\.\d{1,6})?")
FIRST = "30"
"""Degrees that the dial shows where no angle is at hand."""


@require_GET
def dial(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The dial of the angle ``count`` in ``unit``."""
    sheet = own_sheet(request, pk)
    count = request.GET.get("count", FIRST)
    unit = request.GET.get("unit", "deg")
    if not _COUNT.fullmatch(count) or unit not in UNITS_OF_ANGLES:
        raise Http404
    found = evaluating.work(sheet, jobs.Dial(count=count, unit=unit))
    if found is None:
        raise Http404
    return render(request, "console/picture.html", {"picture": found})
