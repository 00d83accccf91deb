"""The pages of the handbook, and the parts of them that a sheet shows in its drawer."""

from __future__ import annotations

from functools import lru_cache

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.template.loader import render_to_string
from django.views.decorators.http import require_safe

from teapot.engine.handbook.entries import BY_KEY, BY_TYPED, by_subject
from teapot.engine.handbook.search import search
from teapot.handbook.showing import ShownEntry

LONGEST = 200
"""Characters of a search that are looked at."""


@require_safe
def contents(request: HttpRequest) -> HttpResponse:
    """All entries by subject; with ``words`` those that are found by them."""
    words = request.GET.get("words", "")[:LONGEST].strip()
    context = {"subjects": by_subject(), "words": words, "found": search(words)}
    return render(request, "handbook/contents.html", context)


@require_safe
def entry(request: HttpRequest, key: str) -> HttpResponse:
    """The page of one entry."""
    if key not in BY_KEY:
        raise Http404
    context = {"subjects": by_subject(), "shown": ShownEntry(BY_KEY[key])}
    return render(request, "handbook/page.html", context)


@require_safe
def whole(request: HttpRequest) -> HttpResponse:
    """All entries on one page: for browsers to keep, and to print."""
    return HttpResponse(_whole())


@lru_cache(1)
def _whole() -> str:
    context = {"subjects": by_subject(), "all": [ShownEntry(one) for one in BY_KEY.values()]}
    return render_to_string("handbook/whole.html", context)


@require_safe
def find(request: HttpRequest) -> HttpResponse:
    """The entries found by ``words``, as a list."""
    words = request.GET.get("words", "")[:LONGEST].strip()
    return render(request, "handbook/found.html", {"words": words, "found": search(words)})


@require_safe
def drawer(request: HttpRequest) -> HttpResponse:
    """The inside of the drawer: the entry of ``name``, or what ``words`` find.

    A name that the handbook has not is looked for as words.
    """
    name = request.GET.get("name", "")[:LONGEST].strip()
    words = request.GET.get("words", "")[:LONGEST].strip()
    known = BY_KEY.get(name) or BY_TYPED.get(name)
    if known is not None:
        return render(request, "handbook/drawer.html", {"shown": ShownEntry(known)})
    words = words or name
    context = {"words": words, "found": search(words), "subjects": by_subject()}
    return render(request, "handbook/drawer.html", context)
