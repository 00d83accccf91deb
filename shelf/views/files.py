"""Procedures and records as files to save."""

from __future__ import annotations

import csv
import json
from io import StringIO
from urllib.parse import quote
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.views.decorators.http import require_safe

from accounts.guests import own_or_404
from engine.out.cells import safe_cell
from procedures.models import Procedure
from procedures.views import runs_of
from records import out
from records.models import Record
from shelf.everything import procedure_data, record_data

MIMES = {
    "txt": "text/plain",
    "md": "text/markdown",
    "html": "text/html",
    "json": "application/json",
    "csv": "text/csv",
}


def _file(name: str, ending: str, text: str) -> HttpResponse:
    response = HttpResponse(text, content_type=f"{MIMES[ending]}; charset=utf-8")
    named = quote(f"{name}.{ending}", safe="")
    response["Content-Disposition"] = f"attachment; filename*=UTF-8''{named}"
    return response


@require_safe
def procedure(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A procedure as the text of its lines, or with all its versions; its runs as CSV."""
    found = own_or_404(request, Procedure.objects.at_hand(), pk)
    if ending == "txt":
        return _file(found.name, ending, found.newest.text.rstrip("\n") + "\n")
    if ending == "json":
        return _file(found.name, ending, json.dumps(procedure_data(found), ensure_ascii=False))
    if ending != "csv":
        raise Http404
    made = runs_of(found, None)
    file = StringIO()
    rows = csv.writer(file)
    rows.writerow(map(safe_cell, ("when", *made["run_inputs"], *made["run_outputs"])))
    for row in made["runs"]:
        cells = (row["made"].isoformat(" ", "seconds"), *row["inputs"], *row["outputs"])
        rows.writerow(map(safe_cell, cells))
    return _file(found.name, ending, file.getvalue())


@require_safe
def record(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A record as a lab book reads, or with all that it holds."""
    found = own_or_404(request, Record.objects.at_hand(), pk)
    if ending == "json":
        return _file(found.name, ending, json.dumps(record_data(found), ensure_ascii=False))
    writers = {"txt": out.as_text, "md": out.as_markdown, "html": out.as_html}
    if ending not in writers:
        raise Http404
    return _file(found.name, ending, writers[ending](found))
