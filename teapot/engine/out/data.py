"""A sheet as JSON, whose schema stands beside it in ``sheet.schema.json``."""

from __future__ import annotations

import json
from typing import Any

from teapot.engine.out.document import Document, LineOut

FORMAT = 1
"""The number of the format: it goes up when an older reader would take something wrong."""


def as_json(document: Document) -> str:
    """JSON with all that is kept, and with what was answered."""
    return json.dumps(data_of(document), ensure_ascii=False, indent=1) + "\n"


def data_of(document: Document) -> dict[str, Any]:
    """The same as plain data."""
    return {
        "teapot": FORMAT,
        "kind": "sheet",
        "title": document.title,
        "who": document.who,
        "when": document.when,
        "form": document.form,
        "conventions": dict(document.conventions),
        "versions": dict(document.versions),
        "lines": [_line(line) for line in document.lines],
        "quantities": [
            {
                "name": one.name,
                "sign": one.sign,
                "text": one.text,
                "note": one.note,
                "found": one.is_found,
                "out_of_date": one.is_out_of_date,
            }
            for one in document.quantities
        ],
    }


def _line(line: LineOut) -> dict[str, Any]:
    return {
        "number": line.number,
        "text": line.text,
        "last": line.last,
        "conventions": dict(line.conventions),
        "draws": [list(one) for one in line.draws],
        "kept": line.kept,
        "run": line.run or None,
        "answers": [
            {
                "name": answer["name"],
                "kind": answer["kind"],
                "sign": answer["sign"],
                "text": answer["text"],
                "nearly": answer["nearly"],
                "reading": answer["reading"],
            }
            for answer in line.outcome.get("answers", ())
        ],
        "notices": line.remarks,
        "error": line.said or None,
    }
