"""The evaluators: a few processes, and one aside for those whose work runs into limits again and
again."""

from __future__ import annotations

import time
from typing import Protocol

from teapot.engine.limited.child import Broke, Child, Slow
from teapot.fence.notes import AT_LIMIT, NEEDS_SYNC
from teapot.fence.turns import NOBODY, Client, Ticket, Turns

MOST_MEGABYTES = 700
"""Memory that an evaluator may have left after its work: one with more is replaced."""

NICENESS = 15
"""How much the process aside stands back where the processors are busy: see nice(2)."""

LONG_SECONDS, NOW_AND_THEN = 0.05, 50
"""Work after which the memory is looked at: that takes so long, and each so manieth."""


class Exchanges(Protocol):
    """Work under way at an evaluator, in one or two exchanges."""

    def exchange(self, seconds: float, arguments: bytes) -> tuple[str, bytes]: ...

    def leave(self) -> None: ...


class Evaluators:
    """``count`` evaluators and one aside, of which each does one piece of work at a time."""

    def __init__(self, count: int) -> None:
        self.children = [Child("teapot.fence.worker:noted") for _ in range(count + 1)]
        self.children[count].set_niceness(NICENESS)
        self.turns = Turns(count, aside=True)
        self._done = [0] * (count + 1)

    def begin(self, sheet: str, client: Client = NOBODY, gives_way: bool = False) -> Exchanges:
        """Work on a sheet, which waits for its turn at the first exchange."""
        return WorkSession(self, sheet, client, gives_way)

    def interrupt(self, sheet: str) -> None:
        """Stops what is being done on a sheet."""
        for at in self.turns.at_work(sheet):
            self.children[at].interrupt()

    def warm(self) -> None:
        """Starts all processes now, so that nobody waits for one later."""
        for child in self.children:
            child.start()

    def replace(self, at: int) -> None:
        """Puts a new process in the place of one."""
        self.children[at].stop()
        self.children[at].start()

    def is_too_large(self, at: int, seconds: float) -> bool:
        """Whether a process has too much memory, after work that took so long.  It is looked at
        after work that may have wanted much, and now and then."""
        self._done[at] += 1
        if seconds < LONG_SECONDS and self._done[at] % NOW_AND_THEN:
            return False
        return self.children[at].megabytes() > MOST_MEGABYTES

    def stop(self) -> None:
        """Ends all processes."""
        for child in self.children:
            child.stop()


class WorkSession:
    """Work of somebody on a sheet, at one evaluator."""

    def __init__(self, of: Evaluators, sheet: str, client: Client, gives_way: bool) -> None:
        self._of = of
        self._wanted = sheet, client, gives_way
        self._ticket: Ticket | None = None

    def exchange(self, seconds: float, arguments: bytes) -> tuple[str, bytes]:
        """The note and the result of work on pickled ``arguments``.  The evaluator is let go,
        unless it is :data:`NEEDS_SYNC`: then it waits for what it lacks.

        Errors: those of :meth:`Turns.take` and :meth:`Child.exchange`.
        """
        if self._ticket is None:
            self._ticket = self._of.turns.take(*self._wanted)
        at = self._ticket.at
        assert at is not None
        note, since = "", time.monotonic()
        try:
            note, result = self._of.children[at].exchange(seconds, arguments)
        except (Slow, Broke):
            note = AT_LIMIT
            raise
        finally:
            if note != NEEDS_SYNC:
                if self._of.is_too_large(at, time.monotonic() - since):
                    self._of.replace(at)
                self._let_go(note == AT_LIMIT)
        return note, result

    def leave(self) -> None:
        """Gives up on it."""
        self._let_go()

    def _let_go(self, was_at_limit: bool = False) -> None:
        ticket, self._ticket = self._ticket, None
        if ticket is not None:
            self._of.turns.give_back(ticket, was_at_limit)
