"""A tree as MathML Core, which browsers set by themselves.

Everything that came from the person passes through :func:`escape` here, so the
result is safe to put into a page as it stands.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping
from html import escape

from engine.limits import MAX_SET_FIGURES
from engine.reading.notation import BARE, BARS, INDEXED, LETTERS
from engine.reading.precedence import (
    ATOM,
    FORM,
    POSTFIX,
    PRODUCT,
    RANGE,
    SIGN,
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

MAX_FRACTION_DEPTH = 3
"""Fractions inside fractions, before the slash takes over from the bar."""

CONSTANTS = {"pi": "π", "infinity": "∞", "inf": "∞"}
UPRIGHT = frozenset({"e", "i", "j", "pi", "infinity", "inf"})
SIGNS = {
    "-": "−", "+": "+", "*": "·", "==": "=", "!=": "≠", "<=": "≤", ">=": "≥", "~": "≈",
    "<": "&lt;", ">": "&gt;", ":=": "≔", "∠": "∠",
}  # fmt: skip
UNITS = {"deg": "°", "°": "°", "′": "′", "″": "″", "rad": "rad", "gon": "gon", "turn": "turn"}
"""Units of angles, each with the sign that is set behind its number."""

APPLY = "<mo>&#x2061;</mo>"
TIMES_NOTHING = "<mo>&#x2062;</mo>"
THIN_SPACE = '<mspace width="0.17em"/>'


def math(inner: str) -> str:
    """The ``math`` element around ``inner``; fractions are set large."""
    return f'<math displaystyle="true">{inner}</math>'


Answers = Mapping[int | None, tuple[int, str]]
"""What ``@`` and ``@7`` stand for, by the number that is typed: that of the line, and its
value as MathML, empty where it is too long to stand there."""


def statement_mathml(
    statement: Statement, tinted: Collection[Node] = (), answers: Answers | None = None
) -> str:
    """The inside of ``math`` for a statement.

    ``tinted`` are the nodes (by identity) to mark with the class ``bound``; ``answers``
    tells what the answers stand for that it uses.
    """
    writer = Writer(tinted, answers)
    inner = writer.node(statement.expression)
    if not isinstance(statement, Assignment):
        return inner
    *outer, last = (name_mathml(target.name) for target in statement.targets)
    sign = f"<mo>{SIGNS[':='] if statement.live else '='}</mo>"
    if statement.parameters is not None:
        last = pattern_mathml(statement.targets[-1].name, statement.parameters)
    return "".join(f"{name}<mo>=</mo>" for name in outer) + last + sign + inner


def number_mathml(text: str) -> str:
    """A number with its groups of three set apart, and powers of ten raised."""
    mantissa, _, exponent = text.partition("e")
    if text.startswith(("0x", "0b", "0o")):
        mantissa, exponent = text, ""
    sign = ""
    if mantissa.startswith("-"):
        sign, mantissa = '<mo form="prefix">−</mo>', mantissa[1:]
    body = _grouped(mantissa) if len(mantissa) <= MAX_SET_FIGURES else _ends_of(mantissa)
    if exponent:
        body += f"<mo>×</mo><msup><mn>10</mn>{_exponent(exponent)}</msup>"
    return f"<mrow>{sign}{body}</mrow>" if sign or body.count("<mn>") > 1 else body


def _ends_of(figures: str) -> str:
    """The first and the last figures of a number that is too long to be read."""
    first, last = figures[:60], figures[-30:]
    return f"<mn>{escape(first)}</mn><mo>…</mo><mn>{escape(last)}</mn>"


def _exponent(exponent: str) -> str:
    digits = exponent.lstrip("+-")
    minus = "<mo>−</mo>" if exponent.startswith("-") else ""
    return f"<mrow>{minus}<mn>{digits}</mn></mrow>"


def _grouped(digits: str) -> str:
    whole, point, fraction = digits.partition(".")
    if not (whole + fraction).isdecimal() or (len(whole) < 5 and len(fraction) < 5):
        return f"<mn>{escape(digits)}</mn>"
    first = len(whole) % 3 or 3
    groups = (
        [whole]
        if len(whole) < 5
        else [whole[:first]] + [whole[at : at + 3] for at in range(first, len(whole), 3)]
    )
    behind = [fraction[at : at + 3] for at in range(0, len(fraction), 3)]
    if len(behind) > 1 and len(behind[-1]) == 1 and len(fraction) < 5:
        behind = [fraction]
    groups[-1] += point + (behind[0] if behind else "")
    return THIN_SPACE.join(f"<mn>{group}</mn>" for group in groups + behind[1:])


def node_mathml(node: Node) -> str:
    """The inside of ``math`` for an expression."""
    return Writer().node(node)


def math_text(text: str) -> str:
    """Words among mathematics."""
    return f"<mtext>{escape(text)}</mtext>"


def name_mathml(name: str) -> str:
    """A name; what follows its first underscore is set as a subscript."""
    stem, _, index = name.partition("_")
    if not index:
        return _identifier(name)
    index = index.replace("_", " ").strip() or "_"
    tag = "mn" if index.isdecimal() else "mi"
    return f"<msub>{_identifier(stem)}<{tag}>{escape(index)}</{tag}></msub>"


def pattern_mathml(name: str, parameters: tuple[str, ...]) -> str:
    """How a function is called: f(x, y)."""
    names = "<mo>,</mo>".join(map(name_mathml, parameters))
    return name_mathml(name) + APPLY + Writer.brackets(names)


def _identifier(name: str) -> str:
    shown = escape(CONSTANTS.get(name, name))
    upright = ' mathvariant="normal"' if name in UPRIGHT else ""
    return f"<mi{upright}>{shown}</mi>"


class Writer:
    """Writes nodes, marking some; keeps how deep in fractions it is."""

    def __init__(self, tinted: Collection[Node] = (), answers: Answers | None = None) -> None:
        self.tinted = {id(node) for node in tinted}
        self.answers = answers or {}
        self.fractions = 0
        self.is_in_bars = False

    def node(self, node: Node, least: int = FORM) -> str:
        """``node``, in brackets where it binds looser than ``least``."""
        inner = self.bare(node)
        if id(node) in self.tinted:
            inner = f'<mrow class="bound">{inner}</mrow>'
        if precedence_as_set(node) >= least:
            return inner
        return self.brackets(inner)

    def bare(self, node: Node) -> str:
        match node:
            case Literal(text=text):
                return number_mathml(text)
            case Name(name=name):
                return name_mathml(name)
            case Sexagesimal(text=text):
                return sexagesimal_mathml(text)
            case TextLiteral(text=text):
                return f"<mtext>“{escape(text)}”</mtext>"
            case AnswerOf(number=number):
                return self.answer_of(number)
            case Prefix(op=op, operand=operand):
                sign = "<mi>not</mi>" + THIN_SPACE if op == "not" else f"<mo>{SIGNS[op]}</mo>"
                least = FORM if isinstance(operand, Literal) else precedence(node)
                inner = self.node(operand, least)
                if isinstance(operand, Prefix) and op != "not":
                    inner = self.brackets(inner)
                return f"<mrow>{sign}{inner}</mrow>"
            case Postfix(op=op, operand=operand):
                inner = self.node(operand, NEVER if _runs_into(op, operand) else POSTFIX)
                return (
                    in_unit_mathml(inner, op)
                    if op in UNITS
                    else f"<mrow>{inner}<mo>{op}</mo></mrow>"
                )
            case Binary():
                return self.binary(node)
            case Comparison(operands=operands, ops=ops):
                parts = [self.node(operands[0], RANGE)]
                for op, operand in zip(ops, operands[1:], strict=True):
                    parts.append(f"<mo>{SIGNS[op]}</mo>" if op != "==" else "<mo>≟</mo>")
                    parts.append(self.node(operand, RANGE))
                return "".join(parts)
            case Call():
                return self.call(node)
            case ListOf(items=items):
                return list_mathml([self.node(item) for item in items])
            case Range(start=start, stop=stop, step=step):
                ends = f"{self.node(start, SUM)}<mo>‥</mo>{self.node(stop, SUM)}"
                if step is None:
                    return f"<mrow>{ends}</mrow>"
                space = '<mspace width="0.28em"/>'
                return f"<mrow>{ends}{space}<mi>by</mi>{space}{self.node(step, SUM)}</mrow>"
            case Subscript(of=of, index=index):
                inside = self.node(index)
                return f"<mrow>{self.node(of, POSTFIX)}{list_mathml([inside])}</mrow>"
            case Formatted(expression=expression, forms=forms):
                words = ", ".join(" ".join(form) for form in forms)
                as_words = f"<mtext>&#xA0;as {escape(words)}</mtext>"
                return self.node(expression, FORM) + as_words
        raise TypeError(node)

    def answer_of(self, number: int | None) -> str:
        """``@`` with the number of its line, and its value beneath."""
        line, value = self.answers.get(number, (number, ""))
        shown = "@" if line is None else f"@{line}"
        sign = f'<mi mathvariant="normal" class="answer-of">{shown}</mi>'
        return f'<munder>{sign}<mrow class="its-value">{value}</mrow></munder>' if value else sign

    def binary(self, node: Binary) -> str:
        match node.op:
            case "/":
                return self.fraction(node)
            case "^":
                return self.power(node)
            case "*" | "implied":
                return self.product(node)
        least_left, least_right = operand_precedences(node.op)
        if node.op in ("mod", "div") and isinstance(first_of(node.left, least_left), Prefix):
            least_left = NEVER  # whether a sign or mod comes first is not known to everybody
        left = self.node(node.left, least_left)
        right = self.right_operand(node.right, least_right)
        if node.op in SIGNS:
            return f"{left}<mo>{SIGNS[node.op]}</mo>{right}"
        space = '<mspace width="0.28em"/>'
        return f"{left}{space}<mi>{node.op}</mi>{space}{right}"

    def right_operand(self, node: Node, least: int) -> str:
        """An operand that does not stand first: its sign, if any, is bracketed."""
        inner = self.node(node, least)
        leads_with_sign = isinstance(first_of(node, least), Prefix)
        is_bare = precedence_as_set(node) >= least
        return self.brackets(inner) if leads_with_sign and is_bare else inner

    def fraction(self, node: Binary) -> str:
        if self.fractions >= MAX_FRACTION_DEPTH:
            left = self.node(node.left, PRODUCT)
            return f"{left}<mo>/</mo>{self.right_operand(node.right, SIGN)}"
        self.fractions += 1
        top, bottom = self.node(node.left), self.node(node.right)
        self.fractions -= 1
        return f"<mfrac><mrow>{top}</mrow><mrow>{bottom}</mrow></mfrac>"

    def power(self, node: Binary) -> str:
        depth = max(self.fractions, MAX_FRACTION_DEPTH - 1)
        exponent = f"<mrow>{self.small(node.right, depth)}</mrow>"
        base_node = node.left
        if isinstance(base_node, Call) and base_node.function in POWER_BEHIND_NAME:
            is_whole = isinstance(node.right, Literal) and node.right.text.isdecimal()
            if is_whole and not base_node.is_own and len(base_node.children) == 1:
                return self.call(base_node, exponent)
        base = self.node(base_node, POSTFIX if _takes_exponent(base_node) else NEVER)
        return f"<msup><mrow>{base}</mrow>{exponent}</msup>"

    def product(self, node: Binary) -> str:
        least_left, least_right = operand_precedences(node.op)
        left = self.node(node.left, least_left)
        right = self.right_operand(node.right, least_right)
        return left + _times(node.left, first_of(node.right, least_right), least_left) + right

    def call(self, node: Call, exponent: str = "") -> str:
        """A call; an ``exponent`` is set behind the name, as in sin²(x).

        Each argument is set once: set twice at every level, a deep line would never end.
        """
        if _is_bare(node) and not (node.function == "abs" and self.is_in_bars):
            return self.bare_call(node)
        index = _index_of(node)
        args = [self.node(arg) for arg in node.args if arg is not index]
        for word, arg in node.named:
            if arg is not index:
                args.append(f"<mi>{escape(word)}</mi><mo>=</mo>{self.node(arg)}")
        if node.function == "if" and len(args) == 3 and not node.is_own:
            return cases(args)
        name = name_mathml(node.function)
        if node.function in LETTERS and not node.is_own:
            name = f'<mi mathvariant="normal">{LETTERS[node.function]}</mi>'
        if index is not None:
            name = f"<msub>{name}<mrow>{self.small(index, MAX_FRACTION_DEPTH)}</mrow></msub>"
        if exponent:
            name = f"<msup>{name}{exponent}</msup>"
        inside = "<mo>,</mo>".join(args)
        return f"<mrow>{name}{APPLY}{self.brackets(inside)}</mrow>"

    def small(self, node: Node, depth: int) -> str:
        """A part that is set small, as if it stood in so many fractions already."""
        before, self.fractions = self.fractions, depth
        inner = self.node(node)
        self.fractions = before
        return inner

    def bare_call(self, node: Call) -> str:
        """A call set with a sign of its own: a root, bars, n!, one number over another."""
        function = node.function
        if function == "factorial":
            [of] = node.args
            inner = self.node(of, NEVER if _runs_into("!", of) else POSTFIX)
            return f"<mrow>{inner}<mo>!</mo></mrow>"
        outer, self.is_in_bars = self.is_in_bars, function == "abs"
        first, *others = (self.node(arg) for arg in node.args)
        self.is_in_bars = outer
        if function in BARS:
            left, right = BARS[function]
            return f"<mrow><mo>{left}</mo>{first}<mo>{right}</mo></mrow>"
        if function == "sqrt":
            return f"<msqrt>{first}</msqrt>"
        if function == "binomial":
            row = f"<mrow>{first}</mrow><mrow>{others[0]}</mrow>"
            return self.brackets(f'<mfrac linethickness="0">{row}</mfrac>')
        degree = others[0] if others else "<mn>3</mn>"
        return f"<mroot><mrow>{first}</mrow><mrow>{degree}</mrow></mroot>"

    @staticmethod
    def brackets(inner: str) -> str:
        """``inner`` in brackets, which grow with it only where it is tall: a bracket
        that may grow is set with more room about it."""
        is_tall = any(f"<{tag}" in inner for tag in ("mfrac", "mtable"))
        attribute = "" if is_tall else ' stretchy="false"'
        return f"<mrow><mo{attribute}>(</mo>{inner}<mo{attribute}>)</mo></mrow>"


def cases(args: list[str]) -> str:
    """``if(test, then, else)`` as textbooks set a function by cases."""
    test, then, otherwise = args
    condition = f"<mtext>&#xA0;if&#xA0;</mtext>{test}"
    rows = f"<mtr><mtd>{then}</mtd><mtd>{condition}</mtd></mtr>"
    rows += f"<mtr><mtd>{otherwise}</mtd><mtd><mtext>&#xA0;otherwise</mtext></mtd></mtr>"
    return f'<mrow class="cases"><mo>{{</mo><mtable>{rows}</mtable></mrow>'


def list_mathml(items: list[str]) -> str:
    """Items in square brackets."""
    inside = "<mo>,</mo>".join(items)
    return f'<mrow><mo stretchy="false">[</mo>{inside}<mo stretchy="false">]</mo></mrow>'


def in_unit_mathml(inner: str, unit: str) -> str:
    """A number with the unit of an angle behind it."""
    sign = UNITS[unit]
    if sign.isalpha():
        return f'<mrow>{inner}{THIN_SPACE}<mi mathvariant="normal">{sign}</mi></mrow>'
    return f'<mrow>{inner}<mi mathvariant="normal">{sign}</mi></mrow>'


def sexagesimal_mathml(text: str) -> str:
    """Degrees with their minutes and seconds."""
    pieces = re.findall(r"([0-9.]+)([°′″])", text)
    inner = THIN_SPACE.join(f'<mn>{n}</mn><mi mathvariant="normal">{s}</mi>' for n, s in pieces)
    minus = '<mo form="prefix">−</mo>' if text.startswith("-") else ""
    return f"<mrow>{minus}{inner}</mrow>"


def _is_bare(node: Call) -> bool:
    """Whether a call is set with a sign of its own and no name."""
    arguments = BARE.get(node.function)
    return not node.is_own and not node.named and len(node.args) == arguments


def _index_of(node: Call) -> Node | None:
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


NEVER = ATOM + 1
"""More than anything has: what needs it stands in brackets."""

POWER_BEHIND_NAME = frozenset(
    name
    for stem in ("sin", "cos", "tan", "cot", "sec", "csc")
    for name in (stem, f"{stem}h")
) | {"ln", "lg", "lb"}  # fmt: skip
"""Functions whose square is written behind their name: sin²(x)."""


def precedence_as_set(node: Node) -> int:
    """How tightly a node binds as it is set, where that is not as it is typed: 1.5e3 is
    set as a product, and a choice with a brace that does not close."""
    match node:
        case Literal(text=text) if "e" in text and not text.startswith("0x"):
            return PRODUCT
        case Prefix(op="-" | "+", operand=Literal() as operand):
            return min(SIGN, precedence_as_set(operand))
        case Call(function="if", args=(_, _, _), is_own=False, named=()):
            return FORM
    return precedence(node)


def _runs_into(op: str, operand: Node) -> bool:
    """Whether a sign behind ``operand`` could be read as another: n!!, 2 rad!."""
    if isinstance(operand, Call) and _is_bare(operand) and operand.function == "factorial":
        return op == "!"
    if not isinstance(operand, Postfix):
        return False
    return operand.op.isalpha() or (op == operand.op == "!")


def _takes_exponent(base: Node) -> bool:
    """Whether a raised part right behind belongs to all of it."""
    if isinstance(base, Call):
        return _is_bare(base) and base.function in (*BARS, "binomial")
    return not isinstance(base, Postfix | Sexagesimal)


def _ends_like_a_name(node: Node, least: int) -> bool:
    """Whether a bracket right behind would look like that of a call."""
    while precedence_as_set(node) >= least:
        match node:
            case Binary(op=op, right=right):
                node, least = right, operand_precedences(op)[1]
            case Prefix(operand=operand):
                node, least = operand, SIGN
            case _:
                return not isinstance(node, Literal | Binary)
    return False


def _times(left: Node, right: Node | None, least_left: int) -> str:
    """The sign of a product: a dot where digits or words would run together, or a name
    and a bracket would look like a call."""
    if right is None and _ends_like_a_name(left, least_left):
        return f"<mo>{SIGNS['*']}</mo>"
    if isinstance(right, Literal | AnswerOf):
        return f"<mo>{SIGNS['*']}</mo>"
    if right is None or _is_symbol(right):
        last = left.right if isinstance(left, Binary) and left.op in ("*", IMPLIED) else left
        plain_left = isinstance(last, Literal) or _is_symbol(last)
        if plain_left or right is None:
            return TIMES_NOTHING + THIN_SPACE
    if isinstance(right, Call) and isinstance(left, Literal):
        return TIMES_NOTHING + THIN_SPACE
    return f"<mo>{SIGNS['*']}</mo>"


def _is_symbol(node: Node) -> bool:
    """Whether ``node`` is set as a single letter, with or without an index."""
    if isinstance(node, Binary) and node.op == "^":
        return _is_symbol(node.left)
    return isinstance(node, Name) and len(CONSTANTS.get(node.name, node.name).split("_")[0]) == 1
