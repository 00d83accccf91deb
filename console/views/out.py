"""Sheets out and in: files to save, the page to print, files that are brought in."""

from __future__ import annotations

import hashlib
from base64 import b64encode
from urllib.parse import quote
from uuid import UUID

from csp.constants import SELF
from csp.decorators import csp_replace
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_POST, require_safe

from accounts.guests import known_person, new_guest
from console import bringing
from console.out import FORMATS, document_of, whole_style
from console.views.replies import own_sheet
from engine.errors import LineError
from engine.out.document import Document
from engine.out.page import PAPERS, as_html

MOST_NUMBERS = 20_000
MOST_HELD = 1_000_000
"""Bytes of a file that is sent back to be brought in anyway."""


def _asked_for(request: HttpRequest, pk: UUID, latex: bool = False) -> Document:
    sheet = own_sheet(request, pk)
    numbers = [int(one) for one in request.GET.getlist("numbers")[:MOST_NUMBERS] if one.isdecimal()]
    who = request.GET.get("who", "")[:120]
    return document_of(sheet, numbers, who, latex, request.GET.get("workings") == "1")


@require_safe
def save(request: HttpRequest, pk: UUID, ending: str) -> HttpResponse:
    """A sheet, or some of its lines, as a file."""
    if ending not in FORMATS:
        raise Http404
    wanted = FORMATS[ending]
    document = _asked_for(request, pk, wanted.latex)
    response = HttpResponse(wanted.write(document), content_type=f"{wanted.mime}; charset=utf-8")
    name = quote(f"{document.title[:80]}.{ending}", safe="")
    response["Content-Disposition"] = f"attachment; filename*=UTF-8''{name}"
    return response


def _hash(style: str) -> str:
    return f"'sha256-{b64encode(hashlib.sha256(style.encode()).digest()).decode()}'"


@require_safe
def to_print(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The page to be printed and handed in."""
    paper = request.GET.get("paper", "a4")
    if paper not in PAPERS:
        raise Http404
    style = whole_style(paper)
    response = HttpResponse(as_html(_asked_for(request, pk), style))
    policy = {"default-src": [SELF], "style-src": [_hash(style)], "font-src": ["data:"]}
    return csp_replace(policy)(lambda _: response)(request)


@require_POST
def bring_in(request: HttpRequest) -> HttpResponse:
    """Makes a sheet of a file; where some of its lines cannot be answered it says which, and
    brings in the others when that is asked for."""
    person = known_person(request) or new_guest(request)
    file, held = request.FILES.get("file"), request.POST.get("held")
    try:
        if held:
            name, data = request.POST.get("name", "sheet"), held.encode()
        else:
            data = file.read(bringing.MOST_BYTES + 1) if file else b""
            name = file.name if file else "sheet"
        document = bringing.document_in(data, name or "sheet")
        brought = bringing.bring_in(person, document, bool(held))
    except LineError as error:
        return render(request, "console/not_brought.html", {"error": error.text}, status=400)
    if brought.sheet is None:
        text = data.decode("utf-8-sig")
        held = text if len(data) <= MOST_HELD else ""
        context = {"wrong": brought.wrong, "held": held, "name": name}
        return render(request, "console/not_brought.html", context, status=400)
    return redirect(brought.sheet)
