"""A tree as plain text with the fewest brackets.  Parsed again it is the same tree."""

from __future__ import annotations

from engine.reading.strength import (
    FORM,
    POSTFIX,
    SIGN,
    SUM,
    operand_strengths,
    strength,
)
from engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    Comparison,
    InForm,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    Statement,
    TextLiteral,
)

SPACED = frozenset({"+", "-", "mod", "div", "and", "or"})


def statement_text(statement: Statement) -> str:
    """A statement, its targets included."""
    text = node_text(statement.expression)
    if not isinstance(statement, Assignment):
        return text
    *outer, last = (target.name for target in statement.targets)
    sign = " := " if statement.live else " = "
    return "".join(f"{name} = " for name in outer) + last + sign + text


def node_text(node: Node) -> str:
    """An expression."""
    pieces: list[str] = []
    _write(node, pieces)
    return "".join(pieces)


def _write(node: Node, out: list[str], least: int = FORM) -> None:
    """Appends ``node``, in brackets where it binds looser than ``least``."""
    if strength(node) < least:
        out.append("(")
        _write(node, out)
        out.append(")")
        return
    match node:
        case Literal(text=text):
            out.append(text)
        case Name(name=name):
            out.append(name)
        case TextLiteral(text=text):
            out.append(f'"{text}"')
        case AnswerOf(number=number):
            out.append("@" if number is None else f"@{number}")
        case Prefix(op=op, operand=operand):
            out.append("not " if op == "not" else op)
            _write(operand, out, SIGN)
        case Postfix(op=op, operand=operand):
            _write(operand, out, POSTFIX)
            out.append(op)
        case Binary(op=op) if op == IMPLIED:
            _write_implied(node, out)
        case Binary(op=op, left=left, right=right):
            least_left, least_right = operand_strengths(op)
            _write(left, out, least_left)
            out.append(f" {op} " if op in SPACED else op)
            _write(right, out, least_right)
        case Comparison(operands=operands, ops=ops):
            _write(operands[0], out, SUM)
            for op, operand in zip(ops, operands[1:], strict=True):
                out.append(f" {op} ")
                _write(operand, out, SUM)
        case Call(function=function, args=args, named=named):
            out.append(function + "(")
            for place, arg in enumerate(args):
                out.append(", " if place else "")
                _write(arg, out)
            for place, (name, arg) in enumerate(named, len(args)):
                out.append(f"{', ' if place else ''}{name}=")
                _write(arg, out)
            out.append(")")
        case InForm(expression=expression, forms=forms):
            _write(expression, out, FORM)
            out.append(" as " + ", ".join(" ".join(words) for words in forms))


def _write_implied(node: Binary, out: list[str]) -> None:
    """``2 pi`` or ``(a + 1)(a - 1)``, bracketed where the sign could not be left out."""
    least_left, least_right = operand_strengths(IMPLIED)
    left: list[str] = []
    _write(node.left, left, least_left)
    if not (left[-1].endswith(")") or _is_number(left[-1])):
        left = ["(", *left, ")"]
    right: list[str] = []
    _write(node.right, right, least_right)
    if _is_number(right[0]) and _is_number(left[-1]):
        right = ["(", *right, ")"]
    opens = right[0].startswith("(")
    out.extend(left)
    out.append("" if opens else " ")
    out.extend(right)


def _is_number(piece: str) -> bool:
    return piece[0].isdigit()
