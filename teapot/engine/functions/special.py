"""Special functions, each digit proved by FLINT's ball arithmetic."""

from __future__ import annotations

from collections.abc import Callable
from typing import NoReturn

from flint import acb, arb, fmpq, fmpz

from teapot.engine.functions.helpers import OnReals, is_pole_of_gamma, of_one_real, outside, side_of
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.arithmetic import add, divide, is_zero, multiply, sign_of
from teapot.engine.numbers.integers import MAX_FACTORIAL, factorial
from teapot.engine.numbers.values import (
    Bounds,
    Exact,
    Extended,
    Infinite,
    Real,
    Undefined,
    Value,
    exact,
    real,
)
from teapot.engine.reading.described import Example

SUBJECT = "special functions"
X = Parameter("x", "a number")
ORDER = Parameter("order", "the order")
ZERO, ONE, INFINITY = exact(0), exact(1), Infinite(1)
POLE = Undefined("The gamma function has a pole at 0 and at every negative whole number.")
MAX_ZETA = 2_000
"""Whole arguments up to which ζ is given exactly."""


def _small_whole(x: Value, most: int) -> int | None:
    """``x`` as an ``int`` where it is a whole number of at most that size."""
    if isinstance(x, Exact) and x.is_integer and abs(x.coefficient) <= most:
        return int(x.coefficient.p)
    return None


def gamma(x: Extended) -> Extended:
    """Γ(x), exact for whole numbers; undefined at its poles."""
    if is_pole_of_gamma(x):
        return POLE
    n = _small_whole(x, MAX_FACTORIAL)
    return factorial(exact(n - 1)) if n is not None else _gamma(x)


_gamma = of_one_real(arb.gamma, at_infinity=INFINITY)


def lgamma(x: Extended) -> Extended:
    """ln Γ(x) for x > 0."""
    if isinstance(x, Exact | Real) and sign_of(x) <= 0:
        raise outside("lgamma takes numbers above 0.")
    if _small_whole(x, 2) is not None:
        return ZERO
    return of_one_real(arb.lgamma, at_infinity=INFINITY)(x)


def digamma(x: Extended) -> Extended:
    """The derivative of ln Γ(x)."""
    return POLE if is_pole_of_gamma(x) else _digamma(x)


_digamma = of_one_real(arb.digamma, at_infinity=INFINITY)


def beta(a: Extended, b: Extended) -> Extended:
    """Γ(a)Γ(b)/Γ(a+b)."""
    if is_pole_of_gamma(a) or is_pole_of_gamma(b):
        return POLE
    total = add(a, b)
    if is_pole_of_gamma(total):
        return ZERO
    return divide(multiply(gamma(a), gamma(b)), gamma(total))


def zeta(s: Extended) -> Extended:
    """Riemann's ζ(s); exact at even numbers above 0 and at whole ones below 1."""
    n = _small_whole(s, MAX_ZETA)
    if n == 1:
        return Undefined("The zeta function has its pole at 1.")
    if n is not None and n <= 0:
        # DLMF 25.6.3, with B_1 = +1/2
        return exact(-fmpq.bernoulli(1 - n) / (1 - n) if n else fmpq(-1, 2))
    if n is not None and n % 2 == 0:
        # DLMF 25.6.2
        size = abs(fmpq.bernoulli(n)) * fmpz(2) ** (n - 1) / fmpz.fac_ui(n)  # type: ignore[arg-type]  # its stub
        return exact(size, n)
    return of_one_real(arb.zeta, at_infinity=ONE)(s)


erf = of_one_real(
    arb.erf,
    at_zero=ZERO,
    at_infinity=ONE,
    at_minus_infinity=exact(-1),
    bounds=Bounds(fmpq(-1), fmpq(1), strict=True),
)
erfc = of_one_real(
    arb.erfc,
    at_zero=ONE,
    at_infinity=ZERO,
    at_minus_infinity=exact(2),
    bounds=Bounds(fmpq(0), fmpq(2), strict=True),
)
airy_ai = of_one_real(arb.airy_ai, at_infinity=ZERO, at_minus_infinity=ZERO)
airy_bi = of_one_real(arb.airy_bi, at_infinity=INFINITY, at_minus_infinity=ZERO)


