"""The lines of a sheet: kept, mended, moved, deleted, opened into their workings."""

from __future__ import annotations

import csv
from decimal import Decimal
from fractions import Fraction
from uuid import UUID

from django.db.models import Q, prefetch_related_objects
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBadRequest
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from teapot.console import evaluating, services
from teapot.console.models import Line, Sheet
from teapot.console.quick import HEADER_OF_TOKEN, token_for
from teapot.console.services import Crowded, Kept
from teapot.console.showing import ShownLine
from teapot.console.typing import typed_at
from teapot.console.views.replies import (
    OF_RUN,
    SCREEN,
    anew,
    line_ever,
    news,
    own_line,
    own_sheet,
    refused,
    refused_with,
    sheet_and_foot,
    wanted_by,
    whole_number,
    with_event,
)
from teapot.console.while_typed import as_html
from teapot.engine.aids.graph import Window
from teapot.engine.aids.pictures import APART
from teapot.engine.errors import LineError
from teapot.engine.out.cells import safe_cell
from teapot.engine.version import engine_version
from teapot.fence import jobs
from teapot.fence.out_jobs import Drawing
from teapot.fence.turns import EvaluatorsBusy, Overtaken

IN_LINE = dict.fromkeys(("histogram", "scatter", "graph"), "console/chart.html")
"""The pictures that open below their line, where others open over the page."""

ROWS_MORE, MOST_ROWS = 200, 2000
"""Rows of a table that are asked for at once, and that are shown at most on a sheet."""

LONGEST_MEASURE = 500
"""Characters of a measure that is converted."""

MAX_REPLIES = 100
"""Questions that one line may ask."""


