"""What a template shows of a line while it is typed.  Each key does, so that what comes again from
key to key, the card at the caret and the rows of completions, is made once."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import Any

from django.template.loader import render_to_string
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from teapot.console.templatetags.showing import buttons
from teapot.engine.aids.completion import Completion
from teapot.engine.aids.hint import Card
from teapot.engine.aids.typing import SoFar
from teapot.engine.mends import Span
from teapot.engine.sentences.work import BUSY, STARVED, STILL_READING

MOST_CARDS, MOST_ROWS = 500, 5000
"""Cards and rows of completions that are kept for the next key, whoever presses it."""


READING = '<span class="reading"><math displaystyle="true">{}</math></span>'
VALUE = (
    '<span class="value" data-text="{}" data-sign="{}">'
    '<math displaystyle="true"><mo>{}</mo>{}</math></span>'
)
SAID = '<span class="notice"{}>{}{}</span>'
NOTICE, GOES_ON = mark_safe(' data-testid="notice"'), mark_safe(" data-goes-on")
"""What a sentence is marked with; one that goes on is asked for again by the page."""

ONLY_YET = frozenset(kind.code for kind in (BUSY, STARVED, STILL_READING))
"""The errors of a line that says something else a moment later: the server is to blame."""


WHOLE = (
    '{statements}\n{said}\n<template id="completions-made">{completions}</template>\n'
    '<data id="company" hidden data-for="{input}" data-operands="{operands}"'
    ' data-brackets="{brackets}" data-parts="{parts}"></data>\n{hint}\n'
)


def as_html(outcome: SoFar) -> str:
    """What is shown of it."""
    return format_html(WHOLE, **shown_while_typed(outcome))


def shown_while_typed(outcome: SoFar) -> dict[str, Any]:
    """The same in its parts."""
    said = [format_html(SAID, NOTICE, one.text, buttons(one.mends)) for one in outcome.notices]
    if outcome.error is not None:
        mark = GOES_ON if outcome.error.code in ONLY_YET else ""
        said.append(format_html(SAID, mark, outcome.error.text, buttons(outcome.error.mends)))
    return {
        "statements": _joined(_statements(outcome)),
        "said": _joined(said),
        "completions": _joined(map(_row, outcome.completions)),
        "hint": _card(outcome.hint),
        "input": outcome.input,
        # places for the page's script: operands at the caret, brackets that match, all parts
        "operands": _places(outcome.operands),
        "brackets": _places(outcome.brackets),
        "parts": _places(outcome.parts),
    }


def _joined(parts: Iterable[str]) -> SafeString:
    return mark_safe("".join(parts))  # noqa: S308 - each was escaped


def _statements(outcome: SoFar) -> Iterator[SafeString]:
    """What was read, and its value where it has one."""
    for at, reading in enumerate(outcome.readings):
        yield format_html(READING, mark_safe(reading))  # noqa: S308 - MathML of the engine
        if at < len(outcome.answers):
            answer = outcome.answers[at]
            value = mark_safe(answer.value_mathml)  # noqa: S308
            yield format_html(VALUE, answer.text, answer.sign, answer.sign, value)


def _places(spans: Iterable[Span]) -> str:
    return " ".join(f"{start},{end}" for start, end in spans)


def _made_card(card: Card | None) -> SafeString:
    return render_to_string("console/hint.html", {"hint": card, "oob": True})


_known_card = lru_cache(MOST_CARDS)(_made_card)


def _card(card: Card | None) -> SafeString:
    has_number = card is not None and card.number_line is not None  # which is hardly typed again
    return (_made_card if has_number else _known_card)(card)


def _row(found: Completion) -> str:
    """A row of the list, which says what it replaces."""
    rest = _rest_of_row(
        found.name, found.insert, found.back, found.pattern, found.summary, found.kind
    )
    return f'<li data-start="{found.start}" data-end="{found.end}"{rest}'


@lru_cache(MOST_ROWS)
def _rest_of_row(
    name: str, insert: str, back: int, pattern: str, summary: str, kind: str
) -> SafeString:
    return format_html(
        ' role="option" aria-selected="false" data-name="{}" data-insert="{}" data-back="{}">'
        "<code>{}</code><span>{}</span><small>{}</small></li>",
        name, insert, back, pattern, summary, kind,
    )  # fmt: skip
