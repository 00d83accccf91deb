"""Terms worked out in balls: real ones, complex ones that say where they are not analytic, power
series of real balls, and quotients of these, whose poles are zeros of what stands below."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any, Protocol, TypeVar, cast

from flint import acb, arb, arb_series, ctx, fmpq

from teapot.engine.analysis.slopes import NoSlope, slope_of
from teapot.engine.analysis.terms import (
    PLACE,
    Accumulated,
    All,
    Applied,
    Below,
    Condition,
    Const,
    Integrated,
    Not,
    Op,
    Power,
    Term,
    Var,
    put_in,
)
from teapot.engine.numbers.precision import series_length
from teapot.engine.numbers.values import Complex, Real

Ball = Any
"""A real or complex ball, a power series of balls, or a quotient of such."""


class NotReal(Exception):
    """A complex number among real ones."""


T = TypeVar("T")


class Nowhere(Exception):
    """A term that has no real value anywhere in a part."""


def _check_domain(name: str, x: arb) -> None:
    """Errors: :class:`Nowhere` where a function is real nowhere in a ball."""
    if (name in ("root", "ln") and x < 0) or (name in ("arcsin", "arccos") and abs(x) > 1):
        raise Nowhere
    if (name == "arcosh" and x < 1) or (name == "artanh" and abs(x) > 1):
        raise Nowhere


class Ring(Protocol):
    """A kind of ball that terms are worked out in; ``is_about`` where it tells of what is next to a
    place too."""

    is_about: bool

    def constant(self, constant: Const) -> Ball: ...
    def power(self, base: Ball, exponent: fmpq) -> Ball: ...
    def function(self, name: str, x: Ball) -> Ball: ...
    def place(self, value: Ball) -> arb: ...
    def either(self, a: Ball | None, b: Ball | None) -> Ball: ...
    def accumulated(self, term: Accumulated, x: Ball) -> Ball: ...
    def integrated(self, term: Integrated, a: Ball, b: Ball, given: Mapping[str, Ball]) -> Ball: ...


def worked_out(term: Term, ring: Ring, given: Mapping[str, Ball]) -> Ball:
    """The value of a term in a ring, with balls for the bound names.

    >>> worked_out(Power(Var("x"), fmpq(2)), REALS, {"x": arb(3)})
    9.00000000000000
    """
    # the commonest first: this is done for each part of a term, thousands of times
    if isinstance(term, Op):
        a, b, op = worked_out(term.a, ring, given), worked_out(term.b, ring, given), term.op
        return a * b if op == "*" else a + b if op == "+" else a - b if op == "-" else a / b
    if isinstance(term, Const):
        return ring.constant(term)
    if isinstance(term, Var):
        return given[term.name]
    if isinstance(term, Applied):
        return ring.function(term.function, worked_out(term.args[0], ring, given))
    if isinstance(term, Power):
        return ring.power(worked_out(term.base, ring, given), term.exponent)
    if isinstance(term, Accumulated):
        return ring.accumulated(term, worked_out(term.inside, ring, given))
    if isinstance(term, Integrated):
        a, b = (worked_out(end, ring, given) for end in (term.low, term.high))
        return ring.integrated(
            term, a, b, {name: worked_out(one, ring, given) for name, one in term.given}
        )
    holds = _holds(term.condition, ring, given)
    if holds is None:
        return ring.either(*(_if_anywhere(one, ring, given) for one in (term.a, term.b)))
    return worked_out(term.a if holds else term.b, ring, given)


def _if_anywhere(term: Term, ring: Ring, given: Mapping[str, Ball]) -> Ball | None:
    try:
        return worked_out(term, ring, given)
    except (Nowhere, ZeroDivisionError):
        return None


def _holds(condition: Condition, ring: Ring, given: Mapping[str, Ball]) -> bool | None:
    """Whether a condition holds all over a part; None where it is not known, or changes."""
    match condition:
        case Below(a=first, b=second, or_equal=or_equal):
            a, b = (ring.place(worked_out(one, ring, given)) for one in (first, second))
            changes = not (isinstance(first, Const) and isinstance(second, Const))
            if ring.is_about and changes and not (a < b or a > b):
                return None  # what a series is of goes on to both sides
            if or_equal:
                return True if a <= b else False if a > b else None
            return True if a < b else False if a >= b else None
        case All(conditions=conditions):
            each = [_holds(one, ring, given) for one in conditions]
            return False if False in each else None if None in each else True
        case Not(condition=inner):
            holds = _holds(inner, ring, given)
            return None if holds is None else not holds


def _real(constant: Const) -> arb:
    if isinstance(constant.value, Complex):
        raise NotReal
    return constant.ball(ctx.prec)


def whole_power(base: T, exponent: int) -> T:
    """A power by multiplying: FLINT's own of a ball about 0 is no finite one.

    >>> whole_power(arb(0, 1), 2).contains(0)
    True
    """
    if exponent < 0:
        return cast(T, 1 / whole_power(cast(Any, base), -exponent))
    if isinstance(base, arb) and exponent % 2 == 0 and exponent:
        return cast(T, whole_power(_square(base), exponent // 2))
    result: Any = base * 0 + 1  # type: ignore[operator]
    for bit in bin(exponent)[2:] if exponent else "":
        result = result * result * base if bit == "1" else result * result
    return cast(T, result)


def _square(ball: arb) -> arb:
    """The square, of a wide ball from the squares of its ends: they are nowhere below 0."""
    if ball.rad().is_zero():
        return ball * ball
    low, high = ball.abs_lower(), ball.abs_upper()
    return (low * low).union(high * high)


RISING_EVERYWHERE = frozenset({"exp", "sinh", "arctan", "arsinh", "erf"})
"""Functions that rise over all numbers."""

WIDE = 0.05
"""A radius from which on a function is narrower between its values at the ends."""


def between_ends(function: Callable[[arb], arb], x: arb) -> arb:
    """A function that rises over all of a ball."""
    return function(x.lower()).union(function(x.upper()))


# -- real balls ------------------------------------------------------------------------------


class Reals:
    """Real balls; what has no real value is no finite ball."""

    is_about = False

    names: Mapping[str, Callable[[arb], arb]] = {
        "sin": arb.sin, "cos": arb.cos, "exp": arb.exp, "ln": arb.log, "sinh": arb.sinh,
        "cosh": arb.cosh, "arcsin": arb.asin, "arccos": arb.acos, "arctan": arb.atan,
        "arsinh": arb.asinh, "arcosh": arb.acosh, "artanh": arb.atanh, "abs": abs,
        "gamma": arb.gamma, "lgamma": arb.lgamma, "erf": arb.erf, "sgn": arb.sgn,
        "floor": arb.floor, "lambert_w": arb.lambertw,
    }  # fmt: skip

    def constant(self, constant: Const) -> arb:
        return _real(constant)

    def power(self, base: arb, exponent: fmpq) -> arb:
        if exponent.q == 1:
            return whole_power(base, int(exponent.p))
        _check_domain("root", base)
        if exponent.q == 2:
            return whole_power(base.sqrt(), int(exponent.p))
        if base >= 0:
            return base ** arb(exponent)
        return arb.nan()

    def place(self, value: arb) -> arb:
        return value

    def either(self, a: arb | None, b: arb | None) -> arb:
        return arb.nan() if a is None or b is None else a.union(b)

    def accumulated(self, term: Accumulated, x: arb) -> arb:
        return between_ends(term.share, x)

    def integrated(self, term: Integrated, a: arb, b: arb, given: Mapping[str, arb]) -> arb:
        known = {name: Const(_known(ball)) for name, ball in given.items()}
        return term.over(put_in(term.inside, known), term.name, a, b)

    def function(self, name: str, x: arb) -> arb:
        _check_domain(name, x)
        if name in RISING_EVERYWHERE and x.rad() > WIDE:
            return between_ends(self.names[name], x)
        return _cube_root(x) if name == "cbrt" else self.names[name](x)


def _cube_root(x: arb) -> arb:
    if x > 0:
        return x.root(3)
    if x < 0:
        return -((-x).root(3))
    low, high = map(_root_of_end, (x.lower(), x.upper()))
    return low.union(high)


def _root_of_end(end: arb) -> arb:
    if end.is_zero():
        return end
    return -(-end).root(3) if end < 0 else end.root(3)


def _known(ball: arb) -> Real:
    return Real(lambda: ball)


# -- complex balls -----------------------------------------------------------------------------


class Complexes:
    """Complex balls; where it is asked that a function ``is_analytic`` and it is not, the ball is
    not finite."""

    def __init__(self, is_analytic: bool = False) -> None:
        self.is_analytic = self.is_about = is_analytic

    entire: Mapping[str, Callable[[acb], acb]] = {
        "sin": acb.sin, "cos": acb.cos, "exp": acb.exp, "sinh": acb.sinh, "cosh": acb.cosh,
        "gamma": acb.gamma, "erf": acb.erf,
    }  # fmt: skip

    def constant(self, constant: Const) -> acb:
        value = constant.value
        if isinstance(value, Complex):
            return acb(value.re.ball(ctx.prec), value.im.ball(ctx.prec))
        return acb(constant.ball(ctx.prec))

    def power(self, base: acb, exponent: fmpq) -> acb:
        if exponent.q == 1:
            return whole_power(base, int(exponent.p))
        root = base.sqrt(analytic=self.is_analytic)
        if exponent.q == 2:
            return whole_power(root, int(exponent.p))
        if exponent > 0 and not self.is_analytic and base.contains(0):
            size = base.abs_upper() ** arb(exponent)
            return acb(arb(0, size), arb(0, size))
        return base.pow(acb(exponent), analytic=self.is_analytic)

    def place(self, value: acb) -> arb:
        return value.real

    def either(self, a: acb | None, b: acb | None) -> acb:
        return self.nowhere() if self.is_analytic or a is None or b is None else a.union(b)

    def accumulated(self, term: Accumulated, x: acb) -> acb:
        if self.is_analytic or not x.imag.is_zero():
            return self.nowhere()
        return acb(REALS.accumulated(term, x.real))

    def integrated(self, term: Integrated, a: acb, b: acb, given: Mapping[str, acb]) -> acb:
        if not self.is_analytic and all(one.imag.is_zero() for one in (a, b, *given.values())):
            real = {name: one.real for name, one in given.items()}
            return acb(REALS.integrated(term, a.real, b.real, real))
        return quadrature(term.inside, term.name, a, b, given, is_analytic=self.is_analytic)

    def function(self, name: str, x: acb) -> acb:
        if name in self.entire:
            return self.entire[name](x)
        if name == "ln":
            return x.log(analytic=self.is_analytic)
        if name == "cbrt":
            third = acb(fmpq(1, 3))
            if x.real > 0:
                return x.pow(third, analytic=self.is_analytic)
            if x.real < 0:
                return -((-x).pow(third, analytic=self.is_analytic))
            return self.nowhere() if self.is_analytic else acb(_cube_root(x.real))
        if name in ("abs", "sgn", "floor"):
            return {"abs": acb.real_abs, "sgn": acb.real_sgn, "floor": acb.real_floor}[name](
                x, analytic=self.is_analytic
            )
        return self._inverse(name, x)

    def _inverse(self, name: str, x: acb) -> acb:
        """An inverse function, which has cuts along the axes."""
        meets_cut = False
        if name in ("arcsin", "arccos", "artanh"):
            meets_cut = x.imag.contains(0) and not abs(x.real) < 1
        elif name in ("arctan", "arsinh"):
            meets_cut = x.real.contains(0) and not abs(x.imag) < 1
        elif name in ("arcosh", "lgamma", "lambert_w"):
            least = {"arcosh": arb(1), "lgamma": arb(0), "lambert_w": -arb(-1).exp()}[name]
            meets_cut = x.imag.contains(0) and not x.real > least
        if self.is_analytic and meets_cut:
            return self.nowhere()
        return {
            "arcsin": acb.asin, "arccos": acb.acos, "arctan": acb.atan, "arsinh": acb.asinh,
            "arcosh": acb.acosh, "artanh": acb.atanh, "lgamma": acb.lgamma,
            "lambert_w": acb.lambertw,
        }[name](x)  # fmt: skip

    @staticmethod
    def nowhere() -> acb:
        return acb(arb.nan(), arb.nan())


MOST_PLACES = 20_000
"""Places at which a term is worked out for an integral."""


def quadrature(
    term: Term,
    name: str,
    a: acb,
    b: acb,
    given: Mapping[str, acb],
    bits: int = 0,
    is_analytic: bool = False,
) -> acb:
    """The integral of a term, which has a value at the ends, by FLINT's rigorous quadrature, to so
    many ``bits``; it ``is_analytic`` in what is ``given`` too, else no finite ball where that is
    asked for."""
    plain, analytic = Complexes(is_analytic), Complexes(is_analytic=True)
    raised: list[BaseException] = []

    def value(place: acb, is_analytic: bool) -> acb:
        ring = analytic if is_analytic else plain
        try:
            if not raised:
                return acb(worked_out(term, ring, {**given, name: place}))
        except BaseException as error:  # FLINT would go on with it
            raised.append(error)
        return Complexes.nowhere()

    goal = arb(2) ** -(bits or ctx.prec)
    try:
        found = acb.integral(
            value,
            acb(a),
            acb(b),
            rel_tol=goal,
            abs_tol=goal,
            eval_limit=MOST_PLACES,
            depth_limit=4 * ctx.prec,
        )
    except SystemError as error:  # one that came between two places
        raised.append(error)
    if raised:
        raise _cause_of(raised[0])
    return found


def _cause_of(error: BaseException) -> BaseException:
    """What was raised first: Python says of the steps after it that they fail too."""
    while isinstance(error, SystemError) and error.__cause__ is not None:
        error = error.__cause__
    return error


# -- power series --------------------------------------------------------------------------


class Series:
    """Power series of real balls, as long as FLINT's context says."""

    is_about = True

    def constant(self, constant: Const) -> arb:
        return _real(constant)

    def power(self, base: Ball, exponent: fmpq) -> Ball:
        if not isinstance(base, arb_series):
            return REALS.power(base, exponent)
        if not exponent and not all(base[at].is_finite() for at in range(base.length())):
            return _jumping(arb(1))
        if exponent.q == 1:
            return whole_power(base, int(exponent.p))
        _check_domain("root", base[0])
        if exponent.q == 2:
            return whole_power(base.sqrt(), int(exponent.p))
        return (base.log() * arb(exponent)).exp()

    def place(self, value: Ball) -> arb:
        return value[0] if isinstance(value, arb_series) else value

    def either(self, a: Ball | None, b: Ball | None) -> Ball:
        if a is None or b is None:
            return _jumping(arb.nan())
        first, second = map(_as_series, (a, b))
        alike = [first[0].union(second[0])]
        for power in range(ctx.cap):  # up to where both are the same there is no kink
            if not (first[power] - second[power]).is_zero():
                break
            alike[power:] = [first[power]]
        return arb_series([*alike, *[arb.nan()] * (ctx.cap - len(alike))])

    def accumulated(self, term: Accumulated, x: Ball) -> Ball:
        if not isinstance(x, arb_series):
            return REALS.accumulated(term, x)
        share = arb_series([REALS.accumulated(term, x[0])])
        if x.length() < 2:
            return share
        density = _going_on(worked_out(term.density, self, {PLACE: x}))
        return share + (density * x.derivative()).integral()

    def integrated(self, term: Integrated, a: Ball, b: Ball, given: Mapping[str, Ball]) -> Ball:
        """By Leibniz's rule, one power after another."""
        places = {name: self.place(ball) for name, ball in given.items()}
        value = REALS.integrated(term, self.place(a), self.place(b), places)
        if not any(isinstance(one, arb_series) for one in (a, b, *given.values())):
            return value
        rate = arb_series([0])
        if ctx.cap > 1:
            rate += self._at_end(term, b, given) - self._at_end(term, a, given)
            with series_length(ctx.cap - 1):
                for name, ball in given.items():
                    rate += self._by_given(term, a, b, given, name) * _rate(ball)
        return arb_series([value]) + rate.integral()

    def _at_end(self, term: Integrated, end: Ball, given: Mapping[str, Ball]) -> arb_series:
        if not isinstance(end, arb_series):
            return arb_series([0])
        inside = worked_out(term.inside, self, {**given, term.name: end})
        return _going_on(inside) * _rate(end)

    def _by_given(
        self, term: Integrated, a: Ball, b: Ball, given: Mapping[str, Ball], name: str
    ) -> arb_series:
        if not isinstance(given[name], arb_series):
            return arb_series([0])
        try:
            inside = slope_of(term.inside, name)
        except NoSlope:
            return _jumping(arb.nan())
        return _as_series(self.integrated(replace(term, inside=inside), a, b, given))

    def function(self, name: str, x: Ball) -> Ball:
        if not isinstance(x, arb_series):
            return REALS.function(name, x)
        _check_domain(name, x[0])
        if name in self.known:
            return self.known[name](x)
        return _IN_PARTS[name](x)

    known: Mapping[str, Callable[[arb_series], arb_series]] = {
        "sin": arb_series.sin, "cos": arb_series.cos,
        "ln": arb_series.log, "arctan": arb_series.atan, "arcsin": arb_series.asin,
        "arccos": arb_series.acos, "gamma": arb_series.gamma, "lgamma": arb_series.lgamma,
        "erf": arb_series.erf, "lambert_w": arb_series.lambertw,
    }  # fmt: skip


