"""What of a term its zeros, its poles and its extrema are those of: without factors that are never
0, powers and functions that only rise, so that what touches 0 crosses it."""

from __future__ import annotations

from flint import fmpq

from teapot.engine.analysis.rings import RISING_EVERYWHERE
from teapot.engine.analysis.terms import (
    Applied,
    Const,
    Op,
    Power,
    Term,
)
from teapot.engine.numbers import operators
from teapot.engine.numbers.values import Exact, exact, is_nought


def core_of_zeros(term: Term) -> Term:
    """What of a term is 0 where the term is.

    >>> from teapot.engine.analysis.terms import Var
    >>> core_of_zeros(Op("-", Applied("cos", (Var("x"),)), Const(exact(1)))).function
    'sin'
    """
    if _is_never_nought(term):
        return Const(exact(1))
    half = _of_half_angle(term)
    if half is not None:
        return half
    match term:
        case Op(op="-", a=a, b=Const(value=b)) if is_nought(b):
            return core_of_zeros(a)
        case Op(op="-", a=Const(value=a), b=b) if is_nought(a):
            return core_of_zeros(b)
        case Op(op="*", a=a, b=b):
            if _is_never_nought(a):
                return core_of_zeros(b)
            if _is_never_nought(b):
                return core_of_zeros(a)
        case Op(op="/", a=a, b=b) if _is_never_nought(b):
            return core_of_zeros(a)
        case Power(base=base, exponent=exponent) if exponent > 0:
            return core_of_zeros(base)
        case Applied(function="abs" | "cbrt" | "sgn", args=(inner,)):
            return core_of_zeros(inner)
    return term


def _of_half_angle(term: Term) -> Term | None:
    """A sine or cosine less 1 or −1, which is twice the square of another."""
    match term:
        case Op(op="-" | "+" as op, a=Applied(function=name, args=(u,)), b=Const(value=value)):
            one = value if op == "+" else operators.negate(value)
        case Op(op="-" | "+" as op, a=Const(value=value), b=Applied(function=name, args=(u,))):
            one = operators.negate(value) if op == "-" else value
        case _:
            return None
    half = Op("/", u, Const(exact(2)))
    if name == "cos":
        if one == exact(-1):
            return Applied("sin", (half,))
        return Applied("cos", (half,)) if one == exact(1) else None
    if name == "sin" and one in (exact(1), exact(-1)):
        quarter = Const(Exact(fmpq(1, 4), 1))
        return Applied("sin", (Op("+" if one == exact(1) else "-", quarter, half),))
    return None


def _is_never_nought(term: Term) -> bool:
    if isinstance(term, Applied):
        return term.function in ("exp", "cosh")
    return (
        isinstance(term, Const) and isinstance(term.value, Exact) and bool(term.value.coefficient)
    )


def once(term: Term) -> Term:
    """A term whose poles are all of the first order, where those of another were."""
    match term:
        case Power(base=base, exponent=exponent) if exponent < 0 and exponent.q == 1:
            return Power(once(base), fmpq(-1))
        case Op(op="/", a=a, b=Power(base=base, exponent=exponent)) if (
            exponent > 0 and exponent.q == 1
        ):
            return Op("/", once(a), base)
        case Op(op=op, a=a, b=b):
            return Op(op, once(a), once(b))
    return term


RISING = RISING_EVERYWHERE | {"ln", "arcsin", "artanh"}


def core_of_slopes(term: Term) -> tuple[Term, int]:
    """What of a term has its extrema where the term has, without functions that only rise; and −1
    where its maxima are the minima of that."""
    match term:
        case Applied(function=name, args=(inner,)) if name in RISING:
            return core_of_slopes(inner)
        case Op(op="+", a=Const(), b=inner) | Op(op="+" | "-", a=inner, b=Const()):
            return core_of_slopes(inner)
        case Op(op="-", a=Const(), b=inner):
            core, sign = core_of_slopes(inner)
            return core, -sign
        case (
            Op(op="*" | "/", a=inner, b=Const(value=Exact() as value))
            | Op(op="*", a=Const(value=Exact() as value), b=inner)
        ) if value.coefficient:
            core, sign = core_of_slopes(inner)
            return core, sign if value.coefficient > 0 else -sign
    return term, 1
