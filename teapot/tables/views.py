"""The data tables of a person: a list, the preview of a file, and the page of each."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import replace
from functools import lru_cache
from itertools import islice
from pathlib import PurePath
from urllib.parse import quote, urlencode
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.safestring import mark_safe
from django.views.decorators.http import require_GET, require_POST, require_safe
from django_htmx.http import reswap, retarget

from teapot.accounts.guests import known_person, new_guest, own_or_404
from teapot.engine.errors import LineError
from teapot.engine.files.cells import KINDS, MISSING_MARKS
from teapot.engine.files.dialect import ENCODINGS, SEPARATORS
from teapot.engine.files.layout import COLUMNS, SPACES
from teapot.engine.files.preview import OWN, ColumnGuess, Guess
from teapot.engine.files.shelf import File
from teapot.engine.out.cells import safe_cell
from teapot.fence import file_jobs
from teapot.fence.turns import EvaluatorsBusy
from teapot.pictures import scatter
from teapot.shelf import things
from teapot.shelf.items import LONGEST_NAME
from teapot.shelf.kinds import lines_with
from teapot.shelf.queries import ask
from teapot.tables import services
from teapot.tables.models import DataTable, Version
from teapot.tables.templatetags.tables import line_of

SEPARATOR_NAMES = dict(
    zip(
        (*SEPARATORS, COLUMNS, SPACES),
        ("commas", "semicolons", "tabs", "vertical bars", "columns of spaces", "spaces"),
        strict=True,
    )
)
POINTS = {
    ".": "1234.5", ",": "1234,5", ".,": "1,234.5", ",.": "1.234,5", ". ": "1 234.5",
    ", ": "1 234,5", ".'": "1'234.5",
}  # fmt: skip
USUAL_MARKS = " ".join(sorted(MISSING_MARKS - {""}))
SCREEN = 60
"""Rows that are sent at once."""

FIGURE_SPACE = "\N{FIGURE SPACE}"
MOST_USES = 20
BUSY = "Other files are being read at the moment. Please try again."


@require_safe
def tables(request: HttpRequest) -> HttpResponse:
    """The list of tables, and the way to bring one in."""
    return _list(request)


def _list(request: HttpRequest, error: str = "", status: int = 200) -> HttpResponse:
    person = known_person(request)
    found = person.tables.filter(binned=None) if person else DataTable.objects.none()
    deleted = person.tables.filter(binned__isnull=False) if person else DataTable.objects.none()
    context = {"tables": found, "deleted": deleted, "error": error}
    return render(request, "tables/tables.html", context, status=status)


@require_POST
def bring_in(request: HttpRequest) -> HttpResponse:
    """Takes a file, or cells that were pasted, and opens its preview."""
    person = known_person(request) or new_guest(request)
    file, pasted = request.FILES.get("file"), request.POST.get("pasted", "")
    if file is None and not pasted.strip():
        return _list(request, "Choose a file, or paste some cells.", 400)
    try:
        if file is not None:
            version = services.bring_in(person, file.name or "file", file.chunks())
        else:
            version = services.bring_in(person, "pasted cells", [pasted.encode()])
    except LineError as error:
        return _list(request, error.text, 400)
    address = reverse("look-at", args=[version.pk])
    passed_on = {name: request.POST[name] for name in ("sheet", "table") if request.POST.get(name)}
    query = "&".join(f"{name}={quote(value)}" for name, value in passed_on.items())
    return redirect(f"{address}?{query}" if query else address)


def _own_file(request: HttpRequest, pk: UUID) -> Version:
    return own_or_404(request, Version.objects.filter(table=None), pk)


def _own_table(request: HttpRequest, pk: UUID, binned: bool = False) -> DataTable:
    return own_or_404(request, DataTable.objects.filter(binned__isnull=not binned), pk)


@require_GET
def look_at(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The preview of a file, with each guess to be changed."""
    return _preview(request, _own_file(request, pk))


