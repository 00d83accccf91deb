"""Everything that a person keeps, as one zip of open formats, and in again."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from io import BytesIO
from pathlib import PurePosixPath
from typing import IO, Any
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from accounts.models import Person
from console import bringing
from console.models import Sheet
from console.out import document_of
from engine.errors import LineError
from engine.numbers.shelf import OF_PROCEDURE, PREFIX
from engine.out.data import as_json
from procedures.models import Procedure, ProcedureVersion
from records.models import Event, Record
from shelf import things
from shelf.models import DataTable, Version

FORMAT = 1
MOST_BYTES = 100 * 1024 * 1024
"""The zip itself."""

MOST_UNPACKED = 400 * 1024 * 1024
MOST_ENTRIES = 20_000
SETTINGS = ("angle", "log", "numbers", "form")
EVENT = ("part", "kind", "sheet", "number", "text", "answers", "said", "before")
FILE = (
    "file_name", "separator", "point", "has_head", "encoding", "marks", "columns", "rows", "size",
)  # fmt: skip


class NotEverything(LineError):
    sentence = "This file cannot be brought in: {why}."


# -- out ------------------------------------------------------------------------------------


def as_zip(person: Person) -> bytes:
    """A zip with a file for each sheet, procedure, table and record, and a list of them."""
    file = BytesIO()
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
                }
            )
        for version in Version.objects.filter(table__owner=person, table__binned=None):
            with suppress(OSError):
                out.writestr(f"files/{version.pk}", version.path.read_bytes())
        told = {"teapot": FORMAT, "kind": "everything", "things": listed}
        out.writestr("list.json", _json({**told, "made": timezone.now().isoformat()}))
    return file.getvalue()


def _things(person: Person) -> Iterator[tuple[str, Any, str]]:
    for table in person.tables.at_hand():
        yield "table", table, _json({"name": table.name, "versions": _files(table)})
    for procedure in person.procedures.at_hand():
        yield "procedure", procedure, _json(procedure_data(procedure))
    for sheet in person.sheets.at_hand():
        yield "sheet", sheet, as_json(document_of(sheet))
    for record in person.records.at_hand():
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


def procedure_data(procedure: Procedure) -> dict[str, Any]:
    """A procedure with all its versions."""
    return {
        "teapot": FORMAT,
        "kind": "procedure",
        "name": procedure.name,
        "versions": [
            {
                "id": str(version.pk),
                "made": version.made.isoformat(),
                "text": version.text,
                **{name: getattr(version, name) for name in SETTINGS},
            }
            for version in procedure.versions.order_by("made")
        ],
    }


def record_data(record: Record) -> dict[str, Any]:
    """A record with all its events."""
    return {
        "teapot": FORMAT,
        "kind": "record",
        "name": record.name,
        "note": record.note,
        "parts": record.parts,
        "events": [
            {"at": event.at.isoformat(), **{name: getattr(event, name) for name in EVENT}}
            for event in record.events.all()
        ],
    }


# -- in -------------------------------------------------------------------------------------


@dataclass(slots=True)
class BroughtIn:
    """What came in, by kind, and what was left out, since its name was taken."""

    counts: dict[str, int] = field(default_factory=dict)
    left_out: list[str] = field(default_factory=list)


def bring_in(person: Person, file: IO[bytes], leaves_taken: bool = False) -> BroughtIn:
    """Puts all that a zip holds on a person's shelf, or nothing.

    What has a name that is taken comes in under another, or is left out where that is
    ``leaves_taken``.
    Errors: :class:`NotEverything` for what is no such zip.
    """
    made: list[Version] = []
    try:
        with zipfile.ZipFile(file) as packed, transaction.atomic():
            return _Bringing(person, packed, leaves_taken, made).all()
    except NotEverything:
        _forget(made)
        raise
    except (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError) as error:
        _forget(made)
        raise NotEverything(why=f"it is no zip, or a broken one ({str(error)[:60]})") from None
    except (KeyError, TypeError, ValueError, AttributeError, LineError, RecursionError) as error:
        _forget(made)
        why = f"something in it is not as it should be ({str(error)[:80]})"
        raise NotEverything(why=why) from None


def _forget(made: list[Version]) -> None:
    for version in made:
        version.path.unlink(missing_ok=True)


class _Bringing:
    """A zip on its way in; ``versions`` maps what was drawn there to what is here."""

    def __init__(
        self, person: Person, packed: zipfile.ZipFile, leaves_taken: bool, made: list[Version]
    ) -> None:
        self.person = person
        self.packed = packed
        self.leaves_taken = leaves_taken
        self.made = made
        self.versions: dict[str, str] = {}
        self.brought = BroughtIn()

    def all(self) -> BroughtIn:
        self._check_size()
        told = self._json("list.json")
        if told.get("kind") != "everything" or told.get("teapot") != FORMAT:
            raise NotEverything(why="its list is not one of Teapot")
        order = ("table", "procedure", "sheet", "record")
        listed = [one for kind in order for one in told["things"] if one["kind"] == kind]
        for one in listed:
            thing = getattr(self, f"_{one['kind']}")(self._json(one["path"]), one)
            if thing is None:
                self.brought.left_out.append(str(one["name"]))
            else:
                counts = self.brought.counts
                counts[one["kind"]] = counts.get(one["kind"], 0) + 1
        things.say_changed(self.person.pk)
        return self.brought

    def _check_size(self) -> None:
        entries = self.packed.infolist()
        if len(entries) > MOST_ENTRIES:
            raise NotEverything(why=f"it has more than {MOST_ENTRIES:,} files")
        if sum(entry.file_size for entry in entries) > MOST_UNPACKED:
            raise NotEverything(why=f"it unpacks to more than {MOST_UNPACKED // 1024**2} megabytes")
        for entry in entries:
            path = PurePosixPath(entry.filename)
            if path.is_absolute() or ".." in path.parts:
                raise NotEverything(why=f"the path {entry.filename[:60]} leads out of it")

    def _json(self, path: str) -> dict[str, Any]:
        data = json.loads(self.packed.read(path))
        if not isinstance(data, dict):
            raise NotEverything(why=f"{path[:60]} is no object")
        return data

    def _named(self, thing: Any, one: Mapping[str, Any]) -> bool:
        """Gives a thing its name and folder; false where it is to be left out."""
        thing.folder = things.folder_from(str(one.get("folder", "")))
        thing.opened = bringing.moment_from(str(one.get("opened", "")))
        wanted = things.cleaned(str(one["name"]))
        is_taken = type(thing).objects.at_hand().filter(owner=self.person, name=wanted).exists()
        thing.name = things.untaken(thing, wanted) if is_taken else wanted
        return not (is_taken and self.leaves_taken)

    def _table(self, data: dict[str, Any], one: Mapping[str, Any]) -> DataTable | None:
        table = DataTable(owner=self.person)
        if not self._named(table, one):
            return None
        table.save()
        for told in data["versions"]:
            version = Version(owner=self.person, table=table, pk=uuid4())
            for name in FILE:
                setattr(version, name, told[name])
            version.guess  # noqa: B018 - it has to be one
            version.path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            self.made.append(version)
            version.path.write_bytes(self.packed.read(f"files/{told['id']}"))
            version.made = bringing.moment_from(told["made"])
            version.save()
            self.versions[PREFIX + told["id"]] = f"{PREFIX}{version.pk}"
        return table

    def _procedure(self, data: dict[str, Any], one: Mapping[str, Any]) -> Procedure | None:
        procedure = Procedure(owner=self.person)
        if not self._named(procedure, one):
            return None
        procedure.save()
        for told in data["versions"]:
            version = ProcedureVersion(procedure=procedure, text=str(told["text"])[:50_000])
            for name in SETTINGS:
                setattr(version, name, str(told[name])[:60])
            version.save()
            when = bringing.moment_from(told["made"])
            ProcedureVersion.objects.filter(pk=version.pk).update(made=when)
            self.versions[OF_PROCEDURE + told["id"]] = f"{OF_PROCEDURE}{version.pk}"
        return procedure

    def _sheet(self, data: dict[str, Any], one: Mapping[str, Any]) -> Sheet | None:
        document = bringing.document_in(json.dumps(data).encode(), "sheet.json")
        folder = things.folder_from(str(one.get("folder", "")))
        sheet = bringing.made_of(self.person, document, folder, self.versions)
        opened = bringing.moment_from(str(one.get("opened", "")))
        Sheet.objects.filter(pk=sheet.pk).update(opened=opened)
        return sheet

    def _record(self, data: dict[str, Any], one: Mapping[str, Any]) -> Record | None:
        record = Record(owner=self.person, note=str(data["note"]), parts=int(data["parts"]))
        if not self._named(record, one):
            return None
        record.save()
        Event.objects.bulk_create(
            Event(
                record=record,
                at=bringing.moment_from(told["at"]),
                **{name: told[name] for name in EVENT},
            )
            for told in data["events"]
        )
        return record
