"""Many rational numbers as whole numbers over one denominator: decimals of a file have a power
of ten, and whole numbers are read, put in order and added up much faster than fractions."""

from __future__ import annotations

import operator
from collections.abc import Callable, Iterator, Sequence
from math import lcm

from flint import fmpq

from teapot.engine.numbers.lazy_sequence import LazySequence
from teapot.engine.numbers.values import MISSING, Exact, Value

MAX_BITS = 256
"""Binary digits of the denominator: with more, fractions are as fast."""

MOST_BITS = 4096
"""Binary digits of a number that is worked out here: with more, each is held to its limit."""


class CommonDenominatorArray(LazySequence):
    """Rational numbers, each ``above`` over the one ``below``; those in ``gaps``, places counted
    from 0, are missing.  Each is made into a value when it is asked for.

    >>> list(CommonDenominatorArray([5, 20], 10))
    [Exact(coefficient=1/2, pi_power=0), Exact(coefficient=2, pi_power=0)]
    """

    __slots__ = ("_made", "above", "below", "gaps")

    def __init__(
        self, above: Sequence[int], below: int, gaps: frozenset[int] = frozenset()
    ) -> None:
        self.above = above
        self.below = below
        self.gaps = gaps
        self._made: tuple[Value, ...] = ()

    def __len__(self) -> int:
        return len(self.above)

    def one(self, place: int) -> Value:
        if place % len(self) in self.gaps:
            return MISSING
        return Exact(fmpq(self.above[place], self.below))

    def __iter__(self) -> Iterator[Value]:
        if not self._made:
            made: list[Value] = [Exact(fmpq(above, self.below)) for above in self.above]
            for gap in self.gaps:
                made[gap] = MISSING
            self._made = tuple(made)
        return iter(self._made)

    def part(self, places: slice) -> CommonDenominatorArray:
        return self.at(range(len(self))[places])

    def at(self, places: Sequence[int]) -> CommonDenominatorArray:
        """The numbers at these places, counted from 0.

        >>> CommonDenominatorArray([5, 20, 30], 10).at([2, 0]).above
        [30, 5]
        """
        above = [self.above[place] for place in places]
        gaps = {at for at, place in enumerate(places) if place in self.gaps} if self.gaps else ()
        return CommonDenominatorArray(above, self.below, frozenset(gaps))

    def without_gaps(self) -> CommonDenominatorArray:
        """The numbers that are there; these themselves where all are."""
        if not self.gaps:
            return self
        return self.at([place for place in range(len(self)) if place not in self.gaps])


WHOLE: dict[str, Callable[[int, int], int]] = {
    "+": operator.add,
    "-": operator.sub,
    "*": operator.mul,
}


def operate(
    op: str, a: Value | Sequence[Value], b: Value | Sequence[Value]
) -> CommonDenominatorArray | None:
    """``a op b`` item by item with whole numbers, where one is such an array and the other is too,
    or is a rational number; None where it has to be done one by one.

    >>> list(operate("+", CommonDenominatorArray([5, 20], 10), Exact(fmpq(1, 4))))
    [Exact(coefficient=3/4, pi_power=0), Exact(coefficient=9/4, pi_power=0)]
    """
    length = next((len(one) for one in (a, b) if isinstance(one, CommonDenominatorArray)), 0)
    if op == "/" and isinstance(b, Exact) and b.is_rational and b.coefficient:
        op, b = "*", Exact(1 / b.coefficient)
    first, second = (_as_array(one, length) for one in (a, b))
    if op not in WHOLE or first is None or second is None or len(first) != len(second):
        return None
    below = first.below * second.below if op == "*" else lcm(first.below, second.below)
    if below.bit_length() > MAX_BITS:
        return None
    one, other = (
        side.above
        if op == "*" or side.below == below
        else [above * (below // side.below) for above in side.above]
        for side in (first, second)
    )
    above = list(map(WHOLE[op], one, other))
    if any(number.bit_length() > MOST_BITS for number in (min(above), max(above))):
        return None
    return CommonDenominatorArray(above, below, first.gaps | second.gaps)


def _as_array(value: Value | Sequence[Value], length: int) -> CommonDenominatorArray | None:
    if isinstance(value, CommonDenominatorArray):
        return value
    if not isinstance(value, Exact) or not value.is_rational or not length:
        return None
    number = value.coefficient
    return CommonDenominatorArray([int(number.p)] * length, int(number.q))
