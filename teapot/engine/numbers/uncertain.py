"""Measured values: numbers and measures with a standard uncertainty (JCGM 100, the GUM).

What is computed from them carries it on to first order (JCGM 100, 5.1.2).  Each value knows what
each input contributes to it, with its sign: an input that is used twice is counted once, and what
cancels is gone.  Where first order gives nothing, second order is what is left (5.1.2, note).

Contributions are rational numbers, so that small differences of large ones stay what they are.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache, partial
from itertools import combinations

from flint import fmpq, fmpz

from teapot.engine.errors import LineError
from teapot.engine.limits import MAX_DIGITS
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.lazy_sequence import LazySequence
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
from teapot.engine.sentences.units import (
    ANOTHER_COUNT,
    NEGATIVE_UNCERTAINTY,
    NO_UNCERTAINTY_HERE,
    UNCERTAINTY_OF_LIST,
)
from teapot.engine.sentences.values import TOO_LARGE
from teapot.engine.sentences.warnings import SECOND_ORDER

STEP = fmpq(1, 2**100)
"""How far beside a value a function is looked at for its slope, in uncertainties."""

SECOND_STEP = fmpq(1, 2**40)
"""The same for how the slope changes."""

GONE = fmpq(1, 2**130)
"""A contribution so much smaller than those that it was made of has cancelled: a slope is known
to about twice the digits of :data:`STEP`."""

BITS = 420
"""Binary digits of a difference of two values that are :data:`STEP` apart."""

MOST_BITS = 4 * MAX_DIGITS

KEPT = 220
"""Binary digits of a contribution."""

SHOWN = 192
"""Binary digits of what is only looked at."""

MOST_PAIRS = 12
"""Inputs of which all pairs are looked at to second order; of more, each by itself."""

HALF = exact(fmpq(1, 2))

Parts = Mapping[Source, fmpq]


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


def _shortened(part: fmpq) -> fmpq:
    """With no more digits than count, where it has many."""
    above, below = abs(part.p), part.q
    if above.bit_length() + below.bit_length() <= 4 * KEPT:
        return part
    shift = KEPT - above.bit_length() + below.bit_length()
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
    """The square of its standard uncertainty."""
    return sum((part * part for part in value.parts.values()), fmpq(0))


def of(value: Uncertain) -> Number:
    """Its standard uncertainty, in coherent units; exactly where it is a fraction."""
    parts = list(value.parts.values())
    if len(parts) == 1:
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


def gathered(terms: Iterable[tuple[Value, fmpq]]) -> dict[Source, fmpq]:
    """What each input contributes to a sum of values, each times a factor; what cancels is
    gone."""
    found: dict[Source, fmpq] = {}
    largest: dict[Source, fmpq] = {}
    for value, factor in terms:
        if not isinstance(value, Uncertain):
            continue
        for source, part in value.parts.items():
            term = part * factor
            found[source] = found.get(source, fmpq(0)) + term
            largest[source] = max(largest.get(source, fmpq(0)), abs(term))
    return {
        source: _shortened(total)
        for source, total in found.items()
        if abs(total) > GONE * largest[source]
    }


RELATIVE_OF_DALTON = fmpq(52, 166053906892)
"""CODATA 2022: 1.660 539 068 92(52) × 10^−27 kg."""

DALTON = Source(("constant", "atomic mass constant"), "atomic mass constant")


def with_dalton(value: Value, power: fmpq) -> Value:
    """A measure that is so many daltons to a ``power``, as one of kilograms: the dalton is
    measured."""
    if not power:
        return value
    parts = dict(value.parts) if isinstance(value, Uncertain) else {}
    nominal = value.nominal if isinstance(value, Uncertain) else value
    size = rational(size_of(nominal)) * power * RELATIVE_OF_DALTON
    parts[DALTON] = parts.get(DALTON, fmpq(0)) + size
    return with_parts(nominal, parts)


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
    return with_parts(value, gathered(zip(items, gradient(sizes), strict=True)))


def through(compute: Callable[..., Value], *values: Value) -> Value:
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
    terms = [
        (value, _slope(compute, nominals, place, value))
        for place, value in enumerate(values)
        if isinstance(value, Uncertain)
    ]
    parts = gathered(terms)
    if parts:
        return Uncertain(found, parts)
    return _to_second_order(compute, values, nominals, found)


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
            sources.update(dict.fromkeys(one.parts))
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


def moved(value: Value, far: Mapping[Source, Number]) -> Value:
    """A value without its uncertainty where each input is so many standard uncertainties beside
    its own value; also of what a list holds."""
    if isinstance(value, Uncertain):
        size: Number = size_of(value)
        for source, part in value.parts.items():
            if source in far:
                step = arithmetic.multiply(exact(part), far[source])
                size = real(arithmetic.add(size, step))
        return with_size(value.nominal, size)
    if isinstance(value, List) and has_measured(value):
        return List(tuple(moved(one, far) for one in value.items))
    return value


def _size_beside(
    compute: Callable[..., Value], nominals: list[Value], steps: Mapping[int, fmpq]
) -> Number:
    """What the function gives where some values are so much larger."""
    beside = list(nominals)
    for place, step in steps.items():
        size = arithmetic.add(size_of(nominals[place]), exact(step))
        beside[place] = with_size(nominals[place], real(size))
    return size_of(compute(*beside))


def _difference(a: Number, b: Number) -> fmpq:
    """Of two numbers; 0 where they cannot be told apart."""
    found = real(arithmetic.subtract(a, b))
    if isinstance(found, Real) and found.ball(BITS).contains(0):
        return fmpq(0)
    return rational(found)


def _slope(
    compute: Callable[..., Value], nominals: list[Value], place: int, value: Uncertain
) -> fmpq:
    """The partial derivative by one of the values, where the others stay as they are."""
    step = rational(of(value), SHOWN) * STEP
    above, below = (_size_beside(compute, nominals, {place: way}) for way in (step, -step))
    return _difference(above, below) / (2 * step)


# -- second order ------------------------------------------------------------------------


def _to_second_order(
    compute: Callable[..., Value], values: tuple[Value, ...], nominals: list[Value], found: Value
) -> Value:
    """The value with what is left of its uncertainty where first order is 0: by each input and
    each pair of them, as JCGM 100, 5.1.2, note has it."""
    ways = dict(_ways(values))
    beside = _Beside(compute, nominals, size_of(found))
    total = sum((beside.curved(way) ** 2 / 2 for way in ways.values()), fmpq(0))
    if len(ways) <= MOST_PAIRS:
        for one, other in combinations(ways.values(), 2):
            total += beside.twisted(one, other) ** 2
    largest = max(abs(part) for way in ways.values() for part in way.values())
    if total <= (GONE * largest) ** 2:
        return found
    notice(SECOND_ORDER)
    name = ", ".join(dict.fromkeys(source.name for source in ways))
    source = Source(("second order", *(one.key for one in ways)), name)
    return Uncertain(found, {source: root(total)})


Way = dict[int, fmpq]
"""How far each value goes where one input is one standard uncertainty larger."""


def _ways(values: tuple[Value, ...]) -> Iterator[tuple[Source, Way]]:
    found: dict[Source, Way] = {}
    for place, value in enumerate(values):
        if isinstance(value, Uncertain):
            for source, part in value.parts.items():
                found.setdefault(source, {})[place] = part
    yield from found.items()


@dataclass(frozen=True, slots=True)
class _Beside:
    """A function around the values that it is worked out for, where it gives ``size``."""

    compute: Callable[..., Value]
    nominals: list[Value]
    size: Number

    def at(self, *ways: tuple[Way, fmpq]) -> fmpq:
        """How much larger it is where so much of each way is gone; 0 where it has no value."""
        steps: Way = {}
        for way, factor in ways:
            for place, part in way.items():
                steps[place] = steps.get(place, fmpq(0)) + part * factor
        try:
            return _difference(_size_beside(self.compute, self.nominals, steps), self.size)
        except LineError:
            return fmpq(0)

    def curved(self, way: Way) -> fmpq:
        """What an input contributes by how the function bends; or by how it breaks there, as
        \\|x\\| does at 0; or, where it is flat beyond that, over one standard uncertainty."""
        step = SECOND_STEP
        above, below = self.at((way, step)), self.at((way, -step))
        nearer = self.at((way, step / 1024))
        if abs(nearer) * 2**15 > abs(above):  # it falls with the step, not with its square
            return (abs(above) + abs(below)) / (2 * step) * ROOT_OF_TWO
        bent = (above + below) / (step * step)
        whole = max(abs(self.at((way, fmpq(1)))), abs(self.at((way, fmpq(-1)))))
        return bent if abs(bent) * FLAT > whole else whole * ROOT_OF_TWO

    def twisted(self, one: Way, other: Way) -> fmpq:
        """What two inputs contribute together."""
        step = SECOND_STEP
        same = self.at((one, step), (other, step)) + self.at((one, -step), (other, -step))
        apart = self.at((one, step), (other, -step)) + self.at((one, -step), (other, step))
        return (same - apart) / (4 * step * step)


ROOT_OF_TWO = fmpq(fmpz(2 * 4**100).isqrt(), 2**100)
"""For what counts whole among contributions of which half the square is taken."""

FLAT = 2**20
"""What bends so much less than it changes over an uncertainty is flat there."""


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
    found = []
    for source, part in value.parts.items():
        share = part * part / whole
        found.append(Share(source.name, float(exact(share).ball(64).mid())))
    return sorted(found, key=lambda one: -one.part)
