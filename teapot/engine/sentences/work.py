"""Of limits of work."""

from teapot.engine.errors import Problem

TOO_SLOW = Problem("too-slow", "This takes more than {seconds:g} s of computing, and was stopped.")

STARVED = Problem(
    "starved",
    "The server is too busy: this got too little computing time in {seconds:g} s. Try it again.",
)

NOT_IN_TIME = Problem("not-in-time", "This could not be worked out in time. Try it again.")

STOPPED_BY_HAND = Problem("stopped-by-hand", "It was stopped.")

TOO_MUCH_MEMORY = Problem("too-much-memory", "This needs more memory than one line may use.")

UNFORESEEN = Problem(
    "unforeseen",
    "Teapot failed on this line. It was noted, and the line stays in the entry.",
)

BUSY = Problem("busy", "Teapot is busy with other lines just now. Try it again in a moment.")

STILL_READING = Problem(
    "still-reading",
    "This sheet is so long that it is read in parts: there is {percent} % of it so far.",
)

SLOWED_DOWN = Problem(
    "slowed-down",
    "Lines of yours ran into limits again and again. The next one is worked out in {seconds} s.",
)
