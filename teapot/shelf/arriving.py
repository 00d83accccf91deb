"""A file that arrives: what it is, by what it holds."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from pathlib import PurePath
from typing import Any, TypeVar

from django.core.files.uploadedfile import UploadedFile
from django.db import IntegrityError, transaction

from teapot.engine.errors import Problem
from teapot.engine.files.dialect import SEPARATORS
from teapot.engine.files.layout import layout_of
from teapot.engine.out.carried import carried, is_carrying
from teapot.engine.out.json_text import WrongData, from_json, why_not
from teapot.engine.out.text import COMMENT, MARK
from teapot.shelf import things
from teapot.shelf.kinds import KINDS

Thing = TypeVar("Thing", bound=Any)

LOOKED_AT = 64 * 1024
"""Bytes at its beginning that say what it is."""

OF_TABLES = frozenset({".csv", ".tsv", ".tab", ".dat", ".gz"})
OF_SPREADSHEETS = frozenset([".xlsx", ".xlsm", ".xlsb", ".xls", ".ods"])
EVERYTHING = "everything"
"""What a zip of all that somebody keeps is brought in as."""

MOST_BYTES = 20 * 1024 * 1024
"""Of one thing."""

NOT_ONE = Problem("not-one", "This file cannot be read as a {kind}: {why}.")
WRONG_DATA = (KeyError, TypeError, ValueError, AttributeError, RecursionError)
"""What data raises that is not as it should be."""

_KIND = re.compile(r'"kind"\s*:\s*("(?:[^"\\]|\\.)*")')


def kind_of(name: str, head: bytes) -> str:
    """What a file is, a kind of thing or everything: it says so itself, or its name does, or rows
    of as many cells each are a table; any other text is a sheet."""
    ending = PurePath(name).suffix.lower()
    if ending in OF_SPREADSHEETS:
        return "table"
    if head[:4] in (b"PK\x03\x04", b"PK\x05\x06"):
        return EVERYTHING
    if ending in OF_TABLES:
        return "table"
    text = head.decode("utf-8", "replace").lstrip("\ufeff")
    if text.lstrip()[:1] == "{" or is_carrying(text):
        found = _KIND.search(text)
        kind = json.loads(found[1]) if found else ""
        return kind if kind in (*KINDS, EVERYTHING) else "sheet"
    if COMMENT in text or MARK in text or ending == ".md":
        return "sheet"
    return "table" if _are_cells(text) else "sheet"


MOST_WHOLE = 20
"""Lines of a text that is looked at whole."""


def _are_cells(text: str) -> bool:
    """Whether a text is a table: most of its lines are rows of numbers, or all are as wide."""
    lines = [row for row in text.splitlines() if row.strip()]
    if len(lines) > MOST_WHOLE:
        lines.pop()  # the end of what was looked at may be in its midst
    found = layout_of("\n".join(lines), SEPARATORS)
    if found is not None and found.separator in SEPARATORS:
        body = lines[found.above : len(lines) - found.below][found.has_head :]
        if len(body) > 1 and not any(set(row) & set("=({") for row in body):
            return True
    rows = lines[:50]
    if any(set(row) & set("=([{") for row in rows):  # a line that is typed
        return False
    return len(rows) > 1 and any(
        len(counts := {row.count(sign) for row in rows}) == 1 and 0 not in counts
        for sign in ("\t", ";", ",")
    )


def name_of(file: UploadedFile) -> str:
    """What a thing is called that comes as this file."""
    return PurePath((file.name or "").removesuffix(".gz")).stem.replace("_", " ")


def data_in(file: UploadedFile, kind: str) -> dict[str, Any] | None:
    """The data of that kind that a file is or carries; None where it has none.

    Errors: :data:`NOT_ONE` where it is too large, broken, or of another kind.
    """
    text = file.read(MOST_BYTES + 1)
    file.seek(0)
    if len(text) > MOST_BYTES:
        raise NOT_ONE(kind=kind, why=f"it has more than {MOST_BYTES // 1024**2} megabytes")
    if text.lstrip()[:1] == b"{":
        try:
            data = from_json(text)
        except WrongData as error:
            raise NOT_ONE(kind=kind, why=why_not(error)) from None
    else:
        data = carried(text.decode("utf-8", "replace"))
    if data is None:
        return None
    if not isinstance(data, dict) or data.get("kind") != kind:
        raise NOT_ONE(kind=kind, why="its JSON is of another kind")
    return data


def made(thing: Thing, data: dict[str, Any], fill: Callable[[Any, Any], object]) -> Thing:
    """A thing that is made of such data, under a name of its own.

    Errors: :data:`NOT_ONE` where something in it is wrong.
    """
    try:
        with transaction.atomic():
            thing.name = thing.untaken(things.cleaned(str(data["name"])))
            fill(data, thing)
            things.say_changed(thing.owner_id)
    except (*WRONG_DATA, IntegrityError) as error:
        raise NOT_ONE(kind=thing.word, why=why_not(error)) from None
    return thing
