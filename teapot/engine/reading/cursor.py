"""A place among the tokens of a line: what the parser and its complaints share."""

from __future__ import annotations

from collections.abc import Container

from teapot.engine.errors import Unfinished
from teapot.engine.mends import Span
from teapot.engine.reading import tokens as tk
from teapot.engine.reading.tokens import Token
from teapot.engine.reading.tree import Node
from teapot.engine.reading.vocabulary import CONSTANT_NAMES, UNIT_SIGNS, UNIT_WORDS
from teapot.engine.units.table import atom_of

ROOT_SIGNS = {"√": ("sqrt", ""), "2√": ("sqrt", ""), "∛": ("cbrt", ""), "3√": ("cbrt", ""),
              "∜": ("root", "4")}  # fmt: skip
"""The signs of roots, each with its function and its degree."""

OPERAND_KINDS = frozenset({tk.NUMBER, tk.FRACTION, tk.SEXAGESIMAL, tk.NAME, tk.ANSWER, tk.TEXT})
"""Kinds of token that begin an operand, whatever they say."""

CLOSING = {"(": ")", "[": "]", "|": "|"}


class Cursor:
    """Where one is in a line, which brackets are open there, and which names are known.

    ``functions`` are the names that the language has, ``quantities`` those of the sheet.
    ``pairs`` are the brackets that were closed, ``outer`` the places of nodes with the
    brackets around them, ``at_stake`` the names with their places that would be units, did no
    quantity have them; ``contested`` those that quantities have, of which those at the places
    ``as_units`` are units all the same; ``parameters`` are those of a function that is defined.
    With ``closes`` what is open at the end is taken as closed: ``missing`` then tells what was.
    """

    reads_anew = True
    """Whether the line is a new one.  In one that was kept before the language grew, ``5.32(4)``
    is a product, ± binds more tightly than + and −, and ``2024-03-01`` is a difference."""

    def __init__(
        self,
        text: str,
        tokens: list[Token],
        functions: Container[str] = (),
        quantities: Container[str] = (),
        closes: bool = False,
    ) -> None:
        self.text = text
        self.tokens = tokens
        self.functions = functions
        self.quantities = quantities
        self.closes = closes
        self.missing: Unfinished | None = None
        self.at = 0
        self.nesting = 0
        self.brackets: list[Token] = []
        self.pairs: list[tuple[Span, Span]] = []
        self.outer: dict[int, Span] = {}
        self.at_stake: set[tuple[str, int]] = set()
        self.as_units: frozenset[int] = frozenset()
        self.contested: set[int] = set()
        self.parameters: frozenset[str] = frozenset()

    # -- tokens ------------------------------------------------------------------------

    @property
    def token(self) -> Token:
        """The one at hand."""
        return self.tokens[self.at]

    @property
    def previous(self) -> Token:
        """The one before it."""
        return self.tokens[self.at - 1]

    def next(self) -> Token:
        """The one at hand, which is passed."""
        token = self.tokens[self.at]
        self.at += 1
        return token

    def sees(self, *signs: str) -> bool:
        """Whether one of the signs is at hand."""
        token = self.tokens[self.at]
        return token.kind == tk.OP and token.text in signs

    def takes(self, sign: str) -> bool:
        """Passes the sign where it is at hand; whether it was."""
        token = self.tokens[self.at]
        if token.kind == tk.OP and token.text == sign:
            self.at += 1
            return True
        return False

    def typed(self, span: Span) -> str:
        """What stands at a place."""
        return self.text[span.start : span.end]

    # -- what is at hand ------------------------------------------------------------------

    def starts_operand(self) -> bool:
        """Whether the token at hand would begin an operand, were one wanted."""
        token = self.tokens[self.at]
        if token.kind in OPERAND_KINDS:
            return True
        if token.kind != tk.OP:
            return False
        if token.text == "|":
            return not any(bracket.text == "|" for bracket in self.brackets)
        return token.text == "(" or self.sees_root()

    def sees_root(self) -> bool:
        """Whether a root's sign stands here, with its degree raised before it or without."""
        token = self.tokens[self.at]
        return token.kind == tk.OP and (token.text in ROOT_SIGNS or token.text[-1:] == "√")

    def sees_unit(self) -> bool:
        """Whether the token at hand is a unit of angles, and not a quantity or call."""
        token = self.tokens[self.at]
        if token.kind == tk.OP:
            return token.text in UNIT_SIGNS
        is_word = token.kind == tk.NAME and token.text in UNIT_WORDS
        return is_word and token.text not in self.quantities

    def sees_factor_of_angle(self) -> bool:
        """Whether ``* pi`` or ``* 15°`` comes, which makes an angle of a number."""
        if not self.sees("*"):
            return False
        factor, *behind = self.tokens[self.at + 1 : self.at + 3]
        has_unit = bool(behind) and behind[0].text in UNIT_SIGNS | UNIT_WORDS
        return factor.text == "pi" or factor.kind == tk.SEXAGESIMAL or has_unit

    def has_constant(self, before: Token, behind: Token) -> bool:
        """Whether two names stand side by side of which one is a constant: ``2 pi r``."""
        if before.kind != tk.NAME or behind.kind != tk.NAME or before.text in self.functions:
            return False
        return any(
            token.text in CONSTANT_NAMES and token.text not in self.quantities
            for token in (before, behind)
        )

    def has_value(self, token: Token) -> bool:
        """Whether it is the name of a quantity or of a constant, and not of a function."""
        if token.kind != tk.NAME:
            return False
        self.at_stake.add((token.text, token.span.start))
        return token.text in self.quantities or token.text in CONSTANT_NAMES

    def multiplies(self) -> bool:
        """Whether the operand before and the one at hand are a product, with no sign between:
        where nothing else can be meant."""
        before, behind = self.previous, self.token
        if before.kind in (tk.NUMBER, tk.FRACTION, tk.POWER) or before.text in (")", "|"):
            return True
        if self.has_constant(before, behind):
            return True
        if not self.has_value(before):
            return False
        if behind.kind == tk.NAME:
            is_one_name = f"{before.text}_{behind.text}" in self.quantities
            follows = self.tokens[self.at + 1]
            is_called = follows.text == "(" or follows.kind in (tk.NAME, tk.NUMBER)
            is_call = behind.text in self.functions and is_called
            return not is_one_name and (is_call or self.has_value(behind))
        if behind.kind == tk.NUMBER:  # B I 10 cm
            unit = self.tokens[self.at + 1]
            return unit.kind == tk.NAME and atom_of(unit.text) is not None
        return behind.text in ("(", "|") or self.sees_root()

    def multiplies_bracket(self, name: Token) -> bool:
        """Whether a bracket after the name of a quantity or of a constant, with a space between,
        is a factor."""
        gap = self.token.span.start - name.span.end
        return gap > 0 and self.has_value(name)

    # -- places ---------------------------------------------------------------------------

    def across(self, first: Node, last: Node) -> Span:
        """From the start of ``first`` to the end of ``last``, their brackets included."""
        outer = self.outer
        start = outer.get(id(first), first.span)
        return Span(start.start, outer.get(id(last), last.span).end)

    def waiting(self, missing: str) -> Unfinished:
        """The line ends too early: what is ``missing``, or the brackets that are open."""
        end = self.token.span
        closing = "".join(CLOSING[bracket.text] for bracket in reversed(self.brackets))
        if missing:
            return Unfinished(missing, end)
        if len(closing) == 1:
            text = f"The closing {closing} is missing."
        else:
            text = f"{len(closing)} closing brackets are missing: {closing}"
        return Unfinished(text, end, closing)


def describe_gap(sign: str) -> str:
    """What is said to be missing after a sign, or at the start where there is none."""
    return f"A value is missing after {sign}." if sign else "An expression is missing."
