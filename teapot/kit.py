"""The page that shows each part of the kit that views are made of, for whoever makes one."""

from __future__ import annotations

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_safe


@require_safe
def kit(request: HttpRequest) -> HttpResponse:
    """Each part once, with the classes that make it; in the demo and in tests only."""
    if not settings.SHOWS_KIT:
        raise Http404
    return render(request, "kit.html")