def _going_on(ball: Ball) -> arb_series:
    """As far as there is a next derivative: what jumps is not the derivative of its integral."""
    if not isinstance(ball, arb_series):
        return arb_series([ball])
    powers = range(max(ctx.cap - 1, 1))
    return arb_series([ball[at] if ball[at + 1].is_finite() else arb.nan() for at in powers])


def _rate(ball: Ball) -> arb_series:
    return ball.derivative() if isinstance(ball, arb_series) else arb_series([0])


def _as_series(ball: Ball) -> arb_series:
    return ball if isinstance(ball, arb_series) else arb_series([ball])


def _exp(x: arb_series) -> arb_series:
    """Over a wide ball, exp of its constant times exp of what rises from 0."""
    first = x[0]
    if first.rad() <= WIDE:
        return x.exp()
    rest = arb_series([0, *(x[power] for power in range(1, x.length()))])
    return between_ends(arb.exp, first) * rest.exp()


def _sinh(x: arb_series) -> arb_series:
    e = _exp(x)
    return (e - 1 / e) / 2


def _cosh(x: arb_series) -> arb_series:
    e = _exp(x)
    return (e + 1 / e) / 2


def _abs(x: arb_series) -> arb_series:
    """The sign is one where 0 is not within; else nothing is known of how it rises."""
    first = x[0]
    if first > 0:
        return x
    if first < 0:
        return -x
    return _jumping(abs(first))


