"""When a process began its work, as whoever waits for it can see without being told.

Work counts from there: a process that has just been started, or that waits for a processor, is
not to blame for what it has not begun.
"""

from __future__ import annotations

import mmap
import os
import struct
import time

MOMENT = struct.Struct("dd")


class SharedStartTime:
    """A moment that two processes see, by a file in memory that both have open: on the clock, and
    in the processor time of the one that works."""

    def __init__(self, file: int) -> None:
        self._seen = mmap.mmap(file, MOMENT.size)

    @staticmethod
    def file() -> int:
        """A new one, to be handed on."""
        file = os.memfd_create("begun")
        os.ftruncate(file, MOMENT.size)
        return file

    def forget(self) -> None:
        """Nothing is begun yet."""
        MOMENT.pack_into(self._seen, 0, 0.0, 0.0)

    def now(self) -> None:
        """It begins."""
        MOMENT.pack_into(self._seen, 0, time.monotonic(), time.process_time())

    @property
    def at(self) -> float:
        """When it began, by ``time.monotonic``; 0 where it has not."""
        moment: float = MOMENT.unpack_from(self._seen)[0]
        return moment

    @property
    def processor_time(self) -> float:
        """How much processor time it had used before."""
        seconds: float = MOMENT.unpack_from(self._seen)[1]
        return seconds
