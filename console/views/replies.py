"""What the views share: whose sheet it is, and how a change is answered.

A change is answered with the lines that came since the revision that the browser
has.  Headers steer it: ``X-Revision`` is the new revision, ``X-Refused``
says that nothing was changed and why is in the body, ``X-Asks`` after how many replies
the line asks a question, ``X-Several`` how many of several lines are kept, ``X-Label``
what was undone, ``X-Stale`` that answers elsewhere on the page have to be asked for
again, ``X-Reload`` that the page as a whole has changed, ``X-Handbook`` which page of it
opens.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any
from uuid import UUID

from django.db.models import prefetch_related_objects
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render

from accounts.guests import own_or_404
from console import evaluating
from console.keeping import Kept
from console.models import Line, Sheet
from console.showing import Shown, entry_parts
from engine.errors import LineError
from engine.mends import offers
from engine.sheet.outcome import ERROR
from engine.sheet.shown import KeptOutcome, ShownError

SCREEN = 30
"""Lines that are sent at once with the page, or after a change."""

MOST_NEWS = 200
"""Lines that a browser takes up one by one; with more, it loads the page anew."""

FURTHER = 20
"""Earlier lines that follow at once when they are scrolled to: so few that setting
them is not felt."""


def own_sheet(request: HttpRequest, pk: UUID | str) -> Sheet:
    """The sheet, if it is this person's; else it does not exist for them."""
    return own_or_404(request, Sheet.objects.select_related("owner").at_hand(), pk)


OF_RUN = "run__version__procedure"
"""What a line is shown with, where it came with a procedure."""


def own_line(sheet: Sheet, number: int) -> Line:
    """A line of the sheet that is present."""
    return get_object_or_404(sheet.lines.present(), number=number)


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
    return {"lines": [Shown(line) for line in shown], "has_earlier": len(last) > most}


def news(
    request: HttpRequest,
    sheet: Sheet,
    since: int,
    kept: Kept | None = None,
    left: Sequence[str] = (),
) -> HttpResponse:
    """The lines that changed after the revision ``since``; ``kept`` is the change at
    hand, where it is that of one line; ``left`` are the lines that were sent and not kept
    yet."""
    sheet.refresh_from_db()
    changed = list(sheet.lines.filter(revision__gt=since))
    present = [line for line in changed if not line.deleted][:MOST_NEWS]
    live = list(sheet.lines.present().filter(is_live=True, stale=True).order_by()[:SCREEN])
    lines = {line.number: line for line in (*present, *live)}
    moved = evaluating.refresh(sheet, lines.values())
    if kept is not None and kept.line is not None and kept.moved:
        moved[kept.line.number] = list(kept.moved)
    prefetch_related_objects(list(lines.values()), OF_RUN)
    context = {
        "sheet": sheet,
        "lines": [Shown(line, moved.get(line.number)) for line in lines.values()],
        "gone": [line.number for line in changed if line.deleted],
        "left": json.dumps(left) if left else "",
    }
    response = render(request, "console/new_lines.html", context)
    response["X-Revision"] = str(sheet.revision)
    if len(changed) > MOST_NEWS:
        response["X-Reload"] = "1"
    others = sheet.lines.present().exclude(number__in=lines)
    if others.filter(stale=True).exists() or others.filter(answered__gt=since).exists():
        response["X-Stale"] = "1"
    return response


def refused(request: HttpRequest, outcome: KeptOutcome) -> HttpResponse:
    """The error of an input that was not taken, or the question that it asks."""
    context = {"outcome": outcome, "parts": entry_parts(outcome)}
    response = render(request, "console/refused.html", context)
    response["X-Refused"] = outcome.status
    if outcome.asks is not None:
        response["X-Asks"] = str(outcome.asks.taken)
    return response


def refused_with(request: HttpRequest, error: LineError, text: str = "") -> HttpResponse:
    """The same for an error that is about no place in the input."""
    mends = offers(error.mends, text)
    said = ShownError(code=error.code, text=error.text, start=0, end=0, mends=mends)
    return refused(request, KeptOutcome(line=0, input=text, status=ERROR, error=said))
