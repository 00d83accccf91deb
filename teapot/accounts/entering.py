"""Which browser is whose: each way in is a session, and is listed with its person."""

from __future__ import annotations

from django.contrib import auth
from django.contrib.sessions.models import Session
from django.db import transaction
from django.db.models import QuerySet
from django.http import HttpRequest

from teapot.accounts.models import Browser, Person

BACKEND = "django.contrib.auth.backends.ModelBackend"
SESSION_KEY = "person"


def own(request: HttpRequest, person: Person) -> None:
    """Makes the browser that of a person, under the session that it has, or a new one."""
    key = key_of(request)
    request.session[SESSION_KEY] = str(person.pk)
    Browser.objects.update_or_create(session_key=key, defaults={"person": person})


def key_of(request: HttpRequest) -> str:
    """The key of the session of a browser, or of the one that it is to have."""
    request.session.begin()
    return str(request.session.session_key)


def enter(request: HttpRequest, person: Person) -> None:
    """Makes the browser that of a person with an account, under a session of another key: the
    one that it had leads nowhere."""
    Browser.objects.filter(session_key=request.session.session_key).delete()
    auth.login(request, person, BACKEND)
    own(request, person)


def leave(request: HttpRequest) -> None:
    """Makes it nobody's."""
    Browser.objects.filter(session_key=request.session.session_key).delete()
    auth.logout(request)


def others(request: HttpRequest, person: Person) -> QuerySet[Browser]:
    """The browsers of a person, but for this one."""
    return person.browsers.exclude(session_key=request.session.session_key)


def end_others(request: HttpRequest, person: Person) -> None:
    """Signs a person out everywhere but here."""
    end(others(request, person))


def end(browsers: QuerySet[Browser]) -> None:
    """Ends the sessions of browsers."""
    with transaction.atomic():
        keys = list(browsers.values_list("session_key", flat=True))
        Session.objects.filter(session_key__in=keys).delete()
        browsers.delete()
