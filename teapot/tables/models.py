"""Data tables, as they are kept: each with its versions, of which none ever changes."""

from __future__ import annotations

import uuid
from pathlib import Path

from django.conf import settings
from django.db import models
from django.urls import reverse

from teapot.accounts.models import Person
from teapot.engine.files.preview import ColumnGuess, Guess
from teapot.engine.files.shelf import File
from teapot.shelf.items import LONGEST_NAME, OnShelfQuerySet, UsedByName


class DataTable(UsedByName):
    """A table under a name; ``owner`` is None for those of the demo.

    One in the bin can be brought back, and stays readable for the lines that used it.
    """

    word = "table"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="tables")
    name = models.CharField(max_length=LONGEST_NAME)
    made = models.DateTimeField(auto_now_add=True)

    objects = OnShelfQuerySet.as_manager()

    class Meta:
        app_label = "shelf"  # where its table has always been
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(
                fields=("owner", "name"),
                condition=models.Q(binned=None),
                name="one_table_a_name",
            ),
        )

    def get_absolute_url(self) -> str:
        """Its page."""
        return reverse("table", args=[self.pk])

    @property
    def newest(self) -> Version:
        """The version that ``shelf(name)`` gives."""
        return self.versions.latest("made")


class Version(models.Model):
    """A file as it was brought in, and how it is read.

    ``table`` is None while it is only looked at; ``owner`` is who brought it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="versions")
    table = models.ForeignKey(DataTable, models.CASCADE, null=True, related_name="versions")
    file_name = models.CharField(max_length=200)
    separator = models.CharField(max_length=2, default=",")
    point = models.CharField(max_length=2, default=".")
    has_head = models.BooleanField(default=True)
    encoding = models.CharField(max_length=20, default="")
    marks = models.CharField(max_length=400, default="")
    above = models.PositiveIntegerField(default=0)
    below = models.PositiveIntegerField(default=0)
    has_units = models.BooleanField(default=False)
    month_first = models.BooleanField(default=False)
    sheet = models.CharField(max_length=100, default="")
    columns = models.JSONField(default=list)
    rows = models.PositiveIntegerField(default=0)
    size = models.PositiveIntegerField(default=0)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        app_label = "shelf"

    @property
    def path(self) -> Path:
        """Where the file is."""
        return settings.DATA / "tables" / str(self.pk)

    @property
    def guess(self) -> Guess:
        """How the file is read."""
        columns = tuple(ColumnGuess(**column) for column in self.columns)
        return Guess(
            self.separator,
            self.point,
            self.has_head,
            columns,
            self.marks,
            self.encoding,
            self.above,
            self.below,
            self.has_units,
            self.month_first,
            self.sheet,
        )

    @property
    def file(self) -> File:
        """What an evaluator needs to read it."""
        return File(str(self.path), self.guess)
