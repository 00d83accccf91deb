"""Threads of tests: one that fails fails the test, and none keeps the tests from ending."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any

from tests.server import PATIENCE


class Thread:
    """What runs beside the test from now on; what it raises is raised where it is looked after."""

    def __init__(self, target: Callable[..., Any], *arguments: Any, **named: Any) -> None:
        self._failed: BaseException | None = None
        self._work = lambda: target(*arguments, **named)
        self._thread = threading.Thread(target=self._run, daemon=True)
        self._thread.start()

    def _run(self) -> None:
        try:
            self._work()
        except BaseException as failed:
            self._failed = failed

    def is_over(self, seconds: float = 0) -> bool:
        """Whether it has ended within ``seconds``, as it should."""
        self._thread.join(seconds)
        if self._failed is not None:
            raise self._failed
        return not self._thread.is_alive()

    def join(self) -> None:
        """Waits for its end."""
        assert self.is_over(PATIENCE), "it did not end"


def at_once(*targets: Callable[[], Any]) -> None:
    """Runs all of them at the same time, each in a thread of its own."""
    for thread in [Thread(target) for target in targets]:
        thread.join()
