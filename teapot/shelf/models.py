"""What is on its way to a shelf."""

from __future__ import annotations

from django.db import models

from teapot.accounts.models import Person


class Arrival(models.Model):
    """A zip on its way in: how many things of it are there, whether it was stopped, and what came
    of it in the end."""

    owner = models.OneToOneField(Person, models.CASCADE, related_name="arrival")
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    is_stopped = models.BooleanField(default=False)
    outcome = models.JSONField(null=True)
    touched = models.DateTimeField(auto_now=True)
