"""The pages of an account."""

from __future__ import annotations

from typing import Any

from axes.utils import reset
from django.conf import settings
from django.contrib.auth import views as of_django
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse, reverse_lazy
from django.views.decorators.http import require_POST, require_safe

from accounts import belongings, entering, forms, mail
from accounts.asking import address_of
from accounts.guests import known_person, new_guest
from accounts.models import Person, as_known
from accounts.pacing import Pace
from accounts.visits import forget

SAID = {
    "made": "The account is made. All that was here is in it.",
    "password": "The password is changed.",
    "elsewhere": "You are signed out everywhere but here.",
}

to_one, for_one = Pace(1 / 600, 3), Pace(1 / 20, 60)
"""Mails to an address, and those that are asked for from one: there may be a class behind it."""


@require_safe
def account(request: HttpRequest) -> HttpResponse:
    """Who this is, and what can be done about it."""
    person = known_person(request) or Person()
    return _page(request, person)


def _page(request: HttpRequest, person: Person, **filled: Any) -> HttpResponse:
    context: dict[str, Any] = {
        "person": person,
        "said": SAID.get(request.GET.get("said", "")),
        "sign_up": forms.SignUp(prefix="up"),
        "new_password": forms.NewPassword(person, prefix="new"),
        "deletion": forms.Deletion(person, prefix="gone"),
        "elsewhere": 0 if person.is_guest else entering.others(request, person).count(),
        "is_kept": not person._state.adding,
    }
    status = 422 if filled else 200
    return render(request, "accounts/account.html", context | filled, status=status)


@require_POST
def sign_up(request: HttpRequest) -> HttpResponse:
    """Makes a guest somebody with an account; nothing else about them changes."""
    person = known_person(request) or new_guest(request)
    if not person.is_guest:
        return redirect("account")
    form = forms.SignUp(request.POST, instance=person, prefix="up")
    if form.is_valid():
        try:
            with transaction.atomic():
                form.save()
        except IntegrityError:  # in the same moment, in another window
            form.add_error("email", forms.TAKEN)
        else:
            entering.enter(request, person)
            return _to("made")
    person.email = None
    return _page(request, person, sign_up=form)


def sign_in(request: HttpRequest, said: str = "") -> HttpResponse:
    """Asks for an address and a password; what a guest made can be taken along."""
    guest = known_person(request)
    if guest is not None and not guest.is_guest:
        return redirect("account")
    form = forms.SignIn(request, request.POST or None)
    has_things = guest is not None and belongings.has_any(guest)
    if request.method == "POST" and form.is_valid():
        assert form.person is not None
        if guest is not None and has_things and request.POST.get("along") == "1":
            belongings.take_along(guest, form.person)
        entering.enter(request, form.person)
        response = redirect("shelf")
        forget(response)
        return response
    context = {"form": form, "has_things": has_things, "said": said}
    return render(request, "accounts/sign_in.html", context, status=422 if form.errors else 200)


@require_POST
def sign_out(request: HttpRequest) -> HttpResponse:
    """Makes the browser nobody's."""
    entering.leave(request)
    response = redirect("sign-in")
    forget(response)
    return response


@require_POST
def change_password(request: HttpRequest) -> HttpResponse:
    """Another password; whoever is signed in elsewhere is not any more."""
    person = _with_account(request)
    form = forms.NewPassword(person, request.POST, prefix="new")
    if not form.is_valid():
        return _page(request, person, new_password=form)
    person.set_password(form.cleaned_data["password"])
    person.save(update_fields=["password"])
    entering.end_others(request, person)
    entering.enter(request, person)
    return _to("password")


@require_POST
def end_elsewhere(request: HttpRequest) -> HttpResponse:
    """Signs out everywhere but here."""
    entering.end_others(request, _with_account(request))
    return _to("elsewhere")


@require_POST
def delete(request: HttpRequest) -> HttpResponse:
    """Deletes somebody with all that they have."""
    person = known_person(request)
    if person is None:
        raise Http404
    form = forms.Deletion(person, request.POST, prefix="gone")
    if not form.is_valid() or request.POST.get("surely") != "1":
        return _page(request, person, deletion=form, unsure=form.is_valid())
    if person.email:
        reset(username=person.email)
    with transaction.atomic():
        entering.end_others(request, person)
        person.delete()
    entering.leave(request)
    response = render(request, "accounts/deleted.html")
    forget(response)
    return response


def _with_account(request: HttpRequest) -> Person:
    person = known_person(request)
    if person is None or person.is_guest:
        raise Http404
    return person


def _to(said: str) -> HttpResponse:
    return redirect(f"{reverse('account')}?said={said}")


class Recover(of_django.PasswordResetView):
    """Mails a link; whether there is such an account is not told."""

    form_class = forms.Recovery
    template_name = "accounts/recover.html"
    email_template_name = "accounts/recovery_mail.txt"
    subject_template_name = "accounts/recovery_subject.txt"
    success_url = reverse_lazy("recover-sent")

    def form_valid(self, form: forms.Recovery) -> HttpResponse:
        """Mails it, unless too much was mailed."""
        email = as_known(form.cleaned_data["email"])
        if settings.PACED and not (
            to_one.allows(email) and for_one.allows(address_of(self.request))
        ):
            form.add_error(None, "Too many mails were asked for. Wait for ten minutes.")
            return self.form_invalid(form)
        return super().form_valid(form)


class Recovered(of_django.PasswordResetConfirmView):
    """Takes a new password from whoever has the link; all are signed out."""

    form_class = forms.Recovered
    template_name = "accounts/recovered.html"
    success_url = reverse_lazy("sign-in-anew")

    def form_valid(self, form: forms.Recovered) -> HttpResponse:
        """Changes it.  Whoever guessed too often may try again."""
        response = super().form_valid(form)
        entering.end_others(self.request, form.user)
        reset(username=form.user.email)
        return response


@require_safe
def mails(request: HttpRequest) -> HttpResponse:
    """The mails that were not sent, where the demo runs."""
    if not settings.DEMO:
        raise Http404
    return render(request, "accounts/mails.html", {"mails": mail.all_of_them()})
