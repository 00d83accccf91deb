"""What a first visit is shown in place of an empty page."""

from __future__ import annotations

from dataclasses import dataclass

from teapot.accounts.models import Person
from teapot.console.models import Line


@dataclass(frozen=True, slots=True)
class Try:
    """A ``text`` to be put into the entry, and what is ``said`` of it."""

    text: str
    said: str


TRIES = (
    Try("2/3 + 1/7", "a fraction, read back as it is printed, exact and as a decimal"),
    Try("sin(30°) + cos(2 rad)", "each angle keeps its unit"),
    Try("60 km/h in m/s", "units are carried along and converted"),
    Try("graph(sin(x)/x, x = -10..10)", "drawn so that no zero, pole or fold is missed"),
    Try("cups = 4\ntea = 2.5*cups\ncups = 6", "a value computed from one that changed says so"),
    Try("(5 + 2^3)*4/sqrt(16)", "keep it, then open its workings: every step, and as boxes"),
)


def tries_for(person: Person) -> tuple[Try, ...]:
    """The things to try, for somebody who never kept a line."""
    has_begun = Line.objects.filter(sheet__owner=person).exists()
    return () if has_begun else TRIES