def _preview(request: HttpRequest, version: Version, error: str = "") -> HttpResponse:
    try:
        shown = ask(version.pk, file_jobs.LookAt(path=str(version.path), guess=_guess(request)))
    except (LineError, EvaluatorsBusy) as refused:
        services.drop(version)
        return _list(request, getattr(refused, "text", BUSY), 400)
    data = request.POST or request.GET
    first = shown.guess.above + 1
    context = {
        "version": version,
        "shown": shown,
        "columns": list(zip(shown.guess.columns, shown.missing, strict=True)),
        "head": list(enumerate(_with_misfits(shown), first + shown.guess.rows_of_heads)),
        "first_line": first,
        "misfit_columns": sorted({one.column for one in shown.misfits})[:4],
        "encodings": ENCODINGS,
        "separators": SEPARATOR_NAMES,
        "points": POINTS,
        "kinds": KINDS,
        "marks": shown.guess.marks or USUAL_MARKS,
        "name": data.get("name") or _name_of(version.file_name),
        "sheet": data.get("sheet", ""),
        "table": data.get("table", ""),
        "error": error,
        "alike": None if data.get("table") else _alike(version, shown.guess),
    }
    template = "tables/guesses.html" if request.htmx else "tables/preview.html"
    return render(request, template, context)


def _alike(version: Version, guess: Guess) -> DataTable | None:
    """The table that has the same columns, of which this may be a newer file."""
    if version.owner is None:
        return None
    names = [column.name for column in guess.columns]
    kept = Version.objects.filter(table__owner=version.owner, table__binned=None)
    newest = dict(kept.order_by("made").values_list("table", "columns"))
    alike = (pk for pk, columns in newest.items() if [one["name"] for one in columns] == names)
    return DataTable.objects.filter(pk=next(alike, None)).first()


def _with_misfits(shown: file_jobs.FileShown) -> list[list[tuple[str, str]]]:
    """The first rows, a cell that does not fit its column as it was found."""
    rows = with_kinds(shown.head, shown.guess.columns)
    names = [column.name for column in shown.guess.columns]
    for one in shown.misfits:
        if one.row <= len(rows):
            rows[one.row - 1][names.index(one.column)] = (one.text, "misfit")
    return rows


def with_kinds(
    rows: list[list[str]], columns: Sequence[ColumnGuess]
) -> list[list[tuple[str, str]]]:
    """Each cell with the kind of its column, its numbers filled up so that their points stand
    under each other."""
    kinds = [column.kind.split()[-1] for column in columns]
    texts = [
        _at_the_point(cells) if kind == "number" else list(cells)
        for cells, kind in zip(zip(*rows, strict=True), kinds, strict=False)
    ]
    return [list(zip(row, kinds, strict=True)) for row in zip(*texts, strict=True)]


def _at_the_point(cells: Sequence[str]) -> list[str]:
    behind = [len(cell) - cell.index(".") if "." in cell else 0 for cell in cells]
    longest = max(behind, default=0)
    pairs = zip(cells, behind, strict=True)
    return [cell and cell + FIGURE_SPACE * (longest - many) for cell, many in pairs]


def _name_of(file_name: str) -> str:
    return PurePath(file_name.removesuffix(".gz")).stem.replace("_", " ")[:LONGEST_NAME]


def _guess(request: HttpRequest) -> Guess | None:
    """The guess as it was changed; None where it was not."""
    data = request.POST or request.GET
    if data.get("separator") not in SEPARATOR_NAMES or data.get("point") not in POINTS:
        return None
    encoding = data.get("encoding", "")
    if encoding not in ENCODINGS:
        encoding = ""
    marks = " ".join(data.get("marks", "").split())[:400]
    sheet = data.get("sheet_name", "")[:100]
    if sheet != data.get("was_sheet_name", ""):
        return Guess(",", ".", has_head=True, sheet=sheet, above=OWN)
    guess = Guess(
        data["separator"],
        data["point"],
        data.get("head") == "yes",
        (),
        "" if marks == USUAL_MARKS else marks,
        encoding,
        above=max(0, _count(data.get("above"), 1) - 1),
        below=_count(data.get("below"), 0),
        has_units=data.get("units_row") == "1",
        month_first=data.get("month_first") == "1",
        sheet=sheet,
    )
    shaped_by = ("separator", "head", "encoding", "above", "below", "units_row")
    if any(data.get(f"was_{part}", "") != data.get(part, "") for part in shaped_by):
        return guess  # other columns
    cells_are_as_before = (data.get("was_point"), data.get("was_marks", "")) == (guess.point, marks)
    names, units, kinds = (data.getlist(f"column_{part}") for part in ("name", "unit", "kind"))
    if not names or not len(names) == len(units) == len(kinds) or not {*kinds} <= {*KINDS}:
        return guess
    columns = [
        ColumnGuess(_clean(name) or f"column_{at}", unit[:20], kind if cells_are_as_before else "")
        for at, (name, unit, kind) in enumerate(zip(names, units, kinds, strict=True), 1)
    ]
    return replace(guess, columns=tuple(columns))