def _bessel(
    name: str, compute: Callable[[arb, arb], arb], entire: bool
) -> Callable[[Extended, Extended], Extended]:
    """A Bessel function; an ``entire`` one takes any x where its order is whole."""

    def function(order: Extended, x: Extended) -> Extended:
        for value in (order, x):
            if isinstance(value, Infinite | Undefined):
                return Undefined("Bessel functions are worked out at finite numbers only.")
        sign = sign_of(x)
        is_whole = isinstance(order, Exact) and order.is_integer
        if entire and sign == 0 and is_whole:
            return ONE if is_zero(order) else ZERO
        if sign <= 0 and not (entire and is_whole and sign < 0):
            raise outside(f"{name} takes x above 0" + (", or a whole order." if entire else "."))
        return Real(lambda n, ball: compute(ball, n), real(order), real(x))

    return function


def lambert_w(x: Extended) -> Extended:
    """The number w ≥ −1 with w·exp(w) = x, for x ≥ −1/e."""
    if isinstance(x, Infinite | Undefined):
        return x if x != Infinite(-1) else _refuse_lambert()
    if is_zero(x):
        return ZERO
    if isinstance(x, Real) and x.power_of_e is not None:
        w, exponent = x.power_of_e
        if exact(w) == exponent and w >= -1:
            return exponent
    if sign_of(x) < 0 and side_of(multiply(x, Real(arb.exp, ONE)), -1) < 0:
        _refuse_lambert()
    return Real(arb.lambertw, x)


def _refuse_lambert() -> NoReturn:
    raise outside("lambert_w takes numbers from −1/e.")


def _elliptic(compute: Callable[[acb], acb], at_one: Extended) -> OnReals:
    """A complete elliptic integral of the parameter m ≤ 1."""

    def function(m: Extended) -> Extended:
        if isinstance(m, Undefined):
            return m
        side = 1 if m == INFINITY else -1 if isinstance(m, Infinite) else side_of(m, 1)
        if side > 0 or isinstance(m, Infinite):
            raise outside("This integral is real for a finite m up to 1.")
        if side == 0:
            return at_one
        if is_zero(m):
            return exact(fmpq(1, 2), 1)
        return Real(lambda ball: compute(acb(ball)).real, m)

    return function


def _record(
    name: str,
    summary: str,
    compute: Callable[..., Value],
    examples: tuple[Example, ...],
    source: str,
    parameters: tuple[Parameter, ...] = (X,),
    related: tuple[str, ...] = (),
    confused_with: str = "",
    words: str = "",
    special_values: tuple[str, ...] = (),
) -> Function:
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=compute,
        examples=examples,
        special_values=special_values,
        related=related,
        confused_with=confused_with,
        words=words,
        source=source,
    )


NOT_POLE = Parameter("x", "a number", "not 0, −1, −2, …")
ABOVE_ZERO = Parameter("x", "a number", "x > 0")
M = Parameter("m", "the parameter, the square of the modulus k", "m ≤ 1")

