"""The console as a part of the project."""

from __future__ import annotations

from django.apps import AppConfig

from teapot.sqlite import words


class ConsoleConfig(AppConfig):
    """Registers sheets as a kind of thing on the shelf, and keeps the index of their words."""

    name = "teapot.console"

    def ready(self) -> None:
        from teapot.console import kind  # noqa: F401 - it registers itself

        words.keep(words.Index("line_words", "console_line", ("text", "search_text")), self)
