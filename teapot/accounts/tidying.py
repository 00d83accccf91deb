"""What goes by itself after a while: guests whom nobody was for long, and what they had."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.conf import settings
from django.contrib.sessions.models import Session
from django.db import transaction
from django.db.models import Exists, OuterRef

from teapot.accounts.entering import SESSION_KEY
from teapot.accounts.models import Browser, Person, SignUp
from teapot.accounts.sessions import RENEWED_AFTER
from teapot.sqlite import words

UNOPENED = timedelta(days=90)
"""How long a guest's work is kept that nobody opens, as the page of the account says."""

ASKED_FOR = timedelta(days=2)
"""How long it is kept that an account was asked for whose mail was not followed."""


def tidy(now: datetime) -> int:
    """Removes guests who were not here for so long, sessions that are over, and accounts that were
    asked for and not made; how many guests that were.  Each goes by itself: nobody waits."""
    Session.objects.filter(expire_date__lt=now).delete()
    SignUp.objects.filter(made__lt=now - ASKED_FOR).delete()
    is_there = Session.objects.filter(session_key=OuterRef("session_key"))
    Browser.objects.filter(~Exists(is_there)).delete()
    # a session that is used is renewed no more than so often
    before = now - UNOPENED - RENEWED_AFTER
    here = _here_since(before)
    old = Person.objects.filter(email=None, created__lt=before).values_list("pk", flat=True)
    gone = [key for key in old.iterator() if str(key) not in here]
    for key in gone:
        with transaction.atomic():
            Person.objects.filter(pk=key).delete()
    if gone:
        words.forget_deleted()
    return len(gone)


def _here_since(moment: datetime) -> set[str]:
    """The keys of people whose browser was here since then."""
    longest = timedelta(seconds=settings.SESSION_COOKIE_AGE)
    used = Session.objects.filter(expire_date__gte=moment + longest)
    return {str(session.get_decoded().get(SESSION_KEY)) for session in used.iterator()}
