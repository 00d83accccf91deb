"""Where a line stands that is being typed."""

from __future__ import annotations

from collections.abc import Mapping

from teapot.console import services
from teapot.console.models import Line, Sheet
from teapot.console.queries import Foot
from teapot.fence import jobs


def typed_at(sheet: Sheet, foot: Foot, text: str, form: Mapping[str, str]) -> jobs.ReadTyped:
    """What is being typed: in the line ``at``, which is mended, ``below`` a line, or at the
    foot, which is where it goes when that line was deleted elsewhere meanwhile."""
    caret = whole(form.get("caret", ""))
    near = form.get("at", form.get("below"))
    line = None if near is None else _present(sheet, whole(near))
    if line is not None and "at" in form:
        return jobs.ReadTyped(
            number=line.number,
            text=text,
            last=line.last,
            place=line.place,
            caret=caret,
            conventions=line.conventions,
        )
    place = None if line is None else services.place_below(sheet, line.place)
    last = foot.last if place is None else services.last_answered(sheet, place)
    return jobs.ReadTyped(number=0, text=text, last=last, place=place, caret=caret)


def whole(told: str) -> int | None:
    """A whole number as it is told; None where it is none."""
    return int(told) if told.isdecimal() and len(told) < 10 else None


def _present(sheet: Sheet, number: int | None) -> Line | None:
    return None if number is None else sheet.lines.present().filter(number=number).first()
