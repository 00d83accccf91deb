"""What cannot be worked out again: a random draw, today's date, the time now, a reply.

Each value is drawn once and then stays with its line.
"""

from __future__ import annotations

import re
from datetime import datetime

from flint import fmpq

from teapot.engine.errors import Asks, LineError
from teapot.engine.functions.record import Function, Parameter
from teapot.engine.numbers.context import current
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Date,
    Exact,
    List,
    Measure,
    Real,
    Uncertain,
    Value,
    exact,
    kind_in_words,
)
from teapot.engine.reading.described import Example
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import NOWHERE, Text
from teapot.engine.sentences.functions import ASKED_LATER, DRAWN_LATER, NOT_A_TEXT
from teapot.engine.sentences.values import (
    NO_DATE_IN_TEXT,
    NO_DAY,
    NOTHING_TO_DRAW_FROM,
    OTHER_KIND,
    REPLY_WITHOUT_UNIT,
)

SUBJECT = "chance, dates and questions"
SOURCE = "common practice of the trade"
FIGURES = 15
"""Decimal places of a random number between 0 and 1."""


def random(of: Value | None = None) -> Value:
    """A number from 0 up to 1, all equally likely; of a list one of its items.

    Errors: :class:`LineError` for an empty list, or what is no list.
    """
    draws = current().draws
    if of is None:
        drawn = draws.next(lambda: str(draws.draw(10**FIGURES)), DRAWN_LATER)
        return exact(fmpq(int(drawn), 10**FIGURES))
    if not isinstance(of, List) or not of.items:
        raise NOTHING_TO_DRAW_FROM()
    place = draws.next(lambda: str(draws.draw(len(of.items))), DRAWN_LATER)
    return of.items[int(place) % len(of.items)]


def now() -> Value:
    """The moment at which the line was kept."""
    draws = current().draws
    moment = draws.next(lambda: draws.now().isoformat(timespec="seconds"))
    return Date(datetime.fromisoformat(moment), with_time=True)


def today() -> Value:
    """The day on which the line was kept."""
    draws = current().draws
    moment = draws.next(lambda: draws.now().date().isoformat())
    return Date(datetime.fromisoformat(moment))


DAY_FIRST = re.compile(r"\s*(\d{1,2})\s*\.\s*(\d{1,2})\s*\.\s*(\d{4})\s*")
YEAR_FIRST = re.compile(r"\s*(\d{4})-(\d{1,2})-(\d{1,2})\s*")


def date(text: Value) -> Value:
    """The day that ``text`` names, with the year first and bars, or with the day first and points.

    Errors: :class:`LineError` for a text that names no day so, and for what is no text.
    """
    if not isinstance(text, str):
        raise NOT_A_TEXT()
    first, last = YEAR_FIRST.fullmatch(text), DAY_FIRST.fullmatch(text)
    figures = first.groups() if first else last.groups()[::-1] if last else None
    if figures is None:
        raise NO_DATE_IN_TEXT(text=text)
    try:
        return Date(datetime(*map(int, figures)))  # type: ignore[arg-type]
    except ValueError:
        raise NO_DAY(typed=text.strip()) from None


def ask(question: Value, preset: Value | None = None) -> Value:
    """The value that the person replies to ``question``, a text; ``preset`` is suggested, and
    the reply is of its kind.

    Errors: :class:`Asks` where there is no reply yet, or one that does not fit.
    """
    if not isinstance(question, str):
        raise NOT_A_TEXT()
    work = current()
    replies = work.draws.replies
    if question in replies.values:
        return _fitting(question, replies.values[question], preset)
    if replies.takes_presets:
        if preset is None:
            raise Asks(question, 0)
        return preset
    return work.value_of(work.draws.next(lambda: _reply_to(question, preset), ASKED_LATER))


def _reply_to(question: str, preset: Value | None) -> str:
    work = current()
    replies = work.draws.replies
    reply = replies.next()
    if reply is None:
        raise Asks(question, replies.taken, preset=preset)
    try:
        reply = as_reply(reply, preset)
        check_kind(work.value_of(reply), preset)
    except LineError as error:
        raise Asks(question, replies.taken, error.text, preset) from None
    replies.taken += 1
    return reply


def _fitting(question: str, value: Value, preset: Value | None) -> Value:
    try:
        check_kind(value, preset)
    except LineError as error:
        raise Asks(question, 0, error.text, preset) from None
    return value


