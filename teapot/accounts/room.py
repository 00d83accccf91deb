"""How much somebody may keep, and how much there is room for."""

from __future__ import annotations

import shutil
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.db.models import Sum

from teapot.accounts.models import Person
from teapot.engine.errors import LineError, Problem

MB = 1024 * 1024
SPARE, LAST = 50 * MB, 4 * MB
"""What large things leave free on the disk, so that lines can still be kept, and with how much left
it counts as full."""


@dataclass(frozen=True, slots=True)
class Room:
    """Things on the shelf and in the bin, lines of sheets, and bytes of tables."""

    things: int = 0
    lines: int = 0
    size: int = 0

    @property
    def megabytes(self) -> int:
        """The bytes, as they are said."""
        return -(-self.size // MB)


OF_GUEST = Room(things=300, lines=100_000, size=100 * MB)
OF_PERSON = Room(things=5_000, lines=1_000_000, size=1000 * MB)


NO_ROOM = Problem(
    "no-room", "There is not enough space: {why}. Delete something for good, then try again."
)


class NoRoom(LineError):
    """Somebody keeps as much as they may, or the disk is full."""

    def __init__(self, why: str) -> None:
        super().__init__(NO_ROOM, why=why)


def is_full(more: int = 0) -> bool:
    """Whether so many bytes ``more`` would fill the disk, or what this installation may take."""
    settings.DATA.mkdir(parents=True, exist_ok=True)
    if shutil.disk_usage(settings.DATA).free < LAST + more:
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
    return Room(**{measure: count(person) for measure, count in COUNTS.items()})


def _things(person: Person) -> int:
    return sum(
        getattr(person, kind).count() for kind in ("sheets", "tables", "procedures", "records")
    )


def _lines(person: Person) -> int:
    line = Person._meta.get_field("sheets").related_model._meta.get_field("lines").related_model
    return int(line._base_manager.filter(sheet__owner=person).count())


def _size(person: Person) -> int:
    return person.versions.aggregate(size=Sum("size"))["size"] or 0


COUNTS: dict[str, Callable[[Any], int]] = {"things": _things, "lines": _lines, "size": _size}

SAID = {
    "things": "the shelf may hold {:,} things, with the bin",
    "lines": "sheets may have {:,} lines in all",
    "size": "tables may have {:,} megabytes in all",
}


def room_for(person: Person, **more: int) -> None:
    """Whether there is room for so many ``things``, ``lines``, and a ``size`` in bytes more.

    Errors: :class:`NoRoom`.
    """
    if is_full(SPARE + more.get("size", 0)):
        raise NoRoom(why="the disk of the server is full")
    for measure, wanted in more.items():
        most = getattr(most_of(person), measure)
        if wanted + COUNTS[measure](person) > most:
            said = -(-most // MB) if measure == "size" else most
            raise NoRoom(why=SAID[measure].format(said))
