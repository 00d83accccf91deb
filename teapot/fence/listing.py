"""The quantities of a sheet for a page that has those of an earlier revision."""

from __future__ import annotations

from dataclasses import dataclass
from weakref import WeakKeyDictionary

from teapot.engine import FullSheet
from teapot.engine.sheet.dependence import OutOfDate, lines_out_of_date
from teapot.engine.sheet.quantities import Quantity, list_quantities


@dataclass(frozen=True, slots=True)
class ListingNews:
    """The quantities at the foot of a sheet that differ from those of the revision ``since``,
    or all where that is None; the names of all in their order, how many more there are, the
    lines that are out of date, and how many quantities or lines are."""

    since: int | None
    changed: list[Quantity]
    names: list[str]
    left_out: int
    out_of_date: list[OutOfDate]
    outdated: int


@dataclass(frozen=True, slots=True)
class _Listed:
    revision: int
    quantities: dict[str, Quantity]


_listed: WeakKeyDictionary[FullSheet, _Listed] = WeakKeyDictionary()
"""What was told last of each sheet."""


def news_of(sheet: FullSheet, since: int | None, revision: int) -> ListingNews:
    """The quantities as they are, at this ``revision``, for a page that has those of ``since``;
    all of them where it is not known any more what those were."""
    quantities, left_out = list_quantities(sheet)
    known = _listed.get(sheet)
    if known is None or known.revision != since:
        since, before = None, dict[str, Quantity]()
    else:
        before = known.quantities
    _listed[sheet] = _Listed(revision, {one.name: one for one in quantities})
    out_of_date = lines_out_of_date(sheet.dependence())
    return ListingNews(
        since,
        [one for one in quantities if before.get(one.name) != one],
        [one.name for one in quantities],
        left_out,
        out_of_date,
        max(len(out_of_date), sum(bool(one.reason) for one in quantities)),
    )