def _jumping(value: arb) -> arb_series:
    return arb_series([value, *[arb.nan()] * (ctx.cap - 1)])


def _constant_but_for_jumps(value: arb) -> Ball:
    return value if value.is_exact() else _jumping(value)


def _sgn(x: arb_series) -> Ball:
    """About 0 it is anything between −1 and 1."""
    return _constant_but_for_jumps(arb(0, 1) if x[0].is_zero() else x[0].sgn())


def _floor(x: arb_series) -> Ball:
    """About a whole number it is that or the one before."""
    value = x[0].floor()
    return _constant_but_for_jumps(value.union(value - 1) if x[0].is_integer() else value)


def _cbrt(x: arb_series) -> arb_series:
    if x[0] > 0:
        return (x.log() / 3).exp()
    if x[0] < 0:
        return -(((-x).log() / 3).exp())
    return _jumping(_cube_root(x[0]))


_IN_PARTS: dict[str, Callable[[arb_series], Ball]] = {
    "exp": _exp,
    "sinh": _sinh,
    "cosh": _cosh,
    "arsinh": lambda x: (x + (x * x + 1).sqrt()).log(),
    "arcosh": lambda x: (x + (x * x - 1).sqrt()).log(),
    "artanh": lambda x: ((1 + x).log() - (1 - x).log()) / 2,
    "abs": _abs,
    "cbrt": _cbrt,
    "sgn": _sgn,
    "floor": _floor,
}


