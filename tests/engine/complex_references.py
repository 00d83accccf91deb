"""mpmath at 60 digits as the reference of functions and operations of complex numbers.

Each part is held to it by itself: the real one and the imaginary one are both to be
correctly rounded.  A part that is exactly 0 is to be said to be so.
"""

from __future__ import annotations

import decimal
import random
from collections.abc import Callable
from fractions import Fraction

import mpmath

from tests.engine.answers import answer
from tests.engine.references import REFERENCE_DIGITS, rounded

Reference = Callable[..., mpmath.mpc]


def _over(of: Reference) -> Reference:
    return lambda z: of(1 / z)


Parts = tuple[Fraction, Fraction]


def _times(a: Parts, b: Parts) -> Parts:
    return a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]


def _over_number(a: Parts, b: Parts) -> Parts:
    size = b[0] ** 2 + b[1] ** 2
    re, im = _times(a, (b[0], -b[1]))
    return re / size, im / size


EXACT: dict[str, Callable[[Parts, Parts], Parts]] = {
    "({}) + ({})": lambda a, b: (a[0] + b[0], a[1] + b[1]),
    "({}) - ({})": lambda a, b: (a[0] - b[0], a[1] - b[1]),
    "({})*({})": _times,
    "({})/({})": _over_number,
}
"""What has exact fractions for decimals: Python's fractions tell ties from what is near."""

OPERATIONS: dict[str, Reference] = {
    "({})^({})": mpmath.power,
    "log({}, {})": lambda z, base: mpmath.log(z) / mpmath.log(base),
}
"""What takes two complex numbers, as it is typed."""

FUNCTIONS: dict[str, Reference] = {
    "sqrt": mpmath.sqrt, "exp": mpmath.exp, "ln": mpmath.log,
    "lg": lambda z: mpmath.log(z) / mpmath.log(10),
    "lb": lambda z: mpmath.log(z) / mpmath.log(2),
    "sin": mpmath.sin, "cos": mpmath.cos, "tan": mpmath.tan, "cot": mpmath.cot,
    "sec": mpmath.sec, "csc": mpmath.csc,
    "arcsin": mpmath.asin, "arccos": mpmath.acos, "arctan": mpmath.atan,
    "arccot": lambda z: mpmath.pi / 2 - mpmath.atan(z),
    "arcsec": _over(mpmath.acos), "arccsc": _over(mpmath.asin),
    "sinh": mpmath.sinh, "cosh": mpmath.cosh, "tanh": mpmath.tanh, "coth": mpmath.coth,
    "sech": mpmath.sech, "csch": mpmath.csch,
    "arsinh": mpmath.asinh, "arcosh": mpmath.acosh, "artanh": mpmath.atanh,
    "arcoth": _over(mpmath.atanh), "arsech": _over(mpmath.acosh), "arcsch": _over(mpmath.asinh),
    "abs": abs, "arg": mpmath.arg, "conj": mpmath.conj,
}  # fmt: skip

ANGLES = frozenset({"arcsin", "arccos", "arctan", "arccot", "arcsec", "arccsc", "arg"})
"""Functions whose value is an angle: its number of radians is compared."""

REFERENCES: dict[str, tuple[int, Reference]] = {
    **{typed: (2, reference) for typed, reference in (EXACT | OPERATIONS).items()},
    **{f"{name}({{}})": (1, reference) for name, reference in FUNCTIONS.items()},
}
"""Each as it is typed, with how many numbers it takes."""

ON_AXES = 0.2
"""Part of the numbers that are real or imaginary, where the cuts are."""


def sampled(typed: str, count: int) -> list[tuple[tuple[str, str], ...]]:
    """Random numbers as their parts, the same in every run."""
    generator = random.Random(typed)
    how_many, _ = REFERENCES[typed]
    return [tuple(_number(generator) for _ in range(how_many)) for _ in range(count)]


def _number(generator: random.Random) -> tuple[str, str]:
    re, im = (f"{generator.uniform(-4, 4):.6g}" for _ in range(2))
    where = generator.random()
    if where < ON_AXES / 2:
        return re, "0"
    return ("0", im) if where < ON_AXES else (re, im)


def proved(typed: str, numbers: tuple[tuple[str, str], ...], digits: int) -> str:
    """Empty where both parts are mpmath's, correctly rounded; else what differs."""
    _, reference = REFERENCES[typed]
    call = typed.format(*(f"({re}) + ({im})i" for re, im in numbers))
    if typed in EXACT:
        exact = reference(*((Fraction(re), Fraction(im)) for re, im in numbers))
        for part, of in zip(("re", "im"), exact, strict=True):
            sign, text = answer(f"{part}({call}) as scientific", digits=digits).split(" ")
            is_right = Fraction(text) == of if sign == "=" else Fraction(text) == _to(of, digits)
            if not is_right:
                return f"{part}({call}): {sign} {text}, expected {of}"
        return ""
    with mpmath.workdps(REFERENCE_DIGITS):
        values = [mpmath.mpc(re, im) for re, im in numbers]
        expected = mpmath.mpc(reference(*values))
        size = abs(expected)
        for part, of in (("re", expected.real), ("im", expected.imag)):
            value = f"{part}({call})"
            if typed.partition("(")[0] in ANGLES:
                value = f"radians({value})"
            shown = answer(f"{value} as scientific", digits=digits)
            if not _is_right(shown, of, size, digits):
                return f"{value}: {shown}, expected {of}"
    return ""


def _to(value: Fraction, digits: int) -> Fraction:
    context = decimal.Context(prec=digits, rounding=decimal.ROUND_HALF_EVEN)
    above, below = map(decimal.Decimal, (value.numerator, value.denominator))
    return Fraction(context.divide(above, below))


def _is_right(shown: str, expected: mpmath.mpf, size: mpmath.mpf, digits: int) -> bool:
    sign, text = shown.split(" ")
    if abs(expected) < size * mpmath.mpf(10) ** -45:
        return (sign, text) == ("=", "0")
    if sign == "=":
        return mpmath.almosteq(mpmath.mpf(text), expected, mpmath.mpf(10) ** -45)
    return Fraction(text) == rounded(expected, digits)
