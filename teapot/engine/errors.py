"""A line that cannot be answered: what is wrong, where, and the mends that can be clicked.

What can be wrong is a :class:`Problem`; all of them stand in :mod:`teapot.engine.sentences`.  An
error is made of one with the facts that its sentence names::

    >>> NO_ITEM = Problem("no-item", "The list has {count} items; there is no item {place}.")
    >>> error = NO_ITEM(count=4, place=7)
    >>> error.code, error.text
    ('no-item', 'The list has 4 items; there is no item 7.')
    >>> error.is_a(NO_ITEM)
    True
"""

from __future__ import annotations

from dataclasses import dataclass

from teapot.engine.mends import Mend, Notice, Span


@dataclass(frozen=True, slots=True)
class Problem:
    """Something that can be wrong with a line, or be said beside its answer.

    ``code`` names it for programs; problems that differ in their ``sentence`` alone share it.
    ``in_a_function`` is added where it is met in the body of a function.
    """

    code: str
    sentence: str
    in_a_function: str = ""

    def __call__(
        self, span: Span | None = None, mends: tuple[Mend, ...] = (), **facts: object
    ) -> LineError:
        """The error, with the ``facts`` put into its sentence."""
        return LineError(self, span, mends, **facts)

    def notice(self, mends: tuple[Mend, ...] = (), **facts: object) -> Notice:
        """The notice beside an answer, with the ``facts`` put into its sentence."""
        return Notice(self.code, self.sentence.format(**facts), mends)


class LineError(Exception):
    """A line that cannot be answered.

    Arguments: ``problem`` is what is wrong; ``span`` the place, where there is one; ``mends`` are
    the changes offered; ``facts`` are put into the sentence.  ``inside`` names the function in
    whose body it is; ``contested`` has the places at which a quantity's name could be a unit.
    """

    def __init__(
        self,
        problem: Problem,
        span: Span | None = None,
        mends: tuple[Mend, ...] = (),
        **facts: object,
    ) -> None:
        self.problem = problem
        self.text = problem.sentence.format(**facts)
        super().__init__(self.text)
        self.span = span
        self.mends = mends
        self.inside = ""
        self.contested: frozenset[int] = frozenset()

    @property
    def code(self) -> str:
        """The name of its kind for programs."""
        return self.problem.code

    def is_a(self, *problems: Problem) -> bool:
        """Whether it is of the kind of one of these."""
        return any(self.code == one.code for one in problems)

    def in_body_of(self, function: str) -> LineError:
        """The same error in the body of a function: its place is in the line that makes
        the function, not in the one that calls it, and no mend of that one would help."""
        if not self.inside:
            self.inside = function
            more = self.problem.in_a_function.format(function=function)
            self.text = f"In {function}: {self.text}{more}"
        self.span, self.mends = None, ()
        return self

    def at(self, span: Span) -> LineError:
        """The same error with a place, unless it has one already."""
        if self.span is None:
            self.span = span
        return self


UNFINISHED = Problem("unfinished", "{missing}")
ASKS = Problem("asks", "{asked}")


class Unfinished(LineError):
    """Input that still waits for something: a bracket, or an operand.

    ``closing`` is the text that would end it, empty where only the person can know.
    """

    def __init__(self, missing: str, span: Span, closing: str = "") -> None:
        mends = (Mend(f"close with {closing}", Span(span.end, span.end), closing),)
        super().__init__(UNFINISHED, span, mends if closing else (), missing=missing)


class Asks(LineError):
    """A line that waits for the person's reply to a ``question``.

    ``taken`` is how many replies it has taken already; ``said`` what is wrong with the
    last one, if there was one; ``preset`` the value that is suggested; ``key`` what a value for it
    is handed over to a procedure under.
    """

    def __init__(
        self,
        question: str,
        taken: int,
        said: str = "",
        preset: object | None = None,
        key: str = "",
    ) -> None:
        super().__init__(ASKS, asked=f"{said} {question}" if said else question)
        self.question = question
        self.taken = taken
        self.said = said
        self.preset = preset
        self.key = key
