"""A tree as plain text with the fewest brackets.  Parsed again it is the same tree."""

from __future__ import annotations

from typing import ClassVar

from teapot.engine.reading.precedence import (
    ATOM,
    FORM,
    NEVER,
    POSTFIX,
    PRODUCT,
    RANGE,
    SUM,
    operand_precedences,
    precedence,
)
from teapot.engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    ColumnOf,
    Columns,
    Comparison,
    DateLiteral,
    Filled,
    Formatted,
    Grid,
    ListOf,
    Literal,
    Measured,
    Mixed,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Statement,
    Subscript,
    Text,
    TimesPowerOfTen,
    Words,
)
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, UNITS
from teapot.engine.reading.writer import Kinds, Writer

SPACED = frozenset({"+", "-", "±", "mod", "div", "and", "or"})

Pieces = list[str]
"""What is written, piece by piece: what is joined to what depends on the last one."""


class PlainWriter(Writer[Pieces]):
    """Writes nodes as text."""

    def brackets(self, inner: Pieces) -> Pieces:
        return ["(", *inner, ")"]

    def statement(self, statement: Statement) -> Pieces:
        pieces = self.node(statement.expression)
        if not isinstance(statement, Assignment):
            return pieces
        *outer, last = (target.name for target in statement.targets)
        sign = " := " if statement.live else " = "
        if statement.parameters is not None:
            last += f"({', '.join(statement.parameters)})"
        return ["".join(f"{name} = " for name in outer) + last + sign, *pieces]

    def as_it_stands(self, node: Literal | Sexagesimal | Words | DateLiteral) -> Pieces:
        return [node.text]

    def name(self, node: Name) -> Pieces:
        return [node.name]

    def text(self, node: Text) -> Pieces:
        inner = (
            _escaped(part) if isinstance(part, str) else self._filled(part) for part in node.parts
        )
        return [f'"{"".join(inner)}"']

    def _filled(self, part: Node) -> str:
        inner = "".join(self.node(part))
        return inner if isinstance(part, Filled) else f"{{{inner}}}"

    def filled(self, node: Filled) -> Pieces:
        return [_escaped(node.text)]

    def answer_of(self, node: AnswerOf) -> Pieces:
        return ["@" if node.number is None else f"@{node.number}"]

    def prefix(self, node: Prefix) -> Pieces:
        sign = "not " if node.op == "not" else node.op
        return [sign, *self.node(node.operand, precedence(node))]

    def postfix(self, node: Postfix) -> Pieces:
        op, operand = node.op, node.operand
        is_twice = op == "!" and isinstance(operand, Postfix) and operand.op == "!"
        is_closed = is_twice or isinstance(operand, Measured)
        pieces = self.node(operand, NEVER if is_closed else POSTFIX)
        pieces.append(f" {op}" if op.isalpha() else op)
        return pieces

    def measured(self, node: Measured) -> Pieces:
        """A number that has a sign or a power, or is another measure, in brackets."""
        return [*self.node(node.number, ATOM), f" {node.unit.text}"]

    def times_power_of_ten(self, node: TimesPowerOfTen) -> Pieces:
        return [*self.node(node.number, ATOM), f"e{node.power}"]

    def binary(self, node: Binary) -> Pieces:
        op = node.op
        if op == IMPLIED:
            return self.implied(node)
        least_left, least_right = _least_precedences(node)
        pieces = self.node(node.left, least_left)
        is_apart = op in SPACED or (op == "*" and _ends_in_unit(node.left))
        pieces.append(f" {op} " if is_apart else op)
        is_over_unit = op == "/" and _is_over_unit(node.left, node.right)
        pieces.extend(self.node(node.right, NEVER if is_over_unit else least_right))
        return pieces

    def implied(self, node: Binary) -> Pieces:
        """``2 pi`` or ``(a + 1)(a - 1)``, bracketed where the sign could not be left out."""
        least_left, least_right = _least_precedences(node)
        if self.joins_i(node) and isinstance(node.left, Binary) and node.left.op == "/":
            least_left = NEVER
        left = self.node(node.left, least_left)
        right = self.node(node.right, least_right)
        last, first = left[-1], right[0]
        are_names = last.isidentifier() and first.isidentifier()
        has_constant = are_names and {last, first} & CONSTANT_NAMES
        if not (last.endswith(")") or _is_number(last) or has_constant):
            left = self.brackets(left)
        if first == "[" or (first[0].isdigit() and _is_number(left[-1])):
            right = self.brackets(right)
        is_joined = right[0].startswith("(") or (self.joins_i(node) and not last[-1:].isalpha())
        left.append("" if is_joined else " ")
        left.extend(right)
        return left

    def comparison(self, node: Comparison) -> Pieces:
        pieces = self.node(node.operands[0], RANGE)
        for op, operand in zip(node.ops, node.operands[1:], strict=True):
            pieces.append(f" {op} ")
            pieces.extend(self.node(operand, RANGE))
        return pieces

    def call(self, node: Call) -> Pieces:
        pieces = [node.function + "("]
        for place, arg in enumerate(node.args):
            pieces.append(", " if place else "")
            pieces.extend(self.node(arg))
        for place, (name, arg) in enumerate(node.named, len(node.args)):
            pieces.append(f"{', ' if place else ''}{name}=")
            pieces.extend(self.node(arg))
        pieces.append(")")
        return pieces

    def list_of(self, node: ListOf | Grid) -> Pieces:
        pieces = ["["]
        for place, item in enumerate(node.items):
            pieces.append(", " if place else "")
            pieces.extend(self.node(item))
        pieces.append("]")
        return pieces

    def range(self, node: Range) -> Pieces:
        pieces = [*self.node(node.start, SUM), "..", *self.node(node.stop, SUM)]
        return pieces if node.step is None else [*pieces, " by ", *self.node(node.step, SUM)]

    def column_of(self, node: ColumnOf) -> Pieces:
        name = node.name if node.name.isidentifier() else f'"{node.name}"'
        return [*self.node(node.of, POSTFIX), f".{name}"]

    def subscript(self, node: Subscript) -> Pieces:
        takes_item = isinstance(node.of, Name | AnswerOf | Call | ListOf | Subscript | ColumnOf)
        of = self.node(node.of, FORM if takes_item else NEVER)
        return [*of, "[", *self.node(node.index), "]"]

    def formatted(self, node: Formatted) -> Pieces:
        forms = ", ".join(" ".join(words) for words in node.forms)
        return [*self.node(node.expression, FORM), f" as {forms}"]

    def mixed(self, node: Mixed) -> Pieces:
        sign, join = ("-", " - ") if node.is_negative else ("", " + ")
        return [sign, *self.node(node.whole), join, *self.node(node.fraction)]

    def columns(self, node: Columns) -> Pieces:
        heads = "  ".join(heads_of(node))
        rows = ("  ".join("".join(self.node(cell)) for cell in row) for row in node.rows)
        return ["\n".join((heads, *rows))]

    kinds: ClassVar[Kinds] = {
        Literal: as_it_stands,
        Sexagesimal: as_it_stands,
        Words: as_it_stands,
        TimesPowerOfTen: times_power_of_ten,
        DateLiteral: as_it_stands,
        Name: name,
        Text: text,
        Filled: filled,
        AnswerOf: answer_of,
        Prefix: prefix,
        Postfix: postfix,
        Measured: measured,
        Binary: binary,
        Comparison: comparison,
        Call: call,
        ListOf: list_of,
        Grid: list_of,
        Range: range,
        Subscript: subscript,
        ColumnOf: column_of,
        Formatted: formatted,
        Mixed: mixed,
        Columns: columns,
    }


