"""Procedures of the shelf, run inside of an expression."""

from __future__ import annotations

from collections.abc import Mapping

from teapot.engine.functions.record import Delayed, Function, Parameter
from teapot.engine.numbers.context import current
from teapot.engine.numbers.values import Value
from teapot.engine.reading.described import Example
from teapot.engine.sentences.functions import NOT_A_TEXT

SUBJECT = "procedures"


def run(name: Delayed, given: Mapping[str, Delayed]) -> Value:
    """The last answer of a procedure of the shelf; the line keeps the version that it has now.

    The quantities that it asks for can be ``given`` by their names; the others have the values
    that it suggests.
    Errors: :class:`LineError` where there is no such procedure, or where it stops.
    """
    wanted = name.value()
    if not isinstance(wanted, str):
        raise NOT_A_TEXT()
    draws = current().draws
    version = draws.next(lambda: draws.shelf.procedure_version_of(wanted))
    procedure = draws.shelf.procedure(version)
    return draws.run(procedure, {key: value.value() for key, value in given.items()})


FUNCTIONS = (
    Function(
        name="run",
        subject=SUBJECT,
        summary="The last answer of a procedure of the shelf, with values for what it asks.",
        parameters=(
            Parameter("name", "the name of the procedure, a text", "a text", is_text=True),
            Parameter("quantity", "a value for what it asks, under its name", optional=True),
        ),
        compute=run,
        examples=(
            Example('run("heating time")', "≈", "254.4431373 s"),
            Example('run("heating time", P = 900 W)', "≈", "508.8862745 s"),
        ),
        value="the value of its last line",
        related=("ask", "shelf"),
        names_columns=True,
        confused_with="/run, which puts the lines of a procedure into the sheet.",
        words="procedure program macro subroutine call stored script",
        source="common practice of the trade",
    ),
)