@require_POST
def preview(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The reading and the value of what is being typed."""
    text = request.POST.get("text", "")
    if not text.strip():
        return HttpResponse("")
    sheet, foot = sheet_and_foot(request, pk)
    try:
        typed = evaluating.typed(sheet, typed_at(sheet, foot, text, request.POST.dict()))
    except Overtaken:
        return HttpResponse(status=204)
    return HttpResponse(as_html(typed), headers={HEADER_OF_TOKEN: token_for(request, sheet.pk)})


@require_http_methods(["GET", "POST"])
def lines(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Keeps a line (POST), and gives the lines that came after ``since``.

    Several lines in one text are kept in one change, up to the first that is refused;
    those from there on are given back with the reply.
    """
    sheet, foot = sheet_and_foot(request, pk)
    data = request.POST if request.method == "POST" else request.GET
    since = data.get("since", "")
    if not since.isdecimal() or len(since) > 9:
        return HttpResponseBadRequest("since is the number of a revision")
    if request.method == "GET":
        if sheet.revision == int(since):
            return HttpResponse(status=204)
        return news(request, sheet, int(since))
    text, below = data.get("text", ""), data.get("below", "")
    try:
        token = UUID(data.get("token", ""))
    except ValueError:
        return HttpResponseBadRequest("token is a UUID")
    if not text.strip():
        return HttpResponseBadRequest("the line is empty")
    if below:
        own_line(sheet, whole_number(below))
    elif "\n" in text.strip():
        several = evaluating.work(sheet, jobs.ListRows(text=text))
        if several and len(several) > 1:
            return _several(request, sheet, several, token, int(since))
    replies = _replies(request)
    try:
        at = int(below) if below else None
        kept = services.keep(sheet, text, token, at, replies, foot, wanted_by(request))
    except (Crowded, EvaluatorsBusy):
        return HttpResponse("Other lines are being worked out at the moment.", status=503)
    except LineError as error:
        return refused_with(request, error, text)
    return _answered(request, sheet, kept, int(since))


def _several(
    request: HttpRequest, sheet: Sheet, texts: list[str], token: UUID, since: int
) -> HttpResponse:
    """Lines that were put in at once; the page sends those that are left again."""
    try:
        kept = services.keep_several(sheet, texts, token)
    except (Crowded, EvaluatorsBusy):
        return HttpResponse("Other lines are being worked out at the moment.", status=503)
    return news(request, sheet, since, left=texts[kept:])


def _replies(request: HttpRequest) -> list[str]:
    """What was replied to the questions of a line."""
    return request.POST.getlist("reply")[:MAX_REPLIES]


def _answered(request: HttpRequest, sheet: Sheet, kept: Kept, since: int) -> HttpResponse:
    if kept.refused is not None:
        return refused(request, kept.refused)
    if kept.done is None:
        return news(request, sheet, since, kept)
    command, argument = kept.done
    if command not in services.OPENING:
        return anew(request, sheet)
    response = news(request, sheet, since, kept)
    if command in ("help", "find"):
        wanted = {"words" if command == "find" else "name": argument}
        return with_event(response, "opens-handbook", wanted)
    if command == "run":
        return with_event(response, "asks-to-run", argument)
    response["HX-Redirect"] = reverse("shelf")
    return response


@require_POST
def refresh(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Those of the lines ``numbers`` whose answers were made again after ``since``,
    or have to be."""
    sheet = own_sheet(request, pk)
    since = whole_number(request.POST.get("since"))
    numbers = [whole_number(text) for text in request.POST.getlist("numbers")[: 2 * SCREEN]]
    moved = Q(stale=True) | Q(answered__gt=since) | ~Q(engine=engine_version())
    lines = list(sheet.lines.present().filter(moved, number__in=numbers))
    before = evaluating.refresh(sheet, lines)
    prefetch_related_objects(lines, OF_RUN)
    shown = [ShownLine(line, before.get(line.number)) for line in lines]
    return render(request, "console/new_lines.html", {"sheet": sheet, "lines": shown})


@require_POST
def mend(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """Gives a line another text where it stands."""
    sheet = own_sheet(request, pk)
    line_ever(sheet, number)
    since = whole_number(request.POST.get("since"))
    text = request.POST.get("text", "")
    if not text.strip():
        return HttpResponseBadRequest("the line is empty")
    try:
        wanted = wanted_by(request)
        was = request.POST.get("was")
        kept = services.mend(sheet, number, text, _replies(request), wanted=wanted, was=was)
    except LineError as error:
        return refused_with(request, error, text)
    if kept.overtaken and kept.line is not None:
        return _overtaken(request, kept.line, text)
    return _answered(request, sheet, kept, since)


def _overtaken(request: HttpRequest, line: Line, text: str) -> HttpResponse:
    """Both texts of a line that was mended in two windows, of which one is to be chosen."""
    return render(request, "console/overtaken.html", {"line": line, "text": text})


@require_POST
def delete(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """Takes a line away."""
    sheet = own_sheet(request, pk)
    line_ever(sheet, number)
    since = whole_number(request.POST.get("since"))
    try:
        others = services.delete(sheet, number, wanted_by(request))
    except LineError as error:
        return refused_with(request, error)
    return news(request, sheet, since, others=others)


@require_POST
def take_back(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Deletes the line of a ``token``, which may have been kept while its reply was lost."""
    sheet = own_sheet(request, pk)
    since = whole_number(request.POST.get("since"))
    try:
        services.take_back(sheet, UUID(request.POST.get("token", "")))
    except ValueError:
        return HttpResponseBadRequest("token is a UUID")
    return news(request, sheet, since)


@require_POST
def move(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """Moves a line past its neighbour."""
    sheet = own_sheet(request, pk)
    line_ever(sheet, number)
    since = whole_number(request.POST.get("since"))
    up = request.POST.get("way") == "up"
    try:
        others = services.move(sheet, number, up, wanted_by(request))
    except LineError as error:
        return refused_with(request, error)
    return news(request, sheet, since, others=others)


@require_POST
def form(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """Puts a form after the expressions of a line."""
    sheet = own_sheet(request, pk)
    line_ever(sheet, number)
    since = whole_number(request.POST.get("since"))
    try:
        kept = services.set_form(sheet, number, request.POST.get("form", ""))
    except LineError as error:
        return refused_with(request, error)
    return _answered(request, sheet, kept, since)


@require_GET
def workings(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """The steps in which a line is worked out, with pictures."""
    return workings_of(request, own_sheet(request, pk), number)


def workings_of(request: HttpRequest, sheet: Sheet, number: int) -> HttpResponse:
    """The same of a sheet at hand."""
    own_line(sheet, number)
    statements = evaluating.work(sheet, jobs.ShowWorkings(number=number)) or []
    context = {"sheet": sheet, "number": number, "statements": statements}
    return render(request, "console/workings.html", context)


@require_GET
def units(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """The units that the answer of a line may be shown in, to be chosen from."""
    sheet = own_sheet(request, pk)
    own_line(sheet, number)
    offers = evaluating.work(sheet, jobs.ListUnits(number=number)) or []
    return render(request, "console/units.html", {"offers": offers, "number": number})


@require_POST
def convert(request: HttpRequest, pk: UUID) -> HttpResponse:
    """A measure that is typed in the drawer, in all units that fit."""
    sheet = own_sheet(request, pk)
    text = request.POST.get("measure", "")[:LONGEST_MEASURE]
    if not text.strip():
        return HttpResponse("")
    offers = evaluating.work(sheet, jobs.Convert(text=text))
    return render(request, "console/converted.html", {"offers": offers, "text": text})


@require_GET
def picture(request: HttpRequest, pk: UUID, number: int, name: str) -> HttpResponse:
    """A picture of a line that is opened by itself."""
    return picture_of(request, own_sheet(request, pk), number, name)


def picture_of(
    request: HttpRequest, sheet: Sheet, number: int, name: str, is_shared: bool = False
) -> HttpResponse:
    """The same of a sheet at hand."""
    own_line(sheet, number)
    if name not in APART:
        raise Http404
    try:
        window = _window(request)
        found = evaluating.work(sheet, jobs.ShowPicture(number=number, name=name, window=window))
    except LineError as error:
        return HttpResponse(error.text, status=422, content_type="text/plain; charset=utf-8")
    if not found:
        raise Http404
    context = {
        "picture": found[-1], "pictures": found, "number": number, "is_shared": is_shared,
        "is_moved": window is not None,
    }  # fmt: skip
    return render(request, IN_LINE.get(name, "console/picture.html"), context)


LONGEST_END = 40
FARTHEST = 300
"""Powers of ten that the end of a window may have."""


def _window(request: HttpRequest) -> Window | None:
    """Between which ends a graph is asked for, if that is said."""
    typed = [request.GET.get(end, "")[:LONGEST_END] for end in ("left", "right")]
    if not all(typed):
        return None
    try:
        ends = [Decimal(end) for end in typed]
    except ArithmeticError:
        raise Http404 from None
    if not all(end.is_finite() and abs(end.adjusted()) <= FARTHEST for end in ends):
        raise Http404
    return Fraction(ends[0]), Fraction(ends[1])


@require_GET
def as_csv(request: HttpRequest, pk: UUID, number: int, place: int) -> HttpResponse:
    """The table that a statement of a line answered, as CSV (RFC 4180)."""
    answer = _whole_answer(request, pk, number, place)
    if not answer.cells:
        raise Http404
    response = HttpResponse(content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="line-{number}.csv"'
    csv.writer(response).writerows([[safe_cell(cell) for cell in row] for row in answer.cells])
    return response


@require_GET
def more_rows(request: HttpRequest, pk: UUID, number: int, place: int) -> HttpResponse:
    """The table that a statement of a line answered, with more of its rows."""
    sheet = own_sheet(request, pk)
    own_line(sheet, number)
    most = min(whole_number(request.GET.get("most")), MOST_ROWS)
    found = evaluating.work(sheet, jobs.MoreRows(number=number, place=place, most=most))
    if found is None:
        raise Http404
    further = most + ROWS_MORE if most < min(found.count, MOST_ROWS) else None
    context = {
        "sheet": sheet, "number": number, "place": place, "mathml": found.mathml,
        "shown": f"{min(most, found.count):,}", "count": f"{found.count:,}", "further": further,
    }  # fmt: skip
    return render(request, "console/table_rows.html", context)


@require_GET
def as_text(request: HttpRequest, pk: UUID, number: int, place: int) -> HttpResponse:
    """The whole text of an answer, of which the page has the head."""
    answer = _whole_answer(request, pk, number, place)
    return HttpResponse(answer.text, content_type="text/plain; charset=utf-8")


@require_GET
def as_latex(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """The answers of a line as LaTeX, a row each."""
    sheet = own_sheet(request, pk)
    own_line(sheet, number)
    rows = evaluating.work(sheet, jobs.WriteLatex(number=number)) or []
    return HttpResponse("\n".join(rows), content_type="text/plain; charset=utf-8")


@require_GET
def as_svg(request: HttpRequest, pk: UUID, number: int) -> HttpResponse:
    """The answers of a line as a picture."""
    sheet = own_sheet(request, pk)
    own_line(sheet, number)
    drawn = evaluating.work(sheet, Drawing(number=number))
    if not drawn:
        raise Http404
    return HttpResponse(drawn, content_type="image/svg+xml; charset=utf-8")


def _whole_answer(request: HttpRequest, pk: UUID, number: int, place: int) -> jobs.WriteWhole:
    sheet = own_sheet(request, pk)
    own_line(sheet, number)
    answer = evaluating.work(sheet, jobs.WholeAnswer(number=number, place=place))
    if answer is None:
        raise Http404
    return answer
