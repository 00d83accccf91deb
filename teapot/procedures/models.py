"""Procedures with their versions, of which none ever changes, and the runs of them."""

from __future__ import annotations

import uuid

from django.db import models
from django.urls import reverse

from teapot.accounts.models import Person
from teapot.engine.numbers import shelf
from teapot.engine.reading.forms import STANDARD
from teapot.shelf.items import LONGEST_NAME, OnShelfQuerySet, UsedByName
from teapot.shelf.settings_of_lines import UnderConventions


class Procedure(UsedByName):
    """Lines under a name; ``owner`` is None for those of the demo."""

    word = "procedure"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="procedures")
    name = models.CharField(max_length=LONGEST_NAME)
    made = models.DateTimeField(auto_now_add=True)

    objects = OnShelfQuerySet.as_manager()

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(
                fields=("owner", "name"),
                condition=models.Q(binned=None),
                name="one_procedure_a_name",
            ),
        )

    def get_absolute_url(self) -> str:
        """Its page."""
        return reverse("procedure", args=[self.pk])

    @property
    def newest(self) -> ProcedureVersion:
        """The version that ``run(name)`` runs."""
        return self.versions.latest("made")


class ProcedureVersion(UnderConventions):
    """The lines of a procedure as they were from a moment on, one a row of ``text``."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    procedure = models.ForeignKey(Procedure, models.CASCADE, related_name="versions")
    text = models.TextField(default="")
    form = models.CharField(max_length=60, default=STANDARD.text)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-made",)

    @property
    def for_engine(self) -> shelf.ProcedureText:
        """What an evaluator needs to run it."""
        return shelf.ProcedureText(
            self.procedure.name,
            self.text,
            self.angle,
            self.log,
            self.numbers,
            self.form,
            self.units,
        )


class Run(models.Model):
    """A run: the ``replies`` by what they are handed over under, as they were typed, the
    ``outcomes`` of its lines, and what was drawn and replied for each."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    version = models.ForeignKey(ProcedureVersion, models.CASCADE, related_name="runs")
    replies = models.JSONField(default=dict)
    outcomes = models.JSONField(default=list)
    draws = models.JSONField(default=list)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-made",)
