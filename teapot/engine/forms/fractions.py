"""The simplest fraction in an interval."""

from __future__ import annotations

from flint import fmpq


def simplest_within(low: fmpq, high: fmpq) -> fmpq:
    """The fraction with the smallest denominator in [``low``, ``high``].

    By continued fractions: as long as both ends have the same whole part it
    belongs to the result; then the smallest whole number between them ends it.
    """
    if low <= 0 <= high:
        return fmpq(0)
    if high < 0:
        return -simplest_within(-high, -low)
    whole = low.floor()
    if whole == low:
        return fmpq(whole)
    if whole < high.floor():
        return fmpq(whole + 1)
    return whole + 1 / simplest_within(1 / (high - whole), 1 / (low - whole))
