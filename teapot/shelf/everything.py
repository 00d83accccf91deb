"""Everything that a person keeps, as one zip of open formats; :mod:`teapot.shelf.everything_in`
reads it."""

from __future__ import annotations

import json
import zipfile
from contextlib import suppress
from typing import IO, Any

from django.utils import timezone

from teapot.accounts.models import Person
from teapot.shelf.kinds import KINDS

FORMAT = 1


def write_zip(person: Person, file: IO[bytes]) -> None:
    """Writes a zip with a file for each sheet, procedure, table and record, and a list of them.

    Errors: :class:`LineError`, :class:`Busy` where lines cannot be worked out just now.
    """
    listed: list[dict[str, Any]] = []
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as out:
        for kind in KINDS.values():
            for thing in kind.model.objects.filter(owner=person):
                path = f"{kind.word}s/{len(listed) + 1:05d}.json"
                out.writestr(path, kind.written(thing))
                listed.append(
                    {
                        "kind": kind.word,
                        "path": path,
                        "name": thing.name_shown,
                        "folder": thing.folder,
                        "opened": thing.opened.isoformat(),
                        "binned": thing.binned and thing.binned.isoformat(),
                    }
                )
            for held, name in kind.files(person):
                with suppress(OSError):
                    out.write(held, f"files/{name}")
        told = {"teapot": FORMAT, "kind": "everything", "things": listed}
        out.writestr("list.json", as_json({**told, "made": timezone.now().isoformat()}))


def as_json(data: object) -> str:
    """Plain data as it stands in a file."""
    return json.dumps(data, ensure_ascii=False, indent=1)
