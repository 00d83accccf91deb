"""The console as a part of the project."""

from __future__ import annotations

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class ConsoleConfig(AppConfig):
    """Sees to the index of words after every migration."""

    name = "teapot.console"

    def ready(self) -> None:
        from teapot.console import words

        post_migrate.connect(words.see_to, sender=self)
