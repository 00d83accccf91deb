"""The person behind a request."""

from __future__ import annotations

from functools import lru_cache
from typing import Any
from uuid import UUID, uuid4

from django.conf import settings
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from teapot.accounts import entering
from teapot.accounts.asking import address_of, counts_for
from teapot.accounts.models import Browser, Person
from teapot.accounts.pacing import of_newcomers
from teapot.accounts.visits import Visit, visit_of
from teapot.sqlite.statements import Insert

IS_NEW = "is new"
"""In a session that its browser has not come back with yet."""


def person_key(request: HttpRequest) -> str | None:
    """The key of the person this browser belongs to, None at the first visit."""
    key: str | None = request.session.get(entering.SESSION_KEY)
    request.is_somebodys = key is not None
    if key:
        counts_for(key)
        if IS_NEW in request.session and _changes_something(request):
            _note_that_came_back(key)
    return key


READS = ("preview", "refresh")
"""Requests that keep nothing, though they are sent."""


def _changes_something(request: HttpRequest) -> bool:
    """Whether a browser comes back with something to be written, so that one thing more may be:
    what one types is not held up for it."""
    match = request.resolver_match
    is_read = request.method != "POST" or match is None or match.url_name in READS
    return not is_read and not hasattr(request, "made_guest")


@lru_cache(10_000)  # it is looked up once
def _note_that_came_back(key: str) -> None:
    if not Person.objects.filter(pk=key, came_back=True).exists():
        with transaction.atomic():  # in its turn
            Person.objects.filter(pk=key).update(came_back=True)


def known_person(request: HttpRequest) -> Person | None:
    """The person this browser belongs to, None at the first visit."""
    key = person_key(request)
    return Person.objects.filter(pk=key).first() if key else None


def own_or_404(request: HttpRequest, things: QuerySet[Any], pk: UUID | str) -> Any:
    """The one of the things with that key, if it belongs to the person behind the request.

    Nobody has what belongs to nobody: the samples of the demo are not found either.
    """
    key = person_key(request)
    if key is None:
        raise Http404
    try:
        return get_object_or_404(things, pk=pk, owner__pk=key)
    except ValidationError:  # what was sent is no key
        raise Http404 from None


class TooManyNewcomers(Exception):
    """More people are made from an address than there can be."""


def visit_at_hand(request: HttpRequest) -> Visit | None:
    """The first visit that a browser is on: its person is not there yet, or no browser has come
    back with the session that it was given for them, as where a reply was lost."""
    visit = visit_of(request)
    if visit is None or Person.objects.filter(pk=visit.person, came_back=True).exists():
        return None
    return visit


_PERSON, _BROWSER = Insert(Person), Insert(Browser)


def _made(request: HttpRequest, key: UUID) -> Person | None:
    """A person with that key, and the browser at hand as the way in, which are written as soon as
    it is their turn, and at once; None where another request of the same visit was faster."""
    person = Person(pk=key, came_back=False)
    browser = Browser(person=person, session_key=entering.key_of(request))
    rows = [(_PERSON, person), (_BROWSER, browser)]
    ready = [(insert, row, insert.values(row)) for insert, row in rows]
    try:
        with transaction.atomic():
            for insert, row, values in ready:
                insert.write(row, values)
    except IntegrityError:
        return None
    request.session[entering.SESSION_KEY] = str(key)
    return person


def new_guest(request: HttpRequest) -> Person:
    """A new person, who owns this browser from now on.  Errors: :class:`TooManyNewcomers`."""
    if settings.PACED and not of_newcomers.allows(address_of(request)):
        raise TooManyNewcomers
    visit = visit_at_hand(request)
    key = uuid4() if visit is None else visit.person
    request.session[IS_NEW] = request.made_guest = True
    person = _made(request, key)
    if person is None:
        person = Person.objects.get(pk=key)
        entering.own(request, person)
    counts_for(str(person.pk))
    return person
