"""What a statement is worked out under, and what is said by the way.

The conventions of a line change what its signs mean: whether the 30 in ``sin(30)``
are radians or degrees.  What cannot be worked out again, such as a random draw, is
:class:`NondeterministicInputs`.  All of it is at hand for the operations while :func:`working`
lasts.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextvars import ContextVar
from dataclasses import dataclass, field
from datetime import datetime
from hashlib import sha256
from random import SystemRandom

from teapot.engine.errors import Problem
from teapot.engine.mends import Mend, Notice, Span, replace
from teapot.engine.numbers.shelf import EMPTY_SHELF, ProcedureText, Shelf
from teapot.engine.numbers.values import Value
from teapot.engine.pickling import compactly_pickled
from teapot.engine.sentences.values import GIVEN_IN_REPLY

_chance = SystemRandom()


@compactly_pickled
@dataclass(frozen=True, slots=True)
class Conventions:
    """``angle``: the unit of a bare number that is read as an angle, and of angles
    that are computed.  ``log``: what ``log(x)`` means with no base; "ask", "natural"
    or "decimal".  ``numbers``: "complex", or "real" where no value leaves the reals.
    ``units``: how a name is read that is a unit and a quantity both; by the "dimensions" of what
    either gives, or, in lines that were kept before December 2026, by the "names" alone, so that it
    is the quantity.
    """

    angle: str = "rad"
    log: str = "ask"
    numbers: str = "complex"
    units: str = "dimensions"

    @property
    def are_of_old(self) -> bool:
        """Whether the line was kept before December 2026: what it means stays."""
        return self.units == "names"


STANDARD = Conventions()


@dataclass(slots=True)
class Replies:
    """What the person has replied to the questions of a line, in their order; in a procedure
    the values for its questions, which ``takes_presets`` for the others."""

    texts: Sequence[str] = ()
    taken: int = 0
    values: Mapping[str, Value] = field(default_factory=dict)
    takes_presets: bool = False

    def next(self) -> str | None:
        """The next reply; None where there is none yet."""
        return self.texts[self.taken] if self.taken < len(self.texts) else None


Run = Callable[[ProcedureText, Mapping[str, Value]], Value]
"""Gives the last answer of a procedure, with values for the quantities that it asks for."""


def no_run(procedure: ProcedureText, given: Mapping[str, Value]) -> Value:
    """What stands for it where no procedure can be run."""
    raise GIVEN_IN_REPLY()


@dataclass(slots=True)
class NondeterministicInputs:
    """What a statement was given when it was kept: random draws, today's date, replies.

    ``values`` are used in their order; where they end, a new one is made, unless
    ``may_draw`` is not set: then the value waits until the line is kept.  A reply is
    worked out with one that is ``sealed``: it is given nothing itself.  ``now`` tells the
    time of where the person is.  Numbers are drawn from ``seed``, if there is one.  Of a
    table on the ``shelf`` the version is drawn.  ``run`` runs a procedure of the shelf.
    """

    values: list[str] = field(default_factory=list)
    may_draw: bool = True
    at: int = 0
    replies: Replies = field(default_factory=Replies)
    sealed: bool = False
    now: Callable[[], datetime] = datetime.now
    seed: str = ""
    shelf: Shelf = EMPTY_SHELF
    run: Run = no_run

    def draw(self, bound: int) -> int:
        """A whole number from 0 up to ``bound``, all equally likely."""
        if not self.seed:
            return _chance.randrange(bound)
        drawn = sha256(f"{self.seed}/{len(self.values)}".encode()).digest()
        return int.from_bytes(drawn) % bound

    def next(self, make: Callable[[], str], later: Problem | None = None) -> str:
        """The next value; ``make`` gives it where there is none yet.

        Errors: ``later``, if there is one, where it may not be made yet.
        """
        if self.sealed:
            raise GIVEN_IN_REPLY()
        if self.at == len(self.values):
            if later and not self.may_draw:
                raise later()
            self.values.append(make())
        self.at += 1
        return self.values[self.at - 1]


@dataclass(slots=True)
class NestedInputs(NondeterministicInputs):
    """What a statement of a procedure is given: it is drawn for the ``outer`` one that runs it,
    and kept there."""

    outer: NondeterministicInputs = field(default_factory=NondeterministicInputs)

    def draw(self, bound: int) -> int:
        return self.outer.draw(bound)

    def next(self, make: Callable[[], str], later: Problem | None = None) -> str:
        return self.outer.next(make, later)


def _value_of_nothing(reply: str) -> Value:
    """What stands for the reading of replies where nobody is asked."""
    raise GIVEN_IN_REPLY()


@dataclass(slots=True)
class Work:
    """One statement under way.  ``used_unit`` is set as soon as its value depends on
    the unit of the conventions; ``depth`` counts the calls of one's own functions inside
    each other; ``call`` is the place of the call under way; ``value_of`` gives the
    value of a reply, which holds no names of the sheet."""

    conventions: Conventions = STANDARD
    notices: list[Notice] = field(default_factory=list)
    draws: NondeterministicInputs = field(default_factory=NondeterministicInputs)
    used_unit: bool = False
    depth: int = 0
    call: Span | None = None
    value_of: Callable[[str], Value] = _value_of_nothing


_work: ContextVar[Work | None] = ContextVar("work", default=None)


class working:
    """Within it, ``work`` is the statement under way."""

    def __init__(self, work: Work) -> None:
        self.work = work

    def __enter__(self) -> Work:
        self.work.draws.at = 0
        self.token = _work.set(self.work)
        return self.work

    def __exit__(self, *error: object) -> None:
        _work.reset(self.token)


def current() -> Work:
    """The statement under way; one of the standard where there is none."""
    return _work.get() or Work()


def notice(problem: Problem, argument: str = "", **facts: object) -> None:
    """A notice on the operation at hand, for the person: once for each code.

    ``argument``, where there is one, is what the call at hand would be given besides
    to do the other thing: it is offered as a mend.
    """
    work = current()
    if any(known.code == problem.code for known in work.notices):
        return
    mends: tuple[Mend, ...] = ()
    if argument and work.call is not None and not work.depth:
        end = Span(work.call.end - 1, work.call.end - 1)
        mends = (replace(end, f", {argument}"),)
    work.notices.append(problem.notice(mends, **facts))


def conventions() -> Conventions:
    """Those of the statement under way."""
    return current().conventions


def unit() -> str:
    """The unit of bare angles.  The value now depends on it."""
    work = current()
    work.used_unit = True
    return work.conventions.angle
