"""People: whoever holds the cookie of a browser, with or without an account."""

import uuid

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.contrib.auth.hashers import UNUSABLE_PASSWORD_PREFIX
from django.db import models


def as_known(email: str) -> str:
    """An address as it is kept: its case makes no difference."""
    return email.strip().lower()


class People(BaseUserManager):
    """All people."""

    def get_by_natural_key(self, username: str | None) -> "Person":
        """The one with an account under that address."""
        return self.get(email=as_known(username or ""))


class Person(AbstractBaseUser):
    """The owner of sheets and of all else on a shelf.  Who has no address is a guest."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    created = models.DateTimeField(auto_now_add=True)
    shelf_revision = models.PositiveIntegerField(default=1)
    """Goes up with each change of what is on the shelf: evaluators keep a copy of it."""
    email = models.EmailField(unique=True, null=True)
    password = models.CharField(max_length=128, default=UNUSABLE_PASSWORD_PREFIX)

    came_back = models.BooleanField(default=True)
    """Whether a browser has come back with the session that it was given: before that, the cookie
    of its first visit still says whose it is."""

    stands_for = models.ForeignKey("self", models.CASCADE, null=True, related_name="arriving")
    """Whose all that this one has is to be, as soon as it is complete: see
    :func:`teapot.accounts.belongings.staged`."""

    objects = People()

    USERNAME_FIELD = "email"

    def __str__(self) -> str:
        return self.email or "a guest"

    @property
    def is_guest(self) -> bool:
        """Whether there is no account."""
        return self.email is None


class Browser(models.Model):
    """A browser that is somebody's, by the session that it has."""

    person = models.ForeignKey(Person, models.CASCADE, related_name="browsers")
    session_key = models.CharField(max_length=40, unique=True)
    since = models.DateTimeField(auto_now_add=True)


class SignUp(models.Model):
    """An account that a guest asked for: the link in a mail makes it.  The password is hashed."""

    key = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    person = models.OneToOneField(Person, models.CASCADE, related_name="sign_up")
    email = models.EmailField()
    password = models.CharField(max_length=128)
    made = models.DateTimeField(auto_now=True)
