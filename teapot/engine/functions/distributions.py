"""The usual distributions of probability: density, distribution function and quantile, each digit
proved by FLINT's incomplete gamma and beta functions."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, wraps

from flint import arb, ctx, fmpq

from teapot.engine.analysis.shares import chi_squared_share, f_share, student_share
from teapot.engine.functions.helpers import outside
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers import operators
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Angle,
    Exact,
    Infinite,
    Measure,
    Number,
    Real,
    Undefined,
    Value,
    exact,
    rational_of,
)
from teapot.engine.reading.described import Example

SUBJECT = "distributions"
SOURCE = "NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.6; NIST DLMF, 8.2 and 8.17"

ZERO, ONE = exact(0), exact(1)
MOST_TRIALS = 1000
"""Trials up to which a binomial probability is exact."""

Ball = Callable[..., arb]


# -- arguments -----------------------------------------------------------------------------


def _plain(value: Value, what: str) -> Number:
    if isinstance(value, Exact | Real):
        return value
    raise outside(f"{what} is a plain number here.")


def _parameter(value: Value, what: str) -> Number:
    """A parameter within what can be worked out in time.  Errors: a sentence for another."""
    number = _plain(value, what)
    with precision(64):
        ball = number.ball(64)
        if not (ball > 0 and ball >= arb(10) ** -6 and ball <= 10**6):
            raise outside(f"{what} is above 0, and lies between 0.000001 and 1,000,000 here.")
    return number


def _place(value: Value, what: str) -> Number:
    """A place within what can be worked out in time.  Errors: a sentence for another."""
    number = _plain(value, what)
    with precision(64):
        if not abs(number.ball(64)) <= arb(10) ** 15:
            raise outside(f"{what} lies within 10^15 of 0 here.")
    return number


def _whole(value: Value, what: str) -> int:
    if isinstance(value, Exact) and value.is_integer and 0 <= value.coefficient <= 10**6:
        return int(value.coefficient.p)
    raise outside(f"{what} is a whole number from 0 to 1,000,000.")


def _chance(value: Value, what: str = "A probability") -> Number:
    number = _plain(value, what)
    rest = operators.operate("-", ONE, number)
    if operators.sign_of(number) < 0 or operators.sign_of(rest) < 0:
        raise outside(f"{what} lies between 0 and 1.")
    return number


def _standard(x: Value, mean: Value, deviation: Value) -> Number | Infinite:
    """How many standard deviations x lies above the mean; both may have a unit."""
    if isinstance(deviation, Exact | Real | Measure | Angle) and operators.sign_of(deviation) <= 0:
        raise outside("The standard deviation is above 0.")
    away = operators.operate("/", operators.operate("-", x, mean), deviation)
    if isinstance(away, Infinite):
        return away
    return _plain(away, "The distance from the mean in standard deviations")


# -- quantiles by the distribution function --------------------------------------------------


def _quantile_of(cumulative: Ball, start: arb, args: tuple[Number, ...], p: Number) -> Number:
    """The place where a rising distribution function has the value p: between two ends that are
    proved to lie below and above."""

    def compute(*balls: arb) -> arb:
        *others, wanted = balls
        bits = ctx.prec
        with precision(bits + 64):
            low, high = _around(lambda x: cumulative(x, *others) - wanted, start)
            while high - low > abs(low).max(abs(high)) * arb(2) ** -(bits + 2):
                middle = ((low + high) / 2).mid()
                sign = cumulative(middle, *others) - wanted
                if sign > 0:
                    high = middle
                elif sign < 0:
                    low = middle
                else:
                    break
        return low.union(high)

    return Real(compute, *args, p)


def _around(rest: Callable[[arb], arb], start: arb) -> tuple[arb, arb]:
    """A place below a zero of a rising function, and one above."""
    low, high, step = start, start, arb(1)
    for _ in range(2000):
        if rest(high) > 0:
            break
        low, high, step = high, high + step, 2 * step
    step = arb(1)
    for _ in range(2000):
        if rest(low) < 0:
            break
        low, step = low - step, 2 * step
    return low, high


# -- normal ---------------------------------------------------------------------------------


def normal_pdf(x: Value, mean: Value | None = None, deviation: Value | None = None) -> Value:
    """exp(−z²/2)/(σ√(2π)), with z = (x − μ)/σ."""
    spread = deviation or ONE
    z = _standard(x, mean or ZERO, spread)
    if isinstance(z, Infinite):
        return ZERO
    height = Real(lambda one: (-one * one / 2).exp() / (2 * arb.pi()).sqrt(), z)
    return operators.operate("/", height, spread)


def normal_cdf(x: Value, mean: Value | None = None, deviation: Value | None = None) -> Value:
    """erfc(−z/√2)/2."""
    z = _standard(x, mean or ZERO, deviation or ONE)
    if isinstance(z, Infinite):
        return ONE if z.sign > 0 else ZERO
    if z == ZERO:
        return exact(fmpq(1, 2))
    return Real(lambda one: (-one / arb(2).sqrt()).erfc() / 2, z)


def normal_quantile(p: Value, mean: Value | None = None, deviation: Value | None = None) -> Value:
    """The x below which a share p lies."""
    share = _chance(p)
    spread = deviation or ONE
    _standard(mean or ZERO, mean or ZERO, spread)
    if share in (ZERO, ONE):
        return Infinite(1 if share == ONE else -1)
    if share == exact(fmpq(1, 2)):
        return mean or ZERO
    z = Real(lambda one: -arb(2).sqrt() * (2 * one).erfcinv(), share)
    step = operators.operate("*", spread, z)
    return step if mean is None else operators.operate("+", mean, step)


# -- Student, chi-squared, F ------------------------------------------------------------------


def student_pdf(t: Value, df: Value) -> Value:
    """Γ((ν+1)/2)/(√(νπ) Γ(ν/2)) (1 + t²/ν)^(−(ν+1)/2)."""

    def compute(x: arb, n: arb) -> arb:
        scale = (((n + 1) / 2).lgamma() - (n / 2).lgamma()).exp() / (n * arb.pi()).sqrt()
        return scale * (-(n + 1) / 2 * (1 + x * x / n).log()).exp()

    return Real(compute, _place(t, "t"), _parameter(df, "The number of degrees of freedom"))


def student_cdf(t: Value, df: Value) -> Value:
    """The share below t."""
    n = _parameter(df, "The number of degrees of freedom")
    if isinstance(t, Infinite):
        return ONE if t.sign > 0 else ZERO
    x = _place(t, "t")
    return exact(fmpq(1, 2)) if x == ZERO else Real(student_share, x, n)


def student_quantile(p: Value, df: Value) -> Value:
    """The t below which a share p lies."""
    share, n = _chance(p), _parameter(df, "The number of degrees of freedom")
    if share in (ZERO, ONE):
        return Infinite(1 if share == ONE else -1)
    if share == exact(fmpq(1, 2)):
        return ZERO
    return _quantile_of(student_share, arb(fmpq(1, 7)), (n,), share)


def chi_squared_pdf(x: Value, df: Value) -> Value:
    """x^(k/2−1) exp(−x/2)/(2^(k/2) Γ(k/2))."""
    k = _parameter(df, "The number of degrees of freedom")
    place = _place(x, "x")
    if operators.sign_of(place) < 0:
        return ZERO
    if place == ZERO and k == exact(2):
        return exact(fmpq(1, 2))
    if place == ZERO:
        over = operators.sign_of(operators.operate("-", k, exact(2)))
        return ZERO if over > 0 else Infinite(1)

    def compute(at: arb, n: arb) -> arb:
        half = n / 2
        return ((half - 1) * at.log() - at / 2 - half * arb(2).log() - half.lgamma()).exp()

    return Real(compute, place, k)


def chi_squared_cdf(x: Value, df: Value) -> Value:
    """The share below x."""
    return _of_positive(chi_squared_share, x, (_parameter(df, "The number of degrees of freedom"),))


def _of_positive(compute: Ball, x: Value, args: tuple[Number, ...]) -> Value:
    if isinstance(x, Infinite):
        return ONE if x.sign > 0 else ZERO
    place = _place(x, "x")
    return ZERO if operators.sign_of(place) <= 0 else Real(compute, place, *args)


def _quantile_of_positive(compute: Ball, p: Value, args: tuple[Number, ...]) -> Value:
    share = _chance(p)
    if share in (ZERO, ONE):
        return Infinite(1) if share == ONE else ZERO
    return _quantile_of(compute, arb(fmpq(8, 7)), args, share)


def chi_squared_quantile(p: Value, df: Value) -> Value:
    """The x below which a share p lies."""
    k = _parameter(df, "The number of degrees of freedom")
    return _quantile_of_positive(chi_squared_share, p, (k,))


def f_pdf(x: Value, df1: Value, df2: Value) -> Value:
    """√((d₁x)^d₁ d₂^d₂/(d₁x + d₂)^(d₁+d₂))/(x B(d₁/2, d₂/2))."""
    a, b = (_parameter(one, "The number of degrees of freedom") for one in (df1, df2))
    place = _place(x, "x")
    if operators.sign_of(place) <= 0:
        if place == ZERO:
            raise outside("The density of F is given for x above 0.")
        return ZERO

    def compute(at: arb, m: arb, n: arb) -> arb:
        beta = (m / 2).lgamma() + (n / 2).lgamma() - ((m + n) / 2).lgamma()
        power = m / 2 * (m * at).log() + n / 2 * n.log() - (m + n) / 2 * (m * at + n).log()
        return (power - at.log() - beta).exp()

    return Real(compute, place, a, b)


def f_cdf(x: Value, df1: Value, df2: Value) -> Value:
    """The share below x."""
    args = tuple(_parameter(one, "The number of degrees of freedom") for one in (df1, df2))
    return _of_positive(f_share, x, args)


def f_quantile(p: Value, df1: Value, df2: Value) -> Value:
    """The x below which a share p lies."""
    args = tuple(_parameter(one, "The number of degrees of freedom") for one in (df1, df2))
    return _quantile_of_positive(f_share, p, args)


# -- binomial, Poisson -----------------------------------------------------------------------


def _binomial_term(k: int, n: int, p: Number) -> Value:
    """C(n, k) p^k (1 − p)^(n−k)."""
    if isinstance(p, Exact) and p.is_rational and n <= MOST_TRIALS:
        share = p.coefficient
        return exact(_choose(n, k) * share**k * (1 - share) ** (n - k))

    def compute(share: arb) -> arb:
        logs = arb(n + 1).lgamma() - arb(k + 1).lgamma() - arb(n - k + 1).lgamma()
        up = k * share.log() if k else arb(0)
        down = (n - k) * (1 - share).log() if n > k else arb(0)
        return (logs + up + down).exp()

    return Real(compute, p)


def _choose(n: int, k: int) -> fmpq:
    result = fmpq(1)
    for at in range(1, min(k, n - k) + 1):
        result = result * (n - at + 1) / at
    return result


def binomial_pmf(k: Value, n: Value, p: Value) -> Value:
    """The probability of exactly k successes in n trials."""
    trials, share = _whole(n, "The number of trials"), _chance(p)
    successes = _whole(k, "The number of successes")
    return ZERO if successes > trials else _binomial_term(successes, trials, share)


def binomial_cdf(k: Value, n: Value, p: Value) -> Value:
    """The probability of at most k successes in n trials."""
    trials, share = _whole(n, "The number of trials"), _chance(p)
    successes = _whole(k, "The number of successes")
    if successes >= trials or share == ZERO:
        return ONE
    if isinstance(share, Exact) and share.is_rational and trials <= MOST_TRIALS:
        terms = (_binomial_term(at, trials, share) for at in range(successes + 1))
        total = fmpq(0)
        for one in terms:
            assert isinstance(one, Exact)
            total += one.coefficient
        return exact(total)
    if share == ONE:
        return ZERO
    return Real(partial(_binomial, successes, trials), share)


def _binomial(k: int, n: int, share: arb) -> arb:
    return (1 - share).beta_lower(arb(n - k), arb(k + 1), regularized=1)


def binomial_quantile(p: Value, n: Value, success: Value) -> Value:
    """The least k that at most k successes have a probability of p or more."""
    trials, share, wanted = _whole(n, "The number of trials"), _chance(success), _chance(p)
    return _least(lambda k: binomial_cdf(exact(k), n, share), wanted, trials)


def _least(cumulative: Callable[[int], Value], wanted: Number, most: int) -> Value:
    low, high = 0, most
    while low < high:
        middle = (low + high) // 2
        rest = operators.operate("-", cumulative(middle), wanted)
        if operators.sign_of(rest) < 0:
            low = middle + 1
        else:
            high = middle
    return exact(low)


def poisson_pmf(k: Value, mean: Value) -> Value:
    """exp(−λ) λ^k/k!."""
    count, rate = _whole(k, "The number of events"), _parameter(mean, "The mean")
    return Real(
        lambda one: (
            (count * one.log() - one - arb(count + 1).lgamma()).exp() if count else (-one).exp()
        ),
        rate,
    )


def poisson_cdf(k: Value, mean: Value) -> Value:
    """The probability of at most k events."""
    count, rate = _whole(k, "The number of events"), _parameter(mean, "The mean")
    return Real(lambda one: one.gamma_upper(arb(count + 1), regularized=1), rate)


def poisson_quantile(p: Value, mean: Value) -> Value:
    """The least k that at most k events have a probability of p or more."""
    wanted, rate = _chance(p), _parameter(mean, "The mean")
    if wanted == ONE:
        return Infinite(1)
    with precision(64):
        most = int(rational_of((rate.ball(64) * 2 + 64).upper())) * 2
    for _ in range(20):
        rest = operators.operate("-", poisson_cdf(exact(most), rate), wanted)
        if operators.sign_of(rest) >= 0:
            break
        most *= 2
    return _least(lambda k: poisson_cdf(exact(k), rate), wanted, most)


# -- records ---------------------------------------------------------------------------------

P = Parameter("p", "the share below, a probability", "from 0 to 1")
MEAN = Parameter("mean", "the mean, 0 if left out", "a number or a measure", optional=True)
DEVIATION = Parameter("sd", "the standard deviation, 1 if left out", "above 0", optional=True)
DF = Parameter("df", "the degrees of freedom", "above 0")
DF1, DF2 = (
    Parameter(name, f"the degrees of freedom {where}", "above 0")
    for name, where in (("df1", "above"), ("df2", "below"))
)
X = Parameter("x", "a value", "a number")
COUNT = Parameter("k", "a count", "a whole number from 0 on")
TRIALS = Parameter("n", "the number of trials", "a whole number")
SUCCESS = Parameter("success", "the probability of one success", "from 0 to 1")
RATE = Parameter("mean", "the mean number of events", "above 0")


def _defined(compute: Callable[..., Value]) -> Callable[..., Value]:
    """The same, undefined where an argument is."""

    @wraps(compute)
    def function(*args: Value | None) -> Value:
        undefined = next((one for one in args if isinstance(one, Undefined)), None)
        return compute(*args) if undefined is None else undefined

    return function


def _record(
    name: str,
    summary: str,
    compute: Callable[..., Value],
    parameters: tuple[Parameter, ...],
    examples: tuple[tuple[str, str, str], ...],
    words: str,
    aliases: tuple[str, ...] = (),
) -> Function:
    family = name.rpartition("_")[0]
    kinds = ("pdf", "pmf", "cdf", "quantile")
    related = tuple(
        one for one in (f"{family}_{kind}" for kind in kinds) if one != name and one in NAMES
    )
    return Function(
        name=name,
        subject=SUBJECT,
        summary=summary,
        parameters=parameters,
        compute=_defined(compute),
        aliases=aliases,
        examples=tuple(Example(*one) for one in examples),
        value="a number",
        related=related,
        words=f"probability distribution {words}",
        source=SOURCE,
        accepts=(Measure,) if family == "normal" else (),
    )


NAMES = frozenset({
    "normal_pdf", "normal_cdf", "normal_quantile", "student_pdf", "student_cdf",
    "student_quantile", "chi_squared_pdf", "chi_squared_cdf", "chi_squared_quantile", "f_pdf",
    "f_cdf", "f_quantile", "binomial_pmf", "binomial_cdf", "binomial_quantile", "poisson_pmf",
    "poisson_cdf", "poisson_quantile",
})  # fmt: skip

FUNCTIONS = (
    _record(
        "normal_pdf",
        "The density of the normal distribution.",
        normal_pdf,
        (X, MEAN, DEVIATION),
        (("normal_pdf(0)", "≈", "0.3989422804"), ("normal_pdf(0, 0, 2)", "≈", "0.1994711402")),
        "gauss bell curve",
    ),
    _record(
        "normal_cdf",
        "The share of a normal distribution that lies below a value.",
        normal_cdf,
        (X, MEAN, DEVIATION),
        (
            ("normal_cdf(1.96)", "≈", "0.9750021049"),
            ("normal_cdf(190 cm, 178 cm, 7 cm)", "≈", "0.9567618673"),
        ),
        "gauss z table cumulative phi",
    ),
    _record(
        "normal_quantile",
        "The value below which a share of a normal distribution lies.",
        normal_quantile,
        (P, MEAN, DEVIATION),
        (
            ("normal_quantile(0.975)", "≈", "1.959963985"),
            ("normal_quantile(0.5, 178 cm, 7 cm)", "=", "178 cm"),
        ),
        "gauss inverse z probit critical",
    ),
    _record(
        "student_pdf",
        "The density of Student's t distribution.",
        student_pdf,
        (X, DF),
        (("student_pdf(0, 1)", "≈", "0.3183098862"), ("student_pdf(1, 10)", "≈", "0.2303619892")),
        "student t",
    ),
    _record(
        "student_cdf",
        "The share of Student's t distribution that lies below a value.",
        student_cdf,
        (X, DF),
        (
            ("student_cdf(2.228, 10)", "≈", "0.9749941141"),
            ("student_cdf(0, 3)", "=", "0.5"),
            ("2*(1 - student_cdf(2.6, 8))", "≈", "0.03161781156"),
            (
                "2*(1 - student_cdf(abs(5.12 - 4.78)/sqrt((0.21^2 + 0.33^2)/6), 10))",
                "≈",
                "0.05910458567",
            ),
        ),
        "student t test p value compare two means significance hypothesis",
    ),
    _record(
        "student_quantile",
        "The t below which a share of Student's distribution lies.",
        student_quantile,
        (P, DF),
        (
            ("student_quantile(0.975, 10)", "≈", "2.228138852"),
            ("student_quantile(0.5, 3)", "=", "0"),
            (
                "10.2 + [-1, 1]*student_quantile(0.975, 4)*0.3/sqrt(5)",
                "≈",
                "[9.827500801, 10.5724992]",
            ),
        ),
        "student t table critical value confidence interval",
    ),
    _record(
        "chi_squared_pdf",
        "The density of the chi-squared distribution.",
        chi_squared_pdf,
        (X, DF),
        (("chi_squared_pdf(1, 2)", "≈", "0.3032653299"), ("chi_squared_pdf(0, 2)", "=", "0.5")),
        "chi2",
    ),
    _record(
        "chi_squared_cdf",
        "The share of the chi-squared distribution below a value.",
        chi_squared_cdf,
        (X, DF),
        (("chi_squared_cdf(3.841, 1)", "≈", "0.9499863162"), ("chi_squared_cdf(0, 3)", "=", "0")),
        "chi2 goodness of fit test",
    ),
    _record(
        "chi_squared_quantile",
        "The value below which a share of chi-squared lies.",
        chi_squared_quantile,
        (P, DF),
        (
            ("chi_squared_quantile(0.95, 1)", "≈", "3.841458821"),
            ("chi_squared_quantile(0.95, 10)", "≈", "18.30703805"),
        ),
        "chi2 critical value table",
    ),
    _record(
        "f_pdf",
        "The density of the F distribution.",
        f_pdf,
        (X, DF1, DF2),
        (("f_pdf(1, 2, 2)", "≈", "0.25"), ("f_pdf(1, 5, 20)", "≈", "0.5448781252")),
        "fisher variance ratio",
    ),
    _record(
        "f_cdf",
        "The share of the F distribution that lies below a value.",
        f_cdf,
        (X, DF1, DF2),
        (("f_cdf(4.10, 2, 10)", "≈", "0.9499224515"), ("f_cdf(0, 2, 10)", "=", "0")),
        "fisher anova",
    ),
    _record(
        "f_quantile",
        "The value below which a share of the F distribution lies.",
        f_quantile,
        (P, DF1, DF2),
        (
            ("f_quantile(0.95, 2, 10)", "≈", "4.102821015"),
            ("f_quantile(0.95, 5, 20)", "≈", "2.710889837"),
        ),
        "fisher anova critical value",
    ),
    _record(
        "binomial_pmf",
        "The probability of exactly k successes in n trials.",
        binomial_pmf,
        (COUNT, TRIALS, SUCCESS),
        (("binomial_pmf(2, 4, 1/2)", "=", "0.375"), ("binomial_pmf(0, 4, 1/2)", "=", "0.0625")),
        "bernoulli trials",
        aliases=("binomial_pdf",),
    ),
    _record(
        "binomial_cdf",
        "The probability of at most k successes in n trials.",
        binomial_cdf,
        (COUNT, TRIALS, SUCCESS),
        (("binomial_cdf(1, 4, 1/2)", "=", "0.3125"), ("binomial_cdf(4, 4, 1/2)", "=", "1")),
        "bernoulli trials cumulative",
    ),
    _record(
        "binomial_quantile",
        "The least k with a probability of p or more to be not exceeded.",
        binomial_quantile,
        (P, TRIALS, SUCCESS),
        (
            ("binomial_quantile(0.5, 4, 1/2)", "=", "2"),
            ("binomial_quantile(0.9, 4, 1/2)", "=", "3"),
        ),
        "bernoulli trials",
    ),
    _record(
        "poisson_pmf",
        "The probability of exactly k events.",
        poisson_pmf,
        (COUNT, RATE),
        (("poisson_pmf(2, 3)", "≈", "0.2240418077"), ("poisson_pmf(0, 3)", "≈", "0.04978706837")),
        "counts rare events decay",
        aliases=("poisson_pdf",),
    ),
    _record(
        "poisson_cdf",
        "The probability of at most k events.",
        poisson_cdf,
        (COUNT, RATE),
        (("poisson_cdf(2, 3)", "≈", "0.4231900811"), ("poisson_cdf(0, 3)", "≈", "0.04978706837")),
        "counts rare events",
    ),
    _record(
        "poisson_quantile",
        "The least k with a probability of p or more to be not exceeded.",
        poisson_quantile,
        (P, RATE),
        (("poisson_quantile(0.5, 3)", "=", "3"), ("poisson_quantile(0.9, 3)", "=", "5")),
        "counts",
    ),
)
