"""The person behind a request."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.core.exceptions import ValidationError
from django.db.models import QuerySet
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404

from accounts.models import Person

SESSION_KEY = "person"


def person_key(request: HttpRequest) -> str | None:
    """The key of the person this browser belongs to, None at the first visit."""
    return request.session.get(SESSION_KEY)


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


def new_guest(request: HttpRequest) -> Person:
    """A new person, who owns this browser from now on."""
    person = Person.objects.create()
    request.session[SESSION_KEY] = str(person.pk)
    return person