READING, ANSWER = PlainWriter(), PlainWriter(is_answer=True)


def statement_text(statement: Statement) -> str:
    """A statement, its targets included."""
    return "".join(READING.statement(statement))


def heads_of(columns: Columns) -> list[str]:
    """What stands above each column, its unit after it: ``temp [°C]``."""
    pairs = zip(columns.heads, columns.units, strict=True)
    return [node_text(head) + (f" [{unit}]" if unit else "") for head, unit in pairs]


def node_text(node: Node) -> str:
    """An expression."""
    return "".join(READING.node(node))


def answer_text(tree: Node | Statement) -> str:
    """A value as it can be typed in."""
    if isinstance(tree, Statement):
        return "".join(ANSWER.statement(tree))
    return "".join(ANSWER.node(tree))


def _escaped(text: str) -> str:
    """Text in which a brace is one."""
    return text.replace("{", "{{").replace("}", "}}")


def _least_precedences(node: Binary) -> tuple[int, int]:
    """What the operands need without brackets, where a line is asked back without them."""
    left, right = operand_precedences(node.op)
    if node.op == "∠":
        angle = node.right.operand if isinstance(node.right, Prefix) else node.right
        return left, right if precedence(angle) >= POSTFIX else NEVER
    if node.op == "^" and isinstance(node.left, Measured):
        left = NEVER  # 2 m^2 is another measure than (2 m)^2
    if node.op == "±":
        left = NEVER if _ends_at_a_number(node.left) else left
        right = NEVER if _begins_at_a_number(node.right) else right
    if precedence(node) == PRODUCT:
        left = NEVER if _is_at_a_number(node.left) else left
        right = NEVER if _is_at_a_number(node.right) else right
    return left, right


def _ends_at_a_number(node: Node) -> bool:
    """Whether ± after it would belong to its last number alone: 1 + 2."""
    if not isinstance(node, Binary) or node.op in ("±", "^"):
        return False
    return isinstance(node.right, Literal | Measured) or _ends_at_a_number(node.right)


def _begins_at_a_number(node: Node) -> bool:
    """Whether ± before it would belong to its first number alone: 0.1*2."""
    if not isinstance(node, Binary) or precedence(node) != PRODUCT:
        return False
    return isinstance(node.left, Literal | Measured) or _begins_at_a_number(node.left)


def _is_at_a_number(node: Node) -> bool:
    """Whether this is a phasor that a factor after it would be taken into: ``5∠2``."""
    return isinstance(node, Binary) and node.op == "∠" and isinstance(node.right, Literal | Name)


def _ends_in_unit(node: Node) -> bool:
    """Whether a name after it, with no space between, would go on with its unit: ``2 N*m``."""
    if isinstance(node, Binary):
        return node.op != "^" and _ends_in_unit(node.right)
    return isinstance(node, Measured)


def _is_over_unit(left: Node, right: Node) -> bool:
    """Whether this is a number over an angle, which only brackets tell from 1/2 turn."""
    has_unit = isinstance(right, Measured) or (isinstance(right, Postfix) and right.op in UNITS)
    return has_unit and not isinstance(left, Sexagesimal | Postfix | Measured)


def _is_number(piece: str) -> bool:
    return piece[0].isdigit() and "°" not in piece
