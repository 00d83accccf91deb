"""The integral of a term over a range by FLINT's rigorous quadrature (F. Johansson, Numerical
integration in arbitrary-precision ball arithmetic, 2018), with what is left out at an infinite or
open end bounded."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from contextlib import suppress
from functools import lru_cache
from typing import cast

from flint import acb, arb, arb_series, ctx, fmpq, fmpq_poly, fmpz

from teapot.engine.analysis.growth import Unbounded, far_enough, tail
from teapot.engine.analysis.rings import (
    REALS,
    Ball,
    Complexes,
    NotReal,
    Nowhere,
    quadrature,
    worked_out,
)
from teapot.engine.analysis.terms import (
    Applied,
    Choice,
    Const,
    Integrated,
    Op,
    Power,
    Term,
    Var,
    mapped,
    replaced,
)
from teapot.engine.analysis.zeros import LENGTH, Search
from teapot.engine.errors import LineError
from teapot.engine.numbers import operators
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import Complex, Exact, Infinite, Number, Real, exact
from teapot.engine.sentences.analysis import (
    NEAR_NOUGHT,
    NOT_INTEGRATED,
    NOT_REAL_INSIDE,
    SINGULAR,
    SINGULAR_END,
)

FIRST = 64
"""Binary digits with which it is looked whether there is an integral."""

MOST_BITS = 1200
"""Binary digits with which an integral is worked out; with more it is as before."""

WORTH = 30
"""Binary digits that are proved at least, else it is said that none are."""

LOST = 16
"""Binary digits that may be lost next to an end, before another way is tried there."""

PLACES_INSIDE = (fmpq(382, 1000), fmpq(1, 2), fmpq(764, 1000), fmpq(91, 1000))


def places_inside(low: Number | Infinite, high: Number | Infinite) -> list[Number]:
    """Places between two ends, at which it is looked what the expression is."""
    if isinstance(low, Infinite) or isinstance(high, Infinite):
        from_there = low if not isinstance(low, Infinite) else high
        way = exact(1 if not isinstance(low, Infinite) else -1)
        base = exact(0) if isinstance(from_there, Infinite) else from_there
        steps = [exact(one * 3) for one in PLACES_INSIDE]
        return [
            cast(Number, operators.operate("+", base, operators.operate("*", way, step)))
            for step in steps
        ]
    span = operators.operate("-", high, low)
    return [
        cast(Number, operators.operate("+", low, operators.operate("*", span, exact(part))))
        for part in PLACES_INSIDE
    ]


class Integration:
    """The integral of a term in one name."""

    def __init__(self, term: Term, name: str, is_part: bool = False) -> None:
        self.term = term
        self.name = name
        self.is_part = is_part

    def over(self, low: Number | Infinite, high: Number | Infinite) -> Number | Complex:
        """The integral between two ends."""
        if isinstance(low, Infinite) and isinstance(high, Infinite):
            if low.sign == high.sign:
                return exact(0)
            both = Op("+", replaced(self.term, Var("x")), mirrored(self.term))
            whole = Integration(both, "x", self.is_part).over(exact(0), Infinite(1))
            return whole if low.sign < 0 else cast(Number, operators.negate(whole))
        if isinstance(low, Infinite) or (isinstance(high, Infinite) and high.sign < 0):
            ends = (_minus(high), _minus(low))
            turned = Integration(mirrored(self.term), "x", self.is_part)
            if isinstance(low, Infinite) and low.sign < 0:
                return turned.over(*ends)
            return cast(Number, operators.negate(turned.over(_minus(low), _minus(high))))
        if not isinstance(high, Infinite):
            if _is_symmetric(low, high) and parity(self.term) < 0:
                self._refuse_pole_in_the_middle(high)
                return exact(0)
            if operators.sign_of(operators.operate("-", high, low)) < 0:
                return cast(Number, operators.negate(self.over(high, low)))
        return self._proved(low, high)

    def _proved(self, low: Number, high: Number | Infinite) -> Number | Complex:
        """The number that is worked out anew for as many digits as are asked for."""
        args = (low,) if isinstance(high, Infinite) else (low, high)

        def compute(part: Callable[[acb], arb]) -> Callable[..., arb]:
            return lambda *ends: part(self._ball(ends, is_open))

        with precision(FIRST):
            is_open = isinstance(high, Infinite) or not all(
                self.has_value(one.ball(FIRST)) for one in args
            )
            ball = self._ball([one.ball(FIRST) for one in args], is_open)
        is_complex = _has_complex(self.term)
        if not ball.is_finite() or not _is_worth(ball):
            if not is_complex and not self._is_real(low, high):
                raise NOT_REAL_INSIDE()
            return self._split(low, high)
        if ball.contains(0) and not ball.is_zero():
            raise NEAR_NOUGHT(size=abs(ball).abs_upper().str(2, radius=False))
        if not is_complex and not (ball.imag.contains(0) and self._is_real(low, high)):
            raise NOT_REAL_INSIDE()
        parts = [_real_part, _imaginary_part] if is_complex else [_real_part]
        real, *imaginary = (Real(_best(compute(part)), *args) for part in parts)
        return Complex(real, imaginary[0]) if imaginary else real

    def _refuse_pole_in_the_middle(self, high: Number) -> None:
        """Errors: as :meth:`_split` where there is no integral from 0 to ``high``, so that there is
        none from −``high`` either."""
        try:
            self._proved(exact(0), high)
        except LineError as error:
            if error.is_a(SINGULAR_END) and not self.has_value(arb(0)):
                raise SINGULAR(name=self.name, at="0") from None
            raise

    def _split(self, low: Number, high: Number | Infinite) -> Number | Complex:
        """The two integrals beside a place where the term has no value, each proved.

        Errors: :data:`SINGULAR` where that cannot be done, :data:`SINGULAR_END` where the place is
        an end, :data:`NOT_INTEGRATED`.
        """
        if isinstance(high, Infinite) or self.is_part:
            raise NOT_INTEGRATED()
        with precision(FIRST):
            ends = low.ball(FIRST), high.ball(FIRST)
            place = self._first_without_value(*ends)
        if place is None:
            raise NOT_INTEGRATED()
        if any(_is_next_to(place, end, ends[1] - ends[0]) for end in ends):
            raise SINGULAR_END(name=self.name, at=place.str(6, radius=False))
        at = _short(place)
        part = Integration(self.term, self.name, is_part=True)
        try:
            if at is None:
                raise NOT_INTEGRATED()
            halves = part.over(low, at), part.over(at, high)
        except LineError:
            raise SINGULAR(name=self.name, at=place.str(6, radius=False)) from None
        return cast(Number, operators.operate("+", *halves))

    def _is_real(self, low: Number, high: Number | Infinite) -> bool:
        """Whether there is no root or logarithm of what is negative at the places that are looked
        at."""
        with precision(FIRST):
            return all(self._is_real_at(one.ball(FIRST)) for one in places_inside(low, high))

    def _is_real_at(self, place: arb) -> bool:
        try:
            worked_out(self.term, REALS, {self.name: place, "x": place})
        except (Nowhere, NotReal):
            return False
        except ZeroDivisionError:
            pass
        return True

    def between(self, a: arb, b: arb) -> acb:
        """The integral as a ball, no finite one where nothing is proved."""
        return self._ball((a, b), is_open=not (self.has_value(a) and self.has_value(b)))

    def about(self, a: arb, b: arb) -> arb:
        """The integral between two ends that may be the same, by the mean value of the term."""
        try:
            return self._filled(a, a.union(b)) * (b - a)
        except Unbounded:
            return arb.nan()

    def _ball(self, ends: Sequence[arb], is_open: bool) -> acb:
        """The integral as a ball, no finite one where nothing is proved; from one end alone it
        goes to infinity.  It ``is_open`` where the term itself has no value at an end."""
        if not is_open:
            return self._quadrature(self.term, ends[0], ends[1])
        a, whole = ends[0], acb(0)
        try:
            if len(ends) == 1:
                b = (a + 1).max(arb(1))
                whole += self._far_out(self.term, b)
            else:
                b = ends[1]
            middle = (a + b) / 2
            if not self.has_value(a):
                a, piece = self._next_to(a, middle, 1)
                whole += piece
            if not self.has_value(b):
                b, piece = self._next_to(b, middle, -1)
                whole += piece
        except (Unbounded, NotReal):
            return acb(arb.nan())
        if (b - a).is_zero():
            return whole
        with precision(2 * ctx.prec):  # next to an end that was taken off much may cancel
            return self._quadrature(self.term, a, b, ctx.prec // 2) + whole

    def _next_to(self, end: arb, middle: arb, way: int) -> tuple[arb, acb]:
        """How far from an end without a value the integral is done, and what it is up to there.

        Errors: :class:`Unbounded` where nothing is proved.
        """
        step = arb(2) ** -(ctx.prec // 2 + 4)
        stop, filled = end + way * step, arb.nan()
        with suppress(Unbounded):
            filled = self._filled(end, end.union(stop)) * step
        if filled.is_finite():
            return stop, acb(filled)
        piece = self._far_out(near(self.term, end, way), 1 / abs(middle - end))
        if not piece.is_finite():
            raise Unbounded
        return middle, piece

    def _filled(self, end: arb, ball: arb) -> arb:
        """Between which values a quotient lies next to an end where what stands above and below is
        0: those of their first derivatives that are not (Cauchy's mean value theorem).

        Errors: :class:`Unbounded` where they are not told.
        """
        search = Search(self.term, self.name)
        try:
            here, within = search.series(end, LENGTH), search.series(ball, LENGTH)
        except Nowhere:
            raise Unbounded from None
        if here is None or within is None:
            raise Unbounded
        for power in range(LENGTH):
            above, below = (_coefficient(part, power) for part in (here.above, here.below))
            if not (above.is_zero() and below.is_zero()):
                break
        found = _coefficient(within.above, power) / _coefficient(within.below, power)
        if not found.is_finite():
            raise Unbounded
        return found

    def _far_out(self, term: Term, start: arb) -> acb:
        """The integral of a term from a place to infinity: with x = exp(t), so that what falls
        slowly has an end soon, and what is left bounded.

        Errors: :class:`Unbounded` where nothing is proved.
        """
        far = far_enough(term, ctx.prec + 8).max(2 * start)
        stretched = Op("*", in_exponent(term), Applied("exp", (Var("x"),)))
        return self._quadrature(stretched, start.log(), far.log()) + acb(tail(term, far))

    def has_value(self, at: arb) -> bool:
        """Whether the term has a finite value at a place."""
        found = worked_out(self.term, Complexes(), {self.name: acb(at)})
        return bool(found.is_finite())

    def _quadrature(self, term: Term, a: arb, b: arb, bits: int = 0) -> acb:
        name = self.name if term is self.term else "x"
        return quadrature(term, name, acb(a), acb(b), {}, bits)

    def _first_without_value(self, low: arb, high: arb) -> arb | None:
        """A place where the term has no finite value, as near as it can be told."""
        waiting = [(low, high)]
        for _ in range(4000):
            if not waiting:
                return None
            a, b = waiting.pop()
            ball = a.union(b)
            try:
                is_finite = worked_out(self.term, REALS, {self.name: ball}).is_finite()
            except (Nowhere, NotReal, ZeroDivisionError):
                return None
            if is_finite:
                continue
            middle = ((a + b) / 2).mid()
            if not abs(b - a) > (abs(high - low) * arb(2) ** -40):
                return _rounded(middle, abs(high - low))
            waiting += [(middle, b), (a, middle)]
        return None


def real_integral(term: Term, name: str, a: arb, b: arb) -> arb:
    """The integral of a term between two ends, which may lie within balls; no finite ball where
    nothing is proved."""
    if a > b:
        return -real_integral(term, name, b, a)
    whole, beside = Integration(term, name), acb(0)
    if not b > a and not whole.has_value(a.union(b)):
        return whole.about(a, b)
    if a.is_exact() and not whole.has_value(a):
        start = a + _step_within(b - a)
        beside, a = _next_to_start(term, name, a.man_exp(), start.man_exp(), ctx.prec), start
    ball = beside + whole.between(a, b)
    return ball.real if ball.is_finite() and ball.imag.contains(0) else arb.nan()


def _step_within(span: arb) -> arb:
    """One of few steps that are shorter than all spans in a ball."""
    power = int(arb(span.lower()).log_base(2).floor().unique_fmpz() or 0)
    return arb(2) ** (power // 8 * 8)


@lru_cache(maxsize=256)
def _next_to_start(
    term: Term, name: str, a: tuple[fmpz, fmpz], b: tuple[fmpz, fmpz], bits: int
) -> acb:
    """The integral next to an end at which a term has no value, kept for other ends farther on."""
    first, second = (arb(mantissa) * arb(2) ** int(power) for mantissa, power in (a, b))
    return Integration(term, name).between(first, second)


def _coefficient(series: Ball, power: int) -> arb:
    if isinstance(series, arb_series):
        return series[power]
    return arb(series) if power == 0 else arb(0)


def _short(place: arb) -> Exact | None:
    """The short fraction that a place is next to; None where there is none."""
    for below in (1, 2, 3, 4, 5, 6, 8, 10):
        whole = arb((place * below).mid(), arb(2) ** -20).unique_fmpz()
        if whole is not None:
            return exact(fmpq(int(whole), below))
    return None


def _rounded(place: arb, width: arb) -> arb:
    """A place as one would say it: 0 where it is next to it."""
    return arb(0) if _is_next_to(place, arb(0), width) else place


def _is_next_to(place: arb, end: arb, width: arb) -> bool:
    return bool(abs(place - end) < abs(width) * arb(2) ** -36)


def _best(compute: Callable[..., arb]) -> Callable[..., arb]:
    """The same, which never gives a wider ball than it gave before: with more digits the time for
    an integral may run out."""
    best: list[arb] = []

    def narrower(*args: arb) -> arb:
        if best and ctx.prec > MOST_BITS:
            return best[0]
        found = compute(*args)
        if best and (not found.is_finite() or found.rad() > best[0].rad()):
            return best[0]
        best[:] = [found]
        return found

    return narrower


def _real_part(ball: acb) -> arb:
    return ball.real


def _imaginary_part(ball: acb) -> arb:
    return ball.imag


def _is_worth(ball: acb, bits: int = WORTH) -> bool:
    """Whether so many binary digits of it are proved."""
    size = abs(ball)
    return bool(ball.real.rad() < arb(2) ** -bits * (1 + size.abs_upper()))


def _minus(end: Number | Infinite) -> Number | Infinite:
    return Infinite(-end.sign) if isinstance(end, Infinite) else cast(Number, operators.negate(end))


def _is_symmetric(low: Number, high: Number) -> bool:
    both = operators.operate("+", low, high)
    return isinstance(both, Exact) and not both.coefficient


def _has_complex(term: Term) -> bool:
    match term:
        case Const(value=value):
            return isinstance(value, Complex)
        case Op(a=a, b=b):
            return _has_complex(a) or _has_complex(b)
        case Power(base=base):
            return _has_complex(base)
        case Applied(args=args):
            return any(map(_has_complex, args))
        case Choice(a=a, b=b):
            return _has_complex(a) or _has_complex(b)
        case Integrated(inside=inside):
            return _has_complex(inside)
    return False


ODD = frozenset({"sin", "sinh", "arctan", "arcsin", "arsinh", "artanh", "erf", "sgn", "cbrt"})
EVEN = frozenset({"cos", "cosh", "abs"})


def parity(term: Term) -> int:
    """1 for an even term of its only name, −1 for an odd one, 0 where it is not known.

    >>> parity(Op("*", Var("x"), Applied("cos", (Var("x"),))))
    -1
    """
    match term:
        case Const():
            return 1
        case Var():
            return -1
        case Op(op=op, a=a, b=b):
            first, second = parity(a), parity(b)
            if op in "*/":
                return first * second
            if a == Const(exact(0)):
                return second
            return first if first == second else 0
        case Power(base=base, exponent=exponent):
            inner = parity(base)
            if inner > 0 or exponent.q != 1:
                return max(inner, 0)
            return inner * (-1 if exponent.p % 2 == 0 else 1)
        case Applied(function=name, args=(argument,)):
            inner = parity(argument)
            if inner > 0 or name in EVEN:
                return abs(inner)
            return inner if name in ODD else 0
    return 0


def mirrored(term: Term) -> Term:
    """f(−x)."""
    return replaced(term, Op("-", Const(exact(0)), Var("x")))


def near(term: Term, end: arb, way: int) -> Term:
    """f(end ± 1/s)/s², whose integral far out is that of f next to an end."""
    place = Const(_exactly_at(end))
    step = Power(Var("x"), fmpq(-1))
    inner = expanded(replaced(term, Op("+" if way > 0 else "-", place, step)))
    return Op("*", inner, Power(Var("x"), fmpq(-2)))


Monomial = tuple[Term, fmpq]
"""A positive number, and the power of x that it stands before."""


def _monomial(term: Term) -> Monomial | None:
    """A term as a positive number times a power of x > 0; None where it is none."""
    match term:
        case Const(value=Exact() as value) if value.coefficient > 0:
            return term, fmpq(0)
        case Var():
            return Const(exact(1)), fmpq(1)
        case Power(base=base, exponent=exponent):
            inner = _monomial(base)
            return None if inner is None else (Power(inner[0], exponent), inner[1] * exponent)
        case Op(op="*" | "/", a=a, b=b):
            first, second = _monomial(a), _monomial(b)
            if first is None or second is None:
                return None
            power = first[1] + second[1] if term.op == "*" else first[1] - second[1]
            return Op(term.op, first[0], second[0]), power
    return None


def in_exponent(term: Term) -> Term:
    """f(exp(t)), with powers and logarithms of exp(t) as what they are: so it is analytic in a
    strip as wide as can be."""
    found = _monomial(term)
    if found is not None:
        factor, power = found
        if not power:
            return factor
        return Op("*", factor, Applied("exp", (Op("*", Const(exact(power)), Var("x")),)))
    if isinstance(term, Applied) and term.function == "ln":
        inner = _monomial(term.args[0])
        if inner is not None:
            part = Op("*", Const(exact(inner[1])), Var("x"))
            return Op("+", Applied("ln", (inner[0],)), part)
    return mapped(term, in_exponent)


def _exactly_at(end: arb) -> Number:
    """An end as a number: a fraction where the ball is one."""
    if end.is_exact():
        mantissa, power = end.man_exp()
        return exact(fmpq(mantissa) * fmpq(2) ** int(power))
    return Real(lambda: end)


def expanded(term: Term) -> Term:
    """The same with parts that are polynomials in 1/x multiplied out, so that what cancels is
    gone."""
    poly = _polynomial(term)
    if poly is not None:
        return _of_polynomial(poly)
    return mapped(term, expanded)


def _polynomial(term: Term) -> fmpq_poly | None:
    """A term as a polynomial in 1/x with fractions as coefficients."""
    match term:
        case Const(value=Exact() as value) if value.is_rational:
            return fmpq_poly([value.coefficient])
        case Power(base=Var(), exponent=exponent) if exponent == -1:
            return fmpq_poly([0, 1])
        case Op(op="+" | "-" | "*", a=a, b=b):
            first, second = _polynomial(a), _polynomial(b)
            if first is None or second is None:
                return None
            if term.op == "*":
                return first * second
            return first + second if term.op == "+" else first - second
        case Power(base=base, exponent=exponent) if exponent.q == 1 and 0 <= exponent.p <= 30:
            inner = _polynomial(base)
            return None if inner is None else inner ** int(exponent.p)
    return None


def _of_polynomial(of: fmpq_poly) -> Term:
    terms = [
        Op("*", Const(exact(coefficient)), Power(Var("x"), fmpq(-power)))
        if power
        else Const(exact(coefficient))
        for power, coefficient in enumerate(of.coeffs())
        if coefficient
    ]
    result: Term = terms[0] if terms else Const(exact(0))
    for one in terms[1:]:
        result = Op("+", result, one)
    return result
