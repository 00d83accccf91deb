"""How many binary digits FLINT computes with, and how long its power series are: set here and
nowhere else, and put back."""

from __future__ import annotations

from flint import ctx


class precision:
    """Within it balls are computed, and their ends rounded, with so many binary digits.

    >>> with precision(256):
    ...     bits_now()
    256
    """

    __slots__ = ("before", "bits")

    def __init__(self, bits: int) -> None:
        self.bits = bits

    def __enter__(self) -> None:
        self.before = ctx.prec
        ctx.prec = self.bits

    def __exit__(self, *error: object) -> None:
        ctx.prec = self.before


class series_length:
    """Within it power series have so many terms.

    >>> with series_length(3):
    ...     ctx.cap
    3
    """

    __slots__ = ("before", "length")

    def __init__(self, length: int) -> None:
        self.length = length

    def __enter__(self) -> None:
        self.before = ctx.cap
        ctx.cap = self.length

    def __exit__(self, *error: object) -> None:
        ctx.cap = self.before


def terms_now() -> int:
    """The length of power series at hand."""
    return ctx.cap


def bits_now() -> int:
    """The precision at hand."""
    return ctx.prec