FUNCTIONS = (
    _record(
        "gamma", "The gamma function: (x − 1)! carried on to all numbers.", gamma,
        (Example("gamma(5)", "=", "24"), Example("gamma(1/2)", "≈", "1.772453851")),
        "NIST DLMF, 5.2.1", (NOT_POLE,), ("lgamma", "factorial"),
        "the factorial: gamma(n) is (n − 1)!.",
        words="gamma function factorial of a fraction half tgamma",
        special_values=(
            "gamma(1) = 1",
            "gamma(1/2) = sqrt(pi)",
            "gamma(-1/2) = -2*sqrt(pi)",
            "gamma(0) = undefined",
        ),
    ),
    _record(
        "lgamma", "The natural logarithm of the gamma function.", lgamma,
        (Example("lgamma(1)", "=", "0"), Example("lgamma(100)", "≈", "359.1342054")),
        "NIST DLMF, 5.2.1", (ABOVE_ZERO,), ("gamma",),
        words="loggamma gammaln log gamma logarithm of a large factorial",
        special_values=("lgamma(1) = 0", "lgamma(2) = 0", "lgamma(1/2) = ln(pi)/2"),
        confused_with="ln(n!): lgamma(n) is the logarithm of (n − 1)!.",
    ),
    _record(
        "beta", "The beta function: gamma(a)·gamma(b)/gamma(a + b).", beta,
        (Example("beta(2, 3)", "≈", "0.08333333333"), Example("beta(1, 1)", "=", "1")),
        "NIST DLMF, 5.12.1", (Parameter("a", "a number"), Parameter("b", "a number")), ("gamma",),
        words="Euler beta function integral",
        special_values=("beta(1, 1) = 1", "beta(1, 2) = 1/2", "beta(1/2, 1/2) = pi"),
        confused_with="a quantity of this name, which covers it.",
    ),
    _record(
        "digamma", "The derivative of the logarithm of the gamma function.", digamma,
        (Example("digamma(1)", "≈", "-0.5772156649"), Example("digamma(0)", "=", "undefined")),
        "NIST DLMF, 5.2.2", (NOT_POLE,), ("gamma",),
        words="psi derivative harmonic numbers Euler constant",
        special_values=(
            "digamma(2) - digamma(1) = 1",
            "digamma(1) - digamma(1/2) = 2*ln(2)",
            "digamma(0) = undefined",
        ),
        confused_with="gamma: this is the slope of lgamma.",
    ),
    _record(
        "erf", "The error function.", erf,
        (Example("erf(0)", "=", "0"), Example("erf(1)", "≈", "0.8427007929")),
        "NIST DLMF, 7.2.1", related=("erfc",),
        words="error function normal distribution Gaussian integral diffusion",
        special_values=("erf(0) = 0", "erf(infinity) = 1", "erf(-infinity) = -1"),
        confused_with="the normal distribution, which is (1 + erf(x/sqrt(2)))/2.",
    ),
    _record(
        "erfc", "What the error function leaves to 1.", erfc,
        (Example("erfc(0)", "=", "1"), Example("erfc(2)", "≈", "0.004677734981")),
        "NIST DLMF, 7.2.2", related=("erf",),
        words="complementary error function tail of the normal distribution",
        special_values=("erfc(0) = 1", "erfc(infinity) = 0", "erfc(-infinity) = 2"),
        confused_with="1/erf(x): it is 1 − erf(x).",
    ),
    _record(
        "zeta", "Riemann's zeta function.", zeta,
        (Example("zeta(2)", "≈", "1.644934067"), Example("zeta(-1)", "≈", "-0.08333333333"),
         Example("zeta(-2)", "=", "0")),
        "NIST DLMF, 25.2.1", (Parameter("s", "a number", "s ≠ 1"),),
        words="Riemann sum of reciprocal powers series",
        special_values=(
            "zeta(2) = pi^2/6",
            "zeta(4) = pi^4/90",
            "zeta(0) = -1/2",
            "zeta(1) = undefined",
        ),
        confused_with="the sum of the powers 1/n^s where s is 1 or less: there it is carried on.",
        related=("gamma",),
    ),
    _record(
        "bessel_j", "The Bessel function of the first kind.",
        _bessel("bessel_j", lambda x, n: x.bessel_j(n), entire=True),
        (Example("bessel_j(0, 1)", "≈", "0.7651976866"), Example("bessel_j(0, 0)", "=", "1")),
        "NIST DLMF, 10.2.2", (ORDER, X), ("bessel_y",),
        words="Bessel J cylinder waves vibrating drum diffraction",
        special_values=("bessel_j(0, 0) = 1", "bessel_j(1, 0) = 0", "bessel_j(1/2, pi/2) = 2/pi"),
        confused_with="a function whose first argument is x: the order comes first.",
    ),
    _record(
        "bessel_y", "The Bessel function of the second kind.",
        _bessel("bessel_y", lambda x, n: x.bessel_y(n), entire=False),
        (Example("bessel_y(0, 1)", "≈", "0.08825696422"),
         Example("bessel_y(1, 2)", "≈", "-0.1070324315")),
        "NIST DLMF, 10.2.3", (ORDER, ABOVE_ZERO), ("bessel_j",),
        words="Bessel Y Neumann Weber cylinder",
        special_values=("bessel_y(1/2, pi) = sqrt(2)/pi",),
        confused_with="bessel_j, which is finite at 0.",
    ),
    _record(
        "bessel_i", "The modified Bessel function of the first kind.",
        _bessel("bessel_i", lambda x, n: x.bessel_i(n), entire=True),
        (Example("bessel_i(0, 1)", "≈", "1.266065878"), Example("bessel_i(1, 0)", "=", "0")),
        "NIST DLMF, 10.25.2", (ORDER, X), ("bessel_k",),
        words="modified Bessel I cylinder heat",
        special_values=("bessel_i(0, 0) = 1", "bessel_i(1/2, pi/2) = 2*sinh(pi/2)/pi"),
        confused_with="bessel_j, which swings: this one grows.",
    ),
    _record(
        "bessel_k", "The modified Bessel function of the second kind.",
        _bessel("bessel_k", lambda x, n: x.bessel_k(n), entire=False),
        (Example("bessel_k(0, 1)", "≈", "0.4210244382"),
         Example("bessel_k(1, 2)", "≈", "0.1398658818")),
        "NIST DLMF, 10.27.4", (ORDER, ABOVE_ZERO), ("bessel_i",),
        words="modified Bessel K Macdonald cylinder decay",
        special_values=("bessel_k(1/2, pi/2) = exp(-pi/2)",),
        confused_with="bessel_y, which swings: this one falls off.",
    ),
    _record(
        "airy_ai", "The Airy function Ai.", airy_ai,
        (Example("airy_ai(0)", "≈", "0.3550280539"), Example("airy_ai(1)", "≈", "0.1352924163")),
        "NIST DLMF, 9.2", related=("airy_bi",),
        words="Airy Ai rainbow turning point",
        special_values=("airy_ai(0) = 1/(3^(2/3)*gamma(2/3))", "airy_ai(infinity) = 0"),
        confused_with="airy_bi, which grows for positive x.",
    ),
    _record(
        "airy_bi", "The Airy function Bi.", airy_bi,
        (Example("airy_bi(0)", "≈", "0.6149266274"), Example("airy_bi(1)", "≈", "1.207423595")),
        "NIST DLMF, 9.2", related=("airy_ai",),
        words="Airy Bi",
        special_values=("airy_bi(0) = 1/(3^(1/6)*gamma(2/3))", "airy_bi(infinity) = infinity"),
        confused_with="airy_ai, which falls off for positive x.",
    ),
    _record(
        "elliptic_k", "The complete elliptic integral of the first kind.",
        _elliptic(acb.elliptic_k, INFINITY),
        (Example("elliptic_k(0.5)", "≈", "1.854074677"), Example("elliptic_k(1)", "=", "infinity")),
        "Abramowitz & Stegun, 17.3.1", (M,), ("elliptic_e",),
        "the integral of the modulus k: its parameter m is k^2.",
        words="elliptic integral period of a pendulum",
        special_values=(
            "elliptic_k(0) = pi/2",
            "elliptic_k(1) = infinity",
            "elliptic_k(1/2) = gamma(1/4)^2/(4*sqrt(pi))",
        ),
    ),
    _record(
        "elliptic_e", "The complete elliptic integral of the second kind.",
        _elliptic(acb.elliptic_e, ONE),
        (Example("elliptic_e(0.5)", "≈", "1.350643881"), Example("elliptic_e(1)", "=", "1")),
        "Abramowitz & Stegun, 17.3.3", (M,), ("elliptic_k",),
        "the integral of the modulus k: its parameter m is k^2.",
        words="elliptic integral perimeter arc of an ellipse",
        special_values=("elliptic_e(0) = pi/2", "elliptic_e(1) = 1"),
    ),
    _record(
        "lambert_w", "The number w with w·exp(w) = x.", lambert_w,
        (Example("lambert_w(-1/e)", "=", "-1"), Example("lambert_w(1)", "≈", "0.5671432904")),
        "NIST DLMF, 4.13", (Parameter("x", "a number", "x ≥ −1/e"),), ("exp",),
        words="W product logarithm inverse of x exp x",
        special_values=("lambert_w(0) = 0", "lambert_w(e) = 1", "lambert_w(-ln(2)/2) = -ln(2)"),
        confused_with="its other branch, below −1: this is the principal one.",
    ),
)  # fmt: skip
