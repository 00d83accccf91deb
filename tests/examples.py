"""How many examples a test is tried on: a part of them in each run, the same ones each time, and
all of them with ``make test-thorough``."""

from __future__ import annotations

import os

from hypothesis import settings

IS_THOROUGH = bool(os.environ.get("TEAPOT_THOROUGH"))

FEWEST = 100
"""Examples of a property in any case."""


def part_of(examples: int, parts: int = 5) -> int:
    """One of so many ``parts`` of a number of examples; all of them in a thorough run."""
    return examples if IS_THOROUGH else examples // parts


def tried_on(examples: int) -> settings:
    """Marks a property that so many ``examples`` are worth."""
    return settings(max_examples=max(min(examples, FEWEST), part_of(examples, parts=30)))
