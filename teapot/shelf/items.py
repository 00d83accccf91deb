"""What all that lies on the shelf has in common."""

from __future__ import annotations

from typing import Any, ClassVar, Self

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

    word: ClassVar[str]
    """What a thing of its kind is called: sheet, procedure, table or record."""

    folder = models.CharField(max_length=LONGEST_FOLDER, default="")
    opened = models.DateTimeField(default=timezone.now)
    binned = models.DateTimeField(null=True)

    class Meta:
        abstract = True

    @property
    def name_shown(self) -> str:
        """What it is called."""
        return str(getattr(self, "title", "") or getattr(self, "name", ""))

    def is_taken(self, name: str) -> bool:
        """Whether another of its kind on the same shelf has the name."""
        others: Any = type(self)
        at_hand = others.objects.at_hand().filter(owner=getattr(self, "owner", None))
        return bool(at_hand.exclude(pk=self.pk).filter(name=name).exists())

    def untaken(self, name: str) -> str:
        """The name, or with a number after it where another of its kind has it."""
        number, found = 2, name
        while self.is_taken(found):
            found, number = f"{name[: LONGEST_NAME - 5]} {number}", number + 1
        return found


MOST_FORMER_NAMES = 20


class UsedByName(OnShelf):
    """What lines use by its name; ``former_names`` are those that it had, the last one last."""

    former_names = models.JSONField(default=list)

    class Meta:
        abstract = True

    def names_after(self, name: str) -> list[str]:
        """Its former names once it is called ``name``."""
        former = [one for one in (*self.former_names, self.name_shown) if one != name]
        return former[-MOST_FORMER_NAMES:]
