"""A tree as LaTeX's mathematics, with the commands of plain LaTeX and amsmath alone."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from typing import ClassVar

from teapot.engine.limits import MAX_SET_FIGURES
from teapot.engine.reading.notation import LETTERS
from teapot.engine.reading.precedence import (
    FORM,
    NEVER,
    POSTFIX,
    PRODUCT,
    RANGE,
    SUM,
    precedence,
)
from teapot.engine.reading.setting import (
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
from teapot.engine.reading.unit_setting import unit_latex
from teapot.engine.reading.vocabulary import GREEK as LETTERS_BY_NAME
from teapot.engine.reading.writer import Kinds

SYMBOLS = {"pi": r"\pi", "infinity": r"\infty", "inf": r"\infty", "□": r"\square"}
UPRIGHT = frozenset({"e", "i", "j"})
SIGNS = {
    "-": "-", "+": "+", "*": r"\cdot", "==": r"\stackrel{?}{=}", "!=": r"\ne", "<=": r"\le",
    ">=": r"\ge", "~": r"\approx", "<": "<", ">": ">", ":=": r"\mathrel{:=}", "∠": r"\angle",
    "±": r"\pm",
}  # fmt: skip
UNITS = {
    "deg": r"^{\circ}", "°": r"^{\circ}", "′": r"'", "″": r"''", "rad": r"\,\mathrm{rad}",
    "gon": r"\,\mathrm{gon}", "turn": r"\,\mathrm{turn}",
}  # fmt: skip
OWN_COMMANDS = frozenset({"sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh", "ln",
                          "lg", "log", "exp", "gcd", "min", "max", "arg"})  # fmt: skip
"""Functions that LaTeX has a command of the same name for."""

GREEK = {
    "α": "alpha", "β": "beta", "γ": "gamma", "δ": "delta", "ε": "varepsilon", "ζ": "zeta",
    "η": "eta", "θ": "theta", "ι": "iota", "κ": "kappa", "λ": "lambda", "μ": "mu", "µ": "mu",
    "ν": "nu", "ξ": "xi", "ρ": "rho", "σ": "sigma", "τ": "tau", "υ": "upsilon", "φ": "varphi",
    "χ": "chi", "ψ": "psi", "ω": "omega", "Γ": "Gamma", "Δ": "Delta", "Θ": "Theta",
    "Λ": "Lambda", "Ξ": "Xi", "Π": "Pi", "Σ": "Sigma", "Φ": "Phi", "Ψ": "Psi", "Ω": "Omega",
}  # fmt: skip

TEXT_SIGNS = {
    "°": r"\textdegree{}", "−": "-", "≈": r"$\approx$", "π": r"$\pi$", "∞": r"$\infty$",
    "·": r"$\cdot$", "×": r"$\times$", "√": r"$\surd$", "≤": r"$\le$", "≥": r"$\ge$",
}  # fmt: skip
"""Signs among words that are mathematics to LaTeX."""

BARS = {"abs": (r"\lvert", r"\rvert"), "floor": (r"\lfloor", r"\rfloor"),
        "ceil": (r"\lceil", r"\rceil")}  # fmt: skip

_SPECIAL = re.compile(r"[\\{}$&#%_^~]")
_ESCAPES = {"\\": r"\textbackslash{}", "^": r"\textasciicircum{}", "~": r"\textasciitilde{}"}


def statement_latex(statement: Statement) -> str:
    """A statement, its targets included."""
    return LaTeXWriter().statement(statement)


def answer_latex(tree: Node | Statement) -> str:
    """A value."""
    writer = LaTeXWriter(is_answer=True)
    return writer.statement(tree) if isinstance(tree, Statement) else writer.node(tree)


def words_latex(text: str) -> str:
    """Words among mathematics."""
    escaped = _SPECIAL.sub(lambda found: _ESCAPES.get(found[0], f"\\{found[0]}"), text)
    return rf"\text{{{''.join(map(_letter, escaped))}}}"


def _letter(sign: str) -> str:
    return rf"$\{GREEK[sign]}$" if sign in GREEK else TEXT_SIGNS.get(sign, sign)


def number_latex(text: str) -> str:
    """A number with its groups of three set apart, and powers of ten raised."""
    is_based = text.startswith(("0x", "0b", "0o"))
    mantissa, _, exponent = (text, "", "") if is_based else text.partition("e")
    if len(mantissa) > MAX_SET_FIGURES:
        mantissa = rf"{mantissa[:60]}\ldots {mantissa[-30:]}"
    elif mantissa.replace(".", "").isdecimal():
        mantissa = _grouped(mantissa)
    else:
        mantissa = rf"\mathtt{{{mantissa}}}"
    return rf"{mantissa}\times 10^{{{exponent}}}" if exponent else mantissa


def _grouped(digits: str) -> str:
    whole, point, fraction = digits.partition(".")
    if len(whole) > 4:
        whole = re.sub(r"(?<=\d)(?=(?:\d{3})+$)", r"\\,", whole)
    if len(fraction) > 4:
        fraction = re.sub(r"(\d{3})(?=\d)", r"\1\\,", fraction)
    return whole + point + fraction


def name_latex(name: str) -> str:
    """A name; what follows its first underscore is set as a subscript."""
    stem, _, index = name.partition("_")
    if not stem or not index:
        return _identifier(name)
    index = index.replace("_", " ").strip() or "_"
    return f"{_identifier(stem)}_{{{index if index.isdecimal() else words_latex(index)}}}"


OVER = {"\u0300": "grave", "\u0301": "acute", "\u0302": "hat", "\u0303": "tilde", "\u0304": "bar",
        "\u0305": "bar", "\u0307": "dot", "\u0308": "ddot", "\u20d7": "vec"}  # fmt: skip
"""The command for each mark over a letter."""


def _identifier(name: str) -> str:
    if name.endswith("'"):
        return f"{_identifier(name[:-1])}'"
    if len(name) == 2 and name[1] in OVER:
        return rf"\{OVER[name[1]]}{{{_identifier(name[0])}}}"
    if name in SYMBOLS:
        return SYMBOLS[name]
    name = LETTERS_BY_NAME.get(name, name)
    if name in GREEK:
        return f"\\{GREEK[name]}"
    if name in UPRIGHT:
        return rf"\mathrm{{{name}}}"
    if len(name) == 1 and name.isascii():
        return name
    greek = "".join(map(_letter, name))
    if greek != name:
        return rf"\text{{\textit{{{greek}}}}}"
    return rf"\mathit{{{name}}}" if name.isascii() and name.isalnum() else words_latex(name)


def in_brackets(inner: str) -> str:
    """``inner`` in brackets that grow with it."""
    return rf"\left({inner}\right)"


def _unit(unit: str) -> str:
    return words_latex(f" [{unit}]") if unit else ""


class LaTeXWriter(PrintWriter):
    """Writes nodes as LaTeX."""

    def brackets(self, inner: str) -> str:
        return in_brackets(inner)

    def statement(self, statement: Statement) -> str:
        inner = self.node(statement.expression)
        if not isinstance(statement, Assignment):
            return inner
        *outer, last = (name_latex(target.name) for target in statement.targets)
        if statement.parameters is not None:
            last += in_brackets(", ".join(map(name_latex, statement.parameters)))
        sign = SIGNS[":="] if statement.live else "="
        return "".join(f"{name} = " for name in outer) + f"{last} {sign} {inner}"

    def literal(self, node: Literal) -> str:
        return number_latex(node.text)

    def sexagesimal(self, node: Sexagesimal) -> str:
        pieces = re.findall(r"([0-9.]+)([°′″])", node.text)
        return r"\,".join(f"{number}{UNITS[sign]}" for number, sign in pieces)

    def words(self, node: Words | DateLiteral) -> str:
        return r"\ldots " if node.text == "…" else words_latex(node.text)

    def name(self, node: Name) -> str:
        return name_latex(node.name)

    def filled(self, node: Filled) -> str:
        return words_latex(node.text)

    def text(self, node: Text) -> str:
        parts = "".join(
            self.node(part) if isinstance(part, Node) else words_latex(part) for part in node.parts
        )
        return parts if self.is_answer else rf"\text{{``}}{parts}\text{{''}}"

    def answer_of(self, node: AnswerOf) -> str:
        return r"\text{@}" if node.number is None else rf"\text{{@{node.number}}}"

    def prefix(self, node: Prefix) -> str:
        if node.op == "not":
            return rf"\text{{not }}{self.node(node.operand, precedence(node))}"
        return SIGNS[node.op] + self.behind_sign(node)

    def measured(self, node: Measured) -> str:
        return rf"{self.before_unit(node)}\,{unit_latex(node.unit)}"

    def postfix(self, node: Postfix) -> str:
        op, inner = node.op, self.before_sign(node)
        if op in UNITS:
            return f"{{{inner}}}{UNITS[op]}"
        return inner + (r"\%" if op == "%" else op)

    def times_power_of_ten(self, node: TimesPowerOfTen) -> str:
        return rf"({self.node(node.number)})\times 10^{{{node.power}}}"

    def binary(self, node: Binary) -> str:
        op = node.op
        if op == "/":
            behind_minus = self.minus_before(node)
            if behind_minus is not None:
                return f"-{self.node(behind_minus)}"
            return rf"\frac{{{self.node(node.left)}}}{{{self.node(node.right)}}}"
        if op == "^":
            return self.power(node)
        if op in ("*", IMPLIED):
            return self.product(node)
        left, right = self.operands(node)
        sign = SIGNS.get(op) or rf"\mathbin{{\text{{{op}}}}}"
        return f"{left} {sign} {right}"

    def power(self, node: Binary) -> str:
        exponent = f"^{{{self.node(node.right)}}}"
        call = call_raised(node)
        if call is not None:
            return self.named_call(call, exponent)
        return f"{{{self.base(node)}}}{exponent}"

    def product(self, node: Binary) -> str:
        if self.joins_i(node):
            return rf"{self.before_i(node)}\,{self.node(node.right)}"
        left, right, dot = self.factors(node)
        return rf"{left} \cdot {right}" if dot else rf"{left}\,{right}"

    def comparison(self, node: Comparison) -> str:
        parts = [self.node(node.operands[0], RANGE)]
        for op, operand in zip(node.ops, node.operands[1:], strict=True):
            parts += [SIGNS[op], self.node(operand, RANGE)]
        return " ".join(parts)

    def call(self, node: Call) -> str:
        return self.bare_call(node) if is_bare(node) else self.named_call(node)

    def named_call(self, node: Call, exponent: str = "") -> str:
        """A call by its name, with an ``exponent`` after that if there is one."""
        index = index_of(node)
        args = [self.node(arg) for arg in node.args if arg is not index]
        args += [
            f"{words_latex(word)} = {self.node(arg)}"
            for word, arg in node.named
            if arg is not index
        ]
        if is_set_as_bound(node):
            return self.bound_call(node)
        if node.function == "if" and len(args) == 3 and not node.is_own:
            test, then, otherwise = args
            rows = rf"{then} & \text{{if }} {test} \\ {otherwise} & \text{{otherwise}}"
            return rf"\begin{{cases}} {rows} \end{{cases}}"
        name = self.function_name(node)
        if index is not None:
            name += f"_{{{self.node(index)}}}"
        return name + exponent + in_brackets(", ".join(args))

    @staticmethod
    def function_name(node: Call) -> str:
        """The name before the brackets of a call."""
        name = node.function
        if node.is_own:
            return name_latex(name)
        if name in OWN_COMMANDS:
            return f"\\{name}"
        letters = LETTERS.get(name)
        if letters in GREEK:
            return f"\\{GREEK[letters]}"
        if letters is not None:
            return rf"\operatorname{{{'B' if letters == 'Β' else letters}}}"
        is_plain = re.fullmatch(r"[a-zA-Z]\w+", name, re.ASCII) is not None
        escaped = name.replace("_", r"\_")
        return rf"\operatorname{{{escaped}}}" if is_plain else name_latex(name)

    def bound_call(self, node: Call) -> str:
        """∫ with its bounds and dx, ∑ and ∏ with their index, a derivative at its place."""
        [of] = node.args
        [(name, where)] = [one for one in node.named if one[0] not in OPTIONS]
        shown, inner = name_latex(name), self.node(of, PRODUCT)
        if node.function == "derivative":
            order = dict(node.named).get("order")
            times = "" if order is None else f"^{{{self.node(order)}}}"
            fraction = rf"\frac{{\mathrm{{d}}{times}}}{{\mathrm{{d}}{shown}{times}}}"
            return rf"\left.{fraction}{inner}\right|_{{{shown} = {self.node(where)}}}"
        assert isinstance(where, Range)
        low, high = self.node(where.start), self.node(where.stop)
        if node.function == "integral":
            return rf"\int_{{{low}}}^{{{high}}} {inner}\,\mathrm{{d}}{shown}"
        letter = {"sum": r"\sum", "product": r"\prod"}[node.function]
        return rf"{letter}_{{{shown} = {low}}}^{{{high}}} {inner}"

    def bare_call(self, node: Call) -> str:
        """A call set with a sign of its own: a root, bars, n!, one number over another."""
        function = node.function
        if function == "factorial":
            [of] = node.args
            return self.node(of, NEVER if runs_into("!", of) else POSTFIX) + "!"
        first, *others = (self.node(arg) for arg in node.args)
        if function in BARS:
            left, right = BARS[function]
            return rf"\left{left} {first} \right{right}"
        if function == "binomial":
            return rf"\binom{{{first}}}{{{others[0]}}}"
        degree = "" if function == "sqrt" else f"[{others[0] if others else '3'}]"
        return rf"\sqrt{degree}{{{first}}}"

    def list_of(self, node: ListOf) -> str:
        if is_set_as_matrix(node):
            rows = self.rows([self.node(one) for one in row.children] for row in node.items)
            return rf"\begin{{pmatrix}} {rows} \end{{pmatrix}}"
        return rf"\left[{', '.join(map(self.node, node.items))}\right]"

    def grid(self, node: Grid) -> str:
        items = [self.node(item) for item in node.items] + [r"\ldots"] * node.more
        rows = (items[at : at + node.across] for at in range(0, len(items), node.across))
        return rf"\begin{{array}}{{{'r' * node.across}}} {self.rows(rows)} \end{{array}}"

    def columns(self, node: Columns) -> str:
        pairs = zip(node.heads, node.units, strict=True)
        heads = " & ".join(self.node(head) + _unit(unit) for head, unit in pairs)
        rows = self.rows([self.node(cell) for cell in row] for row in node.rows)
        aligned = "r" * len(node.heads)
        return rf"\begin{{array}}{{{aligned}}} {heads} \\ \hline {rows} \end{{array}}"

    @staticmethod
    def rows(rows: Iterable[Sequence[str]]) -> str:
        """Rows of a table."""
        return r" \\ ".join(" & ".join(row) for row in rows)

    def range(self, node: Range) -> str:
        ends = rf"{self.node(node.start, SUM)} \mathbin{{..}} {self.node(node.stop, SUM)}"
        return ends if node.step is None else rf"{ends} \text{{ by }} {self.node(node.step, SUM)}"

    def column_of(self, node: ColumnOf) -> str:
        name = name_latex(node.name) if node.name.isidentifier() else words_latex(node.name)
        return f"{self.node(node.of, POSTFIX)}.{name}"

    def subscript(self, node: Subscript) -> str:
        return rf"{self.node(node.of, POSTFIX)}\left[{self.node(node.index)}\right]"

    def formatted(self, node: Formatted) -> str:
        forms = ", ".join(" ".join(words) for words in node.forms)
        return rf"{self.node(node.expression, FORM)}{words_latex(f' as {forms}')}"

    def mixed(self, node: Mixed) -> str:
        sign = "-" if node.is_negative else ""
        return rf"{sign}{self.node(node.whole)}\,{self.node(node.fraction)}"

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
