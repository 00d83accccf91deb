"""What is asked for an account, and what is said where it will not do."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib.auth import authenticate
from django.contrib.auth import forms as of_django
from django.contrib.auth.password_validation import validate_password
from django.http import HttpRequest

from teapot.accounts.guessing import Tries
from teapot.accounts.models import Person, as_known
from teapot.accounts.pacing import of_guesses

NEW, CURRENT = "new-password", "current-password"
WRONG = "No account has this address and password."
WAIT = "Too many wrong passwords. Please wait {wait} seconds, then try again."
NOT_CURRENT = "This is not your current password."
TOO_OFTEN = "Too many attempts. Please wait half a minute."


def email_field() -> forms.EmailField:
    """The field for an address."""
    field = forms.EmailField(label="E-mail address", max_length=254)
    field.widget.attrs |= {"autocomplete": "username", "spellcheck": "false"}
    return field


def password_field(label: str, fills: str = CURRENT) -> forms.CharField:
    """A field for a password, which is taken as it is typed."""
    widget = forms.PasswordInput(attrs={"autocomplete": fills})
    wanted = "8 characters or more, and none of the common ones" if fills == NEW else ""
    return forms.CharField(
        label=label, strip=False, widget=widget, max_length=1000, help_text=wanted
    )


def _current(person: Person, password: str) -> str:
    """A password that somebody with an account types to prove who they are.

    :raises forms.ValidationError: where it is another one, or was tried too often just now
    """
    if not of_guesses.allows(str(person.pk)):
        raise forms.ValidationError(TOO_OFTEN)
    if not person.check_password(password):
        raise forms.ValidationError(NOT_CURRENT)
    return password


class SignUpForm(forms.Form):
    """An account for somebody who is a guest so far."""

    email = email_field()
    password = password_field("Password", NEW)

    def clean_email(self) -> str:
        """The address as it is kept."""
        return as_known(self.cleaned_data["email"])

    def clean(self) -> dict[str, Any]:
        """The password will do for that address."""
        found = self.cleaned_data
        if "password" in found:
            try:
                validate_password(found["password"], Person(email=found.get("email")))
            except forms.ValidationError as error:
                self.add_error("password", error)
        return found


class SignInForm(forms.Form):
    """An address and its password."""

    email = email_field()
    password = password_field("Password")

    def __init__(self, request: HttpRequest, *arguments: Any, **named: Any) -> None:
        super().__init__(*arguments, **named)
        self.request = request
        self.person: Person | None = None

    def clean(self) -> dict[str, Any]:
        """Finds whose they are; tries that come too fast are refused whatever is tried."""
        found = self.cleaned_data
        if {"email", "password"} <= found.keys():
            email = as_known(found["email"])
            tries = Tries(self.request, email)
            wait = tries.seconds()
            if wait:
                raise forms.ValidationError(WAIT.format(wait=wait))
            self.person = authenticate(self.request, username=email, password=found["password"])
            if self.person is None:
                raise forms.ValidationError(WRONG)
            tries.was_right()
        return found


class NewPasswordForm(forms.Form):
    """Another password, for somebody who knows the current one."""

    now = password_field("Current password")
    password = password_field("New password", NEW)

    def __init__(self, person: Person, *arguments: Any, **named: Any) -> None:
        super().__init__(*arguments, **named)
        self.person = person

    def clean_now(self) -> str:
        """It is the current one."""
        return _current(self.person, self.cleaned_data["now"])

    def clean_password(self) -> str:
        """The new one, where it will do."""
        password: str = self.cleaned_data["password"]
        validate_password(password, self.person)
        return password


class RecoveryForm(of_django.PasswordResetForm):
    """An address to which a link to a new password is mailed, where it has an account."""

    email = email_field()

    def clean_email(self) -> str:
        """The address as it is kept."""
        return as_known(self.cleaned_data["email"])


class RecoveredForm(of_django.SetPasswordForm):
    """A password for somebody who has the link."""

    new_password1 = password_field("New password", NEW)
    new_password2 = password_field("The same again")


class DeletionForm(forms.Form):
    """That all is to go: somebody with an account types its password."""

    password = password_field("Password")

    def __init__(self, person: Person, *arguments: Any, **named: Any) -> None:
        super().__init__(*arguments, **named)
        self.person = person
        if person.is_guest:
            del self.fields["password"]

    def clean_password(self) -> str:
        """It is theirs."""
        return _current(self.person, self.cleaned_data["password"])
