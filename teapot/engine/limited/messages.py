"""What processes of ours say to each other.

As ``send`` and ``recv`` of a connection, whose pickler, made anew for each message, takes longer
than the system does to carry it.
"""

from __future__ import annotations

import pickle
import struct
from multiprocessing.connection import Connection
from typing import Any


def send(connection: Connection, thing: Any) -> None:
    """Sends it.  Errors: OSError."""
    connection.send_bytes(pickle.dumps(thing, pickle.HIGHEST_PROTOCOL))


def receive(connection: Connection) -> Any:
    """What is said next, which is waited for.  Errors: EOFError, OSError."""
    return pickle.loads(connection.recv_bytes())  # noqa: S301 - of our own process


def timeval(seconds: float) -> bytes:
    """A time as the system wants it told, for how long a line may stand still."""
    return struct.pack("ll", int(seconds), int(seconds % 1 * 1e6))
