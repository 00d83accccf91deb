"""Reads MathML as a person reads print, who knows nothing of how it was made.

What cannot be seen is left aside: rows, spaces, the invisible signs of a product and of a
call.  A raised part belongs to the one sign or bracket before it; what stands side by side
is multiplied, but for a name before a bracket, which is a call; the rest is the order of
operations as it is taught in school, and as the handbooks print it.
"""

from __future__ import annotations

import re
import xml.etree.ElementTree as ElementTree
from dataclasses import dataclass, field

Read = tuple | str
"""What was read: a sign with its operands."""


@dataclass
class Sign:
    """One thing that is seen: its kind, its text, and the parts of a fraction or a root."""

    kind: str
    text: str = ""
    parts: list[list[Sign]] = field(default_factory=list)


SPACED = frozenset({"mspace"})
BETWEEN_GROUPS = "\u2009"  # of figures, within a number
INVISIBLE = frozenset({"\u2061", "\u2062", ""})
UNITS = frozenset({"°", "′", "″", "rad", "gon", "turn"})
LETTERS = {
    "Γ": "gamma", "Β": "beta", "ψ": "digamma", "ζ": "zeta", "Re": "re", "Im": "im",
    "J": "bessel_j", "K": "elliptic_k", "W": "lambert_w",
}  # fmt: skip
WORDS = frozenset({"mod", "div", "and", "or", "not", "by"})
COMPARISONS = {"≟": "==", "≠": "!=", "≤": "<=", "≥": ">=", "<": "<", ">": ">", "≈": "~"}
OPENING = {"(": ")", "[": "]", "⌊": "⌋", "⌈": "⌉", "|": "|"}
POWERED = frozenset({"sin", "cos", "tan", "ln", "sinh"})
"""Functions whose square is written after their name."""


def seen(element: ElementTree.Element) -> list[Sign]:
    """What is seen of an element, from left to right."""
    tag, children = element.tag, list(element)
    if tag in SPACED:
        return []
    if tag in ("mn", "mtext"):
        return [Sign(tag, (element.text or "").replace(BETWEEN_GROUPS, ""))]
    if tag in ("mi", "mo"):
        return [] if (element.text or "") in INVISIBLE else [Sign(tag, element.text)]
    if tag == "mfrac":
        kind = "choose" if element.get("linethickness") == "0" else "frac"
        return [Sign(kind, "", [seen(child) for child in children])]
    if tag == "msup":
        base, raised = (seen(child) for child in children)
        return [*base, Sign("sup", "", [raised])]
    if tag == "msub":
        base, index = (seen(child) for child in children)
        return [*base, Sign("sub", "", [index])]
    if tag == "msqrt":
        return [Sign("sqrt", "", [[s for child in children for s in seen(child)]])]
    if tag == "mroot":
        return [Sign("root", "", [seen(child) for child in children])]
    if tag == "mtable":
        cells = [seen(cell) for row in children for cell in row]
        if element.get("class") == "matrix":
            return [Sign("matrix", str(len(children)), cells)]
        return [Sign("table", "", cells)]
    return [sign for child in children for sign in seen(child)]


def read(mathml: str) -> Read:
    """What the inside of a ``math`` element says."""
    mathml = mathml.replace("&#xA0;", " ")
    reader = Reader(seen(ElementTree.fromstring(f"<math>{mathml}</math>")))
    whole = reader.form()
    if reader.at != len(reader.signs):
        raise ValueError(f"{reader.signs[reader.at]} is left over")
    return whole


