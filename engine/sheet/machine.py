"""A tree worked out in binary64, operation by operation, beside its true value."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from engine.errors import LineError
from engine.forms.answer import Written, write
from engine.forms.names import Form
from engine.functions.catalogue import BY_NAME
from engine.numbers import binary64
from engine.numbers.context import conventions, working
from engine.numbers.values import Angle, Exact, Real, Value
from engine.reading.mathml import number_mathml
from engine.reading.traps import TRIGONOMETRIC
from engine.reading.tree import Binary, Call, InForm, Node, Postfix, Prefix, Sexagesimal
from engine.sheet.evaluation import evaluate
from engine.sheet.line import Step
from engine.sheet.scope import Visible

if TYPE_CHECKING:
    from engine.sheet.sheet import Sheet

ValueOf = Callable[[Node], Value]
"""The true value of a part: a number, a quantity, an answer."""


RADIANS = {
    "rad": 1.0,
    "deg": math.pi / 180,
    "°": math.pi / 180,
    "′": math.pi / 180 / 60,
    "″": math.pi / 180 / 3600,
    "gon": math.pi / 200,
    "turn": 2 * math.pi,
}
"""Units of angles in radians, as binary64 has them."""


def machine_value(node: Node, value_of: ValueOf) -> float:
    """What binary64 gives for ``node``.

    Errors: :class:`LineError` where an operation has no counterpart there.
    """
    match node:
        case Binary(op=op, left=left, right=right) if op in binary64.OPERATIONS:
            first, second = machine_value(left, value_of), machine_value(right, value_of)
            return binary64.OPERATIONS[op](first, second)
        case Prefix(op=("-" | "+") as op, operand=operand):
            value = machine_value(operand, value_of)
            return -value if op == "-" else value
        case Postfix(op="%", operand=operand):
            return machine_value(operand, value_of) / 100
        case Postfix(op=op, operand=operand) if op in RADIANS:
            return machine_value(operand, value_of) * RADIANS[op]
        case Sexagesimal(degrees=degrees):
            return binary64.nearest(Exact(degrees)) * RADIANS["°"]
        case Call(function=name) if name in BY_NAME:
            arguments = [machine_value(part, value_of) for part in node.parts]
            name = BY_NAME[name].name
            if name in TRIGONOMETRIC and not isinstance(value_of(node.args[0]), Angle):
                arguments[0] *= RADIANS[conventions().angle]
            return binary64.call(name, arguments)
        case InForm(expression=expression):
            return machine_value(expression, value_of)
    if node.parts:
        raise LineError("not-in-binary64", "This has no counterpart in binary64 here.", node.span)
    return binary64.nearest(value_of(node))


def number_of(sheet: Sheet, step: Step) -> float:
    """What binary64 gives for a step whose value is known.  Errors: as above."""
    scope = Visible(sheet, step, step.place)
    with working(step.work()):
        return machine_value(step.statement.expression, lambda part: evaluate(part, scope))


def bits_of(sheet: Sheet, step: Step) -> dict[str, Any] | None:
    """The bits of a step's binary64, its neighbours and its distance from the true
    value; None where there is no number."""
    try:
        number = number_of(sheet, step)
    except LineError:
        return None
    true = _plain(step.value)
    if not math.isfinite(number) or not isinstance(true, Exact | Real):
        return None
    bits = binary64.Bits.of(number)
    away = binary64.distance(number, true)
    return {
        "number": binary64.shortest(number),
        "sign": bits.sign,
        "exponent": bits.exponent,
        "fraction": bits.fraction,
        "power": math.frexp(number)[1] - 1 if number else 0,
        "below": binary64.shortest(bits.below),
        "above": binary64.shortest(bits.above),
        "distance": "0" if away == 0 else away.str(4, radius=False),
        "exact": write(Exact(binary64.exactly(number)), Form("exact", digits=10)).text,
    }


def _plain(value: Value) -> Value:
    """An angle as its number of radians, which is what binary64 has of it."""
    return value.radians if isinstance(value, Angle) else value


def write_machine(number: float, true: Value, form: Form) -> Written:
    """A binary64 as an answer, with the true value and the distance between them."""
    true = _plain(true)
    text = binary64.shortest(number)
    kind = {"undefined": "undefined", "infinity": "infinity", "-infinity": "infinity"}
    shown = write(true, Form(digits=form.digits))
    also = [f"true value {shown.sign} {shown.text}"]
    if isinstance(true, Exact | Real) and kind.get(text) is None:
        away = binary64.distance(number, true)
        also.append("no distance" if away == 0 else f"distance about {away.str(4, radius=False)}")
    mathml = number_mathml(text) if text not in kind else f"<mtext>{text}</mtext>"
    return Written(kind.get(text, "number"), "=", text, mathml, tuple(also))