def as_reply(reply: str, preset: Value | None) -> str:
    """A reply as it is worked out: where text is asked for, what has no quotation marks is
    one all the same."""
    if not isinstance(preset, str) or reply.lstrip()[:1] == '"':
        return reply
    return node_text(Text(NOWHERE, (reply.strip(),)))


def check_kind(value: Value, preset: Value | None) -> None:
    """Errors: :data:`OTHER_KIND` where a reply is of another kind than what is suggested."""
    if preset is None:
        return
    value, preset = (one.nominal if isinstance(one, Uncertain) else one for one in (value, preset))
    kinds = next((kinds for kinds in ALIKE if isinstance(preset, kinds)), (type(preset),))
    if not isinstance(value, kinds):
        if isinstance(preset, Measure) and isinstance(value, Exact | Real):
            raise REPLY_WITHOUT_UNIT(unit=preset.unit.text)
        wanted, kind = (kind_in_words(one) for one in (preset, value))
        raise OTHER_KIND(wanted=wanted, kind=kind)


ALIKE: tuple[tuple[type, ...], ...] = (
    (Exact, Real), (Exact, Real, Complex), (str,), (Date,),
)  # fmt: skip
"""Kinds of value of which one may be replied where another is suggested."""


FUNCTIONS = (
    Function(
        name="random",
        subject=SUBJECT,
        summary="A number drawn by chance, from 0 up to 1 or from a list; it stays with its line.",
        parameters=(Parameter("of", "a list or a range to draw from", "a list", optional=True),),
        compute=random,
        examples=(Example("random([7])", "=", "7"), Example("0 <= random() < 1", "=", "true")),
        value="a number, or an item of the list",
        related=("today",),
        confused_with="a number that changes every time it is looked at: a line keeps its draw.",
        words="dice draw chance lottery sample rand randint",
        source=SOURCE,
        accepts=(List,),
    ),
    Function(
        name="today",
        subject=SUBJECT,
        summary="The day on which the line was kept.",
        parameters=(),
        compute=today,
        examples=(
            Example("today() - today()", "=", "0 d"),
            Example("today() == today()", "=", "true"),
        ),
        value="a date",
        related=("now",),
        words="date day calendar",
        source=SOURCE,
        confused_with="now(), which tells the time of the day too.",
    ),
    Function(
        name="now",
        subject=SUBJECT,
        summary="The moment at which the line was kept, by the clock of where you are.",
        parameters=(),
        compute=now,
        examples=(
            Example("now() >= today()", "=", "true"),
            Example("now() - now() < 1 s", "=", "true"),
        ),
        value="a date with its time",
        related=("today",),
        words="time clock date moment",
        source=SOURCE,
        confused_with="today(), the day alone.",
    ),
    Function(
        name="date",
        subject=SUBJECT,
        summary="The day that a text names: 2024-03-01, or 1.3.2024 with the day first.",
        parameters=(Parameter("text", "the day, with its year in four figures", is_text=True),),
        compute=date,
        examples=(
            Example('date("30.11.2026")', "=", "2026-11-30"),
            Example('date("2026-11-30") - 2026-11-01', "=", "29 d"),
        ),
        value="a date",
        related=("today", "now"),
        words="day calendar month year parse",
        source="ISO 8601, calendar dates",
        confused_with="a day that is typed: 2026-11-30 needs no function.",
    ),
    Function(
        name="ask",
        subject=SUBJECT,
        summary="Asks a question when the line is kept; the reply is its value and stays with it.",
        parameters=(
            Parameter("question", "what is asked", "text", is_text=True),
            Parameter("preset", "what is suggested; the reply is of its kind", optional=True),
        ),
        compute=ask,
        accepts=(List, Angle, Measure, Uncertain, Complex, str, bool, Date),
        examples=(
            Example('ask("mass of water, kg", 1.2) * 4', "=", "6", ("1.5",)),
            Example('ask("How warm is the water, in °C?") + 273.15', "=", "358.15", ("85",)),
            Example('ask("Which angle?") as rad', "=", "(pi/6) rad", ("30°",)),
        ),
        value="the value of the reply",
        related=("random",),
        confused_with="a value that is asked for every time: a line keeps its reply.",
        words="input prompt enter question reply user keyboard read",
        source=SOURCE,
    ),
)
