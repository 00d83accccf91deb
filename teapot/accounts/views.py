"""The pages of an account."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth import views as of_django
from django.contrib.auth.hashers import make_password
from django.contrib.auth.tokens import default_token_generator
from django.core import signing
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse, reverse_lazy
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_encode
from django.views.decorators.http import require_POST, require_safe

from teapot.accounts import belongings, entering, forms, guessing, mail, mailing
from teapot.accounts.guests import known_person, new_guest
from teapot.accounts.models import Person, SignUp
from teapot.accounts.room import most_of, room_of
from teapot.accounts.visits import forget
from teapot.sqlite import words

SAID = {
    "made": "Your account is ready. Everything that was here is in it.",
    "out": "You are signed out. Your sheets are no longer shown here.",
    "new": "Your account is ready. Sign in with your password.",
    "password": "Your password is changed.",
    "elsewhere": "You are signed out everywhere else.",
}

SIGN_UP, SIGN_UP_HOLDS = "sign up", timedelta(days=1)
"""What links that make an account are signed with, and how long they hold."""


@require_safe
def account(request: HttpRequest) -> HttpResponse:
    """Who this is, and what can be done about it."""
    person = known_person(request) or Person()
    return _page(request, person)


def _page(request: HttpRequest, person: Person, **filled: Any) -> HttpResponse:
    is_kept = not person._state.adding
    context: dict[str, Any] = {
        "person": person,
        "said": SAID.get(request.GET.get("said", "")),
        "sign_up": forms.SignUpForm(prefix="up"),
        "new_password": forms.NewPasswordForm(person, prefix="new"),
        "deletion": forms.DeletionForm(person, prefix="gone"),
        "elsewhere": entering.others(request, person).count() if is_kept else 0,
        "is_kept": is_kept,
        "mailed": SignUp.objects.filter(person=person).first() if is_kept else None,
        "demo": settings.DEMO,
        "kept": room_of(person) if is_kept else None,
        "most": most_of(person),
    }
    status = 422 if filled else 200
    return render(request, "accounts/account.html", context | filled, status=status)


@require_POST
def sign_up(request: HttpRequest) -> HttpResponse:
    """Mails a guest the link that makes the account; whether there is one is not told."""
    person = known_person(request) or new_guest(request)
    if not person.is_guest:
        return redirect("account")
    form = forms.SignUpForm(request.POST, prefix="up")
    if form.is_valid() and not mailing.allows(request, form.cleaned_data["email"]):
        form.add_error(None, mailing.TOO_MANY)
    if not form.is_valid():
        return _page(request, person, sign_up=form)
    email, password = form.cleaned_data["email"], make_password(form.cleaned_data["password"])
    SignUp.objects.filter(person=person).delete()
    asked_for = SignUp.objects.create(person=person, email=email, password=password)
    if Person.objects.filter(email=email).exists():
        mailing.send("there", email, request)
    else:
        link = reverse("finish-sign-up", args=[signing.dumps(asked_for.key.hex, salt=SIGN_UP)])
        mailing.send("finish", email, request, link=link)
    return _to("mailed")


def finish_sign_up(request: HttpRequest, token: str) -> HttpResponse:
    """Makes the account that a mail's link is about: nothing else about the guest changes."""
    asked_for = _asked_for(token)
    if asked_for is None:
        return render(request, "accounts/finish.html", status=410)
    if request.method != "POST":
        return render(request, "accounts/finish.html", {"asked_for": asked_for})
    person, here = asked_for.person, known_person(request)
    person.email, person.password = asked_for.email, asked_for.password
    try:
        with transaction.atomic():
            person.save(update_fields=["email", "password"])
            asked_for.delete()
    except IntegrityError:  # by another link, since
        return render(request, "accounts/finish.html", status=410)
    entering.end_others(request, person)
    if here is None or here != person:  # the mail was opened on another machine
        return redirect("sign-in-new")
    entering.enter(request, person)
    response = _to("made")
    forget(response)
    guessing.know(response, person, settings.SESSION_COOKIE_SECURE)
    return response


def _asked_for(token: str) -> SignUp | None:
    try:
        key = signing.loads(token, salt=SIGN_UP, max_age=SIGN_UP_HOLDS)
    except signing.BadSignature:
        return None
    return SignUp.objects.select_related("person").filter(key=key, person__email=None).first()


