"""Mails to people: what each says, and how many are sent."""

from __future__ import annotations

from django.conf import settings
from django.core.mail import send_mail
from django.http import HttpRequest
from django.template.loader import render_to_string

from teapot.accounts.asking import address_of
from teapot.accounts.pacing import Pace

SUBJECTS = {
    "finish": "Your account at Teapot",
    "there": "You have an account at Teapot",
    "recover": "A new password for Teapot",
    "nobody": "No account at Teapot under this address",
}
TOO_MANY = "Too many mails were requested. Please wait ten minutes."

for_one, to_one = Pace(1 / 20, 60), Pace(1 / 600, 3)
"""Mails that are asked for from an address, behind which a class may be, and those of them to one
person.  What others ask for, elsewhere, keeps nobody's mail back."""

to_anybody = Pace(1 / 120, 20)
"""Mails to one person, whoever asks: beyond that none is sent, and nobody is told."""


def allows(request: HttpRequest, email: str) -> bool:
    """Whether one more may be asked for from where the request comes from."""
    place = address_of(request)
    return not settings.PACED or (to_one.allows(f"{place} {email}") and for_one.allows(place))


def send(what: str, email: str, request: HttpRequest, link: str = "") -> None:
    """Sends one of :data:`SUBJECTS`, with a link to this installation."""
    if settings.PACED and not to_anybody.allows(email):
        return
    context = {
        "site": request.build_absolute_uri("/"),
        "link": request.build_absolute_uri(link) if link else "",
    }
    text = render_to_string(f"accounts/mail_{what}.txt", context)
    send_mail(SUBJECTS[what], text, None, [email])
