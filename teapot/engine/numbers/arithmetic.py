"""+ − × ÷ and powers between numbers, infinities and what is undefined.

Each function takes and returns values of :mod:`teapot.engine.numbers.values`.  What
stays exact is kept exact; everything else becomes a :class:`Real`.
"""

from __future__ import annotations

import operator
from typing import overload

from flint import arb, fmpq, fmpz

from teapot.engine.errors import LineError
from teapot.engine.limits import FIRST_BITS, MAX_BITS, MAX_DIGITS, MAX_FRACTION_BITS
from teapot.engine.numbers import powers_of_e, radicals
from teapot.engine.numbers.context import notice
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.roots import perfect_root
from teapot.engine.numbers.values import (
    Bounds,
    Exact,
    Extended,
    Infinite,
    Number,
    Real,
    Undefined,
    Value,
    exact,
    real,
    too_large,
    undecided,
)
from teapot.engine.sentences.values import NOT_REAL, POWER_TOO_LARGE
from teapot.engine.sentences.warnings import DIVIDES_BY_ZERO, ZERO_TO_ZERO

HALF = fmpq(1, 2)
ONE = exact(1)


@overload
def negate(a: Number) -> Number: ...
@overload
def negate(a: Extended) -> Extended: ...
def negate(a: Extended) -> Extended:
    match a:
        case Exact():
            return Exact(-a.coefficient, a.pi_power)
        case Real():
            minus = exact(-1)
            if a.name is operator.neg:
                return a.args[0]
            return radicals.multiply(minus, a) or powers_of_e.multiply(minus, a) or _negative(a)
        case Infinite():
            return Infinite(-a.sign)
    return a


def _negative(a: Real) -> Real:
    known, bounds = a.sin_cos, bounds_of_multiple(a, fmpq(-1))
    if known is None:
        return Real(operator.neg, a, bounds=bounds)
    sin_cos = lambda: (negate(known()[0]), known()[1])  # noqa: E731 - worked out when asked for
    return Real(operator.neg, a, sin_cos=sin_cos, bounds=bounds)


def bounds_of(a: Number) -> Bounds | None:
    """What is known of a number by proof."""
    if isinstance(a, Real):
        return a.bounds
    return Bounds(a.coefficient, a.coefficient) if a.is_rational else None


def bounds_of_sum(a: Number, b: Number, minus: bool = False) -> Bounds | None:
    """What follows for the sum, or for the difference."""
    one, other = bounds_of(a), bounds_of(b)
    if one is None or other is None:
        return None
    if minus:
        other = other.times(fmpq(-1))
    low = None if one.low is None or other.low is None else one.low + other.low
    high = None if one.high is None or other.high is None else one.high + other.high
    return Bounds(low, high, one.strict or other.strict)


def bounds_of_multiple(a: Real, factor: fmpq) -> Bounds | None:
    """What follows for ``factor`` times the number."""
    if a.bounds is None or not factor:
        return None
    return a.bounds.times(factor)


@overload
def add(a: Number, b: Number) -> Number: ...
@overload
def add(a: Extended, b: Extended) -> Extended: ...
def add(a: Extended, b: Extended) -> Extended:
    if isinstance(a, Exact) and isinstance(b, Exact):
        if a.pi_power == b.pi_power or not b.coefficient:
            return exact(a.coefficient + b.coefficient, a.pi_power)
        if not a.coefficient:
            return b
    if isinstance(a, Undefined):
        return a
    if isinstance(b, Undefined):
        return b
    if isinstance(a, Infinite) or isinstance(b, Infinite):
        if isinstance(a, Infinite) and isinstance(b, Infinite) and a.sign != b.sign:
            return Undefined("∞ − ∞ has no value: either part could be the larger.")
        return a if isinstance(a, Infinite) else b
    if is_zero(a) or is_zero(b):
        return b if is_zero(a) else a
    if _are_opposite(a, b):
        return exact(0)
    found = radicals.add(a, b) or powers_of_e.add(a, b)
    return found or Real(operator.add, a, b, bounds=bounds_of_sum(a, b))


