"""Work for a process of its own, as the tests of the fence have it done."""

import os
import signal
import time


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
