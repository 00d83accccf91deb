"""Of procedures and runs."""

from teapot.engine.errors import Problem

NO_PROCEDURE = Problem("no-procedure", "There is no procedure {name} on the shelf.{known}")

RUNS_ITSELF = Problem("runs-itself", "A procedure cannot run itself: {circle}.")

STOPS_AT = Problem("stops-at", "{name} stops at its line {line}: {why}")

NO_ANSWER_OF_RUN = Problem(
    "no-answer-of-run",
    "{name} has no answer: its last line with a value is what run gives.",
)

NOT_ASKED = Problem("not-asked", "{name} asks for no {given}. It asks for {asked}.")

WANTS_LIST = Problem("wants-list", "A list of values is wanted, such as 1..3 by 0.5 or [1, 2, 5].")
