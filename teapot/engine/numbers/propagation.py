"""How uncertainties go through what is computed (JCGM 100, 5.1.2, with its note).

A function is looked at a little beside the values that it is worked out for: how it rises with
each, how it bends, and what it is farther away.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache, partial
from itertools import combinations

from flint import fmpq, fmpz

from teapot.engine.errors import LineError
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers.uncertain import (
    BITS,
    SHOWN,
    Bend,
    by_what_is_far,
    combined,
    far_of,
    measured_in,
    moved,
    of,
    rational,
    size_of,
    sources_of,
)
from teapot.engine.numbers.values import (
    Exact,
    Infinite,
    List,
    Number,
    Real,
    Source,
    Uncertain,
    Undefined,
    Value,
    bare_size,
    exact,
    real,
    with_size,
)
from teapot.engine.sentences.units import ANOTHER_COUNT, NOT_REAL_BESIDE, UNCERTAINTY_OF_LIST

STEP = fmpq(1, 2**100)
"""How far beside a value a function is looked at, in uncertainties."""

NEARER = 1024
"""How many times nearer it is looked at, to see whether it breaks there."""

SMOOTH = fmpq(1, 2**40)
"""What bends no more than this, beside how it rises, does not break."""

MOST_PAIRS = 12
"""Inputs of which all pairs are looked at to second order; of more, each by itself."""

ROOT_OF_TWO = fmpq(fmpz(2 * 4**100).isqrt(), 2**100)
"""For what counts whole among contributions of which half the square is taken."""

ZERO = fmpq(0)


def through(compute: Callable[..., Value], *values: Value, is_linear: bool = False) -> Value:
    """What a function gives for values of which some are measured.

    Errors: those of the function, and :data:`UNCERTAINTY_OF_LIST` where it gives several values.
    """
    if not any(isinstance(value, Uncertain) for value in values):
        return compute(*values)
    nominals = [one.nominal if isinstance(one, Uncertain) else one for one in values]
    found = compute(*nominals)
    if isinstance(found, Undefined | Infinite | bool):
        return found
    if isinstance(found, List):
        raise UNCERTAINTY_OF_LIST()
    around = _Around(compute, nominals, size_of(found))
    measured = {place: one for place, one in enumerate(values) if isinstance(one, Uncertain)}
    try:
        along = {place: around.along(place, value, is_linear) for place, value in measured.items()}
    except LineError:
        lifted = around.lifted(found, measured)
        if lifted is None:
            raise
        return lifted
    terms = [(values[place], one.slope) for place, one in along.items()]
    if is_linear:
        return combined(found, terms)
    sources = {source for one in along.values() for source in one.value.parts}
    own = around.bent(along)
    if len(sources) > MOST_PAIRS:
        own = [(pair, bend) for pair, bend in own if len(pair) == 1]
    return combined(found, terms, own, around.far(along))


@dataclass(frozen=True, slots=True)
class _Along:
    """A function along one of its values: ``above`` is what it gives a ``step`` higher, ``slope``
    its derivative there, and ``bend`` its second one."""

    value: Uncertain
    step: fmpq
    above: Number
    slope: fmpq
    bend: fmpq


@dataclass(frozen=True, slots=True)
class _Around:
    """A function around the values that it is worked out for, where it gives ``size``."""

    compute: Callable[..., Value]
    nominals: list[Value]
    size: Number

    def at(self, steps: Mapping[int, fmpq]) -> Number:
        """What it gives where some values are so much larger."""
        beside = list(self.nominals)
        for place, step in steps.items():
            size = arithmetic.add(size_of(self.nominals[place]), exact(step))
            beside[place] = with_size(self.nominals[place], real(size))
        found = bare_size(self.compute(*beside))
        if not isinstance(found, Exact | Real):
            raise NOT_REAL_BESIDE()
        return found

    def lifted(self, found: Value, measured: Mapping[int, Uncertain]) -> Value | None:
        """At the least of what it is worked out for, as √(x^2) at 0: by the mean that bends make
        of that; None where it is worked out for anything else."""
        [(place, value), *others] = measured.items()
        mean = sum((bend for pair, bend in value.bends.items() if len(pair) == 1), ZERO) / 2
        if others or value.parts or not mean:
            return None
        try:
            apart = _difference(self.at({place: mean}), self.size)
        except LineError:
            return None
        return by_what_is_far(found, [value], apart)

    def along(self, place: int, value: Uncertain, is_linear: bool) -> _Along:
        """It along one of the values."""
        step = rational(of(value), SHOWN) * STEP
        above, below = self.at({place: step}), self.at({place: -step})
        slope = _difference(above, below) / (2 * step)
        bend = ZERO if is_linear else self._bend(place, step, above, below)
        return _Along(value, step, above, slope, bend / (step * step))

    def _bend(self, place: int, step: fmpq, above: Number, below: Number) -> fmpq:
        """The second difference; where it breaks, as |x| does at 0, what counts as much as that."""
        bend = _difference(_sum(above, below), _sum(self.size, self.size))
        if not bend:
            return bend
        up, down = (abs(_difference(one, self.size)) for one in (above, below))
        if abs(bend) > SMOOTH * max(up, down) and self._breaks({place: step}, max(up, down)):
            return (up + down) / 2 * ROOT_OF_TWO * STEP
        return bend

    def _breaks(self, steps: Mapping[int, fmpq], change: fmpq) -> bool:
        """Whether what it changes falls with the steps, not with their square."""
        nearer = {place: step / NEARER for place, step in steps.items()}
        below = {place: -step for place, step in nearer.items()}
        near = max(abs(_difference(self.at(one), self.size)) for one in (nearer, below))
        return near * NEARER * 32 > change

    def bent(self, along: Mapping[int, _Along]) -> list[Bend]:
        """How it bends by each input and each pair of them."""
        own = [
            bend for one in along.values() for bend in _pairs(one.value, one.value, one.bend / 2)
        ]
        if len(along) <= MOST_PAIRS:
            for (first, one), (second, other) in combinations(along.items(), 2):
                own += _pairs(one.value, other.value, self._twisted(first, one, second, other))
        return own

    def far(self, along: Mapping[int, _Along]) -> fmpq | None:
        """What it gives where all inputs are far away; None where it has no value there."""
        steps = {
            place: far_of(one.value) - rational(size_of(one.value)) for place, one in along.items()
        }
        try:
            return rational(self.at(steps))
        except LineError:
            return None

    def _twisted(self, first: int, one: _Along, second: int, other: _Along) -> fmpq:
        """The second derivative by two of the values; 0 where it breaks."""
        steps = {first: one.step, second: other.step}
        both = self.at(steps)
        twist = _difference(_sum(both, self.size), _sum(one.above, other.above))
        change = abs(_difference(both, self.size))
        if abs(twist) > SMOOTH * change and self._breaks(steps, change):
            return ZERO
        return twist / (one.step * other.step)


def _pairs(one: Uncertain, other: Uncertain, bend: fmpq) -> list[Bend]:
    """What a second derivative by two values contributes by each pair of their inputs."""
    if not bend:
        return []
    return [
        (frozenset((first, second)), bend * part * more * (2 if first == second else 1))
        for first, part in one.parts.items()
        for second, more in other.parts.items()
    ]


def _sum(a: Number, b: Number) -> Number:
    return real(arithmetic.add(a, b))


def _difference(a: Number, b: Number) -> fmpq:
    """Of two numbers; 0 where they cannot be told apart."""
    found = real(arithmetic.subtract(a, b))
    if isinstance(found, Real) and found.ball(BITS).contains(0):
        return fmpq(0)
    return rational(found)


Pick = Callable[[Value], Value]
"""Takes a plain value in the place of a measured one."""


def through_picked(compute: Callable[[Pick], Value]) -> Value:
    """What is computed from values of which it is only seen on the way which are measured: each of
    them is given to ``compute``'s argument, and what that gives is used in its place.

    Of several values each has its own uncertainty.

    Errors: those of ``compute``, and :data:`ANOTHER_COUNT` where values a little beside those
    that were measured give more values, or fewer.
    """
    sources: dict[Source, None] = {}

    def plain(value: Value) -> Value:
        for one in measured_in(value):
            sources.update(dict.fromkeys(sources_of(one)))
        return moved(value, {})

    found = compute(plain)
    if not sources:
        return found

    @cache
    def beside(*steps: Number) -> Value:
        far = dict(zip(sources, steps, strict=True))
        return compute(lambda value: moved(value, far))

    return _each(found, beside, [Uncertain(exact(0), {one: fmpq(1)}) for one in sources])


def _each(found: Value, compute: Callable[..., Value], inputs: Sequence[Value]) -> Value:
    """Every item of what was found with its uncertainty."""
    if not isinstance(found, List):
        return through(lambda *steps: alike(found, compute(*steps)), *inputs)

    def item(place: int, *steps: Number) -> Value:
        items = compute(*steps)
        if not isinstance(items, List) or len(items.items) != len(found.items):
            raise ANOTHER_COUNT()
        return alike(found.items[place], items.items[place])

    return List(
        tuple(_each(one, partial(item, place), inputs) for place, one in enumerate(found.items))
    )


def alike(found: Value, beside: Value) -> Value:
    """A value beside the one that was found, which is of its kind.

    Errors: :data:`ANOTHER_COUNT` where a real solution ends there.
    """
    if isinstance(bare_size(found), Exact | Real) and not isinstance(
        bare_size(beside), Exact | Real
    ):
        raise ANOTHER_COUNT()
    return beside
