"""The data of a thing carried in a file that is meant to be read by people, where a reader of that
format passes over it: so each such file can be brought in again, whole."""

from __future__ import annotations

import json
import re
from typing import Any

WIDTH = 900
"""Characters of a row of comment: TeX reads rows of a few thousand."""

IN_HTML = '<script type="application/json" class="teapot-data">'
IN_MARKDOWN = "<!-- teapot-data "
IN_LATEX = "%teapot-data "
IN_TEXT = "#teapot-data "

_FOUND = re.compile(
    rf"{re.escape(IN_HTML)}(?P<html>.*?)</script>|{re.escape(IN_MARKDOWN)}(?P<markdown>.*?) -->|"
    rf"^{IN_TEXT}(?P<text>.*)$|(?P<latex>(?:^{IN_LATEX}.*\n)+)",
    re.MULTILINE,
)


def carrying(text: str, ending: str, data: dict[str, Any]) -> str:
    """A file of that ending with the data in it; one of another kind as it is.

    >>> carrying("a pot", "md", {"kind": "record"})
    '<!-- teapot-data {"kind": "record"} -->\\n\\na pot'
    """
    said = json.dumps(data)
    if ending == "html":
        row = IN_HTML + said.replace("<", "\\u003c") + "</script>"
        return text.replace("<head>\n", f"<head>\n{row}\n", 1)
    if ending == "md":
        return f"{IN_MARKDOWN}{said.replace('--', '-' + chr(92) + 'u002d')} -->\n\n{text}"
    if ending == "tex":
        rows = (said[at : at + WIDTH] for at in range(0, len(said), WIDTH))
        return "".join(f"{IN_LATEX}{row}\n" for row in rows) + text
    if ending == "txt":
        head, _, rest = text.partition("\n")
        return f"{head}\n{IN_TEXT}{said}\n{rest}"
    return text


def carried(text: str) -> dict[str, Any] | None:
    """The data that a file carries; None where it carries none that is whole.

    >>> carried(carrying("a pot", "txt", {"kind": "record"}))
    {'kind': 'record'}
    """
    found = _FOUND.search(text)
    if found is None:
        return None
    said = found["html"] or found["markdown"] or found["text"] or found["latex"] or ""
    try:
        data = json.loads(re.sub(rf"^{IN_LATEX}|\n", "", said, flags=re.MULTILINE))
    except (ValueError, RecursionError):
        return None
    return data if isinstance(data, dict) else None


def without_carried(text: str) -> str:
    """A plain text without the line of data that it carries.

    >>> without_carried(carrying("2 + 3\\n4", "txt", {"kind": "procedure"}))
    '2 + 3\\n4'
    """
    return re.sub(rf"^{IN_TEXT}.*\n?", "", text, count=1, flags=re.MULTILINE)


def is_carrying(head: str) -> bool:
    """Whether a file that begins so carries data."""
    return any(mark in head for mark in (IN_HTML, IN_MARKDOWN, IN_LATEX, IN_TEXT))
