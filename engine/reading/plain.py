"""A tree as plain text with the fewest brackets.  Parsed again it is the same tree."""

from __future__ import annotations

from engine.reading import tokens as tk
from engine.reading.precedence import (
    ATOM,
    FORM,
    POSTFIX,
    PRODUCT,
    RANGE,
    SUM,
    operand_precedences,
    precedence,
)
from engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    Comparison,
    Formatted,
    ListOf,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    Statement,
    Subscript,
    TextLiteral,
)

UNITS = tk.UNIT_WORDS | tk.UNIT_SIGNS

SPACED = frozenset({"+", "-", "mod", "div", "and", "or"})


NEVER = ATOM + 1
"""More than anything has: what needs it stands in brackets."""


def statement_text(statement: Statement) -> str:
    """A statement, its targets included."""
    text = node_text(statement.expression)
    if not isinstance(statement, Assignment):
        return text
    *outer, last = (target.name for target in statement.targets)
    sign = " := " if statement.live else " = "
    if statement.parameters is not None:
        last += f"({', '.join(statement.parameters)})"
    return "".join(f"{name} = " for name in outer) + last + sign + text


def node_text(node: Node) -> str:
    """An expression."""
    pieces: list[str] = []
    _write(node, pieces)
    return "".join(pieces)


def _write(node: Node, out: list[str], least: int = FORM) -> None:
    """Appends ``node``, in brackets where it binds looser than ``least``."""
    if precedence(node) < least:
        out.append("(")
        _write(node, out)
        out.append(")")
        return
    match node:
        case Literal(text=text) | Sexagesimal(text=text):
            out.append(text)
        case Name(name=name):
            out.append(name)
        case TextLiteral(text=text):
            out.append(f'"{text}"')
        case AnswerOf(number=number):
            out.append("@" if number is None else f"@{number}")
        case Prefix(op=op, operand=operand):
            out.append("not " if op == "not" else op)
            _write(operand, out, precedence(node))
        case Postfix(op=op, operand=operand):
            is_twice = op == "!" and isinstance(operand, Postfix) and operand.op == "!"
            _write(operand, out, NEVER if is_twice else POSTFIX)
            out.append(f" {op}" if op.isalpha() else op)
        case Binary(op=op) if op == IMPLIED:
            _write_implied(node, out)
        case Binary(op=op, left=left, right=right):
            least_left, least_right = _least_precedences(node)
            _write(left, out, least_left)
            out.append(f" {op} " if op in SPACED else op)
            _write(right, out, NEVER if op == "/" and _is_over_unit(left, right) else least_right)
        case Comparison(operands=operands, ops=ops):
            _write(operands[0], out, RANGE)
            for op, operand in zip(ops, operands[1:], strict=True):
                out.append(f" {op} ")
                _write(operand, out, RANGE)
        case Call(function=function, args=args, named=named):
            out.append(function + "(")
            for place, arg in enumerate(args):
                out.append(", " if place else "")
                _write(arg, out)
            for place, (name, arg) in enumerate(named, len(args)):
                out.append(f"{', ' if place else ''}{name}=")
                _write(arg, out)
            out.append(")")
        case ListOf(items=items):
            out.append("[")
            for place, item in enumerate(items):
                out.append(", " if place else "")
                _write(item, out)
            out.append("]")
        case Range(start=start, stop=stop, step=step):
            _write(start, out, SUM)
            out.append("..")
            _write(stop, out, SUM)
            if step is not None:
                out.append(" by ")
                _write(step, out, SUM)
        case Subscript(of=of, index=index):
            takes_item = isinstance(of, Name | AnswerOf | Call | ListOf | Subscript)
            _write(of, out, FORM if takes_item else NEVER)
            out.append("[")
            _write(index, out)
            out.append("]")
        case Formatted(expression=expression, forms=forms):
            _write(expression, out, FORM)
            out.append(" as " + ", ".join(" ".join(words) for words in forms))


def _least_precedences(node: Binary) -> tuple[int, int]:
    """What the operands need without brackets, where a line is asked back without them."""
    left, right = operand_precedences(node.op)
    if node.op == "∠":
        angle = node.right.operand if isinstance(node.right, Prefix) else node.right
        return left, right if precedence(angle) >= POSTFIX else NEVER
    if precedence(node) == PRODUCT:
        left = NEVER if _is_at_a_number(node.left) else left
        right = NEVER if _is_at_a_number(node.right) else right
    return left, right


def _is_at_a_number(node: Node) -> bool:
    """Whether this is a phasor that a factor behind it would be taken into: ``5∠2``."""
    return isinstance(node, Binary) and node.op == "∠" and isinstance(node.right, Literal | Name)


def _is_over_unit(left: Node, right: Node) -> bool:
    """Whether this is a number over an angle, which only brackets tell from 1/2 turn."""
    has_unit = isinstance(right, Postfix) and right.op in UNITS
    return has_unit and not isinstance(left, Sexagesimal | Postfix)


def _write_implied(node: Binary, out: list[str]) -> None:
    """``2 pi`` or ``(a + 1)(a - 1)``, bracketed where the sign could not be left out."""
    least_left, least_right = _least_precedences(node)
    left: list[str] = []
    _write(node.left, left, least_left)
    right: list[str] = []
    _write(node.right, right, least_right)
    names = (left[-1], right[0])
    has_constant = all(map(str.isidentifier, names)) and {*names} & tk.CONSTANT_NAMES
    if not (left[-1].endswith(")") or _is_number(left[-1]) or has_constant):
        left = ["(", *left, ")"]
    if right[0] == "[" or (right[0][0].isdigit() and _is_number(left[-1])):
        right = ["(", *right, ")"]
    opens = right[0].startswith("(")
    out.extend(left)
    out.append("" if opens else " ")
    out.extend(right)


def _is_number(piece: str) -> bool:
    return piece[0].isdigit() and "°" not in piece
