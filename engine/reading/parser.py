"""Tokens to a syntax tree: a precedence parser, written by hand since its
errors are half of what a person sees of it.

The binding strengths, tightest last::

    as · or · and · not · comparison · .. · + − · * / mod div and no sign
    · ∠ · sign, √ · ^ · ! % ² ° rad and other units · call, item

"""

from __future__ import annotations

from collections.abc import Callable, Container

from engine.errors import BadFigure, LineError, SideBySide, TooDeep, TooManyStatements, Unfinished
from engine.forms.names import is_form
from engine.limits import MAX_NESTING, MAX_STATEMENTS
from engine.mends import Span
from engine.reading import complaints, wordings
from engine.reading import tokens as tk
from engine.reading.choices import choice_in
from engine.reading.commands import read_command
from engine.reading.elsewhere import spelt_elsewhere, stepped_elsewhere
from engine.reading.targets import read_targets
from engine.reading.tokens import (
    UNIT_SIGNS,
    UNIT_WORDS,
    Token,
    fraction_value,
    literal_value,
    sexagesimal_value,
    split_note,
    tokens_of,
)
from engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    Comparison,
    Formatted,
    LineTree,
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

COMPARISONS = frozenset({"==", "!=", "<", "<=", ">", ">=", "~"})
ROOT_SIGNS = {"√": ("sqrt", ""), "2√": ("sqrt", ""), "∛": ("cbrt", ""), "3√": ("cbrt", ""),
              "∜": ("root", "4")}  # fmt: skip
PRODUCTS = {"*": "*", "/": "/", "mod": "mod", "div": "div"}


def parse(text: str, functions: Container[str] = (), quantities: Container[str] = ()) -> LineTree:
    """The tree of a line.

    Arguments: ``text``, one line as typed; ``functions`` and ``quantities``, the
    names that are known, by which mends are chosen.  Errors: :class:`LineError` where it
    cannot be read, :class:`Unfinished` where it waits for more.
    """
    body, note = split_note(text)
    command = read_command(body)
    if command is not None:
        return LineTree((), note=note, command=command)
    try:
        return Parser(body, tokens_of(body), functions, quantities).line(note)
    except Unfinished as error:
        raise stepped_elsewhere(body) or error from None
    except LineError as error:
        if isinstance(error, BadFigure):
            raise
        raise choice_in(body) or spelt_elsewhere(body) or error from None


