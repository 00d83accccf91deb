"""How much somebody may keep, and how much there is room for."""

from __future__ import annotations

import shutil
from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.db.models import Sum

from accounts.models import Person
from engine.errors import LineError

MB = 1024 * 1024
SPARE = 100 * MB
"""What stays free on the disk, so that lines can still be kept."""


@dataclass(frozen=True, slots=True)
class Room:
    """Things on the shelf and in the bin, lines of sheets, and bytes of tables."""

    things: int = 0
    lines: int = 0
    size: int = 0

    def __add__(self, other: Room) -> Room:
        return Room(self.things + other.things, self.lines + other.lines, self.size + other.size)

    @property
    def megabytes(self) -> int:
        """The bytes, as they are said."""
        return -(-self.size // MB)


OF_GUEST = Room(things=300, lines=100_000, size=100 * MB)
OF_PERSON = Room(things=5_000, lines=1_000_000, size=1000 * MB)


class NoRoom(LineError):
    sentence = "There is no room for this: {why}. Delete something for good, then try it again."


def is_full(more: int = 0) -> bool:
    """Whether so many bytes ``more`` would fill the disk, or what this installation may take."""
    settings.DATA.mkdir(parents=True, exist_ok=True)
    if shutil.disk_usage(settings.DATA).free < SPARE + more:
        return True
    most = settings.TEAPOT_ROOM
    return bool(most) and _taken() + more > most


def _taken() -> int:
    return sum(path.stat().st_size for path in settings.DATA.rglob("*") if path.is_file())


def most_of(person: Person) -> Room:
    """What somebody may keep."""
    return OF_GUEST if person.is_guest else OF_PERSON


def room_of(person: Person) -> Room:
    """What somebody keeps."""
    owned: dict[str, Any] = {
        relation.name: relation.related_model._base_manager.filter(owner=person)
        for relation in Person._meta.related_objects
        if relation.field.name == "owner"
    }
    things = sum(owned[name].count() for name in ("sheets", "tables", "procedures", "records"))
    sheets = owned["sheets"].values("pk")
    line = owned["sheets"].model._meta.get_field("lines").related_model
    lines = line._base_manager.filter(sheet__in=sheets).count()
    size = owned["versions"].aggregate(size=Sum("size"))["size"] or 0
    return Room(things, lines, size)


def room_for(person: Person, **more: int) -> None:
    """Whether there is room for so many ``things``, ``lines``, and a ``size`` in bytes more.

    Errors: :class:`NoRoom`.
    """
    wanted = Room(**more)
    if is_full(wanted.size):
        raise NoRoom(why="the disk of the server is full")
    kept, most = room_of(person) + wanted, most_of(person)
    if kept.things > most.things:
        raise NoRoom(why=f"the shelf may hold {most.things:,} things, with the bin")
    if kept.lines > most.lines:
        raise NoRoom(why=f"sheets may have {most.lines:,} lines in all")
    if kept.size > most.size:
        raise NoRoom(why=f"tables may have {most.megabytes:,} megabytes in all")
