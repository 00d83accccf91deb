"""The database, written by one thread of a process at a time: first come, first served.

SQLite itself has whoever finds it locked look again after a while, so that of many who wait the
luckiest comes first, and some for long not at all.  Here they wait in a queue and are called.
Other processes are waited for as SQLite does it: there are few of them.
"""

from __future__ import annotations

import threading
from collections import deque

from django.db.backends.sqlite3 import base
from django.db.utils import OperationalError


class Queue:
    """Threads that want to write."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._waiting: deque[threading.Event] = deque()
        self._is_taken = False

    def enter(self, seconds: float) -> bool:
        """Waits for one's turn; false where it did not come in time."""
        with self._lock:
            if not self._is_taken:
                self._is_taken = True
                return True
            called = threading.Event()
            self._waiting.append(called)
        if called.wait(seconds):
            return True
        with self._lock:
            if called.is_set():  # just now
                return True
            self._waiting.remove(called)
        return False

    def leave(self) -> None:
        """Calls the next one."""
        with self._lock:
            if self._waiting:
                self._waiting.popleft().set()
            else:
                self._is_taken = False


writers = Queue()


class DatabaseWrapper(base.DatabaseWrapper):
    """A connection of Django to SQLite whose transactions wait for their turn."""

    has_turn = False

    def _start_transaction_under_autocommit(self) -> None:
        if not writers.enter(self.settings_dict["OPTIONS"]["timeout"]):
            raise OperationalError("database is locked")
        self.has_turn = True
        try:
            super()._start_transaction_under_autocommit()
        except BaseException:
            self._leave()
            raise

    def _commit(self) -> None:
        super()._commit()  # where that fails it is rolled back
        self._leave()

    def _rollback(self) -> None:
        try:
            super()._rollback()
        finally:
            self._leave()

    def _close(self) -> None:
        try:
            super()._close()
        finally:
            self._leave()

    def _leave(self) -> None:
        if self.has_turn:
            self.has_turn = False
            writers.leave()