class Parser:
    """Reads one line's tokens from left to right; each method reads one level."""

    def __init__(
        self,
        text: str,
        tokens: list[Token],
        functions: Container[str],
        quantities: Container[str],
    ) -> None:
        self.text = text
        self.tokens = tokens
        self.at = 0
        self.functions = functions
        self.quantities = quantities
        self.nesting = 0
        self.brackets: list[Token] = []
        self.pairs: list[tuple[Span, Span]] = []
        self.outer: dict[int, Span] = {}

    # -- tokens ---------------------------------------------------------------

    @property
    def token(self) -> Token:
        return self.tokens[self.at]

    @property
    def previous(self) -> Token:
        return self.tokens[self.at - 1]

    def next(self) -> Token:
        token = self.tokens[self.at]
        self.at += 1
        return token

    def sees(self, *signs: str) -> bool:
        token = self.tokens[self.at]
        return token.kind == tk.OP and token.text in signs

    def takes(self, sign: str) -> bool:
        if self.sees(sign):
            self.at += 1
            return True
        return False

    # -- lines and statements -------------------------------------------------

    def line(self, note: str) -> LineTree:
        """The whole line."""
        statements: list[Statement] = []
        quiet = False
        while self.token.kind != tk.END:
            if len(statements) == MAX_STATEMENTS:
                raise TooManyStatements(self.token.span, limit=MAX_STATEMENTS)
            statements.append(self.statement())
            if self.token.kind == tk.END:
                break
            quiet = self.separator()
        return LineTree(
            tuple(statements), quiet and bool(statements), note, brackets=tuple(self.pairs)
        )

    def separator(self) -> bool:
        """Passes ``;`` or ``,``; true for a ``;`` that ends the line."""
        if self.takes(";"):
            return self.token.kind == tk.END
        if self.takes(","):
            if self.token.kind == tk.END:
                raise complaints.waiting(self, "another expression behind the comma")
            return False
        raise complaints.unexpected(self)

    def statement(self) -> Statement:
        """An expression or an assignment."""
        start = self.token.span
        if self.sees("=") and self.tokens[self.at + 1].kind != tk.END:
            self.next()  # as a calculation begins that is copied from a table of cells
            start = self.token.span
        targets, live, parameters = read_targets(self)
        if targets and self.token.kind == tk.END:
            raise complaints.waiting(self, f"the value of {targets[-1].name}")
        body = self.token.span
        expression = self.expression()
        body = body.to(self.previous.span)
        span = start.to(body)
        if targets:
            return Assignment(span, expression, body, targets, live, parameters)
        self.pass_asking_sign()
        return Statement(span, expression, body)

    def pass_asking_sign(self) -> None:
        """Passes the ``=`` of a pasted ``2 + 3 =``."""
        behind = self.tokens[min(self.at + 1, len(self.tokens) - 1)]
        if self.sees("=") and (behind.kind == tk.END or behind.text in (";", ",")):
            self.next()

    # -- expressions, loosest first --------------------------------------------

    def expression(self) -> Node:
        """Any expression, with the forms behind it."""
        node = self.disjunction()
        while self.sees("as"):
            node = self.in_form(node)
        return node

    def in_form(self, node: Node) -> Node:
        sign = self.next()
        forms: list[tuple[str, ...]] = []
        while True:
            words: list[str] = []
            while self.token.kind in (tk.NUMBER, tk.NAME):
                words.append(self.next().text)
            if not words:
                if self.sees("%"):
                    raise complaints.percent_as_form(self)
                if self.token.kind == tk.END:
                    raise complaints.waiting(self, "the form behind as")
                raise complaints.unexpected(self)
            forms.append(tuple(words))
            if not (self.sees(",") and self.form_follows()):
                break
            self.next()
        span = Span(sign.span.start, self.previous.span.end)
        return Formatted(self.across(node, node).to(span), node, tuple(forms), span)

    def form_follows(self) -> bool:
        """Whether the words behind this comma are one more form.

        A form is a name alone, or a whole number and a name; what else follows a
        comma is the next statement.
        """
        words: list[str] = []
        at = self.at + 1
        while self.tokens[at].kind in (tk.NUMBER, tk.NAME):
            words.append(self.tokens[at].text)
            at += 1
        ends = self.tokens[at].kind == tk.END or self.tokens[at].text in (";", ",", ")", "]")
        return ends and is_form(tuple(words))

    def disjunction(self) -> Node:
        node = self.conjunction()
        while self.sees("or"):
            node = self.binary(self.next(), "or", node, self.conjunction)
        return node

    def conjunction(self) -> Node:
        node = self.negation()
        while self.sees("and"):
            node = self.binary(self.next(), "and", node, self.negation)
        return node

    def negation(self) -> Node:
        if not self.sees("not"):
            return self.comparison()
        sign = self.next()
        operand = self.nested(self.negation, complaints.describe_gap("not"))
        return Prefix(sign.span.to(self.across(operand, operand)), "not", operand)

    def comparison(self) -> Node:
        first = self.range()
        operands, ops = [first], []
        while self.token.kind == tk.OP and self.token.text in COMPARISONS:
            ops.append(self.next().text)
            operands.append(self.operand_of(ops[-1], self.range))
        if not ops:
            return first
        return Comparison(self.across(first, operands[-1]), tuple(operands), tuple(ops))

    def range(self) -> Node:
        start = self.sum()
        if not self.sees(".."):
            return start
        self.next()
        stop = self.operand_of("..", self.sum)
        step = self.operand_of("by", self.sum) if self.takes("by") else None
        return Range(self.across(start, step or stop), start, stop, step)

    def sum(self) -> Node:
        node = self.product()
        while self.sees("+", "-"):
            sign = self.next()
            node = self.binary(sign, sign.text, node, self.product)
        return node

    def product(self) -> Node:
        return self.product_behind(self.polar())

    def product_behind(self, node: Node) -> Node:
        """The product that goes on behind its first factor."""
        while True:
            token = self.token
            if token.kind == tk.OP and token.text in PRODUCTS:
                self.next()
                node = self.binary(token, PRODUCTS[token.text], node, self.polar)
            elif token.kind == tk.OP and token.text == "//":
                raise complaints.other_language(self, "//", "div")
            elif self.starts_operand():
                node = self.implied(node)
            else:
                return node

    def implied(self, left: Node) -> Node:
        """Multiplication with no sign, or the error of two operands side by side."""
        before, behind = self.previous, self.token
        if behind.text in complaints.UNITS_SPELT_OUT and behind.kind == tk.NAME:
            raise complaints.spelt_out(self)
        meant = (
            wordings.form_without_as(self)
            or wordings.in_words(self)
            or wordings.run_together(self, before, behind)
        )
        if meant is not None:
            raise meant
        is_plain = before.kind in (tk.NUMBER, tk.FRACTION) or before.text == ")"
        multiplies = is_plain or self.has_constant(before, behind)
        both_numbers = before.kind == tk.NUMBER and behind.kind in (tk.NUMBER, tk.SEXAGESIMAL)
        if not multiplies or both_numbers:
            raise complaints.side_by_side(self)
        place = Span(before.span.end, behind.span.start)
        right = self.power()
        return Binary(self.across(left, right), IMPLIED, left, right, place)

    def has_constant(self, before: Token, behind: Token) -> bool:
        """Whether two names stand side by side of which one is a constant: ``2 pi r``."""
        if before.kind != tk.NAME or behind.kind != tk.NAME or before.text in self.functions:
            return False
        return any(
            token.text in tk.CONSTANT_NAMES and token.text not in self.quantities
            for token in (before, behind)
        )

    def polar(self) -> Node:
        """A phasor, which is one number: its angle reaches as far as a sign does."""
        node = self.signed()
        while self.sees("∠"):
            node = self.binary(self.next(), "∠", node, self.signed)
            if id(node.right) not in self.outer:
                self.refuse_half_angle(node)
        return node

    def refuse_half_angle(self, phasor: Binary) -> None:
        """``5∠pi/6``, ``5∠2*15°`` and ``5∠30°^2``: what the angle is has to be asked."""
        angle = phasor.right.operand if isinstance(phasor.right, Prefix) else phasor.right
        if id(angle) in self.outer:
            return
        if isinstance(angle, Binary) and angle.op == "^":
            raise complaints.angle_with_power(self, phasor, angle)
        is_pi = angle == Name(angle.span, "pi")
        over_phasor = self.sees("/") and self.tokens[self.at : self.at + 3][-1].text == "∠"
        if over_phasor:
            return
        goes_on = self.sees("/") or self.starts_operand() or self.sees_factor_of_angle()
        if (isinstance(angle, Literal) and goes_on) or (is_pi and (goes_on or self.sees("*"))):
            raise complaints.angle_goes_on(self, phasor)

    def sees_factor_of_angle(self) -> bool:
        """Whether ``* pi`` or ``* 15°`` comes, which makes an angle of a number."""
        if not self.sees("*"):
            return False
        factor, *behind = self.tokens[self.at + 1 : self.at + 3]
        has_unit = bool(behind) and behind[0].text in UNIT_SIGNS | UNIT_WORDS
        return factor.text == "pi" or factor.kind == tk.SEXAGESIMAL or has_unit

    def signed(self) -> Node:
        if self.sees("-", "+"):
            sign = self.next()
            operand = self.nested(self.signed, complaints.describe_gap(sign.text))
            return Prefix(sign.span.to(self.across(operand, operand)), sign.text, operand)
        return self.power()

    def power(self) -> Node:
        base = self.root()
        if not self.sees("^", "**"):
            return base
        sign = self.next()
        exponent = self.nested(self.signed, "an exponent behind ^")
        return Binary(self.across(base, exponent), "^", base, exponent, sign.span)

    def root(self) -> Node:
        if not self.sees_root():
            return self.postfix()
        sign = self.next()
        operand = self.nested(self.power, "a number under the root")
        span = sign.span.to(self.across(operand, operand))
        function, degree = ROOT_SIGNS.get(sign.text) or ("root", sign.text[:-1])
        degrees = (Literal(sign.span, *literal_value(degree, sign.span)),) if degree else ()
        return Call(span, function, (operand, *degrees), (), sign.span)

    def sees_root(self) -> bool:
        """Whether a root's sign stands here, with its degree raised before it or without."""
        token = self.tokens[self.at]
        return token.kind == tk.OP and (token.text in ROOT_SIGNS or token.text[-1:] == "√")

    def postfix(self) -> Node:
        node = self.atom()
        while True:
            token = self.token
            if token.kind == tk.POWER:
                node = self.raised(node, self.next())
            elif token.text == "!" and token.kind == tk.OP:
                self.next()
                if self.sees("!") and self.previous.span.end == self.token.span.start:
                    raise complaints.two_factorials(self, node)
                node = Postfix(self.across(node, node).to(token.span), "!", node)
            elif token.text == "%" and token.kind == tk.OP:
                self.next()
                if self.starts_operand() and not self.sees_unit():
                    if self.token.text == "of" and "of" not in self.quantities:
                        raise complaints.part_of(self)
                    self.at -= 1
                    raise complaints.other_language(self, "%", "mod")
                node = Postfix(self.across(node, node).to(token.span), "%", node)
            elif self.sees_unit():
                self.next()
                node = Postfix(self.across(node, node).to(token.span), token.text, node)
            elif self.sees("[") and self.takes_item():
                node = self.item(node)
            else:
                return node

    def sees_unit(self) -> bool:
        """Whether the token at hand is a unit of angles, and not a quantity or call."""
        token = self.token
        if token.kind == tk.OP:
            return token.text in UNIT_SIGNS
        is_word = token.kind == tk.NAME and token.text in UNIT_WORDS
        return is_word and token.text not in self.quantities

    def takes_item(self) -> bool:
        """Whether a square bracket here takes an item of what stands before it: it
        does so behind a name and behind a bracket."""
        return self.previous.kind in (tk.NAME, tk.ANSWER) or self.previous.text in (")", "]")

    def item(self, of: Node) -> Node:
        opening = self.open()
        if isinstance(of, Name) and of.name in self.functions and of.name not in self.quantities:
            complaints.refuse_square_call(self, of)
        index = self.nested(self.expression, "the place of an item")
        self.close(opening, "]")
        return Subscript(self.across(of, of).to(self.previous.span), of, index)

    def raised(self, base: Node, token: Token) -> Node:
        """``base`` with a superscript such as ² behind it."""
        figures = token.text.lstrip("+-")
        exponent: Node = Literal(token.span, *literal_value(figures, token.span))
        if token.text[0] in "+-":
            exponent = Prefix(token.span, token.text[0], exponent)
        return Binary(self.across(base, exponent), "^", base, exponent, token.span)

    # -- atoms ------------------------------------------------------------------

    def atom(self) -> Node:
        token = self.token
        if token.kind == tk.NUMBER:
            self.next()
            number = Literal(token.span, *literal_value(token.text, token.span))
            return self.with_fraction(number) if self.token.kind == tk.FRACTION else number
        if token.kind == tk.FRACTION:
            return self.fraction()
        if token.kind == tk.SEXAGESIMAL:
            self.next()
            return Sexagesimal(token.span, *sexagesimal_value(token.text, token.span))
        if token.kind == tk.NAME:
            return self.name_or_call()
        if token.kind == tk.ANSWER:
            self.next()
            number = token.text[1:]
            return AnswerOf(token.span, int(number) if number else None)
        if token.kind == tk.TEXT:
            return self.text_literal()
        if self.sees("("):
            return self.bracketed()
        if self.sees("|"):
            return self.bars()
        if self.sees("["):
            return self.list_of()
        if token.kind == tk.END:
            raise complaints.waiting(
                self, complaints.describe_gap(self.previous.text if self.at else "")
            )
        raise complaints.unexpected(self)

    def fraction(self) -> Node:
        """``½``, set as what it is."""
        token = self.next()
        above, below = (
            Literal(token.span, *literal_value(part, token.span)) for part in fraction_value(token)
        )
        node = Binary(token.span, "/", above, below, token.span)
        self.outer[id(node)] = token.span
        return node

    def with_fraction(self, whole: Literal) -> Node:
        """``2½``: the sum of both."""
        fraction = self.fraction()
        span = whole.span.to(fraction.span)
        node = Binary(span, "+", whole, fraction, Span(whole.span.end, whole.span.end))
        self.outer[id(node)] = span
        return node

    def name_or_call(self) -> Node:
        name = self.next()
        if not self.sees("("):
            if (name.text in self.functions and self.sees("^")) or self.token.kind == tk.POWER:
                powered = self.function_power(name)
                if powered:
                    return powered
            return Name(name.span, name.text)
        args, named = self.arguments()
        return self.call(name, args, named)

    def call(
        self, name: Token, args: tuple[Node, ...], named: tuple[tuple[str, Node], ...]
    ) -> Call:
        span = name.span.to(self.previous.span)
        return Call(span, name.text, args, named, name.span, name.text in self.quantities)

    def function_power(self, name: Token) -> Node | None:
        """``sin^2(x)`` and ``sin²(x)``, as textbooks write the square of a sine."""
        if name.text not in self.functions:
            return None
        start = self.at
        sign = self.next()
        negative = sign.kind == tk.POWER and sign.text.startswith("-")
        if sign.kind == tk.OP:
            is_bracketed = self.takes("(")
            negative = self.takes("-")
            power = self.next()
            if power.kind != tk.NUMBER or (is_bracketed and not self.takes(")")):
                self.at = start
                return None
        else:
            power = Token(tk.NUMBER, sign.text.lstrip("+-"), sign.span)
        if not self.sees("("):
            if self.starts_operand() and name.text not in self.quantities:
                minus = "-" if negative else ""
                raise complaints.power_without_brackets(self, name, minus + power.text)
            self.at = start
            return None
        opening = self.token.span
        args, named = self.arguments()
        if negative:
            inside = self.text[opening.start : self.previous.span.end]
            raise complaints.inverse_or_reciprocal(self, name, power.text, inside)
        exponent = Literal(power.span, *literal_value(power.text, power.span))
        span = name.span.to(self.previous.span)
        return Binary(span, "^", self.call(name, args, named), exponent, sign.span)

    def arguments(self) -> tuple[tuple[Node, ...], tuple[tuple[str, Node], ...]]:
        """What stands in the brackets of a call."""
        opening = self.open()
        args: list[Node] = []
        named: list[tuple[str, Node]] = []
        while not self.sees(")"):
            if self.token.kind == tk.NAME and self.tokens[self.at + 1].text == "=":
                name = self.next().text
                self.next()
                named.append((name, self.nested(self.expression, f"a value for {name}")))
            else:
                args.append(self.nested(self.argument, "an argument"))
            if not self.takes(","):
                break
        self.close(opening)
        return tuple(args), tuple(named)

    def argument(self) -> Node:
        """One argument.  Two with nothing between are arguments without their commas."""
        start = self.at
        try:
            return self.expression()
        except LineError as error:
            if isinstance(error, SideBySide):
                self.at = start
                mends = complaints.arguments_without_commas(self)
                error.mends = (*mends, *error.mends)
            raise

    def text_literal(self) -> Node:
        token = self.next()
        if len(token.text) < 2 or token.text[-1] != '"':
            raise Unfinished("The closing quotation mark is missing.", token.span, '"')
        inner = self.text[token.span.start + 1 : token.span.end - 1]
        return TextLiteral(token.span, inner)

    def bracketed(self) -> Node:
        opening = self.open()
        node = self.nested(self.expression, "something between the brackets")
        self.close(opening)
        self.outer[id(node)] = opening.span.to(self.previous.span)
        return node

    def list_of(self) -> Node:
        opening = self.open()
        items: list[Node] = []
        while not self.sees("]"):
            items.append(self.nested(self.list_item, "an item of the list"))
            if not self.takes(","):
                break
        self.close(opening, "]")
        return ListOf(opening.span.to(self.previous.span), tuple(items))

    def list_item(self) -> Node:
        """One item.  Two with nothing between are a list without its commas."""
        start = self.at
        try:
            return self.expression()
        except LineError as error:
            if isinstance(error, SideBySide):
                self.at = start
                raise complaints.list_without_commas(self, self.brackets[-1]) from None
            raise

    def bars(self) -> Node:
        opening = self.next()
        self.brackets.append(opening)
        node = self.nested(self.expression, "something between the bars")
        if not self.sees("|"):
            if self.token.kind == tk.END:
                raise complaints.waiting(self, "")
            raise complaints.unclosed_bar(self, opening)
        closing = self.next()
        self.brackets.pop()
        self.pairs.append((opening.span, closing.span))
        return Call(opening.span.to(closing.span), "abs", (node,), (), opening.span)

    def open(self) -> Token:
        opening = self.next()
        self.brackets.append(opening)
        return opening

    def close(self, opening: Token, sign: str = ")") -> None:
        if self.sees(sign):
            self.pairs.append((opening.span, self.next().span))
            self.brackets.pop()
            return
        if self.token.kind == tk.END:
            raise complaints.waiting(self, "")
        raise complaints.unexpected(self)

    # -- helpers -----------------------------------------------------------------

    def binary(self, sign: Token, op: str, left: Node, read: Callable[[], Node]) -> Node:
        right = self.operand_of(sign.text, read)
        return Binary(self.across(left, right), op, left, right, sign.span)

    def across(self, first: Node, last: Node) -> Span:
        """From the start of ``first`` to the end of ``last``, their brackets included."""
        start = self.outer.get(id(first), first.span)
        return start.to(self.outer.get(id(last), last.span))

    def operand_of(self, sign: str, read: Callable[[], Node]) -> Node:
        if self.token.kind == tk.END:
            raise complaints.waiting(self, complaints.describe_gap(sign))
        return read()

    def nested(self, read: Callable[[], Node], what: str) -> Node:
        """``read()`` one level deeper, within the limit of nesting."""
        if self.token.kind == tk.END:
            raise complaints.waiting(self, what)
        self.nesting += 1
        if self.nesting > MAX_NESTING:
            raise TooDeep(self.token.span, limit=MAX_NESTING)
        node = read()
        self.nesting -= 1
        return node

    def starts_operand(self) -> bool:
        """Whether the token at hand would begin an operand, were one wanted."""
        token = self.token
        if token.kind in (
            tk.NUMBER,
            tk.FRACTION,
            tk.SEXAGESIMAL,
            tk.NAME,
            tk.ANSWER,
            tk.TEXT,
        ):
            return True
        if token.text == "|" and token.kind == tk.OP:
            return not any(bracket.text == "|" for bracket in self.brackets)
        return token.kind == tk.OP and (token.text == "(" or self.sees_root())