class Reader:
    """Goes through the signs from left to right."""

    def __init__(self, signs: list[Sign]) -> None:
        self.signs = signs
        self.at = 0

    def sees(self, *texts: str) -> str:
        """The text of the sign at hand, if it is one of these."""
        if self.at < len(self.signs):
            sign = self.signs[self.at]
            if sign.kind in ("mo", "mi") and sign.text in texts:
                return sign.text
        return ""

    def kind(self) -> str:
        return self.signs[self.at].kind if self.at < len(self.signs) else ""

    def takes(self, *texts: str) -> str:
        found = self.sees(*texts)
        self.at += bool(found)
        return found

    def form(self) -> Read:
        node = self.either()
        while self.kind() == "mtext" and self.signs[self.at].text.startswith(" as "):
            node = ("as", node, self.signs[self.at].text[4:])
            self.at += 1
        return node

    def chain(self, read, *ops: str) -> Read:
        node = read()
        while op := self.takes(*ops):
            node = (op, node, read())
        return node

    def either(self) -> Read:
        return self.chain(self.both, "or")

    def both(self) -> Read:
        return self.chain(self.negation, "and")

    def negation(self) -> Read:
        return ("not", self.negation()) if self.takes("not") else self.comparison()

    def comparison(self) -> Read:
        operands, ops = [self.range()], []
        while op := self.takes(*COMPARISONS):
            ops.append(COMPARISONS[op])
            operands.append(self.range())
        return ("compare", tuple(ops), *operands) if ops else operands[0]

    def range(self) -> Read:
        start = self.sum()
        if not self.takes("‥"):
            return start
        stop = self.sum()
        return ("..", start, stop, self.sum()) if self.takes("by") else ("..", start, stop)

    def sum(self) -> Read:
        node = self.product()
        while op := self.takes("+", "−"):
            node = ("-" if op == "−" else "+", node, self.product())
        return node

    def product(self) -> Read:
        node = self.with_power_of_ten(self.polar())
        while True:
            if op := self.takes("·", "/", "mod", "div", "×"):
                node = ("*" if op in "·×" else op, node, self.polar())
            elif self.starts_operand():
                node = ("*", node, self.polar())
            else:
                return node

    def with_power_of_ten(self, node: Read) -> Read:
        """``1.5 × 10³`` as one number, where nothing after belongs to the ten alone."""
        number = node[1] if node[0] in ("neg", "pos") else node
        ten = self.signs[self.at + 1 : self.at + 3]
        is_power = len(ten) == 2 and ten[0].text == "10" and ten[1].kind == "sup"
        if number[0] != "num" or not self.sees("×") or not is_power:
            return node
        before, self.at = self.at, self.at + 3
        if self.sees("!", "%", "∠", "[", *UNITS) or self.kind() == "sup":
            self.at = before
            return node
        raised = ten[1].parts[0]
        power = "".join(sign.text for sign in raised).replace("−", "-")
        whole = ("num", f"{number[1]}e{power}")
        return whole if number is node else (node[0], whole)

    def polar(self) -> Read:
        node = self.signed()
        return ("∠", node, self.signed()) if self.takes("∠") else node

    def signed(self) -> Read:
        if self.takes("−"):
            return ("neg", self.signed())
        if self.takes("+"):
            return ("pos", self.signed())
        return self.postfix()

    def postfix(self) -> Read:
        node, is_atom = self.atom(), True
        while True:
            if self.kind() == "sup":
                if not is_atom:
                    raise ValueError("a raised part belongs to the sign before it alone")
                raised = self.inside(self.signs[self.at].parts[0])
                self.at += 1
                node, is_atom = ("^", node, raised), False
            elif op := self.takes("!", "%", *UNITS):
                if not is_atom and (node[0] == "^" or (op == "!" and node[0] == "!")):
                    raise ValueError(f"{op} after {node[0]} can be read in two ways")
                node, is_atom = (op, node), False
            elif self.sees("["):
                self.at += 1
                node, is_atom = ("item", node, self.form()), True
                self.expect("]")
            else:
                return node

    def starts_operand(self) -> bool:
        kind = self.kind()
        if kind == "mo":
            return bool(self.sees(*OPENING)) and not self.closes_bar()
        return kind in ("mn", "frac", "sqrt", "root", "choose") or (
            kind == "mi" and self.signs[self.at].text not in WORDS
        )

    bars = 0

    def closes_bar(self) -> bool:
        return bool(self.sees("|")) and self.bars > 0

    def inside(self, signs: list[Sign]) -> Read:
        reader = Reader(signs)
        node = reader.form()
        if reader.at != len(signs):
            raise ValueError(f"{signs[reader.at]} is left over")
        return node

    def expect(self, text: str) -> None:
        if not self.takes(text):
            raise ValueError(f"{text} is missing at {self.signs[self.at :][:2]}")

    def atom(self) -> Read:
        if self.at == len(self.signs):
            raise ValueError("something is missing at the end")
        sign = self.signs[self.at]
        match sign.kind:
            case "mn":
                return self.number()
            case "frac":
                self.at += 1
                return ("/", *map(self.inside, sign.parts))
            case "sqrt":
                self.at += 1
                return ("call", "sqrt", self.inside(sign.parts[0]))
            case "root":
                self.at += 1
                of, degree = map(self.inside, sign.parts)
                if degree == ("num", "3"):
                    return ("call", "cbrt", of)
                return ("call", "root", of, degree)
            case "matrix":
                self.at += 1
                cells = list(map(self.inside, sign.parts))
                wide = len(cells) // int(sign.text)
                rows = [cells[at : at + wide] for at in range(0, len(cells), wide)]
                return ("list", *(("list", *row) for row in rows))
            case "mi":
                return self.name()
            case "mo" if sign.text in OPENING:
                return self.bracket(sign.text)
            case "mo" if sign.text == "{":
                return self.cases()
        raise ValueError(f"{sign} begins nothing")

    def number(self) -> Read:
        text = ""
        while self.kind() == "mn":
            text += self.signs[self.at].text
            self.at += 1
        return ("num", text)

    def bracket(self, opening: str) -> Read:
        self.at += 1
        if opening == "(" and self.kind() == "choose":
            above, below = map(self.inside, self.signs[self.at].parts)
            self.at += 1
            self.expect(")")
            return ("call", "binomial", above, below)
        outer, self.bars = self.bars, int(opening == "|")
        if opening == "[":
            items = self.items("]")
            self.bars = outer
            return ("list", *items)
        node = self.form()
        self.expect(OPENING[opening])
        self.bars = outer
        name = {"|": "abs", "⌊": "floor", "⌈": "ceil"}.get(opening)
        return ("call", name, node) if name else node

    def items(self, closing: str) -> list[Read]:
        found: list[Read] = []
        while not self.takes(closing):
            found.append(self.form())
            if not self.takes(","):
                self.expect(closing)
                break
        return found

    def cases(self) -> Read:
        self.at += 1
        then, test, otherwise, _ = self.signs[self.at].parts
        self.at += 1
        return ("call", "if", *map(self.inside, (test[1:], then, otherwise)))

    def name(self) -> Read:
        text = self.signs[self.at].text
        self.at += 1
        index, raised = None, None
        if self.kind() == "sub":
            index = self.signs[self.at].parts[0]
            self.at += 1
        if self.kind() == "sup" and (text in POWERED or text in LETTERS):
            behind = self.signs[self.at + 1 : self.at + 2]
            if behind and behind[0].text == "(":
                raised = self.inside(self.signs[self.at].parts[0])
                self.at += 1
        if self.sees("("):
            return self.call(LETTERS.get(text, text), index, raised)
        if index is not None:
            text += "_" + "".join(sign.text for sign in index)
        return ("name", {"π": "pi", "∞": "infinity"}.get(text, text))

    def call(self, name: str, index: list[Sign] | None, raised: Read | None) -> Read:
        self.at += 1
        outer, self.bars = self.bars, 0
        args = self.items(")")
        self.bars = outer
        if index is not None and name == "log":
            args.append(self.inside(index))
        elif index is not None:
            args.insert(0, self.inside(index))
        node = ("call", name, *args)
        return ("^", node, raised) if raised is not None else node


def without_groups(text: str) -> str:
    """A number's text without the spaces between its groups."""
    return re.sub(r"\s", "", text)