# -- quotients ---------------------------------------------------------------------------------


class Quotient:
    """One power series over another: what stands below is kept apart, so that a pole is a place
    where that is 0."""

    __slots__ = ("above", "below")

    def __init__(self, above: Ball, below: Ball = 1) -> None:
        self.above = above
        self.below = below

    def __add__(self, other: Quotient) -> Quotient:
        return self._sum(other, 1)

    def __sub__(self, other: Quotient) -> Quotient:
        return self._sum(other, -1)

    def _sum(self, other: Quotient, sign: int) -> Quotient:
        if self.below is other.below:
            return Quotient(self.above + sign * other.above, self.below)
        above = self.above * other.below + sign * (other.above * self.below)
        return Quotient(above, self.below * other.below)

    def __mul__(self, other: Quotient) -> Quotient:
        return Quotient(self.above * other.above, self.below * other.below)

    def __truediv__(self, other: Quotient) -> Quotient:
        return Quotient(self.above * other.below, self.below * other.above)

    @property
    def value(self) -> Ball:
        """Above over below.  Errors: :class:`ZeroDivisionError` where that may be 0."""
        if isinstance(self.below, int):
            return self.above
        if isinstance(self.below, arb_series) and not self.below[0].contains(0):
            return self.above / self.below
        if isinstance(self.below, arb) and not self.below.contains(0):
            return self.above / self.below
        raise ZeroDivisionError


