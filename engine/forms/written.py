"""What a value is written as."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Written:
    """``sign`` is ``=`` for exact and ``≈`` for rounded; ``remark`` a sentence.

    ``also`` are further sayings about the value, such as its true value beside
    that of binary64.  ``nearly`` is the same value rounded, where both are worth
    showing.  ``cells`` are the rows of a table, its names first.
    """

    kind: str
    sign: str
    text: str
    mathml: str
    also: tuple[str, ...] = ()
    remark: str = ""
    nearly: Written | None = None
    cells: tuple[tuple[str, ...], ...] = ()
