"""Work for a process of its own, as the tests of the fence have it done."""

import os
import signal
import time
from dataclasses import dataclass

from teapot.engine import FullSheet, LineError, Outcome
from teapot.engine.numbers.context import Conventions
from teapot.engine.sheet.line import Drawn
from teapot.engine.sheet.outcome import ERROR
from teapot.engine.sheet.shown import KeptOutcome
from teapot.fence.jobs import Job


def stick():
    """Goes on without end, and cannot be interrupted."""
    signal.pthread_sigmask(signal.SIG_BLOCK, {signal.SIGALRM})
    while True:
        pass


def hoard(size=4 * 1024**3):
    """Takes memory."""
    return len(bytearray(size))


def abort(really):
    """Ends its own process, as a library does that gets no memory."""
    if really:
        os.abort()
    return "done"


def sleep(seconds):
    """Takes its time."""
    time.sleep(seconds)
    return "slept"


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer(Job[KeptOutcome]):
    """What a line would answer, at the foot of the sheet or at a ``place``."""

    number: int
    text: str
    last: int | None = None
    place: float | None = None
    conventions: Conventions | None = None
    replies: tuple[str, ...] = ()
    draws: Drawn = ()

    def do(self, sheet: FullSheet) -> KeptOutcome:
        return sheet.entered(
            self.text,
            self.last,
            self.number,
            self.place,
            self.conventions,
            may_draw=True,
            replies=self.replies,
            draws=self.draws,
        )[1].kept()

    def failed(self, error: LineError) -> KeptOutcome:
        return Outcome(self.number, self.text, ERROR, error=error).kept()


def compute(seconds):
    """Takes so much processor time."""
    until = time.process_time() + seconds
    while time.process_time() < until:
        pass
    return "computed"


@dataclass(frozen=True, slots=True, kw_only=True)
class Compute(Job[str]):
    """Work that takes so much processor time, and says what came of it."""

    takes: float

    def do(self, sheet: FullSheet) -> str:
        return compute(self.takes)

    def failed(self, error: LineError) -> str:
        return error.code


@dataclass(frozen=True, slots=True, kw_only=True)
class Sleep(Compute):
    """Work that takes no processor time, but time on the clock."""

    def do(self, sheet: FullSheet) -> str:
        return sleep(self.takes)
