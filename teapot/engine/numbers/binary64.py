"""IEEE 754 binary64, operation by operation, beside the true value.

A quantity enters a calculation as the nearest binary64 of its true value.  The
functions are those of the C library after :mod:`math`, as most programs use them.
"""

from __future__ import annotations

import math
import operator
import struct
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import reduce

from flint import arb, fmpq

from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Infinite,
    Number,
    Real,
    Undefined,
    Value,
    ends_of,
    is_tiny,
    kind_in_words,
)
from teapot.engine.sentences.values import FUNCTION_NOT_IN_BINARY64, KIND_NOT_IN_BINARY64


def nearest(value: Value) -> float:
    """The binary64 nearest to ``value``, ties to even.

    >>> nearest(exact(fmpq(1, 10)))
    0.1
    """
    match value:
        case Exact(coefficient=q, pi_power=0):
            return _divide_rounded(q)
        case Infinite(sign=sign):
            return math.inf * sign
        case Undefined():
            return math.nan
        case Angle(size=radians):
            return nearest(radians)
        case Exact() | Real():
            pass
        case _:
            kind = kind_in_words(value)
            raise KIND_NOT_IN_BINARY64(kind=kind)
    bits = 128
    while bits <= 4096:
        ball = value.ball(bits)
        if is_tiny(ball):
            return 0.0
        low, high = (_divide_rounded(end) for end in ends_of(ball, bits))
        if low == high:
            return low
        bits *= 2
    return high


def _divide_rounded(q: fmpq) -> float:
    try:
        return int(q.p) / int(q.q)  # Python rounds a quotient of integers correctly
    except OverflowError:
        return math.inf if q > 0 else -math.inf


def exactly(number: float) -> fmpq:
    """The rational that a finite binary64 is.

    >>> exactly(0.1)
    3602879701896397/36028797018963968
    """
    top, bottom = number.as_integer_ratio()
    return fmpq(top, bottom)


DISTANCE_BITS = 256
"""Binary digits of the true value that a distance is taken from."""


def distance(number: float, true: Number) -> arb:
    """How far a finite ``number`` is from the ``true`` value.

    >>> distance(0.1, exact(fmpq(1, 10))).str(4, radius=False)
    '5.551e-18'
    """
    with precision(DISTANCE_BITS):
        return abs(arb(exactly(number)) - true.ball(DISTANCE_BITS))


def _power(a: float, b: float) -> float:
    try:
        return math.pow(a, b)
    except OverflowError:
        return math.inf
    except ValueError:
        return math.nan if a < 0 else math.inf


def _divide(a: float, b: float) -> float:
    if b:
        return a / b
    return math.nan if not a or math.isnan(a) else math.copysign(math.inf, a) * math.copysign(1, b)


def _floor_divide(a: float, b: float) -> float:
    return a // b if b else math.nan


def _modulo(a: float, b: float) -> float:
    return a % b if b and math.isfinite(a) else math.nan


OPERATIONS: dict[str, Callable[[float, float], float]] = {
    "+": operator.add,
    "-": operator.sub,
    "*": operator.mul,
    "implied": operator.mul,
    "/": _divide,
    "^": _power,
    "div": _floor_divide,
    "mod": _modulo,
}


def _root(x: float, degree: float) -> float:
    """The real root as the power 1/n, which itself is rounded."""
    if x < 0 and degree % 2:
        return -math.pow(-x, 1 / degree)
    return math.pow(x, 1 / degree)


def _round(x: float, places: float = 0.0) -> float:
    return round(x, int(places)) if math.isfinite(x) else x


def _whole(compute: Callable[[float], int]) -> Callable[[float], float]:
    """A function that gives whole numbers, on what is not finite too."""
    return lambda x: float(compute(x)) if math.isfinite(x) else x


def _of_whole(compute: Callable[..., int]) -> Callable[..., float]:
    """A function of whole numbers; others have no value."""

    def function(*arguments: float) -> float:
        if not all(map(float.is_integer, map(float, arguments))):
            return math.nan
        return float(compute(*map(int, arguments)))

    return function


def _sign(x: float) -> float:
    return math.nan if math.isnan(x) else float((x > 0) - (x < 0))


