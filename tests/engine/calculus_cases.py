"""Equations, integrals and derivatives by chance, each with what another library says of it:
``tools/prove_calculus.py`` tries hundreds, the tests a sample."""

from __future__ import annotations

import random
from fractions import Fraction

import mpmath
import numpy as np
from flint import fmpq_poly
from scipy import stats

from teapot.engine import FullSheet
from teapot.engine.numbers.values import Exact

PARTS = (
    ("sin({})", np.sin, 8), ("cos({})", np.cos, 8), ("exp(-({})^2)", lambda x: np.exp(-x * x), 8),
    ("arctan({})", np.arctan, 8), ("tanh({})", np.tanh, 8), ("sqrt(({})^2 + 1)",
    lambda x: np.sqrt(x * x + 1), 8), ("({})^2", lambda x: x * x, 8), ("({})^3", lambda x: x**3, 8),
    ("ln(({})^2 + 2)", lambda x: np.log(x * x + 2), 8), ("1/(({})^2 + 1)",
    lambda x: 1 / (x * x + 1), 8),
)  # fmt: skip
"""Parts of expressions: as they are typed, and what NumPy makes of them."""

WITH_POLES = (
    *PARTS, ("tan({})", np.tan, 8), ("1/({})", lambda x: 1 / x, 8), ("1/({})^2",
    lambda x: 1 / (x * x), 8), ("sinh(({})/3)", lambda x: np.sinh(x / 3), 8), ("cbrt({})",
    np.cbrt, 8), ("abs({})", np.abs, 8),
)  # fmt: skip
"""These too are infinite at places, or have kinks there."""


def an_expression(chance: random.Random, parts):
    """An expression in x as it is typed, and as a function of NumPy."""
    chosen = [chance.choice(parts) for _ in range(chance.randint(2, 3))]
    factors = [chance.choice([-3, -2, -1, 1, 2, 3]) for _ in chosen]
    inside = [(chance.choice([1, 2, 3]), chance.randint(-2, 2)) for _ in chosen]
    rest = chance.randint(-3, 3)
    typed = " + ".join(
        f"({factor})*{part[0].format(f'{a}x + ({b})')}"
        for part, factor, (a, b) in zip(chosen, factors, inside, strict=True)
    )

    def function(x):
        total = x * 0 + rest
        for part, factor, (a, b) in zip(chosen, factors, inside, strict=True):
            total = total + factor * part[1](a * x + b)
        return total

    return f"{typed} + ({rest})", function


def missed_or_invented(seed: int) -> str:
    """What is wrong with the solutions of an equation by chance; empty where nothing is.

    Each place where the sign changes on a fine grid has one, and at each one the sign changes or
    the value is 0.
    """
    typed, function = an_expression(random.Random(seed), WITH_POLES if seed % 2 else PARTS)
    sheet = FullSheet()
    outcome = sheet.answer(f"solve({typed} == 0, x = -4..4)")
    if outcome.error is not None:
        if outcome.error.code != "no-solution":
            return f"{typed}: {outcome.error.text}"
        found = []
    else:
        value = sheet.lines[-1].final_step.value
        items = value.items if hasattr(value, "items") else (value,)
        found = [float(one.ball(64).mid()) for one in items]
        if not any("all" in one.text or "only" in one.text for one in outcome.notices):
            return f"{typed}: {outcome.notices}"
    grid = np.arange(-20_000, 20_001) / 5_000
    with np.errstate(divide="ignore"):
        values = function(grid)
    changes = np.nonzero(np.sign(values[:-1]) * np.sign(values[1:]) < 0)[0]
    for at in changes:
        if _is_pole(function, grid[at], grid[at + 1]):
            continue
        if not any(grid[at] - 1e-9 <= one <= grid[at + 1] + 1e-9 for one in found):
            return f"{typed}: none near {grid[at]}"
    for one in found:
        beside = function(np.array([one - 1e-7, one + 1e-7]))
        touches = abs(function(np.float64(one))) < 1e-12
        if beside[0] * beside[1] > 0 and not touches and abs(one) < 3.999999:
            return f"{typed}: {one} is none"
    return ""


