"""What processes that run for long do once, for the sake of others."""

from __future__ import annotations

import ctypes
import gc
import os
import signal

DEATH_SIGNAL, NAME = 1, 15
"""PR_SET_PDEATHSIG and PR_SET_NAME of prctl(2)."""

GARBAGE = 20_000
"""Objects after which garbage is looked for."""

_libc = ctypes.CDLL(None, use_errno=True)


SUPERVISOR = "TEAPOT_SUPERVISOR"
"""In the environment, the number of the process that starts the parts of a server."""


def end_with_parent(how: int = signal.SIGKILL) -> None:
    """Has the system send this process ``how`` when the one that started it is gone, whatever
    ended that; a supervisor may be gone before this is asked for."""
    _libc.prctl(DEATH_SIGNAL, how)
    supervisor = os.environ.get(SUPERVISOR)
    if supervisor and os.getppid() != int(supervisor):
        os.kill(os.getpid(), how)


def set_process_name(name: str) -> None:
    """Has this process be called so where processes are listed: 15 characters at most."""
    _libc.prctl(NAME, name.encode())


def seldom_look_for_garbage() -> None:
    """What is loaded by now stays, and is looked through no more; a piece of work makes about as
    many objects as Python's own measure has it look for garbage a dozen times."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(GARBAGE)
