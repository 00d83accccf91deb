"""Of procedures and runs."""

from teapot.engine.errors import Problem

NO_PROCEDURE = Problem("no-procedure", "There is no procedure {name} on your shelf.{known}")

IN_BIN = Problem(
    "in-bin", "The {what} {name} is in the bin. The shelf has a button that brings it back."
)

RENAMED = Problem("renamed", "The {what} {name} is called {now} now.")

RUNS_ITSELF = Problem("runs-itself", "A procedure cannot run itself: {circle}.")

STOPS_AT = Problem("stops-at", "{name} stops at its line {line}: {why}")

NO_ANSWER_OF_RUN = Problem(
    "no-answer-of-run",
    "{name} has no answer: run gives the last line with a value, and no line has one.",
)

NOT_ASKED = Problem("not-asked", "{name} does not ask for {given}. It asks for {asked}.")

WANTS_LIST = Problem("wants-list", "This needs a list of values, such as 1..3 by 0.5 or [1, 2, 5].")
