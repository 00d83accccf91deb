"""Measured values written with their uncertainty to two figures, and rounded to match
(JCGM 100, 7.2.6)."""

from __future__ import annotations

from decimal import Context, Decimal, localcontext

from flint import fmpq, fmpz

from teapot.engine.forms import trees
from teapot.engine.forms.measures import shown_unit
from teapot.engine.forms.written import Written
from teapot.engine.numbers import uncertain
from teapot.engine.numbers.angles import SIGNS
from teapot.engine.numbers.angles import UNITS as ANGLE_UNITS
from teapot.engine.numbers.angles import in_unit as in_angle_unit
from teapot.engine.numbers.decimal import to_places
from teapot.engine.numbers.measures import in_unit
from teapot.engine.numbers.sizes import count_of, factor_of
from teapot.engine.numbers.values import Angle, Measure, Number, Sized, Uncertain, Value, real
from teapot.engine.reading.forms import Form
from teapot.engine.reading.tree import NOWHERE, Binary, Literal, Measured, Node, Postfix
from teapot.engine.sentences.forms import FORM_FOR_PLAIN_NUMBER
from teapot.engine.units.unit import Unit

FIGURES = 2
"""Of an uncertainty."""

PLAIN = range(-6, 10)
"""Powers of ten of values that are written with a point alone."""

TOLD = 3
"""Inputs whose share is told."""


def write_uncertain(value: Uncertain, form: Form) -> Written:
    """A measured value.  Errors: :data:`FORM_FOR_PLAIN_NUMBER` for another style than digits."""
    if form.style not in ("", "decimal", "scientific"):
        raise FORM_FOR_PLAIN_NUMBER(form=form.style)
    nominal, unit = _shown(value.nominal, form)
    count, one = _count(nominal)
    size = _decimal(uncertain.rational(uncertain.of(value)) / one)
    figures = form.figures if form.asked and form.digits is not None else FIGURES
    place = size.adjusted() - figures + 1
    if _of_place(size, place) >= 10**figures:  # 0.0996 is 0.10
        place += 1
    above = to_places(count, -place)
    tree = Binary(
        NOWHERE, "±", _number(int(above.mantissa), place, form), _tail(size, place, form, unit)
    )
    return Written("measured", "≈", tree, _told(value))


def _of_place(size: Decimal, place: int) -> int:
    """How many of a decimal place it has, rounded."""
    return int(size.scaleb(-place).to_integral_value())


def _tail(size: Decimal, place: int, form: Form, unit: Unit | str | None) -> Node:
    number = _number(_of_place(size, place), place, form)
    if isinstance(unit, Unit):
        return Measured(NOWHERE, number, unit)
    return number if unit is None else Postfix(NOWHERE, unit, number)


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
    """With so many figures that it is rounded once only."""
    with localcontext(CLOSELY):
        return Decimal(int(number.p)) / Decimal(int(number.q))


CLOSELY = Context(prec=60, Emax=10**9, Emin=-(10**9))


def _number(mantissa: int, place: int, form: Form) -> Node:
    """So many of the last place, with all of its figures."""
    figures = fmpz(abs(mantissa)).str()  # which may be long
    power = place + len(figures) - 1
    if not mantissa and place > 0:
        return Literal(NOWHERE, "0")
    is_plain = form.style == "decimal" or (power in PLAIN and place <= 0)
    if form.style == "scientific" or not is_plain:
        rest = figures[1:]
        text = f"{figures[0]}{'.' + rest if rest else ''}e{power}"
    elif place >= 0:
        text = figures + "0" * place
    else:
        figures = figures.rjust(1 - place, "0")
        text = f"{figures[:place]}.{figures[place:]}"
    tree: Node = Literal(NOWHERE, text)
    return trees.minus(tree) if mantissa < 0 else tree


def _told(value: Uncertain) -> tuple[str, ...]:
    """Whose uncertainty it is, where it is of several."""
    found = uncertain.shares(value)
    if len(found) < 2:
        return ()
    told = [f"{one.name} {one.text}" for one in found[:TOLD]]
    more = f" and {len(found) - TOLD} more" if len(found) > TOLD else ""
    return (f"uncertainty from {', '.join(told)}{more}",)
