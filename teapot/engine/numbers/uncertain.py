"""Measured values: numbers and measures with a standard uncertainty (JCGM 100, the GUM).

What is computed from them carries it on to first order (JCGM 100, 5.1.2).  Each value knows what
each input contributes to it, with its sign: an input that is used twice is counted once, and what
cancels is gone.  Where first order gives nothing, second order is what is left (5.1.2, note).

Contributions are rational numbers, so that small differences of large ones stay what they are.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import reduce
from typing import TypeVar
from zlib import crc32

from flint import fmpq

from teapot.engine.limits import MAX_DIGITS
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.lazy_sequence import LazySequence
from teapot.engine.numbers.values import (
    Exact,
    Extended,
    List,
    Number,
    Real,
    Source,
    Uncertain,
    Value,
    bare_size,
    exact,
    real,
    with_size,
)
from teapot.engine.sentences.units import (
    NEGATIVE_UNCERTAINTY,
    NO_UNCERTAINTY_HERE,
)
from teapot.engine.sentences.values import TOO_LARGE
from teapot.engine.sentences.warnings import BEYOND_SECOND_ORDER, SECOND_ORDER

GONE = fmpq(1, 2**130)
"""A contribution so much smaller than those that it was made of has cancelled: a slope is known
to about so many digits."""

BENDS_GONE = fmpq(1, 2**80)
"""The same for second order."""

FLAT = fmpq(2**120)
"""How many times more than its variance the square is of what a value changes far away, where
first and second order tell nothing of it."""

TOLD = 10_000
"""Second order is told where it is at least a hundredth of the uncertainty: squared."""

BITS = 420
"""Binary digits of a difference of two values that are next to each other."""

MOST_BITS = 4 * MAX_DIGITS

KEPT = 220
"""Binary digits of a contribution."""

SHOWN = 192
"""Binary digits of what is only looked at."""

HALF = exact(fmpq(1, 2))

ZERO, ONE = fmpq(0), fmpq(1)

Parts = Mapping[Source, fmpq]

Bend = tuple[frozenset[Source], fmpq]
"""An input or a pair of them, and what it contributes to second order."""

Key = TypeVar("Key")


def size_of(value: Value) -> Number:
    """The number of coherent units that a measured value is about.

    Errors: :data:`NO_UNCERTAINTY_HERE` for what has no such number.
    """
    size = bare_size(value.nominal if isinstance(value, Uncertain) else value)
    if not isinstance(size, Exact | Real):
        raise NO_UNCERTAINTY_HERE()
    return size


def nearly(number: Number) -> float:
    """About how large a number is.  Errors: :data:`TOO_LARGE` beyond what a float holds."""
    try:
        return float(number.ball(SHOWN).mid())
    except OverflowError:
        raise TOO_LARGE(limit=MAX_DIGITS) from None


def rational(number: Number, bits: int = BITS) -> fmpq:
    """A number as a fraction: itself where it is one, or else the middle of its ball.

    Errors: :data:`TOO_LARGE` for one with more figures than the limit.
    """
    if isinstance(number, Exact) and number.is_rational:
        return number.coefficient
    mantissa, exponent = number.ball(bits).mid().man_exp()
    if abs(exponent) > MOST_BITS:
        raise TOO_LARGE(limit=MAX_DIGITS)
    return fmpq(mantissa) * fmpq(2) ** int(exponent)


def _shortened(part: fmpq, bits: int = KEPT) -> fmpq:
    """With no more digits than count, where it has many."""
    above, below = abs(part.p), part.q
    if above.bit_length() + below.bit_length() <= 4 * bits:
        return part
    shift = bits - above.bit_length() + below.bit_length()
    scaled = part * fmpq(2) ** shift
    return fmpq(scaled.floor()) / fmpq(2) ** shift


def measured(nominal: Value, uncertainty: Number, source: Source) -> Value:
    """A value with a standard uncertainty in coherent units; without one where that is 0.

    Errors: :data:`NEGATIVE_UNCERTAINTY`, and as :func:`size_of`.
    """
    size_of(nominal)
    size = rational(uncertainty)
    if size < 0:
        raise NEGATIVE_UNCERTAINTY()
    return Uncertain(nominal, {source: size}) if size else nominal


def variance(value: Uncertain) -> fmpq:
    """The square of its standard uncertainty: to first order, and to second order by the inputs
    that first order gives nothing of (JCGM 100, 5.1.2, note)."""
    return _first_order(value) + _second_order(value)


def _first_order(value: Uncertain) -> fmpq:
    return sum((part * part for part in value.parts.values()), ZERO)


def _second_order(value: Uncertain) -> fmpq:
    squares = (bend * bend * len(pair) for pair, bend in _counted(value))
    return sum(squares, ZERO) / 2


def _counted(value: Uncertain) -> Iterator[Bend]:
    """What counts to second order: by inputs that first order gives nothing of."""
    parts = value.parts
    for pair, bend in value.bends.items():
        if parts.keys().isdisjoint(pair):
            yield pair, bend


def _variances(value: Uncertain) -> dict[Source, fmpq]:
    """What each input has of it; two that go together have half each."""
    found = {source: part * part for source, part in value.parts.items()}
    for pair, bend in _counted(value):
        for source in pair:
            found[source] = found.get(source, fmpq(0)) + bend * bend / 2
    return found


def of(value: Uncertain) -> Number:
    """Its standard uncertainty, in coherent units; exactly where it is a fraction."""
    parts = list(value.parts.values())
    if len(parts) == 1 and not any(_counted(value)):
        return exact(abs(parts[0]))
    return _root(variance(value))


def _root(square: fmpq) -> Number:
    return real(arithmetic.power(exact(square), HALF))


def root(square: fmpq) -> fmpq:
    """A contribution whose square is known."""
    return rational(_root(square))


def with_parts(nominal: Value, parts: Parts) -> Value:
    """A measured value; the value alone where nothing contributes."""
    present = {source: part for source, part in parts.items() if part}
    return Uncertain(nominal, present) if present else nominal


Terms = Sequence[tuple[Value, fmpq]]
"""Values, each with its factor in a sum."""


def _added(terms: Iterable[tuple[Key, fmpq]], gone: fmpq = GONE) -> dict[Key, fmpq]:
    """The sum of what each key has; what cancels, but for so much of it, is gone."""
    found: dict[Key, fmpq] = {}
    largest: dict[Key, fmpq] = {}
    for key, term in terms:
        found[key] = found.get(key, fmpq(0)) + term
        largest[key] = max(largest.get(key, fmpq(0)), abs(term))
    return {
        key: _shortened(total) for key, total in found.items() if abs(total) > gone * largest[key]
    }


def combined(
    found: Value, terms: Terms, own: Sequence[Bend] = (), far: fmpq | None = None
) -> Value:
    """A value that rises with each of the ``terms`` by its factor.

    ``own`` is how the function itself bends, and ``far`` what it gives where all inputs are
    :func:`far_of`: where nothing else is left of an uncertainty, that is.
    """
    measured = [(one, factor) for one, factor in terms if isinstance(one, Uncertain)]
    parts = _added(
        (source, part * factor) for one, factor in measured for source, part in one.parts.items()
    )
    inherited = (
        (pair, bend * factor) for one, factor in measured for pair, bend in one.bends.items()
    )
    bends = _added((*inherited, *own), BENDS_GONE)
    size = rational(size_of(found))
    if far is None:
        far = size + sum((factor * (far_of(one) - _nominal(one)) for one, factor in measured), ZERO)
    result = Uncertain(found, parts, bends, _shortened(far, BITS))
    first, second = _first_order(result), _second_order(result)
    if FLAT * (first + second) > (far - size) ** 2:
        if TOLD * second > first:
            notice(SECOND_ORDER)
        return result
    return by_what_is_far(found, [one for one, _ in measured], far - size)


def by_what_is_far(found: Value, inputs: Sequence[Uncertain], apart: fmpq) -> Value:
    """A value of which first and second order tell nothing."""
    sources = dict.fromkeys(source for one in inputs for source in sources_of(one))
    if not sources or abs(apart) <= GONE * max(rational(of(one), SHOWN) for one in inputs):
        return found
    notice(BEYOND_SECOND_ORDER)
    name = ", ".join(dict.fromkeys(source.name for source in sources))
    source = Source(("beyond second order", *(one.key for one in sources)), name)
    return Uncertain(found, {source: abs(apart)})


def far_of(value: Uncertain) -> fmpq:
    """What it is where each of its inputs is farther away than a standard uncertainty."""
    if value.far is not None:
        return value.far
    far = _nominal(value)
    for sources, part in _orders(value):
        far += reduce(lambda step, source: step * _away(source), sources, part)
    return far


def _away(source: Source) -> fmpq:
    """How many of its standard uncertainties that is: about as many as give the spread of the third
    or fourth power of a normal distribution, 15^(1/6) and 96^(1/8); for each input another number,
    so that nothing cancels by chance."""
    return fmpq(3, 2) + fmpq(crc32(source.name.encode()) % 1000, 3000)


def _nominal(value: Uncertain) -> fmpq:
    return rational(size_of(value))


def sources_of(value: Uncertain) -> list[Source]:
    """The inputs that contribute to it."""
    inside = (source for pair in value.bends for source in sorted(pair, key=lambda one: one.name))
    return list(dict.fromkeys((*value.parts, *inside)))


RELATIVE_OF_DALTON = fmpq(52, 166053906892)
"""CODATA 2022: 1.660 539 068 92(52) × 10^−27 kg."""

DALTON = Source(("constant", "atomic mass constant"), "atomic mass constant")


def with_dalton(value: Value, power: fmpq) -> Value:
    """A measure that is so many daltons to a ``power``, as one of kilograms: the dalton is
    measured."""
    if not power:
        return value
    nominal = value.nominal if isinstance(value, Uncertain) else value
    size = rational(size_of(nominal)) * power * RELATIVE_OF_DALTON
    return combined(nominal, ((value, ONE), (Uncertain(nominal, {DALTON: size}), ONE)))


Gradient = Callable[[list[fmpq]], list[fmpq]]
"""How much a function of a list rises with each of its items, all in coherent units."""


def nominals_of(items: Sequence[Value]) -> Sequence[Value]:
    """The items without their uncertainties, which an array of numbers has none of."""
    if isinstance(items, LazySequence):
        return items
    return [one.nominal if isinstance(one, Uncertain) else one for one in items]


def of_list(value: Value, items: Sequence[Value], gradient: Gradient) -> Value:
    """A ``value`` of a list of which items are measured, by how it rises with each."""
    sizes = [rational(size_of(one)) for one in items]
    return combined(value, list(zip(items, gradient(sizes), strict=True)))


def measured_in(value: Value) -> Iterator[Uncertain]:
    """The measured values among what a value holds."""
    if isinstance(value, Uncertain):
        yield value
    elif isinstance(value, List) and not isinstance(value.items, LazySequence):
        for one in value.items:
            yield from measured_in(one)


def has_measured(value: Value) -> bool:
    """Whether a value is measured, or holds one that is."""
    return next(measured_in(value), None) is not None


def _orders(value: Uncertain) -> Iterator[tuple[tuple[Source, ...], fmpq]]:
    """What the steps of inputs, multiplied with each other, change by so much."""
    yield from (((source,), part) for source, part in value.parts.items())
    for pair, bend in value.bends.items():
        one, *others = pair
        yield ((one, *others), bend) if others else ((one, one), bend / 2)


def moved(value: Value, far: Mapping[Source, Number]) -> Value:
    """A value without its uncertainty where each input is so many standard uncertainties beside
    its own value; also of what a list holds."""
    if isinstance(value, Uncertain):
        size: Number = size_of(value)
        for sources, part in _orders(value):
            if far.keys() >= {*sources}:
                step: Extended = exact(part)
                for source in sources:
                    step = arithmetic.multiply(step, far[source])
                size = real(arithmetic.add(size, step))
        return with_size(value.nominal, size)
    if isinstance(value, List) and has_measured(value):
        return List(tuple(moved(one, far) for one in value.items))
    return value


# -- what contributes ----------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Share:
    """How much of the variance of a value an input has."""

    name: str
    part: float

    @property
    def text(self) -> str:
        """In percent, with two figures.

        >>> Share("l", 0.9996).text, Share("t", 0.0243).text, Share("m", 0.0001).text
        ('100 %', '2.4 %', 'under 0.1 %')
        """
        hundredths = 100 * self.part
        if hundredths < 0.1:
            return "under 0.1 %"
        return f"{hundredths:.{0 if hundredths >= 9.95 else 1 if hundredths >= 0.995 else 2}f} %"


def shares(value: Uncertain) -> list[Share]:
    """The inputs with their shares, the largest first."""
    whole = variance(value)
    found = [
        Share(source.name, float(exact(part / whole).ball(64).mid()))
        for source, part in _variances(value).items()
    ]
    return sorted(found, key=lambda one: -one.part)
