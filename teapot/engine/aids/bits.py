"""The bits of a statement's binary64, its neighbours, and its distance from the truth."""

from __future__ import annotations

import math
from dataclasses import dataclass

from teapot.engine.errors import LineError
from teapot.engine.forms.answer import write
from teapot.engine.numbers import binary64
from teapot.engine.numbers.values import Angle, Exact, Measure, Real
from teapot.engine.reading.forms import Form
from teapot.engine.sheet.binary64_evaluation import number_of, plain_value
from teapot.engine.sheet.line import Step
from teapot.engine.sheet.sheet import Worksheet
from teapot.engine.sheet.store import Store
from teapot.engine.sheet.workings import Workings


@dataclass(frozen=True, slots=True, kw_only=True)
class Binary64:
    """The ``number`` that a binary64 is, its bits as texts of 0 and 1, and the ``power`` of
    2 that its exponent says.

    ``below`` and ``above`` are its neighbours, ``exact`` its value in full, ``distance``
    how far it is from the true value.
    """

    number: str
    sign: str
    exponent: str
    fraction: str
    power: int
    below: str
    above: str
    distance: str
    exact: str


def bits_of(store: Store, step: Step) -> Binary64 | None:
    """The bits of a step's binary64, its neighbours and its distance from the true
    value; None where there is no number."""
    try:
        number = number_of(store, step)
    except LineError:
        return None
    true = plain_value(step.value)
    if isinstance(number, list) or not math.isfinite(number) or not isinstance(true, Exact | Real):
        return None
    bits = binary64.Bits.of(number)
    away = binary64.distance(number, true)
    return Binary64(
        number=binary64.shortest(number),
        sign=bits.sign,
        exponent=bits.exponent,
        fraction=bits.fraction,
        power=math.frexp(number)[1] - 1 if number else 0,
        below=binary64.shortest(bits.below),
        above=binary64.shortest(bits.above),
        distance="0" if away == 0 else away.str(4, radius=False),
        exact=write(Exact(binary64.exactly(number)), Form("exact", digits=10)).text,
    )


def is_of(step: Step) -> bool:
    """Whether the value of a statement is a number that binary64 may have."""
    return isinstance(step.value, Exact | Real | Angle | Measure)


def shown(sheet: Worksheet, step: Step, workings: Workings) -> list[Binary64]:
    """The bits of a statement, as their picture gets them."""
    bits = bits_of(sheet, step)
    return [] if bits is None else [bits]
