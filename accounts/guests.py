"""The person behind a request."""

from __future__ import annotations

from django.http import HttpRequest

from accounts.models import Person

SESSION_KEY = "person"


def known_person(request: HttpRequest) -> Person | None:
    """The person this browser belongs to, None at the first visit."""
    key = request.session.get(SESSION_KEY)
    return Person.objects.filter(pk=key).first() if key else None


def new_guest(request: HttpRequest) -> Person:
    """A new person, who owns this browser from now on."""
    person = Person.objects.create()
    request.session[SESSION_KEY] = str(person.pk)
    return person
