"""Text, Markdown and JSON read as a sheet again."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from teapot.engine.errors import LineError, Problem
from teapot.engine.numbers.context import STANDARD as USUAL
from teapot.engine.out.carried import carried
from teapot.engine.out.data import FORMAT
from teapot.engine.out.document import CONVENTIONS, Document, LineOut
from teapot.engine.out.json_text import WrongData, from_json, why_not
from teapot.engine.out.text import COMMENT, MARK
from teapot.engine.parsing.rows import lines_in
from teapot.engine.reading.forms import STANDARD, form_from
from teapot.engine.sheet.settings import CHOICES

MOST_LINES = 20_000
MOST_ROWS = 2 * MOST_LINES
"""Rows of a text, of which a line may have several: each is looked at for what goes on in it."""

MOST_BYTES = 20 * 1024 * 1024
LONGEST_TEXT = 200_000


NOT_A_SHEET = Problem("not-a-sheet", "This file cannot be read as a sheet: {why}.")


class NotASheet(LineError):
    """A file that holds no sheet."""

    def __init__(self, why: str) -> None:
        super().__init__(NOT_A_SHEET, why=why)


def document_from(text: str, name: str = "") -> Document:
    """The sheet that a file holds, with lines as they were kept and no answers, but for the
    errors that lines had.

    Errors: :class:`NotASheet` with the place and the reason.
    """
    if len(text) > MOST_BYTES:
        raise NotASheet(why=f"it has more than {MOST_BYTES // 1024**2} megabytes")
    if "\x00" in text:
        raise NotASheet(why="it holds no text")
    text = text.lstrip("\ufeff").replace("\r\n", "\n")
    data = carried(text)
    if data is not None:
        document = _from_data(data)
    elif text.lstrip()[:1] == "{":
        document = _from_json(text)
    elif COMMENT in text:
        document = _from_markdown(text)
    else:
        document = _from_text(text, name)
    if len(document.lines) > MOST_LINES:
        raise NotASheet(why=f"it has more than {MOST_LINES:,} lines")
    return document


def _from_json(text: str) -> Document:
    try:
        return _from_data(from_json(text))
    except WrongData as error:
        raise NotASheet(why=why_not(error)) from None


def _from_data(data: object) -> Document:
    if not isinstance(data, dict) or data.get("kind") != "sheet":
        raise NotASheet(why="its JSON is not that of a sheet")
    if data.get("teapot") != FORMAT:
        raise NotASheet(why=f"it is of format {data.get('teapot')!s:.20}, and {FORMAT} is read")
    lines = data.get("lines")
    if not isinstance(lines, list):
        raise NotASheet(why="it has no list of lines")
    if len(lines) > MOST_LINES:
        raise NotASheet(why=f"it has more than {MOST_LINES:,} lines")
    told = {**_dict(data.get("conventions")), "form": data.get("form", STANDARD.text)}
    told["versions"] = data.get("versions", {})
    each = [_dict(line) | _dict(_dict(line).get("conventions")) for line in lines]
    return _made(str(data.get("title", "")), told, each)


def _from_markdown(text: str) -> Document:
    title, told = "", dict[str, Any]()
    lines: list[dict[str, Any]] = []
    for row in text.split("\n"):
        if row.startswith("# ") and not title:
            title = row[2:].replace("\\", "")
        if row.startswith(COMMENT) and row.rstrip().endswith("-->"):
            data = _json_row(row[len(COMMENT) :].rstrip()[:-3], len(lines) + 1)
            if "sheet" in data:
                told = _dict(data["sheet"])
            else:
                lines.append(data)
    return _made(title, told, lines)


def _from_text(text: str, name: str) -> Document:
    if text.count("\n") >= MOST_ROWS:  # before each row takes memory
        raise NotASheet(why=f"it has more than {MOST_ROWS:,} rows")
    rows = text.split("\n")
    title, told = name, dict[str, Any]()
    lines: list[dict[str, Any]] = []
    at = 0
    if rows[0].startswith("# "):
        title, at = rows[0][2:].strip(), 1
    free: list[str] = []

    def take_free() -> None:
        """Rows of which nothing is told are read as those that are typed."""
        lines.extend({"text": line} for line in lines_in("\n".join(free)))
        free.clear()

    while at < len(rows):
        row = rows[at]
        at += 1
        if not row.startswith(MARK):
            free.append(row)
            continue
        take_free()
        data = _json_row(row[len(MARK) :], at)
        if "sheet" in data:
            told = _dict(data["sheet"])
            continue
        many = _whole(data.get("rows", 1), "rows", at)
        lines.append(data | {"text": "\n".join(rows[at : at + many])})
        at += many
    take_free()
    return _made(title, told, lines)


def _json_row(row: str, at: int) -> dict[str, Any]:
    try:
        return _dict(from_json(row))
    except WrongData:
        raise NotASheet(why=f"what is told at row {at} is no JSON") from None


def _dict(value: object) -> dict[str, Any]:
    return value if isinstance(value, dict) else {}


def _whole(value: object, what: str, at: int) -> int:
    if not isinstance(value, int) or isinstance(value, bool) or not 0 < value < 10**9:
        raise NotASheet(why=f"{what} at line {at} is no whole number")
    return value


def _made(title: str, told: Mapping[str, Any], lines: list[dict[str, Any]]) -> Document:
    is_typed = not told and all(line.keys() <= {"text"} for line in lines)
    usual = CONVENTIONS | {"units": USUAL.units} if is_typed else CONVENTIONS
    conventions = _conventions(told, usual)
    form = str(told.get("form", STANDARD.text))[:60]
    try:
        form_from(form)
    except LineError:
        raise NotASheet(why=f"it has the form {form}, which is none") from None
    versions = {str(k): str(v) for k, v in _dict(told.get("versions")).items()}
    return Document(
        title=" ".join(title.split())[:120] or "Untitled sheet",
        form=form,
        conventions=conventions,
        versions=versions,
        lines=tuple(_lines(lines, conventions)),
    )


def _lines(lines: list[dict[str, Any]], usual: Mapping[str, str]) -> Iterator[LineOut]:
    number, seen = 0, set()
    for at, line in enumerate(lines, 1):
        text = line.get("text")
        if not isinstance(text, str) or len(text) > LONGEST_TEXT:
            raise NotASheet(why=f"line {at} has no text, or too long a one")
        if not text.strip():
            continue
        number = _whole(line.get("number", number + 1), "the number", at)
        if number in seen:
            raise NotASheet(why=f"there are two lines of number {number}")
        seen.add(number)
        last = line.get("last")
        draws = line.get("draws", [])
        if not are_draws(draws):
            raise NotASheet(why=f"what was drawn for line {number} is no list of texts")
        yield LineOut(
            number=number,
            text=text,
            last=None if last is None else _whole(last, "the last answer", at),
            conventions=_conventions(line, usual),
            draws=draws,
            kept=str(line.get("kept", ""))[:40],
            run=str(line.get("run") or "")[:40],
            outcome={"error": {"text": str(line["error"])}} if line.get("error") else {},
        )


UNITS = ("dimensions", "names")
"""How names are read that are units and quantities both."""


def are_draws(draws: object) -> bool:
    """Whether that can have been drawn for the statements of a line."""
    return isinstance(draws, list) and all(
        isinstance(one, list) and all(isinstance(value, str) for value in one) for one in draws
    )


def _conventions(told: Mapping[str, Any], usual: Mapping[str, str]) -> dict[str, str]:
    found = {name: told.get(name, usual[name]) for name in CONVENTIONS}
    for name, value in found.items():
        if value not in (UNITS if name == "units" else CHOICES[name]):
            raise NotASheet(why=f"{name} cannot be {value!s:.20}")
    return found
