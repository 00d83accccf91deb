"""The mends that a line is offered: those that work, and, of a line with several slips, those that
work with further ones after them."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Container, Iterator, Sequence

from teapot.engine.diagnostics.letters_of_constants import OF_UNITS, constant_for_unit
from teapot.engine.diagnostics.unknown_names import beside_others, counted_in_units
from teapot.engine.errors import LineError, Problem, Unfinished
from teapot.engine.mends import Mend, Span, everywhere
from teapot.engine.sentences.analysis import WRITTEN_AS_CALL
from teapot.engine.sentences.foreign import IN_PARALLEL, PART_CODE
from teapot.engine.sentences.functions import TOO_MANY_ARGUMENTS
from teapot.engine.sentences.names import (
    BAD_NAME,
    UNKNOWN_FUNCTION,
    UNKNOWN_NAME,
    WRITTEN_OTHERWISE,
)
from teapot.engine.sentences.units import (
    NUMBER_OVER_ANGLE,
    POWER_IS_MEASURE,
    PREFIX_ALONE,
    TAKES_PLAIN_NUMBER,
)
from teapot.engine.sentences.unreadable import NO_BRACKETS, SIDE_BY_SIDE
from teapot.engine.sheet.outcome import Outcome

IN_STEPS = (
    UNKNOWN_FUNCTION,
    SIDE_BY_SIDE,
    NO_BRACKETS,
    TOO_MANY_ARGUMENTS,
    PREFIX_ALONE,
    NUMBER_OVER_ANGLE,
    TAKES_PLAIN_NUMBER,
    BAD_NAME,
    PART_CODE,
    IN_PARALLEL,
    POWER_IS_MEASURE,
    WRITTEN_AS_CALL,
)
"""Errors that a line may have several of: each mend leads to the next."""

WITH_CHOICE = (NO_BRACKETS, TAKES_PLAIN_NUMBER, BAD_NAME)
"""Those of which the next error is a choice, and the logarithm of a measure may be left."""

MOST_STEPS = 4

MOST_WAYS = 3
"""Mends in steps that are offered for one line."""

ErrorOf = Callable[[str], LineError | None]
"""The error of a text in the place of a line; None where it would be answered, or only lacks a
value."""


def with_mends_that_work(outcome: Outcome, known: Container[str], error_of: ErrorOf) -> Outcome:
    """The outcome of a line with those of its mends that would be answered; ``known`` are the names
    that have a value before it."""
    error, text = outcome.error, outcome.input
    if isinstance(error, Unfinished):
        return outcome
    if error is not None:
        _complete(error, text, known)
    offered = error.mends if error is not None and error.is_a(*IN_STEPS) else ()
    outcome = outcome.with_mends(lambda mend: any(_in_steps(mend, text, error_of)))
    if error is not None and offered and not error.mends:
        error.mends = _of_several_slips(error, offered, text, error_of)
    return outcome


def _complete(error: LineError, text: str, known: Container[str]) -> None:
    """Gives the mends of an error what the rest of the line tells of them."""
    if error.is_a(WRITTEN_OTHERWISE):
        beside_others(error, text)
    if error.is_a(UNKNOWN_NAME) and error.span is not None:
        error.mends = tuple(everywhere(one, error.span, text) for one in error.mends)
    if error.is_a(UNKNOWN_NAME) and any(one.ends_line for one in error.mends):
        error.mends = counted_in_units(text, known) or error.mends
    meant = constant_for_unit(text, known) if error.is_a(*OF_UNITS) else None
    if meant is not None:
        error.mends = (meant[1], *error.mends)


def _of_several_slips(
    error: LineError, offered: Sequence[Mend], text: str, error_of: ErrorOf
) -> tuple[Mend, ...]:
    """The mends that work with further ones after the first that is ``offered``, as
    ``avg(1, 2)`` becomes ``mean([1, 2])``."""
    if error.is_a(NUMBER_OVER_ANGLE):  # one is chosen for all places
        each = (_in_steps(one, text, error_of, MOST_STEPS, at) for at, one in enumerate(offered))
        return tuple(itertools.chain.from_iterable(each))
    has_choice = error.is_a(*WITH_CHOICE)
    # ln 2/(3 s) is rather ln(2)/(3 s) than the logarithm of a measure
    for without in ((TAKES_PLAIN_NUMBER,), ()) if has_choice else ((TAKES_PLAIN_NUMBER,),):
        ways = _in_steps(offered[0], text, error_of, MOST_STEPS, without=without)
        found = tuple(itertools.islice(ways, MOST_WAYS if has_choice else 1))
        if found:
            return found
    return ()


def _in_steps(
    mend: Mend,
    text: str,
    error_of: ErrorOf,
    further: int = 0,
    choice: int | None = None,
    without: tuple[Problem, ...] = (),
) -> Iterator[Mend]:
    """This mend where it works, else those that work with so many ``further`` ones, each the one of
    a ``choice`` where that is given; none leads over an error that is one of ``without``."""
    mended = mend.apply(text)
    if not mended.strip(" ()"):
        return
    error = error_of(mended)
    if error is None:
        yield mend
    elif further and not error.is_a(*without):
        at = 0 if error.is_a(TOO_MANY_ARGUMENTS) else choice
        for next_one in error.mends if at is None else error.mends[at : at + 1]:
            whole = Mend(mend.label, Span(0, len(text)), next_one.apply(mended))
            yield from _in_steps(whole, text, error_of, further - 1, choice, without)
