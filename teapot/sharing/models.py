"""Links by which others reach something of a person's, until they are taken back."""

import uuid

from django.db import models
from django.urls import reverse

from teapot.accounts.models import Person


class Link(models.Model):
    """A way to a thing on its owner's shelf.  Its key is all that whoever follows it knows;
    ``hands_out`` where it is there to be copied."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(Person, models.CASCADE, related_name="links")
    kind = models.CharField(max_length=20)
    thing = models.UUIDField()
    hands_out = models.BooleanField(default=False)
    made = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-made",)
        indexes = (models.Index(fields=("owner", "kind", "thing"), name="links_to_a_thing"),)

    def get_absolute_url(self) -> str:
        """What is given to others."""
        return reverse("shared", args=[self.pk])
