"""Sheets and their lines, as they are kept."""

from __future__ import annotations

import uuid

from django.db import models

from accounts.models import Person
from engine.sheet.settings import DEFAULT_DIGITS, Settings


class Sheet(models.Model):
    """Numbered lines.  ``owner`` is None for the samples that new people get a copy of.

    ``revision`` counts the changes: a line carries the revision it came with, so
    that whoever holds an older state can ask for what came since.
    ``quantities`` is a cache of what the engine says of ``quantities_at``.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="sheets")
    title = models.CharField(max_length=120, default="Untitled sheet")
    digits = models.PositiveSmallIntegerField(default=DEFAULT_DIGITS)
    revision = models.PositiveIntegerField(default=0)
    quantities = models.JSONField(default=list)
    quantities_at = models.PositiveIntegerField(default=0)
    created = models.DateTimeField(auto_now_add=True)
    opened = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-opened",)

    @property
    def settings(self) -> Settings:
        """What is set for the sheet and changes its answers."""
        return Settings(digits=self.digits)


class Line(models.Model):
    """One input.  ``number`` names it for good; ``place`` is where it stands.

    ``token`` was made by the browser for this input, so that sending it again
    after a lost connection keeps it once.  ``last`` is the number of the line
    that a bare ``@`` in it stands for.  ``outcome`` is a cache of its answers.
    """

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="lines")
    number = models.PositiveIntegerField()
    place = models.FloatField()
    text = models.TextField()
    token = models.UUIDField(default=uuid.uuid4)
    last = models.PositiveIntegerField(null=True)
    revision = models.PositiveIntegerField()
    outcome = models.JSONField()
    kept = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("place",)
        constraints = (
            models.UniqueConstraint(fields=("sheet", "number"), name="one_line_a_number"),
            models.UniqueConstraint(fields=("sheet", "token"), name="kept_once"),
        )
        indexes = (
            models.Index(fields=("sheet", "place"), name="line_by_place"),
            models.Index(fields=("sheet", "revision"), name="line_by_revision"),
        )

    @property
    def has_answer(self) -> bool:
        """Whether ``@`` can stand for this line."""
        return bool(self.outcome["answers"])
