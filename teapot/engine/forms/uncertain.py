"""Measured values written with their uncertainty to two figures, and rounded to match
(JCGM 100, 7.2.6)."""

from __future__ import annotations

import math
from dataclasses import replace
from decimal import Context, Decimal, localcontext

from flint import fmpq, fmpz

from teapot.engine.forms import trees
from teapot.engine.forms.measures import shown_unit
from teapot.engine.forms.written import Written
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.angles import SIGNS
from teapot.engine.numbers.angles import UNITS as ANGLE_UNITS
from teapot.engine.numbers.angles import in_unit as in_angle_unit
from teapot.engine.numbers.arithmetic import multiply
from teapot.engine.numbers.decimal import significant, to_places
from teapot.engine.numbers.measures import in_unit
from teapot.engine.numbers.sizes import count_of, factor_of
from teapot.engine.numbers.values import (
    Angle,
    Measure,
    Number,
    Sized,
    Uncertain,
    Value,
    exact,
    real,
)
from teapot.engine.reading.forms import CONCISE, Form
from teapot.engine.reading.tree import (
    NOWHERE,
    Binary,
    Literal,
    Measured,
    Node,
    Postfix,
    TimesPowerOfTen,
    Words,
)
from teapot.engine.sentences.forms import FORM_FOR_PLAIN_NUMBER
from teapot.engine.units.unit import Unit

FIGURES = 2
"""Of an uncertainty."""

PLAIN = range(-6, 10)
"""Powers of ten of values that are written with a point alone."""

TOLD = 3
"""Inputs whose share is told."""


SHOWN = frozenset({"", "decimal", "scientific", "engineering", "percent", CONCISE})
"""Styles that a measured value can be written in; in others it is shown as it is, and that is
said."""


def write_uncertain(value: Uncertain, form: Form) -> Written:
    """A measured value: with two figures of its uncertainty, or so many digits of the value, or
    so many places of both."""
    notice = ""
    if form.style not in SHOWN:
        notice = f"The form {form.style} is for plain numbers; this is measured."
        form = replace(form, style="")
    nominal, unit = _shown(value.nominal, form)
    if form.style == "percent" and unit is not None:
        raise FORM_FOR_PLAIN_NUMBER(form=form.style)
    count, one = _count(nominal)
    size = uncertain.rational(uncertain.of(value)) / one
    if form.style == "percent" and unit is None:
        count, size, unit = real(multiply(count, exact(100))), size * 100, "%"
    part = _decimal(size)
    place = _place(count, part, form)
    above, spread = to_places(count, -place), _of_place(part, place)
    place_of_spread = place
    if not spread:  # the place that was asked for is too coarse for it
        place_of_spread = part.adjusted()
        spread = _of_place(part, place_of_spread)
    power = _power(int(above.mantissa), place, max(place, place_of_spread), form)
    mantissa = int(above.mantissa)
    if form.style == CONCISE and place == place_of_spread:
        pair: Node = _concisely(mantissa, spread, place - power, power)
    else:
        pair = Binary(
            NOWHERE, "±", _number(mantissa, place - power), _number(spread, place_of_spread - power)
        )
        pair = TimesPowerOfTen(NOWHERE, pair, power) if power else pair
    return Written("measured", "≈", _with_unit(pair, unit), _told(value), notice=notice)


def _power(mantissa: int, place: int, coarsest: int, form: Form) -> int:
    """The power of ten that both numbers get: that of the value's first figure, or of the
    uncertainty's where the value is smaller; 0 where they are written with a point alone."""
    first = place + len(fmpz(abs(mantissa)).str()) - 1 if mantissa else coarsest
    first = max(first, coarsest)
    if form.style == "engineering":
        return first // 3 * 3
    is_plain = form.style == "decimal" or (first in PLAIN and coarsest <= 0)
    return first if form.style == "scientific" or not is_plain else 0


