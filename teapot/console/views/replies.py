"""What the views share: whose sheet it is, and how a change is answered.

A change is answered with the lines that came since the revision that the browser has, or
with all that a page shows; ``news.html`` tells of which revision that is.  Where nothing was
changed, ``refused.html`` says why.  What else is to happen in the browser is told by htmx's own
headers, ``HX-Trigger`` and ``HX-Redirect``.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping, Sequence
from typing import Any
from uuid import UUID

from django.db.models import Q, prefetch_related_objects
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render

from teapot.accounts.guests import READS, known_person, new_guest, person_key, visit_at_hand
from teapot.accounts.models import Person
from teapot.accounts.visits import visit_of
from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.console.queries import Foot, sheet_of
from teapot.console.quick import HEADER_OF_TOKEN, token_for
from teapot.console.services import Kept
from teapot.console.showing import ShownLine
from teapot.engine.errors import LineError
from teapot.engine.mends import offers
from teapot.engine.sheet.outcome import ERROR
from teapot.engine.sheet.settings import CHOICES
from teapot.engine.sheet.shown import KeptOutcome, ShownError
from teapot.fence.change_jobs import Moved, Wanted
from teapot.fence.listing import ListingNews

SCREEN = 30
"""Lines that are sent at once with the page, or after a change."""

MOST_SHOWN = 4000
"""Characters of the numbers of the lines that a page shows."""

MOST_NEWS = 200
"""Lines that a browser takes up one by one; with more, it gets the last screen anew."""

FURTHER = 20
"""Earlier lines that follow at once when they are scrolled to: so few that setting
them is not felt."""


def own_sheet(request: HttpRequest, pk: UUID | str) -> Sheet:
    """The sheet, if it is this person's; else it does not exist for them."""
    return sheet_and_foot(request, pk)[0]


def sheet_and_foot(request: HttpRequest, pk: UUID | str) -> tuple[Sheet, Foot]:
    """The same with what is to be known to put a line after the last one."""
    key = person_key(request)
    try:
        wanted = pk if isinstance(pk, UUID) else UUID(pk)
    except ValueError:  # what was sent is no key
        raise Http404 from None
    found = sheet_of(UUID(key), wanted) if key else None
    found = found or _of_first_visit(request, wanted, key)
    if found is None:
        raise Http404
    return found


def _of_first_visit(request: HttpRequest, pk: UUID, key: str | None) -> tuple[Sheet, Foot] | None:
    """The sheet of somebody who has kept nothing on it yet: it is made where something is."""
    visit = visit_of(request) if key else visit_at_hand(request)
    if visit is None or visit.sheet != pk or (key and UUID(key) != visit.person):
        return None
    if Sheet.objects.filter(pk=pk).exists():
        # another request of the same visit was faster, or it lies in the bin
        found = sheet_of(visit.person, pk)
        if found is not None:
            new_guest(request)
        return found
    match = request.resolver_match
    if request.method == "POST" and match is not None and match.url_name not in READS:
        person = known_person(request) or new_guest(request)
        request.visit_is_over = True
        Sheet.objects.get_or_create(pk=pk, owner=person)
        return sheet_of(person.pk, pk)
    return Sheet(pk=pk, owner=Person(pk=visit.person)), Foot(0, 0, None)


def wanted_by(request: HttpRequest) -> Wanted:
    """What the page behind a request wants to know of its change: the lines that it ``shows``
    and the revision of its quantities, ``listed``."""
    shows = request.POST.get("shows", "")[:MOST_SHOWN].split(",")
    listed = request.POST.get("listed", "")
    return Wanted(
        frozenset(int(one) for one in shows if one.isdecimal() and len(one) < 10),
        int(listed) if listed.isdecimal() and len(listed) < 10 else None,
    )


OF_RUN = "run__version__procedure"
"""What a line is shown with, where it came with a procedure."""


def own_line(sheet: Sheet, number: int) -> Line:
    """A line of the sheet that is present."""
    return get_object_or_404(sheet.lines.present(), number=number)


def line_ever(sheet: Sheet, number: int) -> Line:
    """A line that the sheet has, or had."""
    return get_object_or_404(sheet.lines, number=number)


def whole_number(text: str | None) -> int:
    """A number from a request; what is none is not found."""
    if not (text or "").isdecimal() or len(text) > 9:
        raise Http404
    return int(text)


def screen_of(sheet: Sheet, lines: Any, most: int = SCREEN) -> dict[str, Any]:
    """The last lines of a query with fresh answers, and whether there are earlier ones."""
    last: list[Line] = list(lines.order_by("-place")[: most + 1])
    shown = list(reversed(last[:most]))
    prefetch_related_objects(shown, OF_RUN)
    evaluating.refresh(sheet, shown)
    return {"lines": [ShownLine(line) for line in shown], "has_earlier": len(last) > most}


def run_of(sheet: Sheet) -> dict[str, Any]:
    """The last screen of lines that are not cleared away, and what is before it."""
    lines = sheet.lines.present()
    cleared = lines.filter(place__lte=sheet.cleared).order_by("place").last()
    screen = screen_of(sheet, lines.filter(place__gt=sheet.cleared))
    return {"cleared_at": cleared.number if cleared else None, **screen}


