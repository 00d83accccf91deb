"""The shelf as a part of the project."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_delete


def forget_held(instance: Any, **_: Any) -> None:
    """What a person brought in and did not settle goes with them."""
    from teapot.shelf.pending_import import forget

    forget(instance)


class ShelfConfig(AppConfig):
    """Sees to what waits to come in."""

    name = "teapot.shelf"

    def ready(self) -> None:
        from teapot.accounts.models import Person

        post_delete.connect(forget_held, sender=Person)
