"""Tokens to a syntax tree: a precedence parser, written by hand since its
errors are half of what a person sees of it.

The binding strengths, tightest last::

    as · or · and · comparison · .. · ∠ · + − · * / mod div and no sign
    · sign, not, √ · ^ · ! % ² · call

"""

from __future__ import annotations

from collections.abc import Callable, Container

from engine.errors import LineError, Mend, Span, Unfinished, replace
from engine.forms.names import is_form
from engine.limits import MAX_NESTING
from engine.reading import tokens as tk
from engine.reading.commands import read_command
from engine.reading.targets import read_targets
from engine.reading.tokens import Token, literal_value, split_note, tokens_of
from engine.reading.tree import (
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    Comparison,
    InForm,
    LineTree,
    Literal,
    Name,
    Node,
    Postfix,
    Prefix,
    Statement,
    TextLiteral,
)

COMPARISONS = frozenset({"==", "!=", "<", "<=", ">", ">=", "~"})
PRODUCTS = {"*": "*", "/": "/", "mod": "mod", "div": "div"}
SUMS = frozenset({"+", "-"})


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
    return Parser(body, tokens_of(body), functions, quantities).line(note)


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
                raise self.waiting("another expression behind the comma")
            return False
        raise self.unexpected()

    def statement(self) -> Statement:
        """An expression or an assignment."""
        start = self.token.span
        targets, live = read_targets(self)
        if targets and self.token.kind == tk.END:
            raise self.waiting(f"the value of {targets[-1].name}")
        body = self.token.span
        expression = self.expression()
        body = body.to(self.previous.span)
        span = start.to(body)
        if targets:
            return Assignment(span, expression, body, targets, live)
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
                if self.token.kind == tk.END:
                    raise self.waiting("the name of a form, such as fraction or 4 digits")
                raise self.unexpected()
            forms.append(tuple(words))
            if not (self.sees(",") and self.form_follows()):
                break
            self.next()
        span = Span(sign.span.start, self.previous.span.end)
        return InForm(self.across(node, node).to(span), node, tuple(forms), span)

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
        ends = self.tokens[at].kind == tk.END or self.tokens[at].text in (";", ",", ")")
        return ends and is_form(tuple(words))

    def disjunction(self) -> Node:
        node = self.conjunction()
        while self.sees("or"):
            node = self.binary(self.next(), "or", node, self.conjunction)
        return node

    def conjunction(self) -> Node:
        node = self.comparison()
        while self.sees("and"):
            node = self.binary(self.next(), "and", node, self.comparison)
        return node

    def comparison(self) -> Node:
        first = self.sum()
        operands, ops = [first], []
        while self.token.kind == tk.OP and self.token.text in COMPARISONS:
            ops.append(self.next().text)
            operands.append(self.operand_of(ops[-1], self.sum))
        if not ops:
            return first
        return Comparison(self.across(first, operands[-1]), tuple(operands), tuple(ops))

    def sum(self) -> Node:
        node = self.product()
        while self.sees("+", "-"):
            sign = self.next()
            node = self.binary(sign, sign.text, node, self.product)
        return node

    def product(self) -> Node:
        node = self.signed()
        while True:
            token = self.token
            if token.kind == tk.OP and token.text in PRODUCTS:
                self.next()
                node = self.binary(token, PRODUCTS[token.text], node, self.signed)
            elif token.kind == tk.OP and token.text == "//":
                raise self.other_language("//", "div")
            elif self.starts_operand():
                node = self.implied(node)
            else:
                return node

    def implied(self, left: Node) -> Node:
        """Multiplication with no sign, or the error of two operands side by side."""
        before, behind = self.previous, self.token
        multiplies = before.kind == tk.NUMBER or before.text == ")"
        if not multiplies or (before.kind == tk.NUMBER and behind.kind == tk.NUMBER):
            raise self.side_by_side(left)
        place = Span(before.span.end, behind.span.start)
        right = self.power()
        return Binary(self.across(left, right), IMPLIED, left, right, place)

    def signed(self) -> Node:
        if self.sees("-", "+", "not"):
            sign = self.next()
            operand = self.nested(self.signed, self.describe_gap(sign.text))
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
        if not self.sees("√"):
            return self.postfix()
        sign = self.next()
        operand = self.nested(self.power, "a number under the root")
        return Call(sign.span.to(self.across(operand, operand)), "sqrt", (operand,), (), sign.span)

    def postfix(self) -> Node:
        node = self.atom()
        while True:
            token = self.token
            if token.kind == tk.POWER:
                node = self.raised(node, self.next())
            elif token.text == "!" and token.kind == tk.OP:
                self.next()
                node = Postfix(self.across(node, node).to(token.span), "!", node)
            elif token.text == "%" and token.kind == tk.OP:
                self.next()
                if self.starts_operand():
                    self.at -= 1
                    raise self.other_language("%", "mod")
                node = Postfix(self.across(node, node).to(token.span), "%", node)
            else:
                return node

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
            return Literal(token.span, *literal_value(token.text, token.span))
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
        if token.kind == tk.END:
            raise self.waiting(self.describe_gap(self.previous.text if self.at else ""))
        raise self.unexpected()

    def name_or_call(self) -> Node:
        name = self.next()
        if not self.sees("("):
            if (name.text in self.functions and self.sees("^")) or self.token.kind == tk.POWER:
                powered = self.function_power(name)
                if powered:
                    return powered
            return Name(name.span, name.text)
        args, named = self.arguments()
        return Call(name.span.to(self.previous.span), name.text, args, named, name.span)

    def function_power(self, name: Token) -> Node | None:
        """``sin^2(x)`` and ``sin²(x)``, as textbooks write the square of a sine."""
        if name.text not in self.functions:
            return None
        start = self.at
        sign = self.next()
        negative = sign.kind == tk.POWER and sign.text.startswith("-")
        if sign.kind == tk.OP:
            negative = self.takes("-")
            if self.token.kind != tk.NUMBER:
                self.at = start
                return None
            power = self.next()
        else:
            power = Token(tk.NUMBER, sign.text.lstrip("+-"), sign.span)
        if not self.sees("("):
            self.at = start
            return None
        exponent = Literal(power.span, *literal_value(power.text, power.span))
        args, named = self.arguments()
        span = name.span.to(self.previous.span)
        if negative:
            raise self.inverse_or_reciprocal(name, exponent, Span(sign.span.start, power.span.end))
        return Binary(span, "^", Call(span, name.text, args, named, name.span), exponent, sign.span)

    def inverse_or_reciprocal(self, name: Token, exponent: Literal, place: Span) -> LineError:
        inside = self.text[place.end : self.previous.span.end]
        whole = Span(name.span.start, self.previous.span.end)
        mends: list[Mend] = []
        if exponent.text == "1" and "arc" + name.text in self.functions:
            mends.append(replace(whole, f"arc{name.text}{inside}"))
        power = "" if exponent.text == "1" else f"^{exponent.text}"
        mends.append(replace(whole, f"1/{name.text}{inside}{power}"))
        text = f"{name.text}^-{exponent.text} is written for two things: say which is meant."
        return LineError("inverse-or-reciprocal", text, whole, tuple(mends))

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
                args.append(self.nested(self.expression, "an argument"))
            if not self.takes(","):
                break
        self.close(opening)
        return tuple(args), tuple(named)

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

    def bars(self) -> Node:
        opening = self.next()
        self.brackets.append(opening)
        node = self.nested(self.expression, "something between the bars")
        if not self.sees("|"):
            if self.token.kind == tk.END:
                raise self.waiting("")
            raise self.unexpected()
        closing = self.next()
        self.brackets.pop()
        self.pairs.append((opening.span, closing.span))
        return Call(opening.span.to(closing.span), "abs", (node,), (), opening.span)

    def open(self) -> Token:
        opening = self.next()
        self.brackets.append(opening)
        return opening

    def close(self, opening: Token) -> None:
        if self.sees(")"):
            self.pairs.append((opening.span, self.next().span))
            self.brackets.pop()
            return
        if self.token.kind == tk.END:
            raise self.waiting("")
        raise self.unexpected()

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
            raise self.waiting(self.describe_gap(sign))
        return read()

    def nested(self, read: Callable[[], Node], what: str) -> Node:
        """``read()`` one level deeper, within the limit of nesting."""
        if self.token.kind == tk.END:
            raise self.waiting(what)
        self.nesting += 1
        if self.nesting > MAX_NESTING:
            raise LineError(
                "too-deep",
                f"Brackets, powers and calls are nested deeper than {MAX_NESTING} levels here.",
                self.token.span,
            )
        node = read()
        self.nesting -= 1
        return node

    def starts_operand(self) -> bool:
        """Whether the token at hand would begin an operand, were one wanted."""
        token = self.token
        if token.kind in (tk.NUMBER, tk.NAME, tk.ANSWER, tk.TEXT):
            return True
        if token.text == "|" and token.kind == tk.OP:
            return not any(bracket.text == "|" for bracket in self.brackets)
        return token.kind == tk.OP and token.text in ("(", "√")

    # -- errors --------------------------------------------------------------------

    @staticmethod
    def describe_gap(sign: str) -> str:
        return f"something behind {sign}" if sign else "an expression"

    def waiting(self, what: str) -> Unfinished:
        """The line ends too early: what it waits for, open brackets included."""
        end = self.token.span
        closing = "".join("|" if b.text == "|" else ")" for b in reversed(self.brackets))
        if what:
            return Unfinished(f"The line goes on: {what} is missing.", end)
        if len(closing) == 1:
            text = f"The line goes on: the closing {closing} is missing."
        else:
            text = f"The line goes on: {len(closing)} closing brackets are missing."
        return Unfinished(text, end, closing)

    def unexpected(self) -> LineError:
        token = self.token
        remove = (Mend("remove it", token.span, ""),)
        if token.text == ")" and not self.brackets:
            text = "This ) closes a bracket that was never opened."
            open_at = Mend("open one at the start", Span(0, 0), "(")
            return LineError("unopened-bracket", text, token.span, (*remove, open_at))
        if token.text == "=":
            text = "Here = cannot stand: it gives a value to a name; == asks whether two are equal."
            return LineError("stray-equals", text, token.span, (replace(token.span, "=="),))
        if self.at and self.previous.kind == tk.OP and token.kind == tk.OP:
            text = f"{token.text} cannot follow {self.previous.text}: a value is missing between."
            return LineError("missing-operand", text, token.span, remove)
        if token.text in tk.WORDS:
            text = f"{token.text} is a word of the language and cannot stand here."
            return LineError(
                "word-here", text, token.span, (replace(token.span, token.text + "_"),)
            )
        return LineError("unexpected", f"{token.text} cannot stand here.", token.span, remove)

    def other_language(self, typed: str, meant: str) -> LineError:
        meanings = {
            "mod": "The remainder is written mod",
            "div": "The whole quotient is written div",
        }
        text = f"{meanings[meant]}; {typed} cannot stand between two values."
        span = self.token.span
        mend = replace(span, _spaced(self.text, span, meant))
        return LineError("other-language", text, span, (mend,))

    def side_by_side(self, left: Node) -> LineError:
        """Two operands with nothing between: what may be meant, as mends."""
        before, behind = self.previous, self.token
        gap = Span(before.span.end, behind.span.start)
        both = Span(before.span.start, behind.span.end)
        if before.kind == tk.NAME and before.text in self.functions:
            return self.call_without_brackets(before)
        if before.text in ("x", "X") and before.text not in self.quantities and self.at >= 2:
            return self.letter_for_times(before)
        first, second = (self.text[t.span.start : t.span.end] for t in (before, behind))
        mends: list[Mend] = []
        if before.kind == tk.NAME and behind.kind in (tk.NAME, tk.NUMBER) and "." not in second:
            mends.append(replace(both, f"{first}_{second}"))
        if before.kind == tk.NUMBER and behind.kind == tk.NUMBER:
            mends.append(replace(both, f"{first} + {second}"))
        mends.append(replace(gap, "*"))
        text = f"Nothing stands between {first} and {second}: say how they belong together."
        return LineError("side-by-side", text, both, tuple(mends))

    def letter_for_times(self, letter: Token) -> LineError:
        """``56 x 8``, where x is no quantity."""
        place = Span(self.tokens[self.at - 2].span.end, self.token.span.start)
        text = f"The letter {letter.text} is no sign for times, and no quantity has this name."
        return LineError("letter-for-times", text, letter.span, (replace(place, "*"),))

    def call_without_brackets(self, name: Token) -> LineError:
        """``sin pi/2``: the two ways in which its brackets may be meant."""
        start = self.token.span.start
        mends: list[Mend] = []
        for read in (self.product, self.power):
            at = self.at
            try:
                end = read().span.end
            except LineError:
                end = 0
            self.at = at
            if end and not any(mend.span.end == end for mend in mends):
                called = f"{name.text}({self.text[start:end]})"
                mends.append(replace(Span(name.span.start, end), called))
        text = f"The argument of {name.text} stands in brackets."
        return LineError(
            "no-brackets", text, Span(name.span.start, self.token.span.end), tuple(mends)
        )


def _spaced(text: str, span: Span, word: str) -> str:
    """``word`` with spaces where it would touch a neighbour at ``span``."""
    left = "" if text[: span.start].endswith(" ") else " "
    right = "" if text[span.end :].startswith(" ") else " "
    return left + word + right
