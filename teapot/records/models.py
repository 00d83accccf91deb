"""Records: what happened on sheets between two moments, written down as it happened."""

from __future__ import annotations

import uuid

from django.db import models
from django.urls import reverse

from teapot.accounts.models import Person
from teapot.shelf.items import LONGEST_NAME, OnShelf, OnShelfQuerySet


class Record(OnShelf):
    """Events under a name, in ``parts``: each time that recording goes on is a new one."""

    word = "record"

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, null=True, related_name="records")
    name = models.CharField(max_length=LONGEST_NAME)
    note = models.TextField(default="")
    parts = models.PositiveIntegerField(default=1)
    made = models.DateTimeField(auto_now_add=True)

    objects = OnShelfQuerySet.as_manager()

    class Meta:
        ordering = ("name",)
        constraints = (
            models.UniqueConstraint(
                fields=("owner", "name"),
                condition=models.Q(binned=None),
                name="one_record_a_name",
            ),
        )

    def get_absolute_url(self) -> str:
        """Its page."""
        return reverse("record", args=[self.pk])


class Event(models.Model):
    """Something that happened: it is written once and never changed.

    ``kind`` is a word such as "mended", ``number`` the line that it happened to, with its
    ``text`` and ``answers`` from then on, and those ``before``.  ``sheet`` is the title that
    the sheet had.
    """

    record = models.ForeignKey(Record, models.CASCADE, related_name="events")
    part = models.PositiveIntegerField(default=1)
    at = models.DateTimeField()
    kind = models.CharField(max_length=20)
    sheet = models.CharField(max_length=120, default="")
    number = models.PositiveIntegerField(null=True)
    text = models.TextField(default="")
    answers = models.JSONField(default=list)
    said = models.TextField(default="")
    before = models.JSONField(null=True)

    class Meta:
        ordering = ("pk",)
