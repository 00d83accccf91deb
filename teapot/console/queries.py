"""The sheet behind a request, read in one short statement with all that a key needs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db.models import F, OuterRef, QuerySet, Subquery

from teapot.accounts.models import Person
from teapot.console.models import Line, Sheet
from teapot.sqlite.statements import Query

READ = frozenset({
    "id", "owner_id", "title", "form", "angle", "log", "numbers", "units", "cleared", "revision",
    "head", "recording_id", "folder",
})  # fmt: skip
FIELDS = tuple(field.attname for field in Sheet._meta.concrete_fields if field.attname in READ)
"""What is read of a sheet; all else is asked for when it is wanted."""

KEYS = ("id", "owner_id", "head", "recording_id")


@dataclass(frozen=True, slots=True)
class Foot:
    """What is to be known of the lines of a sheet to put one after them: the highest number
    and place, of deleted ones too, and the line that ``@`` stands for."""

    number: int
    place: float
    last: int | None


def _with_foot(sheets: QuerySet[Sheet]) -> QuerySet[Any]:
    lines = Line.objects.filter(sheet=OuterRef("pk")).order_by()
    answered = lines.filter(deleted=False).exclude(search_text="").order_by("-place")
    return sheets.order_by().annotate(
        highest=Subquery(lines.order_by("-number").values("number")[:1]),
        lowest=Subquery(lines.order_by("-place").values("place")[:1]),
        answered_last=Subquery(answered.values("number")[:1]),
    )


_SHEET = Query(
    lambda sheet, owner: _with_foot(
        Sheet.objects.at_hand().filter(pk=sheet, owner_id=owner)
    ).values_list(
        *FIELDS, F("owner__shelf_revision"), "highest", "lowest", "answered_last"
    ),
    UUID(int=1),
    UUID(int=2),
)  # fmt: skip

_IN_BROWSER = Query(
    lambda sheet, owner, session: _with_foot(
        Sheet.objects.at_hand().filter(
            pk=sheet, owner_id=owner, owner__browsers__session_key=session
        )
    ).values_list(
        *FIELDS, F("owner__shelf_revision"), "highest", "lowest", "answered_last"
    ),
    UUID(int=1),
    UUID(int=2),
    "the key of a session",
)  # fmt: skip

_FOOT = Query(
    lambda sheet: _with_foot(Sheet.objects.filter(pk=sheet)).values_list(
        "highest", "lowest", "answered_last"
    ),
    UUID(int=1),
)  # fmt: skip


def sheet_of(owner: UUID, sheet: UUID) -> tuple[Sheet, Foot] | None:
    """A sheet at hand and its foot; None where it is none of that owner's."""
    return _made_of(_SHEET.first(sheet, owner))


def sheet_in_browser(owner: UUID, sheet: UUID, session: str) -> tuple[Sheet, Foot] | None:
    """The same in a browser of that owner's: one that was not signed out since."""
    return _made_of(_IN_BROWSER.first(sheet, owner, session))


def _made_of(row: tuple[Any, ...] | None) -> tuple[Sheet, Foot] | None:
    if row is None:
        return None
    values = dict(zip(FIELDS, row, strict=False))
    for name in KEYS:
        values[name] = UUID(values[name]) if values[name] else None
    found = Sheet.from_db("default", list(values), list(values.values()))
    owner_names = ["id", "shelf_revision"]
    found.owner = Person.from_db("default", owner_names, [found.owner_id, row[len(FIELDS)]])
    return found, _foot(row[len(FIELDS) + 1 :])


def foot_of(sheet: Sheet) -> Foot:
    """The foot of a sheet as it is now."""
    return _foot(_FOOT.first(sheet.pk) or (None, None, None))


def _foot(row: tuple[Any, ...]) -> Foot:
    number, place, last = row
    return Foot(number or 0, place or 0, last)
