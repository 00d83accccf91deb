"""Functions that are made of others, so that their poles are seen as zeros of what is below, and
those of several numbers as terms of functions of one."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import reduce
from math import comb, factorial

from flint import arb, ctx, fmpq

from teapot.engine.analysis.shares import chi_squared_share, f_share, student_share
from teapot.engine.analysis.terms import (
    HALF,
    NOUGHT,
    PI,
    PLACE,
    UNIT,
    Accumulated,
    Applied,
    Below,
    Choice,
    Const,
    Op,
    Power,
    Term,
    Var,
    minus,
    of_positive,
    one_over,
    raised,
)
from teapot.engine.numbers.values import Exact, Number, Real, exact

BY_OTHERS: dict[str, Callable[[Term], Term]] = {
    "cot": lambda x: Op("/", Applied("cos", (x,)), Applied("sin", (x,))),
    "tan": lambda x: Op("/", Applied("sin", (x,)), Applied("cos", (x,))),
    "sec": lambda x: one_over(Applied("cos", (x,))),
    "csc": lambda x: one_over(Applied("sin", (x,))),
    "tanh": lambda x: Op("/", Applied("sinh", (x,)), Applied("cosh", (x,))),
    "coth": lambda x: Op("/", Applied("cosh", (x,)), Applied("sinh", (x,))),
    "sech": lambda x: one_over(Applied("cosh", (x,))),
    "csch": lambda x: one_over(Applied("sinh", (x,))),
    "arccot": lambda x: Op("-", Op("*", Const(HALF), Const(PI)), Applied("arctan", (x,))),
    "arcsec": lambda x: Applied("arccos", (one_over(x),)),
    "arccsc": lambda x: Applied("arcsin", (one_over(x),)),
    "arcoth": lambda x: Applied("artanh", (one_over(x),)),
    "arsech": lambda x: Applied("arcosh", (one_over(x),)),
    "arcsch": lambda x: Applied("arsinh", (one_over(x),)),
    "sqrt": lambda x: Power(x, fmpq(1, 2)),
    "lg": lambda x: Op("/", Applied("ln", (x,)), Applied("ln", (Const(exact(10)),))),
    "lb": lambda x: Op("/", Applied("ln", (x,)), Applied("ln", (Const(exact(2)),))),
    "erfc": lambda x: Op("-", UNIT, Applied("erf", (x,))),
    "ceil": lambda x: minus(Applied("floor", (minus(x),))),
    "round": lambda x: Applied("floor", (Op("+", x, Const(HALF)),)),
    "trunc": lambda x: Choice(
        Below(x, NOUGHT, or_equal=False),
        minus(Applied("floor", (minus(x),))),
        Applied("floor", (x,)),
    ),
}


def added(terms: Sequence[Term], op: str = "+") -> Term:
    """All of them added up, or multiplied, by halves: a chain of thousands would be too deep."""
    if len(terms) < 2:
        return terms[0] if terms else NOUGHT if op == "+" else UNIT
    middle = len(terms) // 2
    return Op(op, added(terms[:middle], op), added(terms[middle:], op))


def larger(a: Term, b: Term) -> Term:
    """The larger of two."""
    return Choice(Below(a, b, or_equal=False), b, a)


def smaller(a: Term, b: Term) -> Term:
    """The smaller of two."""
    return Choice(Below(a, b, or_equal=False), a, b)


def hypotenuse(*sides: Term) -> Term:
    """The root of the sum of the squares."""
    return Power(added([Power(side, fmpq(2)) for side in sides]), fmpq(1, 2))


def remainder(a: Term, b: Term) -> Term:
    """``a mod b``, which has the sign of b."""
    return Op("-", a, Op("*", b, Applied("floor", (Op("/", a, b),))))


# -- distributions: the densities, and what is known of their sums in closed form -----------------


def _standard(x: Term, mean: Term, deviation: Term) -> Term:
    return Op("/", Op("-", x, mean), of_positive(deviation))


def _normal_pdf(x: Term, mean: Term = NOUGHT, deviation: Term = UNIT) -> Term:
    z = _standard(x, mean, deviation)
    power = Op("/", Power(z, fmpq(2)), Const(exact(-2)))
    root = Power(Const(Exact(fmpq(2), 1)), fmpq(1, 2))
    return Op("/", Applied("exp", (power,)), Op("*", of_positive(deviation), root))


def _normal_cdf(x: Term, mean: Term = NOUGHT, deviation: Term = UNIT) -> Term:
    z = _standard(x, mean, deviation)
    half = Applied("erf", (Op("/", z, Power(Const(exact(2)), fmpq(1, 2))),))
    return Op("*", Const(HALF), Op("+", UNIT, half))


def _student_pdf(x: Term, df: Term) -> Term:
    n = _constant(df)
    height = _of_constants(
        lambda n: ((n + 1) / 2).gamma() / ((n * arb.pi()).sqrt() * (n / 2).gamma()), n
    )
    base = Op("+", UNIT, Op("/", Power(x, fmpq(2)), df))
    return Op("*", height, one_over(raised(base, _half_of(n, 1))))


def _chi_squared_pdf(x: Term, df: Term) -> Term:
    k = _constant(df)
    height = _of_constants(lambda k: 1 / (arb(2) ** (k / 2) * (k / 2).gamma()), k)
    fall = Applied("exp", (Op("/", x, Const(exact(-2))),))
    return Op("*", height, Op("*", _rise(x, k), fall))


def _f_pdf(x: Term, df1: Term, df2: Term) -> Term:
    m, n = _constant(df1), _constant(df2)
    height = _of_constants(
        lambda m, n: (
            (m / n) ** (m / 2)
            * (((m + n) / 2).lgamma() - (m / 2).lgamma() - (n / 2).lgamma()).exp()
        ),
        m,
        n,
    )
    base = Op("+", UNIT, Op("/", Op("*", df1, x), df2))
    both = exact(-(_rational(m) + _rational(n)) / 2)
    return Op("*", height, Op("*", _rise(x, m), raised(base, Const(both))))


def _rise(x: Term, df: Number) -> Term:
    """x^(k/2 − 1), which has no real value below 0: the density is another one there."""
    return Power(Power(x, fmpq(1, 2)), _rational(df) - 2)


def _student_cdf(x: Term, df: Term) -> Term:
    n = _constant(df)
    return Accumulated(_share(student_share, n), _student_pdf(Var(PLACE), df), x)


def _chi_squared_cdf(x: Term, df: Term) -> Term:
    k = _constant(df)
    return Accumulated(_share(chi_squared_share, k), _chi_squared_pdf(Var(PLACE), df), x)


def _f_cdf(x: Term, df1: Term, df2: Term) -> Term:
    m, n = _constant(df1), _constant(df2)
    return Accumulated(_share(f_share, m, n), _f_pdf(Var(PLACE), df1, df2), x)


def _share(of: Callable[..., arb], *parameters: Number) -> Callable[[arb], arb]:
    return lambda place: of(place, *(one.ball(ctx.prec) for one in parameters))


def _binomial_pmf(k: Term, n: Term, p: Term) -> Term:
    successes, trials = _count(k), _count(n)
    ways = Const(exact(fmpq(comb(trials, successes)) if successes <= trials else 0))
    others = Power(Op("-", UNIT, p), fmpq(max(trials - successes, 0)))
    return Op("*", ways, Op("*", Power(p, fmpq(successes)), others))


def _poisson_pmf(k: Term, mean: Term) -> Term:
    count = _count(k)
    share = Op("/", Power(of_positive(mean), fmpq(count)), Const(exact(factorial(count))))
    return Op("*", Applied("exp", (minus(mean),)), share)


def _up_to(mass: Callable[..., Term]) -> Callable[..., Term]:
    """The distribution function of counts."""

    def share(k: Term, *rest: Term) -> Term:
        return added([mass(Const(exact(one)), *rest) for one in range(_count(k) + 1)])

    return share


MOST_COUNTED = 100


def _count(term: Term) -> int:
    number = _rational(_constant(term))
    if number.q != 1 or not 0 <= number.p <= MOST_COUNTED:
        raise NotConstant
    return int(number.p)


class NotConstant(Exception):
    """A number of degrees of freedom that is bound, or has no exact value."""


def _constant(term: Term) -> Number:
    if isinstance(term, Const) and isinstance(term.value, Exact | Real):
        return term.value
    raise NotConstant


def _rational(number: Number) -> fmpq:
    if isinstance(number, Exact) and number.is_rational:
        return number.coefficient
    raise NotConstant


def _half_of(n: Number, more: int) -> Term:
    return Const(exact((_rational(n) + more) / 2))


def _of_constants(compute: Callable[..., arb], *numbers: Number) -> Term:
    return Const(Real(compute, *numbers))


OF_SEVERAL: dict[str, tuple[int, int, Callable[..., Term]]] = {
    "hypot": (2, 9, hypotenuse),
    "max": (2, 9, lambda *terms: reduce(larger, terms)),
    "min": (2, 9, lambda *terms: reduce(smaller, terms)),
    "mod": (2, 2, remainder),
    "div": (2, 2, lambda a, b: Applied("floor", (Op("/", a, b),))),
    "normal_pdf": (1, 3, _normal_pdf),
    "normal_cdf": (1, 3, _normal_cdf),
    "student_pdf": (2, 2, _student_pdf),
    "chi_squared_pdf": (2, 2, _chi_squared_pdf),
    "f_pdf": (3, 3, _f_pdf),
    "student_cdf": (2, 2, _student_cdf),
    "chi_squared_cdf": (2, 2, _chi_squared_cdf),
    "f_cdf": (3, 3, _f_cdf),
    "binomial_pmf": (3, 3, _binomial_pmf),
    "binomial_cdf": (3, 3, _up_to(_binomial_pmf)),
    "poisson_pmf": (2, 2, _poisson_pmf),
    "poisson_cdf": (2, 2, _up_to(_poisson_pmf)),
}
"""By name: how many arguments it takes, and the term that it stands for."""

OF_LISTS: dict[str, Callable[[Sequence[Term]], Term]] = {
    "sum": added,
    "product": lambda terms: added(terms, "*"),
    "mean": lambda terms: Op("/", added(terms), Const(exact(len(terms)))),
    "max": lambda terms: reduce(larger, terms),
    "min": lambda terms: reduce(smaller, terms),
}
"""Functions of a list that is written out, or of an expression over an index."""
