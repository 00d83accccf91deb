"""A person: whoever holds the cookie of one browser."""

import uuid

from django.db import models


class Person(models.Model):
    """The owner of sheets.  A guest until accounts exist."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    created = models.DateTimeField(auto_now_add=True)
    shelf_revision = models.PositiveIntegerField(default=1)
    """Goes up with each change of what is on the shelf: evaluators keep a copy of it."""