def _is_pole(function, low: float, high: float) -> bool:
    """Whether the sign changes there through infinity."""
    with np.errstate(divide="ignore"):
        for _ in range(40):
            middle = (low + high) / 2
            if np.sign(function(middle)) == np.sign(function(low)):
                low = middle
            else:
                high = middle
        return bool(abs(function(low)) > 1e6)


HIGHEST = 30
"""The degree of the polynomials."""


def wrong_polynomial(seed: int) -> str:
    """What is wrong with the solutions of a polynomial by chance, of which the zeros are known:
    rational ones, and pairs of a whole real part, some of them several times."""
    chance = random.Random(seed)
    degree = chance.randint(2, HIGHEST)
    zeros = set()
    polynomial = fmpq_poly([chance.choice([-3, -1, 1, 2])])
    while polynomial.degree() < degree:
        room = degree - polynomial.degree()
        if room > 1 and chance.random() < 0.3:
            middle, height = chance.randint(-3, 3), chance.randint(1, 5)
            polynomial *= fmpq_poly([middle**2 + height, -2 * middle, 1])
            zeros |= {(middle, -height), (middle, height)}
            continue
        zero = Fraction(chance.randint(-30, 30), chance.choice([1, 1, 2, 3, 10]))
        times = min(room, chance.choice([1, 1, 1, 1, 2, 3]))
        polynomial *= fmpq_poly([-zero.numerator, zero.denominator]) ** times
        zeros.add((zero, 0))
    terms = (f"({factor})*x^{power}" for power, factor in enumerate(polynomial.coeffs()))
    sheet = FullSheet()
    outcome = sheet.answer(f"solve({' + '.join(terms)} == 0, x)")
    if outcome.error is not None:
        return f"{polynomial}: {outcome.error.text}"
    value = sheet.lines[-1].final_step.value
    found = [*map(_as_zero, value.items if hasattr(value, "items") else (value,))]
    if len(found) != len(zeros) or set(found) != zeros:
        return f"{polynomial}: {found} and not {sorted(zeros)}"
    return ""


def _as_zero(value):
    """A real part, and the square of an imaginary part, with its sign, which is whole."""
    if isinstance(value, Exact):
        return Fraction(str(value.coefficient)), 0
    imaginary = value.im.ball(128)
    square = int((imaginary * imaginary).unique_fmpz())
    return Fraction(str(value.re.coefficient)), square if imaginary > 0 else -square


INTEGRANDS = (
    ("exp(-x^2)*cos(3x)", lambda x: mpmath.exp(-x * x) * mpmath.cos(3 * x)),
    ("1/(1 + x^2)", lambda x: 1 / (1 + x * x)),
    ("sin(x)^2*exp(x)", lambda x: mpmath.sin(x) ** 2 * mpmath.exp(x)),
    ("ln(x + 3)", lambda x: mpmath.log(x + 3)),
    ("sqrt(x + 3)", lambda x: mpmath.sqrt(x + 3)),
    ("arctan(x)/(2 + cos(x))", lambda x: mpmath.atan(x) / (2 + mpmath.cos(x))),
    ("cosh(x)", mpmath.cosh),
    ("x^3*sin(2x)", lambda x: x**3 * mpmath.sin(2 * x)),
    ("exp(sin(x))", lambda x: mpmath.exp(mpmath.sin(x))),
    ("1/(x + 5)^3", lambda x: 1 / (x + 5) ** 3),
    ("gamma(x + 4)", lambda x: mpmath.gamma(x + 4)),
    ("erf(x)*x", lambda x: mpmath.erf(x) * x),
)


