"""What all that lies on the shelf has in common."""

from __future__ import annotations

from typing import Self

from django.db import models
from django.utils import timezone

LONGEST_FOLDER = 200
LONGEST_NAME = 80


class OnShelfQuerySet(models.QuerySet):
    """Things on the shelf, as they are asked for."""

    def at_hand(self) -> Self:
        """Those that are not in the bin."""
        return self.filter(binned=None)


class OnShelf(models.Model):
    """``folder`` is where it lies, such as ``week 3/kettles``; empty at the top.  ``binned`` is
    when it was put into the bin."""

    folder = models.CharField(max_length=LONGEST_FOLDER, default="")
    opened = models.DateTimeField(default=timezone.now)
    binned = models.DateTimeField(null=True)

    class Meta:
        abstract = True

    @property
    def name_shown(self) -> str:
        """What it is called."""
        return str(getattr(self, "title", "") or getattr(self, "name", ""))
