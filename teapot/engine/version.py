"""Which engine this is: answers that another one made are made again."""

from __future__ import annotations

from functools import cache
from hashlib import sha256
from pathlib import Path

import flint


@cache
def engine_version() -> str:
    """A name for the sources of the engine, and the library its balls are from."""
    name = sha256(flint.__version__.encode())
    folder = Path(__file__).parent
    for file in sorted(folder.rglob("*.py")):
        name.update(str(file.relative_to(folder)).encode() + file.read_bytes())
    return name.hexdigest()[:16]