FUNCTIONS: dict[str, Callable[..., float]] = {
    "sqrt": math.sqrt,
    "cbrt": math.cbrt,
    "root": _root,
    "hypot": math.hypot,
    "power": _power,
    "abs": abs,
    "sgn": _sign,
    "exp": math.exp,
    "ln": math.log,
    "lg": math.log10,
    "lb": math.log2,
    "log": math.log,
    "sin": math.sin,
    "cos": math.cos,
    "tan": math.tan,
    "arcsin": math.asin,
    "arccos": math.acos,
    "arctan": lambda y, x=None: math.atan(y) if x is None else math.atan2(y, x),
    "degrees": math.degrees,
    "radians": math.radians,
    "sinh": math.sinh,
    "cosh": math.cosh,
    "tanh": math.tanh,
    "arsinh": math.asinh,
    "arcosh": math.acosh,
    "artanh": math.atanh,
    "erf": math.erf,
    "erfc": math.erfc,
    "gamma": math.gamma,
    "lgamma": math.lgamma,
    "floor": _whole(math.floor),
    "ceil": _whole(math.ceil),
    "trunc": _whole(math.trunc),
    "frac": lambda x: x - math.floor(x) if math.isfinite(x) else math.nan,
    "round": _round,
    "factorial": _of_whole(math.factorial),
    "binomial": _of_whole(math.comb),
    "permutations": _of_whole(math.perm),
    "gcd": _of_whole(math.gcd),
    "lcm": _of_whole(math.lcm),
    "min": lambda *numbers: min(numbers),
    "max": lambda *numbers: max(numbers),
    "add": operator.add,
    "subtract": operator.sub,
    "multiply": operator.mul,
    "divide": _divide,
    "quotient": _floor_divide,
    "remainder": _modulo,
}
"""Those of the C library that Python's :mod:`math` has, by their names here."""


def _mean(items: Sequence[float]) -> float:
    return _divide(_sum(items), float(len(items)))


def _sum(items: Sequence[float]) -> float:
    """One addition after another, each of them rounded."""
    return reduce(operator.add, items, 0.0)


OF_LISTS: dict[str, Callable[[Sequence[float]], float]] = {
    "sum": _sum,
    "product": lambda items: reduce(operator.mul, items, 1.0),
    "mean": _mean,
    "count": lambda items: float(len(items)),
    "min": min,
    "max": max,
    "first": lambda items: items[0],
    "last": lambda items: items[-1],
}
"""Functions of a list that give a number."""

MAX_FACTORIAL = 170
"""The largest whole number whose factorial is within the range of binary64."""


def call(name: str, arguments: list[float]) -> float:
    """A function of the C library.

    Errors: :class:`LineError` where there is none for ``name``.

    >>> call("sqrt", [2.0])
    1.4142135623730951
    """
    if name not in FUNCTIONS:
        raise FUNCTION_NOT_IN_BINARY64(name=name)
    if name == "factorial" and arguments[0] > MAX_FACTORIAL:
        return math.inf
    try:
        return FUNCTIONS[name](*arguments)
    except OverflowError:
        return math.inf
    except ZeroDivisionError:
        return math.nan
    except ValueError:
        return -math.inf if name in ("ln", "lg", "lb") and arguments[0] == 0 else math.nan


@dataclass(frozen=True, slots=True)
class Bits:
    """The 64 bits of a number apart, and its neighbours."""

    number: float
    sign: str
    exponent: str
    fraction: str
    below: float
    above: float

    @classmethod
    def of(cls, number: float) -> Bits:
        (coded,) = struct.unpack(">Q", struct.pack(">d", number))
        bits = f"{coded:064b}"
        below, above = math.nextafter(number, -math.inf), math.nextafter(number, math.inf)
        return cls(number, bits[0], bits[1:12], bits[12:], below, above)


def shortest(number: float) -> str:
    """The shortest decimal that reads back as ``number``, as it can be typed in.

    >>> shortest(0.1 + 0.2)
    '0.30000000000000004'
    >>> shortest(float("inf"))
    'infinity'
    """
    if math.isnan(number):
        return "undefined"
    if math.isinf(number):
        return "infinity" if number > 0 else "-infinity"
    text = repr(number)
    if text.endswith(".0"):
        text = text[:-2]
    return text.replace("e+", "e").replace("e-0", "e-")
