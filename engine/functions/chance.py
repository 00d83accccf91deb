"""What cannot be worked out again: a random draw, today's date, the time now.

Each value is drawn once and then stays with its line.
"""

from __future__ import annotations

import secrets
from datetime import datetime

from flint import fmpq

from engine.errors import LineError
from engine.functions.record import Example, Function, Parameter
from engine.numbers.context import current
from engine.numbers.values import Date, List, Value, exact

SUBJECT = "chance and dates"
SOURCE = "common practice of the trade"
FIGURES = 15
"""Decimal places of a random number between 0 and 1."""


def random(of: Value | None = None) -> Value:
    """A number from 0 up to 1, all equally likely; of a list one of its items.

    Errors: :class:`LineError` for an empty list, or what is no list.
    """
    given = current().given
    if of is None:
        drawn = given.next(lambda: str(secrets.randbelow(10**FIGURES)), is_chance=True)
        return exact(fmpq(int(drawn), 10**FIGURES))
    if not isinstance(of, List) or not of.items:
        raise LineError("not-a-list", "It is drawn from a list or a range, as in random(1..6).")
    place = given.next(lambda: str(secrets.randbelow(len(of.items))), is_chance=True)
    return of.items[int(place) % len(of.items)]


def now() -> Value:
    """The moment at which the line was kept."""
    moment = current().given.next(lambda: datetime.now().isoformat(timespec="seconds"))
    return Date(datetime.fromisoformat(moment), with_time=True)


def today() -> Value:
    """The day on which the line was kept."""
    moment = current().given.next(lambda: datetime.now().date().isoformat())
    return Date(datetime.fromisoformat(moment))


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
        taken_for="a number that changes every time it is looked at: a line keeps its draw.",
        words="dice draw chance lottery sample",
        source=SOURCE,
        takes=(List,),
    ),
    Function(
        name="today",
        subject=SUBJECT,
        summary="The day on which the line was kept.",
        parameters=(),
        compute=today,
        examples=(
            Example("today() - today()", "=", "0"),
            Example("today() == today()", "=", "true"),
        ),
        value="a date",
        related=("now",),
        words="date day calendar",
        source=SOURCE,
    ),
    Function(
        name="now",
        subject=SUBJECT,
        summary="The moment at which the line was kept, in the time of the server.",
        parameters=(),
        compute=now,
        examples=(
            Example("now() >= today()", "=", "true"),
            Example("now() - now() < 1", "=", "true"),
        ),
        value="a date with its time",
        related=("today",),
        words="time clock date moment",
        source=SOURCE,
    ),
)
