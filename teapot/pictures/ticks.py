"""Round numbers along an axis."""

from __future__ import annotations

import math

ROUND = (1, 2, 5, 10)
FULL_FROM, FULL_TO = 1e4, 1e7
"""Numbers between these are written in full, not by a power of ten."""

USUAL = 4
"""About so many marks on an axis."""


def ticks(
    low: float, high: float, steps: tuple[int, ...] = ROUND, count: int = USUAL
) -> list[float]:
    """About ``count`` round numbers between two ends."""
    raw = (high - low) / count
    power = 1.0 if steps is not ROUND else 10.0 ** math.floor(math.log10(raw))
    step = next((power * factor for factor in steps if power * factor >= raw), power * steps[-1])
    first = math.ceil(low / step)
    return [n * step for n in range(first, math.floor(high / step) + 1)]


def short(number: float) -> str:
    """A number in few figures."""
    is_whole = FULL_FROM <= abs(number) < FULL_TO
    return (f"{number:.0f}" if is_whole else f"{number:.4g}").replace("-", "−")
