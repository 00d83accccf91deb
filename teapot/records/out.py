"""Records as files: as a lab book reads, in each of the open formats."""

from __future__ import annotations

import csv
import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from html import escape
from io import StringIO

from django.utils import timezone
from django.utils.formats import date_format

from teapot.engine.out.carried import carrying
from teapot.engine.out.cells import safe_cell
from teapot.engine.out.latex import HEAD, words
from teapot.engine.out.text import MARK, plain
from teapot.records.data import record_data
from teapot.records.models import Event, Record
from teapot.records.writing import KINDS
from teapot.shelf.saving import whole_style

BETWEEN = ("began", "stopped", "afterwards")
"""What is of a part of the record and of no line."""


def rows_of(record: Record) -> Iterator[tuple[Event, str, str, list[str]]]:
    """Each event: its time, what happened, and what was typed and answered, row by row."""
    for event in record.events.all():
        moment = timezone.localtime(event.at)
        when = f"{date_format(moment, 'j M Y')} {date_format(moment, 'H:i:s')}"
        what = KINDS[event.kind] + (f", line {event.number}" if event.number else "")
        if event.kind in BETWEEN:
            what += f": {event.sheet}, part {event.part}"
        yield event, when, what, list(_told(event))


def _told(event: Event) -> Iterator[str]:
    if event.before and event.before["text"] != event.text:
        yield f"before: {event.before['text']}"
    if event.text:
        yield event.text
    yield from map("  {}".format, _answers(event))
    if event.said:
        yield f"  ({event.said})"


def _answers(event: Event) -> Iterator[str]:
    if event.kind == "deleted":
        return
    for answer in event.answers:
        name = f"{answer['name']} " if answer["name"] else ""
        nearly = f" ≈ {answer['nearly']}" if answer["nearly"] else ""
        yield f"{name}{answer['sign']} {answer['text']}{nearly}"


def as_text(record: Record) -> str:
    """Plain text that is read again: new lines are lines, all else stands in notes."""
    rows = [f"# {record.name}"]
    rows += [f"# {row}" for row in record.note.splitlines()]
    numbers: set[int] = set()
    for event, when, what, told in rows_of(record):
        rows.append(f"# {when}  {what}")
        if event.kind == "new" and event.number and event.number not in numbers:
            numbers.add(event.number)
            many = event.text.count("\n") + 1
            rows.append(f"{MARK} {json.dumps({'number': event.number, 'rows': many})}")
            rows.append(event.text)
            told = [*map("  {}".format, _answers(event))]
        rows += [f"#     {row}" for one in told for row in one.splitlines()]
    return "\n".join(rows) + "\n"


def as_markdown(record: Record) -> str:
    """Markdown: what was typed and answered as code."""
    parts = [f"# {plain(record.name)}", *filter(None, [plain(record.note)])]
    for _, when, what, told in rows_of(record):
        body = "\n".join(f"    {row}" for one in told for row in one.splitlines())
        parts += [f"**{when}** {plain(what)}", body]
    return "\n\n".join(filter(None, parts)) + "\n"


def as_latex(record: Record) -> str:
    """A LaTeX document."""
    parts = [HEAD, rf"\section*{{{words(record.name)}}}", words(record.note), ""]
    for _, when, what, told in rows_of(record):
        parts.append(rf"\par\medskip {{\small {words(when)}}}\quad {words(what)}\par")
        parts += [rf"\texttt{{{words(row)}}}\par" for one in told for row in one.splitlines()]
    return "\n".join(parts) + "\n\\end{document}\n"


def as_csv(record: Record) -> str:
    """A row for each event (RFC 4180)."""
    file = StringIO()
    rows = csv.writer(file)
    rows.writerow(["time", "event", "part", "sheet", "line", "typed", "answer", "said", "before"])
    for event in record.events.all():
        before = event.before["text"] if event.before else ""
        cells = (
            event.at.isoformat(), KINDS[event.kind], str(event.part), event.sheet,
            str(event.number or ""), event.text, "; ".join(_answers(event)), event.said, before,
        )  # fmt: skip
        rows.writerow(map(safe_cell, cells))
    return file.getvalue()


def as_html(record: Record, style: str) -> str:
    """A page that stands alone, fit to be printed."""
    rows = "".join(
        f"<tr><td>{escape(when)}</td><td>{escape(what)}</td><td>"
        + "<br>".join(f"<code>{escape(one)}</code>" for one in told)
        + "</td></tr>\n"
        for _, when, what, told in rows_of(record)
    )
    return (
        '<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n'
        '<meta name="viewport" content="width=device-width, initial-scale=1">\n'
        f"<title>{escape(record.name)}</title>\n<style>{style}</style>\n</head>\n<body>\n<main>\n"
        f"<header><h1>{escape(record.name)}</h1><p>{escape(record.note)}</p></header>\n"
        f'<table class="quantities"><tbody>\n{rows}</tbody></table>\n</main>\n</body>\n</html>\n'
    )


def as_json(record: Record) -> str:
    """JSON with all that it holds."""
    return json.dumps(record_data(record), ensure_ascii=False, indent=1) + "\n"


@dataclass(frozen=True, slots=True)
class RecordFormat:
    """How a record is written, and what the file is."""

    write: Callable[[Record], str]
    mime: str
    words: str


def saved(record: Record, ending: str) -> str:
    """A record in a format, which can be brought in again."""
    return carrying(FORMATS[ending].write(record), ending, record_data(record))


FORMATS = {
    "txt": RecordFormat(as_text, "text/plain", "plain text, a line for each event"),
    "md": RecordFormat(as_markdown, "text/markdown", "Markdown"),
    "html": RecordFormat(
        lambda it: as_html(it, whole_style()), "text/html", "a page that stands alone"
    ),
    "tex": RecordFormat(as_latex, "application/x-latex", "LaTeX"),
    "csv": RecordFormat(as_csv, "text/csv", "a table of its events"),
    "json": RecordFormat(as_json, "application/json", "everything in it, to be read by programs"),
}
"""The formats that a record goes out in, by the ending of the file."""
