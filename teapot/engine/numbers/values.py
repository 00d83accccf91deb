"""What a value can be.

:class:`Exact`    a rational number times a power of π; never rounded
:class:`Real`     a real number known through a computation that can be repeated
                  at any precision, each time with a proved bound on its error
:class:`Infinite` ∞ or −∞
:class:`Undefined` no value, with the reason
:class:`Angle`    an angle with its unit
:class:`Measure`  a number with its unit of measurement
:class:`Uncertain` a measured value with its standard uncertainty
:class:`Complex`  a real and an imaginary part
:class:`List`     values one after another
:class:`Table`    named columns, each a list
:class:`Date`     a day, or a moment of it
:class:`FunctionValue`  a function: one of the language, or of one's own
``bool``          a truth value
``str``           text; a :class:`Sentence` where values were filled in

No value is ever changed once it is made.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import TypeGuard, cast

from flint import arb, fmpq, fmpz

from teapot.engine.errors import LineError
from teapot.engine.limits import FIRST_BITS, LAST_BITS, MAX_BITS, MAX_DIGITS
from teapot.engine.numbers.precision import precision
from teapot.engine.reading.tree import Assignment, Filled, Node
from teapot.engine.sentences.values import TOO_LARGE, TOO_SMALL, UNDECIDED
from teapot.engine.units.unit import Unit

ZERO, ONE = fmpq(0), fmpq(1)


@dataclass(slots=True, unsafe_hash=True)
class Exact:
    """``coefficient`` · π**``pi_power``, exactly."""

    coefficient: fmpq
    pi_power: int = 0

    @property
    def is_rational(self) -> bool:
        return self.pi_power == 0

    @property
    def is_integer(self) -> bool:
        return self.pi_power == 0 and self.coefficient.q == 1

    def ball(self, bits: int) -> arb:
        """An interval of about ``bits`` binary digits that holds the number."""
        with precision(bits):
            ball = arb(self.coefficient)
            return ball * arb.pi() ** self.pi_power if self.pi_power else ball

    def sign(self) -> int:
        """−1, 0 or 1."""
        return (self.coefficient > 0) - (self.coefficient < 0)


Multiple = tuple[fmpq, Exact]
"""A coefficient and the power of e that it stands before."""

Product = tuple[tuple[int, int, int], ...]
"""Primes in ascending order, each with the numerator and the denominator of the power
between 0 and 1 that it is raised to."""


@dataclass(frozen=True, slots=True)
class Radical:
    """A sum of roots times a power of π: its ``terms`` are products of powers of primes,
    each with its coefficient."""

    terms: tuple[tuple[Product, fmpq], ...]
    pi_power: int = 0


@dataclass(slots=True, unsafe_hash=True)
class Bounds:
    """What is known of a number by proof, however little its digits show: it is at least
    ``low`` and at most ``high``, None where there is no such bound; and neither of them
    itself where ``strict``."""

    low: fmpq | None
    high: fmpq | None
    strict: bool = False

    def times(self, factor: fmpq) -> Bounds:
        """Those of every number within times a ``factor`` ≠ 0."""
        low, high = (None if end is None else end * factor for end in (self.low, self.high))
        return Bounds(*((low, high) if factor > 0 else (high, low)), self.strict)

    @property
    def sign(self) -> int | None:
        """The sign of every number within; None where there are two."""
        if self.low is not None and (self.low > 0 or (self.strict and self.low == 0)):
            return 1
        if self.high is not None and (self.high < 0 or (self.strict and self.high == 0)):
            return -1
        return None


class Real:
    """A real number known through ``compute`` applied to other numbers.

    ``compute`` takes one ball an argument, at the precision that is set in
    FLINT's context, and returns a ball.  What is known of the number exactly, if
    anything, stands beside it: ``power_of_e``, where it is a multiple of one
    (:mod:`teapot.engine.numbers.powers_of_e`); ``power_of``, the base and the number
    where it was made as a logarithm, so that a power can give that back; ``sin_cos``,
    its sine and cosine where it was made as the angle that has them; ``radical``,
    its terms where it is made of roots (:mod:`teapot.engine.numbers.radicals`); ``bounds``.

    ``name`` stands for a ``compute`` that is made anew each time: two numbers of one
    name and the same arguments are the same.
    """

    __slots__ = (
        "_ball",
        "_bits",
        "args",
        "bounds",
        "compute",
        "name",
        "power_of",
        "power_of_e",
        "radical",
        "sin_cos",
    )  # fmt: skip

    def __init__(
        self,
        compute: Callable[..., arb],
        *args: Number,
        power_of_e: Multiple | None = None,
        power_of: tuple[Exact | None, Number] | None = None,
        sin_cos: Callable[[], tuple[Number, Number]] | None = None,
        radical: Radical | None = None,
        bounds: Bounds | None = None,
        name: Hashable = None,
    ) -> None:
        self.compute = compute
        self.args = args
        self.power_of_e = power_of_e
        self.power_of = power_of
        self.sin_cos = sin_cos
        self.radical = radical
        self.bounds = bounds
        self.name = name or compute
        self._bits = bits = FIRST_BITS
        with precision(bits):
            self._ball = compute(*[number.ball(bits) for number in args]) if args else compute()
        while not self._ball.is_finite():
            bits *= 2
            if bits > LAST_BITS:
                raise undecided()
            self.ball(bits)
        _check_size(self._ball)

    @property
    def log(self) -> Exact | None:
        """Its natural logarithm, where it is known exactly."""
        if self.power_of_e is None or self.power_of_e[0] != 1:
            return None
        return self.power_of_e[1]

    def ball(self, bits: int) -> arb:
        """An interval that holds the number, computed with ``bits`` binary digits.

        Values that it was computed from are refined first, each once, without
        recursion: a term of a long course of lines may be thousands deep.
        """
        if bits <= self._bits:
            return self._ball
        waiting: list[Real] = [self]
        while waiting:
            value = waiting[-1]
            coarse = [a for a in value.args if isinstance(a, Real) and a._bits < bits]
            if coarse:
                waiting.extend(coarse)
                continue
            waiting.pop()
            if value._bits < bits:
                balls = [arg.ball(bits) for arg in value.args]
                with precision(bits):
                    value._ball, value._bits = value.compute(*balls), bits
        return self._ball

    def sign(self) -> int | None:
        """−1 or 1; None where the number cannot be told from 0."""
        if self.bounds is not None and self.bounds.sign is not None:
            return self.bounds.sign
        bits = FIRST_BITS
        while bits <= LAST_BITS:
            ball = self.ball(bits)
            if ball > 0:
                return 1
            if ball < 0:
                return -1
            bits *= 2
        return None


Number = Exact | Real

REALS = frozenset({Exact, Real})
"""The kinds of real number, for a quick look at the kind of a value."""


@dataclass(slots=True, unsafe_hash=True)
class Infinite:
    """∞ where ``sign`` is 1, −∞ where it is −1."""

    sign: int


@dataclass(slots=True, unsafe_hash=True)
class Undefined:
    """No value; ``reason`` is a sentence for the person."""

    reason: str


@dataclass(slots=True, unsafe_hash=True)
class Complex:
    """``re`` + ``im`` · i, with an imaginary part that is not exactly 0.

    ``inverse_of``: the function and its value where the number was made as the inverse of
    that function, so that the function gives the value back; ``polar``: its modulus and
    its argument, a multiple of π, where it was made from them.
    """

    re: Number
    im: Number
    inverse_of: tuple[str, Value] | None = field(default=None, compare=False)
    polar: tuple[Number, Exact] | None = field(default=None, compare=False)


@dataclass(slots=True, unsafe_hash=True)
class Sized:
    """So many coherent SI units, ``size``, shown in ``unit``: an angle or another measure."""

    size: Number | Complex
    unit: Unit

    @property
    def is_complex(self) -> bool:
        """Whether it is beyond the real numbers."""
        return isinstance(self.size, Complex)


class Angle(Sized):
    """A quantity of so many radians: a bare number beside it is read in the unit of the
    conventions.  What the inverse functions give beyond the reals has complex ones."""

    __slots__ = ()

    @property
    def name(self) -> str:
        """Its unit, as it is typed after a number."""
        return self.unit.text


class Measure(Sized):
    """Any other quantity.  Where its unit is a scale of temperature, it is a temperature in
    kelvin."""

    __slots__ = ()

    @property
    def is_on_scale(self) -> bool:
        """Whether it is a temperature as a thermometer shows it, of which no multiple is one."""
        return self.unit.zero is not None


@dataclass(slots=True)
class Source:
    """An input that has an uncertainty, ``name`` as it was typed.

    ``key`` is the place where it stands: what is reached from there twice is one input.
    """

    key: Hashable
    name: str = field(compare=False)

    def __hash__(self) -> int:
        return hash(self.key)


@dataclass(slots=True, eq=False)
class Uncertain:
    """A measured value: its ``nominal`` value, a real number, measure or angle, and what each
    input contributes to its standard uncertainty, in coherent units and with a sign.

    That is to first order in ``parts``.  ``bends`` are the second derivatives by an input, or by a
    pair of them, times their standard uncertainties; ``far`` is the value where each input is
    farther away than its uncertainty, None where it is what these two make of it.
    """

    nominal: Value
    parts: Mapping[Source, fmpq]
    bends: Mapping[frozenset[Source], fmpq] = field(default_factory=dict)
    far: fmpq | None = None


MISSING = Undefined("This value is missing.")
"""What stands in a cell that has no value."""


def is_missing(value: object) -> bool:
    """Whether it is what stands in a cell without a value."""
    return isinstance(value, Undefined) and value.reason == MISSING.reason


def is_complex(value: object) -> bool:
    """Whether a value is beyond the reals: a complex number, or an angle with a complex one."""
    return isinstance(value, Complex) or (isinstance(value, Sized) and value.is_complex)


@dataclass(slots=True, unsafe_hash=True)
class List:
    """Values one after another; the first has the place 1."""

    items: Sequence[Value]


@dataclass(frozen=True, slots=True)
class Table:
    """Lists of one length side by side, each under what was typed for it; ``units`` are those
    that their heads name, if any does."""

    heads: tuple[Node, ...]
    columns: tuple[List, ...]
    units: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Date:
    """A day; with ``time`` a moment of it, by the clock of where the person is."""

    moment: datetime
    with_time: bool = False


class InterpolatedText(str):
    """A text into which values were filled: its ``parts`` are what was typed, and each value
    with the sign of how it was written."""

    parts: tuple[str | Filled, ...]

    def __new__(cls, parts: Iterable[str | Filled]) -> InterpolatedText:
        parts = tuple(parts)
        made = super().__new__(cls, "".join(p if isinstance(p, str) else p.text for p in parts))
        made.parts = parts
        return made

    def __reduce__(self) -> tuple[type[InterpolatedText], tuple[tuple[str | Filled, ...]]]:
        return InterpolatedText, (self.parts,)


def parts_of(text: str) -> tuple[str | Filled, ...]:
    """What a text is put together from."""
    return text.parts if isinstance(text, InterpolatedText) else (text,)


def joined(first: str, second: str) -> str:
    """One text after the other."""
    if isinstance(first, InterpolatedText) or isinstance(second, InterpolatedText):
        return InterpolatedText((*parts_of(first), *parts_of(second)))
    return first + second


@dataclass(frozen=True, slots=True, eq=False)
class FunctionValue:
    """A function as a value: its ``name``, the names of its ``parameters``, and
    ``apply``, which gives its value for the values of them.

    ``definition`` is the statement that makes it, where it is one's own, and ``within`` works a
    part of its body out, with values for its parameters.
    """

    name: str
    parameters: tuple[str, ...]
    apply: Callable[..., Value]
    definition: Assignment | None = None
    within: Callable[[Node, Mapping[str, Value]], Value] | None = None

    @property
    def pattern(self) -> str:
        """How it is called: ``f(x, y)``."""
        return f"{self.name}({', '.join(self.parameters)})"


Value = (
    Exact
    | Real
    | Infinite
    | Undefined
    | Angle
    | Measure
    | Uncertain
    | Complex
    | List
    | Table
    | Date
    | FunctionValue
    | bool
    | str
)

Extended = Exact | Real | Infinite | Undefined
"""A real number, or what takes the place of one."""

Finite = Exact | Real | Complex
"""A number that is not infinite."""

Plane = Exact | Real | Infinite | Undefined | Complex
"""What stands in the plane of complex numbers, or takes the place of that."""

Scalar = Exact | Real | Infinite | Undefined | Angle | Measure | Uncertain | Complex
"""Everything that can be computed with by itself."""

KINDS: dict[type, str] = {
    Angle: "an angle",
    Measure: "a measure",
    Uncertain: "a measured value",
    Complex: "a complex number",
    List: "a list",
    Table: "a table",
    Date: "a date",
    FunctionValue: "a function",
    bool: "a truth value",
    str: "text",
    InterpolatedText: "text",
}
"""What is said of a value that is no real number."""


def kind_in_words(value: object) -> str:
    """What kind a value is of.

    >>> kind_in_words(True), kind_in_words(exact(2))
    ('a truth value', 'a number')
    """
    return next((words for kind, words in KINDS.items() if isinstance(value, kind)), "a number")


Truth = bool | Undefined
"""Whether something holds, or why nobody can say."""


def real(value: Value | None) -> Number:
    """The value, of which it is known that it is a real number: the checker is told so."""
    return cast(Number, value)


def finite(value: Value | None) -> Finite:
    """The value, of which it is known that it is a finite number, real or complex."""
    return cast(Finite, value)


def bare_size(value: Value | None) -> Value | None:
    """How many coherent units an angle or a measure has; another value as it is.

    >>> bare_size(Angle(exact(2), Unit.of("rad")))
    Exact(coefficient=2, pi_power=0)
    """
    return value.size if isinstance(value, Sized) else value


def is_fraction(value: Value | None) -> TypeGuard[Exact]:
    """Whether a value is a fraction of whole numbers."""
    return isinstance(value, Exact) and value.is_rational


def is_nought(value: Value) -> bool:
    """Whether a value is exactly 0, in whatever unit."""
    size = bare_size(value)
    return isinstance(size, Exact) and not size.coefficient


def with_size(value: Value, size: Value) -> Value:
    """So many coherent units as an angle or a measure is that ``value`` is, in its unit; beside
    another value the number alone.

    >>> with_size(Angle(exact(2), Unit.of("rad")), exact(3))
    Angle(size=Exact(coefficient=3, pi_power=0), unit=Unit('rad'))
    """
    return type(value)(finite(size), value.unit) if isinstance(value, Angle | Measure) else size


def exact(coefficient: fmpq | int, pi_power: int = 0) -> Exact:
    """An exact number within the limit of size.

    Errors: :class:`LineError` where it has more digits than the limit.
    """
    if not isinstance(coefficient, fmpq):
        coefficient = fmpq(coefficient)
    if coefficient.height_bits() > MAX_BITS:
        raise too_large()
    return Exact(coefficient, pi_power if coefficient else 0)


def rational_of(point: arb) -> fmpq:
    """An exact ball as the rational that it is.

    Errors: :class:`LineError` where it is closer to 0 than the limit.
    """
    mantissa, power = point.man_exp()
    exponent = int(power)
    if mantissa and exponent < -2 * MAX_BITS:
        raise too_small()
    if exponent >= 0:
        return fmpq(mantissa * fmpz(2) ** exponent)
    return fmpq(mantissa, fmpz(2) ** -exponent)


def ends_of(ball: arb, bits: int) -> tuple[fmpq, fmpq]:
    """The ends of an interval that was computed with so many binary digits."""
    with precision(bits):
        return rational_of(ball.lower()), rational_of(ball.upper())


def _check_size(ball: arb) -> None:
    """Refuses what is larger than can be written out."""
    mantissa, exponent = ball.abs_upper().man_exp()
    if mantissa and int(exponent) + mantissa.bit_length() > MAX_BITS:
        raise too_large()


def is_tiny(ball: arb) -> bool:
    """Whether all of a ball is closer to 0 than can be written out."""
    mantissa, exponent = ball.abs_upper().man_exp()
    return bool(mantissa) and int(exponent) + mantissa.bit_length() < -MAX_BITS


def too_small() -> LineError:
    """The error for a number closer to 0 than can be written out."""
    return TOO_SMALL(limit=MAX_DIGITS)


def too_large() -> LineError:
    """The error for a number beyond the limit of size."""
    return TOO_LARGE(limit=MAX_DIGITS)


def undecided() -> LineError:
    """The error where even the last precision does not decide."""
    return UNDECIDED(bits=LAST_BITS)
