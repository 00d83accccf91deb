"""A sheet as plain text that is read again, and as Markdown.

In plain text what cannot be read off a line stands before it after ``#:``, as JSON; in
Markdown in a comment.  Both are notes for whoever reads them otherwise.
"""

from __future__ import annotations

import json
from collections.abc import Iterator

from teapot.engine.out.document import Document, LineOut, metadata, metadata_of_line

MARK = "#:"
COMMENT = "<!-- teapot "


def as_text(document: Document) -> str:
    """Plain text: a line is a line."""
    return "\n".join(_rows(document)) + "\n"


def _rows(document: Document) -> Iterator[str]:
    yield f"# {document.title}"
    yield f"{MARK} {json.dumps({'sheet': metadata(document)}, ensure_ascii=False)}"
    expected = 1
    for line in document.lines:
        told = metadata_of_line(line, document, expected)
        rows = line.text.count("\n") + 1
        if rows > 1:
            told["rows"] = rows
        if line.text.startswith(MARK) or not line.text.strip():
            told["rows"] = rows
        if told:
            yield f"{MARK} {json.dumps(told, ensure_ascii=False)}"
        yield line.text
        expected = line.number + 1


def as_markdown(document: Document) -> str:
    """Markdown, the mathematics as LaTeX between dollar signs."""
    parts = [f"# {plain(document.title)}"]
    about = ", ".join(filter(None, (document.who, document.when)))
    if about:
        parts.append(f"*{plain(about)}*")
    parts.append(_comment({"sheet": metadata(document)}))
    expected = 1
    for line in document.lines:
        told = {**metadata_of_line(line, document, expected), "text": line.text}
        expected = line.number + 1
        parts.append("\n".join((_comment(told), _line(line))))
    return "\n\n".join(parts) + "\n"


def _line(line: LineOut) -> str:
    if line.is_note:
        return plain(line.note) or "&nbsp;"
    fence = "``" if "`" in line.typed else "`"
    typed = line.typed.replace("\n", " ")
    head = f"**{line.number}** {fence}{typed}{fence} {plain(line.note)}".rstrip()
    formulas = [f"$$\n{latex}\n$$" for latex in line.latex] if line.answers else []
    steps = [f"- `{step.input} {step.sign} {step.text}`" for step in line.steps]
    remarks = [f"> {plain(remark)}" for remark in (*line.remarks, *filter(None, [line.said]))]
    return "\n\n".join(filter(None, (head, "\n\n".join(formulas), "\n".join(steps), *remarks)))


def _comment(told: dict[str, object]) -> str:
    """JSON in which nothing ends a comment."""
    written = json.dumps(told, ensure_ascii=False).replace("-", "\\u002d").replace(">", "\\u003e")
    return f"{COMMENT}{written} -->"


def plain(text: str) -> str:
    """Text in which Markdown sees no signs of its own."""
    return "".join(f"\\{sign}" if sign in "\\`*_{}[]<>#|$" else sign for sign in text)
