"""What a person typed before."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from teapot.accounts.guests import known_person
from teapot.accounts.models import Person
from teapot.console import history


@require_GET
def typed(request: HttpRequest) -> HttpResponse:
    """The lines that Up and Down walk through, oldest first."""
    return JsonResponse({"lines": history.typed_lines(_person(request))})


@require_GET
def search(request: HttpRequest) -> HttpResponse:
    """Lines of all sheets with these words in what was typed, a name or an answer."""
    words = request.GET.get("words", "")
    found = history.search(_person(request), words)
    return render(request, "console/history.html", {"found": found, "words": words})


def _person(request: HttpRequest) -> Person:
    return known_person(request) or Person()  # who has typed nothing yet
