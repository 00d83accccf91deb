"""Documents as files to save and as pages to print."""

from __future__ import annotations

import hashlib
from base64 import b64encode
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any
from urllib.parse import quote

from csp.constants import SELF
from csp.decorators import csp_replace
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse

from teapot.engine.errors import LineError
from teapot.engine.out.carried import carrying
from teapot.engine.out.data import as_json, data_of
from teapot.engine.out.document import Document
from teapot.engine.out.latex import as_latex
from teapot.engine.out.page import FONTS, PAPERS, as_html, style_for
from teapot.engine.out.quantities import as_csv
from teapot.engine.out.text import as_markdown, as_text
from teapot.engine.sentences.work import BUSY
from teapot.fence.turns import EvaluatorsBusy
from teapot.shelf.settings_of_lines import UnderConventions


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


def conventions_in(of: UnderConventions) -> dict[str, str]:
    """What is set for lines, as a document has it."""
    return {"angle": of.angle, "log": of.log, "numbers": of.numbers, "units": of.units}


CARRY_SHEETS = ("html", "tex")
"""Formats in which a sheet is carried whole; in the others it can be read off."""


def saved_as(document: Document, ending: str, data: dict[str, Any] | None = None) -> HttpResponse:
    """A document as a file to save; ``ending`` is one of :data:`FORMATS`.  Where it stands for
    something else than a sheet, ``data`` is that."""
    wanted = FORMATS[ending]
    text = wanted.write(document)
    if data is not None or ending in CARRY_SHEETS:
        text = carrying(text, ending, data or data_of(document))
    return attached(document.title, ending, wanted.mime, text)


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
        said = BUSY.sentence
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
