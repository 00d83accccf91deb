"""Tokens to a syntax tree: a precedence parser, written by hand since its
errors are half of what a person sees of it.

How tightly the operators bind stands in :mod:`teapot.engine.reading.precedence`.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Container, Iterable, Iterator, Mapping

from teapot.engine.diagnostics import unreadable, words_for_signs
from teapot.engine.diagnostics.asked_conversions import asked_conversion
from teapot.engine.diagnostics.calculus_on_paper import calculus_in
from teapot.engine.diagnostics.foreign_choices import choice_in
from teapot.engine.diagnostics.foreign_syntax import (
    bars_for_or,
    stepped_elsewhere,
    written_as_elsewhere,
)
from teapot.engine.diagnostics.foreign_values import in_parallel, spelt_by_value, starred
from teapot.engine.diagnostics.indexed_names import concentration_in
from teapot.engine.diagnostics.pasted_latex import latex_in
from teapot.engine.diagnostics.plain_words import words_in
from teapot.engine.errors import LineError, Unfinished
from teapot.engine.limits import MAX_LINE_FIGURES, MAX_NESTING, MAX_STATEMENTS
from teapot.engine.mends import Mend, Span, replace
from teapot.engine.parsing import measured_values, number_literals
from teapot.engine.parsing.targets import NO_TARGETS, read_targets, refuse_names_at_once
from teapot.engine.reading import joined_signs, unit_words
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.commands import read_command
from teapot.engine.reading.cursor import ROOT_SIGNS, Cursor, describe_gap
from teapot.engine.reading.forms import is_form, is_unit
from teapot.engine.reading.literals import literal_value
from teapot.engine.reading.precedence import (
    ATOM,
    COMPARISON,
    COMPARISONS,
    NOT,
    OPERATORS,
    OR,
    POLAR,
    PRODUCT,
    RANGE,
    SIGN,
    SUM,
    operand_precedences,
)
from teapot.engine.reading.tokens import Token, split_note, tokens_of
from teapot.engine.reading.tree import (
    BINDING,
    IMPLIED,
    AnswerOf,
    Assignment,
    Binary,
    Call,
    ColumnOf,
    Comparison,
    Formatted,
    LineTree,
    ListOf,
    Literal,
    Measured,
    Name,
    Node,
    Postfix,
    Prefix,
    Range,
    Statement,
    Subscript,
    Text,
)
from teapot.engine.reading.units import (
    YEAR,
    read_divisor,
    read_unit,
    sees_divisor,
    sees_measure,
    takes_unit,
)
from teapot.engine.reading.vocabulary import BOX, CONSTANT_NAMES, CONVERTING, UNIT_WORDS
from teapot.engine.sentences.names import NO_LINE
from teapot.engine.sentences.signs import BAD_FIGURE, QUESTION, UNKNOWN_SIGN
from teapot.engine.sentences.unreadable import (
    EMPTY_BRACES,
    NO_BRACKETS,
    SIDE_BY_SIDE,
    TOO_DEEP,
    TOO_MANY_STATEMENTS,
    UNCLOSED_BRACE,
    UNEXPECTED,
    UNOPENED_BRACE,
    WORD_HERE,
)
from teapot.engine.units.table import ANGLES_OF_SHEETS, atom_of

INFIX = {
    **OPERATORS,
    "**": OPERATORS["^"],
    "//": PRODUCT,
    "..": RANGE,
    **dict.fromkeys(COMPARISONS, COMPARISON),
}
"""All signs between two operands, each with its level."""

del INFIX["^"], INFIX["**"], INFIX[IMPLIED]  # a power is read with its base

BEHIND = frozenset({"!", "%", "°", "′", "″", "[", "."})
"""Signs that may stand after an operand."""


def parse(
    text: str,
    functions: Container[str] = (),
    quantities: Container[str] = (),
) -> LineTree:
    """The tree of a line.

    Arguments: ``text``, one line as typed; ``functions`` and ``quantities``, the
    names that are known, by which mends are chosen.  Errors: :class:`LineError` where it
    cannot be read, :class:`Unfinished` where it waits for more.
    """
    tree, missing = parse_so_far(text, functions, quantities, closes=False)
    assert missing is None
    return tree


def parse_so_far(
    text: str,
    functions: Container[str] = (),
    quantities: Container[str] = (),
    closes: bool = True,
    as_units: frozenset[int] = frozenset(),
    reads_anew: bool = True,
) -> tuple[LineTree, Unfinished | None]:
    """The tree of a line that is still being typed, with a box for each operand that is
    missing and open brackets as if they were closed; and what is missing, None where
    nothing is.  At the places ``as_units`` names are units, though quantities have them;
    ``reads_anew`` is as in :class:`Parser`.
    Errors: as :func:`parse`, for what no more typing would mend."""
    body, note = split_note(text)
    command = read_command(body)
    if command is not None:
        return LineTree((), note=note, command=command), None
    parser = Parser(body, [], functions, quantities, closes)
    parser.as_units = as_units
    parser.reads_anew = reads_anew
    try:
        tokens = tokens_of(body)
        if reads_anew and any(sign in body for sign in joined_signs.SIGNS):
            tokens = joined_signs.joined(tokens)
        if reads_anew and unit_words.WORDS.search(body):
            spelt = unit_words.in_signs(tokens, quantities, parser.contested, as_units)
            for token in {*tokens} - {*spelt}:  # names that a quantity may have
                parser.at_stake.add((token.text, token.span.start))
            tokens = spelt
        parser.tokens = tokens
        return parser.line(note), parser.missing
    except Unfinished as error:
        parallel = in_parallel(body, quantities)
        raise (
            stepped_elsewhere(body)
            or parallel
            or bars_for_or(body)
            or starred(body, quantities, error)
        ) from None
    except LineError as error:
        error.contested = frozenset(parser.contested)
        target = SET_WITHOUT_SIGN.match(body)
        if target is not None and target[1] in quantities:
            error.mends = ()  # which would overwrite what has a value
        if error.is_a(BAD_FIGURE):
            raise
        meant = (
            asked_conversion(body, quantities)
            or choice_in(body)
            or latex_in(body, functions, quantities)
            or calculus_in(body, functions, quantities)
            or concentration_in(body, quantities)
        )
        if meant is None and error.is_a(*OF_WORDS):
            meant = words_in(body, quantities)
        by_value = spelt_by_value(body, quantities)
        raise meant or by_value or written_as_elsewhere(body) or error from None


class NamesWith:
    """Names that are known, with more of them."""

    def __init__(self, names: Container[str], more: Iterable[str]) -> None:
        self._names = names
        self._more = frozenset(more)

    def __contains__(self, name: object) -> bool:
        return name in self._more or name in self._names


SIGNS_OF_FORMS: Mapping[str, tuple[str, ...]] = {"%": ("percent",), "°": ("deg",)}
"""What a sign after ``as`` asks for."""

SET_WITHOUT_SIGN = re.compile(r"\s*_+([^\W\d_]\w*)\s*:?=(?!=)")
"""A name that begins with a sign which no name begins with, and is given a value."""

DECIMAL_COMMAS = re.compile(r"\[\s*-?\d+,\d+(?:\s*;\s*-?\d+,\d+)+\s*\]")
"""A list that is a matrix, or one of numbers as they are written in many countries."""

TO_FORM = CONVERTING | {"as"}

ENDS_ARGUMENT = frozenset({"+", "-", "±", ")", "]", ",", ";", "|", "as", "==", "=", "<", ">"})
"""What may follow an argument without brackets, beside the end of the line."""

OF_WORDS = (SIDE_BY_SIDE, WORD_HERE, UNEXPECTED, UNKNOWN_SIGN, QUESTION, NO_BRACKETS)
"""What a line of words is an error of, read as a formula."""


class Parser(Cursor):
    """Reads one line's tokens from left to right."""

    in_exponent = 0
    """How many exponents the operand at hand stands in."""

    item_of: Node | None = None
    """What the square brackets at hand take an item of."""

    @property
    def has_equals(self) -> bool:
        """Whether the line may give a name its value."""
        return "=" in self.text or not self.text.isascii()

    # -- lines and statements -------------------------------------------------

    def line(self, note: str) -> LineTree:
        """The whole line."""
        statements: list[Statement] = []
        quiet = False
        while self.token.kind != tk.END:
            if len(statements) == MAX_STATEMENTS:
                raise TOO_MANY_STATEMENTS(self.token.span, limit=MAX_STATEMENTS)
            statements.append(self.statement())
            if self.token.kind == tk.END:
                break
            quiet = self.separator()
        if self.reads_anew:
            refuse_names_at_once(self, statements)
        return LineTree(
            tuple(statements),
            quiet and bool(statements),
            note,
            brackets=tuple(self.pairs),
            at_stake=tuple(self.at_stake),
            contested=frozenset(self.contested),
        )

    def separator(self) -> bool:
        """Passes ``;`` or ``,``; true for a ``;`` that ends the line."""
        if self.takes(";"):
            return self.token.kind == tk.END
        if self.takes(","):
            if self.token.kind == tk.END:
                self.lack("Another expression is missing after the comma.")
            return False
        raise unreadable.unexpected(self)

    def statement(self) -> Statement:
        """An expression or an assignment."""
        start = self.token.span
        if self.sees("=") and self.tokens[self.at + 1].kind != tk.END:
            self.next()  # as a calculation begins that is copied from a table of cells
            start = self.token.span
        if self.token.text == "convert" and self.is_asked_to_convert():
            self.next()
        targets, live, parameters = read_targets(self) if self.has_equals else NO_TARGETS
        if targets and self.token.kind == tk.END:
            self.lack(f"The value of {targets[-1].name} is missing.")
        body = self.token.span
        before = self.quantities
        if parameters:
            self.quantities = NamesWith(before, parameters)
            self.parameters = frozenset(parameters)
        expression = self.expression()
        self.quantities = NamesWith(before, (one.name for one in targets)) if targets else before
        body = body.to(self.previous.span) if self.at else body
        span = start.to(body)
        if targets:
            return Assignment(span, expression, body, targets, live, parameters)
        self.pass_asking_sign()
        return Statement(span, expression, body)

    def is_asked_to_convert(self) -> bool:
        """Whether ``convert 5 km to mi`` is at hand."""
        is_name = "convert" in self.quantities or self.tokens[self.at + 1].kind == tk.OP
        forms = (token.text for token in self.tokens[self.at :])
        return self.reads_anew and not is_name and any(one in TO_FORM for one in forms)

    def pass_asking_sign(self) -> None:
        """Passes the ``=`` of a pasted ``2 + 3 =``."""
        behind = self.tokens[min(self.at + 1, len(self.tokens) - 1)]
        if self.sees("=") and (behind.kind == tk.END or behind.text in (";", ",")):
            self.next()

    # -- expressions ----------------------------------------------------------------

    def expression(self) -> Node:
        """Any expression, with the forms after it."""
        node = self.operation(OR)
        while self.sees("as") or self.converts():
            node = self.in_form(node)
        return node

    def converts(self) -> bool:
        """Whether ``in``, ``to`` or an arrow is at hand with a unit or a form, and nothing else,
        after it: then it is ``as``."""
        token = self.token
        if token.text not in CONVERTING or token.text in self.quantities:
            return False
        before = self.at
        self.at += 1
        if self.sees_sign_of_form():
            self.at += 1
            is_form_or_unit = True
        else:
            words = self.words_of_form()
            is_form_or_unit = is_form(words) or (len(words) == 1 and is_unit(words[0]))
        ends = self.token.kind == tk.END or self.token.text in (";", ",", ")", "]", "}", "as")
        self.at = before
        return is_form_or_unit and ends

    def sees_sign_of_form(self) -> bool:
        """Whether a sign stands for a form or a unit: the one of °F does not."""
        sign, behind = (*self.tokens[self.at : self.at + 2], self.tokens[-1])[:2]
        return sign.text in SIGNS_OF_FORMS and (
            behind.kind != tk.NAME or behind.span.start > sign.span.end
        )

    def in_form(self, node: Node) -> Node:
        sign = self.next()
        forms: list[tuple[str, ...]] = []
        while True:
            if self.sees_sign_of_form():
                words = SIGNS_OF_FORMS[self.next().text]
            else:
                words = self.words_of_form()
            if not words:
                if self.token.kind == tk.END:
                    self.lack("A form is missing after as.")
                    return node
                raise unreadable.unexpected(self)
            forms.append(words)
            if sign.text == "in":
                unreadable.refuse_inch(self, node, sign, words)
            if not (self.sees(",") and self.form_follows()):
                break
            self.next()
        span = Span(sign.span.start, self.previous.span.end)
        return Formatted(self.across(node, node).to(span), node, tuple(forms), span)

    def words_of_form(self, quantities: Container[str] = ()) -> tuple[str, ...]:
        """The words of the form at hand, which are passed; a unit is one of them.  After ``as``
        no name is a quantity."""
        unit = Cursor(self.text, self.tokens, (), quantities)
        unit.at, unit.reads_anew = self.at, self.reads_anew
        is_whole = is_form((self.token.text,)) and self.token.text not in ANGLES_OF_SHEETS
        is_article = self.token.text == YEAR and self.tokens[self.at + 1].kind == tk.NAME
        if not is_whole and not is_article and sees_measure(unit):
            read = read_unit(unit)
            self.at = unit.at
            unreadable.refuse_number_in_unit(self)
            return (read.text,)
        unit.at += self.token.text == "1"
        if sees_divisor(unit):  # as 1/s
            below = read_divisor(unit)
            self.at = unit.at
            return (below.text,)
        start = self.at
        while self.token.kind in (tk.NUMBER, tk.NAME):
            self.at += 1
        return tuple(token.text for token in self.tokens[start : self.at])

    def form_follows(self) -> bool:
        """Whether the words after this comma are one more form.

        A form is a name alone, or a whole number and a name; what else follows a
        comma is the next statement.
        """
        before = self.at
        self.at += 1
        words = self.words_of_form(self.quantities)
        ends = self.token.kind == tk.END or self.token.text in (";", ",", ")", "]")
        self.at = before
        return ends and (is_form(words) or (len(words) == 1 and is_unit(words[0])))

    def operation(self, least: int) -> Node:
        """Operands and the operators between them that bind as tightly as ``least``."""
        if least <= NOT and self.sees("not"):
            node, most = self.negation(), NOT
        else:
            node, most = self.signed(), ATOM
        return self.operation_behind(node, least, most)

    def operation_behind(self, node: Node, least: int, most: int) -> Node:
        """The operation that goes on after its first operand, whose outermost operator
        binds as tightly as ``most``."""
        while True:
            token = self.tokens[self.at]
            level = INFIX.get(token.text) if token.kind == tk.OP else None
            if level == SUM and token.text == "±":
                level = measured_values.level(self, node) if self.reads_anew else POLAR
            if level is None:
                if not least <= PRODUCT <= most or not self.starts_operand() or self.converts():
                    return node
                if self.reads_anew and measured_values.is_part_with_unit(self, node):
                    return node
                node, most = self.implied(node), PRODUCT
            elif not least <= level <= most:
                return node
            elif level == COMPARISON:
                node, most = self.comparison(node), NOT
            elif level == RANGE:
                node, most = self.range(node), COMPARISON
            else:
                node, most = self.binary(node, level), level

    def binary(self, left: Node, level: int) -> Node:
        """The operator at hand with its right operand."""
        sign = self.next()
        op = sign.text
        if op == "//":
            self.at -= 1
            raise unreadable.other_language(self, "div")
        if op == "±" and not self.reads_anew:
            right = self.operand(op, SIGN)
            return Binary(self.across(left, right), op, left, right, sign.span)
        right = self.operand(op, operand_precedences(op)[1])
        if op == "±":
            return measured_values.plus_minus(self, sign, left, right)
        if level == PRODUCT and self.reads_anew:
            measured_values.refuse_factor(self, left, right)
            if op == "/":
                unreadable.refuse_unit_of_divisor(self, right)
        node = Binary(self.across(left, right), op, left, right, sign.span)
        if op == "∠" and id(right) not in self.outer:
            self.refuse_half_angle(node)
        if op == "∠" and self.reads_anew and sees_measure(self):
            return self.measured(node)  # 230∠30° V
        return node

    def operand(self, sign: str, least: int) -> Node:
        """What stands after a sign; a box where nothing does."""
        if self.tokens[self.at].kind == tk.END:
            return self.lack(describe_gap(sign))
        return self.operation(least)

    def negation(self) -> Node:
        sign = self.next()
        operand = self.nested(self.negated, describe_gap("not"))
        return Prefix(sign.span.to(self.across(operand, operand)), "not", operand)

    def negated(self) -> Node:
        return self.operation(NOT)

    def comparison(self, first: Node) -> Node:
        operands, ops = [first], []
        while self.token.kind == tk.OP and self.token.text in COMPARISONS:
            ops.append(self.next().text)
            operands.append(self.operand(ops[-1], RANGE))
        return Comparison(self.across(first, operands[-1]), tuple(operands), tuple(ops))

    def range(self, start: Node) -> Node:
        sign = self.next()
        if self.item_of is not None and self.token.text == "]":  # w[2..]
            last = Call(sign.span, "count", (self.item_of,), (), sign.span)
            return Range(self.across(start, start).to(sign.span), start, last)
        stop = self.operand("..", SUM)
        step = self.operand("by", SUM) if self.takes("by") else None
        return Range(self.across(start, step or stop), start, stop, step)

    def implied(self, left: Node) -> Node:
        """Multiplication with no sign, or the error of two operands side by side."""
        before, behind = self.previous, self.token
        if self.ends_in_measure(left):
            if self.is_factor_of_measure():
                return self.product_with(left)
            if behind.kind == tk.NUMBER or behind.text not in self.quantities:
                unreadable.refuse_beside_measure(self)
            elif behind.kind == tk.NAME:
                return self.product_with(left)  # 12 V Q
        meant = (
            words_for_signs.form_without_as(self)
            or words_for_signs.in_words(self)
            or words_for_signs.run_together(self, before, behind)
        )
        if meant is not None:
            raise meant
        opens_two_bars = behind.text == "|" and self.tokens[self.at + 1].text == "|"
        if opens_two_bars and self.reads_anew:
            raise self.side_by_side()  # R_1 || R_2 || R_3
        both_numbers = before.kind == tk.NUMBER and behind.kind in (tk.NUMBER, tk.SEXAGESIMAL)
        if both_numbers or not self.multiplies():
            called = self.called_without_brackets(left)
            if called is not None:
                return called
            raise self.side_by_side()
        return self.product_with(left)

    def is_factor_of_measure(self) -> bool:
        """Whether the call of a function, a root, or a bracket with a space before it is at hand,
        which multiplies a number with its unit: ``500 N cos(30°)``, ``500 N cos 30°``."""
        token, behind = self.tokens[self.at : self.at + 2]
        if token.kind == tk.NAME:
            if token.text not in self.functions or token.text in self.quantities:
                return False
            return behind.text == "(" or self.sees_bare_call()
        is_apart = token.span.start > self.previous.span.end
        return self.sees_root() or (token.text == "(" and is_apart)

    def ends_in_measure(self, node: Node) -> bool:
        """Whether the last factor is a number with its unit, as in ``12 V`` and ``2*50 Hz``."""
        while isinstance(node, Binary) and node.op in ("*", IMPLIED) and id(node) not in self.outer:
            node = node.right
        return isinstance(node, Measured) and id(node) not in self.outer

    def product_with(self, left: Node) -> Node:
        """What stands before times what is at hand, with no sign between."""
        place = Span(self.previous.span.end, self.token.span.start)
        right = self.power()
        right = self.called_without_brackets(right) or right
        node = Binary(self.across(left, right), IMPLIED, left, right, place)
        number = left.operand if isinstance(left, Prefix) and left.op == "-" else left
        is_unit = isinstance(right, Name) and right.name in ("i", "j")
        is_imaginary = is_unit and isinstance(number, Literal)
        if is_imaginary and self.reads_anew and sees_measure(self):
            return self.measured(node)  # 40i Ω
        return node

    def sees_bare_call(self) -> bool:
        """Whether a function with an argument without brackets is at hand."""
        at, nesting, brackets = self.at, self.nesting, [*self.brackets]
        try:
            return self.called_without_brackets(self.power()) is not None
        except LineError:
            return False
        finally:
            self.at, self.nesting, self.brackets = at, nesting, brackets

    def called_without_brackets(self, function: Node) -> Node | None:
        """``sin x`` and ``ln 2``: the call of a function with one name or number, which nothing
        follows that could belong to it; None where it is not."""
        is_name = isinstance(function, Name) and function.span == self.previous.span
        if not is_name or not unreadable.is_call_without_brackets(self):
            return None
        assert isinstance(function, Name)
        if self.token.kind not in (tk.NAME, tk.NUMBER) or self.token.text in self.functions:
            return None
        before = self.at
        argument = self.postfix()
        ends = self.token.kind == tk.END or self.token.text in ENDS_ARGUMENT or self.converts()
        if self.sees(",") and self.tokens[self.at + 1].kind == tk.NUMBER:
            ends = False  # max 3, 4
        if not ends or isinstance(argument, Call):
            self.at = before
            return None
        span = function.span.to(self.across(argument, argument))
        return Call(span, function.name, (argument,), (), function.span)

    def side_by_side(self) -> LineError:
        """The error of two operands with nothing between them."""
        if unreadable.is_call_without_brackets(self):
            ends = [self.end_of(read) for read in (self.product, self.power)]
            return unreadable.call_without_brackets(self, self.previous, ends)
        return unreadable.side_by_side(self)

    def product(self) -> Node:
        return self.operation(PRODUCT)

    def end_of(self, read: Callable[[], Node]) -> int:
        """Where what ``read`` reads from here would end; 0 where it cannot be read."""
        at, nesting, brackets = self.at, self.nesting, [*self.brackets]
        try:
            read()
            return self.previous.span.end
        except LineError:
            return 0
        finally:
            self.at, self.nesting, self.brackets = at, nesting, brackets

    def refuse_half_angle(self, phasor: Binary) -> None:
        """``5∠pi/6``, ``5∠2*15°`` and ``5∠30°^2``: what the angle is has to be asked."""
        angle = phasor.right.operand if isinstance(phasor.right, Prefix) else phasor.right
        if id(angle) in self.outer:
            return
        if isinstance(angle, Binary) and angle.op == "^":
            raise unreadable.angle_with_power(self, phasor, angle)
        is_pi = isinstance(angle, Name) and angle.name == "pi"
        over_phasor = self.sees("/") and self.tokens[self.at : self.at + 3][-1].text == "∠"
        if over_phasor:
            return
        goes_on = self.sees("/") or self.starts_operand() or self.sees_factor_of_angle()
        if (isinstance(angle, Literal) and goes_on) or (is_pi and (goes_on or self.sees("*"))):
            end = self.end_of(lambda: self.operation_behind(phasor.right, PRODUCT, PRODUCT))
            raise unreadable.angle_goes_on(self, phasor, end or self.token.span.end)

    # -- one operand ------------------------------------------------------------------

    def signed(self) -> Node:
        token = self.tokens[self.at]
        if token.kind == tk.OP and token.text in ("-", "+"):
            self.at += 1
            operand = self.nested(self.signed, describe_gap(token.text))
            return Prefix(token.span.to(self.across(operand, operand)), token.text, operand)
        return self.power()

    def power(self) -> Node:
        token = self.tokens[self.at]
        base = self.root() if token.kind == tk.OP and self.sees_root() else self.postfix()
        sign = self.tokens[self.at]
        if sign.kind != tk.OP or sign.text not in ("^", "**"):
            return base
        self.at += 1
        self.in_exponent += 1
        exponent = self.nested(self.signed, "An exponent is missing after ^.")
        self.in_exponent -= 1
        node = Binary(self.across(base, exponent), "^", base, exponent, sign.span)
        may_be_unit = not self.in_exponent and (
            takes_unit(self, base) if self.reads_anew else isinstance(base, Literal)
        )
        if may_be_unit and sees_measure(self):
            return self.measured(node)  # 10^-3 mol/L
        return node

    def root(self) -> Node:
        sign = self.next()
        operand = self.nested(self.power, "A number is missing under the root.")
        if isinstance(operand, Measured) and self.reads_anew and id(operand) not in self.outer:
            root = self.root_of(sign, operand.number)  # √2 m has the unit after the root
            return Measured(root.span.to(operand.span), root, operand.unit, operand.unit_span)
        return self.root_of(sign, operand)

    def root_of(self, sign: Token, operand: Node) -> Node:
        span = sign.span.to(self.across(operand, operand))
        function, degree = ROOT_SIGNS.get(sign.text) or ("root", sign.text[:-1])
        degrees = (Literal(sign.span, *literal_value(degree, sign.span)),) if degree else ()
        return Call(span, function, (operand, *degrees), (), sign.span)

    def postfix(self) -> Node:
        token = self.tokens[self.at]
        read = ATOMS.get(token.kind)
        if read is None:
            node = self.bracket()
        else:
            self.at += 1
            node = read(self, token)
        while True:
            token = self.tokens[self.at]
            if token.kind == tk.OP:
                if token.text not in BEHIND:
                    return self.measured_below(node) if self.sees_bar_over_unit(node) else node
                if token.text == "!":
                    node = self.factorial(node)
                elif token.text == "%":
                    node = self.percent(node)
                elif token.text == ".":
                    if not self.takes_column():
                        return node
                    node = self.column(node)
                elif token.text == "[":
                    if not (self.takes_item() or isinstance(node, ColumnOf)):
                        return node
                    node = self.item(node)
                elif token.text == "°" and self.takes_unit(node) and sees_measure(self):
                    node = self.measured(node)
                else:
                    node = self.with_unit(node)
            elif token.kind == tk.POWER:
                node = self.raised(node, self.next())
            elif token.kind == tk.NUMBER and self.sees_reciprocal(node):
                node = self.measured_below(node)
            elif token.kind != tk.NAME:
                return node
            elif self.takes_unit(node) and sees_measure(self):
                node = self.measured(node)
            elif token.text in UNIT_WORDS and self.sees_unit():
                node = self.with_unit(node)
            else:
                return node

    def takes_unit(self, node: Node) -> bool:
        """Whether a unit may stand here: one after an exponent is that of the power."""
        return takes_unit(self, node) and not (
            self.in_exponent and (self.reads_anew or isinstance(node, Literal))
        )

    def behind(self, node: Node, sign: Token) -> Node:
        return Postfix(self.across(node, node).to(sign.span), sign.text, node)

    def with_unit(self, node: Node) -> Node:
        return self.behind(node, self.next())

    def measured(self, number: Node) -> Node:
        """A number with the unit of measurement after it."""
        start = self.token.span
        unit = read_unit(self)
        place = start.to(self.previous.span)
        return Measured(self.across(number, number).to(place), number, unit, place)

    def sees_bar_over_unit(self, node: Node) -> bool:
        """Whether a bar and a unit stand after a number, as in ``1000/m``; a name that has a value
        is that quantity."""
        if not self.sees("/") or not isinstance(node, Literal) or self.in_exponent:
            return False
        unit, behind = (*self.tokens[self.at + 1 : self.at + 3], self.tokens[-1])[:2]
        if unit.kind != tk.NAME:
            return not self.has_quantity_below() and sees_divisor(self)
        if unit.text in ANGLES_OF_SHEETS or atom_of(unit.text) is None or behind.text == "(":
            return False
        self.at_stake.add((unit.text, unit.span.start))
        return unit.text not in self.quantities and unit.text not in CONSTANT_NAMES

    def has_quantity_below(self) -> bool:
        """Whether a name in the brackets after the bar at hand has a value: ``1/(R C)``."""
        depth = 0
        for token in self.tokens[self.at + 1 :]:
            depth += (token.text == "(") - (token.text == ")")
            if token.kind == tk.NAME and self.has_value(token):
                return True
            if depth <= 0:
                return False
        return False

    def sees_reciprocal(self, node: Node) -> bool:
        """Whether ``1/K`` stands after a number, as its unit: ``3.9e-3 1/K``."""
        if self.token.text != "1" or not isinstance(node, Literal) or self.in_exponent:
            return False
        cursor = Cursor(self.text, self.tokens, self.functions, self.quantities)
        cursor.at = self.at + 1
        return sees_divisor(cursor)

    def measured_below(self, number: Node) -> Node:
        """A number with ``1/K`` after it."""
        start = self.token.span
        self.at += not self.sees("/")  # the 1 of 1/K
        unit = read_divisor(self)
        place = start.to(self.previous.span)
        return Measured(self.across(number, number).to(place), number, unit, place)

    def factorial(self, node: Node) -> Node:
        sign = self.next()
        if self.sees("!") and sign.span.end == self.token.span.start:
            raise unreadable.two_factorials(self, node)
        return self.behind(node, sign)

    def percent(self, node: Node) -> Node:
        sign = self.next()
        part = self.behind(node, sign)
        if self.reads_anew and measured_values.is_part_with_unit(self, part):
            return part
        if self.starts_operand() and not self.sees_unit():
            if self.token.text == "of" and "of" not in self.quantities:
                raise unreadable.part_of(self)
            self.at -= 1
            raise unreadable.other_language(self, "mod")
        return self.behind(node, sign)

    def takes_item(self) -> bool:
        """Whether a square bracket here takes an item of what stands before it: it
        does so after a name and after a bracket."""
        return self.previous.kind in (tk.NAME, tk.ANSWER) or self.previous.text in (")", "]")

    def takes_column(self) -> bool:
        """Whether a point here takes a column of what stands before it: it does so after
        a name or a bracket, with a name or a text right after it."""
        point, behind = self.token, self.tokens[self.at + 1]
        if not self.takes_item() or behind.kind not in (tk.NAME, tk.TEXT):
            return False
        is_close = self.previous.span.end == point.span.start
        return is_close and point.span.end == behind.span.start

    def column(self, of: Node) -> Node:
        self.at += 1
        named = self.next()
        name = named.text.strip('"') if named.kind == tk.TEXT else named.text
        return ColumnOf(self.across(of, of).to(named.span), of, name, named.span)

    def item(self, of: Node) -> Node:
        opening = self.open()
        if isinstance(of, Name) and of.name in self.functions and of.name not in self.quantities:
            unreadable.refuse_square_call(self, of)
        outside, self.item_of = self.item_of, of
        index = self.nested(self.expression, "The position of an item is missing.")
        if self.takes(","):  # A[2, 1]
            of = Subscript(self.across(of, of).to(self.previous.span), of, index)
            index = self.nested(self.expression, "The position of a column is missing.")
        self.item_of = outside
        self.close("]")
        return Subscript(self.across(of, of).to(self.previous.span or opening.span), of, index)

    def raised(self, base: Node, token: Token) -> Node:
        """``base`` with a superscript such as ² after it."""
        figures = token.text.lstrip("+-")
        exponent: Node = Literal(token.span, *literal_value(figures, token.span))
        if token.text[0] in "+-":
            exponent = Prefix(token.span, token.text[0], exponent)
        return Binary(self.across(base, exponent), "^", base, exponent, token.span)

    # -- atoms ------------------------------------------------------------------

    def bracket(self) -> Node:
        """What an opening bracket begins; nothing else may stand here."""
        token = self.tokens[self.at]
        read = BRACKETED.get(token.text) if token.kind == tk.OP else None
        if read is not None:
            return read(self, token)
        if token.kind == tk.END:
            return self.lack(describe_gap(self.previous.text if self.at else ""))
        raise unreadable.unexpected(self)

    def answer(self, token: Token) -> Node:
        number = token.text[1:]
        if len(number) > MAX_LINE_FIGURES:
            raise NO_LINE(token.span, number=f"{number[:6]}…")
        return AnswerOf(token.span, int(number) if number else None)

    def name_or_call(self, name: Token) -> Node:
        if not self.sees("(") or self.multiplies_bracket(name):
            if (name.text in self.functions and self.sees("^")) or self.token.kind == tk.POWER:
                powered = self.function_power(name)
                if powered:
                    return powered
            return Name(name.span, name.text)
        binds = name.text in BINDING and name.text not in self.quantities
        args, named = self.arguments(frozenset(self.names_bound()) if binds else frozenset())
        return self.call(name, args, named)

    def names_bound(self) -> Iterator[str]:
        """The names that the call at hand binds, which are known within it."""
        depth, at = 0, self.at
        while at < len(self.tokens) - 1:
            token, after = self.tokens[at], self.tokens[at + 1]
            depth += (token.text in ("(", "[")) - (token.text in (")", "]"))
            if not depth:
                return
            is_name = token.kind == tk.NAME and self.tokens[at - 1].text in (",", "(", "[")
            if is_name and (
                after.text == "=" or (after.text in (")", ",", "]") and at > self.at + 1)
            ):
                yield token.text
            at += 1

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
                begin = self.token.span.start
                self.power()
                place = Span(begin, self.previous.span.end)
                raise unreadable.power_without_brackets(self, name, minus + power.text, place)
            self.at = start
            return None
        opening = self.token.span
        args, named = self.arguments()
        if negative:
            inside = self.text[opening.start : self.previous.span.end]
            raise unreadable.inverse_or_reciprocal(self, name, power.text, inside)
        exponent = Literal(power.span, *literal_value(power.text, power.span))
        span = name.span.to(self.previous.span)
        return Binary(span, "^", self.call(name, args, named), exponent, sign.span)

    def arguments(
        self, bound: frozenset[str] = frozenset()
    ) -> tuple[tuple[Node, ...], tuple[tuple[str, Node], ...]]:
        """What stands in the brackets of a call, which binds names in its expressions."""
        self.open()
        args: list[Node] = []
        named: list[tuple[str, Node]] = []
        while not self.sees(")"):
            is_name = self.token.kind == tk.NAME or self.token.text == "by"
            if is_name and self.tokens[self.at + 1].text == "=":
                name = self.next().text
                self.next()
                named.append(
                    (name, self.nested(self.expression, f"A value for {name} is missing."))
                )
            else:
                outer = self.quantities, self.parameters
                if bound:
                    self.quantities = NamesWith(self.quantities, bound)
                    self.parameters |= bound
                args.append(self.nested(self.argument, "An argument is missing."))
                self.quantities, self.parameters = outer
            if not self.takes(","):
                break
        self.close(")")
        return tuple(args), tuple(named)

    def argument(self) -> Node:
        """One argument.  Two with nothing between are arguments without their commas."""
        start = self.at
        try:
            return self.expression()
        except LineError as error:
            if not error.is_a(SIDE_BY_SIDE):
                raise
            self.at = start
            error.mends = (*unreadable.arguments_without_commas(self), *error.mends)
            raise

    def text_literal(self, token: Token) -> Node:
        is_closed = len(token.text) >= 2 and token.text[-1] == '"'
        if not is_closed:
            self.lack_of(Unfinished("The closing quotation mark is missing.", token.span, '"'))
        start, end = token.span.start + 1, token.span.end - is_closed
        return Text(token.span, tuple(self.parts_of_text(start, end)))

    def parts_of_text(self, start: int, end: int) -> Iterator[str | Node]:
        """What a text is made of: what stands there, and expressions in braces."""
        words = ""
        while start < end:
            sign = self.text[start]
            if sign in "{}" and self.text[start + 1 : min(start + 2, end)] == sign:
                words, start = words + sign, start + 2
            elif sign == "}":
                raise UNOPENED_BRACE(Span(start, start + 1), (doubled(start, sign),))
            elif sign == "{":
                if words:
                    yield words
                closing = self.text.find("}", start, end)
                if closing < 0:
                    raise UNCLOSED_BRACE(Span(start, start + 1), (doubled(start, sign),))
                yield self.filled_in(start + 1, closing)
                words, start = "", closing + 1
            else:
                words, start = words + sign, start + 1
        if words:
            yield words

    def filled_in(self, start: int, end: int) -> Node:
        """The expression that stands in a text from ``start`` to ``end``."""
        tokens = tokens_of(self.text, start, end)
        inner = Parser(self.text, tokens, self.functions, self.quantities)
        try:
            node = inner.expression()
            if inner.token.kind != tk.END:
                raise unreadable.unexpected(inner)
        except Unfinished as error:
            raise EMPTY_BRACES(Span(start - 1, end + 1), missing=error.text) from None
        self.pairs.append((Span(start - 1, start), Span(end, end + 1)))
        return node

    def bracketed(self, opening: Token) -> Node:
        self.open()
        outside, self.in_exponent = self.in_exponent, 0
        node = self.nested(self.expression, "The brackets are empty.")
        self.in_exponent = outside
        self.close(")")
        is_measured = isinstance(node, Binary) and node.op == "±" and self.reads_anew
        power = number_literals.power_of_ten(self) if is_measured else ""
        if power:  # (1.602 ± 0.001)e-19
            node = measured_values.times_ten(node, power[1:])
        self.outer[id(node)] = opening.span.to(self.previous.span)
        return node

    def list_of(self, opening: Token) -> Node:
        self.open()
        items: list[Node] = []
        rows: list[Node] = []
        start = self.token.span
        while not self.sees("]"):
            items.append(self.nested(self.list_item, "An item of the list is missing."))
            if self.sees(";") and not self.has_decimal_commas(opening):
                rows.append(ListOf(start.to(self.previous.span), tuple(items)))
                items = []
                self.next()
                start = self.token.span
            elif not self.takes(","):
                break
        if rows and items:
            rows.append(ListOf(start.to(self.previous.span), tuple(items)))
        self.close("]")
        return ListOf(opening.span.to(self.previous.span), tuple(rows or items))

    def has_decimal_commas(self, opening: Token) -> bool:
        """Whether each row may be a number with a decimal comma, as in ``[1,5; 2,5]``."""
        return DECIMAL_COMMAS.match(self.text, opening.span.start) is not None

    def list_item(self) -> Node:
        """One item.  Two with nothing between are a list without its commas."""
        start = self.at
        try:
            return self.expression()
        except LineError as error:
            if not error.is_a(SIDE_BY_SIDE):
                raise
            self.at = start
            raise unreadable.list_without_commas(self, self.brackets[-1]) from None

    def bars(self, opening: Token) -> Node:
        self.open()
        node = self.nested(self.expression, "The bars are empty.")
        if not self.sees("|") and self.token.kind != tk.END:
            raise unreadable.unclosed_bar(self, opening)
        self.close("|")
        return Call(opening.span.to(self.previous.span), "abs", (node,), (), opening.span)

    def open(self) -> Token:
        opening = self.next()
        self.brackets.append(opening)
        return opening

    def close(self, sign: str) -> None:
        """Passes the bracket that closes the one opened last."""
        if self.token.kind == tk.END:
            self.lack("")
            end = self.token.span.end
            self.tokens[self.at :] = [
                Token(tk.OP, sign, Span(end, end + 1)),
                Token(tk.END, "", Span(end + 1, end + 1)),
            ]
        if not self.sees(sign):
            raise unreadable.unexpected(self)
        self.pairs.append((self.brackets.pop().span, self.next().span))

    # -- helpers -----------------------------------------------------------------

    def lack(self, missing: str) -> Node:
        """The box for what is ``missing`` at the end of a line that is still being typed.

        Errors: :class:`Unfinished` in any other line.
        """
        self.lack_of(self.waiting(missing))
        end = self.token.span.end
        return Name(Span(end, end), BOX)

    def lack_of(self, missing: Unfinished) -> None:
        """Notes what is missing.  Errors: as :meth:`lack`."""
        if not self.closes:
            raise missing
        self.missing = self.missing or missing

    def nested(self, read: Callable[[], Node], missing: str) -> Node:
        """``read()`` one level deeper, within the limit of nesting; ``missing`` is said where
        the line ends here."""
        if self.tokens[self.at].kind == tk.END:
            return self.lack(missing)
        self.nesting += 1
        if self.nesting > MAX_NESTING:
            raise TOO_DEEP(self.token.span, limit=MAX_NESTING)
        node = read()
        self.nesting -= 1
        return node


def doubled(place: int, brace: str) -> Mend:
    """The mend that makes a brace a sign of the text."""
    return replace(Span(place, place + 1), brace * 2)


Read = Callable[[Parser, Token], Node]

ATOMS: dict[str, Read] = {
    tk.NUMBER: number_literals.number,
    tk.NAME: Parser.name_or_call,
    tk.FRACTION: number_literals.fraction,
    tk.SEXAGESIMAL: number_literals.sexagesimal,
    tk.ANSWER: Parser.answer,
    tk.TEXT: Parser.text_literal,
}
"""Who reads on after a token of each kind."""

BRACKETED: dict[str, Read] = {
    "(": Parser.bracketed,
    "|": Parser.bars,
    "[": Parser.list_of,
}
"""Who reads what an opening bracket begins."""
