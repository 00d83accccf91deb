"""Sheets that go out: what is kept of them as a document, in one of its formats."""

from __future__ import annotations

import hashlib
from base64 import b64encode
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache
from urllib.parse import quote

from csp.constants import SELF
from csp.decorators import csp_replace
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from django.utils.formats import date_format

from teapot.console import evaluating
from teapot.console.models import Line, Sheet
from teapot.engine.errors import LineError
from teapot.engine.out.data import as_json
from teapot.engine.out.document import Document, LineOut, QuantityOut
from teapot.engine.out.latex import as_latex
from teapot.engine.out.page import FONTS, PAPERS, as_html, style_for
from teapot.engine.out.quantities import as_csv
from teapot.engine.out.text import as_markdown, as_text
from teapot.engine.sheet.quantities import Quantity
from teapot.fence.out_jobs import MoreOfLine, MoreOfLines, QuantitiesOfLines
from teapot.fence.turns import EvaluatorsBusy
from teapot.shelf.settings_of_lines import UnderConventions
from teapot.shelf.version_refs import names_in


@dataclass(frozen=True, slots=True)
class Format:
    """How a document is written, and what the file is; ``latex`` where it needs that."""

    write: Callable[[Document], str]
    mime: str
    words: str
    latex: bool = False


FORMATS = {
    "txt": Format(as_text, "text/plain", "plain text, which can be brought in again"),
    "md": Format(as_markdown, "text/markdown", "Markdown, the mathematics as LaTeX", latex=True),
    "html": Format(lambda it: as_html(it, whole_style()), "text/html", "a page that stands alone"),
    "tex": Format(as_latex, "application/x-latex", "LaTeX", latex=True),
    "csv": Format(as_csv, "text/csv", "the quantities as CSV"),
    "json": Format(as_json, "application/json", "JSON, all that is kept"),
}
"""The formats that a sheet goes out in, by the ending of the file."""


TOO_SLOW = "it takes too long to be worked out again, and the answer is an older one"


def document_of(
    sheet: Sheet,
    numbers: Sequence[int] = (),
    who: str = "",
    latex: bool = False,
    workings: bool = False,
) -> Document:
    """A sheet, or the lines of these ``numbers``, with their answers made fresh.

    Errors: :class:`LineError`, :class:`EvaluatorsBusy` where they cannot be worked out just now.
    """
    lines = sheet.lines.present().order_by("place")
    chosen = list(lines.filter(number__in=numbers) if numbers else lines)
    evaluating.refresh_all(sheet, chosen)
    more = _more(sheet, [line.number for line in chosen], latex, workings)
    job = QuantitiesOfLines(numbers=[line.number for line in chosen])
    of_lines = evaluating.work_or_raise(sheet, job)
    late = {one.line: one.why for one in of_lines.out_of_date}
    late |= {line.number: TOO_SLOW for line in chosen if not line.is_fresh}
    nothing = MoreOfLine((), ())
    return Document(
        title=sheet.title,
        who=who,
        when=date_format(timezone.localtime(), "j F Y"),
        form=sheet.form,
        conventions=conventions_in(sheet),
        lines=tuple(
            _line(line, more.get(line.number, nothing), late.get(line.number, ""))
            for line in chosen
        ),
        quantities=tuple(_quantity(one) for one in of_lines.quantities if one.text),
        versions=names_in(value for line in chosen for one in line.draws for value in one),
    )


def _more(sheet: Sheet, numbers: list[int], latex: bool, workings: bool) -> dict[int, MoreOfLine]:
    found: dict[int, MoreOfLine] = {}
    if not latex and not workings:
        return found
    for start in range(0, len(numbers), evaluating.AT_ONCE):
        job = MoreOfLines(
            numbers=numbers[start : start + evaluating.AT_ONCE], latex=latex, workings=workings
        )
        found |= evaluating.work(sheet, job) or {}
    return found


def conventions_in(of: UnderConventions) -> dict[str, str]:
    return {"angle": of.angle, "log": of.log, "numbers": of.numbers}


def _line(line: Line, more: MoreOfLine, late: str) -> LineOut:
    return LineOut(
        number=line.number,
        text=line.text,
        last=line.last,
        conventions=conventions_in(line),
        draws=line.draws,
        kept=line.kept.isoformat(),
        run=str(line.run_id or ""),
        outcome=line.outcome,
        latex=more.latex,
        steps=more.steps,
        late=late,
    )


def _quantity(one: Quantity) -> QuantityOut:
    return QuantityOut(
        name=one.name,
        name_mathml=one.name_mathml,
        sign=one.sign,
        text=one.text,
        value_mathml=one.value_mathml,
        note=one.description,
        is_found=one.is_found,
        is_out_of_date=bool(one.reason),
    )


def saved_as(document: Document, ending: str) -> HttpResponse:
    """A document as a file to save; ``ending`` is one of :data:`FORMATS`."""
    wanted = FORMATS[ending]
    return attached(document.title, ending, wanted.mime, wanted.write(document))


def attached(name: str, ending: str, mime: str, text: str) -> HttpResponse:
    """Text as a file to save."""
    response = HttpResponse(text, content_type=f"{mime}; charset=utf-8")
    quoted = quote(f"{name[:80]}.{ending}", safe="")
    response["Content-Disposition"] = f"attachment; filename*=UTF-8''{quoted}"
    return response


def or_why_not(make: Callable[[], HttpResponse]) -> HttpResponse:
    """What is made, or the sentence that says why it cannot be just now."""
    try:
        return make()
    except LineError as refused:
        said = refused.text
    except EvaluatorsBusy:
        said = evaluating.BUSY_NOW.text
    return HttpResponse(said, status=503, content_type="text/plain; charset=utf-8")


def printed(request: HttpRequest, document: Document) -> HttpResponse:
    """The page of a document, to be printed."""
    return page_to_print(request, lambda style: as_html(document, style))


def page_to_print(request: HttpRequest, write: Callable[[str], str]) -> HttpResponse:
    """A page to be printed on the ``paper`` that is asked for; ``write`` makes it with a style.
    It may use that style and its fonts, and nothing else."""
    paper = request.GET.get("paper", "a4")
    if paper not in PAPERS:
        raise Http404
    style = whole_style(paper)
    response = HttpResponse(write(style))
    policy = {"default-src": [SELF], "style-src": [_hash(style)], "font-src": ["data:"]}
    return csp_replace(policy)(lambda _: response)(request)


def _hash(style: str) -> str:
    return f"'sha256-{b64encode(hashlib.sha256(style.encode()).digest()).decode()}'"


def whole_style(paper: str = "a4") -> str:
    """The style of a page that stands alone, with its fonts in it."""
    return style_for(paper, _fonts())


@cache
def _fonts() -> tuple[tuple[str, str], ...]:
    folder = settings.ROOT / "teapot" / "static" / "teapot" / "dist" / "fonts"
    files = ((name, (folder / f"{file}.woff2").read_bytes()) for name, file in FONTS)
    return tuple((name, "data:font/woff2;base64," + b64encode(it).decode()) for name, it in files)
