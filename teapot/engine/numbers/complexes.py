"""Complex numbers, as a pair of real ones: each part stays exact where it can, and
has digits of its own that are proved."""

from __future__ import annotations

from collections.abc import Callable

from flint import acb, arb, fmpq, fmpz

from teapot.engine.limits import FIRST_BITS
from teapot.engine.numbers import arithmetic
from teapot.engine.numbers.arithmetic import (
    add,
    divide,
    exp_of,
    is_zero,
    multiply,
    negate,
    sign_of,
    subtract,
)
from teapot.engine.numbers.circular import cosine, direction, sine
from teapot.engine.numbers.precision import bits_now
from teapot.engine.numbers.values import (
    Complex,
    Exact,
    Extended,
    Infinite,
    Number,
    Plane,
    Real,
    Undefined,
    exact,
    real,
)
from teapot.engine.sentences.values import OPERATOR_FOR_REALS

ZERO, ONE, TWO = exact(0), exact(1), exact(2)
HALF = exact(fmpq(1, 2))
MAX_EXACT_POWER = 1000
"""Whole exponents up to which a power is multiplied out, and stays exact."""


def parts(value: Plane) -> tuple[Number, Number]:
    """The real and the imaginary part of a number.

    >>> parts(exact(3))
    (Exact(coefficient=3, pi_power=0), Exact(coefficient=0, pi_power=0))
    """
    return (value.re, value.im) if isinstance(value, Complex) else (real(value), ZERO)


def complex_of(re: Extended, im: Extended) -> Plane:
    """The number with these parts: a real one where the second is exactly 0.

    >>> complex_of(exact(3), exact(0))
    Exact(coefficient=3, pi_power=0)
    """
    for part in (re, im):
        if isinstance(part, Undefined):
            return part
        if isinstance(part, Infinite):
            return Undefined("A complex number with an infinite part has no value here.")
    return re if is_zero(im) else Complex(real(re), real(im))


def through(compute: Callable[..., acb], *values: Plane) -> Plane:
    """``compute`` on complex balls, for finite numbers; each part of what it gives is a
    number of its own."""
    flat = [part for value in values for part in parts(value)]

    known: dict[int, acb] = {}

    def ball(balls: tuple[arb, ...]) -> acb:
        # both parts ask for it, one after the other
        bits = bits_now()
        if bits not in known:
            known.clear()
            parts_of = zip(balls[::2], balls[1::2], strict=True)
            known[bits] = compute(*(acb(re, im) for re, im in parts_of))
        return known[bits]

    re = Real(lambda *balls: ball(balls).real, *flat, name=(compute, "re"))
    im = Real(lambda *balls: ball(balls).imag, *flat, name=(compute, "im"))
    return complex_of(_or_zero(re), _or_zero(im))


def _or_zero(part: Real) -> Number:
    """Exactly 0 where the interval is no wider than that."""
    return ZERO if part.ball(FIRST_BITS).is_zero() else part


def operate(op: str, a: Plane, b: Plane) -> Plane:
    """``a op b``, as complex numbers.

    >>> operate("*", Complex(exact(0), exact(1)), Complex(exact(0), exact(1)))
    Exact(coefficient=-1, pi_power=0)
    """
    for value in (a, b):
        if isinstance(value, Undefined):
            return value
        if isinstance(value, Infinite):
            return Undefined("∞ and a complex number have no value together.")
    if op not in OPERATIONS:
        raise OPERATOR_FOR_REALS(op=op)
    return OPERATIONS[op](a, b)


def _add(a: Plane, b: Plane) -> Plane:
    (a_re, a_im), (b_re, b_im) = parts(a), parts(b)
    return complex_of(add(a_re, b_re), add(a_im, b_im))


def _subtract(a: Plane, b: Plane) -> Plane:
    (a_re, a_im), (b_re, b_im) = parts(a), parts(b)
    return complex_of(subtract(a_re, b_re), subtract(a_im, b_im))