def _count(text: str | None, least: int) -> int:
    return int(text) if text and text.isdecimal() and len(text) < 8 else least


def _clean(name: str) -> str:
    return "".join(c for c in name if c not in '"{}' and c.isprintable()).strip()[:60]


@require_POST
def keep(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Keeps a file under a name, or as the newest version of a table."""
    version = _own_file(request, pk)
    try:
        job = file_jobs.LookAt(path=str(version.path), guess=_guess(request))
        shown = ask(version.pk, job)
        appended = request.POST.get("append_to")
        older = appended or request.POST.get("table")
        if older:
            table = _own_table(request, UUID(older))
            if appended:
                more = File(str(version.path), shown.guess)
                rows = ask(version.pk, file_jobs.JoinRows(file=table.newest.file, more=more))
                services.append(version, table, rows)
            else:
                services.replace(version, table, shown.guess, shown.rows)
        else:
            table = services.keep(version, request.POST.get("name", ""), shown.guess, shown.rows)
    except LineError as error:
        return _preview(request, version, error.text)
    except EvaluatorsBusy:
        return _preview(request, version, BUSY)
    except ValueError:
        raise Http404 from None
    sheet = request.POST.get("sheet")
    if sheet:
        try:
            return redirect(f"{reverse('sheet', args=[UUID(sheet)])}?put={quote(line_of(table))}")
        except ValueError:
            raise Http404 from None
    return redirect("table", table.pk)


@require_POST
def drop(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Forgets a file that was only looked at."""
    services.drop(_own_file(request, pk))
    return redirect("tables")


# -- the page of a table ---------------------------------------------------------------------


@require_safe
def table(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The page of a table: its columns in short, its rows, what uses it."""
    return _page(request, _own_table(request, pk))


def _page(request: HttpRequest, table: DataTable, error: str = "") -> HttpResponse:
    newest = table.newest
    try:
        columns = _summed_up(table.pk, newest.file)
    except (LineError, EvaluatorsBusy) as refused:
        columns, error = [], getattr(refused, "text", BUSY)
    words = f'shelf("{table.name}")'
    context = {
        "table": table,
        "version": newest,
        "versions": table.versions.count(),
        "columns": columns,
        "uses": [*islice(lines_with(table.owner, words), MOST_USES)],
        "error": error,
        "drawable": [one for one in newest.file.guess.columns if one.kind in NUMBERS],
        **_rows(request, table),
    }
    return render(request, "tables/table.html", context)


NUMBERS = ("number", "whole number")


@require_safe
def picture(request: HttpRequest, pk: UUID) -> HttpResponse:
    """A column of the rows that the filter leaves, over another one or over their numbers."""
    table = _own_table(request, pk)
    asked = {name: request.GET.get(name, "")[:500] for name in ("test", "across", "up")}
    try:
        found = ask(table.pk, file_jobs.DrawColumns(file=table.newest.file, **asked))
    except (LineError, EvaluatorsBusy) as refused:
        return render(request, "tables/picture.html", {"said": getattr(refused, "text", BUSY)})
    drawn = mark_safe("".join(map(scatter.draw, found)))  # noqa: S308
    return render(request, "tables/picture.html", {"drawn": drawn})


@require_safe
def rest_of_file(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The lines of the file that stand above and below the table."""
    file = _own_table(request, pk).newest.file
    try:
        shown = ask(pk, file_jobs.LookAt(path=file.path, guess=file.guess))
    except (LineError, EvaluatorsBusy) as refused:
        return render(request, "tables/picture.html", {"said": getattr(refused, "text", BUSY)})
    lines = [*(line.text for line in shown.above), *shown.below]
    return render(request, "tables/rest_of_file.html", {"lines": lines})


@lru_cache(100)  # a file never changes, and they are shown with every key of a filter
def _summed_up(key: UUID, file: File) -> list[file_jobs.ColumnShown]:
    """The columns of a table in short.

    Errors: :class:`LineError`, :class:`EvaluatorsBusy` where there is no time for it.
    """
    return ask(key, file_jobs.SumUp(file=file))


@require_safe
def rows(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Rows of a table from ``first`` on, as the filter and the order are set."""
    table = _own_table(request, pk)
    context = {"table": table, "oob": True, **_rows(request, table)}
    if context["count"] is None:
        # the rows that are shown stay while a test is being typed
        response = render(request, "tables/filter_said.html", {**context, "oob": False})
        return retarget(reswap(response, "outerHTML"), "#filter-said")
    is_further = bool(context["first"])
    if not is_further:
        with suppress(LineError, EvaluatorsBusy):
            context["columns"] = _summed_up(table.pk, table.newest.file)
    return render(request, "tables/further.html" if is_further else "tables/rows.html", context)


def _rows(request: HttpRequest, table: DataTable) -> dict:
    test, by = request.GET.get("test", "")[:500], request.GET.get("by", "")
    first = request.GET.get("first", "0")
    first = int(first) if first.isdecimal() and len(first) < 9 else 0
    file = table.newest.file
    if by not in {column.name for column in file.guess.columns}:
        by = ""
    is_down = request.GET.get("down") == "1"
    told = {"test": test, "by": by, "is_down": is_down, "first": first, "heads": file.guess.columns}
    told["by_up"] = "" if is_down else by
    try:
        job = file_jobs.ShowRows(
            file=file, test=test, by=by, is_down=is_down, first=first, count=SCREEN
        )
        found = ask(table.pk, job)
    except (LineError, EvaluatorsBusy) as refused:
        return {**told, "rows": [], "count": None, "said": getattr(refused, "text", BUSY)}
    if found.error is not None:
        return {
            **told,
            "rows": [],
            "count": None,
            "said": found.error.text,
            "error_of": found.error,
        }
    following = first + SCREEN if first + SCREEN < found.count else None
    rows = with_kinds(found.rows, file.guess.columns)
    numbered = list(enumerate(rows, first + 1))
    asked = {"first": following, "by": by, "down": int(is_down), "test": test}
    rest = {
        "count": found.count,
        "following": urlencode(asked) if following is not None else "",
        "reading": found.reading,
    }
    return {**told, "rows": numbered, **rest}


@require_safe
def as_csv(request: HttpRequest, pk: UUID) -> HttpResponse:
    """The rows that the filter leaves, as CSV (RFC 4180)."""
    table = _own_table(request, pk)
    test = request.GET.get("test", "")[:500]
    try:
        found = ask(table.pk, file_jobs.AllRows(file=table.newest.file, test=test))
    except (LineError, EvaluatorsBusy) as refused:
        return HttpResponse(getattr(refused, "text", BUSY), status=400, content_type="text/plain")
    response = HttpResponse(content_type="text/csv; charset=utf-8")
    name = quote(f"{table.name}.csv")
    response["Content-Disposition"] = f"attachment; filename*=UTF-8''{name}"
    csv.writer(response).writerows([[safe_cell(cell) for cell in row] for row in found])
    return response


@require_POST
def bring_back(request: HttpRequest, pk: UUID) -> HttpResponse:
    """Puts a deleted table on the shelf again."""
    table = _own_table(request, pk, binned=True)
    try:
        things.bring_back(table)
    except LineError as error:
        return _list(request, error.text, 400)
    return redirect("table", table.pk)