def _place(count: Number, size: Decimal, form: Form) -> int:
    """The power of ten of the last figure that is shown."""
    if form.places is not None:
        return -form.places
    if form.asked and form.digits is not None:
        rounded = significant(count, form.digits)
        return rounded.magnitude - form.digits + 1 if rounded.mantissa else size.adjusted()
    place = size.adjusted() - FIGURES + 1
    return place + 1 if _of_place(size, place) >= 10**FIGURES else place  # 0.0996 is 0.10


def _concisely(mantissa: int, spread: int, place: int, power: int) -> Node:
    """``5.320(40)``, with a power of ten where there is one."""
    minus = "-" if mantissa < 0 else ""
    behind = f"e{power}" if power else ""
    return Words(NOWHERE, f"{minus}{_digits(abs(mantissa), place)}({spread}){behind}")


def _of_place(size: Decimal, place: int) -> int:
    """How many of a decimal place it has, rounded."""
    return int(size.scaleb(-place).to_integral_value())


def _with_unit(pair: Node, unit: Unit | str | None) -> Node:
    """Both numbers in brackets and their unit after them (SI brochure, 5.4.5 and 7)."""
    if isinstance(unit, Unit):
        return Measured(NOWHERE, pair, unit)
    return pair if unit is None else Postfix(NOWHERE, unit, pair)


def _shown(nominal: Value, form: Form) -> tuple[Value, Unit | str | None]:
    """The value in the unit that is asked for, and that unit."""
    if isinstance(nominal, Measure):
        nominal = in_unit(nominal, shown_unit(nominal, form))
        assert isinstance(nominal, Measure)
        return nominal, nominal.unit
    if isinstance(nominal, Angle):
        name = form.unit if form.unit in ANGLE_UNITS else nominal.name
        name = "deg" if name == "dms" else name
        return in_angle_unit(nominal, name), SIGNS[name].strip()
    return nominal, None


def _count(nominal: Value) -> tuple[Number, fmpq]:
    """The number of units, and how large one is."""
    if isinstance(nominal, Sized):
        return real(count_of(nominal)), uncertain.rational(factor_of(nominal.unit))
    return uncertain.size_of(nominal), fmpq(1)


def _decimal(number: fmpq) -> Decimal:
    """With so many figures that it is rounded once only.  A number of very many figures is cut
    before it is converted, which would take longer than all else."""
    bits = int(abs(number.p)).bit_length() - int(number.q).bit_length()
    power = int(bits * DIGITS_OF_BIT) - CLOSELY.prec - 10
    above, below = number.p, number.q
    if power > 0:
        below *= fmpz(10) ** power
    else:
        above *= fmpz(10) ** -power
    whole, rest = divmod(above, below)
    with localcontext(CLOSELY):
        return +Decimal(f"{int(whole)}{1 if rest else 0}e{power - 1}")


DIGITS_OF_BIT = math.log10(2)
CLOSELY = Context(prec=60, Emax=10**9, Emin=-(10**9))


def _number(mantissa: int, place: int) -> Node:
    """So many of the last place, with all of its figures."""
    tree: Node = Literal(NOWHERE, _digits(abs(mantissa), place))
    return trees.minus(tree) if mantissa < 0 else tree


def _digits(mantissa: int, place: int) -> str:
    figures = fmpz(mantissa).str()  # which may be long
    if not mantissa and place > 0:
        return "0"
    if place >= 0:
        return figures + "0" * place
    figures = figures.rjust(1 - place, "0")
    return f"{figures[:place]}.{figures[place:]}"


def _told(value: Uncertain) -> tuple[str, ...]:
    """Whose uncertainty it is, where it is of several."""
    found = uncertain.shares(value)
    if len(found) < 2:
        return ()
    told = [f"{one.name} {one.text}" for one in found[:TOLD]]
    more = f" and {len(found) - TOLD} more" if len(found) > TOLD else ""
    return (f"uncertainty from {', '.join(told)}{more}",)