class Quotients:
    """Quotients of power series."""

    is_about = True

    def constant(self, constant: Const) -> Quotient:
        return Quotient(_real(constant))

    def power(self, base: Quotient, exponent: fmpq) -> Quotient:
        if exponent.q == 1:
            power = int(exponent.p)
            above, below = (
                one ** abs(power) if isinstance(one, int) else SERIES.power(one, fmpq(abs(power)))
                for one in (base.above, base.below)
            )
            return Quotient(above, below) if power >= 0 else Quotient(below, above)
        return Quotient(SERIES.power(base.value, exponent))

    def place(self, value: Quotient) -> arb:
        return SERIES.place(value.value)

    def either(self, a: Quotient | None, b: Quotient | None) -> Quotient:
        try:
            return Quotient(SERIES.either(a and a.value, b and b.value))
        except ZeroDivisionError:
            return Quotient(SERIES.either(None, None))

    def accumulated(self, term: Accumulated, x: Quotient) -> Quotient:
        return Quotient(SERIES.accumulated(term, x.value))

    def integrated(
        self, term: Integrated, a: Quotient, b: Quotient, given: Mapping[str, Quotient]
    ) -> Quotient:
        values = {name: one.value for name, one in given.items()}
        return Quotient(SERIES.integrated(term, a.value, b.value, values))

    def function(self, name: str, x: Quotient) -> Quotient:
        return Quotient(SERIES.function(name, x.value))


REALS, SERIES, QUOTIENTS = Reals(), Series(), Quotients()