def anew(request: HttpRequest, sheet: Sheet, left: Sequence[str] = ()) -> HttpResponse:
    """All that a command may change on a page, in the place of what is there; what stands in the
    entry stays.  ``left`` as that of :func:`news`."""
    sheet.refresh_from_db()
    context = {
        "sheet": sheet,
        "choices": CHOICES,
        "revision": sheet.revision,
        "left": json.dumps(left) if left else "",
        **run_of(sheet),
    }
    response = render(request, "console/anew.html", context)
    response[HEADER_OF_TOKEN] = token_for(request, sheet.pk)
    return response


def news(
    request: HttpRequest,
    sheet: Sheet,
    since: int,
    kept: Kept | None = None,
    left: Sequence[str] = (),
    others: Moved | None = None,
) -> HttpResponse:
    """The lines that changed after the revision ``since``; ``kept`` is the change at
    hand, where it is that of one line, and ``others`` what it moved; ``left`` are the lines that
    were sent and not kept yet."""
    others = kept.others if kept is not None else others
    if others is not None and sheet.revision == since + 1:
        line = kept.line if kept is not None else None
        return _only(request, sheet, since, others, line, kept.moved if kept else ())
    sheet.refresh_from_db()
    changed = list(sheet.lines.filter(revision__gt=since))
    is_of_before_a_restore = since > sheet.revision
    if len(changed) > MOST_NEWS or is_of_before_a_restore:
        return anew(request, sheet, left)
    present = [line for line in changed if not line.deleted]
    live = list(sheet.lines.present().filter(is_live=True, stale=True).order_by()[:SCREEN])
    lines = {line.number: line for line in (*present, *live)}
    moved = evaluating.refresh(sheet, lines.values())
    if kept is not None and kept.line is not None and kept.moved:
        moved[kept.line.number] = list(kept.moved)
    gone = [line.number for line in changed if line.deleted]
    others_on_page = sheet.lines.present().exclude(number__in=lines)
    is_stale = others_on_page.filter(Q(stale=True) | Q(answered__gt=since)).exists()
    return _shown(request, sheet, lines.values(), moved, gone, is_stale, left=left)


def _only(
    request: HttpRequest,
    sheet: Sheet,
    since: int,
    others: Moved,
    line: Line | None,
    how: Sequence[str],
) -> HttpResponse:
    """The news of one change, where the page has all else: its lines, those that it moved, and
    the quantities."""
    gone: list[int] = []
    lines = [line] if line is not None else list(sheet.lines.filter(revision__gt=since))
    if line is None:
        gone = [one.number for one in lines if one.deleted]
        lines = [one for one in lines if not one.deleted]
        evaluating.refresh(sheet, lines)
    moved = dict(others.before)
    if line is not None and how:
        moved[line.number] = list(how)
    if others.fresh:
        lines += sheet.lines.filter(number__in=others.fresh).order_by("place")
    listing = None if others.listing is None else listed(others.listing, sheet.revision)
    left_void = others.void - others.fresh.keys() - {one.number for one in lines} - set(gone)
    return _shown(request, sheet, lines, moved, gone, bool(left_void), listing=listing)


def _shown(
    request: HttpRequest,
    sheet: Sheet,
    lines: Iterable[Line],
    moved: Mapping[int, list[str]],
    gone: Sequence[int],
    is_stale: bool,
    left: Sequence[str] = (),
    listing: Mapping[str, Any] | None = None,
) -> HttpResponse:
    """The lines, and those that are gone; ``is_stale`` where answers elsewhere on the page have
    to be asked for again."""
    lines = list(lines)
    if any(line.run_id for line in lines):
        prefetch_related_objects(lines, OF_RUN)
    context = {
        "sheet": sheet,
        "lines": [ShownLine(line, moved.get(line.number)) for line in lines],
        "gone": gone,
        "revision": sheet.revision,
        "is_stale": is_stale,
        "left": json.dumps(left) if left else "",
        "listing": listing,
    }
    response = render(request, "console/new_lines.html", context)
    response[HEADER_OF_TOKEN] = token_for(request, sheet.pk)
    return response


def with_event(response: HttpResponse, name: str, value: Any) -> HttpResponse:
    """The response, after which the page is told of an event."""
    response["HX-Trigger"] = json.dumps({name: value})
    return response


def listed(news: ListingNews, revision: int) -> dict[str, Any]:
    """What a page shows of quantities that have changed, with the order of all."""
    values = [one for one in news.changed if one.parameters is None]
    return {
        "since": news.since,
        "revision": revision,
        "names": json.dumps(news.names),
        "given": [one for one in values if not one.is_found],
        "found": [one for one in values if one.is_found],
        "functions": [one for one in news.changed if one.parameters is not None],
        "left_out": news.left_out,
        "outdated": news.outdated,
        "out_of_date": news.out_of_date,
    }


def refused(request: HttpRequest, outcome: KeptOutcome) -> HttpResponse:
    """The error of an input that was not taken, or the question that it asks."""
    context = {"outcome": outcome}
    return render(request, "console/refused.html", context)


def refused_with(request: HttpRequest, error: LineError, text: str = "") -> HttpResponse:
    """The same for an error that is about no place in the input."""
    mends = offers(error.mends, text)
    said = ShownError(code=error.code, text=error.text, start=0, end=0, mends=mends)
    return refused(request, KeptOutcome(line=0, input=text, status=ERROR, error=said))
