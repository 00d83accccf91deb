"""What a browser keeps for when the server cannot be reached: see ``static/teapot/worker.js``."""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.templatetags.static import static
from django.urls import reverse
from django.views.decorators.http import require_safe

from teapot.engine.version import engine_version

WORKER = Path(__file__).parent / "static" / "teapot" / "worker.js"

OF_NOTHING_KEPT = ("js/theme.js", "js/nothing-kept.js", "dist/teapot.css", "mark.svg")
"""What the page is made of that is shown in the place of one that was not kept."""


@lru_cache(1)
def _worker() -> str:
    """Its script, with what it has to know.  Another version of it fetches all anew."""
    known = {
        "VERSION": engine_version(),
        "HANDBOOK": reverse("handbook-whole"),
        "NOTHING_KEPT": reverse("nothing-kept"),
        "FILES": [static(f"teapot/{name}") for name in OF_NOTHING_KEPT],
    }
    told = "".join(f"const {name} = {json.dumps(value)};\n" for name, value in known.items())
    return told + WORKER.read_text(encoding="utf-8")


@require_safe
def worker(request: HttpRequest) -> HttpResponse:
    """The script that answers in the browser; a new one is noticed at once."""
    response = HttpResponse(_worker(), content_type="text/javascript; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


@require_safe
def nothing_kept(request: HttpRequest) -> HttpResponse:
    """What is shown without a connection in the place of a page that the browser has not kept."""
    return render(request, "nothing_kept.html")