def wrong_integral(seed: int) -> str:
    """What is wrong with an integral by chance, at 20 digits; empty where nothing is."""
    chance = random.Random(seed)
    typed, function = chance.choice(INTEGRANDS)
    low = chance.randint(-20, 10)
    high = low + chance.randint(1, 20)
    line = f"integral({typed}, x = {low}/10..{high}/10) as 20 digits"
    outcome = FullSheet().answer(line)
    if outcome.error is not None:
        return f"{line}: {outcome.error.text}"
    with mpmath.workdps(40):
        places = [mpmath.mpf(8 * low + k * (high - low)) / 80 for k in range(9)]
        expected = mpmath.quad(function, places)
        found = mpmath.mpf(outcome.answers[0].text.replace(" ", ""))
        if abs(found - expected) > abs(expected) * mpmath.mpf(10) ** -19:
            return f"{line}: {found} and not {expected}"
    return ""


SIMPLE = (
    ("x", lambda x: x), ("1", lambda x: x * 0 + 1), ("x^2", lambda x: x * x), ("sin(x)", np.sin),
    ("(2x - 1)", lambda x: 2 * x - 1), ("exp(-x)", lambda x: np.exp(-x)), ("abs(x)", np.abs),
)  # fmt: skip

PUT_TOGETHER = (
    ("max({}, {})", lambda a, b, c: np.maximum(a, b)),
    ("min({}, {})", lambda a, b, c: np.minimum(a, b)),
    ("if({2} < 0.5, {0}, {1})", lambda a, b, c: np.where(c < 0.5, a, b)),
    ("if({2} > 0.3 and {0} >= 0, {0}, {1})", lambda a, b, c: np.where((c > 0.3) & (a >= 0), a, b)),
    (
        "if(not {2} <= 0.7 or {1} > 1, {0}, {1})",
        lambda a, b, c: np.where((c > 0.7) | (b > 1), a, b),
    ),
    ("hypot({}, {})", lambda a, b, c: np.hypot(a, b)),
    ("(({}) mod 2)", lambda a, b, c: np.mod(a, 2)),
    ("sum(({})*j/(1 + j), j = 1..3)", lambda a, b, c: a * (1 / 2 + 2 / 3 + 3 / 4)),
    ("mean([{}, {}, {}])", lambda a, b, c: (a + b + c) / 3),
)
"""Forms of up to three expressions, and what NumPy makes of them."""


def put_together(chance: random.Random, depth: int):
    """An expression in x of pieces, as it is typed and as a function of NumPy."""
    if not depth:
        return chance.choice(SIMPLE)
    form, function = chance.choice(PUT_TOGETHER)
    parts = [put_together(chance, depth - 1) for _ in range(3)]
    typed = form.format(*(part[0] for part in parts))
    return typed, lambda x: function(*(part[1](x) for part in parts))


def wrong_pieces(seed: int) -> str:
    """What is wrong with the integral of an expression of pieces by chance, beside a sum over many
    places; empty where nothing is, or where it is said that no digit is proved."""
    chance = random.Random(seed)
    typed, function = put_together(chance, chance.choice([1, 2]))
    low, high = chance.randint(-2, 0), chance.randint(1, 3)
    outcome = FullSheet().answer(f"integral({typed}, x = {low}..{high})")
    if outcome.error is not None:
        is_told = any(word in outcome.error.text for word in ("proved", "decided"))
        return "" if is_told else f"{typed}: {outcome.error.text}"
    edges = low + (high - low) * np.arange(400_001) / 400_000
    expected = float(np.mean(function((edges[1:] + edges[:-1]) / 2))) * (high - low)
    found = float(outcome.answers[0].nearly or outcome.answers[0].text)
    if abs(found - expected) > 1e-4 * (1 + abs(expected)):
        return f"{typed}, {low}..{high}: {found} and not {expected}"
    return ""


