"""The shelf as a part of the project."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_delete


def forget_file(instance: Any, **_: Any) -> None:
    """The file of a version goes with it, whichever way that goes."""
    instance.path.unlink(missing_ok=True)


def forget_held(instance: Any, **_: Any) -> None:
    """What a person brought in and did not settle goes with them."""
    from teapot.shelf.pending_import import forget

    forget(instance)


class ShelfConfig(AppConfig):
    """Sees to the files of data."""

    name = "teapot.shelf"

    def ready(self) -> None:
        from teapot.accounts.models import Person
        from teapot.shelf.models import Version

        post_delete.connect(forget_file, sender=Version)
        post_delete.connect(forget_held, sender=Person)
