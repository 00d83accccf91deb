"""The pictures that can be moved: the dial and the plane."""

from __future__ import annotations

import re
from math import inf
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from teapot.console import evaluating
from teapot.console.models import Sheet
from teapot.console.views.replies import own_sheet
from teapot.engine.aids.pictures import Pictured
from teapot.engine.reading.vocabulary import UNITS_OF_ANGLES
from teapot.fence import jobs
from teapot.fence.jobs import Job

_COUNT = re.compile(r"-?\d{1,6}(\.\d{1,6})?")
_PART = re.compile(r"-?\d{1,310}(\.\d{1,340})?")
_REACH = re.compile(r"\d{1,25}(\.\d{1,25})?(e[+-]?\d{1,3})?")
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
    return _shown(request, sheet, jobs.TurnDial(count=count, unit=unit))


@require_GET
def plane(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The plane with the number of the parts ``re`` and ``im``, up to ``reach``."""
    sheet = own_sheet(request, pk)
    parts = [request.GET.get(name, "") for name in ("re", "im")]
    reach = request.GET.get("reach", "")
    if (
        not all(map(_PART.fullmatch, parts))
        or not _REACH.fullmatch(reach)
        or not 0 < float(reach) < inf
    ):
        raise Http404
    return _shown(request, sheet, jobs.PointOnPlane(re=parts[0], im=parts[1], reach=float(reach)))


def _shown(request: HttpRequest, sheet: Sheet, job: Job[Pictured]) -> HttpResponse:
    found = evaluating.work(sheet, job)
    if found is None:
        raise Http404
    return render(request, "console/picture.html", {"picture": found})