DIFFERENTIABLE = (
    *INTEGRANDS,
    ("tan(x/3)", lambda x: mpmath.tan(x / 3)),
    ("sec(x/2)*x", lambda x: mpmath.sec(x / 2) * x),
    ("cot(x + 7)", lambda x: mpmath.cot(x + 7)),
    ("arcsin(x/3)", lambda x: mpmath.asin(x / 3)),
    ("arccos(x/3)^2", lambda x: mpmath.acos(x / 3) ** 2),
    ("sinh(x)/cosh(2x)", lambda x: mpmath.sinh(x) / mpmath.cosh(2 * x)),
    ("arsinh(x)", mpmath.asinh),
    ("arcosh(x + 4)", lambda x: mpmath.acosh(x + 4)),
    ("artanh(x/3)", lambda x: mpmath.atanh(x / 3)),
    ("(x + 3)^x", lambda x: (x + 3) ** x),
    ("2^(x^2)", lambda x: mpmath.mpf(2) ** (x * x)),
    ("lg(x + 3)", lambda x: mpmath.log(x + 3, 10)),
    ("cbrt(x + 3)", lambda x: mpmath.cbrt(x + 3)),
    ("erfc(x)", mpmath.erfc),
    ("normal_cdf(x)", mpmath.ncdf),
    ("sum(x^k/k!, k = 0..9)", lambda x: mpmath.fsum(x**k / mpmath.fac(k) for k in range(10))),
    ("sqrt(1 + sin(x)^2)", lambda x: mpmath.sqrt(1 + mpmath.sin(x) ** 2)),
    ("exp(-1/(x + 3)^2)", lambda x: mpmath.exp(-1 / (x + 3) ** 2)),
)


def wrong_derivative(seed: int) -> str:
    """What is wrong with a derivative by chance, at 15 digits; empty where nothing is."""
    chance = random.Random(seed)
    typed, function = chance.choice(DIFFERENTIABLE)
    at, order = chance.randint(-20, 20), chance.randint(1, 4)
    line = f"derivative({typed}, x = {at}/10, order = {order}) as 15 digits"
    outcome = FullSheet().answer(line)
    if outcome.error is not None:
        return f"{line}: {outcome.error.text}"
    with mpmath.workdps(50):
        expected = mpmath.diff(function, mpmath.mpf(at) / 10, order)
        found = mpmath.mpf(outcome.answers[0].text.replace(" ", ""))
        if abs(found - expected) > (abs(expected) + mpmath.mpf(10) ** -15) * mpmath.mpf(10) ** -14:
            return f"{line}: {found} and not {expected}"
    return ""


def normal_cdf(x):
    return mpmath.erfc(-x / mpmath.sqrt(2)) / 2


def normal_pdf(x):
    return mpmath.exp(-x * x / 2) / mpmath.sqrt(2 * mpmath.pi)


def student_cdf(x, n):
    tail = mpmath.betainc(n / 2, mpmath.mpf(1) / 2, 0, n / (n + x * x), regularized=True) / 2
    return tail if x < 0 else 1 - tail


def student_pdf(x, n):
    return (1 + x * x / n) ** (-(n + 1) / 2) / mpmath.sqrt(n) / mpmath.beta(n / 2, mpmath.mpf(0.5))


def chi_squared_cdf(x, n):
    return mpmath.gammainc(n / 2, 0, x / 2, regularized=True)


def chi_squared_pdf(x, n):
    return x ** (n / 2 - 1) * mpmath.exp(-x / 2) / 2 ** (n / 2) / mpmath.gamma(n / 2)


def f_cdf(x, n, m):
    return mpmath.betainc(n / 2, m / 2, 0, n * x / (n * x + m), regularized=True)


def f_pdf(x, n, m):
    quotient = n / m
    power = (1 + quotient * x) ** (-(n + m) / 2)
    return quotient ** (n / 2) * x ** (n / 2 - 1) * power / mpmath.beta(n / 2, m / 2)


