"""A file that arrives: what it is, by what it holds."""

from __future__ import annotations

import json
import re
from pathlib import PurePath

from teapot.engine.out.text import COMMENT, MARK

LOOKED_AT = 64 * 1024
"""Bytes at its beginning that say what it is."""

OF_TABLES = frozenset({".csv", ".tsv", ".tab", ".dat"})
KINDS = ("sheet", "procedure", "record", "table", "everything")
"""What a file can be brought in as."""

_KIND = re.compile(r'"kind"\s*:\s*("(?:[^"\\]|\\.)*")')


def kind_of(name: str, head: bytes) -> str:
    """What a file is, one of :data:`KINDS`: it says so itself, or its name does, or rows of as
    many cells each are a table; any other text is a sheet."""
    if head[:4] in (b"PK\x03\x04", b"PK\x05\x06"):
        return "everything"
    ending = PurePath(name).suffix.lower()
    if ending in OF_TABLES:
        return "table"
    text = head.decode("utf-8", "replace").lstrip("\ufeff")
    if text.lstrip()[:1] == "{":
        found = _KIND.search(text)
        kind = json.loads(found[1]) if found else ""
        return kind if kind in KINDS else "sheet"
    if COMMENT in text or MARK in text or ending == ".md":
        return "sheet"
    return "table" if _are_cells(text) else "sheet"


def _are_cells(text: str) -> bool:
    rows = [row for row in text.splitlines()[:51] if row.strip()][:50]
    if any(set(row) & set("=([{") for row in rows):  # a line that is typed
        return False
    return len(rows) > 1 and any(
        len(counts := {row.count(sign) for row in rows}) == 1 and 0 not in counts
        for sign in ("\t", ";", ",")
    )
