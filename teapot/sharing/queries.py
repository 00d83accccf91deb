"""What a link leads to."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest

from teapot.accounts.asking import counts_for
from teapot.accounts.guests import person_key
from teapot.accounts.visits import Visit, visit_of
from teapot.sharing.models import Link
from teapot.shelf.kinds import KINDS


class LeadsNowhere(Http404):
    """The link was taken back, or what it led to is gone."""


def can_be_shared() -> list[str]:
    """The kinds of things that can be shared: a table goes out as a file."""
    return [kind.word for kind in KINDS.values() if kind.copy_for is not None]


def reached(pk: UUID, *kinds: str) -> tuple[Link, Any]:
    """The link and what it leads to.  Errors: :class:`LeadsNowhere`."""
    link = Link.objects.filter(pk=pk, kind__in=kinds or can_be_shared()).first()
    if link is None:
        raise LeadsNowhere
    things = KINDS[link.kind].model.objects.at_hand().select_related("owner")
    thing = things.filter(pk=link.thing, owner=link.owner_id).first()
    if thing is None:
        raise LeadsNowhere
    return link, thing


def known_by(request: HttpRequest) -> Visit | None:
    """Has the work that a request asks for count for whoever asks; a visit that is to be told to
    the browser where nothing was known of it."""
    if person_key(request) is not None:
        return None
    visit = visit_of(request)
    told = visit or Visit.new()
    counts_for(str(told.person))
    return None if visit else told
