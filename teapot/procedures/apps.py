"""Procedures as a part of the project."""

from __future__ import annotations

from django.apps import AppConfig


class ProceduresConfig(AppConfig):
    """Registers procedures as a kind of thing on the shelf."""

    name = "teapot.procedures"

    def ready(self) -> None:
        from teapot.procedures import kind  # noqa: F401 - it registers itself
