"""Procedures and their runs as files to save, and as pages to print."""

from __future__ import annotations

import csv
import json
from io import StringIO
from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_safe

from teapot.accounts.guests import own_or_404
from teapot.engine.out.carried import carrying
from teapot.engine.out.cells import safe_cell
from teapot.procedures.data import procedure_data
from teapot.procedures.models import Procedure, Run
from teapot.procedures.out import document_of, document_of_run
from teapot.procedures.views import runs_of
from teapot.shelf.saving import FORMATS, attached, or_why_not, printed, saved_as


def _own(request: HttpRequest, pk: UUID) -> Procedure:
    return own_or_404(request, Procedure.objects.select_related("owner").at_hand(), pk)


def _own_run(request: HttpRequest, pk: UUID, run: UUID) -> Run:
    runs = Run.objects.select_related("version__procedure__owner")
    return get_object_or_404(runs, pk=run, version__procedure=_own(request, pk))


def _wanted(request: HttpRequest, ending: str) -> dict[str, Any]:
    """What is asked for of a document."""
    return {
        "who": request.GET.get("who", "")[:120],
        "latex": ending in FORMATS and FORMATS[ending].latex,
        "workings": request.GET.get("workings") == "1",
    }


@require_safe
def procedure(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A procedure: the text of its lines, all its versions and runs as JSON, its runs as CSV, and
    otherwise with the values that it suggests.  Each but CSV carries all of it."""
    found = _own(request, pk)
    if ending == "txt":
        rest = carrying("", ending, procedure_data(found))  # in a line of its own
        text = found.newest.text.rstrip("\n") + rest
        return attached(found.name, ending, "text/plain", text)
    if ending == "json":
        text = json.dumps(procedure_data(found), ensure_ascii=False, indent=1) + "\n"
        return attached(found.name, ending, "application/json", text)
    if ending == "csv":
        return attached(found.name, ending, "text/csv", _runs_as_csv(found))
    if ending not in FORMATS:
        raise Http404
    wanted = _wanted(request, ending)
    return or_why_not(lambda: saved_as(document_of(found, **wanted), ending, procedure_data(found)))


def _runs_as_csv(procedure: Procedure) -> str:
    made = runs_of(procedure, None)
    file = StringIO()
    rows = csv.writer(file)
    rows.writerow(map(safe_cell, ("when", *made["run_inputs"], *made["run_outputs"])))
    for row in made["runs"]:
        cells = (row["made"].isoformat(" ", "seconds"), *row["inputs"], *row["outputs"])
        rows.writerow(map(safe_cell, cells))
    return file.getvalue()


@require_safe
def run(request: HttpRequest, pk: UUID, run: UUID, ending: str) -> HttpResponse:
    """A run with what was replied and drawn; as text or JSON it comes in as a sheet."""
    found = _own_run(request, pk, run)
    if ending not in FORMATS:
        raise Http404
    wanted = _wanted(request, ending)
    return or_why_not(lambda: saved_as(document_of_run(found, **wanted), ending))


@require_safe
def print_procedure(request: HttpRequest, pk: UUID) -> HttpResponse:
    """A procedure as a page to be printed."""
    found, wanted = _own(request, pk), _wanted(request, "html")
    return or_why_not(lambda: printed(request, document_of(found, **wanted)))


@require_safe
def print_run(request: HttpRequest, pk: UUID, run: UUID) -> HttpResponse:
    """A run as a page to be printed and handed in."""
    found, wanted = _own_run(request, pk, run), _wanted(request, "html")
    return or_why_not(lambda: printed(request, document_of_run(found, **wanted)))
