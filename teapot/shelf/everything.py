"""Everything that a person keeps, as one zip of open formats; :mod:`teapot.shelf.everything_in`
reads it."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Iterator
from contextlib import suppress
from typing import IO, Any

from django.utils import timezone

from teapot.accounts.models import Person
from teapot.console.out import document_of
from teapot.engine.out.data import as_json
from teapot.procedures.data import procedure_data
from teapot.records.data import record_data
from teapot.shelf.models import DataTable, Version

FORMAT = 1

FILE = (
    "file_name", "separator", "point", "has_head", "encoding", "marks", "columns", "rows", "size",
)  # fmt: skip


def write_zip(person: Person, file: IO[bytes]) -> None:
    """Writes a zip with a file for each sheet, procedure, table and record, and a list of them.

    Errors: :class:`LineError`, :class:`Busy` where lines cannot be worked out just now.
    """
    listed: list[dict[str, Any]] = []
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as out:
        for kind, thing, written in _things(person):
            path = f"{kind}s/{len(listed) + 1:05d}.json"
            out.writestr(path, written)
            listed.append(
                {
                    "kind": kind,
                    "path": path,
                    "name": thing.name_shown,
                    "folder": thing.folder,
                    "opened": thing.opened.isoformat(),
                    "binned": thing.binned and thing.binned.isoformat(),
                }
            )
        for version in Version.objects.filter(table__owner=person):
            with suppress(OSError):
                out.write(version.path, f"files/{version.pk}")
        told = {"teapot": FORMAT, "kind": "everything", "things": listed}
        out.writestr("list.json", _json({**told, "made": timezone.now().isoformat()}))


def _things(person: Person) -> Iterator[tuple[str, Any, str]]:
    for table in person.tables.all():
        yield "table", table, _json({"name": table.name, "versions": _files(table)})
    for procedure in person.procedures.all():
        yield "procedure", procedure, _json(procedure_data(procedure))
    for sheet in person.sheets.all():
        yield "sheet", sheet, as_json(document_of(sheet))
    for record in person.records.all():
        yield "record", record, _json(record_data(record))


def _json(data: object) -> str:
    return json.dumps(data, ensure_ascii=False, indent=1)


def _files(table: DataTable) -> list[dict[str, Any]]:
    return [
        {
            "id": str(version.pk),
            "made": version.made.isoformat(),
            **{name: getattr(version, name) for name in FILE},
        }
        for version in table.versions.order_by("made")
    ]
