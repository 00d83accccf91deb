"""Data tables as a part of the project."""

from __future__ import annotations

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_delete


def forget_file(instance: Any, **_: Any) -> None:
    """The file of a version goes with it, whichever way that goes."""
    instance.path.unlink(missing_ok=True)


class TablesConfig(AppConfig):
    """Registers tables as a kind of thing on the shelf, and sees to their files."""

    name = "teapot.tables"

    def ready(self) -> None:
        from teapot.tables import kind  # noqa: F401 - it registers itself
        from teapot.tables.models import Version

        post_delete.connect(forget_file, sender=Version)
