"""Data tables as a kind of thing on the shelf."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import datetime
from functools import partial
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from django.core.files.uploadedfile import UploadedFile
from django.db.models import OuterRef, Q, QuerySet, Subquery
from django.http import HttpRequest, HttpResponse

from teapot.accounts.models import Person
from teapot.engine.files.dialect import MAX_BYTES
from teapot.engine.numbers.shelf import PREFIX
from teapot.engine.out.json_text import WrongData
from teapot.shelf.everything import as_json
from teapot.shelf.kinds import Import, Kind, Place, Step, Versions, register
from teapot.shelf.moments import moment_from
from teapot.shelf.queries import former_names, with_replaced
from teapot.shelf.search import has_all, marked
from teapot.shelf.version_refs import drawn_as
from teapot.tables import services, views
from teapot.tables.models import DataTable, Version

FILE = (
    "file_name", "separator", "point", "has_head", "encoding", "marks", "columns", "rows", "size",
    "above", "below", "has_units", "month_first", "sheet",
)  # fmt: skip
"""What is told of a version beside its file."""

NEWER = frozenset(["above", "below", "has_units", "month_first", "sheet"])
"""Of which zips made before December 2026 tell nothing."""


def _counted(tables: QuerySet[DataTable]) -> QuerySet[DataTable]:
    versions = Version.objects.filter(table=OuterRef("pk")).order_by("-made")
    return tables.annotate(many=Subquery(versions.values("rows")[:1]))


def _places(person: Person, words: list[str]) -> Iterator[tuple[UUID, Place]]:
    seen = set()
    for version in Version.objects.filter(table__owner=person, table__binned=None):
        names = " ".join(column["name"] for column in version.columns)
        if version.table_id not in seen and has_all(names, words):
            seen.add(version.table_id)
            yield version.table_id, Place(None, marked(f"columns {names}", words))


def _written(table: DataTable) -> str:
    versions = [
        {
            "id": str(version.pk),
            "made": version.made.isoformat(),
            **{name: getattr(version, name) for name in FILE},
        }
        for version in table.versions.order_by("made")
    ]
    return as_json({"name": table.name, "versions": versions})


def _files(person: Person) -> Iterator[tuple[Path, str]]:
    for version in Version.objects.filter(table__owner=person):
        yield version.path, str(version.pk)


def _steps(
    packed: Import, stage: Person, data: dict[str, Any], one: Mapping[str, Any]
) -> Iterator[Step]:
    table = DataTable(owner=stage)
    packed.name(table, one)
    yield table.save
    for told in data["versions"]:
        version = Version(owner=stage, table=table, pk=uuid4())
        for name in FILE:
            if name in told or name not in NEWER:
                setattr(version, name, told[name])
        version.guess  # noqa: B018 - it has to be one
        version.rows = _count(told["rows"])
        held = packed.read(f"files/{told['id']}", MAX_BYTES)
        version.size = len(held)
        yield partial(_write_version, version, held, moment_from(told["made"]))
        packed.versions[PREFIX + told["id"]] = drawn_as(version)


def _count(told: object) -> int:
    if not isinstance(told, int) or isinstance(told, bool) or not 0 <= told < 2**31:
        raise WrongData(f"{told!s:.20} is no count")
    return told


def _write_version(version: Version, held: bytes, made: datetime) -> None:
    version.save()
    Version.objects.filter(pk=version.pk).update(made=made)
    version.path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    version.path.write_bytes(held)


def _arrive(request: HttpRequest, file: UploadedFile) -> HttpResponse:
    return views.bring_in(request)


def _copy(table: DataTable) -> DataTable:
    """Its newest version, under a name of its own."""
    made = DataTable(owner=table.owner, folder=table.folder)
    made.name = made.untaken(f"{table.name} copy")
    made.save()
    services.copy_of_version(table.newest, made)
    return made


def _state(owner: UUID | None) -> dict[str, tuple[Any, ...]]:
    is_at_hand = Q(table__owner=owner) | Q(table__owner=None)
    kept = Version.objects.filter(is_at_hand, table__isnull=False)
    found = with_replaced(kept.select_related("table").order_by("table", "made"), "table")
    return {
        "versions": tuple(
            (one.table.name, str(one.pk))
            for one in found.newest
            if one.table.binned is None and one.table.owner_id == owner
        ),
        "files": tuple((str(one.pk), one.file) for one in found.all),
        "binned": tuple(PREFIX + one.table.name for one in found.newest if one.table.binned),
        "renamed": former_names(PREFIX, (one.table for one in found.newest)),
        "replaced": found.replaced,
    }


register(
    Kind(
        word="table",
        model=DataTable,
        rank=0,
        unit="row",
        counted=_counted,
        places=_places,
        written=_written,
        files=_files,
        steps=_steps,
        arrive=_arrive,
        copy=_copy,
        load_samples=services.load_sample_tables,
        copy_samples=services.copy_tables,
        versions=Versions(
            prefix=PREFIX, model=Version, thing="table", state=_state, copy=services.copy_of_version
        ),
    )
)
