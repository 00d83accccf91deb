"""Everything that a person keeps, as one zip of open formats, and in again."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import datetime
from io import BytesIO
from pathlib import PurePosixPath
from typing import IO, Any
from uuid import uuid4

from django.db import transaction
from django.db.models import Model
from django.utils import timezone

from accounts.models import Person
from console import bringing
from console.models import Sheet
from console.out import document_of
from engine.errors import LineError
from engine.numbers.shelf import OF_PROCEDURE, PREFIX
from engine.out.data import as_json
from procedures.data import procedure_data, procedure_from
from procedures.models import Procedure, Run
from records.data import record_data, record_from
from records.models import Record
from shelf import things
from shelf.drawn import drawn_as
from shelf.models import DataTable, Version
from shelf.moments import moment_from

FORMAT = 1
MOST_UNPACKED = 400 * 1024 * 1024
MOST_ENTRIES = 20_000
WRONG_DATA = (KeyError, TypeError, ValueError, AttributeError, RecursionError)
"""What data raises that is not as it should be."""

LEAVE = "leave"
"""The choice for a thing that is not to come in."""

NAMED: dict[str, type[Model]] = {"table": DataTable, "procedure": Procedure, "record": Record}
"""The kinds of things of which no two have one name."""

FILE = (
    "file_name", "separator", "point", "has_head", "encoding", "marks", "columns", "rows", "size",
)  # fmt: skip


def _is_taken(person: Person, kind: Any, name: str) -> bool:
    return bool(kind.objects.at_hand().filter(owner=person, name=name).exists())


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
                    "binned": thing.binned and thing.binned.isoformat(),
                }
            )
        for version in Version.objects.filter(table__owner=person):
            with suppress(OSError):
                out.writestr(f"files/{version.pk}", version.path.read_bytes())
        told = {"teapot": FORMAT, "kind": "everything", "things": listed}
        out.writestr("list.json", _json({**told, "made": timezone.now().isoformat()}))
    return file.getvalue()


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


# -- in -------------------------------------------------------------------------------------


@dataclass(slots=True)
class BroughtIn:
    """What came in, by kind, and what was left out, since its name was taken."""

    counts: dict[str, int] = field(default_factory=dict)
    left_out: list[str] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Clash:
    """A thing in a zip whose name is taken: its ``path`` there, its kind and its name."""

    path: str
    kind: str
    name: str


def bring_in(
    person: Person, file: IO[bytes], choices: Mapping[str, str] | None = None
) -> BroughtIn | list[Clash]:
    """Puts all that a zip holds on a person's shelf, or nothing.

    Where names are taken, and there are no ``choices`` yet, those are what it gives; with them
    each such thing comes in under another name, or is left out where the choice for its path is
    :data:`LEAVE`.
    Errors: :class:`NotEverything` for what is no such zip.
    """
    made: list[Version] = []
    try:
        with zipfile.ZipFile(file) as packed, transaction.atomic():
            bringing_in = _Bringing(person, packed, choices or {}, made)
            clashes = [] if choices is not None else bringing_in.clashes()
            return clashes or bringing_in.all()
    except NotEverything:
        _forget(made)
        raise
    except (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError) as error:
        _forget(made)
        raise NotEverything(why=f"it is no zip, or a broken one ({str(error)[:60]})") from None
    except (*WRONG_DATA, LineError) as error:
        _forget(made)
        why = f"something in it is not as it should be ({str(error)[:80]})"
        raise NotEverything(why=why) from None


def _forget(made: list[Version]) -> None:
    for version in made:
        version.path.unlink(missing_ok=True)


class _Bringing:
    """A zip on its way in; ``versions`` and ``runs`` map what was there to what is here."""

    def __init__(
        self,
        person: Person,
        packed: zipfile.ZipFile,
        choices: Mapping[str, str],
        made: list[Version],
    ) -> None:
        self.person = person
        self.packed = packed
        self.choices = choices
        self.made = made
        self.versions: dict[str, str] = {}
        self.runs: dict[str, Run] = {}
        self.brought = BroughtIn()

    def clashes(self) -> list[Clash]:
        """The things whose names are taken."""
        return [
            Clash(str(one["path"]), one["kind"], str(one["name"]))
            for one in self._listed()
            if one["kind"] in NAMED
            and not one.get("binned")
            and _is_taken(self.person, NAMED[one["kind"]], things.cleaned(str(one["name"])))
        ]

    def _listed(self) -> list[dict[str, Any]]:
        self._check_size()
        told = self._json("list.json")
        if told.get("kind") != "everything" or told.get("teapot") != FORMAT:
            raise NotEverything(why="its list is not one of Teapot")
        order = ("table", "procedure", "sheet", "record")
        return [one for kind in order for one in told["things"] if one["kind"] == kind]

    def all(self) -> BroughtIn:
        """Brings it all in."""
        for one in self._listed():
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
        thing.opened = moment_from(str(one.get("opened", "")))
        thing.binned = _binned(one)
        wanted = things.cleaned(str(one["name"]))
        if thing.binned is None and _is_taken(self.person, type(thing), wanted):
            if self.choices.get(one["path"]) == LEAVE:
                return False
            wanted = things.untaken(thing, wanted)
        thing.name = wanted
        return True

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
            version.made = moment_from(told["made"])
            version.save()
            self.versions[PREFIX + told["id"]] = drawn_as(version)
        return table

    def _procedure(self, data: dict[str, Any], one: Mapping[str, Any]) -> Procedure | None:
        procedure = Procedure(owner=self.person)
        if not self._named(procedure, one):
            return None
        here = procedure_from(data, procedure)
        for there, version in here.versions.items():
            self.versions[OF_PROCEDURE + there] = OF_PROCEDURE + version
        self.runs |= here.runs
        return procedure

    def _sheet(self, data: dict[str, Any], one: Mapping[str, Any]) -> Sheet | None:
        document = bringing.document_in(json.dumps(data).encode(), "sheet.json")
        folder = things.folder_from(str(one.get("folder", "")))
        sheet = bringing.made_of(self.person, document, folder, self.versions, self.runs)
        told = {"opened": moment_from(str(one.get("opened", ""))), "binned": _binned(one)}
        Sheet.objects.filter(pk=sheet.pk).update(**told)
        return sheet

    def _record(self, data: dict[str, Any], one: Mapping[str, Any]) -> Record | None:
        record = Record(owner=self.person)
        if not self._named(record, one):
            return None
        record_from(data, record)
        return record


def _binned(one: Mapping[str, Any]) -> datetime | None:
    """When it was put into the bin, if it was."""
    return moment_from(str(one["binned"])) if one.get("binned") else None
