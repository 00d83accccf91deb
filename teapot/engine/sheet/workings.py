"""The steps in which a line is worked out, and the same as nested boxes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from teapot.engine.forms.answer import Written, write_in_passing
from teapot.engine.functions.catalogue import CONSTANTS
from teapot.engine.numbers.values import Date, FunctionValue, Table, Value
from teapot.engine.reading.forms import Form
from teapot.engine.reading.mathml import UNITS, math, node_mathml
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import (
    IMPLIED,
    NOWHERE,
    Binary,
    Call,
    Comparison,
    Grid,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Subscript,
    Words,
)
from teapot.engine.sheet.scope import Trace, value_of_part, values_in

SPOKEN = {
    "+": "plus", "-": "minus", "*": "times", "implied": "times", "/": "divided by",
    "^": "to the power", "mod": "modulo", "div": "whole divided by", "==": "equals",
    "!=": "is not", "<": "is less than", ">": "is more than", "<=": "is at most",
    ">=": "is at least", "~": "is about", "and": "and", "or": "or", "!": "factorial",
    "%": "percent", "not": "not", "°": "degrees", "′": "minutes", "″": "seconds",
    "deg": "degrees", "rad": "radians", "gon": "gon", "turn": "turns", "∠": "at the angle",
    "±": "plus or minus",
}  # fmt: skip


GIVEN = (ListOf, Range, Subscript)
"""Parts that are given rather than worked out."""

LONGEST_SHOWN = 60
"""Characters of a part of the line that a step still shows before its values."""


@dataclass(frozen=True, slots=True)
class WorkStep:
    """One operation: ``input`` as it stands in the line, ``done`` with the values
    of its parts put in, and what it gives."""

    input: str
    done: str
    sign: str
    text: str
    spoken: str
    mathml: str

    def as_dict(self) -> dict[str, Any]:
        """As ``--json`` prints it."""
        return {"input": self.input, "done": self.done, "sign": self.sign, "text": self.text}


class Workings:
    """Makes the steps of one expression from its trace."""

    def __init__(self, expression: Node, trace: Trace, form: Form) -> None:
        self.expression = expression
        self.form = form
        self.trace = [(node, value) for node, value in trace if is_work(node)]
        self.values = values_in(trace)

    def value_of(self, node: Node) -> Value | None:
        """The value that a part had; None where it was not worked out."""
        return value_of_part(node, self.values)

    def steps(self) -> list[WorkStep]:
        """The operations in their order."""
        return [self._step(node, write_in_passing(value, self.form)) for node, value in self.trace]

    def _step(self, node: Node, written: Written) -> WorkStep:
        done = self._with_values(node)
        text, filled = node_text(node), node_text(done)
        sides = [node_mathml(done)] if filled != text else []
        if not sides or len(text) <= LONGEST_SHOWN:
            sides.insert(0, node_mathml(node))
        sign = f"<mo>{written.sign}</mo>"
        answer = f'<mrow class="answer">{written.mathml}</mrow>'
        return WorkStep(
            input=text,
            done=filled,
            sign=written.sign,
            text=written.text,
            spoken=f"{spoken(done)} is {_exactly(written)} {written.text}",
            mathml=math("<mo>=</mo>".join(sides) + sign + answer),
        )

    def _with_values(self, node: Node) -> Node:
        """``node`` with the value of each of its parts in the part's place."""
        is_operation = isinstance(node, Binary | Prefix | Postfix | Comparison | Call)
        return node.mapped(self._value) if is_operation else node

    def _value(self, node: Node) -> Node:
        value = self.values.get(id(node))
        if value is None or _says_itself(node) or isinstance(value, Table | Date | FunctionValue):
            return node
        tree = write_in_passing(value, self.form).tree
        if isinstance(tree, Grid):
            more = (Words(NOWHERE, "…"),) if tree.more else ()
            return ListOf(NOWHERE, (*tree.items, *more))
        return node if isinstance(tree, Words) or not isinstance(tree, Node) else tree


def _says_itself(node: Node) -> bool:
    """Whether ``node`` is a typed number with a sign or a unit, or a constant."""
    if isinstance(node, Name) and node.name in CONSTANTS:
        return True
    if isinstance(node, Postfix) and node.op in UNITS:
        return isinstance(node.operand, Literal)
    if isinstance(node, Sexagesimal):
        return True
    if isinstance(node, Measured):
        return isinstance(node.number, Literal)
    if isinstance(node, Binary) and node.op == IMPLIED:
        # 2i: the imaginary part as it is typed
        return isinstance(node.left, Literal) and node.right in (
            Name(NOWHERE, "i"),
            Name(NOWHERE, "j"),
        )
    return isinstance(node, Prefix) and node.op != "not" and isinstance(node.operand, Literal)


def is_work(node: Node) -> bool:
    """Whether ``node`` is a step of work: an operation, and not only a sign."""
    return bool(node.children) and not (_says_itself(node) or isinstance(node, GIVEN))


def _exactly(written: Written) -> str:
    return "exactly" if written.sign == "=" else "about"


def spoken(node: Node) -> str:
    """An operation told in words, for a screen reader."""
    match node:
        case Binary(op=op, left=left, right=right):
            return f"{node_text(left)} {SPOKEN[op]} {node_text(right)}"
        case Prefix(op="-", operand=operand):
            return f"minus {node_text(operand)}"
        case Postfix(op=op, operand=operand):
            return f"{node_text(operand)} {SPOKEN[op]}"
        case Measured(number=number, unit=unit):
            return f"{node_text(number)} {unit.text}"
        case Comparison(operands=operands, ops=ops):
            rest = zip(ops, operands[1:], strict=True)
            told = " and ".join(f"{SPOKEN[op]} {node_text(operand)}" for op, operand in rest)
            return f"{node_text(operands[0])} {told}"
        case Call(function=function):
            return f"{function} of {', '.join(node_text(part) for part in node.children)}"
    return node_text(node)
