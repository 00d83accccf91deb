"""Cells of a file that a spreadsheet program opens."""

from __future__ import annotations

import re

_NUMBER = re.compile(r"[-+]?\d*\.?\d*(?:e[-+]?\d+)?")


def safe_cell(cell: str) -> str:
    """A cell that a spreadsheet program does not take for a formula (OWASP, CSV injection)."""
    looks_like_one = cell[:1] in ("=", "+", "-", "@", "\t", "\r")
    return f"'{cell}" if looks_like_one and not _NUMBER.fullmatch(cell) else cell
