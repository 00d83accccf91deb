"""The person behind a request."""

from __future__ import annotations

from django.http import HttpRequest

from accounts.models import Person

SESSION_KEY = "person"


def person_key(request: HttpRequest) -> str | None:
    """The key of the person this browser belongs to, None at the first visit."""
    return request.session.get(SESSION_KEY)


def known_person(request: HttpRequest) -> Person | None:
    """The person this browser belongs to, None at the first visit."""
    key = person_key(request)
    return Person.objects.filter(pk=key).first() if key else None


def new_guest(request: HttpRequest) -> Person:
    """A new person, who owns this browser from now on."""
    person = Person.objects.create()
    request.session[SESSION_KEY] = str(person.pk)
    return person
