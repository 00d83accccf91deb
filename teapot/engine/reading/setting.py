"""How a tree is set in print, whatever it is written in: where brackets and dots stand."""

from __future__ import annotations

from teapot.engine.reading.notation import BARE, BARS, INDEXED
from teapot.engine.reading.precedence import (
    ATOM,
    FORM,
    NEVER,
    POSTFIX,
    PRODUCT,
    RANGE,
    SIGN,
    operand_precedences,
    precedence,
)
from teapot.engine.reading.tree import (
    IMPLIED,
    OPTIONS,
    AnswerOf,
    Binary,
    Call,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Sexagesimal,
    bound_in,
)
from teapot.engine.reading.vocabulary import GREEK, UNITS
from teapot.engine.reading.writer import Writer

SINGLE_LETTERS = frozenset({"pi", "infinity", "inf", *GREEK})
"""Names that are set as a single letter."""


def is_bare(node: Call) -> bool:
    """Whether a call is set with a sign of its own and no name."""
    arguments = BARE.get(node.function)
    return not node.is_own and not node.named and len(node.args) == arguments


def is_set_as_matrix(node: ListOf) -> bool:
    """Whether a list is set as a matrix: rows of one length."""
    rows = [row for row in node.items if isinstance(row, ListOf) and row.items]
    return 1 < len(rows) == len(node.items) and len({len(row.items) for row in rows}) == 1


SUMMED = {"sum": "∑", "product": "∏"}


def is_set_as_bound(node: Call) -> bool:
    """Whether a call is set as textbooks set an integral, a sum or a derivative."""
    names = [(name, where) for name, where in node.named if name not in OPTIONS]
    if not bound_in(node) or len(node.args) != 1 or len(names) != 1:
        return False
    if node.function == "derivative":
        return True
    where = names[0][1]
    is_range = isinstance(where, Range) and where.step is None
    return is_range and node.function in ("integral", *SUMMED)


def index_of(node: Call) -> Node | None:
    """The argument of a call that is set as an index to its name: the order of a Bessel
    function, the base of a logarithm."""
    if node.is_own:
        return None
    if node.function in INDEXED and len(node.args) == 2:
        return node.args[0]
    return node.children[1] if node.function == "log" and len(node.children) == 2 else None


def first_of(node: Node, least: int) -> Node | None:
    """The leftmost node that will be written, None where a bracket comes first."""
    while precedence_as_set(node) >= least:
        match node:
            case Binary(op=op, left=left) if op != "/":
                node, least = left, operand_precedences(op)[0]
            case Postfix(operand=operand):
                node, least = operand, POSTFIX
            case _:
                return node
    return None


POWER_BEHIND_NAME = frozenset(
    name
    for stem in ("sin", "cos", "tan", "cot", "sec", "csc")
    for name in (stem, f"{stem}h")
) | {"ln", "lg", "lb"}  # fmt: skip
"""Functions whose square is written after their name: sin²(x)."""


def precedence_as_set(node: Node) -> int:
    """How tightly a node binds as it is set, where that is not as it is typed: 1.5e3 is
    set as a product, a choice with a brace that does not close, and a measured value runs on
    over both of its parts: (5.0 ± 0.1) + 3."""
    if isinstance(node, Literal):
        return PRODUCT if "e" in node.text and node.text[:2] != "0x" else ATOM
    if isinstance(node, Prefix) and isinstance(node.operand, Literal) and node.op != "not":
        return min(SIGN, precedence_as_set(node.operand))
    if isinstance(node, Binary) and node.op == "±":
        return RANGE
    if isinstance(node, Call) and node.function == "if" and len(node.args) == 3:
        return FORM if not node.is_own and not node.named else ATOM
    if isinstance(node, Call) and is_set_as_bound(node):
        return RANGE if node.function in SUMMED else PRODUCT
    return precedence(node)


def runs_into(op: str, operand: Node) -> bool:
    """Whether a sign after ``operand`` could be read as another: n!!, 2 rad!."""
    if isinstance(operand, Call) and is_bare(operand) and operand.function == "factorial":
        return op == "!"
    if isinstance(operand, Measured):
        return True
    if not isinstance(operand, Postfix):
        return False
    return operand.op.isalpha() or (op == operand.op == "!")


def takes_exponent(base: Node) -> bool:
    """Whether a raised part right after belongs to all of it."""
    if isinstance(base, Call):
        return is_bare(base) and base.function in (*BARS, "binomial")
    return not isinstance(base, Postfix | Sexagesimal | Measured)


