"""How large a term can be far out, proved: from some place on it is at most C·x^p·exp(−c·x^q), and
where its sign is known, at least so much.

The rules are those for sums, products and powers of such bounds; ln x ≤ (32/e)·x^(1/32) for x ≥ 1.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from flint import arb, ctx, fmpq

from teapot.engine.analysis.terms import Applied, Const, Op, Power, Term, Var
from teapot.engine.numbers.values import Complex, exact


class Unbounded(Exception):
    """Nothing is proved of how a term grows."""


@dataclass(frozen=True, slots=True)
class Course:
    """C·x^p·exp(−c·x^q); with c = 0 there is no exponential."""

    factor: arb
    power: fmpq
    rate: arb
    order: fmpq

    def at(self, x: arb) -> arb:
        return self.factor * x ** arb(self.power) * (-self.rate * x ** arb(self.order)).exp()

    @property
    def is_power(self) -> bool:
        return self.rate.is_zero()


@dataclass(frozen=True, slots=True)
class Growth:
    """What is known of a term for all x from some place on: ``most`` of its size, ``least`` where
    its ``sign`` is known."""

    most: Course
    least: Course | None
    sign: int


ONE = exact(1)
NOUGHT, LITTLE = fmpq(0), fmpq(1, 32)


def _steady(size: arb) -> Course:
    return Course(size, NOUGHT, arb(0), fmpq(1))


def growth_of(term: Term, far: arb) -> Growth:
    """How a term in one name grows from ``far`` ≥ 1 on.  Errors: :class:`Unbounded`."""
    match term:
        case Op(op="-", a=Applied(function="exp", args=(power,)), b=Const(value=one)) if one == ONE:
            return _less_one(growth_of(power, far), far)
        case Op(op="-", a=Const(value=one), b=Applied(function="cos", args=(angle,))) if one == ONE:
            return _from_one(growth_of(angle, far))
        case Const(value=value):
            if isinstance(value, Complex):
                raise Unbounded
            ball = value.ball(ctx.prec)
            return _of_number(ball)
        case Var():
            course = Course(arb(1), fmpq(1), arb(0), fmpq(1))
            return Growth(course, course, 1)
        case Op(op="+" | "-", a=first, b=second):
            a, b = growth_of(first, far), growth_of(second, far)
            return _sum(a, replace(b, sign=-b.sign) if term.op == "-" else b, far)
        case Op(op="*", a=first, b=second):
            return _product(growth_of(first, far), growth_of(second, far), far)
        case Op(op="/", a=first, b=second):
            return _product(growth_of(first, far), _power(growth_of(second, far), fmpq(-1)), far)
        case Power(base=base, exponent=exponent):
            return _power(growth_of(base, far), exponent)
        case Applied(function=name, args=(argument,)):
            return _function(name, argument, far)
    raise Unbounded


def _of_number(ball: arb) -> Growth:
    if ball.is_zero():
        return Growth(_steady(arb(0)), None, 0)
    sign = 1 if ball > 0 else -1 if ball < 0 else 0
    size = _steady(abs(ball))
    return Growth(size, size if sign else None, sign)


def _function(name: str, argument: Term, far: arb) -> Growth:
    inner = growth_of(argument, far)
    if name == "abs":
        return replace(inner, sign=abs(inner.sign))
    if name == "exp":
        return _exponential(inner, far)
    if name in ("sinh", "cosh"):
        negative = Op("-", Const(exact(0)), argument)
        up, down = (Applied("exp", (one,)) for one in (argument, negative))
        both = Op("+" if name == "cosh" else "-", up, down)
        return growth_of(Op("/", both, Const(exact(2))), far)
    if name in ("sin", "arctan") and inner.most.is_power and inner.most.power < 0:
        return Growth(inner.most, None, inner.sign if name == "arctan" else 0)  # |sin t| ≤ |t|
    if name in ("sin", "cos", "erf", "sgn"):
        return Growth(_steady(arb(1)), None, inner.sign if name in ("erf", "sgn") else 0)
    if name == "arctan":
        return Growth(_steady(arb.pi() / 2), None, inner.sign)
    if name == "ln":
        return _logarithm(inner, far)
    raise Unbounded


def _exponential(inner: Growth, far: arb) -> Growth:
    most, least = inner.most, inner.least
    if not most.is_power or (least is not None and not least.is_power):
        raise Unbounded
    if most.power <= 0:  # bounded
        top = most.at(far)
        return Growth(_steady(top.exp()), _steady((-top).exp()), 1)
    if inner.sign < 0 and least is not None and least.power > 0:
        return Growth(
            Course(arb(1), NOUGHT, least.factor, least.power),
            Course(arb(1), NOUGHT, most.factor, most.power),
            1,
        )
    if inner.sign > 0 and least is not None:
        low = Course(arb(1), NOUGHT, -least.factor, least.power)
        return Growth(
            Course(arb(1), NOUGHT, -most.factor, most.power),
            low if least.power > 0 else _steady(arb(1)),
            1,
        )
    raise Unbounded


def _less_one(inner: Growth, far: arb) -> Growth:
    """exp(t) − 1, which is t times what lies between exp(−|t|) and exp(|t|)."""
    if not inner.most.is_power or inner.most.power > 0:
        return _sum(_exponential(inner, far), _of_number(arb(-1)), far)
    top = inner.most.at(far)
    least = inner.least
    if least is not None:
        least = replace(least, factor=least.factor * (-top).exp())
    return Growth(replace(inner.most, factor=inner.most.factor * top.exp()), least, inner.sign)


def _from_one(inner: Growth) -> Growth:
    """1 − cos t, which is at most t²/2 and at most 2."""
    if not inner.most.is_power or inner.most.power >= 0:
        return Growth(_steady(arb(2)), None, 1)
    square = _raised(inner.most, fmpq(2))
    return Growth(replace(square, factor=square.factor / 2), None, 1)


def _logarithm(inner: Growth, far: arb) -> Growth:
    most, least = inner.most, inner.least
    if inner.sign <= 0 or least is None or not most.is_power or not least.is_power:
        raise Unbounded
    by_x = 1 / (arb(LITTLE) * arb(1).exp())  # ln x is at most so much times x^LITTLE
    sizes = [abs(one.factor.log()) + abs(arb(one.power)) * by_x for one in (most, least)]
    top = Course(sizes[0].max(sizes[1]), LITTLE, arb(0), fmpq(1))
    lowest = least.factor.log() + arb(least.power) * far.log()
    highest = most.factor.log() + arb(most.power) * far.log()
    if least.power >= 0 and lowest > 0:
        return Growth(top, _steady(lowest), 1)
    if most.power <= 0 and highest < 0:
        return Growth(top, _steady(-highest), -1)
    return Growth(top, None, 0)


def _times(a: Course, b: Course, far: arb, is_upper: bool) -> Course:
    """The product of two courses, as one that is at least so large, or at most so."""
    factor, power = a.factor * b.factor, a.power + b.power
    if a.is_power or b.is_power:
        only = b if a.is_power else a
        return Course(factor, power, only.rate, only.order)
    if a.order == b.order:
        return Course(factor, power, a.rate + b.rate, a.order)
    slow, fast = (a, b) if a.order < b.order else (b, a)
    # x^slow ≤ x^fast·far^(slow − fast), from far on
    moved = slow.rate * far ** arb(slow.order - fast.order)
    helps = slow.rate > 0 if is_upper else slow.rate < 0
    return Course(factor, power, fast.rate + (arb(0) if helps else moved), fast.order)


def _product(a: Growth, b: Growth, far: arb) -> Growth:
    sign = a.sign * b.sign
    least = None
    if sign and a.least is not None and b.least is not None:
        least = _times(a.least, b.least, far, is_upper=False)
    return Growth(_times(a.most, b.most, far, is_upper=True), least, sign)


def _raised(of: Course, exponent: fmpq) -> Course:
    number = arb(exponent)
    return Course(of.factor**number, of.power * exponent, of.rate * number, of.order)


def _power(of: Growth, exponent: fmpq) -> Growth:
    if not exponent:
        return _of_number(arb(1))
    is_even = exponent.q == 1 and exponent.p % 2 == 0
    sign = 1 if is_even else of.sign
    if exponent.q != 1 and of.sign <= 0:
        raise Unbounded
    if exponent > 0:
        least = None if of.least is None else _raised(of.least, exponent)
        return Growth(_raised(of.most, exponent), least, sign)
    if of.least is None or not of.least.factor > 0:
        raise Unbounded
    return Growth(_raised(of.least, exponent), _raised(of.most, exponent), sign)


def _common(a: Course, b: Course, far: arb) -> Course:
    """A course that both together do not rise above."""
    if not a.factor.is_zero() and b.factor.is_zero():
        return a
    if a.factor.is_zero():
        return b
    first, second = a, b
    if not (a.order == b.order and _same(a.rate, b.rate)):
        keeps = _slower(a, b)
        other = b if keeps is a else a
        # the other, without what makes it fall faster, or rise slower
        part = Course(other.factor, other.power, other.rate - keeps.rate, other.order)
        if keeps.is_power and other.rate > 0:
            shrink = (-other.rate * far ** arb(other.order)).exp()
        elif keeps.order == other.order and part.rate > 0:
            shrink = (-part.rate * far ** arb(other.order)).exp()
        elif keeps.rate < 0 and not other.rate < 0:
            shrink = arb(1)
        else:
            raise Unbounded
        first, second = keeps, Course(other.factor * shrink, other.power, keeps.rate, keeps.order)
    power = max(first.power, second.power)
    factor = sum((one.factor * far ** arb(one.power - power) for one in (first, second)), arb(0))
    return Course(factor, power, first.rate, first.order)


def _same(a: arb, b: arb) -> bool:
    return bool((a - b).is_zero())


def _slower(a: Course, b: Course) -> Course:
    """The one that falls more slowly, or rises faster."""
    if a.is_power and b.is_power:
        return a
    if a.order == b.order or a.is_power or b.is_power:
        return a if a.rate < b.rate else b
    fast, slow = (a, b) if a.order > b.order else (b, a)
    return fast if fast.rate < 0 else slow


def _sum(a: Growth, b: Growth, far: arb) -> Growth:
    most = _common(a.most, b.most, far)
    if a.most.factor.is_zero() or b.most.factor.is_zero():
        return b if a.most.factor.is_zero() else a
    if a.sign and a.sign == b.sign:
        first, second = (one for one in (a.least, b.least))
        if first is None or second is None:
            return Growth(most, first or second, a.sign)
        return Growth(most, _larger(first, second, far), a.sign)
    for one, other in ((a, b), (b, a)):
        if one.least is None or not one.least.factor > 0:
            continue
        part = _share(other.most, one.least, far)
        if part is not None and part < 1:
            least = replace(one.least, factor=one.least.factor * (1 - part))
            return Growth(most, least, one.sign)
    return Growth(most, None, 0)


def _larger(a: Course, b: Course, far: arb) -> Course:
    """The one of two that is larger in the long run."""
    return a if _share(b, a, far) is not None else b


def _share(of: Course, whole: Course, far: arb) -> arb | None:
    """How large one is beside another from there on; None where that may grow."""
    power = of.power - whole.power
    if (of.is_power and whole.is_power) or (of.order == whole.order and _same(of.rate, whole.rate)):
        falls = power <= 0
    else:
        slower = _slower(of, whole)
        if slower is of and not _same(of.rate, whole.rate):
            return None
        # a falling exponential beats a power from where its logarithm falls faster
        order = whole.order if whole.rate < 0 else of.order
        rate = (
            of.rate - whole.rate
            if of.order == whole.order
            else (-whole.rate if whole.rate < 0 else of.rate)
        )
        falls = bool(rate > 0) and bool(rate * arb(order) * far ** arb(order) > arb(power))
        if of.order != whole.order and not (of.is_power or whole.is_power):
            return None
    return of.at(far) / whole.at(far) if falls else None


def tail(term: Term, far: arb) -> arb:
    """A ball about 0 that holds the integral of a term from ``far`` on to infinity.

    Errors: :class:`Unbounded` where none is proved.
    """
    course = growth_of(term, far).most
    if course.is_power:
        over = arb(course.power) + 1
        if not over < 0:
            raise Unbounded
        size = course.factor * far**over / -over
    else:
        if not course.rate > 0:
            raise Unbounded
        shape = (arb(course.power) + 1) / arb(course.order)
        end = course.rate * far ** arb(course.order)
        size = course.factor / arb(course.order) * course.rate ** (-shape)
        size *= end.gamma_upper(shape)
    if not size.is_finite():
        raise Unbounded
    return arb(0, size.abs_upper())


def far_enough(term: Term, bits: int) -> arb:
    """From where on the rest of an integral is smaller than 2^−bits.

    Errors: :class:`Unbounded` where the integrand does not fall fast enough.
    """
    far, is_near = arb(2), False
    for _ in range(MOST_DOUBLINGS):
        try:
            rest = tail(term, far)
        except Unbounded:
            if far > arb(2) ** LATEST:
                raise
            far = far * 2
            continue
        if rest.abs_upper() < arb(2) ** -bits:
            return far
        course = growth_of(term, far).most
        # a power falls slowly: its place is worked out
        over = -(arb(course.power) + 1)
        step = arb(4)
        if course.is_power and not is_near:
            step, is_near = arb(2) ** ((arb(bits) / over).min(arb(8192)) + 2), True
        far = (far * step).mid()
    raise Unbounded


MOST_DOUBLINGS = 80
LATEST = 24
"""Up to 2^24 it is looked for a place from which on something is proved."""
