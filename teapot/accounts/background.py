"""Threads for work that others should not wait for."""

from __future__ import annotations

import os
import threading
from concurrent.futures import ThreadPoolExecutor

NICENESS = 10
"""How much such a thread stands back where the processors are busy: see nice(2)."""


def _stand_back() -> None:
    os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), NICENESS)


def one_apart(name: str) -> ThreadPoolExecutor:
    """A thread that does one thing after another and stands back for others."""
    return ThreadPoolExecutor(1, name, initializer=_stand_back)