def _multiply(a: Plane, b: Plane) -> Plane:
    (a_re, a_im), (b_re, b_im) = parts(a), parts(b)
    re = subtract(multiply(a_re, b_re), multiply(a_im, b_im))
    product = complex_of(re, add(multiply(a_re, b_im), multiply(a_im, b_re)))
    return _with_polar(product, a, b, multiply, add)


def _polar_of(value: Plane) -> tuple[Number, Exact] | None:
    """Modulus and argument, where they are known from how a number was made."""
    if isinstance(value, Complex):
        return value.polar
    return (value, ZERO) if isinstance(value, Exact) and value.coefficient > 0 else None


def _with_polar(
    result: Plane,
    a: Plane,
    b: Plane,
    of_sizes: Callable[[Number, Number], Extended],
    of_angles: Callable[[Number, Number], Extended],
) -> Plane:
    """The result of an operation, with modulus and argument where both sides have them."""
    first, second = _polar_of(a), _polar_of(b)
    if not isinstance(result, Complex) or first is None or second is None:
        return result
    angle = of_angles(first[1], second[1])
    return _made_polar(result, of_sizes(first[0], second[0]), angle)


def _made_polar(number: Complex, size: Extended, angle: Extended) -> Complex:
    if not isinstance(angle, Exact) or (angle.pi_power != 1 and angle.coefficient):
        return number
    turns = angle.coefficient - 2 * ((angle.coefficient + 1) / 2).floor()
    principal = exact(turns if turns != -1 else fmpq(1), 1)
    return Complex(number.re, number.im, polar=(real(size), principal))


def _divide(a: Plane, b: Plane) -> Plane:
    if not isinstance(b, Complex):
        if is_zero(b):
            return Undefined("A complex number over 0 has no value: it has no direction.")
        return complex_of(*(divide(part, b) for part in parts(a)))
    size = add(multiply(b.re, b.re), multiply(b.im, b.im))
    re, im = parts(_multiply(a, conjugate(b)))
    quotient = complex_of(divide(re, size), divide(im, size))
    return _with_polar(quotient, a, b, divide, subtract)


def _power(a: Plane, b: Plane) -> Plane:
    if isinstance(b, Exact) and b.is_integer and abs(b.coefficient) <= MAX_EXACT_POWER:
        return _whole_power(a, int(b.coefficient.p))
    if not isinstance(a, Complex) and is_zero(a):
        re = parts(b)[0]
        return ZERO if sign_of(re) > 0 else Undefined("0 has no such power.")
    if b == HALF:
        return square_root(a)
    if isinstance(b, Complex):
        return exponential(_multiply(b, logarithm(a)))
    size = arithmetic.power(modulus(a), b)
    return polar(real(size), multiply(real(argument(a)), real(b)))


def square_root(z: Plane) -> Plane:
    """The complex number with no negative real part whose square is ``z``; a negative
    number has the one above the real axis.  Each part is exact where it can be.

    >>> parts(square_root(exact(-4)))
    (Exact(coefficient=0, pi_power=0), Exact(coefficient=2, pi_power=0))
    """
    re, im = parts(z)
    if not isinstance(z, Complex):
        if sign_of(z) >= 0:
            return arithmetic.power(z, HALF)
        return complex_of(ZERO, arithmetic.power(negate(z), HALF))
    size = modulus(z)
    right = arithmetic.power(divide(add(size, re), TWO), HALF)
    up = arithmetic.power(divide(subtract(size, re), TWO), HALF)
    return complex_of(right, negate(up) if sign_of(im) < 0 else up)


def polar(size: Number, radians: Number) -> Plane:
    """The number with this modulus, in this direction.

    >>> parts(polar(exact(2), exact(fmpq(1, 2), 1)))
    (Exact(coefficient=0, pi_power=0), Exact(coefficient=2, pi_power=0))
    """
    number = complex_of(multiply(size, cosine(radians)), multiply(size, sine(radians)))
    if isinstance(number, Complex) and isinstance(size, Exact) and size.coefficient > 0:
        return _made_polar(number, size, radians)
    return number