def _ends_like_a_name(node: Node, least: int) -> bool:
    """Whether a bracket right after would look like that of a call."""
    while precedence_as_set(node) >= least:
        match node:
            case Binary(op=op, right=right):
                node, least = right, operand_precedences(op)[1]
            case Prefix(operand=operand):
                node, least = operand, SIGN
            case _:
                return not isinstance(node, Literal | Binary)
    return False


def times_needs_dot(left: Node, right: Node | None, least_left: int) -> bool:
    """Whether a product is set with a dot: where digits or words would run together, or a
    name and a bracket would look like a call.  ``right`` is what stands first on the
    right, None where that is a bracket."""
    if right is None and _ends_like_a_name(left, least_left):
        return True
    if isinstance(right, Literal | AnswerOf):
        return True
    if right is None or _is_symbol(right):
        last = left.right if isinstance(left, Binary) and left.op in ("*", IMPLIED) else left
        last = last.operand if isinstance(last, Prefix) and last.op != "not" else last
        if right is None or isinstance(last, Literal) or _is_symbol(last):
            return False
    return not (isinstance(right, Call) and isinstance(left, Literal))


def _is_symbol(node: Node) -> bool:
    """Whether ``node`` is set as a single letter, with or without an index."""
    if isinstance(node, Binary) and node.op == "^":
        return _is_symbol(node.left)
    return isinstance(node, Name) and (
        node.name in SINGLE_LETTERS or len(node.name.split("_")[0]) == 1
    )


class PrintWriter(Writer[str]):
    """What writers for print share: which operands are bracketed."""

    def precedence(self, node: Node) -> int:
        return precedence_as_set(node)

    def behind_sign(self, node: Prefix) -> str:
        """What stands after a plus or a minus; another sign there is bracketed."""
        operand = node.operand
        inner = self.node(operand, FORM if isinstance(operand, Literal) else precedence(node))
        return self.brackets(inner) if isinstance(operand, Prefix) else inner

    def before_sign(self, node: Postfix) -> str:
        """What stands before a unit, a percent sign or a factorial."""
        op, operand = node.op, node.operand
        least = NEVER if runs_into(op, operand) else POSTFIX
        if op in UNITS and self.is_answer and isinstance(operand, Binary) and operand.op == "/":
            least = FORM  # its bar is as good as brackets
        return self.node(operand, least)

    def before_unit(self, node: Measured) -> str:
        """The number before a unit of measurement."""
        number = node.number
        is_fraction = isinstance(number, Binary) and number.op == "/"
        return self.node(number, FORM if is_fraction or isinstance(number, Literal) else ATOM)

    def right_operand(self, node: Node, least: int) -> str:
        """An operand that does not stand first: its sign, if any, is bracketed."""
        inner = self.node(node, least)
        leads_with_sign = isinstance(first_of(node, least), Prefix)
        is_open = precedence_as_set(node) >= least
        return self.brackets(inner) if leads_with_sign and is_open else inner

    def operands(self, node: Binary) -> tuple[str, str]:
        """What stands on both sides of an operator."""
        least_left, least_right = operand_precedences(node.op)
        if node.op in ("mod", "div") and isinstance(first_of(node.left, least_left), Prefix):
            least_left = NEVER  # whether a sign or mod comes first is not known to everybody
        return self.node(node.left, least_left), self.right_operand(node.right, least_right)

    def factors(self, node: Binary) -> tuple[str, str, bool]:
        """Both factors of a product, and whether there is a dot between them."""
        least_left, least_right = operand_precedences(node.op)
        left = self.node(node.left, least_left)
        right = self.right_operand(node.right, least_right)
        first = first_of(node.right, least_right)
        return left, right, times_needs_dot(node.left, first, least_left)

    def before_i(self, node: Binary) -> str:
        """What stands before the i of an imaginary number."""
        is_fraction = isinstance(node.left, Binary) and node.left.op == "/"
        return self.node(node.left, FORM if is_fraction else operand_precedences(node.op)[0])

    def base(self, node: Binary) -> str:
        """What is raised to a power."""
        return self.node(node.left, POSTFIX if takes_exponent(node.left) else NEVER)


def call_raised(node: Binary) -> Call | None:
    """The call whose exponent is written after its name, as in sin²(x); None where it is
    not."""
    base = node.left
    if not isinstance(base, Call) or base.function not in POWER_BEHIND_NAME or base.is_own:
        return None
    is_whole = isinstance(node.right, Literal) and node.right.text.isdecimal()
    return base if is_whole and len(base.children) == 1 else None