def sign_in(request: HttpRequest, said: str = "", is_out: bool = False) -> HttpResponse:
    """Asks for an address and a password; what a guest made can be taken along.  Where somebody
    ``is_out`` by now, the page empties the browser's storage."""
    guest = known_person(request)
    if guest is not None and not guest.is_guest:
        return redirect("account")
    form = forms.SignInForm(request, request.POST or None)
    has_things = guest is not None and belongings.has_any(guest)
    if request.method == "POST" and form.is_valid():
        assert form.person is not None
        renamed: list[belongings.RenamedThing] = []
        if guest is not None and has_things and request.POST.get("along") == "1":
            renamed = belongings.take_along(guest, form.person)
        entering.enter(request, form.person)
        if renamed:
            response = render(request, "accounts/taken_along.html", {"renamed": renamed})
        else:
            response = redirect("shelf")
        forget(response)
        guessing.know(response, form.person, settings.SESSION_COOKIE_SECURE)
        return response
    context = {"form": form, "has_things": has_things, "said": said, "is_out": is_out}
    return render(request, "accounts/sign_in.html", context, status=422 if form.errors else 200)


@require_POST
def sign_out(request: HttpRequest) -> HttpResponse:
    """Makes the browser nobody's."""
    entering.leave(request)
    response = redirect("sign-in-out")
    forget(response)
    return response


@require_POST
def change_password(request: HttpRequest) -> HttpResponse:
    """Another password; whoever is signed in elsewhere is not any more."""
    person = _with_account(request)
    form = forms.NewPasswordForm(person, request.POST, prefix="new")
    if not form.is_valid():
        return _page(request, person, new_password=form)
    person.set_password(form.cleaned_data["password"])
    person.save(update_fields=["password"])
    entering.end_others(request, person)
    entering.enter(request, person)
    guessing.forget(person.email, request)
    return _to("password")


@require_POST
def end_elsewhere(request: HttpRequest) -> HttpResponse:
    """Signs out everywhere but here; a guest's other browsers lose the way too."""
    person = known_person(request)
    if person is None:
        raise Http404
    entering.end_others(request, person)
    return _to("elsewhere")


@require_POST
def delete(request: HttpRequest) -> HttpResponse:
    """Deletes somebody with all that they have."""
    person = known_person(request)
    if person is None:
        raise Http404
    form = forms.DeletionForm(person, request.POST, prefix="gone")
    if not form.is_valid() or request.POST.get("surely") != "1":
        return _page(request, person, deletion=form, unsure=form.is_valid())
    with transaction.atomic():
        entering.end_others(request, person)
        person.delete()
    words.forget_deleted()
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


class RecoverView(of_django.PasswordResetView):
    """Mails a link; whether there is such an account is not told."""

    form_class = forms.RecoveryForm
    template_name = "accounts/recover.html"
    success_url = reverse_lazy("recover-sent")

    def form_valid(self, form: forms.RecoveryForm) -> HttpResponse:
        """Mails something in any case, which takes as long in any case, unless too much was
        mailed."""
        email = form.cleaned_data["email"]
        if not mailing.allows(self.request, email):
            form.add_error(None, mailing.TOO_MANY)
            return self.form_invalid(form)
        person = Person.objects.filter(email=email).first()
        if person is None:
            mailing.send("nobody", email, self.request)
        else:
            uid = urlsafe_base64_encode(force_bytes(person.pk))
            link = reverse("recovered", args=[uid, default_token_generator.make_token(person)])
            mailing.send("recover", email, self.request, link=link)
        return redirect(self.success_url)


class RecoveredView(of_django.PasswordResetConfirmView):
    """Takes a new password from whoever has the link; all are signed out."""

    form_class = forms.RecoveredForm
    template_name = "accounts/recovered.html"
    success_url = reverse_lazy("sign-in-anew")

    def form_valid(self, form: forms.RecoveredForm) -> HttpResponse:
        """Changes it.  Whoever guessed too often may try again."""
        response = super().form_valid(form)
        entering.end(form.user.browsers.all())
        guessing.forget(form.user.email, self.request)
        return response


@require_safe
def mails(request: HttpRequest) -> HttpResponse:
    """The mails that were not sent, where the demo runs."""
    if not settings.DEMO:
        raise Http404
    return render(request, "accounts/mails.html", {"mails": mail.all_of_them()})
