"""A result of work in another process, with a note for whoever passes it on."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class Envelope:
    """A ``result`` that is passed on unread, and the ``note`` that is read."""

    note: str
    result: Any
