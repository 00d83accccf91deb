"""Where a term may have a kink or a jump, and at which of these it turns."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import suppress

from flint import arb

from teapot.engine.analysis.cores import core_of_zeros
from teapot.engine.analysis.rings import REALS, NotReal, Nowhere, worked_out
from teapot.engine.analysis.terms import (
    Accumulated,
    All,
    Applied,
    Below,
    Choice,
    Condition,
    Integrated,
    Not,
    Op,
    Power,
    Term,
)
from teapot.engine.analysis.zeros import BITS, Search
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import Number, rational_of


def kinks_of(term: Term) -> list[Term]:
    """Terms that are 0 where another may have a kink: inside absolute values, and at the borders of
    what is put together."""
    match term:
        case Op(a=a, b=b):
            return kinks_of(a) + kinks_of(b)
        case Power(base=base):
            return kinks_of(base)
        case Applied(function=name, args=(inner,)):
            return kinks_of(inner) + ([core_of_zeros(inner)] if name == "abs" else [])
        case Choice(condition=condition, a=a, b=b):
            return _borders(condition) + kinks_of(a) + kinks_of(b)
        case Accumulated(inside=inside):
            return kinks_of(inside)
        case Integrated(low=low, high=high, given=given):
            parts = [low, high, *(one for _, one in given)]
            return [kink for part in parts for kink in kinks_of(part)]
    return []


def _borders(condition: Condition) -> list[Term]:
    match condition:
        case Below(a=a, b=b):
            return [core_of_zeros(Op("-", a, b))]
        case All(conditions=conditions):
            return [border for one in conditions for border in _borders(one)]
        case Not(condition=inner):
            return _borders(inner)


def sharp_turns(
    term: Term, slopes: Search, kinks: Iterable[Number], ends: tuple[Number, Number], way: int
) -> Iterator[tuple[Number, int]]:
    """The ``kinks`` at which a term turns, each with 1 where it is a minimum and −1 where it is a
    maximum; ``slopes`` looks at its derivative, or with −1 for ``way`` at what falls where that
    rises."""
    with precision(BITS):
        low, high = (end.ball(BITS) for end in ends)
        for number in {number.ball(BITS).mid(): number for number in kinks}.values():
            place, step = number.ball(BITS), (high - low) / 2**40
            before, after = (rational_of((place + side).mid()) for side in (-step, step))
            turn = way * slopes.sign(after)
            is_sharp = bool(turn) and turn == -way * slopes.sign(before)
            if is_sharp and _goes_on(term, slopes.name, place, high - low):
                yield number, turn


def _goes_on(term: Term, name: str, place: arb, span: arb) -> bool:
    """Whether there is no jump at a place, beside how high the term is around it."""
    close, far = arb(0, span.upper() / 2**80), span / 1000
    with suppress(Nowhere, NotReal, ZeroDivisionError, ValueError):
        here, before, after = (
            worked_out(term, REALS, {name: about})
            for about in (place + close, place - far, place + far)
        )
        return bool(here.rad() < (abs(before) + abs(after)) / 10**6)
    return False
