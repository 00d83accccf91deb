"""Many rational numbers as whole numbers over one denominator: decimals of a file have a power
of ten, and whole numbers are put in order and added up much faster than fractions."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Sequence
from math import lcm

from engine.numbers.values import Exact, Value

MAX_BITS = 256
"""Binary digits of the denominator: with more, fractions are as fast."""


LONG = 1000
MOST_KNOWN = 32
"""Long lists of which it is remembered what they are over one denominator."""

Scaled = tuple[list[int], int] | None

_known: OrderedDict[int, tuple[Sequence[Value], Scaled]] = OrderedDict()
"""By the identity of the items, which are held so that it stays theirs."""


def scaled(values: Sequence[Value]) -> Scaled:
    """The numerators over one denominator, and that; None where one is no rational number, or
    they have none that is small.

    >>> from engine.numbers.values import exact
    >>> from flint import fmpq
    >>> scaled([exact(fmpq(1, 2)), exact(fmpq(1, 5)), exact(3)])
    ([5, 2, 30], 10)
    """
    if not isinstance(values, tuple) or len(values) < LONG:
        return _scaled(values)
    key = id(values)
    if key not in _known:
        _known[key] = values, _scaled(values)
        if len(_known) > MOST_KNOWN:
            _known.popitem(last=False)
    return _known[key][1]


def _scaled(values: Sequence[Value]) -> Scaled:
    if {*map(type, values)} - {Exact}:
        return None
    fractions = [(one.coefficient.p, one.coefficient.q) for one in values if not one.pi_power]  # type: ignore[union-attr]
    if len(fractions) != len(values):
        return None
    common = 1
    for below in {int(below) for _, below in fractions}:
        common = lcm(common, below)
        if common.bit_length() > MAX_BITS:
            return None
    if common == 1:
        return [int(above) for above, _ in fractions], 1
    return [int(above) * (common // int(below)) for above, below in fractions], common
