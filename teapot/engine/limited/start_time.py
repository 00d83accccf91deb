"""When a process began its work, as whoever waits for it can see without being told.

Work counts from there: a process that has just been started, or that waits for a processor, is
not to blame for what it has not begun.
"""

from __future__ import annotations

import time
from multiprocessing.sharedctypes import RawArray


class SharedStartTime:
    """A moment that two processes see, by memory that both have: on the clock, and in the
    processor time of the one that works."""

    def __init__(self) -> None:
        self._seen = RawArray("d", 2)

    def forget(self) -> None:
        """Nothing is begun yet."""
        self._seen[:] = 0.0, 0.0

    def now(self) -> None:
        """It begins."""
        self._seen[:] = time.monotonic(), time.process_time()

    @property
    def at(self) -> float:
        """When it began, by ``time.monotonic``; 0 where it has not."""
        moment: float = self._seen[0]
        return moment

    @property
    def processor_time(self) -> float:
        """How much processor time it had used before."""
        seconds: float = self._seen[1]
        return seconds
