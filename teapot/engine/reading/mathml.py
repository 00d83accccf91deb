"""A tree as MathML Core, which browsers set by themselves.

Everything that came from the person passes through :func:`escape` here, so the
result is safe to put into a page as it stands.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Mapping
from html import escape
from typing import ClassVar

from teapot.engine.limits import MAX_SET_FIGURES
from teapot.engine.reading.notation import BARS, LETTERS
from teapot.engine.reading.precedence import (
    FORM,
    NEVER,
    POSTFIX,
    PRODUCT,
    RANGE,
    SIGN,
    SUM,
    precedence,
)
from teapot.engine.reading.setting import (
    SUMMED,
    PrintWriter,
    call_raised,
    index_of,
    is_bare,
    is_set_as_bound,
    is_set_as_matrix,
    runs_into,
)
from teapot.engine.reading.tree import (
    IMPLIED,
    OPTIONS,
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
from teapot.engine.reading.unit_setting import THIN_SPACE, unit_mathml
from teapot.engine.reading.vocabulary import GREEK
from teapot.engine.reading.writer import Kinds

MAX_FRACTION_DEPTH = 3
"""Fractions inside fractions, before the slash takes over from the bar."""

CONSTANTS = {"pi": "π", "infinity": "∞", "inf": "∞"}
UPRIGHT = frozenset({"e", "i", "j", "pi", "infinity", "inf"})
SIGNS = {
    "-": "−", "+": "+", "*": "·", "==": "=", "!=": "≠", "<=": "≤", ">=": "≥", "~": "≈",
    "<": "&lt;", ">": "&gt;", ":=": "≔", "∠": "∠", "±": "±",
}  # fmt: skip
UNITS = {"deg": "°", "°": "°", "′": "′", "″": "″", "rad": "rad", "gon": "gon", "turn": "turn"}
"""Units of angles, each with the sign that is set after its number."""

APPLY = "<mo>&#x2061;</mo>"
TIMES_NOTHING = "<mo>&#x2062;</mo>"
SPACE = '<mspace width="0.28em"/>'
BETWEEN_GROUPS = "\u2009"
"""Within a number, which stays one for whoever has it read aloud."""

Answers = Mapping[int | None, tuple[int, Node | None]]
"""What ``@`` and ``@7`` stand for, by the number that is typed: that of the line, and its
value as a tree, None where it is too long to stand there."""


def math(inner: str) -> str:
    """The ``math`` element around ``inner``; fractions are set large."""
    return f'<math displaystyle="true">{inner}</math>'


def statement_mathml(
    statement: Statement, tinted: Collection[Node] = (), answers: Answers | None = None
) -> str:
    """The inside of ``math`` for a statement.

    ``tinted`` are the nodes (by identity) to mark with the class ``bound``; ``answers``
    tells what the answers stand for that it uses.
    """
    return MathMLWriter(tinted=tinted, answers=answers).statement(statement)


def node_mathml(node: Node) -> str:
    """The inside of ``math`` for an expression."""
    return MathMLWriter().node(node)


def answer_mathml(tree: Node | Statement) -> str:
    """The inside of ``math`` for a value."""
    writer = MathMLWriter(is_answer=True)
    if isinstance(tree, Statement):
        return f"<mrow>{writer.statement(tree)}</mrow>"
    inner = writer.node(tree)
    is_row = isinstance(tree, Binary | Prefix | Mixed) and not inner.startswith("<mrow>")
    return f"<mrow>{inner}</mrow>" if is_row else inner


# -- numbers, names and words --------------------------------------------------------


def number_mathml(text: str) -> str:
    """A number with its groups of three set apart, and powers of ten raised."""
    if len(text) < 5 and text.isdecimal():
        return f"<mn>{text}</mn>"
    mantissa, _, exponent = text.partition("e")
    if text.startswith(("0x", "0b", "0o")):
        mantissa, exponent = text, ""
    body = _grouped(mantissa) if len(mantissa) <= MAX_SET_FIGURES else _ends_of(mantissa)
    if exponent:
        body += f"<mo>×</mo><msup><mn>10</mn>{_exponent(exponent)}</msup>"
    return f"<mrow>{body}</mrow>" if body.count("<mn>") > 1 else body


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
    return f"<mn>{BETWEEN_GROUPS.join(groups + behind[1:])}</mn>"


def _with_spaces(words: str) -> str:
    """Words of which the spaces at the ends are seen: MathML sets none there."""
    inner = words.strip(" ")
    if not inner:
        return NO_BREAK_SPACE * len(words)
    before, behind = words.index(inner[0]), len(words) - len(words.rstrip(" "))
    return NO_BREAK_SPACE * before + inner + NO_BREAK_SPACE * behind


NO_BREAK_SPACE = "\xa0"


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
    # with an index it is no constant: e_0 is a charge
    stem = f"<mi>{escape(stem)}</mi>" if stem in UPRIGHT and len(stem) == 1 else _identifier(stem)
    return f"<msub>{stem}<{tag}>{escape(index)}</{tag}></msub>"


def pattern_mathml(name: str, parameters: tuple[str, ...]) -> str:
    """How a function is called: f(x, y)."""
    names = "<mo>,</mo>".join(map(name_mathml, parameters))
    return name_mathml(name) + APPLY + in_brackets(names)


def _identifier(name: str) -> str:
    if name.endswith("'"):
        return f"<msup>{_identifier(name[:-1])}<mo>′</mo></msup>"
    if len(name) == 2 and name[1] in OVER:
        return f'<mover accent="true"><mi>{escape(name[0])}</mi><mo>{OVER[name[1]]}</mo></mover>'
    shown = escape(CONSTANTS.get(name) or GREEK.get(name, name))
    upright = ' mathvariant="normal"' if name in UPRIGHT else ""
    return f"<mi{upright}>{shown}</mi>"


OVER = {"\u0300": "`", "\u0301": "´", "\u0302": "^", "\u0303": "~", "\u0304": "¯", "\u0305": "¯",
        "\u0307": "˙", "\u0308": "¨", "\u20d7": "→"}  # fmt: skip
"""The sign that stands over a letter for each mark."""


def in_brackets(inner: str) -> str:
    """``inner`` in brackets, which grow with it only where it is tall: a bracket
    that may grow is set with more room about it."""
    is_tall = any(f"<{tag}" in inner for tag in ("mfrac", "mtable"))
    attribute = "" if is_tall else ' stretchy="false"'
    return f"<mrow><mo{attribute}>(</mo>{inner}<mo{attribute}>)</mo></mrow>"


# -- trees ---------------------------------------------------------------------------


def _whole_part(cell: Node) -> str | None:
    """What stands before the point of a plain number, a minus included; None of others."""
    minus, literal = "", cell
    if isinstance(cell, Prefix) and cell.op == "-":
        minus, literal = "0", cell.operand
    if not isinstance(literal, Literal) or not literal.text[:1].isdecimal():
        return None
    if "e" in literal.text or "x" in literal.text:
        return None
    return minus + literal.text.partition(".")[0]


def _gaps(figures: int) -> int:
    """The thin spaces between groups of so many figures."""
    return (figures - 1) // 3 if figures >= 5 else 0


def _widest(column: Iterable[Node]) -> str:
    """Figures as many as the longest number of a column has before its point."""
    return max((_whole_part(cell) or "" for cell in column), key=len, default="")


def _place(end: int) -> str:
    """The place of the last item of a row, where it is a tenth one."""
    return f'<mtd class="place"><mtext>{end}</mtext></mtd>' if end % 10 == 0 else ""


def _unit(unit: str) -> str:
    return f'<mtext class="unit">&#xA0;{escape(unit)}</mtext>' if unit else ""


class MathMLWriter(PrintWriter):
    """Writes nodes, marking some; keeps how deep in fractions it is."""

    def __init__(
        self,
        is_answer: bool = False,
        tinted: Collection[Node] = (),
        answers: Answers | None = None,
    ) -> None:
        super().__init__(is_answer)
        self.tinted = {id(node) for node in tinted}
        self.answers = answers or {}
        self.fractions = 0
        self.is_in_bars = False

    def node(self, node: Node, least: int = FORM) -> str:
        written = self.kinds[type(node)](self, node)
        if self.tinted and id(node) in self.tinted:
            written = f'<mrow class="bound">{written}</mrow>'
        return written if least == FORM or self.precedence(node) >= least else in_brackets(written)

    def brackets(self, inner: str) -> str:
        return in_brackets(inner)

    def statement(self, statement: Statement) -> str:
        inner = self.node(statement.expression)
        if not isinstance(statement, Assignment):
            return inner
        *outer, last = (name_mathml(target.name) for target in statement.targets)
        sign = f"<mo>{SIGNS[':='] if statement.live else '='}</mo>"
        if statement.parameters is not None:
            last = pattern_mathml(statement.targets[-1].name, statement.parameters)
        return "".join(f"{name}<mo>=</mo>" for name in outer) + last + sign + inner

    def literal(self, node: Literal) -> str:
        return number_mathml(node.text)

    def name(self, node: Name) -> str:
        return name_mathml(node.name)

    def sexagesimal(self, node: Sexagesimal) -> str:
        pieces = re.findall(r"([0-9.]+)([°′″])", node.text)
        inner = THIN_SPACE.join(f'<mn>{n}</mn><mi mathvariant="normal">{s}</mi>' for n, s in pieces)
        return f"<mrow>{inner}</mrow>"

    def words(self, node: Words | DateLiteral) -> str:
        return math_text(node.text)

    def filled(self, node: Filled) -> str:
        sign = "≈ " if node.sign == "≈" else ""
        return math_text(f"{sign}{node.text}")

    def text(self, node: Text) -> str:
        parts = (
            f'<mrow class="filled">{self.node(part)}</mrow>'
            if isinstance(part, Node)
            else math_text(_with_spaces(part))
            for part in node.parts
        )
        if self.is_answer:
            return "".join(parts) or math_text("")
        if all(isinstance(part, str) for part in node.parts):
            return math_text(f"“{''.join(map(str, node.parts))}”")
        return f"<mrow>{math_text('“')}{''.join(parts)}{math_text('”')}</mrow>"

    def answer_of(self, node: AnswerOf) -> str:
        """``@`` with the number of its line, and its value beneath."""
        line, value = self.answers.get(node.number, (node.number, None))
        shown = "@" if line is None else f"@{line}"
        sign = f'<mi mathvariant="normal" class="answer-of">{shown}</mi>'
        if value is None:
            return sign
        return f'<munder>{sign}<mrow class="its-value">{answer_mathml(value)}</mrow></munder>'

    def prefix(self, node: Prefix) -> str:
        if node.op == "not":
            inner = self.node(node.operand, precedence(node))
            return f"<mrow><mi>not</mi>{THIN_SPACE}{inner}</mrow>"
        return f"<mrow><mo>{SIGNS[node.op]}</mo>{self.behind_sign(node)}</mrow>"

    def postfix(self, node: Postfix) -> str:
        op, inner = node.op, self.before_sign(node)
        return in_unit_mathml(inner, op) if op in UNITS else f"<mrow>{inner}<mo>{op}</mo></mrow>"

    def measured(self, node: Measured) -> str:
        inner = self.before_unit(node)
        return f"<mrow>{inner}{THIN_SPACE}{unit_mathml(node.unit)}</mrow>"

    def times_power_of_ten(self, node: TimesPowerOfTen) -> str:
        power = f"<mo>×</mo><msup><mn>10</mn>{_exponent(str(node.power))}</msup>"
        return f"<mrow>{in_brackets(self.node(node.number))}{power}</mrow>"

    def binary(self, node: Binary) -> str:
        op = node.op
        if op == "/":
            return self.fraction(node)
        if op == "^":
            return self.power(node)
        if op in ("*", IMPLIED):
            return self.product(node)
        left, right = self.operands(node)
        if op in SIGNS:
            return f"{left}<mo>{SIGNS[op]}</mo>{right}"
        return f"{left}{SPACE}<mi>{op}</mi>{SPACE}{right}"

    def fraction(self, node: Binary) -> str:
        behind_minus = self.minus_before(node)
        if behind_minus is not None:
            return f"<mrow><mo>{SIGNS['-']}</mo>{self.node(behind_minus)}</mrow>"
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
        call = call_raised(node)
        if call is not None:
            return self.named_call(call, exponent)
        return f"<msup><mrow>{self.base(node)}</mrow>{exponent}</msup>"

    def product(self, node: Binary) -> str:
        if self.joins_i(node):
            return self.before_i(node) + TIMES_NOTHING + self.node(node.right)
        left, right, dot = self.factors(node)
        sign = f"<mo>{SIGNS['*']}</mo>" if dot else TIMES_NOTHING + THIN_SPACE
        return left + sign + right

    def comparison(self, node: Comparison) -> str:
        parts = [self.node(node.operands[0], RANGE)]
        for op, operand in zip(node.ops, node.operands[1:], strict=True):
            parts.append(f"<mo>{SIGNS[op]}</mo>" if op != "==" else "<mo>≟</mo>")
            parts.append(self.node(operand, RANGE))
        return "".join(parts)

    def call(self, node: Call) -> str:
        if is_bare(node) and not (node.function == "abs" and self.is_in_bars):
            return self.bare_call(node)
        return self.named_call(node)

    def named_call(self, node: Call, exponent: str = "") -> str:
        """A call by its name; an ``exponent`` is set after that, as in sin²(x).

        Each argument is set once: set twice at every level, a deep line would never end.
        """
        index = index_of(node)
        args = [self.node(arg) for arg in node.args if arg is not index]
        for word, arg in node.named:
            if arg is not index:
                args.append(f"<mi>{escape(word)}</mi><mo>=</mo>{self.node(arg)}")
        if node.function == "if" and len(args) == 3 and not node.is_own:
            return cases(args)
        if is_set_as_bound(node):
            return self.bound_call(node)
        name = name_mathml(node.function)
        if not node.is_own and (node.function in LETTERS or "_" in node.function):
            # a name of several words is no letter with an index
            letters = LETTERS.get(node.function, escape(node.function))
            name = f'<mi mathvariant="normal">{letters}</mi>'
        if index is not None:
            name = f"<msub>{name}<mrow>{self.small(index, MAX_FRACTION_DEPTH)}</mrow></msub>"
        if exponent:
            name = f"<msup>{name}{exponent}</msup>"
        inside = "<mo>,</mo>".join(args)
        return f"<mrow>{name}{APPLY}{in_brackets(inside)}</mrow>"

    def bound_call(self, node: Call) -> str:
        """∫ with its bounds and dx, ∑ and ∏ with their index, a derivative at its place."""
        [of] = node.args
        [(name, where)] = [one for one in node.named if one[0] not in OPTIONS]
        shown = name_mathml(name)
        if node.function == "derivative":
            return self.derivative(node, of, shown, where)
        assert isinstance(where, Range)
        low, high = self.small(where.start, 1), self.small(where.stop, 1)
        if node.function == "integral":
            sign = f"<msubsup><mo>∫</mo><mrow>{low}</mrow><mrow>{high}</mrow></msubsup>"
            inner = f'{self.node(of, PRODUCT)}{THIN_SPACE}<mi mathvariant="normal">d</mi>{shown}'
            return f"<mrow>{sign}{inner}</mrow>"
        letter = SUMMED[node.function]
        under = f"<mrow>{shown}<mo>=</mo>{low}</mrow>"
        sign = f"<munderover><mo>{letter}</mo>{under}<mrow>{high}</mrow></munderover>"
        return f"<mrow>{sign}{self.node(of, PRODUCT)}</mrow>"

    def derivative(self, node: Call, of: Node, name: str, where: Node) -> str:
        d = '<mi mathvariant="normal">d</mi>'
        order = dict(node.named).get("order")
        if order is None:
            above, below = d, f"{d}{name}"
        else:
            times = self.small(order, 1)
            above, below = f"<msup>{d}{times}</msup>", f"{d}<msup>{name}{times}</msup>"
        fraction = f"<mfrac><mrow>{above}</mrow><mrow>{below}</mrow></mfrac>"
        place = f"<mrow>{name}<mo>=</mo>{self.small(where, 1)}</mrow>"
        inner = self.node(of, PRODUCT)
        return f'<mrow>{fraction}{inner}<msub><mo stretchy="true">|</mo>{place}</msub></mrow>'

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
            inner = self.node(of, NEVER if runs_into("!", of) else POSTFIX)
            return f"<mrow>{inner}<mo>!</mo></mrow>"
        outer, self.is_in_bars = self.is_in_bars, function == "abs"
        written = [self.node(arg) for arg in node.args]
        first, others = written[0], written[1:]
        self.is_in_bars = outer
        if function in BARS:
            left, right = BARS[function]
            return f"<mrow><mo>{left}</mo>{first}<mo>{right}</mo></mrow>"
        if function == "sqrt":
            return f"<msqrt>{first}</msqrt>"
        if function == "binomial":
            row = f"<mrow>{first}</mrow><mrow>{others[0]}</mrow>"
            return in_brackets(f'<mfrac linethickness="0">{row}</mfrac>')
        degree = others[0] if others else "<mn>3</mn>"
        return f"<mroot><mrow>{first}</mrow><mrow>{degree}</mrow></mroot>"

    def list_of(self, node: ListOf) -> str:
        if is_set_as_matrix(node):
            return self.matrix(node)
        return list_mathml([self.node(item) for item in node.items])

    def matrix(self, node: ListOf) -> str:
        rows = "".join(
            "<mtr>" + "".join(f"<mtd>{self.node(one)}</mtd>" for one in row.children) + "</mtr>"
            for row in node.items
        )
        return f'<mrow><mo>(</mo><mtable class="matrix">{rows}</mtable><mo>)</mo></mrow>'

    def grid(self, node: Grid) -> str:
        items = [self.node(item) for item in node.items]
        if node.more:
            items.append("<mo>…</mo>")
        rows = ""
        for at in range(0, len(items), node.across):
            row = items[at : at + node.across]
            end = at + len(row)
            rows += f"<mtr>{''.join(f'<mtd>{one}</mtd>' for one in row)}{_place(end)}</mtr>"
        return f'<mtable class="items">{rows}</mtable>'

    def columns(self, node: Columns) -> str:
        pairs = zip(node.heads, node.units, strict=True)
        heads = "".join(f"<mtd>{node_mathml(head)}{_unit(unit)}</mtd>" for head, unit in pairs)
        widest = [_widest(column) for column in zip(*node.rows, strict=True)]
        rows = (f"<mtr>{''.join(map(self._cell, row, widest))}</mtr>" for row in node.rows)
        return f'<mtable class="columns"><mtr class="head">{heads}</mtr>{"".join(rows)}</mtable>'

    def _cell(self, cell: Node, widest: str) -> str:
        """A cell of a table; a number stands so far in that the points are above each other."""
        whole = _whole_part(cell)
        room = ""
        if whole is not None and len(whole) < len(widest):
            gaps = BETWEEN_GROUPS * (_gaps(len(widest)) - _gaps(len(whole)))
            room = f"<mphantom><mn>{'0' * (len(widest) - len(whole))}{gaps}</mn></mphantom>"
        return f"<mtd>{room}{self.node(cell)}</mtd>"

    def range(self, node: Range) -> str:
        ends = f"{self.node(node.start, SUM)}<mo>‥</mo>{self.node(node.stop, SUM)}"
        if node.step is None:
            return f"<mrow>{ends}</mrow>"
        return f"<mrow>{ends}{SPACE}<mi>by</mi>{SPACE}{self.node(node.step, SUM)}</mrow>"

    def column_of(self, node: ColumnOf) -> str:
        name = name_mathml(node.name) if node.name.isidentifier() else math_text(node.name)
        return f"<mrow>{self.node(node.of, POSTFIX)}<mo>.</mo>{name}</mrow>"

    def subscript(self, node: Subscript) -> str:
        inside = list_mathml([self.node(node.index)])
        return f"<mrow>{self.node(node.of, POSTFIX)}{inside}</mrow>"

    def formatted(self, node: Formatted) -> str:
        words = ", ".join(" ".join(form) for form in node.forms)
        return f"{self.node(node.expression, FORM)}<mtext>&#xA0;as {escape(words)}</mtext>"

    def mixed(self, node: Mixed) -> str:
        sign = "<mo>−</mo>" if node.is_negative else ""
        return f"<mrow>{sign}{self.node(node.whole)}{THIN_SPACE}{self.node(node.fraction)}</mrow>"

    kinds: ClassVar[Kinds] = {
        Literal: literal,
        Sexagesimal: sexagesimal,
        Words: words,
        TimesPowerOfTen: times_power_of_ten,
        DateLiteral: words,
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
        Grid: grid,
        Range: range,
        Subscript: subscript,
        ColumnOf: column_of,
        Formatted: formatted,
        Mixed: mixed,
        Columns: columns,
    }


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
    """A number with the unit of an angle after it."""
    sign = UNITS[unit]
    if sign.isalpha():
        return f'<mrow>{inner}{THIN_SPACE}<mi mathvariant="normal">{sign}</mi></mrow>'
    return f'<mrow>{inner}<mi mathvariant="normal">{sign}</mi></mrow>'
