"""Signing in and out: which browser is whose."""

from __future__ import annotations

from django.contrib import auth
from django.contrib.sessions.models import Session
from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpRequest

from accounts.guests import SESSION_KEY
from accounts.models import Browser, Person

BACKEND = "django.contrib.auth.backends.ModelBackend"


def enter(request: HttpRequest, person: Person) -> None:
    """Makes the browser that of a person with an account, under a session of another key."""
    auth.login(request, person, BACKEND)
    request.session[SESSION_KEY] = str(person.pk)
    request.session.save()
    Browser.objects.update_or_create(
        session_key=request.session.session_key, defaults={"person": person}
    )


def leave(request: HttpRequest) -> None:
    """Makes it nobody's."""
    Browser.objects.filter(session_key=request.session.session_key).delete()
    auth.logout(request)


def others(request: HttpRequest, person: Person) -> QuerySet[Browser]:
    """The browsers in which somebody is signed in, but for this one."""
    return person.browsers.exclude(session_key=request.session.session_key)


def end_others(request: HttpRequest, person: Person) -> None:
    """Signs a person out everywhere but here."""
    ended = others(request, person)
    with transaction.atomic():
        keys = list(ended.values_list("session_key", flat=True))
        Session.objects.filter(session_key__in=keys).delete()
        ended.delete()
