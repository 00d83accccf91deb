"""Equations, integrals and derivatives by chance, each with what another library says of it:
``tools/prove_calculus.py`` tries hundreds, the tests a sample."""

from __future__ import annotations

import random

import mpmath
import numpy as np
from scipy import stats

from teapot.engine import FullSheet

PARTS = (
    ("sin({})", np.sin, 8), ("cos({})", np.cos, 8), ("exp(-({})^2)", lambda x: np.exp(-x * x), 8),
    ("arctan({})", np.arctan, 8), ("tanh({})", np.tanh, 8), ("sqrt(({})^2 + 1)",
    lambda x: np.sqrt(x * x + 1), 8), ("({})^2", lambda x: x * x, 8), ("({})^3", lambda x: x**3, 8),
    ("ln(({})^2 + 2)", lambda x: np.log(x * x + 2), 8), ("1/(({})^2 + 1)",
    lambda x: 1 / (x * x + 1), 8),
)  # fmt: skip
"""Parts of expressions: as they are typed, and what NumPy makes of them."""


def an_expression(chance: random.Random):
    """An expression in x as it is typed, and as a function of NumPy."""
    chosen = [chance.choice(PARTS) for _ in range(chance.randint(2, 3))]
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
    """What is wrong with the solutions of an equation by chance; empty where nothing is: each place
    where the sign changes on a fine grid has one, and at each one the sign changes."""
    typed, function = an_expression(random.Random(seed))
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
    values = function(grid)
    changes = np.nonzero(np.sign(values[:-1]) * np.sign(values[1:]) < 0)[0]
    for at in changes:
        if not any(grid[at] - 1e-9 <= one <= grid[at + 1] + 1e-9 for one in found):
            return f"{typed}: none near {grid[at]}"
    for one in found:
        beside = function(np.array([one - 1e-7, one + 1e-7]))
        if beside[0] * beside[1] > 0 and abs(one) < 3.999999:
            return f"{typed}: {one} is none"
    return ""


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


def wrong_derivative(seed: int) -> str:
    """What is wrong with a derivative by chance, at 15 digits; empty where nothing is."""
    chance = random.Random(seed)
    typed, function = chance.choice(INTEGRANDS)
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


def wrong_probability(seed: int) -> str:
    """What is wrong with a distribution at a place by chance, beside SciPy; empty where nothing
    is.  SciPy has 64 bits: it is asked for 12 digits."""
    chance = random.Random(seed)
    x, n, m = chance.randint(-400, 400) / 100, chance.randint(1, 40), chance.randint(1, 40)
    p, k = chance.randint(1, 999) / 1000, chance.randint(0, 40)
    positive = abs(x) + 0.01
    line, expected = chance.choice((
        (f"normal_cdf({x})", lambda: stats.norm.cdf(x)),
        (f"normal_pdf({x})", lambda: stats.norm.pdf(x)),
        (f"normal_quantile({p})", lambda: stats.norm.ppf(p)),
        (f"student_cdf({x}, {n})", lambda: stats.t.cdf(x, n)),
        (f"student_pdf({x}, {n})", lambda: stats.t.pdf(x, n)),
        (f"student_quantile({p}, {n})", lambda: stats.t.ppf(p, n)),
        (f"chi_squared_cdf({positive}, {n})", lambda: stats.chi2.cdf(positive, n)),
        (f"chi_squared_pdf({positive}, {n})", lambda: stats.chi2.pdf(positive, n)),
        (f"chi_squared_quantile({p}, {n})", lambda: stats.chi2.ppf(p, n)),
        (f"f_cdf({positive}, {n}, {m})", lambda: stats.f.cdf(positive, n, m)),
        (f"f_pdf({positive}, {n}, {m})", lambda: stats.f.pdf(positive, n, m)),
        (f"f_quantile({p}, {n}, {m})", lambda: stats.f.ppf(p, n, m)),
        (f"binomial_pmf({k}, 40, {p})", lambda: stats.binom.pmf(k, 40, p)),
        (f"binomial_cdf({k}, 40, {p})", lambda: stats.binom.cdf(k, 40, p)),
        (f"binomial_quantile({p}, 40, 0.3)", lambda: stats.binom.ppf(p, 40, 0.3)),
        (f"poisson_pmf({k}, {positive})", lambda: stats.poisson.pmf(k, positive)),
        (f"poisson_cdf({k}, {positive})", lambda: stats.poisson.cdf(k, positive)),
        (f"poisson_quantile({p}, {positive})", lambda: stats.poisson.ppf(p, positive)),
    ))  # fmt: skip
    outcome = FullSheet().answer(f"{line} as 15 digits")
    if outcome.error is not None:
        return f"{line}: {outcome.error.text}"
    found, other = float(outcome.answers[0].text.replace(" ", "")), float(expected())
    if abs(found - other) > abs(other) * 1e-10 + 1e-300:
        return f"{line}: {found!r} and not {other!r}"
    return ""