def argument(value: Plane) -> Extended:
    """The direction in radians, above −π and up to π; of 0 there is none.

    >>> argument(exact(-1))
    Exact(coefficient=1, pi_power=1)
    """
    if isinstance(value, Complex) and value.polar is not None:
        return value.polar[1]
    re, im = parts(value)
    return direction(im, re)


def roots(value: Plane, degree: int) -> list[Plane]:
    """All numbers whose power of that ``degree`` is ``value``: the principal one first, the
    others in the order of their arguments (NIST DLMF 4.2(iv), from memory).

    >>> roots(exact(1), 2)
    [Exact(coefficient=1, pi_power=0), Exact(coefficient=-1, pi_power=0)]
    """
    if not isinstance(value, Complex) and is_zero(value):
        return [ZERO]
    share = exact(fmpq(1, degree))
    size = real(arithmetic.power(modulus(value), share))
    first = multiply(real(argument(value)), share)
    turns = (exact(fmpq(2 * number, degree), 1) for number in range(degree))
    found = (polar(size, real(add(first, turn))) for turn in turns)
    return [_exact_root(root, value, degree) or root for root in found]


def _exact_root(near: Plane, value: Plane, degree: int) -> Plane | None:
    """The root of ``value`` at ``near`` where both its parts are rational: with the common
    denominator of the parts of ``value`` they are whole numbers then."""
    of_value, of_root = parts(value), parts(near)
    if all(isinstance(part, Exact) for part in of_root):
        return None
    below = fmpz(1)
    for part in of_value:
        if not isinstance(part, Exact) or part.pi_power:
            return None
        below = below.lcm(part.coefficient.q)
    re, im = ((part.ball(FIRST_BITS) * below).unique_fmpz() for part in of_root)
    if re is None or im is None:
        return None
    root = complex_of(exact(fmpq(re, below)), exact(fmpq(im, below)))
    return root if _whole_power(root, degree) == value else None


def exponential(value: Plane) -> Plane:
    """e to the power ``value``.

    >>> exponential(Complex(exact(0), exact(1, 1)))
    Exact(coefficient=-1, pi_power=0)
    """
    re, im = parts(value)
    return polar(exp_of(re), im)


def logarithm(value: Plane) -> Plane:
    """The principal natural logarithm of a number that is not 0.

    >>> parts(logarithm(exact(-1)))
    (Exact(coefficient=0, pi_power=0), Exact(coefficient=1, pi_power=1))
    """
    if isinstance(value, Real) and value.log is not None:
        return value.log
    size = modulus(value)
    log = ZERO if size == ONE else Real(arb.log, real(size), power_of=(None, real(size)))
    return complex_of(log, argument(value))


def _whole_power(a: Plane, n: int) -> Plane:
    if n < 0:
        return _divide(ONE, _whole_power(a, -n))
    result: Plane = ONE
    while n:
        if n & 1:
            result = _multiply(result, a)
        a, n = _multiply(a, a), n >> 1
    return result


OPERATIONS: dict[str, Callable[[Plane, Plane], Plane]] = {
    "+": _add,
    "-": _subtract,
    "*": _multiply,
    "/": _divide,
    "^": _power,
}


def conjugate(value: Plane) -> Plane:
    """The number with the other sign before its imaginary part.

    >>> parts(conjugate(Complex(exact(3), exact(4))))
    (Exact(coefficient=3, pi_power=0), Exact(coefficient=-4, pi_power=0))
    """
    return Complex(value.re, negate(value.im)) if isinstance(value, Complex) else value


def modulus(value: Plane) -> Extended:
    """The absolute value, √(re² + im²); exact where that is rational.

    >>> modulus(Complex(exact(3), exact(4)))
    Exact(coefficient=5, pi_power=0)
    """
    if not isinstance(value, Complex):
        return arithmetic.abs_of(value)
    if value.polar is not None:
        return value.polar[0]
    square = add(multiply(value.re, value.re), multiply(value.im, value.im))
    return arithmetic.power(square, HALF)
