"""The names before ``=`` or ``:=``, and the mends for what cannot be a name."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engine.errors import LineError, Span, replace
from engine.reading import tokens as tk
from engine.reading.tokens import Token
from engine.reading.tree import Name

if TYPE_CHECKING:
    from engine.reading.parser import Parser


def read_targets(parser: Parser) -> tuple[tuple[Name, ...], bool]:
    """The targets of the assignment that begins here, and whether it is live.

    No targets where the statement is none.  Errors: :class:`LineError` where
    something that cannot be a name stands before the sign.
    """
    targets: list[Name] = []
    while True:
        sign = _assignment_sign(parser)
        if sign is None:
            return tuple(targets), False
        before = parser.tokens[parser.at : sign]
        if not _is_name(before):
            raise _bad_target(parser.text, before, parser.tokens[sign])
        targets.append(Name(before[0].span, before[0].text))
        parser.at = sign + 1
        if parser.previous.text == ":=":
            return tuple(targets), True


def _assignment_sign(parser: Parser) -> int | None:
    """Where the next ``=`` or ``:=`` of this statement stands, outside brackets."""
    depth = 0
    for at in range(parser.at, len(parser.tokens)):
        token = parser.tokens[at]
        if token.kind == tk.OP:
            depth += (token.text == "(") - (token.text == ")")
            if depth == 0 and token.text in (";", ","):
                return None
            if depth == 0 and token.text in ("=", ":="):
                return None if _only_asks(parser.tokens, at) else at
    return None


def _only_asks(tokens: list[Token], at: int) -> bool:
    """Whether the ``=`` at ``at`` is that of a pasted ``2 + 3 =``."""
    behind = tokens[at + 1]
    ends = behind.kind == tk.END or behind.text in (";", ",")
    is_calculation = at >= 2 and any(
        token.kind == tk.OP and token.text not in tk.WORDS for token in tokens[:at]
    )
    return ends and is_calculation


def _is_name(tokens: list[Token]) -> bool:
    return len(tokens) == 1 and tokens[0].kind == tk.NAME


def _bad_target(text: str, before: list[Token], sign: Token) -> LineError:
    if not before:
        return LineError("no-target", f"A name is missing before {sign.text}.", sign.span)
    span = Span(before[0].span.start, before[-1].span.end)
    typed = text[span.start : span.end]
    mended = _mended_name(before)
    if mended:
        return LineError(
            "bad-name",
            f"{typed} cannot be a name: {_why(before)}.",
            span,
            (replace(span, mended),),
        )
    if len(before) > 3 and before[0].kind == tk.NAME and before[1].text == "(":
        text = f"{typed} cannot be given a value: functions of one's own are not here yet."
        return LineError("own-function", text, span)
    equal = (replace(sign.span, "=="),) if sign.text == "=" else ()
    return LineError(
        "bad-target", f"Only a name can be given a value, and {typed} is not one.", span, equal
    )


def _why(before: list[Token]) -> str:
    if before[0].kind == tk.NUMBER:
        return "a name begins with a letter"
    if before[0].text in tk.WORDS:
        return "it is a word of the language"
    return "a name has only letters, digits and _"


def _mended_name(before: list[Token]) -> str:
    kinds = [token.kind for token in before]
    words = [token.text for token in before]
    if kinds == [tk.OP] and words[0] in tk.WORDS:
        return words[0] + "_"
    if kinds == [tk.NUMBER, tk.NAME] and words[0].isdecimal():
        return words[1] + words[0]
    joined = [word for word in words if word not in (".", "-")]
    if kinds[0] == tk.NAME and all(word.isidentifier() or word.isdecimal() for word in joined):
        return "_".join(joined)
    return ""