def binomial_pmf(k, n, p):
    return mpmath.binomial(n, k) * p**k * (1 - p) ** (n - k)


def poisson_pmf(k, mean):
    return mpmath.exp(-mean) * mean**k / mpmath.factorial(k)


def of_counts(mass):
    """Its sum up to a count."""
    return lambda k, *rest: mpmath.fsum(mass(mpmath.mpf(one), *rest) for one in range(int(k) + 1))


DISTRIBUTIONS = {
    "normal": (normal_pdf, normal_cdf), "student": (student_pdf, student_cdf),
    "chi_squared": (chi_squared_pdf, chi_squared_cdf), "f": (f_pdf, f_cdf),
    "binomial": (binomial_pmf, of_counts(binomial_pmf)),
    "poisson": (poisson_pmf, of_counts(poisson_pmf)),
}  # fmt: skip
"""Density and distribution function of each, as textbooks have them, in mpmath."""

SHOWN = 15
"""Digits that are asked for."""


def wrong_probability(seed: int) -> str:
    """What is wrong with a distribution at a place by chance, at 15 digits beside mpmath, and
    roughly beside SciPy; empty where nothing is."""
    chance = random.Random(seed)
    name = chance.choice([*DISTRIBUTIONS])
    kind = chance.choice(["density", "cdf", "quantile"])
    density, cdf = DISTRIBUTIONS[name]
    p, n, m = f"{chance.randint(1, 999) / 1000}", chance.randint(1, 40), chance.randint(1, 40)
    counts = name in ("binomial", "poisson")
    rest = {"normal": [], "f": [n, m], "binomial": [n, p], "poisson": [f"{n / 4}"]}.get(name, [n])
    place = chance.randint(0, n if name == "binomial" else 40)
    if not counts:
        low = -800 if name in ("normal", "student") else 1
        place = f"{chance.randint(low, 4000 if low == 1 else 800) / 100}"
    at = f"{chance.randint(1, 999) / 1000}" if kind == "quantile" else place
    word = ("pmf" if counts else "pdf") if kind == "density" else kind
    line = f"{name}_{word}({', '.join(map(str, [at, *rest]))})"
    outcome = FullSheet().answer(f"{line} as {SHOWN} digits")
    if outcome.error is not None:
        return f"{line}: {outcome.error.text}"
    with mpmath.workdps(50):
        found = mpmath.mpf(outcome.answers[0].text.replace(" ", ""))
        values = [mpmath.mpf(one) for one in rest]
        wanted = mpmath.mpf(at)
        if kind != "quantile":
            expected = (density if kind == "density" else cdf)(wanted, *values)
        elif counts:
            expected = next(k for k in range(200) if cdf(k, *values) >= wanted)
        else:
            # a step of Newton's from what was found
            expected = found - (cdf(found, *values) - wanted) / density(found, *values)
        first = mpmath.floor(mpmath.log10(abs(found))) if found else 0
        # half a unit of the last digit, and what mpmath's own 50 digits leave open
        half = mpmath.mpf(10) ** (first + 1 - SHOWN) / 2 * (1 + mpmath.mpf(10) ** -25)
        if abs(found - expected) > half:
            return f"{line}: {found} and not {expected}"
    other = _of_scipy(name, kind, float(at), [float(one) for one in rest])
    if abs(float(found) - other) > abs(other) * 1e-9 + 1e-300:
        return f"{line}: {found} and not {other!r}"
    return ""


def _of_scipy(name: str, kind: str, at: float, rest: list[float]) -> float:
    """What SciPy has, in 64 bits."""
    names = {"normal": "norm", "student": "t", "chi_squared": "chi2", "binomial": "binom"}
    known = getattr(stats, names.get(name, name))
    density = "pmf" if name in ("binomial", "poisson") else "pdf"
    return float(getattr(known, {"density": density, "quantile": "ppf"}.get(kind, kind))(at, *rest))
