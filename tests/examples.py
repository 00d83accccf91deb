"""How many examples a property is tried on: a tenth here, the same ones in every run, and all of
them at random with ``make fuzz``."""

from __future__ import annotations

import os

from hypothesis import settings

IS_THOROUGH = bool(os.environ.get("TEAPOT_THOROUGH"))

FEWEST = 100
"""Examples in any case."""


def tried_on(examples: int) -> settings:
    """Marks a property that so many ``examples`` are worth."""
    return settings(max_examples=examples if IS_THOROUGH else max(FEWEST, examples // 10))
