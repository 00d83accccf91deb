"""Records as files: as a lab book reads, in text, Markdown, HTML and JSON."""

from __future__ import annotations

from collections.abc import Iterator
from html import escape

from django.utils import timezone
from django.utils.formats import date_format

from engine.out.page import style_for
from records.models import Event, Record
from records.writing import KINDS


def rows_of(record: Record) -> Iterator[tuple[str, str, list[str]]]:
    """Each event: its time, what happened, and what was typed and answered, row by row."""
    for event in record.events.all():
        moment = timezone.localtime(event.at)
        when = f"{date_format(moment, 'j M Y')} {date_format(moment, 'H:i:s')}"
        what = KINDS[event.kind] + (f", line {event.number}" if event.number else "")
        if event.kind in ("began", "stopped", "afterwards"):
            what += f": {event.sheet}, part {event.part}"
        yield when, what, list(_told(event))


def _told(event: Event) -> Iterator[str]:
    if event.before and event.before["text"] != event.text:
        yield f"before: {event.before['text']}"
    if event.text:
        yield event.text
    if event.kind != "deleted":
        for answer in event.answers:
            name = f"{answer['name']} " if answer["name"] else ""
            nearly = f" ≈ {answer['nearly']}" if answer["nearly"] else ""
            yield f"  {name}{answer['sign']} {answer['text']}{nearly}"
    if event.said:
        yield f"  ({event.said})"


def as_text(record: Record) -> str:
    """Plain text."""
    rows = [f"# {record.name}"]
    rows += [f"# {row}" for row in record.note.splitlines()]
    for when, what, told in rows_of(record):
        rows.append(f"{when}  {what}")
        rows += [f"    {row}" for one in told for row in one.splitlines()]
    return "\n".join(rows) + "\n"


def as_markdown(record: Record) -> str:
    """Markdown: what was typed and answered as code."""
    parts = [f"# {record.name}", *filter(None, [record.note])]
    for when, what, told in rows_of(record):
        body = "\n".join(f"    {row}" for one in told for row in one.splitlines())
        parts += [f"**{when}** {what}", body]
    return "\n\n".join(filter(None, parts)) + "\n"


def as_html(record: Record) -> str:
    """A page that stands alone."""
    rows = "".join(
        f"<tr><td>{escape(when)}</td><td>{escape(what)}</td><td>"
        + "<br>".join(f"<code>{escape(one)}</code>" for one in told)
        + "</td></tr>\n"
        for when, what, told in rows_of(record)
    )
    return (
        '<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n'
        f"<title>{escape(record.name)}</title>\n<style>{style_for()}</style>\n</head>\n<body>\n"
        f"<header><h1>{escape(record.name)}</h1><p>{escape(record.note)}</p></header>\n"
        f'<table class="quantities"><tbody>\n{rows}</tbody></table>\n</body>\n</html>\n'
    )
