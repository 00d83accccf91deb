"""mpmath at 60 digits as the reference of every real function, and where to ask it."""

from __future__ import annotations

import decimal
import random
from collections.abc import Callable
from fractions import Fraction

import mpmath

from tests.engine.answers import answer

Range = tuple[float, float]
ANY: Range = (-50, 50)
POSITIVE: Range = (1e-6, 1e6)
SMALL: Range = (1e-3, 30)
ABOVE_ONE: Range = (1.001, 1e4)
INSIDE_ONE: Range = (-0.999, 0.999)

REFERENCES: dict[str, tuple[tuple[Range, ...], Callable[..., mpmath.mpf]]] = {
    "sqrt": ((POSITIVE,), mpmath.sqrt),
    "cbrt": ((POSITIVE,), mpmath.cbrt),
    "root": ((POSITIVE, (2, 9)), lambda x, n: mpmath.root(x, int(n))),
    "hypot": ((ANY, ANY), mpmath.hypot),
    "exp": ((ANY,), mpmath.exp),
    "ln": ((POSITIVE,), mpmath.log),
    "lg": ((POSITIVE,), mpmath.log10),
    "lb": ((POSITIVE,), lambda x: mpmath.log(x) / mpmath.log(2)),
    "log": ((POSITIVE, ABOVE_ONE), lambda x, base: mpmath.log(x) / mpmath.log(base)),
    "sin": ((ANY,), mpmath.sin),
    "cos": ((ANY,), mpmath.cos),
    "tan": ((ANY,), mpmath.tan),
    "cot": ((ANY,), mpmath.cot),
    "sec": ((ANY,), mpmath.sec),
    "csc": ((ANY,), mpmath.csc),
    "arcsin": ((INSIDE_ONE,), mpmath.asin),
    "arccos": ((INSIDE_ONE,), mpmath.acos),
    "arctan": ((ANY, ANY), mpmath.atan2),
    "arccot": ((ANY,), lambda x: mpmath.pi / 2 - mpmath.atan(x)),
    "arcsec": ((ABOVE_ONE,), mpmath.asec),
    "arccsc": ((ABOVE_ONE,), mpmath.acsc),
    "degrees": ((ANY,), mpmath.degrees),
    "radians": ((ANY,), mpmath.radians),
    "sinh": ((ANY,), mpmath.sinh),
    "cosh": ((ANY,), mpmath.cosh),
    "tanh": ((ANY,), mpmath.tanh),
    "coth": ((SMALL,), mpmath.coth),
    "sech": ((ANY,), mpmath.sech),
    "csch": ((SMALL,), mpmath.csch),
    "arsinh": ((ANY,), mpmath.asinh),
    "arcosh": ((ABOVE_ONE,), mpmath.acosh),
    "artanh": ((INSIDE_ONE,), mpmath.atanh),
    "arcoth": ((ABOVE_ONE,), mpmath.acoth),
    "arsech": (((0.001, 0.999),), mpmath.asech),
    "arcsch": ((SMALL,), mpmath.acsch),
    "gamma": ((SMALL,), mpmath.gamma),
    "lgamma": ((SMALL,), mpmath.loggamma),
    "beta": ((SMALL, SMALL), mpmath.beta),
    "digamma": ((SMALL,), mpmath.digamma),
    "erf": (((-5, 5),), mpmath.erf),
    "erfc": (((-5, 10),), mpmath.erfc),
    "zeta": (((1.1, 40),), mpmath.zeta),
    "bessel_j": (((0, 5), SMALL), mpmath.besselj),
    "bessel_y": (((0, 5), SMALL), mpmath.bessely),
    "bessel_i": (((0, 5), SMALL), mpmath.besseli),
    "bessel_k": (((0, 5), SMALL), mpmath.besselk),
    "airy_ai": (((-15, 15),), mpmath.airyai),
    "airy_bi": (((-15, 15),), mpmath.airybi),
    "elliptic_k": (((-20, 0.999),), mpmath.ellipk),
    "elliptic_e": (((-20, 0.999),), mpmath.ellipe),
    "lambert_w": (((-0.36, 100),), mpmath.lambertw),
}
"""For each function the ranges of its arguments, and mpmath's counterpart."""

TYPED = {"radians": "radians({}°)"} | {
    name: f"radians({name}({{}}))"
    for name in ("arcsin", "arccos", "arctan", "arccot", "arcsec", "arccsc")
}
"""How a call is typed where its value or its argument is an angle."""

WHOLE_SECOND = {"root"}
"""Functions whose last argument is a whole number."""

REFERENCE_DIGITS = 60


def sampled(name: str, count: int) -> list[tuple[str, ...]]:
    """Random arguments within the domain, the same in every run."""
    generator = random.Random(name)
    ranges, _ = REFERENCES[name]
    return [
        tuple(_text(generator, name, place, span) for place, span in enumerate(ranges))
        for _ in range(count)
    ]


def _text(generator: random.Random, name: str, place: int, span: Range) -> str:
    low, high = span
    if name in WHOLE_SECOND and place == 1:
        return str(generator.randint(int(low), int(high)))
    if low > 0 and high / low > 1e3:
        return f"{low * (high / low) ** generator.random():.9g}"
    return f"{generator.uniform(low, high):.9g}"


def proved(name: str, arguments: tuple[str, ...], digits: int) -> str:
    """Empty where the digits shown are mpmath's, correctly rounded; else what differs."""
    _, reference = REFERENCES[name]
    with mpmath.workdps(REFERENCE_DIGITS):
        expected = mpmath.mpf(mpmath.re(reference(*(mpmath.mpf(text) for text in arguments))))
        call = TYPED.get(name, name + "({})").format(", ".join(arguments))
        sign, text = answer(f"{call} as scientific", digits=digits).split(" ")
        if sign == "=":
            same = mpmath.almosteq(mpmath.mpf(text), expected, mpmath.mpf(10) ** -50)
        else:
            same = Fraction(text) == rounded(expected, digits)
    return "" if same else f"{call}: {text}, expected {expected}"


def rounded(value: mpmath.mpf, digits: int) -> Fraction:
    """mpmath's 60 digits rounded by Python's decimals.

    ``mpmath.nstr`` is not used: near a tie it rounds twice.
    """
    sign, mantissa, exponent, _ = value._mpf_
    exact = (-1) ** sign * Fraction(int(mantissa)) * Fraction(2) ** exponent
    context = decimal.Context(prec=digits, rounding=decimal.ROUND_HALF_EVEN)
    quotient = context.divide(decimal.Decimal(exact.numerator), decimal.Decimal(exact.denominator))
    return Fraction(quotient)
