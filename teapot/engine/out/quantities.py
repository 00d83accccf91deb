"""The quantities of a sheet as CSV (RFC 4180)."""

from __future__ import annotations

import csv
from io import StringIO

from teapot.engine.out.cells import safe_cell
from teapot.engine.out.document import Document


def as_csv(document: Document) -> str:
    """A row for each quantity: its value, whether that is exact, its note and its group."""
    file = StringIO()
    rows = csv.writer(file)
    rows.writerow(["name", "value", "exact", "note", "group", "out of date"])
    for one in document.quantities:
        group = "found" if one.is_found else "given"
        late = "yes" if one.is_out_of_date else "no"
        exact = "yes" if one.sign == "=" else "no"
        rows.writerow(map(safe_cell, (one.name, one.text, exact, one.note, group, late)))
    return file.getvalue()