def _are_opposite(a: Number, b: Number) -> bool:
    """Whether one number is known to be the other with the other sign."""
    return any(
        isinstance(one, Real) and one.name is operator.neg and are_the_same(one.args[0], other)
        for one, other in ((a, b), (b, a))
    )


@overload
def subtract(a: Number, b: Number) -> Number: ...
@overload
def subtract(a: Extended, b: Extended) -> Extended: ...
def subtract(a: Extended, b: Extended) -> Extended:
    if isinstance(a, Infinite | Undefined) or isinstance(b, Infinite | Undefined):
        return add(a, negate(b))
    if are_the_same(a, b):
        return exact(0)
    if isinstance(b, Real) and not (b.radical or b.power_of_e):
        return Real(operator.sub, a, b, bounds=bounds_of_sum(a, b, minus=True))
    return add(a, negate(b))


MOST_COMPARED = 100
"""Steps that the ways in which two numbers were made are compared through."""


def are_the_same(a: Number, b: Number) -> bool:
    """Whether two numbers are known to be one: they were made in the same way.

    False where it is not known.

    >>> are_the_same(exact(2), exact(2))
    True
    """
    return _are_made_alike(a, b, MOST_COMPARED) > 0


def _are_made_alike(a: Number, b: Number, steps: int) -> int:
    """How many of the steps are left when all is compared; 0 where it differs."""
    if a is b or (isinstance(a, Exact) and a == b):
        return steps
    if not (steps and isinstance(a, Real) and isinstance(b, Real)):
        return 0
    if _are_known_as_one(a, b):
        return steps
    if a.name != b.name or len(a.args) != len(b.args):
        return 0
    left = _are_all_made_alike(a.args, b.args, steps - 1)
    if not left and a.name in COMMUTE:
        left = _are_all_made_alike(a.args, b.args[::-1], steps // 4)
    return left


def _are_all_made_alike(some: tuple[Number, ...], others: tuple[Number, ...], steps: int) -> int:
    for a, b in zip(some, others, strict=True):
        steps = _are_made_alike(a, b, steps)
    return steps


COMMUTE = frozenset({operator.add, operator.mul})
"""Operations whose operands may change places."""


def _are_known_as_one(a: Real, b: Real) -> bool:
    known = ((a.power_of_e, b.power_of_e), (a.power_of, b.power_of), (a.radical, b.radical))
    return any(one is not None and one == other for one, other in known)


@overload
def multiply(a: Number, b: Number) -> Number: ...
@overload
def multiply(a: Extended, b: Extended) -> Extended: ...
def multiply(a: Extended, b: Extended) -> Extended:
    if isinstance(a, Exact) and isinstance(b, Exact):
        return exact(a.coefficient * b.coefficient, a.pi_power + b.pi_power)
    if isinstance(a, Undefined):
        return a
    if isinstance(b, Undefined):
        return b
    if isinstance(a, Infinite) or isinstance(b, Infinite):
        sign = sign_of(a) * sign_of(b)
        if not sign:
            return Undefined("0 · ∞ has no value: it could be anything.")
        return Infinite(sign)
    if is_zero(a) or is_zero(b):
        return exact(0)
    if ONE in (a, b):
        return b if a == ONE else a
    found = radicals.multiply(a, b) or powers_of_e.multiply(a, b)
    if found is not None:
        return found
    signs = [_has_minus(x) for x in (a, b)]
    if any(signs):
        # the sign comes first, so that equal products can be seen to be equal
        product = multiply(*(negate(x) if m else x for x, m in zip((a, b), signs, strict=True)))
        return product if all(signs) else negate(product)
    return Real(operator.mul, a, b, bounds=_bounds_of_product(a, b))


def _has_minus(x: Number) -> bool:
    if isinstance(x, Exact):
        return x.coefficient < 0
    return x.name is operator.neg


def _bounds_of_product(a: Number, b: Number) -> Bounds | None:
    for number, factor in ((a, b), (b, a)):
        if isinstance(factor, Exact) and factor.is_rational and isinstance(number, Real):
            return bounds_of_multiple(number, factor.coefficient)
    return None


def divide(a: Extended, b: Extended) -> Extended:
    if isinstance(a, Exact) and isinstance(b, Exact) and b.coefficient:
        return exact(a.coefficient / b.coefficient, a.pi_power - b.pi_power)
    if isinstance(a, Undefined):
        return a
    if isinstance(b, Undefined):
        return b
    if isinstance(b, Infinite):
        if isinstance(a, Infinite):
            return Undefined("∞ / ∞ has no value: it could be anything.")
        return exact(0)
    if is_zero(b):
        return _over_zero(a)
    if isinstance(a, Infinite):
        return Infinite(a.sign * sign_of(b))
    if is_zero(a) or b == ONE:
        return a
    if are_the_same(a, b):
        return ONE
    if isinstance(b, Real):
        sign_of(b)
    return radicals.divide(a, b) or powers_of_e.divide(a, b) or Real(operator.truediv, a, b)


def _over_zero(a: Extended) -> Extended:
    if is_zero(a):
        return Undefined("0/0 has no value: every number times 0 is 0.")
    notice(DIVIDES_BY_ZERO)
    return Infinite(sign_of(a))


def is_zero(a: Value) -> bool:
    """Whether ``a`` is exactly 0.

    >>> is_zero(exact(0))
    True
    """
    return isinstance(a, Exact) and not a.coefficient


def sign_of(a: Extended) -> int:
    """−1, 0 or 1.  Errors: :class:`LineError` where it cannot be decided.

    >>> sign_of(exact(fmpq(-1, 2)))
    -1
    """
    if isinstance(a, Infinite):
        return a.sign
    sign = real(a).sign()
    if sign is None:
        raise undecided()
    return sign


# -- powers -----------------------------------------------------------------------


def power(a: Extended, b: Extended) -> Extended:
    """``a`` to the power ``b``.

    Errors: :class:`LineError` where the result would be larger than the limit,
    or is not real.

    >>> power(exact(8), exact(fmpq(2, 3)))
    Exact(coefficient=4, pi_power=0)
    >>> power(exact(2), exact(-1))
    Exact(coefficient=1/2, pi_power=0)
    """
    if isinstance(a, Undefined):
        return a
    if isinstance(b, Undefined):
        return b
    if isinstance(a, Infinite) or isinstance(b, Infinite):
        return _infinite_power(a, b)
    if isinstance(b, Exact) and b.is_integer:
        return _integer_power(a, b.coefficient.p)
    if a == ONE:
        return ONE
    if is_zero(a):
        return exact(0) if sign_of(b) > 0 else _over_zero(exact(1))
    if isinstance(a, Real) and a.log is not None and isinstance(b, Exact):
        log = multiply(a.log, b)
        return exp_of(log)
    if isinstance(b, Real):
        if isinstance(a, Real) and a.log == exact(1):
            return exp_of(b)
        if b.power_of is not None and b.power_of[0] == a:
            return b.power_of[1]
    if isinstance(a, Exact) and a.is_rational and isinstance(b, Exact) and b.is_rational:
        return _rational_power(a.coefficient, b.coefficient)
    if sign_of(a) < 0:
        raise not_real("A negative number to a power that is not whole")
    return _positive_power(a, b)


def _positive_power(a: Number, b: Number) -> Real | Exact:
    if isinstance(b, Exact) and b.is_rational:
        found = radicals.power(a, b.coefficient)
        if found is not None:
            return found
        if b.coefficient == HALF:
            return Real(arb.sqrt, a)
    return Real(operator.pow, a, b)


def _integer_power(a: Number, n: fmpz) -> Extended:
    if n == 0:
        if is_zero(a):
            notice(ZERO_TO_ZERO)
        return exact(1)
    if is_zero(a) and n < 0:
        return _over_zero(exact(1))
    if isinstance(a, Real):
        found = radicals.power(a, fmpq(n)) or powers_of_e.power(a, int(n))
        if found is not None:
            return found
        if n.bit_length() > 64:
            raise too_large()
        exponent = int(n)
        return Real(lambda ball: ball**exponent, a)
    # at least so many bits: those of the longer part, less one for its leading figure
    longest = max(abs(a.coefficient.p).bit_length(), a.coefficient.q.bit_length())
    bits = (longest - 1) * abs(n)
    if bits > MAX_BITS and a.is_integer and n > 0:
        raise _power_too_large(a, n)
    if bits > (MAX_BITS if a.is_integer else MAX_FRACTION_BITS):
        return Real(operator.pow, a, exact(fmpq(n)))
    if a.pi_power and abs(n) > MAX_BITS:
        raise too_large()
    return exact(_rational_to(a.coefficient, n), a.pi_power * int(n))


def _rational_to(base: fmpq, n: fmpz) -> fmpq:
    if base in (1, -1):
        return base if n % 2 else base * base
    return base ** int(n)


def _power_too_large(a: Exact, n: fmpz) -> LineError:
    with precision(FIRST_BITS):
        size = (arb(abs(a.coefficient)).log_base(10) * n).floor().unique_fmpz()
    if size is not None and size < 10**15:
        return POWER_TOO_LARGE(figures=int(size) + 1, limit=MAX_DIGITS)
    return too_large()


def _rational_power(a: fmpq, b: fmpq) -> Extended:
    if a < 0:
        degree = int(b.q) if b.q < 1000 else 0
        if degree % 2 and perfect_root(-a, degree) is not None:
            text = "A negative number to a power that is not whole"
            raise not_real(text, f"; root(…, {degree}) gives the real root")
        raise not_real("A negative number to a power that is not whole")
    if b.q <= fmpz(10) ** 9:
        root = perfect_root(a, int(b.q))
        if root is not None:
            return _integer_power(exact(root), b.p)
    if abs(b) > MAX_BITS:
        raise too_large()
    return _positive_power(exact(a), exact(b))


def _infinite_power(a: Extended, b: Extended) -> Extended:
    if is_zero(b):
        return Undefined("∞⁰ has no value: it could be anything.")
    if isinstance(b, Infinite):
        if isinstance(a, Exact) and a.is_rational and a.coefficient in (1, -1):
            return Undefined("1 to an infinite power has no value: it could be anything.")
        size = abs_of(a)
        if (isinstance(a, Infinite) and a.sign < 0) or sign_of(a) < 0:
            return Undefined("A negative number to an infinite power has no value.")
        grows = is_zero(size) is False and sign_of(subtract(size, exact(1))) > 0
        return Infinite(1) if grows == (b.sign > 0) else exact(0)
    if sign_of(b) < 0:
        return exact(0)
    if isinstance(a, Infinite) and a.sign > 0:
        return Infinite(1)
    if not (isinstance(b, Exact) and b.is_integer):
        return Undefined("−∞ to a power that is not whole has no value.")
    return Infinite(-1 if b.coefficient.p % 2 else 1)


@overload
def abs_of(a: Number) -> Number: ...
@overload
def abs_of(a: Extended) -> Extended: ...
def abs_of(a: Extended) -> Extended:
    """The absolute value.

    >>> abs_of(Infinite(-1))
    Infinite(sign=1)
    """
    match a:
        case Exact():
            return Exact(abs(a.coefficient), a.pi_power)
        case Real() if a.radical:
            return negate(a) if sign_of(a) < 0 else a
        case Real():
            return Real(abs, a)
        case Infinite():
            return Infinite(1)
    return a


@overload
def exp_of(a: Number) -> Number: ...
@overload
def exp_of(a: Extended) -> Extended: ...
def exp_of(a: Extended) -> Extended:
    """e to the power ``a``.

    >>> exp_of(exact(0))
    Exact(coefficient=1, pi_power=0)
    >>> exp_of(Infinite(-1))
    Exact(coefficient=0, pi_power=0)
    """
    match a:
        case Exact():
            return real(powers_of_e.number_of(fmpq(1), a))
        case Real() if a.power_of is not None and a.power_of[0] is None:
            return a.power_of[1]
        case Real():
            return Real(arb.exp, a, bounds=powers_of_e.POSITIVE)
        case Infinite():
            return Infinite(1) if a.sign > 0 else exact(0)
    return a


def not_real(what: str, more: str = "") -> LineError:
    """The error where a value would leave the real numbers."""
    return NOT_REAL(what=what, more=more)
