"""A person: whoever holds the cookie of one browser."""

import uuid

from django.db import models


class Person(models.Model):
    """The owner of sheets.  A guest until accounts exist."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    created = models.DateTimeField(auto_now_add=True)
